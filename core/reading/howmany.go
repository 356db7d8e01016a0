package reading

// countsThings reports whether a whole number counts things that stand behind it and are none of the
// grammar: "with 4 magnets", "2 layers". It is no score and no size.
func (p *parser) countsThings(i int) bool {
	_, whole := p.tok(i).whole()
	next := p.tok(i + 1)
	if !p.num(i) || !whole || p.tok(i).unit != "" || next.kind != word || p.tok(i).to == next.from && next.text != "x" {
		return false
	}
	return p.odd(i+1) && !p.hedges(i+1) || panels[noun(next.text)] && next.text != noun(next.text) && !p.num(i+2)
}

// howMany reads a number that tells how often the piece at hand is made, behind its scores: "3 of
// it", "make 3", "x 3", "(3)", "I need 3". One that may be that or a score is left unread, and so
// marked. It reports whether it was one of these.
func (p *parser) howMany() bool {
	i := p.i
	n, whole := p.tok(i).whole()
	if !p.num(i) || !whole || n < 2 || n > mostCopies || p.tok(i).unit != "" || p.now < 0 || p.used[i] {
		return false
	}
	x := &p.out.Pieces[p.now]
	ends := func(k int) bool { return k >= len(p.toks) || p.is(k, ".", ";", "\n") }
	from, to, sure := i, i+1, true
	switch {
	case p.is(i+1, "of") && p.is(i+2, "it", "these", "those", "them", "this", "that") && ends(i+3):
		to = i + 3
	case p.is(i+1, "of") && p.is(i+2, "each") && ends(i+3), p.is(i+1, "times") && ends(i+2):
		sure = false // of which, or which of it
	case (p.is(i+1, "pcs", "pieces", "piece", "copies", "needed") || p.is(i+1, "off") && p.is(i-1, ",", "\n", ".")) && ends(i+2):
		to = i + 2
	case p.is(i+1, "x", "×") && ends(i+2):
		to = i + 2
	case p.is(i-1, "x", "×") && !p.num(i-2) && ends(i+1):
		from = i - 1
	case p.is(i-1, "make", "cut", "need", "quantity", "qty") && ends(i+1):
		from = i - 1
	case p.is(i-1, "for") && p.is(i+1, "boxes", "box") && ends(i+2):
		from, to = i-1, i+2
	case p.is(i-1, "(") && p.is(i+1, ")") && ends(i+2):
		from, to, sure = i-1, i+2, !p.num(i-2)
	default:
		return false
	}
	p.i = to
	if !sure || x.Copies > 1 && x.Copies != n {
		return true
	}
	x.Copies = n
	p.use(from, to)
	p.as(i, OfCount)
	return true
}

// counts reports whether a number tells how many there are of a blank that follows.
func (s *scoring) counts(i int) bool {
	p := s.p
	if _, is := p.count(i); !is {
		return false
	}
	k := i + 1
	if p.is(k, ")") {
		k++
	}
	for p.tok(k).kind == word && k < i+5 && !sides[p.tok(k).text] && !p.is(k, "from", "on", "and", "at") {
		k++
	}
	return k > i+1 && p.num(k) && p.times(k+1) && p.num(k+2)
}
