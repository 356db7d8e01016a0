package design

import (
	"math"
	"slices"
	"strings"

	"brevium/core/hand"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

// shape is the move of a sentence of one of the plain shapes; nil where no hand knows it.
func (x *follower) shape(c *hand.Card, key string, f recipe.Fields) hand.Move {
	switch key {
	case "template-lay":
		return hand.Mark{}
	case "template-every":
		return hand.ScoreTraced{Lines: creasesOf(x.templates[c.ID])}
	case "template-outline", "template-all":
		return hand.CutTraced{}
	case "template-draw":
		return hand.Mark{}
	case "template-lines":
		return hand.ScoreTraced{Lines: offBoard(c, x.templates[c.ID])}
	case "fold-as-shown", "round-folds":
		var m hand.FoldWays
		for _, k := range x.templates[c.ID].Creases {
			if k.Side == pattern.Towards && !k.Rolled {
				m.Towards = append(m.Towards, k.Segment)
			}
			if k.Angle > hand.Flat && !k.Rolled {
				m.Flat = append(m.Flat, k.Segment)
			}
		}
		return m
	case "pillow-marks":
		return hand.Template{Pattern: x.templates[c.ID]}
	case "pillow-arcs":
		return hand.ScoreTraced{Lines: offBoard(c, x.templates[c.ID])}
	case "pillow-ends":
		return hand.CutTraced{}
	case "pillow-bend", "round-bend":
		return hand.Bend{}
	case "pillow-folds":
		return hand.FoldWays{}
	case "floor-opens", "floor-locks", "floor-tongue":
		return hand.Dry{}
	case "tent-cuts", "turned-marks", "turned-floor", "turned-cuts":
		return x.tent(c, key, f)
	case "tip-holes":
		return x.tipHoles(c, x.length(f["across"]).MM(), x.length(f["at"]).MM())
	case "fold-all-flat":
		return hand.FoldWays{Flat: allScores(c)}
	case "pouch-tabs":
		return x.pouchTabs(c, x.length(f["at"]).MM(), x.length(f["off"]).MM())
	}
	return nil
}

// stickShape is how parts of one of the plain shapes are stuck.
func (x *follower) stickShape(c *hand.Card, m *hand.Stick, f recipe.Fields, pair func(what, onto pattern.Point)) {
	switch across, down := c.Grid(); m.Way {
	case "pouch": // the strips' middles stayed, the front is the last row
		w, last := c.Width.MM(), down[len(down)-2]
		front := pattern.Pt(w/2, (last+c.Height.MM())/2)
		pair(pattern.Pt(across[1]/2, x.line), front)
		pair(pattern.Pt(w-across[1]/2, x.line), front)
	case "floor-flat": // each triangle onto the flap that it comes to lie on
		m.Outside, m.OntoOutside = false, true
		p := x.templates[c.ID]
		for _, g := range p.Glue {
			if onto, there := p.Mark(g.Onto); there && strings.HasPrefix(g.Face, "patch.") {
				from, _ := p.Mark(g.Face)
				pair(from.At, onto.At)
			}
		}
	case "pillow", "round": // the tab's flats onto the panel's
		p := x.templates[c.ID]
		for _, g := range p.Glue {
			from, _ := p.Mark(g.Face)
			if onto, _ := p.Mark(g.Onto); !g.Dry && g.Piece == "" {
				pair(from.At, onto.At)
			}
		}
	case hand.OutToIn: // by what the template calls them
		named := func(words string) pattern.Point {
			for _, k := range x.templates[c.ID].Marks {
				if "the "+k.Plain() == words {
					return k.At
				}
			}
			panic("nothing is called " + words)
		}
		pair(named(f["parts"]), named(f["onto"]))
	default:
		panic("no hand knows how to stick " + string(m.Way))
	}
}

// allScores are a card's scores that run right across.
func allScores(c *hand.Card) []pattern.Segment {
	across, down := c.Grid()
	var out []pattern.Segment
	for _, x := range across[1 : len(across)-1] {
		out = append(out, seg(x, 0, x, c.Height.MM()))
	}
	for _, y := range down[1 : len(down)-1] {
		out = append(out, seg(0, y, c.Width.MM(), y))
	}
	return out
}

// pouchTabs cuts the side strips in at two heights and their ends off.
func (x *follower) pouchTabs(c *hand.Card, from, to float64) hand.Move {
	across, down := c.Grid()
	w, h := c.Width.MM(), c.Height.MM()
	x.line = (from + to) / 2
	n := (len(across) - 2) / 2 // scores on either side of the middle
	left, right := across[n], across[n+1]
	m := hand.Snip{Cuts: []pattern.Segment{
		seg(0, from, left, from), seg(0, to, left, to), seg(right, from, w, from), seg(right, to, w, to),
		seg(left, 0, left, from), seg(left, to, left, h), seg(right, 0, right, from), seg(right, to, right, h),
	}}
	for col := range len(across) - 1 {
		if col == n {
			continue
		}
		at := (across[col] + across[col+1]) / 2
		for row := range len(down) - 1 {
			if top, foot := down[row], min(down[row+1], from); foot > top {
				m.Off = append(m.Off, pattern.Pt(at, (top+foot)/2))
			}
			if top, foot := max(down[row], to), down[row+1]; foot > top {
				m.Off = append(m.Off, pattern.Pt(at, (top+foot)/2))
			}
		}
	}
	return m
}

func creasesOf(p *pattern.Pattern) []pattern.Segment {
	var out []pattern.Segment
	for _, k := range p.Creases {
		out = append(out, k.Segment)
	}
	return out
}

// offBoard are a template's scores that no score of the card runs along.
func offBoard(c *hand.Card, p *pattern.Pattern) []pattern.Segment {
	across, down := c.Grid()
	var out []pattern.Segment
	for _, k := range p.Creases {
		s := k.Segment
		on := func(a, b float64, at []float64) bool {
			return a == b && slices.ContainsFunc(at, func(x float64) bool { return math.Abs(x-a) < 1e-6 })
		}
		if !k.Rolled && !on(s.A.X, s.B.X, across) && !on(s.A.Y, s.B.Y, down) {
			out = append(out, s)
		}
	}
	return out
}

// tent is what cuts a square card to four tips, at the middles of its edges or in its corners.
func (x *follower) tent(c *hand.Card, key string, f recipe.Fields) hand.Move {
	w := c.Width.MM()
	mid := w / 2
	corners, middles := []pattern.Point{{}, {X: w}, {X: w, Y: w}, {Y: w}}, []pattern.Point{{X: mid}, {X: w, Y: mid}, {X: mid, Y: w}, {Y: mid}}
	between := func(a, b pattern.Point, by float64) pattern.Point { return a.Add(b.Sub(a).Scale(by)) }
	switch key {
	case "turned-marks":
		m := hand.Mark{Lines: []pattern.Segment{seg(mid, 0, mid, w), seg(0, mid, w, mid)}}
		for _, q := range middles {
			m.At = append(m.At, between(q, pattern.Pt(mid, mid), x.length(f["at"]).MM()/mid))
		}
		x.marks = m.At
		return m
	case "turned-floor":
		var m hand.Score
		for i, q := range x.marks {
			m.Lines = append(m.Lines, pattern.Segment{A: q, B: x.marks[(i+1)%4]})
		}
		return m
	case "turned-cuts":
		var m hand.Snip
		for i, q := range corners {
			for _, k := range []int{i, (i + 3) % 4} {
				m.Cuts = append(m.Cuts, pattern.Segment{A: q, B: x.marks[k]})
				m.Off = append(m.Off, between(between(middles[k], x.marks[k], 0.3), q, 0.1))
			}
		}
		return m
	}
	across, down := c.Grid()
	var m hand.Snip
	for _, q := range middles {
		for _, floor := range []pattern.Point{{X: across[1], Y: down[1]}, {X: across[2], Y: down[1]}, {X: across[2], Y: down[2]}, {X: across[1], Y: down[2]}} {
			if floor.Sub(q).Len() > (across[2]-across[1])/2+down[1]+1 || math.Abs(floor.X-q.X) > mid-1 || math.Abs(floor.Y-q.Y) > mid-1 {
				continue
			}
			m.Cuts = append(m.Cuts, pattern.Segment{A: q, B: floor})
		}
	}
	for _, q := range corners {
		centre := between(q, pattern.Pt(mid, mid), down[1]/2/mid)
		m.Off = append(m.Off, centre)
		for _, to := range middles {
			if to.X == q.X || to.Y == q.Y { // beside the tip, past the score
				past := between(q, to, (down[1]+(mid-down[1])/8)/mid)
				m.Off = append(m.Off, past.Add(pattern.Pt(mid, mid).Sub(to).Scale(down[1]/8/mid)))
			}
		}
	}
	return m
}

// tipHoles are under the middles of a square's edges, or in its corners where it was cut to those.
func (x *follower) tipHoles(c *hand.Card, across, at float64) hand.Move {
	w := c.Width.MM()
	tips := []pattern.Point{{X: w / 2}, {X: w, Y: w / 2}, {X: w / 2, Y: w}, {Y: w / 2}}
	if grid, _ := c.Grid(); len(grid) == 2 {
		tips = []pattern.Point{{}, {X: w}, {X: w, Y: w}, {Y: w}}
	}
	var m hand.Bite
	for _, q := range tips {
		in := pattern.Pt(w/2, w/2).Sub(q)
		m.Loops = append(m.Loops, pattern.Circle(q.Add(in.Scale(at/in.Len())), across/2))
	}
	return m
}
