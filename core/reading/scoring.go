package reading

import (
	"slices"

	"brevium/core/measure"
)

// score reads where a piece is scored, from after the word that says so to the end of
// the sentence: lists of numbers, from where they count, turns of the card. turned is
// when the card was turned before.
func (p *parser) score(turned bool) {
	s := scoring{p: p, turned: turned, shim: p.shim}
	if p.now >= 0 {
		for _, x := range p.out.Pieces[p.now].passes {
			s.before = x.at
		}
	}
	if turned && p.now < 0 {
		return
	}
	// "Lid: score 1 all round", where no size of a lid is told.
	if p.now >= 0 && p.name != "" && !plainNouns[p.name] && !panels[p.name] && p.opens(p.at) && p.meantBy(p.name) < 0 {
		if x := p.out.Pieces[p.now]; x.Name != "" && len(x.passes) > 0 && !(p.num(p.i) && p.times(p.i+1)) {
			s.nobody = true
			p.say("no size is told of the %s", p.name)
		}
	}
	s.behind()
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
	p       *parser
	turned  bool
	at      []measure.Length
	spans   []Span
	tokens  []int // of at
	from    edge
	size    measure.Length
	said    bool // from where they count
	shim    measure.Length
	before  []measure.Length // the list before
	any     bool             // something was read
	with    []int            // pieces that are scored alike with it
	too     bool             // as the piece before
	parts   int              // into so many equal parts
	besides []edge           // other edges that the numbers count from as well
	nobody  bool             // it is of a piece that is not there
	every   bool             // again and again, as far as the piece goes
	unsaid  []int            // pieces before in the sentence whose edges are not said
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
	case p.stepInBrackets(i):
		return false
	case p.is(i, ";") && s.goesOn(i):
		p.use(i, i+1) // "at 9,5; 19; 28,5"
		p.i++
		return true
	case p.is(i, ".", ";", "\n"):
		// Where nothing was read yet it goes on over the end: "Score it. 1 in from …".
		if len(s.at) > 0 || s.any || s.said && !p.scoreNext(i) {
			return false
		}
		p.i++
		p.numbered()
		return true
	case t.kind == mark:
		p.used[i] = !gaps[t.text] && !unsure[t.text]
		s.strange = s.strange || unsure[t.text]
		p.i++
		return true
	}
	if p.is(i, "lines") && p.is(i+1, "that") && p.is(i+2, "stop") {
		return false
	}
	if _, _, trimmed := p.trimAt(i); trimmed {
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
		p.turnedBy()
		s.turned = p.quarters%2 == 1
		return true
	case p.is(i, "next", "last", "following") && p.tok(i+1).kind == word && sides[p.tok(i+1).text] && (len(s.at) > 0 || s.before != nil):
		s.flush() // "next side 1"
		p.use(i, i+2)
		p.i += 2
		p.quarters++
		s.turned = p.quarters%2 == 1
		return true
	case p.is(i, "flip", "flipped"):
		from, size, said := s.from, s.size, s.said
		s.flush()
		s.from, s.size, s.said = from, size, said
		p.flips()
		return true
	case p.is(i, "middle", "centre", "center") && len(s.at) == 0 && (p.is(i-1, "at") || p.is(i-1, "the") && p.is(i-2, "down", "through", "at", "along", "in")):
		p.use(i, i+1)
		p.i++
		s.parts, s.from, s.said = 2, alongLong, true
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
	case s.piece(i) >= 0:
		// "score the base at 3 and the lid at 1 1/2"
		if k := s.piece(i); k != p.now {
			if s.flush(); len(p.out.Pieces[p.now].passes) > 0 && !s.said {
				s.unsaid = append(s.unsaid, p.now)
			}
			p.now, s.turned, s.before = k, false, nil
		}
		if p.known(i) >= 0 {
			p.calls[t.text] = true
		}
		p.use(i, i+1)
		p.i++
		return true
	case p.is(i, "no") && (p.tok(i+1).kind == mark && !p.is(i+1, ".", "\n") || p.is(i+1, "wait", "sorry") || p.is(i-1, "hmm")), p.is(i, "sorry", "oops", "correction", "rather"), p.is(i, "mean") && p.is(i-1, "i"), p.is(i, "make") && p.is(i+1, "that"):
		p.takeBack(s.tokens...) // "1/8, no, 1/2"
		s.at, s.spans, s.tokens = nil, nil, nil
		p.use(i, i+1)
		p.i++
		return true
	}
	if p.odd(i) || works[t.text] {
		s.strange = true
		p.used[i] = p.used[i] || works[t.text]
	} else {
		p.use(i, i+1)
		s.strange = s.strange && meant(t.text, scores) == ""
	}
	p.i++
	return true
}

// goesOn reports whether a semicolon parts the numbers of a list: "at 9,5; 19; 28,5".
func (s *scoring) goesOn(i int) bool {
	p := s.p
	if !p.num(i-1) || !p.num(i+1) || p.times(i+2) || len(s.at) == 0 {
		return false
	}
	if len(s.at) > 1 {
		return p.is(i-2, ";")
	}
	if p.is(i+2, "from") && commaFor.MatchString(p.text) {
		return true
	}
	return p.is(i+2, ";", "\n", ".") || p.is(i+2, ",") && !p.num(i+3) || p.is(i+2, "and") && p.num(i+3) || i+2 >= len(p.toks) || meant(p.tok(i+2).text, turns) != ""
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
		if !p.early[i] {
			return false // a blank
		}
		s.flush()
		p.i = i + 3
		s.behind()
		return true
	}
	if p.howMany() {
		s.flush()
		return true
	}
	if p.countsThings(i) {
		p.i++
		return true
	}
	if p.is(i+1, "°", "degrees") {
		p.as(i, OfSize)
		p.use(i+1, i+2)
		p.i += 2
		return true
	}
	if s.counts(i) {
		return false // "(2) strips 3/4 x 12"
	}
	if k, whole := p.tok(i).whole(); whole && k == 4 && p.tok(i).unit == "" && p.tok(i+1).kind == word && sides[p.tok(i+1).text] {
		p.as(i, OfCount)
		p.i++ // of the four sides
		return s.side(fromAll, 0)
	}
	if s.edge() {
		return true
	}
	if p.spells(i, 3) && p.tok(i+1).kind == word && sides[p.tok(i+1).text] {
		s.giveUp() // which three is not said
		p.i += 2
		return true
	}
	if p.is(i+1, "inside", "outside", "within", "beyond", "past") {
		p.i += 2 // from what is not known
		return true
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
		p.as(i, OfSize)
		p.i++
		return true
	}
	if t := p.tok(i); p.now >= 0 && t.spelled && t.over == 1 && t.under > 1 && t.unit == "" && (p.is(i-1, "in", "into") || t.under == 2 && (p.is(i+1, "way") || p.is(i+1, "-") && p.is(i+2, "way"))) {
		p.as(i, OfSize) // "in thirds", "half-way"
		for p.i++; p.is(p.i, "-", "way"); p.i++ {
			p.use(p.i, p.i+1)
		}
		s.parts = int(t.under)
		switch x := p.out.Pieces[p.now]; {
		case s.said:
		case p.is(p.i, "down") == (x.Height >= x.Width):
			s.from = alongLong
		case p.is(p.i, "down"):
			s.from = alongShort
		}
		return true
	}
	if s.nobody {
		p.i++
		return true
	}
	if p.is(i+1, "lap", "seam", "tab", "tabs", "overlap", "flap", "minutes", "minute", "gsm") || p.leftForTab(i) || p.is(i-1, "tab", "tabs", "lap", "seam", "overlap") || p.tok(i+1).kind == word && besides[p.tok(i+1).text] {
		p.as(i, OfSize) // "the 1 in lap", "the last 9/16 is the glue tab"
		p.i++
		return true
	}
	if p.tok(i+1).kind == word && p.is(i+1, "shim", "held", "hold", "pulled", "away", "off") {
		s.pulled(i) // "a sixteenth held off the fence"
		for p.i++; p.is(p.i, "shim", "held", "hold", "pulled", "away", "off", "from", "at", "the", "fence", "back", "stop", "of"); p.i++ {
			p.use(p.i, p.i+1)
		}
		return true
	}
	if p.is(i+1, "to", "–", "—") && p.num(i+2) { // a range is no number
		p.i += 3
		return true
	}
	s.every = s.every || p.is(i-1, "every")
	if len(s.at) < mostScores && !s.strange {
		s.at, s.spans, s.tokens = append(s.at, at), append(s.spans, p.span(i, i)), append(s.tokens, i)
		p.use(i, i+1)
	}
	p.i++
	return true
}

// piece is the piece that a word is of, −1 for none.
func (s *scoring) piece(i int) int {
	if k := s.p.known(i); k >= 0 {
		return k
	}
	if n := noun(s.p.tok(i).text); n != "" && s.p.known(i-1) < 0 {
		return s.p.meantBy(n)
	}
	return -1
}

// behind reads the blank that a sentence about scores tells last: "score 1 1/2 on all
// sides of an 8 x 6 piece".
func (s *scoring) behind() {
	p := s.p
	numbers := false
	for k := p.i; k < min(p.i+60, len(p.toks)) && !p.is(k, ".", ";", "\n"); k++ {
		if !p.num(k) {
			continue
		}
		if !p.times(k+1) || !p.num(k+2) {
			numbers = true
			continue
		}
		article := p.is(k-1, "a", "an", "the", "your", "each", "one")
		if before := p.is(k-1, "of", "on") && (noun(p.tok(k-2).text) == "" || plainNouns[noun(p.tok(k-2).text)]) || article && p.is(k-2, "of", "on", "in"); !before || !numbers || p.used[k] {
			return
		}
		at := p.i
		p.i, s.before = k, nil
		p.size()
		p.i, p.early[k] = at, true
		return
	}
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
	if (len(s.at) > 0 || s.parts > 0) && s.said {
		s.flush()
	}
}

// pulled takes a number as what the card is held off the fence: for what follows, and where nothing
// does for what was told before.
func (s *scoring) pulled(i int) {
	p := s.p
	s.shim = p.length(i)
	p.as(i, OfFit)
	if len(s.at) == 0 && p.now >= 0 {
		x := &p.out.Pieces[p.now]
		x.passes = slices.Clone(x.passes)
		for k := range x.passes {
			x.passes[k].shim = s.shim
		}
	}
}

// held reads a shim, or that the card is pulled off the fence by so much.
func (s *scoring) held() bool {
	p := s.p
	from := p.i
	for k := from; k < from+10; k++ {
		if p.countsThings(k) { // "hold 10 seconds"
			break
		}
		if p.num(k) {
			p.use(from, k)
			p.i = k + 1
			s.pulled(k)
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
	case s.turned || p.quarters > 0 || p.flipped:
		s.at, s.said = slices.Clone(s.before), false
		if !s.edge() { // "repeat on all sides" says more than the turn
			s.flush()
		}
	case len(mine.passes) == 0 && p.now > 0:
		mine.passes = slices.Clone(p.out.Pieces[p.now-1].passes)
	}
	return true
}

// turnedFrom reports whether the numbers of a sentence lie down the piece: after a turn
// they go the other way than those before, wherever these said that they lie.
func (p *Piece) turnedFrom(s *scoring) bool {
	if !s.turned || s.from != along && s.from != bothEnds || len(p.passes) == 0 {
		return s.turned
	}
	switch x := p.passes[len(p.passes)-1]; x.from {
	case alongLong, alongShort, alongSize:
		return !x.level(p)
	}
	return true
}

// giveUp leaves the numbers that were read unread: from where they count is not known.
func (s *scoring) giveUp() {
	for _, i := range s.tokens {
		s.p.used[i] = false
	}
	s.at, s.spans, s.tokens = nil, nil, nil
}

// flush puts the numbers that were read to the piece.
func (s *scoring) flush() {
	p := s.p
	if (len(s.at) > 0 || s.parts > 0) && p.now >= 0 {
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
			x := &p.out.Pieces[k]
			new := pass{from: s.from, turned: x.turnedFrom(s), size: s.size, at: s.at, spans: s.spans, shim: s.shim, every: s.every, parts: s.parts}
			new.mirrored = (p.quarters%4 >= 2) != p.flipped
			x.passes = append(x.passes, new)
			for _, from := range s.besides {
				new.from = from
				x.passes = append(x.passes, new)
			}
		}
		x.To = max(x.To, p.tok(p.i-1).to)
		s.before, s.any = s.at, true
	}
	s.at, s.spans, s.tokens, s.from, s.said, s.every, s.parts, s.besides = nil, nil, nil, along, false, false, 0, nil
}
