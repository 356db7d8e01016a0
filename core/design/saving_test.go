package design

import (
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/measure"
	"brevium/core/paper"
)

// A bag 3 9/16 in wide has a blank of 5 9/16 × 7 in: one from 8 1/2 × 11 in.
// A sixteenth less, 5 1/2 in, goes twice into 11.
func TestASixteenthSavesHalfTheSheets(t *testing.T) {
	t.Parallel()
	in := New("Bags", measure.In, "fold-top-bag")
	in.Size["width"] = 57 * measure.Inch / 16
	letter, _ := paper.SheetNamed("8.5 x 11")
	in.Sheets, in.Copies = []paper.Sheet{letter}, 60
	all := Savings(t.Context(), in)
	if len(all) == 0 {
		t.Fatal("nothing is offered")
	}
	s := all[0]
	if s.Key != "size.width" || s.To != 7*measure.Inch/2 || s.Instead != 60 || s.Sheets != 30 {
		t.Errorf("%s to %v: %d sheets instead of %d", s.Key, s.To, s.Sheets, s.Instead)
	}
	if text := s.Text(); !strings.HasPrefix(text, "With width at 3 1/2 in instead of 3 9/16 in, 30 sheets do instead of 60.") {
		t.Errorf("it says %q", text)
	}
	r, err := Make(t.Context(), s.Inputs)
	if err != nil || r.SheetCount() != 30 {
		t.Errorf("taken, it makes %d sheets, %v", r.SheetCount(), err)
	}
	// Half an inch more is more than a size gives.
	in.Size["width"] = 4 * measure.Inch
	for _, s := range Savings(t.Context(), in) {
		if s.Key == "size.width" {
			t.Errorf("%v less is offered", s.From-s.To)
		}
	}
}

// What things need gives only the room to spare around them.
func TestThingsThemselvesDoNotGive(t *testing.T) {
	t.Parallel()
	in := New("Jars", measure.MM, "tray")
	in.Things = []contents.Thing{{Name: "Jar", Shape: contents.Round, Length: 48 * measure.Millimetre, Width: 48 * measure.Millimetre,
		Height: 62 * measure.Millimetre, Count: 4, Ease: contents.UsualEase}}
	in.Copies = 12
	for _, s := range Savings(t.Context(), in) {
		if strings.HasPrefix(s.Key, "size.") && (s.Key == "size.length" || s.Key == "size.width" || s.Key == "size.height") {
			t.Errorf("%s is offered, which the jars need", s.Key)
		}
	}
}

// On a board of the other unit the sizes go to its marks, and every number that
// changes is told.
func TestOnABoardOfTheOtherUnit(t *testing.T) {
	t.Parallel()
	in := New("Dice", measure.In, "tray-lid")
	in.Size["length"], in.Size["width"], in.Size["height"] = 4*measure.Inch, 3*measure.Inch, measure.Inch
	in.SetUnits(measure.CM)
	before, err := Sketch(in)
	if err != nil {
		t.Fatal(err)
	}
	inches := New("Dice", measure.In, "tray-lid")
	inches.Size = in.Size
	same, err := Sketch(inches)
	if err != nil || same.Parts[0].Pattern.Width != before.Parts[0].Pattern.Width || same.Parts[1].Pattern.Width != before.Parts[1].Pattern.Width {
		t.Error("another unit alone changes the box")
	}
	b, err := OnBoard(t.Context(), in, measure.CM.Tick())
	if err != nil {
		t.Fatal(err)
	}
	if got := b.Inputs.Size["length"]; got != 102*measure.Millimetre {
		t.Errorf("4 in goes to %v; the nearest millimetre to 101.6 is 102", got)
	}
	if len(b.Changes) < 3 || b.Changes[0].What != "Length" || b.Changes[0].To != "10.2 cm" {
		t.Errorf("it tells %+v", b.Changes)
	}
}

// How a lid gets its gap is offered where it saves sheets.
func TestTheCustomOfTheGapSaves(t *testing.T) {
	t.Parallel()
	in := read(t, `{"brevium":1,"name":"Dice","units":"in","style":"tray-lid","copies":6,"size":{"length":"4 in","width":"3 in","height":"1 1/2 in"},"options":{"lid.depth":"1 in"}}`)
	now := make_(t, in)
	for _, s := range Savings(t.Context(), in) {
		if s.Key != "options.lid.custom" {
			continue
		}
		if made := make_(t, s.Inputs); made.SheetCount() != s.Sheets || s.Sheets >= now.SheetCount() || !strings.Contains(s.Text(), strings.ReplaceAll(s.Choice, "-", " ")) {
			t.Errorf("%q: it takes %d sheets, as it is %d", s.Text(), made.SheetCount(), now.SheetCount())
		}
		return
	}
	t.Errorf("of %d sheets none is saved by another custom", now.SheetCount())
}
