package recipe

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/dress"
	"brevium/core/hand"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/style"
)

// MatSet is equal mats of one piece and layer: Count blanks that give the mats
// of the faces.
type MatSet struct {
	Mat   dress.Mat
	Blank pattern.Blank
	Count int
	Faces []string
	From  []string    // the blanks' ids
	gives []string    // the papers' ids
	ids   []string    // of the faces
	Strip []dress.Mat // what is cut from one, from its left end on; nil for one mat
}

// Where names the faces: "back wall and front wall".
func (s MatSet) Where() string { return style.And(s.Faces) }

// cut is how a hand cuts them for all copies of the box.
func (s MatSet) cut(copies int) hand.CutPapers {
	m := hand.CutPapers{
		IDs: s.gives, Width: s.Blank.Width, Height: s.Blank.Height, Card: s.Mat.Card.Name, Count: s.Count, Copies: copies,
		Halved: s.Blank.Halved(),
	}
	if s.Strip == nil {
		m.Rounded = s.Mat.Radius
		m.Traced = !m.Halved && m.Rounded == 0 && (len(s.Mat.Shape) != 4 || !rectangular(s.Mat))
		return m
	}
	m.Begun = s.Strip[0].Strip.Begun > 0
	for _, p := range slices.SortedFunc(slices.Values(s.Strip), func(a, b dress.Mat) int { return cmp.Compare(a.Strip.At, b.Strip.At) }) {
		m.Strip = append(m.Strip, hand.StripPart{From: p.Strip.At, To: p.Strip.At + p.Width, Place: p.FaceWords()})
	}
	return m
}

func rectangular(m dress.Mat) bool {
	return math.Abs(math.Abs(pattern.Area(m.Shape))-m.Width.MM()*m.Height.MM()) < 1e-3
}

// MatSets puts equal mats together, in the order they first appear.
func MatSets(mats []dress.Mat) []MatSet {
	var out []MatSet
	byID := map[string]dress.Mat{}
	for _, m := range mats {
		byID[m.ID] = m
	}
	for _, b := range dress.Blanks(mats) {
		m := byID[b.ID]
		i := slices.IndexFunc(out, func(s MatSet) bool {
			return s.Strip == nil && m.Strip.ID == "" && s.Mat.Piece == m.Piece && s.Mat.Side == m.Side && s.Mat.Layer == m.Layer && s.Mat.Card.Same(m.Card) && s.Mat.Width == m.Width && s.Mat.Height == m.Height && s.Mat.Across == m.Across && s.Mat.Radius == m.Radius &&
				len(s.Blank.Gives) == len(b.Gives) &&
				(rectangular(s.Mat) && rectangular(m) || slices.EqualFunc(s.Mat.Shape, m.Shape, func(p, q pattern.Point) bool { return p.Sub(q).Len() < Straight }))
		})
		if i < 0 {
			out = append(out, MatSet{Mat: m, Blank: b})
			i = len(out) - 1
		}
		out[i].Count++
		out[i].From = append(out[i].From, b.ID)
		for _, g := range b.Gives {
			out[i].gives = append(out[i].gives, g.ID)
			out[i].Faces, out[i].ids = append(out[i].Faces, byID[g.ID].Words), append(out[i].ids, byID[g.ID].Face)
			if m.Strip.ID != "" {
				out[i].Strip = append(out[i].Strip, byID[g.ID])
			}
		}
	}
	// An under layer is cut and glued before what lies on it.
	slices.SortStableFunc(out, func(a, b MatSet) int { return a.Mat.Layer - b.Mat.Layer })
	return out
}

// lay is how a hand glues them on; late is when the piece is glued already.
func (s MatSet) lay(mats []dress.Mat, late bool) hand.LayPapers {
	m := hand.LayPapers{
		Inside: s.Mat.Side == dress.Inside, Late: late, Layer: s.Mat.Layer, Across: s.Mat.Border.Across, Up: s.Mat.Border.Up,
		Sized: s.Mat.Sized, Narrow: s.Mat.Narrow, Strip: s.Strip != nil, Upright: s.Mat.Card.Direction == paper.OneWayUp && !s.Mat.Across,
		Turned: !s.Mat.Card.Direction.MayTurn() && s.Mat.Across,
	}
	for _, p := range mats {
		if slices.Contains(s.gives, p.ID) {
			m.Papers, m.Places = append(m.Papers, laid(p)), append(m.Places, p.FaceWords())
		}
	}
	return m
}

// laid is where a paper lies, on the piece as it is drawn.
func laid(m dress.Mat) hand.Laid {
	return hand.Laid{ID: m.ID, Layer: m.Layer, Inside: m.Side == dress.Inside, Outline: m.Outline(), Over: m.Over().MM()}
}

// through is what is cut out of papers that were glued over a hole, a window or a notch; none
// while another layer follows, which is cut with them, or where none is covered.
func (w Work) through(p style.Part, s MatSet) (hand.CutThrough, bool) {
	m := hand.CutThrough{Inside: s.Mat.Side == dress.Inside}
	for _, o := range w.Mats {
		if !slices.Contains(s.gives, o.ID) {
			continue
		}
		for _, at := range p.Pattern.Openings {
			later := slices.ContainsFunc(w.Mats, func(x dress.Mat) bool { // is cut through with this one
				return x.Piece == o.Piece && x.Side == o.Side && x.Face == o.Face && x.Layer > o.Layer && hand.Covers(x.Outline(), at.Loop)
			})
			if !later && hand.Covers(o.Outline(), at.Loop) && !slices.ContainsFunc(m.At, func(l pattern.Loop) bool { return slices.Equal(l, at.Loop) }) {
				if m.At = append(m.At, at.Loop); len(m.At) == 1 {
					m.Kind, m.Place = at.Kind, o.FaceWords()
				}
			}
		}
	}
	return m, len(m.At) > 0
}

// Dressed are the papers that lie on each piece at the end, and what was cut out of it.
func (w Work) Dressed() (papers map[string][]hand.Laid, openings map[string][]pattern.Loop) {
	papers, openings = map[string][]hand.Laid{}, map[string][]pattern.Loop{}
	for _, m := range w.Mats {
		papers[m.Piece] = append(papers[m.Piece], laid(m))
	}
	for _, p := range w.Parts {
		for _, o := range p.Pattern.Openings {
			openings[p.ID] = append(openings[p.ID], o.Loop)
		}
	}
	return papers, openings
}
