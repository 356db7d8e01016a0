package page

import (
	"fmt"
	"html/template"
	"strings"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/draw"
)

// BoxPicture draws the finished box, with a mark where a page has the picture more
// than once; one that cannot be folded shows nothing.
func BoxPicture(r *design.Result, mark string) template.HTML {
	return picture(r, draw.ModelOf(r, false), mark)
}

// FilledPicture is BoxPicture with what goes in as broken lines.
func FilledPicture(r *design.Result) template.HTML {
	return picture(r, draw.FilledModelOf(r), "")
}

func picture(r *design.Result, m *draw.Model, mark string) template.HTML {
	p, err := m.Look(r.Style.Name + ", folded")
	if err != nil {
		return ""
	}
	p.Mark = mark
	return SVG(p)
}

// The window of a move's picture beside its words, in mm as on paper.
const moveWide, moveHigh = 42, 23

// MovePictures are the pictures of a box's steps, by their keys, in lines alone; they are kept.
func MovePictures(kept *Drawn, r *design.Result) map[string]template.HTML {
	return movePictures(kept, r, "moves", r.Steps)
}

// EachMovePicture are those of all moves, also of those that are told in one sentence.
func EachMovePicture(kept *Drawn, r *design.Result) map[string]template.HTML {
	return movePictures(kept, r, "each move", recipe.Flat(r.Steps))
}

func movePictures(kept *Drawn, r *design.Result, as string, steps []recipe.Step) map[string]template.HTML {
	return Draw(kept, r, as, func() map[string]template.HTML {
		out := map[string]template.HTML{}
		for _, m := range draw.Moves(r, draw.OpenModelOf(r, true), steps) {
			p, err := m.Picture(moveWide, moveHigh)
			if err != nil {
				continue // its words stand alone
			}
			p.Title = "" // the words beside it say it
			out[m.Step.Key] = SVG(p)
		}
		return out
	})
}

// Span writes "sheet 2" or "sheets 2 to 4, alike,".
func Span(first, last int) string {
	if first == last {
		return fmt.Sprintf("sheet %d", first)
	}
	return fmt.Sprintf("sheets %d to %d, alike,", first, last)
}

// Counted writes "1 cut", "3 cuts" or "2 boxes".
func Counted(n int, noun string) string {
	if n == 1 {
		return "1 " + noun
	}
	if strings.HasSuffix(noun, "x") {
		noun += "e"
	}
	return fmt.Sprintf("%d %ss", n, noun)
}

// Given lists what comes out of a blank of a design; one that it does not
// know by now is the piece itself.
func Given(r *design.Result, blank string) []string {
	if ids := r.GivenBy(blank); ids != nil {
		return ids
	}
	return []string{blank}
}

// WhereView shows where a piece goes in its box.
type WhereView struct {
	ID, Name string
	Picture  template.HTML
}

// WhereOf names the picture that shows where a part of an item goes.
func WhereOf(item int, part string) string {
	return fmt.Sprintf("where-%d-%s", item, strings.NewReplacer(".", "-", " ", "-").Replace(part))
}

// SizeOf writes the two sides of a sheet.
func SizeOf(w, h measure.Length, unit measure.Unit) string {
	return measure.Sides(unit, unit.Tick(), w, h)
}

// Usable is what can be used of an offcut, in whole ticks.
func Usable(w, h measure.Length, unit measure.Unit) string {
	return SizeOf(measure.Down(w, unit.Tick()), measure.Down(h, unit.Tick()), unit)
}

// SheetsOf counts sheets of a name so that no number runs into its size: "4 sheets of
// 12 × 12 in", "2 × offcut 5 × 7 in".
func SheetsOf(n int, name string, offcut bool) string {
	switch {
	case !offcut:
		return Counted(n, "sheet") + " of " + name
	case n == 1:
		return name
	}
	return fmt.Sprintf("%d × %s", n, name)
}

// SheetName is what a pile is called: an offcut by what can be used of it.
func SheetName(l drawer.Lot, unit measure.Unit) string {
	if l.Offcut {
		return "offcut " + Usable(l.Width, l.Height, unit)
	}
	return l.Sheet
}
