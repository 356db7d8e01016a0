package style

import (
	"fmt"
	"strconv"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	explodeLength = &Parameter{
		ID: "length", Label: "Floor", Default: 3 * measure.Inch, Min: 40 * mm, Max: 200 * mm,
		About: "a: one side of the outermost floor, which is square",
	}
	explodeHeight = &Parameter{
		ID: "height", Label: "Height", Default: 3 * measure.Inch, Min: 25 * mm, Max: 200 * mm,
		About: "h: how high the outermost walls stand",
	}
	explodeLayers = &Option{
		ID: "layers", Label: "Layers", Kind: ChoiceKind, Choices: []string{"2", "3", "4", "5"}, DefaultChoice: "3",
		About: "How many boxes of free walls stand in one another",
	}
	explodeLidDepth = &Option{
		ID: "lid.depth", Label: "Lid depth", Kind: LengthKind, Default: 3 * measure.Inch / 4, Min: 6 * mm, Max: 100 * mm,
		About: "How far down the lid's walls reach and hold the free ones",
		Follows: func(s Spec) measure.Length {
			return max(measure.Up(s.Size(explodeHeight)/4, s.Tick), s.about(halfInch))
		},
	}
)

var explodeBox = &Style{
	ID: "explode-box", Name: "Exploding box", About: "Crosses on one another, whose walls fall open when the lid is lifted",
	For:   []Use{ForGifts},
	Suits: []string{"photograph", "photo", "keepsake", "ring"},
	Opens: "the lid lifts off and all walls fall open", Strength: "light: the lid alone holds the walls",
	Parameters: []*Parameter{explodeLength, explodeHeight},
	Options:    []*Option{explodeLayers, explodeLidDepth, lidAllowance, lidAllowanceWidth, corners, adhesive},
	Axes:       [3]*Parameter{explodeLength, explodeLength, explodeHeight},
	Allowance:  lidAllowance,
	Build:      buildExplodeBox,
}

const (
	// explodePapers is what lies between the walls of two layers, papers on both, and
	// explodePlay what lets them fall.
	explodePapers = 2 * measure.Millimetre / 5
	explodePlay   = measure.Millimetre / 2
	// leastLayer is the smallest floor on which a thing can be shown.
	leastLayer = 15 * measure.Millimetre
)

// layer is one cross: its floor's side and its walls' height.
type layer struct{ side, high measure.Length }

// explodes are the layers, outermost first. Each floor leaves room on both sides for a card,
// papers and play; each wall is a card lower, as it stands on the floor below.
func (s Spec) explodes() ([]layer, error) {
	n, err := strconv.Atoi(s.Choice(explodeLayers))
	if err != nil {
		return nil, fault.New(fault.UnknownChoice, "options.layers", "it has two to five layers: %w", err)
	}
	out := []layer{{s.Size(explodeLength), s.Size(explodeHeight)}}
	for len(out) < n {
		last, t := out[len(out)-1], s.Card(layerID(len(out)))
		next := layer{
			side: measure.Down(last.side-2*(t+explodePapers+explodePlay), s.Tick),
			high: measure.Down(last.high-t, s.Tick),
		}
		if next.side < leastLayer || next.high < leastFloor {
			return nil, outOfRange("options.layers", "the innermost of %d layers would be less than %s wide; take fewer, or a larger floor", n, s.show(leastLayer))
		}
		out = append(out, next)
	}
	return out, nil
}

// layerID is the nth cross, counted from 0, the outermost.
func layerID(n int) string { return fmt.Sprint("layer-", n+1) }

func layerName(n int) string {
	return []string{"First", "Second", "Third", "Fourth", "Fifth"}[n] + " cross"
}

func buildExplodeBox(s Spec) (*Box, error) {
	layers, err := s.explodes()
	if err != nil {
		return nil, err
	}
	s.least(explodeLidDepth.limited(), measure.Up(layers[0].high/4, s.Tick), "the walls push it off")
	s.most(explodeLidDepth.limited(), layers[0].high, deeperLid)
	box := &Box{Shut: ByFriction}
	var beneath *pattern.Grid
	foot := measure.Length(0)
	for i, x := range layers {
		g := s.freeCross(x)
		if beneath != nil {
			g.Elsewhere(g.Face("base"), true, layerID(i-1), beneath.Face("base"), false)
		}
		beneath = g
		p, err := g.Pattern()
		if err != nil {
			return nil, err
		}
		part := Part{
			ID: layerID(i), Name: layerName(i), Pattern: p, Root: "base", Opens: Upwards, Card: s.Card(layerID(i)),
			Making: told(func() []hand.Move { return s.crossMaking(p, x.high) }),
		}
		if i > 0 {
			foot += (part.Card + box.Parts[i-1].Card) / 2
			part.At = r3.Vec{Z: foot.MM()}
		}
		box.Parts = append(box.Parts, part)
	}
	lid := s.trayShape("lid", "Lid", layers[0].side+s.Length(lidAllowance), layers[0].side+s.Length(lidAllowanceWidth), s.Length(explodeLidDepth))
	lid.panel, lid.opens = "top", Downwards
	top, err := lid.part()
	if err != nil {
		return nil, err
	}
	top.Card = s.Card("lid")
	top.lidOver(layers[0].high, lid.height, top.Card)
	inner := box.Parts[len(box.Parts)-1]
	if box.Room, err = roomOf(inner); err != nil {
		return nil, err
	}
	box.Room.Part = inner.ID
	box.Fits = lid.over(trayShape{id: layerID(0), name: layerName(0), length: layers[0].side, width: layers[0].side, height: layers[0].high},
		fit.LidOn, top.Card, box.Parts[0].Card)
	box.Fits = append(box.Fits, layerFits(layers, box.Parts)...)
	box.Parts = append(box.Parts, top)
	box.Together = explodeTogether(len(layers))
	return box, nil
}

// freeCross is a floor with four walls that are joined to nothing else and fall open.
func (s Spec) freeCross(x layer) *pattern.Grid {
	g := s.grid([]measure.Length{x.high, x.side, x.high}, []measure.Length{x.high, x.side, x.high}, `
		.     back   .
		left  base   right
		.     front  .`)
	base := g.Face("base")
	g.Role(pattern.Panel, base)
	for _, w := range wallNames {
		wall := g.Face(w)
		g.Call(wall, strings.Replace(walls[w], " end", "", 1))
		g.Role(pattern.Panel, wall)
		g.Hinge(base, wall, 90, 0)
		g.Up(base, wall)
	}
	return g
}

// layerFits are the gaps between the walls of each two layers, which must fall past each other.
func layerFits(layers []layer, parts []Part) []fit.Pair {
	var out []fit.Pair
	for i := range len(layers) - 1 {
		out = append(out, fit.Pair{
			Kind: fit.InNest, Outer: layerID(i), Inner: layerID(i + 1), OuterName: parts[i].Name, InnerName: parts[i+1].Name, Axis: "width",
			OuterCard: parts[i].Card, InnerCard: parts[i+1].Card, OuterSpan: layers[i].side, InnerSpan: layers[i+1].side,
			OuterDepth: layers[i].high, InnerDepth: layers[i+1].high,
		})
	}
	return out
}

// explodeTogether is how so many layers become the box.
func explodeTogether(n int) []hand.Move {
	on := hand.Join{Uses: []string{layerID(0)}, Said: hand.Said{Key: "layer-on", Pieces: map[string]string{"piece": layerID(1), "other": layerID(0)}}}
	var all []string
	for i := 1; i < n; i++ {
		all = append(all, layerID(i))
		on.Bonds = append(on.Bonds, bonds(layerID(i), "base", layerID(i-1))...)
	}
	if n > 2 {
		on.Said = hand.Said{Key: "layers-on", Pieces: map[string]string{"piece": strings.Join(all, " "), "other": layerID(0)}}
	}
	return []hand.Move{on, hand.Fill{Into: layerID(n - 1), Said: hand.Say("fill-open")}, hand.Shut{Said: hand.Say("raise-layers")}, lowered("lid")}
}
