package workspace_test

import (
	"strings"
	"testing"

	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/web/webtest"
)

// A paper is cut at the page as makers cut one: its corners rounded, its size typed, a hair over
// the edge, its pattern across; and back again.
func TestAPaperIsCutAsAMakerDoes(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	x.Post("/boxes/1/dressing", "mats.add", "lid")
	sent := func(pairs ...string) dress.Dressing {
		t.Helper()
		if code, page, _ := x.Post("/boxes/1/dressing", pairs...); code >= 400 {
			t.Fatalf("%v: %d %.300s", pairs, code, page)
		}
		return x.Box(id).Inputs.Mats[0]
	}
	if d := sent("mats[0].shape", "rounded"); d.Shape != dress.Rounded || d.Radius != measure.Inch/4 {
		t.Errorf("rounded, with nothing said of the radius: %v, %v mm", d.Shape, d.Radius.MM())
	}
	if _, page, _ := x.Get("/boxes/1/dressing"); !strings.Contains(page, `name="mats[0].radius"`) {
		t.Error("its radius is not asked for")
	}
	if d := sent("mats[0].radius", "3/8"); d.Radius != measure.Inch*3/8 {
		t.Errorf("the radius is %v mm", d.Radius.MM())
	}
	if d := sent("mats[0].shape", "rectangle"); d.Radius != 0 {
		t.Errorf("square again, it is rounded to %v mm", d.Radius.MM())
	}
	if d := sent("mats[0].layers[0].border", "-1/32", "mats[0].layers[0].up", "-1/32"); d.Layers[0].Border != dress.Even(-measure.Inch/32) {
		t.Errorf("the border is %v", d.Layers[0].Border)
	}
	if d := sent("mats[0].layers[0].width", "2"); d.Layers[0].Width != 2*measure.Inch || d.Layers[0].Height != 0 {
		t.Errorf("its own size is %v × %v mm", d.Layers[0].Width.MM(), d.Layers[0].Height.MM())
	}
	if d := sent("mats[0].asked", "1", "mats[0].faces", "top", "mats[0].across", "1"); !d.Across {
		t.Error("its pattern stands upright")
	}
	if told := x.Words("/boxes/1/making"); !strings.Contains(told, "The pattern runs across, its top to the right.") {
		t.Errorf("it is told otherwise: %.2000s", told)
	}
	if code, page, _ := x.Post("/boxes/1/dressing", "mats[0].layers[0].border", "-1/2"); code != 422 || !strings.Contains(page, "over an edge by up to") {
		t.Errorf("half an inch over the edge: %d", code)
	}
}
