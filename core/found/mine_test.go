package found

import (
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
)

// By hand: a base and lid half an inch longer and a quarter deeper, in the same words.
func TestARecipeIsMadeMine(t *testing.T) {
	t.Parallel()
	text := "Base: 7 x 6 in, score at 1 1/2 on all four sides. Lid 6 1/16\" by 5 1/16\"; score 1 all round. Panel 3 x 2."
	told, err := Tell(text, measure.In)
	if err != nil || told.Match == nil {
		t.Fatal(told, err)
	}
	same, ok := told.Mine(text, told.Made, "")
	if !ok || same.Text != text || len(same.Changed)+len(same.Lost) > 0 {
		t.Errorf("unchanged it is %+v", same)
	}
	in := told.Match.Inputs
	in.Size["length"] += measure.Inch / 2
	in.Size["height"] += measure.Inch / 4
	now, err := design.Sketch(in)
	if err != nil {
		t.Fatal(err)
	}
	m, ok := told.Mine(text, now, "")
	want := "Base: 8 x 6 1/2 in, score at 1 3/4 on all four sides. Lid 6 9/16\" by 5 1/16\"; score 1 all round. Panel 3 x 2."
	if !ok || m.Text != want {
		t.Errorf("it is now %q", m.Text)
	}
	if got := strings.Join(m.Changed, "; "); got != "base: the blank's first side 8 instead of 7; base: the blank's second side 6 1/2 instead of 6; base: score 1 3/4 instead of 1 1/2; lid: the blank's first side 6 9/16 instead of 6 1/16" {
		t.Errorf("it says %s", got)
	}
	cm, ok := told.Mine(text, told.Made, measure.CM)
	if want := "Base: 17.78 cm x 15.24 cm, score at 3.81 cm on all four sides. Lid 15.4 cm by 12.86 cm; score 2.54 cm all round. Panel 7.62 cm x 5.08 cm."; !ok || cm.Text != want {
		t.Errorf("in centimetres it is %q", cm.Text)
	}
	again, err := Tell(m.Text, measure.In)
	if err != nil || again.Match == nil || again.Match.Inputs.Size["length"] != in.Size["length"] || again.Match.Inputs.Size["height"] != in.Size["height"] {
		t.Errorf("read again it is %+v, %v", again.Match, err)
	}
	// A carton that is given turned, counted from either end.
	text = "carton 9 3/4 x 7: score from the left at 3/4, 3 3/4, 5 1/4, from the right at 1 1/2; turn, 1 1/2 and 5 1/2"
	told, err = Tell(text, measure.In)
	if err != nil || told.Match == nil {
		t.Fatalf("%+v, %v", told, err)
	}
	in = told.Match.Inputs
	in.Size["height"] += measure.Inch / 4
	if now, err = design.Sketch(in); err != nil {
		t.Fatal(err)
	}
	if m, ok := told.Mine(text, now, ""); !ok || m.Text != "carton 10 1/4 x 7 1/2: score from the left at 3/4, 3 3/4, 5 1/2, from the right at 1 3/4; turn, 1 3/4 and 5 3/4" {
		t.Errorf("the carton is %q, %v", m.Text, m.Lost)
	}
	other, err := design.Sketch(design.New("x", measure.In, "tray"))
	if err != nil {
		t.Fatal(err)
	}
	if _, ok := told.Mine(text, other, ""); ok {
		t.Error("a tray is called the carton's recipe")
	}
}
