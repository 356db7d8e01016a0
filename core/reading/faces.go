package reading

import (
	"slices"
	"strings"

	"brevium/core/measure"
)

// On says where paper goes: on any of some groups of words, each of which tells of faces together
// ("lid top", "left side"); on the inside; on all that the words tell of, not on one.
type On struct {
	Groups [][]string
	Inside bool
	All    bool
}

// Border is paper without a size: as large as its face but for so much all round.
type Border struct {
	Width measure.Length
	On
}

var (
	// places are words for faces and parts that paper goes on, many of them those of more than one.
	places = set("front back left right side sides end ends top bottom lid base floor flap flaps wall walls long short roof spine drawer sleeve tray cover")
	manyOf = set("sides ends walls flaps both every all each")
	// decors are what goes on a box besides card.
	decors = set("paper papers patterned pattern dsp panel panels mat mats matting layer layers decorate")
	// facing are nouns that stand for faces too: paper is known by them.
	facing  = set("paper card piece top bottom flap floor wall spine panel mat layer")
	borders = set("border borders showing margin frame")
	// smaller alone may mean both sides together: so much all round is told besides.
	smaller = set("smaller less")
	round   = set("round around edge edges")
)

// clause is a part of a sentence that tells of one piece.
type clause struct{ from, to int }

// sentence gives the tokens round one up to a full stop, a semicolon or the end of a line; a
// heading goes on in the next line.
func (p *parser) sentence(i int) clause {
	ends := func(k int) bool { return p.is(k, ".", ";") || p.is(k, "\n") && !p.is(k-1, ":") }
	c := clause{i, i}
	for c.from > 0 && !ends(c.from-1) {
		c.from--
	}
	for c.to < len(p.toks) && !ends(c.to) {
		c.to++
	}
	return c
}

// sizes gives the tokens of each piece's size.
func (p *parser) sizes() []clause {
	out := make([]clause, len(p.out.Pieces))
	for _, u := range p.out.Uses {
		if u.What == Score {
			continue
		}
		from := slices.IndexFunc(p.toks, func(t token) bool { return t.from >= u.From })
		if c := &out[u.Piece]; c.to == 0 {
			*c = clause{from, from + 1}
		} else {
			*c = clause{min(c.from, from), max(c.to, from+1)}
		}
	}
	return out
}

// onFaces finds out of papers where they go, and which pieces that are not scored are paper.
func (p *parser) onFaces() {
	scored := slices.ContainsFunc(p.out.Pieces, func(x Piece) bool { return len(x.passes) > 0 })
	sizes := p.sizes()
	taken := 0 // the tokens before it are of pieces before
	for i := range p.out.Pieces {
		x := &p.out.Pieces[i]
		size := sizes[i]
		all := p.sentence(size.from)
		c := clause{max(all.from, taken), size.to}
		next := clause{all.to, all.to}
		if i+1 < len(p.out.Pieces) {
			if n := sizes[i+1]; n.from < all.to && n.from >= size.to {
				next = n
			}
		}
		c.to = p.behind(size.to, next.from, next.from < all.to)
		taken = c.to
		if len(x.passes) > 0 || !scored {
			continue
		}
		on, words := p.wordsOn(c, size)
		before := i > 0 && p.out.Pieces[i-1].Panel
		same := before && sizes[i-1].from >= all.from
		if !x.Panel {
			paper := p.has(all, decors)
			if x.Name != "" && !facing[x.Name] || len(on.Groups) == 0 && !on.Inside && !(paper && same) || !paper && !before {
				continue
			}
			x.Panel, x.Name = true, "paper"
		}
		if len(on.Groups) == 0 && same && p.has(c, set("over it them")) {
			on = p.out.Pieces[i-1].On
		}
		x.On = on
		for _, k := range words {
			p.use(k, k+1)
		}
	}
	for from := 0; from < len(p.toks); {
		c := p.sentence(from)
		p.border(c)
		from = max(c.to, from) + 1
	}
}

// behind gives where the words end that stand behind a size and are of it.
func (p *parser) behind(from, to int, another bool) int {
	if !another {
		return to
	}
	said := false // "for the front and the back, …"
	for k := from; k < to; k++ {
		said = said || p.is(k, "for", "on")
		if p.is(k, ",", "\n") || p.is(k, "and", "&", "+") && (!said || p.num(k+1)) {
			return k
		}
	}
	return from
}

func (p *parser) has(c clause, words map[string]bool) bool {
	for k := c.from; k < c.to; k++ {
		if t := p.tok(k); t.kind == word && words[t.text] {
			return true
		}
	}
	return false
}

// wordsOn gives the places that a clause names, but for what is in its size, and their words.
func (p *parser) wordsOn(c, size clause) (on On, words []int) {
	var group []string
	end := func() {
		if len(group) > 0 {
			on.Groups = append(on.Groups, group)
		}
		group = nil
	}
	for k := c.from; k < c.to; k++ {
		t := p.tok(k)
		switch {
		case k >= size.from && k < size.to:
			end()
		case t.kind == word && (t.text == "inside" || t.text == "interior"):
			on.Inside, words = true, append(words, k)
		case p.is(k, "top") && p.is(k-1, "on") && p.is(k+1, "of"):
		case t.kind == word && places[t.text]:
			group = append(group, t.text)
			on.All, words = on.All || manyOf[t.text], append(words, k)
		case t.kind == word && manyOf[t.text]:
			on.All = true
		case p.is(k, "and", "&", "+", "/", "or", ",", ":"):
			end()
		}
	}
	end()
	return on, words
}

// border reads a sentence of papers that says how much shows round them, and no size.
func (p *parser) border(c clause) {
	at := -1
	for k := c.from; k < c.to; k++ {
		if p.num(k) {
			if at >= 0 || p.used[k] || p.roles[k] != "" {
				return
			}
			at = k
		}
	}
	if at < 0 || !p.has(c, decors) && !p.has(c, set("cover")) || !p.has(c, borders) && !(p.has(c, smaller) && p.has(c, round)) {
		return
	}
	if w := p.length(at); w > 0 && w <= mostBorder {
		p.as(at, OfPaper)
		on, _ := p.wordsOn(c, clause{at, at + 1})
		p.out.Borders = append(p.out.Borders, Border{w, on})
		p.use(c.from, c.to)
	}
}

// mostBorder is the widest border that papers are told by.
const mostBorder = 2 * measure.Inch

// Words are the places as one says them.
func (o On) Words() string {
	var all []string
	for _, g := range o.Groups {
		all = append(all, strings.Join(g, " "))
	}
	text := strings.Join(all, " and the ")
	if o.Inside {
		text = strings.TrimSpace("inside of the " + text)
	}
	return text
}
