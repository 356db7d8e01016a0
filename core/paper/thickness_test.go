package paper

import (
	"testing"

	"brevium/core/measure"
)

// By hand: ten sheets of 3.05 mm are 0.305 each.
func TestParseThickness(t *testing.T) {
	for text, want := range map[string]struct {
		um, sheets int
	}{"0.31": {310, 1}, "3.05 for 10": {305, 10}, "3,1 mm for 10 sheets": {310, 10}, "1 for 3": {333, 3}, "0.5 mm": {500, 1}} {
		l, n, err := ParseThickness(text)
		if err != nil || l != measure.Length(want.um)*measure.Micrometre || n != want.sheets {
			t.Errorf("%q is %v mm of %d, %v", text, l.MM(), n, err)
		}
	}
	for _, text := range []string{"", "thick", "3 for none", "3 for 0", "3 for 1000", " for 10"} {
		if l, _, err := ParseThickness(text); err == nil {
			t.Errorf("%q is %v mm", text, l.MM())
		}
	}
	for _, c := range []Card{{Thickness: 305 * measure.Micrometre, Measured: 10}, {Thickness: 333 * measure.Micrometre, Measured: 3}, {Thickness: 300 * measure.Micrometre}} {
		if l, n, err := ParseThickness(c.ThicknessText()); err != nil || l != c.Thickness || n != max(1, c.Measured) {
			t.Errorf("%q reads %v mm of %d, %v", c.ThicknessText(), l.MM(), n, err)
		}
	}
}

// What was measured beats a table, ten sheets beat one, and neither is beaten back.
func TestWhatIsMeasuredBetterWins(t *testing.T) {
	table, one, ten := Card{Thickness: 300_000}, Card{Thickness: 320_000, Measured: 1}, Card{Thickness: 310_000, Measured: 10}
	for _, c := range []struct{ a, b, want Card }{{table, one, one}, {one, table, one}, {one, ten, ten}, {ten, one, ten}, {table, ten, ten}} {
		if got := c.a.Measures(c.b); got != c.want {
			t.Errorf("%+v by %+v is %+v", c.a, c.b, got)
		}
	}
}

// What was measured as well as the other stays as it is; what was measured better is taken.
func TestTheBetterMeasureCounts(t *testing.T) {
	mine := Card{Thickness: 300 * measure.Micrometre, Measured: 5}
	for sheets, want := range map[int]measure.Length{0: 300, 1: 300, 5: 300, 6: 410} {
		if got := mine.Measures(Card{Thickness: 410 * measure.Micrometre, Measured: sheets}); got.Thickness != want*measure.Micrometre || got.Measured != max(5, sheets) {
			t.Errorf("beside %d sheets together it is %v by %d", sheets, got.Thickness, got.Measured)
		}
	}
}
