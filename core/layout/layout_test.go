package layout

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand"
	"reflect"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/paper"
)

const mm = measure.Millimetre

func sheet(name string, w, h measure.Length, count int) paper.Sheet {
	return paper.Sheet{Name: name, Width: w * mm, Height: h * mm, Count: count}
}

func randomJob(rng *rand.Rand) *Job {
	j := &Job{Sheets: []paper.Sheet{sheet("square", 300, 300, paper.Unlimited)}}
	if rng.Intn(2) == 0 {
		j.Sheets = append(j.Sheets, sheet("a4", 210, 297, 1+rng.Intn(3)))
	}
	if rng.Intn(3) == 0 {
		j.Trim = measure.Length(rng.Intn(8)) * mm
		j.Kerf = measure.Length(rng.Intn(30)) * mm / 10
	}
	for i := range 1 + rng.Intn(6) {
		j.Pieces = append(j.Pieces, Piece{
			Name: fmt.Sprint("p", i), Copies: 1 + rng.Intn(8), Turn: rng.Intn(3) > 0,
			Width: measure.Length(5+rng.Intn(270)) * mm, Height: measure.Length(5+rng.Intn(270)) * mm,
		})
	}
	return j
}

// Every layout is sound: each copy once, inside its sheet, turned only where
// it may, and following the cuts takes the sheet apart into just the pieces
// and the offcuts.
func TestLayoutsAreSound(t *testing.T) {
	rng := rand.New(rand.NewSource(11))
	for range 120 {
		j := randomJob(rng)
		r, err := Solve(t.Context(), j, Effort{Rounds: 3})
		if err != nil {
			t.Fatalf("%+v: %v", j, err)
		}
		if err := sound(j, r); err != nil {
			t.Fatalf("%+v: %v", j, err)
		}
		if len(r.Sheets) < r.Bound.Sheets && len(r.Unplaced) == 0 {
			t.Fatalf("%d sheets beat the bound of %d", len(r.Sheets), r.Bound.Sheets)
		}
		again, err := Solve(t.Context(), j, Effort{Rounds: 3})
		if err != nil || !reflect.DeepEqual(r, again) {
			t.Fatal("the same job gave another layout")
		}
	}
}

func sound(j *Job, r *Result) error {
	seen := map[Copy]int{}
	used := map[string]int{}
	for _, l := range r.Sheets {
		used[l.Sheet.Name]++
		if err := soundSheet(j, l); err != nil {
			return err
		}
		for _, p := range l.Placed {
			seen[Copy{p.Piece, p.Copy}]++
			w, h := j.Pieces[p.Piece].Width, j.Pieces[p.Piece].Height
			if p.Turned {
				w, h = h, w
				if !j.Pieces[p.Piece].Turn {
					return fmt.Errorf("%s is turned but may not be", j.Pieces[p.Piece].Name)
				}
			}
			if p.Width != w || p.Height != h {
				return fmt.Errorf("%s has the wrong size", j.Pieces[p.Piece].Name)
			}
		}
	}
	for _, c := range r.Unplaced {
		seen[c]++
	}
	for i, p := range j.Pieces {
		for c := 1; c <= p.Copies; c++ {
			if seen[Copy{i, c}] != 1 {
				return fmt.Errorf("%s copy %d appears %d times", p.Name, c, seen[Copy{i, c}])
			}
		}
	}
	for _, s := range j.Sheets {
		if s.Count >= 0 && used[s.Name] > s.Count {
			return fmt.Errorf("%d sheets of %s of %d", used[s.Name], s.Name, s.Count)
		}
	}
	return nil
}

// soundSheet follows the cuts as a hand would, part by part.
func soundSheet(j *Job, l Laid) error {
	parts := map[string]Rect{"1": {0, 0, l.Sheet.Width, l.Sheet.Height}}
	lost := 0.0
	for i, c := range l.Cuts {
		p, ok := parts[c.Part]
		if !ok || c.N != i+1 {
			return fmt.Errorf("cut %d cuts a part that is not there: %s", c.N, c.Part)
		}
		delete(parts, c.Part)
		a, b := p, p
		kerf := j.Kerf
		if c.At == 0 { // a narrow trim: the blade hangs over the sheet's edge
			kerf = min(kerf, j.Trim)
		}
		if c.Across {
			a.Width = c.At
			b.X, b.Width = p.X+c.At+kerf, p.Width-c.At-kerf
			lost += area(min(kerf, p.Width-c.At), p.Height)
		} else {
			a.Height = c.At
			b.Y, b.Height = p.Y+c.At+kerf, p.Height-c.At-kerf
			lost += area(p.Width, min(kerf, p.Height-c.At))
		}
		parts[c.Part+".1"], parts[c.Part+".2"] = a, b
	}
	left := map[Rect]bool{}
	total := 0.0
	for _, p := range parts {
		if p.Width > 0 && p.Height > 0 {
			left[p] = true
			total += area(p.Width, p.Height)
		}
	}
	for _, p := range l.Placed {
		if !left[p.Rect] {
			return fmt.Errorf("cutting does not set piece %d free at %+v", p.Piece, p.Rect)
		}
		delete(left, p.Rect)
	}
	for _, o := range l.Offcuts {
		if !left[o] {
			return fmt.Errorf("offcut %+v is not a part", o)
		}
		delete(left, o)
	}
	for r := range left {
		trimmed := j.Trim > 0 &&
			(r.X < j.Trim || r.Y < j.Trim || r.X+r.Width > l.Sheet.Width-j.Trim || r.Y+r.Height > l.Sheet.Height-j.Trim)
		if !trimmed && r.Width >= leastOffcut && r.Height >= leastOffcut {
			return fmt.Errorf("the part %+v is neither piece nor offcut", r)
		}
	}
	if j.Trim == 0 {
		if d := total + lost - area(l.Sheet.Width, l.Sheet.Height); d > 1e-6 || d < -1e-6 {
			return fmt.Errorf("parts and kerf miss the sheet by %v mm²", d)
		}
	}
	return nil
}

// The search saves sheets over the first filling, stays sound, is the same at
// every run when work bounds it, and never beats the proved bound.
func TestSearchSavesSheets(t *testing.T) {
	rng := rand.New(rand.NewSource(4))
	saved := 0
	for range 12 {
		j := &Job{Sheets: []paper.Sheet{sheet("square", 100, 100, paper.Unlimited)}}
		for i := range 40 {
			j.Pieces = append(j.Pieces, Piece{Name: fmt.Sprint("p", i), Copies: 1, Turn: true,
				Width: measure.Length(1+rng.Intn(50)) * mm, Height: measure.Length(1+rng.Intn(100)) * mm})
		}
		first, err := Solve(t.Context(), j, Effort{})
		if err != nil {
			t.Fatal(err)
		}
		effort := Effort{Rounds: 15, Seed: 5}
		found, err := Solve(t.Context(), j, effort)
		if err != nil {
			t.Fatal(err)
		}
		again, err := Solve(t.Context(), j, effort)
		if err != nil || !reflect.DeepEqual(found, again) {
			t.Fatal("the same work gave another layout")
		}
		if err := sound(j, found); err != nil {
			t.Fatal(err)
		}
		if len(found.Unplaced) > 0 || len(found.Sheets) > len(first.Sheets) || len(found.Sheets) < found.Bound.Sheets {
			t.Errorf(
				"%d sheets after %d, bound %d, %d unplaced",
				len(found.Sheets),
				len(first.Sheets),
				found.Bound.Sheets,
				len(found.Unplaced),
			)
		}
		saved += len(first.Sheets) - len(found.Sheets)
	}
	if saved < 4 {
		t.Errorf("twelve searches saved %d sheets", saved)
	}
}

// A search that is told to stop gives what it has.
func TestSearchStopsWhenTold(t *testing.T) {
	j := randomJob(rand.New(rand.NewSource(1)))
	j.Pieces = append(j.Pieces, Piece{Name: "many", Width: 61 * mm, Height: 47 * mm, Copies: 150, Turn: true})
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	r, err := Solve(ctx, j, Effort{Seconds: 3600})
	if err != nil {
		t.Fatal(err)
	}
	if err := sound(j, r); err != nil {
		t.Fatal(err)
	}
}

func TestBoundIsMoreThanArea(t *testing.T) {
	// Three squares of 60 mm fill little more than one sheet of 100, but no
	// two of them share one.
	j := &Job{
		Sheets: []paper.Sheet{sheet("s", 100, 100, paper.Unlimited)},
		Pieces: []Piece{{Name: "p", Width: 60 * mm, Height: 60 * mm, Copies: 3, Turn: true}},
	}
	r, err := Solve(t.Context(), j, Effort{})
	if err != nil || r.Bound.Sheets != 3 || len(r.Sheets) != 3 || r.Bound.How == "area" {
		t.Errorf("%d sheets, bound %+v, %v", len(r.Sheets), r.Bound, err)
	}
}

func BenchmarkSolve(b *testing.B) {
	rng := rand.New(rand.NewSource(2))
	j := &Job{Sheets: []paper.Sheet{sheet("square", 305, 305, paper.Unlimited)}}
	for i := range 12 {
		j.Pieces = append(j.Pieces, Piece{Name: fmt.Sprint("p", i), Copies: 8, Turn: i%3 > 0,
			Width: measure.Length(20+rng.Intn(200)) * mm, Height: measure.Length(20+rng.Intn(200)) * mm})
	}
	for b.Loop() {
		if _, err := Solve(b.Context(), j, Effort{Rounds: 5}); err != nil {
			b.Fatal(err)
		}
	}
}

func TestSheetsRunOut(t *testing.T) {
	j := &Job{
		Sheets: []paper.Sheet{sheet("last", 100, 100, 1)},
		Pieces: []Piece{{Name: "p", Width: 60 * mm, Height: 60 * mm, Copies: 3, Turn: true}},
	}
	r, err := Solve(t.Context(), j, Effort{Rounds: 3})
	if err != nil || len(r.Sheets) != 1 || len(r.Unplaced) != 2 {
		t.Errorf("one sheet holds one of three: %d sheets, %v unplaced, %v", len(r.Sheets), r.Unplaced, err)
	}
}

func TestTheCheaperSheetIsUsed(t *testing.T) {
	big, small := sheet("big", 300, 300, paper.Unlimited), sheet("small", 100, 100, paper.Unlimited)
	big.Cost, small.Cost = 1, 0.2
	j := &Job{Sheets: []paper.Sheet{big, small}, Pieces: []Piece{{Name: "p", Width: 90 * mm, Height: 90 * mm, Copies: 2, Turn: true}}}
	r, err := Solve(t.Context(), j, Effort{Rounds: 3})
	if err != nil || r.Cost != 0.4 || len(r.Sheets) != 2 {
		t.Errorf("two small sheets for 0.4 do; got %d sheets for %v, %v", len(r.Sheets), r.Cost, err)
	}
}

const jobText = `{"brevium":1,"sheets":[{"name":"12 in square","width":304.8,"height":"12 in","count":null,"cost":1.0}],
 "pieces":[{"name":"base","width":177.8,"height":152.4,"copies":6,"turn":true}],"trim":0,"kerf":0,"seconds":1}`

func TestJobFiles(t *testing.T) {
	j, _, err := ReadJob([]byte(jobText))
	if err != nil {
		t.Fatal(err)
	}
	r, err := Solve(t.Context(), j, Effort{Rounds: 3})
	if err != nil {
		t.Fatal(err)
	}
	text, err := r.JSON(j, 0.5)
	if err != nil {
		t.Fatal(err)
	}
	var out map[string]any
	if err := json.Unmarshal(text, &out); err != nil {
		t.Fatal(err)
	}
	first := out["sheets"].([]any)[0].(map[string]any)
	placed := first["placed"].([]any)[0].(map[string]any)
	if out["brevium"] != 1.0 || first["sheet"] != "12 in square" || placed["width"] != 177.8 || placed["height"] != 152.4 {
		t.Errorf("the result is %s", text)
	}
}

func TestBadJobsAreRefusedByField(t *testing.T) {
	for _, c := range []struct{ from, to, says string }{
		{`"brevium":1`, `"brevium":2`, "brevium:"},
		{`"copies":6`, `"copies":0`, "pieces[0].copies:"},
		{`"copies":6`, `"copies":1000000000`, "pieces[0].copies:"},
		{`"width":177.8`, `"width":-1`, "pieces[0].width:"},
		{`"width":177.8`, `"width":0`, "pieces[0]:"},
		{`"width":177.8`, `"width":NaN`, "not JSON"},
		{`"width":177.8`, `"width":400`, "larger than every sheet"},
		{`"kerf":0`, `"kerf":305`, "kerf:"},
		{`"trim":0`, `"trim":160`, "trim:"},
		{`"trim":0`, `"trim":70`, "larger than every sheet"},
		{`"count":null`, `"count":0`, "sheets[0].count:"},
		{`"count":null`, `"count":-3`, "sheets[0].count:"},
		{`"seconds":1`, `"seconds":-1`, "seconds:"},
		{`"cost":1.0`, `"cost":-1`, "sheets[0].cost:"},
		{`"turn":true`, `"spin":true`, "spin:"},
		{`"turn":true`, `"turn":"yes"`, "pieces.turn:"},
		{`"pieces":[{"name":"base","width":177.8,"height":152.4,"copies":6,"turn":true}]`, `"pieces":[]`, "pieces:"},
	} {
		text := strings.Replace(jobText, c.from, c.to, 1)
		if text == jobText {
			t.Fatalf("%s is not in the job", c.from)
		}
		if _, _, err := ReadJob([]byte(text)); err == nil || !strings.Contains(err.Error(), c.says) || strings.Contains(err.Error(), "\n") {
			t.Errorf("%s: got %v; want one line with %q", c.to, err, c.says)
		}
	}
}

func FuzzReadJob(f *testing.F) {
	f.Add([]byte(jobText))
	f.Add([]byte(`{"brevium":1,"sheets":[],"pieces":[]}`))
	f.Fuzz(func(t *testing.T, text []byte) {
		j, _, err := ReadJob(text)
		if err != nil {
			return
		}
		total := 0
		for _, p := range j.Pieces {
			total += p.Copies
		}
		if total > 200 {
			return
		}
		r, err := Solve(t.Context(), j, Effort{Rounds: 3})
		if err != nil {
			t.Fatalf("a job that was read is refused: %v", err)
		}
		if err := sound(j, r); err != nil {
			t.Fatal(err)
		}
	})
}

// A cut takes its own width off the side of a part that was widened by it: with a blade of 1 mm a
// side of 301 is a cut of 300.
func TestTheBladeIsNoPartOfTheCut(t *testing.T) {
	for side, long := range map[measure.Length]bool{300 * mm: false, 301 * mm: false, 301*mm + 1: true, 302 * mm: true} {
		if got := (cutter{kerf: mm, trimmer: 300 * mm}).tooLong(side); got != long {
			t.Errorf("a side of %v is too long: %v", side, got)
		}
		if (cutter{kerf: mm}).tooLong(side) {
			t.Errorf("without a trimmer a side of %v is too long", side)
		}
	}
}
