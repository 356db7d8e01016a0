package design

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/contents"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// As says what makes the cells.
type As string

// Strips that slot together, small trays that stand side by side, or a floor
// with a hole for each thing.
const (
	AsDividers As = "dividers"
	AsTrays    As = "trays"
	AsInsert   As = "insert"
)

// Cellings lists what makes cells in the order it is offered.
var Cellings = []As{AsDividers, AsTrays, AsInsert}

// Compartments part a box for things into cells.
type Compartments struct {
	Per contents.Per
	As  As
	// Along opens the slots of the dividers along the length upwards; else
	// those of the dividers across.
	Along bool
}

// Lining is a piece that lines the inside.
type Lining string

// A stiffener lies on the floor, a liner stands along the walls, a riser is a
// false floor that lifts what is in the box.
const (
	Stiffener Lining = "stiffener"
	Liner     Lining = "liner"
	Riser     Lining = "riser"
)

// Linings lists the linings in the order they are offered.
var Linings = []Lining{Stiffener, Liner, Riser}

// Room that pieces inside the box are given.
const (
	liningGap  = 500 * measure.Micrometre // both sides together
	insertGap  = measure.Millimetre       // both sides together
	trayGap    = 500 * measure.Micrometre // between two trays
	web        = 6 * measure.Millimetre   // card between two holes
	belowRim   = 2 * measure.Millimetre
	leastSkirt = 8 * measure.Millimetre
	// UsualRiser is how high a riser lifts when nothing is said.
	UsualRiser = 20 * measure.Millimetre
)

func hasLining(in *Inputs, l Lining) bool { return slices.Contains(in.Linings, l) }

// checkInside refuses compartments and linings that are not known.
func checkInside(in *Inputs) error {
	c := in.Compartments
	if s, err := style.ByID(in.Style); err == nil && s.Inner && c.Per != contents.Together {
		return fault.New(fault.UnknownCompartments, "compartments.per", "%s go into a box: cells are made in that", strings.ToLower(s.Name))
	}
	switch {
	case c.Per != contents.Together && c.Per != contents.PerKind && c.Per != contents.PerThing:
		return fault.New(fault.UnknownCompartments, "compartments.per", "a cell is made for each thing or for each kind")
	case c.Per != contents.Together && !slices.Contains(Cellings, c.As):
		return fault.New(fault.UnknownCompartments, "compartments.as", "cells are made by dividers, trays or an insert")
	case in.RiserHeight < 6*measure.Millimetre || in.RiserHeight > 100*measure.Millimetre:
		return fault.New(fault.OutOfRange, "riser", "a riser lifts by 6 mm to 10 cm")
	}
	for i, l := range in.Linings {
		if !slices.Contains(Linings, l) || slices.Contains(in.Linings[:i], l) {
			return fault.New(fault.UnknownLining, "linings", "linings are a stiffener, a liner and a riser, each once")
		}
	}
	return nil
}

// partingOf is what parts the cells asked for.
func partingOf(in *Inputs) contents.Parting {
	p := contents.Parting{Per: in.Compartments.Per}
	card := func(piece string) measure.Length { return in.CardOf(piece).Thickness }
	switch in.Compartments.As {
	case AsTrays:
		t := card("cell.1")
		p.WallLength, p.WallWidth, p.Floor = style.CellTrayWalls(t)
		p.Between, p.Edge, p.What = trayGap, trayGap/2, "air"
		p.Tick, p.Card = in.Tools.Tick, t
	case AsInsert:
		p.Per = contents.PerThing
		p.Between, p.Edge, p.What = web, web, "card between the holes"
	default:
		p.Between, p.What, p.Bands = max(card("divider.long"), card("divider.cross")), "dividers", true
	}
	return p
}

// liningsOf is what the linings take of the inside, as lines of an account.
func liningsOf(in *Inputs) []contents.Line {
	var out []contents.Line
	if hasLining(in, Stiffener) {
		out = append(out, contents.Line{Text: "stiffener", Height: in.CardOf("stiffener").Thickness})
	}
	if hasLining(in, Riser) {
		out = append(out, contents.Line{Text: "riser", Height: in.RiserHeight + in.CardOf("riser").Thickness})
	}
	if hasLining(in, Liner) {
		// Its scores lie on the board's grooves, which may take a tick more.
		l := 2*in.CardOf("liner").Thickness + liningGap + in.Tools.Tick.Length()
		out = append(out, contents.Line{Text: "liner, its gap and the next groove", Length: l, Width: l})
	}
	if p := pastedIn(in); p != (style.Extent{}) {
		out = append(out, contents.Line{Text: "paper glued inside", Length: p.Length, Width: p.Width, Height: p.Height})
	}
	return out
}

// pastedIn is what paper that is glued to the inside of the first piece takes of the
// room: once on the floor, on both walls of each way, and of a covering the edge
// that is turned in.
func pastedIn(in *Inputs) style.Extent {
	inside := slices.ContainsFunc(in.Mats, func(d dress.Dressing) bool { return d.Side == dress.Inside })
	if !inside && len(in.Covers) == 0 {
		return style.Extent{}
	}
	s, err := style.ByID(in.Style)
	if err != nil {
		return style.Extent{}
	}
	of, err := usualOf(in, s)
	if err != nil {
		return style.Extent{}
	}
	marks := of.faces[of.first]
	walls := 2 * dress.Thickness(in.Mats, of.first, marks, pattern.Wall, dress.Inside, 0)
	for _, c := range in.Covers {
		if c.Piece == of.first {
			walls += 2 * c.Inside()
		}
	}
	return style.Extent{Length: walls, Width: walls, Height: dress.Thickness(in.Mats, of.first, marks, pattern.Panel, dress.Inside, 0)}
}

// interior is the inside of a box while pieces are put in: the room that is left, and how high
// over the floor it begins.
type interior struct {
	*Built
	clear contents.Room
	foot  measure.Length
}

// fitOut makes the pieces that go inside the finished box and puts them to its parts, with
// their fits.
func fitOut(b *Built) error {
	r := &interior{Built: b, clear: contents.Room{Length: b.Inside.Length, Width: b.Inside.Width, Height: b.Inside.Height}}
	if err := r.lining(); err != nil || b.Stand == nil {
		return err
	}
	stand := b.Stand.Spread(partingOf(&b.Inputs), r.clear.Length, r.clear.Width, r.clear.Height)
	b.Stand = &stand
	switch c := b.Inputs.Compartments; {
	case c.Per == contents.Together:
		return nil
	case c.As == AsTrays:
		return r.trays()
	case c.As == AsInsert:
		return r.insert()
	}
	return r.dividers()
}

// lining puts the linings in, and leaves the room that is clear in them.
func (r *interior) lining() error {
	in := &r.Inputs
	clear := &r.clear
	if hasLining(in, Stiffener) {
		t, ruler := in.CardOf("stiffener").Thickness, in.Tools.Tick.Ruler()
		l, w := measure.Down(clear.Length-liningGap, ruler), measure.Down(clear.Width-liningGap, ruler)
		if err := r.put(style.Stiffener(l, w, t)); err != nil {
			return fault.At("linings", err)
		}
		r.inserted([]hand.Said{hand.Say("stiffener-in")}, "stiffener")
		r.within(
			inner{id: "stiffener", name: "Stiffener", cut: true, length: l, width: w},
		)
		r.foot += t
	}
	if hasLining(in, Riser) {
		p, err := r.floor("riser", "Riser", in.RiserHeight, nil)
		if err != nil {
			return err
		}
		if err := r.put(p); err != nil {
			return fault.At("linings", err)
		}
		r.inserted([]hand.Said{hand.Say("riser-in")}, p.ID)
		r.foot += in.RiserHeight + in.CardOf("riser").Thickness
	}
	clear.Height -= r.foot
	if hasLining(in, Liner) {
		t := in.CardOf("liner").Thickness
		l, w := measure.Down(clear.Length-t-liningGap, in.Tools.Tick), measure.Down(clear.Width-t-liningGap, in.Tools.Tick)
		p, err := style.Liner(l, w, measure.Down(clear.Height-belowRim, in.Tools.Tick.Ruler()))
		if err != nil {
			return fault.At("linings", err)
		}
		if err := r.put(p); err != nil {
			return fault.At("linings", err)
		}
		r.inserted([]hand.Said{hand.Say("liners-in")}, p.ID)
		r.within(inner{id: "liner", name: "Liner", length: l, width: w, card: t})
		clear.Length, clear.Width = l-t, w-t
	}
	if clear.Height <= 0 && len(in.Linings) == 0 {
		return fault.New(fault.NoRoom, "size", "nothing stands up around what goes in: give it walls that are higher than the card is thick")
	}
	if clear.Height <= 0 {
		return fault.New(fault.NoRoom, "linings", "the linings leave no height for anything to go in; make the box higher or leave one out")
	}
	return nil
}

// put adds a piece that stands inside the box, its foot so far above the
// floor.
func (r *interior) put(p style.Part) error {
	at := r.Box.Room.At
	for i := range p.Places {
		p.Places[i].Shift = r3.Add(p.Places[i].Shift, r3.Vec{X: at.X, Y: at.Y, Z: at.Z + r.foot.MM()})
	}
	return r.add(p)
}

// inserted is how pieces go into the box.
func (r *interior) inserted(said []hand.Said, pieces ...string) {
	r.Inserting = append(r.Inserting, hand.Put{Thing: strings.Join(pieces, ", "), When: hand.Empty, Uses: pieces, Phrase: said})
}

// parted is how what parts the box stands in it, and what goes where then.
func (r *interior) parted(said hand.Said, pieces ...string) {
	all := []hand.Said{said}
	for i, row := range r.rows() {
		if i == 0 {
			all = append(all, hand.Say("what-goes-where"))
		}
		all = append(all, hand.Said{Key: "what-row", Words: map[string]string{"n": strconv.Itoa(i + 1), "things": strings.Join(row, ", ")}})
	}
	r.inserted(all, pieces...)
}

// inner is a piece inside a room as its account needs it: how long and wide
// it is, or 0 where it need not be told, and its card where that counts.
type inner struct {
	id, name      string
	cut           bool // it is told as cut, not score to score
	length, width measure.Length
	card          measure.Length
}

// within adds the account of a piece inside a clear room along both axes.
func (r *interior) within(x inner) {
	is := ""
	if x.cut {
		is = "as cut"
	}
	for _, axis := range []struct {
		name        string
		outer, span measure.Length
	}{{"length", r.clear.Length, x.length}, {"width", r.clear.Width, x.width}} {
		if axis.span == 0 {
			continue
		}
		p := fit.Pair{
			Kind: fit.InBox, Outer: r.Parts[0].ID, OuterName: "Inside of the box", OuterIs: "clear", OuterSpan: axis.outer,
			Inner: x.id, InnerName: x.name, InnerIs: is, InnerSpan: axis.span, InnerCard: x.card, Axis: axis.name,
		}
		r.Fits = append(r.Fits, p.Do(0).Leaning(r.Inputs.LeanFor(p)))
	}
}

// floor makes a false floor that fits the room, its skirts so high.
func (r *interior) floor(id, name string, skirts measure.Length, holes []style.Hole) (style.Part, error) {
	t, tick := r.Inputs.CardOf(id).Thickness, r.Inputs.Tools.Tick
	f := style.Floor{ID: id, Name: name, Skirts: measure.Down(skirts, tick), Holes: holes, Tick: tick,
		Length: measure.Down(r.clear.Length-t-insertGap, tick), Width: measure.Down(r.clear.Width-t-insertGap, tick)}
	for i := range f.Holes { // told from the room's corner until now
		f.Holes[i].X -= (r.clear.Length - f.Length) / 2
		f.Holes[i].Y -= (r.clear.Width - f.Width) / 2
	}
	r.within(inner{id: id, name: name, length: f.Length, width: f.Width, card: t})
	p, err := f.Part()
	if err != nil {
		err = fault.At("linings", err)
	}
	return p, err
}

func (r *interior) dividers() error {
	p := partingOf(&r.Inputs)
	d := style.Dividers{Length: r.clear.Length, Width: r.clear.Width, Height: r.clear.Height, Columns: r.Stand.Columns, Rows: r.Stand.Rows,
		Bands: r.Stand.Bands, Card: p.Between, Tick: r.Inputs.Tools.Tick, LongUp: r.Inputs.Compartments.Along}
	parts, err := d.Parts()
	if err != nil {
		return fault.At("compartments.as", err)
	}
	if len(parts) == 0 {
		return nil // one cell is the box itself
	}
	var ids []string
	for _, part := range parts {
		if err := r.put(part); err != nil {
			return fault.At("compartments.as", err)
		}
		ids = append(ids, part.ID)
		if len(d.Bands) > 0 && part.ID != "divider.long" {
			continue // between two others, not in the box
		}
		if part.ID == "divider.long" {
			r.within(inner{id: part.ID, name: part.Name, cut: true, length: style.StripLength(r.clear.Length, d.Tick)})
		} else {
			r.within(inner{id: part.ID, name: part.Name, cut: true, width: style.StripLength(r.clear.Width, d.Tick)})
		}
	}
	r.parted(d.Standing(), ids...)
	return nil
}

// trays makes one piece of every size of tray.
func (r *interior) trays() error {
	t := r.Inputs.CardOf("cell.1").Thickness
	type size struct{ length, width measure.Length }
	var sizes []size
	middles := map[size][][2]measure.Length{}
	names := map[size][]string{}
	for _, c := range r.Stand.Cells {
		// The columns and rows as they were before rounding left more.
		s := size{measure.Down(c.Length-t, r.Inputs.Tools.Tick), measure.Down(c.Width-t, r.Inputs.Tools.Tick)}
		if middles[s] == nil {
			sizes = append(sizes, s)
		}
		middles[s] = append(middles[s], [2]measure.Length{c.X + c.Length/2 - r.clear.Length/2, c.Y + c.Width/2 - r.clear.Width/2})
		if !slices.Contains(names[s], c.Name) {
			names[s] = append(names[s], c.Name)
		}
	}
	height := measure.Down(min(r.clear.Height, max(r.clear.Height/2, 12*measure.Millimetre)), r.Inputs.Tools.Tick)
	var ids []string
	for i, s := range sizes {
		id := fmt.Sprintf("cell.%d", i+1)
		cell := style.CellTray{
			ID:       id,
			Name:     "Cell tray for " + strings.Join(names[s], ", "),
			Length:   s.length,
			Width:    s.width,
			Height:   height,
			Card:     t,
			Adhesive: style.AdhesiveOf(r.Spec),
			Tick:     r.Inputs.Tools.Tick,
			Middles:  middles[s],
		}
		p, err := cell.Part()
		if err != nil {
			return fault.At("compartments.as", err)
		}
		if err := r.put(p); err != nil {
			return fault.At("compartments.as", err)
		}
		ids = append(ids, id)
	}
	r.parted(hand.Say("trays-in"), ids...)
	return nil
}

// insert makes the floor with holes, standing at a height that holds things
// by their middle.
func (r *interior) insert() error {
	var holes []style.Hole
	shortest := r.clear.Height
	for n, s := range r.Stand.Spots {
		t := r.Inputs.Things[s.Thing]
		h := style.Hole{Length: s.Length + t.Ease, X: s.X + s.Length/2, Y: s.Y + s.Width/2}
		if t.Shape != contents.Round || s.Lying {
			h.Width = s.Width + t.Ease
		}
		if n == 0 || s.Height < shortest {
			shortest = s.Height
		}
		holes = append(holes, h)
	}
	tick := r.Inputs.Tools.Tick
	skirts := max(measure.Down(shortest/2, tick), measure.Up(leastSkirt, tick))
	p, err := r.floor("insert", "Insert", skirts, holes)
	if err != nil {
		return fault.At("compartments.as", err)
	}
	if err := r.put(p); err != nil {
		return fault.At("compartments.as", err)
	}
	r.parted(hand.Say("insert-in"), p.ID)
	return nil
}

// WhatGoesWhere lists what each cell holds, row by row from the back, left to right.
func (b *Built) WhatGoesWhere() string {
	var out []string
	for i, row := range b.rows() {
		out = append(out, fmt.Sprintf("row %d: %s", i+1, strings.Join(row, ", ")))
	}
	return strings.Join(out, "; ")
}

// rows are the things in the cells, row by row from the back, left to right; none without cells.
func (b *Built) rows() [][]string {
	if b.Stand == nil || len(b.Stand.Cells) == 0 {
		return nil
	}
	rows := make([][]string, len(b.Stand.Rows))
	for _, c := range b.Stand.Cells {
		rows[c.Row] = append(rows[c.Row], b.ThingName(c.Thing))
	}
	return rows
}
