package draw

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"brevium/core/drawer"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
)

const mm = measure.Millimetre

// laidOut is a sheet with three pieces, one of them held, and cuts close by.
func laidOut(t *testing.T) layout.Laid {
	t.Helper()
	j := &layout.Job{Sheets: []paper.Sheet{{Name: "S", Width: 300 * mm, Height: 200 * mm, Count: 1}}, Pieces: []layout.Piece{
		{Name: "a", Width: 120 * mm, Height: 90 * mm, Copies: 2}, {Name: "b", Width: 118 * mm, Height: 60 * mm, Copies: 1}}}
	r, err := layout.Solve(t.Context(), j, layout.Effort{Rounds: 1})
	if err != nil || len(r.Sheets) != 1 {
		t.Fatalf("%+v, %v", r, err)
	}
	return r.Sheets[0]
}

func (p *Picture) count(c Class) int {
	n := 0
	for _, s := range p.Shapes {
		if s.Class == c {
			n++
		}
	}
	return n
}

func TestASheetShowsItsPieces(t *testing.T) {
	laid := laidOut(t)
	s := Sheet{
		Laid:  laid,
		Label: func(i int) PieceLabel { return PieceLabel{Name: string(rune('a' + i)), Under: "Box"} },
		Card:  paper.Card{Direction: paper.OneWayUp},
		Key:   func(n int) string { return fmt.Sprint("0.0.", n) },
		Kept:  func(n int) bool { return n == 1 },
		Units: measure.MM,
		Tick:  measure.Tick(mm),
	}
	p := s.Picture()
	text := p.Inline()
	for n := range laid.Placed {
		if !strings.Contains(text, fmt.Sprintf(`data-key="0.0.%d" tabindex="0" role="button"`, n)) {
			t.Errorf("piece %d cannot be gone to", n)
		}
	}
	if !strings.Contains(text, `role="group"`) || strings.Count(text, "kept where it lies") != 2 { // as label and as title
		t.Error("the kept piece is not told")
	}
	if p.count(Kept) != 1 || p.count(CutNumber) != len(laid.Cuts) {
		t.Errorf("%d kept, %d numbers for %d cuts", p.count(Kept), p.count(CutNumber), len(laid.Cuts))
	}
	// An arrow is a line and one head; a two-way one has two; plain card none.
	if got := p.count(Arrow); got != 2*len(laid.Placed) {
		t.Errorf("%d strokes of arrows for %d pieces", got, len(laid.Placed))
	}
	s.Card.Direction = paper.TwoWays
	if got := s.Picture().count(Arrow); got != 3*len(laid.Placed) {
		t.Errorf("%d strokes of two-way arrows", got)
	}
	s.Card.Direction = paper.NoDirection
	if got := s.Picture().count(Arrow); got != 0 {
		t.Errorf("%d strokes of arrows on plain card", got)
	}
}

// Numbers of cuts do not lie over one another where there is room beside.
func TestCutNumbersKeepApart(t *testing.T) {
	laid := layout.Laid{Sheet: paper.Sheet{Name: "S", Width: 300 * mm, Height: 300 * mm}}
	for i := range measure.Length(4) {
		laid.Cuts = append(
			laid.Cuts,
			layout.Cut{N: int(i) + 1, Across: true, At: (100 + i) * mm, X: (100 + i) * mm, Length: 300 * mm, Of: 300 * mm},
		)
	}
	p := Sheet{Laid: laid, Units: measure.MM, Tick: measure.Tick(mm)}.Picture()
	var at []pattern.Point
	for _, s := range p.Shapes {
		if s.Class != CutNumber {
			continue
		}
		for _, o := range at {
			if math.Hypot(o.X-s.At.X, o.Y-s.At.Y) < 2*s.Circle-1e-9 {
				t.Errorf("two numbers at %v and %v, each %v wide", o, s.At, 2*s.Circle)
			}
		}
		at = append(at, s.At)
	}
	if len(at) != 4 {
		t.Errorf("%d numbers for 4 cuts", len(at))
	}
}

// The piece asked for is marked where it shows, and drawn in broken lines.
func TestWhereAPieceGoes(t *testing.T) {
	m := model(diceSet(t))
	plain, err := m.Look("Dice")
	if err != nil || plain.count(Marked) != 0 {
		t.Fatalf("%d faces marked of nothing, %v", plain.count(Marked), err)
	}
	for _, id := range []string{"base", "lid", "lid.top.1"} {
		p, err := m.Where("where", id)
		if err != nil || p.count(Marked) == 0 || p.count(Hidden) == 0 {
			t.Errorf("%s: %d faces marked, %d outlines, %v", id, p.count(Marked), p.count(Hidden), err)
		}
	}
	if p, err := m.Where("where", "roof"); err != nil || p.count(Marked)+p.count(Hidden) != 0 {
		t.Errorf("a piece that is not there is marked, %v", err)
	}
}

// All cards are drawn to one scale, in rows, inside the picture.
func TestTheDrawerIsToScale(t *testing.T) {
	lot := func(w, h measure.Length, count int) drawer.Lot {
		l := drawer.Lot{Card: paper.Card{Name: "Oat"}, Width: w, Height: h, Count: count}
		l.Complete()
		return l
	}
	d := Drawer{Units: measure.MM, Tick: measure.Tick(mm)}
	few := d.Picture(drawer.Group{Lots: []drawer.Lot{lot(300*mm, 200*mm, 1)}})
	many := drawer.Group{}
	for range 12 {
		many.Lots = append(many.Lots, lot(300*mm, 200*mm, 9))
	}
	p := d.Picture(many)
	if p.Width != few.Width || p.U != few.U {
		t.Errorf("%v and %v mm wide: not one scale", p.Width, few.Width)
	}
	if few.count(SheetArea) != 1 || p.count(SheetArea) != 12*mostShown {
		t.Errorf("%d and %d sheets drawn", few.count(SheetArea), p.count(SheetArea))
	}
	if p.Height < 2*few.Height {
		t.Errorf("twelve piles are %v mm high; they do not stand in rows", p.Height)
	}
	for _, s := range p.Shapes {
		for _, loop := range s.Loops {
			for _, q := range loop {
				if q.X < p.X || q.X > p.X+p.Width || q.Y < p.Y || q.Y > p.Y+p.Height {
					t.Fatalf("a sheet sticks out at %v of %v × %v mm", q, p.Width, p.Height)
				}
			}
		}
	}
}
