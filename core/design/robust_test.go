package design

import (
	"errors"
	"testing"

	"brevium/core/contents"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/sample"
	"brevium/core/style"
)

// plainDesigns gives every style with every shape of thing, one and three of
// it, every manner of cells and every lining, in a unit.
func plainDesigns(unit measure.Unit, each func(Inputs)) {
	linings := [][]Lining{nil, {Stiffener}, {Liner}, {Riser}, {Stiffener, Liner, Riser}}
	for _, s := range style.All {
		for _, shape := range contents.Shapes {
			for _, count := range []int{1, 3} {
				for _, per := range []contents.Per{contents.Together, contents.PerKind, contents.PerThing} {
					for _, as := range Cellings {
						if per == contents.Together && as != AsDividers {
							continue
						}
						for _, lining := range linings {
							in := New("plain", unit, s.ID)
							in.Things = []contents.Thing{{Shape: shape, Length: 45600 * measure.Micrometre, Width: 45600 * measure.Micrometre,
								Height: 24 * mm_, Count: count, Ease: contents.UsualEaseOf(shape)}}
							if per != contents.Together {
								in.Compartments = Compartments{Per: per, As: as}
							}
							in.Linings = lining
							each(in)
						}
					}
				}
			}
		}
	}
}

// Whatever reads can be made and written as a plan, or is refused with a
// sentence at a field; nothing panics.
func TestPlainDesignsAreMadeOrRefused(t *testing.T) {
	t.Parallel()
	made, n := 0, 0
	plainDesigns(measure.MM, func(in Inputs) {
		// Every eighth one: the others were all tried when this was written.
		if n++; n%8 != 0 || !sample.Takes(t, n/8) {
			return
		}
		r, err := Make(t.Context(), in)
		if err != nil {
			var f *fault.Fault
			if !errors.As(err, &f) || f.Code == fault.Internal || f.Field == "" {
				t.Errorf("%s, %v of %s, %+v, %v: %v", in.Style, in.Things[0].Count, in.Things[0].Shape, in.Compartments, in.Linings, err)
			}
			return
		}
		made++
		if n%24 == 0 {
			if _, err := r.Plan(); err != nil {
				t.Error(err)
			}
		}
	})
	if made < sample.Of(t, n/24) {
		t.Errorf("only %d of %d could be made", made, n)
	}
}

// Two round things of 45.6 × 24 mm in a bag, a cell each made by an insert:
// what once took the server down when the unit was switched.
func TestTheBagThatFell(t *testing.T) {
	t.Parallel()
	in := New("bag", measure.MM, "fold-top-bag")
	in.Things = []contents.Thing{{Shape: contents.Round, Length: 45600 * measure.Micrometre, Width: 45600 * measure.Micrometre, Height: 24 * mm_, Count: 2, Ease: 2 * mm_}}
	in.Compartments = Compartments{Per: contents.PerThing, As: AsInsert}
	for _, u := range measure.Units {
		in.SetUnits(u)
		if _, err := Make(t.Context(), in); err != nil && fault.Of(err).Code == fault.Internal {
			t.Errorf("in %s: %v", u, err)
		}
	}
	gable := New("gable", measure.MM, "gable-lid")
	gable.Things, gable.Compartments = in.Things, in.Compartments
	if _, err := Make(t.Context(), gable); err != nil && fault.Of(err).Code == fault.Internal {
		t.Error(err)
	}
}

// Sizes far under what a style goes to, of the outside or the inside, are
// refused or worked up to, never a fault of the program.
func TestSizesUnderTheSmallest(t *testing.T) {
	t.Parallel()
	for _, s := range style.All {
		for _, basis := range []Basis{Outside, Inside} {
			in := New("small", measure.MM, s.ID)
			in.Basis = basis
			for _, p := range s.Axes {
				in.Size[p.ID] = mm_ * 7 / 10
			}
			if _, err := Make(t.Context(), in); err != nil && fault.Of(err).Code == fault.Internal {
				t.Errorf("%s, %s: %v", s.ID, basis, err)
			}
		}
	}
}
