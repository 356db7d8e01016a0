package dress

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
)

// Blanks gives the rectangles that mats are cut from: one each, but a strip for
// those whose picture runs on, and two right-angled triangles of one card out of one, where each is a half of the
// same rectangle, cut along the same diagonal. The second is turned end for
// end if it must be, which a pattern with an up forbids.
func Blanks(mats []Mat) []pattern.Blank {
	var out []pattern.Blank
	type waiting struct {
		mat  Mat
		lack corner
		at   int
	}
	var halves []waiting
	strips := map[string]int{}
mats:
	for _, m := range mats {
		outline := m.onBlank()
		if m.Strip.ID != "" {
			i, begun := strips[m.Strip.ID]
			if !begun {
				i = len(out)
				strips[m.Strip.ID] = i
				out = append(out, pattern.Blank{ID: m.ID, Name: m.Piece + " paper, strip: " + m.Words, Height: m.Height})
			}
			if begun {
				out[i].Name += ", " + m.Words
			}
			for k := range outline {
				outline[k].X += m.Strip.At.MM()
			}
			out[i].Width = max(out[i].Width, m.Strip.At+m.Width) // the faces come in any order
			out[i].Gives = append(out[i].Gives, pattern.Given{ID: m.ID, Outline: outline})
			continue
		}
		lack, half := m.lacks()
		for i, w := range halves {
			turned := lack == w.lack
			if !half || m.Across != w.mat.Across || m.Piece != w.mat.Piece || m.Side != w.mat.Side || !m.Card.Same(w.mat.Card) || m.Width != w.mat.Width || m.Height != w.mat.Height || m.Layer != w.mat.Layer ||
				!turned && lack != w.lack.opposite() || turned && m.Card.Direction == paper.OneWayUp {
				continue
			}
			if turned {
				wide, high := m.cut()
				for k, q := range outline {
					outline[k] = pattern.Pt(wide.MM()-q.X, high.MM()-q.Y)
				}
			}
			out[w.at].Gives = append(out[w.at].Gives, pattern.Given{ID: m.ID, Outline: outline})
			halves = append(halves[:i], halves[i+1:]...)
			continue mats
		}
		if half {
			halves = append(halves, waiting{m, lack, len(out)})
		}
		wide, high := m.cut()
		out = append(out, pattern.Blank{ID: m.ID, Name: fmt.Sprintf("%s paper, %s", m.Piece, m.Words), Width: wide, Height: high,
			Gives: []pattern.Given{{ID: m.ID, Outline: outline}}})
	}
	for i, b := range out {
		if at := slices.IndexFunc(mats, func(m Mat) bool { return m.ID == b.ID }); len(b.Gives) == 1 && mats[at].Blank.Width > 0 {
			out[i].Width, out[i].Height = mats[at].Blank.Width, mats[at].Blank.Height
			if mats[at].Across {
				out[i].Width, out[i].Height = out[i].Height, out[i].Width
			}
		}
	}
	return out
}

// cut is how large it is with the pattern upright.
func (m Mat) cut() (wide, high measure.Length) {
	if m.Across {
		return m.Height, m.Width
	}
	return m.Width, m.Height
}

// onBlank is the mat's outline on its blank, the pattern upright.
func (m Mat) onBlank() []pattern.Point {
	out := make([]pattern.Point, len(m.Shape))
	for i, q := range m.Shape {
		out[i] = pattern.Pt(q.X, m.Height.MM()-q.Y)
		if m.Across {
			out[i] = pattern.Pt(out[i].Y, m.Width.MM()-out[i].X)
		}
	}
	return out
}

// corner is one of a mat's blank: whether it is on the right, and up.
type corner struct{ right, up bool }

func (c corner) opposite() corner { return corner{!c.right, !c.up} }

// lacks gives the corner of its blank that a triangle does without, when it
// has the other three.
func (m Mat) lacks() (corner, bool) {
	if len(m.Shape) != 3 {
		return corner{}, false
	}
	there := map[corner]bool{}
	for _, q := range m.Shape {
		for _, c := range []corner{{false, false}, {true, false}, {false, true}, {true, true}} {
			x, y := 0.0, 0.0
			if c.right {
				x = m.Width.MM()
			}
			if c.up {
				y = m.Height.MM()
			}
			if math.Hypot(q.X-x, q.Y-y) < pattern.Tolerance {
				there[c] = true
			}
		}
	}
	for _, c := range []corner{{false, false}, {true, false}, {false, true}, {true, true}} {
		if len(there) == 3 && !there[c] {
			return c, true
		}
	}
	return corner{}, false
}
