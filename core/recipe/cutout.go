package recipe

import (
	"slices"
	"strings"

	"brevium/core/hand"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Cutter is who cuts the pieces out where they are laid by shape: scissors along their outlines, or a
// machine, which cuts what is inside too and may score.
type Cutter string

// The cutters; "" cuts blanks, by the trimmer.
const (
	Blanks   Cutter = ""
	Outlines Cutter = "scissors"
	Machine  Cutter = "machine"
	Scoring  Cutter = "scoring"
)

// machine tells that no hand cuts.
func (c Cutter) machine() bool { return c == Machine || c == Scoring }

// out says that a piece is cut out by its shape. One that is the whole rectangle of its blank is cut to its
// size by scissors, too.
func (s *maker) out(p style.Part, size Fields) (said string, is bool) {
	if s.w.Cutter == Blanks || s.w.Cutter == Outlines && whole(p.Pattern) {
		return "", false
	}
	key := "out-" + string(s.w.Cutter)
	if s.w.Cutter == Scoring && len(p.Pattern.Creases) == 0 {
		key = "out-" + string(Machine)
	}
	if size["count"] != "" {
		key += "-many"
	}
	said = s.Say(key, size)
	if !s.printed && s.w.Cutter == Outlines {
		said, s.printed = s.Say("out-print", nil)+" "+said, true
	}
	return said, true
}

// whole reports whether a piece is all of its blank.
func whole(p *pattern.Pattern) bool {
	flat := p.Outline.Flat()
	lo, hi := pattern.Bounds(flat)
	return pattern.Area(flat) > (hi.X-lo.X)*(hi.Y-lo.Y)-1
}

// cutOut leaves out what scissors or the machine have done already when a piece is cut out: card that is
// cut off along its outline; with a machine, all other cuts, and the scores if it makes them.
func (w Work) cutOut(steps []Step) []Step {
	if w.Cutter == Blanks {
		return steps
	}
	gone, spent := map[string]bool{}, map[string]float64{}
	var left func(steps []Step) []Step
	left = func(steps []Step) []Step {
		var out []Step
		for _, s := range steps {
			if i := slices.IndexFunc(w.Parts, func(p style.Part) bool { return p.ID == s.Piece }); i >= 0 && w.done(s, w.Parts[i].Pattern) {
				gone[s.Key] = true
				if w.Cutter == Outlines { // it is done all the same, when the piece is cut out
					spent[s.Piece] += s.Seconds
				}
				continue
			}
			if m, is := s.Does.(hand.Mark); is && English.Has("out-"+m.Key) {
				s.Text = English.Say("out-"+m.Key, nil)
			}
			if _, is := s.Does.(hand.CutTraced); is {
				s.Text = English.Say("out-inside", nil)
			}
			s.Inner = left(s.Inner)
			out = append(out, s)
		}
		return out
	}
	out := unmarked(left(steps), w.Cutter, gone)
	var mend func(steps []Step)
	mend = func(steps []Step) {
		for i := range steps {
			steps[i].Needs = slices.DeleteFunc(slices.Clone(steps[i].Needs), func(key string) bool { return gone[key] })
			if steps[i].Kind == Cut {
				steps[i].Seconds += spent[steps[i].Piece]
				delete(spent, steps[i].Piece)
			}
			if mend(steps[i].Inner); len(steps[i].Inner) > 0 {
				steps[i].Seconds = 0
				for _, x := range steps[i].Inner {
					steps[i].Seconds += x.Seconds
				}
			}
		}
	}
	mend(out)
	return out
}

// unmarked leaves out marks that nothing is done by any more when the machine has scored between them.
func unmarked(steps []Step, cutter Cutter, gone map[string]bool) []Step {
	if cutter != Scoring {
		return steps
	}
	var out []Step
	for i, s := range steps {
		m, marks := s.Does.(hand.Mark)
		used := slices.ContainsFunc(steps[i+1:], func(x Step) bool { return x.Piece == s.Piece && strings.Contains(x.Text, "mark") })
		if marks && len(m.Calls) == 0 && !used {
			gone[s.Key] = true
			continue
		}
		s.Inner = unmarked(s.Inner, cutter, gone)
		out = append(out, s)
	}
	return out
}

// done tells whether a step on a piece is done when that is cut out.
func (w Work) done(s Step, p *pattern.Pattern) bool {
	switch s.Does.(type) {
	case hand.Template, hand.CutOff, hand.Notch:
		return true
	case hand.CutTraced: // what is inside is left to the hand
		return w.Cutter.machine() || len(p.Holes)+len(p.Slits) == 0
	case hand.Mark:
		return s.Does.(hand.Mark).Key == "template-draw"
	case hand.ScoreFour, hand.ScoreFrom, hand.Score, hand.ScoreTraced:
		return w.Cutter == Scoring
	}
	if s.Kind != Remove || len(s.Cuts) == 0 {
		return false
	}
	outline := p.Outline.Flat()
	lines := [][]pattern.Point{closed(outline)}
	var holes [][]pattern.Point
	if w.Cutter.machine() {
		for _, h := range p.Holes {
			holes = append(holes, h.Flat())
			lines = append(lines, closed(h.Flat()))
		}
		for _, slit := range p.Slits {
			lines = append(lines, slit.Path().Open())
		}
	}
	return !slices.ContainsFunc(s.Cuts, func(l Line) bool { return !cutAway(l.Path.Open(), lines, outline, holes) })
}

// onLine is how far from a line a cut may be that is along it, in mm: arcs are cut in straights.
const onLine = 0.3

func closed(ring []pattern.Point) []pattern.Point { return append(ring[:len(ring):len(ring)], ring[0]) }

// cutAway tells whether a line that scissors cut runs along lines that are cut already, or through card that
// has come off with them: as it does at its ends and between them.
func cutAway(line []pattern.Point, along [][]pattern.Point, outline []pattern.Point, holes [][]pattern.Point) bool {
	const between = 6
	done := func(q pattern.Point) bool {
		away := !pattern.Contains(outline, q) || slices.ContainsFunc(holes, func(h []pattern.Point) bool { return pattern.Contains(h, q) })
		return away || slices.ContainsFunc(along, func(way []pattern.Point) bool {
			for i := 1; i < len(way); i++ {
				if (pattern.Segment{A: way[i-1], B: way[i]}).Distance(q) < onLine {
					return true
				}
			}
			return false
		})
	}
	for i := 1; i < len(line); i++ {
		for k := range between + 1 {
			if !done(line[i-1].Add(line[i].Sub(line[i-1]).Scale(float64(k) / between))) {
				return false
			}
		}
	}
	return true
}

// saidOut tells a piece that is made like another, cut out by its shape.
func (l likeness) saidOut(s teller, key, open string) string {
	all := []string{s.Say(key+string(s.cutter)+open, l.fields)}
	if l.four && s.cutter != Scoring {
		all = append(all, s.Say("score-four", l.fields))
	}
	return strings.Join(append(all, l.also...), " ")
}
