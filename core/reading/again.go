package reading

import (
	"cmp"
	"slices"
	"strings"

	"brevium/core/measure"
)

// Now gives the number that stands for a use when its piece is cut and scored
// otherwise: counted from where the recipe counts it. False where it has no such line
// any more, or where one number of all edges would have to be two.
func (r *Reading) Now(u Use, now Piece) (measure.Length, bool) {
	was := &r.Pieces[u.Piece]
	switch u.What {
	case Width:
		return now.Width, true
	case Height:
		return now.Height, true
	}
	x := was.passes[u.pass]
	if x.every || x.parts > 0 {
		return 0, false
	}
	one := Piece{Width: was.Width, Height: was.Height}
	alone := x
	alone.at = x.at[u.n : u.n+1]
	one.place(alone)
	found := measure.Length(-1)
	// Each line that the number made tells what it is now, from its own edge.
	tell := func(lines, before, after []measure.Length, whole, wide measure.Length) bool {
		for _, at := range lines {
			k := slices.Index(before, at)
			if k < 0 || len(before) != len(after) {
				return false
			}
			n := after[k]
			if near := x.at[u.n] - x.shim; at != near {
				n = wide - n
			}
			if found >= 0 && found != n+x.shim {
				return false
			}
			found = n + x.shim
		}
		return true
	}
	ok := tell(one.Vertical, was.Vertical, now.Vertical, was.Width, now.Width) && tell(one.Horizontal, was.Horizontal, now.Horizontal, was.Height, now.Height)
	return found, ok && found >= 0
}

// Again writes the recipe once more in the same words, numbers that say gives another
// text for put in the place of theirs.
func (r *Reading) Again(text string, say func(Use) (string, bool)) string {
	uses := slices.Clone(r.Uses)
	slices.SortStableFunc(uses, func(a, b Use) int { return cmp.Compare(b.From, a.From) })
	end := len(text)
	for _, u := range uses {
		if new, other := say(u); other && u.To <= end {
			text, end = text[:u.From]+new+text[u.To:], u.From
		}
	}
	return text
}

// twice takes numbers out of the text that tell the one before them again, in another unit and
// between brackets: "8 in (20.3 cm) x 6 in (15.2 cm)". One that tells another length is said and
// stays, marked.
func (p *parser) twice() {
	var toks []token
	for i := 0; i < len(p.toks); i++ {
		toks = append(toks, p.toks[i])
		t, u := p.tok(i), p.tok(i+2)
		if !p.num(i) || !p.is(i+1, "(") || !p.num(i+2) || !p.is(i+3, ")") || u.unit == "" {
			continue
		}
		unit := cmp.Or(t.unit, p.out.Unit)
		if unit == u.unit {
			continue
		}
		if near(t.length(unit), u.length(u.unit)) {
			p.out.Numbers = append(p.out.Numbers, Number{p.span(i+2, i+2), OfSize, -1})
		} else {
			p.say("%s and %s are not the same length", p.text[t.from:t.to], p.text[u.from:u.to])
			p.out.Numbers = append(p.out.Numbers, Number{p.span(i+2, i+2), Unread, -1})
			p.out.NotUnderstood = append(p.out.NotUnderstood, p.span(i+2, i+2))
		}
		i += 3
	}
	p.toks = toks
	p.used, p.roles = p.used[:len(toks)], p.roles[:len(toks)]
}

// speakers takes the names before what is said in a chat as read: a word with a capital and a colon
// that begins two lines or more.
func (p *parser) speakers() {
	said := map[string][]int{}
	for i, t := range p.toks {
		if t.kind == word && (i == 0 || p.is(i-1, "\n")) && p.is(i+1, ":") && p.odd(i) && strings.ToLower(p.text[t.from:t.to]) != p.text[t.from:t.to] {
			said[t.text] = append(said[t.text], i)
		}
	}
	for _, at := range said {
		for _, i := range at {
			if len(at) > 1 {
				p.use(i, i+2)
			}
		}
	}
}

// Value is the length that a score's number tells.
func (r *Reading) Value(u Use) measure.Length { return r.Pieces[u.Piece].passes[u.pass].at[u.n] }

// Lines are where a number of a piece makes lines, across from its left and down from its top edge;
// none for a side of it.
func (r *Reading) Lines(u Use) (across, down []measure.Length) {
	if u.What != Score {
		return nil, nil
	}
	p := r.Pieces[u.Piece]
	x := p.passes[u.pass]
	x.at, x.parts = x.at[u.n:u.n+1], 0
	one := Piece{Width: p.Width, Height: p.Height}
	one.place(x)
	return one.Vertical, one.Horizontal
}
