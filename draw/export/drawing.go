// Package export writes a design for other programs: flat pieces and mats for
// cutting machines and drawing programs (SVG, DXF), lists (CSV), the finished
// box as a mesh (OBJ, STL), and paper (PDF).
package export

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/batch"
	"brevium/core/design"
	"brevium/core/layout"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/strokes"
)

// Drawing is flat work for a machine, in mm, origin at the top left, y down,
// outside up: each line once.
type Drawing struct {
	// Name is for people, File for a file's name: plain letters, digits and dashes.
	Name, File    string
	Width, Height float64
	Card          paper.Card
	Cuts          []pattern.Loop    // closed, arcs kept
	Slits         []pattern.Loop    // cut and open, from the first corner to the last
	Scores        []pattern.Segment // folds left after cutting, but for what is bent by hand
	Notes         []Note
	// Marks are the middles of the marks that a printed page is found by.
	Marks []pattern.Point
	// Sheet tells that it is a whole sheet with all that is cut from it: what lies along its own
	// edges is there already, and what two pieces share is one line.
	Sheet bool
	// Words are what a label says, line by line, in a layer of their own: to be
	// printed or drawn. They are on a piece by itself, outside up.
	Words []string
	// Laid is how a sheet was laid, and Called what its pieces are called; nil for a piece by itself.
	Laid   *layout.Laid
	Called func(piece int) string
}

// Note is a word at a place.
type Note struct {
	At   pattern.Point
	Text string
}

// OfPiece is a piece by itself.
func OfPiece(p design.Part) Drawing {
	d := Drawing{Name: p.Name, File: p.ID, Card: p.Card, Width: p.Pattern.Width.MM(), Height: p.Pattern.Height.MM()}
	d.Cuts = append([]pattern.Loop{p.Pattern.Outline}, p.Pattern.Holes...)
	for _, s := range p.Pattern.Slits {
		d.Slits = append(d.Slits, s.Path())
	}
	for _, c := range p.Pattern.Creases {
		if c.Angle > 0.01 && !c.Rolled {
			d.Scores = append(d.Scores, c.Segment)
		}
	}
	for _, m := range p.Pattern.Marks {
		d.Notes = append(d.Notes, Note{m.At, m.Plain()})
	}
	return d
}

// ofBlank is what comes out of one blank: a piece, or mats.
func ofBlank(r *design.Result, b design.Blank) Drawing {
	for _, p := range r.Parts {
		if p.ID == b.ID {
			d := OfPiece(p)
			d.Words = r.WordsOn(p.ID)
			return d
		}
	}
	d := Drawing{Name: b.Name, File: "paper-" + b.ID, Card: b.Card, Width: b.Width.MM(), Height: b.Height.MM()}
	for _, g := range b.Gives {
		d.Cuts = append(d.Cuts, pattern.Straight(g.Outline...))
	}
	lo, hi := pattern.Pt(0, 0), pattern.Pt(d.Width, d.Height)
	d.Notes = []Note{{lo.Add(hi).Scale(0.5), b.Name}}
	return d
}

// Pieces gives every piece and every mat by itself, alike ones once.
func Pieces(r *design.Result) []Drawing {
	var out []Drawing
	for _, b := range r.Blanks {
		out = append(out, ofBlank(r, b))
	}
	return out
}

// Packed gives the sheets with everything that is cut from them in its place.
func Packed(r *design.Result) []Drawing {
	var out []Drawing
	base := 0
	for _, s := range r.Stocks {
		of := func(piece int) (*design.Result, string) { return r, s.Job.Pieces[piece].Name }
		for i, l := range s.Layout.Sheets {
			out = append(out, packed(s.Card, l, base+i+1, of)...)
		}
		base += len(s.Layout.Sheets)
	}
	return out
}

// PackedJob gives the sheets of a job, whose boxes are made.
func PackedJob(stocks []batch.Stock, made []*design.Result) []Drawing {
	var out []Drawing
	base := 0
	for _, s := range stocks {
		of := func(piece int) (*design.Result, string) { return made[s.Origins[piece].Item], s.Origins[piece].Part }
		for i, l := range s.Layout.Sheets {
			out = append(out, packed(s.Card, l, base+i+1, of)...)
		}
		base += len(s.Layout.Sheets)
	}
	return out
}

// packed is one sheet, or the parts of it that go onto a machine's mat one after the other; of tells whose
// a piece is, and its blank.
func packed(card paper.Card, l layout.Laid, n int, of func(piece int) (*design.Result, string)) []Drawing {
	loads := l.Loads
	if len(loads) == 0 {
		loads = []layout.Rect{{Width: l.Sheet.Width, Height: l.Sheet.Height}}
	}
	var out []Drawing
	for k, load := range loads {
		d := Drawing{
			Name: fmt.Sprintf("Sheet %d: %s, %s", n, card.Name, l.Sheet.Name), File: fmt.Sprintf("sheet-%d", n),
			Card: card, Width: load.Width.MM(), Height: load.Height.MM(), Sheet: true, Laid: &l,
			Called: func(piece int) string {
				r, id := of(piece)
				return strings.ToLower(r.PieceName(id))
			},
		}
		if len(loads) > 1 {
			d.Name = fmt.Sprintf("Sheet %d, part %d of %d: %s, %s", n, k+1, len(loads), card.Name, l.Sheet.Name)
			d.File += fmt.Sprintf("-part-%d", k+1)
		}
		if l.ByShape {
			d.Name += ", laid by shape"
		}
		empty := true
		for _, p := range l.Placed {
			if !load.Holds(p.Rect) {
				continue
			}
			empty = false
			r, id := of(p.Piece)
			for _, b := range r.Blanks {
				if b.ID == id {
					piece := ofBlank(r, b)
					if r.EndForEnd(b.ID) {
						piece = piece.turned()
					}
					d.put(piece, pattern.Pt((p.X-load.X).MM(), (p.Y-load.Y).MM()), p.Quarters())
				}
			}
		}
		if !empty || len(loads) == 1 {
			out = append(out, d)
		}
	}
	return out
}

// turned is the drawing end for end.
func (d Drawing) turned() Drawing {
	half := func(q pattern.Point) pattern.Point { return pattern.Quartered(q, 2, d.Width, d.Height) }
	return d.moved(half, movedLoop(half))
}

// put adds a drawing at a place, turned so many quarters with the clock.
func (d *Drawing) put(o Drawing, at pattern.Point, quarters int) {
	move := func(q pattern.Point) pattern.Point {
		return pattern.Quartered(q, quarters, o.Width, o.Height).Add(at)
	}
	m := o.moved(move, movedLoop(move))
	d.Cuts, d.Slits = append(d.Cuts, m.Cuts...), append(d.Slits, m.Slits...)
	d.Scores, d.Notes = append(d.Scores, m.Scores...), append(d.Notes, m.Notes...)
}

// Mirrored is the drawing inside up: left and right changed over.
func (d Drawing) Mirrored() Drawing {
	return d.moved(
		func(q pattern.Point) pattern.Point { return pattern.Pt(d.Width-q.X, q.Y) },
		func(l pattern.Loop) pattern.Loop { return l.Mirrored(d.Width) },
	)
}

// movedLoop moves a loop by its corners; the move keeps its way round.
func movedLoop(move func(pattern.Point) pattern.Point) func(pattern.Loop) pattern.Loop {
	return func(l pattern.Loop) pattern.Loop {
		out := make(pattern.Loop, len(l))
		for i, v := range l {
			out[i] = pattern.Vertex{Point: move(v.Point), Bulge: v.Bulge}
		}
		return out
	}
}

// moved is the drawing with every point and every loop moved.
func (d Drawing) moved(move func(pattern.Point) pattern.Point, loop func(pattern.Loop) pattern.Loop) Drawing {
	out := d
	out.Cuts, out.Slits, out.Scores, out.Notes, out.Words = nil, nil, nil, nil, nil
	for _, l := range d.Cuts {
		out.Cuts = append(out.Cuts, loop(l))
	}
	for _, s := range d.Slits {
		out.Slits = append(out.Slits, loop(s))
	}
	for _, s := range d.Scores {
		out.Scores = append(out.Scores, pattern.Segment{A: move(s.A), B: move(s.B)})
	}
	for _, n := range d.Notes {
		out.Notes = append(out.Notes, Note{move(n.At), n.Text})
	}
	return out
}

// radius is that of an arc with a bulge, by chord (1 + b²) / 4|b|: the bulge is
// the tangent of a quarter of the arc's angle.
func radius(a, b pattern.Point, bulge float64) float64 {
	return b.Sub(a).Len() * (1 + bulge*bulge) / (4 * math.Abs(bulge))
}

// Wanted is what should come off when all of a design is cut.
func Wanted(r *design.Result) []strokes.Piece {
	var out []strokes.Piece
	for _, b := range r.Blanks {
		d := ofBlank(r, b)
		p := strokes.Piece{Name: b.ID, Copies: b.Copies * r.Inputs.Copies, Creases: d.Scores}
		for _, s := range d.Slits {
			p.Slits = append(p.Slits, s.Open())
		}
		if len(b.Gives) > 1 { // several of one kind come out of it
			for i, c := range d.Cuts {
				one := p
				one.Name = fmt.Sprintf("%s (%d)", p.Name, i+1)
				one.Outline = c.Flat()
				out = append(out, one)
			}
			continue
		}
		for i, c := range d.Cuts {
			if i == 0 {
				p.Outline = c.Flat()
			} else {
				p.Holes = append(p.Holes, c.Flat())
			}
		}
		out = append(out, p)
	}
	return out
}

// Names are what people call what Wanted wants, each of them begun with something.
func Names(r *design.Result, begun string) map[string]string {
	out := map[string]string{}
	for _, b := range r.Blanks {
		out[begun+b.ID] = b.Name
		for i := range b.Gives {
			out[fmt.Sprintf("%s%s (%d)", begun, b.ID, i+1)] = b.Name
		}
	}
	return out
}
