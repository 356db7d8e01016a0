package workspace_test

import (
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/web/webtest"
)

// A sheet of one's own is added at the form, with how many there are; it is used first as it is
// ticked, is counted, and goes when its tick does. What is no sheet is said at its field.
func TestSheetsOfOnesOwn(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	at := func(pairs ...string) (int, string) {
		code, body, _ := x.Post("/boxes/1/sheets", append([]string{"choosing-sheets", "1", "own-sheets", "1"}, pairs...)...)
		return code, body
	}
	if code, body := at("sheets", "12 × 12 in", "own.width", "14", "own.height", "10 in", "own.count", "3", "own.add", "1"); code >= 400 {
		t.Fatalf("%d: %.600s", code, body)
	}
	sheets := x.Box(1).Inputs.Sheets
	want := paper.Sheet{Name: "14 × 10 in", Width: 14 * measure.Inch, Height: 10 * measure.Inch, Count: 3}
	if len(sheets) != 2 || sheets[1] != want {
		t.Fatalf("kept %+v", sheets)
	}
	_, page, _ := x.Get("/boxes/1/sheets")
	if !strings.Contains(page, `value="14 × 10 in" checked`) {
		t.Error("the page does not show it ticked")
	}
	if at("sheets", "14 × 10 in", "sheets[1].count", "1"); len(x.Box(1).Inputs.Sheets) != 1 || x.Box(1).Inputs.Sheets[0].Count != 1 {
		t.Errorf("one of it alone: %+v", x.Box(1).Inputs.Sheets)
	}
	if at("sheets", "14 × 10 in", "sheets[0].count", ""); x.Box(1).Inputs.Sheets[0].Count != paper.Unlimited {
		t.Errorf("as many as it takes: %+v", x.Box(1).Inputs.Sheets)
	}
	at("sheets", "A2")
	if sheets := x.Box(1).Inputs.Sheets; len(sheets) != 1 || sheets[0].Name != "A2" {
		t.Errorf("without its tick there are %+v", sheets)
	}
	for field, value := range map[string]string{"own.width": "wide", "own.height": "0", "own.count": "-2"} {
		pairs := map[string]string{"own.width": "5", "own.height": "5", "own.count": ""}
		pairs[field] = value
		code, body := at("sheets", "A3", "own.add", "1", "own.width", pairs["own.width"], "own.height", pairs["own.height"], "own.count", pairs["own.count"])
		if id := "f-" + strings.ReplaceAll(field, ".", "-"); code != 422 || !strings.Contains(body, id+`-fault"`) {
			t.Errorf("%s %q: %d, not said at its field", field, value, code)
		}
		if got := x.Box(1).Inputs.Sheets; len(got) != 1 {
			t.Errorf("%s %q: kept %+v", field, value, got)
		}
	}
	// An older page that does not list them takes none away.
	at("sheets", "A3", "own.width", "9", "own.height", "9", "own.add", "1")
	x.Post("/boxes/1/sheets", "choosing-sheets", "1", "sheets", "A2")
	if got := x.Box(1).Inputs.Sheets; len(got) != 2 || got[1].Name != "9 × 9 in" {
		t.Errorf("an older page left %+v", got)
	}
}
