package draw

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/dress"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
)

// Net says how a flat piece is drawn.
type Net struct {
	// Pick lays the faces that may carry paper over the drawing, to be pressed on a page: its key is
	// the piece's id and the face's, with a stroke between.
	Pick bool
	// PickAll lays every face over it, tabs and linings too, and calls each by its id.
	PickAll bool
	// Spots are points to be pressed, above the faces.
	Spots []Spot
	// PaperUp is where the pattern of the paper runs up to on the flat piece: −1
	// its top edge, 1 its bottom edge, 0 where it has no direction.
	PaperUp int
	// Run is how the card's grain runs in the piece; "" where it is not known.
	Run paper.Run

	Part style.Part
	// From is the card it is cut from, shown with the papers of its mats; nil
	// leaves all papers plain.
	From *From
	Mats []dress.Mat // those of other pieces are passed over
	// Labels are what is placed on the faces, each over what comes before it.
	Labels []dress.Mat
	Fence  recipe.Fence
	Units  measure.Unit
	Tick   measure.Tick
	// Findings are outlined where they lie.
	Findings []inspect.Finding
	// Plain leaves out numbers and names, for small pictures.
	Plain bool
}

// Spot is a point of a piece that can be pressed on a page.
type Spot struct {
	At         pattern.Point
	Key, About string
}

// Picture draws the piece, outside up: what is removed, mats, glue, scores
// and cuts, the score numbers along the edges as they are read off the board.
func (n Net) Picture() *Picture {
	p := n.frame()
	n.into(p)
	return p
}

// frame is the empty picture of the piece, with room for its numbers.
func (n Net) frame() *Picture {
	margin := 74.0
	if len(n.Part.Pattern.Scores.Vertical)+len(n.Part.Pattern.Scores.Horizontal) > 4 {
		margin = 74 + 2*numberSize // room for numbers that stand farther out
	}
	if n.Plain {
		margin = 6
	}
	return newPicture(n.Part.Name+", flat, outside up", n.Part.Pattern.Width.MM(), n.Part.Pattern.Height.MM(), margin)
}

// TrueSize draws the piece for export and templates, with pens in mm.
func (n Net) TrueSize() *Picture {
	w, h := n.Part.Pattern.Width.MM(), n.Part.Pattern.Height.MM()
	p := &Picture{X: -1, Y: -1, Width: w + 2, Height: h + 2, U: 0.22, Title: n.Part.Name + ", true size"}
	n.Plain = true
	n.into(p)
	// The numbers of its scores stand on the lines, and its name and size in the
	// middle, so that a page found later says what it is.
	list := recipe.Scores(n.Part, n.Fence, n.Tick)
	for _, l := range list.Lines {
		if l.Hand != recipe.Groove {
			continue
		}
		at := l.Path[0].Point.Add(pattern.Pt(1, 5))
		if l.Edge == "top" {
			at = l.Path[0].Add(pattern.Pt(2, -0.8))
		}
		p.text(TextNumber, at, 3.2/p.U, Start, measure.Number(list.Read(l), n.Units, n.Tick))
	}
	size := measure.Number(n.Part.Pattern.Width, n.Units, n.Tick) + " × " + measure.Label(n.Part.Pattern.Height, n.Units, n.Tick)
	p.text(TextQuiet, pattern.Pt(w/2, h/2), 3.2/p.U, Middle, n.Part.Name+", "+size)
	return p
}

func (n Net) into(p *Picture) {
	pat := n.Part.Pattern
	w, h := pat.Width.MM(), pat.Height.MM()
	blank := rect(0, 0, w, h)
	card := p.add(Shape{Class: Card, Loops: pat.Cuts(), Closed: true})
	if n.From != nil {
		card.Fill = n.From.fill(w, h)
	}
	if pat.Removed() > 0.01 {
		p.add(Shape{Class: Remove, Loops: hatch(append(pat.Cuts(), blank), 7*p.U)})
		p.polygon(Blank, blank...)
	}
	for _, m := range n.Mats {
		if m.Piece == n.Part.ID {
			for _, patch := range m.On {
				if m.Side == dress.Inside { // on the back of what is drawn
					p.polygon(Hidden, patch.Corners...).About = "Paper on the " + m.Words
				} else {
					s := p.polygon(matClass(m), patch.Corners...)
					s.Loops = append(s.Loops, openIn(pat.Holes, patch.Corners)...)
					s.About = "Paper on the " + m.Words
					if n.From != nil {
						s.Fill = matFill(m)
					}
				}
			}
		}
	}
	for _, m := range n.Labels {
		if m.Piece != n.Part.ID {
			continue
		}
		for _, patch := range m.On {
			s := p.polygon(matClass(m), patch.Corners...)
			s.About = m.Words
			if n.From != nil {
				s.Fill = matFill(m)
			}
		}
	}
	for _, g := range pat.Glue {
		if !g.Dry {
			n.glue(p, g)
		}
	}
	curved := map[int]bool{}
	for _, arc := range arcs(pat.Creases) {
		n.curve(p, arc)
		for _, i := range arc {
			curved[i] = true
		}
	}
	lines := recipe.Lines(pat, n.Fence, n.Tick)
	for _, l := range lines {
		for _, i := range l.Creases {
			if c := pat.Creases[i]; l.Hand == recipe.Roll {
				p.line(Guide, c.A, c.B)
			} else if c.Angle > 0.01 && !curved[i] {
				n.crease(p, c)
			}
		}
		switch l.Hand {
		case recipe.Short, recipe.Ruler:
			if len(l.Creases) > 0 && curved[l.Creases[0]] {
				continue
			}
			n.bars(p, pattern.Segment{A: l.Path[0].Point, B: l.Path[1].Point})
		case recipe.Slit:
			p.add(Shape{Class: Cut, Loops: [][]pattern.Point{l.Points()}})
		}
	}
	for _, loop := range pat.Cuts() {
		p.polygon(Cut, loop...)
	}
	n.windows(p)
	for _, f := range n.Findings {
		if f.Piece == n.Part.ID {
			for _, w := range f.Where {
				p.polygon(Fault, w...).About = f.Text
			}
		}
	}
	if n.PaperUp != 0 {
		n.paperUp(p)
	}
	if !n.Plain {
		n.names(p)
		n.numbers(p)
		p.grain(n.Run, w, h)
	}
	if n.Pick || n.PickAll {
		n.faces(p)
	}
	for _, s := range n.Spots {
		p.spot(s)
	}
}

// windows doubles the lines of windows, a little inside.
func (n Net) windows(p *Picture) {
	if n.Plain {
		return
	}
	for _, o := range n.Part.Pattern.Openings {
		if o.Kind != "window" {
			continue
		}
		flat := o.Loop.Flat()
		lo, hi := pattern.Bounds(flat)
		mid, within := lo.Add(hi).Scale(0.5), 1-8*p.U/min(hi.X-lo.X, hi.Y-lo.Y)
		for i, q := range flat {
			flat[i] = mid.Add(q.Sub(mid).Scale(within))
		}
		p.polygon(Guide, flat...)
	}
}

// spot draws a dot, and round it what a finger presses.
func (p *Picture) spot(s Spot) {
	p.add(Shape{Class: PointDot, Circle: 8 * p.U, At: s.At})
	p.add(Shape{Class: PointPick, Circle: 26 * p.U, At: s.At, Key: s.Key, About: s.About})
}

// mostDots is about how many dots show one patch of adhesive; a larger one has them wider apart.
const mostDots = 500

// glue dots a patch: on the outside in full, on the inside every other row,
// since it is seen through the card.
func (n Net) glue(p *Picture, g pattern.Glue) {
	step := max(7*p.U, math.Sqrt(math.Abs(pattern.Area(g.Area))/mostDots))
	lo, hi := pattern.Bounds(g.Area)
	var dots [][]pattern.Point
	row := 0
	for y := lo.Y + step; y < hi.Y; y += step {
		row++
		if !g.Outside && row%2 == 0 {
			continue
		}
		for x := lo.X + step*(0.75+0.5*float64(row%2)); x < hi.X; x += step {
			if at := pattern.Pt(x, y); pattern.Contains(g.Area, at) {
				dots = append(dots, []pattern.Point{at, at})
			}
		}
	}
	p.add(Shape{Class: GlueDot, Loops: dots})
}

// crease draws dashes with small ticks: filled when the card folds towards
// the viewer, open when it folds away.
func (n Net) crease(p *Picture, c pattern.Crease) {
	p.line(Score, c.A, c.B)
	length := c.B.Sub(c.A).Len()
	marks := max(1, math.Round(length/(90*p.U)))
	if length < 24*p.U {
		return
	}
	step := c.B.Sub(c.A).Scale(1 / marks)
	for i := range int(marks) {
		part := c
		part.A = c.A.Add(step.Scale(float64(i)))
		part.B = part.A.Add(step)
		n.tick(p, part)
	}
}

// tick is the small mark in the middle of a crease.
func (n Net) tick(p *Picture, c pattern.Crease) {
	class := ScoreOpen
	if c.Side == pattern.Towards {
		class = ScoreMark
	}
	d := c.B.Sub(c.A)
	d = d.Scale(1 / d.Len())
	mid, across, s := c.A.Add(c.B).Scale(0.5), pattern.Pt(-d.Y, d.X), 4.6*p.U
	p.polygon(class, mid.Add(d.Scale(-s)), mid.Add(d.Scale(s)), mid.Add(across.Scale(1.5*s)))
}

// faces lays the faces that may be pressed over the drawing.
func (n Net) faces(p *Picture) {
	all, err := n.Part.Pattern.Faces()
	if err != nil {
		return
	}
	if !n.PickAll {
		all = dress.Open(n.Part.Pattern, all, dress.Outside)
	}
	for _, f := range all {
		s := p.polygon(FacePick, f.Polygon...)
		s.Key, s.About = n.Part.ID+"/"+f.Name, "Paper on the "+f.Plain()
		if n.PickAll {
			s.About = f.Name
		}
	}
	for _, m := range n.Labels {
		if label, lowest := strings.CutSuffix(m.ID, ".1"); lowest && m.Piece == n.Part.ID {
			s := p.polygon(LabelPick, m.On[0].Corners...)
			s.Key, s.About = label, "The "+m.Words+": drag it, or move it with the arrow keys"
		}
	}
}

// paperUp draws an arrow for the way the pattern of the paper runs.
func (n Net) paperUp(p *Picture) {
	w, h, way := n.Part.Pattern.Width.MM(), n.Part.Pattern.Height.MM(), float64(n.PaperUp)
	long := min(h*0.25, 90*p.U)
	foot := pattern.Pt(w/2+30*p.U, h/2-way*long/2)
	head := foot.Add(pattern.Pt(0, way*long))
	p.line(Arrow, foot, head)
	p.add(Shape{Class: Arrow, Loops: [][]pattern.Point{{head.Add(pattern.Pt(-7*p.U, -way*12*p.U)), head, head.Add(pattern.Pt(7*p.U, -way*12*p.U))}}, About: "The pattern of the paper runs up this way"})
}

// bars marks where a score that stops short starts and ends.
func (n Net) bars(p *Picture, s pattern.Segment) {
	for _, end := range []pattern.Point{s.A, s.B} {
		n.bar(p, end, s.B.Sub(s.A))
	}
}

// bar is a short line across the end of a score.
func (n Net) bar(p *Picture, end, along pattern.Point) {
	across := pattern.Pt(-along.Y, along.X).Scale(6 * p.U / along.Len())
	p.line(ScoreMark, end.Add(across), end.Sub(across))
}

// names writes what the faces are, where there is room for it.
// One that has room for a number only gets that, and its line of the key.
func (n Net) names(p *Picture) (key []string) {
	faces, err := n.Part.Pattern.Faces()
	if err != nil {
		return nil // the workspace says so; the lines are drawn all the same
	}
	for _, f := range faces {
		if f.Role != pattern.Panel && f.Role != pattern.Wall {
			continue
		}
		// Names lie along the face's own frame, never upside down.
		frame := f.Frame()
		along, up := frame.Size(f.Polygon)
		turn := math.Atan2(frame.Along.Y, frame.Along.X) * 180 / math.Pi
		if turn > 89 {
			turn -= 180
		} else if turn < -91 {
			turn += 180
		}
		name := f.Plain()
		// A letter is about half as wide as it is high.
		size := min(24, along/p.U/(0.55*float64(len(name)+1)), min(along, up)/p.U*0.8)
		if f.Area() < 0.7*along*up { // a triangle goes without
			continue
		}
		if size < leastName {
			size = min(24, min(along, up)/p.U*0.8)
			if size < leastName {
				continue
			}
			number := fmt.Sprint(len(key) + 1)
			key, name = append(key, number+"  "+name), number
		}
		mid := frame.At(along/2, up/2)
		for _, hole := range f.Holes { // beside a window, where there is room
			foot := math.Inf(1)
			for _, q := range hole {
				foot = min(foot, frame.In(q).Y)
			}
			if pattern.Contains(hole, mid) && foot/p.U*0.8 >= leastName {
				size, mid = min(size, foot/p.U*0.8), frame.At(along/2, foot/2)
			}
		}
		p.text(TextQuiet, mid.Add(shift(0, size*p.U*0.35, turn)), size, Middle, name).Angle = turn
	}
	return key
}

// leastName is the smallest name on a net, in strokes: 9 px where two nets stand
// beside each other on a page of 1280.
const leastName = 22

// Key explains the numbers of the faces that have no room for their names.
func (n Net) Key() []string {
	return n.names(n.frame())
}

// numbers puts the score numbers where they are read: the card against the
// fence as drawn, numbers along its upper edge; then turned a quarter so that
// the top edge comes to the fence, numbers along the edge that is then
// uppermost, standing as they will be read.
func (n Net) numbers(p *Picture) {
	pat := n.Part.Pattern
	w, h := pat.Width.MM(), pat.Height.MM()
	u := p.U
	fenceX, sideX, turn, out := 0.0, w, 90.0, 1.0
	if n.Fence == recipe.Right {
		fenceX, sideX, turn, out = w, 0, -90, -1
	}
	if len(pat.Creases) > 0 { // else it never comes to the board
		p.line(Fence, pattern.Pt(fenceX-out*7*u, 0), pattern.Pt(fenceX-out*7*u, h))
		fence := p.text(TextQuiet, pattern.Pt(fenceX-out*18*u, h/2), leastName, Middle, "first edge")
		fence.Angle = -90 * out
		p.line(Fence, pattern.Pt(0, -7*u), pattern.Pt(w, -7*u))
		if at, gap := widestGap(pat); gap > 220*u { // else the numbers stand there
			p.text(TextQuiet, pattern.Pt(at, -18*u), leastName, Middle, "after a quarter turn")
		} else if gap > 120*u {
			p.text(TextQuiet, pattern.Pt(at, -18*u), leastName, Middle, "turned")
		}
	}
	list := recipe.Scores(n.Part, n.Fence, n.Tick)
	var upright, level tiers
	for _, l := range list.Lines {
		if l.Hand != recipe.Groove {
			continue
		}
		value := measure.Number(list.Read(l), n.Units, n.Tick)
		if l.Edge != "top" {
			at := l.Path[0].X
			off := upright.place(at/u, value)
			p.line(Guide, pattern.Pt(at, -2*u), pattern.Pt(at, -(14+off)*u))
			p.text(TextNumber, pattern.Pt(at, -(20+off)*u), numberSize, Middle, value)
			continue
		}
		at := l.Path[0].Y
		off := level.place(at/u, value)
		p.line(Guide, pattern.Pt(sideX+out*2*u, at), pattern.Pt(sideX+out*(12+off)*u, at))
		p.text(TextNumber, pattern.Pt(sideX+out*(20+off)*u, at), numberSize, Middle, value).Angle = turn
	}
	size := measure.Number(pat.Width, n.Units, n.Tick) + " × " + measure.Label(pat.Height, n.Units, n.Tick)
	p.text(TextNumber, pattern.Pt(w/2, h+38*u), 30, Middle, n.Part.Name+"  "+size)
}

// widestGap is the middle of the widest space between the numbers along the
// upper edge, in mm.
func widestGap(pat *pattern.Pattern) (at, gap float64) {
	stops := append(slices.Clone(pat.Scores.Vertical), pat.Width)
	best, from, widest := 0.0, measure.Length(0), measure.Length(0)
	for _, to := range stops {
		if to-from > widest {
			widest, best = to-from, (from+to).MM()/2
		}
		from = to
	}
	return best, widest.MM()
}

// numberSize is the height of a score number, in strokes.
const numberSize = 34

// tiers keeps numbers along an edge from running into each other: one that
// has no room stands farther out.
type tiers [3]float64 // where each tier is free from

// place gives how far out, in strokes, a number at a place stands.
func (t *tiers) place(at float64, text string) float64 {
	half := float64(len([]rune(text))) * numberSize * 0.26
	best := 0
	for i := range t {
		if t[i] <= at-half {
			best = i
			break
		}
		best = len(t) - 1
	}
	t[best] = at + half + 6
	return float64(best) * numberSize
}

// Caption writes what a drawing of true size shows in its middle, 3 mm high.
func (p *Picture) Caption(text string) {
	p.text(TextQuiet, pattern.Pt(p.X+p.Width/2, p.Y+p.Height/2), 3/p.U, Middle, text)
}

// Outline draws what comes out of a blank.
func (p *Picture) Outline(points []pattern.Point) { p.polygon(Cut, points...) }

// BlankOf draws an uncut blank or mat of w × h mm.
func BlankOf(name string, w, h float64) *Picture {
	p := newPicture(name+" blank", w, h, 6)
	p.polygon(Card, rect(0, 0, w, h)...)
	p.polygon(Cut, rect(0, 0, w, h)...)
	return p
}
