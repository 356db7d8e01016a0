package recipe

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/pattern"
	"brevium/core/style"
)

// Snip is lines that are cut alike, told in one sentence.
type Snip struct {
	Hand  Hand
	Lines []Line
	Text  string
	inner bool // a slit that meets no edge of the blank
}

// Cuts tells every cut of a piece in words, outside up: openings first, then
// what is cut along straight lines, slantwise, round and to a taper. Cuts that
// are alike are one sentence: along several lines from one or two edges, from
// several corners counted from the edges that meet there, or the same from
// every edge while the card is turned. Of those that say a cut the one that
// says most is taken.
func (l ScoreList) Cuts(t Telling) []Snip {
	c := cutter{Telling: t, w: l.pattern.Width.MM(), h: l.pattern.Height.MM(), right: l.fence == Right, each: l.each}
	all := strokes(l.pattern, l.Lines)
	told := make([]bool, len(all))
	type choice struct {
		first int
		snip  Snip
	}
	var out []choice
	offers := slices.Concat(c.inRows(all), c.byCorner(all), c.byTurning(all))
	for {
		best, most := -1, 0
		for i, o := range offers {
			n := 0
			for _, k := range o.strokes {
				if !told[k] {
					n++
				}
			}
			if n > most {
				best, most = i, n
			}
		}
		if best < 0 {
			break
		}
		var left []int
		for _, k := range offers[best].strokes {
			if !told[k] {
				left = append(left, k)
			}
		}
		text, said := offers[best].say(left)
		snip := Snip{Hand: all[said[0]].hand(), Text: text}
		for _, k := range said {
			told[k] = true
			snip.Lines = append(snip.Lines, all[k].lines...)
		}
		snip.inner = snip.Hand == Slit && !slices.ContainsFunc(said, func(k int) bool {
			lo, hi := pattern.Bounds(all[k].points())
			return min(lo.X, lo.Y, c.w-hi.X, c.h-hi.Y) < Straight
		})
		out = append(out, choice{int(rank[all[said[0]].shape])*len(all) + slices.Min(said), snip})
	}
	slices.SortStableFunc(out, func(a, b choice) int { return cmp.Compare(a.first, b.first) })
	snips := make([]Snip, len(out))
	for i, o := range out {
		snips[i] = o.snip
	}
	return snips
}

// rank is the order in which shapes are cut.
var rank = map[shape]int{hole: 0, slot: 1, notch: 2, along: 3, marks: 4, curve: 5, round: 6, taper: 7}

// hand is what cuts a stroke.
func (x stroke) hand() Hand {
	switch x.shape {
	case hole:
		return Hole
	case slot:
		return Slot
	case notch:
		return Notch
	}
	for _, l := range x.lines {
		if l.Hand == Trim {
			return Trim
		}
	}
	return Slit
}

// before reports whether a cut is made before the piece is folded: what a
// folded edge would be in the way of.
func (s Snip) before() bool { return s.inner || s.Hand == Hole || s.Hand == Slot || s.Hand == Notch }

// offer is one sentence that could be told of some strokes. say writes it for
// those not told yet, and says which of them it covers.
type offer struct {
	strokes []int
	say     func(of []int) (text string, said []int)
}

// cutter tells the cuts of one blank, w × h mm. Numbers across are counted
// from the right edge when the board's fence is there.
type cutter struct {
	Telling
	w, h  float64
	right bool
	each  bool // every edge went to the fence: numbers count from the nearer one
}

// grouped offers a sentence for every set of strokes with the same key.
func grouped(all []stroke, key func(int, stroke) []string, say func(key string, of []int) string) []offer {
	sets := map[string][]int{}
	var order []string
	for i, s := range all {
		for _, k := range key(i, s) {
			if sets[k] == nil {
				order = append(order, k)
			}
			sets[k] = append(sets[k], i)
		}
	}
	var out []offer
	for _, k := range order {
		out = append(out, offer{sets[k], func(of []int) (string, []int) { return say(k, of), of }})
	}
	return out
}

// corners are the four, and the edges that meet at each.
var corners = []struct{ name, side, end string }{
	{"upper left", "left edge", "top edge"},
	{"upper right", "right edge", "top edge"},
	{"lower left", "left edge", "bottom edge"},
	{"lower right", "right edge", "bottom edge"},
}

// view is how one corner, or the card when it is turned, sees a point.
type view func(pattern.Point) pattern.Point

func (c cutter) fromCorner(n int) view {
	return func(q pattern.Point) pattern.Point {
		if n&1 != 0 {
			q.X = c.w - q.X
		}
		if n&2 != 0 {
			q.Y = c.h - q.Y
		}
		return q
	}
}

// nearest is the corner that a stroke is told from.
func (c cutter) nearest(s stroke) int {
	lo, hi := pattern.Bounds(s.points())
	n := 0
	if lo.X+hi.X > c.w+Straight {
		n |= 1
	}
	if lo.Y+hi.Y > c.h+Straight {
		n |= 2
	}
	return n
}

func (s stroke) points() []pattern.Point {
	if len(s.path) > 0 {
		return s.path.Open()
	}
	return []pattern.Point{s.a, s.b}
}

// byCorner offers what is the same from several corners.
func (c cutter) byCorner(all []stroke) []offer {
	at := make([]int, len(all))
	for i, s := range all {
		at[i] = c.nearest(s)
	}
	return grouped(all, func(i int, s stroke) []string {
		if s.shape == taper { // told along their lines, however many
			return nil
		}
		return []string{c.phrase(s, c.fromCorner(at[i]))}
	}, func(key string, of []int) string {
		names := map[int]bool{}
		for _, k := range of {
			names[at[k]] = true
		}
		return c.fill(key, names, all[of[0]].shape != notch)
	})
}

// fill puts the edges of the given corners into a phrase. A notch is not at a corner: with
// another of its kind it is in the edge opposite too.
func (c cutter) fill(phrase string, at map[int]bool, corner bool) string {
	var list []string
	side, end := map[string]bool{}, map[string]bool{}
	for k, corner := range corners {
		if at[k] {
			list = append(list, corner.name)
			side[corner.side], end[corner.end] = true, true
		}
	}
	words := func(of map[string]bool, both string) string {
		if len(of) > 1 {
			return both
		}
		for k := range of {
			return k
		}
		return both
	}
	s, e := words(side, "left or right edge"), words(end, "top or bottom edge")
	if !corner && len(list) == 2 && len(side)+len(end) == 3 {
		s, e = words(side, "left and the right edge"), words(end, "top and the bottom edge")
		return capital(strings.NewReplacer("{side}", s, "{end}", e).Replace(phrase)) + "."
	}
	text := strings.NewReplacer("{side}", s, "{end}", e).Replace(phrase)
	lead := ""
	switch {
	case len(list) == 4:
		lead = "at each of the four corners, "
	case len(list) == 2 && len(end) == 1:
		lead = "at both " + strings.TrimSuffix(e, " edge") + " corners, "
	case len(list) == 2 && len(side) == 1:
		lead = "at both " + strings.TrimSuffix(s, " edge") + " corners, "
	case len(list) > 1:
		lead = "at the " + style.And(list) + " corners, "
	}
	return capital(lead+text) + "."
}

// turned sees the card with another of its edges at the top: the right one,
// the bottom one or the left one after so many quarter turns.
func (c cutter) turned(n int) view {
	return func(q pattern.Point) pattern.Point {
		switch n {
		case 1:
			return pattern.Pt(q.Y, c.w-q.X)
		case 2:
			return pattern.Pt(c.w-q.X, c.h-q.Y)
		case 3:
			return pattern.Pt(c.h-q.Y, q.X)
		}
		return q
	}
}

// byTurning offers what is the same on one hand with every edge at the top.
func (c cutter) byTurning(all []stroke) []offer {
	var out []offer
	for _, o := range grouped(all, func(_ int, s stroke) []string {
		var keys []string
		for n := range 4 {
			// Always told at the left end of the edge that is at the top.
			v := c.turned(n)
			lo, hi := pattern.Bounds([]pattern.Point{v(s.a), v(s.b)})
			wide, high := c.w, c.h
			if n%2 == 1 {
				wide, high = high, wide
			}
			if s.shape != taper && len(s.path) == 0 && lo.X+hi.X < wide && lo.Y+hi.Y < high {
				keys = append(keys, c.phrase(s, v))
			}
		}
		return keys
	}, func(key string, _ []int) string {
		return "With each of the four edges in turn at the top, " + strings.NewReplacer("{side}", "left edge", "{end}", "top edge").Replace(key) + "."
	}) {
		if len(o.strokes) == 4 { // once with each edge, or not at all
			whole := o.say
			o.say = func(of []int) (string, []int) {
				if len(of) < 4 {
					return c.fill(c.phrase(all[of[0]], c.fromCorner(c.nearest(all[of[0]]))), map[int]bool{c.nearest(all[of[0]]): true}, true), of[:1]
				}
				return whole(of)
			}
			out = append(out, o)
		}
	}
	return out
}

// phrase tells one stroke as a view sees it, {side} and {end} standing for the
// edges that its numbers are counted from.
func (c cutter) phrase(s stroke, v view) string {
	a, b, foot := v(s.a), v(s.b), v(s.foot)
	switch s.shape {
	case along:
		return c.alongPhrase(s, a, b)
	case round:
		a, b = inOrder(a, b)
		if foot.X < Straight && foot.Y < Straight { // the blank's own
			return fmt.Sprintf("round off the corner with a radius of %s, from %s to %s", c.mm(a.Sub(foot).Len()), c.place(a), c.place(b))
		}
		return fmt.Sprintf("round off the corner at %s with a radius of %s, from %s to %s",
			c.place(foot), c.mm(a.Sub(foot).Len()), c.place(a), c.place(b))
	case curve:
		flat := s.path.Open()
		a, b = inOrder(a, b)
		return fmt.Sprintf("cut in a curve from %s through %s to %s", c.place(a), c.place(v(flat[len(flat)/2])), c.place(b))
	case notch:
		p, q := v(s.path[0].Point), v(s.path[1].Point)
		mid := p.Add(q).Scale(0.5)
		edge, at, from := "{end}", mid.X, "{side}"
		if p.Sub(q).Y*p.Sub(q).Y > p.Sub(q).X*p.Sub(q).X {
			edge, at, from = "{side}", mid.Y, "{end}"
		}
		return fmt.Sprintf("punch or cut a half-round notch %s wide into the %s, its middle %s from the %s", c.mm(p.Sub(q).Len()), edge, c.mm(at), from)
	case hole:
		return c.holePhrase(s, v)
	case slot:
		m := c.slotAt(s, v)
		return fmt.Sprintf("cut a slot %s wide and %s deep into the %s, its middle %s from the %s", c.mm(m.wide), c.mm(m.deep), m.edge, c.mm(m.at), m.from)
	}
	return c.marksPhrase(s.path, v)
}

// marksPhrase tells a path from mark to mark, always from the end that is
// nearer to the edge at the top.
func (c cutter) marksPhrase(path pattern.Loop, v view) string {
	points := path.Open()
	for i := range points {
		points[i] = v(points[i])
	}
	if first, _ := inOrder(points[0], points[len(points)-1]); first != points[0] {
		slices.Reverse(points)
	}
	var at []string
	for _, q := range points {
		at = append(at, c.mm(q.X)+" and "+c.mm(q.Y))
	}
	return "cut from mark to mark, each so far from the {side} and from the {end}: " + strings.Join(at, "; ")
}

func inOrder(a, b pattern.Point) (pattern.Point, pattern.Point) {
	if b.Y < a.Y-Straight || b.Y < a.Y+Straight && b.X < a.X {
		return b, a
	}
	return a, b
}

// place tells a point by its distances from the two edges.
func (c cutter) place(q pattern.Point) string {
	switch {
	case q.X < Straight && q.Y < Straight:
		return "the corner"
	case q.X < Straight:
		return fmt.Sprintf("the {side} %s from the {end}", c.mm(q.Y))
	case q.Y < Straight:
		return fmt.Sprintf("the {end} %s from the {side}", c.mm(q.X))
	}
	return fmt.Sprintf("%s from the {side} and %s from the {end}", c.mm(q.X), c.mm(q.Y))
}

// kind names the line that a straight cut lies on.
func (s stroke) kind() string {
	if s.scored {
		return "score"
	}
	return "line"
}

// alongPhrase tells a straight cut: from an edge up to a crossing or a number,
// or between two numbers.
func (c cutter) alongPhrase(s stroke, a, b pattern.Point) string {
	up := a.X-b.X < Straight && b.X-a.X < Straight
	from, across := "{end}", "{side}"
	if !up {
		from, across = across, from
	}
	lo, hi := min(pick(a, up), pick(b, up)), max(pick(a, up), pick(b, up))
	line := fmt.Sprintf("the %s %s from the %s", s.kind(), c.mm(pick(a, !up)), across)
	if lo < Straight {
		return fmt.Sprintf("from the %s, cut along %s %s", from, line, c.upTo(s.crossings, hi))
	}
	return fmt.Sprintf("cut along %s, between %s and %s from the %s", line, c.mm(lo), c.mm(hi), from)
}

// upTo says how far a cut goes in from its edge.
func (c cutter) upTo(crossings int, deep float64) string {
	if crossings > 0 {
		return fmt.Sprintf("to the %s crossing (%s)", ordinal(crossings), c.mm(deep))
	}
	return "as far as " + c.mm(deep)
}

func ordinal(n int) string {
	words := []string{"first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth"}
	if n <= len(words) {
		return words[n-1]
	}
	return fmt.Sprint(n, "th")
}

// holePhrase tells an opening by its size and its middle, or by its corners.
func (c cutter) holePhrase(s stroke, v view) string {
	lo, hi := pattern.Bounds(s.path.Flat())
	p, q := v(lo), v(hi)
	mid, wide, high := p.Add(q).Scale(0.5), max(p.X-q.X, q.X-p.X), max(p.Y-q.Y, q.Y-p.Y)
	size, plain := c.holeSize(s.path, wide, high)
	if plain {
		article := "a"
		if strings.HasPrefix(size, "oval") {
			article = "an"
		}
		return fmt.Sprintf("cut %s %s, its middle %s from the {side} and %s from the {end}", article, size, c.mm(mid.X), c.mm(mid.Y))
	}
	return "cut out an opening: " + c.marksPhrase(append(slices.Clone(s.path), s.path[0]), v)
}

// ovalFrom is how many corners an opening has at least that stands for an oval.
const ovalFrom = 24

// holeSize names an opening that is round, oval, an upright rectangle, or one
// with round ends.
func (c cutter) holeSize(path pattern.Loop, wide, high float64) (string, bool) {
	straight := !slices.ContainsFunc(path, func(v pattern.Vertex) bool { return v.Bulge != 0 })
	area := pattern.Area(path.Flat())
	if area < 0 {
		area = -area
	}
	switch {
	case len(path) == 2 && path[0].Bulge == path[1].Bulge && (path[0].Bulge == 1 || path[0].Bulge == -1):
		return fmt.Sprintf("round hole %s across", c.mm(wide)), true
	case straight && len(path) == 4 && wide*high-area < Straight*(wide+high):
		return fmt.Sprintf("hole %s wide and %s high", c.mm(wide), c.mm(high)), true
	case straight && len(path) >= ovalFrom && math.Abs(area-math.Pi/4*wide*high) < area/100:
		return fmt.Sprintf("oval hole %s wide and %s high", c.mm(wide), c.mm(high)), true
	case len(path) == 4 && path[1].Bulge == 1 && path[3].Bulge == 1 && path[0].Bulge == 0 && path[2].Bulge == 0:
		return fmt.Sprintf("round-ended hole %s wide and %s high", c.mm(wide), c.mm(high)), true
	}
	return "", false
}

type slotAt struct {
	wide, deep, at float64
	edge, from     string
}

// slotAt measures a slot as a view sees it.
func (c cutter) slotAt(s stroke, v view) slotAt {
	a, b, d := v(s.path[0].Point), v(s.path[1].Point), v(s.path[3].Point)
	m := slotAt{wide: a.Sub(d).Len(), deep: a.Sub(b).Len(), edge: "{end}", from: "{side}", at: (a.X + d.X) / 2}
	if a.X-d.X < Straight && d.X-a.X < Straight {
		m.edge, m.from, m.at = "{side}", "{end}", (a.Y+d.Y)/2
	}
	return m
}
