package plotter

import (
	"encoding/json"

	"brevium/core/fault"
	"brevium/core/pattern"
	"brevium/core/strokes"
)

// planFile is what the mat needs of a plan file: see docs/formats.md.
type planFile struct {
	Brevium int         `json:"brevium"`
	Pieces  []planPiece `json:"pieces"`
	Loose   []planPiece `json:"loose"`
	Mats    []struct {
		ID     string       `json:"id"`
		Copies int          `json:"copies"`
		Width  float64      `json:"width"`
		Height float64      `json:"height"`
		Points [][2]float64 `json:"outline"`
	} `json:"mats"`
}

type planPiece struct {
	ID      string         `json:"id"`
	Copies  int            `json:"copies"`
	Outline [][2]float64   `json:"outline"`
	Slits   [][][2]float64 `json:"slits"`
	Holes   [][][2]float64 `json:"holes"`
	Creases []struct {
		X1     float64 `json:"x1"`
		Y1     float64 `json:"y1"`
		X2     float64 `json:"x2"`
		Y2     float64 `json:"y2"`
		Angle  float64 `json:"angle"`
		Rolled bool    `json:"rolled"`
	} `json:"creases"`
}

// ReadPlan reads the pieces that a plan file wants.
func ReadPlan(text []byte) ([]strokes.Piece, error) {
	var f planFile
	if err := json.Unmarshal(text, &f); err != nil {
		return nil, fault.New(fault.NotJSON, "plan", "this is no plan file: %v", err)
	}
	if f.Brevium != 1 || len(f.Pieces) == 0 {
		return nil, fault.New(fault.UnknownFormat, "plan", "this is no plan file as `brevium plan` writes it")
	}
	way := func(in [][2]float64) []pattern.Point {
		out := make([]pattern.Point, len(in))
		for i, p := range in {
			out[i] = pattern.Pt(p[0], p[1])
		}
		return out
	}
	var out []strokes.Piece
	for _, p := range append(f.Pieces, f.Loose...) {
		if len(p.Outline) < 3 {
			return nil, fault.New(fault.Invalid, "plan", "the piece %q has no outline", p.ID)
		}
		one := strokes.Piece{Name: p.ID, Copies: max(1, p.Copies), Outline: way(p.Outline)}
		for _, s := range p.Slits {
			one.Slits = append(one.Slits, way(s))
		}
		for _, h := range p.Holes {
			one.Holes = append(one.Holes, way(h))
		}
		for _, c := range p.Creases {
			if c.Angle > 0.01 && !c.Rolled {
				one.Creases = append(one.Creases, pattern.Segment{A: pattern.Pt(c.X1, c.Y1), B: pattern.Pt(c.X2, c.Y2)})
			}
		}
		out = append(out, one)
	}
	for _, m := range f.Mats {
		one := strokes.Piece{Name: m.ID, Copies: max(1, m.Copies), Outline: way(m.Points)}
		if len(m.Points) < 3 {
			one.Outline = way([][2]float64{{0, 0}, {m.Width, 0}, {m.Width, m.Height}, {0, m.Height}})
		}
		out = append(out, one)
	}
	return out, nil
}
