package page

import (
	"testing"

	"brevium/core/design"
)

// What is drawn of a result is drawn once, each by its word and its result, and the oldest goes.
func TestWhatIsDrawnIsKept(t *testing.T) {
	var d Drawn
	drawn := 0
	draw := func() int { drawn++; return drawn }
	first, second := &design.Result{}, &design.Result{}
	if a, b := Draw(&d, first, "net", draw), Draw(&d, first, "net", draw); a != 1 || b != 1 {
		t.Errorf("drawn again: %d, %d", a, b)
	}
	if a, b := Draw(&d, first, "folded", draw), Draw(&d, second, "net", draw); a != 2 || b != 3 {
		t.Errorf("another drawing is %d, another result's %d", a, b)
	}
	for range mostDrawn {
		Draw(&d, &design.Result{}, "net", draw)
	}
	if len(d.by) != mostDrawn || len(d.order) != mostDrawn {
		t.Errorf("%d are kept, in an order of %d", len(d.by), len(d.order))
	}
	if again := Draw(&d, first, "net", draw); again == 1 {
		t.Error("the oldest is kept")
	}
}
