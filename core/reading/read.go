package reading

import (
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Limits of what is read.
const (
	MostPieces = 60
	mostScores = 60
	mostPasses = 30
	mostSaid   = 20
	mostCopies = 500
	largest    = 2000 * measure.Millimetre
)

// Read reads a recipe. usual is the unit of its numbers where it says none and they do
// not tell. What cannot be read at all is a fault: nothing, or far too much.
func Read(text string, usual measure.Unit) (*Reading, error) {
	if len(text) > longest {
		return nil, fault.New(fault.TooLarge, "text", "a recipe has up to %d letters", longest)
	}
	if !utf8.ValidString(text) {
		return nil, fault.New(fault.Invalid, "text", "this is no text that can be read")
	}
	if strings.TrimSpace(text) == "" {
		return nil, fault.New(fault.Empty, "text", "write or paste a recipe: what is cut, and where it is scored")
	}
	p := &parser{text: text, toks: lex(text), now: -1}
	p.used = make([]bool, len(p.toks))
	p.units(usual)
	for p.i < len(p.toks) {
		at := p.i
		if p.step(); p.i == at { // it began nothing after all
			p.i++
		}
	}
	p.finish()
	return &p.out, nil
}

type parser struct {
	text string
	toks []token
	used []bool
	i    int
	out  Reading
	now  int    // the piece that is being told of, −1 for none yet
	name string // of the next blank, from what was said before it
	many int    // copies of it
	at   int    // the token its name begins at
	// turned says that the card was turned and nothing scored since.
	turned bool
	// scoring says that where the next blank is scored follows it.
	scoring bool
}

// units finds the unit of the numbers that say none: that of those that do, or what
// their kind tells.
func (p *parser) units(usual measure.Unit) {
	fractions, decimals, high, deep := 0, 0, 0.0, 0
	bracketed := measure.Unit("") // where a size is often told again
	for i, t := range p.toks {
		if p.is(i, "(") {
			deep++
		} else if p.is(i, ")") {
			deep--
		}
		if t.kind != number || t.under == 0 {
			continue
		}
		if t.unit != "" && deep <= 0 {
			p.out.Unit = t.unit
			return
		}
		if deep > 0 {
			bracketed = t.unit
			continue
		}
		if t.fraction {
			fractions++
		} else if t.under > 1 {
			decimals++
		}
		high = max(high, float64(t.over)/float64(t.under))
	}
	switch {
	case bracketed == measure.In && decimals > 0:
		p.out.Unit = measure.CM
	case fractions > 0:
		p.out.Unit = measure.In
	case high > 60:
		p.out.Unit = measure.MM
	case decimals > 0 && high > 13:
		p.out.Unit = measure.CM
	default:
		p.out.Unit = usual
	}
}

func (p *parser) tok(i int) token {
	if i < 0 || i >= len(p.toks) {
		return token{kind: mark, text: "\n"}
	}
	return p.toks[i]
}

func (p *parser) is(i int, texts ...string) bool {
	t := p.tok(i)
	return t.kind != number && slices.Contains(texts, t.text)
}

func (p *parser) num(i int) bool {
	t := p.tok(i)
	return t.kind == number && t.under > 0
}

func (p *parser) length(i int) measure.Length { return p.tok(i).length(p.out.Unit) }

func (p *parser) use(from, to int) {
	for i := max(0, from); i < to && i < len(p.used); i++ {
		p.used[i] = true
	}
}

// times reports whether a sign parts the sides of a blank.
func (p *parser) times(i int) bool { return p.is(i, "x", "×", "*") || p.is(i, "by") }

// step reads what begins at the token one is at.
func (p *parser) step() {
	i := p.i
	t := p.tok(i)
	switch {
	case p.size():
	case t.kind == mark:
		if t.text == "." || t.text == "\n" || t.text == ";" {
			p.used[i] = true
		}
		p.i++
	case p.lessThan():
	case t.kind == word && meant(t.text, scores) != "":
		p.use(i, i+1)
		p.i++
		p.score(p.turned)
	case p.eachSide():
	case t.kind == word && strings.HasPrefix(t.text, "fold") && p.is(i+1, "lines", "line"):
		p.use(i, i+2)
		p.i += 2
		p.score(false)
	case t.kind == word && meant(t.text, turns) != "" && p.now >= 0:
		p.use(i, i+1)
		p.i++
		p.turnedBy()
		p.score(true)
	case p.edgeFirst() || p.sideFirst():
		p.score(false)
	case t.kind == word && meant(t.text, sames) != "" && p.now >= 0 && p.name == "":
		p.use(i, i+1)
		p.i++
		s := scoring{p: p}
		s.same()
	case p.is(i, "lines") && p.is(i+1, "that") && p.is(i+2, "stop"):
		p.shortLines()
	case t.kind == word && noun(t.text) != "":
		p.named(i)
		p.i++
	default:
		p.i++
	}
}

// edgeFirst reports whether a sentence tells first which edge lies on the fence: "Left
// edge against the fence: 3/4 in".
func (p *parser) edgeFirst() bool {
	return p.now >= 0 && p.is(p.i, "left", "right", "top", "bottom") && p.is(p.i+1, "edge") && p.is(p.i+2, "against", "on") && p.is(p.i+3, "the") && p.is(p.i+4, "fence")
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

// sideFirst reports whether a sentence tells first which side is scored along: "with
// the 7 in side along the top".
func (p *parser) sideFirst() bool {
	if p.now >= 0 && p.is(p.i, "long", "short") && p.is(p.i+1, "side", "edge") {
		return true
	}
	if p.now < 0 || !p.num(p.i) || !p.is(p.i+1, "side", "edge") {
		return false
	}
	x, size := p.out.Pieces[p.now], p.length(p.i)
	return size == x.Width || size == x.Height
}

// shortLines passes over the lines that stop short: a style tells them, and what is
// known of them is said.
func (p *parser) shortLines() {
	from := p.i
	for p.i < len(p.toks) && !p.is(p.i, "\n") {
		p.i++
	}
	p.use(from, p.i)
	p.out.Said = append(p.out.Said, strings.TrimSpace(p.text[p.tok(from).from:p.tok(p.i-1).to]))
}

// named notes what the next blank is called, and how many of it there are.
func (p *parser) named(i int) {
	p.used[i] = true
	n := noun(p.tok(i).text)
	if plainNouns[n] && p.name != "" {
		return
	}
	p.name, p.at = n, i
	if p.is(i, "box", "tray", "piece", "lid", "base") && p.num(i+1) && p.tok(i+1).unit == "" && !p.times(i+2) {
		if n, whole := p.tok(i + 1).whole(); whole && n < 100 && !p.is(i+2, ",") { // "box 2"
			p.used[i+1] = true
		}
	}
	if k, whole := p.tok(i - 1).whole(); whole && p.num(i-1) && p.tok(i-1).unit == "" && k >= 1 && k <= mostCopies && !p.used[i-1] {
		p.used[i-1] = true
		p.many = k
	}
}

// size reads "8 x 6 in", or "12 in square": a blank; and three of them: a finished
// size that is claimed.
func (p *parser) size() bool {
	i := p.i
	if !p.num(i) {
		return false
	}
	if p.is(i+1, "square") {
		p.use(i, i+2)
		p.i += 2
		p.blank(i, p.length(i), p.length(i))
		return true
	}
	if !p.times(i+1) || !p.num(i+2) {
		return false
	}
	p.lend(i, i+2)
	if p.times(i+3) && p.num(i+4) {
		p.lend(i, i+4)
		p.use(i, i+5)
		c := Claim{Size: [3]measure.Length{p.length(i), p.length(i + 2), p.length(i + 4)}}
		c.Span = p.span(i, i+4)
		p.out.Claims = append(p.out.Claims, c)
		p.i += 5
		return true
	}
	w, h := p.length(i), p.length(i+2)
	p.use(i, i+3)
	p.i += 3
	// The same again in another unit, between brackets.
	if p.is(i-1, "(") && p.now >= 0 && near(p.out.Pieces[p.now].Width, w) && near(p.out.Pieces[p.now].Height, h) {
		return true
	}
	p.blank(i, w, h)
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

// blank begins a piece.
func (p *parser) blank(i int, w, h measure.Length) {
	if len(p.out.Pieces) >= MostPieces || w <= 0 || h <= 0 || max(w, h) > largest {
		p.used[i] = false
		return
	}
	name := p.name
	if name == "" || plainNouns[name] {
		for k := i + 3; k < i+6; k++ { // "8 x 6 base"
			if n := noun(p.tok(k).text); n != "" && p.tok(k).kind == word && !plainNouns[n] && !p.num(k+1) && !p.is(k+1, ":", "-", "–") {
				name = n
				p.used[k] = true
				break
			}
			if p.is(k, ".", "\n", ";", ",") || p.num(k) {
				break
			}
		}
	}
	piece := Piece{Name: name, Width: w, Height: h, Copies: max(1, p.many), Panel: panels[name], From: p.tok(i).from, To: p.tok(i + 2).to, like: -1}
	if name != "" && p.at < i && p.at >= 0 && p.name != "" {
		piece.From = min(piece.From, p.tok(p.at).from)
	}
	if k, whole := p.tok(i + 4).whole(); p.is(i+3, "(") && p.num(i+4) && whole && p.is(i+5, ")") && k >= 1 && k <= mostCopies {
		piece.Copies = k
		p.use(i+3, i+6)
		p.i = i + 6
	}
	p.out.Pieces = append(p.out.Pieces, piece)
	n := len(p.out.Pieces) - 1
	p.out.Uses = append(p.out.Uses, Use{Span: p.span(i, i), Piece: n, What: Width})
	if p.num(i+2) && p.times(i+1) {
		p.out.Uses = append(p.out.Uses, Use{Span: p.span(i+2, i+2), Piece: n, What: Height})
	}
	p.now, p.name, p.many, p.at, p.turned = len(p.out.Pieces)-1, "", 0, -1, false
	if p.scoring {
		p.scoring = false
		p.score(false)
	}
}

// lessThan reads "the base is a sixteenth less": a piece like the one before, smaller
// or larger both ways.
func (p *parser) lessThan() bool {
	if p.name == "" || p.now < 0 || plainNouns[p.name] || !p.num(p.i) {
		return false
	}
	k := p.i + 1
	way := measure.Length(-1)
	if meant(p.tok(k).text, lesses) == "" {
		if way = 1; meant(p.tok(k).text, mores) == "" {
			return false
		}
	}
	by := p.length(p.i)
	like := p.out.Pieces[p.now]
	if by <= 0 || by >= min(like.Width, like.Height) || len(p.out.Pieces) >= MostPieces {
		return false
	}
	x := Piece{Name: p.name, Width: like.Width + way*by, Height: like.Height + way*by, Copies: max(1, p.many), like: p.now, less: by, From: p.tok(p.at).from, To: p.tok(k).to}
	p.use(p.i, k+1)
	p.i = k + 1
	p.out.Pieces = append(p.out.Pieces, x)
	p.now, p.name, p.many, p.at = len(p.out.Pieces)-1, "", 0, -1
	return true
}

func (p *parser) span(from, to int) Span {
	a, b := p.tok(from).from, p.tok(to).to
	return Span{p.text[a:b], a, b}
}

// finish puts the scores on the pieces, and gathers what was not understood.
func (p *parser) finish() {
	for i := range p.out.Pieces {
		x := &p.out.Pieces[i]
		if x.like >= 0 && len(x.passes) == 0 {
			x.passes = p.out.Pieces[x.like].passes
		}
		for k, s := range x.passes {
			for j, span := range s.spans {
				p.out.Uses = append(p.out.Uses, Use{Span: span, Piece: i, What: Score, pass: k, n: j})
			}
			x.Shim = max(x.Shim, s.shim)
			for _, at := range x.place(s) {
				if len(p.out.Said) >= mostSaid {
					break
				}
				p.out.Said = append(p.out.Said, fmt.Sprintf("a score at %s lies off the %s blank", measure.Label(at, p.out.Unit, p.out.Unit.Tick()), x.Name))
			}
		}
	}
	claimed := func(i int) bool { return i < len(p.used) && p.used[i] }
	for i := 0; i < len(p.toks); i++ {
		if claimed(i) || !p.odd(i) {
			continue
		}
		from := i
		for i+1 < len(p.toks) && !claimed(i+1) && p.odd(i+1) {
			i++
		}
		p.out.NotUnderstood = append(p.out.NotUnderstood, p.span(from, i))
	}
}

// odd reports whether a token that nothing was made of is worth a word.
func (p *parser) odd(i int) bool {
	t := p.tok(i)
	switch t.kind {
	case number:
		return true
	case word:
		return !filler[t.text] && noun(t.text) == "" && meant(t.text, scores) == "" && meant(t.text, turns) == "" && meant(t.text, sames) == "" &&
			meant(t.text, claims) == "" && meant(t.text, lesses) == "" && meant(t.text, mores) == "" && !shims[t.text]
	}
	return false
}
