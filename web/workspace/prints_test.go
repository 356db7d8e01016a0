package workspace_test

import (
	"fmt"
	"html"
	"regexp"
	"strings"
	"testing"

	"brevium/web/webtest"
)

// printLinks are those of one page: where it goes, what and on which paper.
var printLinks = regexp.MustCompile(`<a href="([^"]*sheet\.pdf[^"]*)">(?:<svg.*?</svg><b>([^<]*)<span class="visually-hidden"> on (\w+)</span></b>|<span class="visually-hidden">([^<]*) on </span>(\w+)</a>)`)

// Every print that a page offers opens the document of that name, on that paper, in
// colour and in lines alone.
func TestPrintsOpenWhatTheySay(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	if words := x.Words(fmt.Sprintf("/boxes/%d/making", id)); !strings.Contains(words, "On Letter A4 instead") {
		t.Error("a box in inches is not printed on Letter, or on no other paper")
	}
	sizes := map[string]string{"A4": "595.28 x 841.89 pts (A4)", "Letter": "612 x 792 pts (letter)"}
	for path, links := range map[string]int{"making": 11, "making?print=lines": 11, "sheets": 2} {
		_, body, _ := x.Get(fmt.Sprintf("/boxes/%d/%s", id, path))
		all := printLinks.FindAllStringSubmatch(body, -1)
		if len(all) != links {
			t.Errorf("%s offers %d prints, not %d", path, len(all), links)
		}
		for _, m := range all {
			at, name, paper := html.UnescapeString(m[1]), m[2]+m[4], m[3]+m[5]
			code, pdf, _ := x.Get(at)
			if code != 200 {
				t.Errorf("%s, %s on %s: %d", path, name, paper, code)
				continue
			}
			if title, size := webtest.Printed(t, pdf); title != name+": Jars" || size != sizes[paper] {
				t.Errorf("%s, %s on %s opens %q on %s", path, name, paper, title, size)
			}
			if lines := strings.Contains(at, "plain=1"); lines != strings.Contains(path, "lines") && path != "sheets" {
				t.Errorf("%s, %s: in lines alone is %v", path, name, lines)
			}
		}
	}
	for _, at := range []string{"sheet.pdf?paper=folio", "export?to=pdf&paper=A4%26what%3dscores"} {
		if code, body, _ := x.Get(fmt.Sprintf("/boxes/%d/%s", id, at)); code != 422 || !strings.Contains(body, "use a4 or letter") {
			t.Errorf("%s: %d %.100s", at, code, body)
		}
	}
}
