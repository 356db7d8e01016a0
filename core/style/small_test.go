package style

import (
	"reflect"
	"testing"

	"brevium/core/pattern"
)

// A small box of an assembly, made by its own style, has the very pieces that the
// assembly has: the same outlines and lines.
func TestSmallBoxesAreBoxes(t *testing.T) {
	for _, c := range []struct {
		style   *Style
		choices map[string]string
		want    int
	}{
		{foldOutCarrier, map[string]string{"count": "4"}, 4}, {foldOutCarrier, map[string]string{"form": "strip"}, 3},
		{dispenser, map[string]string{"refills": "4"}, 4}, {tower, map[string]string{"boxes": "clam-box"}, 3},
		{tower, map[string]string{"boxes": "tray"}, 3}, {nest, nil, 3},
	} {
		spec := usual(c.style, nil, c.choices)
		c.style.Follow(&spec, func(string) bool { return false })
		b, err := c.style.Make(spec)
		if err != nil {
			t.Fatal(err)
		}
		if len(b.Small) != c.want {
			t.Errorf("%s %v has %d small boxes; want %d", c.style.ID, c.choices, len(b.Small), c.want)
		}
		of := map[string]*pattern.Pattern{}
		for _, p := range b.Parts {
			of[p.ID] = p.Pattern
		}
		for _, x := range b.Small {
			own := usual(x.Style, x.Sizes, x.Choices)
			for id, l := range x.Options {
				own.Lengths[id] = l
			}
			made, err := x.Style.Make(own)
			if err != nil {
				t.Errorf("%s: %v", x.Name, err)
				continue
			}
			for _, p := range made.Parts {
				theirs := of[x.Pieces[p.ID]]
				if theirs == nil || !reflect.DeepEqual(theirs.Outline, p.Pattern.Outline) || !reflect.DeepEqual(theirs.Scores, p.Pattern.Scores) ||
					!reflect.DeepEqual(theirs.Slits, p.Pattern.Slits) {
					t.Errorf("%s: its %s is another piece than the assembly's %s", x.Name, p.ID, x.Pieces[p.ID])
				}
			}
		}
	}
}
