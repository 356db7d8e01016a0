package layout

import (
	"context"
	"fmt"
	"math/rand"
	"reflect"
	"runtime"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"brevium/core/measure"
	"brevium/core/paper"
)

// wide is a job of many pieces on many kinds of sheet.
func wide(kinds, copies int) *Job {
	j := &Job{Trimmer: 1000 * mm}
	for i := range kinds {
		j.Sheets = append(j.Sheets, paper.Sheet{Name: fmt.Sprint("kind ", i), Width: measure.Length(300+i) * mm, Height: measure.Length(400-i/2) * mm, Count: paper.Unlimited})
	}
	j.Pieces = []Piece{{Name: "base", Width: 180 * mm, Height: 160 * mm, Copies: copies, Turn: true}, {Name: "lid", Width: 130 * mm, Height: 110 * mm, Copies: copies, Turn: true}}
	return j
}

// One who asks for many layouts has one budget for all: when it is used up each is the best that
// was met, sound as far as it goes, and says so; little more is spent than was given.
func TestABudgetIsForAllThatOneAsks(t *testing.T) {
	given := Spending{Looks: 4_000_000, Workers: 1}
	ctx := given.In(t.Context())
	short := 0
	for n := range 12 {
		j := wide(40, 30+n)
		r, err := Solve(ctx, j, Effort{Rounds: 50})
		if err != nil {
			t.Fatal(err)
		}
		if err := sound(j, r); err != nil {
			t.Fatal(err)
		}
		if r.Short != Short(ctx) {
			t.Errorf("job %d says %v; the budget says %v", n, r.Short, Short(ctx))
		}
		if r.Short {
			short++
		} else if short > 0 || len(r.Unplaced) > 0 {
			t.Errorf("job %d: %d without a place, and it does not say that it was broken off", n, len(r.Unplaced))
		}
	}
	if short == 0 || short == 12 {
		t.Errorf("%d of 12 were broken off", short)
	}
	if looked := budgetOf(ctx).looked.Load(); looked > given.Looks+12*looksBetween*10 {
		t.Errorf("%d places were looked at, of %d that were given", looked, given.Looks)
	}
}

// Time is a budget too, of what solves take together.
func TestABudgetOfTime(t *testing.T) {
	ctx := Spending{Time: time.Microsecond, Workers: 1}.In(t.Context())
	r, err := Solve(ctx, wide(60, 60), Effort{Rounds: 1000})
	if err != nil || !r.Short {
		t.Errorf("after a microsecond it looks on: %v", err)
	}
	// Where nobody gave a budget, the seconds of a search are all that bounds it.
	defer func(given Spending) { ForCommand = given }(ForCommand)
	ForCommand = Spending{Time: time.Microsecond, Workers: 2}
	if r, err = Solve(t.Context(), wide(6, 12), Effort{Seconds: 0.05}); err != nil || r.Short {
		t.Errorf("a search is broken off before its time: %v", err)
	}
	ForCommand = Spending{Time: time.Minute, Workers: 2}
	if r, err = Solve(t.Context(), wide(3, 3), Effort{Rounds: 2}); err != nil || r.Short {
		t.Errorf("without a budget it is broken off: %v", err)
	}
}

// One worker gives what two do, only later.
func TestOneWorkerGivesTheSame(t *testing.T) {
	rng := rand.New(rand.NewSource(31))
	for range 30 {
		j := randomJob(rng)
		var got [2]*Result
		for i, n := range []int{1, 2} {
			var err error
			if got[i], err = Solve(Spending{Workers: n}.In(t.Context()), j, Effort{Rounds: 3}); err != nil {
				t.Fatal(err)
			}
		}
		if !reflect.DeepEqual(got[0], got[1]) {
			t.Fatalf("one worker gives %d sheets for %v, two %d for %v", len(got[0].Sheets), got[0].Cost, len(got[1].Sheets), got[1].Cost)
		}
	}
}

// For who has gone almost nothing is looked at.
func TestWorkEndsWithItsAsker(t *testing.T) {
	ctx, gone := context.WithCancel(Spending{Workers: 2}.In(t.Context()))
	gone()
	if _, err := Solve(ctx, wide(200, 100), Effort{Rounds: 1000}); err != nil {
		t.Fatal(err)
	}
	if looked := budgetOf(ctx).looked.Load(); looked > 200_000 {
		t.Errorf("%d places were looked at for nobody", looked)
	}
}

// What is done one by one, or while others go first, is done by the goroutine that asks; else
// so many are done at once, and no more. Each is done once.
func TestEachIsDoneOnTheAskersThread(t *testing.T) {
	polite := Polite(t.Context(), func() {})
	for _, x := range []struct {
		name   string
		ctx    context.Context
		atOnce int
		apart  bool
	}{{"one by one", t.Context(), 1, false}, {"others first", polite, 4, false}, {"three at once", t.Context(), 3, true}} {
		done := make([]int, 20)
		var mu sync.Mutex
		asker, now, most, elsewhere := goroutine(), 0, 0, 0
		Each(x.ctx, len(done), x.atOnce, func(i int) {
			mu.Lock()
			now++
			most = max(most, now)
			if goroutine() != asker {
				elsewhere++
			}
			mu.Unlock()
			time.Sleep(time.Millisecond)
			mu.Lock()
			now--
			done[i]++
			mu.Unlock()
		})
		if slices.Max(done) != 1 || slices.Min(done) != 1 {
			t.Errorf("%s: they are done %v times", x.name, done)
		}
		if x.apart && elsewhere != len(done) || !x.apart && elsewhere != 0 {
			t.Errorf("%s: %d of %d are done by another goroutine", x.name, elsewhere, len(done))
		}
		if x.apart && (most < 2 || most > x.atOnce) {
			t.Errorf("%s: %d are done at once", x.name, most)
		}
	}
}

// goroutine is the first line of what the present one is doing, which names it.
func goroutine() string {
	head := make([]byte, 40)
	name, _, _ := strings.Cut(string(head[:runtime.Stack(head, false)]), "[")
	return name
}
