package styles_test

import (
	"net/http"
	"os"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/web/webtest"
)

// A style is begun from a file of one in the catalogue, tried, mended where it is wrong,
// kept, and stands among the kinds of box at once; a box is made of it, sized by what
// goes in; a second version leaves that box as it is; the file goes along to another
// Brevium, and the style can be offered no more.
func TestAStyleOfOnesOwn(t *testing.T) {
	defer style.SetOwn(nil)
	x := webtest.NewTable(t)
	if page := x.Words("/styles?from=hinged-carton"); !strings.Contains(page, "own-carton") || !strings.Contains(page, "What the file gives") {
		t.Errorf("to begin with: %.600s", page)
	}
	if _, page, _ := x.Get("/styles?from=gable-lid"); strings.Count(page, `class="own-net"`) != 2 {
		t.Error("a style of two pieces does not show both")
	}
	file, err := os.ReadFile("../../core/stylefile/examples/hinged-carton.json")
	if err != nil {
		t.Fatal(err)
	}
	text := strings.Replace(string(file), "own-carton", "fair-carton", 1)
	for bad, says := range map[string]string{
		strings.Replace(text, "\"columns\": [\n    \"H\"", "\"columns\": [\n    \"Q\"", 1): "columns[0]",
		strings.Replace(text, `"left base right"`, `"left base"`, 1):                       "cells",
		strings.Replace(text, "fair-carton", "tray", 1):                                    "style of the catalogue",
		"{": "JSON",
	} {
		if code, page, _ := x.Post("/styles", "style", bad, "keep", "1"); code != http.StatusUnprocessableEntity || !strings.Contains(page, says) {
			t.Errorf("%q: %d, it says nothing of %s", bad[:min(40, len(bad))], code, says)
		}
	}
	if code, page, _ := x.Post("/styles", "style", text); code != http.StatusOK || strings.Contains(x.Words("/kinds"), "A carton of my own") {
		t.Errorf("tried: %d %.300s", code, page)
	}
	x.Post("/styles", "style", text, "keep", "1")
	if page := x.Words("/kinds"); !strings.Contains(page, "A carton of my own") {
		t.Fatal("it is not among the kinds of box")
	}
	in := design.New("Soap", measure.In, "tray")
	in.Things = []contents.Thing{{ID: 1, Name: "soap", Shape: contents.Block, Length: 3 * measure.Inch, Width: 2 * measure.Inch, Height: measure.Inch, Count: 1}}
	id, err := x.Store.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	if code, page, _ := x.Post("/boxes/1/box", "style", "fair-carton"); code >= 400 {
		t.Errorf("%d %.400s", code, page)
	}
	if in := x.Box(id).Inputs; in.Style != "fair-carton" || len(in.Things) == 0 {
		t.Fatalf("the box is a %s", in.Style)
	}
	if page := x.Words("/boxes/1/making"); !strings.Contains(page, "bring back and front up and press them on") {
		t.Errorf("its steps: %.500s", page)
	}
	x.Post("/styles", "style", strings.Replace(text, "A carton of my own", "The fair's carton", 1), "keep", "1", "began", "1")
	if kinds := x.Words("/kinds"); strings.Contains(kinds, "A carton of my own") || !strings.Contains(kinds, "The fair's carton") || x.Box(id).Inputs.Style != "fair-carton" {
		t.Error("the second version does not take the first one's place")
	}
	if code, file, _ := x.Get("/styles/fair-carton.json"); code != http.StatusOK || !strings.Contains(file, `"version": 2`) {
		t.Errorf("its file: %d", code)
	}
	_, zip, _ := x.Get("/data/everything.zip")
	style.SetOwn(nil)
	y := webtest.NewTable(t)
	y.Send("/data/bring", []byte(zip))
	if page := y.Words("/boxes/1/box"); !strings.Contains(page, "A carton of my own") && !strings.Contains(page, "fair's carton") {
		t.Errorf("elsewhere the box is %.400s", page)
	}
	y.Post("/styles/fair-carton/strike")
	if strings.Contains(y.Words("/kinds"), "fair's carton") {
		t.Error("what was struck is offered")
	}
	for _, path := range []string{"/styles?own=none", "/styles/none.json", "/styles/none"} {
		if code, _, _ := y.Get(path); code != http.StatusNotFound {
			t.Errorf("%s: %d", path, code)
		}
	}
}
