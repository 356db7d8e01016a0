package measure

import (
	"encoding/json"
	"errors"
	"math/rand"
	"strings"
	"testing"
	"testing/quick"

	"brevium/core/fault"
)

// seeded gives the same cases at every run.
func seeded(n int) *quick.Config {
	return &quick.Config{MaxCount: n, Rand: rand.New(rand.NewSource(20))}
}

func TestParseWhatPeopleType(t *testing.T) {
	for _, c := range []struct {
		text string
		unit Unit
		want Length
	}{
		{"3 1/2", In, 7 * Inch / 2},
		{"3-1/2\"", CM, 7 * Inch / 2},
		{"3½ in", MM, 7 * Inch / 2},
		{"3½", In, 7 * Inch / 2},
		{"⅞", In, 7 * Inch / 8},
		{"7/8", In, 7 * Inch / 8},
		{"7⁄8", In, 7 * Inch / 8},
		{"1 / 2", In, Inch / 2},
		{"5 1 / 2", In, 11 * Inch / 2},
		{"1/64", In, 396_875},
		{"5.375 in", MM, 43 * Inch / 8},
		{"9.5 cm", In, 95 * Millimetre},
		{"9,5 cm", In, 95 * Millimetre},
		{"95 mm", In, 95 * Millimetre},
		{"95mm", In, 95 * Millimetre},
		{"95", MM, 95 * Millimetre},
		{"9,5", CM, 95 * Millimetre},
		{".5", In, Inch / 2},
		{"2 inches", MM, 2 * Inch},
		{"0", In, 0},
		{"2000 mm", In, Max},
		{"5 3/8 in − 0.4 mm", In, 43*Inch/8 - 400*Micrometre},
		{"14.5 cm + 0.3 mm", CM, 145*Millimetre + 300*Micrometre},
	} {
		got, err := Parse(c.text, c.unit)
		if err != nil || got != c.want {
			t.Errorf("Parse(%q, %s) = %d, %v; want %d", c.text, c.unit, got, err, c.want)
		}
	}
}

func TestParseRefusesWithAReason(t *testing.T) {
	for _, c := range []struct{ text, code, says string }{
		{"", "empty", "missing"},
		{"   ", "empty", "missing"},
		{"-3", "negative", "less than nothing"},
		{"−3 in", "negative", "less than nothing"},
		{"1 in - 2 in", "negative", "less than nothing"},
		{"1/0", "not-a-length", "divides by nothing"},
		{"3//4", "not-a-length", "not a fraction"},
		{"1/2/3", "not-a-length", "not a fraction"},
		{"2/3", "not-on-a-ruler", "not on a ruler"},
		{"2001 mm", "absurd", "over 2 m"},
		{"99999999999999999999 in", "absurd", "over 2 m"},
		{"cm", "not-a-length", "no number"},
		{"four", "not-a-length", "not a length"},
		{"1e3", "not-a-length", "not a length"},
		{"NaN", "not-a-length", "not a length"},
		{"1.2.3", "not-a-length", "not a length"},
		{"3 1/2 furlongs", "not-a-length", "not a"},
		{strings.Repeat("9", 100), "not-a-length", "too long"},
	} {
		_, err := Parse(c.text, In)
		var f *fault.Fault
		if !errors.As(err, &f) || string(f.Code) != c.code || !strings.Contains(f.Text, c.says) {
			t.Errorf("Parse(%q) = %v; want code %s saying %q", c.text, err, c.code, c.says)
		}
	}
}

func TestLabel(t *testing.T) {
	for _, c := range []struct {
		l    Length
		unit Unit
		tick Tick
		want string
	}{
		{43 * Inch / 8, In, Tick(Inch / 16), "5 3/8 in"},
		{Inch / 16, In, Tick(Inch / 16), "1/16 in"},
		{4 * Inch, In, Tick(Inch / 16), "4 in"},
		{0, In, Tick(Inch / 16), "0 in"},
		{Inch / 32, In, Tick(Inch / 32), "1/32 in"},
		{43*Inch/8 - 300*Micrometre, In, Tick(Inch / 16), "5 3/8 in − 0.3 mm"},
		{43*Inch/8 - Inch/64, In, Tick(Inch / 8), "5 23/64 in"},
		{145 * Millimetre, CM, Tick(Millimetre), "14.5 cm"},
		{145 * Millimetre, MM, Tick(Millimetre), "145 mm"},
		{145*Millimetre + 350*Micrometre, CM, Tick(Millimetre), "14.5 cm + 0.4 mm"},
		{2500 * Micrometre, MM, Tick(Millimetre / 2), "2.5 mm"},
		{-Inch / 2, In, Tick(Inch / 16), "−1/2 in"},
	} {
		if got := Label(c.l, c.unit, c.tick); got != c.want {
			t.Errorf("Label(%d, %s) = %q; want %q", c.l, c.unit, got, c.want)
		}
	}
	if got := Beside(43*Inch/8, In); got != "13.65 cm" {
		t.Errorf("beside 5 3/8 in stands %q; want 13.65 cm", got)
	}
	if got := Beside(95*Millimetre, CM); got != "about 3 3/4 in" {
		t.Errorf("beside 9.5 cm stands %q", got)
	}
}

// What is printed reads back: exactly on the tick, and within 0.05 mm off it.
func TestLabelsParseBack(t *testing.T) {
	check := func(raw uint32, unitAt, tickAt uint8, onTick bool) bool {
		unit := Units[int(unitAt)%len(Units)]
		ticks := map[Unit][]Tick{In: {Tick(Inch / 8), Tick(Inch / 16), Tick(Inch / 32)}, CM: {Tick(Millimetre), Tick(5 * Millimetre)}, MM: {Tick(Millimetre), Tick(Millimetre / 2)}}[unit]
		tick := ticks[int(tickAt)%len(ticks)]
		l := Length(raw) % (Max - Inch)
		if onTick {
			l = Nearest(l, tick)
		}
		got, err := Parse(Label(l, unit, tick), MM)
		if err != nil || onTick && got != l || (got-l).Abs() > nearNothing {
			t.Logf("%d in %s by %d is %q, read back as %d, %v", l, unit, tick, Label(l, unit, tick), got, err)
			return false
		}
		again, err := Parse(Field(l, unit), unit)
		return err == nil && again == l
	}
	if err := quick.Check(check, seeded(5000)); err != nil {
		t.Error(err)
	}
}

func TestRounding(t *testing.T) {
	for _, c := range []struct{ l, nearest, up, down Length }{
		{0, 0, 0, 0}, {4, 0, 10, 0}, {5, 10, 10, 0}, {10, 10, 10, 10}, {16, 20, 20, 10},
	} {
		if Nearest(c.l, 10) != c.nearest || Up(c.l, 10) != c.up || Down(c.l, 10) != c.down {
			t.Errorf("%d rounds to %d, %d, %d; want %d, %d, %d", c.l, Nearest(c.l, 10), Up(c.l, 10), Down(c.l, 10), c.nearest, c.up, c.down)
		}
	}
	if got := Nearest(-15, 10); got != -20 {
		t.Errorf("Nearest(-15) = %d; want -20", got)
	}
}

func TestLengthsInFiles(t *testing.T) {
	for _, c := range []struct {
		text string
		want Length
	}{{`25.4`, Inch}, {`0.000001`, 1}, {`1e2`, 100 * Millimetre}, {`"1 in"`, Inch}, {`"3"`, 3 * Centimetre}} {
		var x Text
		if err := json.Unmarshal([]byte(c.text), &x); err != nil {
			t.Fatalf("%s: %v", c.text, err)
		}
		if got, err := x.Length(CM); err != nil || got != c.want {
			t.Errorf("%s reads as %d, %v; want %d", c.text, got, err, c.want)
		}
	}
	for _, text := range []string{`true`, `{}`, `[1]`} {
		var x Text
		if err := json.Unmarshal([]byte(text), &x); err == nil {
			t.Errorf("%s was taken for a length", text)
		}
	}
	out, err := json.Marshal(map[string]any{"l": 38100001 * Length(1), "t": Text("25.4 mm"), "c": Text("two-tab")})
	if err != nil || string(out) != `{"c":"two-tab","l":38.100001,"t":25.4}` {
		t.Errorf("lengths are written as %s, %v", out, err)
	}
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"3 1/2", "3-1/2\"", "9,5 cm", "5 3/8 in − 0.4 mm", "1/0", "½½", "- 1/2", "1 in + 1 in", "/"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		l, err := Parse(s, In)
		if err == nil && (l < 0 || l > Max) {
			t.Errorf("Parse(%q) = %d, out of range", s, l)
		}
		var x *fault.Fault
		if err != nil && (!errors.As(err, &x) || x.Text == "") {
			t.Errorf("Parse(%q) refuses without a sentence: %v", s, err)
		}
	})
}

func TestTheLargestReadingCounts(t *testing.T) {
	for text, want := range map[string]Length{"48.02 mm; 48.05 mm;47.99 mm": 48050 * Micrometre, "3 1/2": 7 * Inch / 2, "1;2;": 2 * Inch} {
		if got, err := ParseLargest(text, In); err != nil || got != want {
			t.Errorf("%q is %v mm, %v; want %v", text, got.MM(), err, want.MM())
		}
	}
	for _, text := range []string{"", ";", "1;;2", "1;x"} {
		if _, err := ParseLargest(text, In); err == nil {
			t.Errorf("%q was read", text)
		}
	}
}

// What is written as millimetres reads back to the nanometre.
func TestLengthsInJSON(t *testing.T) {
	for _, want := range []Length{0, 1, Inch / 64, 25_400_001, -3 * Millimetre, Max} {
		text, err := json.Marshal(want)
		if err != nil {
			t.Fatal(err)
		}
		var got Length
		if err := json.Unmarshal(text, &got); err != nil || got != want {
			t.Errorf("%s reads as %d nm, %v; want %d", text, got, err, want)
		}
	}
	for _, bad := range []string{`"3"`, `true`, `1e12`, `{}`} {
		var got Length
		if err := json.Unmarshal([]byte(bad), &got); err == nil {
			t.Errorf("%s reads as %d nm", bad, got)
		}
	}
}

// Sides are told in the unit where they lie on its marks, else in the other.
func TestSides(t *testing.T) {
	for _, c := range []struct {
		unit  Unit
		sides []Length
		want  string
	}{
		{In, []Length{12 * Inch, 12 * Inch}, "12 × 12 in"},
		{CM, []Length{12 * Inch, 12 * Inch}, "12 × 12 in"},
		{In, []Length{210 * Millimetre, 297 * Millimetre}, "21 × 29.7 cm"},
		{CM, []Length{210 * Millimetre, 297 * Millimetre}, "21 × 29.7 cm"},
		{MM, []Length{210 * Millimetre, 297 * Millimetre}, "210 × 297 mm"},
		{In, []Length{210 * Millimetre, 3 * Inch}, "21 × 7.62 cm"},
		{CM, []Length{210 * Millimetre, 49 * Inch / 16}, "about 21 × 7.8 cm"},
	} {
		if got := Sides(c.unit, c.unit.Tick(), c.sides...); got != c.want {
			t.Errorf("in %s: %q; want %q", c.unit, got, c.want)
		}
	}
	if got := Labels(In, In.Tick(), 3*Inch, 2*Inch); got != "3 × 2 in" {
		t.Errorf("labels %q", got)
	}
	if got := Labels(In, In.Tick(), 3*Inch+300*Micrometre, 2*Inch); got != "3 in + 0.3 mm × 2 in" {
		t.Errorf("labels with a remainder %q", got)
	}
}

// A bare number that is too long may have been meant in another unit.
func TestOtherwise(t *testing.T) {
	for _, c := range []struct {
		text string
		unit Unit
		want string
	}{
		{"48", In, "48 mm"}, {"48 in", In, ""}, {"62", CM, "62 mm"}, {"7.5", In, "7.5 mm, 7.5 cm"}, {"x", In, ""}, {"1000", MM, ""},
	} {
		if got := strings.Join(Otherwise(c.text, c.unit, 420*Millimetre), ", "); got != c.want {
			t.Errorf("%s in %s: %q; want %q", c.text, c.unit, got, c.want)
		}
	}
}

// A minus between a whole and a fraction may be a sum: it is asked.
func TestASumIsNotGuessed(t *testing.T) {
	for _, text := range []string{"3 - 1/2", "3 – 1/2", "3 - 1/2 in"} {
		if l, err := Parse(text, In); err == nil {
			t.Errorf("%q is taken as %v", text, l)
		}
	}
	for text, want := range map[string]Length{"3-1/2": 7 * Inch / 2, "3 in - 1/2 in": 5 * Inch / 2, "3 in - 0.4 mm": 3*Inch - 400*Micrometre} {
		if l, err := Parse(text, In); err != nil || l != want {
			t.Errorf("%q is %v, %v; want %v", text, l, err, want)
		}
	}
}

func TestHundredths(t *testing.T) {
	for mm, want := range map[float64]string{-0.75: "−0.75", 0.5: "0.50", 12.346: "12.35"} {
		if got := Hundredths(FromMM(mm)); got != want {
			t.Errorf("%v mm is %q, want %q", mm, got, want)
		}
	}
}
