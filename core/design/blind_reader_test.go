package design

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

// blind is a hand that has the words of the steps and nothing else: a blank,
// what it was told to score and what it was told to cut, in mm. It knows no
// style and no pattern. Where it cannot read a sentence, the sentence is not
// good enough.
type blind struct {
	w, h   float64
	unit   measure.Unit
	scores []pattern.Segment
	cuts   [][]pattern.Point
	holes  [][]pattern.Point
	bent   [][2]float64 // bands across the blank that are not scored
	shaped bool         // by the hand, without marks
}

// readBlind makes a piece from the steps that name it.
func readBlind(steps []recipe.Step, piece string, unit measure.Unit) (b *blind, err error) {
	b = &blind{unit: unit}
	defer func() {
		if p := recover(); p != nil {
			err = fmt.Errorf("%v", p)
		}
	}()
	for _, s := range steps {
		if s.Piece == piece || s.Piece == "" {
			b.shaped = b.shaped || compiled(`(?i)draw the strip over the table's edge|press the top together corner to corner, without a crease`).MatchString(s.Text)
		}
		if s.Piece != piece || strings.HasPrefix(s.Key, "cut/") && s.Key != "cut/"+piece {
			continue
		}
		switch s.Kind {
		case recipe.Cut:
			m := b.must(`^Cut the .* blank, (.+?) × (.+?), from .*\.$`, s.Text)
			b.w, b.h = b.length(m[1]), b.length(m[2])
		case recipe.Score:
			b.score(s.Text)
		case recipe.Remove:
			m := b.must(`^.*?, outside up: (.*)\.$`, s.Text)
			for _, sentence := range strings.Split(m[1], ". ") {
				b.cut(sentence)
			}
		}
	}
	return b, nil
}

func (b *blind) must(expression, text string) []string {
	m := compiled(expression).FindStringSubmatch(text)
	if m == nil {
		panic(fmt.Sprintf("cannot read %q", text))
	}
	return m
}

func (b *blind) length(text string) float64 {
	l, err := measure.Parse(strings.TrimSpace(text), b.unit)
	if err != nil {
		panic(fmt.Sprintf("%q: %v", text, err))
	}
	return l.MM()
}

func (b *blind) lengths(text string) []float64 {
	var out []float64
	for _, t := range compiled(`, | and `).Split(text, -1) {
		out = append(out, b.length(t))
	}
	return out
}

// at gives the line that lies so far from an edge: upright from left and
// right, level from top and bottom.
func (b *blind) at(edge string, far float64) (upright bool, at float64) {
	switch edge {
	case "left":
		return true, far
	case "right":
		return true, b.w - far
	case "top":
		return false, far
	case "bottom":
		return false, b.h - far
	}
	panic("no edge is called " + edge)
}

func (b *blind) whole(edge string, far float64) pattern.Segment {
	up, at := b.at(edge, far)
	if up {
		return pattern.Segment{A: pattern.Pt(at, 0), B: pattern.Pt(at, b.h)}
	}
	return pattern.Segment{A: pattern.Pt(0, at), B: pattern.Pt(b.w, at)}
}

// score reads a score step: the passes, then the lines that stop short.
func (b *blind) score(text string) {
	_, rest, _ := strings.Cut(text, "outside up. ")
	fence := "left"
	for _, sentence := range strings.Split(strings.TrimSuffix(rest, "."), ". ") {
		sentence = strings.TrimSuffix(sentence, ".")
		if m := compiled(`^(.*) from each of the four edges(?:, held off the fence by a shim of (.*))?: turn it a quarter after each$`).FindStringSubmatch(sentence); m != nil {
			for _, edge := range []string{"left", "top", "right", "bottom"} {
				b.pass(edge, m[1], m[2])
			}
			continue
		}
		if m := compiled(`^(?:Turn a quarter, )?(\w+) edge against the fence(?:, held off the fence by a shim of (.*?))?: (.*)$`).FindStringSubmatch(sentence); m != nil {
			edge := strings.ToLower(m[1])
			if edge == "right" && len(b.scores) == 0 {
				fence = "right"
			}
			b.pass(edge, m[3], m[2])
			continue
		}
		if m := compiled(`^By a ruler from edge to edge, (.*) from the (\w+) edge$`).FindStringSubmatch(sentence); m != nil {
			if m[2] == "right" && len(b.scores) == 0 {
				fence = "right"
			}
			b.pass(m[2], m[1], "")
			continue
		}
		if m := compiled(`^Lines that stop short \(across is counted from the (\w+) edge and down from the top edge\): (.*)$`).FindStringSubmatch(sentence); m != nil {
			fence = m[1]
			for _, line := range strings.Split(m[2], "; ") {
				b.short(fence, line)
			}
		}
		// Anything else explains; a hand must not need it.
	}
}

func (b *blind) pass(edge, numbers, shim string) {
	off := 0.0
	if shim != "" {
		off = b.length(shim)
	}
	for _, n := range b.lengths(numbers) {
		b.scores = append(b.scores, b.whole(edge, n-off))
	}
}

func (b *blind) short(fence, line string) {
	across := func(text string) float64 {
		_, x := b.at(fence, b.length(text))
		return x
	}
	if m := compiled(`^by a ruler from (.*) across and (.*) down to (.*) across and (.*) down$`).FindStringSubmatch(line); m != nil {
		b.scores = append(b.scores, pattern.Segment{
			A: pattern.Pt(across(m[1]), b.length(m[2])), B: pattern.Pt(across(m[3]), b.length(m[4])),
		})
		return
	}
	if m := compiled(`^no score between (.*) and (.*) down: that part is bent without one$`).FindStringSubmatch(line); m != nil {
		b.bent = append(b.bent, [2]float64{b.length(m[1]), b.length(m[2])})
		return
	}
	m := b.must(`^(.*) from the (\w+) edge, from (.*) to (.*) (down|across)$`, line)
	up, at := b.at(m[2], b.length(m[1]))
	if up {
		b.scores = append(b.scores, pattern.Segment{A: pattern.Pt(at, b.length(m[3])), B: pattern.Pt(at, b.length(m[4]))})
	} else {
		b.scores = append(b.scores, pattern.Segment{A: pattern.Pt(across(m[3]), at), B: pattern.Pt(across(m[4]), at)})
	}
}

// cut reads one sentence of a cutting step: from several corners or with each
// edge at the top it is read once for each.
func (b *blind) cut(sentence string) {
	sentence = strings.ToLower(sentence[:1]) + sentence[1:]
	corners := map[string][2]string{"upper left": {"left", "top"}, "upper right": {"right", "top"}, "lower left": {"left", "bottom"}, "lower right": {"right", "bottom"}}
	var at []string
	rest := sentence
	switch {
	case strings.HasPrefix(sentence, "at each of the four corners, "):
		at, rest = []string{"upper left", "upper right", "lower left", "lower right"}, strings.TrimPrefix(sentence, "at each of the four corners, ")
	case strings.HasPrefix(sentence, "at both "):
		m := b.must(`^at both (\w+) corners, (.*)$`, sentence)
		for name, edges := range corners {
			if slices.Contains(edges[:], m[1]) {
				at = append(at, name)
			}
		}
		rest = m[2]
	case strings.HasPrefix(sentence, "at the "):
		m := b.must(`^at the (.*?) corners, (.*)$`, sentence)
		at, rest = compiled(`, | and `).Split(m[1], -1), m[2]
	case strings.HasPrefix(sentence, "with each of the four edges in turn at the top, "):
		rest = strings.TrimPrefix(sentence, "with each of the four edges in turn at the top, ")
		for n := range 4 {
			turned := &blind{w: b.w, h: b.h, unit: b.unit, scores: nil}
			if n%2 == 1 {
				turned.w, turned.h = b.h, b.w
			}
			turned.cut(rest)
			back := func(q pattern.Point) pattern.Point {
				return []pattern.Point{q, {X: b.w - q.Y, Y: q.X}, {X: b.w - q.X, Y: b.h - q.Y}, {X: q.Y, Y: b.h - q.X}}[n]
			}
			for _, path := range turned.cuts {
				for i := range path {
					path[i] = back(path[i])
				}
				b.cuts = append(b.cuts, path)
			}
		}
		return
	}
	for both, each := range map[string][2]string{"left and the right edge": {"left edge", "right edge"}, "top and the bottom edge": {"top edge", "bottom edge"}} {
		if strings.Contains(rest, both) {
			for _, edge := range each {
				b.one(strings.Replace(rest, both, edge, 1))
			}
			return
		}
	}
	if at == nil {
		b.one(rest)
		return
	}
	for _, name := range at {
		edges := corners[name]
		b.one(strings.NewReplacer("left or right edge", edges[0]+" edge", "top or bottom edge", edges[1]+" edge").Replace(rest))
	}
}

// point reads a place: on an edge or in from two of them.
func (b *blind) point(text string) pattern.Point {
	if m := compiled(`^the (\w+) edge (.*) from the (\w+) edge$`).FindStringSubmatch(text); m != nil {
		return b.cross(m[1], 0, m[3], b.length(m[2]))
	}
	m := b.must(`^(.*) from the (\w+) edge and (.*) from the (\w+) edge$`, text)
	return b.cross(m[2], b.length(m[1]), m[4], b.length(m[3]))
}

func (b *blind) cross(edge string, far float64, other string, farther float64) pattern.Point {
	up, x := b.at(edge, far)
	_, y := b.at(other, farther)
	if up {
		return pattern.Pt(x, y)
	}
	return pattern.Pt(y, x)
}

// one reads a sentence told from named edges.
func (b *blind) one(s string) {
	find := func(expression string) []string { return compiled(expression).FindStringSubmatch(s) }
	if m := find(`^from the (\w+) edge(?: and the (\w+) edge)?, cut along (the .* edge) (?:to the (\w+) crossing \((.*)\)|as far as (.*))$`); m != nil {
		b.fromEdges(m)
		return
	}
	if m := find(`^cut along (the .* edge), between (.*) and (.*) from the (\w+) edge$`); m != nil {
		b.lines(m[1], func(edge string, n float64) {
			b.cuts = append(b.cuts, []pattern.Point{b.cross(edge, n, m[4], b.length(m[2])), b.cross(edge, n, m[4], b.length(m[3]))})
		})
		return
	}
	if m := find(`^cut from mark to mark, each so far from the (\w+) edge and from the (\w+) edge: (.*)$`); m != nil {
		b.cuts = append(b.cuts, b.marks(m[1], m[2], m[3]))
		return
	}
	if m := find(`^cut out an opening: cut from mark to mark, each so far from the (\w+) edge and from the (\w+) edge: (.*)$`); m != nil {
		b.holes = append(b.holes, b.marks(m[1], m[2], m[3]))
		return
	}
	if m := find(`^round off the corner(?: at (.*))? with a radius of (.*), from (.*) to (.*)$`); m != nil {
		r, p, q := b.length(m[2]), b.point(m[3]), b.point(m[4])
		corner := pattern.Pt(p.X, q.Y)
		if m[1] != "" {
			corner = b.point(m[1])
		} else if onEdge := func(x, far float64) bool { return min(x, far-x) < 0.05 }; !onEdge(corner.X, b.w) || !onEdge(corner.Y, b.h) {
			corner = pattern.Pt(q.X, p.Y) // the blank's own
		}
		if math.Abs(p.Sub(corner).Len()-r) > 0.4 || math.Abs(q.Sub(corner).Len()-r) > 0.4 {
			panic(fmt.Sprintf("the radius is not the distance to the corner: %q", s))
		}
		b.cuts = append(b.cuts, arcAbout(p.Add(q).Sub(corner), p, q))
		return
	}
	if m := find(`^punch or cut a half-round notch (.*) wide into the (\w+) edge, its middle (.*) from the (\w+) edge$`); m != nil {
		mid, r := b.cross(m[2], 0, m[4], b.length(m[3])), b.length(m[1])/2
		var path []pattern.Point
		for _, q := range circle(mid, r) {
			if q.X > -1e-6 && q.X < b.w+1e-6 && q.Y > -1e-6 && q.Y < b.h+1e-6 {
				path = append(path, q)
			}
		}
		for i := 1; i < len(path); i++ { // neighbours only
			if path[i].Sub(path[i-1]).Len() < r/4 {
				b.cuts = append(b.cuts, path[i-1:i+1])
			}
		}
		b.cuts = append(b.cuts, []pattern.Point{path[0], path[len(path)-1]})
		if path[0].Sub(path[len(path)-1]).Len() > r/4 {
			b.cuts = b.cuts[:len(b.cuts)-1]
		}
		return
	}
	if m := find(`^cut (?:a slot|\d+ slots) (.*) wide and (.*) deep into the (\w+) edge, (?:its middle|their middles) (.*) from the (\w+) edge$`); m != nil {
		half, deep := b.length(m[1])/2, b.length(m[2])
		for _, n := range b.lengths(m[4]) {
			b.cuts = append(b.cuts, []pattern.Point{
				b.cross(m[3], 0, m[5], n-half), b.cross(m[3], deep, m[5], n-half), b.cross(m[3], deep, m[5], n+half), b.cross(m[3], 0, m[5], n+half),
			})
		}
		return
	}
	if m := find(`^cut a round hole (.*) across, its middle (.*) from the (\w+) edge and (.*) from the (\w+) edge$`); m != nil {
		b.holes = append(b.holes, circle(b.cross(m[3], b.length(m[2]), m[5], b.length(m[4])), b.length(m[1])/2))
		return
	}
	if m := find(`^cut a hole (.*) wide and (.*) high, its middle (.*) from the (\w+) edge and (.*) from the (\w+) edge$`); m != nil {
		b.holes = append(b.holes, box(b.cross(m[4], b.length(m[3]), m[6], b.length(m[5])), b.length(m[1]), b.length(m[2])))
		return
	}
	if m := find(`^cut an? (oval|round-ended) hole (.*) wide and (.*) high, its middle (.*) from the (\w+) edge and (.*) from the (\w+) edge$`); m != nil {
		mid, a, b2 := b.cross(m[5], b.length(m[4]), m[7], b.length(m[6])), b.length(m[2])/2, b.length(m[3])/2
		var loop []pattern.Point
		for i := range 360 {
			sin, cos := math.Sincos(float64(i) * math.Pi / 180)
			at, r := pattern.Pt(a*cos, b2*sin), min(a, b2)
			if m[1] != "oval" { // half circles about two points of the longer middle line
				at = pattern.Pt(math.Copysign(a-r, cos)+r*cos, math.Copysign(b2-r, sin)+r*sin)
			}
			loop = append(loop, mid.Add(at))
		}
		b.holes = append(b.holes, loop)
		return
	}
	if m := find(`^cut \d+ (round holes (.*) across|holes (.*) wide and (.*) high), their middles where the lines (.*) from the (\w+) edge cross those (.*) from the (\w+) edge$`); m != nil {
		for _, x := range b.lengths(m[5]) {
			for _, y := range b.lengths(m[7]) {
				if mid := b.cross(m[6], x, m[8], y); m[2] != "" {
					b.holes = append(b.holes, circle(mid, b.length(m[2])/2))
				} else {
					b.holes = append(b.holes, box(mid, b.length(m[3]), b.length(m[4])))
				}
			}
		}
		return
	}
	if m := find(`^take off (\d+) wedges?, (.*) wide (at|(.*) from) the (.*?) edges? and nothing (at|(.*) from) the .*? edges?: along (.*)$`); m != nil {
		b.wedge(m)
		return
	}
	if find(`^what falls away: (?:\d+ (?:piece|scrap)s? (?:of|out of) .*)+$`) != nil {
		return // the cuts themselves say it
	}
	panic(fmt.Sprintf("cannot read %q", s))
}

// onLine holds that what is called a score was scored.
func (b *blind) onLine(kind, edge string, far float64) {
	if kind != "score" {
		return
	}
	up, at := b.at(edge, far)
	if !slices.ContainsFunc(b.scores, func(s pattern.Segment) bool {
		if up {
			return math.Abs(s.A.X-at) < 0.05 && math.Abs(s.B.X-at) < 0.05
		}
		return math.Abs(s.A.Y-at) < 0.05 && math.Abs(s.B.Y-at) < 0.05
	}) && len(b.scores) > 0 {
		panic(fmt.Sprintf("no score was made %v mm from the %s edge", far, edge))
	}
}

func (b *blind) fromEdges(m []string) {
	deep := m[6]
	if m[4] != "" {
		deep = m[5]
	}
	d := b.length(deep)
	for _, edge := range m[1:3] {
		if edge == "" {
			continue
		}
		b.lines(m[3], func(line string, n float64) {
			from, to := b.cross(line, n, edge, 0), b.cross(line, n, edge, d)
			b.cuts = append(b.cuts, []pattern.Point{from, to})
			if m[4] != "" && len(b.scores) > 0 {
				b.crossing(m[4], from, to)
			}
		})
	}
}

// lines reads lines by their numbers: "the scores 1 and 2 in from the top edge
// and the score 1 in from the bottom edge".
func (b *blind) lines(text string, each func(edge string, far float64)) {
	for i, part := range compiled(` and the (?:score|line)`).Split(text, -1) {
		if i > 0 {
			part = "the score" + part
			if !strings.Contains(text, " and the score") {
				part = "the line" + strings.TrimPrefix(part, "the score")
			}
		}
		m := b.must(`^the (score|line)s? (.*) from the (\w+) edge$`, part)
		for _, n := range b.lengths(m[2]) {
			b.onLine(m[1], m[3], n)
			each(m[3], n)
		}
	}
}

// crossing holds that a cut ends on the scored line that was counted.
func (b *blind) crossing(which string, from, to pattern.Point) {
	d := to.Sub(from)
	u := d.Scale(1 / d.Len())
	var at []float64
	for _, s := range b.scores {
		e := s.B.Sub(s.A)
		if math.Abs(e.Dot(u)) > 1e-6*e.Len() {
			continue
		}
		near := s.A.Sub(from).Dot(u)
		lo, hi := pattern.Bounds([]pattern.Point{s.A, s.B})
		foot := from.Add(u.Scale(near))
		if near > 0.1 && foot.X > lo.X-0.3 && foot.X < hi.X+0.3 && foot.Y > lo.Y-0.3 && foot.Y < hi.Y+0.3 {
			at = append(at, near)
		}
	}
	slices.Sort(at)
	at = slices.CompactFunc(at, func(x, y float64) bool { return math.Abs(x-y) < 0.05 })
	n := slices.Index([]string{"first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth"}, which)
	if n < 0 || n >= len(at) || math.Abs(at[n]-d.Len()) > 0.05 {
		panic(fmt.Sprintf("the %s crossing is not %.2f mm in; they are at %.2f", which, d.Len(), at))
	}
}

func (b *blind) marks(side, end, text string) []pattern.Point {
	var path []pattern.Point
	for _, mark := range strings.Split(text, "; ") {
		x, y, _ := strings.Cut(mark, " and ")
		path = append(path, b.cross(side, b.length(x), end, b.length(y)))
	}
	return path
}

// wedge reads one sentence of wedges: at every edge named, along every line.
func (b *blind) wedge(m []string) {
	wide, full, none := b.length(m[2]), 0.0, 0.0
	if m[4] != "" {
		full = b.length(m[4])
	}
	if m[7] != "" {
		none = b.length(m[7])
	}
	count := 0
	for _, edge := range strings.Split(m[5], " and ") {
		for _, clause := range strings.Split(m[8], "; along ") {
			one := func(line string, far float64, side float64) {
				count++
				up, _ := b.at(line, far)
				full, none := b.cross(line, far, edge, full), b.cross(line, far, edge, none)
				off := pattern.Pt(0, side*wide)
				if up {
					off = pattern.Pt(side*wide, 0)
				}
				b.cuts = append(b.cuts, []pattern.Point{none, full.Add(off)})
			}
			if e := compiled(`^the ([a-z ]+) edges?$`).FindStringSubmatch(clause); e != nil {
				for _, line := range strings.Split(e[1], " and ") {
					one(line, 0, map[string]float64{"left": 1, "top": 1, "right": -1, "bottom": -1}[line])
				}
				continue
			}
			e := b.must(`^(?:the (upper|lower|left|right) side|(both) sides) of (the .* edge)$`, clause)
			b.lines(e[3], func(line string, n float64) {
				if e[1] == "lower" || e[1] == "right" || e[2] != "" {
					one(line, n, 1)
				}
				if e[1] == "upper" || e[1] == "left" || e[2] != "" {
					one(line, n, -1)
				}
			})
		}
	}
	if fmt.Sprint(count) != m[1] {
		panic(fmt.Sprintf("%s wedges are told and %d described", m[1], count))
	}
}
