package design

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

// follower is a maker who has the words of the steps and nothing else: each sentence becomes a
// move of the simulated hand, what it names being sought on the card as it lies.
type follower struct {
	unit  measure.Unit
	table hand.Table
	// Of each piece, what was read of it: what is made "the same way" is made of that.
	scripts map[string][]sentence
	last    string
	marks   []pattern.Point
	strips  []float64 // where a weave is cut, from both sides
	line    float64   // where something was marked or cut, from an edge
	facets  struct{ near, top, foot, mark, off float64 }
	// What is printed or lies on the table beside the words: templates by piece, the card's
	// thickness.
	templates map[string]*pattern.Pattern
	card      measure.Length
}

type sentence struct {
	key    string
	fields recipe.Fields
}

// readSteps makes a box from its steps. It panics where a sentence says nothing to a hand.
func readSteps(r *Result, steps []recipe.Step) (x *follower, err error) {
	x = &follower{unit: r.Inputs.Units, scripts: map[string][]sentence{}, templates: map[string]*pattern.Pattern{}, card: r.Inputs.Card.Thickness}
	for _, p := range r.Parts {
		if p.Traced() {
			x.templates[p.ID] = p.Pattern
		}
	}
	defer func() {
		if p := recover(); p != nil {
			err = fmt.Errorf("%v", p)
		}
	}()
	named := map[string]string{}
	for _, s := range steps {
		if !strings.HasPrefix(s.Mark, "m") || s.Piece == "" {
			continue
		}
		x.read(s, named)
	}
	return x, nil
}

func (x *follower) read(s recipe.Step, named map[string]string) {
	whole := strings.TrimSuffix(s.Text, " "+recipe.English.Say("hold", nil))
	// What follows the first sentence says what differs, or which way a paper runs.
	key, f, also := lead(whole)
	for _, name := range strings.Split(f["piece"], " and ") {
		if strings.HasPrefix(key, "cut") {
			named[name] = s.Piece
		}
	}
	switch {
	case key == "same-up":
		for _, k := range x.rest(x.scripts[named[f["other"]]]) {
			x.do(s.Piece, k)
		}
	case strings.HasPrefix(key, "same"):
		like := x.last
		if f["other"] != "" {
			like = named[f["other"]]
		}
		script := slices.Clone(x.scripts[like])
		if strings.HasSuffix(key, "-open") {
			script = script[:len(script)-len(x.rest(script))]
		}
		var pieces []string // in the order in which they are named
		for _, in := range s.Inner {
			if !slices.Contains(pieces, in.Piece) {
				pieces = append(pieces, in.Piece)
			}
		}
		for i, name := range strings.Split(f["piece"], " and ") {
			named[name] = pieces[min(i, len(pieces)-1)]
		}
		for _, piece := range pieces {
			x.likewise(piece, key, f, script, also)
			x.last = piece
		}
	default:
		x.do(s.Piece, sentence{key, f})
		x.last = s.Piece
	}
}

// lead is the pattern of a step's text, and what is said after a first sentence that stands
// by itself.
func lead(text string) (key string, f recipe.Fields, also []sentence) {
	rest := ""
	for {
		if key, f, found := recipe.English.Read("", text); found && strings.HasSuffix(text, ".") && !strings.HasPrefix(key, "parts") {
			return key, f, also
		}
		// Take the last sentence off.
		i := strings.LastIndex(strings.TrimSuffix(text, "."), ". ")
		if i < 0 {
			panic(fmt.Sprintf("nothing is said by %q", text+rest))
		}
		last := text[i+2:]
		k, g, found := recipe.English.Read("also-", last)
		if !found {
			if k, g, found = recipe.English.Read("pattern-", last); !found {
				k, g, found = recipe.English.Read("score-four", last)
			}
		}
		if !found {
			panic(fmt.Sprintf("nothing is said by %q of %q", last, text))
		}
		also = append([]sentence{{k, g}}, also...)
		text, rest = text[:i+1], " "+last+rest
	}
}

// likewise makes a piece like another, but for what is said.
func (x *follower) likewise(piece, key string, f recipe.Fields, script, also []sentence) {
	for _, k := range script {
		switch {
		case strings.HasPrefix(key, "same-again"):
		case strings.HasPrefix(k.key, "cut"):
			k = sentence{"cut", recipe.Fields{"size": f["size"]}}
		case strings.HasPrefix(k.key, "score-four") && f["at"] != "":
			k = sentence{"score-four", recipe.Fields{"at": f["at"]}}
		}
		skip := false
		for _, a := range also {
			g := a.fields
			switch {
			case strings.HasPrefix(a.key, "score-four") && strings.HasPrefix(k.key, "score-four"):
				k = a
			case a.key == "also-edge" && k.key == "score-from":
				k = sentence{k.key, recipe.Fields{"edge": g["edge"], "at": g["at"]}}
			case a.key == "also-edges" && k.key == "score-from":
				k = sentence{k.key, recipe.Fields{"edge": g["edge"], "at": g["at"]}}
			case a.key == "also-edges" && k.key == "score-turned":
				k = sentence{k.key, recipe.Fields{"edge": g["last"], "at": g["off"]}}
			case a.key == "also-slit" && k.key == "slit":
				k = sentence{k.key, recipe.Fields{"edges": g["edges"], "scores": k.fields["scores"], "nth": k.fields["nth"]}}
			case a.key == "also-trim" && (k.key == "trim-taper" || k.key == "taper") && k.fields["parts"] == g["parts"]:
				k = sentence{"trim-taper", recipe.Fields{"parts": g["parts"], "off": k.fields["off"], "leave": g["leave"]}}
			case a.key == "also-whole" && k.key == "trim-taper" && k.fields["parts"] == g["parts"]:
				k = sentence{"taper", recipe.Fields{"parts": g["parts"], "off": k.fields["off"]}}
			case (a.key == "also-trim" || a.key == "also-whole") && k.key == "trim" && k.fields["parts"] == g["parts"]:
				skip = true // its own number comes before the tapers
			}
		}
		if strings.HasPrefix(k.key, "taper") || strings.HasPrefix(k.key, "fold") { // what is trimmed besides comes before
			for _, a := range also {
				done := slices.ContainsFunc(script, func(o sentence) bool {
					return (o.key == "trim-taper" || o.key == "taper") && o.fields["parts"] == a.fields["parts"]
				})
				if a.key == "also-trim" && !done && !x.trimmed(piece, a.fields["parts"]) {
					x.do(piece, sentence{"trim", recipe.Fields{"parts": a.fields["parts"], "leave": a.fields["leave"]}})
				}
			}
		}
		if !skip {
			x.do(piece, k)
		}
	}
}

// trimmed reports whether parts of a piece were trimmed.
func (x *follower) trimmed(piece, parts string) bool {
	return slices.ContainsFunc(x.scripts[piece], func(k sentence) bool { return k.key == "trim" && k.fields["parts"] == parts })
}

// rest is the script from its first sticking on.
func (x *follower) rest(script []sentence) []sentence {
	i := slices.IndexFunc(script, func(k sentence) bool { return strings.HasPrefix(k.key, "stick") })
	if i < 0 {
		return nil
	}
	return script[i:]
}

func (x *follower) do(piece string, s sentence) {
	x.scripts[piece] = append(x.scripts[piece], s)
	card, _ := x.table.Card(piece)
	if err := x.table.Do(piece, x.move(card, s)); err != nil {
		panic(fmt.Sprintf("%s: %v: %v", piece, s, err))
	}
}

func (x *follower) length(text string) measure.Length {
	l, err := measure.Parse(strings.TrimSpace(text), x.unit)
	if err != nil {
		panic(err)
	}
	return l
}

func (x *follower) lengths(text string) []measure.Length {
	var out []measure.Length
	for _, t := range compiled(`, | and `).Split(text, -1) {
		out = append(out, x.length(t))
	}
	return out
}

// word finds which of the voice's patterns of a family was said.
func word(family, said string) string {
	key, _, found := recipe.English.Read(family, said)
	if !found {
		panic(fmt.Sprintf("%q is no %s", said, family))
	}
	return strings.TrimPrefix(key, family)
}

func number(said string) int {
	var n int
	fmt.Sscan(word("number.", said), &n)
	return n
}

func nth(said string) int {
	var n int
	fmt.Sscan(word("nth.", said), &n)
	return n
}

func (x *follower) move(c *hand.Card, s sentence) hand.Move {
	f := s.fields
	switch key := s.key; key {
	case "cut", "cut-from", "cut-numbered", "cut-numbered-from", "cut-many", "cut-many-from":
		w, h, _ := strings.Cut(f["size"], " × ")
		return hand.Cut{Width: x.length(w), Height: x.length(h)}
	case "score-four", "score-four-shim":
		m := hand.ScoreFour{At: x.lengths(f["at"])}
		if f["shim"] != "" {
			m.Shim = x.length(f["shim"])
		}
		return m
	case "score-from", "score-turned":
		return hand.ScoreFrom{Edge: hand.Edge(strings.ToLower(f["edge"])), At: x.lengths(f["at"]), Turned: key == "score-turned"}
	case "panels-down", "panels-across", "panels-only-down", "panels-only-across":
		m := hand.Names{Across: strings.HasSuffix(key, "across"), Panels: true}
		var n int
		fmt.Sscan(f["last"], &n)
		for i := range n {
			m.Words = append(m.Words, fmt.Sprint(i+1))
		}
		if !strings.Contains(key, "only") {
			m.Words = append(m.Words, "tab")
		}
		return m
	case "names-down", "names-across":
		var words []string
		for _, name := range strings.Split(f["names"], ", ") {
			words = append(words, word("name.", name))
		}
		return hand.Names{Across: key == "names-across", Words: words}
	case "slit", "slit-turning", "slit-turning-inner", "slit-both":
		return x.slit(c, key, f)
	case "off-three-of-four", "off-corners", "off-corners-square", "off-beside", "off-fallen", "off-tube-ends", "off-gable", "off-ridge", "off-tab-foot", "off-dispenser", "off-corners-open":
		return x.off(c, key, f)
	case "trim-taper":
		return hand.Taper{What: x.parts(c, f["parts"]), Off: x.length(f["off"]), Leave: x.length(f["leave"])}
	case "trim":
		return hand.Trim{What: x.parts(c, f["parts"]), Leave: x.length(f["leave"])}
	case "taper":
		return hand.Taper{What: x.parts(c, f["parts"]), Off: x.length(f["off"])}
	case "taper-outer-strip":
		return hand.Taper{What: hand.Parts{At: places(strips(c))}, Off: sliverOf(x.unit)}
	case "notch-edge":
		m := hand.Notch{Across: x.length(f["across"])}
		for _, e := range edgesOf(c, f["edges"]) {
			m.Edges = append(m.Edges, e)
			half := c.Height / 2
			if !e.Side() {
				half = c.Width / 2
			}
			m.At = measure.Nearest(half, x.cut())
		}
		return m
	case "notch-panel", "notch-panel-both":
		_, down := c.Grid()
		n := panel(f["panel"])
		m := hand.Notch{Across: x.length(f["across"]), Edges: []hand.Edge{hand.Right}, At: measure.Nearest(measure.FromMM((down[n-1]+down[n])/2), x.cut())}
		if key == "notch-panel-both" {
			m.Edges = []hand.Edge{hand.Left, hand.Right}
		}
		return m
	case "dust-flaps":
		return x.dust(c, f)
	case "point-flap", "round-flap":
		return x.flap(c, key, f)
	case "holes-marked", "hole-marked":
		x.marks = nil
		for _, across := range x.lengths(f["at"]) {
			for _, down := range x.lengths(f["off"]) {
				x.marks = append(x.marks, pattern.Pt(across.MM(), down.MM()))
			}
		}
		return hand.Mark{}
	case "holes-round", "holes-square", "holes-slot":
		return x.holes(key, f)
	case "fold-bag":
		_, down := c.Grid()
		var m hand.FoldWays
		for _, y := range []float64{down[1], down[len(down)-2]} {
			m.Towards = append(m.Towards, pattern.Segment{A: pattern.Pt(0, y), B: pattern.Pt(c.Width.MM(), y)})
		}
		return m
	case "dry-bag":
		return hand.Dry{}
	case "fold-all":
		return hand.FoldAll{}
	case "fold-over-outer-strip":
		if x.templates[c.ID] != nil {
			return x.odd(c, key, f)
		}
		return hand.FoldOver{What: hand.Parts{At: places(strips(c))}}
	}
	if strings.HasPrefix(s.key, "stick-") {
		return x.stick(c, strings.TrimPrefix(s.key, "stick-"), f)
	}
	if m := x.odd(c, s.key, f); m != nil {
		return m
	}
	if m := x.shape(c, s.key, f); m != nil {
		return m
	}
	panic(fmt.Sprintf("no hand knows what %q means: %v", s.key, f))
}

// sliverOf is what the key says that a sliver is.
func sliverOf(unit measure.Unit) measure.Length {
	if unit == measure.In {
		return measure.Inch / 32
	}
	return measure.Millimetre
}

// edgesOf are the edges that a phrase names, on a card as it was cut.
func edgesOf(c *hand.Card, said string) []hand.Edge {
	sides, ends := []hand.Edge{hand.Left, hand.Right}, []hand.Edge{hand.Top, hand.Bottom}
	key, f, _ := recipe.English.Read("edges-", said)
	switch key {
	case "edges-one":
		return []hand.Edge{hand.Edge(f["edge"])}
	case "edges-sides", "edges-opposite":
		return sides
	case "edges-ends":
		return ends
	case "edges-short", "edges-long":
		if (c.Height < c.Width) == (key == "edges-short") {
			return sides
		}
		return ends
	}
	panic(fmt.Sprintf("%q are no edges", said))
}

func (x *follower) slit(c *hand.Card, key string, f recipe.Fields) hand.Move {
	to := nth(f["nth"])
	if strings.HasPrefix(key, "slit-turning") {
		// With an edge at the top the left score is the first from its left end.
		inner := 0
		if key == "slit-turning-inner" {
			inner = 1
		}
		var m hand.Slit
		for _, e := range []hand.Edge{hand.Top, hand.Right, hand.Bottom, hand.Left} {
			line := inner
			if e == hand.Bottom || e == hand.Left {
				line = c.Lines(e) - 1 - inner
			}
			m.Runs = append(m.Runs, hand.Run{From: e, Line: line, To: to})
		}
		return m
	}
	var edges []hand.Edge
	crossings := []int{to, to}
	if key == "slit-both" {
		edges, crossings[1] = []hand.Edge{hand.Edge(f["one"]), hand.Edge(f["last"])}, nth(f["then"])
	} else {
		edges = edgesOf(c, f["edges"])
	}
	n := c.Lines(edges[0])
	from, until := 0, n
	switch which, count, _ := recipe.English.Read("scores-", f["scores"]); which {
	case "scores-met", "scores-panels":
		if number(count["count"]) != n {
			panic(fmt.Sprintf("%s, but there are %d", f["scores"], n))
		}
	case "scores-both":
		if n != 2 {
			panic(fmt.Sprintf("%s, but there are %d", f["scores"], n))
		}
	case "scores-first":
		until = number(count["count"])
	case "scores-last":
		from = n - number(count["count"])
	case "scores-inner", "scores-middle":
		from, until = n/2-1, n/2+1
	default:
		panic(fmt.Sprintf("which scores are %q?", f["scores"]))
	}
	var m hand.Slit
	for i, e := range edges {
		for line := from; line < until; line++ {
			m.Runs = append(m.Runs, hand.Run{From: e, Line: line, To: crossings[i]})
		}
	}
	return m
}

// panel is the number in the name of a panel.
func panel(said string) int {
	var n int
	_, err := fmt.Sscanf(said, "panel %d", &n)
	if err != nil {
		panic(err)
	}
	return n
}

func columns(c *hand.Card) int { across, _ := c.Grid(); return len(across) - 1 }
func rows(c *hand.Card) int    { _, down := c.Grid(); return len(down) - 1 }

// cellAt is the middle of a cell between full scores.
func cellAt(c *hand.Card, col, row int) pattern.Point {
	across, down := c.Grid()
	return pattern.Pt((across[col]+across[col+1])/2, (down[row]+down[row+1])/2)
}

func (x *follower) row(c *hand.Card, name string) int {
	row := slices.Index(c.Names().Words, name)
	if row < 0 {
		panic(fmt.Sprintf("no row is called %q", name))
	}
	return row
}
