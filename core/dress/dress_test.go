package dress

import (
	"fmt"
	"math"
	"slices"
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
	base := g.Face("base")
	g.Role(pattern.Panel, base)
	g.Up(base, g.All("left", "right", "back", "front")...)
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
		{Card: paper.Card{Name: "plum", Thickness: 300 * measure.Micrometre}, Border: Even(2 * mm)},
		{Card: paper.Card{Name: "stars", Thickness: 150 * measure.Micrometre, Direction: paper.OneWayUp}, Border: Even(mm)},
	}}
}

func TestMatsAreSmallerByTheirBorders(t *testing.T) {
	mats, err := twoLayers(Walls).Mats(&pattern.Pattern{}, crossFaces(t), measure.Tick(mm/2))
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
		mats, err := d.Mats(&pattern.Pattern{}, crossFaces(t), measure.Tick(mm/2))
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

// What is glued to something shows on no side: no paper goes there, and one that is named is refused.
func TestNoPaperOnWhatIsGlued(t *testing.T) {
	p := &pattern.Pattern{Glue: []pattern.Glue{{Face: "left", Outside: true, Onto: "right"}}}
	d := twoLayers(Walls)
	d.Layers = d.Layers[:1]
	for _, c := range []struct {
		faces []string
		side  Side
		want  int
	}{{nil, "", 3}, {nil, Inside, 4}, {[]string{"front"}, "", 1}} {
		d.Faces, d.Side = c.faces, c.side
		if mats, err := d.Mats(p, crossFaces(t), measure.Tick(mm/2)); err != nil || len(mats) != c.want {
			t.Errorf("%v %s: %d mats, %v; want %d", c.faces, c.side, len(mats), err, c.want)
		}
	}
	d.Faces, d.Side = []string{"left"}, ""
	if _, err := d.Mats(p, crossFaces(t), measure.Tick(mm/2)); err == nil {
		t.Error("paper on a glued face was taken")
	}
}

func TestThicknessBetween(t *testing.T) {
	all := []Dressing{twoLayers(Walls)}
	marks := []pattern.Mark{{Name: "front", Role: pattern.Wall}, {Name: "floor", Role: pattern.Panel}}
	if got := Thickness(all, "base", marks, pattern.Wall, Outside, 0); got != 450*measure.Micrometre {
		t.Errorf("two layers are %v mm; want 0.45", got.MM())
	}
	if Thickness(all, "lid", marks, pattern.Wall, Outside, 0) != 0 || Thickness(all, "base", marks, pattern.Panel, Outside, 0) != 0 ||
		Thickness(all, "base", marks, pattern.Wall, Inside, 0) != 0 {
		t.Error("faces without mats have a thickness")
	}
}

func TestBordersTooWide(t *testing.T) {
	d := twoLayers(Walls)
	d.Layers[1].Border = Even(9 * mm)
	_, err := d.Mats(&pattern.Pattern{}, crossFaces(t), measure.Tick(mm/2))
	if err == nil || !strings.Contains(err.Error(), "layers[1].border") || !strings.Contains(err.Error(), "narrower") {
		t.Errorf("borders that leave nothing give %v", err)
	}
}

// On a six-sided floor a mat is a hexagon, and on each wall, whichever way it
// is turned on the card, a rectangle as high as the wall less its borders.
func TestMatsOnAHexagon(t *testing.T) {
	b := pattern.NewBuilder()
	var corners []pattern.Point
	for k := range 6 {
		sin, cos := math.Sincos(math.Pi/3*float64(k) + 0.1)
		corners = append(corners, pattern.Pt(50*cos, 50*sin))
	}
	floor := b.Polygon("floor", corners...)
	b.Role(pattern.Panel, floor)
	for i := range 6 {
		b.Up(floor, b.Beside(floor, i, fmt.Sprint("wall.", i+1), pattern.Step{Turn: 90, Length: 30}, pattern.Step{Turn: 90, Length: 50}))
	}
	p, err := b.Pattern()
	if err != nil {
		t.Fatal(err)
	}
	faces, err := p.Faces()
	if err != nil {
		t.Fatal(err)
	}
	d := twoLayers(Both)
	d.Layers = d.Layers[:1]
	mats, err := d.Mats(&pattern.Pattern{}, faces, measure.Tick(measure.Micrometre))
	if err != nil || len(mats) != 7 {
		t.Fatalf("%d mats, %v", len(mats), err)
	}
	for _, m := range mats {
		if m.Face == "floor" {
			// Two apothems of 25·√3 mm, less a border of 2 mm on either side.
			if narrow, _ := pattern.Narrowest(m.On[0].Corners); len(m.On[0].Corners) != 6 || math.Abs(narrow-(50*math.Sqrt(3)-4)) > 1e-4 {
				t.Errorf("the floor's mat has %d corners and is %v mm across the flats", len(m.On[0].Corners), narrow)
			}
			continue
		}
		if (m.Width-46*mm).Abs() > 20 || (m.Height-26*mm).Abs() > 20 || len(m.On[0].Corners) != 4 {
			t.Errorf("%s: %v × %v mm with %d corners; want 46 × 26", m.Face, m.Width.MM(), m.Height.MM(), len(m.On[0].Corners))
		}
	}
}

// Two equal right triangles come out of one rectangle, halved from corner to
// corner; where the pattern has an up the second would stand on its head.
func TestTrianglesAreHalvedFromARectangle(t *testing.T) {
	triangle := func(id string, card paper.Card, shape ...pattern.Point) Mat {
		return Mat{ID: id, Words: id, Card: card, Width: 40 * mm, Height: 30 * mm, Shape: shape}
	}
	plain, upright := paper.Card{Name: "plum"}, paper.Card{Name: "stars", Direction: paper.OneWayUp}
	right := []pattern.Point{{X: 0, Y: 0}, {X: 40, Y: 0}, {X: 0, Y: 30}}
	other := []pattern.Point{{X: 40, Y: 0}, {X: 40, Y: 30}, {X: 0, Y: 30}}
	mirrored := []pattern.Point{{X: 0, Y: 0}, {X: 40, Y: 0}, {X: 40, Y: 30}}
	for _, c := range []struct {
		name  string
		mats  []Mat
		gives []int
	}{
		{"equal", []Mat{triangle("a", plain, right...), triangle("b", plain, right...), triangle("c", plain, right...)}, []int{2, 1}},
		{"mirrored", []Mat{triangle("a", plain, right...), triangle("b", plain, mirrored...)}, []int{1, 1}},
		{"one way up", []Mat{triangle("a", upright, right...), triangle("b", upright, right...)}, []int{1, 1}},
		{"one way up, the other half", []Mat{triangle("a", upright, right...), triangle("b", upright, other...)}, []int{2}},
	} {
		var got []int
		for _, b := range Blanks(c.mats) {
			got = append(got, len(b.Gives))
			if b.Width != 40*mm || b.Height != 30*mm {
				t.Errorf("%s: a blank of %v × %v mm", c.name, b.Width.MM(), b.Height.MM())
			}
		}
		if !slices.Equal(got, c.gives) {
			t.Errorf("%s: the blanks give %v; want %v", c.name, got, c.gives)
		}
	}
}

// Faces are named one by one; borders may differ across and up; four layers lie
// on one another; a mat inside is seen from the other side.
func TestMatsOnNamedFaces(t *testing.T) {
	layer := func(across, up measure.Length) Layer {
		return Layer{Card: paper.Card{Name: "plum", Thickness: 300 * measure.Micrometre}, Border: Border{across, up}}
	}
	d := Dressing{Piece: "base", Faces: []string{"front"}, Layers: []Layer{layer(3*mm, 2*mm), layer(mm, mm), layer(mm, 2*mm), layer(mm, mm)}}
	mats, err := d.Mats(&pattern.Pattern{}, crossFaces(t), measure.Tick(mm/2))
	if err != nil || len(mats) != 4 {
		t.Fatalf("%d mats, %v", len(mats), err)
	}
	for i, want := range [][2]measure.Length{{44 * mm, 16 * mm}, {42 * mm, 14 * mm}, {40 * mm, 10 * mm}, {38 * mm, 8 * mm}} {
		if m := mats[i]; m.Width != want[0] || m.Height != want[1] || m.Layer != i+1 || m.Face != "front" {
			t.Errorf("layer %d on the %s is %v × %v; want %v", m.Layer, m.Face, m.Width.MM(), m.Height.MM(), want)
		}
	}
	d.Side = Inside
	if mats, err = d.Mats(&pattern.Pattern{}, crossFaces(t), measure.Tick(mm/2)); err != nil || mats[0].Side != Inside || !strings.HasSuffix(mats[0].Words, "inside") {
		t.Errorf("inside: %+v, %v", mats, err)
	}
	d.Faces = []string{"roof"}
	if _, err = d.Mats(&pattern.Pattern{}, crossFaces(t), measure.Tick(mm/2)); err == nil || !strings.HasPrefix(err.Error(), "faces[0]:") {
		t.Errorf("a face that is not there: %v", err)
	}
}

// Neighbours in a row carry one strip; others do not.
func TestMatsJoined(t *testing.T) {
	d := Dressing{Piece: "base", Faces: []string{"left", "base", "right"}, Joined: true, Layers: []Layer{{Card: paper.Card{Thickness: 150 * measure.Micrometre}, Border: Even(2 * mm)}}}
	mats, err := d.Mats(&pattern.Pattern{}, crossFaces(t), measure.Tick(mm/2))
	if err != nil || len(mats) != 1 || mats[0].Width+mats[0].Height != 86*mm+36*mm || len(mats[0].On) != 3 {
		t.Errorf("a strip over three: %+v, %v", mats, err)
	}
	d.Faces = []string{"left", "front"}
	if _, err = d.Mats(&pattern.Pattern{}, crossFaces(t), measure.Tick(mm/2)); err == nil {
		t.Error("faces round a corner are joined")
	}
}

// What is glued on a side carries no mat there.
func TestNoMatsUnderGlue(t *testing.T) {
	faces := crossFaces(t)
	p := &pattern.Pattern{Glue: []pattern.Glue{{Face: "left", Outside: true, Area: faces[0].Polygon, Onto: "base"}}}
	for _, side := range []Side{Outside, Inside} {
		d := Dressing{Piece: "base", Faces: []string{"left"}, Side: side, Layers: twoLayers(Walls).Layers}
		if _, err := d.Mats(p, faces, measure.Tick(mm/2)); (err != nil) != (side == Outside) {
			t.Errorf("%s of what is glued outside: %v", side, err)
		}
		if open := slices.ContainsFunc(Open(p, faces, side), func(f pattern.Face) bool { return f.Name == "left" }); open != (side == Inside) {
			t.Errorf("%s is offered: %v", side, open)
		}
	}
}

// By hand: 40.3 mm along and 20.7 mm up come to 40 and 20 on marks of a millimetre, however the
// face lies on the card.
func TestOnMarksEachWayByItself(t *testing.T) {
	for _, fr := range []pattern.Frame{{Along: pattern.Pt(1, 0), Up: pattern.Pt(0, -1)}, {Along: pattern.Pt(0, 1), Up: pattern.Pt(1, 0)}} {
		at := func(along, up float64) pattern.Point { return fr.Along.Scale(along).Add(fr.Up.Scale(up)) }
		got := onMarks([]pattern.Point{at(0, 20.7), at(40.3, 20.7), at(40.3, 0), at(0, 0)}, fr, measure.Tick(measure.Millimetre), Layer{})
		if along, up := fr.Size(got); math.Abs(along-40) > 1e-9 || math.Abs(up-20) > 1e-9 {
			t.Errorf("along %v it is %v × %v", fr.Along, along, up)
		}
	}
}

// A size of the layer's own is cut as it is given; only the other side goes down to a mark.
func TestOnlyWhatIsNotGivenIsRounded(t *testing.T) {
	at := func(x, y float64) pattern.Point { return pattern.Pt(x, y) }
	square := []pattern.Point{at(0, 20.7), at(40.3, 20.7), at(40.3, 0), at(0, 0)}
	slices.Reverse(square)
	fr := pattern.Face{Polygon: square, Up: at(0, -1)}.Frame()
	along, up := fr.Size(onMarks(square, fr, measure.Tick(mm), Layer{Width: 40300 * measure.Micrometre}))
	if math.Abs(along-40.3) > 1e-9 || math.Abs(up-20) > 1e-9 {
		t.Errorf("40.3 mm given and 20.7 left: cut %v × %v", along, up)
	}
}
