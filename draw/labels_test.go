package draw

import (
	"slices"
	"testing"

	"brevium/core/bench"
	"brevium/core/design"
	"brevium/core/layout"
	"brevium/core/measure"
)

// What is placed is drawn on the flat piece, the later over the earlier, and only on its own piece;
// a piece without a line on it shows no fence.
func TestLabelsAreDrawnOnTheNet(t *testing.T) {
	in, err := design.Read([]byte(`{"brevium":1,"name":"x","units":"mm","style":"tray-lid","placed":[
		{"id":"oval","what":"label","name":"Banner","shape":"oval","width":40,"height":20,"layers":[{"card":{"name":"Cream"}}],"on":{"piece":"lid","face":"top"}},
		{"id":"h","what":"label","name":"Heart","shape":"heart","width":12,"height":12,"layers":[{"card":{"name":"Red"}}],"on":{"placed":"oval"}}]}`))
	if err != nil {
		t.Fatal(err)
	}
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range r.Parts {
		picture := Net{Part: p.Part, Labels: r.LabelMats(), Fence: in.Tools.Fence, Units: in.Units, Tick: in.Tools.Tick}.Picture()
		var drawn []string
		fences := 0
		for _, s := range picture.Shapes {
			if s.About == "banner" || s.About == "heart" {
				drawn = append(drawn, s.About)
			}
			if s.Class == Fence {
				fences++
			}
		}
		if want := map[string][]string{"lid": {"banner", "heart"}}[p.ID]; !slices.Equal(drawn, want) {
			t.Errorf("on the %s lie %v; want %v", p.ID, drawn, want)
		}
		if scored := len(p.Pattern.Creases) > 0; scored != (fences > 0) {
			t.Errorf("%s: %d fences", p.ID, fences)
		}
	}
}

// A part of a sheet that holds nothing is an offcut, hatched and called so; one that is cut up
// further is neither.
func TestTheTrimmerShowsOffcuts(t *testing.T) {
	in := design.New("Tokens", measure.In, "tray-lid")
	in.Copies = 3
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	kept, offcuts := 0, 0
	for _, m := range bench.Moves(r) {
		if m.Trim == nil {
			continue
		}
		want := 0
		for _, part := range []layout.Rect{m.Trim.Near, m.Trim.Far} {
			holds := slices.ContainsFunc(r.Stocks[m.Trim.Stock].Layout.Sheets[m.Trim.Sheet].Placed, func(p layout.Placed) bool { return part.Holds(p.Rect) })
			if !holds {
				want++
			}
		}
		got := 0
		for _, s := range Trimmer(r, *m.Trim).Shapes {
			if s.Class == Remove {
				got++
			}
		}
		if got != want {
			t.Errorf("%s: %d offcuts are shown; want %d", m.Says, got, want)
		}
		if offcuts += want; want == 0 {
			kept++
		}
	}
	if kept == 0 || offcuts == 0 {
		t.Errorf("%d cuts keep both parts, %d leave an offcut", kept, offcuts)
	}
}
