package stylefile

import (
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/style"
)

// How far, in mm, rings of faces may be from closing, and in cards a glued face may lie
// off the one that it meets; with less area in common, in mm², they do not meet.
const (
	openRing  = 0.1
	offInCard = 3
	leastMeet = 1
)

// closes folds a piece and checks that its rings close and that each face comes to lie
// on the one that it is glued to.
func closes(p style.Part, s style.Spec) error {
	f, err := p.Pattern.Finished(p.Root)
	if err != nil {
		return err
	}
	length := func(mm float64) string {
		unit := s.Units
		if unit == "" {
			unit = measure.MM
		}
		return measure.Label(measure.Nearest(measure.FromMM(mm), unit.Ruler()), unit, unit.Ruler())
	}
	if f.Residual > openRing {
		return fault.New(fault.NoRoom, "", "a ring does not close: by these angles two faces end %s apart", length(f.Residual))
	}
	for _, l := range f.Landings(p.Pattern) {
		g := l.Glue
		switch {
		case g.Dry:
		case l.Off > offInCard*p.Card.MM()+openRing:
			return fault.New(fault.NoRoom, "", "a ring does not close: %s ends %s off %s, which it is glued to", g.Face, length(l.Off), g.Onto)
		case l.Area < leastMeet:
			return fault.New(fault.NoRoom, "", "%s does not reach %s, which it is glued to", g.Face, g.Onto)
		}
	}
	return nil
}
