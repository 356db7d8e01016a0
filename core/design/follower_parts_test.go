package design

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

// What phrases name on a card, and how parts are stuck.

// floor is where the middle of a card lies between its scores.
func floor(c *hand.Card) (left, right, top, foot float64) {
	across, down := c.Grid()
	i, k := len(across)/2-1, len(down)/2-1
	return across[i], across[i+1], down[k], down[k+1]
}

// strips hang on the walls at the edge, tabs beside them: of a card with four walls.
func strips(c *hand.Card) []hand.Hung {
	l, r, t, b := floor(c)
	return slices.DeleteFunc(c.Hanging(), func(h hand.Hung) bool {
		return (h.At.X < l || h.At.X > r) && (h.At.Y < t || h.At.Y > b)
	})
}

func tabs(c *hand.Card) []hand.Hung {
	l, r, t, b := floor(c)
	return slices.DeleteFunc(c.Hanging(), func(h hand.Hung) bool {
		return (h.At.X > l && h.At.X < r) || (h.At.Y > t && h.At.Y < b)
	})
}

func places(hung []hand.Hung) []pattern.Point {
	var out []pattern.Point
	for _, h := range hung {
		out = append(out, h.At)
	}
	return out
}

// cut is what a hand cuts and marks to.
func (x *follower) cut() measure.Tick {
	if x.unit == measure.In {
		return measure.In.Tick()
	}
	return measure.MM.Ruler()
}

// dust cuts the cells above two panels down to flaps.
func (x *follower) dust(c *hand.Card, f recipe.Fields) hand.Move {
	across, down := c.Grid()
	leave := x.length(f["leave"]).MM()
	var m hand.Snip
	for _, n := range numbersIn(f["panels"]) {
		y := down[2] - leave
		m.Cuts = append(m.Cuts, pattern.Segment{A: pattern.Pt(across[n-1], y), B: pattern.Pt(across[n], y)})
		m.Off = append(m.Off, cellAt(c, n-1, 0))
		if y > down[1]+hand.Close {
			m.Off = append(m.Off, pattern.Pt((across[n-1]+across[n])/2, (down[1]+y)/2))
		}
	}
	return m
}

func numbersIn(said string) []int {
	var out []int
	for _, m := range compiled(`\d+`).FindAllString(said, -1) {
		var n int
		fmt.Sscan(m, &n)
		out = append(out, n)
	}
	return out
}

// flap shapes the last row of three columns.
func (x *follower) flap(c *hand.Card, key string, f recipe.Fields) hand.Move {
	across, down := c.Grid()
	left, right, foot := 0.0, c.Width.MM(), down[len(down)-1]
	if len(across) > 3 {
		left, right = across[1], across[2]
	}
	at := x.length(f["at"]).MM()
	if key == "round-flap" {
		const quarter = 0.41421356237309503
		return hand.Bite{Loops: []pattern.Loop{
			{{Point: pattern.Pt(right, foot-at), Bulge: quarter}, {Point: pattern.Pt(right-at, foot)}, {Point: pattern.Pt(right, foot)}},
			{{Point: pattern.Pt(left+at, foot), Bulge: quarter}, {Point: pattern.Pt(left, foot-at)}, {Point: pattern.Pt(left, foot)}},
		}}
	}
	from, mid := down[len(down)-2]+at, pattern.Pt((left+right)/2, foot)
	return hand.Snip{
		Cuts: []pattern.Segment{{A: pattern.Pt(left, from), B: mid}, {A: pattern.Pt(right, from), B: mid}},
		Off:  []pattern.Point{pattern.Pt(left+0.1, foot-0.05), pattern.Pt(right-0.1, foot-0.05)},
	}
}

// holes cuts holes about the marks made last.
func (x *follower) holes(key string, f recipe.Fields) hand.Move {
	var m hand.Bite
	wide := x.length(f["across"]).MM() / 2
	high := wide
	if f["shim"] != "" {
		high = x.length(f["shim"]).MM() / 2
	}
	for _, at := range x.marks {
		if key == "holes-round" {
			m.Loops = append(m.Loops, pattern.Circle(at, wide))
			continue
		}
		m.Loops = append(m.Loops, pattern.Straight(at.Add(pattern.Pt(-wide, -high)), at.Add(pattern.Pt(wide, -high)), at.Add(pattern.Pt(wide, high)), at.Add(pattern.Pt(-wide, high))))
	}
	return m
}

// level are the rows that lie when the box stands: what hangs beside them is a wall.
var level = []string{"base", "lid", "top"}

// sides hang beside rows, in order: of a card with names for its rows, those of the rows named.
func (x *follower) sides(c *hand.Card, names ...string) []hand.Hung {
	_, down := c.Grid()
	var out []hand.Hung
	for _, name := range names {
		row := x.row(c, name)
		for _, h := range c.Hanging() {
			if h.At.Y > down[row] && h.At.Y < down[row+1] && (h.On.X < h.At.X || h.On.X > h.At.X) && h.On.Y > down[row] && h.On.Y < down[row+1] {
				out = append(out, h)
			}
		}
	}
	return out
}

// parts seeks what a phrase names.
func (x *follower) parts(c *hand.Card, said string) hand.Parts {
	if said == recipe.English.Say("parts.end-strip", nil) || said == recipe.English.Say("parts.end-tab", nil) {
		return hand.Parts{At: places(c.Hanging())}
	}
	if said == recipe.English.Say("parts.dust-and-tongue", nil) {
		_, down := c.Grid()
		var all []hand.Hung
		for _, h := range c.Hanging() {
			if h.At.Y < down[2] {
				all = append(all, h)
			}
		}
		return hand.Parts{At: places(all)}
	}
	var all []hand.Hung
	key, f := phrase(said)
	switch key {
	case "parts-of", "parts-of-many":
		owners := f["owners"] + f["owner"]
		var names []string
		for _, o := range compiled(` and the |, the `).Split(strings.TrimPrefix(owners, "the "), -1) {
			names = append(names, word("name.", strings.TrimSuffix(o, "'s")))
		}
		all = x.sides(c, names...)
	default:
		all = x.many(c, noun(f["nouns"]))
	}
	if n := f["count"]; n != "" && number(n) != len(all) {
		panic(fmt.Sprintf("%s, but there are %d", said, len(all)))
	}
	return hand.Parts{At: places(all)}
}

// phrase reads how parts are named: the most exact first.
func phrase(said string) (key string, f recipe.Fields) {
	for _, family := range []string{"parts-of-many", "parts-many", "parts-of", "parts"} {
		if f, found := recipe.English.ReadAs(family, said); found {
			return family, f
		}
	}
	panic(fmt.Sprintf("what are %q?", said))
}

// many are all parts of a card that a noun stands for.
func (x *follower) many(c *hand.Card, noun string) []hand.Hung {
	l, r, _, _ := floor(c)
	across, down := c.Grid()
	words := c.Names().Words
	switch noun {
	case "tab-at-sides":
		return slices.DeleteFunc(tabs(c), func(h hand.Hung) bool { return h.On.X > l && h.On.X < r })
	case "tab-at-ends":
		return slices.DeleteFunc(tabs(c), func(h hand.Hung) bool { return h.On.X < l || h.On.X > r })
	case "bottom-flap":
		return slices.DeleteFunc(c.Hanging(), func(h hand.Hung) bool { return h.At.Y < down[len(down)-2] })
	case "dust-flap":
		for _, row := range []int{2, 1} { // below the walls, or above them
			found := slices.DeleteFunc(c.Hanging(), func(h hand.Hung) bool {
				return h.At.Y < down[row] || h.At.Y > down[row+1] || h.At.X > across[len(across)-2]
			})
			if len(found) > 0 {
				return found
			}
		}
	case "tongue":
		return slices.DeleteFunc(c.Hanging(), func(h hand.Hung) bool { return h.At.Y > down[1] })
	case "flap":
		return slices.DeleteFunc(c.Hanging(), func(h hand.Hung) bool {
			return h.At.Y < down[x.row(c, "flap")] || h.At.Y > down[x.row(c, "flap")+1] || h.At.X < across[1] || h.At.X > across[2]
		})
	}
	switch {
	case c.Names().Panels: // the tab is the last panel
		return slices.DeleteFunc(c.Hanging(), func(h hand.Hung) bool {
			if c.Names().Across {
				return h.At.X < across[len(across)-2]
			}
			return h.At.Y < down[len(down)-2]
		})
	case words != nil && noun == "square": // on the walls of the base, of that row's own height
		base := x.row(c, "base")
		return slices.DeleteFunc(c.Hanging(), func(h hand.Hung) bool {
			return h.On.Y < down[base] || h.On.Y > down[base+1] || h.At.Y > down[base] && h.At.Y < down[base+1] || h.At.X > across[1] && h.At.X < across[2]
		})
	case words != nil && noun == "side-wing":
		return x.sides(c, "front", "bottom", "back")
	case words != nil:
		// Of rows that stand, the tabs; beside rows that lie, walls hang.
		var names []string
		for _, name := range words {
			if !slices.Contains(level, name) {
				names = append(names, name)
			}
		}
		return x.sides(c, names...)
	}
	return tabs(c)
}

// noun finds which noun several are called by.
func noun(said string) string {
	for _, key := range []string{"corner-tab", "tab", "tab-at-sides", "tab-at-ends", "square", "wing", "side-wing", "side-wall", "flap", "bottom-flap", "dust-flap", "tongue"} {
		if recipe.English.Noun(key, 2) == said || recipe.English.Noun(key, 1) == said {
			return key
		}
	}
	panic(fmt.Sprintf("what are %q?", said))
}

func (x *follower) stick(c *hand.Card, way string, f recipe.Fields) hand.Move {
	m := hand.Stick{Way: hand.Way(way), Outside: way != "roll-over"}
	across, down := c.Grid()
	beside := func(h hand.Hung, among []hand.Hung) pattern.Point { // what meets it at its fold
		for _, p := range h.Touches {
			if i := slices.IndexFunc(among, func(o hand.Hung) bool { return o.At == p }); i >= 0 {
				return p
			}
		}
		panic(fmt.Sprintf("nothing lies beside (%.1f, %.1f) for it", h.At.X, h.At.Y))
	}
	onto := func(among []hand.Hung) {
		for _, at := range m.What.At {
			for _, h := range c.Hanging() {
				if h.At == at {
					m.Onto.At = append(m.Onto.At, beside(h, among))
				}
			}
		}
	}
	switch m.Way {
	case hand.WallsUp, hand.InTurn:
		if x.templates[c.ID] != nil {
			x.traced(c, "tab.", "wall.", func(i, n int) int { return (i + n - 1) % n }, func(a, b pattern.Point) {
				m.What.At, m.Onto.At = append(m.What.At, a), append(m.Onto.At, b)
			})
			break
		}
		m.What = x.parts(c, f["parts"])
		if c.Names().Words != nil {
			onto(x.sides(c, "base"))
			break
		}
		l, r, t, b := floor(c)
		off := func(p pattern.Point) float64 { return max(l-p.X, p.X-r, t-p.Y, p.Y-b) }
		for _, h := range tabs(c) {
			// The wall beside it, not another tab nor what hangs on the wall.
			walls := slices.DeleteFunc(h.Touches, func(on pattern.Point) bool { return (on.X > l && on.X < r) == (on.Y > t && on.Y < b) })
			wall := slices.MinFunc(walls, func(p, q pattern.Point) int { return cmp.Compare(off(p), off(q)) })
			// A notch may reach to its middle: a little nearer to the floor.
			in := pattern.Pt((l+r)/2, (t+b)/2).Sub(wall)
			m.Onto.At = append(m.Onto.At, wall.Add(in.Scale(1/in.Len())))
		}
	case hand.Over:
		for _, h := range strips(c) {
			m.What.At, m.Onto.At = append(m.What.At, h.At), append(m.Onto.At, h.On)
		}
	case hand.EndsFirst:
		m.What = x.parts(c, f["parts"])
		mid := (across[1] + across[2]) / 2
		for _, at := range m.What.At { // back or front, whichever row it stands in
			m.Onto.At = append(m.Onto.At, pattern.Pt(mid, at.Y))
		}
	case hand.Inside, hand.StandInside, hand.StandOver, hand.StandUnder:
		if x.facets.near > 0 {
			return x.stickOdd(c, m, f)
		}
		m.What = x.parts(c, f["parts"])
		var among []hand.Hung
		key, g := phrase(f["onto"])
		if key != "parts-of" {
			panic("inside what? " + f["onto"])
		}
		for _, o := range compiled(` and the |, the `).Split(strings.TrimPrefix(g["owners"], "the "), -1) {
			among = append(among, x.sides(c, word("name.", strings.TrimSuffix(o, "'s")))...)
		}
		if m.Way == hand.StandOver {
			m.Outside, m.OntoOutside = false, true
		}
		if m.Way == hand.Inside {
			onto(among)
			break
		}
		for _, at := range m.What.At { // left onto left, right onto right
			i := slices.IndexFunc(among, func(h hand.Hung) bool { return (h.At.X < c.Width.MM()/2) == (at.X < c.Width.MM()/2) })
			m.Onto.At = append(m.Onto.At, among[i].At)
		}
	case hand.Tube, hand.Around:
		if x.templates[c.ID] != nil { // cut round its template: beside the walls, the last row but one
			last, rows := len(across)-2, len(down)
			y := (down[rows-3] + down[rows-2]) / 2
			m.What.At = []pattern.Point{pattern.Pt((across[last]+c.Width.MM())/2, y)}
			m.Onto.At = []pattern.Point{pattern.Pt(across[1]/2, y)}
			break
		}
		m.What = hand.Parts{At: places(x.many(c, "tab"))}
		m.Onto.At = []pattern.Point{pattern.Pt(c.Width.MM()/2, down[1]/2)}
		if c.Names().Across { // the panel is between the first and the last cross score
			m.Onto.At[0] = pattern.Pt(across[1]/2, m.What.At[0].Y)
		}
	case hand.AroundOver:
		m.Outside, m.OntoOutside = false, true
		mid := c.Width.MM() / 2
		m.What.At, m.Onto.At = []pattern.Point{pattern.Pt(mid, (down[4]+down[5])/2)}, []pattern.Point{pattern.Pt(mid, down[1]/2)}
	case hand.Foot:
		m.Outside, m.OntoOutside = false, true
		in := numbersIn(f["panels"])
		all := x.many(c, "bottom-flap")
		slices.SortFunc(all, func(a, b hand.Hung) int { return cmp.Compare(a.At.X, b.At.X) })
		for i, h := range all {
			if slices.Contains(in, i+1) {
				continue
			}
			for _, n := range in {
				m.What.At, m.Onto.At = append(m.What.At, h.At), append(m.Onto.At, all[n-1].At)
			}
		}
	default:
		return x.stickOdd(c, m, f)
	}
	return m
}

// off is what a sentence cuts off.
func (x *follower) off(c *hand.Card, key string, f recipe.Fields) hand.Move {
	right, foot := columns(c)-1, rows(c)-1
	var m hand.CutOff
	cell := func(col, row int) { m.What.At = append(m.What.At, cellAt(c, col, row)) }
	corners := func(col, row int) { // the same from each corner
		cell(col, row)
		cell(right-col, row)
		cell(col, foot-row)
		cell(right-col, foot-row)
	}
	switch key {
	case "off-three-of-four":
		corners(0, 0)
		corners(1, 0)
		corners(0, 1)
	case "off-corners", "off-corners-square":
		w, h, _ := strings.Cut(f["size"], " × ")
		if f["square"] != "" {
			w, h = f["square"], f["square"]
		}
		across, down := c.Grid()
		for col := 0; across[col] < x.length(w).MM()-hand.Close; col++ {
			for row := 0; down[row] < x.length(h).MM()-hand.Close; row++ {
				corners(col, row)
			}
		}
	case "off-beside", "off-fallen":
		for _, name := range compiled(`, | and `).Split(f["names"], -1) {
			row := x.row(c, word("name.", name))
			cell(0, row)
			cell(right, row)
		}
	case "off-corners-open":
		corners(0, 0)
	case "off-gable":
		cell(right, foot)
	case "off-ridge":
		cell(right, 0)
		cell(right, foot)
	case "off-tab-foot":
		cell(right, foot)
	case "off-dispenser":
		// Below the second crossing: all but both of panel 1 and the upper ones of 2 and 4.
		for col := range right {
			for row := 2; row <= foot; row++ {
				if col > 0 && !((col == 1 || col == 3) && row == 2) {
					cell(col, row)
				}
			}
		}
		for _, row := range []int{0, 2, 3} {
			cell(right, row)
		}
	case "off-tube-ends":
		empty := panel(f["empty"])
		cell(empty-1, 0)
		cell(empty-1, 1)
		cell(right, 0)
		cell(right, 1)
		cell(right, foot)
	}
	return m
}
