package style

import (
	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var (
	collarLength = &Parameter{
		ID: "length", Label: "Length", Default: 3 * measure.Inch, Min: 30 * mm, Max: 500 * mm,
		About: "L: left to right, between folds; of base and lid alike",
	}
	collarWidth = &Parameter{
		ID: "width", Label: "Width", Default: 5 * measure.Inch / 2, Min: 30 * mm, Max: 500 * mm,
		About: "W: front to back, between folds; of base and lid alike",
	}
	collarBase = &Parameter{
		ID: "base", Label: "Base", Default: 3 * measure.Inch / 2, Min: 10 * mm, Max: 200 * mm,
		About: "How high the base's walls are",
	}
	collarLid = &Parameter{
		ID: "lid", Label: "Lid", Default: measure.Inch, Min: 10 * mm, Max: 200 * mm,
		About: "How high the lid's walls are; it meets the base edge to edge",
		Follows: func(s Spec) measure.Length {
			return max(measure.Up(10*mm, s.Tick), measure.Nearest(s.Size(collarBase)*5/8, s.Tick))
		},
	}
	collarShadow = &Parameter{
		ID: "shadow", Label: "Shadow line", Default: 0, Min: 0, Max: 20 * mm,
		About: "v: how far base and lid stay apart, so that the collar shows between; 0 to meet",
	}
	collarTab = &Parameter{
		ID: "tab", Label: "Collar's tab", Default: measure.Inch / 2, Min: 6 * mm, Max: 25 * mm,
		About: "The strip that joins the collar",
	}
	collarGap = &Parameter{
		ID: "gap", Label: "Gap", Default: measure.Millimetre, Min: 0, Max: 4 * mm,
		About:   "g: how much narrower the collar is than the lid is inside, both sides together, before it goes down to the board's groove",
		Follows: func(s Spec) measure.Length { return measure.Up(2*mm/5, s.Tick.Ruler()) / 2 },
	}
	collarPieces = &Option{
		ID: "collar.pieces", Label: "Collar", Kind: ChoiceKind, Choices: []string{"one", "two"}, DefaultChoice: "one",
		About:   "Of one strip, or of two alike where a strip right round is longer than the sheet",
		Smaller: &Smaller{Choice: "two", Words: "a collar of two strips", Trims: true},
	}
)

var collarBox = &Style{
	ID: "collar-box", Name: "Collar box", About: "Base and lid of one size that meet edge to edge, over a collar glued in the base",
	For:   []Use{ForGifts},
	Suits: []string{"watch", "bracelet", "necklace", "earring", "brooch", "pen"},
	Opens: "the lid lifts off", Strength: "good: two cards round the middle",
	Untold:     true, // the gap is rounded to the board's grooves
	Parameters: []*Parameter{collarLength, collarWidth, collarBase, collarLid, collarShadow, collarTab, collarGap},
	Options:    []*Option{collarPieces, corners, adhesive},
	Axes:       [3]*Parameter{collarLength, collarWidth, collarBase},
	Build:      buildCollarBox,
}

const (
	// leastCollar is how far a collar stands out of its base at least, and collarUnder how far it
	// stays under the lid's top.
	leastCollar = 8 * measure.Millimetre
	collarUnder = measure.Millimetre / 2
	// leastPanel is the narrowest panel of a collar.
	leastPanel = 10 * measure.Millimetre
)

// collarSizes are a collar's two panels and its height.
type collarSizes struct{ long, wide, high measure.Length }

// collar is what stands inside base and lid: narrower than they are by their card, their tabs, its
// own card and the gap, down to the board's groove. It comes up through three fifths of the lid, or
// with a shadow line until the lid rests on it.
func (s Spec) collar(tray trayShape) (collarSizes, error) {
	t, deep := s.Card("collar"), s.Size(collarLid)
	along, across := tray.layers()
	groove := min(s.Tick, s.Tick.System().Tick())
	within := func(span measure.Length, layers int) measure.Length {
		return measure.Down(span-s.Card("base")-t-measure.Length(layers)*s.Card("base")-s.Size(collarGap), groove)
	}
	c := collarSizes{long: within(s.Size(collarLength), along), wide: within(s.Size(collarWidth), across)}
	if v := s.Size(collarShadow); v > 0 {
		c.high = measure.Up(s.Size(collarBase)+deep-t+v, s.cutting())
	} else {
		out := min(max(leastCollar, deep*3/5), deep-t-collarUnder)
		c.high = measure.Down(s.Size(collarBase)-t/2+out, s.cutting())
	}
	if min(c.long, c.wide) < leastPanel {
		return c, outOfRange("size.gap", "the collar would be less than %s wide; make the gap smaller, or the box larger", s.show(leastPanel))
	}
	return c, nil
}

func buildCollarBox(s Spec) (*Box, error) {
	base := s.trayShape("base", "Base", s.Size(collarLength), s.Size(collarWidth), s.Size(collarBase))
	base.ends = base.corners != "pinwheel"
	lid := base
	lid.id, lid.name, lid.panel, lid.opens, lid.height = "lid", "Lid", "top", Downwards, s.Size(collarLid)
	size, err := s.collar(base)
	if err != nil {
		return nil, err
	}
	basePart, err := base.part()
	if err != nil {
		return nil, err
	}
	lidPart, err := lid.part()
	if err != nil {
		return nil, err
	}
	tBase, tLid, t := s.Card("base"), s.Card("lid"), s.Card("collar")
	top := base.height + lid.height // where the lid's panel lies
	if s.Size(collarShadow) > 0 {
		top = (tBase+tLid)/2 + size.high
	}
	lidPart.At = r3.Vec{Z: (top - lid.height).MM()}
	lidPart.Away = r3.Vec{Z: 1.9*lid.height.MM() + 8}
	box := &Box{Parts: []Part{basePart}, Shut: ByFriction}
	strips, err := s.collarStrips(size)
	if err != nil {
		return nil, err
	}
	box.Parts = append(append(box.Parts, strips...), lidPart)
	inner := trayShape{id: strips[0].ID, name: "Collar", length: size.long, width: size.wide, height: size.high}
	box.Fits = append(base.over(inner, fit.GluedIn, tBase, t), lid.over(inner, fit.LidOn, tLid, t)...)
	box.Room = Block(Extent{size.long - t, size.wide - measure.Length(1+len(strips))*t, top - (tBase+tLid)/2}, r3.Vec{Z: tBase.MM() / 2})
	box.Together = s.collarTogether(size, strips)
	return box, nil
}

// collarStrips is the collar: a strip right round, or two of half that length that go round from
// opposite corners.
func (s Spec) collarStrips(size collarSizes) ([]Part, error) {
	if s.Choice(collarPieces) == "one" {
		part, err := s.collarStrip(size, "collar", "Collar", "")
		return []Part{part}, err
	}
	first, err := s.collarStrip(size, "collar-1", "First half of the collar", "collar-2")
	if err != nil {
		return nil, err
	}
	second, err := s.collarStrip(size, "collar-2", "Second half of the collar", "collar-1")
	second.HalfTurn = true
	return []Part{first, second}, err
}

// collarStrip is one strip; other is the one that its tab is glued inside, "" for itself.
func (s Spec) collarStrip(size collarSizes, id, name, other string) (Part, error) {
	columns, cells, faces := []measure.Length{size.long, size.wide, size.long, size.wide, s.Size(collarTab)}, "back right front left tab", wallNames
	if other != "" {
		columns, cells, faces = []measure.Length{size.long, size.wide, s.Size(collarTab)}, "back right tab", []string{"back", "right"}
	}
	g := s.grid(columns, []measure.Length{size.high}, cells)
	tab, first := g.Face("tab"), g.Face("back")
	for _, w := range faces {
		wall := g.Face(w)
		g.Call(wall, "collar's "+walls[w])
		g.Upwards(pattern.Pt(0, -1), wall)
		apart := (s.Size(collarWidth) - size.wide) / 2
		if w == "left" || w == "right" {
			apart = (s.Size(collarLength) - size.long) / 2
		}
		onto := w
		if id == "collar-2" { // half a turn on
			onto = map[string]string{"back": "front", "right": "left"}[w]
		}
		g.ElsewhereApart(wall, true, "base", pattern.NewGrid([]measure.Length{mm}, []measure.Length{mm}, onto).Face(onto), apart.MM())
	}
	g.Role(pattern.Tab, tab)
	if other == "" {
		g.Glue(tab, true, first)
	} else {
		g.Elsewhere(tab, true, other, first, false)
	}
	p, err := g.Pattern()
	if err != nil {
		return Part{}, err
	}
	return Part{ID: id, Name: name, Pattern: p, Root: "back", Opens: Upright, Card: s.Card(id), At: r3.Vec{Z: s.Card("base").MM() / 2},
		Making: told(func() []hand.Move { return s.collarMaking(p, other == "") })}, nil
}

// collarMaking is how a hand makes a strip, closed to a ring where it goes right round.
func (s Spec) collarMaking(p *pattern.Pattern, ring bool) []hand.Move {
	m := s.make(p)
	m.scores()
	words := []string{"1", "2", "tab"}
	if ring {
		words = []string{"1", "2", "3", "4", "tab"}
	}
	m.do(hand.Names{Across: true, Panels: true, Words: words}, hand.FoldAll{})
	if ring {
		m.stick(hand.Stick{Way: hand.Ring, What: m.parts("tab", nil, "tab"), Onto: m.parts("panel", nil, "back"), Outside: true})
	}
	return m.moves
}

// collarTogether is how the collar is closed, stands in the base, and the lid goes on. What it
// stands off the base's walls is filled with scraps, so that the lid comes level.
func (s Spec) collarTogether(size collarSizes, strips []Part) []hand.Move {
	var out []hand.Move
	id := strips[0].ID
	if len(strips) > 1 {
		out = append(out, hand.Join{Bonds: bonds(id, "tab", strips[1].ID, strips[1].ID, "tab", id), Said: hand.Say("collar-halves")})
	}
	var all []hand.Across
	var uses []string
	for _, p := range strips {
		uses = append(uses, p.ID)
		for _, m := range p.Pattern.Marks {
			if m.Role != pattern.Tab {
				all = append(all, hand.Across{Piece: p.ID, Face: m.Name, Onto: "base"})
			}
		}
	}
	t := max(1, s.Card("base"))
	thick := func(span, collar measure.Length, layers int) int {
		gap := span - collar - t - s.Card("collar") - measure.Length(layers)*t
		return int((gap/2 + t/2) / t)
	}
	tray := s.trayShape("base", "", 0, 0, 0)
	tray.ends = tray.corners != "pinwheel"
	along, across := tray.layers()
	ends, sides := thick(s.Size(collarLength), size.long, along), thick(s.Size(collarWidth), size.wide, across)
	if scraps := collarScraps(ends, sides); scraps.Key != "" {
		out = append(out, hand.Join{Uses: uses, Said: scraps})
	}
	return append(out,
		hand.Join{Uses: append([]string{"base"}, uses...), Bonds: all, Said: hand.Say("collar-in")},
		hand.Join{Uses: []string{"lid"}, Said: hand.Say("collar-true")},
		hand.Fill{Into: "base", Said: hand.Say("fill-collar")}, lowered("lid"))
}

// collarScraps says what fills the gap round a collar: so many cards on its ends and on its sides.
func collarScraps(ends, sides int) hand.Said {
	counted := func(key string, n int) hand.Said {
		return hand.Said{Key: key, Counts: map[string]int{"count": n}}
	}
	switch {
	case ends == sides && ends > 0:
		return counted("collar-scraps", ends)
	case ends > 0 && sides > 0:
		return hand.Said{Key: "collar-scraps-each", Counts: map[string]int{"count": sides, "n": ends}}
	case ends > 0:
		return counted("collar-scraps-ends", ends)
	case sides > 0:
		return counted("collar-scraps-sides", sides)
	}
	return hand.Said{}
}
