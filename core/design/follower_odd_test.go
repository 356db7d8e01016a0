package design

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

// What is told in words of its own, sought on the card as it lies.

func seg(x1, y1, x2, y2 float64) pattern.Segment {
	return pattern.Segment{A: pattern.Pt(x1, y1), B: pattern.Pt(x2, y2)}
}

// mirror adds the mirror images of lines from top to bottom of a card.
func mirror(c *hand.Card, lines ...pattern.Segment) []pattern.Segment {
	h, out := c.Height.MM(), lines
	for _, l := range lines {
		out = append(out, seg(l.A.X, h-l.A.Y, l.B.X, h-l.B.Y))
	}
	return out
}

func mirrorPoints(c *hand.Card, points ...pattern.Point) []pattern.Point {
	out := points
	for _, p := range points {
		out = append(out, pattern.Pt(p.X, c.Height.MM()-p.Y))
	}
	return out
}

// round is a quarter circle about a corner, between two places on its edges, clockwise.
func round(x1, y1, x2, y2, x, y float64) pattern.Loop {
	return pattern.Loop{{Point: pattern.Pt(x1, y1), Bulge: 0.41421356237309503}, {Point: pattern.Pt(x2, y2)}, {Point: pattern.Pt(x, y)}}
}

// odd is the move of a sentence of one construction; nil where no hand knows it.
func (x *follower) odd(c *hand.Card, key string, f recipe.Fields) hand.Move {
	var w, h float64
	var across, down []float64
	if c != nil {
		w, h = c.Width.MM(), c.Height.MM()
		across, down = c.Grid()
	}
	mm := func(name string) float64 { return x.length(f[name]).MM() }
	switch key {
	case "gable-rows", "gable-marks", "ridge-rows", "ridge-marks", "middles", "weave-names", "facet-names", "arch-parts", "arch-parts-open", "arch-row", "arch-row-open", "template-round":
		return hand.Mark{}
	case "weave-tape":
		var m hand.LayTape
		end, tape := across[1], mm("at")
		for _, x := range []float64{0, w - end} {
			for _, y := range []float64{0, h - tape} {
				m.Strips = append(m.Strips, []pattern.Point{pattern.Pt(x, y), pattern.Pt(x+end, y), pattern.Pt(x+end, y+tape), pattern.Pt(x, y+tape)})
			}
		}
		return m
	case "gable-close", "gusset-points":
		return hand.Dry{}
	case "bend-arch", "bend-handle", "weave-bend", "top-stays":
		return hand.Bend{}
	case "clam-base-half", "clam-lid-half":
		from, to := 0.0, down[3]
		if key == "clam-lid-half" {
			from, to = down[3], h
		}
		at := mm("at")
		x.marks = append(x.marks[:0:0], append(x.marks, pattern.Pt(at, 0))...)
		return hand.Score{Lines: []pattern.Segment{seg(at, from, at, to), seg(w-at, from, w-at, to)}}
	case "clam-slits":
		inner, outer := x.marks[len(x.marks)-2].X, x.marks[len(x.marks)-1].X
		var m hand.Snip
		for i, y := range down[1 : len(down)-1] {
			to := inner
			if i == 3 {
				to = outer
			}
			m.Cuts = append(m.Cuts, seg(0, y, to, y), seg(w, y, w-to, y))
		}
		return m
	case "gable-lines", "ridge-lines":
		edge, mid, foot := h, down[2], down[1]
		if key == "ridge-lines" {
			edge, mid, foot = 0, down[1], down[2]
		}
		var m hand.Score
		for _, k := range []int{1, 3} {
			a, b := across[k], across[k+1]
			m.Lines = append(m.Lines, seg((a+b)/2, mid, (a+b)/2, edge), seg((a+b)/2, mid, a, foot), seg((a+b)/2, mid, b, foot))
		}
		return m
	case "gable-folds", "ridge-folds":
		edge, mid, foot := h, down[2], down[1]
		if key == "ridge-folds" {
			edge, mid, foot = 0, down[1], down[2]
		}
		var m hand.FoldWays
		for _, k := range []int{1, 3} {
			a, b := across[k], across[k+1]
			m.Towards = append(m.Towards, seg((a+b)/2, mid, (a+b)/2, edge), seg((a+b)/2, mid, a, foot), seg((a+b)/2, mid, b, foot), seg(across[k-1], mid, a, mid))
			// The triangles are pushed in until all lies in one another.
			m.Flat = append(m.Flat, seg((a+b)/2, mid, (a+b)/2, edge), seg(a, foot, a, edge), seg(b, foot, b, edge))
		}
		return m
	case "tab-top":
		at, left := mm("at"), across[len(across)-2]
		x.line = at
		return hand.Snip{Cuts: []pattern.Segment{seg(left, 0, left, at), seg(left, at, w, at)}, Off: []pattern.Point{pattern.Pt((left+w)/2, at/2)}}
	case "punch-last":
		return hand.Bite{Loops: []pattern.Loop{pattern.Circle(pattern.Pt(x.near(w/2), h-mm("off")), mm("across")/2)}}
	case "round-all":
		r := mm("at")
		return hand.Bite{Loops: []pattern.Loop{round(0, r, r, 0, 0, 0), round(w-r, 0, w, r, w, 0), round(w, h-r, w-r, h, w, h), round(r, h, 0, h-r, 0, h)}}
	case "gusset-lines":
		l, r, t, b := floor(c)
		return hand.Score{Lines: []pattern.Segment{seg(0, 0, l, t), seg(w, 0, r, t), seg(0, h, l, b), seg(w, h, r, b)}}
	case "gusset-folds":
		l, r, t, b := floor(c)
		beside := []pattern.Segment{seg(0, t, l, t), seg(r, t, w, t), seg(0, b, l, b), seg(r, b, w, b)}
		return hand.FoldWays{Towards: beside, Flat: append(slices.Clone(beside), seg(0, 0, l, t), seg(w, 0, r, t), seg(0, h, l, b), seg(w, h, r, b))}
	case "shell-slants":
		return hand.Snip{Cuts: []pattern.Segment{seg(across[1], 0, 0, down[1]), seg(across[2], 0, w, down[1])}, Off: []pattern.Point{pattern.Pt(0.2, 0.2), pattern.Pt(w-0.2, 0.2)}}
	case "shell-slivers":
		off, y := sliverOf(x.unit).MM(), down[1]
		var m hand.Snip
		for _, e := range [][2]float64{{0, off}, {w, w - off}, {across[1], across[1] + off}, {across[2], across[2] - off}} {
			m.Cuts = append(m.Cuts, seg(e[0], y, e[1], h))
			m.Off = append(m.Off, pattern.Pt(e[0]+(e[1]-e[0])/4, h-0.1))
		}
		return m
	case "window-oval":
		long, wide, _ := strings.Cut(f["size"], " × ")
		a, b := x.length(long).MM()/2, x.length(wide).MM()/2
		return hand.Bite{Loops: []pattern.Loop{ellipse(x.near(w/2), x.near(h/2), a, b)}}
	case "window-round":
		return hand.Bite{Loops: []pattern.Loop{pattern.Circle(pattern.Pt(x.near(w/2), x.near(h/2)), mm("across")/2)}}
	case "window-slot":
		long, wide, _ := strings.Cut(f["size"], " × ")
		a, b, at := x.length(long).MM()/2, x.length(wide).MM()/2, pattern.Pt(x.near(w/2), x.near(h/2))
		if a-b < 0.05 {
			return hand.Bite{Loops: []pattern.Loop{pattern.Circle(at, b)}}
		}
		return hand.Bite{Loops: []pattern.Loop{{{Point: pattern.Pt(at.X-a+b, at.Y-b)}, {Point: pattern.Pt(at.X+a-b, at.Y-b), Bulge: 1}, {Point: pattern.Pt(at.X+a-b, at.Y+b)}, {Point: pattern.Pt(at.X-a+b, at.Y+b), Bulge: 1}}}}
	case "template":
		return hand.Template{Pattern: x.templates[c.ID]}
	case "template-floor", "template-tabs", "template-linings":
		of := map[string][2]string{"template-floor": {"wall.", ""}, "template-tabs": {"tab.", "wall."}, "template-linings": {"lining.", "wall."}}[key]
		lines, err := x.templates[c.ID].Between(func(n string) bool { return strings.HasPrefix(n, of[0]) }, func(n string) bool {
			if of[1] == "" {
				return !strings.Contains(n, ".")
			}
			return strings.HasPrefix(n, of[1])
		})
		if err != nil {
			panic(err)
		}
		return hand.ScoreTraced{Lines: lines}
	case "template-cut":
		return hand.CutTraced{}
	case "slots-top", "slots-bottom":
		var m hand.Bite
		deep, half := mm("off"), float64(number(f["count"]))*x.card.MM()/2
		from, to := 0.0, deep
		if key == "slots-bottom" {
			from, to = h-deep, h
		}
		for _, at := range x.lengths(f["at"]) {
			m.Loops = append(m.Loops, pattern.Straight(pattern.Pt(at.MM()-half, from), pattern.Pt(at.MM()+half, from), pattern.Pt(at.MM()+half, to), pattern.Pt(at.MM()-half, to)))
		}
		return m
	}
	switch family, _, _ := strings.Cut(key, "-"); family {
	case "arch":
		return x.arch(c, key, f)
	case "diamond", "knife", "blunt", "blossom":
		return x.liner(c, key, f)
	case "facet":
		return x.facet(c, key, f)
	case "weave":
		return x.weave(c, key, f)
	case "fold": // the second walls of a shape with many
		if key == "fold-over-outer-strip" {
			lines, err := x.templates[c.ID].Between(func(n string) bool { return strings.HasPrefix(n, "lining.") }, func(n string) bool { return strings.HasPrefix(n, "wall.") })
			if err == nil {
				return hand.FoldWays{Flat: lines}
			}
		}
	}
	return nil
}

// near is the mark that a hand sets nearest to a place.
func (x *follower) near(mm float64) float64 {
	return measure.Nearest(measure.FromMM(mm), x.cut()).MM()
}

// ellipse is an oval as the template has it.
func ellipse(mx, my, a, b float64) pattern.Loop {
	var out []pattern.Point
	for i := range 72 {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / 72)
		out = append(out, pattern.Pt(mx+a*cos, my+b*sin))
	}
	return pattern.Straight(out...)
}

func (x *follower) arch(c *hand.Card, key string, f recipe.Fields) hand.Move {
	w, h := c.Width.MM(), c.Height.MM()
	across, down := c.Grid()
	top, foot := 0.0, h
	if len(down) > 2 { // with tabs above and below
		top, foot = down[1], down[2]
	}
	switch key {
	case "arch-line":
		x.line = x.length(f["at"]).MM()
		return hand.Mark{Lines: []pattern.Segment{seg(x.line, 0, x.line, h)}}
	case "arch-strips":
		from := x.length(f["at"]).MM()
		var m hand.Snip
		for _, y := range []float64{top, foot} {
			m.Cuts = append(m.Cuts, seg(0, y, from, y), seg(x.line, y, w, y))
		}
		for _, e := range [][2]float64{{0, top}, {foot, h}} {
			m.Cuts = append(m.Cuts, seg(from, e[0], from, e[1]), seg(x.line, e[0], x.line, e[1]))
			mid := (e[0] + e[1]) / 2
			for i := 0; across[i+1] <= from+hand.Close; i++ {
				m.Off = append(m.Off, pattern.Pt((across[i]+across[i+1])/2, mid))
			}
			m.Off = append(m.Off, pattern.Pt((x.line+w)/2, mid))
		}
		return m
	case "arch-rounds", "arch-rounds-open":
		r := x.length(f["off"]).MM()
		m := hand.Bite{Loops: []pattern.Loop{round(w-r, top, w, top+r, w, top), round(w, foot-r, w-r, foot, w, foot)}}
		if f["at"] != "" {
			r := x.length(f["at"]).MM()
			m.Loops = append(m.Loops, round(r, foot, 0, foot-r, 0, foot), round(0, top+r, r, top, 0, top))
		}
		return m
	}
	return nil
}

// liner is a square with a square in its middle.
func (x *follower) liner(c *hand.Card, key string, f recipe.Fields) hand.Move {
	w := c.Width.MM()
	l, r, _, _ := floor(c)
	mid := w / 2
	diamond := []pattern.Segment{seg(mid, 0, w, mid), seg(w, mid, mid, w), seg(mid, w, 0, mid), seg(0, mid, mid, 0)}
	corners := []pattern.Segment{seg(0, 0, l, l), seg(w, 0, r, l), seg(0, w, l, r), seg(w, w, r, r)}
	switch key {
	case "diamond":
		return hand.Score{Lines: diamond}
	case "knife-cross":
		return hand.Snip{Cuts: []pattern.Segment{seg(l, l, r, r), seg(r, l, l, r)}}
	case "blunt-tips":
		e := x.length(f["off"]).MM()
		return hand.Snip{Cuts: []pattern.Segment{seg(mid-e, mid-e, mid+e, mid-e), seg(mid+e, mid-e, mid+e, mid+e), seg(mid+e, mid+e, mid-e, mid+e), seg(mid-e, mid+e, mid-e, mid-e)},
			Off: []pattern.Point{pattern.Pt(mid, mid-e/2), pattern.Pt(mid+e/2, mid), pattern.Pt(mid, mid+e/2), pattern.Pt(mid-e/2, mid)}}
	case "blossom-towards":
		lines := append(diamond, corners...)
		return hand.FoldWays{Towards: lines, Flat: lines}
	case "blossom-away":
		var m hand.FoldWays
		for _, at := range []float64{l, r} {
			m.Flat = append(m.Flat, seg(at, 0, at, l), seg(at, r, at, w), seg(0, at, l, at), seg(r, at, w, at))
		}
		return m
	}
	return nil
}

// facet is a basket with bevels: five columns, the third its floor.
func (x *follower) facet(c *hand.Card, key string, f recipe.Fields) hand.Move {
	w := c.Width.MM()
	a, _ := c.Grid()
	mm := func(name string) float64 { return x.length(f[name]).MM() }
	s := sliverOf(x.unit).MM()
	switch key {
	case "facet-but-floor":
		x.facets.near = mm("at")
		return hand.Score{Lines: mirror(c, seg(0, x.facets.near, a[2], x.facets.near), seg(a[3], x.facets.near, a[5], x.facets.near))}
	case "facet-floor":
		at := x.lengths(f["at"])
		if len(at) == 1 { // the other line runs right across
			_, down := c.Grid()
			x.facets.near, x.facets.top, x.facets.foot = down[1], down[1], at[0].MM()
			return hand.Score{Lines: mirror(c, seg(a[2], at[0].MM(), a[3], at[0].MM()))}
		}
		x.facets.top, x.facets.foot = at[0].MM(), at[1].MM()
		return hand.Score{Lines: mirror(c, seg(a[2], at[0].MM(), a[3], at[0].MM()), seg(a[2], at[1].MM(), a[3], at[1].MM()))}
	case "facet-marks":
		x.facets.mark = mm("at")
		return hand.Mark{Lines: mirror(c, seg(mm("at"), 0, mm("at"), mm("off")), seg(w-mm("at"), 0, w-mm("at"), mm("off")))}
	}
	g := x.facets
	switch key {
	case "facet-slants":
		return hand.Score{Lines: mirror(c, seg(g.mark, g.near, a[2], mm("at")), seg(w-g.mark, g.near, a[3], mm("at")))}
	case "facet-slits":
		return hand.Snip{Cuts: mirror(c, seg(a[2], 0, a[2], mm("at")), seg(a[3], 0, a[3], mm("at")))}
	case "facet-rectangles":
		return hand.Snip{Cuts: mirror(c, seg(g.mark, 0, g.mark, g.near), seg(g.mark, g.near, a[2], g.near), seg(w-g.mark, 0, w-g.mark, g.near), seg(a[3], g.near, w-g.mark, g.near)),
			Off: mirrorPoints(c, pattern.Pt((g.mark+a[2])/2, g.near/2), pattern.Pt((w-g.mark+a[3])/2, g.near/2))}
	case "facet-lip":
		return hand.Snip{Cuts: mirror(c, seg(a[4], 0, a[4], g.near), seg(a[4], g.near, w, g.near)), Off: mirrorPoints(c, pattern.Pt((a[4]+w)/2, g.near/2))}
	case "facet-wings":
		left, to := w-g.mark, g.near-mm("at")
		return hand.Snip{Cuts: mirror(c, seg(left, to, a[4], to), seg(left, g.near, left+mm("off"), to)),
			Off: mirrorPoints(c, pattern.Pt((left+a[4])/2, to/2), pattern.Pt(left+mm("off")/4, to+0.2))}
	case "facet-flaps":
		x.facets.off = g.top - mm("at")
		return hand.Snip{Cuts: mirror(c, seg(a[2], x.facets.off, a[3], x.facets.off)), Off: mirrorPoints(c, pattern.Pt((a[2]+a[3])/2, x.facets.off/2))}
	case "facet-slivers":
		return hand.Snip{
			Cuts: mirror(c, seg(0, s, a[1], s), seg(a[1], 0, a[1], s), seg(a[4], g.near+s, w, g.near+s), seg(a[4], g.near, a[4], g.near+s),
				seg(a[2]+s, g.off, a[2]+s, g.top), seg(a[2], g.top, a[2]+s, g.top), seg(a[3]-s, g.off, a[3]-s, g.top), seg(a[3]-s, g.top, a[3], g.top)),
			Off: mirrorPoints(c, pattern.Pt(a[1]/2, s/2), pattern.Pt((a[4]+w)/2, g.near+s/2), pattern.Pt(a[2]+s/2, (g.off+g.top)/2), pattern.Pt(a[3]-s/2, (g.off+g.top)/2)),
		}
	case "facet-lip-in":
		at := mirrorPoints(c, pattern.Pt(a[1]/2, (s+g.near)/2))
		on := mirrorPoints(c, pattern.Pt((a[1]+g.mark)/2, g.near/2))
		mid := c.Height.MM() / 2
		return hand.TurnIn{What: hand.Parts{At: append(at, pattern.Pt(a[1]/2, mid))}, Onto: hand.Parts{At: append(on, pattern.Pt((a[1]+a[2])/2, mid))}}
	case "facet-folds":
		h := c.Height.MM()
		return hand.FoldWays{Flat: []pattern.Segment{seg(a[1], s, a[1], h-s), seg(a[4], g.near+s, a[4], h-g.near-s)},
			Towards: mirror(c, seg(0, g.near, a[1], g.near))}
	}
	return nil
}

// weave is a basket whose corners are cut into strips.
func (x *follower) weave(c *hand.Card, key string, f recipe.Fields) hand.Move {
	across, down := c.Grid()
	w, h := c.Width.MM(), c.Height.MM()
	ends := func(at float64) []pattern.Segment {
		return []pattern.Segment{seg(at, 0, at, down[1]), seg(at, h, at, down[2]), seg(w-at, 0, w-at, down[1]), seg(w-at, h, w-at, down[2])}
	}
	switch key {
	case "weave-marks":
		var m hand.Mark
		x.strips = nil
		for _, at := range x.lengths(f["at"]) {
			x.strips = append(x.strips, at.MM())
			m.Lines = append(m.Lines, ends(at.MM())...)
		}
		return m
	case "weave-cuts":
		if number(f["count"]) != len(x.strips)+1 {
			panic("so many strips do not come of these lines")
		}
		var m hand.Snip
		for _, at := range append(slices.Clone(x.strips), across[1]) {
			m.Cuts = append(m.Cuts, ends(at)...)
		}
		return m
	}
	return nil
}

// stickOdd is how parts of one construction are stuck.
func (x *follower) stickOdd(c *hand.Card, m hand.Stick, f recipe.Fields) hand.Move {
	across, down := c.Grid()
	w, h := c.Width.MM(), c.Height.MM()
	pair := func(what, onto pattern.Point) {
		m.What.At, m.Onto.At = append(m.What.At, what), append(m.Onto.At, onto)
	}
	switch m.Way {
	case hand.Ring: // each cell that is left of the tab, inside panel 1
		last := len(across) - 2
		mid := (across[last] + w) / 2
		if p := x.templates[c.ID]; p != nil { // as the template has the tab
			for _, k := range p.Marks {
				if k.Role == pattern.Tab && k.At.X > across[last] {
					pair(k.At, pattern.Pt(across[1]/2, k.At.Y))
				}
			}
			break
		}
		if len(down) == 3 { // without a score over the walls: at both ends of the tab
			pair(pattern.Pt(mid, x.line+1), pattern.Pt(across[1]/2, x.line+1))
			pair(pattern.Pt(mid, down[1]-1), pattern.Pt(across[1]/2, down[1]-1))
			break
		}
		for row := range len(down) - 1 {
			at := pattern.Pt(mid, (down[row]+down[row+1])/2)
			if c.Lies(at) {
				pair(at, pattern.Pt(across[1]/2, at.Y))
			}
		}
	case hand.Strap:
		m.Outside, m.OntoOutside = false, true
		pair(pattern.Pt(w-x.length(f["at"]).MM()/2, h/2), pattern.Pt(across[1]/2, h/2))
	case hand.Gusset, hand.GussetTurn:
		m.OntoOutside = true
		l, r, t, b := floor(c)
		for _, e := range []struct{ x, on, back float64 }{{l / 4, l / 2, l / 2}, {w - l/4, (r + w) / 2, w - l/2}} {
			pair(pattern.Pt(e.x, t*3/4), pattern.Pt(e.on, (t+b)/2))
			onto := pattern.Pt(e.on, (t+b)/2)
			if m.Way == hand.GussetTurn { // onto the half of the back point at the back wall
				onto = pattern.Pt(e.back, t/8)
			}
			pair(pattern.Pt(e.x, h-t*3/4), onto)
		}
	case hand.Shell:
		y := (down[1] + h) / 2
		square, right, left := pattern.Pt((across[1]+across[2])/2, y), pattern.Pt((across[2]+w)/2, y), pattern.Pt(across[1]/2, y)
		pair(square, right)
		pair(right, left)
	case hand.Ledges, hand.LedgesSquare:
		m.Outside, m.OntoOutside = false, true
		cell := func(col int) pattern.Point { return cellAt(c, col, 0) }
		long, short := []int{0, 2}, []int{1, 3}
		if m.Way == hand.Ledges && across[1] < across[2]-across[1] {
			long, short = short, long
		}
		for _, a := range long {
			for _, b := range short {
				pair(cell(a), cell(b))
			}
		}
	case hand.OverAll:
		m.Outside = false
		x.traced(c, "lining.", "wall.", func(i, n int) int { return i }, pair)
	case hand.Weave:
		m.Outside, m.OntoOutside = false, true
		for _, side := range []float64{down[1] / 2, (down[2] + h) / 2} {
			from := 0.0
			for _, to := range append(slices.Clone(x.strips), across[1]) {
				mid := (from + to) / 2
				pair(pattern.Pt(mid, side), pattern.Pt(w/2, side))
				pair(pattern.Pt(w-mid, side), pattern.Pt(w/2, side))
				from = to
			}
		}
	case hand.Facets:
		g := x.facets
		for _, y := range []float64{(2*g.near + g.foot) / 3, h - (2*g.near+g.foot)/3} {
			bevel := (g.top + g.foot) / 2
			if y > h/2 {
				bevel = h - bevel
			}
			pair(pattern.Pt((g.mark+2*across[2])/3, y), pattern.Pt((across[2]+across[3])/2, bevel))
			pair(pattern.Pt((w-g.mark+2*across[3])/3, y), pattern.Pt((across[2]+across[3])/2, bevel))
		}
	case hand.FacetWings, hand.Inside: // the front's wings, and the side flaps, on the back's wings
		g := x.facets
		on := mirrorPoints(c, pattern.Pt((w-g.mark+across[4])/2, g.near-1))
		what := mirrorPoints(c, pattern.Pt((across[1]+g.mark)/2, g.near/2))
		if m.Way == hand.Inside {
			what = mirrorPoints(c, pattern.Pt((across[2]+across[3])/2, (g.off+g.top)/2))
		} else {
			m.Outside, m.OntoOutside = false, true
		}
		for i := range on {
			pair(what[i], on[i])
		}
	case hand.FacetLip:
		m.Outside = false
		pair(pattern.Pt((across[4]+w)/2, h/2), pattern.Pt((across[3]+across[4])/2, h/2))
	default:
		x.stickShape(c, &m, f, pair)
	}
	return m
}

// traced pairs faces of a piece that was cut round a template, by their numbers.
func (x *follower) traced(c *hand.Card, what, onto string, to func(i, n int) int, pair func(a, b pattern.Point)) {
	p := x.templates[c.ID]
	var from, on []pattern.Mark
	for _, k := range p.Marks {
		switch {
		case strings.HasPrefix(k.Name, what):
			from = append(from, k)
		case strings.HasPrefix(k.Name, onto):
			on = append(on, k)
		}
	}
	byNumber := func(a, b pattern.Mark) int {
		var n, m int
		fmt.Sscanf(a.Name[strings.Index(a.Name, ".")+1:], "%d", &n)
		fmt.Sscanf(b.Name[strings.Index(b.Name, ".")+1:], "%d", &m)
		return cmp.Compare(n, m)
	}
	slices.SortFunc(from, byNumber)
	slices.SortFunc(on, byNumber)
	for i := range from {
		pair(from[i].At, on[to(i, len(on))].At)
	}
}
