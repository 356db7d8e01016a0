package nest

import (
	"encoding/json"
	"fmt"
	"math"
	"slices"

	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/strict"
)

// Method is how a job's file wants to be laid.
const Method = "nested"

// jobFile is a job as it stands in a file; see docs/formats.md.
type (
	jobFile struct {
		Brevium int          `json:"brevium"`
		Method  string       `json:"method"`
		Sheets  []sheetFile  `json:"sheets"`
		Pieces  []pieceFile  `json:"pieces"`
		Trim    measure.Text `json:"trim,omitempty"`
		Kerf    measure.Text `json:"kerf,omitempty"`
		Gap     measure.Text `json:"gap,omitempty"`
		Seconds *float64     `json:"seconds,omitempty"`
		Seed    int64        `json:"seed,omitempty"`
	}
	sheetFile struct {
		Name    string       `json:"name"`
		Width   measure.Text `json:"width"`
		Height  measure.Text `json:"height"`
		Count   *int         `json:"count"`
		Cost    float64      `json:"cost"`
		Offcut  bool         `json:"offcut,omitempty"`
		Outline [][2]float64 `json:"outline,omitempty"`
	}
	pieceFile struct {
		Name      string         `json:"name"`
		Width     measure.Text   `json:"width,omitempty"`
		Height    measure.Text   `json:"height,omitempty"`
		Outline   [][2]float64   `json:"outline,omitempty"`
		Holes     [][][2]float64 `json:"holes,omitempty"`
		Copies    *int           `json:"copies"`
		Turn      *bool          `json:"turn,omitempty"`
		Turns     []int          `json:"turns,omitempty"`
		Direction string         `json:"direction,omitempty"`
	}
)

// Wants tells whether the text of a job asks to be laid by shape.
func Wants(text []byte) bool {
	var f struct {
		Method string `json:"method"`
	}
	return json.Unmarshal(text, &f) == nil && f.Method == Method
}

// ReadJob reads a job that is laid by shape. Outlines are points in mm; a piece without one is the
// rectangle of its width and height. Turns left out follow from the direction of its paper: all, 0 and
// 180 for two-ways, 0 for one-way-up.
func ReadJob(text []byte) (*Job, Effort, error) {
	var f jobFile
	if err := strict.Decode(text, &f); err != nil {
		return nil, Effort{}, err
	}
	if f.Brevium != 1 {
		return nil, Effort{}, fault.New(fault.UnknownFormat, "brevium", "this file is of format %d; this program reads format 1", f.Brevium)
	}
	if f.Seconds != nil && !(*f.Seconds >= 0 && *f.Seconds <= 3600) {
		return nil, Effort{}, fault.New(fault.SecondsRange, "seconds", "seconds are 0 to 3600")
	}
	r := reader{}
	j := &Job{Trim: r.length("trim", f.Trim, 0).MM(), Kerf: r.length("kerf", f.Kerf, 0), Gap: r.length("gap", f.Gap, 0).MM()}
	for i, s := range f.Sheets {
		field := fmt.Sprintf("sheets[%d]", i)
		x := Sheet{Sheet: paper.Sheet{Name: s.Name, Cost: s.Cost, Offcut: s.Offcut, Count: paper.Unlimited, Width: r.length(field+".width", s.Width, -1), Height: r.length(field+".height", s.Height, -1)}}
		if s.Count != nil {
			x.Count = max(0, *s.Count)
		}
		x.Outline = points(s.Outline)
		j.Sheets = append(j.Sheets, x)
	}
	for i, p := range f.Pieces {
		field := fmt.Sprintf("pieces[%d]", i)
		x := Piece{Name: p.Name, Copies: 1, Outline: points(p.Outline), Turns: p.Turns}
		if p.Copies != nil {
			x.Copies = *p.Copies
		}
		for _, h := range p.Holes {
			x.Holes = append(x.Holes, points(h))
		}
		if p.Outline == nil {
			w, h := r.length(field+".width", p.Width, -1).MM(), r.length(field+".height", p.Height, -1).MM()
			x.Outline = []pattern.Point{pattern.Pt(0, 0), pattern.Pt(w, 0), pattern.Pt(w, h), pattern.Pt(0, h)}
		}
		if x.Turns == nil {
			switch d := paper.Direction(p.Direction); d {
			case "", paper.NoDirection, paper.TwoWays, paper.OneWayUp:
				x.Turns = TurnsOf(d)
			default:
				r.failed(field+".direction", fault.New(fault.UnknownChoice, "", "%q is no direction; use none, two-ways or one-way-up", p.Direction))
			}
			if p.Turn != nil && !*p.Turn {
				x.Turns = []int{0, 180}
			}
		}
		j.Pieces = append(j.Pieces, x)
	}
	if r.err != nil {
		return nil, Effort{}, r.err
	}
	e := Effort{Seconds: 1, Seed: f.Seed}
	if f.Seconds != nil {
		e.Seconds = *f.Seconds
	}
	return j, e, j.Check()
}

// TurnsOf are the turns that a paper's direction allows.
func TurnsOf(d paper.Direction) []int {
	switch d {
	case paper.TwoWays:
		return []int{0, 180}
	case paper.OneWayUp:
		return []int{0}
	}
	return Quarters
}

type reader struct{ err error }

func (r *reader) failed(field string, err error) {
	if r.err == nil {
		r.err = fault.At(field, err)
	}
}

// length reads a length in mm; left out it is what is usual, or refused where that is below 0.
func (r *reader) length(field string, t measure.Text, usual measure.Length) measure.Length {
	if t == "" && usual >= 0 {
		return usual
	}
	l, err := t.Length(measure.MM)
	if err != nil {
		r.failed(field, err)
	}
	return l
}

func points(in [][2]float64) []pattern.Point {
	var out []pattern.Point
	for _, p := range in {
		out = append(out, pattern.Pt(p[0], p[1]))
	}
	return out
}

// The result as it is written.
type (
	resultFile struct {
		Brevium  int        `json:"brevium"`
		Method   string     `json:"method"`
		Sheets   []laidFile `json:"sheets"`
		Unplaced []copyFile `json:"unplaced"`
		Cost     float64    `json:"cost"`
		Used     float64    `json:"used"`
		Trimmer  int        `json:"trimmer"`
		Bound    boundFile  `json:"bound"`
		Seconds  float64    `json:"seconds"`
	}
	laidFile struct {
		Sheet   string         `json:"sheet"`
		Width   measure.Length `json:"width"`
		Height  measure.Length `json:"height"`
		Placed  []placedFile   `json:"placed"`
		Offcuts []offcutFile   `json:"offcuts"`
	}
	placedFile struct {
		Piece string  `json:"piece"`
		Copy  int     `json:"copy"`
		X     float64 `json:"x"`
		Y     float64 `json:"y"`
		Turn  int     `json:"turn"`
	}
	offcutFile struct {
		X       float64      `json:"x"`
		Y       float64      `json:"y"`
		Width   float64      `json:"width"`
		Height  float64      `json:"height"`
		Outline [][2]float64 `json:"outline"`
	}
	copyFile struct {
		Piece string `json:"piece"`
		Copy  int    `json:"copy"`
	}
	boundFile struct {
		Sheets int     `json:"sheets"`
		How    string  `json:"how"`
		Cost   float64 `json:"cost"`
	}
)

func micro(v float64) float64 { return math.Round(v*1e6)/1e6 + 0 }

// JSON writes a layout of a job; seconds is how long it took.
func (j *Job) JSON(r *layout.Result, seconds float64) ([]byte, error) {
	out := resultFile{Brevium: 1, Method: Method, Sheets: []laidFile{}, Unplaced: []copyFile{}, Cost: r.Cost, Used: r.Used, Trimmer: r.Trimmer, Bound: boundFile(r.Bound), Seconds: seconds}
	for _, l := range r.Sheets {
		x := laidFile{Sheet: l.Sheet.Name, Width: l.Sheet.Width, Height: l.Sheet.Height, Placed: []placedFile{}, Offcuts: []offcutFile{}}
		for _, p := range l.Placed {
			x.Placed = append(x.Placed, placedFile{j.Pieces[p.Piece].Name, p.Copy, p.X.MM(), p.Y.MM(), 90 * p.Quarters()})
		}
		for i, o := range l.Shapes {
			at := l.Offcuts[i]
			f := offcutFile{X: at.X.MM(), Y: at.Y.MM(), Width: at.Width.MM(), Height: at.Height.MM()}
			for _, p := range o {
				f.Outline = append(f.Outline, [2]float64{micro(p.X), micro(p.Y)})
			}
			x.Offcuts = append(x.Offcuts, f)
		}
		out.Sheets = append(out.Sheets, x)
	}
	for _, c := range r.Unplaced {
		out.Unplaced = append(out.Unplaced, copyFile{j.Pieces[c.Piece].Name, c.Copy})
	}
	return json.MarshalIndent(out, "", " ")
}

// ReadResult reads back what JSON wrote. It fails when that is no layout of this job, whole and right.
func (j *Job) ReadResult(text []byte) (*layout.Result, error) {
	other := fault.New(fault.OtherJob, "layout", "this layout is not one of these pieces and sheets")
	var f resultFile
	if err := strict.Decode(text, &f); err != nil {
		return nil, err
	}
	if err := j.Check(); err != nil {
		return nil, err
	}
	r := &layout.Result{Trimmer: f.Trimmer}
	named := func(name string) int { return slices.IndexFunc(j.Pieces, func(p Piece) bool { return p.Name == name }) }
	for _, s := range f.Sheets {
		l := layout.Laid{Sheet: paper.Sheet{Name: s.Sheet}}
		for _, p := range s.Placed {
			i := named(p.Piece)
			if i < 0 || p.Turn%90 != 0 || p.Turn < 0 || p.Turn > 270 || !(math.Abs(p.X) < 1e5 && math.Abs(p.Y) < 1e5) {
				return nil, other
			}
			outline, _ := turned(j.Pieces[i], p.Turn)
			at := boundsOf(moved(outline, p.X, p.Y))
			l.Placed = append(l.Placed, layout.Placed{Rect: at, Piece: i, Copy: p.Copy, Turned: p.Turn%180 != 0, Turn: p.Turn})
		}
		r.Sheets = append(r.Sheets, l)
	}
	for _, c := range f.Unplaced {
		i := named(c.Piece)
		if i < 0 {
			return nil, other
		}
		r.Unplaced = append(r.Unplaced, layout.Copy{Piece: i, Copy: c.Copy})
	}
	if j.Wrong(r) != "" {
		return nil, other
	}
	p := j.prepared()
	x := &search{prepared: p, bound: layout.Bound(f.Bound), trimmer: f.Trimmer}
	return x.result(x.stateOf(r)), nil
}
