package recipe

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/pattern"
	"brevium/core/style"
)

// falling says what comes off a piece when all its cuts are made, so that a
// hand sees whether it has cut the right ones: rectangles by their sizes, other
// scraps by the rectangle that holds them. Wedges are counted where they are told.
func (t Telling) falling(p *pattern.Pattern) string {
	var names []string
	count := map[string]int{}
	s := stroker{p: p, kept: p.Outline.Flat()}
	for _, l := range trims(p) {
		if l.Hand == Notch || isSlot(l.Path, p) {
			continue
		}
		off := withoutSpikes(scrap(s.straightened(l.Path), p))
		lo, hi := pattern.Bounds(off)
		area := math.Abs(pattern.Area(off))
		wide, high := hi.X-lo.X, hi.Y-lo.Y
		if len(off) < 3 || area < Straight*(wide+high) { // wedges alone, which are told
			continue
		}
		name := fmt.Sprintf("scrap%%s out of %s × %s", t.mm(wide), t.mm(high))
		switch {
		case wide*high-area < Straight*(wide+high):
			name = fmt.Sprintf("piece%%s of %s × %s", t.mm(wide), t.mm(high))
		}
		if count[name] == 0 {
			names = append(names, name)
		}
		count[name]++
	}
	for i, n := range names {
		names[i] = fmt.Sprintf("%d "+n, count[n], plural(count[n]))
	}
	if len(names) == 0 {
		return ""
	}
	return "What falls away: " + style.And(names) + "."
}

// withoutSpikes leaves out where an outline runs out and back along a slit.
func withoutSpikes(ring []pattern.Point) []pattern.Point {
	for i := 0; i < len(ring) && len(ring) > 2; {
		n := len(ring)
		in, out := ring[i].Sub(ring[(i+n-1)%n]), ring[(i+1)%n].Sub(ring[i])
		if in.Len() < Straight || math.Abs(in.Cross(out)) < Straight*in.Len() && in.Dot(out) <= 0 {
			ring = slices.Delete(ring, i, i+1)
			i = 0
			continue
		}
		i++
	}
	return ring
}

// scrap closes a stretch of the outline round the corners of the blank that
// fall away with it.
func scrap(path []pattern.Point, p *pattern.Pattern) []pattern.Point {
	w, h := p.Width.MM(), p.Height.MM()
	first, last := path[0], path[len(path)-1]
	// Along the blank's edge, against the clock from the end back to the start.
	walk := func(q pattern.Point) float64 {
		switch {
		case q.Y < Straight:
			return w - q.X
		case q.X < Straight:
			return w + q.Y
		case q.Y > h-Straight:
			return w + h + q.X
		}
		return 2*w + h + h - q.Y
	}
	round := 2 * (w + h)
	from, to := walk(last), walk(first)
	if to < from {
		to += round
	}
	out := append([]pattern.Point{}, path...)
	for k := range 8 {
		at := []float64{w, w + h, 2*w + h, 2*w + 2*h}[k%4] + float64(k/4)*round
		if at > from+Straight && at < to-Straight {
			out = append(out, []pattern.Point{{X: 0, Y: 0}, {X: 0, Y: h}, {X: w, Y: h}, {X: w, Y: 0}}[k%4])
		}
	}
	return out
}
