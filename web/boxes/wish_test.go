package boxes_test

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/web/webtest"
)

// Whatever is typed a box is drawn, what was changed is said in a line, other boxes are links, and
// the one that is drawn is the one that is made.
func TestWhateverIsTypedABoxIsDrawn(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	wish := url.Values{"start": {"things"}, "contents[0].name": {"Bottle"}, "contents[0].shape": {"round"}, "contents[0].length": {"75 mm"}, "contents[0].height": {"280 mm"}, "contents[0].count": {"1"}, "cut": {"A3"}}
	_, page, _ := x.Get("/new?" + wish.Encode())
	if !strings.Contains(page, "This is a tall box. A3 is too small for this: drawn on B3.") || !strings.Contains(page, "Or one of these") {
		t.Errorf("nothing says what was changed: %s", page[strings.Index(page, "preview-says"):][:600])
	}
	start := strings.Index(page, `<nav class="others"`)
	link := page[start:]
	link = strings.ReplaceAll(link[strings.Index(link, `href="`)+6:], "&amp;", "&")
	link = strings.ReplaceAll(link[:strings.Index(link, `"`)], "&#43;", "+")
	code, other, _ := x.Get(link)
	if code != http.StatusOK || strings.Contains(other, "This is a tall box") || !strings.Contains(other, `<div class="one"><svg`) {
		t.Errorf("the first of the others opens %d", code)
	}
	var pairs []string
	for name, v := range wish {
		pairs = append(pairs, name, v[0])
	}
	if code, _, _ := x.Post("/new", pairs...); code >= 400 {
		t.Fatalf("it cannot be made: %d", code)
	}
	if in := x.Box(1).Inputs; in.Style != "tall-box" || len(in.Sheets) != 2 || in.Sheets[1].Name != "B3" {
		t.Errorf("what was made is %s on %v", in.Style, in.Sheets)
	}
	for _, typed := range []url.Values{
		{"start": {"things"}, "contents[0].shape": {"block"}, "contents[0].length": {"400 mm"}, "contents[0].width": {"400 mm"}, "contents[0].height": {"400 mm"}, "contents[0].count": {"60"}},
		{"start": {"size"}, "style": {"wallet-box"}, "was": {"wallet-box"}, "size.length": {"20"}, "size.back": {"5"}},
		{"start": {"size"}, "style": {"tray-lid"}, "was": {"tray-lid"}, "size.length": {"30"}, "size.width": {"20"}, "size.height": {"9"}, "cut": {"A5"}},
	} {
		if _, page, _ := x.Get("/new?" + typed.Encode()); !strings.Contains(page, `<div class="one"><svg`) || !strings.Contains(page, `class="finding warn"`) {
			t.Errorf("of %v nothing is drawn", typed)
		}
	}
}

// A new box is cut from a sheet of any size that is typed, or from one of the drawer, whose card
// it has; a side that is no length is said at its field.
func TestANewBoxIsCutFromWhatThereIs(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.Lot(3, 14*measure.Inch, 10*measure.Inch, false)
	form := []string{"start", "size", "style", "tray", "was", "tray", "size.length", "4", "size.width", "3", "size.height", "1", "cut"}
	_, page, _ := x.Get("/new?start=size&cut=own")
	for _, want := range []string{"in the drawer: ", `name="cut.width"`, `name="cut.height"`} {
		if !strings.Contains(page, want) {
			t.Errorf("the page has no %s", want)
		}
	}
	if code, body, _ := x.Post("/new", append(form, "own", "cut.width", "9 1/2", "cut.height", "13")...); code != http.StatusNoContent {
		t.Fatalf("%d: %.300s", code, body)
	}
	if s := x.Box(1).Inputs.Sheets; len(s) != 1 || s[0].Width != 19*measure.Inch/2 || s[0].Name != "9 1/2 × 13 in" {
		t.Errorf("cut from %+v", s)
	}
	lots, err := x.Store.Of(t.Context()).Lots(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	if code, _, _ := x.Post("/new", append(form, fmt.Sprint("lot.", lots[0].ID))...); code != http.StatusNoContent {
		t.Fatal(code)
	}
	if in := x.Box(2).Inputs; in.Card.Key() != lots[0].Card.Key() || in.Sheets[0].Width != 14*measure.Inch {
		t.Errorf("cut from %+v of %s", in.Sheets, in.Card.Name)
	}
	if code, body, _ := x.Post("/new", append(form, "own", "cut.width", "wide", "cut.height", "13")...); code != http.StatusUnprocessableEntity || !strings.Contains(body, `id="f-cut-width-fault"`) {
		t.Errorf("%d, not said at the field", code)
	}
}

// For a box that is there dividers or a floor with holes are made, from its measured inside.
func TestForABoxThatIsThere(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	_, page, _ := x.Get("/new?start=have")
	for want, there := range map[string]bool{`id="kind-divider-grid"`: true, `id="kind-insert"`: true, `id="kind-tray-lid"`: false, "Measure its clear inside": true, `name="size.basis"`: false} {
		if strings.Contains(page, want) != there {
			t.Errorf("%s on the page: %v", want, !there)
		}
	}
	if code, body, _ := x.Post("/new", "start", "have", "style", "insert", "was", "insert", "size.length", "5 1/4", "size.width", "4", "size.height", "1", "name", "Tin"); code != http.StatusNoContent {
		t.Fatalf("%d: %.300s", code, body)
	}
	if in := x.Box(1).Inputs; in.Style != "insert" || in.Size["length"] != 21*measure.Inch/4 || in.Name != "Tin" {
		t.Errorf("kept %s %v", in.Style, in.Size)
	}
	if told := x.Words("/boxes/1/making"); !strings.Contains(told, "Cut the ") {
		t.Errorf("it is not told: %.300s", told)
	}
	if code, _, _ := x.Get("/new?start=have&style=tray-lid"); code != http.StatusOK { // what is no fitting gives way
		t.Error(code)
	}
}

// Fields begin empty, with an example beside them and drawn; one size typed takes the place of the
// example's, and a box is not made while another is missing.
func TestFieldsBeginEmptyWithAnExample(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	_, body, _ := x.Get("/new")
	for _, part := range []string{"name", "length", "height", "count"} {
		if !strings.Contains(body, fmt.Sprintf(`name="contents[0].%s" value=""`, part)) {
			t.Errorf("the field %s does not begin empty", part)
		}
	}
	for _, want := range []string{"An example, until you type yours: 4 × jar.", "such as 2 1/2", "Base with a lift-off lid, cut from"} {
		if !strings.Contains(x.Words("/new"), want) {
			t.Errorf("nothing says %q", want)
		}
	}
	blank := []string{"start", "things", "contents[0].name", "", "contents[0].shape", "round", "contents[0].length", "3", "contents[0].height", "", "contents[0].count", ""}
	if code, body, _ := x.Post("/new", blank...); code != http.StatusUnprocessableEntity || !strings.Contains(body, "type this size as you measured it") {
		t.Errorf("a box without a height gives %d", code)
	}
	if names, _ := x.Listed("/"); len(names) != 0 {
		t.Errorf("%q are kept", names)
	}
	blank[9] = "2"
	if code, _, _ := x.Post("/new", blank...); code >= 400 {
		t.Fatalf("with both sizes it gives %d", code)
	}
	if in := x.Box(1).Inputs; in.Things[0].Count != 1 || in.Things[0].Name != "Thing" || in.Things[0].Length != 3*measure.Inch {
		t.Errorf("it is made for %+v", in.Things)
	}
}
