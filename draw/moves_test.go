package draw

import (
	"fmt"
	"slices"
	"testing"

	"brevium/core/design"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
)

// movesOf is a box of a style with its moves.
func movesOf(t *testing.T, id string, unit measure.Unit) (*design.Result, []Moved) {
	t.Helper()
	in := design.New("Winter fair", unit, id)
	in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 900*measure.Millimetre, 900*measure.Millimetre, 900*measure.Millimetre
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	return r, Moves(r, OpenModelOf(r, true), r.Steps)
}

// line is a line to a hundredth of a millimetre, whichever way it runs.
func line(a, b pattern.Point) string {
	ends := []string{fmt.Sprintf("%.2f %.2f", a.X+1e-9, a.Y+1e-9), fmt.Sprintf("%.2f %.2f", b.X+1e-9, b.Y+1e-9)}
	slices.Sort(ends)
	return ends[0] + ", " + ends[1]
}

// What a picture shows in the accent is what the hand changed, no less and no more: the table is
// asked here by the same moves, and the lines are taken back out of the picture.
func TestTheAccentIsWhatTheHandChanged(t *testing.T) {
	t.Parallel()
	for _, s := range style.All {
		r, moves := movesOf(t, s.ID, measure.MM)
		var table hand.Table
		drawn := 0
		for _, m := range moves {
			was := table.Look(m.Step.Piece)
			for _, x := range recipe.Flat([]recipe.Step{m.Step}) {
				if err := table.Do(x.Piece, x.Does); err != nil {
					t.Fatalf("%s, %q: %v", s.ID, x.Text, err)
				}
			}
			is := table.Look(m.Step.Piece)
			if m.shows || m.part < 0 || was.Width == 0 || is.Round {
				continue
			}
			p := &Picture{Width: 60, Height: 30, U: moveStroke}
			f := p.place(is.Width, is.Height, 0, 0, p.Width, p.Height)
			m.flat(p, 0, 0, p.Width, p.Height)
			back := func(q pattern.Point) pattern.Point { return pattern.Pt((q.X-f.x)/f.k, (q.Y-f.y)/f.k) }
			var got, want []string
			for _, x := range p.Shapes {
				if (x.Class == Now || x.Class == NowScore) && len(x.Loops) == 1 && len(x.Loops[0]) == 2 {
					got = append(got, line(back(x.Loops[0][0]), back(x.Loops[0][1])))
				}
			}
			for _, lines := range [][]pattern.Segment{is.Scores[len(was.Scores):], is.Over[len(was.Over):], is.Cuts[len(was.Cuts):], is.Marks[len(was.Marks):]} {
				for _, x := range lines {
					want = append(want, line(x.A, x.B))
				}
			}
			if is.Folded && !was.Folded {
				for _, x := range is.Creases {
					want = append(want, line(x.A, x.B))
				}
			}
			slices.Sort(got)
			slices.Sort(want)
			if !slices.Equal(got, want) {
				t.Errorf("%s, %q: drawn\n%q\nand done\n%q", s.ID, m.Step.Text, got, want)
			}
			drawn += len(got)
		}
		if made := slices.ContainsFunc(r.Parts, func(p design.Part) bool { return len(p.Pattern.Scores.Vertical) > 0 }); made && drawn == 0 {
			t.Errorf("%s: no line is drawn", s.ID)
		}
	}
}

// Every number that is set on the board stands in the picture, where its line is.
func TestNumbersStandByTheirLines(t *testing.T) {
	t.Parallel()
	for _, s := range style.All {
		_, moves := movesOf(t, s.ID, measure.In)
		for n, m := range moves {
			if m.shows {
				continue
			}
			window := [][2]float64{{60, 30}, {42, 23}}[n%2]
			p, err := m.Picture(window[0], window[1])
			if err != nil {
				t.Fatalf("%s, %q: %v", s.ID, m.Step.Text, err)
			}
			f := p.place(m.Is.Width, m.Is.Height, 0, 0, p.Width, p.Height)
			for _, pass := range m.Step.Passes {
				for _, at := range pass.At {
					from := (at - pass.Shim).MM()
					found := slices.ContainsFunc(p.Shapes, func(x Shape) bool {
						if x.Label != m.number(at) {
							return false
						}
						q := pattern.Pt((x.At.X-f.x)/f.k, (x.At.Y-f.y-x.Size/3)/f.k)
						switch pass.Edge {
						case "right":
							return near(q.X, m.Is.Width-from)
						case "top":
							return near(q.Y, from)
						case "bottom":
							return near(q.Y, m.Is.Height-from)
						}
						return near(q.X, from)
					})
					if !found {
						t.Errorf("%s, %q: %s is not in the picture", s.ID, m.Step.Text, m.number(at))
					}
				}
			}
			for _, x := range p.Shapes {
				wide := 0.45 * x.Size * float64(len([]rune(x.Label)))
				if x.Label != "" && (x.At.X-map[Anchor]float64{Middle: wide / 2, End: wide}[x.Anchor] < 0 || x.At.X > p.Width || x.At.Y-0.6*x.Size < 0 || x.At.Y > p.Height) {
					t.Errorf("%s, %q: %q stands outside the picture at %.1f, %.1f", s.ID, m.Step.Text, x.Label, x.At.X, x.At.Y)
				}
			}
		}
	}
}
