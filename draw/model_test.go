package draw

import (
	"math"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
)

// usualModel is a style at its usual size.
func usualModel(t *testing.T, id string) *Model {
	t.Helper()
	r, err := design.Make(t.Context(), design.New("x", measure.In, id))
	if err != nil {
		t.Fatalf("%s: %v", id, err)
	}
	return model(r)
}

// Every style's finished box stands on the table, its rings closed, and its
// motion runs from flat card to that box.
func TestEveryStyleStandsOnTheTable(t *testing.T) {
	for _, s := range style.All {
		m := usualModel(t, s.ID)
		motion, err := m.Motion()
		if err != nil {
			t.Fatalf("%s: %v", s.ID, err)
		}
		last := len(m.Stages) * framesPerStage
		if len(motion.Residual) != last+1 || motion.Residual[last] != 0 || motion.Residual[0] != 0 {
			t.Errorf("%s: rings open by %v at the end", s.ID, motion.Residual)
		}
		if motion.Height <= 0 || motion.Shut <= 0 || motion.Shut > motion.Reach {
			t.Errorf("%s: %v mm high, within %v of %v mm", s.ID, motion.Height, motion.Shut, motion.Reach)
		}
		for _, p := range motion.Pieces {
			if len(p.Poses) != last+1 || len(p.Poses[0]) != len(p.Faces) {
				t.Errorf("%s %s: %d frames of %d faces", s.ID, p.ID, len(p.Poses), len(p.Poses[0]))
			}
		}
		shut, err := m.At(m.Shut())
		if err != nil {
			t.Fatal(err)
		}
		lowest := math.Inf(1)
		for _, solid := range shut {
			for i, f := range solid.Faces {
				for _, q := range f.Polygon {
					lowest = min(lowest, solid.Poses[i].Place(q).Z)
				}
			}
		}
		if math.Abs(lowest) > 1e-6 {
			t.Errorf("%s: its lowest point is %v mm off the table", s.ID, lowest)
		}
		flat, err := m.At(0)
		if err != nil {
			t.Fatal(err)
		}
		for _, solid := range flat {
			n := solid.Poses[0].Normal()
			for _, p := range solid.Poses {
				if d := p.Normal().X*n.X + p.Normal().Y*n.Y + p.Normal().Z*n.Z; math.Abs(d-1) > 1e-9 {
					t.Errorf("%s %s: it is not flat to begin with", s.ID, solid.Part.ID)
				}
			}
		}
	}
}

// From flat to shut no card has to bend where it need not: rings stay closed,
// but for the fins of a ridge, and no face jumps from one frame to the next.
func TestMotionBendsNoCard(t *testing.T) {
	for _, c := range []struct {
		id, option, choice string
		bends              float64
	}{
		{"gable-lid", "", "", 12}, {"facet-basket", "", "", 0.05}, {"flat-fold-tray", "", "", 0.05}, {"blossom-box", "", "", 0.05},
		{"woven-basket", "", "", 0.05}, {"tall-box", "top", "clip", 19}, {"fold-top-bag", "", "", 0.05}, {"fold-out-carrier", "form", "strip", 0.05},
		{"corner-shells", "", "", 0.05},
	} {
		in := design.New("x", measure.In, c.id)
		if c.option != "" {
			in.Choices[c.option] = c.choice
		}
		r, err := design.Make(t.Context(), in)
		if err != nil {
			t.Fatalf("%s: %v", c.id, err)
		}
		m := model(r)
		motion, err := m.Motion()
		if err != nil {
			t.Fatal(err)
		}
		for frame, open := range motion.Residual {
			if open > c.bends {
				t.Errorf("%s: at frame %d rings open by %v mm", c.id, frame, open)
			}
		}
		for _, p := range motion.Pieces {
			for frame := 1; frame < len(p.Poses); frame++ {
				for k := range p.Faces {
					a, b := p.Poses[frame-1][k], p.Poses[frame][k]
					dot := 0.0
					for i := range 4 {
						dot += a[i] * b[i]
					}
					if turn := 2 * math.Acos(min(1, math.Abs(dot))) * 180 / math.Pi; turn > 45 {
						t.Errorf("%s: %s of %s turns by %.0f° from frame %d", c.id, p.Faces[k].Name, p.Name, turn, frame-1)
					}
				}
			}
		}
	}
}

// A model moves pieces apart to fold them; the box's own parts stay where they
// are.
func TestModelLeavesThePartsAlone(t *testing.T) {
	r, err := design.Make(t.Context(), design.New("x", measure.In, "divider-grid"))
	if err != nil {
		t.Fatal(err)
	}
	before := r.Parts[0].Places[0]
	if _, err := model(r).Motion(); err != nil {
		t.Fatal(err)
	}
	if r.Parts[0].Places[0] != before {
		t.Error("drawing a box moved its dividers")
	}
}

func TestFoldedModelFile(t *testing.T) {
	text, err := usualModel(t, "tray-lid").OBJ()
	if err != nil {
		t.Fatal(err)
	}
	corners, polygons := 0, 0
	for line := range strings.Lines(string(text)) {
		switch {
		case strings.HasPrefix(line, "v "):
			corners++
		case strings.HasPrefix(line, "f "):
			polygons++
			if n := len(strings.Fields(line)) - 1; n < 3 {
				t.Errorf("a face of %d corners", n)
			}
		}
	}
	if polygons != 18 || corners < 4*polygons || strings.Count(string(text), "\no ") != 2 {
		t.Errorf("%d faces, %d corners in\n%s", polygons, corners, text)
	}
}

// Glued layers are set off on the side they are glued on, mats go along.
func TestMotionCarriesLayersAndMats(t *testing.T) {
	motion, err := model(diceSet(t)).Motion()
	if err != nil {
		t.Fatal(err)
	}
	mats := 0
	for _, p := range motion.Pieces {
		for _, f := range p.Faces {
			mats += len(f.Mats)
			tab := strings.Contains(f.Name, ".")
			if tab != (f.Lift < 0) {
				t.Errorf("%s %s is set off by %v mm", p.ID, f.Name, f.Lift)
			}
		}
	}
	if mats != 1 {
		t.Errorf("%d mats are shown; want the lid's", mats)
	}
}

func TestNumbersKeepClearOfEachOther(t *testing.T) {
	var row tiers
	if a, b := row.place(100, "1 1/2"), row.place(400, "5 1/2"); a != 0 || b != 0 {
		t.Errorf("numbers far apart stand out by %v and %v", a, b)
	}
	if c := row.place(420, "5 5/8"); c != numberSize {
		t.Errorf("a number with no room stands out by %v; want one tier", c)
	}
}

// A paper over a window has the same hole in every picture: in space, flat, and folded, where what
// is painted last over its middle is the dark inside.
func TestPapersAreOpenOverWindows(t *testing.T) {
	in, err := design.Read([]byte(`{"brevium":1,"units":"mm","style":"tray-lid","size":{"length":100,"width":80,"height":40},
	 "mats":[{"piece":"lid","where":"top","layers":[{"card":{"name":"Snow"},"border":3}]}],
	 "placed":[{"what":"window","shape":"rectangle","width":50,"height":30,"on":{"piece":"lid","face":"top"},"film":true}]}`))
	if err != nil {
		t.Fatal(err)
	}
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	m := ModelOf(r, false)
	motion, err := m.Motion()
	if err != nil {
		t.Fatal(err)
	}
	holes := 0
	for _, piece := range motion.Pieces {
		for _, f := range piece.Faces {
			for _, mat := range f.Mats {
				if len(mat.Holes) != len(f.Holes) {
					t.Errorf("%s: the paper has %d holes, the card %d", f.Name, len(mat.Holes), len(f.Holes))
				}
				holes += len(mat.Holes)
			}
		}
	}
	if holes != 1 {
		t.Errorf("%d papers are open in space; want 1", holes)
	}
	net := Net{Part: r.Parts[1].Part, Mats: r.Mats, Units: measure.MM, Tick: in.Tools.Tick}.Picture()
	open := 0
	for _, s := range net.Shapes {
		if s.Class == MatOne || s.Class == MatTwo {
			open += len(s.Loops) - 1
		}
	}
	if open != 1 {
		t.Errorf("flat, %d holes are in the papers; want 1", open)
	}
	look, err := m.Look("box")
	if err != nil {
		t.Fatal(err)
	}
	paper, dark := -1, -1
	for i, s := range look.Shapes {
		switch {
		case s.Class == MatOne || s.Class == MatTwo:
			paper = i
		case s.Class == CardInside && len(s.Loops[0]) == 4 && paper >= 0 && i == paper+1:
			dark = i
		}
	}
	if paper < 0 || dark < paper {
		t.Errorf("folded, the paper is painted %d and the window %d", paper, dark)
	}
}
