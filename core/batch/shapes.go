package batch

import (
	"context"
	"encoding/json"
	"slices"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/nest"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/tool"
)

// shapes gives a stock that is cut by shape its sheets, with the outlines of kept offcuts, and how they lie
// on a machine's mat. What a cut takes away is the gap between pieces.
func (g *gathering) shapes(s *Stock) {
	j := s.Shapes
	j.Trim, j.Gap, j.Held = s.Job.Trim.MM(), s.Job.Kerf.MM(), s.Job.Held
	for kind, sheet := range s.Job.Sheets {
		x := nest.Sheet{Sheet: sheet}
		if i := slices.IndexFunc(g.lots, func(l drawer.Lot) bool { return l.ID == s.Lots[kind] && l.ID != 0 }); i >= 0 {
			x.Outline = g.lots[i].Shape.Points()
		}
		j.Sheets = append(j.Sheets, x)
	}
	if g.choices.With == tool.ByMachine {
		j.On(g.machine)
	}
}

// ByShape are stocks that the trimmer has laid, laid by their pieces' outlines, for so many seconds in all;
// made are their boxes. One for which that saves no sheet stays as it is.
func ByShape(ctx context.Context, stocks []Stock, made []*design.Result, seconds float64) ([]Stock, error) {
	out := slices.Clone(stocks)
	several := 0
	for _, s := range stocks {
		if len(s.Layout.Sheets) > 1 {
			several++
		}
	}
	for i := range out {
		s := out[i]
		if len(s.Layout.Sheets) < 2 {
			continue
		}
		s.Shapes = &nest.Job{Trim: s.Job.Trim.MM(), Gap: min(s.Job.Kerf.MM(), nest.MostGap), Kerf: s.Job.Kerf}
		for _, sheet := range s.Job.Sheets {
			s.Shapes.Sheets = append(s.Shapes.Sheets, nest.Sheet{Sheet: sheet})
		}
		for k, p := range s.Job.Pieces {
			one := s.shapeOf(made[s.Origins[k].Item], s.Origins[k].Part)
			one.Name, one.Copies = p.Name, p.Copies
			s.Shapes.Pieces = append(s.Shapes.Pieces, one)
		}
		if s.Shapes.Check() != nil {
			continue
		}
		if err := s.Lay(ctx, layout.Effort{Seconds: seconds / float64(several)}); err != nil {
			return nil, err
		}
		if len(s.Layout.Unplaced) == 0 && len(s.Layout.Sheets) < len(stocks[i].Layout.Sheets) {
			out[i] = s
		}
	}
	return out, nil
}

// shapeOf is the outline of one of a made box's pieces that are cut from the stock's card.
func (s *Stock) shapeOf(r *design.Result, part string) nest.Piece {
	for _, of := range r.Stocks {
		if of.Card.Key() != s.Card.Key() {
			continue
		}
		for k, p := range of.Job.Pieces {
			if p.Name == part {
				return r.Shapes(of)[k]
			}
		}
	}
	return nest.Piece{}
}

// hold gives a stock the held pieces that are still in it.
func (g *gathering) hold(s *Stock) {
	counts := make([]int, len(s.Job.Sheets))
	copies := make([]int, len(s.Job.Pieces))
	for _, h := range g.choices.Held {
		kind := slices.IndexFunc(s.Job.Sheets, func(x paper.Sheet) bool { return x.Name == h.Sheet })
		if h.Card != s.Card.Key() || kind < 0 || s.Job.Sheets[kind].Count == counts[kind] {
			continue
		}
		held := layout.Held{Sheet: kind}
		for _, p := range h.Pieces {
			i := slices.IndexFunc(s.Job.Pieces, func(x layout.Piece) bool { return x.Name == p.Piece })
			if i < 0 || copies[i] == s.Job.Pieces[i].Copies {
				continue
			}
			copies[i]++
			placed := layout.Placed{
				Piece:  i,
				Turned: p.Turned,
				Turn:   p.Turn,
				Rect:   layout.Rect{X: p.X, Y: p.Y, Width: s.Job.Pieces[i].Width, Height: s.Job.Pieces[i].Height},
			}
			if p.Turned {
				placed.Width, placed.Height = placed.Height, placed.Width
			}
			held.Pieces = append(held.Pieces, placed)
		}
		if len(held.Pieces) > 0 {
			counts[kind]++
			s.Job.Held = append(s.Job.Held, held)
		}
	}
}

// shapesFile are a stock's outlines as they are kept; names and sizes are the job's.
type (
	shapesFile struct {
		Machine bool             `json:"machine,omitempty"`
		Trim    float64          `json:"trim,omitempty"`
		Gap     float64          `json:"gap,omitempty"`
		Sheets  []shapeSheetFile `json:"sheets"`
		Pieces  []shapeFile      `json:"pieces"`
	}
	shapeSheetFile struct {
		Outline []pattern.Point `json:"outline,omitempty"`
		X       []float64       `json:"x,omitempty"`
		Y       []float64       `json:"y,omitempty"`
	}
	shapeFile struct {
		Outline []pattern.Point   `json:"outline"`
		Holes   [][]pattern.Point `json:"holes,omitempty"`
		Turns   []int             `json:"turns"`
	}
)

// writeShapes writes a stock's outlines; nothing where it has none.
func (s *Stock) writeShapes() json.RawMessage {
	if s.Shapes == nil {
		return nil
	}
	f := shapesFile{Machine: s.Shapes.Machine, Trim: s.Shapes.Trim, Gap: s.Shapes.Gap}
	for _, x := range s.Shapes.Sheets {
		f.Sheets = append(f.Sheets, shapeSheetFile{x.Outline, x.X, x.Y})
	}
	for _, p := range s.Shapes.Pieces {
		f.Pieces = append(f.Pieces, shapeFile{p.Outline, p.Holes, p.Turns})
	}
	return must(json.Marshal(f))
}

// readShapes gives a stock the outlines that writeShapes wrote.
func (s *Stock) readShapes(text json.RawMessage) error {
	var f shapesFile
	if err := json.Unmarshal(text, &f); err != nil || len(f.Sheets) != len(s.Job.Sheets) || len(f.Pieces) != len(s.Job.Pieces) {
		return fault.New(fault.Invalid, "stocks", "the job's record is not whole")
	}
	s.Shapes = &nest.Job{Machine: f.Machine, Trim: f.Trim, Gap: f.Gap}
	for i, x := range f.Sheets {
		s.Shapes.Sheets = append(s.Shapes.Sheets, nest.Sheet{Sheet: s.Job.Sheets[i], Outline: x.Outline, X: x.X, Y: x.Y})
	}
	for i, p := range f.Pieces {
		s.Shapes.Pieces = append(s.Shapes.Pieces, nest.Piece{Name: s.Job.Pieces[i].Name, Copies: s.Job.Pieces[i].Copies, Outline: p.Outline, Holes: p.Holes, Turns: p.Turns})
	}
	return nil
}

// writeLayout and readLayout keep a stock's layout.
func (s *Stock) writeLayout() json.RawMessage {
	if s.Shapes != nil {
		return must(s.Shapes.JSON(s.Layout, 0))
	}
	return must(s.Layout.JSON(s.Job, 0))
}

func (s *Stock) readLayout(text json.RawMessage) (*layout.Result, error) {
	if s.Shapes != nil {
		return s.Shapes.ReadResult(text)
	}
	return layout.ReadResult(s.Job, text)
}

// Outlines are what a piece is cut out along, where scissors or a machine cut; none for a whole rectangle.
func (s *Stock) Outlines(piece int) [][]pattern.Point {
	if s.Shapes == nil {
		return nil
	}
	return [][]pattern.Point{s.Shapes.Pieces[piece].Outline}
}

// Sheets is how many sheets stocks take.
func Sheets(stocks []Stock) int {
	n := 0
	for _, s := range stocks {
		n += len(s.Layout.Sheets)
	}
	return n
}

// Least is how many sheets stocks take at least, as far as that is proved.
func Least(stocks []Stock) int {
	n := 0
	for _, s := range stocks {
		n += s.Layout.Bound.Sheets
	}
	return n
}
