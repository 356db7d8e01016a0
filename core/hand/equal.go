package hand

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"brevium/core/pattern"
)

// Equal holds what was made of a piece against its design: outline, notches and holes,
// creases with their side, cuts, and each bond once. An error says what differs first.
func (c *Card) Equal(want *pattern.Pattern) error {
	if c.Width != want.Width || c.Height != want.Height {
		return fmt.Errorf("the %s is %v × %v, not %v × %v", c.ID, c.Width, c.Height, want.Width, want.Height)
	}
	checks := []func(*pattern.Pattern) error{c.bitten, c.outlined, c.creased, c.slit, c.bonded}
	if c.traced != nil {
		checks = []func(*pattern.Pattern) error{c.cutRound, c.creased, c.bonded}
	}
	for _, check := range checks {
		if err := check(want); err != nil {
			return fmt.Errorf("the %s: %w", c.ID, err)
		}
	}
	return nil
}

// cutRound holds a piece that was drawn round a template: its outline is the template's.
func (c *Card) cutRound(want *pattern.Pattern) error {
	if !c.round || c.traced != want {
		return errors.New("it is not cut round its template")
	}
	return nil
}

// bitten looks whether notches, holes and rounded corners leave the piece whole.
func (c *Card) bitten(want *pattern.Pattern) error {
	outline := want.Outline.Flat()
	for _, b := range c.bites {
		if slices.ContainsFunc(want.Holes, func(h pattern.Loop) bool { return slices.Equal(h, b) }) {
			continue
		}
		flat := b.Flat()
		in := pattern.Overlap(outline, flat)
		for _, h := range want.Holes {
			in -= pattern.Overlap(h.Flat(), flat)
		}
		if in > Close*around(flat) {
			return fmt.Errorf("what is cut out at (%.1f, %.1f) mm belongs to it", b[0].X, b[0].Y)
		}
	}
	return nil
}

// outlined holds the cells, with what was bitten off them, against what is left of the blank.
func (c *Card) outlined(want *pattern.Pattern) error {
	outline := want.Outline.Flat()
	area := func(ring []pattern.Point, x cell) float64 { return math.Abs(pattern.Area(pattern.Clip(ring, x.ring))) }
	for _, x := range c.cells {
		in, off := area(outline, x), 0.0
		for _, h := range want.Holes {
			in -= area(h.Flat(), x)
		}
		for _, b := range c.bites {
			off += area(b.Flat(), x)
		}
		mid, give := middle(x.ring), Close*around(x.ring)
		if x.off && in > give {
			return fmt.Errorf("what lies at (%.1f, %.1f) mm is cut off and belongs to it", mid.X, mid.Y)
		}
		if !x.off && math.Abs(math.Abs(pattern.Area(x.ring))-in-off) > give {
			return fmt.Errorf("what lies at (%.1f, %.1f) mm is to be cut off, or is not", mid.X, mid.Y)
		}
	}
	return nil
}

// around is the length of a ring.
func around(ring []pattern.Point) float64 {
	length := 0.0
	for i, p := range ring {
		length += ring[(i+1)%len(ring)].Sub(p).Len()
	}
	return length
}

func middle(ring []pattern.Point) pattern.Point {
	mid := pattern.Point{}
	for _, p := range ring {
		mid = mid.Add(p.Scale(1 / float64(len(ring))))
	}
	return mid
}

// creased holds every fold against what is scored and folded, and every score that is
// left against the folds.
func (c *Card) creased(want *pattern.Pattern) error {
	scored := slices.ContainsFunc(want.Creases, func(k pattern.Crease) bool { return !k.Rolled })
	if scored && !c.folded {
		return errors.New("it is not folded")
	}
	var folds []pattern.Segment
	for _, k := range want.Creases {
		if k.Rolled {
			if !c.bent {
				return errors.New("it is not bent")
			}
			continue
		}
		folds = append(folds, k.Segment)
		where := fmt.Sprintf("the fold from (%.1f, %.1f) to (%.1f, %.1f) mm", k.A.X, k.A.Y, k.B.X, k.B.Y)
		switch {
		case !c.isScored(k.Segment):
			return fmt.Errorf("%s is not scored", where)
		case c.bent && k.Hinge: // how far it folds is left to the bend beside it
		case covered(k.Segment, c.towards) != (k.Side == pattern.Towards):
			return fmt.Errorf("%s goes the other way", where)
		case k.Angle > 0 && covered(k.Segment, c.flat) != (k.Angle > Flat):
			return fmt.Errorf("%s is to be %v degrees", where, k.Angle)
		}
	}
	if c.traced != nil { // what is scored beside it has come off with the rest
		return nil
	}
	for i, x := range c.cells {
		if x.off {
			continue
		}
		for _, b := range c.borders(i) {
			if b.other > i && !b.cut && c.isScored(b.Segment) && !covered(b.Segment, folds) {
				return fmt.Errorf("what is scored from (%.1f, %.1f) to (%.1f, %.1f) mm is no fold", b.A.X, b.A.Y, b.B.X, b.B.Y)
			}
		}
	}
	return nil
}

// slit holds the cuts between what stays against the design's.
func (c *Card) slit(want *pattern.Pattern) error {
	var slits []pattern.Segment
	for _, s := range want.Slits {
		slits = append(slits, s.Segment)
	}
	for i, x := range c.cells {
		if x.off {
			continue
		}
		for _, b := range c.borders(i) {
			if b.other > i && b.cut && !covered(b.Segment, slits) {
				return fmt.Errorf("the cut from (%.1f, %.1f) to (%.1f, %.1f) mm is none of it", b.A.X, b.A.Y, b.B.X, b.B.Y)
			}
		}
	}
	for _, s := range slits {
		if !c.isCut(s) {
			return fmt.Errorf("it is to be cut from (%.1f, %.1f) to (%.1f, %.1f) mm", s.A.X, s.A.Y, s.B.X, s.B.Y)
		}
	}
	return nil
}

// bonded holds what is stuck to the piece itself against the design's adhesive.
func (c *Card) bonded(want *pattern.Pattern) error {
	faces, err := want.Faces()
	if err != nil {
		return err
	}
	face := func(p pattern.Point) string {
		for _, f := range faces {
			if pattern.Contains(f.Polygon, p) {
				return f.Name
			}
		}
		return ""
	}
	left := slices.Clone(c.stuck)
	for _, g := range want.Glue {
		if g.Dry || g.Piece != "" {
			continue
		}
		i := slices.IndexFunc(left, func(b Bond) bool {
			return b.Outside == g.Outside && b.OntoOutside == g.OntoOutside && face(b.Part) == g.Face && face(b.Onto) == g.Onto
		})
		if i < 0 {
			return fmt.Errorf("%q is not stuck onto %q", g.Face, g.Onto)
		}
		left = slices.Delete(left, i, i+1)
	}
	if len(left) > 0 {
		return fmt.Errorf("%d parts are stuck that are not to be", len(left))
	}
	return nil
}
