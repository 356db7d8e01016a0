package sketch

import (
	"math"
	"slices"
)

// shorts finds the short lines of what the long ones left: heaps of dots that hang together and
// are long and narrow.
func shorts(dots []dot, perMM float64, long []Line) (out []Line) {
	type cell struct{ x, y int }
	at := map[cell][]int{}
	for i, d := range dots {
		if !d.gone {
			k := cell{int(d.x * perMM), int(d.y * perMM)}
			at[k] = append(at[k], i)
		}
	}
	for i := range dots {
		if dots[i].gone {
			continue
		}
		var heap []*dot
		queue := []int{i}
		dots[i].gone = true
		for len(queue) > 0 {
			n := queue[0]
			queue = queue[1:]
			heap = append(heap, &dots[n])
			x, y := int(dots[n].x*perMM), int(dots[n].y*perMM)
			for dx := -2; dx <= 2; dx++ {
				for dy := -2; dy <= 2; dy++ {
					for _, m := range at[cell{x + dx, y + dy}] {
						if !dots[m].gone {
							dots[m].gone = true
							queue = append(queue, m)
						}
					}
				}
			}
		}
		out = append(out, shortOf(heap, perMM, 0)...)
	}
	return slices.DeleteFunc(out, func(l Line) bool { return lieson(l, long) })
}

// shortOf is the line of a heap, or its two where it bends.
func shortOf(heap []*dot, perMM float64, depth int) []Line {
	s, ok := fitted(heap)
	if !ok {
		return nil
	}
	from, to, wide := math.Inf(1), math.Inf(-1), 0.0
	for _, d := range heap {
		t := s.along(d.x, d.y)
		from, to, wide = min(from, t), max(to, t), max(wide, math.Abs(s.off(d.x, d.y)))
	}
	if to-from < leastShort || float64(len(heap)) < leastShort*perMM {
		return nil
	}
	if wide <= 2*halfStroke {
		x1, y1 := s.at(from)
		x2, y2 := s.at(to)
		return []Line{{x1, y1, x2, y2, false, ""}}
	}
	if depth > 3 {
		return nil
	}
	// It bends where it is farthest from the line between its ends.
	var first, last *dot
	for _, d := range heap {
		if t := s.along(d.x, d.y); t == from {
			first = d
		} else if t == to {
			last = d
		}
	}
	if first == nil || last == nil {
		return nil
	}
	chord := through(first.x, first.y, last.x, last.y)
	bend := slices.MaxFunc(heap, func(a, b *dot) int {
		if math.Abs(chord.off(a.x, a.y)) < math.Abs(chord.off(b.x, b.y)) {
			return -1
		}
		return 1
	})
	cut := s.along(bend.x, bend.y)
	var parts [2][]*dot
	for _, d := range heap {
		side := 0
		if s.along(d.x, d.y) > cut {
			side = 1
		}
		parts[side] = append(parts[side], d)
	}
	return append(shortOf(parts[0], perMM, depth+1), shortOf(parts[1], perMM, depth+1)...)
}

func through(x1, y1, x2, y2 float64) straight {
	l := max(1e-9, math.Hypot(x2-x1, y2-y1))
	nx, ny := (y2-y1)/l, -(x2-x1)/l
	return straight{nx, ny, nx*x1 + ny*y1}
}

// lieson tells the slivers beside a thick line from lines.
func lieson(l Line, all []Line) bool {
	return slices.ContainsFunc(all, func(o Line) bool {
		s := through(o.X1, o.Y1, o.X2, o.Y2)
		a, b := s.along(o.X1, o.Y1), s.along(o.X2, o.Y2)
		in := func(x, y float64) bool {
			t := s.along(x, y)
			return math.Abs(s.off(x, y)) < 2*clears && t > min(a, b)-clears && t < max(a, b)+clears
		}
		return in(l.X1, l.Y1) && in(l.X2, l.Y2)
	})
}

// reach is how far an end is drawn out to the line that it should meet, mm, and back how far it is
// drawn back to one that it runs over, a fold farther: a cut that begins there may run on nearly
// alike.
const (
	reach    = 2.0
	back     = 3.0
	backFold = 6.0
)

// parted puts the place where a line that is drawn through goes over into dashes where another
// line crosses it: the first dash may begin at once.
func parted(all []Line) []Line {
	out := slices.Clone(all)
	for i := range out {
		for k := range out {
			a, b := &out[i], &out[k]
			if a.Fold || !b.Fold || !alike(*a, *b) {
				continue
			}
			for end := range 2 {
				x, y := a.end(end)
				bx, by := b.end(1 - end)
				if math.Hypot(bx-x, by-y) > longest {
					continue
				}
				best := longest
				self := through(a.X1, a.Y1, a.X2, a.Y2)
				mx, my := x, y
				for _, o := range all {
					if cx, cy, meets := self.meets(through(o.X1, o.Y1, o.X2, o.Y2)); meets && o.beside(cx, cy) {
						if d := math.Hypot(cx-x, cy-y); d < best {
							mx, my, best = cx, cy, d
						}
					}
				}
				a.put(end, mx, my)
				b.put(1-end, mx, my)
			}
		}
	}
	return out
}

// whole puts lines together that lie on one and only part where another was found before.
func whole(all []Line) []Line {
	out := slices.Clone(all)
	for again := true; again; {
		again = false
		for i := 0; i < len(out) && !again; i++ {
			for k := 0; k < len(out) && !again; k++ {
				a, b := out[i], out[k]
				if i == k || a.Fold != b.Fold || !alike(a, b) {
					continue
				}
				s := through(a.X1, a.Y1, a.X2, a.Y2)
				ends := []float64{s.along(a.X1, a.Y1), s.along(a.X2, a.Y2), s.along(b.X1, b.Y1), s.along(b.X2, b.Y2)}
				if max(min(ends[0], ends[1]), min(ends[2], ends[3]))-min(max(ends[0], ends[1]), max(ends[2], ends[3])) > 2*clears+leastGap {
					continue
				}
				slices.Sort(ends)
				out[i].X1, out[i].Y1 = s.at(ends[0])
				out[i].X2, out[i].Y2 = s.at(ends[3])
				out = slices.Delete(out, k, k+1)
				again = true
			}
		}
	}
	return out
}

// alike tells two lines that lie on one.
func alike(a, b Line) bool {
	s := through(a.X1, a.Y1, a.X2, a.Y2)
	return math.Abs(s.off(b.X1, b.Y1)) < halfStroke && math.Abs(s.off(b.X2, b.Y2)) < halfStroke
}

// joined draws the ends of lines out, or back, to the lines that they stop beside.
func joined(all []Line) []Line {
	out := slices.Clone(all)
	for i := range out {
		for end := range 2 {
			x, y := all[i].end(end)
			farX, farY := all[i].end(1 - end)
			bestX, bestY, best := x, y, math.Inf(1)
			self := through(all[i].X1, all[i].Y1, all[i].X2, all[i].Y2)
			for k, o := range all {
				if k == i {
					continue
				}
				mx, my, meets := self.meets(through(o.X1, o.Y1, o.X2, o.Y2))
				d, most := math.Hypot(mx-x, my-y), reach
				if math.Hypot(mx-farX, my-farY) < all[i].Length() {
					if most = back; all[i].Fold {
						most = backFold
					}
				}
				if meets && d < most && d < best && d < all[i].Length()/3 && o.beside(mx, my) {
					bestX, bestY, best = mx, my, d
				}
			}
			out[i].put(end, bestX, bestY)
		}
	}
	return slices.DeleteFunc(out, func(l Line) bool { return l.Length() < reach })
}

func (l Line) end(n int) (x, y float64) {
	if n == 0 {
		return l.X1, l.Y1
	}
	return l.X2, l.Y2
}

func (l *Line) put(n int, x, y float64) {
	if n == 0 {
		l.X1, l.Y1 = x, y
	} else {
		l.X2, l.Y2 = x, y
	}
}

// beside tells a place on a line, or a little beyond its ends.
func (l Line) beside(x, y float64) bool {
	s := through(l.X1, l.Y1, l.X2, l.Y2)
	a, b := s.along(l.X1, l.Y1), s.along(l.X2, l.Y2)
	t := s.along(x, y)
	return math.Abs(s.off(x, y)) < reach && t > min(a, b)-reach && t < max(a, b)+reach
}

// meets is where two lines cross; false where they nearly run alike.
func (s straight) meets(o straight) (x, y float64, ok bool) {
	det := s.nx*o.ny - s.ny*o.nx
	if math.Abs(det) < 0.15 {
		return 0, 0, false
	}
	return (s.dist*o.ny - s.ny*o.dist) / det, (s.nx*o.dist - s.dist*o.nx) / det, true
}
