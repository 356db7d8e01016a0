package recipe

import (
	"slices"
	"strings"

	"brevium/core/hand"
)

// likeness is how a piece is made that is made like another: nothing differs, or its blank,
// what is scored on it, and what of it is trimmed.
type likeness struct {
	again  bool
	four   bool   // scored alike from all four edges
	traced bool   // round a template
	fields Fields // size, at
	also   []string
}

// said tells it in a sentence, and one more for each thing that differs besides.
func (l likeness) said(s teller, key, open string) string {
	switch {
	case l.again:
		key = "same-again"
	case s.cutter != Blanks:
		return l.saidOut(s, key, open)
	case l.four:
		key += "four"
	case l.traced:
		key += "template"
	default:
		key += "cut"
	}
	return strings.Join(append([]string{s.Say(key+open, l.fields)}, l.also...), " ")
}

// like reports whether the second piece is made in the same words as the first, but for what a
// likeness tells.
func (s teller) like(one, two made) (l likeness, same bool) {
	l.fields = Fields{"size": s.size(two.part.Pattern.Width, two.part.Pattern.Height), "taped": s.taped(s.wet)}
	a, b := untrimmed(one), untrimmed(two)
	if len(a) != len(b) {
		return l, false
	}
	l.again = true
	var edges []hand.ScoreFrom
	for i, y := range b {
		x := a[i]
		switch m := y.move.(type) {
		case hand.Cut:
			l.again = l.again && x.move == y.move
			if _, cut := x.move.(hand.Cut); !cut {
				return l, false
			}
		case hand.ScoreFour:
			o, scored := x.move.(hand.ScoreFour)
			if !scored || len(o.At) != len(m.At) {
				return l, false
			}
			l.again = l.again && slices.Equal(o.At, m.At) && o.Shim == m.Shim
			if m.Shim > 0 && s.cutter != Scoring {
				l.also = append(l.also, y.step.Text)
			} else {
				l.four, l.fields["at"] = true, s.numbers(m.At)
			}
		case hand.ScoreFrom:
			o, scored := x.move.(hand.ScoreFrom)
			if !scored || o.Edge != m.Edge || o.Turned != m.Turned || len(o.At) != len(m.At) || m.Shim > 0 || o.Shim > 0 {
				return l, false
			}
			l.again = l.again && slices.Equal(o.At, m.At)
			edges = append(edges, m)
		case hand.Taper:
			o, tapered := x.move.(hand.Taper)
			if !tapered || o.Off != m.Off || s.parts(o.What) != s.parts(m.What) {
				return l, false
			}
			if o.Leave != m.Leave {
				l.again = false
				if s.cutter == Blanks {
					l.also = append(l.also, s.trimmed(hand.Trim{What: m.What, Leave: m.Leave}))
				}
			}
		case hand.Slit:
			o, slit := x.move.(hand.Slit)
			switch {
			case x.step.Text == y.step.Text:
			case slit && otherwise(o, m):
				if l.again = false; s.cutter.machine() {
					break
				}
				l.also = append(l.also, s.Say("also-slit", Fields{"edges": s.edges(two.card, fromEdges(m))}))
			default:
				return l, false
			}
		default:
			if x.step.Text != y.step.Text {
				return l, false
			}
			if o, traced := y.move.(hand.Template); traced {
				before, _ := x.move.(hand.Template)
				l.traced, l.again = true, l.again && before.Pattern.Alike(o.Pattern)
			}
		}
	}
	trims, sameTrims := s.trims(one, two)
	if l.again = l.again && sameTrims; l.again {
		l.also = nil
		return l, true
	}
	if s.cutter == Blanks {
		l.also = append(l.also, trims...)
	}
	if s.cutter == Scoring {
		edges = nil
	}
	switch len(edges) {
	case 0:
	case 1:
		l.also = append([]string{s.Say("also-edge", Fields{"edge": string(edges[0].Edge), "at": s.numbers(edges[0].At)})}, l.also...)
	case 2:
		l.also = append([]string{s.Say("also-edges", Fields{"edge": string(edges[0].Edge), "at": s.numbers(edges[0].At), "last": string(edges[1].Edge), "off": s.numbers(edges[1].At)})}, l.also...)
	default:
		return l, false
	}
	return l, true
}

// otherwise reports whether two slits are one but for the two edges that they are made from.
func otherwise(a, b hand.Slit) bool {
	plain := func(m hand.Slit) (out []hand.Run) {
		for _, r := range m.Runs {
			out = append(out, hand.Run{Line: r.Line, To: r.To})
		}
		return out
	}
	return slices.Equal(plain(a), plain(b)) && len(fromEdges(a)) == 2 && len(fromEdges(b)) == 2
}

// fromEdges are the edges that a slit is made from.
func fromEdges(m hand.Slit) []hand.Edge {
	var out []hand.Edge
	for _, r := range m.Runs {
		if !slices.Contains(out, r.From) {
			out = append(out, r.From)
		}
	}
	return out
}

// done is a move with its step.
type done struct {
	move hand.Move
	step Step
}

// untrimmed are the moves of a piece without those that only trim.
func untrimmed(x made) []done {
	var out []done
	for i, m := range x.moves {
		if _, trims := m.(hand.Trim); !trims {
			out = append(out, done{m, x.steps[i]})
		}
	}
	return out
}

// trims are what of the second piece is trimmed otherwise than of the first.
func (s teller) trims(one, two made) (said []string, same bool) {
	of := func(x made) (order []string, by map[string]hand.Trim) {
		by = map[string]hand.Trim{}
		for _, m := range x.moves {
			if t, trims := m.(hand.Trim); trims {
				order, by[s.parts(t.What)] = append(order, s.parts(t.What)), t
			}
		}
		return order, by
	}
	before, had := of(one)
	order, has := of(two)
	for _, parts := range order {
		if old, there := had[parts]; !there || old.Leave != has[parts].Leave {
			said = append(said, s.trimmed(has[parts]))
		}
	}
	for _, parts := range before {
		if t, there := has[parts]; !there {
			t = had[parts]
			t.Leave = 0
			said = append(said, s.trimmed(t))
		}
	}
	return said, len(said) == 0
}

// trimmed says to what parts are trimmed, or that they are left whole.
func (s teller) trimmed(t hand.Trim) string {
	if t.Leave == 0 {
		return s.Say("also-whole", Fields{"parts": s.parts(t.What)})
	}
	return s.Say("also-trim", Fields{"parts": s.parts(t.What), "leave": s.length(t.Leave)})
}
