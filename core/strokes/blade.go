package strokes

import (
	"math"

	"brevium/core/pattern"
)

// Turn is the least turn, in radians, at which a blade is swung round its tip before it goes on.
const Turn = 10 * math.Pi / 180

// slight is a turn that a blade makes by itself.
const slight = Turn / 10

// swing is the most that a blade is swung in one step, in radians: at 0.1 its tip strays 0.015 mm.
const swing = 0.04

// Blade is a knife that trails: its tip is so many mm behind the head. Heading is which way it points,
// kept from stroke to stroke.
type Blade struct{ Behind, Heading float64 }

// Overrun is the way of a tip along a line; a ring goes on past where it began.
func (l Line) Overrun(overcut float64) []pattern.Point {
	flat := l.Flat()
	if !l.Closed || overcut <= 0 {
		return flat
	}
	for i := 1; overcut > 0; i++ {
		a, b := flat[i-1], flat[i]
		step := b.Sub(a)
		share := min(1, overcut/step.Len())
		flat = append(flat, a.Add(step.Scale(share)))
		overcut -= step.Len()
	}
	return flat
}

// Head is the way the head goes for the tip to go along points: ahead of it by how far the tip trails;
// where the way begins, and at turns over Turn, it goes round the tip on an arc.
func (b *Blade) Head(points []pattern.Point) []pattern.Point {
	if b.Behind <= 0 {
		return points
	}
	var out []pattern.Point
	for _, m := range b.Swings(points) {
		steps := max(1, int(math.Ceil(math.Abs(m.Turn)/swing)))
		for k := 1; k < steps; k++ {
			sin, cos := math.Sincos(m.Turn * float64(k-steps) / float64(steps))
			d := m.To.Sub(m.About)
			out = append(out, m.About.Add(pattern.Pt(d.X*cos-d.Y*sin, d.X*sin+d.Y*cos)))
		}
		out = append(out, m.To)
	}
	return out
}

// Tip is the way the tip makes as the head goes along points. On a straight of length s the angle φ
// between blade and way obeys tan(φ/2) = tan(φ₀/2)·exp(−s/e): the tip is on a tractrix.
func (b *Blade) Tip(points []pattern.Point) []pattern.Point {
	if b.Behind <= 0 {
		return points
	}
	const fine, settled = 0.05, 1e-4
	tip := func(head pattern.Point) pattern.Point {
		sin, cos := math.Sincos(b.Heading)
		return head.Sub(pattern.Pt(cos, sin).Scale(b.Behind))
	}
	out := []pattern.Point{tip(points[0])}
	for i := 1; i < len(points); i++ {
		a, way := points[i-1], points[i].Sub(points[i-1])
		long := way.Len()
		if long < 1e-12 {
			continue
		}
		heading := math.Atan2(way.Y, way.X)
		half := math.Tan(math.Remainder(b.Heading-heading, 2*math.Pi) / 2)
		for s := min(long, fine); ; s = min(long, s+fine) {
			swung := 2 * math.Atan(half*math.Exp(-s/b.Behind))
			if math.Abs(swung) < settled {
				s = long
				swung = 2 * math.Atan(half*math.Exp(-s/b.Behind))
			}
			b.Heading = heading + swung
			out = append(out, tip(a.Add(way.Scale(s/long))))
			if s >= long {
				break
			}
		}
	}
	return out
}

// Move is one move of a head: straight to a place, or round a point by a turn in radians, with the
// clock as seen above 0.
type Move struct {
	To, About pattern.Point
	Turn      float64
}

// Swings is the way of Head as moves: where the blade swings round its tip there is one arc.
func (b *Blade) Swings(points []pattern.Point) []Move {
	ahead := func(at pattern.Point, heading float64) pattern.Point {
		sin, cos := math.Sincos(heading)
		return at.Add(pattern.Pt(cos, sin).Scale(b.Behind))
	}
	var out []Move
	for i := 1; i < len(points); i++ {
		way := points[i].Sub(points[i-1])
		if way.Len() < 1e-9 {
			continue
		}
		if len(out) == 0 {
			out = append(out, Move{To: ahead(points[i-1], b.Heading)})
		}
		heading := math.Atan2(way.Y, way.X)
		turn := math.Remainder(heading-b.Heading, 2*math.Pi)
		switch {
		case len(out) == 1 && turn != 0 || math.Abs(turn) > Turn:
			out = append(out, Move{To: ahead(points[i-1], heading), About: points[i-1], Turn: turn})
		case math.Abs(turn) > slight:
			out = append(out, Move{To: ahead(points[i-1], heading)})
		}
		out = append(out, Move{To: ahead(points[i], heading)})
		b.Heading = heading
	}
	return out
}

// Grams press a blade a millimetre deep.
const Grams = 700

// Force is how hard a tool is pressed for a card of a thickness in mm, in grams: cuts and
// perforations go through with a little to spare, scores and cuts in the face press half way.
func Force(t Tool, thickness float64) int {
	switch t {
	case Print:
		return 50
	case Score, Kiss:
		return int(math.Round(0.5 * thickness * Grams))
	}
	return 10 * int(math.Ceil((thickness+0.04)*Grams/10-1e-9))
}
