package design

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/style"
)

// A double lid that needs 12 1/8 in of a 12 in sheet is offered another way of
// getting its gap, and the box can be made with it.
func TestCuresForALidTooLarge(t *testing.T) {
	t.Parallel()
	in := New("x", measure.In, "tray-lid")
	in.Size["length"], in.Size["width"], in.Size["height"] = 6*measure.Inch, 4*measure.Inch, 3*measure.Inch/2
	in.Lengths["lid.depth"], in.Lengths["lid.allowance"] = 3*measure.Inch/2, measure.Inch/8
	in.Choices["lid.walls"] = "double"
	in.Sheets = in.Sheets[:1]
	if _, err := Sketch(in); err == nil || !strings.Contains(err.Error(), "12 1/8") {
		t.Fatalf("the lid's blank is not refused: %v", err)
	}
	cures := Cures(in)
	if len(cures) == 0 || cures[0].Key != "smaller.lid.custom" || cures[0].Text != "Trim the base instead" {
		t.Fatalf("offered: %+v", cures)
	}
	for _, c := range cures {
		if _, err := Sketch(c.Inputs); err != nil {
			t.Errorf("%s does not help: %v", c.Text, err)
		}
	}
	if in.Choices["lid.custom"] != "" {
		t.Error("the inputs themselves were changed")
	}
}

// A bottle's box as a base with a lid is too high; a style that takes it is
// offered, and a low one is offered its limit.
func TestCuresForATallThing(t *testing.T) {
	t.Parallel()
	in := New("x", measure.In, "tray-lid")
	in.Size["length"], in.Size["width"], in.Size["height"] = 5*measure.Inch/2, 5*measure.Inch/2, 8*measure.Inch
	cures := Cures(in)
	has := func(key string) bool { return slices.ContainsFunc(cures, func(c Cure) bool { return c.Key == key }) }
	if !has("style.tall-box") {
		t.Errorf("offered: %+v", cures)
	}
	in.Size["height"] = 2 * measure.Millimetre
	if cures = Cures(in); !has("limit.height") {
		t.Errorf("offered: %+v", cures)
	}
}

// Another style keeps length, width and height by their meaning; what it does
// not go to is taken to its limit, and said.
func TestCarry(t *testing.T) {
	t.Parallel()
	in := New("x", measure.In, "tray")
	in.Size["length"], in.Size["width"], in.Size["height"] = 9*measure.Inch/2, 13*measure.Inch/4, 3*measure.Inch/4
	now, err := Sketch(in)
	if err != nil {
		t.Fatal(err)
	}
	in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2*measure.Max, 2*measure.Max, measure.Max
	said, err := in.Carry("wallet-box", now)
	if err != nil || len(said) > 0 {
		t.Fatalf("%v, %v", said, err)
	}
	if in.Size["length"] != 9*measure.Inch/2 || in.Size["back"] != 13*measure.Inch/4 || in.Size["depth"] != 3*measure.Inch/4 {
		t.Errorf("a wallet of %v", in.Size)
	}
	if now, err = Sketch(in); err != nil {
		t.Fatal(err)
	}
	if said, err = in.Carry("tall-box", now); err != nil || len(said) == 0 || !strings.Contains(said[0], "the least") && !strings.Contains(said[0], "the most") {
		t.Errorf("to a tube: %v, %v", said, err)
	}
	s, _ := style.ByID("tall-box")
	for _, p := range s.Parameters {
		if v, typed := in.Size[p.ID]; typed && (v < p.Min || v > p.Max) {
			t.Errorf("%s is %v, outside its limits", p.ID, v)
		}
	}
}
