package reading

import "brevium/core/measure"

// more gives the number by which a piece is larger than another (smaller where way is −1), and the
// end of what tells it: "a sixteenth less", "1/8 larger", "add 1/8", "plus 1/8".
func (p *parser) more(i int) (by, end int, way measure.Length, is bool) {
	switch {
	case p.num(i) && meant(p.tok(i+1).text, lesses) != "":
		return i, i + 2, -1, true
	case p.num(i) && meant(p.tok(i+1).text, mores) != "":
		return i, i + 2, 1, true
	case p.is(i, "add", "plus") && p.num(i+1):
		return i + 1, i + 2, 1, true
	case p.is(i, "minus", "subtract") && p.num(i+1):
		return i + 1, i + 2, -1, true
	}
	return 0, 0, 0, false
}

// lessThan reads "the base is a sixteenth less" and "the lid is 1/8 larger than the
// base": a piece like the one before, smaller or larger both ways.
func (p *parser) lessThan() bool {
	at, end, way, is := p.more(p.i)
	if p.name == "" || p.now < 0 || plainNouns[p.name] || panels[p.name] || !is {
		return false
	}
	by := p.length(at)
	like := p.out.Pieces[p.now]
	if by <= 0 || by >= min(like.Width, like.Height) || len(p.out.Pieces) >= MostPieces {
		return false
	}
	x := Piece{Name: p.name, Width: like.Width + way*by, Height: like.Height + way*by, Copies: max(1, p.many), like: p.now, From: p.tok(p.at).from, To: p.tok(end - 1).to}
	p.use(p.i, end)
	p.as(at, OfFit)
	p.i = end
	if p.is(p.i, "to") && p.is(p.i+1, "both", "all", "each") {
		p.use(p.i, p.i+2)
		p.i += 2
	}
	for p.is(p.i, "each", "both", "all") && p.is(p.i+1, "way", "ways", "round", "around", "sides") {
		p.use(p.i, p.i+2)
		p.i += 2
	}
	if p.is(p.i, "than") {
		for p.is(p.i, "than", "the") || noun(p.tok(p.i).text) != "" && p.tok(p.i).kind == word {
			p.use(p.i, p.i+1)
			p.i++
		}
	}
	p.out.Pieces = append(p.out.Pieces, x)
	p.now, p.name, p.many, p.at = len(p.out.Pieces)-1, "", 0, -1
	return true
}
