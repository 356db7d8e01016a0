package draw

import (
	"math"

	"brevium/core/design"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
)

// plainNet is a flat piece of a made box without its numbers.
func plainNet(r *design.Result, p design.Part, plain bool) Net {
	in := &r.Inputs
	n := Net{Part: p.Part, PaperUp: p.PaperUp(), Fence: in.Tools.Fence, Units: in.Units, Tick: in.Tools.Tick, Plain: true}
	if !plain {
		n.From = FromOf(p)
	}
	return n
}

// closest is how much of a piece, in mm, is seen at least where it is magnified.
const closest = 40.0

// Magnified draws the first of lines of a flat piece that are cut or scored now, from near; nil
// where that would be no closer than the whole.
func Magnified(r *design.Result, p design.Part, lines []recipe.Line) *Picture {
	if len(lines) == 0 {
		return nil
	}
	n := plainNet(r, p, false)
	lo, hi := pattern.Bounds(lines[0].Path.Flat())
	side := max(closest, 1.6*max(hi.X-lo.X, hi.Y-lo.Y))
	if pat := p.Pattern; side > 0.8*max(pat.Width.MM(), pat.Height.MM()) {
		return nil // it would be as large as the whole
	}
	mid := pattern.Pt((lo.X+hi.X)/2, (lo.Y+hi.Y)/2)
	near := &Picture{X: mid.X - side/2, Y: mid.Y - side/2, Width: side, Height: side, U: side / 640, Title: "Magnified"}
	n.into(near)
	light(near, lines)
	near.polygon(Outline, rect(near.X, near.Y, side, side)...)
	return near
}

// light draws over lines what is cut now.
func light(p *Picture, lines []recipe.Line) {
	for _, l := range lines {
		p.add(Shape{Class: Lit, Loops: [][]pattern.Point{l.Path.Flat()}})
	}
}

// Gluing draws a flat piece with all that makes it hold: dots of wet glue, or strips
// of tape whose backing sticks out to be pulled off, and a ring on each face that
// fingers press.
func Gluing(r *design.Result, p design.Part) *Picture {
	n := plainNet(r, p, false)
	n.Mats = r.Mats
	pic := n.frame()
	pic.Title = "Where the glue goes"
	n.into(pic)
	wet := style.AdhesiveOf(r.Spec).Wet()
	for _, g := range p.Pattern.Glue {
		if g.Dry || len(g.Area) == 0 {
			continue
		}
		mid := middle(g.Area)
		if !wet {
			pic.add(Shape{Class: Backing, Loops: [][]pattern.Point{strip(g.Area, mid)}, Closed: true})
		}
		pic.circle(Press, mid, 11*pic.U)
		pic.circle(Press, mid, 5*pic.U)
	}
	return pic
}

func middle(area []pattern.Point) pattern.Point {
	var sum pattern.Point
	for _, q := range area {
		sum = sum.Add(q)
	}
	return sum.Scale(1 / float64(len(area)))
}

// Tape is 6 mm wide; the end of its backing sticks out this far, in mm.
const (
	tapeWide = 6.0
	tailLong = 8.0
)

// strip is a strip of tape along the longest edge of a patch, through its middle.
func strip(area []pattern.Point, mid pattern.Point) []pattern.Point {
	var along pattern.Point
	for i, q := range area {
		if d := area[(i+1)%len(area)].Sub(q); d.Len() > along.Len() {
			along = d
		}
	}
	d := along.Scale(1 / along.Len())
	across := pattern.Pt(-d.Y, d.X)
	from, to, wide := math.Inf(1), math.Inf(-1), math.Inf(1)
	for _, q := range area {
		from, to = min(from, q.Sub(mid).Dot(d)), max(to, q.Sub(mid).Dot(d))
		wide = min(wide, max(1, math.Abs(q.Sub(mid).Dot(across))))
	}
	half := min(tapeWide/2, 0.8*wide)
	at := func(x, y float64) pattern.Point { return mid.Add(d.Scale(x)).Add(across.Scale(y)) }
	return []pattern.Point{at(0.9*from, -half), at(0.9*to+tailLong, -half), at(0.9*to+tailLong, half), at(0.9*from, half)}
}
