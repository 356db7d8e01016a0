package design

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/dress"
	"brevium/core/inspect"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// stands looks whether a label is in the way of what goes over its face.
func (d *Dressed) stands(l label.Label) []inspect.Finding {
	face, known := d.faceOf(l)
	if !known {
		return nil // it hangs, or lies on a band
	}
	for _, a := range d.Fits {
		if a.Pair.Inner != l.Piece || !a.Pair.Kind.Dressed {
			continue
		}
		if face.Role == pattern.Wall && d.off(l) > max(0, a.Gap/2) && d.covered(l, face) {
			flat := ""
			if l.Raised > 0 {
				flat = " glue it flat,"
			}
			return []inspect.Finding{{ID: "label", Verdict: inspect.Warn, Piece: l.Piece, Text: fmt.Sprintf(
				"The %s stands %s off the %s, where the %s goes over it with %s to spare: put it lower than that reaches,%s or allow more.",
				strings.ToLower(l.Name), measure.Label(d.off(l), measure.MM, measure.Tenth), face.Plain(), strings.ToLower(a.Pair.OuterName), measure.Label(max(0, a.Gap/2), measure.MM, measure.Tenth), flat)}}
		}
	}
	for _, b := range d.Bands {
		if l.Raised > 0 {
			return []inspect.Finding{{ID: "label", Verdict: inspect.Warn, Piece: l.Piece, Text: fmt.Sprintf(
				"The %s is raised on pads: put the %s on first, for it does not slide over a raised label.", strings.ToLower(l.Name), strings.ToLower(b.Name))}}
		}
	}
	for _, b := range d.Bands {
		if d.reaches(b, l) {
			return []inspect.Finding{{ID: "label", Verdict: inspect.Warn, Piece: l.Piece, Text: fmt.Sprintf(
				"The %s lies over the %s and on the card beside it, and holds it fast: glue it on the band alone.", strings.ToLower(l.Name), strings.ToLower(b.Name))}}
		}
	}
	if f := d.overEdges(l); f != nil {
		return f
	}
	if over := d.under(l); over != "" {
		return []inspect.Finding{{ID: "label", Verdict: inspect.Warn, Piece: l.Piece, Text: fmt.Sprintf("The %s lies over %s: put one of them on another face.", strings.ToLower(l.Name), over)}}
	}
	return []inspect.Finding{{ID: "label", Verdict: inspect.OK, Piece: l.Piece, Text: fmt.Sprintf("The %s is in the way of nothing.", strings.ToLower(l.Name))}}
}

// covered reports whether another piece lies close before a label when the box is shut.
func (d *Dressed) covered(l label.Label, face pattern.Face) bool {
	bodies, err := d.Bodies(style.Finished)
	i := slices.IndexFunc(bodies, func(b style.Body) bool { return b.Part.ID == l.Piece })
	if err != nil || i < 0 {
		return true // it is not known
	}
	k := slices.IndexFunc(bodies[i].Faces, func(f pattern.Face) bool { return f.Name == face.Name })
	if k < 0 {
		return true
	}
	fr := face.Frame()
	return slices.ContainsFunc(d.outlined(l, 0), func(q pattern.Point) bool {
		return before(bodies, l.Piece, bodies[i].Poses[k].Place(fr.At(q.X, q.Y)), bodies[i].Poses[k].Normal()) != ""
	})
}

// overEdges says that a label stands over an edge of its face: as it was wished, or because it
// is larger.
func (d *Dressed) overEdges(l label.Label) []inspect.Finding {
	f, known := d.faceOf(l)
	if !known {
		return nil
	}
	along, up := f.Frame().Size(f.Polygon)
	lo, hi := pattern.Bounds(d.outlined(l, 0))
	var over []string
	wished := true
	for _, e := range []struct {
		edge label.Edge
		by   float64
		off  label.Off
	}{{label.Left, -lo.X, l.Place.Across}, {label.Right, hi.X - along, l.Place.Across}, {label.Bottom, -lo.Y, l.Place.Up}, {label.Top, hi.Y - up, l.Place.Up}} {
		if e.by > 0.05 {
			over = append(over, fmt.Sprintf("%s over its %s edge", d.Show(measure.FromMM(e.by)), e.edge))
			wished = wished && e.off.From == e.edge && e.off.At < 0
		}
	}
	if len(over) == 0 {
		return nil
	}
	out := inspect.Finding{ID: "label", Verdict: inspect.OK, Piece: l.Piece, Text: fmt.Sprintf("The %s stands %s, as wished: glue it to the %s alone.", strings.ToLower(l.Name), strings.Join(over, " and "), f.Plain())}
	if !wished {
		out.Verdict = inspect.Warn
		out.Text = fmt.Sprintf("The %s is larger than its place on the %s of the %s: it stands %s. Make it smaller, or move it.", strings.ToLower(l.Name), f.Plain(), d.called(l.Piece), strings.Join(over, " and "))
	}
	return []inspect.Finding{out}
}

// reaches reports whether a label on a face lies over a band that goes over that face, so that the
// band could not slide.
func (d *Dressed) reaches(band Banded, l label.Label) bool {
	f, known := d.faceOf(l)
	bodies, err := d.Bodies(style.Finished)
	if !known || err != nil {
		return false
	}
	axis := slices.Index(BandAxes, band.Axis)
	for _, body := range bodies {
		for i, g := range body.Faces {
			if body.Part.ID != l.Piece || g.Name != l.Face {
				continue
			}
			of := func(v r3.Vec) float64 { return []float64{v.X, v.Y, v.Z}[axis] }
			if math.Abs(of(body.Poses[i].Normal())) > 0.5 {
				return false // the band does not cross it
			}
			at := band.At.MM()
			if axis == style.AlongHeight {
				at += d.Outside.Height.MM() / 2
			} else {
				at *= style.Back(bodies)
			}
			lo, hi := math.Inf(1), math.Inf(-1)
			for _, q := range d.outlined(l, 0) {
				v := of(body.Poses[i].Place(f.Frame().At(q.X, q.Y))) - at
				lo, hi = min(lo, v), max(hi, v)
			}
			half := band.Width.MM() / 2
			return lo < half && hi > -half
		}
	}
	return false
}

// under names what a label would lie on: another of its kind, a label, a hole or a notch; ""
// where there is nothing.
func (d *Dressed) under(l label.Label) string {
	if part, _ := d.part(l.Piece); l.Copies > part.Copies() { // one on each of alike pieces
		return "another of its kind"
	}
	mats := d.LabelMats()
	lowest := func(x label.Label) []pattern.Point {
		i := slices.IndexFunc(mats, func(m dress.Mat) bool { return m.ID == labelID(x, 1) })
		if i < 0 {
			return nil
		}
		return boxed(mats[i].On[0].Corners)
	}
	mine := lowest(l)
	for _, o := range d.Inputs.Labels {
		if o.ID == l.ID {
			break // each pair is told once, by the later one
		}
		if o.Is(l.Upon.Thing) || l.What.Bought() && !o.What.Bought() && o.Raised == 0 {
			continue // it is to lie there, or a bow sits well on a flat label
		}
		if o.Piece == l.Piece && o.Face == l.Face && o.Band == l.Band && len(pattern.Clip(mine, lowest(o))) > 2 {
			return "the " + strings.ToLower(o.Name)
		}
	}
	p, _ := d.part(l.Piece)
	for _, o := range p.Pattern.Openings {
		if o.Face == l.Face && len(pattern.Clip(o.Loop.Flat(), mine)) > 2 {
			return "the " + o.Kind + " there"
		}
	}
	return ""
}

// boxed is the rectangle about an outline.
func boxed(points []pattern.Point) []pattern.Point {
	lo, hi := pattern.Bounds(points)
	return []pattern.Point{lo, pattern.Pt(hi.X, lo.Y), hi, pattern.Pt(lo.X, hi.Y)}
}
