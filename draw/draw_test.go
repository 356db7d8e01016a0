package draw

import (
	"encoding/xml"
	"flag"
	"fmt"
	"io"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/design"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

var update = flag.Bool("update", false, "write the golden drawings anew; look at them")

func diceSet(t testing.TB) *design.Result {
	t.Helper()
	in, err := design.Read([]byte(`{"brevium":1,"name":"Dice","units":"in","style":"tray-lid",
	 "size":{"length":"4 in","width":"3 in","height":"1 1/2 in"},"card":{"thickness":0.3},
	 "options":{"lid.depth":"1 in","lid.allowance":"1/16 in"},
	 "mats":[{"piece":"lid","where":"top","layers":[{"card":{"name":"A & B <x>"},"border":"1/8 in"}]}]}`))
	if err != nil {
		t.Fatal(err)
	}
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

func model(r *design.Result) *Model {
	parts, folded := r.Pieces()
	return NewModel(parts, folded, r.Mats, r.Shown(), r.Box.Shuts)
}

// pictures draws one of everything.
func pictures(t testing.TB) map[string]*Picture {
	r := diceSet(t)
	in := measure.In
	net := Net{Part: r.Parts[0].Part, Mats: r.Mats, Fence: recipe.Left, Units: in, Tick: in.Tick()}
	lid := net
	lid.Part, lid.Fence = r.Parts[1].Part, recipe.Right
	m := model(r)
	box, err := m.Look("Dice")
	if err != nil {
		t.Fatal(err)
	}
	half, err := m.Piece("base").Picture("Base", 1.5)
	if err != nil {
		t.Fatal(err)
	}
	tight := r.Fits[0].Pair
	tight.OuterSpan -= measure.Millimetre
	out := map[string]*Picture{
		"net":             net.Picture(),
		"net-right-fence": lid.Picture(),
		"true-size":       net.TrueSize(),
		"box":             box,
		"half":            half,
		"stack-up":        StackUp(r.Fits[0]),
		"stack-up-tight":  StackUp(tight.Do(0)),
		"sheet": Sheet{
			Laid:  r.Stocks[0].Layout.Sheets[0],
			Label: func(int) PieceLabel { return PieceLabel{Name: "Base"} },
			Units: in,
			Tick:  in.Tick(),
		}.Picture(),
	}
	for i, e := range Legend() {
		out[fmt.Sprint("legend-", i)] = e.Sample
	}
	return out
}

// Every picture is well-formed, and nothing but its texts lies outside it.
func TestPicturesAreWellFormed(t *testing.T) {
	for name, p := range pictures(t) {
		for _, text := range []string{p.Inline()} {
			d := xml.NewDecoder(strings.NewReader(text))
			for {
				if _, err := d.Token(); err == io.EOF {
					break
				} else if err != nil {
					t.Fatalf("%s: %v", name, err)
				}
			}
			if strings.Contains(text, "NaN") || strings.Contains(text, "style=") {
				t.Errorf("%s has a number that is none, or a style the page would refuse", name)
			}
		}
		for _, s := range p.Shapes {
			for _, loop := range s.Loops {
				for _, q := range loop {
					if q.X < p.X-1e-9 || q.Y < p.Y-1e-9 || q.X > p.X+p.Width+1e-9 || q.Y > p.Y+p.Height+1e-9 {
						t.Errorf("%s: %s lies outside at %v", name, s.Class, q)
					}
				}
			}
		}
	}
}

func TestGoldenDrawings(t *testing.T) {
	for _, name := range []string{"net", "box", "stack-up-tight"} {
		got := []byte(pictures(t)[name].Inline())
		file := filepath.Join("testdata", name+".svg")
		if *update {
			if err := os.MkdirAll("testdata", 0o755); err != nil {
				t.Fatal(err)
			}
			if err := os.WriteFile(file, got, 0o644); err != nil {
				t.Fatal(err)
			}
		}
		want, err := os.ReadFile(file)
		if err != nil || string(got) != string(want) {
			t.Errorf("%s is drawn otherwise than in %s, %v; if that is meant, run go test ./draw -update and look at it", name, file, err)
		}
	}
}

func TestScoreNumbersStandAsTheyAreRead(t *testing.T) {
	find := func(p *Picture, label string) (pattern.Point, float64) {
		for _, s := range p.Shapes {
			if s.Class == TextNumber && s.Label == label {
				return s.At, s.Angle
			}
		}
		t.Errorf("%s: no number %s", p.Title, label)
		return pattern.Point{}, 0
	}
	all := pictures(t)
	r, err := design.Sketch(design.New("Sleeve", measure.In, "drawer-sleeve"))
	if err != nil {
		t.Fatal(err)
	}
	net := Net{Part: r.Parts[1].Part, Fence: recipe.Left, Units: measure.In, Tick: measure.In.Tick()}
	if at, angle := find(net.Picture(), "3 1/16"); at.X <= 103 || math.Abs(at.Y-3.0625*25.4) > 1e-6 || angle != 90 {
		t.Errorf("3 1/16 stands at %v, %v°", at, angle)
	}
	// With the fence on the right the level ones stand on the left.
	net.Fence = recipe.Right
	if at, _ := find(net.Picture(), "3 1/16"); at.X >= 0 {
		t.Errorf("from the right, 3 1/16 stands at %v", at)
	}
	// What is scored alike from each edge has the same number at all four.
	if at, angle := find(all["net"], "1 1/2"); math.Abs(at.X-38.1) > 1e-6 || at.Y >= 0 || angle != 0 {
		t.Errorf("1 1/2 stands at %v, %v°", at, angle)
	}
}

func TestHatchStaysInside(t *testing.T) {
	outer, hole := rect(0, 0, 100, 60), rect(20, 20, 30, 20)
	lines := hatch([][]pattern.Point{outer, hole}, 7)
	if len(lines) < 20 {
		t.Fatalf("only %d lines", len(lines))
	}
	for _, l := range lines {
		mid := l[0].Add(l[1]).Scale(0.5)
		if !pattern.Contains(outer, mid) || pattern.Contains(hole, mid) {
			t.Errorf("a hatch line runs through %v", mid)
		}
	}
}

// Painting order: a panel is never painted before what it hides.
func TestPaintingOrder(t *testing.T) {
	square := func(z, size float64) panel {
		n := r3.Vec{Z: 1}
		return panel{points: []r3.Vec{{Z: z}, {X: size, Z: z}, {X: size, Y: size, Z: z}, {Y: size, Z: z}}, normal: n, at: z}
	}
	wall := panel{
		points: []r3.Vec{{X: 5, Y: -5, Z: -5}, {X: 5, Y: 15, Z: -5}, {X: 5, Y: 15, Z: 15}, {X: 5, Y: -5, Z: 15}},
		normal: r3.Vec{X: 1},
		at:     5,
	}
	var heights []float64
	pieces := 0
	plant([]panel{square(0, 10), square(10, 10), wall, square(5, 10)}).paint(r3.Vec{Z: 1}, func(q panel) {
		pieces++
		if q.normal.Z == 1 {
			heights = append(heights, q.at)
		}
	})
	for i := 1; i < len(heights); i++ {
		if heights[i] < heights[i-1] {
			t.Errorf("painted at heights %v, seen from above", heights)
		}
	}
	if pieces < 4 {
		t.Errorf("%d of 4 panels were painted", pieces)
	}
}

func TestStackUpSaysWhatIsInTheWay(t *testing.T) {
	all := pictures(t)
	has := func(name, label string) bool {
		for _, s := range all[name].Shapes {
			if s.Label == label {
				return true
			}
		}
		return false
	}
	if !has("stack-up", "gap") || has("stack-up", "in the way") || !has("stack-up-tight", "in the way") {
		t.Error("the stack-up does not tell a gap from what is in the way")
	}
	if fit.Judge(-measure.Millimetre) != fit.WontGoOn {
		t.Error("a negative gap goes on")
	}
}

func BenchmarkDrawings(b *testing.B) {
	r := diceSet(b)
	for b.Loop() {
		p, err := model(r).Picture("x", 9)
		if err != nil {
			b.Fatal(err)
		}
		p.Inline()
		for _, part := range r.Parts {
			Net{Part: part.Part, Mats: r.Mats, Fence: recipe.Left, Units: measure.In, Tick: measure.In.Tick()}.Picture().Inline()
		}
	}
}

// Two faces folded flat onto each other: the one whose outside is seen covers the other's inside,
// in whichever order they come.
func TestFacesInOnePlaneShowTheirOutside(t *testing.T) {
	square := []r3.Vec{{}, {X: 1}, {X: 1, Y: 1}, {Y: 1}}
	up, down := panel{points: square, normal: r3.Vec{Z: 1}, owner: "front"}, panel{points: square, normal: r3.Vec{Z: -1}, owner: "back"}
	for _, panels := range [][]panel{{up, down}, {down, up}} {
		for _, from := range []float64{1, -1} {
			last := ""
			plant(panels).paint(r3.Vec{X: 0.2, Z: from}, func(q panel) { last = q.owner })
			if want := map[float64]string{1: "front", -1: "back"}[from]; last != want {
				t.Errorf("seen from %v the %s lies over the other; want the %s", from, last, want)
			}
		}
	}
}
