package found

import (
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/reading"
	"brevium/core/style"
)

// mostWays is how many other readings of a text are offered.
const mostWays = 3

// Ways are the other ways to read a recipe, where the text does not say, that make a box of a
// known kind.
func (t *Told) Ways(text string, unit measure.Unit) (out []Remedy) {
	for _, w := range t.Reading.Ways(text) {
		// What makes nothing else, or lies beside its card, need not be worked out.
		if r, err := reading.Read(w.Text, unit); err != nil || r.OffCard || t.sameAs(r) || len(r.NotUnderstood) > len(t.NotUnderstood) {
			continue
		}
		again, err := tell(w.Text, unit, false)
		if err != nil || again.Match == nil || slices.ContainsFunc(out, func(r Remedy) bool { return r.Told.sameAs(again.Reading) }) {
			continue
		}
		out = append(out, Remedy{Put: w.Say, Because: t.Voice.Say("It is %s then", article(again.Match.Style.Name)), Text: w.Text, Told: again})
		if len(out) == mostWays {
			break
		}
	}
	return out
}

// sameAs reports whether two readings make the same pieces.
func (t *Told) sameAs(other *reading.Reading) bool {
	return slices.EqualFunc(t.Pieces, other.Pieces, func(a, b reading.Piece) bool {
		return a.Copies == b.Copies && a.Panel == b.Panel && a.Width == b.Width && a.Height == b.Height && slices.Equal(a.Vertical, b.Vertical) && slices.Equal(a.Horizontal, b.Horizontal)
	})
}

// named puts first, of the styles that pieces are of, the one that the text calls them, and says
// where the name and the numbers do not tell the same; it reports whether it said so.
func (t *Told) named(all []Match, text string) bool {
	text = " " + strings.Join(strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return r < 'a' || r > 'z' }), " ") + " "
	calls := func(s *style.Style) bool {
		for _, name := range []string{strings.ReplaceAll(s.ID, "-", " "), strings.ToLower(s.Name)} {
			if strings.Contains(name, " ") && strings.Contains(text, " "+name+" ") {
				return true
			}
		}
		return false
	}
	called := slices.IndexFunc(style.Boxes(), calls)
	if called < 0 {
		return false
	}
	name := article(style.Boxes()[called].Name)
	i := slices.IndexFunc(all, func(m Match) bool { return m.Style == style.Boxes()[called] })
	switch {
	case i < 0:
		t.say("It is called %s, but its numbers are those of %s.", name, article(all[0].Style.Name))
	case len(all) > 1:
		all[0], all[i] = all[i], all[0]
		t.say("It is called %s; its numbers are those of %s as well.", name, article(all[1].Style.Name))
	}
	return i < 0 || len(all) > 1
}
