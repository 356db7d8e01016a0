package design

import (
	"brevium/core/fault"
	"brevium/core/style"
)

// Sketch works out a design as far as its pieces: enough to draw the box and
// to say what it costs in card, without sheets, checks or steps.
func Sketch(in Inputs) (*Built, error) {
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
func sketchOf(in Inputs, s *style.Style) (*Built, error) {
	return sketchTrying(in, s, mostTried)
}

// sketchTrying prices only so many arrangements of what goes in.
func sketchTrying(in Inputs, s *style.Style, tries int) (*Built, error) {
	sized, err := size(in, s, tries)
	if err != nil {
		return nil, err
	}
	return build(sized)
}

// Bare is the box as it stands with nothing on it, to be drawn where it need not or cannot be
// dressed and laid.
func (b *Built) Bare() *Result {
	return &Result{Laid: Laid{Dressed: Dressed{Tied: Tied{Papered: Papered{Built: *b}}}}}
}
