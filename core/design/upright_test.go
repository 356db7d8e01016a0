package design

import (
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// What is called upwards on a face is upwards on the finished box: papers, labels and
// patterns that run one way stand by it. A lid's walls hang.
func TestUpwardsIsUp(t *testing.T) {
	t.Parallel()
	for _, s := range style.Listed() {
		in := New("x", measure.In, s.ID)
		in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
		r, err := Make(t.Context(), in)
		if err != nil {
			t.Fatalf("%s: %v", s.ID, err)
		}
		bodies, err := r.Bodies(style.Finished)
		if err != nil {
			t.Fatal(err)
		}
		for _, b := range bodies {
			if b.Part.On != nil { // a small box may be carried on its head
				continue
			}
			for i, f := range b.Faces {
				if f.Up == (pattern.Point{}) || f.Role == pattern.Bend {
					continue
				}
				at := f.Polygon[0]
				rise := b.Poses[i].Place(at.Add(f.Up.Scale(1/f.Up.Len()))).Z - b.Poses[i].Place(at).Z
				if rise < -0.3 {
					t.Errorf("%s: on the %s of the %s upwards points down (%.2f)", s.ID, f.Plain(), b.Part.Name, rise)
				}
			}
		}
	}
}
