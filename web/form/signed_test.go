package form

import (
	"net/url"
	"testing"

	"brevium/core/measure"
)

// A length may be less than nothing where it says so, and what is typed stays in its field; what
// is shown of it is read back.
func TestSigned(t *testing.T) {
	for typed, want := range map[string]measure.Length{"-1/2": -measure.Inch / 2, "−1 1/4 in": -5 * measure.Inch / 4, "3/4": 3 * measure.Inch / 4, "0": 0, "-10 mm": -10 * measure.Millimetre} {
		f := New(url.Values{"at": {typed}}, measure.In)
		got := measure.Inch
		if f.Signed("at", &got); got != want || !f.OK() || f.Posted.Get("at") != typed {
			t.Errorf("%q is read as %v, and shown as %q: %v", typed, got, f.Posted.Get("at"), f.Faults)
		}
		again, shown := measure.Length(1), New(nil, measure.In).LengthField("at", "", "", want).Value
		if g := New(url.Values{"at": {shown}}, measure.In); true {
			if g.Signed("at", &again); again != want {
				t.Errorf("%v is shown as %q, and read as %v", want, shown, again)
			}
		}
	}
	f := New(url.Values{"at": {"-x"}}, measure.In)
	got := measure.Inch
	if f.Signed("at", &got); f.OK() || got != measure.Inch {
		t.Errorf("-x is read as %v", got)
	}
}
