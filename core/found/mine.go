package found

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/reading"
)

// Mine is a recipe beside the box that it has become.
type Mine struct {
	// Text is the recipe in the same words with the numbers of today; Changed says in
	// which numbers it is otherwise, and Lost what cannot be said in those words.
	Text          string
	Changed, Lost []string
}

// Mine holds the recipe against the box as it is now. text is what was read; false where
// the box is of another kind now.
// otherwise unit is another one to write it in; "" is its own.
func (t *Told) Mine(text string, now *design.Built, otherwise measure.Unit) (Mine, bool) {
	m := Mine{Text: text}
	if t.Match == nil || now.Style != t.Match.Style {
		return m, false
	}
	unit := t.Unit
	if otherwise != "" {
		unit = otherwise
	}
	show := func(l measure.Length) string {
		switch {
		case unit == t.Unit:
			return measure.Number(l, unit, unit.Tick())
		case unit == measure.In: // as near as one marks it
			return measure.Field(measure.Nearest(l, measure.Tick(measure.Inch/32)), unit)
		}
		return measure.Field(measure.Nearest(l, measure.Tick(measure.Millimetre/10)), unit)
	}
	pieces := slices.Clone(t.Pieces)
	for i, n := range t.Of {
		if n < 0 {
			continue
		}
		k := slices.IndexFunc(now.Parts, func(p design.Part) bool { return p.ID == t.Match.Parts[n] })
		if k < 0 {
			return m, false
		}
		p := now.Parts[k].Pattern
		pieces[i] = t.Match.lies[n].back(Blank{p.Width, p.Height, p.Scores.Vertical, p.Scores.Horizontal})
	}
	m.Text = t.Again(text, func(u reading.Use) (string, bool) {
		if t.Of[u.Piece] < 0 && unit == t.Unit {
			return "", false
		}
		is, ok := t.Now(u, pieces[u.Piece])
		name := named(t.Pieces[u.Piece])
		if !ok {
			m.Lost = append(m.Lost, fmt.Sprintf("%s: %s is not one number any more", name, strings.TrimSpace(u.Text)))
			return "", false
		}
		was, ok := t.Now(u, t.Pieces[u.Piece])
		if ok && was == is && unit != t.Unit {
			return show(is) + " " + string(unit), true
		}
		if !ok || was == is {
			return "", false
		}
		what := map[reading.What]string{reading.Width: "the blank's first side", reading.Height: "the blank's second side", reading.Score: "score"}[u.What]
		m.Changed = append(m.Changed, fmt.Sprintf("%s: %s %s instead of %s", name, what, show(is), show(was)))
		new := show(is)
		if unit != t.Unit {
			new += " " + string(unit)
		} else if tail := unitOf(u.Text); tail != "" {
			new += tail
		}
		return new, true
	})
	slices.Reverse(m.Changed) // they were gone through from the end
	return m, true
}

// unitOf is the unit that was typed behind a number, with the space before it.
func unitOf(text string) string {
	i := strings.LastIndexAny(text, "0123456789½⅓⅔¼¾⅛⅜⅝⅞")
	if i < 0 {
		return ""
	}
	for _, r := range text[i:] {
		return text[i+len(string(r)):]
	}
	return ""
}

// back gives a part's blank as the recipe has it lying.
func (l lain) back(b Blank) reading.Piece {
	turn := func(at []measure.Length, whole measure.Length, mirror bool) []measure.Length {
		if !mirror {
			return at
		}
		out := make([]measure.Length, len(at))
		for k, x := range at {
			out[len(at)-1-k] = whole - x
		}
		return out
	}
	p := reading.Piece{Width: b.Width, Height: b.Height, Vertical: turn(b.Vertical, b.Width, l.mirror[0]), Horizontal: turn(b.Horizontal, b.Height, l.mirror[1])}
	if l.turned {
		p.Width, p.Height, p.Vertical, p.Horizontal = p.Height, p.Width, p.Horizontal, p.Vertical
	}
	return p
}
