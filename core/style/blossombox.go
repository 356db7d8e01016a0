package style

import (
	"fmt"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	blossomLiner = &Parameter{
		ID: "liner", Label: "Liner", Default: 31 * measure.Inch / 8, Min: 24 * mm, Max: 200 * mm,
		About: "M: the liner's clear square, as large as the base lets in; its sheet is twice as long",
		Follows: func(s Spec) measure.Length {
			return max(measure.Up(24*mm, 2*s.Tick), measure.Down(s.linerSpace()-snugGap, 2*s.Tick))
		},
	}
	blossomDrop = &Parameter{
		ID: "drop", Label: "Below the rim", Default: 0, Min: 0, Max: mm,
		About: "How far below the rim the liner is folded: a little, and its points open to about upright; nothing, and they open right out",
	}
)

var blossomBox = &Style{
	ID: "blossom-box", Name: "Blossom box", About: "A square base whose folded liner closes over the top in four points, and a lid",
	For:   []Use{ForFavours, ForGifts},
	Suits: []string{"candle", "ring", "macaron"},
	Opens: "the lid lifts off, four points open", Strength: "good: a liner inside the walls",
	Weights:    map[string]float64{"liner": 160}, // five layers lie on one another
	Parameters: []*Parameter{length, height, blossomLiner, blossomDrop},
	Options:    trayLid.Options,
	Axes:       [3]*Parameter{length, length, height},
	Allowance:  lidAllowance,
	Build:      buildBlossomBox,
}

// blossomBase is the base as it stands round the liner.
func (s Spec) blossomBase() trayShape {
	base := s.trayShape("base", "Base", s.Size(length), s.Size(length), s.Size(height))
	if s.Choice(lidCustom) == "smaller-base" {
		base.length, base.width = base.length-s.Length(lidAllowance), base.width-s.Length(lidAllowanceWidth)
	}
	if s.Choice(baseWalls) == "double" {
		base.lining = base.height
	}
	return base
}

// linerSpace is how large a liner, between folds, just goes into the base.
func (s Spec) linerSpace() measure.Length {
	base := s.blossomBase()
	along, across := base.layers()
	t := s.Card("base")
	return min(base.length-t*measure.Length(1+along), base.width-t*measure.Length(1+across)) - s.Card("liner")
}

// leastInner is how deep the liner's inner triangles must reach to hold it.
const leastInner = 10 * measure.Millimetre

// linerPlay is the most, both sides together, by which a liner may be smaller
// than the base lets in.
const linerPlay = 5 * measure.Millimetre

// fins is how many cards lie over one another in the middle when the fins are
// laid down.
const fins = 5

func buildBlossomBox(s Spec) (*Box, error) {
	h, liner, drop := s.Size(height), s.Size(blossomLiner), s.Size(blossomDrop)
	space := s.linerSpace()
	s.most(blossomLiner.limited(), space, "the base's walls are bent outwards by it, and it may buckle")
	s.least(blossomLiner.limited(), space-linerPlay, "it stands off the base's walls, and glue holds it only where they are pressed together")
	t := s.Card("liner")
	trim := measure.Up(max(0, liner/2+drop+t-h), s.cutting())
	if liner/2-trim < leastInner {
		return nil, outOfRange("size.height", "the height must be at least %s, for the liner to be glued inside", s.show(measure.Up(leastInner+drop+t, s.Tick)))
	}
	as := s.as(trayLid)
	as.remarks = s.remarks // base and lid are the box's own
	as.Lengths[width.ID] = s.Size(length)
	box, err := buildTrayLid(as)
	if err != nil {
		return nil, err
	}
	inside, err := s.liner(blossom{half: liner.MM() / 2, trim: trim.MM()}, drop)
	if err != nil {
		return nil, err
	}
	if trim > 0 {
	}
	rim := h - drop
	inside.At = r3.Vec{Z: (rim - liner/2 + trim).MM()}
	box.Parts = append(box.Parts, inside)
	base, lid := s.blossomBase(), &box.Parts[1]
	stands := max(0, fins*t-drop)
	lid.At.Z += stands.MM()
	lid.Away.Z += liner.MM()
	into := base.over(trayShape{id: "liner", name: "Liner", length: liner, width: liner}, fit.InBox, s.Card("base"), t)
	over := fit.Pair{Kind: fit.RestsOn, Outer: "lid", Inner: "liner", OuterName: "Lid", InnerName: "Liner's points", Axis: "height",
		InnerCard: t, InnerLayers: fins - 1, InnerWhat: "the folds of the points", OuterSpan: drop, OuterIs: "from the rim down to the liner's fold", InnerIs: "level"}
	box.Fits = append(box.Fits, append(into, over)...)
	tB := s.Card("base")
	side := min(liner, space) - t
	box.Room = Block(Extent{Length: side, Width: side, Height: rim - tB/2 - t/2}, r3.Vec{Z: tB.MM() / 2})
	box.Together = s.blossomTogether(drop)
	return box, nil
}

// liner is the folded liner; its folds lie drop below the rim.
func (s Spec) liner(flower blossom, drop measure.Length) (Part, error) {
	b := pattern.NewBuilder()
	faces := map[string]*pattern.Leaf{}
	for k, side := range blossomSides {
		inner := b.Polygon("inner."+side, flower.inner(k)...)
		b.Call(inner, fmt.Sprint("inner triangle ", k+1))
		up := pattern.Point{}
		up.X, up.Y = turned(0, -1, k)
		b.Upwards(up, inner)
		b.Elsewhere(inner, true, "base", nil, false)
		faces["inner."+side] = inner
		for _, f := range blossomFaces {
			corners := make([]pattern.Point, len(f.corners))
			for i, p := range f.corners {
				corners[i] = flower.at(p, k)
			}
			leaf := b.Polygon(f.name+"."+side, corners...)
			b.Role(pattern.Panel, leaf)
			faces[f.name+"."+side] = leaf
		}
	}
	for k, side := range blossomSides {
		next := blossomSides[(k+1)%4]
		b.Call(faces["petal."+side], fmt.Sprint("point ", k+1))
		b.Call(faces["strip."+side], fmt.Sprint("side triangle ", 2*k+1))
		b.Call(faces["half."+side], fmt.Sprint("half corner ", 2*k+1))
		b.Call(faces["next."+side], fmt.Sprint("half corner ", 2*k+2))
		b.Call(faces["follow."+side], fmt.Sprint("side triangle ", 2*k+2))
		b.Fold(faces["inner."+side], faces["petal."+side], 90, pattern.Away)
		b.Fold(faces["petal."+side], faces["strip."+side], 0, pattern.Towards)
		b.Fold(faces["strip."+side], faces["half."+side], 180, pattern.Away)
		b.Fold(faces["half."+side], faces["next."+side], 180, pattern.Towards)
		b.Fold(faces["next."+side], faces["follow."+side], 180, pattern.Away)
		b.Fold(faces["follow."+side], faces["petal."+next], 180, pattern.Towards)
		b.Slit(faces["inner."+side], faces["inner."+next])
		b.Against(faces["follow."+side], faces["petal."+next], true)
		b.Within(faces["next."+side], faces["follow."+side])
		b.Against(faces["half."+side], faces["next."+side], true)
	}
	p, err := b.Pattern()
	if err != nil {
		return Part{}, err
	}
	from := 0.0
	if drop > 0 {
		from = 90
	}
	way := func(at float64) ([]float64, error) { return flower.turns(p, from, at) }
	open, err := way(0)
	if err != nil {
		return Part{}, err
	}
	base := s.blossomBase()
	for i := range p.Glue {
		switch g := &p.Glue[i]; g.Face {
		case "inner.left", "inner.right":
			g.Play = (base.length - s.Size(blossomLiner)).MM() / 2
		case "inner.back", "inner.front":
			g.Play = (base.width - s.Size(blossomLiner)).MM() / 2
		}
	}
	for i := range p.Creases {
		p.Creases[i].Hinge, p.Creases[i].Opened = true, open[i]
	}
	return Part{
		ID: "liner", Name: "Liner", Pattern: p, Root: "inner.back", Opens: Upright, Way: way,
		Making: told(func() []hand.Move { return s.linerMaking(p, flower) }),
	}, nil
}

// linerMaking is how a hand makes the liner.
func (s Spec) linerMaking(p *pattern.Pattern, flower blossom) []hand.Move {
	m := s.make(p)
	half := s.Size(blossomLiner) / 2
	m.scoreFour(0, half)
	h := flower.half
	at := func(x, y float64) pattern.Point { return pattern.Pt(x*h, y*h) }
	m.do(hand.Mark{At: []pattern.Point{at(2, 0), at(4, 2), at(2, 4), at(0, 2)}, Said: hand.Say("middles")})
	m.do(hand.Score{Said: hand.Say("diamond"), Lines: []pattern.Segment{
		{A: at(2, 0), B: at(4, 2)}, {A: at(4, 2), B: at(2, 4)}, {A: at(2, 4), B: at(0, 2)}, {A: at(0, 2), B: at(2, 0)}}})
	m.do(hand.Score{Said: hand.Say("gusset-lines"), Lines: []pattern.Segment{
		{A: at(0, 0), B: at(1, 1)}, {A: at(4, 0), B: at(3, 1)}, {A: at(0, 4), B: at(1, 3)}, {A: at(4, 4), B: at(3, 3)}}})
	m.do(hand.Snip{Said: hand.Say("knife-cross"), Cuts: []pattern.Segment{{A: at(1, 1), B: at(3, 3)}, {A: at(3, 1), B: at(1, 3)}}})
	if e := flower.trim / h; e > 0 {
		m.do(hand.Snip{Said: said("blunt-tips", one("off", measure.FromMM(flower.trim))),
			Cuts: []pattern.Segment{
				{A: at(2-e, 2-e), B: at(2+e, 2-e)}, {A: at(2+e, 2-e), B: at(2+e, 2+e)},
				{A: at(2+e, 2+e), B: at(2-e, 2+e)}, {A: at(2-e, 2+e), B: at(2-e, 2-e)}},
			Off: []pattern.Point{at(2, 2-e/2), at(2+e/2, 2), at(2, 2+e/2), at(2-e/2, 2)}})
	}
	slant := func(c pattern.Crease) bool { return c.A.X != c.B.X && c.A.Y != c.B.Y }
	m.do(hand.FoldWays{Said: hand.Say("blossom-towards"), Towards: m.creases(towards),
		Flat: m.creases(func(c pattern.Crease) bool { return overFlat(c) && slant(c) })})
	m.do(hand.FoldWays{Said: hand.Say("blossom-away"), Flat: m.creases(func(c pattern.Crease) bool { return overFlat(c) && !slant(c) })})
	return m.moves
}

// blossomTogether is how the liner goes in, and how box and liner are filled and closed.
func (s Spec) blossomTogether(drop measure.Length) []hand.Move {
	glued := hand.Join{Said: hand.Say("liner-glued"), Bonds: bonds("liner", "inner.back", "base", "liner", "inner.left", "base", "liner", "inner.front", "base", "liner", "inner.right", "base")}
	if drop > 0 {
		glued.Said = said("liner-glued-below", one("off", drop))
	}
	return []hand.Move{
		hand.Join{Uses: []string{"liner", "base"}, Said: hand.Say("liner-set")}, glued,
		hand.Join{Said: hand.Say("petals-loosened")},
		hand.Fill{Into: "base"},
		hand.Shut{Said: hand.Say("petals-closed")}, hand.Shut{Said: hand.Say("fins-laid")}, lowered("lid"),
	}
}
