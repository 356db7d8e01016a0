package boxes_test

import (
	"compress/gzip"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/web/form"
	"brevium/web/webtest"
)

// many is a table with boxes of several kinds.
func many(t *testing.T, n int) *webtest.Table {
	t.Helper()
	x := webtest.NewTable(t)
	for i := range n {
		in := design.New(fmt.Sprintf("Box %02d", i), measure.MM, []string{"tray", "tray-lid", "hinged-carton"}[i%3])
		if i%5 == 0 {
			thing := form.NewThing(contents.Round)
			thing.Name = "Lantern"
			in.Things = []contents.Thing{thing}
		}
		if _, err := x.Store.Of(t.Context()).Add(t.Context(), in); err != nil {
			t.Fatal(err)
		}
	}
	return x
}

func TestTheListLoadsAsOneScrolls(t *testing.T) {
	t.Parallel()
	x := many(t, 50)
	names, parts := x.Listed("/")
	seen := map[string]bool{}
	for _, n := range names {
		seen[n] = true
	}
	if len(seen) != 50 || len(names) != 50 || parts != 3 || names[0] != "Box 49" {
		t.Errorf("%d boxes, %d different, in %d parts, first %s", len(names), len(seen), parts, names[0])
	}
}

func TestTheListIsSearchedAndSorted(t *testing.T) {
	t.Parallel()
	x := many(t, 15)
	today := x.Box(1).Changed.Format("2006-01-02")
	for find, want := range map[string]int{
		"box+03": 1, "lantern": 3, "LANTERN+tray": 1, "carton": 5, "lift-off": 5, today: 15, "1999": 0, "%25": 0, "_": 0, "nothing+of+the+kind": 0,
	} {
		if names, _ := x.Listed("/?find=" + find); len(names) != want {
			t.Errorf("%s: %d boxes %v; want %d", find, len(names), names, want)
		}
	}
	if names, _ := x.Listed("/?order=name"); names[0] != "Box 00" || names[14] != "Box 14" {
		t.Errorf("by name: %v", names)
	}
	if names, _ := x.Listed("/?order=thing"); names[0] != "Box 00" || names[1] != "Box 05" || names[3] != "Box 01" {
		t.Errorf("by thing: %v", names)
	}
	if names, _ := x.Listed("/?order=style"); names[0] != "Box 02" {
		t.Errorf("by style: %v", names)
	}
	if names, _ := x.Listed("/?order=hat&from=-3"); len(names) != 15 {
		t.Errorf("an order that is none: %v", names)
	}
	if _, body, _ := x.Get("/?find=1999"); !strings.Contains(body, "No box has “1999”") {
		t.Error("nothing found, nothing said")
	}
}

// In an order the list stands in groups, favourites first; what is loaded as one scrolls goes on with the
// group before it.
func TestTheListStandsInGroups(t *testing.T) {
	t.Parallel()
	x := many(t, 30)
	x.Post("/boxes", "do", "favourite", "box", "7")
	groups := func(path string) string {
		var out []string
		for path != "" {
			_, body, _ := x.Get(path)
			for _, part := range strings.Split(body, `<li class="group-of"><h2>`)[1:] {
				name, _, _ := strings.Cut(part, "</h2>")
				out = append(out, name)
			}
			_, next, more := strings.Cut(body, `hx-get="/?from=`)
			if path = ""; more {
				next, _, _ = strings.Cut(next, `"`)
				path = "/?from=" + strings.ReplaceAll(next, "&amp;", "&")
			}
		}
		return strings.Join(out, ", ")
	}
	month := x.Box(1).Changed.Format("January 2006")
	for order, want := range map[string]string{
		"": "", "name": "", "date": "Favourites, " + month, "thing": "Favourites, Lantern, Nothing named",
		"style": "Favourites, Hinged carton, Open tray, Base with a lift-off lid",
	} {
		if got := groups("/?order=" + order); got != want {
			t.Errorf("in order of %q: %s", order, got)
		}
	}
	names, _ := x.Listed("/?order=style")
	if slices.Sort(names); len(names) != 30 || len(slices.Compact(names)) != 30 {
		t.Errorf("%d boxes, %d different", len(names), len(slices.Compact(names)))
	}
}

// A box is found by its fit.
func TestABoxIsFoundByItsFit(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	for _, f := range []fit.Verdict{fit.Snug, fit.Easy, fit.Easy} {
		in := design.New("Box", measure.MM, "tray-lid")
		in.Fit = f
		if _, err := x.Store.Of(t.Context()).Add(t.Context(), in); err != nil {
			t.Fatal(err)
		}
	}
	for find, want := range map[string]int{"easy": 2, "Snug": 1, "eas": 0} {
		if names, _ := x.Listed("/?find=" + find); len(names) != want {
			t.Errorf("%s: %d", find, len(names))
		}
	}
}

// A box is found by its card, by another card of one of its pieces, and by a paper on it.
func TestABoxIsFoundByItsCard(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	for _, name := range []string{"First", "Second", "Third"} {
		in := design.New(name, measure.MM, "tray-lid")
		switch name {
		case "First":
			in.Card.Name = "Moss card"
		case "Second":
			lid := in.Card
			lid.Name = "Moss paper"
			in.Cards["lid"] = lid
		case "Third":
			paper := dress.Patterned
			paper.Name = "Sprigs in moss"
			in.Mats = []dress.Dressing{{ID: 1, Piece: "lid", Faces: []string{"top"}, Layers: []dress.Layer{{Card: paper, Border: dress.Even(2 * measure.Millimetre)}}}}
		}
		if _, err := x.Store.Of(t.Context()).Add(t.Context(), in); err != nil {
			t.Fatal(err)
		}
	}
	for find, want := range map[string]int{"moss": 3, "moss+paper": 1, "sprigs": 1, "mossy": 0} {
		if names, _ := x.Listed("/?find=" + find); len(names) != want {
			t.Errorf("%s: %v", find, names)
		}
	}
}

// Files are named by their sums and kept for a year, compressed once; pages
// are compressed as they go.
func TestFilesAndPagesTravelSmall(t *testing.T) {
	t.Parallel()
	x := many(t, 12)
	ask := func(path string, headers ...string) *http.Response {
		q := httptest.NewRequest(http.MethodGet, path, nil)
		for i := 0; i < len(headers); i += 2 {
			q.Header.Set(headers[i], headers[i+1])
		}
		r := httptest.NewRecorder()
		x.HTTP.ServeHTTP(r, q)
		return r.Result()
	}
	r := ask("/", "Accept-Encoding", "gzip")
	z, err := gzip.NewReader(r.Body)
	if err != nil || r.Header.Get("Content-Encoding") != "gzip" {
		t.Fatalf("the list is not compressed: %v", err)
	}
	body, err := io.ReadAll(z)
	if err != nil {
		t.Fatal(err)
	}
	address := regexp.MustCompile(`/static/app\.js\?v=[0-9a-f]+`).FindString(string(body))
	if address == "" {
		t.Fatal("scripts are not named by their sums")
	}
	r = ask(address, "Accept-Encoding", "gzip")
	if !strings.Contains(r.Header.Get("Cache-Control"), "immutable") || r.Header.Get("Content-Encoding") != "gzip" || !strings.HasPrefix(r.Header.Get("Content-Type"), "text/javascript") {
		t.Errorf("%s: %v", address, r.Header)
	}
	if again := ask(address, "If-None-Match", r.Header.Get("ETag")); again.StatusCode != http.StatusNotModified {
		t.Errorf("asked again: %d", again.StatusCode)
	}
	if r := ask("/static/app.js?v=0000"); strings.Contains(r.Header.Get("Cache-Control"), "immutable") || r.Header.Get("ETag") == "" {
		t.Errorf("by another sum: %v", r.Header)
	}
	for _, path := range []string{"/static/", "/static/vendor", "/static/../server.go", "/static/none.js"} {
		if r := ask(path); r.StatusCode != http.StatusNotFound {
			t.Errorf("%s: %d", path, r.StatusCode)
		}
	}
	if r := ask("/boxes/1/sheet.pdf", "Accept-Encoding", "gzip"); r.Header.Get("Content-Encoding") != "" {
		t.Error("a PDF is compressed twice")
	}
}
