package reader_test

import (
	"net/http"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/web/webtest"
)

// A recipe is pasted, what is odd in it is marked where it stands, and the box is made
// of it; one of no known style says what is otherwise and makes nothing; what could be
// run by a page is only text.
func TestARecipeBecomesABox(t *testing.T) {
	x := webtest.NewTable(t)
	text := "Base 7 x 6 in, score at 1 1/2 on all four sides.\nLid 6 1/16 x 5 1/16, score 1 all round. Add a zonker <script>alert(1)</script>."
	code, page, _ := x.Post("/read", "text", text)
	if code != http.StatusOK || !strings.Contains(page, "base with a lift-off lid") || !strings.Contains(page, `title="Not understood: press to mend it">zonker`) || strings.Contains(page, "<script>alert") {
		t.Errorf("%d %s", code, page)
	}
	x.Post("/read", "text", text, "make", "1")
	in := x.Box(1).Inputs
	if in.Style != "tray-lid" || in.Size["length"] != 4*measure.Inch || in.Lengths["lid.allowance"] != measure.Inch/16 || in.Recipe != text {
		t.Errorf("the box is %+v", in)
	}
	x.Post("/boxes/1/box", "size.height", "1 3/4")
	if page := x.Words("/boxes/1/recipe"); !strings.Contains(page, "score 1 3/4 instead of 1 1/2") || !strings.Contains(page, "Base 7 1/2 x 6 1/2 in, score at 1 3/4 on all four sides.") {
		t.Errorf("made mine: %s", page)
	}
	if page := x.Words("/boxes/1/making"); !strings.Contains(page, "The recipe it was read from") {
		t.Error("nothing leads to the recipe")
	}
	x.Post("/boxes/1/box", "style", "tray")
	if page := x.Words("/boxes/1/recipe"); !strings.Contains(page, "of another kind than its recipe") {
		t.Errorf("of another kind: %s", page)
	}
	x.Post("/boxes/1/undo")
	// By hand: a base of 7 × 6 in with walls of 1 1/2 in is 10.2 × 7.6 × 3.8 cm, round.
	x.Post("/read", "text", text, "make", "sister")
	if in := x.Box(2).Inputs; in.Units != measure.CM || in.Size["length"] != 102*measure.Millimetre || in.Size["height"] != 38*measure.Millimetre || in.Recipe != text {
		t.Errorf("in the other unit: %v, %v", in.Units, in.Size)
	}
	if code, _, _ := x.Get("/boxes/99/recipe"); code != http.StatusNotFound {
		t.Errorf("no such box: %d", code)
	}
	wrong := "carton 7 x 9 3/4, score 1 1/2 and 5 1/2, turn, 3/4, 3 3/4, 5 and 8 1/4"
	if page := x.Words("/read?text=" + strings.ReplaceAll(strings.ReplaceAll(wrong, " ", "+"), "/", "%2F")); !strings.Contains(page, "the third score down") || strings.Contains(page, "Make this box") {
		t.Errorf("a near miss: %s", page)
	}
	x.Post("/read", "text", "thing 9 x 5 in, score at 2 and 6, turn, 1 and 3", "draw", "0")
	if _, page, _ := x.Get("/styles/table"); !strings.Contains(page, `value="r2c2"`) || !strings.Contains(page, `value="101.6 mm"`) {
		t.Error("the piece is not drawn as a table")
	}
	if code, _, _ := x.Post("/read", "text", "thing 9 x 5 in", "draw", "7"); code != http.StatusUnprocessableEntity {
		t.Errorf("no such piece: %d", code)
	}
	for _, bad := range []string{wrong, "", strings.Repeat("8 x 6 ", 3000)} {
		if code, page, _ := x.Post("/read", "text", bad, "make", "1"); code != http.StatusUnprocessableEntity || !strings.Contains(page, "Not yet") {
			t.Errorf("%.20q: %d", bad, code)
		}
	}
	if boxes, err := x.Store.Of(t.Context()).Boxes(t.Context()); err != nil || len(boxes) != 2 {
		t.Errorf("%d boxes, %v", len(boxes), err)
	}
}

// A text that can be meant two ways offers the other one, drawn; what is pressed says so in the text.
func TestTheOtherReadingIsOffered(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	_, page, _ := x.Post("/read", "text", "tray 8 x 7 in, score 2 and 5, turn, score 2 and 6")
	_, offered, there := strings.Cut(page, "It can also be read another way")
	if !there || !strings.Contains(offered, "Read it with the 7 in side of the tray at the top") || !strings.Contains(offered, "<svg") {
		t.Fatalf("no other reading: %s", page)
	}
	_, text, _ := strings.Cut(offered, `name="text" value="`)
	text, _, _ = strings.Cut(text, `"`)
	if _, page, _ := x.Post("/read", "text", text); !strings.Contains(page, "It is an open tray.") || strings.Contains(page, "another way") {
		t.Errorf("%q: %s", text, page)
	}
}
