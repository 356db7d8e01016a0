package design

import (
	"slices"

	"brevium/core/dress"
	"brevium/core/label"
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
