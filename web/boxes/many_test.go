package boxes_test

import (
	"archive/zip"
	"bytes"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/web/webtest"
)

// Many boxes are tagged, put away, copied and deleted at once; each is taken back by one press.
func TestManyAtOnce(t *testing.T) {
	t.Parallel()
	x := many(t, 8)
	names := func(at string) []string { all, _ := x.Listed(at); slices.Sort(all); return all }
	undo := func(to http.Header) string {
		t.Helper()
		_, page, _ := x.Get(to.Get("HX-Redirect"))
		form, rest, there := strings.Cut(page, `<form method="post" action="/boxes">`)
		if !there {
			t.Fatalf("no undo: %.300s", form)
		}
		rest, _, _ = strings.Cut(rest, "</form>")
		values := []string{}
		for _, part := range strings.Split(rest, `name="box" value="`)[1:] {
			id, _, _ := strings.Cut(part, `"`)
			values = append(values, "box", id)
		}
		if _, with, has := strings.Cut(rest, `name="tag" value="`); has {
			tag, _, _ := strings.Cut(with, `"`)
			values = append(values, "tag", tag)
		}
		values = append(values, "do", webtest.ButtonValue(t, rest, "do"))
		_, _, _ = x.Post("/boxes", values...)
		return rest
	}
	for _, c := range []struct {
		do, tag, at string
		want        int
	}{{"tag", "Winter", "/?tag=winter", 3}, {"favourite", "", "/", 8}, {"archive", "", "/", 5}, {"delete", "", "/", 5}, {"copy", "", "/", 11}} {
		_, _, to := x.Post("/boxes", "do", c.do, "tag", c.tag, "box", "1", "box", "2", "box", "3")
		if got := names(c.at); len(got) != c.want {
			t.Errorf("%s: %v", c.do, got)
		}
		if c.do == "archive" {
			if got := names("/?archived=1"); len(got) != 3 {
				t.Errorf("in the archive: %v", got)
			}
		}
		undo(to)
		if got := names("/"); len(got) != 8 {
			t.Errorf("%s, taken back: %v", c.do, got)
		}
		if got := names("/?tag=winter"); len(got) != 0 {
			t.Errorf("%s, taken back, tagged: %v", c.do, got)
		}
	}
	for _, bad := range [][]string{{"do", "tag", "tag", "x"}, {"do", "tag", "tag", "", "box", "1"}, {"do", "dance", "box", "1"}, {"do", "job"}} {
		_, _, to := x.Post("/boxes", bad...)
		if _, page, _ := x.Get(to.Get("HX-Redirect")); !strings.Contains(page, `role="alert"`) {
			t.Errorf("%v: nothing is said", bad)
		}
	}
	_, _, to := x.Post("/boxes", "do", "job", "box", "4", "box", "5")
	if at := to.Get("HX-Redirect"); !strings.HasPrefix(at, "/jobs/") || !strings.Contains(x.Words(at), "Box 03") {
		t.Errorf("no job of them: %s", at)
	}
}

// Chosen boxes are printed as one document and saved as files that are read again.
func TestChosenBoxesArePrintedAndSaved(t *testing.T) {
	t.Parallel()
	x := many(t, 4)
	code, body, head := x.Get("/print.pdf?box=1&box=2&box=3&paper=letter")
	if code != http.StatusOK || head.Get("Content-Type") != "application/pdf" || !strings.HasPrefix(body, "%PDF") {
		t.Fatalf("printed: %d %v", code, head)
	}
	file := filepath.Join(t.TempDir(), "boxes.pdf")
	if err := os.WriteFile(file, []byte(body), 0o600); err != nil {
		t.Fatal(err)
	}
	read, err := exec.Command("pdftotext", "-layout", file, "-").Output()
	if err != nil {
		t.Fatal(err)
	}
	if text := string(read); !strings.Contains(text, "3 kinds of box") || !strings.Contains(text, "Sheet") || !strings.Contains(text, "Box 02") {
		t.Errorf("the document says: %.800s", text)
	}
	_, body, _ = x.Get("/boxes.zip?box=1&box=2")
	z, err := zip.NewReader(bytes.NewReader([]byte(body)), int64(len(body)))
	if err != nil {
		t.Fatalf("saved: %v", err)
	}
	sorts := map[string]int{}
	for _, f := range z.File {
		if sorts[filepath.Ext(f.Name)]++; filepath.Ext(f.Name) != ".json" {
			if !strings.HasPrefix(f.Name, "Box-") || !strings.Contains(f.Name, "/") {
				t.Errorf("%s is in no folder of its box", f.Name)
			}
			continue
		}
		r, err := f.Open()
		if err != nil {
			t.Fatal(err)
		}
		text, err := io.ReadAll(r)
		if in, bad := design.Read(text); err != nil || bad != nil || !strings.HasPrefix(in.Name, "Box") {
			t.Errorf("%s: %v, %v", f.Name, err, bad)
		}
	}
	if sorts[".json"] != 2 || sorts[".csv"] != 2 || sorts[".svg"] < 2 || sorts[".dxf"] != sorts[".svg"] {
		t.Errorf("saved are %v", sorts)
	}
	for _, bad := range []string{"/print.pdf", "/boxes.zip", "/print.pdf?box=1&paper=papyrus", "/print.pdf?box=99"} {
		if code, _, _ := x.Get(bad); code < 400 {
			t.Errorf("%s: %d", bad, code)
		}
	}
}

// Two boxes stand beside one another, and what differs is marked.
func TestSideBySide(t *testing.T) {
	t.Parallel()
	x := many(t, 6)
	_, page, _ := x.Get("/side?box=1&box=2")
	for what, differs := range map[string]bool{"Kind of box": true, "Inside": true, "Card": false, "Made at a time": false} {
		i := slices.IndexFunc(strings.Split(page, "<tr"), func(row string) bool { return strings.Contains(row, `scope="row">`+what) })
		if i < 0 || strings.HasPrefix(strings.Split(page, "<tr")[i], ` class="differs"`) != differs {
			t.Errorf("%s is in row %d, and marked otherwise than that it differs: %v", what, i, differs)
		}
	}
	// Boxes are compared in one unit, the page's, whatever each is worked in.
	for _, what := range []string{"Inside", "Outside", "Blanks"} {
		_, row, _ := strings.Cut(page, `scope="row">`+what)
		if row, _, _ = strings.Cut(row, "</tr>"); !strings.Contains(row, " in<") || strings.Contains(row, "mm<") || strings.Contains(row, "cm<") {
			t.Errorf("%s are not told in the page’s inches: %s", what, row)
		}
	}
	for _, bad := range []string{"/side", "/side?box=1&box=99", "/side?box=1&box=2&box=3&box=4&box=5"} {
		if code, _, _ := x.Get(bad); code < 400 {
			t.Errorf("%s: %d", bad, code)
		}
	}
}

// A size finds the boxes whose inside is near it, however they stand, the nearest first.
func TestABoxIsFoundByItsSize(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	for i, s := range [][3]measure.Length{{100, 80, 40}, {40, 101, 81}, {104, 83, 42}, {60, 60, 60}} {
		in := design.New(fmt.Sprint("Box ", i), measure.MM, "tray")
		in.Basis = design.Inside
		in.Size["length"], in.Size["width"], in.Size["height"] = s[0]*measure.Millimetre, s[1]*measure.Millimetre, s[2]*measure.Millimetre
		if _, err := x.Store.Of(t.Context()).Add(t.Context(), in); err != nil {
			t.Fatal(err)
		}
	}
	for find, want := range map[string]string{
		"100+x+80+x+40+mm": "Box 0 Box 1 Box 2", "10+x+8+cm": "Box 0 Box 1 Box 2", "60+×+60+mm": "Box 3", "3+15/16+x+3+1/8+in": "Box 0 Box 1 Box 2", "ash+10x8cm": "", "500+x+3+mm": "",
	} {
		names, _ := x.Listed("/?find=" + find)
		if got := strings.Join(names, " "); got != want {
			t.Errorf("%s: %q, not %q", find, got, want)
		}
	}
}
