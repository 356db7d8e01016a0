package style

import (
	"math"
	"slices"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// General are the moves of a piece that no construction tells: by the board and a punch where
// a hand comes to it so, else round its template. What its maker has said of it stands.
func General(part Part, adhesive Adhesive) []hand.Move {
	plain := general(part, adhesive, (*making).bites)
	if table, err := hand.Do(hand.Work{Piece: part.ID, Moves: plain}); err == nil {
		if card, _ := table.Card(part.ID); card.Equal(part.Pattern) == nil {
			return plain
		}
	}
	return general(part, adhesive, (*making).traced)
}

// general are the moves of a piece that is cut to its shape in a way.
func general(part Part, adhesive Adhesive, shape func(*making)) []hand.Move {
	p := part.Pattern
	m := newMaking(p, adhesive)
	m.scores()
	m.byRuler()
	shape(m)
	scored := slices.DeleteFunc(slices.Clone(p.Creases), func(c pattern.Crease) bool { return c.Rolled })
	switch {
	case len(scored) == 0:
	case !slices.ContainsFunc(scored, func(c pattern.Crease) bool { return towards(c) || overFlat(c) }):
		m.do(hand.FoldAll{})
	case allTowards(scored):
		m.do(hand.FoldWays{Towards: m.creases(towards), Said: hand.Say("fold-towards")})
	default:
		m.do(hand.FoldWays{Towards: m.creases(towards), Flat: m.creases(overFlat), Said: hand.Say("fold-as-shown")})
	}
	rolled := len(scored) < len(p.Creases)
	if rolled && !slices.ContainsFunc(part.Own, func(o hand.Own) bool { return o.Kind == hand.OwnFolding }) {
		m.do(hand.Bend{Said: hand.Say("bend-as-shown")})
	}
	m.own(part)
	return m.moves
}

// byRuler scores what runs right across between two grooves of the board.
func (m *making) byRuler() {
	for _, upright := range []bool{true, false} {
		var at []measure.Length
		x := hand.Score{Said: hand.Say("ruler-left")}
		if !upright {
			x.Said = hand.Say("ruler-top")
		}
		for _, s := range m.p.Scores.Part {
			if !m.p.Through(s) || (s.A.X == s.B.X) != upright {
				continue
			}
			if x.Lines = append(x.Lines, s); upright {
				at = append(at, measure.FromMM(s.A.X))
			} else {
				at = append(at, measure.FromMM(s.A.Y))
			}
		}
		if slices.Sort(at); len(at) > 0 {
			x.Lengths = one("at", at...)
			m.do(x)
		}
	}
}

// bites rounds the corners of a blank that is else left whole, and cuts its holes and notches.
func (m *making) bites() {
	w, h := m.p.Width.MM(), m.p.Height.MM()
	for _, v := range m.p.Outline {
		// A corner's arc begins or ends as far from a corner as it is round.
		if r := measure.FromMM(v.Y); v.Bulge > 0 && v.X == 0 && r > 0 {
			m.roundAll(r)
			break
		}
	}
	for _, hole := range m.p.Holes {
		lo, hi := pattern.Bounds(hole.Flat())
		if math.Abs(hi.X-lo.X-hi.Y+lo.Y) > 1e-3 {
			continue // not round: only its template tells it
		}
		m.do(hand.Bite{Loops: []pattern.Loop{hole}, Said: said("hole-at", map[string][]measure.Length{"across": {measure.FromMM(hi.X - lo.X)},
			"at": {measure.FromMM((lo.X + hi.X) / 2)}, "off": {measure.FromMM((lo.Y + hi.Y) / 2)}})})
	}
	for _, o := range m.p.Openings {
		if o.Kind != "notch" {
			continue
		}
		a, b := o.Loop[0].Point, o.Loop[1].Point
		edge, at := "top", (a.X+b.X)/2
		switch {
		case math.Abs(a.X-b.X) < 1e-6 && a.X < w/2:
			edge, at = "left", (a.Y+b.Y)/2
		case math.Abs(a.X-b.X) < 1e-6:
			edge, at = "right", (a.Y+b.Y)/2
		case a.Y > h/2:
			edge = "bottom"
		}
		from := "left"
		if edge == "left" || edge == "right" {
			from = "top"
		}
		x := said("notch-at", map[string][]measure.Length{"across": {measure.FromMM(b.Sub(a).Len())}, "at": {measure.FromMM(at)}})
		x.Names = map[string][]string{"edge": {edge}, "from": {from}}
		m.do(hand.Bite{Loops: []pattern.Loop{o.Loop}, Said: x})
	}
}

func allTowards(creases []pattern.Crease) bool {
	return !slices.ContainsFunc(creases, func(c pattern.Crease) bool { return !towards(c) || overFlat(c) })
}

// traced draws a piece round its template, scores and cuts it.
func (m *making) traced() {
	var lines []pattern.Segment // that the board has not scored
	for _, c := range m.p.Creases {
		if !c.Rolled && !m.onBoard(c.Segment) {
			lines = append(lines, c.Segment)
		}
	}
	lay := "template-lay"
	if len(lines) == 0 {
		lay = "template-draw"
	}
	m.do(hand.Template{Pattern: m.p, Said: hand.Say("template")}, hand.Mark{Said: hand.Say(lay)})
	if len(lines) > 0 {
		m.do(hand.ScoreTraced{Lines: lines, Said: hand.Say("template-lines")})
	}
	m.do(hand.CutTraced{Said: hand.Say("template-all")})
}

// byTemplate is the making of a piece that its template tells whole: drawn round, scored from prick
// to prick, cut, folded and stuck patch by patch.
func (s Spec) byTemplate(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	var lines []pattern.Segment
	for _, c := range p.Creases {
		lines = append(lines, c.Segment)
	}
	m.do(hand.Template{Pattern: p, Said: hand.Say("template")}, hand.Mark{Said: hand.Say("template-lay")},
		hand.ScoreTraced{Lines: lines, Said: hand.Say("template-every")}, hand.CutTraced{Said: hand.Say("template-outline")}, hand.FoldAll{})
	m.own(Part{})
	return m.moves
}

// onBoard reports whether a line lies on a score that runs right across.
func (m *making) onBoard(s pattern.Segment) bool {
	return s.A.X == s.B.X && slices.Contains(m.p.Scores.Vertical, measure.FromMM(s.A.X)) ||
		s.A.Y == s.B.Y && slices.Contains(m.p.Scores.Horizontal, measure.FromMM(s.A.Y)) ||
		slices.ContainsFunc(m.p.Scores.Part, func(o pattern.Segment) bool { return m.p.Through(o) && o.Covers(s, pattern.Tolerance) })
}

// own sticks a piece as its maker says, or each patch of adhesive by the names of its faces.
func (m *making) own(part Part) {
	var bonds []hand.Bond
	for _, g := range m.p.Glue {
		if g.Dry || g.Piece != "" {
			continue
		}
		from, _ := m.p.Mark(g.Face)
		onto, _ := m.p.Mark(g.Onto)
		bonds = append(bonds, hand.Bond{Part: from.At, Onto: onto.At, Outside: g.Outside, OntoOutside: g.OntoOutside})
	}
	told := false
	for _, o := range part.Own {
		if o.Kind == hand.OwnGluing && !told {
			o.Bonds, told = bonds, true
		}
		m.do(o)
	}
	if told {
		return
	}
	for _, g := range m.p.Glue {
		if g.Dry || g.Piece != "" {
			continue
		}
		from, _ := m.p.Mark(g.Face)
		onto, _ := m.p.Mark(g.Onto)
		way := map[[2]bool]hand.Way{{true, false}: hand.OutToIn, {true, true}: hand.OutToOut, {false, false}: hand.InToIn, {false, true}: hand.InToOut}[[2]bool{g.Outside, g.OntoOutside}]
		m.stick(hand.Stick{Way: way, Outside: g.Outside, OntoOutside: g.OntoOutside,
			What: hand.Parts{Words: from.Plain(), At: []pattern.Point{from.At}}, Onto: hand.Parts{Words: onto.Plain(), At: []pattern.Point{onto.At}}})
	}
}
