// Package plotter is a stand-in for a cutting machine with a cutting mat: it reads drawings as they
// are exported for one, cuts them with a blade that trails behind its head, and says what came off,
// stroke by stroke. It ships with the program so that what is exported can be tried, and tested,
// without a machine.
//
// Millimetres; origin the mat's top left, y down; the edge y = 0 is loaded; the sheet lies at 0, 0.
package plotter

import (
	"fmt"
	"math"
	"math/rand"
	"strconv"
	"strings"

	"brevium/core/fault"
	"brevium/core/pattern"
	"brevium/core/strokes"
	"brevium/core/tool"
)

// What a file may weigh, and how many points it may have.
const (
	mostBytes  = 4 << 20
	mostPoints = 1_000_000
)

// File is one sheet as a machine reads it.
type File struct {
	Width, Height float64
	Lines         []strokes.Line
	// Ordered tells that the file says the order, Head that it says the way of the head.
	Ordered, Head bool
	// Marks are the middles of printed marks.
	Marks []pattern.Point
	// Card is how thick the card is, where it is known.
	Card float64
	// Speed in mm/s and Force in grams, where the file says them.
	Speed, Force map[strokes.Tool]float64
}

// Read reads a file by its ending: .svg, or .plt and .hpgl with the sheet's size such as 304.8x304.8.
func Read(ending string, text []byte, sheet string, o Options) (*File, error) {
	if strings.EqualFold(ending, ".svg") {
		return ReadSVG(text)
	}
	w, h, ok := strings.Cut(strings.ToLower(sheet), "x")
	width, err := strconv.ParseFloat(w, 64)
	height, other := strconv.ParseFloat(h, 64)
	if !ok || err != nil || other != nil || !(width > 0 && width < 1e4 && height > 0 && height < 1e4) {
		return nil, fault.New(fault.Invalid, "sheet", "HPGL names no sheet: give its size in mm, such as 304.8x304.8")
	}
	return ReadHPGL(text, width, height, o.Blade)
}

// For is how thick a card a file's own force is meant for, at most a usual one: it sinks p/700 mm, and
// has 0.02 to spare.
func (f *File) For(usual float64) float64 {
	if p := f.Force[strokes.Cut]; p > 0 {
		return max(0.05, min(usual, p/strokes.Grams-0.02))
	}
	return usual
}

// With are the options for a card and a maker's own machine: one that presses too little for it goes
// over its cuts again.
func With(m tool.Machine, mat tool.Mat, card float64) Options {
	o := Usual(mat, card)
	if m.None() {
		return o
	}
	o.Blade, o.Overcut = m.Blade.MM(), m.Overcut.MM()
	if m.ScoreForce > 0 {
		o.Force[strokes.Score] = float64(m.ScoreForce)
	}
	if need := float64(strokes.Force(strokes.Cut, card)); m.Force > 0 && need > float64(m.Force) {
		o.Force[strokes.Cut] = float64(m.Force)
		o.Passes[strokes.Cut] = int(math.Ceil((card + 0.02) * strokes.Grams / float64(m.Force)))
	}
	return o
}

// Options are how a sheet is cut. Lengths are mm, forces grams.
type Options struct {
	Mat            tool.Mat
	Seed           int64
	Card           float64
	Blade, Overcut float64
	// Raw leaves the trailing of the blade as it is: the head goes where the tip should.
	Raw    bool
	Force  map[strokes.Tool]float64
	Passes map[strokes.Tool]int
	Marks  int // 0, 3 or 4
}

// Usual are the options for a card.
func Usual(mat tool.Mat, card float64) Options {
	return Options{
		Mat: mat, Card: card, Blade: 0.25, Overcut: 0.5, Passes: map[strokes.Tool]int{},
		Force: map[strokes.Tool]float64{},
	}
}

// refuse says why a sheet is not cut: the code, where, and what to do.
func refuse(code fault.Code, where, format string, args ...any) *fault.Fault {
	field := string(code)
	if where != "" {
		field += ", " + where
	}
	return fault.New(code, field, format, args...)
}

// fits refuses a sheet or a point that is not on the mat, naming the mat that would do.
func (o *Options) fits(width, height float64) error {
	if width <= o.Mat.Width+0.01 && height <= o.Mat.Height+0.01 {
		return nil
	}
	return refuse(fault.SheetTooLarge, fmt.Sprintf("%s × %s", mm(width), mm(height)), "the mat %s is %s × %s mm; %s", o.Mat.Name, mm(o.Mat.Width), mm(o.Mat.Height), wouldDo(width, height))
}

func wouldDo(width, height float64) string {
	for _, m := range tool.Mats {
		if width <= m.Width+0.01 && height <= m.Height+0.01 {
			return "the mat " + m.Name + " would do"
		}
	}
	return "no mat is large enough: cut it in two sheets"
}

func mm(v float64) string {
	return strings.TrimSuffix(strings.TrimRight(fmt.Sprintf("%.2f", v+0), "0"), ".")
}

// overhang is how far the head may go past the mat's edges; the tip stays on it.
const overhang = 3

// Cut cuts one sheet and compares what comes off with the pieces; without any, all that comes off is
// listed as it is.
func Cut(f *File, o Options, plan []strokes.Piece) (*Report, error) {
	if err := o.fits(f.Width, f.Height); err != nil {
		return nil, err
	}
	r := &Report{Brevium: 1, Mat: matReport{o.Mat.Name, o.Mat.Width, o.Mat.Height, "top"}, Seed: o.Seed, sheet: [2]float64{f.Width, f.Height}}
	found, back, err := find(f, o, rand.New(rand.NewSource(o.Seed)))
	if err != nil {
		return nil, err
	}
	r.Marks = found.report
	lines := make([]strokes.Line, len(f.Lines))
	for i, l := range f.Lines {
		lines[i] = found.place(l)
	}
	if err := o.onMat(lines, f.Head); err != nil {
		return nil, err
	}
	r.Travel.AsWritten = strokes.Travel(lines)
	ordered := strokes.Order(lines, f.Width, f.Height)
	if f.Ordered {
		ordered = asWritten(lines, ordered)
	}
	made, err := r.run(f, o, ordered)
	if err != nil {
		return nil, err
	}
	for i := range made {
		for k, p := range made[i].tip {
			made[i].tip[k] = back(p)
		}
	}
	return r, r.comesOff(made, plan)
}

// onMat refuses lines that leave the mat, at the point that is farthest off.
func (o *Options) onMat(lines []strokes.Line, head bool) error {
	slack := 0.02 // HPGL rounds by half a unit, 0.0125
	if head {
		slack = overhang
	}
	worst, at, most := slack, pattern.Point{}, pattern.Point{}
	for _, l := range lines {
		for _, p := range l.Flat() {
			out := max(-p.X, -p.Y, p.X-o.Mat.Width, p.Y-o.Mat.Height)
			if out > worst {
				worst, at = out, p
			}
			most = pattern.Pt(max(most.X, p.X), max(most.Y, p.Y))
		}
	}
	if worst > slack && (at.X < 0 || at.Y < 0) {
		return refuse(fault.OffMat, fmt.Sprintf("at %s, %s", mm(at.X), mm(at.Y)), "that is before the mat's left or loaded edge; move the drawing onto its sheet")
	}
	if worst > slack {
		return refuse(fault.OffMat, fmt.Sprintf("at %s, %s", mm(at.X), mm(at.Y)), "the tip would leave the mat %s; %s", o.Mat.Name, wouldDo(most.X, most.Y))
	}
	return nil
}

// asWritten are strokes in the order of their file, each of the kind it was found to be.
func asWritten(lines []strokes.Line, ordered []strokes.Stroke) []strokes.Stroke {
	type place struct {
		tool strokes.Tool
		mid  pattern.Point
		long int
	}
	key := func(l strokes.Line) place {
		lo, hi := pattern.Bounds(l.Flat())
		mid := lo.Add(hi)
		return place{l.Tool, pattern.Pt(math.Round(mid.X*1e3), math.Round(mid.Y*1e3)), int(math.Round(l.Length()))}
	}
	kinds := map[place]strokes.Kind{}
	for _, s := range ordered {
		kinds[key(s.Line)] = s.Kind
	}
	out := make([]strokes.Stroke, len(lines))
	for i, l := range lines {
		out[i] = strokes.Stroke{Line: l, Kind: kinds[key(l)]}
	}
	return out
}
