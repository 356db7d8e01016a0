package nest

import (
	"math"

	"brevium/core/pattern"
)

// Fine is how far a polygon may stand out from the arcs it goes round, in mm.
const Fine = 0.12

// Round is a polygon round a loop: arcs that bend outwards lie inside its edges, arcs that bend inwards
// have its corners on them, so that nothing of the piece is outside.
func Round(l pattern.Loop) []pattern.Point {
	flat := l.Flat()
	sum := 0.0
	for i, a := range flat {
		sum += a.Cross(flat[(i+1)%len(flat)])
	}
	var out []pattern.Point
	for i, v := range l {
		out = append(out, v.Point)
		if v.Bulge == 0 {
			continue
		}
		to := l[(i+1)%len(l)].Point
		angle := 4 * math.Atan(v.Bulge)
		chord := to.Sub(v.Point)
		radius := chord.Len() / 2 / math.Abs(math.Sin(angle/2))
		n := max(2, int(math.Ceil(math.Abs(angle)/(2*math.Acos(max(0, 1-Fine/radius))))))
		// With y down and the inside on the left of the sum's sign, a bulge above 0 bends to the left of
		// its way as seen: outwards when the loop goes with the clock.
		centre := pattern.Centre(v.Point, to, v.Bulge)
		from := v.Sub(centre)
		turned := func(by, longer float64) pattern.Point {
			sin, cos := math.Sincos(by)
			return centre.Add(pattern.Pt(from.X*cos-from.Y*sin, from.X*sin+from.Y*cos).Scale(longer))
		}
		step := angle / float64(n)
		if (sum > 0) == (v.Bulge > 0) {
			for k := range n {
				out = append(out, turned(step*(float64(k)+0.5), 1/math.Cos(step/2)))
			}
		} else {
			for k := 1; k < n; k++ {
				out = append(out, turned(step*float64(k), 1))
			}
		}
	}
	return out
}
