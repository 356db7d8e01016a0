package reading

import (
	"slices"

	"brevium/core/measure"
)

// phrase is the words that tell from where numbers count, and where they end.
type phrase struct {
	words []string
	size  measure.Length // of the side that is told by its size, 0 for none
	many  bool           // "sides", not "side"
	ends  bool           // "ends", not "sides"
	end   int
}

func (q phrase) has(words ...string) bool {
	return slices.ContainsFunc(words, func(w string) bool { return slices.Contains(q.words, w) })
}

// small words stand between those that tell an edge.
var small = set("hand on from along all each every both the of long short left right top bottom with its in at way longer shorter to either opposite across same other round around that as up under over one")

// laid are words for how the card lies, or the lines, and the edge that they stand for.
var laid = map[string]string{"portrait": "short", "landscape": "long", "vertical": "left", "vertically": "left", "horizontal": "top", "horizontally": "top"}

// edgeNamed are edges by their names.
var edgeNamed = map[string]edge{"left": fromLeft, "right": fromRight, "top": fromTop, "bottom": fromBottom}

// ofSize gives the length at a token where it tells a side of the piece by its size:
// "on the 9 side", "along 11", "with 8 across the top".
func (p *parser) ofSize(k int) (measure.Length, bool) {
	if t := p.tok(k); p.now < 0 || !p.num(k) || p.times(k+1) || t.spelled || p.num(k-1) {
		return 0, false
	} else if n, whole := t.whole(); whole && n == 4 && t.unit == "" && p.is(k+1, "sides", "edges") {
		return 0, false // all of them, though the piece is 4 wide
	}
	size := p.length(k)
	if x := p.out.Pieces[p.now]; size != x.Width && size != x.Height {
		return 0, false
	}
	next := k + 1
	for p.is(next, "long", "in", "is") {
		next++
	}
	if p.is(next, "on") && p.is(next+1, "top") || p.is(k-1, "the") && p.is(next, "at", ":", "@") {
		return size, true
	}
	if p.tok(next).kind == word && sides[p.tok(next).text] || p.is(next, "across") || p.is(next, "along") && p.is(next+1, "the") && p.is(next+2, "top") {
		return size, true
	}
	return size, p.is(k-1, "along", "across") || p.is(k-1, "the") && p.is(k-2, "on", "along", "across")
}

// phrase reads the words from token i on that tell an edge; false where they tell none.
func (s *scoring) phrase(i int) (phrase, bool) {
	p := s.p
	var q phrase
	for k := i; k < i+9; k++ {
		t := p.tok(k)
		switch {
		case t.kind == number:
			if size, is := p.ofSize(k); is {
				q.size, q.end = size, k+1
				for p.is(q.end, "long", "in", "is", "across", "along", "on", "the", "top") {
					q.end++
				}
				if u := p.tok(q.end); u.kind == word && sides[u.text] {
					q.many = u.text[len(u.text)-1] == 's'
					q.end++
				}
				return q, true
			}
			// "4 sides", "the two long sides"
			n, whole := t.whole()
			side := k + 1
			for side < k+3 && p.is(side, "long", "short", "opposite") {
				side++
			}
			next := p.tok(side).kind == word && sides[p.tok(side).text]
			if !whole || n != 4 && n != 2 || t.unit != "" || !next {
				return q, false
			}
			q.words = append(q.words, map[int]string{2: "both", 4: "four"}[n])
		case t.kind != word:
			return q, false
		case p.is(k, "round", "around") && !p.is(k+1, "the", "each", "every", "all") && (q.has("all", "way") || len(s.at) > 0 && !s.said && k == i):
			q.words, q.end = []string{"all"}, k+1
			return q, true
		case p.is(k, "long", "short") && p.is(k-1, "(") && p.is(k+1, ")"):
			q.words, q.end = []string{t.text}, k+1
			return q, true
		case p.is(k, "bottom", "left", "right") && q.has("along") && len(s.at) == 1 && !s.said && !sides[p.tok(k+1).text]:
			q.words, q.end = []string{t.text}, k+1 // "at 1 1/2 along the bottom"
			return q, true
		case p.is(k, "lengthways", "lengthwise") && (p.is(k-1, "it") || meant(p.tok(k-1).text, scores) != ""):
			q.words, q.end = []string{"short"}, k+1 // the line runs along
			return q, true
		case p.is(k, "lengthways", "lengthwise"), p.is(k, "way") && q.has("long"):
			q.words, q.end = []string{"long"}, k+1
			return q, true
		case p.is(k, "widthways", "widthwise", "crossways", "crosswise"), p.is(k, "way") && q.has("short"):
			q.words, q.end = []string{"short"}, k+1
			return q, true
		case k == i && (p.is(k, "portrait", "landscape") || laid[t.text] != "" && (p.num(k+1) || p.is(k+1, ":", "at") || meant(p.tok(k+1).text, scores) != "" || p.is(k+1, "lines", "line"))):
			q.words, q.end = []string{laid[t.text]}, k+1
			return q, true
		case k == i && p.is(k, "l", "s") && p.tok(k+1).kind == word && sides[p.tok(k+1).text]:
			q.words = append(q.words, map[string]string{"l": "long", "s": "short"}[t.text])
		case p.is(k, "left", "right") && len(s.at) == 0 && !s.said && (p.num(k+1) || p.is(k+1, "at", ":")) && p.now >= 0 && q.has("the"):
			q.words, q.end = []string{t.text}, k+1 // "only the left at 1"
			return q, true
		case sides[t.text] || p.is(k, "ones") && q.has("long", "short"):
			q.many, q.end = t.text[len(t.text)-1] == 's', k+1
			if q.many && len(q.words) > 0 && q.has("from", "in") && !q.has("long", "longer", "short", "shorter", "left", "right", "top", "bottom", "both", "either", "opposite") {
				q.words = append(q.words, "all") // "from the edges"
			}
			if p.is(q.end, "of") && p.is(q.end+1, "the") && p.num(q.end+2) && p.now >= 0 {
				if size := p.length(q.end + 2); size == p.out.Pieces[p.now].Width || size == p.out.Pieces[p.now].Height {
					q.size, q.end = size, q.end+3 // "each end of the 4"
				}
			}
			q.ends = t.text == "end" || t.text == "ends"
			return q, true
		case p.is(k, "ways", "directions") && q.has("both", "each"), p.is(k, "way", "direction") && q.has("each"):
			q.words, q.end = []string{"ways"}, k+1
			return q, true
		case k == i && p.is(k, "across", "down") && (p.is(k+1, "at", ":") || p.num(k+1)) && !p.num(k-1):
			q.words, q.end = []string{map[string]string{"across": "left", "down": "top"}[t.text]}, k+1
			return q, true
		case p.is(k, "left", "right", "top", "bottom") && (q.has("from") || q.has("on", "at") && q.has("the") && len(s.at) > 0 && !s.said) && !sides[p.tok(k+1).text] && !p.is(k+1, "hand"):
			q.words, q.end = append(q.words, t.text), k+1 // "from the left"
			return q, true
		case !small[t.text]:
			return q, false
		default:
			q.words = append(q.words, t.text)
		}
	}
	return q, false
}

// edge is what a phrase tells; false where it tells none.
func (q phrase) edge() (edge, bool) {
	switch {
	case q.has("ways"):
		return bothWays, true
	case q.size > 0 && q.ends:
		return endsOfSize, true
	case q.ends && q.has("each", "both", "either") && !q.has("all", "four", "long", "short"):
		return bothEnds, true
	case q.has("one") && q.has("long", "longer") && !q.many:
		return alongShort, true
	case q.has("one") && q.has("short", "shorter") && !q.many:
		return alongLong, true
	case q.size > 0 && (q.many || q.has("both", "each")):
		return fromSize, true
	case q.size > 0:
		return alongSize, true
	case q.has("long", "longer") && (q.many || q.has("both", "each")):
		return fromLong, true
	case q.has("short", "shorter") && (q.many || q.has("both", "each")):
		return fromShort, true
	case q.has("long", "longer"):
		return alongLong, true
	case q.has("short", "shorter"):
		return alongShort, true
	case q.has("four", "all", "each", "every"):
		return fromAll, true
	case q.has("both", "either", "opposite"):
		return bothEnds, true
	case q.has("left"):
		return fromLeft, true
	case q.has("right"):
		return fromRight, true
	case q.has("top"):
		return fromTop, true
	case q.has("bottom"):
		return fromBottom, true
	}
	return along, false
}

// edge reads from where numbers count: "on all four sides", "along the long side",
// "from both ends", "all round", "on the 9 in side".
func (s *scoring) edge() bool {
	p := s.p
	q, is := s.phrase(p.i)
	if !is {
		return false
	}
	from, is := q.edge()
	if x := p.out.Pieces[max(0, p.now):]; from == bothEnds && q.has("opposite") && !q.ends && len(x) > 0 && x[0].Width != x[0].Height && len(s.at) > 0 && !s.said {
		s.giveUp() // which two is not said
		p.i = q.end
		return true
	}
	if !is {
		if q.has("one") && q.has("from") && len(s.at) > 0 { // which of them is not said
			s.giveUp()
			p.i = q.end
			return true
		}
		return false
	}
	if q.has("one") && (from == alongLong || from == alongShort) {
		if len(s.at) != 1 { // "on one long side score 2 and 5" counts along it
			from = map[edge]edge{alongLong: alongShort, alongShort: alongLong}[from]
		} else {
			p.say("“%s” is read as a score along that side, so far in from it", p.words(p.i, q.end))
		}
	}
	p.phrased(p.i, q.end)
	p.i = q.end
	for p.is(p.i, "along", "against", "on") && p.is(p.i+1, "the") && p.is(p.i+2, "top", "fence") { // "along the top"
		p.use(p.i, p.i+3)
		p.i += 3
	}
	if q.has("same") && len(s.at) == 0 && len(s.before) > 0 {
		s.at, s.said = slices.Clone(s.before), false // "do the same on the short edges"
	}
	var others []edge
	but, named := edgeNamed[p.tok(p.i+2).text]
	switch {
	case slices.Contains([]edge{fromLeft, fromRight, fromTop, fromBottom}, from):
		others = p.otherEdges()
	case (from == fromAll || from == bothEnds) && p.is(p.i, "of") && p.is(p.i+1, "the") && p.is(p.i+2, "middle", "centre", "center"):
		p.use(p.i, p.i+3)
		p.i += 3
		from = besideMiddle // "1/2 each side of the middle"
	case from == fromAll && named && p.is(p.i, "but", "except") && p.is(p.i+1, "the"):
		p.use(p.i, p.i+3)
		p.i += 3
		others = slices.DeleteFunc([]edge{fromLeft, fromRight, fromTop, fromBottom}, func(x edge) bool { return x == but })
		from, others = others[0], others[1:]
	}
	return s.side(from, q.size, others...)
}

// otherEdges reads edges after a first one: "from the left, right and bottom".
func (p *parser) otherEdges() (out []edge) {
	for {
		k := p.i
		for p.is(k, ",", "and", "&", "the", "from", "on") {
			k++
		}
		e, is := edgeNamed[p.tok(k).text]
		if !is || k == p.i || p.num(k+1) || p.is(k+1, "at", ":") {
			return out
		}
		if p.tok(k+1).kind == word && sides[p.tok(k+1).text] {
			k++
		}
		p.use(p.i, k+1)
		p.i, out = k+1, append(out, e)
	}
}

// phrased takes words that tell an edge as read; numbers among them are a size of the piece, or
// count its sides.
func (p *parser) phrased(from, to int) {
	p.use(from, to)
	for i := from; i < to; i++ {
		if _, is := p.ofSize(i); is {
			p.as(i, OfSize)
		} else if p.num(i) {
			p.as(i, OfCount)
		}
	}
}

// side takes in from where numbers count: of those before it, if they had nothing yet;
// else of those that follow.
func (s *scoring) side(from edge, size measure.Length, others ...edge) bool {
	p := s.p
	if p.i > 0 && sides[p.tok(p.i).text] && p.tok(p.i).kind == word {
		p.use(p.i-1, p.i+1)
		p.i++
	}
	after := (len(s.at) > 0 || s.parts > 0) && !s.said
	s.clause()
	s.from, s.size, s.said, s.besides = from, size, true, others
	p.flipped = false
	if !after {
		return true
	}
	// "… on all sides of the base, … of the lid".
	if k := p.i; p.is(k, "of", "for") {
		for k++; p.is(k, "the", "your"); k++ {
		}
		if n := p.called(noun(p.tok(k).text)); n >= 0 && p.tok(k).kind == word {
			p.now = n
			s.turned = false
			p.use(p.i, k+1)
			p.i = k + 1
		}
	}
	s.flush()
	// What was said of pieces before in the sentence is of the same edges: "the base at
	// 3 and the lid at 1 1/2, all sides".
	for _, k := range s.unsaid {
		passes := p.out.Pieces[k].passes
		if x := &passes[len(passes)-1]; k != p.now && len(x.at) == 1 {
			x.from, x.size = from, size
		}
	}
	s.unsaid = nil
	return true
}
