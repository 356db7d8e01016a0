package stylefile

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/measure"
)

// Names are what the pieces are called.
func (t *Table) Names() []string {
	var out []string
	for _, p := range t.Pieces {
		out = append(out, p.Name)
	}
	return out
}

// Pick goes to a piece, counted from 0; to the first where there is none such.
func (t *Table) Pick(i int) {
	if t.at = i; i < 0 || i >= len(t.Pieces) {
		t.at = 0
	}
}

// Picked is the piece that the table is of.
func (t *Table) Picked() int { return t.at }

// AddPiece begins one more piece, and goes to it.
func (t *Table) AddPiece() {
	n := len(t.Pieces) + 1
	if n > mostPieces {
		return
	}
	id := fmt.Sprintf("piece-%d", n)
	for slices.ContainsFunc(t.Pieces, func(p piece) bool { return p.ID == id }) {
		id += "x"
	}
	x := NewTable().Pieces[0]
	x.ID, x.Name = id, fmt.Sprintf("Piece %d", n)
	x.Columns, x.Rows = []string{t.Sizes[0].named()}, []string{t.Sizes[min(1, len(t.Sizes)-1)].named()}
	t.Pieces, t.at = append(t.Pieces, x), n-1
}

// RemovePiece takes the piece that is picked away, and what goes over it; one is left.
func (t *Table) RemovePiece() {
	if len(t.Pieces) == 1 {
		return
	}
	id := t.piece().ID
	t.Fits = slices.DeleteFunc(t.Fits, func(x fits) bool { return x.Outer == id || x.Inner == id })
	t.Pieces = slices.Delete(t.Pieces, t.at, t.at+1)
	t.at = 0
}

// Stance is what a piece is called, how it stands ("" or "upwards", "upright"), how high
// above the table it is when the box is shut and how far it is lifted to open, as
// formulas.
type Stance struct{ Name, Opens, Stands, Lifts string }

// Stance is that of the piece that is picked.
func (t *Table) Stance() Stance {
	p := t.piece()
	return Stance{p.Name, p.Opens, p.Stands, p.Lifts}
}

// SetStance changes it.
func (t *Table) SetStance(s Stance) {
	p := t.piece()
	p.Stands, p.Lifts = strings.TrimSpace(s.Stands), strings.TrimSpace(s.Lifts)
	if name := strings.TrimSpace(s.Name); name != "" && len(name) <= 60 {
		p.Name = name
	}
	if _, known := facings[s.Opens]; known {
		p.Opens = s.Opens
	}
}

// Over is that one piece goes over another, along an axis of the box: both by id, from
// score to score and how far down the walls come, as formulas.
type Over struct {
	Kind, Outer, Inner, Along                    string
	OuterSpan, InnerSpan, OuterDepth, InnerDepth string
}

// Kinds are the ways of going over, as a file names them.
var Kinds = []string{"lid", "sleeve", "cover", "shuts"}

// Overs are what goes over what.
func (t *Table) Overs() []Over {
	var out []Over
	for _, x := range t.Fits {
		out = append(out, Over{x.Kind, x.Outer, x.Inner, x.Along, x.OuterSpan, x.InnerSpan, x.OuterDepth, x.InnerDepth})
	}
	return out
}

// SetOver changes one.
func (t *Table) SetOver(i int, o Over) {
	if i < 0 || i >= len(t.Fits) {
		return
	}
	x := &t.Fits[i]
	x.Kind, x.Outer, x.Inner, x.Along = o.Kind, o.Outer, o.Inner, o.Along
	x.OuterSpan, x.InnerSpan = strings.TrimSpace(o.OuterSpan), strings.TrimSpace(o.InnerSpan)
	x.OuterDepth, x.InnerDepth = strings.TrimSpace(o.OuterDepth), strings.TrimSpace(o.InnerDepth)
}

// DropOvers takes those away whose spans were emptied.
func (t *Table) DropOvers() {
	t.Fits = slices.DeleteFunc(t.Fits, func(x fits) bool { return x.OuterSpan == "" && x.InnerSpan == "" })
}

// AddOver says that the last piece goes over the first, as a lid along the length, with
// an allowance where there is none yet.
func (t *Table) AddOver() {
	if len(t.Fits) >= mostFits || len(t.Pieces) < 2 {
		return
	}
	if t.Allowance == nil {
		t.SetAllow("a", "")
	}
	span := t.Sizes[0].named()
	t.Fits = append(t.Fits, fits{Kind: "lid", Outer: t.Pieces[len(t.Pieces)-1].ID, Inner: t.Pieces[0].ID, Along: "length", OuterSpan: span + " + " + t.Allowance.As, InnerSpan: span})
}

// IDs are the pieces' ids, in their order.
func (t *Table) IDs() []string {
	var out []string
	for _, p := range t.Pieces {
		out = append(out, p.ID)
	}
	return out
}

// Allow is what formulas call the allowance, and its usual length; "" for none.
func (t *Table) Allow() (as, usual string) {
	if t.Allowance == nil {
		return "", ""
	}
	return t.Allowance.As, string(t.Allowance.Usual)
}

// SetAllow changes it; without a name there is none.
func (t *Table) SetAllow(as, usual string) {
	as, usual = strings.TrimSpace(as), strings.TrimSpace(usual)
	if as == "" {
		t.Allowance = nil
		return
	}
	if t.Allowance == nil {
		t.Allowance = &allowance{}
	}
	t.Allowance.As, t.Allowance.Usual = as, measure.Text(usual)
}
