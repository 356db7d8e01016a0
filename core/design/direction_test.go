package design

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
)

// The lid of a gable box is drawn with its walls at the upper edge: of paper
// that runs one way it is cut end for end, so that it stands upright, and the
// steps say so. A tray's front stands on its head whichever way it is cut.
func TestOneWayPaperStandsUp(t *testing.T) {
	t.Parallel()
	in := New("x", measure.In, "gable-lid")
	in.Card.Direction = paper.OneWayUp
	r, err := Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range r.Parts {
		if want := p.ID == "lid"; p.EndForEnd != want {
			t.Errorf("%s is cut end for end: %v", p.ID, p.EndForEnd)
		}
	}
	for piece, edge := range map[string]string{"tray": "top", "lid": "bottom"} {
		if !slices.ContainsFunc(r.Steps, func(s recipe.Step) bool {
			return s.Piece == piece && s.Kind == recipe.Cut && strings.Contains(s.Text, "pattern runs up towards the "+edge+" edge")
		}) {
			t.Errorf("no step says which way the paper of the %s runs", piece)
		}
	}
	for _, f := range r.Checks {
		if f.ID != "direction" {
			continue
		}
		if f.Piece == "lid" && f.Verdict != inspect.OK {
			t.Errorf("the lid: %s", f.Text)
		}
		if f.Piece == "tray" && (f.Verdict != inspect.Warn || !strings.Contains(f.Text, "on its head on the front wall") || !strings.Contains(f.Text, "sideways")) {
			t.Errorf("the tray: %s %s", f.Verdict, f.Text)
		}
	}
	// On the sheet its outline lies end for end.
	out := r.OutlinesOf("lid")
	if len(out) != 1 {
		t.Fatalf("%d outlines", len(out))
	}
	lid := r.Parts[1].Pattern
	for _, q := range out[0] {
		if q.X < -1e-6 || q.Y < -1e-6 || q.X > lid.Width.MM()+1e-6 || q.Y > lid.Height.MM()+1e-6 {
			t.Errorf("the outline leaves its blank at %v", q)
		}
	}
}
