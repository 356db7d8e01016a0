package drawer

import (
	"strings"
	"testing"

	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/pattern"
)

func pts(xy ...float64) []pattern.Point {
	var out []pattern.Point
	for i := 0; i < len(xy); i += 2 {
		out = append(out, pattern.Pt(xy[i], xy[i+1]))
	}
	return out
}

// A drawn offcut is as large as its bounds, its corners measured from their top left; a rectangle has no
// shape of its own.
func TestOffcutsAreDrawn(t *testing.T) {
	l := oat(mm, mm, 1)
	if err := l.Draw(pts(10, 20, 110, 20, 110, 70.004, 60, 70, 60, 120, 10, 120)); err != nil || l.Width != 100*mm || l.Height != 100*mm || l.Shape != "0,0 100,0 100,50 50,50 50,100 0,100" || !l.Offcut {
		t.Errorf("%+v, %v", l, err)
	}
	if got := l.Shape.Points(); len(got) != 6 || got[3] != pattern.Pt(50, 50) {
		t.Errorf("%v", got)
	}
	if err := l.Check(); err != nil {
		t.Error(err)
	}
	if err := l.Draw(pts(5, 5, 205, 5, 205, 105, 5, 105)); err != nil || l.Shape != "" || l.Width != 200*mm {
		t.Errorf("a rectangle: %+v, %v", l, err)
	}
	many := make([]float64, 2*(mostCorners+1))
	for why, corners := range map[string][]pattern.Point{
		"two": pts(0, 0, 100, 0), "crossed": pts(0, 0, 100, 100, 100, 0, 0, 100), "small": pts(0, 0, 9, 0, 9, 9), "far": pts(0, 0, 20_000, 0, 0, 100), "many": pts(many...),
	} {
		if err := l.Draw(corners); err == nil {
			t.Errorf("%s: taken", why)
		}
	}
	for _, text := range []string{"a,b", "0,0 100", "0;0 1;1", strings.Repeat("0,0 ", 3000)} {
		if err := l.DrawText(text); err == nil {
			t.Errorf("%.20q: taken", text)
		}
	}
	if err := l.DrawText(" "); err != nil {
		t.Error(err)
	}
	l.Shape, l.Offcut = "0,0 1,1 2,0", false
	if l.Check() == nil {
		t.Error("a whole sheet has a shape")
	}
}

// What is left of a sheet that is cut by shape is kept with its outline, alike ones together; no trimmer
// is given it.
func TestOffcutsKeepTheirShape(t *testing.T) {
	ell := pts(100, 0, 200, 0, 200, 100, 150, 100, 150, 50, 100, 50)
	at := layout.Rect{X: 100 * mm, Width: 100 * mm, Height: 100 * mm}
	fine := make([]pattern.Point, mostCorners+1)
	laid := &layout.Result{Sheets: []layout.Laid{
		{ByShape: true, Offcuts: []layout.Rect{at}, Shapes: [][]pattern.Point{ell}},
		{ByShape: true, Offcuts: []layout.Rect{at, at}, Shapes: [][]pattern.Point{ell, fine}},
	}}
	lots := Kept(oat(mm, mm, 1).Card, laid, "Trays")
	if len(lots) != 1 || lots[0].Count != 2 || lots[0].Shape != "0,0 100,0 100,100 50,100 50,50 0,50" {
		t.Fatalf("%+v", lots)
	}
	if free := Free(append(lots, oat(200*mm, 100*mm, 1))); len(free) != 1 || free[0].Shape != "" {
		t.Errorf("%+v", free)
	}
	back, errs := ReadCSV(WriteCSV(lots), measure.MM)
	if len(errs) > 0 || len(back) != 1 || back[0].Shape != lots[0].Shape {
		t.Errorf("%+v, %v", back, errs)
	}
}
