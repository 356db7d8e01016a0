package style

import (
	"math"
	"slices"
	"sync"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// making are the moves of a piece, put down in the order in which a hand does them, beside
// what draws it.
type making struct {
	p     *pattern.Pattern
	wet   bool
	moves []hand.Move
}

// make begins the making of a piece: its blank is cut.
func (s Spec) make(p *pattern.Pattern) *making { return newMaking(p, s.adhesive()) }

func newMaking(p *pattern.Pattern, adhesive Adhesive) *making {
	m := &making{p: p, wet: adhesive.Wet()}
	m.do(hand.Cut{Width: p.Width, Height: p.Height})
	return m
}

// told is a making that is worked out when it is first asked for, and once.
func told(making func() []hand.Move) func() []hand.Move { return sync.OnceValue(making) }

// told is a making that is put down already.
func (m *making) told() func() []hand.Move { return func() []hand.Move { return m.moves } }

func (m *making) do(moves ...hand.Move) { m.moves = append(m.moves, moves...) }

// parts are faces of the piece by their names, as one phrase of a noun and its owners.
func (m *making) parts(noun string, of []string, faces ...string) hand.Parts {
	out := hand.Parts{Noun: noun, Of: of}
	for _, name := range faces {
		if k, there := m.p.Mark(name); there {
			out.At = append(out.At, k.At)
		}
	}
	return out
}

// cells are cells of the blank, counted by column and row from its top left corner, as
// they lie between its full scores.
func (m *making) cells(noun string, of []string, at ...[2]int) hand.Parts {
	xs, ys := stations(m.p.Scores.Vertical, m.p.Width), stations(m.p.Scores.Horizontal, m.p.Height)
	out := hand.Parts{Noun: noun, Of: of}
	for _, c := range at {
		out.At = append(out.At, pt((xs[c[0]]+xs[c[0]+1])/2, (ys[c[1]]+ys[c[1]+1])/2))
	}
	return out
}

func stations(at []measure.Length, whole measure.Length) []measure.Length {
	return append(append([]measure.Length{0}, at...), whole)
}

// scoreFour scores the same numbers from all four edges.
func (m *making) scoreFour(shim measure.Length, at ...measure.Length) {
	m.do(hand.ScoreFour{At: at, Shim: shim})
}

// scores scores all full lines, from the left edge and, turned a quarter, from the top.
func (m *making) scores() {
	v, h := m.p.Scores.Vertical, m.p.Scores.Horizontal
	if len(v) > 0 {
		m.do(hand.ScoreFrom{Edge: hand.Left, At: v})
	}
	if len(h) > 0 {
		m.do(hand.ScoreFrom{Edge: hand.Top, At: h, Turned: len(v) > 0})
	}
}

// level are full scores that run across, counted from the top.
func (m *making) level(at ...int) []pattern.Segment {
	var out []pattern.Segment
	for _, i := range at {
		y := m.p.Scores.Horizontal[i]
		out = append(out, pattern.Segment{A: pt(0, y), B: pt(m.p.Width, y)})
	}
	return out
}

// slit slits lines from edges, each to the same crossing.
func (m *making) slit(to int, from []hand.Edge, lines ...int) {
	m.do(hand.Slit{Runs: runs(to, from, lines...)})
}

func runs(to int, from []hand.Edge, lines ...int) []hand.Run {
	var out []hand.Run
	for _, e := range from {
		for _, l := range lines {
			out = append(out, hand.Run{From: e, Line: l, To: to})
		}
	}
	return out
}

// A group is faces that one phrase names.
type group struct {
	noun  string
	of    []string
	faces []string
}

// shape cuts parts that hang by one side to their shape as drawn: shorter, then to a taper.
// The faces of a group are alike; what is the same of all groups is told of all, by a noun.
func (m *making) shape(noun string, groups ...group) {
	alike := true
	leave, off := m.cutTo(groups[0].faces[0])
	all := group{noun: noun}
	for _, g := range groups {
		l, o := m.cutTo(g.faces[0])
		alike = alike && l == leave && o == off
		all.faces = append(all.faces, g.faces...)
	}
	if alike && leave > 0 && off > 0 {
		m.do(hand.Taper{What: m.parts(all.noun, all.of, all.faces...), Off: off, Leave: leave})
		return
	}
	m.trim(noun, groups...)
	m.taper(noun, groups...)
}

func (m *making) trim(noun string, groups ...group) {
	m.cutAlike(noun, groups, func(leave, _ measure.Length) measure.Length { return leave },
		func(what hand.Parts, leave measure.Length) hand.Move { return hand.Trim{What: what, Leave: leave} })
}

func (m *making) taper(noun string, groups ...group) {
	m.cutAlike(noun, groups, func(_, off measure.Length) measure.Length { return off },
		func(what hand.Parts, off measure.Length) hand.Move { return hand.Taper{What: what, Off: off} })
}

func (m *making) cutAlike(noun string, groups []group, of func(leave, off measure.Length) measure.Length, cut func(hand.Parts, measure.Length) hand.Move) {
	all, same := group{noun: noun}, true
	first := of(m.cutTo(groups[0].faces[0]))
	for _, g := range groups {
		all.faces = append(all.faces, g.faces...)
		same = same && of(m.cutTo(g.faces[0])) == first
	}
	if same {
		groups = []group{all}
	}
	for _, g := range groups {
		if by := of(m.cutTo(g.faces[0])); by > 0 {
			m.do(cut(m.parts(g.noun, g.of, g.faces...), by))
		}
	}
}

// cutTo is what a face that hangs by one side is cut down to from its fold, and what it loses
// on each side at its free end; nothing where its cell is left as it is.
func (m *making) cutTo(name string) (leave, off measure.Length) {
	k, there := m.p.Mark(name)
	faces, err := m.p.Faces()
	if !there || err != nil {
		return 0, 0
	}
	xs, ys := m.around(k.At)
	for _, f := range faces {
		if f.Name != name || len(f.Polygon) != 4 {
			continue
		}
		for i, a := range f.Polygon {
			b, farB, farA := f.Polygon[(i+1)%4], f.Polygon[(i+2)%4], f.Polygon[(i+3)%4]
			if !slices.ContainsFunc(m.p.Creases, func(c pattern.Crease) bool { return c.Covers(pattern.Segment{A: a, B: b}, pattern.Tolerance) }) {
				continue
			}
			upright := a.X == b.X // the hinge
			deep := measure.FromMM(math.Abs(farA.Y - a.Y))
			cell := span(ys, k.At.Y)
			if upright {
				deep, cell = measure.FromMM(math.Abs(farA.X-a.X)), span(xs, k.At.X)
			}
			if deep < cell-pattern.Seen {
				leave = deep
			}
			if off = measure.FromMM((b.Sub(a).Len() - farB.Sub(farA).Len()) / 2); off < measure.Micrometre {
				off = 0
			}
			return leave, off
		}
	}
	return 0, 0
}

// around are the upright and the level scores that pass a place, and the edges.
func (m *making) around(at pattern.Point) (xs, ys []measure.Length) {
	xs, ys = stations(m.p.Scores.Vertical, m.p.Width), stations(m.p.Scores.Horizontal, m.p.Height)
	for _, s := range m.p.Scores.Part {
		switch {
		case s.A.X == s.B.X && min(s.A.Y, s.B.Y) < at.Y && max(s.A.Y, s.B.Y) > at.Y:
			xs = append(xs, measure.FromMM(s.A.X))
		case s.A.Y == s.B.Y && min(s.A.X, s.B.X) < at.X && max(s.A.X, s.B.X) > at.X:
			ys = append(ys, measure.FromMM(s.A.Y))
		}
	}
	slices.Sort(xs)
	slices.Sort(ys)
	return xs, ys
}

// span is how long the stretch between two lines is in which a place lies.
func span(at []measure.Length, mm float64) measure.Length {
	for i := range len(at) - 1 {
		if mm > at[i].MM() && mm < at[i+1].MM() {
			return at[i+1] - at[i]
		}
	}
	return 0
}

// stick sticks each part onto its place, by the names of their faces in pairs.
func (m *making) stick(s hand.Stick) {
	s.Wet = m.wet
	m.do(s)
}

// leftAndRight are the side edges.
var leftAndRight = []hand.Edge{hand.Left, hand.Right}

// lowered is a lid that is put on.
func lowered(lid string) hand.Shut {
	return hand.Shut{Uses: []string{lid}, Said: hand.Said{Key: "lower", Pieces: map[string]string{"piece": lid}}}
}

// said is words with lengths put into them.
func said(key string, lengths map[string][]measure.Length) hand.Said {
	return hand.Said{Key: key, Lengths: lengths}
}

// one is lengths for a field.
func one(name string, lengths ...measure.Length) map[string][]measure.Length {
	return map[string][]measure.Length{name: lengths}
}

// bonds are faces of pieces that are stuck onto others: piece, face, onto, and so on.
func bonds(by ...string) []hand.Across {
	var out []hand.Across
	for i := 0; i < len(by); i += 3 {
		out = append(out, hand.Across{Piece: by[i], Face: by[i+1], Onto: by[i+2]})
	}
	return out
}

// creases are the fold lines of a side, towards the hand or away, by their angle.
func (m *making) creases(of func(pattern.Crease) bool) []pattern.Segment {
	var out []pattern.Segment
	for _, c := range m.p.Creases {
		if of(c) {
			out = append(out, c.Segment)
		}
	}
	return out
}

func towards(c pattern.Crease) bool { return c.Side == pattern.Towards && !c.Rolled }

func overFlat(c pattern.Crease) bool { return c.Angle > hand.Flat && !c.Rolled }

// sliver is what is shaved off so that a corner lies flat: 1/32 in or 1 mm.
func (s Spec) sliver() measure.Length { return measure.Down(sliver, s.Tick.Ruler()) }
