package design

import (
	"math"
	"slices"
	"strings"

	"brevium/core/dress"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// LabelPlace is where a new label goes as a rule: a lid's top, or else the front or the largest
// face that is not the floor; one without a window or a hole where there is one.
func (b *Built) LabelPlace() (piece, face string) {
	best := 0.0
	for _, p := range b.Parts {
		if p.Loose {
			continue
		}
		for _, f := range dress.Open(p.Pattern, p.Faces, dress.Outside) {
			worth := f.Area()
			switch {
			case style.IsFoot(p.Part, f), f.Role == pattern.Bend:
				continue
			case f.Role == pattern.Panel && p.Opens == style.Downwards:
				worth *= 100
			case style.IsFront(f):
				worth *= 10
			}
			if slices.ContainsFunc(p.Pattern.Openings, func(o pattern.Opening) bool { return o.Face == f.Name }) {
				worth /= 1e4
			}
			if worth > best {
				best, piece, face = worth, p.ID, f.Name
			}
		}
	}
	return piece, face
}

// Rested are the labels, those that lie on another thing with the face or the band of that.
func (in *Inputs) Rested() []label.Label {
	out := slices.Clone(in.Labels)
	for i := range out {
		l := &out[i]
		switch {
		case l.Upon.Thing != "":
			if k := slices.IndexFunc(out[:i], func(o label.Label) bool { return o.Is(l.Upon.Thing) }); k >= 0 {
				l.Piece, l.Face, l.Band = out[k].Piece, out[k].Face, out[k].Band
			}
		case l.Upon.Paper != "": // piece, face, or the first of several, and layer
			if parts := strings.Split(l.Upon.Paper, "."); len(parts) > 2 {
				face, _, _ := strings.Cut(strings.Join(parts[1:len(parts)-1], "."), "-to-")
				l.Piece, l.Face = parts[0], face
			}
		}
	}
	return out
}

// upon is the thing that a label lies on, one that comes before it.
func (b *Built) upon(l label.Label) (label.Label, bool) {
	for _, o := range b.Inputs.Labels {
		if o.ID == l.ID {
			break
		}
		if o.Is(l.Upon.Thing) {
			return o, true
		}
	}
	return label.Label{}, false
}

// off is how far a label stands off its face, with what it lies on.
func (b *Built) off(l label.Label) measure.Length {
	if under, lies := b.upon(l); lies {
		return l.Thick() + b.off(under)
	}
	return l.Thick()
}

// outlined is where the nth layer of a label lies on its face, in mm from the face's lower left
// corner: by the edges of the face, or of the thing or the paper that it lies on.
func (p *Papered) outlined(l label.Label, n int) []pattern.Point {
	_, lo, hi, known := p.ground(l)
	if !known {
		return nil
	}
	out := l.On(n, hi.X-lo.X, hi.Y-lo.Y)
	for i := range out {
		out[i] = out[i].Add(lo)
	}
	return out
}

// ground is the rectangle that a label lies on, by the frame of its face: the face, or the thing or
// the paper on it.
func (p *Papered) ground(l label.Label) (fr pattern.Frame, lo, hi pattern.Point, known bool) {
	f, known := p.faceOf(l)
	if !known {
		return fr, lo, hi, false
	}
	fr = f.Frame()
	along, up := fr.Size(f.Polygon)
	hi = pattern.Pt(along, up)
	if under, is := p.upon(l); is {
		lo, hi = pattern.Bounds(p.outlined(under, 0))
	}
	if m, is := p.paperUnder(l); is {
		var in []pattern.Point
		for _, q := range m.Outline() {
			in = append(in, fr.In(q))
		}
		lo, hi = pattern.Bounds(in)
	}
	return fr, lo, hi, true
}

// paperUnder is the paper that a label lies on; when that is taken away, it lies on the face.
func (p *Papered) paperUnder(l label.Label) (dress.Mat, bool) {
	i := slices.IndexFunc(p.Mats, func(m dress.Mat) bool { return m.ID == l.Upon.Paper })
	if i < 0 {
		return dress.Mat{}, false
	}
	return p.Mats[i], true
}

// snap is how near to the middle or to an edge something is put down to lie there, in mm.
const snap = 1.5

// Moved is the place of a label that a hand pushes by so many mm on the flat piece: counted from
// the edge that it was counted from, or from the nearest where that was the middle; on the ruler's
// marks, and in the middle or at an edge where it comes near to that.
func (p *Papered) Moved(l label.Label, by pattern.Point) label.Place {
	fr, lo, hi, known := p.ground(l)
	if !known {
		return l.Place
	}
	low, high := pattern.Bounds(p.outlined(l, 0))
	ruler := p.Inputs.Tools.Tick.Ruler()
	off := func(was label.Off, first, last label.Edge, before, after float64) label.Off {
		if math.Abs(before-after)/2 <= snap {
			return label.Off{}
		}
		o := label.Off{From: was.From}
		if was.From == label.Middle {
			if o.From = first; after < before {
				o.From = last
			}
		}
		at := before
		if o.From == last {
			at = after
		}
		if math.Abs(at) > snap {
			o.At = measure.Nearest(measure.FromMM(at), ruler)
		}
		return o
	}
	x, y := by.Dot(fr.Along), by.Dot(fr.Up)
	place := l.Place
	place.Across = off(l.Place.Across, label.Left, label.Right, low.X+x-lo.X, hi.X-high.X-x)
	place.Up = off(l.Place.Up, label.Bottom, label.Top, low.Y+y-lo.Y, hi.Y-high.Y-y)
	return place
}

// Fitted is a label made no larger than two thirds of its face.
func (b *Built) Fitted(l label.Label) label.Label {
	f, known := b.faceOf(l)
	if !known {
		return l
	}
	along, up := f.Frame().Size(f.Polygon)
	for l.Width.MM() > along*2/3 || l.Height.MM() > up*2/3 {
		l.Width, l.Height = l.Width*3/4, l.Height*3/4
		if l.Width < 2*label.Least || l.Height < 2*label.Least {
			break
		}
	}
	return l
}
