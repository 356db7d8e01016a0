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
	wrapAllowance = &Option{
		ID: "spine.allowance", Label: "How much wider the spine is", Kind: LengthKind, Default: measure.Inch / 16, Min: 0, Max: fit.LargestAllowance,
		ForFit: true, Chained: true,
		About: "How much wider the spine is scored than the strap is deep; leave it out to have it worked out",
	}
)

var bookWrap = &Style{
	ID: "book-wrap", Name: "Book wrap", About: "A cover like a book's around a small thing that is held by a strap",
	Opens: "like a book; the thing slides out of its strap", Strength: "light: a cover and a strap",
	Parameters: []*Parameter{wrapWidth, wrapHeight, wrapDepth, wrapMargin, wrapFront, wrapSpineWidth, wrapBack, wrapTall, wrapStrap, wrapCloser},
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
)

func buildBookWrap(s Spec) (*Box, error) {
	w, h, d := s.Size(wrapWidth), s.Size(wrapHeight), s.Size(wrapDepth)
	front, back, tall := s.Size(wrapFront), s.Size(wrapBack), s.Size(wrapTall)
	for _, c := range []struct {
		p     *Parameter
		least measure.Length
	}{{wrapFront, w}, {wrapBack, w}, {wrapTall, h}} {
		if s.Size(c.p) < c.least {
			return nil, outOfRange("size."+c.p.ID, "the %s must be at least %s, or the thing stands out", c.p.ID, s.show(c.least))
		}
	}
	for _, p := range []*Parameter{wrapStrap, wrapCloser} {
		if err := s.atMost(p, h, "it would be wider than the thing is high"); err != nil {
			return nil, err
		}
	}
	spine := s.Size(wrapSpineWidth)
	if spine < d {
		return nil, outOfRange("size.spine", "the spine must be at least %s, the strap's depth", s.show(d))
	}
	lap := min(s.about(strapLap), measure.Down(w*2/3, s.cutting()))

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
	closer := s.grid([]measure.Length{lap, spine + s.about(closerSlack), lap}, []measure.Length{s.Size(wrapCloser)}, `held  side  free`)
	closer.Call(closer.Face("held"), "glued end")
	closer.Call(closer.Face("free"), "free end")
	closer.Role(pattern.Tab, closer.Face("held"))
	closer.Role(pattern.Flap, closer.Face("free"))
	closer.Hinge(closer.Face("side"), closer.Face("free"), 90, 0)
	closer.Elsewhere(closer.Face("held"), false, "cover", under, true)

	if front > back || front < back-lap/2 {
		return nil, outOfRange("size.front", "the front can be %s to %s, the back's width, or the closer does not hold it", s.show(back-lap/2), s.show(back))
	}
	parts, err := s.wrapped(strap, cover, closer, lap)
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
func (s Spec) wrapped(strap, cover, closer *pattern.Grid, lap measure.Length) ([]Part, error) {
	var out []Part
	for _, x := range []struct {
		id, name, root string
		g              *pattern.Grid
		gluing         string
	}{
		{"strap", "Strap", "under", strap, "Crease the strap on the thing itself, and join it round it so that it slides."},
		{"cover", "Cover", "back", cover, ""},
		{"closer", "Closer", "held", closer, ""},
	} {
		p, err := x.g.Pattern()
		if err != nil {
			return nil, err
		}
		part := Part{ID: x.id, Name: x.name, Pattern: p, Root: x.root, Opens: Upwards}
		if x.gluing != "" {
		}
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
	out[2].At = r3.Vec{X: (back/2 - lap/2 + tK).MM()}
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
