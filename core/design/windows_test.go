package design

import (
	"math"
	"math/rand"
	"slices"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/inspect"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/sample"
	"brevium/core/style"
)

// stepsOf are the sentences of a box's steps, in order.
func stepsOf(r *Result) []string {
	var out []string
	for _, s := range recipe.Flat(r.Steps) {
		out = append(out, s.Text)
	}
	return out
}

func withWindow(w label.Window) Inputs {
	in := New("Biscuits", measure.MM, "tray-lid")
	in.Size = map[string]measure.Length{"length": 100 * mm_, "width": 80 * mm_, "height": 40 * mm_}
	w.ID, w.Piece, w.Face = 1, "lid", "top"
	in.Windows = []label.Window{w}
	return in
}

// A lid of 101.5 × 81.5 mm on a blank with walls of 25: a window of 60 × 40 in the middle of its top
// runs from 45.75 to 105.75 and from 45.75 to 85.75 mm; its film is 12 mm larger each way.
func TestWindowByHand(t *testing.T) {
	t.Parallel()
	in := withWindow(label.Window{Shape: label.Rectangle, Width: 60 * mm_, Height: 40 * mm_, Film: true})
	in.Copies = 3
	r := make_(t, in)
	lid, _ := r.part("lid")
	if len(lid.Pattern.Holes) != 1 {
		t.Fatalf("the lid has %d holes", len(lid.Pattern.Holes))
	}
	lo, hi := pattern.Bounds(lid.Pattern.Holes[0].Flat())
	if lo != pattern.Pt(45.75, 45.75) || hi != pattern.Pt(105.75, 85.75) {
		t.Errorf("the window runs from %v to %v", lo, hi)
	}
	if v := verdict(r, "window"); v != inspect.OK {
		t.Errorf("the window is %s", v)
	}
	said := stepsOf(r)
	for _, want := range []string{
		"Draw a window, 60 × 40 mm, on the top of the lid, in its middle; cut along the lines with a knife on a mat.",
		"Stick clear film, 72 × 52 mm, behind the window in the top, inside.",
	} {
		if !slices.Contains(said, want) {
			t.Errorf("nothing says %q in %q", want, said)
		}
	}
	i := slices.IndexFunc(r.Supplies, func(s recipe.Supply) bool { return s.ID == "film.1" })
	if i < 0 || r.Supplies[i].Text != "Clear film for windows: 3 of 72 × 52 mm" {
		t.Errorf("the film is not among the supplies: %+v", r.Supplies)
	}
}

// Papers on both sides are cut out along the window before film goes behind it, and that before the
// walls are stuck.
func TestWindowIsOpenThroughPapers(t *testing.T) {
	t.Parallel()
	in := withWindow(label.Window{Shape: label.Circle, Width: 40 * mm_, Height: 40 * mm_, Film: true})
	for i, side := range []dress.Side{dress.Outside, dress.Inside} {
		in.Mats = append(in.Mats, dress.Dressing{ID: i + 1, Piece: "lid", Faces: []string{"top"}, Side: side, Layers: []dress.Layer{{Card: paper.Card{Name: "Snow card", GSM: 120, Thickness: 150 * measure.Micrometre}, Border: dress.Even(3 * mm_)}}})
	}
	r := make_(t, in)
	order := []string{"circle, 40 mm across", "cut the paper out along the window of the top", "Stick clear film", "Stand the walls up"}
	at := -1
	said := stepsOf(r)
	for _, want := range order {
		next := slices.IndexFunc(said[at+1:], func(s string) bool { return strings.Contains(s, want) })
		if next < 0 {
			t.Fatalf("after the %dth of %q nothing says %q", at, said, want)
		}
		at += 1 + next
	}
	if n := len(slices.DeleteFunc(slices.Clone(said), func(s string) bool { return !strings.Contains(s, "cut the paper out") })); n != 2 {
		t.Errorf("papers are cut out %d times; want 2", n)
	}
}

// What a window cannot be is refused at its field, and what is better otherwise is said.
func TestWindowsAreJudged(t *testing.T) {
	t.Parallel()
	for _, c := range []struct {
		w     label.Window
		field string
		says  string
	}{
		{label.Window{Shape: label.Rectangle, Width: 99 * mm_, Height: 40 * mm_}, "windows[0].width", "less than 2 mm"},
		{label.Window{Shape: label.Rectangle, Width: 40 * mm_, Height: 40 * mm_, Place: label.Place{Across: label.Off{From: label.Left, At: -5 * mm_}}}, "windows[0].width", "less than 2 mm"},
		{label.Window{Shape: label.Circle, Width: 40 * mm_, Height: 30 * mm_}, "windows[0].height", "a circle is as high"},
		{label.Window{Shape: label.Scallop, Width: 40 * mm_, Height: 40 * mm_}, "windows[0].shape", "a window is one of"},
		{label.Window{Shape: label.Oval, Width: 3 * mm_, Height: 40 * mm_}, "windows[0].width", "can be"},
		{label.Window{Shape: label.Rectangle, Width: 92 * mm_, Height: 40 * mm_}, "", "5 mm of card is left"},
		{label.Window{Shape: label.Rectangle, Width: 88 * mm_, Height: 40 * mm_}, "", "one sees through"},
	} {
		r, err := Make(t.Context(), withWindow(c.w))
		if c.field != "" {
			if f := fault.Of(err); err == nil || f.Field != c.field || !strings.Contains(f.Text, c.says) {
				t.Errorf("%+v: %v; want %q at %s", c.w, err, c.says, c.field)
			}
			continue
		}
		if i := slices.IndexFunc(r.Checks, func(f inspect.Finding) bool { return f.ID == "window" }); err != nil || i < 0 || !strings.Contains(r.Checks[i].Text, c.says) {
			t.Errorf("%+v: nothing says %q: %v", c.w, c.says, err)
		}
	}
	in := withWindow(label.Window{Shape: label.Rectangle, Width: 30 * mm_, Height: 20 * mm_, Film: true})
	in.Windows[0].Piece, in.Windows[0].Face = "base", "front" // the lid comes over it
	if r := make_(t, in); verdict(r, "window") != inspect.Warn {
		t.Errorf("a window behind a lid's wall is %s", verdict(r, "window"))
	}
	in.Things = []contents.Thing{{Name: "Biscuit", Shape: contents.Round, Length: 60 * mm_, Width: 60 * mm_, Height: 40 * mm_, Count: 3, Ease: 2 * mm_, Kind: contents.Food}}
	if r := make_(t, in); verdict(r, "window.food") != inspect.Warn {
		t.Error("of food behind film nothing is said")
	}
	in.Windows[0].Face = "nowhere"
	if _, err := Make(t.Context(), in); err == nil || fault.Of(err).Field != "windows[0].face" {
		t.Errorf("a window in no face: %v", err)
	}
}

// In faces of all styles, by dice: the box that is told is the box that is drawn, windows and all, and
// a window that is called clear is a hole through which nothing of the folded box shows.
func TestWindowsInEveryStyle(t *testing.T) {
	t.Parallel()
	shapes := label.WindowShapes
	for _, s := range style.Boxes() {
		t.Run(s.ID, func(t *testing.T) {
			t.Parallel()
			rng := rand.New(rand.NewSource(sample.Seed(23)))
			cut := 0
			for range sample.Of(t, 16) {
				in := New("random", measure.Units[rng.Intn(3)], s.ID)
				in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
				b, err := Sketch(in)
				if err != nil {
					t.Fatal(err)
				}
				part := b.Parts[rng.Intn(len(b.Parts))]
				open := dress.Open(part.Pattern, part.Faces, dress.Outside)
				if len(open) == 0 {
					continue
				}
				f := open[rng.Intn(len(open))]
				along, up := f.Frame().Size(f.Polygon)
				w := label.Window{ID: 1, Shape: shapes[rng.Intn(len(shapes))], Piece: part.ID, Face: f.Name, Film: rng.Intn(2) == 0,
					Width: max(8*mm_, measure.FromMM(math.Floor(along*(0.2+0.6*rng.Float64())))), Height: max(8*mm_, measure.FromMM(math.Floor(up*(0.2+0.6*rng.Float64()))))}
				if w.Shape == label.Circle {
					w.Width = min(w.Width, w.Height)
					w.Height = w.Width
				}
				if rng.Intn(3) == 0 {
					w.Place.Turn = rng.Intn(90)
				}
				in.Windows = []label.Window{w}
				r, err := Make(t.Context(), in)
				if err != nil {
					if fl := fault.Of(err); fl.Code == fault.Internal {
						t.Fatalf("%+v: %v", w, err)
					}
					continue
				}
				cut++
				p, _ := r.part(w.Piece)
				area := 0.0
				for _, h := range p.Pattern.Holes {
					area += math.Abs(pattern.Area(h.Flat()))
				}
				was := 0.0
				for _, h := range part.Pattern.Holes {
					was += math.Abs(pattern.Area(h.Flat()))
				}
				if want := math.Abs(pattern.Area(label.Label{Shape: w.Shape, Width: w.Width, Height: w.Height}.Outline(0).Flat())); math.Abs(area-was-want) > 1e-6*want {
					t.Errorf("%+v: the hole is %v mm²; want %v", w, area-was, want)
				}
				for _, c := range r.Checks {
					if c.Verdict == inspect.Fail && c.ID != "window" && c.ID != "behind-opening" && c.ID != "card.flimsy" && !strings.HasPrefix(c.ID, "fit") && !strings.HasPrefix(c.ID, "load") {
						t.Errorf("%+v of the %s: %s: %s", w, part.Name, c.ID, c.Text)
					}
				}
				if t.Failed() {
					return
				}
			}
			t.Logf("%d windows", cut)
		})
	}
}
