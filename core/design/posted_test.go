package design

import (
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/stuff"
)

// By hand: thirty boxes of two pieces lie 1.1 · 30 · 0.6 mm high, flat; a full one with 2 cm all
// round is a small parcel; a crate of 400 × 300 × 250 takes ten in a layer.
func TestAParcel(t *testing.T) {
	t.Parallel()
	in := New("x", measure.MM, "tray-lid")
	in.Size["length"], in.Size["width"], in.Size["height"], in.Copies = 102*mm_, 76*mm_, 38*mm_, 30
	in.Load.Grams = 340
	r := make_(t, in)
	p := r.Parcel(stuff.Classes, [3]float64{400, 300, 250})
	if p.Flat[2] < 19.7 || p.Flat[2] > 19.9 || p.Full-p.Mine != 340 || len(p.Tubes) != 0 {
		t.Errorf("flat %v, %v g of %v: %v", p.Flat, p.Mine, p.Full, p.Tubes)
	}
	if name := stuff.Classes[p.ByPost.Index].Name; name != "small parcel" {
		t.Errorf("it goes as a %s", name)
	}
	if p.Crate.Layer != 10 || p.Crate.Room != 6 || p.Crate.Bears > 4 || p.Crate.All != 10*min(p.Crate.Room, p.Crate.Bears) {
		t.Errorf("a crate takes %+v", p.Crate)
	}
	for id, want := range map[string]string{"drawer-sleeve": "sleeve", "tall-box": "tube", "tray": ""} {
		q := make_(t, New("x", measure.MM, id)).Parcel(stuff.Classes, [3]float64{400, 300, 250})
		if got := strings.Join(q.Tubes, " "); !strings.Contains(got, want) || want == "" && got != "" || want != "" && q.GluedHigh <= q.Flat[2] {
			t.Errorf("%s: %q lies flat glued, %v mm high and not %v", id, got, q.GluedHigh, q.Flat[2])
		}
	}
}
