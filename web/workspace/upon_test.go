package workspace_test

import (
	"strconv"
	"strings"
	"testing"

	"brevium/core/label"
	"brevium/web/webtest"
)

// A label is put on a paper, and another on that label; taken away, the second lies where the
// first did.
func TestALabelOnALabelOnAPaper(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	x.Post("/boxes/1/dressing", "mats.add", "lid")
	x.Post("/boxes/1/dressing", "labels.add", "label")
	x.Post("/boxes/1/dressing", "labels.add", "label")
	_, page, _ := x.Get("/boxes/1/dressing")
	first := strconv.Itoa(x.Box(id).Inputs.Labels[0].ID)
	for _, choice := range []string{`value="paper:lid.top.1"`, `value="thing:` + first + `"`} {
		if !strings.Contains(page, choice) {
			t.Fatalf("%s is not offered", choice)
		}
	}
	if code, page, _ := x.Post("/boxes/1/dressing", "labels[0].face", "paper:lid.top.1", "labels[0].across.from", "left", "labels[0].across.at", "1/4",
		"labels[1].face", "thing:"+first, "labels[1].width", "1/2", "labels[1].height", "3/8"); code >= 400 {
		t.Fatalf("%d %.500s", code, page)
	}
	all := x.Box(id).Inputs.Labels
	if all[0].Upon != (label.Upon{Paper: "lid.top.1"}) || all[1].Upon != (label.Upon{Thing: first}) || all[1].Piece != "" {
		t.Fatalf("they lie on %+v and %+v", all[0].Upon, all[1].Upon)
	}
	if told := x.Words("/boxes/1/making"); !strings.Contains(told, "on the paper on the top of the lid, 1/4 in from its left edge") {
		t.Errorf("told otherwise: %.3000s", told)
	}
	x.Post("/boxes/1/dressing", "labels.remove", "0")
	if all = x.Box(id).Inputs.Labels; len(all) != 1 || all[0].Upon != (label.Upon{Paper: "lid.top.1"}) {
		t.Errorf("the one that lay on it: %+v", all)
	}
	if code, _, _ := x.Post("/boxes/1/box", "style", "tray"); code >= 400 || len(x.Box(id).Inputs.Labels) != 1 {
		t.Errorf("in a box without a lid: %d", code)
	}
}
