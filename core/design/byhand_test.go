package design

import (
	"context"
	"math/rand"
	"testing"

	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/sample"
	"brevium/core/style"
)

// The steps of every style make the box, at random sizes and choices and in both units: each
// piece, and each bond from piece to piece once.
func TestTheStepsMakeTheBox(t *testing.T) {
	t.Parallel()
	for _, s := range style.All {
		t.Run(s.ID, func(t *testing.T) {
			t.Parallel()
			for _, unit := range []measure.Unit{measure.In, measure.MM} {
				rng := rand.New(rand.NewSource(sample.Seed(37)))
				for made, tried := 0, 0; made < sample.Of(t, 100) && tried < 4000; tried++ {
					in := randomSize(rng, unit, s)
					r, err := Make(t.Context(), in)
					if err != nil {
						continue
					}
					made++
					for _, f := range judged(r) {
						t.Fatalf("%v %v: %s", in.Size, in.Choices, f.Text)
					}
				}
			}
		})
	}
}

// judged are the findings of the moves of a design as they are told now.
func judged(r *Result) []inspect.Finding {
	w := r.work()
	_, table, err := w.Tell()
	return r.byHand(w, table, err)
}

// How long a hand takes for a base and its lid.
func BenchmarkByHand(b *testing.B) {
	r, err := Make(context.Background(), New("x", measure.In, "tray-lid"))
	if err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		if wrong := judged(r); wrong != nil {
			b.Fatal(wrong)
		}
	}
}
