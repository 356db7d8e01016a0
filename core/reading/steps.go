package reading

// numbered passes over the number of a step: "1." or "2)" where a line begins.
func (p *parser) numbered() bool {
	i := p.i
	if p.stepInBrackets(i) {
		p.steps++
		p.use(i, i+3)
		p.as(i+1, OfCount)
		p.i += 3
		return true
	}
	n, whole := p.tok(i).whole()
	if !whole || n > 99 || p.tok(i).unit != "" || i > 0 && !p.is(i-1, "\n") && !(n == p.steps+1 && p.steps > 0 && p.is(i-1, ".") && p.tok(i+2).kind == word) || !p.is(i+1, ".", ")") || p.tok(i+1).from != p.tok(i).to {
		return false
	}
	p.as(i, OfCount)
	p.use(i+1, i+2)
	p.i += 2
	p.steps = n
	return true
}

// stepInBrackets reports whether the next number of a step begins, in brackets: "(2) score …".
func (p *parser) stepInBrackets(i int) bool {
	return p.is(i, "(") && p.spells(i+1, p.steps+1) && p.is(i+2, ")") && p.tok(i+3).kind == word && (p.steps > 0 || p.opens(i))
}

// counted reads how many of the next blank are cut, before its name: "2x base", "(makes six)".
func (p *parser) counted() bool {
	i := p.i
	if n, is := p.count(i); is && p.opens(i) && p.is(i+1, "x", "×") && p.tok(i+2).kind == word && noun(p.tok(i+2).text) != "" {
		p.as(i, OfCount)
		p.use(i+1, i+2)
		p.many, p.i = n, i+2
		return true
	}
	if n, is := p.count(i + 1); is && p.is(i, "makes", "make") && p.is(i-1, "(") && p.is(i+2, ")") {
		p.use(i, i+1)
		p.as(i+1, OfCount)
		p.many, p.i = n, i+3
		return true
	}
	return false
}

// apart reads a size of something that is neither a blank nor a score: "the 1 in lap".
func (p *parser) apart() bool {
	i := p.i
	role := OfSize
	switch {
	case !p.num(i) || p.times(i-1):
		return false
	case p.is(i+1, "gsm", "g"):
		role = OfPaper
	case !p.is(i+1, "lap", "seam", "overlap", "minutes", "minute", "min", "hours", "hour"):
		return false
	}
	p.as(i, role)
	p.use(i+1, i+2)
	for p.i += 2; p.is(p.i, "on", "the", "at", "front", "back", "inside", "outside"); p.i++ {
		p.use(p.i, p.i+1)
	}
	return true
}

// leftForTab reports whether a number is what is left over for a tab: "the last 9/16 is the glue tab".
func (p *parser) leftForTab(i int) bool {
	if !p.is(i-1, "last", "final", "remaining") && !p.is(i+1, "is", "are", "left", "for", "as") {
		return false
	}
	for k := i + 1; k < i+7 && p.tok(k).kind == word; k++ {
		if p.is(k, "tab", "flap", "lap", "seam", "overlap") {
			return true
		}
	}
	return false
}

// scoresAfter reports whether the word for scores follows its number: "with 5/8 scores
// all round".
func (p *parser) scoresAfter(i int) bool {
	t := p.tok(i + 1)
	return t.kind == word && meant(t.text, scores) != "" && !p.num(i+2) && !p.is(i+2, "at", "it", "the")
}

// marks reports whether lines are marked that are scored later: "mark 1 and 3. Score on
// the marks."
func (p *parser) marks() bool {
	if p.now < 0 || !p.is(p.i, "mark", "marks") || !p.num(p.i+1) && !(p.is(p.i+1, "at") && p.num(p.i+2)) {
		return false
	}
	for k := p.i; k < min(p.i+60, len(p.toks)); k++ {
		if p.tok(k).kind == word && scores[p.tok(k).text] {
			return p.is(k+1, "on", "along", "at", "over") && (p.is(k+2, "marks", "lines") || p.is(k+3, "marks", "lines")) || p.is(k+1, "there")
		}
	}
	return false
}

// eachSide reads "First side: 1, 6. Second side: 5/8, 2 5/8".
func (p *parser) eachSide() bool {
	if p.now < 0 || !p.is(p.i, "first", "second") || !p.is(p.i+1, "side", "edge") || !p.is(p.i+2, ":", "-", "–") || !p.num(p.i+3) {
		return false
	}
	second := p.is(p.i, "second")
	p.use(p.i, p.i+3)
	p.i += 3
	p.score(second)
	return true
}

// shortLines passes over the lines that stop short: a style tells them, and what is
// known of them is said.
func (p *parser) shortLines() {
	from := p.i
	for p.i < len(p.toks) && !p.is(p.i, "\n") {
		p.i++
	}
	p.use(from, p.i)
	p.say("%s", p.words(from, p.i))
}
