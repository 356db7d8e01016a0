package main

import (
	"context"
	"fmt"
	"time"

	"brevium/core/cost"
	"brevium/core/design"
	"brevium/core/fit"
	"brevium/core/logbook"
	"brevium/core/money"
	"brevium/store"
)

// demoNotes are what was made before the fair and how it felt, in the order of its
// fits; the days are counted back from today.
var demoNotes = []struct {
	box      string
	days     int
	minutes  float64
	felt     []fit.Verdict
	remember string
}{
	{"Dice set", 31, 64, []fit.Verdict{fit.Snug, fit.Easy}, "Six at a time is a good evening."},
	{"Four honey jars", 24, 46, []fit.Verdict{fit.Snug, fit.Easy}, "The star paper marks easily; clean hands."},
	{"Four honey jars", 17, 41, []fit.Verdict{fit.Snug, fit.Easy}, "Wedge the tabs well, then the lid slides."},
	{"Four honey jars", 9, 38, []fit.Verdict{fit.Snug, fit.Snug}, "Burnish the papers before the lid is tried."},
}

// loadNotes writes the demo's logbook, and what its maker reckons with.
func loadNotes(ctx context.Context, kept *store.Store, byName map[string]int64) error {
	var notes []logbook.Note
	for _, d := range demoNotes {
		b, err := kept.Of(ctx).Box(ctx, byName[d.box])
		if err != nil {
			return fmt.Errorf("the demo note of %q: %w", d.box, err)
		}
		r, err := design.Make(ctx, b.Inputs)
		if err != nil {
			return err
		}
		n := logbook.Note{
			Made: kept.Now().AddDate(0, 0, -d.days).Truncate(time.Minute), Name: b.Name, Style: b.Inputs.Style, Card: b.Inputs.Card.Label(),
			Minutes: d.minutes, Remember: d.remember, Design: b.Inputs.Write(),
		}
		for i, a := range r.Felt() {
			if i < len(d.felt) {
				n.Felt = append(n.Felt, logbook.Felt{Pair: a.Pair.What(), Kind: a.Pair.Kind.ID, Card: b.Inputs.CardOf(a.Pair.Outer).Label(), Gap: a.Gap, Felt: d.felt[i]})
			}
		}
		notes = append(notes, n)
	}
	if _, err := kept.Of(ctx).BringNotes(ctx, notes); err != nil {
		return err
	}
	return kept.Of(ctx).Set(ctx, cost.RatesKey, cost.Rates{Hour: money.Of(12), Each: money.Of(0.1), Margin: 20, Fee: 10})
}
