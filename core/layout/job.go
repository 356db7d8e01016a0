// Package layout lays rectangular pieces on sheets so that every one can be
// cut free on a paper trimmer: by cuts that run from edge to edge of the part
// being cut.
//
// Lengths are exact. Origin is a sheet's top left corner, x to the right and
// y down. Trim is cut off every edge of a sheet first; kerf is the width each
// cut consumes. Inside the package pieces and sheets are both widened by the
// kerf, so that they may be taken to touch.
//
// How a layout is found, and where the ideas are from:
//
//   - fill.go fills sheets greedily, each piece into the free part it fits
//     best, under several orders of the pieces and rules for the part and the
//     first cut (gathered by Jylänki, "A Thousand Ways to Pack the Bin", 2010).
//   - bound.go proves a least number of sheets by dual feasible functions
//     (Fekete and Schepers 2004; Carlier, Clautiaux and Moukrim 2007; Martello
//     and Vigo 1998). What meets it is done.
//   - exact.go goes through all layouts of up to eight pieces.
//   - search.go and strip.go aim at one sheet fewer by ruin and recreate on
//     slicing trees (Schrimpf and others, "Record breaking optimization results
//     using the ruin and recreate principle", 2000).
//   - columns.go and master.go make fillings of single sheets by what a linear
//     program says their pieces are worth, and dive for a whole plan (Gilmore
//     and Gomory 1961; fillings are sought by trial instead of exactly, as in
//     Monaci and Toth, "A set-covering-based heuristic approach for bin-packing
//     problems", 2006). pattern.go is the quick form of this for sheets that
//     run out.
//   - knapsack.go finds the best filling of a sheet by the values of the linear
//     program exactly, when pieces may come any number of times (Gilmore and
//     Gomory 1965), which proves a bound near the truth for batches (Farley 1990).
//   - crew.go has two workers do this at once; target.go says which cheaper
//     sheets they aim at, and leaves one sheet as empty as can be in the end.
//   - held.go lays around pieces whose places a hand chose.
//   - cutter.go makes cuts of a tree, within the stages and the trimmer there
//     are; order.go puts them in the order of the hand.
package layout

import (
	"fmt"
	"slices"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
)

// Piece is Copies equal rectangles. Turn allows a quarter turn.
type Piece struct {
	Name          string
	Width, Height measure.Length
	Copies        int
	Turn          bool
}

// Job is what to lay out, and on what.
type Job struct {
	Sheets     []paper.Sheet
	Pieces     []Piece
	Trim, Kerf measure.Length
	// Stages limits how often cuts may change direction on the way to a piece,
	// the first direction counted: with two, strips are cut, and pieces off
	// the strips. 0 is no limit; trimming a sheet's edges is not counted.
	Stages int
	// Trimmer is the longest cut there may be; 0 is no limit.
	Trimmer measure.Length
	// Held are sheets on which some pieces keep their places; see held.go.
	Held []Held

	left []int // stages left by kind of sheet, where a held sheet has used some
}

// MostStages is the most that Stages may ask for.
const MostStages = 4

// priced tells whether any sheet has a price.
func (j *Job) priced() bool {
	return slices.ContainsFunc(j.Sheets, func(s paper.Sheet) bool { return s.Cost > 0 })
}

// Prices gives what each kind of sheet costs: a kept offcut nothing, the others
// their price; where no sheet has one, their area in squares of twelve inches.
func (j *Job) Prices() []float64 {
	out, priced := make([]float64, len(j.Sheets)), j.priced()
	for i, s := range j.Sheets {
		switch {
		case s.Offcut:
		case priced:
			out[i] = s.Cost
		default:
			out[i] = area(s.Width, s.Height) / area(12*measure.Inch, 12*measure.Inch)
		}
	}
	return out
}

// room is a kind of sheet without its trim, widened by the kerf.
func (j *Job) room(kind int) (w, h measure.Length) {
	s := &j.Sheets[kind]
	return s.Width - 2*j.Trim + j.Kerf, s.Height - 2*j.Trim + j.Kerf
}

// constrained tells whether not every slicing tree may be cut.
func (j *Job) constrained() bool {
	return j.Stages > 0 || j.left != nil ||
		j.Trimmer > 0 && slices.ContainsFunc(j.Sheets, func(s paper.Sheet) bool { return max(s.Width, s.Height) > j.Trimmer })
}

// MostCopies is the most pieces laid out in one job.
const MostCopies = 20_000

// Check refuses jobs that cannot mean anything, naming the field.
func (j *Job) Check() error {
	if len(j.Sheets) == 0 {
		return fault.New(fault.NoSheets, "sheets", "there is no sheet to cut from; give at least one")
	}
	if len(j.Pieces) == 0 {
		return fault.New(fault.NoPieces, "pieces", "there is nothing to lay out; give at least one piece")
	}
	switch {
	case j.Trim < 0:
		return fault.New(fault.Negative, "trim", "the trim is zero or more")
	case j.Kerf < 0:
		return fault.New(fault.Negative, "kerf", "what a cut takes away is zero or more")
	case j.Stages != 0 && (j.Stages < 2 || j.Stages > MostStages):
		return fault.New(fault.StagesRange, "stages", "the cuts change direction 2 to %d times, or give 0 for no limit", MostStages)
	case j.Trimmer < 0:
		return fault.New(fault.Negative, "trimmer", "the longest cut is more than nothing, or give 0 for no limit")
	}
	names := map[string]bool{}
	for i, s := range j.Sheets {
		field := fmt.Sprintf("sheets[%d]", i)
		switch {
		case s.Width <= 0 || s.Height <= 0:
			return fault.New(fault.TooSmall, field, "a sheet has a width and a height over zero")
		case s.Count == 0 || s.Count < paper.Unlimited:
			return fault.New(fault.CountRange, field+".count", "there is 1 of a sheet or more, or null for as many as needed")
		case !(s.Cost >= 0 && s.Cost <= 1e9):
			return fault.New(fault.CostRange, field+".cost", "a sheet costs zero or more")
		case names[s.Name]:
			return fault.New(fault.NamedTwice, field+".name", "two sheets are named %q; give each its own name", s.Name)
		case min(s.Width, s.Height) <= 2*j.Trim:
			return fault.New(fault.TrimTooWide, "trim", "a trim this wide leaves nothing of the sheet %q", s.Name)
		case j.Trimmer > 0 && min(s.Width, s.Height) > j.Trimmer:
			return fault.New(fault.LongerThanTrimmer, "trimmer", "no cut across the sheet %q is short enough for this trimmer", s.Name)
		case j.Trimmer > 0 && j.Trim > 0 && max(s.Width, s.Height) > j.Trimmer:
			return fault.New(
				fault.LongerThanTrimmer,
				"trim",
				"the trimmer is too short to trim the long edges of the sheet %q; give no trim",
				s.Name,
			)
		case min(s.Width, s.Height)-2*j.Trim <= j.Kerf:
			return fault.New(
				fault.KerfTooWide,
				"kerf",
				"one cut would consume the whole sheet %q; give the width a blade takes away",
				s.Name,
			)
		}
		names[s.Name] = true
	}
	copies := 0
	names = map[string]bool{}
	for i, p := range j.Pieces {
		field := fmt.Sprintf("pieces[%d]", i)
		switch {
		case p.Width <= 0 || p.Height <= 0:
			return fault.New(fault.TooSmall, field, "a piece has a width and a height over zero")
		case p.Copies < 1 || p.Copies > MostCopies:
			return fault.New(fault.CountRange, field+".copies", "copies are 1 to %d, not %d", MostCopies, p.Copies)
		case names[p.Name]:
			return fault.New(fault.NamedTwice, field+".name", "two pieces are named %q; give each its own name", p.Name)
		case !j.fitsSome(p):
			return fault.New(fault.LargerThanSheet, field, "%q is larger than every sheet; make it smaller or add a larger sheet", p.Name)
		case j.constrained() && !j.cutFromSome(i):
			return fault.New(fault.NotCuttable, field, "%q cannot be cut from any sheet with this trimmer and so few turns of the sheet", p.Name)
		}
		names[p.Name] = true
		copies += p.Copies
	}
	if copies > MostCopies {
		return fault.New(fault.CountRange, "pieces", "%d pieces are more than the %d one job can hold; split it", copies, MostCopies)
	}
	return j.checkHeld()
}

// total is how many pieces there are, copies counted.
func (j *Job) total() int {
	n := 0
	for _, p := range j.Pieces {
		n += p.Copies
	}
	return n
}

func (j *Job) fitsSome(p Piece) bool {
	for _, s := range j.Sheets {
		w, h := s.Width-2*j.Trim, s.Height-2*j.Trim
		if p.Width <= w && p.Height <= h || p.Turn && p.Height <= w && p.Width <= h {
			return true
		}
	}
	return false
}

// Rect is a rectangle on a sheet.
type Rect struct{ X, Y, Width, Height measure.Length }

// Placed is one copy where it lies; Width and Height are as placed. Turned tells of a quarter turn.
type Placed struct {
	Rect
	Piece  int // index into the job's pieces
	Copy   int // from 1
	Turned bool
	// Turn is by how many degrees it lies turned with the clock where it is laid by shape: 0, 90, 180
	// or 270.
	Turn int
}

// Quarters is how often it lies turned a quarter with the clock.
func (p Placed) Quarters() int {
	if p.Turned && p.Turn == 0 {
		return 1
	}
	return p.Turn / 90
}

// Cut divides one part of a sheet in two. Across means that At is measured
// across, from the part's left edge; else from its top edge. The sheet is
// part "1"; cutting part p makes p.1 (left or top) and p.2.
type Cut struct {
	N      int
	Part   string
	Across bool
	At     measure.Length
	// X, Y and Length say where the cut lies on the sheet, for drawing.
	X, Y, Length measure.Length
	// Of is the part's own size along the cut's measure.
	Of measure.Length
}

// Laid is one sheet laid out. Offcuts are the whole rectangles left over.
type Laid struct {
	Sheet   paper.Sheet
	Placed  []Placed
	Offcuts []Rect
	Cuts    []Cut
	// ByShape tells that pieces lie by their outlines, for scissors or a machine: Cuts then part the
	// sheet roughly, and Offcuts are the bounds of Shapes, in mm. Outline is that of a kept offcut.
	ByShape bool
	Shapes  [][]pattern.Point
	Outline []pattern.Point
	// Loads are the parts that go onto a machine's mat, one after the other; none where no machine cuts.
	Loads []Rect
}

// Alike reports whether two sheets carry the same pieces in the same places,
// whichever copies they are.
func (l Laid) Alike(m Laid) bool {
	return l.Sheet == m.Sheet && slices.EqualFunc(l.Placed, m.Placed, func(a, b Placed) bool {
		return a.Rect == b.Rect && a.Piece == b.Piece && a.Turned == b.Turned && a.Turn == b.Turn
	})
}

// Copy names one copy of a piece.
type Copy struct{ Piece, Copy int }

// Bound is a proved least number of sheets, how it was proved, and a proved
// least cost.
type Bound struct {
	Sheets int
	How    string
	Cost   float64
}

// Result is a whole layout.
type Result struct {
	Sheets   []Laid
	Unplaced []Copy
	Cost     float64
	// Used is the fraction of the sheets' area that is in pieces.
	Used  float64
	Bound Bound
	// Short tells that the budget was used up: it is the best that was met.
	Short bool
	// Trimmer is how many sheets the trimmer takes for what is laid by shape.
	Trimmer int
}
