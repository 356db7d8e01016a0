// Package nest lays pieces of any outline on sheets, for scissors and machines, where core/layout lays
// their rectangles for the trimmer.
//
// Contact is exact, there is no raster: blanks often fill a sheet exactly, and a grid loses just those
// fits. How it goes:
//
//   - convex.go parts outlines into few convex parts.
//   - nofit.go takes the sums of the parts of one shape and the negated parts of another: strictly inside
//     of any of them they overlap (the no-fit polygon; Bennell and Oliveira, "The geometry of nesting
//     problems", 2008). What is left of the sums' edges is where the two touch.
//   - sheet.go keeps for a sheet and a shape the lines on which its corner may lie, and chooses a place:
//     where most of the outline touches, or nearest to a corner.
//   - search.go begins with the trimmer's layout and empties sheets to do with one fewer (ruin and
//     recreate; Schrimpf and others, 2000).
//   - bound.go says how many sheets there are at least: by area, or by pieces no two of which share one.
//   - check.go checks the answer by other means.
//
// Millimetres; origin a sheet's top left, x to the right, y down; turns go with the clock.
package nest

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/tool"
)

// Piece is Copies equal outlines with holes. Turns are those it may lie in, with the clock.
type Piece struct {
	Name    string
	Outline []pattern.Point
	Holes   [][]pattern.Point
	Copies  int
	Turns   []int
}

// Sheet is a kind of sheet; one with an outline is a kept offcut of that shape, on which a piece must lie
// wholly. X and Y are where it is cut through first, to lie on a mat: mm from its left and top edge.
type Sheet struct {
	paper.Sheet
	Outline []pattern.Point
	X, Y    []float64
}

// Job is what to lay, and on what. Gap is the least distance between pieces, in mm. Held are sheets on
// which some pieces keep their places. Machine tells that a machine cuts it, not scissors.
type Job struct {
	Sheets  []Sheet
	Pieces  []Piece
	Trim    float64
	Gap     float64
	Kerf    measure.Length // of the trimmer's layout that is begun with
	Held    []layout.Held
	Machine bool
}

// Limits of a job.
const (
	mostCorners = 400    // of one outline
	mostDrawn   = 12_000 // corners of all outlines
	mostCopies  = 500
	mostPieces  = 200
	MostGap     = 3.0
	holeForUse  = 400 // mm²: smaller holes hold nothing
)

// Quarters are the four turns.
var Quarters = []int{0, 90, 180, 270}

// Check refuses what cannot be laid, naming the field.
func (j *Job) Check() error {
	if len(j.Sheets) == 0 {
		return fault.New(fault.NoSheets, "sheets", "there is no sheet to cut from; give at least one")
	}
	if len(j.Pieces) == 0 {
		return fault.New(fault.NoPieces, "pieces", "there is nothing to lay out; give at least one piece")
	}
	if !(j.Gap >= 0 && j.Gap <= MostGap) {
		return fault.New(fault.OutOfRange, "gap", "the gap between pieces is 0 to 3 mm")
	}
	if len(j.Pieces) > mostPieces {
		return fault.New(fault.CountRange, "pieces", "%d kinds of piece are more than the %d that are laid by shape at once; split the job", len(j.Pieces), mostPieces)
	}
	copies, drawn, names := 0, 0, map[string]bool{}
	for i, p := range j.Pieces {
		field := fmt.Sprintf("pieces[%d]", i)
		switch {
		case names[p.Name]:
			return fault.New(fault.NamedTwice, field+".name", "two pieces are named %q; give each its own name", p.Name)
		case p.Copies < 1 || p.Copies > mostCopies:
			return fault.New(fault.CountRange, field+".copies", "copies are 1 to %d, not %d", mostCopies, p.Copies)
		case len(p.Turns) == 0 || slices.ContainsFunc(p.Turns, func(t int) bool { return !slices.Contains(Quarters, t) }):
			return fault.New(fault.MayNotTurn, field+".turns", "turns are some of 0, 90, 180 and 270")
		}
		if err := ring(field+".outline", p.Outline); err != nil {
			return err
		}
		for k, h := range p.Holes {
			if err := ring(fmt.Sprintf("%s.holes[%d]", field, k), h); err != nil {
				return err
			}
		}
		if !j.Fits(p) {
			return fault.New(fault.LargerThanSheet, field, "%q is larger than every sheet; make it smaller or add a larger sheet", p.Name)
		}
		names[p.Name] = true
		copies += p.Copies
		drawn += len(p.Outline) + len(slices.Concat(p.Holes...))
	}
	if drawn > mostDrawn {
		return fault.New(fault.CountRange, "pieces", "the outlines have %d corners, more than the %d that are laid by shape at once; draw them coarser or split the job", drawn, mostDrawn)
	}
	if copies > mostCopies {
		return fault.New(fault.CountRange, "pieces", "%d pieces are more than the %d that are laid by shape at once; split the job", copies, mostCopies)
	}
	names = map[string]bool{}
	for i, s := range j.Sheets {
		field := fmt.Sprintf("sheets[%d]", i)
		switch {
		case s.Width <= 0 || s.Height <= 0:
			return fault.New(fault.TooSmall, field, "a sheet has a width and a height over zero")
		case s.Count == 0 || s.Count < paper.Unlimited:
			return fault.New(fault.CountRange, field+".count", "there is 1 of a sheet or more, or null for as many as needed")
		case names[s.Name]:
			return fault.New(fault.NamedTwice, field+".name", "two sheets are named %q; give each its own name", s.Name)
		}
		names[s.Name] = true
		if s.Outline != nil {
			if err := ring(field+".outline", s.Outline); err != nil {
				return err
			}
		}
	}
	return j.checkHeld()
}

// On lays the job for a machine: nothing lies within its margin, and a sheet that is larger than the mat
// it takes is cut through first. The mat is the usual one, or of all the one on which a sheet lies in the
// fewest parts.
func (j *Job) On(m tool.Machine) {
	m = m.Usually()
	j.Machine = true
	j.Trim = max(j.Trim, m.Margin.MM())
	for i := range j.Sheets {
		s := &j.Sheets[i]
		s.X, s.Y = nil, nil
		for k, mat := range m.Mats {
			x, y := OnMat(s.Width.MM(), s.Height.MM(), mat.Width, mat.Height)
			if k == 0 || len(x)+len(y) < len(s.X)+len(s.Y) {
				s.X, s.Y = x, y
			}
		}
	}
}

// Fits tells whether a piece goes on some sheet by itself.
func (j *Job) Fits(p Piece) bool {
	return slices.ContainsFunc(j.Sheets, func(s Sheet) bool { return j.fits(p, s) })
}

func (j *Job) fits(p Piece, s Sheet) bool {
	lo, hi := pattern.Bounds(p.Outline)
	w, h := hi.X-lo.X, hi.Y-lo.Y
	wide, high := s.room(j.Trim)
	wide, high = wide+1e-6, high+1e-6
	return slices.ContainsFunc(p.Turns, func(t int) bool {
		if t%180 != 0 {
			return h <= wide && w <= high
		}
		return w <= wide && h <= high
	})
}

// ring refuses what is no outline: too few corners, no area, or one that crosses itself.
func ring(field string, points []pattern.Point) error {
	if len(points) < 3 || len(points) > mostCorners {
		return fault.New(fault.OutOfRange, field, "an outline has 3 to %d corners", mostCorners)
	}
	for _, p := range points {
		if !(math.Abs(p.X) <= 1e4 && math.Abs(p.Y) <= 1e4) {
			return fault.New(fault.OutOfRange, field, "a corner is farther than 10 m away")
		}
	}
	area := math.Abs(pattern.Area(points))
	if area < 0.01 {
		return fault.New(fault.TooSmall, field, "the outline has nothing inside")
	}
	// Taken apart by an odd count of crossings, an outline that crosses itself has another area.
	sum := 0.0
	for _, p := range parts(points) {
		sum += math.Abs(pattern.Area(p))
	}
	if math.Abs(sum-area) > 1e-6*max(1, area) {
		return fault.New(fault.Invalid, field, "the outline crosses itself; draw it once round")
	}
	return nil
}

// prepared are a job's shapes and rooms.
type prepared struct {
	job    *Job
	shapes [][]*shape // by piece, by turn
	rooms  []*room
	prices []float64
	fits   *fits
	square *shape // that goes into what is worth keeping
}

func (j *Job) prepared() *prepared {
	p := &prepared{job: j}
	ids := map[string]int{}
	for i, piece := range j.Pieces {
		var all []*shape
		known := map[int]bool{}
		for _, t := range piece.Turns {
			s := shapeOf(piece, i, t)
			key := s.key()
			if _, is := ids[key]; !is {
				ids[key] = len(ids)
			}
			s.id = ids[key]
			if !known[s.id] { // turned, a rectangle is the same again
				known[s.id] = true
				all = append(all, s)
			}
		}
		p.shapes = append(p.shapes, all)
	}
	trimmer := layout.Job{}
	for k, s := range j.Sheets {
		r := &room{kind: k, width: s.Width.MM() - 2*j.Trim, height: s.Height.MM() - 2*j.Trim}
		r.area = r.width * r.height
		var lacks [][]point
		if s.Outline != nil {
			at := make([]point, len(s.Outline))
			for i, q := range s.Outline {
				at[i] = q.Sub(pattern.Pt(j.Trim, j.Trim))
			}
			r.area = math.Abs(pattern.Area(s.Outline))
			frame := []point{pattern.Pt(0, 0), pattern.Pt(r.width, 0), pattern.Pt(r.width, r.height), pattern.Pt(0, r.height)}
			lacks = parts(frame, at)
		}
		if lacks = append(lacks, s.walls(j.Trim)...); len(lacks) > 0 {
			r.lacks = &shape{id: len(ids) + k, parts: lacks, width: r.width, height: r.height}
		}
		p.rooms = append(p.rooms, r)
		trimmer.Sheets = append(trimmer.Sheets, s.Sheet)
	}
	p.square = shapeOf(Piece{Outline: []point{pattern.Pt(0, 0), pattern.Pt(worthKeeping, 0), pattern.Pt(worthKeeping, worthKeeping), pattern.Pt(0, worthKeeping)}}, 0, 0)
	p.square.id = len(ids) + len(j.Sheets)
	p.fits = newFits(j.Gap, p.square.id+1)
	p.prices = trimmer.Prices()
	return p
}

// turned is a piece's outline turned with the clock, its bounds' top left at 0, 0, and the holes that
// something may lie in.
func turned(p Piece, degrees int) (outline []point, holes [][]point) {
	turn := func(points []point) []point {
		out := make([]point, len(points))
		for i, q := range points {
			for range degrees / 90 {
				q = pattern.Pt(-q.Y, q.X)
			}
			out[i] = q
		}
		return out
	}
	outline = turn(p.Outline)
	lo, _ := pattern.Bounds(outline)
	for _, h := range p.Holes {
		if math.Abs(pattern.Area(h)) >= holeForUse {
			holes = append(holes, moved(turn(h), -lo.X, -lo.Y))
		}
	}
	return moved(outline, -lo.X, -lo.Y), holes
}

// shapeOf is a piece turned with the clock, its bounds' top left at 0, 0.
func shapeOf(p Piece, index, degrees int) *shape {
	s := &shape{piece: index, turn: degrees}
	s.outline, s.holes = turned(p, degrees)
	_, hi := pattern.Bounds(s.outline)
	s.width, s.height = hi.X, hi.Y
	s.area = math.Abs(pattern.Area(s.outline))
	rings := append([][]point{s.outline}, s.holes...)
	for _, h := range s.holes {
		s.area -= math.Abs(pattern.Area(h))
	}
	if s.parts = parts(rings...); len(s.parts) > mostParts { // what is drawn this finely is laid by its outline, made coarser
		s.parts = parts(coarser(s.outline))
	}
	for _, r := range rings {
		for i, a := range r {
			b := r[(i+1)%len(r)]
			if long := b.Sub(a).Len(); long > same {
				s.edges = append(s.edges, edge{a, b, b.Sub(a).Scale(1 / long), long})
				s.round += long
			}
		}
	}
	return s
}

// key is the same for shapes that are.
func (s *shape) key() string {
	var corners [][2]int64
	for _, p := range append(slices.Clone(s.outline), slices.Concat(s.holes...)...) {
		corners = append(corners, [2]int64{cell(p.X), cell(p.Y)})
	}
	slices.SortFunc(corners, func(a, b [2]int64) int {
		if a[0] != b[0] {
			return int(max(-1, min(1, a[0]-b[0])))
		}
		return int(max(-1, min(1, a[1]-b[1])))
	})
	return fmt.Sprint(corners, len(s.holes), cell(s.area))
}
