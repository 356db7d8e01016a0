package sketch

import (
	"math"
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/reading"
	"brevium/core/sample"
	"brevium/photo"
)

// near reports whether a line that was found lies along one that was meant: both its ends within
// half a millimetre of it, and no farther out than 2 mm.
func near(found, meant Line) bool {
	s := through(meant.X1, meant.Y1, meant.X2, meant.Y2)
	a, b := s.along(meant.X1, meant.Y1), s.along(meant.X2, meant.Y2)
	for n := range 2 {
		x, y := found.end(n)
		if t := s.along(x, y); math.Abs(s.off(x, y)) > 0.5 || t < min(a, b)-2 || t > max(a, b)+2 {
			return false
		}
	}
	return true
}

// Sketches at random, with skew, noise, shade and any pencil: 95 of 100 lines are found within half
// a millimetre from end to end, and none is invented that is not marked.
func TestLinesOfSketches(t *testing.T) {
	t.Parallel()
	meant, found, folds := 0, 0, 0
	for seed := range sample.Of(t, 24) {
		s := newScene(uint64(sample.Seed(7)) + uint64(seed))
		picture, corners := s.taken()
		img, perMM, err := photo.Above(picture, corners, s.wide, s.high)
		if err != nil {
			t.Fatal(err)
		}
		got := Look(img, perMM).Lines()
		for _, m := range s.lines {
			meant++
			covered, fold := 0.0, false
			for _, l := range got {
				if near(l, m) {
					covered += l.Length()
					fold = fold || l.Fold == m.Fold
				}
			}
			if covered > 0.9*m.Length()-2 {
				found++
			} else {
				t.Logf("scene %d (squares %g): %+v is not found: %.0f of %.0f", seed, s.step, m, covered, m.Length())
			}
			if fold {
				folds++
			}
		}
		for _, l := range got {
			is := false
			for _, m := range s.lines {
				is = is || near(l, m)
			}
			if !is && l.Doubt == "" {
				t.Errorf("scene %d (squares %g): %+v was never drawn", seed, s.step, l)
			}
		}
	}
	t.Logf("%d of %d lines are found, %d as what they are", found, meant, folds)
	if float64(found) < 0.95*float64(meant) || float64(folds) < 0.95*float64(meant) {
		t.Errorf("%d of %d lines are found, %d as what they are", found, meant, folds)
	}
}

// What was drawn comes back as it was meant: on squares to the tick, on plain paper to half a
// millimetre; and its recipe is read as that very blank.
func TestSketchesBecomeRecipes(t *testing.T) {
	t.Parallel()
	for seed := range sample.Of(t, 12) {
		s := newScene(uint64(sample.Seed(70)) + uint64(seed))
		picture, corners := s.taken()
		img, perMM, err := photo.Above(picture, corners, s.wide, s.high)
		if err != nil {
			t.Fatal(err)
		}
		sheet := Look(img, perMM)
		within := 0.5
		left, top := 0.0, 0.0
		if s.step > 0 {
			var there bool
			if left, top, there = sheet.Squares(s.step); !there {
				t.Errorf("scene %d: its squares of %g mm are not seen", seed, s.step)
			}
			within = 0.2
		} else if _, _, there := sheet.Squares(5); there {
			t.Errorf("scene %d: squares are seen on plain paper", seed)
		}
		blanks := Blanks(Snapped(sheet.Lines(), left, top, s.step))
		want := Blanks(s.lines)
		if len(blanks) != 1 || len(want) != 1 {
			t.Errorf("scene %d: %d pieces", seed, len(blanks))
			continue
		}
		got := blanks[0]
		same := func(a, b []float64) bool {
			return slices.EqualFunc(a, b, func(x, y float64) bool { return math.Abs(x-y) <= within })
		}
		if !same([]float64{got.Wide, got.High}, []float64{want[0].Wide, want[0].High}) || !same(got.Across, want[0].Across) || !same(got.Down, want[0].Down) || got.Inner != want[0].Inner {
			t.Errorf("scene %d (squares %g): %+v; want %+v", seed, s.step, got, want[0])
		}
		unit := measure.MM
		if s.step == 25.4/4 {
			unit = measure.In
		}
		text := Recipe(blanks, unit)
		r, err := reading.Read(text, unit)
		if err != nil || len(r.Pieces) != 1 || len(r.NotUnderstood) > 0 {
			t.Errorf("%q: %v, %+v", text, err, r)
			continue
		}
		mm := func(at []measure.Length) (out []float64) {
			for _, x := range at {
				out = append(out, x.MM())
			}
			return out
		}
		within = 3 * unit.Tick().Length().MM() // of which what lies between two lines is rounded
		if s.step > 0 {
			within = 0.1
		}
		if p := r.Pieces[0]; !same(mm(p.Vertical), got.Across) || !same(mm(p.Horizontal), got.Down) || !same(mm([]measure.Length{p.Width, p.Height}), []float64{got.Wide, got.High}) {
			t.Errorf("%q is read as %+v", text, p)
		}
	}
}

// By hand: a square with a cross of lines through it, none of them dashed, is folded in four; with one
// of them dashed the other is a cut.
func TestBlanksByHand(t *testing.T) {
	lines := []Line{{0, 0, 80, 0, false, ""}, {80, 0, 80, 60, false, ""}, {80, 60, 0, 60, false, ""}, {0, 60, 0, 0, false, ""}, {20, 0, 20, 60, false, ""}, {0, 30, 80, 30, false, ""}}
	got := Blanks(lines)
	if len(got) != 1 || !slices.Equal(got[0].Across, []float64{20}) || !slices.Equal(got[0].Down, []float64{30}) || got[0].Inner != 0 {
		t.Errorf("%+v", got)
	}
	lines[5].Fold = true
	got = Blanks(lines)
	if len(got) != 1 || got[0].Across != nil || !slices.Equal(got[0].Down, []float64{30}) || got[0].Inner != 1 {
		t.Errorf("dashed: %+v", got)
	}
	if text := Recipe(got, measure.MM); text != "Piece A: 80 x 60 mm, with the 60 side at the top score at 30." {
		t.Error(text)
	}
	// Walls of 15 mm are 9/16 in each, the floor between 1 3/16: all together 2 5/16, not 2 3/8.
	if text := Recipe([]Blank{{Wide: 60, High: 60, Across: []float64{15, 45}}}, measure.In); text != "Piece A: 2 5/16 x 2 3/8 in, with the 2 5/16 side at the top score at 9/16 and 1 3/4." {
		t.Error(text)
	}
	// Twice as large, from one line.
	if twice := Blanks(Scaled(lines, 1, 120)); len(twice) != 1 || twice[0].Wide != 160 || !slices.Equal(twice[0].Down, []float64{60}) {
		t.Errorf("%+v", twice)
	}
	// Two squares apart are two pieces, the larger first.
	far := append(slices.Clone(lines), Line{100, 0, 120, 0, false, ""}, Line{120, 0, 120, 20, false, ""}, Line{120, 20, 100, 20, false, ""}, Line{100, 20, 100, 0, false, ""})
	if two := Blanks(far); len(two) != 2 || two[0].Wide != 80 || two[1].Wide != 20 {
		t.Errorf("%+v", two)
	}
	// On squares of 5 mm that begin 2 mm from the left and 1 mm from the top.
	snapped := Snapped([]Line{{1.4, 1.3, 2.5, 41.2, false, ""}, {2.2, 21.6, 33, 20.7, true, ""}}, 2, 1, 5)
	if want := []Line{{2, 1, 2, 41, false, ""}, {2, 21, 32, 21, true, ""}}; !slices.Equal(snapped, want) {
		t.Errorf("%+v", snapped)
	}
}

// Lines are read as they were written, and what is none of them is told by its place.
func TestLinesAsText(t *testing.T) {
	lines := []Line{{1, 2.5, 30, 2.5, true, "only two dashes"}, {0, 0, 0, 40.25, false, ""}}
	got, err := Read(Write(lines))
	if err != nil || !slices.Equal(got, lines) {
		t.Errorf("%+v, %v", got, err)
	}
	if got, err := Read("fold 1,5 2 3 4\n\ncut 0 0 9 9"); err != nil || len(got) != 2 || got[0].X1 != 1.5 {
		t.Errorf("%+v, %v", got, err)
	}
	for _, text := range []string{"bend 1 2 3 4", "fold 1 2 3", "cut 1 2 3 x", "cut 1 2 3 NaN", "cut 1 2 3 99999", strings.Repeat("cut 0 0 9 9\n", 401)} {
		if _, err := Read(text); err == nil {
			t.Errorf("%q is read", text[:min(20, len(text))])
		}
	}
}

func FuzzRead(f *testing.F) {
	f.Add("fold 1 2 3 4\ncut 0 0 80 0\ncut 80 0 80 60")
	f.Add("cut 0 0 0 0\nfold -1 -1 1e3 0")
	f.Fuzz(func(t *testing.T, text string) {
		lines, err := Read(text)
		if err != nil {
			return
		}
		for _, b := range Blanks(Snapped(lines, 0, 0, 5)) {
			if !(b.Wide >= 0 && b.High >= 0) {
				t.Errorf("%q: %+v", text, b)
			}
		}
	})
}
