package reader_test

import (
	"html"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"brevium/web/webtest"
)

// whole are the corners of a sketch that fills its picture.
func whole(wide, high string) string {
	q := url.Values{"wide": {wide}, "high": {high}}
	for i, at := range [4][2]string{{"0", "0"}, {"100", "0"}, {"100", "100"}, {"0", "100"}} {
		n := string(rune('0' + i))
		q.Set("x"+n, at[0])
		q.Set("y"+n, at[1])
	}
	return q.Encode()
}

// A sketch is photographed, its lines are found, and its recipe makes the box; what is no picture, no
// size or no piece is said where it stands.
func TestASketchBecomesABox(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	if code, page, _ := x.Send("/read/sketch", []byte("no picture")); code != http.StatusUnprocessableEntity || !strings.Contains(page, "This is no picture") {
		t.Errorf("no picture: %d", code)
	}
	_, _, header := x.Send("/read/sketch", webtest.Sketched(t))
	at := header.Get("Location")
	if _, page, _ := x.Get(at); !strings.Contains(page, "The corners of your sketch") || !strings.Contains(page, strings.TrimPrefix(at, "/read/sketch/")+".jpg") {
		t.Fatalf("%s: %s", at, page)
	}
	if code, page, _ := x.Get(at + "/lines?" + whole("100 mm", "nothing")); code != http.StatusUnprocessableEntity || !strings.Contains(page, `aria-invalid="true"`) {
		t.Errorf("no size: %d", code)
	}
	lines := at + "/lines?" + whole("100 mm", "80 mm")
	code, page, _ := x.Get(lines)
	if code != http.StatusOK || strings.Count(page, `class="sketch-line`) != 12 {
		t.Fatalf("%d, %d lines", code, strings.Count(page, `class="sketch-line`))
	}
	// The corners again are where they were put.
	_, again, _ := strings.Cut(page, `href="`+at+"?")
	again, _, _ = strings.Cut(again, `"`)
	if _, page, _ := x.Get(at + "?" + html.UnescapeString(again)); !strings.Contains(page, `value="100 mm"`) || strings.Contains(page, `value="96"`) {
		t.Errorf("the corners again: %q", again)
	}
	if code, body, _ := x.Get(at + "/straight.jpg?" + whole("100 mm", "80 mm")); code != http.StatusOK || !strings.HasPrefix(body, "\xff\xd8") {
		t.Errorf("the picture under them: %d", code)
	}
	_, text, _ := strings.Cut(page, `name="lines"`)
	_, text, _ = strings.Cut(text, ">")
	text, _, _ = strings.Cut(text, "</textarea>")
	for wrong, want := range map[string]string{"": "no piece yet", "bend 1 2 3 4": "Line 1 is not"} {
		if code, page, _ := x.Post(lines, "lines", wrong); code != http.StatusUnprocessableEntity || !strings.Contains(page, want) {
			t.Errorf("%q: %d", wrong, code)
		}
	}
	if code, page, _ := x.Post(lines, "lines", text, "line", "99", "long", "3"); code != http.StatusUnprocessableEntity || !strings.Contains(page, "There is no line") {
		t.Errorf("no such line: %d", code)
	}
	lines += "&squares=5+mm"
	_, _, header = x.Post(lines, "lines", text)
	to, err := url.Parse(header.Get("HX-Redirect"))
	if want := "Piece A: 80 x 60 mm, with the 80 side at the top score at 15 and 65, turn, score at 15 and 45."; err != nil || to.Query().Get("text") != want {
		t.Errorf("%q; want %q", to.Query().Get("text"), want)
	}
	if page := x.Words(to.String()); !strings.Contains(page, "It is an open tray") {
		t.Errorf("read: %s", page)
	}
	// Its first line, one of the upright edges, is really twice as long.
	_, _, header = x.Post(lines, "lines", text, "line", "1", "long", "160 mm")
	if to, _ := url.Parse(header.Get("HX-Redirect")); !strings.Contains(to.Query().Get("text"), "160 x 120 mm") {
		t.Errorf("scaled: %s", to.Query().Get("text"))
	}
}
