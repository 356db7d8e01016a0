package design

import (
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/sample"
	"brevium/core/style"
)

// anyWish is what somebody may ask for on the first page: things of 5 to 400 mm, 1 to 60 of them,
// any sheet, any card, any kind of box or the first that goes.
func anyWish(r *rand.Rand) (in Inputs, anyKind bool) {
	size := func() measure.Length { return 5*mm_ + measure.Length(r.Int64N(int64(395*mm_))) }
	in = New("wish", measure.Units[r.IntN(len(measure.Units))], style.Usual().ID)
	t := contents.Thing{ID: 1, Name: "Thing", Shape: contents.Shapes[r.IntN(len(contents.Shapes))], Length: size(), Width: size(), Height: size(), Count: 1 + r.IntN(60), Ease: 2 * mm_}
	if t.Shape == contents.Round {
		t.Width = t.Length
	}
	in.Things = []contents.Thing{t}
	if r.IntN(2) == 0 {
		in.Sheets = []paper.Sheet{paper.Standard[r.IntN(len(paper.Standard))]}
	}
	if r.IntN(3) == 0 {
		in.Card.Thickness = 50*measure.Micrometre + measure.Length(r.Int64N(int64(2950*measure.Micrometre)))
	}
	if anyKind = r.IntN(2) == 0; !anyKind {
		boxes := style.Boxes()
		in.Style = boxes[r.IntN(len(boxes))].ID
	}
	return in, anyKind
}

// Whatever is wished a box is drawn, which can be made as it is drawn, and what is other than was
// wished is said.
func TestEveryWishIsAnswered(t *testing.T) {
	t.Parallel()
	r := rand.New(rand.NewPCG(34, uint64(sample.Seed(34))))
	for n := range 300 {
		in, anyKind := anyWish(r)
		if !sample.Part(t, n, 24) {
			continue
		}
		found := Begin(in, anyKind)
		if len(found) == 0 {
			t.Errorf("nothing is drawn of %s", in.Write())
			continue
		}
		b := found[0]
		if b.Inputs.Style != in.Style && !strings.Contains(b.Changed, "This is ") || len(b.Inputs.Sheets) > len(in.Sheets) && !strings.Contains(b.Changed, "drawn on "+b.Inputs.Sheets[len(b.Inputs.Sheets)-1].Name) ||
			b.Inputs.Copies > 1 && !strings.Contains(b.Changed, " in each of ") || b.Inputs.Card != in.Card && !strings.Contains(b.Changed, "does not fold") {
			t.Errorf("%q does not say what was changed of %s", b.Changed, in.Write())
		}
		if _, err := Sketch(b.Inputs); err != nil {
			t.Errorf("a %s is drawn and cannot be made: %v", b.Inputs.Style, err)
		}
	}
}

// What is wished that can be made is made so, and nothing is said.
func TestAWishThatGoesIsNotChanged(t *testing.T) {
	t.Parallel()
	in := New("jars", measure.MM, "tray-lid")
	in.Things = []contents.Thing{{ID: 1, Name: "Jar", Shape: contents.Round, Length: 50 * mm_, Width: 50 * mm_, Height: 60 * mm_, Count: 4, Ease: 2 * mm_}}
	if found := Begin(in, true); len(found) != 1 || found[0].Changed != "" || found[0].Inputs.Style != "tray-lid" {
		t.Errorf("four jars come to %+v", found)
	}
	bottle := in.Clone()
	bottle.Things[0] = contents.Thing{ID: 1, Name: "Bottle", Shape: contents.Round, Length: 75 * mm_, Width: 75 * mm_, Height: 280 * mm_, Count: 1, Ease: 2 * mm_}
	bottle.Sheets = nil
	for _, s := range paper.Standard {
		if s.Name == "A3" {
			bottle.Sheets = append(bottle.Sheets, s)
		}
	}
	found := Begin(bottle, true)
	if len(found) < 2 || found[0].Inputs.Style != "tall-box" || found[0].Changed != "This is a tall box. A3 is too small for this: drawn on B3." {
		t.Errorf("a bottle with A3 alone comes to %+v", found[0].Changed)
	}
	large := New("large", measure.MM, "wallet-box")
	large.Size["depth"] = 200 * mm_
	large.Sheets = []paper.Sheet{{Name: "board", Width: 900 * mm_, Height: 900 * mm_, Count: paper.Unlimited}}
	if found := Begin(large, false); len(found) == 0 || !strings.Contains(found[0].Changed, "one change: make the depth 150 mm") {
		t.Errorf("a wallet 200 deep comes to %+v", found)
	}
}

// BenchmarkBegin answers a wish of the first page.
func BenchmarkBegin(b *testing.B) {
	r := rand.New(rand.NewPCG(34, 1))
	for b.Loop() {
		Begin(anyWish(r))
	}
}

// Whoever works in inches is shown the next sheet of inches, and in millimetres the next metric one.
func TestTheNextSheetIsOfOnesUnit(t *testing.T) {
	t.Parallel()
	for unit, want := range map[measure.Unit]string{measure.In: "12 × 12 in", measure.MM: "30 × 30 cm"} {
		in := New("x", unit, "tray")
		in.Size = map[string]measure.Length{"length": 150 * mm_, "width": 150 * mm_, "height": 50 * mm_}
		in.Sheets = []paper.Sheet{{Name: "small", Width: 200 * mm_, Height: 200 * mm_, Count: paper.Unlimited}}
		found := Begin(in, false)
		if len(found) == 0 || !strings.HasSuffix(found[0].Changed, "cut it from "+want+".") {
			t.Errorf("in %s: %q", unit, found[0].Changed)
		}
	}
}

// What makers like for a thing is offered beside the usual box: a scarf gets the pillow, a tart the slice,
// eight of them the ring with a room each, a voucher the pouch, a favour the pyramid.
func TestContentsChooseTheirBox(t *testing.T) {
	t.Parallel()
	for _, c := range []struct {
		name   string
		size   [3]measure.Length
		count  int
		want   string
		copies int
	}{
		{"Scarves", [3]measure.Length{150, 80, 20}, 1, "pillow", 1},
		{"Woollen scarf", [3]measure.Length{180, 120, 25}, 1, "pillow", 1},
		{"Tart", [3]measure.Length{40, 30, 30}, 1, "slice", 1},
		{"Lemon tarts", [3]measure.Length{40, 30, 30}, 8, "slice", 8},
		{"Voucher", [3]measure.Length{90, 55, 1}, 1, "pouch", 1},
		{"Wedding favours", [3]measure.Length{25, 25, 25}, 1, "pyramid", 1},
	} {
		for _, unit := range measure.Units {
			in := New("x", unit, style.Usual().ID)
			in.Things = []contents.Thing{{Name: c.name, Shape: contents.Block, Count: c.count, Ease: contents.UsualEase, Length: c.size[0] * mm_, Width: c.size[1] * mm_, Height: c.size[2] * mm_}}
			found := Begin(in, true)
			i := slices.IndexFunc(found, func(b Beginning) bool { return b.Inputs.Style == c.want })
			if i < 1 {
				t.Errorf("%s, %s: %d ways, none of them a %s", c.name, unit, len(found), c.want)
				continue
			}
			parts := found[i].Built.Parts
			if n := parts[0].Copies(); n != c.copies {
				t.Errorf("%s: %d of them; want %d", c.name, n, c.copies)
			}
			if r := make_(t, found[i].Inputs); verdict(r, "room") != inspect.OK || verdict(r, "fill") != inspect.OK {
				t.Errorf("%s: room %s, fill %s", c.name, verdict(r, "room"), verdict(r, "fill"))
			}
			in.Style = c.want // pressed, it is what was shown
			if again := Begin(in, false); len(again) == 0 || again[0].Inputs.Style != c.want || again[0].Built.Parts[0].Copies() != c.copies {
				t.Errorf("%s: asked for, the %s is not given", c.name, c.want)
			}
		}
	}
}
