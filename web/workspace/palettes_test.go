package workspace_test

import (
	"html"
	"regexp"
	"strings"
	"testing"

	"brevium/core/dress"
	"brevium/web/webtest"
)

// A box with papers is seen in sets that go together, and has the one that is pressed; alike
// papers stay alike.
func TestPapersThatGoTogether(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	if _, page, _ := x.Get("/boxes/1/palettes"); !strings.Contains(page, "There is no paper on this box yet") {
		t.Error("without a paper it is said otherwise")
	}
	x.Post("/boxes/1/dressing", "mats.add", "lid")
	x.Post("/boxes/1/dressing", "mats.add", "base")
	_, page, _ := x.Get("/boxes/1/palettes")
	forms := strings.Split(page, `<section class="palette">`)
	if len(forms) < 2 {
		t.Fatalf("no set is offered: %.2000s", page)
	}
	if n := strings.Count(forms[1], `name="palette"`); n != 4 {
		t.Errorf("a set is tried in %d ways", n)
	}
	send := []string{"palette", "1"}
	var names []string
	for _, m := range regexp.MustCompile(`name="palette.card" value="([^"]+)"`).FindAllStringSubmatch(forms[1], -1) {
		send = append(send, "palette.card", html.UnescapeString(m[1]))
		names = append(names, regexp.MustCompile(`n=([^&]+)`).FindStringSubmatch(html.UnescapeString(m[1]))[1])
	}
	if code, page, _ := x.Post("/boxes/1/dressing", send...); code >= 400 {
		t.Fatalf("%d %.300s", code, page)
	}
	mats := x.Box(id).Inputs.Mats
	for n, want := range []string{names[1], names[2]} {
		for _, d := range mats {
			if got := d.Layers[n].Card.Name; strings.ReplaceAll(got, " ", "+") != strings.ReplaceAll(want, "%2C", ",") {
				t.Errorf("layer %d is of %s; want %s", n+1, got, want)
			}
		}
	}
	if mats[0].Layers[0].Border != (dress.Border{Across: mats[0].Layers[0].Border.Up, Up: mats[0].Layers[0].Border.Up}) || len(mats) != 2 {
		t.Error("more than the papers is another")
	}
}
