package main

import (
	"os"
	"path/filepath"
	"testing"

	"brevium/core/design"
	"brevium/core/pattern"
	"brevium/core/sample"
	"brevium/core/strokes"
	"brevium/core/tool"
	"brevium/draw/export"
	"brevium/plotter"
)

// withNeighbours are the first boxes of the demo, most of whose pieces lie edge to edge on their
// sheets; those after them are rounds and slices, which share few edges.
const withNeighbours = 23

// Every box of the demo comes off whole, and what a machine is given is far shorter than the outlines
// one by one: the head goes through the air for at most 0.59 of the way, the blade cuts 0.67 where
// pieces lie edge to edge.
func TestTheDemoIsCut(t *testing.T) {
	files, err := filepath.Glob("demo/*.json")
	if err != nil || len(files) < 30 {
		t.Fatalf("%d boxes, %v", len(files), err)
	}
	var travel, cut [2]float64
	for n, name := range files {
		text, err := os.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		in, err := design.Read(text)
		if err != nil {
			t.Fatal(err)
		}
		r, err := design.Make(t.Context(), in)
		if err != nil {
			t.Fatal(err)
		}
		var sheets []*plotter.File
		for _, d := range export.Packed(r) {
			one, ordered := outlines(d), d.Strokes(export.Layers{})
			var once []strokes.Line
			for _, s := range ordered {
				once = append(once, s.Line)
			}
			for k, lines := range [][]strokes.Line{one, once} {
				travel[k] += strokes.Travel(lines)
				for _, l := range lines {
					if l.Tool == strokes.Cut && n < withNeighbours {
						cut[k] += l.Length()
					}
				}
			}
			f, err := plotter.ReadSVG(d.SVG(export.Layers{}))
			if err != nil {
				t.Fatal(err)
			}
			f.Card = d.Card.Thickness.MM()
			sheets = append(sheets, f)
		}
		if !sample.Takes(t, n) {
			continue
		}
		mat := tool.Mat{Name: "large", Width: 1000, Height: 1000}
		o := plotter.Usual(mat, 0)
		all, err := cutAll(sheets, o, export.Wanted(r), true)
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		for i, rep := range all {
			if !rep.AsPlanned() || len(rep.Missing) > 0 {
				t.Errorf("%s, sheet %d: %s %v", name, i+1, rep.Says(), rep.Missing)
			}
		}
	}
	t.Logf("travel %.3f, cut %.3f of the outlines one by one", travel[1]/travel[0], cut[1]/cut[0])
	if travel[1] > 0.59*travel[0] || cut[1] > 0.67*cut[0] {
		t.Errorf("travel %.3f, cut %.3f of the outlines one by one", travel[1]/travel[0], cut[1]/cut[0])
	}
}

// outlines are a sheet's lines as they come, piece by piece.
func outlines(d export.Drawing) []strokes.Line {
	var out []strokes.Line
	for _, s := range d.Scores {
		out = append(out, strokes.Line{Tool: strokes.Score, Path: []pattern.Vertex{{Point: s.A}, {Point: s.B}}})
	}
	for _, l := range d.Cuts {
		out = append(out, strokes.Line{Tool: strokes.Cut, Path: l, Closed: true})
	}
	for _, s := range d.Slits {
		out = append(out, strokes.Line{Tool: strokes.Cut, Path: s})
	}
	return out
}
