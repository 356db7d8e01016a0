package reading

import (
	"slices"
	"strings"

	"brevium/core/measure"
)

// size reads "8 x 6 in", "a square of 12 in", "8 in wide and 6 in high" or "width 8,
// length 6": a blank; and three of them: a finished size that is claimed.
func (p *parser) size() bool {
	if p.sides() {
		return true
	}
	i := p.i
	if !p.num(i) {
		return false
	}
	if p.is(i+1, "square", "sq") && !p.is(i+2, "corner", "corners") {
		p.use(i, i+2)
		p.i += 2
		p.blank(i, i, i)
		return true
	}
	if p.is(i-1, "square") || p.is(i-2, "square") && p.is(i-1, "of") {
		p.use(i-2, i+1)
		p.i++
		p.blank(i, i, i)
		return true
	}
	if !p.times(i+1) || !p.num(i+2) {
		return false
	}
	if p.early[i] {
		p.i += 3
		return true
	}
	p.lend(i, i+2)
	if n, is := p.count(i); is && p.times(i+3) && p.num(i+4) && p.tok(i+1).from == p.tok(i).to && p.tok(i+3).from > p.tok(i+2).to {
		p.as(i, OfCount) // "4x 2 3/8 x 1 3/8"
		p.use(i+1, i+2)
		p.many, p.i = n, i+2
		return true
	}
	if p.times(i+3) && p.num(i+4) {
		p.lend(i, i+4)
		p.i += 5
		p.claim(i, i+2, i+4)
		return true
	}
	w, h := p.length(i), p.length(i+2)
	p.use(i, i+3)
	p.i += 3
	// The same again in another unit, between brackets.
	if p.is(i-1, "(") && p.now >= 0 && near(p.out.Pieces[p.now].Width, w) && near(p.out.Pieces[p.now].Height, h) {
		p.as(i, OfSize)
		p.as(i+2, OfSize)
		return true
	}
	p.blank(i, i, i+2)
	return true
}

// claim notes the finished size of three numbers.
func (p *parser) claim(a, b, c int) {
	p.use(a, c+1)
	for _, i := range []int{a, b, c} {
		p.as(i, OfClaim)
	}
	p.out.Claims = append(p.out.Claims, Claim{Size: [3]measure.Length{p.length(a), p.length(b), p.length(c)}, Span: p.span(a, c)})
}

// ways are words for how far a blank goes.
var ways = set("wide width across long length deep depth high height tall")

// sides reads a size whose numbers tell which way they go.
func (p *parser) sides() bool {
	var at []int
	k := p.i
	for len(at) < 3 {
		word := func(i int) bool {
			return p.tok(i).kind == word && ways[p.tok(i).text] && !p.is(i+1, "side", "sides", "edge", "edges", "way")
		}
		switch {
		case p.num(k) && word(k+1):
			at, k = append(at, k), k+2
		case word(k) && p.num(k+1):
			at, k = append(at, k+1), k+2
		case word(k) && p.is(k+1, ":", "=", "of", "is") && p.num(k+2):
			at, k = append(at, k+2), k+3
		default:
			return p.told(at)
		}
		for next := k; next < k+3; next++ {
			if p.num(next) || word(next) {
				k = next
				break
			}
			if !p.is(next, ",", "and", "by", "x", "×") {
				return p.told(at)
			}
		}
	}
	return p.told(at)
}

// told makes a blank of two numbers, and a claim of three.
func (p *parser) told(at []int) bool {
	if len(at) < 2 {
		return false
	}
	last := at[len(at)-1]
	p.lend(at[0], last)
	end := last + 1
	if p.tok(end).kind == word && ways[p.tok(end).text] {
		end++
	}
	p.use(p.i, end)
	p.i = end
	if len(at) == 3 {
		p.claim(at[0], at[1], at[2])
	} else {
		p.blank(at[0], at[0], last)
	}
	return true
}

// lend gives the numbers from one to another the unit of the last, where they have
// none: "8 x 6 in".
func (p *parser) lend(from, to int) {
	u := p.tok(to).unit
	for k := from; k < to && u != ""; k++ {
		if p.toks[k].kind == number && p.toks[k].unit == "" {
			p.toks[k].unit = u
		}
	}
}

// near reports whether two lengths are one, each told in its own unit: a hundredth of
// it or half a millimetre apart at most.
func near(a, b measure.Length) bool {
	return (a - b).Abs() <= max(measure.Millimetre/2, min(a, b)/100)
}

// blank begins a piece whose sides are two numbers, after what is before token i.
func (p *parser) blank(i, across, down int) {
	w, h := p.length(across), p.length(down)
	if len(p.out.Pieces) >= MostPieces || w <= 0 || h <= 0 || max(w, h) > largest {
		return // unread
	}
	if p.beside(i) {
		p.as(across, OfSize)
		p.as(down, OfSize)
		return
	}
	if p.stock(i) {
		p.as(across, OfPaper)
		p.as(down, OfPaper)
		return
	}
	again := p.anew(i, across, down)
	copies := p.copies(i)
	name := p.name
	if name == "" || plainNouns[name] {
		name = p.nameAfter(name)
	}
	if copies == 1 {
		copies = p.copiesAfter(1)
	}
	piece := Piece{Name: name, Width: w, Height: h, Copies: copies, Panel: panels[name], From: p.tok(i).from, To: p.tok(down).to, like: -1}
	if p.at < i && p.at >= 0 && p.name != "" {
		piece.From = min(piece.From, p.tok(p.at).from)
	}
	if again {
		p.dropped()
		was := p.out.Pieces[p.now]
		if piece.Name == "" || plainNouns[piece.Name] {
			piece.Name, piece.Panel = was.Name, was.Panel
		}
		piece.Copies, piece.From = max(piece.Copies, was.Copies), was.From
		p.out.Pieces = p.out.Pieces[:p.now]
	} else if name == "" && p.now >= 0 && p.out.Pieces[p.now].Panel && p.goesOn(i) {
		piece.Name, piece.Panel = p.out.Pieces[p.now].Name, true // "two mats 4 x 1, two 3 x 1"
	}
	if p.alike && p.now >= 0 && !again {
		piece.like = p.now
	}
	piece.aliases = p.aliases(i)
	if p.twin != "" && len(p.out.Pieces)+1 < MostPieces {
		twin := piece
		twin.Name, twin.Panel, p.twin = p.twin, panels[p.twin], ""
		p.out.Pieces = append(p.out.Pieces, twin)
	}
	p.out.Pieces = append(p.out.Pieces, piece)
	n := len(p.out.Pieces) - 1
	p.out.Uses = append(p.out.Uses, Use{Span: p.span(across, across), Piece: n, What: Width})
	if down != across {
		p.out.Uses = append(p.out.Uses, Use{Span: p.span(down, down), Piece: n, What: Height})
	}
	p.now, p.name, p.many, p.at, p.turned, p.alike = n, "", 0, -1, false, false
	p.shim, p.quarters, p.flipped = 0, 0, false
	if p.scoring {
		p.scoring = false
		p.score(false)
	}
}

// beside reports whether a size is of something that is no blank: "a window of 2 x 1".
func (p *parser) beside(i int) bool {
	k := i - 1
	for p.is(k, ":", "-", "–", "of", "is", "a", "about", "(") {
		k--
	}
	return p.tok(k).kind == word && besides[p.tok(k).text]
}

// letter gives the capital that a token is where it names a piece: "A: 9 x 4".
func (p *parser) letter(i int) string {
	t := p.tok(i)
	if t.kind == word && t.to == t.from+1 && p.text[t.from] >= 'A' && p.text[t.from] <= 'H' {
		return p.text[t.from:t.to]
	}
	return ""
}

// aliases are the words before a size, in its sentence, that are none of the grammar's:
// what the text may know the piece by afterwards.
func (p *parser) aliases(i int) []string {
	var out []string
	for k := i - 1; k >= max(0, i-6) && !p.is(k, "\n", ".", ";") && p.tok(k).kind != number; k-- {
		if l := p.letter(k); l != "" && (k == i-1 || p.is(k+1, ":", "-", "–", ")")) {
			out = append(out, l)
			p.use(k, k+1)
		} else if p.tok(k).kind == word && p.odd(k) {
			if out = append(out, p.tok(k).text); k == i-2 && p.is(i-1, ":") {
				p.use(k, k+1) // "Medium: 8 x 8"
			}
		}
	}
	return out
}

// known is the piece that the text knows by a word of its own, −1 for none or several.
func (p *parser) known(i int) int {
	by := p.letter(i)
	if by == "" && p.tok(i).kind == word && p.odd(i) {
		by = p.tok(i).text
	}
	found := -1
	for k, x := range p.out.Pieces {
		if by != "" && slices.Contains(x.aliases, by) {
			if found >= 0 {
				return -1
			}
			found = k
		}
	}
	return found
}

// nameAfter is what a blank is called behind its size: "8 x 6 base".
func (p *parser) nameAfter(name string) string {
	if n := noun(p.tok(p.i + 1).text); panels[n] && p.is(p.i, ",") && p.is(p.i+2, "\n", ".", ";") {
		p.use(p.i, p.i+2) // "C) 5 x 3 in, panel"
		p.i += 2
		return n
	}
	for k := p.i; k < p.i+3; k++ {
		n := noun(p.tok(k).text)
		if n != "" && p.tok(k).kind == word && !plainNouns[n] && !p.num(k+1) && !p.is(k+1, ":", "-", "–") {
			p.used[k] = true
			p.i = k + 1
			return n
		}
		if p.is(k, ".", "\n", ";", ",") || p.num(k) {
			break
		}
	}
	return name
}

// goesOn reports whether nothing but signs, small words and a count lies between a
// token and the piece before.
func (p *parser) goesOn(i int) bool {
	for k := i - 1; k >= 0 && p.tok(k).from >= p.out.Pieces[p.now].To; k-- {
		t := p.tok(k)
		if words := t.kind == word && (sides[t.text] || p.is(k, "for", "on", "of", "the", "long", "short", "top", "bottom", "front", "back")); !words && !p.is(k, ",", "and", "&", "+", ")", "(", "@", "a") && !p.num(k) {
			return false
		}
	}
	return true
}

// count gives the whole number at a token that counts pieces.
func (p *parser) count(k int) (int, bool) {
	n, whole := p.tok(k).whole()
	numbered := p.is(k-1, "no", "nr", "number", "recipe", "version") || p.is(k-1, ".") && p.is(k-2, "no", "nr") // "recipe no. 5"
	return n, whole && p.tok(k).unit == "" && n >= 1 && n <= mostCopies && !numbered
}

// copies is how many of a blank are cut, from the words round its size: "make 2: 4 x
// 2", "four mats 4 x 1", "4 x 2 (2)", "4 x 2, cut 2".
func (p *parser) copies(i int) int {
	k, words := i-1, 0
	for k >= 0 && (p.is(k, ",") && p.is(k+1, "each") || p.is(k, ":", "-", "–", ")", "(", "@", "of", "at", "each", "off", "these", "them", "for", "the", "sides", "ends", "long", "short") || p.tok(k).kind == word && noun(p.tok(k).text) != "" || p.tok(k).kind == word && p.odd(k) && words < 2) {
		if p.odd(k) {
			words++
		}
		k--
	}
	if n, is := p.count(k); is && (!p.used[k] || k == p.at-1) && (p.opens(k) || p.is(k-1, "cut", "make", "need", "x", "×", "(", "and", "a", "also", "score", "&", "+", "-", "=")) {
		if words == 0 || !p.num(k+1) {
			p.use(k-1, i)
			p.as(k, OfCount)
			p.many = n
		}
	}
	return p.copiesAfter(max(1, p.many))
}

// copiesAfter reads how many of a blank are cut behind its size, many where nothing is
// said.
func (p *parser) copiesAfter(many int) int {
	k := p.i
	if p.tok(k).kind == word && plainNouns[noun(p.tok(k).text)] && p.is(k+1, "(") {
		k++
	}
	start := k
	if p.stepInBrackets(k) {
		return many
	}
	if p.is(k, ",", "-", "–", "(") {
		k++
	}
	if p.is(k, "cut", "make", "need", "qty", "x", "×") {
		k++
	}
	n, is := p.count(k)
	switch {
	case !is || p.times(k+1):
		return many
	case p.is(start, "(") && p.is(k+1, ")"): // "(2)", "(qty 2)"
		k++
	case p.is(k-1, "cut", "make", "need", "qty", "x", "×") && !p.num(k+1) && noun(p.tok(k+1).text) == "":
	case p.is(k+1, "off", "times") || p.is(k+1, "of") && p.is(k+2, "them", "these"):
		k++
	default:
		return many
	}
	p.use(p.i, k+1)
	for at := p.i; at <= k; at++ {
		if p.num(at) {
			p.as(at, OfCount)
		}
	}
	p.i = k + 1
	return n
}

// between reports whether one of the words stands between the piece before and token
// i, in one sentence with it.
func (p *parser) between(i int, words ...string) bool {
	for k := i - 1; k >= 0 && p.now >= 0 && p.tok(k).from >= p.out.Pieces[p.now].To; k-- {
		if p.is(k, "\n", ";", ".") {
			return false
		}
		if p.is(k, words...) {
			return true
		}
	}
	return false
}

// anew reports whether a size takes the place of the one before: "no wait, make that 8
// x 6", and where a sheet is trimmed to it.
func (p *parser) anew(i, across, down int) bool {
	if p.now < 0 || len(p.out.Pieces[p.now].passes) > 0 || p.name != "" && !plainNouns[p.name] || p.now != len(p.out.Pieces)-1 {
		return false
	}
	if p.between(i, "wait", "sorry", "rather", "oops", "correction") || p.between(i, "that") && p.between(i, "make") {
		for k := i - 1; p.tok(k).from >= p.out.Pieces[p.now].To; k-- {
			if p.is(k, "wait", "sorry", "rather", "oops", "correction") {
				p.use(k, k+1)
			}
		}
		return true
	}
	if p.is(i-1, "to") && p.between(i, "trimmed", "trim", "down", "cut") {
		return true
	}
	// "an 8 1/2 x 11 sheet, cut in half: 8 1/2 x 5 1/2"
	was := p.out.Pieces[p.now]
	if was.Name != "" && !plainNouns[was.Name] || !p.between(i, "cut") || p.length(across) > was.Width || p.length(down) > was.Height || was.Copies > 1 {
		return false
	}
	p.say("%s is read as the sheet that it is cut from", strings.TrimSpace(p.text[was.From:was.To]))
	return true
}

// dropped gives up the sides of the piece at hand, whose place another takes: as those of the
// sheet that it is cut from, or because the text corrects them.
func (p *parser) dropped() {
	corrected := p.between(p.i, "wait", "sorry", "rather", "oops", "correction", "make", "was")
	for _, u := range p.out.Uses {
		if u.Piece != p.now {
			continue
		}
		i := slices.IndexFunc(p.toks, func(t token) bool { return t.from == u.From })
		if corrected {
			p.takeBack(i)
		} else {
			p.as(i, OfPaper)
		}
	}
	p.out.Uses = slices.DeleteFunc(p.out.Uses, func(u Use) bool { return u.Piece == p.now })
}

// stock reports whether a size is of the sheet that a piece is cut from: "from a 12 x
// 12 sheet cut 9 x 9".
func (p *parser) stock(i int) bool {
	k := i - 1
	for p.is(k, "a", "an", "one", "the", "your", "of") || p.tok(k).spelled {
		k--
	}
	if !p.is(k, "from", "using") {
		return false
	}
	if p.now >= 0 && len(p.out.Pieces[p.now].passes) == 0 && p.between(i, "from") {
		return true
	}
	for k := p.i; k < p.i+12; k++ {
		if p.is(k, ".", ";", "\n") || p.tok(k).kind == word && meant(p.tok(k).text, scores) != "" {
			return false
		}
		if p.times(k) && p.num(k-1) && p.num(k+1) {
			return true
		}
	}
	return false
}
