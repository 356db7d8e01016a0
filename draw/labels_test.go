package draw

import (
	"slices"
	"testing"

	"brevium/core/design"
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
