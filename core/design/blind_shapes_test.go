package design

import (
	"math"

	"brevium/core/pattern"
)

func circle(mid pattern.Point, r float64) []pattern.Point {
	var out []pattern.Point
	for k := range 361 {
		sin, cos := math.Sincos(float64(k) * math.Pi / 180)
		out = append(out, mid.Add(pattern.Pt(r*cos, r*sin)))
	}
	return out
}

func box(mid pattern.Point, w, h float64) []pattern.Point {
	return []pattern.Point{
		mid.Add(pattern.Pt(-w/2, -h/2)), mid.Add(pattern.Pt(w/2, -h/2)), mid.Add(pattern.Pt(w/2, h/2)), mid.Add(pattern.Pt(-w/2, h/2)), mid.Add(pattern.Pt(-w/2, -h/2)),
	}
}

// arcAbout is a quarter circle from p to q.
func arcAbout(mid, p, q pattern.Point) []pattern.Point {
	var out []pattern.Point
	for k := range 91 {
		sin, cos := math.Sincos(float64(k) * math.Pi / 180)
		out = append(out, mid.Add(p.Sub(mid).Scale(cos)).Add(q.Sub(mid).Scale(sin)))
	}
	return out
}
