package boxes_test

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

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
