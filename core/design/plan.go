package design

import (
	"cmp"
	"encoding/json"
	"fmt"
	"math"
	"slices"

	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
)

// The plan as it is written; see docs/formats.md. Points are [x, y] in mm.
type (
	planFile struct {
		Brevium  int          `json:"brevium"`
		Name     string       `json:"name"`
		Style    string       `json:"style"`
		Units    string       `json:"units"`
		Pieces   []planPiece  `json:"pieces"`
		Finished planFinished `json:"finished"`
		Fits     []planFit    `json:"fits"`
		Checks   []planCheck  `json:"checks"`
		Mats     []planMat    `json:"mats"`
		Steps    []planStep   `json:"steps"`
		Supplies []planSupply `json:"supplies"`
		Minutes  planMinutes  `json:"minutes"`
		// Allowance is the one used, typed or worked out.
		Allowance *planAllowance `json:"allowance,omitempty"`
		Sheets    []planSheets   `json:"sheets"`
		Loose     []planPiece    `json:"loose,omitempty"`
		Bands     []planBand     `json:"bands,omitempty"`
	}
	point     [2]mm
	planPiece struct {
		ID          string       `json:"id"`
		Name        string       `json:"name"`
		Copies      int          `json:"copies"`
		Card        string       `json:"card"`
		Grain       string       `json:"grain"` // length, width or unknown
		Blank       planBlank    `json:"blank"`
		Scores      planScores   `json:"scores"`
		PartScores  []planLine   `json:"part_scores"`
		Outline     []point      `json:"outline"`
		Slits       [][]point    `json:"slits"`
		Holes       [][]point    `json:"holes"`
		Creases     []planCrease `json:"creases"`
		Cuts        []planCut    `json:"cuts"`
		States      []string     `json:"states"`
		RemovedArea mm           `json:"removed_area"`
		// Moves are of a piece that was read from a recipe: those of a plan are in its steps.
		Moves []planMove `json:"moves,omitempty"`
		// Pattern is the whole crease pattern: arcs, glue and faces too.
		Pattern *pattern.Pattern `json:"pattern"`
	}
	planBlank struct {
		Width       measure.Length `json:"width"`
		Height      measure.Length `json:"height"`
		WidthLabel  string         `json:"width_label"`
		HeightLabel string         `json:"height_label"`
	}
	planScores struct {
		Vertical        []measure.Length `json:"vertical"`
		Horizontal      []measure.Length `json:"horizontal"`
		VerticalLabel   []string         `json:"vertical_label"`
		HorizontalLabel []string         `json:"horizontal_label"`
	}
	planLine struct {
		X1 mm `json:"x1"`
		Y1 mm `json:"y1"`
		X2 mm `json:"x2"`
		Y2 mm `json:"y2"`
	}
	planCrease struct {
		planLine
		Angle mm           `json:"angle"`
		Side  pattern.Side `json:"side"`
		// Rolled is bent round something instead of folded: there is no score.
		Rolled bool `json:"rolled,omitempty"`
	}
	planCut struct {
		Kind   string  `json:"kind"`
		Points []point `json:"points"`
		Text   string  `json:"text"`
	}
	planExtent struct {
		Length measure.Length `json:"length"`
		Width  measure.Length `json:"width"`
		Height measure.Length `json:"height"`
	}
	planFinished struct {
		Inside  planExtent `json:"inside"`
		Outside planExtent `json:"outside"`
	}
	planFit struct {
		Outer   string         `json:"outer"`
		Inner   string         `json:"inner"`
		Axis    string         `json:"axis"`
		Gap     measure.Length `json:"gap"`
		Verdict string         `json:"verdict"`
		Account []planEntry    `json:"account"`
	}
	planEntry struct {
		Text string         `json:"text"`
		MM   measure.Length `json:"mm"`
	}
	planCheck struct {
		ID      string `json:"id"`
		Verdict string `json:"verdict"`
		Piece   string `json:"piece"`
		Text    string `json:"text"`
		// Account is how it was worked out, where something is added up.
		Account []planSum `json:"account,omitempty"`
	}
	planSum struct {
		Text  string `json:"text"`
		Value string `json:"value"`
	}
	planBand struct {
		ID     string           `json:"id"`
		Axis   string           `json:"axis"`
		At     measure.Length   `json:"at"`
		Width  measure.Length   `json:"width"`
		Lap    measure.Length   `json:"lap"`
		Join   string           `json:"join"`
		Blank  planBlank        `json:"blank"`
		Scores []measure.Length `json:"scores"`
		Girth  measure.Length   `json:"girth"`
		Strips int              `json:"strips"`
	}
	planMat struct {
		ID        string         `json:"id"`
		Piece     string         `json:"piece"`
		Face      string         `json:"face"`
		Layer     int            `json:"layer"`
		Width     measure.Length `json:"width"`
		Height    measure.Length `json:"height"`
		Copies    int            `json:"copies"`
		Direction string         `json:"direction"`
		// Outline is what is cut, from its own top left corner; without one it is a rectangle.
		Outline []point `json:"outline,omitempty"`
	}
	planStep struct {
		N     int        `json:"n"`
		Piece string     `json:"piece"`
		Kind  string     `json:"kind"`
		Text  string     `json:"text"`
		Moves []planMove `json:"moves,omitempty"`
	}
	planMove struct {
		Key   string   `json:"key"`
		Kind  string   `json:"kind"`
		Piece string   `json:"piece"`
		Text  string   `json:"text"`
		Needs []string `json:"needs"`
	}
	planSupply struct {
		ID     string  `json:"id"`
		Amount float64 `json:"amount"`
		Unit   string  `json:"unit"`
		Text   string  `json:"text"`
		Name   string  `json:"name,omitempty"`
	}
	planMinutes struct {
		One float64 `json:"one"`
		All float64 `json:"all"`
	}
	planAllowance struct {
		MM     measure.Length `json:"mm"`
		Label  string         `json:"mm_label"`
		Solved bool           `json:"solved"`
	}
	planSheets struct {
		Card   string  `json:"card"`
		Sheets int     `json:"sheets"`
		Used   float64 `json:"used"`
	}
)

// mm is a number written to 1e-6, without a negative zero.
type mm float64

func (m mm) MarshalJSON() ([]byte, error) {
	return json.Marshal(math.Round(float64(m)*1e6)/1e6 + 0)
}

func points(in []pattern.Point) []point {
	out := make([]point, len(in))
	for i, p := range in {
		out[i] = point{mm(p.X), mm(p.Y)}
	}
	return out
}

// cutShape is the outline of something that is cut from a blank, where it is no rectangle.
func (r *Result) cutShape(id string) []point {
	for _, b := range r.Blanks {
		for _, g := range b.Gives {
			lo, hi := pattern.Bounds(g.Outline)
			if size := hi.Sub(lo); g.ID == id && math.Abs(pattern.Area(g.Outline)) < size.X*size.Y-0.01 {
				out := make([]pattern.Point, len(g.Outline))
				for i, p := range g.Outline {
					out[i] = p.Sub(lo)
				}
				return points(out)
			}
		}
	}
	return nil
}

func line(s pattern.Segment) planLine {
	return planLine{mm(s.A.X), mm(s.A.Y), mm(s.B.X), mm(s.B.Y)}
}

// Plan writes the result as a plan file.
func (r *Result) Plan() ([]byte, error) {
	in := &r.Inputs
	f := planFile{
		Brevium: 1, Name: in.Name, Style: in.Style, Units: string(in.Units),
		Finished: planFinished{planExtentOf(r.Inside.Free(in.Units)), planExtentOf(r.Outside.Taken(in.Units))},
		Pieces:   []planPiece{}, Fits: []planFit{}, Checks: []planCheck{}, Mats: []planMat{},
		Steps: []planStep{}, Supplies: []planSupply{}, Sheets: []planSheets{},
		Minutes: planMinutes{math.Round(r.One*10) / 10, math.Round(r.All*10) / 10},
	}
	for i, p := range r.Parts {
		to := &f.Pieces
		if p.Loose {
			to = &f.Loose
		}
		*to = append(*to, planPieceOf(in, p, r.Run(p.ID), r.Scores[i], r.Steps))
	}
	for _, a := range r.Fits {
		x := planFit{Outer: a.Pair.Outer, Inner: a.Pair.Inner, Axis: a.Pair.Axis, Gap: a.Gap, Verdict: string(a.Verdict)}
		for _, l := range a.Lines {
			x.Account = append(x.Account, planEntry{l.Text, l.Amount})
		}
		f.Fits = append(f.Fits, x)
	}
	for _, c := range r.Checks {
		x := planCheck{c.ID, string(c.Verdict), c.Piece, c.Text, nil}
		for _, l := range c.Account {
			x.Account = append(x.Account, planSum(l))
		}
		f.Checks = append(f.Checks, x)
	}
	for _, m := range r.Mats {
		f.Mats = append(f.Mats, planMat{m.ID, m.Piece, m.Face, m.Layer, m.Width, m.Height, in.Copies, string(m.Card.Direction), r.cutShape(m.ID)})
	}
	for _, b := range r.Bands {
		f.Bands = append(f.Bands, planBand{b.PieceID(), b.Axis, b.At, b.Width, b.Lap, b.Join,
			planBlank{b.Strip.Length, b.Width, r.Show(b.Strip.Length), r.Show(b.Width)}, b.Strip.Scores, b.Strip.Girth, b.Strips})
	}
	needs := recipe.Needs(r.Steps)
	for _, s := range r.Steps {
		step := planStep{N: s.N, Piece: s.Piece, Kind: string(s.Kind), Text: s.Text}
		if s.Move != "" {
			step.Moves = []planMove{{s.Key, s.Move, s.Piece, s.Text, needs[s.Key]}}
		}
		f.Steps = append(f.Steps, step)
	}
	for _, s := range r.Supplies {
		f.Supplies = append(f.Supplies, planSupply(s))
	}
	if o := r.Style.Allowance; o != nil {
		a := r.Spec.Lengths[o.ID]
		f.Allowance = &planAllowance{a, r.Show(a), r.Solved}
	}
	for _, s := range r.Stocks {
		f.Sheets = append(f.Sheets, planSheets{s.Card.Name, len(s.Layout.Sheets), s.Layout.Used})
	}
	text, err := json.MarshalIndent(f, "", " ")
	if err != nil {
		return nil, fmt.Errorf("plan: %w", err)
	}
	return text, nil
}

// planPieceOf writes a piece, with its scores and the steps it is cut in.
func planPieceOf(in *Inputs, p Part, run paper.Run, scores recipe.ScoreList, steps []recipe.Step) planPiece {
	// What a ruler scores from edge to edge stops short as little as what the board does.
	vertical, horizontal := slices.Clone(p.Pattern.Scores.Vertical), slices.Clone(p.Pattern.Scores.Horizontal)
	short := []planLine{}
	for _, s := range p.Pattern.Scores.Part {
		switch {
		case !p.Pattern.Through(s):
			short = append(short, line(s))
		case s.A.X == s.B.X:
			vertical = append(vertical, measure.FromMM(s.A.X))
		default:
			horizontal = append(horizontal, measure.FromMM(s.A.Y))
		}
	}
	slices.Sort(vertical)
	slices.Sort(horizontal)
	x := planPiece{
		ID:     p.ID,
		Name:   p.Name,
		Copies: in.Copies * p.Copies(),
		Card:   p.Card.Name,
		Grain:  cmp.Or(string(run), "unknown"),
		Blank:  planBlank{p.Pattern.Width, p.Pattern.Height, in.show(p.Pattern.Width), in.show(p.Pattern.Height)},
		Scores: planScores{
			list(vertical),
			list(horizontal),
			labelsOf(in, vertical),
			labelsOf(in, horizontal),
		},
		PartScores:  short,
		Slits:       [][]point{},
		Holes:       [][]point{},
		Creases:     []planCrease{},
		Cuts:        []planCut{},
		Outline:     points(p.Pattern.Cuts()[0]),
		RemovedArea: mm(p.Pattern.Removed()),
		Pattern:     p.Pattern,
	}
	for _, s := range p.Pattern.Slits {
		x.Slits = append(x.Slits, points(s.Path().Open()))
	}
	for _, h := range p.Pattern.Cuts()[1:] {
		x.Holes = append(x.Holes, points(h))
	}
	for _, c := range p.Pattern.Creases {
		x.Creases = append(x.Creases, planCrease{line(c.Segment), mm(c.Angle), c.Side, c.Rolled})
	}
	for _, l := range scores.Lines {
		if l.Hand.Cuts() {
			x.Cuts = append(x.Cuts, planCut{string(l.Hand), points(l.Points()), cutText(steps, p.ID, l)})
		}
	}
	for _, s := range style.States {
		x.States = append(x.States, string(s))
	}
	return x
}

// cutText is the text of the step in which a line of a piece is cut: what scissors or knife cut
// along it, or else the last that cuts the piece.
func cutText(steps []recipe.Step, piece string, l recipe.Line) string {
	last := ""
	for _, told := range steps {
		for _, s := range recipe.Flat([]recipe.Step{told}) {
			if s.Piece != piece || s.Kind != recipe.Cut && s.Kind != recipe.Remove {
				continue
			}
			if last = told.Text; slices.ContainsFunc(s.Cuts, l.Along) {
				return last
			}
		}
	}
	return last
}

// list is never null in JSON.
func list[T any](all []T) []T {
	if all == nil {
		return []T{}
	}
	return all
}

func planExtentOf(e style.Extent) planExtent {
	return planExtent{e.Length, e.Width, e.Height}
}

func labelsOf(in *Inputs, all []measure.Length) []string {
	out := make([]string, len(all))
	for i, l := range all {
		out[i] = in.show(l)
	}
	return out
}
