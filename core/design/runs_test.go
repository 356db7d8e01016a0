package design

import (
	"math"
	"slices"
	"strings"
	"testing"

	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/style"
)

// running is a base with a lid whose walls are dressed in one picture.
func running(unit measure.Unit, how dress.Run, border measure.Length) Inputs {
	in := New("Frieze", unit, "tray-lid")
	star := paper.Card{Name: "Star paper", GSM: 120, Thickness: 150 * measure.Micrometre, Direction: paper.OneWayUp}
	in.Mats = []dress.Dressing{{Piece: "base", Where: dress.Walls, Runs: how, Layers: []dress.Layer{
		{Card: UsualCard, Border: dress.Even(border)}, {Card: star, Border: dress.Even(border)},
	}}}
	return in
}

// The picture goes on round the corners: cut by the printed numbers and glued in
// the middle of its face, each paper shows at its edge what the one before would
// show there had it gone on.
func TestPictureRunsOn(t *testing.T) {
	t.Parallel()
	for _, c := range []struct {
		unit   measure.Unit
		border measure.Length
	}{{measure.In, measure.Inch / 16}, {measure.MM, 2 * measure.Millimetre}, {measure.In, 3 * measure.Millimetre}, {measure.CM, measure.Inch / 10}} {
		for _, how := range []dress.Run{dress.CutAway, dress.AllKept} {
			r := make_(t, running(c.unit, how, c.border))
			ruler := r.Inputs.Tools.Tick.Ruler()
			var walk []dress.Mat
			for _, m := range r.Mats {
				if m.Strip.ID != "" {
					walk = append(walk, m)
				}
			}
			slices.SortFunc(walk, func(a, b dress.Mat) int { return int(a.Strip.Phase() - b.Strip.Phase()) })
			var names []string
			for i, m := range walk {
				names = append(names, m.Face)
				if m.Strip.At%ruler.Length() != 0 || m.Width%ruler.Length() != 0 {
					t.Errorf("%s, %s: cut at %v, %v wide: no mark of the ruler", c.unit, m.Face, m.Strip.At.MM(), m.Width.MM())
				}
				if i == 0 {
					continue
				}
				before := walk[i-1]
				hidden := 0.0 // between the two papers, round the corner
				if how == dress.CutAway {
					hidden = (faceWidth(r, before) - before.Width.MM() + faceWidth(r, m) - m.Width.MM()) / 2
				}
				want := before.Strip.Phase().MM() + before.Width.MM() + hidden
				if off := m.Strip.Phase().MM() - want; math.Abs(off) > 0.1 {
					t.Errorf("%s, %s, %s: the picture jumps by %.3f mm at the corner", c.unit, how, m.Face, off)
				}
			}
			if !slices.Equal(names, []string{"right", "front", "left", "back"}) {
				t.Errorf("%s: round the box they are %v", c.unit, names)
			}
		}
	}
}

func faceWidth(r *Result, m dress.Mat) float64 {
	for _, p := range r.Parts {
		for _, f := range p.Faces {
			if p.ID == m.Piece && f.Name == m.Face {
				along, _ := f.Frame().Size(f.Polygon)
				return along
			}
		}
	}
	return math.NaN()
}

// By hand: a base of 4 × 3 in with borders of 1/16 and 1/16: papers 2 3/4 and
// 3 3/4 in wide, 1/4 in of picture under what shows at each corner. One end, the
// front and the other end make one strip of 9 3/4 in; with the back it would be 13 3/4, more
// than a sheet.
func TestStripsByHand(t *testing.T) {
	t.Parallel()
	r := make_(t, running(measure.In, dress.CutAway, measure.Inch/16))
	var strips []string
	for _, b := range r.Blanks {
		if b.Card.Name == "Star paper" {
			strips = append(strips, measure.Labels(measure.In, r.Inputs.Tools.Tick, b.Width, b.Height))
		}
	}
	slices.Sort(strips)
	if len(strips) != 2 || !strings.HasPrefix(strips[0], "3 3/4") || !strings.HasPrefix(strips[1], "9 3/4") {
		t.Errorf("the strips are %v", strips)
	}
	var told, glued string
	for _, s := range r.Steps {
		if strings.Contains(s.Text, "Cut one strip, 9 3/4 × ") {
			told = s.Text
		}
		if strings.HasPrefix(s.Text, "Glue the papers of the strip") {
			glued += s.Text
		}
	}
	for _, want := range []string{"from the left end, cut the strip apart at 2 3/4, 3, 6 3/4 and 7 in", "for the right end wall, front wall and left end wall", "fall away"} {
		if !strings.Contains(told, want) {
			t.Errorf("%q does not say %q", told, want)
		}
	}
	if !strings.Contains(glued, "runs round the corners") {
		t.Errorf("the gluing says %q", glued)
	}
	kept := make_(t, running(measure.In, dress.AllKept, measure.Inch/16))
	for _, s := range kept.Steps {
		if strings.Contains(s.Text, "fall away") {
			t.Errorf("all is kept, and yet: %s", s.Text)
		}
	}
}

func TestPicturesThatCannotRunOn(t *testing.T) {
	t.Parallel()
	in := running(measure.In, dress.CutAway, measure.Inch/16)
	in.Mats[0].Where, in.Mats[0].Faces = "", []string{"front"}
	if _, err := Make(t.Context(), in); err == nil || !strings.Contains(err.Error(), "mats[0].runs") {
		t.Errorf("on one wall: %v", err)
	}
	again, err := Read(running(measure.MM, dress.AllKept, 2*measure.Millimetre).Write())
	if err != nil || again.Mats[0].Runs != dress.AllKept {
		t.Errorf("written and read: %v, %v", again.Mats, err)
	}
}

// Every style's pieces have an order of walls without one named twice.
func TestWalkRoundEveryStyle(t *testing.T) {
	t.Parallel()
	for _, s := range style.All {
		r := make_(t, New(s.Name, measure.In, s.ID))
		for _, p := range r.Parts {
			names, err := r.round(p.ID)
			if err != nil {
				t.Fatal(err)
			}
			if seen := slices.Compact(slices.Sorted(slices.Values(names))); len(seen) != len(names) {
				t.Errorf("%s, %s: %v", s.ID, p.ID, names)
			}
		}
	}
}
