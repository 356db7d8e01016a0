package boxes_test

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/web/webtest"
)

// The catalogue shows every kind shut and open, with what it takes; what does
// not go with a thing, a sheet or an hour is put aside with the reason.
func TestKindsOfBox(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	_, all, _ := x.Get("/kinds")
	for _, s := range style.Boxes() {
		_, entry, shown := strings.Cut(all, `id="kind-of-`+s.ID+`"`)
		if !shown {
			t.Errorf("%s is not shown", s.ID)
			continue
		}
		entry, _, _ = strings.Cut(entry, "</li>")
		if strings.Count(entry, "<svg") != 2 || !strings.Contains(entry, "about ") {
			t.Errorf("%s has %d pictures", s.ID, strings.Count(entry, "<svg"))
		}
	}
	if !strings.Contains(all, ", open\"") || strings.Contains(all, "that don’t fit") {
		t.Error("the catalogue at its usual sizes is not whole")
	}
	_, tall, _ := x.Get("/kinds?for=tall")
	for _, s := range style.Boxes() {
		if got, want := strings.Contains(tall, `id="kind-of-`+s.ID+`"`), slices.Contains(s.For, style.ForTall); got != want {
			t.Errorf("for something tall %s is shown: %v", s.ID, got)
		}
	}
	_, quick, _ := x.Get("/kinds?minutes=6&order=time")
	if first, second := strings.Index(quick, `id="kind-of-tray"`), strings.Index(quick, `id="kind-of-tray-lid"`); first < 0 || second >= 0 || !strings.Contains(quick, "takes 10 min") {
		t.Error("six minutes do not part what goes from what does not")
	}
	_, small, _ := x.Get("/kinds?thing.length=5&thing.width=4&thing.height=1&sheet=8+%C3%97+8+in")
	if !strings.Contains(small, `id="kind-of-tray"`) || !strings.Contains(small, "that don’t fit, and why") || !strings.Contains(small, "larger than every sheet") {
		t.Error("a small sheet gives everything")
	}
	if code, body, _ := x.Get("/kinds?thing.length=48"); code != 200 || !strings.Contains(body, "larger than any sheet") {
		t.Errorf("a thing of 48 in: %d", code)
	}
}

// What there is to do is counted from the pieces: a tray of one card has four
// scores, four slits told as one, and four glued tabs.
func TestEffortOfATray(t *testing.T) {
	t.Parallel()
	r, err := design.Make(t.Context(), design.New("", measure.In, "tray"))
	if err != nil {
		t.Fatal(err)
	}
	if e := r.Effort(); e.Scores != 4 || e.Glue != 4 || e.Ruler != 0 || e.Cuts < 3 {
		t.Errorf("a tray takes %+v", e)
	}
}
