package workspace_test

import (
	"bytes"
	"fmt"
	"mime/multipart"
	"net/http"
	"net/http/httptest"
	"regexp"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/web/webtest"
)

// A box that cannot be drawn any more still shows every stop, with the reason.
func TestABoxThatCannotBeDrawnKeepsItsPages(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in, err := design.Read(
		[]byte(`{"brevium":1,"name":"too large","units":"in","style":"tray","size":{"length":"11 in","width":"11 in","height":"2 in"}}`),
	)
	if err != nil {
		t.Fatal(err)
	}
	n, err := x.Store.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	for _, s := range webtest.Stops {
		code, body, _ := x.Get(fmt.Sprintf("/boxes/%d/%s", n, s))
		if code != 200 || !strings.Contains(body, "larger than every sheet") {
			t.Errorf("%s: %d", s, code)
		}
	}
}

func TestQuestionsAnswer(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	for path, says := range map[string]string{
		"/boxes/1/compare":                        "Open tray",
		"/boxes/1/biggest":                        "between folds",
		"/boxes/1/biggest?keep=copies":            "from one sheet",
		"/boxes/1/holds":                          "It holds",
		"/caliper?of=48":                          " mm",
		"/boxes/1/biggest?keep=fixed&fix.height=": "between folds",
	} {
		if code, body, _ := x.Get(path); code != http.StatusOK || !strings.Contains(body, says) {
			t.Errorf("%s: %d, without %q", path, code, says)
		}
	}
	for path, says := range map[string]string{
		"/boxes/1/biggest?sheet=own&sheet.width=":       "Not yet",
		"/boxes/1/biggest?sheet.width=1&sheet.height=1": "gives no",
		"/boxes/1/holds?contents%5B0%5D.height=x":       "Not yet",
		"/boxes/1/biggest?keep=fixed&fix.height=tall":   "Not yet",
		"/boxes/1/holds?contents%5B0%5D.more=1":         "at least one side",
		"/caliper?of=wide":                              "wide",
	} {
		if code, body, _ := x.Get(path); code != http.StatusUnprocessableEntity || !strings.Contains(body, says) {
			t.Errorf("%s: %d, without %q", path, code, says)
		}
	}
}

func TestTheBiggestIsTaken(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	n := x.JarBox()
	if code, body, _ := x.Post("/boxes/1/biggest", "length", "76.2", "width", "63.5", "height", "50.8"); code != http.StatusNoContent {
		t.Fatalf("%d: %s", code, body)
	}
	in := x.Box(n).Inputs
	if len(in.Things) != 0 || in.Size["length"] != 3*measure.Inch {
		t.Errorf("the box is %v of %v", in.Size, in.Things)
	}
	// What is chosen for it is taken with it, and nothing that its kind does not have.
	taken := []string{"length", "76.2", "width", "63.5", "height", "50.8"}
	if code, _, _ := x.Post("/boxes/1/biggest", append(taken, "choose", "lid.depth=12.7", "choose", "lid.custom=shim")...); code != http.StatusNoContent || x.Box(n).Inputs.Choices["lid.custom"] != "shim" || x.Box(n).Inputs.Lengths["lid.depth"] != measure.Inch/2 {
		t.Errorf("%d: the options chosen for it are not taken: %v %v", code, x.Box(n).Inputs.Choices, x.Box(n).Inputs.Lengths)
	}
	for _, wrong := range []string{"foo=bar", "lid.custom=zonk", "lid.depth=zonk", "lid.depth=900", "=3"} {
		if code, _, _ := x.Post("/boxes/1/biggest", append(taken, "choose", wrong)...); code != http.StatusUnprocessableEntity || x.Box(n).Inputs.Choices["lid.custom"] != "shim" {
			t.Errorf("%s is taken: %d", wrong, code)
		}
	}
	if code, _, _ := x.Post("/boxes/1/biggest", "length", "0"); code != http.StatusUnprocessableEntity {
		t.Errorf("a box of no length: %d", code)
	}
}

// A size filled in is fixed even when the choice above it was left alone, and
// the answer says what every style gives only when none is.
func TestTheBiggestAsAsked(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	_, plain, _ := x.Get("/boxes/1/biggest")
	if !strings.Contains(plain, "The same sheet in every style") || strings.Count(plain, "cm³") < 5 {
		t.Error("the styles are not put side by side")
	}
	_, chosen, _ := x.Get("/boxes/1/biggest?keep=fixed&fix.height=2")
	_, left, _ := x.Get("/boxes/1/biggest?keep=proportions&fix.height=2")
	// A search that a busy machine ends early may know less, and never another height.
	high := regexp.MustCompile(`class="big numbers">.* × 2 in<`)
	if !high.MatchString(left) || !high.MatchString(chosen) || strings.Contains(left, "in every style") {
		t.Error("a height that was filled in is not kept")
	}
	_, tray, _ := x.Get("/boxes/1/biggest?style=tray&fix.height=2")
	if !strings.Contains(tray, `class="big numbers">8 × 8 × 2 in`) {
		t.Error("a tray with walls of 2 in is not 8 in square")
	}
	x.Post("/boxes/1/biggest", "style", "tray", "length", "203.2", "width", "203.2", "height", "50.8")
	if in := x.Box(1).Inputs; in.Style != "tray" || in.Size["length"] != 8*measure.Inch {
		t.Errorf("the box is a %s of %v", in.Style, in.Size)
	}
}

// What the drawer can make is taken with its card.
func TestABoxFromTheDrawer(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	if _, body, _ := x.Get("/boxes/1/compare?from=drawer"); !strings.Contains(body, "Nothing in the drawer is large enough") {
		t.Error("an empty drawer says nothing")
	}
	x.Post("/drawer", "card", "Oat card", "gsm", "270", "direction", "two-ways", "sheet", "12 × 12 in", "count", "2", "price", "0.8")
	_, body, _ := x.Get("/boxes/1/compare?from=drawer")
	for _, says := range []string{"Open tray", "<td>Oat card</td>", `name="card.gsm" value="270"`, "Only what the sheets in the drawer give"} {
		if !strings.Contains(body, says) {
			t.Errorf("the comparison does not say %q", says)
		}
	}
	x.Post(
		"/boxes/1/box",
		"style",
		"tray",
		"from",
		"drawer",
		"card.name",
		"Oat card",
		"card.gsm",
		"270",
		"card.thickness",
		"0.3375 mm",
		"card.direction",
		"two-ways",
	)
	in := x.Box(1).Inputs
	if c := in.Card; in.Style != "tray" || c.Name != "Oat card" || c.GSM != 270 || c.Thickness != 337500 || c.Direction != "two-ways" {
		t.Errorf("the box is a %s of %+v", in.Style, c)
	}
	// Another style alone leaves the card as it is.
	x.Post("/boxes/1/box", "style", "tray-lid", "card.name", "Plain card")
	if c := x.Box(1).Inputs.Card; c.Name != "Oat card" {
		t.Errorf("the card became %+v", c)
	}
}

// The unit switch comes back to the page it stands on, and to none elsewhere.
func TestUnitsComeBackToTheirPage(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	for to, want := range map[string]string{
		"/drawer": "/drawer", "/jobs": "/jobs", "/jobs/3": "/jobs/3", "": "/", "https://elsewhere": "/", "//elsewhere": "/", "/%2f/elsewhere": "/",
	} {
		if _, _, header := x.Post("/units", "units", "cm", "to", to); header.Get("HX-Redirect") != want {
			t.Errorf("from %q to %q; want %q", to, header.Get("HX-Redirect"), want)
		}
	}
	for _, page := range []string{"/drawer", "/jobs"} {
		if _, body, _ := x.Get(page); !strings.Contains(body, `name="to" value="`+page+`"`) {
			t.Errorf("%s does not say where to come back to", page)
		}
	}
}

func TestCellsAndLinings(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	n := x.JarBox()
	code, body, _ := x.Post("/boxes/1/contents", "compartments.per", "thing", "choosing-linings", "1", "linings", "stiffener")
	if code != http.StatusOK || !strings.Contains(body, "What goes where") || !strings.Contains(body, "dividers between them") {
		t.Fatalf("%d without its cells", code)
	}
	in := x.Box(n).Inputs
	if in.Compartments.Per != contents.PerThing || in.Compartments.As != design.AsDividers || len(in.Linings) != 1 {
		t.Errorf("kept %+v, %v", in.Compartments, in.Linings)
	}
	x.Post("/boxes/1/contents", "compartments.per", "")
	if in := x.Box(n).Inputs; in.Compartments != (design.Compartments{}) {
		t.Errorf("cells are still there: %+v", in.Compartments)
	}
	for _, bad := range []struct{ field, value, says string }{
		{"contents[0].squeeze", "-3", "pressed by 0 to"},
		{"contents[0].more", "1", "at least one side"},
		{"contents[0].count", "0", "a box holds 1 to"},
		{"contents[0].height", "90 cm", "it can be"},
		{"contents[0].cards", "some", "whole number"},
	} {
		code, body, _ := x.Post("/boxes/1/contents", bad.field, bad.value)
		if code != http.StatusUnprocessableEntity || !strings.Contains(body, bad.says) {
			t.Errorf("%s = %q: %d, without %q", bad.field, bad.value, code, bad.says)
		}
	}
}

func TestThingsAreKeptAndBroughtIn(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	n := x.JarBox()
	x.Post("/boxes/1/things/keep")
	if _, body, _ := x.Get("/boxes/1/contents"); !strings.Contains(body, "<span>Jar</span>") {
		t.Error("the jar is not among the kept things")
	}
	x.Post("/boxes/1/things/add", "thing", "2")
	if in := x.Box(n).Inputs; len(in.Things) != 2 || in.Things[1].Name != "LED tea-light" {
		t.Errorf("the box holds %+v", in.Things)
	}
	x.Post("/boxes/1/things/add", "thing", "2", "forget", "1")
	if code, _, _ := x.Post("/boxes/1/things/add", "thing", "2"); code != http.StatusUnprocessableEntity {
		t.Errorf("a forgotten thing: %d", code)
	}
	code, body, _ := x.Post("/boxes/1/things/import", "list", "name,across,height,count\npot,3 cm,4 cm,2\ncup,wide,4 cm,1\n")
	if code != http.StatusUnprocessableEntity || !strings.Contains(body, "row 2.across") || len(x.Box(n).Inputs.Things) != 2 {
		t.Errorf("a list with a bad row: %d", code)
	}
	x.Post("/boxes/1/things/import", "list", "name,across,height,count\npot,3 cm,4 cm,2\n")
	if in := x.Box(n).Inputs; len(in.Things) != 3 || in.Things[2].Count != 2 {
		t.Errorf("after the list the box holds %+v", in.Things)
	}
}

func TestAListComesFromAFile(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	n := x.JarBox()
	var b bytes.Buffer
	w := multipart.NewWriter(&b)
	part, err := w.CreateFormFile("file", "things.json")
	if err != nil {
		t.Fatal(err)
	}
	fmt.Fprint(part, `[{"name":"spool","across":"3 cm","height":"4 cm"}]`)
	w.Close()
	q := httptest.NewRequest(http.MethodPost, "/boxes/1/things/import", &b)
	q.Header.Set("Content-Type", w.FormDataContentType())
	r := httptest.NewRecorder()
	x.HTTP.ServeHTTP(r, q)
	if in := x.Box(n).Inputs; r.Code != http.StatusSeeOther || len(in.Things) != 2 || in.Things[1].Name != "spool" {
		t.Errorf("%d: the box holds %+v", r.Code, in.Things)
	}
}
