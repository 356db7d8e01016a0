package found

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/reading"
	"brevium/core/style"
)

// Remedy is what would mend a recipe: the text with one thing in it otherwise, what that is, and
// why it is likely.
type Remedy struct {
	Put, Because string
	Text         string
	Told         *Told // what that makes
}

// mostRemedies is how many are offered.
const mostRemedies = 3

// Remedies work out what is missing in a recipe, or is wrong in one place, from all the rest of it:
// the number that would make it a box, what stands where the text has a gap, the lid over its base.
// Each was read again and is a box that is known. Text is the recipe's, unit that of numbers that
// say none.
func (t *Told) Remedies(text string, unit measure.Unit) []Remedy {
	var out []Remedy
	add := func(r Remedy, is bool) {
		if !is || len(out) == mostRemedies || slices.ContainsFunc(out, func(x Remedy) bool { return x.Text == r.Text }) {
			return
		}
		if again, err := tell(r.Text, unit, false); err == nil && again.Match != nil && !again.OffCard && (t.Match == nil || again.Match.Style != t.Match.Style) {
			r.Because, r.Told = t.Voice.Say("%s; it is %s then", r.Because, article(again.Match.Style.Name)), again
			out = append(out, r)
		}
	}
	if t.Match != nil { // a lid that has no size leaves a box without one
		add(t.lidOver(text))
		return out
	}
	for _, m := range t.Near {
		if len(m.Otherwise) == 1 {
			add(t.otherNumber(text, m.Otherwise[0]))
		}
	}
	for _, gap := range t.NotUnderstood {
		add(t.inGap(text, unit, gap))
	}
	add(t.lidOver(text))
	for _, r := range t.levelled(text) {
		add(r, true)
	}
	return out
}

// slip is how far a number is from the one that was meant, at the most.
const slip = measure.Inch / 4

// levelled gives, for scores of a piece that are nearly alike, the text with the one in the place of the
// other: one number of a text may make two lines.
func (t *Told) levelled(text string) (out []Remedy) {
	for _, u := range t.Uses {
		for _, v := range t.Uses {
			if u.What != reading.Score || v.What != reading.Score || u.Piece != v.Piece || u.Span == v.Span {
				continue
			}
			a, b := strings.TrimSpace(u.Text), strings.TrimSpace(v.Text)
			if d := (t.Value(u) - t.Value(v)).Abs(); d == 0 || d > slip {
				continue
			}
			out = append(out, Remedy{Put: t.Voice.Say("Put %s for %s", b, a), Because: "As its other scores are", Text: text[:u.From] + v.Text + text[u.To:]})
		}
	}
	return out
}

// number is a length as it is typed in the text.
func (t *Told) number(l measure.Length) string { return measure.Number(l, t.Unit, t.Unit.Tick()) }

// otherNumber puts the number that a style would have in place of the one that is told.
func (t *Told) otherNumber(text string, o Otherwise) (Remedy, bool) {
	piece := t.nearOf[o.Blank]
	p := t.Pieces[piece]
	now := p
	now.Vertical, now.Horizontal = slices.Clone(p.Vertical), slices.Clone(p.Horizontal)
	put := func(lines []measure.Length) bool {
		if o.Number.Score >= len(lines) {
			return false
		}
		lines[o.Number.Score] = o.Should
		return true
	}
	ok := true
	switch o.Number.What {
	case Wide:
		now.Width = o.Should
	case High:
		now.Height = o.Should
	case Across:
		ok = put(now.Vertical)
	default:
		ok = put(now.Horizontal)
	}
	if !ok {
		return Remedy{}, false
	}
	said := ""
	mended := t.Again(text, func(u reading.Use) (string, bool) {
		if u.Piece != piece || !t.tells(u, o) {
			return "", false
		}
		at, is := t.Now(u, now)
		if !is {
			return "", false
		}
		said = t.Voice.Say("Put %s for %s", t.number(at), strings.TrimSpace(u.Text))
		return t.like(at, u.Text), true
	})
	return Remedy{Put: said, Because: "All other numbers agree", Text: mended}, said != ""
}

// like writes a length with the unit of the number that it stands for.
func (t *Told) like(l measure.Length, was string) string { return t.number(l) + unitOf(was) }

// tells reports whether a use of the text tells the number that would be otherwise.
func (t *Told) tells(u reading.Use, o Otherwise) bool {
	across, down := t.Lines(u)
	switch p := t.Pieces[u.Piece]; o.Number.What {
	case Wide:
		return u.What == reading.Width
	case High:
		return u.What == reading.Height
	case Across:
		return u.What == reading.Score && slices.Contains(across, p.Vertical[o.Number.Score])
	default:
		return u.What == reading.Score && slices.Contains(down, p.Horizontal[o.Number.Score])
	}
}

// inGap puts into a gap of the text the number that the rest asks for: with any number there, all
// others say what it should be.
func (t *Told) inGap(text string, unit measure.Unit, gap reading.Span) (Remedy, bool) {
	if strings.Trim(gap.Text, "?…. ") != "" {
		return Remedy{}, false
	}
	for _, guess := range []measure.Length{measure.Inch, 3 * measure.Inch, 6 * measure.Inch} {
		guess = measure.Nearest(guess, t.Unit.Tick())
		filled := text[:gap.From] + t.number(guess) + text[gap.To:]
		again, err := Tell(filled, unit)
		if err != nil || again.Match != nil { // any number would do
			continue
		}
		for _, m := range again.Near {
			if len(m.Otherwise) != 1 {
				continue
			}
			r, is := again.otherNumber(filled, m.Otherwise[0])
			if is && strings.HasPrefix(r.Text, text[:gap.From]) && strings.HasSuffix(r.Text, text[gap.To:]) {
				put := r.Text[gap.From : len(r.Text)-(len(text)-gap.To)]
				return Remedy{Put: t.Voice.Say("Put %s for %s", put, gap.Text), Because: r.Because, Text: r.Text}, true
			}
		}
	}
	return Remedy{}, false
}

// aLid is where a text tells of a lid: the top is as often that of the board.
var aLid = regexp.MustCompile(`(?i)\b(lid|deckel|couvercle)\b`)

// lidOver gives the lid that goes over the one tray of a recipe, where that is told of a lid that
// has no size or one that is too small.
func (t *Told) lidOver(text string) (Remedy, bool) {
	base, lid := -1, -1
	for i, p := range t.Pieces {
		switch {
		case p.Panel:
		case slices.Contains(lids, p.Name):
			lid = i
		case base >= 0:
			return Remedy{}, false
		default:
			base = i
		}
	}
	if base < 0 || lid < 0 && !aLid.MatchString(text) {
		return Remedy{}, false
	}
	want := t.overBase(t.Pieces[base])
	if want == nil {
		return Remedy{}, false
	}
	across, down, deep := want.Width, want.Height, want.Scores.Vertical[0]
	if lid >= 0 { // as deep as it is told
		if p := t.Pieces[lid]; len(p.Vertical) == 2 && len(p.Horizontal) == 2 && p.Vertical[0] == p.Horizontal[0] {
			across, down, deep = across+2*(p.Vertical[0]-deep), down+2*(p.Vertical[0]-deep), p.Vertical[0]
		}
	}
	size := fmt.Sprintf("%s × %s", t.number(across), t.number(down))
	if lid < 0 {
		return Remedy{Put: t.Voice.Say("Add the lid over this base: %s", size), Because: "Worked out from the base",
			Text: strings.TrimRight(text, "\n ") + fmt.Sprintf("\nLid %s %s, score %s on all four sides.", size, t.Unit, t.number(deep))}, true
	}
	if p := t.Pieces[lid]; (p.Width < p.Height) != (across < down) {
		across, down = down, across
	}
	mended := t.Again(text, func(u reading.Use) (string, bool) {
		switch {
		case u.Piece != lid:
		case u.What == reading.Width:
			return t.like(across, u.Text), true
		case u.What == reading.Height:
			return t.like(down, u.Text), true
		}
		return "", false
	})
	return Remedy{Put: t.Voice.Say("Put %s for the lid", size), Because: "Worked out from the base", Text: mended}, true
}

// overBase is the lid that goes over a base, as deep as usual; nil where the base is no tray.
func (t *Told) overBase(base reading.Piece) *pattern.Pattern {
	got := Find([]Blank{{base.Width, base.Height, base.Vertical, base.Horizontal}}, t.Unit)
	if len(got) == 0 || len(got[0].Otherwise) > 0 {
		return nil
	}
	for _, s := range style.Boxes() {
		with, err := got[0].Inputs.With(s.ID, nil)
		if err != nil {
			continue
		}
		for i, axis := range got[0].Style.Axes {
			if axis != nil && s.Axes[i] != nil {
				with.Size[s.Axes[i].ID] = got[0].Inputs.Size[axis.ID]
			}
		}
		made, err := design.Sketch(with)
		if err != nil || len(made.Parts) != 2 {
			continue
		}
		lid := slices.IndexFunc(made.Parts, func(p design.Part) bool { return slices.Contains(lids, p.ID) })
		if lid < 0 {
			continue
		}
		under, over := made.Parts[1-lid].Pattern, made.Parts[lid].Pattern
		same := under.Width == base.Width && under.Height == base.Height || under.Width == base.Height && under.Height == base.Width
		if same && len(over.Scores.Vertical) == 2 && len(over.Scores.Horizontal) == 2 && over.Scores.Vertical[0] == over.Scores.Horizontal[0] {
			return over
		}
	}
	return nil
}
