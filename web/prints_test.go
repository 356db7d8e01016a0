package web

import (
	"fmt"
	"html"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

// printed asks a program of others what a PDF is called and how large its pages are.
func printed(t *testing.T, pdf string) (title, paper string) {
	t.Helper()
	file := filepath.Join(t.TempDir(), "p.pdf")
	if err := os.WriteFile(file, []byte(pdf), 0o600); err != nil {
		t.Fatal(err)
	}
	out, err := exec.Command("pdfinfo", file).Output()
	if err != nil {
		t.Fatalf("pdfinfo: %v", err)
	}
	for line := range strings.Lines(string(out)) {
		name, value, _ := strings.Cut(line, ":")
		switch name {
		case "Title":
			title = strings.TrimSpace(value)
		case "Page size":
			paper = strings.TrimSpace(value)
		}
	}
	return title, paper
}

var printLinks = regexp.MustCompile(`<a href="([^"]*sheet\.pdf[^"]*)"><span class="visually-hidden">([^<]*) on </span>(\w+)</a>`)

// Every print that a page offers opens the document of that name, on that paper, in
// colour and in lines alone.
func TestPrintsOpenWhatTheySay(t *testing.T) {
	t.Parallel()
	x := newTable(t)
	id := x.jarBox()
	sizes := map[string]string{"A4": "595.28 x 841.89 pts (A4)", "Letter": "612 x 792 pts (letter)"}
	for path, links := range map[string]int{"making": 20, "making?print=lines": 20, "sheets": 2} {
		_, body, _ := x.get(fmt.Sprintf("/boxes/%d/%s", id, path))
		all := printLinks.FindAllStringSubmatch(body, -1)
		if len(all) != links {
			t.Errorf("%s offers %d prints, not %d", path, len(all), links)
		}
		for _, m := range all {
			at, name, paper := html.UnescapeString(m[1]), m[2], m[3]
			code, pdf, _ := x.get(at)
			if code != 200 {
				t.Errorf("%s, %s on %s: %d", path, name, paper, code)
				continue
			}
			if title, size := printed(t, pdf); title != name+": Jars" || size != sizes[paper] {
				t.Errorf("%s, %s on %s opens %q on %s", path, name, paper, title, size)
			}
			if lines := strings.Contains(at, "plain=1"); lines != strings.Contains(path, "lines") && path != "sheets" {
				t.Errorf("%s, %s: in lines alone is %v", path, name, lines)
			}
		}
	}
	for _, at := range []string{"sheet.pdf?paper=folio", "export?to=pdf&paper=A4%26what%3dhandout"} {
		if code, body, _ := x.get(fmt.Sprintf("/boxes/%d/%s", id, at)); code != 422 || !strings.Contains(body, "use a4 or letter") {
			t.Errorf("%s: %d %.100s", at, code, body)
		}
	}
}
