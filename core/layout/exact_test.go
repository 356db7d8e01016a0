package layout

import (
	"context"
	"fmt"
	"math/rand"
	"testing"

	"brevium/core/measure"
	"brevium/core/paper"
)

// bruteForce says whether a set of pieces can be cut from a part of w × h
// whole millimetres, trying every cut at every millimetre.
type bruteForce struct {
	job  *Job
	each []int // the piece of each copy
	seen map[[3]int]bool
}

func (b *bruteForce) goes(set, w, h int) bool {
	if set == 0 {
		return true
	}
	key := [3]int{set, w, h}
	if known, ok := b.seen[key]; ok {
		return known
	}
	b.seen[key] = b.cut(set, w, h)
	return b.seen[key]
}

func (b *bruteForce) cut(set, w, h int) bool {
	if set&(set-1) == 0 {
		for i, p := range b.each {
			if set == 1<<i {
				x := b.job.Pieces[p]
				pw, ph := int(x.Width/mm), int(x.Height/mm)
				return pw <= w && ph <= h || x.Turn && ph <= w && pw <= h
			}
		}
	}
	for part := (set - 1) & set; part > 0; part = (part - 1) & set {
		for at := 1; at < w; at++ {
			if b.goes(part, at, h) && b.goes(set^part, w-at, h) {
				return true
			}
		}
		for at := 1; at < h; at++ {
			if b.goes(part, w, at) && b.goes(set^part, w, h-at) {
				return true
			}
		}
	}
	return false
}

// Small jobs take the fewest sheets there can be, as trying every cut shows.
func TestSmallJobsAreExact(t *testing.T) {
	rng := rand.New(rand.NewSource(8))
	for range 150 {
		const side = 9
		j := &Job{Sheets: []paper.Sheet{sheet("s", side, side, paper.Unlimited)}}
		b := &bruteForce{job: j, seen: map[[3]int]bool{}}
		for i := range 4 + rng.Intn(2) {
			j.Pieces = append(j.Pieces, Piece{Name: fmt.Sprint(i), Copies: 1, Turn: rng.Intn(2) == 0,
				Width: measure.Length(2+rng.Intn(side-2)) * mm, Height: measure.Length(2+rng.Intn(side-2)) * mm})
			b.each = append(b.each, i)
		}
		all := 1<<len(b.each) - 1
		least := make([]int, all+1)
		for set := 1; set <= all; set++ {
			least[set] = len(b.each)
			for part := set; part > 0; part = (part - 1) & set {
				if least[set^part]+1 < least[set] && b.goes(part, side, side) {
					least[set] = least[set^part] + 1
				}
			}
		}
		r, err := Solve(context.Background(), j, Effort{})
		if err != nil {
			t.Fatal(err)
		}
		if len(r.Sheets) != least[all] || r.Bound.Sheets != least[all] {
			t.Errorf("%+v: %d sheets and a bound of %d; trying every cut gives %d", j.Pieces, len(r.Sheets), r.Bound.Sheets, least[all])
		}
		if err := sound(j, r); err != nil {
			t.Error(err)
		}
	}
}

// The cheaper of two sheets is taken, and none that there is not.
func TestExactMindsCostAndCount(t *testing.T) {
	j := &Job{
		Sheets: []paper.Sheet{
			{Name: "dear", Width: 100 * mm, Height: 100 * mm, Count: paper.Unlimited, Cost: 3},
			{Name: "cheap", Width: 60 * mm, Height: 100 * mm, Count: 1, Cost: 1},
		},
		Pieces: []Piece{{Name: "a", Width: 50 * mm, Height: 90 * mm, Copies: 3}},
	}
	r, err := Solve(t.Context(), j, Effort{})
	if err != nil || r.Cost != 4 || len(r.Sheets) != 2 {
		t.Errorf("three halves cost %v on %d sheets, %v; want 4 on 2", r.Cost, len(r.Sheets), err)
	}
}
