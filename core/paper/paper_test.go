package paper

import (
	"testing"

	"brevium/core/measure"
)

func TestWeights(t *testing.T) {
	for _, c := range []struct {
		text string
		want float64
	}{{"240", 240}, {"240 gsm", 240}, {"80 lb cover", 216}, {"60 lb text", 88.8}, {"216,5 g/m²", 216.5}} {
		got, err := ParseWeight(c.text)
		if err != nil || got < c.want-1e-9 || got > c.want+1e-9 {
			t.Errorf("ParseWeight(%q) = %v, %v; want %v", c.text, got, err, c.want)
		}
	}
	for _, text := range []string{"", "heavy", "-5", "5", "99999", "NaN"} {
		if got, err := ParseWeight(text); err == nil {
			t.Errorf("ParseWeight(%q) = %v; want a refusal", text, got)
		}
	}
}

func TestThicknessFromWeight(t *testing.T) {
	if got := ThicknessOf(240, SmoothBulk); got != 300*measure.Micrometre {
		t.Errorf("240 gsm smooth card is %d nm thick; want 0.3 mm", got)
	}
	if got := ThicknessOf(200, TexturedBulk); got != 280*measure.Micrometre {
		t.Errorf("200 gsm textured card is %d nm thick; want 0.28 mm", got)
	}
}

func TestStandardSheets(t *testing.T) {
	s, ok := SheetNamed("12 × 12 in")
	if !ok || s.Width != 12*measure.Inch || s.Count != Unlimited {
		t.Errorf("the square sheet is %+v, %v", s, ok)
	}
	if _, ok := SheetNamed("napkin"); ok {
		t.Error("a napkin is no standard sheet")
	}
	for d, turns := range map[Direction]bool{NoDirection: true, "": true, TwoWays: false, OneWayUp: false} {
		if d.MayTurn() != turns {
			t.Errorf("direction %q may turn: %v; want %v", d, d.MayTurn(), turns)
		}
	}
}

// A weight that is taken is one of card; anything else is refused in words.
func FuzzParseWeight(f *testing.F) {
	for _, seed := range []string{"240", "80 lb cover", "80lb", "240 gsm", "NaN", "-1", "1e9", "½"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		gsm, err := ParseWeight(text)
		if err == nil && !(gsm > 0 && gsm <= LargestGSM) {
			t.Errorf("%q is %v gsm", text, gsm)
		}
		if err != nil && err.Error() == "" {
			t.Errorf("%q is refused without a word", text)
		}
	})
}

func TestSheetsAsPeopleWriteThem(t *testing.T) {
	for text, want := range map[string]string{
		"12 x 12": "12 × 12 in", "12x12": "12 × 12 in", "12 × 12 in": "12 × 12 in", "a4": "A4", " A4 ": "A4", "8½ × 11 in": "8 1/2 × 11 in",
		"8.5x11": "8 1/2 × 11 in", "11 by 8 1/2": "8 1/2 × 11 in", "30 x 30 cm": "30 × 30 cm", "30x30": "30 × 30 cm", "21 x 29.7 cm": "A4",
		"297 x 210 mm": "A4", "8 1/2\" x 11\"": "8 1/2 × 11 in",
	} {
		if s, there := SheetNamed(text); !there || s.Name != want {
			t.Errorf("%q is %q, %v; want %s", text, s.Name, there, want)
		}
	}
	for _, text := range []string{"", "13 x 13", "x", "a9", "12 x", "banana x 3"} {
		if s, there := SheetNamed(text); there {
			t.Errorf("%q is taken for %s", text, s.Name)
		}
	}
}
