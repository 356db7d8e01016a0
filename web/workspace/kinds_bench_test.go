package workspace_test

import (
	"fmt"
	"net/http"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/web/webtest"
)

// manyKinds is a box of fifty copies on two hundred kinds of sheet, one of each.
func manyKinds() design.Inputs {
	in := design.New("Two hundred kinds", measure.MM, "tray-lid")
	in.Size = map[string]measure.Length{"length": 100 * measure.Millimetre, "width": 80 * measure.Millimetre, "height": 40 * measure.Millimetre}
	in.Copies = 50
	in.Sheets = nil
	for i := range 200 {
		in.Sheets = append(in.Sheets, paper.Sheet{Name: fmt.Sprint("kind ", i), Width: measure.Length(300+i) * measure.Millimetre, Height: measure.Length(600-i) * measure.Millimetre / 2, Count: 1})
	}
	return in
}

// The pages of a box on two hundred kinds of sheet, each time another box.
func BenchmarkTwoHundredKinds(b *testing.B) {
	for _, page := range []string{"box", "compare"} {
		b.Run(page, func(b *testing.B) {
			x := webtest.NewTable(b)
			n := 0
			for b.Loop() {
				b.StopTimer()
				in := manyKinds()
				in.Size["height"] += measure.Length(n) * measure.Millimetre / 10
				n++
				id, err := x.Store.Of(b.Context()).Add(b.Context(), in)
				if err != nil {
					b.Fatal(err)
				}
				b.StartTimer()
				if code, _, _ := x.Get(fmt.Sprintf("/boxes/%d/%s", id, page)); code != http.StatusOK {
					b.Fatal(code)
				}
			}
		})
	}
}
