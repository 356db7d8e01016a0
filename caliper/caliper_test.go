package caliper

import (
	"testing"

	"brevium/core/measure"
)

func TestReadingsStrayALittle(t *testing.T) {
	const size = 48 * measure.Millimetre
	c := New(1)
	seen := map[measure.Length]bool{}
	for range 500 {
		r := c.Read(size)
		if (r-size).Abs() > Noise || r%Resolution.Length() != 0 {
			t.Fatalf("48 mm reads %v mm", r.MM())
		}
		seen[r] = true
	}
	if len(seen) < 8 {
		t.Errorf("500 readings give %d values", len(seen))
	}
	if first, again := New(1).Read(size), New(1).Read(size); first != again {
		t.Errorf("one seed gives %v and %v", first, again)
	}
	if r := c.Read(0); r < 0 {
		t.Errorf("closed jaws read %v", r)
	}
}

// What the caliper types is what the fields read.
func TestTypedReadingsParse(t *testing.T) {
	c := New(2)
	text := c.Type(48*measure.Millimetre) + "; " + c.Type(48*measure.Millimetre)
	got, err := measure.ParseLargest(text, measure.In)
	if err != nil || (got-48*measure.Millimetre).Abs() > Noise {
		t.Errorf("%q reads %v mm, %v", text, got.MM(), err)
	}
}
