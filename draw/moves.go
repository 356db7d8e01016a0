package draw

import (
	"slices"
	"strconv"

	"brevium/core/design"
	"brevium/core/hand"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

// Moved is a step of a box with the card that lies before the hand as it was and as it is after.
type Moved struct {
	Step    recipe.Step
	Was, Is hand.Look
	r       *design.Result
	part    int // of r.Parts, −1 for the whole box
	model   *Model
	shows   bool // several moves told as one
}

// Moves are steps of a box, all of them or those with each that is told inside another by itself,
// done again on the table. model is the box's, for what stands in space.
func Moves(r *design.Result, model *Model, steps []recipe.Step) []Moved {
	var table hand.Table
	var out []Moved
	for _, s := range steps {
		m := Moved{Step: s, Was: table.Look(s.Piece), r: r, model: model, shows: len(s.Inner) > 0}
		m.part = slices.IndexFunc(r.Parts, func(p design.Part) bool { return p.ID == s.Piece })
		for _, x := range recipe.Flat([]recipe.Step{s}) {
			// What a hand cannot do is the plan's to say; the rest is shown all the same.
			_ = table.Do(x.Piece, x.Does)
		}
		m.Is = table.Look(s.Piece)
		out = append(out, m)
	}
	return out
}

// The sizes of what is drawn of a move, in mm on the paper: they stay the same however large the
// card is.
const (
	moveStroke      = 0.16 // of one fine stroke
	moveFigure      = 3.0  // height of a number, and the least where many stand close
	moveTop         = 6.6  // above the card, for two rows of numbers
	moveFoot        = 1.2
	moveLeft        = 9.3 // on its left
	moveRight       = 1.5
	leastMoveFigure = 1.2
	moveDot         = 1.5 // between dots of glue
	moveHatch       = 1.6
)

// Picture draws the move into a window of w × h mm: the card as it lies, what was done before in
// grey, the lines of this move in the accent, its numbers at the edge that they are counted from,
// and beside it how the piece stands where something stands.
func (m Moved) Picture(w, h float64) (*Picture, error) {
	p := &Picture{Width: w, Height: h, U: moveStroke, Title: m.Step.Text}
	space, err := m.inSpace()
	if err != nil {
		return nil, err
	}
	paper, cuts := m.Step.Does.(hand.CutPapers)
	flat := m.part >= 0 && m.Is.Width > 0 && (space == nil || m.changes())
	switch {
	case cuts:
		m.paper(p, paper)
	case flat && space != nil:
		part := w * min(0.66, max(0.4, 0.36*m.Is.Width/m.Is.Height)) // long cards have more
		m.flat(p, 0, 0, part, h)
		p.inset(space, part+1, 0, w-part-1, h)
	case flat:
		m.flat(p, 0, 0, w, h)
	case space != nil:
		p.inset(space, 0, 0, w, h)
	}
	return p, nil
}

// changes reports whether the move is seen on the flat card.
func (m Moved) changes() bool {
	d := m.Is.Since(m.Was)
	return m.shows || len(d.Scores)+len(d.Cuts)+len(d.Off)+len(d.Bites)+len(d.Marks)+len(d.Dots)+len(d.Calls)+len(d.Bonds)+len(d.Over)+len(d.Papers)+len(d.Through)+len(d.Panes)+len(d.Tapes) > 0 ||
		d.Width > 0 || d.Traced != nil || d.Round || d.Folded
}

// inSpace is how the piece or the box stands after the move; nil where all lies flat still.
func (m Moved) inSpace() (*Picture, error) {
	switch m.Step.Kind {
	case recipe.Cut, recipe.Score, recipe.Remove, recipe.Decorate:
		return nil, nil
	}
	if m.part >= 0 && !m.Is.Folded && m.Is.Traced == nil {
		return nil, nil // it lies flat still
	}
	if span, moves := SpanOf(m.r, m.model, m.Step); moves {
		return span.Model.Picture("", span.To)
	}
	if m.part < 0 && m.Step.Kind == recipe.Fill {
		return m.model.Picture("", m.model.Open())
	}
	if m.part < 0 {
		return m.model.Look("")
	}
	one := m.model.Piece(m.r.Parts[m.part].ID)
	if one == m.model {
		return nil, nil // a loose piece stands nowhere
	}
	at := one.Open()
	if m.Step.Kind == recipe.Fold {
		at *= creased
	}
	return one.Picture("", at)
}

// inset puts a picture into a part of this one, as large as it goes.
func (p *Picture) inset(in *Picture, x, y, w, h float64) {
	k := min(w/in.Width, h/in.Height)
	dx, dy := x+(w-in.Width*k)/2-in.X*k, y+(h-in.Height*k)/2-in.Y*k
	at := func(q pattern.Point) pattern.Point { return pattern.Pt(dx+q.X*k, dy+q.Y*k) }
	for _, s := range in.Shapes {
		s.Loops = slices.Clone(s.Loops)
		for i, loop := range s.Loops {
			moved := make([]pattern.Point, len(loop))
			for n, q := range loop {
				moved[n] = at(q)
			}
			s.Loops[i] = moved
		}
		s.At, s.Circle, s.Size, s.Key = at(s.At), s.Circle*k, s.Size*k, ""
		if s.Fill != nil {
			f := *s.Fill
			f.Lay = f.Lay.Then(Affine{k, 0, 0, k, dx, dy})
			s.Fill = &f
		}
		p.add(s)
	}
}

// paper draws a blank of paper that is cut, with the papers that it is cut up into.
func (m Moved) paper(p *Picture, c hand.CutPapers) {
	wide, high := c.Width.MM(), c.Height.MM()
	f := p.place(wide, high, 0, 0, p.Width, p.Height)
	p.polygon(Now, f.all(rect(0, 0, wide, high))...)
	if c.Halved {
		p.line(Now, f.at(pattern.Pt(0, high)), f.at(pattern.Pt(wide, 0)))
	}
	for _, part := range c.Strip {
		for _, x := range []float64{part.From.MM(), part.To.MM()} {
			p.line(Now, f.at(pattern.Pt(x, 0)), f.at(pattern.Pt(x, high)))
		}
	}
	m.sizes(p, f, c.Width, c.Height)
}

// placed is where a card lies in a picture: so many times its size, from so far.
type placed struct{ k, x, y float64 }

func (f placed) at(q pattern.Point) pattern.Point { return pattern.Pt(f.x+q.X*f.k, f.y+q.Y*f.k) }

func (f placed) all(points []pattern.Point) []pattern.Point {
	out := make([]pattern.Point, len(points))
	for i, q := range points {
		out[i] = f.at(q)
	}
	return out
}

// place finds room for a card of so many mm in a window, with room for numbers round it.
func (p *Picture) place(wide, high, x, y, w, h float64) placed {
	k := min((w-moveLeft-moveRight)/wide, (h-moveTop-moveFoot)/high)
	return placed{k, x + max(moveLeft, (w-wide*k)/2), y + moveTop + (h-moveTop-moveFoot-high*k)/2}
}

// flat draws the card as it lies, in a part of the picture.
func (m Moved) flat(p *Picture, x, y, w, h float64) {
	f := p.place(m.Is.Width, m.Is.Height, x, y, w, h)
	d := m.Is.Since(m.Was)
	if d.Width > 0 && !m.shows { // it is cut in this move
		p.polygon(Now, f.all(rect(0, 0, m.Is.Width, m.Is.Height))...)
		m.sizes(p, f, m.r.Parts[m.part].Pattern.Width, m.r.Parts[m.part].Pattern.Height)
		return
	}
	m.card(p, f)
	m.now(p, f, d)
	m.counted(p, f)
	m.told(p, f)
}

// card draws what was there before the move, and what is left of the card after it.
func (m Moved) card(p *Picture, f placed) {
	if m.Is.Round {
		for i, loop := range append([]pattern.Loop{m.Is.Traced.Outline}, m.Is.Traced.Holes...) {
			class := Lying
			if i > 0 {
				class = Gone
			}
			p.polygon(class, f.all(loop.Flat())...)
			p.polygon(Edge, f.all(loop.Flat())...)
		}
	} else {
		for _, ring := range m.Is.Parts {
			p.polygon(Lying, f.all(ring)...)
		}
		for _, s := range m.Is.Edges {
			p.line(Edge, f.at(s.A), f.at(s.B))
		}
		if m.Was.Traced != nil {
			p.polygon(Before, f.all(m.Was.Traced.Outline.Flat())...)
		}
	}
	for _, ring := range m.Was.Tapes {
		p.polygon(Before, f.all(ring)...)
	}
	for _, l := range m.Was.Papers {
		p.polygon(MoveMat, f.all(l.Outline)...)
	}
	for _, s := range m.Was.Creases {
		p.line(BeforeScore, f.at(s.A), f.at(s.B))
	}
	for _, s := range m.Was.Cuts {
		p.line(Before, f.at(s.A), f.at(s.B))
	}
	for _, b := range m.Was.Bites {
		p.bite(f, b, Edge)
	}
}

// bite draws a notch or a hole; the side of a notch that is the card's own edge is no line.
func (p *Picture) bite(f placed, b pattern.Loop, class Class) {
	ring := f.all(b.Flat())
	p.polygon(Gone, ring...)
	if len(b) == 2 && b[1].Bulge == 0 { // half round, open at the card's edge
		p.add(Shape{Class: class, Loops: [][]pattern.Point{ring}})
		return
	}
	p.polygon(class, ring...)
}

// now draws what the move does.
func (m Moved) now(p *Picture, f placed, d hand.Look) {
	for _, ring := range d.Off {
		p.add(Shape{Class: NowOff, Loops: hatch([][]pattern.Point{f.all(ring)}, moveHatch)})
	}
	for _, s := range slices.Concat(d.Scores, d.Over) {
		p.line(NowScore, f.at(s.A), f.at(s.B))
	}
	for _, s := range slices.Concat(d.Cuts, d.Marks) {
		p.line(Now, f.at(s.A), f.at(s.B))
	}
	for _, b := range d.Bites {
		p.bite(f, b, Now)
	}
	if d.Traced != nil {
		for _, loop := range append([]pattern.Loop{d.Traced.Outline}, d.Traced.Holes...) {
			p.polygon(Now, f.all(loop.Flat())...)
		}
	}
	if d.Round && !m.shows {
		for _, loop := range append([]pattern.Loop{m.Is.Traced.Outline}, m.Is.Traced.Holes...) {
			p.polygon(Now, f.all(loop.Flat())...)
		}
	}
	if d.Folded && !m.shows {
		for _, s := range m.Is.Creases {
			p.line(NowScore, f.at(s.A), f.at(s.B))
		}
		for _, s := range d.Towards {
			p.towards(f, s)
		}
	}
	for _, ring := range d.Tapes {
		p.polygon(Backing, f.all(ring)...)
		p.polygon(Now, f.all(ring)...)
	}
	for _, q := range d.Dots {
		p.circle(NowDot, f.at(q), 0.9)
	}
	for _, call := range d.Calls {
		m.call(p, f, call)
	}
	for _, l := range d.Papers {
		p.polygon(MoveMat, f.all(l.Outline)...)
		p.polygon(Now, f.all(l.Outline)...)
	}
	for _, loop := range slices.Concat(d.Through, d.Panes) {
		p.polygon(Now, f.all(loop.Flat())...)
	}
	m.glue(p, f, d.Bonds)
	if !m.shows {
		m.scissors(p, f, d.Cuts)
	}
}

// towards marks a fold towards the hand in its middle.
func (p *Picture) towards(f placed, s pattern.Segment) {
	a, b := f.at(s.A), f.at(s.B)
	d := b.Sub(a)
	if d.Len() < 0.01 {
		return
	}
	d = d.Scale(1 / d.Len())
	mid, n := a.Add(b).Scale(0.5), pattern.Pt(-d.Y, d.X)
	half := min(0.8, b.Sub(a).Len()/6)
	p.polygon(ScoreMark, mid.Add(d.Scale(half)), mid.Sub(d.Scale(half)), mid.Add(n.Scale(1.6*half)))
}

// call writes what a part is called, or a panel's number, into it.
func (m Moved) call(p *Picture, f placed, call hand.Call) {
	name := call.Name
	if _, err := strconv.Atoi(name); err != nil {
		name = recipe.English.Name(name)
	}
	// Written along the longer side of its part, and no larger than that has room for.
	lo, hi := pattern.Bounds(f.all(m.Is.Part(call.At)))
	wide, high := hi.X-lo.X, hi.Y-lo.Y
	long, upright := wide, high > 1.5*wide && len(name) > 1
	if upright {
		long = high
	}
	size := min(moveFigure, long/(0.6*float64(len([]rune(name)))), 0.9*min(wide, high))
	mid := pattern.Pt((lo.X+hi.X)/2, (lo.Y+hi.Y)/2)
	if upright {
		t := p.text(TextNumber, mid.Add(pattern.Pt(size/3, 0)), size/p.U, Middle, name)
		t.Angle = -90
		return
	}
	p.text(TextNumber, mid.Add(pattern.Pt(0, size/3)), size/p.U, Middle, name)
}

// glue dots the parts that get adhesive; where they are pressed to stands a ring.
func (m Moved) glue(p *Picture, f placed, bonds []hand.Bond) {
	for _, b := range bonds {
		ring := m.partAt(b.Part)
		if ring == nil {
			continue
		}
		on := f.all(ring)
		lo, hi := pattern.Bounds(on)
		var dots [][]pattern.Point
		for y := lo.Y + moveDot/2; y < hi.Y; y += moveDot {
			for x := lo.X + moveDot/2; x < hi.X; x += moveDot {
				if q := pattern.Pt(x, y); pattern.Contains(on, q) {
					dots = append(dots, []pattern.Point{q, q})
				}
			}
		}
		if len(dots) == 0 { // it is smaller than the dots lie apart
			q := f.at(b.Part)
			dots = append(dots, []pattern.Point{q, q})
		}
		p.polygon(Before, on...)
		p.add(Shape{Class: NowGlue, Loops: dots})
		p.circle(Press, f.at(b.Onto), 0.9)
	}
}

// partAt is the part of the card in which a point lies; what was cut round a template has those
// of the design.
func (m Moved) partAt(q pattern.Point) []pattern.Point {
	if !m.Is.Round {
		return m.Is.Part(q)
	}
	faces, err := m.r.Parts[m.part].Pattern.Faces()
	if err != nil {
		return nil
	}
	i := slices.IndexFunc(faces, func(f pattern.Face) bool { return pattern.Contains(f.Polygon, q) })
	if i < 0 {
		return nil
	}
	return faces[i].Polygon
}

// scissors stand at the end of one of the cuts, their blades on it, where they lie beside the card
// and in the picture.
func (m Moved) scissors(p *Picture, f placed, cuts []pattern.Segment) {
	const long = 4.0
	for _, s := range cuts {
		for _, ends := range [][2]pattern.Point{{s.A, s.B}, {s.B, s.A}} {
			a, d := f.at(ends[0]), f.at(ends[1]).Sub(f.at(ends[0]))
			if d.Len() < 0.01 {
				continue
			}
			d = d.Scale(1 / d.Len())
			grip := a.Sub(d.Scale(long))
			beside := ends[0].Sub(d.Scale(long / 2 / f.k))
			if grip.X < 1 || grip.Y < 1 || grip.X > p.Width-1 || grip.Y > p.Height-1 || m.Is.Part(beside) != nil {
				continue
			}
			n := pattern.Pt(-d.Y, d.X)
			cross := a.Sub(d.Scale(0.4))
			for _, side := range []float64{-1, 1} {
				grip := cross.Sub(d.Scale(2.4)).Add(n.Scale(side * 0.9))
				p.line(Grip, grip, cross.Add(d.Scale(1.8)).Sub(n.Scale(side*0.45)))
				p.circle(Grip, grip.Sub(d.Scale(0.7)), 0.75)
			}
			return
		}
	}
}
