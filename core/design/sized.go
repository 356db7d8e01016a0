package design

import (
	"fmt"
	"strings"

	"brevium/core/contents"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/style"
)

// Sized is a design with every size and option that follows from its inputs, and the box of its
// style at those. It is the first of the values a design goes through:
//
//	Inputs → Sized → Built → Papered → Tied → Dressed → Laid → Result
//
// Each is made from the one before by one function and is not changed after that.
type Sized struct {
	Inputs Inputs
	Style  *style.Style
	// Spec holds the sizes and options used, the allowance among them.
	Spec   style.Spec
	Solved bool // the allowance was worked out, not typed
	Box    *style.Box
	Needs  style.Extent // the inside the things need, before rounding
	// Ways are the ways the things can stand, best first; empty when the design starts from
	// a size.
	Ways   []Way
	chosen *contents.Arrangement // of the ways
}

// size finds the sizes of a design: those that were typed, those that its contents or its room
// need, of which so many arrangements are priced, and all that follow. Every fault names the field to mend.
func size(in Inputs, s *style.Style, tries int) (Sized, error) {
	out := Sized{Inputs: in, Style: s}
	out.Inputs.Labels = in.Rested()
	spec, err := in.spec(s)
	if err != nil {
		return out, err
	}
	// What was typed is looked at before sizes are sought with it.
	for _, p := range s.Parameters {
		if v, typed := in.Size[p.ID]; typed && !s.IsAxis(p.ID) && (v < p.Min || v > p.Max) {
			return out, in.outOfRange(fault.Path("size", p.ID), p.Label, v, p.Min, p.Max)
		}
	}
	z := newSizer(&out.Inputs, s, spec)
	z.tries = tries
	switch {
	case len(in.Things) > 0:
		var stands stood
		if stands, err = z.around(); err == nil {
			out.chosen, out.Needs, out.Ways = &stands.stand, stands.needs, stands.ways
		}
	case in.Room != style.Extent{}:
		out.Needs = in.Room
		err = z.sizeFor(in.Room, Inside)
	case in.Basis != Scored:
		want := s.Along(spec.Lengths)
		if in.Basis == Inside {
			want = less(want, less(style.Extent{}, pastedIn(&in)))
		}
		err = z.sizeFor(want, in.Basis)
	}
	if err != nil {
		return out, err
	}
	if err := z.inRange(); err != nil {
		return out, err
	}
	if out.Box, err = z.box(); err != nil {
		return out, atHeight(err)
	}
	out.Spec, out.Solved = z.spec, z.solved
	return out, nil
}

// less is a room without what is taken of it.
func less(room, taken style.Extent) style.Extent {
	return style.Extent{Length: room.Length - taken.Length, Width: room.Width - taken.Width, Height: room.Height - taken.Height}
}

// atHeight puts a fault that names no field, such as walls that leave no
// floor, at the height.
func atHeight(err error) error {
	if f := fault.Of(err); f.Field == "" && f.Code != fault.Internal {
		return fault.At("size.height", err)
	}
	return err
}

// Show writes a length for the design's maker: its unit, its tick.
func (s *Sized) Show(l measure.Length) string { return s.Inputs.show(l) }

// Telling is how this design tells lengths.
func (s *Sized) Telling() recipe.Telling {
	return recipe.Telling{Units: s.Inputs.Units, Tick: s.Inputs.Tools.Tick}
}

// ruled is a length at the mark of a ruler that is next to it.
func (s *Sized) ruled(l measure.Length) measure.Length {
	return measure.Nearest(l, s.Inputs.Tools.Tick.Ruler())
}

// BySize gives the inputs of the same box by its sizes, without what goes into it.
func (s *Sized) BySize() Inputs {
	in := s.Inputs.Clone()
	in.Basis, in.Room, in.Things, in.Stand = Scored, style.Extent{}, nil, ""
	s.Style.Give(in.Size, s.Style.Along(s.Spec.Lengths))
	return in
}

// ThingName names a thing for a label.
func (s *Sized) ThingName(i int) string {
	if n := s.Inputs.Things[i].Name; n != "" {
		return n
	}
	return string(s.Inputs.Things[i].Shape)
}

// Filling names the contents: "4 Jars and 1 Card deck".
func (s *Sized) Filling() string {
	var parts []string
	for i, t := range s.Inputs.Things {
		parts = append(parts, fmt.Sprintf("%d × %s", t.Count, s.ThingName(i)))
	}
	all := strings.Join(parts, " and ")
	if n, _ := s.Style.BesideOf(s.Spec); n > 0 && len(parts) == 1 && s.Inputs.Things[0].Count > n {
		all += fmt.Sprintf(": %d in the middle and one in each of the %d small boxes", s.Inputs.Things[0].Count-n, n)
	}
	if n := s.Box.Room.Times; n > 1 && len(parts) > 0 {
		all += fmt.Sprintf(", shared out among the %d rooms", n)
	}
	return all
}

// Shown is the state in which pictures show the box: apart, so that one sees
// in, but shut where its parts stand on one another.
func (s *Sized) Shown() style.State {
	if len(s.Box.Stands) > 0 || len(s.Inputs.Bands)+len(s.Inputs.Ribbons) > 0 {
		return style.Finished
	}
	return style.Open
}
