package style

import (
	"slices"
	"sync/atomic"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// own are a maker's styles, all versions of each; nil is none.
var own atomic.Pointer[[]*Style]

// SetOwn makes a maker's own styles known in place of those before. A style that is
// changed has another id, so that a box stays as it was made; Newer says that there is
// one, which is listed in its place.
func SetOwn(styles []*Style) { own.Store(&styles) }

func owned() []*Style {
	if all := own.Load(); all != nil {
		return *all
	}
	return nil
}

// Listed are the styles that are offered: those of the catalogue, then the newest of a
// maker's own.
func Listed() []*Style {
	return slices.Concat(All, slices.DeleteFunc(slices.Clone(owned()), func(s *Style) bool { return s.Newer }))
}

// AllowanceID is the id of the option that is solved from the gap, where a maker's own style has
// one: the same as of the lids of the catalogue.
const AllowanceID = "lid.allowance"

// Grid is a piece drawn as a table of scores, cut with these tools.
func (s Spec) Grid(columns, rows []measure.Length, cells string) *pattern.Grid {
	return s.grid(columns, rows, cells)
}
