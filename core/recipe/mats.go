package recipe

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/dress"
	"brevium/core/measure"
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
	ids   []string    // of the faces
	Strip []dress.Mat // what is cut from one, from its left end on; nil for one mat
}

// Where names the faces: "back wall and front wall".
func (s MatSet) Where() string { return style.And(s.Faces) }

func (s MatSet) name(parts []style.Part) string {
	for _, p := range parts {
		if p.ID == s.Mat.Piece {
			return strings.ToLower(p.Name)
		}
	}
	return s.Mat.Piece
}

// cutting says how the mats are cut: their blanks, halved or cut to shape.
func (s MatSet) cutting(t Telling, copies int) string {
	n, size := s.Count*copies, measure.Labels(t.Units, t.Tick, t.settable(s.Blank.Width), t.settable(s.Blank.Height))
	from := fmt.Sprintf("from %s for the %s", s.Mat.Card.Name, s.Where())
	f := Fields{"count": English.Number(n), "size": size, "card": s.Mat.Card.Name}
	switch {
	case s.Strip != nil:
		return fmt.Sprintf("Cut %d strip%s, %s, %s, the picture upright. %s", n, plural(n), size, from, s.parting(t))
	case s.Blank.Halved():
		return English.Say("paper-halved", f)
	case len(s.Mat.Shape) != 4 || !rectangular(s.Mat):
		var corners []string
		for _, q := range s.Mat.Shape {
			corners = append(corners, fmt.Sprintf("%s across and %s up", t.mm(q.X), t.mm(q.Y)))
		}
		return fmt.Sprintf(
			"Cut %d blank%s, %s, %s, and each to its shape with a ruler, from mark to mark counted from its lower left corner: %s.",
			n,
			plural(n),
			size,
			from,
			strings.Join(corners, ", "),
		)
	}
	if n == 1 {
		return English.Say("paper-cut-one", f)
	}
	return English.Say("paper-cut", f)
}

// parting says how a strip is cut up.
func (s MatSet) parting(t Telling) string {
	var parts []string
	fallen := false
	end := s.Strip[0].Strip.At
	for _, m := range s.Strip {
		fallen = fallen || m.Strip.At > end
		end = m.Strip.At + m.Width
		parts = append(parts, fmt.Sprintf("%s to %s for the %s", t.length(m.Strip.At), t.length(end), m.Words))
	}
	text := "Cut it up, counting from its left end: " + strings.Join(parts, ", ")
	if fallen {
		text += "; what lies between falls away"
	}
	if s.Strip[0].Strip.Begun > 0 {
		text += ". Begin the strip where the picture of the one before ended, so that it goes on"
	}
	return text + "."
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
			return s.Strip == nil && m.Strip.ID == "" && s.Mat.Piece == m.Piece && s.Mat.Layer == m.Layer && s.Mat.Card.Same(m.Card) && s.Mat.Width == m.Width && s.Mat.Height == m.Height &&
				len(s.Blank.Gives) == len(b.Gives) &&
				slices.EqualFunc(s.Mat.Shape, m.Shape, func(p, q pattern.Point) bool { return p.Sub(q).Len() < Straight })
		})
		if i < 0 {
			out = append(out, MatSet{Mat: m, Blank: b})
			i = len(out) - 1
		}
		out[i].Count++
		out[i].From = append(out[i].From, b.ID)
		for _, g := range b.Gives {
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

// gluing says where the mats go and what shows around them; late is when the piece
// is glued already.
func (s MatSet) gluing(t Telling, parts []style.Part, late bool) string {
	on := "onto the flat " + s.name(parts)
	if late {
		on = "into the glued " + s.name(parts) + ", over its tabs"
	}
	if s.Mat.Layer > 1 {
		on = fmt.Sprintf("onto layer %d of the %s", s.Mat.Layer-1, s.name(parts))
	}
	if s.Mat.Side == dress.Inside && !late {
		on += ", inside up"
	}
	if s.Strip != nil {
		return fmt.Sprintf("Glue the papers of the strip %s, each centred on its own face, so that the picture goes on round the corners: %s. What shows left and right is %s, above and below %s.",
			on, s.Where(), t.length(s.Mat.Border.Across), t.length(s.Mat.Border.Up))
	}
	f := Fields{"papers": English.Noun("paper", len(s.Faces)), "places": s.Where(), "piece": s.name(parts), "off": t.length(s.Mat.Border.Up), "across": t.length(s.Mat.Border.Across),
		"under": English.Say("paper-card", nil), "layer": fmt.Sprint(s.Mat.Layer - 1)}
	if s.Mat.Layer > 1 {
		f["under"] = English.Say("paper-layer", f)
	}
	f["rim"] = English.Say("paper-rim", f)
	if s.Mat.Border.Across != s.Mat.Border.Up {
		f["rim"] = English.Say("paper-rims", f)
	}
	key := "paper-outside"
	switch {
	case late:
		key = "paper-over-tabs"
	case s.Mat.Side == dress.Inside:
		key = "paper-inside"
	}
	return sentences(English.Say(key, f), upright(s.Mat))
}

// through says what is cut out of papers that were glued over a hole, a window or a notch;
// "" while another layer follows, which is cut with them, or where none is covered.
func (w Work) through(s MatSet) string {
	i := slices.IndexFunc(w.Parts, func(p style.Part) bool { return p.ID == s.Mat.Piece })
	if i < 0 {
		return ""
	}
	var covered []string
	for _, m := range w.Mats {
		if m.Piece != s.Mat.Piece || m.Side != s.Mat.Side || m.Layer != s.Mat.Layer || !slices.Contains(s.ids, m.Face) ||
			slices.ContainsFunc(w.Mats, func(o dress.Mat) bool {
				return o.Piece == m.Piece && o.Side == m.Side && o.Face == m.Face && o.Layer > m.Layer
			}) {
			continue
		}
		for _, o := range w.Parts[i].Pattern.Openings {
			for _, on := range m.On {
				words := fmt.Sprintf("the %s of the %s", o.Kind, m.Words)
				if on.Face == o.Face && len(pattern.Clip(o.Loop.Flat(), on.Corners)) > 2 && !slices.Contains(covered, words) {
					covered = append(covered, words)
				}
			}
		}
	}
	if len(covered) == 0 {
		return ""
	}
	return fmt.Sprintf("Once it holds, turn the %s over on a mat and cut the paper out along the edge of %s, away from your hand.", s.name(w.Parts), style.And(covered))
}
