package style

import (
	"fmt"
	"math"
	"slices"
	"strconv"

	"gonum.org/v1/gonum/num/quat"
	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// SlotRoom is how much wider than the card a slot is cut.
const SlotRoom = 200 * measure.Micrometre

// StripEase is how much shorter than the inside a divider strip is.
const StripEase = measure.Millimetre

// endTab is the least tab a strip is glued by when no other strip crosses it.
const endTab = 10 * measure.Millimetre

// leastCell is the smallest cell worth parting off; slots closer than that
// tear the strip.
const leastCell = 5 * measure.Millimetre

// Dividers are strips that part a box's inside into cells. Columns and Rows
// are the cells' clear sizes: with a card's thickness between neighbours they
// make up Length and Width exactly.
type Dividers struct {
	Length, Width, Height measure.Length // clear inside, front of the box along Length
	Columns, Rows         []measure.Length
	// Bands, when set, are the cells of each row, which are not a grid's.
	Bands [][]measure.Length
	Card  measure.Length // thickness
	Tick  measure.Tick   // of the board
	// LongUp opens the slots of the strips along the length upwards, and
	// those of the crossing strips downwards; else the other way round.
	LongUp bool
}

// Equal parts a clear size into n equal cells with a card between; what does
// not divide goes to the last.
func Equal(size, card measure.Length, n int) []measure.Length {
	out := make([]measure.Length, n)
	clear := size - measure.Length(n-1)*card
	for i := range out {
		out[i] = clear / measure.Length(n)
	}
	out[n-1] += clear % measure.Length(n)
	return out
}

// Parts gives the strips: those along the length, one between every two rows,
// and those that cross them, one between every two columns. Where they cross
// each is slotted to half its height. Strips that nothing crosses get a tab at
// each end, to be glued to the walls. One cell alone needs no strips.
func (d Dividers) Parts() ([]Part, error) {
	if len(d.Bands) > 0 {
		return d.banded()
	}
	for _, c := range append(append([]measure.Length{}, d.Columns...), d.Rows...) {
		if c < leastCell {
			return nil, fault.New(fault.NoRoom, "", "a cell would be under 5 mm; make fewer cells, or the inside larger")
		}
	}
	var out []Part
	crossed, tab := len(d.Columns) > 1 && len(d.Rows) > 1, measure.Up(endTab, d.Tick)
	add := func(id, name string, span measure.Length, cells, others []measure.Length, otherSpan measure.Length, along, up bool) error {
		if len(others) < 2 {
			return nil
		}
		p := Part{ID: id, Name: name, Count: len(others) - 1, Opens: Upright}
		cut := StripLength(span, d.Tick)
		if !crossed { // scored at both ends
			cut = measure.Down(span-StripEase, d.Tick)
		}
		start := -cut / 2
		if crossed {
			d.slotted(&p, cut, d.middles(cells, span), up)
		} else if err := d.tabbed(&p, cut, tab); err != nil {
			return err
		} else {
			start -= tab
		}
		for _, across := range d.middles(others, otherSpan) {
			p.Places = append(p.Places, strip(start, across-StripLength(otherSpan, d.Tick)/2, d.high(), along))
		}
		out = append(out, p)
		return nil
	}
	if err := add("divider.long", "Divider along the length", d.Length, d.Columns, d.Rows, d.Width, true, d.LongUp); err != nil {
		return nil, err
	}
	if err := add("divider.cross", "Divider across", d.Width, d.Rows, d.Columns, d.Length, false, !d.LongUp); err != nil {
		return nil, err
	}
	return out, nil
}

// StripLength is what a divider strip is cut to inside a span: shorter by its
// ease, and down to the ruler's mark.
func StripLength(span measure.Length, tick measure.Tick) measure.Length {
	return measure.Down(span-StripEase, tick.Cut())
}

// high is what a strip is cut to: the inside's height, down to the ruler's mark.
func (d Dividers) high() measure.Length { return measure.Down(d.Height, d.Tick.Cut()) }

// middles gives where, from the left end of a strip along a span, the card
// between neighbouring cells has its middle: on the ruler's marks.
func (d Dividers) middles(cells []measure.Length, span measure.Length) []measure.Length {
	var out []measure.Length
	at := -(span - StripLength(span, d.Tick)) / 2
	for _, c := range cells[:len(cells)-1] {
		at += c
		out = append(out, measure.Nearest(at+d.Card/2, d.Tick.Cut()))
		at += d.Card
	}
	return out
}

// strip is the pose of an upright strip whose flat left end comes to start
// along its own run and which stands across from the middle by that much.
func strip(start, across, height measure.Length, along bool) pattern.Pose {
	up := r3.NewRotation(math.Pi/2, r3.Vec{X: 1})
	if along {
		return pattern.Pose{Turn: up, Shift: r3.Vec{X: start.MM(), Y: across.MM(), Z: height.MM()}}
	}
	side := r3.NewRotation(math.Pi/2, r3.Vec{Z: 1})
	return pattern.Pose{
		Turn:  r3.Rotation(quat.Mul(quat.Number(side), quat.Number(up))),
		Shift: r3.Vec{X: across.MM(), Y: start.MM(), Z: height.MM()},
	}
}

// slotCards is how many cards wide a slot is: the card that goes in and some room.
func (d Dividers) slotCards() int { return int((d.Card+SlotRoom-1)/max(1, d.Card)) + 1 }

// slotted is a flat strip with a slot at each crossing.
func (d Dividers) slotted(p *Part, span measure.Length, at []measure.Length, up bool) {
	// Two slots together are as deep as the strips are high, or a mark deeper.
	h, deep, half := d.high().MM(), measure.Up(d.high()/2, d.Tick.Cut()).MM(), (measure.Length(d.slotCards())*d.Card).MM()/2
	var top, bottom []pattern.Point
	for _, m := range at {
		x := m.MM()
		slot := []pattern.Point{pattern.Pt(x-half, 0), pattern.Pt(x-half, deep), pattern.Pt(x+half, deep), pattern.Pt(x+half, 0)}
		if up {
			top = append(top, slot...)
			continue
		}
		for i := range slot {
			slot[i].Y = h - slot[i].Y
		}
		bottom = append(bottom, slot...)
	}
	slices.Reverse(bottom)
	outline := append([]pattern.Point{{}}, top...)
	outline = append(outline, pattern.Pt(span.MM(), 0), pattern.Pt(span.MM(), h))
	outline = append(append(outline, bottom...), pattern.Pt(0, h))
	first := at[0].MM() / 2
	p.Pattern = &pattern.Pattern{Width: span, Height: d.high(), Outline: pattern.Straight(outline...),
		Marks: []pattern.Mark{{Name: "strip", Role: pattern.Panel, At: pattern.Pt(first, deep), Up: pattern.Pt(0, -1)}}}
	p.Root = "strip"
	m := newMaking(p.Pattern, "")
	key := "slots-top"
	if !up {
		key = "slots-bottom"
	}
	slots := hand.Bite{Said: hand.Said{Key: key, Counts: map[string]int{"count": d.slotCards()},
		Lengths: map[string][]measure.Length{"at": at, "off": {measure.FromMM(deep)}}}}
	for _, x := range at {
		l, r, y := x.MM()-half, x.MM()+half, deep
		from := 0.0
		if !up {
			from, y = h, h-deep
		}
		slots.Loops = append(slots.Loops, pattern.Straight(pattern.Pt(l, min(from, y)), pattern.Pt(r, min(from, y)), pattern.Pt(r, max(from, y)), pattern.Pt(l, max(from, y))))
	}
	m.do(slots)
	p.Making = m.told()
}

// tabbed is a strip with a tab folded at each end.
func (d Dividers) tabbed(p *Part, span, wide measure.Length) error {
	g := pattern.NewGrid([]measure.Length{wide, span, wide}, []measure.Length{d.high()}, "left strip right")
	g.CutOn(d.Tick.Cut())
	middle := g.Face("strip")
	g.Role(pattern.Panel, middle)
	g.Upwards(pattern.Pt(0, -1), middle)
	for _, end := range []string{"left", "right"} {
		tab := g.Face(end)
		g.Call(tab, end+" tab")
		g.Role(pattern.Tab, tab)
		g.Tab(tab, middle, wide, min(tabWedge, d.Height/8))
		g.Elsewhere(tab, true, OntoTheBox, nil, false)
	}
	flat, err := g.Pattern()
	if err != nil {
		return err
	}
	p.Pattern, p.Root = flat, "strip"
	m := newMaking(flat, "")
	m.scores()
	m.shape("end-tab", group{"end-tab", nil, []string{"left", "right"}})
	m.do(hand.FoldAll{})
	p.Making = m.told()
	return nil
}

var (
	gridLength = &Parameter{
		ID:      "length",
		Label:   "Inside length",
		Default: 6 * measure.Inch,
		Min:     12 * mm,
		Max:     400 * mm,
		About:   "the clear inside, left to right",
	}
	gridWidth = &Parameter{
		ID:      "width",
		Label:   "Inside width",
		Default: 4 * measure.Inch,
		Min:     12 * mm,
		Max:     400 * mm,
		About:   "the clear inside, front to back",
	}
	gridHeight = &Parameter{ID: "height", Label: "Height", Default: 2 * measure.Inch, Min: 6 * mm, Max: 280 * mm, About: "of the strips"}

	gridColumns     = countOption("columns", "Cells along the length", "3")
	gridRows        = countOption("rows", "Cells across the width", "2")
	gridFirstColumn = &Option{
		ID:      "first.column",
		Label:   "First cell's length",
		Kind:    LengthKind,
		Default: 0,
		Min:     0,
		Max:     400 * mm,
		About:   "0 makes all cells equally long; else the others share the rest",
	}
	gridFirstRow = &Option{
		ID:      "first.row",
		Label:   "First row's width",
		Kind:    LengthKind,
		Default: 0,
		Min:     0,
		Max:     400 * mm,
		About:   "0 makes all rows equally wide; else the others share the rest",
	}
	gridSlotsUp = &Option{
		ID:            "slots.up",
		Label:         "Slots that open upwards",
		Kind:          ChoiceKind,
		Choices:       []string{"across", "along"},
		DefaultChoice: "across",
		About:         "those of the strips across the box, or of the strips along its length; they go in last but one way",
	}
)

var dividerGrid = &Style{
	ID: "divider-grid", Name: "Slotted dividers", About: "Strips that slot together and part an inside into cells", Inner: true,
	Parameters: []*Parameter{gridLength, gridWidth, gridHeight},
	Options:    []*Option{gridColumns, gridRows, gridFirstColumn, gridFirstRow, gridSlotsUp},
	Axes:       [3]*Parameter{gridLength, gridWidth, gridHeight},
	Build: func(s Spec) (*Box, error) {
		inside := Extent{s.Size(gridLength), s.Size(gridWidth), s.Size(gridHeight)}
		d := Dividers{
			Length: inside.Length,
			Width:  inside.Width,
			Height: inside.Height,
			Card:   s.Card("divider.long"),
			Tick:   s.Tick,
			LongUp: s.Choice(gridSlotsUp) == "along",
		}
		var err error
		if d.Columns, err = s.cells(gridColumns, gridFirstColumn, d.Length, d.Card); err != nil {
			return nil, err
		}
		if d.Rows, err = s.cells(gridRows, gridFirstRow, d.Width, d.Card); err != nil {
			return nil, err
		}
		parts, err := d.Parts()
		if err != nil {
			return nil, err
		}
		if len(parts) == 0 {
			return nil, fault.New(fault.NoCells, "options.columns", "one cell needs no dividers; give two columns or two rows")
		}
		return &Box{Parts: parts, Together: d.together(parts), Room: Room{Shape: "cells", Largest: inside}}, nil
	},
}

// together is how the strips go together.
func (d Dividers) together(parts []Part) []hand.Move {
	if len(d.Columns) < 2 || len(d.Rows) < 2 {
		id := parts[0].ID
		return []hand.Move{hand.Join{Bonds: bonds(id, "left", OntoTheBox, id, "right", OntoTheBox), Said: hand.Say("dividers-stood")}, hand.Fill{Into: id, Said: hand.Say("fill-cells")}}
	}
	key := "slot-long"
	if d.LongUp {
		key = "slot-cross"
	}
	return []hand.Move{hand.Join{Uses: []string{"divider.long", "divider.cross"}, Said: hand.Say(key)}, hand.Fill{Into: "divider.long", Said: hand.Say("fill-cells")}}
}

// Standing is how the dividers are put together and stood in the box.
func (d Dividers) Standing() hand.Said {
	switch {
	case len(d.Bands) > 0:
		return hand.Say("dividers-glued")
	case len(d.Columns) < 2 || len(d.Rows) < 2:
		return hand.Say("dividers-in")
	case d.LongUp:
		return hand.Say("dividers-long-up")
	}
	return hand.Say("dividers-long-down")
}

// mostCells is the most cells along one side.
const mostCells = 12

func countOption(id, label, usual string) *Option {
	o := &Option{ID: id, Label: label, Kind: ChoiceKind, DefaultChoice: usual}
	for n := 1; n <= mostCells; n++ {
		o.Choices = append(o.Choices, fmt.Sprint(n))
	}
	return o
}

// count reads a choice that is a number.
func (s Spec) count(o *Option) int {
	n, err := strconv.Atoi(s.Choice(o))
	if err != nil {
		return 1
	}
	return n
}

// cells parts a clear size, the first cell as asked for.
func (s Spec) cells(count, first *Option, size, card measure.Length) ([]measure.Length, error) {
	n, one := s.count(count), s.Length(first)
	if one == 0 || n == 1 {
		return Equal(size, card, n), nil
	}
	if one+card >= size {
		return nil, fault.New(
			fault.NoRoom,
			"options."+first.ID,
			"a first cell of %s leaves nothing of the inside's %s for the others; make it smaller, or 0 for equal cells",
			s.show(one),
			s.show(size),
		)
	}
	return append([]measure.Length{one}, Equal(size-one-card, card, n-1)...), nil
}
