package inspect

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/style"
)

// The least that holds, in mm: a bridge of card between two cuts, and the
// space between two scores that a fold needs.
const (
	leastBridge = 3.0
	leastApart  = 3 * measure.Millimetre
)

// Piece looks one piece over, flat and folded: what passes through itself,
// what shows behind an opening, slits that go wrong, bridges and scores too
// narrow. folded is the finished piece, or nil when it cannot be folded
// because part of it hangs on no crease.
func Piece(p style.Part, folded *pattern.Folded) []Finding {
	if folded == nil {
		return []Finding{{ID: "severed", Verdict: Fail, Piece: p.ID,
			Text: p.Name + ": a cut severs part of it; let the cut stop short, or join the part by a score."}}
	}
	var out []Finding
	out = append(out, collisions(p, folded)...)
	out = append(out, behindOpenings(p, folded)...)
	out = append(out, slits(p, folded)...)
	out = append(out, bridges(p)...)
	out = append(out, scoresApart(p)...)
	if len(out) == 0 {
		out = append(out, Finding{ID: "folds", Verdict: OK, Piece: p.ID, Text: p.Name + ": it folds shut, and nothing stands in the way."})
	}
	return out
}

func collisions(p style.Part, f *pattern.Folded) []Finding {
	var out []Finding
	for _, c := range f.Collisions() {
		a, b := f.Faces[c[0]], f.Faces[c[1]]
		out = append(out, Finding{
			ID:      "collision",
			Verdict: Fail,
			Piece:   p.ID,
			Where:   [][]pattern.Point{a.Polygon, b.Polygon},
			Text: fmt.Sprintf(
				"%s: %s and %s pass through each other when it is folded; make one of them shorter.",
				p.Name,
				a.Plain(),
				b.Plain(),
			),
		})
	}
	return out
}

// behindOpenings finds faces that lie behind a hole, window or notch of
// another face of the finished piece.
func behindOpenings(p style.Part, f *pattern.Folded) []Finding {
	var out []Finding
	for _, o := range p.Pattern.Openings {
		_, _, i := f.Face(o.Face)
		if i < 0 || o.Through {
			continue
		}
		area := o.Loop.Flat()
		for j, other := range f.Faces {
			// A flap that closes over the outside is meant to cover it.
			if j == i || other.Role == pattern.Flap {
				continue
			}
			if hidden := f.OverlapOf(area, i, j); hidden > 0.5 {
				out = append(out, Finding{
					ID:      "behind-opening",
					Verdict: Fail,
					Piece:   p.ID,
					Where:   [][]pattern.Point{area, other.Polygon},
					Text: fmt.Sprintf(
						"%s: the %s lies behind the %s in the %s; cut it back until it clears, or move the %s.",
						p.Name,
						other.Plain(),
						o.Kind,
						f.Faces[i].Plain(),
						o.Kind,
					),
				})
			}
		}
	}
	return out
}

// slits finds those that run into a wall or panel instead of along a score.
func slits(p style.Part, f *pattern.Folded) []Finding {
	var out []Finding
	for _, s := range p.Pattern.Slits {
		way := s.Path().Open()
		a, b := way[(len(way)-1)/2], way[(len(way)-1)/2+1]
		d := b.Sub(a)
		mid := a.Add(d.Scale(0.5))
		off := pattern.Pt(-d.Y, d.X).Scale(0.05 / d.Len())
		for _, face := range f.Faces {
			both := pattern.Contains(face.Polygon, mid.Add(off)) && pattern.Contains(face.Polygon, mid.Sub(off))
			if both && face.Role != pattern.Tab {
				out = append(out, Finding{ID: "slit", Verdict: Fail, Piece: p.ID, Where: [][]pattern.Point{way},
					Text: fmt.Sprintf("%s: a slit runs into the %s; end it at the crossing of the scores.", p.Name, face.Plain())})
			}
		}
	}
	return out
}

// bridges finds card under three millimetres wide between a hole and another
// cut, or between an opening and a score.
func bridges(p style.Part) []Finding {
	var out []Finding
	say := func(where []pattern.Point, what string, wide float64) {
		out = append(out, Finding{ID: "bridge", Verdict: Warn, Piece: p.ID, Where: [][]pattern.Point{where},
			Text: fmt.Sprintf("%s: only %.1f mm of card is left between %s; it tears. Leave %.0f mm.", p.Name, wide, what, leastBridge)})
	}
	cuts := p.Pattern.Cuts()
	for i, hole := range cuts[1:] {
		for j, other := range cuts[:i+1] {
			if wide := between(hole, other); wide < leastBridge {
				what := "two holes"
				if j == 0 {
					what = "a hole and the edge"
				}
				say(hole, what, wide)
			}
		}
	}
	for _, o := range p.Pattern.Openings {
		area := o.Loop.Flat()
		for _, c := range p.Pattern.Creases {
			if wide := between(area, []pattern.Point{c.A, c.B}); wide < leastBridge {
				mark, _ := p.Pattern.Mark(o.Face)
				say(area, fmt.Sprintf("the %s in the %s and a score", o.Kind, mark.Plain()), wide)
				break
			}
		}
	}
	return out
}

// between is the least distance between two closed lines, in mm, as far as it
// is under leastBridge; what is farther apart is only told to be so.
func between(a, b []pattern.Point) float64 {
	least := leastBridge * leastBridge
	for _, pair := range [][2][]pattern.Point{{a, b}, {b, a}} {
		lo, hi := pattern.Bounds(pair[0])
		for i, from := range pair[1] {
			to := pair[1][(i+1)%len(pair[1])]
			if max(from.X, to.X) < lo.X-leastBridge || min(from.X, to.X) > hi.X+leastBridge ||
				max(from.Y, to.Y) < lo.Y-leastBridge || min(from.Y, to.Y) > hi.Y+leastBridge {
				continue
			}
			d := to.Sub(from)
			long := d.Dot(d)
			for _, q := range pair[0] {
				t := 0.0
				if long > 0 {
					t = min(1, max(0, q.Sub(from).Dot(d)/long))
				}
				off := q.Sub(from.Add(d.Scale(t)))
				least = min(least, off.Dot(off))
			}
		}
	}
	return math.Sqrt(least)
}

func scoresApart(p style.Part) []Finding {
	for _, list := range [][]measure.Length{p.Pattern.Scores.Vertical, p.Pattern.Scores.Horizontal} {
		for i := 1; i < len(list); i++ {
			if apart := list[i] - list[i-1]; apart < leastApart {
				return []Finding{
					{
						ID:      "scores-close",
						Verdict: Warn,
						Piece:   p.ID,
						Text: fmt.Sprintf(
							"%s: two scores lie %.1f mm apart; under %.0f mm the card does not fold cleanly between them.",
							p.Name,
							apart.MM(),
							leastApart.MM(),
						),
					},
				}
			}
		}
	}
	return nil
}

// boardLength is what most scoring boards take, as most trimmers do: 12 in.
const boardLength = 12 * measure.Inch

// Board warns of a blank too long for a scoring board; a longer trimmer may
// well have cut it.
func Board(p style.Part, unit measure.Unit, tick measure.Tick) (Finding, bool) {
	long := max(p.Pattern.Width, p.Pattern.Height)
	if long <= boardLength {
		return Finding{}, false
	}
	return Finding{
		ID:      "board",
		Verdict: Warn,
		Piece:   p.ID,
		Text: fmt.Sprintf(
			"%s: the blank is %s long and most scoring boards take %s; score what stands over with a ruler and a bone folder.",
			p.Name,
			measure.Label(long, unit, tick),
			measure.Label(boardLength, unit, tick),
		),
	}, true
}

// Closing finds an outer part whose wall is deeper than the one it goes over,
// so that it stands on the table before the box is closed.
func Closing(pairs []fit.Pair) []Finding {
	var out []Finding
	told := map[[2]string]bool{}
	for _, p := range pairs {
		over, both := p.TooDeep(), [2]string{p.Outer, p.Inner}
		if over > 0 && !told[both] {
			told[both] = true
			out = append(out, Finding{
				ID:      "closing",
				Verdict: Warn,
				Piece:   p.Outer,
				Text: fmt.Sprintf(
					"%s is %.1f mm deeper than %s is high: it stands on the table before it lies on the rim.",
					p.OuterName,
					over.MM(),
					strings.ToLower(p.InnerName),
				),
			})
		}
	}
	return out
}

// Direction tells how the faces of a piece stand that is made of paper with a
// direction; one that runs one way is a warning where a face would stand on its
// head or sideways. Paper without a direction needs no such check.
func Direction(p style.Part, faces []pattern.Face, card paper.Card, endForEnd bool) (Finding, bool) {
	if card.Direction.MayTurn() {
		return Finding{}, false
	}
	up := pattern.Pt(0, -1)
	if endForEnd {
		up.Y = 1
	}
	s := pattern.Stands(faces, up)
	if card.Direction == paper.TwoWays { // it has no head
		s.Upright, s.OnHead = append(s.Upright, s.OnHead...), nil
	}
	f := Finding{ID: "direction", Verdict: OK, Piece: p.ID, Text: fmt.Sprintf("%s: the pattern of %s stands upright on every side.", p.Name, card.Name)}
	var wrong []string
	if len(s.OnHead) > 0 {
		wrong = append(wrong, "on its head on the "+strings.Join(s.OnHead, ", "))
	}
	if len(s.Sideways) > 0 {
		wrong = append(wrong, "sideways on the "+strings.Join(s.Sideways, ", "))
	}
	if len(wrong) > 0 {
		f.Verdict = Warn
		f.Text = fmt.Sprintf("%s: the pattern of %s would stand %s. Cover those with papers on top, or take a paper without a direction.",
			p.Name, card.Name, strings.Join(wrong, " and "))
	}
	return f, true
}
