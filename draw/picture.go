// Package draw turns what the core computed into pictures. A Picture is a
// plain list of shapes; the same one is written as SVG for the screen and
// for export, and onto a PDF page.
package draw

import (
	"math"

	"brevium/core/pattern"
)

// Class says what a shape stands for; its Pen says how it looks. The line
// language is told by dashes and marks, never by colour alone.
type Class string

// The classes of lines, areas and texts.
const (
	Cut        Class = "cut"
	Score      Class = "score"
	ScoreMark  Class = "score-mark"      // filled: fold towards you
	ScoreOpen  Class = "score-mark-open" // open: fold away from you
	Remove     Class = "remove"
	GlueDot    Class = "glue"
	Blank      Class = "blank"
	Card       Class = "card"
	CardInside Class = "card-inside"
	CardShade  Class = "card-shade"
	CardDark   Class = "card-dark"
	MatOne     Class = "mat-1"
	MatTwo     Class = "mat-2"
	Outline    Class = "outline" // of what the paper under it fills
	FacePick   Class = "face-pick"
	PointPick  Class = "point-pick"
	LabelPick  Class = "label-pick"
	PointDot   Class = "point-dot"
	Marked     Class = "marked"
	Hidden     Class = "hidden-line"
	Kept       Class = "kept"
	Lit        Class = "lit"     // the groove to score in
	Backing    Class = "backing" // of tape
	Press      Class = "press"   // here, with a finger
	Arrow      Class = "arrow"
	Guide      Class = "guide"
	Fence      Class = "fence"
	Offcut     Class = "offcut"
	SheetArea  Class = "sheet"
	CutNumber  Class = "cut-number"
	Thing      Class = "thing"
	Room       Class = "room"
	Gap        Class = "gap"
	GapBad     Class = "gap-bad"
	Fault      Class = "fault-place"
	Text       Class = "text"
	TextQuiet  Class = "text-quiet"
	TextNumber Class = "text-number"
	TextBad    Class = "text-bad"
)

// The classes of a move's picture: what the hand does now, and what lies there before.
const (
	Now         Class = "now" // cut, drawn or laid
	NowScore    Class = "now-score"
	NowOff      Class = "now-off" // falls off
	NowGlue     Class = "now-glue"
	NowDot      Class = "now-dot" // marked
	Before      Class = "before"
	BeforeScore Class = "before-score"
	Edge        Class = "edge"  // of the card
	Lying       Class = "lying" // card
	Gone        Class = "gone"  // no card
	MoveMat     Class = "move-mat"
	MoveFence   Class = "move-fence"
	Grip        Class = "grip" // of scissors
)

// Pen is how a class looks. Width is in the picture's unit U; an empty
// colour draws nothing.
type Pen struct {
	Stroke, Fill string
	Width        float64
	Dash         []float64
	Bold         bool
	Dots         bool // round ends, so that a line without length is a dot
	Veil         bool // what is under its fill shines through
}

// Ink and the few other colours of the table.
const (
	ink   = "#2b2530"
	berry = "#7a2355"
	quiet = "#6a6270"
	faint = "#958d96"
	brick = "#a3301c"
	pale  = "#cfc4b6" // lines on dark card
)

// Pens gives each class its look.
var Pens = map[Class]Pen{
	Cut:        {Stroke: ink, Width: 1.8},
	Score:      {Stroke: berry, Width: 1.3, Dash: []float64{7, 4}},
	ScoreMark:  {Stroke: berry, Fill: berry, Width: 0.8},
	ScoreOpen:  {Stroke: berry, Fill: "#ffffff", Width: 0.9},
	Remove:     {Stroke: "#a79fa6", Width: 0.7},
	GlueDot:    {Stroke: "#8a6a1f", Width: 1.9, Dots: true},
	Blank:      {Stroke: "#b9b0b4", Width: 0.8, Dash: []float64{2, 3}},
	Card:       {Stroke: ink, Fill: "#fffdf8", Width: 1},
	CardInside: {Stroke: ink, Fill: "#e3d8c6", Width: 1},
	CardShade:  {Stroke: ink, Fill: "#f1e8d9", Width: 1},
	CardDark:   {Stroke: ink, Fill: "#cdbfa9", Width: 1},
	MatOne:     {Stroke: berry, Fill: "#e9cfdd", Width: 0.9},
	MatTwo:     {Stroke: berry, Fill: "#f7ecdf", Width: 0.9},
	Outline:    {Stroke: ink, Width: 1.4},
	FacePick:   {},
	LabelPick:  {},
	PointPick:  {},
	PointDot:   {Stroke: ink, Fill: "#fffdf8", Width: 1.4},
	Marked:     {Stroke: berry, Fill: "#d79bbd", Width: 1.4},
	Hidden:     {Stroke: berry, Width: 1, Dash: []float64{3, 3}},
	Kept:       {Stroke: ink, Width: 3.4},
	Lit:        {Stroke: berry, Width: 7},
	Backing:    {Stroke: "#8a6a1f", Fill: "#fbe9a9", Width: 1.2, Veil: true},
	Press:      {Stroke: berry, Width: 2.2},
	Arrow:      {Stroke: ink, Width: 1.6},
	Guide:      {Stroke: quiet, Width: 0.7},
	Fence:      {Stroke: berry, Width: 4},
	Offcut:     {Stroke: "#8f8590", Fill: "#f3eee4", Width: 0.8, Dash: []float64{4, 3}, Veil: true},
	SheetArea:  {Stroke: ink, Fill: "#ffffff", Width: 1.4},
	CutNumber:  {Stroke: berry, Fill: "#ffffff", Width: 1},
	Thing:      {Stroke: ink, Fill: "#f0d9a8", Width: 1},
	Room:       {Stroke: ink, Fill: "#fffdf8", Width: 1.6},
	Gap:        {Stroke: quiet, Fill: "#ffffff", Width: 0.8, Dash: []float64{3, 3}},
	GapBad:     {Stroke: brick, Fill: "#f6d9d2", Width: 1.2},
	Fault:      {Stroke: brick, Width: 4, Dash: []float64{10, 5}},
	Text:       {Fill: ink},
	TextQuiet:  {Fill: quiet},
	TextNumber: {Fill: ink, Bold: true},
	TextBad:    {Fill: brick, Bold: true},

	Now:         {Stroke: berry, Width: 3.4},
	NowScore:    {Stroke: berry, Width: 3, Dash: []float64{9, 5}},
	NowOff:      {Stroke: berry, Width: 1.2},
	NowGlue:     {Stroke: berry, Width: 4.4, Dots: true},
	NowDot:      {Stroke: berry, Fill: berry, Width: 1},
	Before:      {Stroke: faint, Width: 1},
	BeforeScore: {Stroke: faint, Width: 1, Dash: []float64{5, 4}},
	Edge:        {Stroke: ink, Width: 1.6},
	Lying:       {Fill: "#fbf6ec"},
	Gone:        {Fill: "#ffffff"},
	MoveMat:     {Stroke: faint, Fill: "#efe3d0", Width: 1},
	MoveFence:   {Stroke: ink, Width: 5},
	Grip:        {Stroke: ink, Width: 1.8},
}

// Anchor is the point of a text that stands at its place.
type Anchor string

// Texts stand on their start, middle or end.
const (
	Start  Anchor = "start"
	Middle Anchor = "middle"
	End    Anchor = "end"
)

// Shape is a set of lines, a dot or a text.
type Shape struct {
	Class  Class
	Loops  [][]pattern.Point // lines to draw; filled by the even-odd rule when Closed
	Closed bool
	Circle float64 // radius around At, when over zero
	Label  string  // text at At
	At     pattern.Point
	Size   float64 // text height, in picture units
	Anchor Anchor
	Angle  float64 // text, degrees clockwise
	About  string  // what it is, for a pointer resting on it
	Key    string  // names the shape to a page, where it can be gone to and chosen
	Aside  bool    // a Key for the pointer alone: the page has another way for the keyboard
	Fill   *Fill   // the paper it shows, instead of its pen's colour
	Bare   bool    // no line is drawn round it
}

// Picture is shapes in a window. U is the length, in picture units (mm), of
// one fine pen stroke; widths, texts and marks are multiples of it, so that a
// drawing looks the same whatever it is a drawing of.
type Picture struct {
	X, Y, Width, Height float64
	U                   float64
	Title               string
	Mark                string // tells it from the same picture elsewhere on a page
	Shapes              []Shape
}

// newPicture makes a picture of w × h mm with a margin, its U chosen so that
// the longer side is about 640 strokes.
func newPicture(title string, w, h, margin float64) *Picture {
	u := max(w, h) / 640
	m := margin * u
	return &Picture{X: -m, Y: -m, Width: w + 2*m, Height: h + 2*m, U: u, Title: title}
}

func (p *Picture) add(s Shape) *Shape {
	p.Shapes = append(p.Shapes, s)
	return &p.Shapes[len(p.Shapes)-1]
}

func (p *Picture) polygon(c Class, points ...pattern.Point) *Shape {
	return p.add(Shape{Class: c, Loops: [][]pattern.Point{points}, Closed: true})
}

func (p *Picture) line(c Class, a, b pattern.Point) *Shape {
	return p.add(Shape{Class: c, Loops: [][]pattern.Point{{a, b}}})
}

func (p *Picture) text(c Class, at pattern.Point, size float64, anchor Anchor, label string) *Shape {
	return p.add(Shape{Class: c, At: at, Size: size * p.U, Anchor: anchor, Label: label})
}

func (p *Picture) circle(c Class, at pattern.Point, r float64) *Shape {
	return p.add(Shape{Class: c, At: at, Circle: r})
}

func rect(x, y, w, h float64) []pattern.Point {
	return []pattern.Point{{X: x, Y: y}, {X: x + w, Y: y}, {X: x + w, Y: y + h}, {X: x, Y: y + h}}
}

// hatch fills loops (even-odd) with parallel lines at 45°, every step mm.
func hatch(loops [][]pattern.Point, step float64) [][]pattern.Point {
	// Along a line x + y = c, the parameter is x.
	least, most := math.Inf(1), math.Inf(-1)
	for _, loop := range loops {
		for _, q := range loop {
			least, most = min(least, q.X+q.Y), max(most, q.X+q.Y)
		}
	}
	var out [][]pattern.Point
	for c := math.Ceil(least/step)*step + step/3; c < most; c += step {
		for _, s := range spans(loops, func(q pattern.Point) float64 { return q.X + q.Y - c }, func(q pattern.Point) float64 { return q.X }) {
			out = append(out, []pattern.Point{{X: s[0], Y: c - s[0]}, {X: s[1], Y: c - s[1]}})
		}
	}
	return out
}

// spans cuts loops by the line where side is zero and gives, in order along
// it, the stretches inside.
func spans(loops [][]pattern.Point, side, along func(pattern.Point) float64) [][2]float64 {
	var at []float64
	for _, loop := range loops {
		for i, a := range loop {
			b := loop[(i+1)%len(loop)]
			da, db := side(a), side(b)
			if (da > 0) == (db > 0) {
				continue
			}
			t := da / (da - db)
			at = append(at, along(a)+t*(along(b)-along(a)))
		}
	}
	sortFloats(at)
	var out [][2]float64
	for i := 0; i+1 < len(at); i += 2 {
		if at[i+1]-at[i] > 1e-9 {
			out = append(out, [2]float64{at[i], at[i+1]})
		}
	}
	return out
}
