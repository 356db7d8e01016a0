package design

import (
	"context"
	"fmt"
	"math/rand"
	"slices"
	"testing"

	"brevium/core/dress"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/sample"
	"brevium/core/style"
)

// papered is a design of a style with papers on faces that are free for them, as dice have it.
func papered(rng *rand.Rand, id string, unit measure.Unit) (*Result, error) {
	in := New("x", unit, id)
	in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
	bare, err := Sketch(in)
	if err != nil {
		return nil, err
	}
	for _, p := range bare.Parts {
		for _, side := range []dress.Side{dress.Outside, dress.Inside} {
			for _, f := range dress.Open(p.Pattern, p.Faces, side) {
				if rng.Intn(3) == 0 {
					d := dress.Dressing{ID: len(in.Mats) + 1, Piece: p.ID, Faces: []string{f.Name}, Side: side, Shape: dress.Shapes[rng.Intn(len(dress.Shapes))], Across: rng.Intn(4) == 0}
					if d.Shape == dress.Rounded {
						d.Radius = dress.UsualRadius(unit)
					}
					for range 1 + rng.Intn(2) {
						d.Layers = append(d.Layers, dress.Layer{Card: dress.Patterned, Border: dress.Even(unit.Ruler().Length() * measure.Length(1+rng.Intn(3)))})
					}
					if rng.Intn(8) == 0 { // a hair over the edge
						d.Layers[0].Border.Across = -measure.Millimetre / 2
					}
					in.Mats = append(in.Mats, d)
				}
			}
		}
	}
	return Make(context.Background(), in)
}

// Papers on any faces of any box are cut, glued and cut through by moves that leave them where
// the design has them, and every sentence of it can be said.
func TestPapersOnAnyBoxAreMade(t *testing.T) {
	t.Parallel()
	made := 0
	eachPapered(t, 41, func(r *Result) {
		made += len(r.Mats)
		for _, f := range r.Checks {
			if f.ID == "making" {
				t.Errorf("%s: %s", r.Inputs.Style, f.Text)
			}
		}
		for _, step := range r.Steps {
			if wrong := unsayable(step.Text); wrong != "" {
				t.Errorf("%s: %s: %s", r.Inputs.Style, wrong, step.Text)
			}
		}
	})
	if made < 50 {
		t.Errorf("only %d papers were made", made)
	}
}

// Of slips in the moves of papers the table notices each.
func TestTheHandNoticesSlipsOfPapers(t *testing.T) {
	t.Parallel()
	layer := `{"card":{"name":"Plain paper","gsm":120,"direction":"none"},"border":"1/8 in"}`
	for _, text := range []string{
		of("dispenser", `"mats":[{"piece":"window","faces":["panel"],"layers":[`+layer+`,`+layer+`]},{"piece":"body","faces":["front"],"layers":[`+layer+`]}]`),
		of("tray-lid", `"mats":[{"piece":"base","where":"walls","side":"inside","layers":[`+layer+`]},{"piece":"lid","where":"both","layers":[`+layer+`,`+layer+`]}]`),
		of("drawer-sleeve", `"mats":[{"piece":"sleeve","where":"walls","layers":[`+layer+`]}]`),
	} {
		r := make_(t, read(t, text))
		w := r.work()
		works, tried := makings(w), 0
		for k, x := range works {
			for i, m := range x.Moves {
				for what, moves := range paperSlips(x.Moves, i) {
					tried++
					other := slices.Clone(works)
					other[k].Moves = moves
					table, err := hand.Do(other...)
					if err == nil {
						err = table.Papers(w.Dressed())
					}
					if err == nil {
						t.Errorf("%s: nobody notices of the %s that %T is %s", r.Inputs.Style, x.Piece, m, what)
					}
				}
			}
		}
		if tried < 7 {
			t.Errorf("%s: only %d slips", r.Inputs.Style, tried)
		}
	}
}

// makings are the moves of every piece as they are told, and then those of the whole box.
func makings(w recipe.Work) []hand.Work {
	var out []hand.Work
	for _, s := range recipe.Flat(w.Steps()) {
		i := slices.IndexFunc(out, func(x hand.Work) bool { return x.Piece == s.Piece })
		if i < 0 {
			i, out = len(out), append(out, hand.Work{Piece: s.Piece})
		}
		out[i].Moves = append(out[i].Moves, s.Does)
	}
	return out
}

// eachPapered tries boxes of every style with papers as dice have it.
func eachPapered(t *testing.T, seed int64, try func(*Result)) {
	for n, s := range style.All {
		rng := rand.New(rand.NewSource(sample.Seed(seed + int64(n))))
		for i := range sample.Of(t, 12) {
			if r, err := papered(rng, s.ID, []measure.Unit{measure.In, measure.MM}[i%2]); err == nil { // else no paper fits there
				try(r)
			}
		}
	}
}

func paperSlips(moves []hand.Move, i int) map[string][]hand.Move {
	out := map[string][]hand.Move{}
	with := func(what string, m ...hand.Move) { out[what] = slices.Concat(moves[:i], m, moves[i+1:]) }
	switch m := moves[i].(type) {
	case hand.CutPapers:
		with("left out")
		with("done twice", m, m)
	case hand.CutThrough:
		with("left out")
		other := m
		other.Inside = !m.Inside
		with("on the other side", other)
	case hand.LayPapers:
		with("left out")
		with("done twice", m, m)
		other := m
		other.Papers = slices.Clone(m.Papers)
		other.Papers[0].Inside = !m.Inside
		with("on the other side", other)
		other.Papers = slices.Clone(m.Papers)
		other.Papers[0].Outline = slices.Clone(m.Papers[0].Outline)
		other.Papers[0].Outline[0].X += 2
		with("of another shape", other)
		if m.Layer == 1 {
			later := slices.Delete(slices.Clone(moves), i, i+1)
			if m.Late { // before anything is stuck
				out["too soon"] = slices.Insert(later, first(moves), hand.Move(m))
				break
			}
			out["too late"] = append(later, m)
		}
	}
	return out
}

// first is where the first part of a piece is stuck.
func first(moves []hand.Move) int {
	return slices.IndexFunc(moves, func(m hand.Move) bool { _, sticks := m.(hand.Stick); return sticks })
}

// The mark of a step stays the same from one working out to the next: a tick that is kept
// holds when the program is started anew.
func TestMarksStayFromRunToRun(t *testing.T) {
	t.Parallel()
	for _, s := range style.All {
		marks := func() (out []string) {
			r := make_(t, New("x", measure.In, s.ID))
			for _, x := range r.Steps {
				out = append(out, fmt.Sprint(x.Key, " ", x.Mark))
			}
			return out
		}
		if a, b := marks(), marks(); !slices.Equal(a, b) {
			i := slices.IndexFunc(a, func(x string) bool { return !slices.Contains(b, x) })
			t.Errorf("%s: the tick on %s is lost", s.ID, a[i])
		}
	}
}
