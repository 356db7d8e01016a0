// Package style is the catalogue of boxes: one file a style, each saying its
// parameters, its pieces, what must fit what, the room it gives and how it is
// glued. See docs/writing-a-style.md.
package style

import (
	"fmt"
	"slices"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// Style is one kind of box.
type Style struct {
	ID, Name, About string
	Parameters      []*Parameter
	Options         []*Option
	// Axes are the parameters that set the room's length, width and height.
	// One parameter may set two of them; the larger need then counts.
	Axes [3]*Parameter
	// Allowance is the option to be solved from the gap account when the
	// user leaves it out; nil for a box without fitting parts.
	Allowance *Option
	// Weights are what it is usually made of, in g/m²: of the whole under "", of single pieces by
	// their ids; what is not there is of medium card.
	Weights map[string]float64
	// For is what it is made for, above all the first: under that it is shown.
	For []Use
	// Suits are things that makers like to give in it, in the singular: what it is offered for.
	Suits []string
	// Newer says of a maker's own style that it has a newer version.
	Newer bool
	// Inner styles go inside a box of another style.
	Inner bool
	// Lies says that what goes in may lie on any side of which nothing is said: it is filled flat,
	// and carried on edge.
	Lies bool
	// Untold says that it has kinds which its blanks do not tell: two blanks without a score
	// over their whole length are any two rectangles.
	Untold bool
	// Opens says in a few words how one gets in, and Strength how well the
	// box stands up to handling, for comparing.
	Opens, Strength string
	// FromSheet, when set, is a plain way to part a whole sheet into its piece,
	// and SheetWords what that is called, as in "in thirds".
	FromSheet  func(width, height measure.Length, tick measure.Tick) map[string]measure.Length
	SheetWords string
	// Beside says how many things stand in small boxes beside the room, one each,
	// and how large the room must be at least for these; nil is none.
	Beside func(Spec) (int, Extent)
	// Rooms says how many equal rooms it has, such as small boxes that it
	// carries; nil is one.
	Rooms func(Spec) int
	// Several says by which choices it has so many equal rooms; nil, or of a number it cannot
	// have, is none.
	Several func(n int) map[string]string
	Build   func(Spec) (*Box, error)
}

// Parameter is a size of the box. It is the handle by which a style reads it.
type Parameter struct {
	ID, Label, About  string
	Default, Min, Max measure.Length
	// Follows gives the value from the others when it is left out; nil means
	// the default whatever they are.
	Follows func(Spec) measure.Length
	// Only tells for which choices it counts; nil means for all.
	Only func(Spec) bool
}

// Counts reports whether a parameter counts with the choices that are made.
func (p *Parameter) Counts(s Spec) bool { return p.Only == nil || p.Only(s) }

// Usual is the parameter's usual value for tools marked as a board of the tick.
func (p *Parameter) Usual(tick measure.Tick) measure.Length {
	return bounded(measure.Nearest(usualLength(p.Default, tick), tick), p.Min, p.Max, tick)
}

// Usual is a length option's usual value for tools marked as a board of the
// tick.
func (o *Option) Usual(tick measure.Tick) measure.Length {
	return bounded(usualLength(o.Default, tick), o.Min, o.Max, tick.Ruler())
}

// AllowanceTick is what an allowance is solved on: 1/32 in or 0.5 mm, whatever
// the board's, because a larger blank is scored with the same groove from each
// of its edges. A chained one keeps to the board's grooves, or half-way between
// coarse ones; a shim is half the allowance and on that tick itself.
func (o *Option) AllowanceTick(s Spec) measure.Tick {
	switch {
	case o.Chained:
		return min(s.Tick, s.Tick.System().Tick())
	case s.Choices[lidCustom.ID] == "shim":
		return 2 * s.Tick.Ruler()
	}
	return s.Tick.Ruler()
}

func bounded(l, least, most measure.Length, tick measure.Tick) measure.Length {
	return max(measure.Up(least, tick), min(measure.Down(most, tick), l))
}

// usualLength is a length as someone with tools of that kind would choose it: to the
// sixteenth of an inch, or in metric the rounder the larger it is, so that
// 3/4 in is 20 mm and 4 in are 10 cm.
func usualLength(l measure.Length, tick measure.Tick) measure.Length {
	to := measure.In.Tick()
	if tick.System() != measure.In {
		to = measure.Tick(mm / 2)
		for _, step := range []struct{ from, tick measure.Length }{{6 * mm, mm}, {9 * mm, 2 * mm}, {15 * mm, 5 * mm}, {150 * mm, 10 * mm}} {
			if l >= step.from {
				to = measure.Tick(step.tick)
			}
		}
	}
	return measure.Nearest(l, to)
}

// Kind is what an option takes.
type Kind string

// A choice is one of some words; a length is typed like any other.
const (
	ChoiceKind Kind = "choice"
	LengthKind Kind = "length"
)

// Option is a choice of manner, or a length with a usual value. It is the
// handle by which a style reads it.
type Option struct {
	ID, Label, About  string
	Kind              Kind
	Choices           []string
	DefaultChoice     string
	Default, Min, Max measure.Length
	Follows           func(Spec) measure.Length // as a Parameter's
	// Chained says that an allowance moves scores that are counted on from one
	// edge, so that it must keep them on the board's grooves; others are read
	// with the same groove from each edge of a larger blank.
	Chained bool
	// ForFit puts the option with the questions of fit, not of shape.
	ForFit bool
	// Smaller is the choice whose blank is smaller, for a box that cannot be made; nil is none.
	Smaller *Smaller
	// Varies says that whoever looks for a larger box or fewer sheets may choose it, where
	// nobody else has: one of the Choices, or a length as small as Small.
	Varies bool
	Small  func(Spec) measure.Length
}

// Smaller is a choice of an option whose blank is smaller, and the words for choosing it. Trims
// says that it helps only where a blank is too large, and then first.
type Smaller struct {
	Choice, Words string
	Trims         bool
}

// Spec is the values a style is built from, all present and in range.
type Spec struct {
	Style   *Style
	Lengths map[string]measure.Length // parameters and length options
	Choices map[string]string
	// Thickness of the card of each piece; "" is the box's own.
	Thickness map[string]measure.Length
	Tick      measure.Tick
	Units     measure.Unit // for what is said about limits; "" is millimetres
	// One is a single one of the things that go in, with room to spare, when they
	// are all of one kind; else nothing.
	One Extent

	remarks *[]Remark // what is said of it, while it is built
	misread *string   // the first value that was read without being declared
}

// Size reads a parameter of the style.
func (s Spec) Size(p *Parameter) measure.Length {
	v, there := s.Lengths[p.ID]
	if !there || s.Style == nil || !slices.Contains(s.Style.Parameters, p) {
		s.undeclared("size " + p.ID)
	}
	return v
}

// Length reads a length option of the style.
func (s Spec) Length(o *Option) measure.Length {
	v, there := s.Lengths[o.ID]
	if !there || s.Style == nil || !slices.Contains(s.Style.Options, o) {
		s.undeclared("option " + o.ID)
	}
	return v
}

// Choice reads a choice of the style.
func (s Spec) Choice(o *Option) string {
	v, there := s.Choices[o.ID]
	if !there || s.Style == nil || !slices.Contains(s.Style.Options, o) {
		s.undeclared("option " + o.ID)
	}
	return v
}

func (s Spec) undeclared(what string) {
	if s.misread != nil && *s.misread == "" {
		*s.misread = what
	}
}

// Make builds the box. A style that reads what it did not declare is an error.
func (s *Style) Make(spec Spec) (*Box, error) {
	b, err := s.Pieces(spec)
	if err != nil {
		return nil, err
	}
	return b, b.Settle(s.Inner)
}

// Pieces is Make for who asks for the pieces alone: a box whose style says nothing of its room has none.
func (s *Style) Pieces(spec Spec) (*Box, error) {
	misread, remarks := "", []Remark(nil)
	spec.Style, spec.misread, spec.remarks = s, &misread, &remarks
	b, err := s.Build(spec)
	if err == nil {
		b.Room.Times, b.Remarks = s.RoomsOf(spec), remarks
	}
	if misread != "" {
		return nil, fmt.Errorf("the style %s reads the %s, which it does not declare", s.ID, misread)
	}
	if err != nil {
		return nil, err
	}
	for i := range b.Parts {
		b.Parts[i].Card = spec.Card(b.Parts[i].ID)
	}
	return b, nil
}

// RoomsOf is how many equal rooms a box has; what goes in is shared out among
// them.
func (s *Style) RoomsOf(spec Spec) int {
	if s.Rooms == nil {
		return 1
	}
	spec.Style = s
	return s.Rooms(spec)
}

// Follow gives the sizes and options that are not given and follow from others
// what follows; axes are always given.
func (s *Style) Follow(spec *Spec, given func(id string) bool) {
	for _, p := range s.Parameters {
		if p.Follows != nil && !given(p.ID) && !s.IsAxis(p.ID) {
			spec.Lengths[p.ID] = p.Follows(*spec)
		}
	}
	for _, o := range s.Options {
		if o.Follows != nil && !given(o.ID) {
			spec.Lengths[o.ID] = o.Follows(*spec)
		}
	}
}

// BesideOf is how many things stand in small boxes beside the room, and how
// large it must be at least for that.
func (s *Style) BesideOf(spec Spec) (int, Extent) {
	if s.Beside == nil {
		return 0, Extent{}
	}
	spec.Style = s
	return s.Beside(spec)
}

// Usual gives every parameter and option its usual value, whatever the others.
func (s *Style) Usual(tick measure.Tick, card measure.Length) Spec {
	out := Spec{
		Style:     s,
		Lengths:   map[string]measure.Length{},
		Choices:   map[string]string{},
		Thickness: map[string]measure.Length{"": card},
		Tick:      tick,
	}
	for _, p := range s.Parameters {
		out.Lengths[p.ID] = p.Usual(tick)
	}
	for _, o := range s.Options {
		if o.Kind == LengthKind {
			out.Lengths[o.ID] = o.Usual(tick)
		} else {
			out.Choices[o.ID] = o.DefaultChoice
		}
	}
	return out
}

// as is this spec for another style that makes part of the box: its usual
// values, with those that go by the same id here.
func (s Spec) as(other *Style) Spec {
	out := other.Usual(s.Tick, 0)
	out.Thickness, out.Units, out.misread = s.Thickness, s.Units, s.misread
	for id := range out.Lengths {
		if v, both := s.Lengths[id]; both {
			out.Lengths[id] = v
		}
	}
	for id := range out.Choices {
		if v, both := s.Choices[id]; both {
			out.Choices[id] = v
		}
	}
	return out
}

// about is a constant of the craft as someone with these tools would say it.
func (s Spec) about(l measure.Length) measure.Length { return usualLength(l, s.Tick) }

// cutting is what a hand cuts and marks to.
func (s Spec) cutting() measure.Tick { return s.Tick.Cut() }

// grid is a piece drawn as a table of scores, cut with these tools.
func (s Spec) grid(columns, rows []measure.Length, cells string) *pattern.Grid {
	g := pattern.NewGrid(columns, rows, cells)
	g.CutOn(s.cutting())
	return g
}

// show writes a limit for a person.
func (s Spec) show(l measure.Length) string {
	if s.Units == "" {
		return measure.Label(l, measure.MM, measure.Hundredth)
	}
	if s.Units.Marks(s.Tick) {
		l = measure.OnMark(l, s.Units, s.Tick)
	}
	return measure.Label(l, s.Units, s.Tick)
}

// Card is the thickness of the card a piece is made from.
func (s Spec) Card(piece string) measure.Length {
	if t, ok := s.Thickness[piece]; ok {
		return t
	}
	return s.Thickness[""]
}

// Extent is a size in space.
type Extent struct{ Length, Width, Height measure.Length }

// Axis gives the nth of a size: 0 length, 1 width, 2 height.
func (e *Extent) Axis(n int) *measure.Length {
	return []*measure.Length{&e.Length, &e.Width, &e.Height}[n]
}

// Free is what is free of a room on a ruler's marks, each side rounded inward: the size that
// a box is told by, wherever it is told, whatever its board's grooves are.
func (e Extent) Free(unit measure.Unit) Extent { return e.on(measure.Down, unit) }

// Taken is what a thing takes up on a ruler's marks, each side rounded outward.
func (e Extent) Taken(unit measure.Unit) Extent { return e.on(measure.Up, unit) }

func (e Extent) on(round func(measure.Length, measure.Tick) measure.Length, unit measure.Unit) Extent {
	t := unit.Ruler()
	return Extent{round(max(0, e.Length), t), round(max(0, e.Width), t), round(max(0, e.Height), t)}
}

// FreeIn and TakenIn write them: "3 7/8 × 3 7/8 × 2 9/16 in".
func (e Extent) FreeIn(unit measure.Unit) string  { return e.Free(unit).in(unit) }
func (e Extent) TakenIn(unit measure.Unit) string { return e.Taken(unit).in(unit) }

func (e Extent) in(unit measure.Unit) string {
	return measure.Sides(unit, unit.Ruler(), e.Length, e.Width, e.Height)
}

// Along gives the sizes of a spec along the style's axes.
func (s *Style) Along(lengths map[string]measure.Length) Extent {
	return Extent{lengths[s.Axes[0].ID], lengths[s.Axes[1].ID], lengths[s.Axes[2].ID]}
}

// Own lists the axes that have a parameter of their own; one that shares its
// parameter with an earlier axis is left out.
func (s *Style) Own() []int {
	var out []int
	for i, p := range s.Axes {
		if slices.Index(s.Axes[:], p) == i {
			out = append(out, i)
		}
	}
	return out
}

// IsAxis reports whether a parameter sets the room.
func (s *Style) IsAxis(id string) bool {
	return slices.ContainsFunc(s.Axes[:], func(p *Parameter) bool { return p.ID == id })
}

// Give sets the style's axes to a size; of two axes with one parameter the
// larger counts.
func (s *Style) Give(lengths map[string]measure.Length, e Extent) {
	for i, p := range s.Axes {
		l := *e.Axis(i)
		if first := slices.Index(s.Axes[:], p); first < i {
			l = max(l, lengths[p.ID])
		}
		lengths[p.ID] = l
	}
}

// Faults that a style may have with its sizes.
func outOfRange(field, format string, args ...any) error {
	return fault.New(fault.OutOfRange, field, format, args...)
}

// atMost refuses one size that may not be over another, naming the limit.
func (s Spec) atMost(p *Parameter, limit measure.Length, because string) error {
	if s.Size(p) > limit {
		return outOfRange("size."+p.ID, "the %s can be at most %s: %s", p.ID, s.show(limit), because)
	}
	return nil
}

// ByID finds a style.
func ByID(id string) (*Style, error) {
	for _, known := range [][]*Style{All, owned()} {
		if i := slices.IndexFunc(known, func(s *Style) bool { return s.ID == id }); i >= 0 {
			return known[i], nil
		}
	}
	return nil, fault.New(fault.UnknownStyle, "", "%q is not a box style; see brevium styles", id)
}

// Option finds an option.
func (s *Style) Option(id string) (*Option, bool) {
	i := slices.IndexFunc(s.Options, func(o *Option) bool { return o.ID == id })
	if i < 0 {
		return nil, false
	}
	return s.Options[i], true
}

// Parameter finds a parameter.
func (s *Style) Parameter(id string) (*Parameter, bool) {
	i := slices.IndexFunc(s.Parameters, func(p *Parameter) bool { return p.ID == id })
	if i < 0 {
		return nil, false
	}
	return s.Parameters[i], true
}

// Options every style has.
var (
	corners = &Option{
		ID: "corners", Label: "Corners", Kind: ChoiceKind, Choices: []string{"two-tab", "slim", "pinwheel"}, DefaultChoice: "two-tab",
		About: "Two-tab: two walls carry both tabs. Slim: the same, cut narrow. Pinwheel: one tab a wall, no waste",
	}
)

// pt is shorthand for a point of the flat card given in lengths.
func pt(x, y measure.Length) pattern.Point { return pattern.Pt(x.MM(), y.MM()) }
