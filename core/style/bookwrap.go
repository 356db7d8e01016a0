package style

import (
	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	wrapWidth = &Parameter{
		ID: "width", Label: "Width", Default: 7 * quarterInch, Min: 20 * mm, Max: 140 * mm,
		About: "Of the thing, left to right, as the strap is scored",
	}
	wrapHeight = &Parameter{
		ID: "height", Label: "Height", Default: 21 * measure.Inch / 8, Min: 20 * mm, Max: 260 * mm,
		About: "Of the thing, as a book stands",
	}
	wrapDepth = &Parameter{
		ID: "depth", Label: "Depth", Default: 5 * measure.Inch / 8, Min: 5 * mm, Max: 60 * mm,
		About: "Of the thing, front to back, as the strap is scored",
	}
	wrapMargin = &Parameter{
		ID: "margin", Label: "Margin", Default: measure.Inch / 8, Min: 0, Max: 20 * mm,
		About: "How far the cover reaches past the thing",
	}
	wrapFront = &Parameter{
		ID: "front", Label: "Front", Default: 15 * measure.Inch / 8, Min: 20 * mm, Max: 160 * mm, About: "How wide the front is; the thing and the margin",
		Follows: func(s Spec) measure.Length { return s.Size(wrapWidth) + s.Size(wrapMargin) },
	}
	wrapBack = &Parameter{
		ID: "back", Label: "Back", Default: 15 * measure.Inch / 8, Min: 20 * mm, Max: 160 * mm, About: "How wide the back is; as the front",
		Follows: func(s Spec) measure.Length { return s.Size(wrapFront) },
	}
	wrapSpineWidth = &Parameter{
		ID: "spine", Label: "Spine", Default: 11 * measure.Inch / 16, Min: 5 * mm, Max: 80 * mm, About: "How wide the spine is; the strap's depth and what it is wider by",
		Follows: func(s Spec) measure.Length { return s.Size(wrapDepth) + s.Length(wrapAllowance) },
	}
	wrapTall = &Parameter{
		ID: "tall", Label: "Tall", Default: 23 * measure.Inch / 8, Min: 20 * mm, Max: 300 * mm, About: "How tall the cover is; the thing and a margin at both ends",
		Follows: func(s Spec) measure.Length { return s.Size(wrapHeight) + 2*s.Size(wrapMargin) },
	}
	wrapStrap = &Parameter{
		ID: "strap", Label: "Strap", Default: measure.Inch / 2, Min: 8 * mm, Max: 120 * mm, About: "How wide the strap is that holds the thing",
	}
	wrapCloser = &Parameter{
		ID: "closer", Label: "Closer", Default: measure.Inch / 2, Min: 8 * mm, Max: 120 * mm, About: "How wide the strap is that closes the cover",
	}
	strapLong = &Parameter{
		ID: "strap.length", Label: "Strap's length", Default: 11 * measure.Inch / 2, Min: 40 * mm, Max: 500 * mm,
		About:   "Of the strip: once round the thing, and what it goes over itself",
		Follows: func(s Spec) measure.Length { return 2*(s.Size(wrapWidth)+s.Size(wrapDepth)) + s.usualLap() },
	}
	closerLong = &Parameter{
		ID: "closer.length", Label: "Closer's length", Default: 7 * measure.Inch / 4, Min: 15 * mm, Max: 300 * mm,
		About: "Of the strip: over the spine's width with a little air, and onto front and back",
		Follows: func(s Spec) measure.Length {
			return s.Size(wrapSpineWidth) + s.about(closerSlack) + 2*min(s.usualLap(), s.Size(wrapFront), s.Size(wrapBack))
		},
	}
	wrapAllowance = &Option{
		ID: "spine.allowance", Label: "How much wider the spine is", Kind: LengthKind, Default: measure.Inch / 16, Min: 0, Max: mostAllowance,
		ForFit: true, Chained: true,
		About: "How much wider the spine is scored than the strap is deep; leave it out to have it worked out",
	}
)

var bookWrap = &Style{
	ID: "book-wrap", Name: "Book wrap", About: "A cover like a book's around a small thing that is held by a strap",
	For:   []Use{ForPaper, ForFavours},
	Suits: []string{"chocolate bar", "bar of chocolate", "chocolate"},
	Opens: "like a book; the thing slides out of its strap", Strength: "light: a cover and a strap",
	Lies:       true,
	Parameters: []*Parameter{wrapWidth, wrapHeight, wrapDepth, wrapMargin, wrapFront, wrapSpineWidth, wrapBack, wrapTall, wrapStrap, wrapCloser, strapLong, closerLong},
	Options:    []*Option{wrapAllowance, coverCorners, adhesive},
	Axes:       [3]*Parameter{wrapWidth, wrapHeight, wrapDepth},
	Allowance:  wrapAllowance,
	Build:      buildBookWrap,
}

// strapLap is how far a strap goes over itself, and closerSlack how much longer
// the closing strap is than the spine.
const (
	strapLap    = measure.Inch / 2
	closerSlack = measure.Inch / 8
	leastLap    = 3 * mm // or there is nothing to stick
	shortLap    = 8 * mm
)

func buildBookWrap(s Spec) (*Box, error) {
	w, h, d := s.Size(wrapWidth), s.Size(wrapHeight), s.Size(wrapDepth)
	front, back, tall := s.Size(wrapFront), s.Size(wrapBack), s.Size(wrapTall)
	for _, c := range []struct {
		p     *Parameter
		least measure.Length
	}{{wrapFront, w}, {wrapBack, w}, {wrapTall, h}} {
		s.least(c.p.limited(), c.least, "the thing stands out of the cover")
	}
	for _, p := range []*Parameter{wrapStrap, wrapCloser} {
		s.most(p.limited(), h, "it is wider than the thing is high, and stands out above and below it")
	}
	spine := s.Size(wrapSpineWidth)
	s.least(wrapSpineWidth.limited(), d, "the strap is deeper than the spine, and holds the covers apart")
	lap, end, err := s.strapLaps()
	if err != nil {
		return nil, err
	}
	cover := s.grid([]measure.Length{front, spine, back}, []measure.Length{tall}, `front  spine  back`)
	under := cover.Face("back")
	cover.Role(pattern.Panel, under)
	cover.Upwards(pattern.Pt(0, -1), cover.Face("front"), cover.Face("spine"), under)
	cover.Hinge(cover.Face("spine"), cover.Face("front"), 90, 0)
	if s.Choice(coverCorners) == "rounded" {
		r := min(s.about(quarterInch), front/3, back/3, tall/3)
		cover.Round(cover.Face("front"), cover.Face("spine"), r)
		cover.Round(under, cover.Face("spine"), r)
	}
	strap := s.strap(w, d, lap)
	held := "under"
	if lap > d {
		held = "lap"
	}
	strap.Elsewhere(strap.Face(held), true, "cover", under, false)
	closer := s.grid([]measure.Length{end, spine + s.about(closerSlack), end}, []measure.Length{s.Size(wrapCloser)}, `held  side  free`)
	closer.Call(closer.Face("held"), "glued end")
	closer.Call(closer.Face("free"), "free end")
	closer.Role(pattern.Tab, closer.Face("held"))
	closer.Role(pattern.Flap, closer.Face("free"))
	closer.Hinge(closer.Face("side"), closer.Face("free"), 90, 0)
	closer.Elsewhere(closer.Face("held"), false, "cover", under, true)

	s.most(wrapFront.limited(), back, "it reaches past the back, and the closer is bent round its edge, less of it on the back")
	s.least(wrapFront.limited(), back-end/2, "the closer's free end does not reach onto it")
	parts, err := s.wrapped(strap, cover, closer, lap, end)
	if err != nil {
		return nil, err
	}
	tS, tC := s.Card("strap"), s.Card("cover")
	at := r3.Add(parts[0].At, r3.Vec{Z: tS.MM() / 2})
	pair := fit.Pair{Kind: fit.CoverRound, Outer: "cover", Inner: "strap", OuterName: "Cover", InnerName: "Strap", Axis: "height",
		OuterCard: tC, InnerCard: tS, OuterSpan: spine, InnerSpan: d}
	if lap > d {
		pair.OuterLayers, pair.OuterWhat = 1, "the strap's lap"
	}
	return &Box{
		Parts: parts, Room: Block(Extent{Length: w - tS, Width: h, Height: d - tS}, at), Fits: []fit.Pair{pair},
		Shut: ByDot,
		Together: []hand.Move{
			hand.Join{Bonds: bonds("strap", held, "cover"), Said: hand.Say("wrap-strap")},
			hand.Join{Bonds: bonds("closer", "held", "cover"), Said: hand.Say("wrap-closer")},
			hand.Fill{Into: "strap", Said: hand.Say("fill-strap")},
			hand.Shut{Said: hand.Say("shut-front")}, hand.Hold{Said: hand.Say("hold-closer")},
		},
	}, nil
}

// usualLap is how far a strap goes over itself, and a closer onto front and back, when nothing
// is said.
func (s Spec) usualLap() measure.Length {
	return min(s.about(strapLap), measure.Down(s.Size(wrapWidth)*2/3, s.cutting()))
}

// strapLaps are how far the strap goes over itself, and how far the closer reaches onto front and
// back: what their lengths leave. A strap that does not go round, or goes round twice, is none.
func (s Spec) strapLaps() (lap, end measure.Length, err error) {
	w, round := s.Size(wrapWidth), 2*(s.Size(wrapWidth)+s.Size(wrapDepth))
	lap = s.Size(strapLong) - round
	if lap < leastLap || lap > w {
		return 0, 0, outOfRange("size.strap.length", "a strap round this is %s to %s long: its ends go over each other by %s at least, and by one side at most",
			s.show(measure.Up(round+leastLap, s.Tick.Ruler())), s.show(round+w), s.show(leastLap))
	}
	across := s.Size(wrapSpineWidth) + s.about(closerSlack)
	end = (s.Size(closerLong) - across) / 2
	if end < leastLap || end > min(s.Size(wrapFront), s.Size(wrapBack)) {
		return 0, 0, outOfRange("size.closer.length", "a closer over this spine is %s to %s long: it reaches onto front and back by %s at least, and no farther than they are wide",
			s.show(measure.Up(across+2*leastLap, s.Tick.Ruler())), s.show(across+2*min(s.Size(wrapFront), s.Size(wrapBack))), s.show(leastLap))
	}
	s.least(strapLong.limited(), round+shortLap, "its ends lap by little; hold them until they stick")
	s.least(closerLong.limited(), across+2*shortLap, "its ends reach onto front and back by little")
	return lap, end, nil
}

// strap is the ring that holds the thing: its end is glued over the first
// narrow side, or under the thing where that is too narrow for it.
func (s Spec) strap(w, d, lap measure.Length) *pattern.Grid {
	high := []measure.Length{s.Size(wrapStrap)}
	cells, columns, onto := `side  under  far  over  lap`, []measure.Length{d, w, d, w, lap}, "side"
	if lap > d {
		cells, columns, onto = `under  far  over  side  lap`, []measure.Length{w, d, w, d, lap}, "under"
	}
	g := s.grid(columns, high, cells)
	for name, words := range map[string]string{"side": "near side", "far": "far side", "under": "underside", "over": "upper side"} {
		g.Call(g.Face(name), words)
	}
	end := g.Face("lap")
	g.Role(pattern.Tab, end)
	g.Role(pattern.Panel, g.Face("under"))
	g.Over(end, g.Face(onto))
	return g
}

// wrapped stands the strap on the cover's back, against its spine, and the
// closer round the free edges. A lap longer than the strap is deep lies between
// it and the back.
func (s Spec) wrapped(strap, cover, closer *pattern.Grid, lap, end measure.Length) ([]Part, error) {
	var out []Part
	for _, x := range []struct {
		id, name, root string
		g              *pattern.Grid
	}{{"strap", "Strap", "under", strap}, {"cover", "Cover", "back", cover}, {"closer", "Closer", "held", closer}} {
		p, err := x.g.Pattern()
		if err != nil {
			return nil, err
		}
		part := Part{ID: x.id, Name: x.name, Pattern: p, Root: x.root, Opens: Upwards}
		part.Making = told(func() []hand.Move { return s.wrapMaking(x.id, p, lap) })
		out = append(out, part)
	}
	tS, tC, tK := s.Card("strap"), s.Card("cover"), s.Card("closer")
	foot := (tC + tK) / 2 // the closer's end lies under the cover
	back, under := s.Size(wrapBack), foot+(tC+tS)/2
	if lap > s.Size(wrapDepth) {
		under += tS
	}
	out[0].At = r3.Vec{X: (-back/2 + (tC+tS)/2 + s.Size(wrapWidth)/2).MM(), Z: under.MM()}
	edge := back/2 + max(0, s.Size(wrapFront)-back) // the free edge that the closer goes over
	out[2].At = r3.Vec{X: (edge - end/2 + tK).MM()}
	out[1].At = r3.Vec{Z: foot.MM()}
	return out, nil
}

// wrapMaking is how a hand makes one of its three strips.
func (s Spec) wrapMaking(id string, p *pattern.Pattern, lap measure.Length) []hand.Move {
	m := s.make(p)
	m.scores()
	if id == "cover" {
		m.do(hand.Names{Across: true, Words: []string{"front", "spine", "back"}})
		if s.Choice(coverCorners) == "rounded" {
			m.roundAll(min(s.about(quarterInch), s.Size(wrapFront)/3, s.Size(wrapBack)/3, s.Size(wrapTall)/3))
		}
	}
	m.do(hand.FoldAll{})
	if id != "strap" {
		return m.moves
	}
	first := "side"
	if lap > s.Size(wrapDepth) {
		first = "under"
	}
	m.stick(hand.Stick{Way: hand.Strap, What: m.parts("panel", nil, "lap"), Onto: m.parts("panel", nil, first), OntoOutside: true, At: lap})
	return m.moves
}

// roundAll rounds the four corners of a blank.
func (m *making) roundAll(r measure.Length) {
	w, h := m.p.Width, m.p.Height
	m.do(hand.Bite{Said: said("round-all", one("at", r)), Loops: []pattern.Loop{
		quarterRound(pt(0, r), pt(r, 0), pt(0, 0)), quarterRound(pt(w-r, 0), pt(w, r), pt(w, 0)),
		quarterRound(pt(w, h-r), pt(w-r, h), pt(w, h)), quarterRound(pt(r, h), pt(0, h-r), pt(0, h)),
	}})
}
