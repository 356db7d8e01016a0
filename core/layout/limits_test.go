package layout

import (
	"math/rand"
	"reflect"
	"strings"
	"testing"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
)

// stagesOf counts, on a finished sheet, how often the cuts on the way to any
// part change direction; it knows only the cuts.
func stagesOf(l Laid) int {
	type part struct {
		across bool
		stages int
	}
	made := map[string]part{"1": {}}
	most := 0
	for _, c := range l.Cuts {
		p := made[c.Part]
		if p.stages == 0 || p.across != c.Across {
			p = part{c.Across, p.stages + 1}
		}
		most = max(most, p.stages)
		made[c.Part+".1"], made[c.Part+".2"] = p, p
	}
	return most
}

func TestStagesAreKept(t *testing.T) {
	rng := rand.New(rand.NewSource(21))
	fewer := 0
	for range 20 {
		j := randomJob(rng)
		j.Trim = 0
		free, err := Solve(t.Context(), j, Effort{Rounds: 1})
		if err != nil {
			t.Fatal(err)
		}
		for _, j.Stages = range []int{2, 3} {
			r, err := Solve(t.Context(), j, Effort{Rounds: 1})
			if err != nil {
				t.Fatal(err)
			}
			if err := sound(j, r); err != nil {
				t.Fatalf("%d stages: %v", j.Stages, err)
			}
			for _, l := range r.Sheets {
				if n := stagesOf(l); n > j.Stages {
					t.Fatalf("%d stages where %d are allowed: %+v", n, j.Stages, l.Cuts)
				}
			}
			if len(r.Unplaced) < len(free.Unplaced) {
				fewer++
			}
		}
	}
	if fewer > 3 {
		t.Errorf("%d of 40 jobs are laid better with fewer stages than without a limit", fewer)
	}
}

// No cut is longer than the trimmer, on sheets that are.
func TestNoCutIsLongerThanTheTrimmer(t *testing.T) {
	rng := rand.New(rand.NewSource(22))
	for range 30 {
		j := &Job{Sheets: []paper.Sheet{sheet("A3", 297, 420, paper.Unlimited)}, Trimmer: 305 * mm}
		for i := range 1 + rng.Intn(6) {
			j.Pieces = append(j.Pieces, Piece{Name: string(rune('a' + i)), Copies: 1 + rng.Intn(5), Turn: rng.Intn(2) > 0,
				Width: measure.Length(20+rng.Intn(270)) * mm, Height: measure.Length(20+rng.Intn(280)) * mm})
		}
		r, err := Solve(t.Context(), j, Effort{Rounds: 2})
		if err != nil {
			t.Fatal(err)
		}
		if err := sound(j, r); err != nil {
			t.Fatal(err)
		}
		for _, l := range r.Sheets {
			for _, c := range l.Cuts {
				if c.Length > j.Trimmer {
					t.Fatalf("a cut of %v mm", c.Length.MM())
				}
			}
		}
		if len(r.Unplaced) > 0 {
			t.Fatalf("%v have no place on sheets without end", r.Unplaced)
		}
	}
	j := &Job{
		Sheets:  []paper.Sheet{sheet("A3", 297, 420, paper.Unlimited)},
		Trimmer: 305 * mm,
		Pieces:  []Piece{{Name: "long", Width: 250 * mm, Height: 400 * mm, Copies: 1, Turn: true}},
	}
	if _, err := Solve(t.Context(), j, Effort{}); err == nil || fault.Of(err).Code != fault.NotCuttable {
		t.Errorf("a piece that wants a cut of 400 mm: %v", err)
	}
}

// A kept offcut costs nothing and is used before a sheet is begun; the
// cheaper of two kinds is taken when both do.
func TestOffcutsAreUsedFirst(t *testing.T) {
	kept := sheet("kept", 150, 100, 1)
	kept.Offcut = true
	whole := sheet("whole", 300, 300, paper.Unlimited)
	whole.Cost = 2
	j := &Job{Sheets: []paper.Sheet{whole, kept}, Pieces: []Piece{{Name: "a", Width: 140 * mm, Height: 90 * mm, Copies: 1}}}
	r, err := Solve(t.Context(), j, Effort{Rounds: 1})
	if err != nil || r.Cost != 0 || len(r.Sheets) != 1 || r.Sheets[0].Sheet.Name != "kept" {
		t.Errorf("one small piece costs %v on %v, %v", r.Cost, r.Sheets, err)
	}
	// Nine of them fill one whole sheet and begin another; the offcut saves that.
	j.Pieces[0].Copies = 7
	r, err = Solve(t.Context(), j, Effort{Rounds: 4})
	if err != nil || r.Cost != 2 || len(r.Sheets) != 2 || len(r.Unplaced) > 0 {
		t.Errorf("seven pieces cost %v on %d sheets, %v; want a sheet and the offcut", r.Cost, len(r.Sheets), err)
	}
	if r.Bound.Cost > r.Cost {
		t.Errorf("the cost of %v is below what is proved, %v", r.Cost, r.Bound.Cost)
	}
}

// Searching several kinds of sheet never costs more than the first filling,
// and often less.
func TestSearchSavesMoney(t *testing.T) {
	rng := rand.New(rand.NewSource(23))
	saved := 0
	for range 20 {
		j := &Job{
			Sheets: []paper.Sheet{
				sheet("square", 305, 305, paper.Unlimited),
				sheet("a4", 210, 297, paper.Unlimited),
				sheet("a5", 148, 210, 4),
			},
		}
		j.Sheets[0].Cost, j.Sheets[1].Cost, j.Sheets[2].Cost = 1, 0.75, 0.3
		for i := range 10 {
			j.Pieces = append(j.Pieces, Piece{Name: string(rune('a' + i)), Copies: 2, Turn: true,
				Width: measure.Length(30+rng.Intn(170)) * mm, Height: measure.Length(30+rng.Intn(170)) * mm})
		}
		first, err := Solve(t.Context(), j, Effort{})
		if err != nil {
			t.Fatal(err)
		}
		r, err := Solve(t.Context(), j, Effort{Rounds: 15})
		if err != nil {
			t.Fatal(err)
		}
		if err := sound(j, r); err != nil {
			t.Fatal(err)
		}
		if r.Cost > first.Cost+1e-9 || r.Cost < r.Bound.Cost-1e-9 {
			t.Errorf("cost %v after %v, at least %v", r.Cost, first.Cost, r.Bound.Cost)
		}
		if r.Cost < first.Cost-1e-9 {
			saved++
		}
	}
	if saved < 8 {
		t.Errorf("%d of 20 searches saved money", saved)
	}
}

// Of layouts on as many sheets the one with the largest single offcut is kept.
func TestTheOffcutIsTidiedUp(t *testing.T) {
	rng := rand.New(rand.NewSource(24))
	largest := func(r *Result) (most float64) {
		for _, l := range r.Sheets {
			for _, o := range l.Offcuts {
				most = max(most, area(o.Width, o.Height))
			}
		}
		return most
	}
	grown := 0
	for range 20 {
		j := &Job{Sheets: []paper.Sheet{sheet("square", 305, 305, paper.Unlimited)}}
		for i := range 14 {
			j.Pieces = append(j.Pieces, Piece{Name: string(rune('a' + i)), Copies: 1, Turn: true,
				Width: measure.Length(30+rng.Intn(120)) * mm, Height: measure.Length(30+rng.Intn(120)) * mm})
		}
		first, err := Solve(t.Context(), j, Effort{})
		if err != nil {
			t.Fatal(err)
		}
		r, err := Solve(t.Context(), j, Effort{Rounds: 4})
		if err != nil {
			t.Fatal(err)
		}
		if len(r.Sheets) > len(first.Sheets) {
			t.Fatalf("%d sheets after %d", len(r.Sheets), len(first.Sheets))
		}
		if len(r.Sheets) == len(first.Sheets) && largest(r) < largest(first)-1e-6 {
			t.Errorf("the offcut shrank from %v to %v mm²", largest(first), largest(r))
		}
		if largest(r) > 1.05*largest(first) {
			grown++
		}
	}
	if grown < 8 {
		t.Errorf("the offcut grew in %d of 20 jobs", grown)
	}
}

// Pieces that are held stay where they are, and the rest is laid around them.
func TestHeldPiecesStay(t *testing.T) {
	rng := rand.New(rand.NewSource(25))
	for range 60 {
		j := randomJob(rng)
		r, err := Solve(t.Context(), j, Effort{Rounds: 2})
		if err != nil || len(r.Sheets) == 0 {
			t.Fatal(err)
		}
		var held []Held
		for i, l := range r.Sheets {
			h := Held{}
			for n, s := range j.Sheets {
				if s == l.Sheet {
					h.Sheet = n
				}
			}
			for _, p := range l.Placed {
				if rng.Intn(3) == 0 {
					h.Pieces = append(h.Pieces, p)
				}
			}
			if len(h.Pieces) > 0 && i%2 == 0 {
				held = append(held, h)
			}
		}
		j.Held = held
		again, err := Solve(t.Context(), j, Effort{Rounds: 2})
		if err != nil {
			t.Fatal(err)
		}
		if err := sound(j, again); err != nil {
			t.Fatal(err)
		}
		for i, h := range held {
			for _, p := range h.Pieces {
				found := false
				for _, q := range again.Sheets[i].Placed {
					found = found || q.Rect == p.Rect && q.Piece == p.Piece && q.Turned == p.Turned
				}
				if !found {
					t.Fatalf("piece %d has moved from %+v", p.Piece, p.Rect)
				}
			}
		}
	}
}

func TestHeldPiecesAreChecked(t *testing.T) {
	at := func(piece int, x, y measure.Length) Placed {
		return Placed{Rect: Rect{x * mm, y * mm, 60 * mm, 40 * mm}, Piece: piece}
	}
	for name, c := range map[string]struct {
		pieces []Placed
		code   fault.Code
	}{
		"over one another": {[]Placed{at(0, 0, 0), at(0, 30, 20)}, "overlaps"},
		"outside":          {[]Placed{at(0, 50, 0)}, "outside"},
		"too many":         {[]Placed{at(0, 0, 0), at(0, 0, 40), at(0, 0, 80), at(0, 0, 120)}, "count-range"},
		"no such piece":    {[]Placed{at(7, 0, 0)}, "unknown-piece"},
		"turned":           {[]Placed{{Rect: Rect{0, 0, 40 * mm, 60 * mm}, Turned: true}}, "may-not-turn"},
		"wrong size":       {[]Placed{{Rect: Rect{0, 0, 61 * mm, 40 * mm}}}, "wrong-size"},
	} {
		j := &Job{Sheets: []paper.Sheet{sheet("s", 100, 200, 1)}, Pieces: []Piece{{Name: "p", Width: 60 * mm, Height: 40 * mm, Copies: 3}},
			Held: []Held{{Pieces: c.pieces}}}
		if _, err := Solve(t.Context(), j, Effort{}); err == nil || fault.Of(err).Code != c.code {
			t.Errorf("%s: got %v; want %s", name, err, c.code)
		}
	}
	// Four round a hole: no cut from edge to edge parts them.
	wheel := &Job{
		Sheets: []paper.Sheet{sheet("s", 100, 100, 1)},
		Pieces: []Piece{{Name: "p", Width: 60 * mm, Height: 40 * mm, Copies: 4, Turn: true}},
	}
	wheel.Held = []Held{{Pieces: []Placed{at(0, 0, 0), at(0, 40, 60),
		{Rect: Rect{60 * mm, 0, 40 * mm, 60 * mm}, Turned: true}, {Rect: Rect{0, 40 * mm, 40 * mm, 60 * mm}, Turned: true}}}}
	if _, err := Solve(t.Context(), wheel, Effort{}); err == nil || fault.Of(err).Code != fault.NotCuttable {
		t.Errorf("a pinwheel: %v", err)
	}
}

// Every cut comes once in the settings, after the part it cuts was made, and
// neighbouring settings differ.
func TestSettingsCutEverythingOnce(t *testing.T) {
	rng := rand.New(rand.NewSource(26))
	for range 40 {
		j := randomJob(rng)
		r, err := Solve(t.Context(), j, Effort{Rounds: 1})
		if err != nil {
			t.Fatal(err)
		}
		made, cuts, total := map[[2]any]bool{}, 0, 0
		for i, l := range r.Sheets {
			made[[2]any{i, "1"}] = true
			total += len(l.Cuts)
			for n := 1; n < len(l.Cuts); n++ {
				a, b := l.Cuts[n-1], l.Cuts[n]
				if b.Length > a.Length && !strings.HasPrefix(b.Part, a.Part+".") {
					t.Fatalf("cut %d of %v mm waits for one of %v mm", b.N, b.Length.MM(), a.Length.MM())
				}
			}
		}
		for i, s := range r.Settings() {
			if i > 0 && s.Fence == r.Settings()[i-1].Fence {
				t.Fatal("the fence is set to where it stands")
			}
			for _, x := range s.Cuts {
				c := r.Sheets[x.Sheet].Cuts[x.Cut]
				if !made[[2]any{x.Sheet, c.Part}] || c.At != s.Fence {
					t.Fatalf("cut %d of sheet %d comes too early, or at another setting", c.N, x.Sheet+1)
				}
				made[[2]any{x.Sheet, c.Part + ".1"}], made[[2]any{x.Sheet, c.Part + ".2"}] = true, true
				cuts++
			}
		}
		if cuts != total {
			t.Fatalf("%d of %d cuts are in the settings", cuts, total)
		}
	}
}

// Narrow strips come off while the rest is wide enough to hold: of three
// strips of 20 mm and one of 200 the wide one is left over.
func TestNarrowStripsComeOffFirst(t *testing.T) {
	j := &Job{Sheets: []paper.Sheet{sheet("s", 300, 260, 1)}, Pieces: []Piece{
		{Name: "wide", Width: 300 * mm, Height: 200 * mm, Copies: 1}, {Name: "narrow", Width: 300 * mm, Height: 20 * mm, Copies: 3}}}
	r, err := Solve(t.Context(), j, Effort{})
	if err != nil || len(r.Sheets) != 1 || len(r.Sheets[0].Cuts) != 3 {
		t.Fatalf("%+v, %v", r, err)
	}
	for _, c := range r.Sheets[0].Cuts {
		if c.Narrow() || c.At != 20*mm || c.Length != 300*mm {
			t.Errorf("a cut at %v mm off a part of %v mm", c.At.MM(), c.Of.MM())
		}
	}
	if s := r.Settings(); len(s) != 1 || len(s[0].Cuts) != 3 {
		t.Errorf("settings %+v; want one for all three strips", s)
	}
}

func TestResultsAreReadBack(t *testing.T) {
	rng := rand.New(rand.NewSource(27))
	read := 0
	for range 60 {
		j := randomJob(rng)
		r, err := Solve(t.Context(), j, Effort{Rounds: 1})
		if err != nil {
			t.Fatal(err)
		}
		text, err := r.JSON(j, 0)
		if err != nil {
			t.Fatal(err)
		}
		got, err := ReadResult(j, text)
		if len(r.Unplaced) > 0 {
			if err == nil {
				t.Fatal("a layout that lacks pieces was taken")
			}
			continue
		}
		if err != nil {
			t.Fatal(err)
		}
		read++
		if err := sound(j, got); err != nil {
			t.Fatal(err)
		}
		if len(got.Sheets) != len(r.Sheets) || got.Cost != r.Cost {
			t.Fatalf("read back %d sheets of %d", len(got.Sheets), len(r.Sheets))
		}
		if better, err := Solve(t.Context(), j, Effort{Start: r}); err != nil || better.Cost > r.Cost {
			t.Fatalf("a search from a layout of %v ended at %v", r.Cost, better.Cost)
		}
		j.Pieces[0].Copies++
		if _, err := ReadResult(j, text); err == nil {
			t.Fatal("a layout of another job was taken")
		}
	}
	if read < 30 {
		t.Errorf("%d of 60 layouts were whole", read)
	}
	again, err := Solve(
		t.Context(),
		&Job{Sheets: []paper.Sheet{sheet("s", 10, 10, 1)}, Pieces: []Piece{{Name: "p", Width: mm, Height: mm, Copies: 1}}},
		Effort{Start: &Result{}},
	)
	if err != nil || reflect.DeepEqual(again, &Result{}) {
		t.Errorf("an empty layout to start from: %v", err)
	}
}
