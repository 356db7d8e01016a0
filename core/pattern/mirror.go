package pattern

// Mirrored is the loop with left and right changed over on a card so wide, in mm.
// It runs the other way round, so that it stays clockwise and arcs keep the sign
// of their bulge.
func (l Loop) Mirrored(width float64) Loop {
	n := len(l)
	out := make(Loop, n)
	for i := range l {
		at := l[n-1-i].Point
		out[i] = Vertex{Point{width - at.X, at.Y}, l[(2*n-2-i)%n].Bulge}
	}
	return out
}

// Mirrored is the piece as it is drawn from its inside: left and right changed
// over, everything else as it was. It is for drawing; it folds the other way.
func (p *Pattern) Mirrored() *Pattern {
	w := p.Width.MM()
	flip := func(q Point) Point { return Point{w - q.X, q.Y} }
	segment := func(s Segment) Segment { return Segment{flip(s.A), flip(s.B)} }
	loop := func(l Loop) Loop { return l.Mirrored(w) }
	polygon := func(points []Point) []Point {
		out := make([]Point, len(points))
		for i, q := range points {
			out[len(points)-1-i] = flip(q)
		}
		return out
	}
	out := *p
	out.Outline, out.Holes, out.Openings, out.Creases, out.Slits, out.Glue, out.Marks = loop(p.Outline), nil, nil, nil, nil, nil, nil
	out.Scores = Scores{Horizontal: p.Scores.Horizontal}
	for i := range p.Scores.Vertical {
		out.Scores.Vertical = append(out.Scores.Vertical, p.Width-p.Scores.Vertical[len(p.Scores.Vertical)-1-i])
	}
	for _, s := range p.Scores.Part {
		out.Scores.Part = append(out.Scores.Part, segment(s))
	}
	for _, h := range p.Holes {
		out.Holes = append(out.Holes, loop(h))
	}
	for _, o := range p.Openings {
		o.Loop = loop(o.Loop)
		out.Openings = append(out.Openings, o)
	}
	for _, c := range p.Creases {
		c.Segment = segment(c.Segment)
		out.Creases = append(out.Creases, c)
	}
	for _, s := range p.Slits {
		way := loop(s.Path()) // from its end back, so that its arc bends as it did
		out.Slits = append(out.Slits, Slit{Segment{way[0].Point, way[1].Point}, way[0].Bulge})
	}
	for _, g := range p.Glue {
		g.Area = polygon(g.Area)
		out.Glue = append(out.Glue, g)
	}
	for _, m := range p.Marks {
		m.At = flip(m.At)
		m.Up.X = -m.Up.X
		out.Marks = append(out.Marks, m)
	}
	return &out
}
