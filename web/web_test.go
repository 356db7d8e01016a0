package web_test

import (
	"bytes"
	"compress/zlib"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"strconv"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/store/storetest"
	"brevium/web/page"
	"brevium/web/webtest"
)

// tableAt is the application on the data of a file.
func tableAt(t testing.TB, file string) *webtest.Table {
	t.Helper()
	return webtest.TableOf(t, storetest.At(t, file))
}

func TestEveryPageAnswers(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	if _, body, _ := x.Get("/"); !strings.Contains(body, "No boxes yet") {
		t.Error("the empty list says nothing useful")
	}
	if _, body, _ := x.Get("/"); strings.Count(body, `<li><figure aria-hidden="true"><svg`) != 12 || !strings.Contains(body, "Fill the base: 4 × Jar") || !strings.Contains(body, "Lower the lid on.") {
		t.Error("the empty list does not show how a box is made, in twelve pictures")
	}
	x.JarBox()
	for path, says := range map[string]string{
		"/": "Jars", "/new": "From what goes in", "/health": "ok", "/boxes/1/contents": "How they stand", "/boxes/1/box": "Base with a lift-off lid",
		"/boxes/1/fit": "gap, both sides together", "/boxes/1/dressing": "Put a paper on the lid", "/boxes/1/sheets": "12 × 12 in",
		"/boxes/1/making": "Instruction sheet", "/boxes/1/plan.json": `"brevium": 1`, "/boxes/1/design.json": `"tray-lid"`,
		"/boxes/1/pieces/lid.svg": `<g id="score"`, "/boxes/1/sheet.pdf": "%PDF-", "/boxes/1/sheet.pdf?paper=letter": "%PDF-",
		"/boxes/1/fold": "One fold after another", "/boxes/1/motion.json": `"stages":["tabs","walls","put together","shut"]`, "/boxes/1/model.obj": "o lid",
		"/static/app.js": "alpine:init", "/static/vendor/LICENSE-htmx.org.txt": "Permission",
	} {
		code, body, header := x.Get(path)
		if code != http.StatusOK || !strings.Contains(body, says) {
			t.Errorf("%s: %d, without %q", path, code, says)
		}
		if csp := header.Get("Content-Security-Policy"); !strings.Contains(csp, "script-src 'self'") || strings.Contains(csp, "unsafe") {
			t.Errorf("%s: content security policy %q", path, csp)
		}
	}
}

func TestWhatIsNotThere(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	for _, path := range []string{"/boxes/9/box", "/boxes/x/box", "/boxes/1/cellar", "/nowhere", "/boxes/1/pieces/roof.svg", "/boxes/99999999999999999999/fit"} {
		code, body, _ := x.Get(path)
		if code != http.StatusNotFound ||
			!strings.Contains(body, "The list shows what there is") && !strings.Contains(body, "the list shows what there is") {
			t.Errorf("%s: %d\n%s", path, code, body)
		}
	}
	if code, _, _ := x.Post("/boxes/9/undo"); code != http.StatusNotFound {
		t.Errorf("undo of no box: %d", code)
	}
}

func TestNewBoxes(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	code, _, header := x.Post("/new", "start", "things", "contents[0].name", "Jar", "contents[0].shape", "round",
		"contents[0].length", "48 mm", "contents[0].height", "62 mm", "contents[0].count", "4")
	if code != http.StatusNoContent || header.Get("HX-Redirect") != "/boxes/1/contents" {
		t.Fatalf("%d, to %q", code, header.Get("HX-Redirect"))
	}
	if b := x.Box(1); b.Name != "Box for 4 × Jar" || b.Inputs.Things[0].Width != 48*measure.Millimetre {
		t.Errorf("made %+v", b)
	}
	_, _, header = x.Post(
		"/new",
		"start",
		"size",
		"name",
		"Dice",
		"size.length",
		"4",
		"size.width",
		"3",
		"size.height",
		"1 1/2",
		"size.basis",
		"scored",
	)
	if header.Get("HX-Redirect") != "/boxes/2/box" || x.Box(2).Inputs.Size["height"] != 3*measure.Inch/2 {
		t.Errorf("to %q, %+v", header.Get("HX-Redirect"), x.Box(2).Inputs.Size)
	}
	code, body, _ := x.Post("/new", "start", "size", "name", "Dice", "size.length", "4//3", "size.width", "3", "size.height", "0")
	if code != http.StatusUnprocessableEntity || !strings.Contains(body, "not a fraction") || !strings.Contains(body, `value="4//3"`) {
		t.Errorf("a bad size: %d", code)
	}
	if all, _ := x.Store.Of(t.Context()).Boxes(t.Context()); len(all) != 2 {
		t.Errorf("%d boxes after a refusal", len(all))
	}
}

// A value that cannot be taken is said at its field; what was typed stays,
// and so do the last good drawing and the stored box.
func TestABrokenValueIsSaidAtItsField(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	before := x.Box(id).Inputs.Write()
	for _, c := range []struct {
		stop, name, value, says string
	}{
		{"box", "options.lid.depth", "3//4", "not a fraction"},
		{"box", "options.lid.depth", "", "missing"},
		{"box", "options.tick", "0", "grooves are"},
		{"box", "card.gsm", "heavy", "not a card weight"},
		{"box", "card.thickness", "9", "0.05 to 3 mm"},
		{"contents", "contents[0].height", "62 miles", "not a length"},
		{"contents", "contents[0].count", "0", "1 to 200"},
		{"contents", "contents[0].count", "some", "not a whole number"},
		{"contents", "contents[0].length", "13 cm", "larger than every sheet"},
		{"contents", "contents[0].grams", "light", "not a weight in grams"},
		{"sheets", "copies", "-1", "1 to 500"},
		{"sheets", "tools.trimmer", "1", "cuts no blank"},
		{"sheets", "choosing-sheets", "1", "at least one kind of sheet"},
	} {
		code, body, _ := x.Post("/boxes/1/"+c.stop, c.name, c.value)
		if code != http.StatusUnprocessableEntity || !strings.Contains(body, c.says) || !strings.Contains(body, "<svg") {
			t.Errorf("%s=%q: %d, with a drawing %v; want a sentence with %q", c.name, c.value, code, strings.Contains(body, "<svg"), c.says)
		}
		if c.value != "" && c.name != "choosing-sheets" && !strings.Contains(body, `value="`+c.value+`"`) {
			t.Errorf("%s: what was typed, %q, is gone", c.name, c.value)
		}
		if string(x.Box(id).Inputs.Write()) != string(before) {
			t.Fatalf("%s=%q was stored", c.name, c.value)
		}
	}
}

func TestMatsThatLeaveNothing(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Post("/boxes/1/dressing", "mats.add", "base")
	code, body, _ := x.Post("/boxes/1/dressing", "mats[0].layers[1].border", "3")
	if code != http.StatusUnprocessableEntity || !strings.Contains(body, `id="f-mats-0-layers-1-border-fault"`) {
		t.Errorf("%d: the fault is not at the second layer's border", code)
	}
}

// Every style can be chosen, sized, fitted, dressed, laid out and printed.
func TestEveryStyleInTheWorkspace(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	for i, s := range style.All {
		in := design.New(s.Name, measure.In, s.ID)
		if _, err := x.Store.Of(t.Context()).Add(t.Context(), in); err != nil {
			t.Fatal(err)
		}
		for _, stop := range webtest.Stops {
			path := fmt.Sprintf("/boxes/%d/%s", i+1, stop)
			if code, body, _ := x.Get(path); code != http.StatusOK || !strings.Contains(body, "<svg") && stop != "fit" {
				t.Errorf("%s at %s: %d", s.ID, stop, code)
			}
		}
		for _, file := range []string{"sheet.pdf", "motion.json", "model.obj", "plan.json", "fold"} {
			if code, body, _ := x.Get(fmt.Sprintf("/boxes/%d/%s", i+1, file)); code != http.StatusOK || strings.Contains(inflated(body), "NaN") {
				t.Errorf("%s: %s answers %d, or has a number that is none", s.ID, file, code)
			}
		}
	}
}

// inflated is a PDF's drawing in plain text, for by chance any three letters stand
// in what is packed; what is no PDF is as it was.
func inflated(body string) string {
	if !strings.HasPrefix(body, "%PDF") {
		return body
	}
	var out strings.Builder
	for _, part := range strings.Split(body, "stream\n")[1:] {
		r, err := zlib.NewReader(strings.NewReader(part))
		if err != nil {
			continue
		}
		text, _ := io.ReadAll(r)
		if bytes.Contains(text, []byte(" l\n")) || bytes.Contains(text, []byte(" Td")) { // a page, not a font
			out.Write(text)
		}
	}
	return out.String()
}

// The whole story of the jars, as forms.
func TestTheJarsStepByStep(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	step := func(stop string, pairs ...string) string {
		t.Helper()
		code, body, _ := x.Post("/boxes/1/"+stop, pairs...)
		if code != http.StatusOK {
			t.Fatalf("%s %v: %d", stop, pairs, code)
		}
		return body
	}
	step("box", "style", "tray")
	step("box", "style", "tray-lid")
	body := step("fit", "allowance", "typed", "options.lid.allowance", "1/16")
	if !strings.Contains(body, `class="answer">snug`) {
		t.Error("a bare lid 1/16 in bigger is not said to be snug")
	}
	body = step("dressing", "mats.add", "base")
	if !strings.Contains(body, `class="warn">!`) || !strings.Contains(body, "</b> tight</span>") {
		t.Error("mats that make the lid tight are not marked")
	}
	body = step("fit", "allowance", "solve")
	if strings.Contains(body, "✕") || x.Box(id).Inputs.Lengths["lid.allowance"] != 0 {
		t.Error("the lid was not worked out")
	}
	body = step("sheets", "copies", "3")
	if !strings.Contains(body, "Patterned paper") {
		t.Error("the sheets leave the paper out")
	}
	if b := x.Box(id); b.Last.What != "copies" {
		t.Errorf("undo would take back %q", b.Last.What)
	}
	if _, body, _ := x.Post("/boxes/1/undo", "stop", "sheets", "change", page.Itoa(x.Box(id).Last.ID)); !strings.Contains(body, `name="copies" value="1"`) {
		t.Error("undo did not take the copies back")
	}
}

// The contents can be added to, taken from, stood otherwise, and given up for
// the size they led to.
func TestContentsComeAndGo(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	x.Post("/boxes/1/contents", "add", "1")
	b := x.Box(id)
	if len(b.Inputs.Things) != 2 {
		t.Fatalf("%d things after adding one", len(b.Inputs.Things))
	}
	x.Post(
		"/boxes/1/contents",
		"contents[1].name",
		"Deck",
		"contents[1].length",
		"2 1/2",
		"contents[1].width",
		"1",
		"contents[1].height",
		"2",
		"contents[1].count",
		"1",
	)
	if got := x.Box(id).Inputs.Things[1]; got.Name != "Deck" || got.Length != 5*measure.Inch/2 || got.Width != measure.Inch {
		t.Errorf("the deck is %+v", got)
	}
	x.Post("/boxes/1/contents", "remove", strconv.Itoa(x.Box(id).Inputs.Things[1].ID))
	x.Post("/boxes/1/contents", "stand", "1x4x1")
	if code, body, _ := x.Get(
		"/boxes/1/contents",
	); code != http.StatusOK || x.Box(id).Inputs.Stand != "" ||
		strings.Contains(body, "Choose what takes least card") {
		t.Error("an arrangement too long for the sheets was kept")
	}
	x.Post("/boxes/1/contents", "contents[0].count", "2", "stand", "best")
	x.Post("/boxes/1/contents", "stand", "1x2x1")
	if got := x.Box(id).Inputs.Stand; got != "1x2x1" {
		t.Errorf("the jars stand %q", got)
	}
	before, err := design.Make(t.Context(), x.Box(id).Inputs)
	if err != nil {
		t.Fatal(err)
	}
	x.Post("/boxes/1/contents", "start", "size")
	after, err := design.Make(t.Context(), x.Box(id).Inputs)
	if err != nil || len(after.Inputs.Things) != 0 || after.Inside != before.Inside {
		t.Errorf("without its contents the box is %v inside; it was %v (%v)", after.Inside, before.Inside, err)
	}
	x.Post("/boxes/1/contents", "start", "things")
	if got := x.Box(id).Inputs; len(got.Things) != 1 || len(got.Size) != 0 {
		t.Errorf("starting from things again: %+v", got)
	}
}

// A page works without a script: a plain form is answered by a redirect.
func TestPlainForms(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	for _, c := range [][2]string{
		{"/boxes/1/box", "options.lid.depth=1+1%2F8"}, {"/boxes/1/undo", "stop=fit&change=1"}, {"/boxes/1/units", "units=mm&stop=box"},
		{"/boxes/1/rename", "name=Jars+again&stop=making"}, {"/boxes/1/copy", ""}, {"/units", "units=cm&stop=new"},
	} {
		path, form := c[0], c[1]
		q := httptest.NewRequest(http.MethodPost, path, strings.NewReader(form))
		q.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r := httptest.NewRecorder()
		x.HTTP.ServeHTTP(r, q)
		if r.Code != http.StatusSeeOther || r.Header().Get("Location") == "" {
			t.Errorf("%s: %d to %q", path, r.Code, r.Header().Get("Location"))
		}
	}
	if code, _, h := x.Get("/boxes/1"); code != http.StatusSeeOther || h.Get("Location") != "/boxes/1/contents" {
		t.Errorf("a box's bare address: %d to %q", code, h.Get("Location"))
	}
}

func TestUnitsEverywhere(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	_, body, header := x.Post("/boxes/1/units", "units", "cm", "stop", "making")
	if !strings.Contains(body, `<b class="numbers">6.51</b>`) || !strings.Contains(header.Get("Set-Cookie"), "units=cm") {
		t.Error("the scores are not shown in centimetres")
	}
	if b := x.Box(id); b.Inputs.Units != measure.CM || b.Inputs.Tools.Tick != measure.In.Tick() {
		t.Errorf("units %s, tick %v", b.Inputs.Units, b.Inputs.Tools.Tick)
	}
	q := httptest.NewRequest(http.MethodGet, "/", nil)
	q.AddCookie(&http.Cookie{Name: "units", Value: "mm"})
	r := httptest.NewRecorder()
	x.HTTP.ServeHTTP(r, q)
	if !strings.Contains(r.Body.String(), " cm inside") {
		t.Error("the list does not tell the box in its own unit")
	}
	if code, _, _ := x.Post("/units", "units", "ell"); code != http.StatusUnprocessableEntity {
		t.Errorf("an unknown unit: %d", code)
	}
}

func TestTicksAreKeptUntilTheNumbersChange(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	b := x.Box(1)
	r, err := design.Make(t.Context(), b.Inputs)
	if err != nil {
		t.Fatal(err)
	}
	s := r.Steps[0]
	_, body, _ := x.Post("/boxes/1/tick", "stop", "making", "step", s.Key, "mark", s.Mark, "done", "1")
	if !strings.Contains(body, "1 of ") {
		t.Error("the tick does not count")
	}
	if _, body, _ := x.Get("/boxes/1/making"); !strings.Contains(body, `id="step-1" name="done" value="1" checked`) {
		t.Error("the tick is gone after a reload")
	}
	x.Post("/boxes/1/contents", "contents[0].length", "50 mm")
	if _, body, _ := x.Get("/boxes/1/making"); !strings.Contains(body, "Ticked before this changed") || !strings.Contains(body, "0 of ") {
		t.Error("a tick put against other numbers still counts")
	}
	if code, _, _ := x.Post("/boxes/1/tick", "mark", "x"); code != http.StatusUnprocessableEntity {
		t.Errorf("a tick for no step: %d", code)
	}
}

func TestCopyRenameDeleteRestore(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.Post("/boxes/1/copy")
	x.Post("/boxes/2/rename", "name", "Second jars")
	if got := x.Box(2).Name; got != "Second jars" {
		t.Errorf("renamed to %q", got)
	}
	if code, _, _ := x.Post("/boxes/2/rename", "name", "  "); code != http.StatusUnprocessableEntity || x.Box(2).Name != "Second jars" {
		t.Errorf("an empty name: %d", code)
	}
	_, _, header := x.Post("/boxes/2/delete")
	if _, body, _ := x.Get(header.Get("HX-Redirect")); strings.Contains(body, "Second jars") || !strings.Contains(body, "bring it back") {
		t.Error("deleted, the list offers no undo")
	}
	x.Post("/bin/box/2/back")
	if _, body, _ := x.Get("/"); !strings.Contains(body, "Second jars") {
		t.Error("undo did not bring it back")
	}
}

func TestFormsFromElsewhereAreRefused(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	q := httptest.NewRequest(http.MethodPost, "/boxes/1/delete", nil)
	q.Header.Set("Sec-Fetch-Site", "cross-site")
	r := httptest.NewRecorder()
	x.HTTP.ServeHTTP(r, q)
	if r.Code != http.StatusForbidden {
		t.Errorf("a form from another site: %d", r.Code)
	}
	big := httptest.NewRequest(http.MethodPost, "/boxes/1/box", strings.NewReader("name="+strings.Repeat("x", 5<<20)))
	big.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r = httptest.NewRecorder()
	x.HTTP.ServeHTTP(r, big)
	if r.Code != http.StatusRequestEntityTooLarge {
		t.Errorf("five MiB: %d", r.Code)
	}
	x.Box(1)
}

// BenchmarkChange is what a maker waits for when a value changes: the form
// read, the design worked out and kept, the page drawn.
func BenchmarkChange(b *testing.B) {
	for _, stop := range []string{"contents", "box", "dressing", "sheets"} {
		b.Run(stop, func(b *testing.B) {
			x := webtest.NewTable(b)
			x.JarBox()
			x.Post("/boxes/1/dressing", "mats.add", "base")
			x.Post("/boxes/1/sheets", "copies", "12")
			for n := 0; b.Loop(); n++ {
				depth := []string{"1", "1 1/16"}[n%2]
				name, value := "options.lid.depth", depth
				switch stop {
				case "contents":
					name, value = "contents[0].height", []string{"62 mm", "61 mm"}[n%2]
				case "dressing":
					name, value = "mats[0].layers[0].border", []string{"1/16", "1/8"}[n%2]
				case "sheets":
					name, value = "copies", []string{"12", "11"}[n%2]
				}
				if code, _, _ := x.Post("/boxes/1/"+stop, name, value); code != http.StatusOK {
					b.Fatal(code)
				}
			}
		})
	}
}
