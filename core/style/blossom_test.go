package style

import (
	"math"
	"slices"
	"strings"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// The blossom box's example: 90 square and 46 high of 0.3 mm card holds a liner
// of 88 with a gap of 0.8, on a sheet of 176 with scores at 44 and 132 both ways.
// A second one in inches: 4 in less three cards of 0.3 mm (two tabs and its own
// card) and the liner's own is 100.4 mm; the largest on eighths is 3 7/8.
func TestBlossomBoxByHand(t *testing.T) {
	for _, c := range []struct {
		box         *Box
		sheet, fold measure.Length
		gap         float64
	}{
		{inMetric(t, blossomBox, map[string]measure.Length{"length": 90 * mm, "height": 46 * mm}), 176 * mm, 44 * mm, 0.8},
		{build(t, blossomBox, lengths("length", 32, "height", 16, "liner", 31), nil), 62 * inch / 8, 31 * inch / 16, 101.6 - 1.2 - 98.425},
	} {
		scores := []measure.Length{c.fold, c.sheet - c.fold}
		liner := c.box.Parts[2]
		wantScores(t, liner, c.sheet, c.sheet, scores, scores)
		u := c.fold
		wantParts(t, liner.Pattern, u, [4]float64{0, 2, 2, 0}, [4]float64{2, 0, 4, 2}, [4]float64{2, 4, 4, 2}, [4]float64{0, 2, 2, 4},
			[4]float64{0, 0, 1, 1}, [4]float64{3, 1, 4, 0}, [4]float64{3, 3, 4, 4}, [4]float64{0, 4, 1, 3})
		if len(liner.Pattern.Slits) == 0 {
			t.Error("the middle is not cut")
		}
		gap := math.Inf(1)
		for _, p := range c.box.Fits {
			if p.Inner == "liner" && p.Axis == "length" {
				gap = p.Do(0).Gap.MM()
			}
		}
		if math.Abs(gap-c.gap) > 1e-3 {
			t.Errorf("the liner has %v mm; want %v", gap, c.gap)
		}
	}
}

// From open to shut the liner moves rigidly: rings stay closed, and nothing
// passes through anything. Shut, the edges' middles and the corners' tips meet in
// the middle, and every fin lies on the next point; open, the points stand clear
// of what goes in.
func TestBlossomMoves(t *testing.T) {
	for _, drop := range []measure.Length{0, mm} {
		b := inMetric(t, blossomBox, map[string]measure.Length{"length": 90 * mm, "height": 50 * mm, "drop": drop})
		liner := b.Parts[2]
		for n := 0; n <= 60; n++ {
			at := float64(n) / 60
			turns, err := liner.Way(at)
			if err != nil {
				t.Fatal(err)
			}
			f, err := liner.Pattern.Fold(liner.Root, func(i int) float64 { return turns[i] })
			if err != nil {
				t.Fatal(err)
			}
			if f.Residual > 1e-6 {
				t.Errorf("drop %v, at %.2f rings open by %v mm", drop.MM(), at, f.Residual)
			}
			for _, c := range f.Collisions() {
				t.Errorf("drop %v, at %.2f %s and %s pass through each other", drop.MM(), at, f.Faces[c[0]].Name, f.Faces[c[1]].Name)
			}
			if n == 60 {
				for i, c := range liner.Pattern.Creases {
					if math.Abs(turns[i]-c.Angle) > 1e-6 {
						t.Errorf("shut, the crease at %v is at %v; want %v", c.Segment, turns[i], c.Angle)
					}
				}
			}
		}
		shut := assembled(t, b, Finished)[2]
		rim := 50 - drop.MM()
		for i, f := range shut.Faces {
			name, _, _ := strings.Cut(f.Name, ".")
			tips := map[string]pattern.Point{"petal": petalTip, "half": cornerTip, "next": cornerTip}
			if tip, has := tips[name]; has {
				side := slices.Index(blossomSides, f.Name[len(name)+1:])
				at := shut.Poses[i].Place(blossom{half: b.Parts[2].Pattern.Width.MM() / 4}.at(tip, side))
				if r3.Norm(r3.Sub(at, r3.Vec{Z: rim})) > 1e-6 {
					t.Errorf("the tip of %s comes to %v", f.Name, at)
				}
			}
			if name == "follow" || name == "strip" {
				_, _, next := shut.Face("petal." + blossomSides[(slices.Index(blossomSides, f.Name[len(name)+1:])+1)%4])
				if over := shut.Overlap(i, next); math.Abs(over-f.Area()) > 1e-3 {
					t.Errorf("%s covers %v mm² of the next point", f.Name, over)
				}
			}
		}
		open := assembled(t, b, Open)[2]
		for i, f := range open.Faces {
			for _, q := range f.Polygon {
				at := open.Poses[i].Place(q)
				if in := b.Room.Largest; at.Z > rim+1 && max(math.Abs(at.X), math.Abs(at.Y)) < in.Length.MM()/2-0.5 {
					t.Errorf("drop %v: open, %s stands over the opening at %v", drop.MM(), f.Name, at)
				}
			}
		}
	}
}
