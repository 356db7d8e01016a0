package layout

import (
	"encoding/json"
	"fmt"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/strict"
)

// jobFile is a job as it stands in a file; see docs/formats.md.
type (
	jobSheetFile struct {
		Name   string       `json:"name"`
		Width  measure.Text `json:"width"`
		Height measure.Text `json:"height"`
		Count  *int         `json:"count"`
		Cost   float64      `json:"cost"`
		Offcut bool         `json:"offcut,omitempty"`
	}
	jobPieceFile struct {
		Name   string       `json:"name"`
		Width  measure.Text `json:"width"`
		Height measure.Text `json:"height"`
		Copies *int         `json:"copies"`
		Turn   *bool        `json:"turn"`
	}
	jobFile struct {
		Brevium int            `json:"brevium"`
		Method  string         `json:"method,omitempty"`
		Sheets  []jobSheetFile `json:"sheets"`
		Pieces  []jobPieceFile `json:"pieces"`
		Trim    measure.Text   `json:"trim"`
		Kerf    measure.Text   `json:"kerf"`
		Stages  int            `json:"stages,omitempty"`
		Trimmer measure.Text   `json:"trimmer,omitempty"`
		Seconds *float64       `json:"seconds,omitempty"`
		Seed    int64          `json:"seed,omitempty"`
	}
)

// ReadJob reads a job file and how long to search. Copies left out are 1,
// turn left out is true, seconds left out one.
// Anything unknown, missing or out of range is refused by the field's name.
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
	var job Job
	var first error
	length := func(field string, t measure.Text) measure.Length {
		l, err := t.Length(measure.MM)
		if err != nil && first == nil {
			first = fault.At(field, err)
		}
		return l
	}
	orZero := func(field string, t measure.Text) measure.Length {
		if t == "" {
			return 0
		}
		return length(field, t)
	}
	for i, s := range f.Sheets {
		field := fmt.Sprintf("sheets[%d]", i)
		sheet := paper.Sheet{
			Name: s.Name, Cost: s.Cost, Offcut: s.Offcut, Count: paper.Unlimited,
			Width: length(field+".width", s.Width), Height: length(field+".height", s.Height),
		}
		if s.Count != nil {
			sheet.Count = *s.Count
			if *s.Count < 0 {
				sheet.Count = 0 // refused by Check, as any count below 1
			}
		}
		job.Sheets = append(job.Sheets, sheet)
	}
	for i, p := range f.Pieces {
		field := fmt.Sprintf("pieces[%d]", i)
		piece := Piece{
			Name: p.Name, Copies: 1, Turn: p.Turn == nil || *p.Turn,
			Width: length(field+".width", p.Width), Height: length(field+".height", p.Height),
		}
		if p.Copies != nil {
			piece.Copies = *p.Copies
		}
		job.Pieces = append(job.Pieces, piece)
	}
	job.Trim, job.Kerf = orZero("trim", f.Trim), orZero("kerf", f.Kerf)
	job.Stages, job.Trimmer = f.Stages, orZero("trimmer", f.Trimmer)
	if first != nil {
		return nil, Effort{}, first
	}
	effort := Effort{Seconds: 1, Seed: f.Seed}
	if f.Seconds != nil {
		effort.Seconds = *f.Seconds
	}
	return &job, effort, job.Check()
}

// JSON writes the job as ReadJob reads it, without its held pieces.
func (j *Job) JSON() []byte {
	mm := func(l measure.Length) measure.Text {
		text, _ := l.MarshalJSON()
		return measure.Text(string(text) + " mm")
	}
	f := jobFile{Brevium: 1, Trim: mm(j.Trim), Kerf: mm(j.Kerf), Stages: j.Stages, Trimmer: mm(j.Trimmer)}
	for _, s := range j.Sheets {
		x := jobSheetFile{Name: s.Name, Width: mm(s.Width), Height: mm(s.Height), Cost: s.Cost, Offcut: s.Offcut}
		if s.Count != paper.Unlimited {
			x.Count = &s.Count
		}
		f.Sheets = append(f.Sheets, x)
	}
	for _, p := range j.Pieces {
		f.Pieces = append(f.Pieces, jobPieceFile{p.Name, mm(p.Width), mm(p.Height), &p.Copies, &p.Turn})
	}
	text, err := json.MarshalIndent(f, "", " ")
	if err != nil {
		panic(err) // every field is plain text or a finite number
	}
	return text
}

// The result as it is written.
type (
	resultFile struct {
		Brevium  int         `json:"brevium"`
		Sheets   []sheetFile `json:"sheets"`
		Unplaced []copyFile  `json:"unplaced"`
		Cost     float64     `json:"cost"`
		Used     float64     `json:"used"`
		Bound    boundFile   `json:"bound"`
		Seconds  float64     `json:"seconds"`
		// Settings groups the cuts of all sheets by the fence.
		Settings []settingFile `json:"settings"`
	}
	sheetFile struct {
		Sheet   string         `json:"sheet"`
		Width   measure.Length `json:"width"`
		Height  measure.Length `json:"height"`
		Placed  []placedFile   `json:"placed"`
		Offcuts []rectFile     `json:"offcuts"`
		Cuts    []cutFile      `json:"cuts"`
	}
	rectFile struct {
		X      measure.Length `json:"x"`
		Y      measure.Length `json:"y"`
		Width  measure.Length `json:"width"`
		Height measure.Length `json:"height"`
	}
	placedFile struct {
		Piece string `json:"piece"`
		Copy  int    `json:"copy"`
		rectFile
		Turned bool `json:"turned"`
	}
	cutFile struct {
		N      int            `json:"n"`
		Part   string         `json:"part"`
		Across bool           `json:"across"`
		At     measure.Length `json:"at"`
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
	settingFile struct {
		Fence measure.Length `json:"fence"`
		Cuts  []cutAtFile    `json:"cuts"`
	}
	cutAtFile struct {
		Sheet int `json:"sheet"`
		N     int `json:"n"`
	}
)

// JSON writes the result of a job; seconds is how long it took.
func (r *Result) JSON(job *Job, seconds float64) ([]byte, error) {
	out := resultFile{
		Brevium: 1, Sheets: []sheetFile{}, Unplaced: []copyFile{},
		Cost: r.Cost, Used: r.Used, Bound: boundFile(r.Bound), Seconds: seconds, Settings: []settingFile{},
	}
	for _, s := range r.Settings() {
		x := settingFile{Fence: s.Fence}
		for _, c := range s.Cuts {
			x.Cuts = append(x.Cuts, cutAtFile{c.Sheet + 1, r.Sheets[c.Sheet].Cuts[c.Cut].N})
		}
		out.Settings = append(out.Settings, x)
	}
	for _, s := range r.Sheets {
		sheet := sheetFile{
			Sheet: s.Sheet.Name, Width: s.Sheet.Width, Height: s.Sheet.Height,
			Placed: []placedFile{}, Offcuts: []rectFile{}, Cuts: []cutFile{},
		}
		for _, p := range s.Placed {
			sheet.Placed = append(sheet.Placed, placedFile{job.Pieces[p.Piece].Name, p.Copy, rectFile(p.Rect), p.Turned})
		}
		for _, o := range s.Offcuts {
			sheet.Offcuts = append(sheet.Offcuts, rectFile(o))
		}
		for _, c := range s.Cuts {
			sheet.Cuts = append(sheet.Cuts, cutFile{c.N, c.Part, c.Across, c.At})
		}
		out.Sheets = append(out.Sheets, sheet)
	}
	for _, c := range r.Unplaced {
		out.Unplaced = append(out.Unplaced, copyFile{job.Pieces[c.Piece].Name, c.Copy})
	}
	return json.MarshalIndent(out, "", " ")
}
