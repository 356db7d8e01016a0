package store

import (
	"testing"

	"brevium/core/drawer"
	"brevium/core/measure"
	"brevium/core/paper"
)

// Ten sheets measured together tell all piles of their card its thickness; one that
// comes later without being measured, or less well, takes it from them.
func TestACardIsMeasuredForAllItsPiles(t *testing.T) {
	s := fresh(t)
	lot := func(width, thick measure.Length, measured int, direction paper.Direction) drawer.Lot {
		c := paper.Card{Name: "Oat card", GSM: 240, Thickness: thick, Measured: measured, Direction: direction}
		return drawer.Lot{Card: c, Sheet: "own size", Width: width, Height: 12 * measure.Inch, Count: 3}
	}
	um := measure.Micrometre
	if err := s.Of(t.Context()).AddLots(t.Context(), []drawer.Lot{
		lot(10*measure.Inch, 300*um, 0, paper.NoDirection),
		lot(11*measure.Inch, 305*um, 10, paper.NoDirection),
		lot(12*measure.Inch, 320*um, 1, paper.NoDirection),
		lot(9*measure.Inch, 300*um, 0, paper.OneWayUp),
	}); err != nil {
		t.Fatal(err)
	}
	lots, err := s.Of(t.Context()).Lots(t.Context())
	if err != nil || len(lots) != 4 {
		t.Fatalf("%d lots, %v", len(lots), err)
	}
	for _, l := range lots {
		want := lot(0, 305*um, 10, paper.NoDirection).Card
		if l.Card.Direction == paper.OneWayUp {
			want.Thickness, want.Measured = 300*um, 0
		}
		if l.Card.Thickness != want.Thickness || l.Card.Measured != want.Measured {
			t.Errorf("%v wide it is %v mm, %s", l.Width.MM(), l.Card.Thickness.MM(), l.Card.ThicknessFrom())
		}
	}
}
