package design

import (
	"brevium/core/fault"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Sketch works out a design as far as its pieces: enough to draw the box and
// to say what it costs in card, without sheets, checks or steps.
func Sketch(in Inputs) (*Result, error) {
	if err := in.Check(); err != nil {
		return nil, err
	}
	s, err := style.ByID(in.Style)
	if err != nil {
		return nil, fault.At("style", err)
	}
	return sketchOf(in, s)
}

// sketchOf does so for a style that need not be in the catalogue.
func sketchOf(in Inputs, s *style.Style) (r *Result, err error) {
	r = &Result{Inputs: in, Style: s}
	if r.Spec, err = in.spec(s); err != nil {
		return nil, err
	}
	if err := r.build(); err != nil {
		return nil, err
	}
	return r, nil
}

// CardArea is the area of the blanks of one box, in mm².
func (r *Result) CardArea() float64 {
	area := 0.0
	for _, p := range r.Parts {
		area += p.Pattern.Width.MM() * p.Pattern.Height.MM() * float64(p.Copies())
	}
	return area
}

// Shown is the state in which pictures show the box: apart, so that one sees
// in, but shut where its parts stand on one another.
func (r *Result) Shown() style.State {
	if len(r.Box.Stands) > 0 || len(r.Inputs.Bands)+len(r.Inputs.Ribbons) > 0 {
		return style.Finished
	}
	return style.Open
}

// Pieces gives the parts that stand in the box as the style made them, each with
// its finished form.
func (r *Result) Pieces() ([]style.Part, []*pattern.Folded) {
	var parts []style.Part
	var folded []*pattern.Folded
	for _, p := range r.Parts {
		if p.Loose {
			continue
		}
		parts = append(parts, p.Part)
		folded = append(folded, p.Folded)
	}
	return parts, folded
}
