package draw

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

// Sheet is one sheet laid out, as it is drawn: pieces named, offcuts, and the
// cuts numbered in order with the fence setting of each.
type Sheet struct {
	Laid layout.Laid
	// Label says what is written on a piece and what it is.
	Label func(piece int) PieceLabel
	// Card is what it is a sheet of: an arrow on every piece tells the way its
	// pattern runs. Plain leaves its colours out.
	Card  paper.Card
	Plain bool
	// Key, when set, names the nth placed piece to the page; Kept tells of it
	// whether a hand keeps it where it lies.
	Key   func(n int) string
	Kept  func(n int) bool
	Units measure.Unit
	// Tellings are those of the boxes on the sheet, where several share it: a cut is told in
	// the one in which it has no remainder.
	Tellings []recipe.Telling
	Tick     measure.Tick
}

// PieceLabel is what is written on a piece: its name, and what stands under it
// where there is room; without that its size does. A Mat is drawn as one.
type PieceLabel struct {
	Made        recipe.Telling // its box's; zero is the sheet's
	Name, Under string
	Mat         bool
	// Gives are the outlines of what comes out of it, where that is not the
	// whole rectangle.
	Gives [][]pattern.Point
}

// Picture draws the sheet. Its origin is the sheet's top left corner.
func (s Sheet) Picture() *Picture {
	w, h := s.Laid.Sheet.Width.MM(), s.Laid.Sheet.Height.MM()
	p := newPicture(s.Laid.Sheet.Name+" with "+pieces(len(s.Laid.Placed)), w, h, s.margin())
	edge := rect(0, 0, w, h)
	if s.Laid.Outline != nil {
		edge = s.Laid.Outline
	}
	area := p.polygon(SheetArea, edge...)
	if !s.Plain {
		area.Fill = From{Card: s.Card}.fill(w, h)
	}
	if s.Laid.ByShape {
		p.polygon(Offcut, edge...) // all that is no piece
	}
	for k, o := range s.Laid.Offcuts {
		if s.Laid.ByShape {
			s.shapedOffcut(p, o, s.Laid.Shapes[k])
			continue
		}
		s.offcut(p, o)
	}
	for n, pl := range s.Laid.Placed {
		if s.piece(p, n, pl); !s.Laid.ByShape {
			s.words(p, pl)
		}
	}
	for _, pl := range s.Laid.Placed {
		if s.Laid.ByShape { // over the papers of all
			s.words(p, pl)
		}
	}
	s.cuts(p)
	p.grain(s.run(), w, h)
	return p
}

// run is how the grain runs in the sheet as it is drawn; not known of a square one.
func (s Sheet) run() paper.Run { return s.Card.RunOn(s.Laid.Sheet, false) }

// margin is the room round the sheet, in strokes: more where the grain is drawn beside it.
func (s Sheet) margin() float64 {
	if s.run() != paper.RunUnknown {
		return 40
	}
	return 26
}

func pieces(n int) string {
	if n == 1 {
		return "1 piece"
	}
	return fmt.Sprintf("%d pieces", n)
}

func (s Sheet) size(w, h measure.Length) string {
	return fmt.Sprintf("%s × %s", measure.Number(w, s.Units, s.Tick), measure.Number(h, s.Units, s.Tick))
}

// sizeOf is a piece's size in the unit its box is made in.
func (s Sheet) sizeOf(pl layout.Placed) (size string, unit measure.Unit) {
	m := s.Label(pl.Piece).Made
	if m.Tick == 0 {
		m = recipe.Telling{Units: s.Units, Tick: s.Tick}
	}
	return fmt.Sprintf("%s × %s", measure.Number(pl.Width, m.Units, m.Tick), measure.Number(pl.Height, m.Units, m.Tick)), m.Units
}

func (s Sheet) offcut(p *Picture, o layout.Rect) {
	x, y, w, h := o.X.MM(), o.Y.MM(), o.Width.MM(), o.Height.MM()
	p.polygon(Offcut, rect(x, y, w, h)...).About = "Offcut, " + measure.Sides(s.Units, s.Tick, o.Width, o.Height)
	// What can be used of it is told in whole ticks.
	tick := s.Units.Own(s.Tick)
	usable := s.size(measure.Down(o.Width, tick), measure.Down(o.Height, tick))
	if !p.label(area{x, y, w, h}, TextQuiet, "offcut "+usable, "", 20) {
		p.label(area{x, y, w, h}, TextQuiet, "offcut", "", 20)
	}
}

// shapedOffcut is one of any shape: its name stands where there is most room in it.
func (s Sheet) shapedOffcut(p *Picture, o layout.Rect, outline []pattern.Point) {
	p.polygon(Offcut, outline...).About = "Offcut, in a frame of " + measure.Sides(s.Units, s.Tick, o.Width, o.Height)
	at, room := roomiest(outline)
	p.label(area{at.X - room, at.Y - room, 2 * room, 2 * room}, TextQuiet, "offcut", "", 20)
}

// roomiest is of many places in an outline the one that is farthest from its edges, and how far.
func roomiest(outline []pattern.Point) (at pattern.Point, room float64) {
	const tries = 16
	lo, hi := pattern.Bounds(outline)
	for i := range tries {
		for k := range tries {
			q := pattern.Pt(lo.X+(hi.X-lo.X)*(float64(i)+0.5)/tries, lo.Y+(hi.Y-lo.Y)*(float64(k)+0.5)/tries)
			if !pattern.Contains(outline, q) {
				continue
			}
			near := math.Inf(1)
			for n, a := range outline {
				near = min(near, pattern.Segment{A: a, B: outline[(n+1)%len(outline)]}.Distance(q))
			}
			if near > room {
				at, room = q, near
			}
		}
	}
	return at, room
}

// cuts draws the cuts, each number a little way along its own, further where
// another number is in the way.
func (s Sheet) cuts(p *Picture) {
	r := 15 * p.U
	var numbers []pattern.Point
	for _, c := range s.Laid.Cuts {
		a := pattern.Pt(c.X.MM(), c.Y.MM())
		d := pattern.Pt(1, 0)
		if c.Across {
			d = pattern.Pt(0, 1)
		}
		long := c.Length.MM()
		p.line(Cut, a, a.Add(d.Scale(long)))
		along := min(long/2, 22*p.U)
		at := a.Add(d.Scale(along))
		for try := along; try <= long-r; try += r {
			if q := a.Add(d.Scale(try)); !slices.ContainsFunc(numbers, func(n pattern.Point) bool { return n.Sub(q).Len() < 2*r }) {
				at = q
				break
			}
		}
		numbers = append(numbers, at)
		fence := measure.Label(c.At, s.Units, s.Tick)
		if s.Tellings != nil {
			fence = recipe.Whole(c.At, s.Tellings...)
		}
		about := fmt.Sprintf("Cut %d: fence at %s", c.N, fence)
		if c.Narrow() {
			about += "; a narrow part, press on a strip of card laid over it"
		}
		p.circle(CutNumber, at, r).About = about
		p.text(TextNumber, at.Add(pattern.Pt(0, 7*p.U)), 20, Middle, fmt.Sprint(c.N))
	}
}

func (s Sheet) piece(p *Picture, n int, pl layout.Placed) {
	x, y, w, h := pl.X.MM(), pl.Y.MM(), pl.Width.MM(), pl.Height.MM()
	says := s.Label(pl.Piece)
	name, under := says.Name, says.Under
	class := CardShade
	switch {
	case !s.Plain:
		class = Outline
	case says.Mat:
		class = MatOne
	}
	size, unit := s.sizeOf(pl)
	edge, gives := rect(x, y, w, h), says.Gives
	if s.Laid.ByShape && len(gives) == 1 {
		edge, gives = onSheet(gives[0], pl), nil
	}
	shape := p.polygon(class, edge...)
	if s.Laid.ByShape && !s.Plain {
		shape.Fill = From{Card: s.Card}.fill(s.Laid.Sheet.Width.MM(), s.Laid.Sheet.Height.MM())
	}
	shape.About = fmt.Sprintf("%s, %s %s", name, size, unit)
	for _, outline := range gives {
		p.polygon(Guide, onSheet(outline, pl)...)
	}
	if under != "" {
		shape.About = under + ": " + shape.About
	}
	if s.Key != nil {
		shape.Key = s.Key(n)
	}
	if s.Kept != nil && s.Kept(n) {
		shape.About += ", kept where it lies"
		in := 4 * p.U
		p.polygon(Kept, rect(x+in, y+in, w-2*in, h-2*in)...)
	}
}

// words are what is written on a piece.
func (s Sheet) words(p *Picture, pl layout.Placed) {
	x, y, w, h := pl.X.MM(), pl.Y.MM(), pl.Width.MM(), pl.Height.MM()
	says := s.Label(pl.Piece)
	name, under := says.Name, says.Under
	if under == "" {
		under, _ = s.sizeOf(pl)
	}
	s.arrow(p, x+w, y+h, min(w, h))
	if !p.label(area{x, y, w, h}, Text, name, under, 30) {
		// Too small for its name: a letter, which the key explains.
		size := min(22, min(w, h)/p.U*0.8)
		p.text(TextNumber, pattern.Pt(x+w/2, y+h/2+size*p.U*0.35), size, Middle, s.letter(name))
	}
}

// letter is a piece's in the key: by its name, in the order they are placed;
// numbers are the cuts'.
func (s Sheet) letter(name string) string {
	var names []string
	for _, pl := range s.Laid.Placed {
		if n := s.Label(pl.Piece).Name; !slices.Contains(names, n) {
			names = append(names, n)
		}
	}
	n := slices.Index(names, name)
	letter := string(rune('A' + n%26))
	if n >= 26 {
		letter = string(rune('A'+n/26-1)) + letter
	}
	return letter
}

// Names explains the letters of the pieces that are too small for their names.
func (s Sheet) Names() []string {
	var out []string
	scratch := newPicture("", s.Laid.Sheet.Width.MM(), s.Laid.Sheet.Height.MM(), 26)
	for _, pl := range s.Laid.Placed {
		name := s.Label(pl.Piece).Name
		size, unit := s.sizeOf(pl)
		line := fmt.Sprintf("%s  %s, %s %s", s.letter(name), name, size, unit)
		at := area{pl.X.MM(), pl.Y.MM(), pl.Width.MM(), pl.Height.MM()}
		if !scratch.label(at, Text, name, "", 30) && !slices.Contains(out, line) {
			out = append(out, line)
		}
	}
	return out
}

// onSheet puts an outline on its blank where the blank lies, turned as it lies; turned by a quarter, its
// left side comes to be its upper one.
func onSheet(outline []pattern.Point, pl layout.Placed) []pattern.Point {
	at, w, h := pattern.Pt(pl.X.MM(), pl.Y.MM()), pl.Width.MM(), pl.Height.MM()
	if pl.Turned {
		w, h = h, w
	}
	out := make([]pattern.Point, len(outline))
	for i, q := range outline {
		out[i] = at.Add(pattern.Quartered(q, pl.Quarters(), w, h))
	}
	return out
}

// arrow shows the way the pattern runs, in the lower right corner of a piece
// whose shorter side is given: one head for up, two for a pattern that may be
// turned end for end, none for card without a direction.
func (s Sheet) arrow(p *Picture, right, bottom, side float64) {
	if s.Card.Direction.MayTurn() || side < 30*p.U {
		return
	}
	high, x := min(side*0.6, 44*p.U), right-12*p.U
	foot, head := pattern.Pt(x, bottom-8*p.U), pattern.Pt(x, bottom-8*p.U-high)
	p.line(Arrow, foot, head)
	barb := func(at pattern.Point, way float64) {
		p.add(
			Shape{
				Class: Arrow,
				Loops: [][]pattern.Point{{at.Add(pattern.Pt(-5*p.U, way*9*p.U)), at, at.Add(pattern.Pt(5*p.U, way*9*p.U))}},
			},
		)
	}
	barb(head, 1)
	if s.Card.Direction == paper.TwoWays {
		barb(foot, -1)
	}
}

// area is an upright rectangle of a picture, by its top left corner, in mm.
type area struct{ x, y, w, h float64 }

// leastLabel is the smallest text of a drawing, in strokes, of which it is about
// 640 wide: 9 px where two stand beside each other on a page of 1280, and over
// 7 pt where it is printed 150 mm wide.
const leastLabel = 18

// label writes a name, and a second line where there is room, in the middle of
// a rectangle, turned where that is high and narrow. It tells whether the name
// could be written large enough to be read.
func (p *Picture) label(at area, class Class, name, second string, most float64) bool {
	u := p.U
	x, y, w, h := at.x, at.y, at.w, at.h
	mid := pattern.Pt(x+w/2, y+h/2)
	room, angle := w, 0.0
	if h > w*1.4 {
		room, angle = h, -90
	}
	// A letter is about half as wide as it is high.
	fit := func(text string, most float64) float64 {
		return min(most, room/u/(float64(len([]rune(text)))*0.55), min(w, h)/u*0.7)
	}
	size := fit(name, most)
	if size < leastLabel {
		return false
	}
	line := 0.0
	if second != "" && min(w, h)/u > 70 && fit(second, 25) >= leastLabel {
		line = 15 * u
		t := p.text(TextQuiet, mid, fit(second, 25), Middle, second)
		t.Angle = angle
		t.At = mid.Add(shift(0, 22*u, angle))
	}
	first := p.text(class, mid, size, Middle, name)
	first.Angle = angle
	first.At = mid.Add(shift(0, 8*u-line, angle))
	return true
}

// shift turns an offset with a text that is turned by a quarter or not at all.
func shift(x, y, angle float64) pattern.Point {
	sin, cos := math.Sincos(angle * math.Pi / 180)
	return pattern.Pt(x*cos-y*sin, x*sin+y*cos)
}
