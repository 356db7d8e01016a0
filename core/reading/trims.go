package reading

import (
	"cmp"
	"slices"

	"brevium/core/measure"
)

// What is told of a blank besides its size and its scores: that it is trimmed, or held off the
// fence, and what of it is corrected afterwards.

// trimming are words for cutting a little off.
var trimming = set("trim trims trimmed trimming shave shaved slice sliced take takes off")

// trimAt reports whether a blank is trimmed there: "trim a sixteenth off two sides", and gives its
// number and the end of the phrase.
func (p *parser) trimAt(i int) (by, end int, is bool) {
	if p.tok(i).kind != word || !trimming[p.tok(i).text] || !p.num(i+1) || p.times(i+2) || !p.is(i+2, "off", "from") {
		return 0, 0, false
	}
	for end = i + 3; end < min(i+9, len(p.toks)) && p.tok(end).kind != mark; end++ {
		if sides[p.tok(end).text] {
			end++
			break
		}
	}
	return i + 1, end, true
}

// trims reads that the blank at hand is trimmed: by so much both ways where two sides are said, or
// all. What was scored before, or a side that is not said, is not understood.
func (p *parser) trims() bool {
	by, end, is := p.trimAt(p.i)
	if !is || p.now < 0 {
		return false
	}
	x, n := &p.out.Pieces[p.now], p.length(by)
	two, all, one := false, false, false
	for k := by + 1; k < end; k++ {
		two = two || p.is(k, "both", "adjacent", "adjoining", "neighbouring") || p.spells(k, 2)
		all = all || p.is(k, "all", "every", "each") || p.spells(k, 4)
		one = one || p.is(k, "opposite", "long", "short", "left", "right", "top", "bottom")
	}
	switch {
	case len(x.passes) > 0 || n <= 0 || one || two == all:
		p.i = end
		return true
	case all:
		n *= 2
	}
	if n >= min(x.Width, x.Height) {
		p.i = end
		return true
	}
	x.Width, x.Height = x.Width-n, x.Height-n
	for k := p.i; k < end; k++ {
		p.use(k, k+1)
		if p.num(k) {
			p.as(k, OfCount)
		}
	}
	p.as(by, OfFit)
	p.say("the %s is trimmed by %s both ways", cmp.Or(x.Name, "blank"), p.label(n))
	p.i = end
	return true
}

// spells reports whether a token is a whole number without a unit.
func (p *parser) spells(i, n int) bool {
	k, whole := p.tok(i).whole()
	return whole && k == n && p.tok(i).unit == "" && p.tok(i).kind == number
}

// heldBefore reads that the card is held off the fence, before its scores are told: "held a
// sixteenth off the fence, score 1".
func (p *parser) heldBefore() bool {
	i := p.i
	if p.now < 0 || p.tok(i).kind != word || meant(p.tok(i).text, shims) == "" || !p.num(i+1) || p.times(i+2) || !p.is(i+2, "off", "from", "away", "short") {
		return false
	}
	end := i + 3
	for p.is(end, "from", "of", "the", "a", "away") {
		end++
	}
	if !p.is(end, "fence", "stop", "edge", "guide") {
		return false
	}
	p.shim = p.length(i + 1)
	p.use(i, end+1)
	p.as(i+1, OfFit)
	p.i = end + 1
	return true
}

// corrects reads a line that takes a number of the scores back that were told last: "no, sorry,
// 1 1/2". Where they were several it is not understood.
func (p *parser) corrects() bool {
	i := p.i
	if p.now < 0 || !p.opens(i) || !p.is(i, "no", "sorry", "wait", "oops", "actually", "correction") {
		return false
	}
	k := i + 1
	for p.is(k, ",", ".", "…", "-", "–", "no", "sorry", "wait", "oops", "actually", "i", "mean", "meant", "it", "was", "is", "should", "be", "make", "that", "at", ":") {
		k++
	}
	x := &p.out.Pieces[p.now]
	x.passes = slices.Clone(x.passes)
	if !p.num(k) || p.times(k+1) || len(x.passes) == 0 {
		return false
	}
	last := &x.passes[len(x.passes)-1]
	if len(last.at) != 1 || p.num(k+1) || p.is(k+1, ",", "and") && p.num(k+2) {
		return false
	}
	for j, t := range p.toks {
		if t.from == last.spans[0].From {
			p.takeBack(j)
		}
	}
	p.use(i, k+1)
	last.at, last.spans = []measure.Length{p.length(k)}, []Span{p.span(k, k)} // others may share the old ones
	p.i = k + 1
	return true
}
