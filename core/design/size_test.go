package design

import (
	"testing"

	"brevium/core/contents"
	"brevium/core/inspect"
	"brevium/core/measure"
)

// A strip's trays are as wide as its square one is long: what is wide makes that longer, and
// not the width, which a strip has no use for.
func TestAStripIsLongEnoughForWhatIsWide(t *testing.T) {
	t.Parallel()
	for _, unit := range measure.Units {
		in := New("Tins", unit, "fold-out-carrier")
		in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
		in.Things = []contents.Thing{{Shape: contents.Block, Ease: 2 * mm_, Count: 2, Length: 14 * mm_, Width: 36 * mm_, Height: 33 * mm_}}
		in.Choices["form"] = "strip"
		r := make_(t, in)
		for _, id := range []string{"room", "fill"} {
			if verdict(r, id) == inspect.Fail {
				t.Errorf("in %s a strip %v long has %v inside for 16 × 38 mm: %s", unit, r.Spec.Lengths["length"], r.Inside, id)
			}
		}
	}
}

// Sizes of a pillow follow from one another by jumps, so that its size may never settle: it has the
// room for what goes in all the same.
func TestPillowThatNeverSettlesHasItsRoom(t *testing.T) {
	t.Parallel()
	for _, c := range [][3]measure.Length{{37, 25, 39}, {33, 36, 54}, {47, 43, 69}, {42, 36, 66}, {46, 28, 36}} {
		in := New("scarf", measure.In, "pillow")
		in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
		in.Things = []contents.Thing{{Shape: contents.Block, Ease: 2 * mm_, Count: 1, Length: c[0] * mm_, Width: c[1] * mm_, Height: c[2] * mm_}}
		r := make_(t, in)
		for _, id := range []string{"room", "fill"} {
			if v := verdict(r, id); v != inspect.OK {
				t.Errorf("%v mm: %s is %s", c, id, v)
			}
		}
	}
}
