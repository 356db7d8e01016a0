package dress

import (
	"slices"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// Run says how the picture of a dressing's top layer goes on from one face to the
// next round a box.
type Run string

// A picture that ends at each face; one that goes on under the card that shows
// between the papers, where it is cut away; and one of which every bit is kept.
const (
	Ends    Run = ""
	CutAway Run = "cut-away"
	AllKept Run = "kept"
)

// Runs lists the choices in the order they are offered.
var Runs = []Run{Ends, CutAway, AllKept}

// ParseRun accepts "", "cut-away" or "kept".
func ParseRun(s string) (Run, error) {
	if r := Run(s); slices.Contains(Runs, r) {
		return r, nil
	}
	return "", fault.New(fault.UnknownChoice, "", "%q is not how a picture runs; use cut-away, kept, or leave it out", s)
}

// Strip is where a mat is cut from a strip that several come out of: the strip's
// name, how far from its left end the mat begins, and how much of the picture
// stands to the left of that end, on strips before it.
type Strip struct {
	ID        string
	At, Begun measure.Length
}

// Phase is how far along the picture the mat begins.
func (s Strip) Phase() measure.Length { return s.Begun + s.At }

// RunOn puts the top papers of faces that go round a box, given in that order
// from left to right as one walks round it, one after another on strips no longer
// than longest, so that their picture goes on round the corners. They must be as
// high as one another and square.
func (d Dressing) RunOn(mats []Mat, faces []pattern.Face, order []string, longest measure.Length) ([]Mat, error) {
	if d.Runs == Ends {
		return mats, nil
	}
	out := slices.Clone(mats)
	var walk []*Mat
	for _, name := range order {
		for i := range out {
			if m := &out[i]; m.Face == name && m.Layer == len(d.Layers) && len(m.On) == 1 {
				walk = append(walk, m)
			}
		}
	}
	wrong := func(text string) ([]Mat, error) { return nil, fault.New(fault.UnknownPlace, "runs", "%s", text) }
	if d.Across {
		return wrong("a picture that runs on stands upright; let it, or let it end at each face")
	}
	if len(walk) < 2 {
		return wrong("a picture runs on from wall to wall: put the paper on two walls or more that stand upright beside each other")
	}
	// beside is the card that shows on each side of a mat.
	beside := func(m *Mat) measure.Length {
		i := slices.IndexFunc(faces, func(f pattern.Face) bool { return f.Name == m.Face })
		along, _ := faces[i].Frame().Size(faces[i].Polygon)
		return (measure.FromMM(along) - m.Width) / 2
	}
	at, begun := measure.Length(0), measure.Length(0)
	id := walk[0].ID + ".strip"
	for i, m := range walk {
		if m.Height != walk[0].Height || len(m.Shape) != 4 || !m.square() {
			return wrong("a picture runs on round walls of one height with square papers; make them so, or let it end at each face")
		}
		gap := measure.Length(0)
		if i > 0 && d.Runs == CutAway {
			gap = beside(walk[i-1]) + beside(m)
		}
		if i > 0 && at+gap+m.Width > longest {
			begun, at, gap = begun+at+gap, 0, 0
			id = m.ID + ".strip"
		}
		at += gap
		m.Strip = Strip{ID: id, At: at, Begun: begun}
		at += m.Width
	}
	return out, nil
}

// square reports whether the mat is the whole of its width and height.
func (m Mat) square() bool {
	for _, q := range m.Shape {
		x, y := measure.FromMM(q.X), measure.FromMM(q.Y)
		if x > measure.Micrometre && (m.Width-x).Abs() > measure.Micrometre || y > measure.Micrometre && (m.Height-y).Abs() > measure.Micrometre {
			return false
		}
	}
	return true
}
