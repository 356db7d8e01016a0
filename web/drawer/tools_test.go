package drawer_test

import (
	"archive/zip"
	"io"
	"net/http"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/tool"
	"brevium/web/webtest"
)

// A maker lists the tools once: new boxes are made for them, one that is there by a press; what
// is no tool is said at its list, and the list stays as it was.
func TestAListOfTools(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	old := x.JarBox()
	if code, page, _ := x.Post("/drawer/tools", "tools.trimmer", "15", "tools.fence", "right", "tools.punches", "1/8; 1/4 reach 1", "tools.rounders", "3/8",
		"tools.dies", "2 x 2; 3 × 1 1/2", "tools.circles.from", "1", "tools.circles.to", "6"); code >= 400 {
		t.Fatalf("%d: %.500s", code, page)
	}
	const inch = measure.Inch
	want := tool.Owned{Punches: []tool.Punch{{Across: inch / 8}, {Across: inch / 4, Reach: inch}}, Rounders: []measure.Length{inch * 3 / 8},
		Dies: []tool.Die{{Width: 2 * inch, Height: 2 * inch}, {Width: 3 * inch, Height: inch * 3 / 2}}, Circles: tool.Circles{From: inch, To: 6 * inch}}
	has := func(id int64, tells string) {
		t.Helper()
		in := x.Box(id).Inputs
		kept := in.Tools
		kept.Owned = want
		if in.Tools.Trimmer != 15*inch || in.Tools.Fence != "right" || !in.Tools.Same(kept) {
			t.Errorf("%s has %+v", tells, in.Tools)
		}
	}
	_, _, sent := x.Post("/new", "start", "size", "style", "tray", "size.length", "4", "size.width", "3", "size.height", "1")
	if !strings.HasPrefix(sent.Get("HX-Redirect"), "/boxes/2/") {
		t.Fatalf("no new box: %v", sent)
	}
	has(2, "a new box")
	_, page, _ := x.Get("/boxes/1/sheets")
	_, rest, offered := strings.Cut(page, `name="tools.listed" value="`)
	if !offered {
		t.Fatal("an older box is not offered the tools")
	}
	value, _, _ := strings.Cut(rest, `"`)
	x.Post("/boxes/1/sheets", "tools.listed", strings.ReplaceAll(value, "&#34;", `"`))
	has(old, "the older box")
	if _, page, _ := x.Get("/boxes/1/sheets"); strings.Contains(page, `name="tools.listed"`) {
		t.Error("it is offered them again")
	}
	for field, typed := range map[string]string{"tools.punches": "1/8; 1/4 reach", "tools.dies": "2", "tools.rounders": "9", "tools.circles.to": "1/2", "tools.trimmer": "1", "tools.fence": "above"} {
		code, page, _ := x.Post("/drawer/tools", field, typed)
		if code != http.StatusUnprocessableEntity || !strings.Contains(page, `class="fault"`) {
			t.Errorf("%s of %q: %d", field, typed, code)
		}
	}
	_, page, _ = x.Get("/drawer/tools")
	for _, shown := range []string{`value="1/8; 1/4 reach 1"`, `value="2 × 2; 3 × 1 1/2"`, `value="3/8"`} {
		if !strings.Contains(page, shown) {
			t.Errorf("the list no longer shows %s", shown)
		}
	}
	if code, _, _ := x.Post("/boxes/1/sheets", "tools.listed", "{"); code != http.StatusUnprocessableEntity {
		t.Errorf("a list that cannot be read: %d", code)
	}
}

// A cutting machine is listed with its mat and its blade, which the mat's page of every box then has;
// one that nobody makes is refused at its field.
func TestACuttingMachine(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	if code, page, _ := x.Post("/drawer/tools", "tools.machine", "12x24", "tools.machine.blade", "0.3 mm", "tools.machine.overcut", "1 mm", "tools.machine.force", "150", "tools.machine.margin", "3 mm", "tools.machine.score", "90"); code >= 400 {
		t.Fatalf("%d: %.500s", code, page)
	}
	_, page, _ := x.Get("/drawer/tools")
	for _, shown := range []string{`value="12 × 24 in"`, `value="3 mm"`, `value="90"`, `value="0.3 mm"`, `value="1 mm"`, `value="150"`} {
		if !strings.Contains(page, shown) {
			t.Errorf("the list does not show %s", shown)
		}
	}
	if words := x.Words("/boxes/1/cutting"); !strings.Contains(words, "came off in") {
		t.Error("it is not cut")
	}
	if _, page, _ = x.Get("/boxes/1/cutting"); !strings.Contains(page, `aria-current="true">12 × 24 in`) {
		t.Error("it is not cut on the maker's own mat")
	}
	for field, typed := range map[string]string{"tools.machine": "a0", "tools.machine.blade": "9 mm", "tools.machine.overcut": "x", "tools.machine.force": "3", "tools.machine.margin": "30 mm", "tools.machine.score": "x"} {
		code, page, _ := x.Post("/drawer/tools", field, typed)
		if code != http.StatusUnprocessableEntity || !strings.Contains(page, `class="fault"`) {
			t.Errorf("%s of %q: %d", field, typed, code)
		}
	}
	// Several mats, in any unit; scores on the board are none of the machine's strokes.
	x.Post("/drawer/tools", "tools.machine", "a4; 9 × 12; 228 x 400 mm", "tools.machine.scores", "board")
	if _, page, _ = x.Get("/drawer/tools"); !strings.Contains(page, `value="A4; 228.6 × 304.8 mm; 228 × 400 mm"`) || !strings.Contains(page, `value="board" selected`) {
		t.Error("the mats are others")
	}
	if _, page, _ = x.Get("/boxes/1/cutting?mat=12x24"); !strings.Contains(page, "came off in") || strings.Contains(page, `data-of="a score"`) {
		t.Error("the machine scores")
	}
	files := func(query string) string {
		_, body, _ := x.Get("/boxes/1/export?packed=1&mine=1&to=hpgl" + query)
		return unpacked(t, body)
	}
	if got := files(""); strings.Contains(got, "SP1;") || !strings.Contains(got, "SP4;") {
		t.Error("its file scores, or does not cut")
	}
	// As perforations they are cut by it, and its file says its own blade's way.
	x.Post("/drawer/tools", "tools.machine", "12 × 24 in", "tools.machine.scores", "perforated", "tools.machine.blade", "0.4 mm")
	if _, page, _ = x.Get("/boxes/1/cutting"); !strings.Contains(page, `data-of="a perforation"`) || strings.Contains(page, "not as planned") || !strings.Contains(page, "trails by 0.4 mm") {
		t.Error("the machine does not perforate, or its blade is another")
	}
	tip, head := files(""), files("&blade=1")
	if !strings.Contains(tip, "SP2;") || strings.Contains(tip, "SP1;") || head == tip || len(head) < len(tip) {
		t.Error("its files are others")
	}
	x.Post("/drawer/tools", "tools.machine", "")
	if _, page, _ = x.Get("/boxes/1/cutting"); !strings.Contains(page, `aria-current="true">12 × 12 in`) {
		t.Error("without a machine it is not cut on the smallest mat that does")
	}
}

// unpacked is a file as it is, or those of a zip one after the other.
func unpacked(t *testing.T, body string) string {
	t.Helper()
	z, err := zip.NewReader(strings.NewReader(body), int64(len(body)))
	if err != nil {
		return body
	}
	var out strings.Builder
	for _, f := range z.File {
		r, err := f.Open()
		if err == nil {
			_, err = io.Copy(&out, r)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	return out.String()
}
