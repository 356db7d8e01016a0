package dress

import (
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
)

const mm = measure.Millimetre

func crossFaces(t *testing.T) []pattern.Face {
	t.Helper()
	h := 20 * mm
	g := pattern.NewGrid([]measure.Length{h, 50 * mm, h}, []measure.Length{h, 40 * mm, h}, `
		.     back   .
		left  base   right
		.     front  .`)
	g.Role(pattern.Panel, "base")
	g.Up("base", "left", "right", "back", "front")
	p, err := g.Pattern()
	if err != nil {
		t.Fatal(err)
	}
	f, err := p.Faces()
	if err != nil {
		t.Fatal(err)
	}
	return f
}

func twoLayers(where Where) Dressing {
	return Dressing{Piece: "base", Where: where, Layers: []Layer{
		{Card: paper.Card{Name: "plum", Thickness: 300 * measure.Micrometre}, Border: 2 * mm},
		{Card: paper.Card{Name: "stars", Thickness: 150 * measure.Micrometre, Direction: paper.OneWayUp}, Border: mm},
	}}
}

func TestMatsAreSmallerByTheirBorders(t *testing.T) {
	mats, err := twoLayers(Walls).Mats(crossFaces(t))
	if err != nil {
		t.Fatal(err)
	}
	if len(mats) != 8 {
		t.Fatalf("%d mats for four walls in two layers", len(mats))
	}
	for _, m := range mats {
		want := map[string][2]measure.Length{"back": {50 * mm, 20 * mm}, "front": {50 * mm, 20 * mm}, "left": {40 * mm, 20 * mm}, "right": {40 * mm, 20 * mm}}[m.Face]
		less := 4 * mm
		if m.Layer == 2 {
			less = 6 * mm
		}
		if m.Width != want[0]-less || m.Height != want[1]-less {
			t.Errorf("%s layer %d is %v × %v mm, height upwards", m.Face, m.Layer, m.Width.MM(), m.Height.MM())
		}
	}
}

func TestWhereMatsGo(t *testing.T) {
	for where, n := range map[Where]int{Walls: 4, Top: 1, Both: 5} {
		d := twoLayers(where)
		d.Layers = d.Layers[:1]
		mats, err := d.Mats(crossFaces(t))
		if err != nil || len(mats) != n {
			t.Errorf("%s: %d mats, %v; want %d", where, len(mats), err, n)
		}
		if _, err := ParseWhere(string(where)); err != nil {
			t.Error(err)
		}
	}
	if _, err := ParseWhere("ceiling"); err == nil {
		t.Error("a mat on the ceiling was accepted")
	}
}

func TestThicknessBetween(t *testing.T) {
	all := []Dressing{twoLayers(Walls)}
	if got := Thickness(all, "base", pattern.Wall); got != 450*measure.Micrometre {
		t.Errorf("two layers are %v mm; want 0.45", got.MM())
	}
	if Thickness(all, "lid", pattern.Wall) != 0 || Thickness(all, "base", pattern.Panel) != 0 {
		t.Error("faces without mats have a thickness")
	}
}

func TestBordersTooWide(t *testing.T) {
	d := twoLayers(Walls)
	d.Layers[1].Border = 9 * mm
	_, err := d.Mats(crossFaces(t))
	if err == nil || !strings.Contains(err.Error(), "layers.2.border") || !strings.Contains(err.Error(), "narrower") {
		t.Errorf("borders that leave nothing give %v", err)
	}
}
