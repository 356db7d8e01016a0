package reading

// How the card is turned between scores.

// flips reads that the card is turned end for end: numbers count from the other edge then.
func (p *parser) flips() {
	p.use(p.i, p.i+1)
	p.i++
	p.flipped = !p.flipped
	for p.is(p.i, "it", "the", "card", "piece", "end", "for", "to", "round", "around", "over", "and") {
		p.use(p.i, p.i+1)
		p.i++
	}
}

// turnedBy reads on over what is turned and how far: "the card 90 degrees". Back is as it lay
// first, half a turn is two quarters.
func (p *parser) turnedBy() {
	p.quarters++
	if p.spells(p.i, 180) || p.is(p.i, "half") || p.is(p.i+1, "half") || p.spells(p.i+1, 180) || p.spells(p.i+2, 180) {
		p.quarters++
	}
	for k := p.i; k < p.i+4 && p.tok(k).kind == word; k++ {
		if p.is(k, "back") {
			p.quarters = 0
			p.use(k, k+1)
		}
	}
	for p.is(p.i, "it", "a", "quarter", "the", "card", "piece", "turn", "round", "around", "and", "degrees", "way", "direction", "clockwise", "anticlockwise", "counterclockwise") || p.num(p.i) && p.is(p.i+1, "degrees", "°") {
		if p.use(p.i, p.i+1); p.num(p.i) {
			p.as(p.i, OfSize)
		}
		p.i++
	}
}

// quarterTurn reports whether "a quarter turn" begins.
func (p *parser) quarterTurn(i int) bool {
	return p.is(i, "quarter") && p.is(i+1, "turn") || p.is(i, "a") && p.is(i+1, "quarter") && p.is(i+2, "turn")
}
