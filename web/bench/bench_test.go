package bench_test

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
	"brevium/web/webtest"
)

// The stops of a box, changed anew each time.
func BenchmarkAStop(b *testing.B) {
	x := webtest.NewTable(b)
	id := x.JarBox()
	depths := []string{"1", "1 1/16", "1 1/8", "1 3/16", "1 1/4"}
	for _, stop := range []struct{ name, field string }{{"contents", "contents[0].ease"}, {"box", "options.lid.depth"}, {"fit", "options.lid.allowance"}, {"sheets", "copies"}} {
		b.Run(stop.name+"/view", func(b *testing.B) {
			for b.Loop() {
				x.Get(page.StopURL(id, stop.name))
			}
		})
	}
	b.Run("box/change", func(b *testing.B) {
		n := 0
		for b.Loop() {
			n++
			x.Post(page.StopURL(id, "box"), "options.lid.depth", depths[n%len(depths)])
		}
	})
	b.Run("box/new size", func(b *testing.B) {
		n := 0
		for b.Loop() {
			n++
			in := x.Box(id).Inputs
			in.Things[0].Length += measure.Length(n) * measure.Micrometre
			x.Post(page.StopURL(id, "contents"), "contents[0].length", measure.Field(in.Things[0].Length, measure.In))
			x.Get(page.StopURL(id, "box"))
		}
	})
}

// A box in four photographed papers: its dressing page, and how large it is.
func BenchmarkAPhotographedBox(b *testing.B) {
	x := webtest.NewTable(b)
	id := x.JarBox()
	at := page.StopURL(id, "dressing")
	x.Post(at, "mats.add", "base")
	x.Post(at, "mats.add", "lid")
	for n := range 4 {
		x.Post(at, "card.pick", fmt.Sprintf("mats[%d].layers[%d]=%s", n/2, n%2, form.CardText(x.Photographed(n))))
	}
	for b.Loop() {
		x.Get(at)
	}
}

func BenchmarkTheBiggest(b *testing.B) {
	x := webtest.NewTable(b)
	x.JarBox()
	for b.Loop() {
		x.Get("/boxes/1/biggest")
	}
}

// A move at the bench, kept: the tick, the place, the time it took.
func BenchmarkAMoveAtTheBench(b *testing.B) {
	x := webtest.NewTable(b)
	x.JarBox()
	n := 0
	for b.Loop() {
		x.Post("/boxes/1/bench", "at", strconv.Itoa(n%40), "go", "on", "took", "5")
		n++
	}
}

// The logbook of five hundred made boxes: its first page, and a search through all.
func BenchmarkTheLogbook(b *testing.B) {
	x := webtest.NewTable(b)
	id := x.JarBox()
	design := x.Box(id).Inputs.Write()
	var notes []logbook.Note
	for n := range 500 {
		notes = append(notes, logbook.Note{Made: time.UnixMilli(int64(n) * 1e6), Name: fmt.Sprint("Jars ", n), Style: "tray-lid", Design: design,
			Felt: []logbook.Felt{{Pair: "Lid over base, length", Kind: "lid", Card: "Oat card, 240 gsm", Gap: 400_000, Felt: fit.Verdicts[1+n%3]}}})
	}
	if _, err := x.Store.Of(b.Context()).BringNotes(b.Context(), notes); err != nil {
		b.Fatal(err)
	}
	for name, at := range map[string]string{"page": "/logbook", "search": "/logbook?find=jars+499"} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				if code, _, _ := x.Get(at); code != 200 {
					b.Fatal(code)
				}
			}
		})
	}
}
