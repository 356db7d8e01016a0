package reading

import (
	"slices"

	"brevium/core/measure"
)

// score reads where a piece is scored, from after the word that says so to the end of
// the sentence: lists of numbers, from where they count, turns of the card. turned is
// when the card was turned before.
func (p *parser) score(turned bool) {
	s := scoring{p: p, turned: turned}
	if p.now >= 0 {
		for _, x := range p.out.Pieces[p.now].passes {
			s.before = x.at
		}
	}
	if turned && p.now < 0 {
		return
	}
	if p.is(p.i, "both", "all") && p.is(p.i+1, "at", "pieces", "of", "blanks") {
		p.use(p.i, p.i+1)
		p.i++
		for k := range p.out.Pieces {
			if x := p.out.Pieces[k]; k != p.now && !x.Panel && len(x.passes) == 0 && x.like < 0 {
				s.with = append(s.with, k)
			}
		}
	}
	for p.i < len(p.toks) && s.next() {
	}
	s.flush()
	p.turned = s.turned && !s.any
	// "score an 8 x 6 at 1 1/2": the blank comes after the word.
	p.scoring = !s.any && p.num(p.i) && p.times(p.i+1)
}

// scoring is one sentence about scores.
type scoring struct {
	p      *parser
	turned bool
	at     []measure.Length
	spans  []Span
	from   edge
	size   measure.Length
	said   bool // from where they count
	shim   measure.Length
	before []measure.Length // the list before
	any    bool             // something was read
	with   []int            // pieces that are scored alike with it
	too    bool             // as the piece before
	// strange is set from a word that is not understood on: the numbers behind it may
	// be anything.
	strange bool
}

// next reads on; false where the sentence is over.
func (s *scoring) next() bool {
	p, i := s.p, s.p.i
	t := p.tok(i)
	switch {
	case p.num(i):
		return s.number()
	case p.is(i, ".", ";", "\n"):
		// Where nothing was read yet it goes on over the end: "Score it. 1 in from …".
		if len(s.at) > 0 || s.said || s.any {
			return false
		}
		p.i++
		return true
	case t.kind == mark:
		p.use(i, i+1)
		p.i++
		return true
	}
	if p.is(i, "lines") && p.is(i+1, "that") && p.is(i+2, "stop") {
		return false
	}
	switch {
	case meant(t.text, turns) != "" || p.is(i, "other") && p.is(i+1, "way", "direction") || p.quarterTurn(i):
		p.use(i, i+1)
		p.i++
		if s.from == fromAll && s.said {
			return true // "turn it a quarter after each"
		}
		s.flush()
		s.turned = true
		p.turnedBy()
		return true
	case meant(t.text, sames) != "":
		p.use(i, i+1)
		p.i++
		return s.same()
	case p.is(i, "too", "also") || p.is(i, "as") && p.is(i+1, "well", "before"):
		p.use(i, i+2)
		s.too = true
		p.i++
		return true
	case p.is(i, "shim") || meant(t.text, shims) != "":
		return s.held()
	case p.is(i, "but") && p.is(i+1, "a"), meant(t.text, claims) != "" && !p.is(i, "inside"):
		return false
	case s.edge():
		return true
	case noun(t.text) != "" && s.another(i):
		return false
	}
	if p.odd(i) {
		s.strange = true
	} else {
		p.use(i, i+1)
		s.strange = s.strange && meant(t.text, scores) == ""
	}
	p.i++
	return true
}

// turnedBy reads on over what is turned and how far: "the card 90 degrees".
func (p *parser) turnedBy() {
	for p.is(p.i, "it", "a", "quarter", "the", "card", "piece", "turn", "round", "around", "and", "degrees", "way", "direction") || p.num(p.i) && p.is(p.i+1, "degrees") {
		p.use(p.i, p.i+1)
		p.i++
	}
}

// quarterTurn reports whether "a quarter turn" begins.
func (p *parser) quarterTurn(i int) bool {
	return p.is(i, "quarter") && p.is(i+1, "turn") || p.is(i, "a") && p.is(i+1, "quarter") && p.is(i+2, "turn")
}

// another reports whether a noun begins a piece of its own: it is followed by a size,
// or by how much less it is.
func (s *scoring) another(i int) bool {
	p := s.p
	for k := i + 1; k < i+9; k++ {
		if p.is(k, ".", ";", "\n") || meant(p.tok(k).text, scores) != "" && p.tok(k).kind == word {
			return false
		}
		if p.num(k) {
			next := p.tok(k + 1)
			return p.times(k+1) && p.num(k+2) || next.kind == word && (meant(next.text, lesses) != "" || meant(next.text, mores) != "")
		}
	}
	return false
}

// number reads a number of a list, or one that says which side is meant.
func (s *scoring) number() bool {
	p, i := s.p, s.p.i
	if p.times(i+1) && p.num(i+2) {
		return false // a blank
	}
	if k, whole := p.tok(i).whole(); whole && k == 4 && p.tok(i).unit == "" && p.tok(i+1).kind == word && sides[p.tok(i+1).text] {
		p.i++ // of the four sides
		return s.side(fromAll)
	}
	if p.tok(i+1).kind == word && (p.is(i+1, "side", "edge") || p.is(i+1, "long") && p.is(i+2, "side")) && p.now >= 0 {
		size := p.length(i)
		if x := p.out.Pieces[p.now]; size == x.Width || size == x.Height {
			s.clause()
			p.use(i, i+2)
			p.i += 2
			s.from, s.size, s.said = alongSize, size, true
			return true
		}
	}
	if n := noun(p.tok(i + 1).text); n != "" && p.tok(i+1).kind == word && s.another(i+1) {
		return false // "four mats 4 x 1"
	}
	if meant(p.tok(i+1).text, lesses) != "" || meant(p.tok(i+1).text, mores) != "" {
		return false
	}
	// The same once more in another unit, between brackets.
	at := p.length(i)
	s.lendBack(i)
	if p.is(i-1, "(") && len(s.at) > 0 && near(s.at[len(s.at)-1], at) && p.tok(i).unit != "" && p.tok(i).unit != p.out.Unit {
		p.use(i, i+1)
		p.i++
		return true
	}
	if len(s.at) < mostScores && !s.strange {
		s.at, s.spans = append(s.at, at), append(s.spans, p.span(i, i))
		p.use(i, i+1)
	}
	p.i++
	return true
}

// lendBack gives numbers before one of a list its unit, where they have none:
// "1 and 2 in".
func (s *scoring) lendBack(i int) {
	p := s.p
	u := p.tok(i).unit
	if u == "" || u == p.out.Unit || p.is(i-1, "(") {
		return
	}
	n := len(s.at)
	for k := i - 1; k >= max(0, i-2*mostScores) && n > 0; k-- {
		t := p.toks[k]
		if t.kind == number && t.unit == "" && p.used[k] {
			n--
			p.toks[k].unit = u
			s.at[n] = p.length(k)
		} else if t.kind == number || t.kind == word && !p.is(k, "and", "then") || p.is(k, ".", "\n") {
			return
		}
	}
}

// clause ends what was said so far, if it has numbers.
func (s *scoring) clause() {
	if len(s.at) > 0 && s.said {
		s.flush()
	}
}

// edge reads from where numbers count: "on all four sides", "along the long side",
// "from both ends", "all round".
func (s *scoring) edge() bool {
	p := s.p
	k := p.i
	var q []string
	for ; k < p.i+8; k++ {
		t := p.tok(k)
		if t.kind == number {
			if n, whole := t.whole(); !whole || n != 4 || t.unit != "" {
				return false
			}
			q = append(q, "four")
			continue
		}
		if t.kind != word {
			return false
		}
		if slices.Contains([]string{"round", "around"}, t.text) && (slices.Contains(q, "all") || slices.Contains(q, "way")) {
			p.use(p.i, k+1)
			p.i = k + 1
			return s.side(fromAll)
		}
		if sides[t.text] {
			break
		}
		if p.is(k, "left", "right", "top", "bottom") && slices.Contains(q, "from") && !sides[p.tok(k+1).text] {
			q = append(q, t.text) // "from the left"
			break
		}
		if !slices.Contains([]string{"on", "from", "along", "all", "each", "every", "both", "the", "of", "long", "short", "left", "right", "top", "bottom", "with", "its", "in", "at", "way", "longer", "shorter", "to", "either", "opposite"}, t.text) {
			return false
		}
		q = append(q, t.text)
	}
	if k == p.i+8 {
		return false
	}
	has := func(w ...string) bool {
		return slices.ContainsFunc(w, func(x string) bool { return slices.Contains(q, x) })
	}
	last := p.tok(k).text
	many := last == "sides" || last == "edges" || last == "ends"
	from := along
	switch {
	case has("long", "longer") && (many || has("both", "each")):
		from = fromLong
	case has("short", "shorter") && (many || has("both", "each")):
		from = fromShort
	case has("long", "longer"):
		from = alongLong
	case has("short", "shorter"):
		from = alongShort
	case has("four", "all", "each", "every"):
		from = fromAll
	case has("both", "either", "opposite"):
		from = bothEnds
	case has("left"):
		from = fromLeft
	case has("right"):
		from = fromRight
	case has("top"):
		from = fromTop
	case has("bottom"):
		from = fromBottom
	default:
		return false
	}
	p.use(p.i, k+1)
	p.i = k + 1
	if p.is(p.i, "along", "against", "on") { // "along the top", "against the fence"
		for p.is(p.i, "along", "against", "on", "the", "top", "fence") {
			p.use(p.i, p.i+1)
			p.i++
		}
	}
	return s.side(from)
}

// side takes in from where numbers count: of those before it, if they had nothing yet;
// else of those that follow.
func (s *scoring) side(from edge) bool {
	p := s.p
	if p.i > 0 && sides[p.tok(p.i).text] && p.tok(p.i).kind == word {
		p.use(p.i-1, p.i+1)
		p.i++
	}
	after := len(s.at) > 0 && !s.said
	s.clause()
	s.from, s.said = from, true
	if after {
		s.flush()
	}
	return true
}

// held reads a shim, or that the card is pulled off the fence by so much.
func (s *scoring) held() bool {
	p := s.p
	from := p.i
	for k := from; k < from+10; k++ {
		if p.num(k) {
			s.shim = p.length(k)
			p.use(from, k+1)
			p.i = k + 1
			if n := len(s.p.out.Pieces); n > 0 && len(s.at) == 0 && p.now >= 0 { // of what was told before
				for i := range p.out.Pieces[p.now].passes {
					p.out.Pieces[p.now].passes[i].shim = s.shim
				}
			}
			return true
		}
		if p.is(k, ".", ";", "\n") {
			break
		}
	}
	p.i++
	return true
}

// same scores what was scored before once more: the other way after a turn, or as on
// the piece before.
func (s *scoring) same() bool {
	p := s.p
	if p.now < 0 {
		return true
	}
	mine := &p.out.Pieces[p.now]
	switch {
	case s.turned:
		s.at, s.said = slices.Clone(s.before), false
		if !s.edge() { // "repeat on all sides" says more than the turn
			s.flush()
		}
	case len(mine.passes) == 0 && p.now > 0:
		mine.passes = slices.Clone(p.out.Pieces[p.now-1].passes)
	}
	return true
}

// flush puts the numbers that were read to the piece.
func (s *scoring) flush() {
	p := s.p
	if len(s.at) > 0 && p.now >= 0 {
		x := &p.out.Pieces[p.now]
		if s.too && !s.said && p.now > 0 && len(x.passes) == 0 {
			if before := p.out.Pieces[p.now-1].passes; len(before) > 0 {
				s.from = before[len(before)-1].from
			}
		}
		for _, k := range append(s.with, p.now) {
			if len(p.out.Pieces[k].passes) >= mostPasses {
				continue
			}
			p.out.Pieces[k].passes = append(p.out.Pieces[k].passes, pass{s.from, s.turned, s.size, s.at, s.spans, s.shim})
		}
		x.To = max(x.To, p.tok(p.i-1).to)
		s.before, s.any = s.at, true
	}
	s.at, s.spans, s.from, s.said = nil, nil, along, false
}
