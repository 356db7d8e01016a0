// Command layoutbench lays random jobs out and prints a table: for each class
// the sheets used, the proved bound, how many jobs were proved best, and the
// time. Its classes are the ten classic ones of the literature and batches of
// boxes as they are made at the table.
package main

import (
	"context"
	"flag"
	"fmt"
	"log"
	"math/rand"
	"os"
	"text/tabwriter"
	"time"

	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
)

const mm = measure.Millimetre

// sizes are how many pieces the classic jobs have.
var sizes = []int{20, 40, 60, 80, 100}

func main() {
	seed := flag.Int64("seed", 1, "of the random jobs")
	per := flag.Int("per", 2, "jobs for each class and size")
	seconds := flag.Float64("seconds", 1, "for each job")
	flag.Parse()
	if err := run(*seed, *per, *seconds); err != nil {
		log.Fatal(err)
	}
}

// tally adds up one class.
type tally struct {
	jobs, sheets, bound, proved int
	took                        time.Duration
}

func (t *tally) add(u tally) {
	t.jobs, t.sheets, t.bound = t.jobs+u.jobs, t.sheets+u.sheets, t.bound+u.bound
	t.proved, t.took = t.proved+u.proved, t.took+u.took
}

func run(seed int64, per int, seconds float64) error {
	out := tabwriter.NewWriter(os.Stdout, 0, 0, 2, ' ', tabwriter.AlignRight)
	fmt.Fprintln(out, "class\tjobs\tsheets\tbound\tratio\tproved\tseconds\t")
	row := func(name string, t tally) {
		fmt.Fprintf(
			out,
			"%s\t%d\t%d\t%d\t%.4f\t%d\t%.1f\t\n",
			name,
			t.jobs,
			t.sheets,
			t.bound,
			float64(t.sheets)/float64(t.bound),
			t.proved,
			t.took.Seconds(),
		)
	}
	var all tally
	for class := 1; class <= len(classes)+1; class++ {
		var jobs []*layout.Job
		name := fmt.Sprint(class)
		if class <= len(classes) {
			for _, n := range sizes {
				for i := range per {
					jobs = append(jobs, classic(rand.New(rand.NewSource(seed*1_000_003+int64(class*1000+n*10+i))), class, n))
				}
			}
		} else {
			name = "batches"
			for i := range 10 * per {
				jobs = append(jobs, batch(rand.New(rand.NewSource(seed*1_000_003+int64(i)))))
			}
		}
		var sum tally
		for _, j := range jobs {
			start := time.Now()
			r, err := layout.Solve(context.Background(), j, layout.Effort{Seconds: seconds, Seed: seed})
			if err != nil {
				return err
			}
			t := tally{jobs: 1, sheets: len(r.Sheets), bound: r.Bound.Sheets, took: time.Since(start)}
			if t.sheets == t.bound {
				t.proved = 1
			}
			sum.add(t)
		}
		row(name, sum)
		all.add(sum)
	}
	row("all", all)
	return out.Flush()
}

// extent is a range of whole millimetres, ends included.
type extent struct{ least, most int }

func (e extent) of(rng *rand.Rand) measure.Length {
	return measure.Length(e.least+rng.Intn(e.most-e.least+1)) * mm
}

// classes are the classic ones: 1 to 6 of Berkey and Wang (1987), sides drawn
// evenly for a square sheet; 7 to 10 of Martello and Vigo (1998), four kinds of
// piece of which one makes up most.
var classes = []struct {
	side  int
	sides extent
}{{10, extent{1, 10}}, {30, extent{1, 10}}, {40, extent{1, 35}}, {100, extent{1, 35}}, {100, extent{1, 100}}, {300, extent{1, 100}}, {side: 100}, {side: 100}, {side: 100}, {side: 100}}

var kinds = [4][2]extent{{{67, 100}, {1, 50}}, {{1, 50}, {67, 100}}, {{50, 100}, {50, 100}}, {{1, 50}, {1, 50}}}

// classic makes one job of a class, counted from 1.
func classic(rng *rand.Rand, class, n int) *layout.Job {
	c := classes[class-1]
	j := &layout.Job{
		Sheets: []paper.Sheet{
			{Name: "sheet", Width: measure.Length(c.side) * mm, Height: measure.Length(c.side) * mm, Count: paper.Unlimited, Cost: 1},
		},
	}
	for i := range n {
		w, h := c.sides, c.sides
		if class > 6 {
			kind := class - 7
			if rng.Intn(10) >= 7 { // the other three have a tenth each
				kind = (kind + 1 + rng.Intn(3)) % 4
			}
			w, h = kinds[kind][0], kinds[kind][1]
		}
		j.Pieces = append(
			j.Pieces,
			layout.Piece{Name: fmt.Sprint("piece ", i+1), Width: w.of(rng), Height: h.of(rng), Copies: 1, Turn: true},
		)
	}
	return j
}

// batch makes the pieces of some boxes on 12 in sheets: blanks, lids, strips
// and panels, some of them turn-locked.
func batch(rng *rand.Rand) *layout.Job {
	square, _ := paper.SheetNamed("12 × 12 in")
	square.Cost = 1
	j := &layout.Job{Sheets: []paper.Sheet{square}}
	left := 20 + rng.Intn(131)
	add := func(kind string, w, h measure.Length, copies int) {
		if copies = min(copies, left, 30); copies > 0 {
			left -= copies
			j.Pieces = append(
				j.Pieces,
				layout.Piece{Name: fmt.Sprint(kind, " ", len(j.Pieces)+1), Width: w, Height: h, Copies: copies, Turn: rng.Intn(3) > 0},
			)
		}
	}
	half := func(least, most int) measure.Length { return extent{2 * least, 2 * most}.of(rng) / 2 }
	for left > 0 {
		boxes := 1 + rng.Intn(10)
		w, h := half(80, 298), half(80, 298)
		add("blank", w, h, boxes)
		if rng.Intn(10) < 6 {
			add("lid", w+2*mm, h+2*mm, boxes)
		}
		for range 1 + rng.Intn(2) {
			add("strip", half(150, 300), half(13, 45), boxes<<rng.Intn(3))
		}
		for range 1 + rng.Intn(3) {
			add("panel", half(20, 150), half(20, 150), boxes<<rng.Intn(3))
		}
	}
	return j
}
