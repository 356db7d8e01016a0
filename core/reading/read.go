package reading

import (
	"cmp"
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
	p := &parser{text: text, toks: tokens(text), now: -1, early: map[int]bool{}, calls: map[string]bool{}, strange: map[string]bool{}}
	p.used, p.roles = make([]bool, len(p.toks)), make([]Role, len(p.toks))
	p.out.Voice = voiceOf(text)
	p.units(usual)
	for i, t := range p.toks {
		if t.loose && p.out.Unit != measure.In {
			p.toks[i].unit = ""
		}
		if t.parted {
			p.say("“%s” is read as one number", t.text)
		}
	}
	p.twice()
	p.speakers()
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
	// roles are what the numbers among the tokens were taken as, "" for nothing yet.
	roles []Role
	i     int
	out   Reading
	now   int    // the piece that is being told of, −1 for none yet
	name  string // of the next blank, from what was said before it
	many  int    // copies of it
	twin  string // another of its size, before it
	at    int    // the token its name begins at
	// turned says that the card was turned and nothing scored since.
	turned bool
	// scoring says that where the next blank is scored follows it; alike, that it is
	// scored as the one before.
	scoring, alike bool
	// shim is what the card is held off the fence, told before its scores; quarters are how often
	// it was turned by a quarter since it was taken up; steps are how many steps were numbered.
	shim     measure.Length
	quarters int
	flipped  bool
	steps    int
	// early are the blanks that were read before their scores, by their first token.
	early map[int]bool
	// calls are the words that pieces are known by and were called by; strange tells of a
	// word whether it is none of the grammar's.
	calls, strange map[string]bool
	// groups are counts that may tell how many pieces follow: "two pieces: …".
	groups []group
}

// group is a count of pieces, and which comes first.
type group struct{ count, first int }

// units finds the unit of the numbers that say none: that of those that do, or what
// their kind tells.
func (p *parser) units(usual measure.Unit) {
	fractions, decimals, high, deep := 0, 0, 0.0, 0
	bracketed := measure.Unit("") // where a size is often told again
	said := measure.Unit("")      // by a word of its own: "all in mm"
	loose := false
	for i, t := range p.toks {
		if p.is(i, "(") {
			deep++
		} else if p.is(i, ")") {
			deep--
		}
		if t.kind == word && alone[t.text] != "" {
			said = alone[t.text]
		}
		if t.kind != number || t.under == 0 || p.is(i+1, "degrees", "°", "gsm", "g", "%", "minutes", "sheets") {
			continue
		}
		if t.unit != "" && deep <= 0 && !t.loose {
			p.out.Unit = t.unit
			return
		}
		loose = loose || t.loose
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
	case said != "":
		p.out.Unit = said
	case loose:
		p.out.Unit = measure.In
	case bracketed == measure.In && decimals > 0:
		p.out.Unit = measure.CM
	case fractions > 0:
		p.out.Unit = measure.In
	case high > 60:
		p.out.Unit = measure.MM
	case decimals > 0 && high > 13:
		p.out.Unit = measure.CM
	default:
		p.out.Unit, p.out.guessed = usual, true
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
	case p.now >= 0 && p.is(i, "middle", "centre", "center") && p.is(i-1, "the") && p.is(i-2, "in", "at", "down") && meant(p.tok(i+1).text, scores) != "":
		p.score(false) // "in the middle, scored"
	case p.numbered(), p.counted(), p.trims(), p.heldBefore(), p.corrects(), p.apart():
	case p.size(), p.howMany():
	case p.is(i, "@") && p.now >= 0 && p.num(i+1) && !p.times(i+2):
		p.score(p.of() && p.turned)
	case t.kind == mark:
		if t.text == "." || t.text == "\n" || t.text == ";" {
			p.used[i] = true
		}
		if t.text == "." && plainNouns[p.name] { // "2 sheets of card. Base …"
			p.many = 0
		}
		p.i++
	case p.lessThan():
	case t.kind == word && meant(t.text, scores) != "":
		p.use(i, i+1)
		p.i++
		p.score(p.of() && p.turned)
	case p.marks():
		p.score(p.of() && p.turned)
	case p.now >= 0 && (p.is(i, "lines", "line") && (p.is(i+1, "at") || p.num(i+1)) || p.num(i) && p.scoresAfter(i)):
		p.score(p.of() && p.turned)
	case p.eachSide():
	case t.kind == word && strings.HasPrefix(t.text, "fold") && p.is(i+1, "lines", "line"):
		p.use(i, i+2)
		p.i += 2
		p.score(false)
	case t.kind == word && meant(t.text, turns) != "" && p.now >= 0:
		p.use(i, i+1)
		p.i++
		p.turnedBy()
		p.score(p.quarters%2 == 1)
	case p.is(i, "flip", "flipped") && p.now >= 0:
		p.flips()
		p.score(p.quarters%2 == 1)
	case p.now >= 0 && !p.out.Pieces[p.now].Panel && p.edgeFirst():
		p.score(p.of() && p.turned)
	case t.kind == word && meant(t.text, sames) != "" && p.now >= 0 && p.sizeAhead():
		p.use(i, i+1)
		p.i++
		p.alike = true
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

// opens reports whether a token begins a line or a sentence.
func (p *parser) opens(i int) bool { return i <= 0 || p.is(i-1, "\n", ".", ";", ":", ",") }

// sizeAhead reports whether a size follows in the sentence, before scores do.
func (p *parser) sizeAhead() bool {
	for k := p.i + 1; k < p.i+9; k++ {
		if p.is(k, ".", ";", "\n") || p.tok(k).kind == word && meant(p.tok(k).text, scores) != "" {
			return false
		}
		if p.num(k) && p.times(k+1) && p.num(k+2) {
			return true
		}
	}
	return false
}

// of goes back to the piece that was named last, where it is one that was cut before:
// "Base: score …" after the lid. It reports whether it stays at the same.
func (p *parser) of() bool {
	k := p.meantBy(p.name)
	if p.name == "" || k < 0 || p.num(p.i) && p.times(p.i+1) {
		return true
	}
	stays := k == p.now
	if !stays {
		p.shim, p.quarters, p.flipped = 0, 0, false
	}
	p.now, p.name, p.many, p.at = k, "", 0, -1
	return stays
}

// meantBy is the piece that a noun is of: the last of its name; and of a plain one, as
// in "score the card", the last that has no other name; −1 for none.
func (p *parser) meantBy(name string) int {
	if !plainNouns[name] || p.now < 0 || plainNouns[p.out.Pieces[p.now].Name] || p.out.Pieces[p.now].Name == "" {
		return p.called(name)
	}
	for k := p.now; k >= 0; k-- {
		if x := p.out.Pieces[k]; plainNouns[x.Name] || x.Name == "" {
			return k
		}
	}
	return -1
}

// called is the last piece of a name, the one at hand before all; −1 for none.
func (p *parser) called(name string) int {
	if name == "" || plainNouns[name] {
		return -1
	}
	if p.now >= 0 && p.out.Pieces[p.now].Name == name {
		return p.now
	}
	for k := len(p.out.Pieces) - 1; k >= 0; k-- {
		if p.out.Pieces[k].Name == name {
			return k
		}
	}
	return -1
}

// edgeFirst reports whether scores begin without the word for it: with the edge that
// lies on the fence ("Left edge against the fence: 3/4 in", "with the 7 in side along
// the top", "from the left score 1"), or with the number ("8 x 6, 1 1/2 all sides").
func (p *parser) edgeFirst() bool {
	s := scoring{p: p}
	first := p.i
	if p.num(first) {
		if _, is := p.ofSize(first); !is {
			first++
			for p.is(first, "in", "from", "(") && !(p.is(first, "from") && p.is(first+1, "left", "right", "bottom")) {
				first++
			}
			q, is := s.phrase(first)
			e, told := q.edge()
			return is && told && e != fromTop && e != fromLeft && (!p.tok(p.i).spelled || p.tok(p.i).unit != "") && !p.between(p.i, "cut", "snip", "slit", "slits", "fold", "glue", "tape", "punch", "trim")
		}
	}
	q, is := s.phrase(first)
	if _, told := q.edge(); !is || !told {
		return false
	}
	k := q.end
	for p.is(k, "against", "on", "along", "at", "the", "top", "fence", "of", "is", ",", ":", "@", "your", "scoring", "board", "-", "lines") {
		k++
	}
	t := p.tok(k)
	return p.num(k) && !p.times(k+1) || t.kind == word && meant(t.text, scores) != "" || p.is(k, ".") && p.scoreNext(k)
}

// scoreNext reports whether the sentence that begins behind a sign is of scores.
func (p *parser) scoreNext(k int) bool {
	for k < len(p.toks) && p.is(k, ".", ";", "\n", "then", "and", "next") {
		k++
	}
	if p.num(k) && p.is(k+1, ".", ")") {
		k += 2
	}
	return p.tok(k).kind == word && meant(p.tok(k).text, scores) != ""
}

// named notes what the next blank is called, and how many of it there are.
func (p *parser) named(i int) {
	p.used[i] = true
	n := noun(p.tok(i).text)
	if plainNouns[n] && p.name != "" {
		return
	}
	if panels[p.name] && !panels[n] && (p.is(i-1, "for", "inside", "on") || p.is(i-1, "the") && p.is(i-2, "for", "inside", "on")) {
		return // the face that a panel is for: "panel for the floor 4 x 2"
	}
	p.twin = ""
	if p.name != "" && p.is(i-1, "and", "&") && p.at == i-2 && p.is(i+1, "both", "each") {
		p.twin = p.name // "base and lid both 6 x 6"
	}
	p.name, p.at = n, i
	if p.is(i, "box", "tray", "piece", "lid", "base") && p.num(i+1) && p.tok(i+1).unit == "" && !p.times(i+2) {
		if n, whole := p.tok(i + 1).whole(); whole && n < 100 && !p.is(i+2, ",") { // "box 2"
			p.as(i+1, OfCount)
		}
	}
	at := i - 1
	switch { // "six of the drawer", "three of the long strip"
	case p.is(i-1, "the") && p.is(i-2, "of"):
		at = i - 3
	case p.is(i-2, "the") && p.is(i-3, "of"):
		at = i - 4
	}
	if k, whole := p.tok(at).whole(); whole && p.num(at) && p.tok(at).unit == "" && k >= 1 && k <= mostCopies && !p.used[at] {
		p.as(at, OfCount)
		p.many = k
		if plainNouns[n] && p.is(i+1, ":") {
			p.groups = append(p.groups, group{k, len(p.out.Pieces)})
		}
	}
}

// span is the stretch of the text from one token to another; those of a table may stand in another
// order than they do there.
func (p *parser) span(from, to int) Span {
	a, b := p.tok(from).from, p.tok(to).to
	if a > b {
		a, b = p.tok(from).from, p.tok(from).to
	}
	return Span{p.text[a:b], a, b}
}

// words are those of the text from one token up to another.
func (p *parser) words(from, to int) string { return strings.TrimSpace(p.span(from, to-1).Text) }

// finish puts the scores on the pieces, and gathers what was not understood.
func (p *parser) finish() {
	for _, g := range p.groups {
		if g.count > 1 && len(p.out.Pieces)-g.first == g.count { // "two pieces: 8 x 6 and 4 x 3"
			p.out.Pieces[g.first].Copies = 1
		}
	}
	for i := range p.out.Pieces {
		x := &p.out.Pieces[i]
		if x.like >= 0 && len(x.passes) == 0 {
			x.passes = p.out.Pieces[x.like].passes
		}
		x.cross()
		if x.allRound() {
			p.say("%s: %s is read as from all four sides, for nothing says from which", cmp.Or(x.Name, "blank"), p.label(x.passes[0].at[0]))
		}
		for k, s := range x.passes {
			for j, span := range s.spans {
				p.out.Uses = append(p.out.Uses, Use{Span: span, Piece: i, What: Score, pass: k, n: j})
			}
			x.Shim = max(x.Shim, s.shim)
			for _, at := range x.place(s) {
				p.out.OffCard = true
				p.say("a score at %s lies off the %s blank", p.label(at), x.Name)
			}
		}
	}
	p.onFaces()
	p.doubts()
	p.account()
	claimed := func(i int) bool { return p.used[i] || p.calls[p.toks[i].text] }
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

// folded are pieces that are scored along both sides if at all.
var folded = set("base bottom lid tray drawer")

// doubts says what is likely not all that was meant: a piece that has no scores, or only
// along one side though it has four walls.
func (p *parser) doubts() {
	scored := slices.ContainsFunc(p.out.Pieces, func(x Piece) bool { return len(x.passes) > 0 })
	for _, x := range p.out.Pieces {
		name := cmp.Or(x.Name, "blank")
		size := p.label(x.Width) + " × " + p.label(x.Height)
		switch v, h := len(x.Vertical), len(x.Horizontal); {
		case x.Panel || x.Copies > 1 && !folded[x.Name]:
		case v+h == 0 && (folded[x.Name] || x.Name == "" || plainNouns[x.Name]) && (scored || len(p.out.Pieces) == 1):
			p.say("nothing is scored on the %s of %s", name, size)
		case folded[x.Name] && v+h > 0 && (v == 0 || h == 0):
			p.say("the %s of %s is scored along one side alone", name, size)
		}
	}
}

// label is a length as the text counts.
func (p *parser) label(l measure.Length) string {
	return measure.Label(l, p.out.Unit, p.out.Unit.Tick())
}

// say adds a sentence, while there are few.
func (p *parser) say(format string, args ...any) {
	if len(p.out.Said) < mostSaid {
		p.out.Said = append(p.out.Said, p.out.Voice.Say(format, args...))
	}
}

// odd reports whether a token that nothing was made of is worth a word.
func (p *parser) odd(i int) bool {
	t := p.tok(i)
	switch t.kind {
	case number:
		return true
	case mark: // where a number is due
		return unsure[t.text] || t.text == "?" && p.num(i-1) && !p.is(i+1, "?", "no", "wait", "sorry") || gaps[t.text] && (p.times(i-1) || p.times(i+1) || t.text == "?" && p.tok(i-1).to < t.from && i > 0 && !p.is(i-1, "\n", "."))
	case word:
		strange, known := p.strange[t.text]
		if !known {
			strange = !filler[t.text] && noun(t.text) == "" && meant(t.text, scores) == "" && meant(t.text, turns) == "" && meant(t.text, sames) == "" &&
				meant(t.text, claims) == "" && meant(t.text, lesses) == "" && meant(t.text, mores) == "" && !shims[t.text]
			p.strange[t.text] = strange
		}
		return strange && !p.namesCard(i) || p.hedges(i)
	}
	return false
}

// longestName is how many words the name of a card has at most.
const longestName = 3

// namesCard reports whether a word is of a card's name: "from oat cardstock".
func (p *parser) namesCard(i int) bool {
	from, to := i-1, i+1
	for p.tok(to).kind == word && to < i+longestName && !p.is(to, "card", "cardstock", "paper") {
		to++
	}
	for p.tok(from).kind == word && from > i-longestName && !p.is(from, "from") {
		from--
	}
	return p.is(to, "card", "cardstock", "paper") && p.is(from, "from")
}
