package plotter

import (
	"encoding/json"
	"fmt"
	"math"
	"strings"

	"brevium/core/pattern"
	"brevium/core/strokes"
)

// Report is what a machine did with one sheet, and what came off. Lengths are mm, times seconds.
type Report struct {
	Brevium  int            `json:"brevium"`
	Mat      matReport      `json:"mat"`
	Seed     int64          `json:"seed"`
	Tools    []toolReport   `json:"tools"`
	Strokes  []strokeReport `json:"strokes"`
	Travel   travelReport   `json:"travel"`
	CutMM    float64        `json:"cut_mm"`
	Seconds  float64        `json:"seconds"`
	Tip      float64        `json:"tip"`
	Marks    *marksReport   `json:"marks"`
	Free     []FreePiece    `json:"free"`
	Held     []HeldPiece    `json:"held"`
	Missing  []HeldPiece    `json:"missing"`
	Warnings []Warning      `json:"warnings"`

	sheet [2]float64
	stray int
}

type (
	matReport struct {
		Name   string  `json:"name"`
		Width  float64 `json:"width"`
		Height float64 `json:"height"`
		Load   string  `json:"load"`
	}
	toolReport struct {
		Tool    string  `json:"tool"`
		Force   float64 `json:"force"`
		Passes  int     `json:"passes"`
		Strokes int     `json:"strokes"`
		MM      float64 `json:"mm"`

		through bool
	}
	strokeReport struct {
		N      int          `json:"n"`
		Tool   string       `json:"tool"`
		Kind   strokes.Kind `json:"kind"`
		Points [][2]float64 `json:"points"`
		From   float64      `json:"from"`
		To     float64      `json:"to"`
	}
	travelReport struct {
		MM        float64 `json:"mm"`
		AsWritten float64 `json:"as_written"`
	}
	marksReport struct {
		Wanted   int        `json:"wanted"`
		Found    int        `json:"found"`
		Fit      string     `json:"fit"`
		Turn     float64    `json:"turn"`
		Scale    float64    `json:"scale"`
		Offset   [2]float64 `json:"offset"`
		Residual float64    `json:"residual"`
	}
)

// FreePiece is a piece that came off: how far its outline is from the plan's, how large it is, and
// which of its slits, holes and scores are not there.
type FreePiece struct {
	Piece          string  `json:"piece"`
	Copy           int     `json:"copy"`
	Sheet          int     `json:"sheet"`
	Deviation      float64 `json:"deviation"`
	Area           float64 `json:"area"`
	SlitsMissing   int     `json:"slits_missing"`
	CreasesMissing int     `json:"creases_missing"`

	// Outline is where it lay.
	Outline []pattern.Point `json:"-"`
}

// True tells whether a piece is as it was planned.
func (f FreePiece) True() bool {
	return f.Deviation <= near && f.SlitsMissing == 0 && f.CreasesMissing == 0
}

// HeldPiece is a copy of a piece that did not come off.
type HeldPiece struct {
	Piece string `json:"piece"`
	Copy  int    `json:"copy"`
}

// Warning is something to see to, and where.
type Warning struct {
	Code  string `json:"code"`
	Where string `json:"where"`
	Text  string `json:"text"`
}

func (r *Report) warn(code, where, format string, args ...any) {
	r.Warnings = append(r.Warnings, Warning{code, where, fmt.Sprintf(format, args...)})
}

// AsPlanned tells whether all that was cut came off, as the plan says it should.
func (r *Report) AsPlanned() bool {
	for _, f := range r.Free {
		if f.Piece != "" && !f.True() {
			return false
		}
	}
	return len(r.Free) > 0 && len(r.Held) == 0 && r.stray == 0
}

// Says is the report in a sentence.
func (r *Report) Says() string {
	untrue := 0
	for _, f := range r.Free {
		if f.Piece != "" && !f.True() {
			untrue++
		}
	}
	out := fmt.Sprintf("%s came off in %s, %s cut in %s.", counted(len(r.Free), "piece"), minutes(r.Seconds), mm(math.Round(r.CutMM))+" mm", counted(len(r.Strokes), "stroke"))
	if untrue > 0 {
		out += fmt.Sprintf(" %s not as planned.", counted(untrue, "piece"))
	}
	if len(r.Held) > 0 {
		out += fmt.Sprintf(" %s held to the sheet.", counted(len(r.Held), "piece"))
	}
	for _, w := range r.Warnings {
		out += " " + strings.ToUpper(w.Where[:1]) + w.Where[1:] + ": " + w.Text + "."
	}
	return out
}

func counted(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

func minutes(seconds float64) string {
	s := int(math.Round(seconds))
	if s < 60 {
		return fmt.Sprintf("%d s", s)
	}
	return fmt.Sprintf("%d min %02d s", s/60, s%60)
}

// JSON writes reports, one sheet's or several, each by itself in a list.
func JSON(all []*Report) ([]byte, error) {
	for _, r := range all {
		r.tidy()
	}
	if len(all) == 1 {
		return json.MarshalIndent(all[0], "", " ")
	}
	return json.MarshalIndent(all, "", " ")
}

// tidy rounds to what can be measured, and writes no null but for marks.
func (r *Report) tidy() {
	r.CutMM, r.Travel.MM, r.Travel.AsWritten = hundredth(r.CutMM), hundredth(r.Travel.MM), hundredth(r.Travel.AsWritten)
	r.Tip = math.Round(r.Tip*1e4) / 1e4
	for i := range r.Tools {
		r.Tools[i].MM = hundredth(r.Tools[i].MM)
	}
	none(&r.Tools)
	none(&r.Strokes)
	none(&r.Free)
	none(&r.Held)
	none(&r.Missing)
	none(&r.Warnings)
}

func none[T any](list *[]T) {
	if *list == nil {
		*list = []T{}
	}
}

func hundredth(v float64) float64 { return math.Round(v*100) / 100 }

func rounded(points []pattern.Point) [][2]float64 {
	out := make([][2]float64, 0, len(points))
	for _, p := range points {
		at := [2]float64{math.Round(p.X*1e3) / 1e3, math.Round(p.Y*1e3) / 1e3}
		if len(out) == 0 || out[len(out)-1] != at {
			out = append(out, at)
		}
	}
	return out
}
