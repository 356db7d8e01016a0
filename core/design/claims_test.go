package design

import (
	"fmt"
	"math/rand"
	"regexp"
	"testing"

	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/style"
)

// roomy is a random design of a style on sheets that any blank fits on; ok is false where
// these sizes are refused.
func roomy(t *testing.T, rng *rand.Rand, s *style.Style) (in Inputs, r *Result, ok bool) {
	t.Helper()
	unit := []measure.Unit{measure.In, measure.CM, measure.MM}[rng.Intn(3)]
	in = randomSize(rng, unit, s)
	r, err := Make(t.Context(), in)
	return in, r, err == nil
}

var sides = regexp.MustCompile(`(?:about )?([\d /.]+) × ([\d /.]+) × ([\d /.]+) (in|cm|mm)`)

// readSides reads a room as it is told.
func readSides(t *testing.T, text string) style.Extent {
	t.Helper()
	m := sides.FindStringSubmatch(text)
	if m == nil {
		t.Fatalf("no size in %q", text)
	}
	var e style.Extent
	for i := range 3 {
		l, err := measure.Parse(m[i+1], measure.Unit(m[4]))
		if err != nil {
			t.Fatalf("%q: %v", text, err)
		}
		*e.Axis(i) = l
	}
	return e
}

// What is said to be free is free, and what is said to be taken up is no less, whatever
// the board's grooves are: one size, one truth.
func TestRoomIsNotClaimed(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewSource(27))
	claimed := 0
	for _, s := range style.Listed() {
		for range 8 {
			in, r, ok := roomy(t, rng, s)
			if !ok {
				continue
			}
			const rounding = measure.Micrometre
			for _, f := range r.Checks {
				if f.ID != "room" && f.ID != "fill" || f.Verdict != inspect.OK || !sides.MatchString(f.Text) {
					continue
				}
				claimed++
				said, has := readSides(t, f.Text), r.Inside
				for i := range 3 {
					if *said.Axis(i) > *has.Axis(i)+rounding {
						t.Errorf("%s on %v, %s: says %q, and has %v mm", s.ID, in.Tools.Tick.Length(), f.ID, f.Text, has.Axis(i).MM())
					}
				}
			}
			free, taken := readSides(t, r.Inside.Free(in.Units).In(in.Units)), readSides(t, r.Outside.Taken(in.Units).In(in.Units))
			ruler := in.Units.Ruler().Length()
			for i := range 3 {
				if d := *r.Inside.Axis(i) - *free.Axis(i); d < -rounding || d >= ruler+rounding {
					t.Errorf("%s: inside %v mm is told as %v", s.ID, r.Inside.Axis(i).MM(), free.Axis(i).MM())
				}
				if d := *taken.Axis(i) - *r.Outside.Axis(i); d < -rounding || d >= ruler+rounding {
					t.Errorf("%s: outside %v mm is told as %v", s.ID, r.Outside.Axis(i).MM(), taken.Axis(i).MM())
				}
			}
		}
	}
	if claimed < 100 {
		t.Errorf("only %d claims were looked at", claimed)
	}
}

// On a board of 5 mm a room of 7.48 cm is that, and not 7.
func TestABoardsGroovesDoNotRoundARoom(t *testing.T) {
	in := read(t, `{"brevium":1,"name":"x","units":"cm","style":"tray","options":{"tick":"0.5 cm"},"size":{"length":75,"width":50,"height":30}}`)
	r := make_(t, in)
	if got := fmt.Sprint(r.Inside.Free(measure.CM).In(measure.CM)); got != "7.4 × 4.95 × 2.95 cm" {
		t.Errorf("inside %s: of %v", got, r.Inside)
	}
}
