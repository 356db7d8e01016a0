package web

import (
	"fmt"
	"strconv"
	"testing"
	"time"

	"brevium/core/fit"
	"brevium/core/logbook"
	"brevium/core/measure"
	"brevium/web/form"
	"brevium/web/page"
)

// The stops of a box, changed anew each time.
func BenchmarkAStop(b *testing.B) {
	x := newTable(b)
	id := x.jarBox()
	depths := []string{"1", "1 1/16", "1 1/8", "1 3/16", "1 1/4"}
	for _, stop := range []struct{ name, field string }{{"contents", "contents[0].ease"}, {"box", "options.lid.depth"}, {"fit", "options.lid.allowance"}, {"sheets", "copies"}} {
		b.Run(stop.name+"/view", func(b *testing.B) {
			for b.Loop() {
				x.get(page.StopURL(id, stop.name))
			}
		})
	}
	b.Run("box/change", func(b *testing.B) {
		n := 0
		for b.Loop() {
			n++
			x.post(page.StopURL(id, "box"), "options.lid.depth", depths[n%len(depths)])
		}
	})
	b.Run("box/new size", func(b *testing.B) {
		n := 0
		for b.Loop() {
			n++
			in := x.box(id).Inputs
			in.Things[0].Length += measure.Length(n) * measure.Micrometre
			x.post(page.StopURL(id, "contents"), "contents[0].length", measure.Field(in.Things[0].Length, measure.In))
			x.get(page.StopURL(id, "box"))
		}
	})
}

// A box in four photographed papers: its dressing page, and how large it is.
func BenchmarkAPhotographedBox(b *testing.B) {
	x := newTable(b)
	id := x.jarBox()
	at := page.StopURL(id, "dressing")
	x.post(at, "mats.add", "base")
	x.post(at, "mats.add", "lid")
	for n := range 4 {
		x.post(at, "card.pick", fmt.Sprintf("mats[%d].layers[%d]=%s", n/2, n%2, form.CardText(x.photographed(n))))
	}
	for b.Loop() {
		x.get(at)
	}
}

func BenchmarkTheBiggest(b *testing.B) {
	x := newTable(b)
	x.jarBox()
	for b.Loop() {
		x.get("/boxes/1/biggest")
	}
}

// A move at the bench, kept: the tick, the place, the time it took.
func BenchmarkAMoveAtTheBench(b *testing.B) {
	x := newTable(b)
	x.jarBox()
	n := 0
	for b.Loop() {
		x.post("/boxes/1/bench", "at", strconv.Itoa(n%40), "go", "on", "took", "5")
		n++
	}
}

// The logbook of five hundred made boxes: its first page, and a search through all.
func BenchmarkTheLogbook(b *testing.B) {
	x := newTable(b)
	id := x.jarBox()
	design := x.box(id).Inputs.Write()
	var notes []logbook.Note
	for n := range 500 {
		notes = append(notes, logbook.Note{Made: time.UnixMilli(int64(n) * 1e6), Name: fmt.Sprint("Jars ", n), Style: "tray-lid", Design: design,
			Felt: []logbook.Felt{{Pair: "Lid over base, length", Kind: "lid", Card: "Oat card, 240 gsm", Gap: 400_000, Felt: fit.Verdicts[1+n%3]}}})
	}
	if _, err := x.store.Of(b.Context()).BringNotes(b.Context(), notes); err != nil {
		b.Fatal(err)
	}
	for name, at := range map[string]string{"page": "/logbook", "search": "/logbook?find=jars+499"} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				if code, _, _ := x.get(at); code != 200 {
					b.Fatal(code)
				}
			}
		})
	}
}
