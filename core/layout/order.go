package layout

import (
	"slices"

	"brevium/core/measure"
)

// LeastHold is the narrowest part that fingers hold safely beside a blade
// while a cut runs along it.
const LeastHold = 25 * measure.Millimetre

// Narrow tells that a part is too narrow to be held safely by its edge for
// this cut; it wants a strip of card laid over it to press on.
func (c Cut) Narrow() bool { return c.Of < LeastHold }

// like tells whether two cuts are made with one setting of the fence.
func (c Cut) like(d Cut) bool { return c.At == d.At }

// Order numbers the cuts of a sheet as a hand makes them: of the parts there
// are, the one with the longest cut comes first; of equals one at the present
// setting of the fence.
func (l *Laid) Order() {
	by, order := l.byPart(), make([]Cut, 0, len(l.Cuts))
	waiting := []int{}
	if i, ok := by["1"]; ok {
		waiting = append(waiting, i)
	}
	for len(waiting) > 0 {
		best := 0
		for k := range waiting {
			a, b := l.Cuts[waiting[k]], l.Cuts[waiting[best]]
			last := len(order) - 1
			if a.Length > b.Length || a.Length == b.Length && last >= 0 && a.like(order[last]) && !b.like(order[last]) {
				best = k
			}
		}
		c := l.Cuts[waiting[best]]
		waiting = append(slices.Delete(waiting, best, best+1), after(by, c)...)
		c.N = len(order) + 1
		order = append(order, c)
	}
	l.Cuts = order
}

func (l *Laid) byPart() map[string]int {
	by := make(map[string]int, len(l.Cuts))
	for i, c := range l.Cuts {
		by[c.Part] = i
	}
	return by
}

// after lists the cuts of the two parts that a cut makes.
func after(by map[string]int, c Cut) []int {
	var out []int
	for _, part := range []string{c.Part + ".1", c.Part + ".2"} {
		if i, ok := by[part]; ok {
			out = append(out, i)
		}
	}
	return out
}

// Setting is one place of the fence, and the cuts made before it is moved.
type Setting struct {
	Fence measure.Length
	Cuts  []CutAt
}

// CutAt is a cut by its sheet and itself, both indexes into a Result.
type CutAt struct{ Sheet, Cut int }

// Settings orders the cuts of all sheets for a batch, so that the fence is
// moved seldom: it is set for the longest cut that can be made, and every cut
// of every sheet at that setting is made before it is moved again. Each part
// is there before it is cut.
func (r *Result) Settings() []Setting {
	by := make([]map[string]int, len(r.Sheets))
	var waiting []CutAt
	for i := range r.Sheets {
		by[i] = r.Sheets[i].byPart()
		if c, ok := by[i]["1"]; ok {
			waiting = append(waiting, CutAt{i, c})
		}
	}
	cut := func(x CutAt) Cut { return r.Sheets[x.Sheet].Cuts[x.Cut] }
	var out []Setting
	for len(waiting) > 0 {
		longest := waiting[0]
		for _, x := range waiting {
			if cut(x).Length > cut(longest).Length {
				longest = x
			}
		}
		s := Setting{Fence: cut(longest).At}
		for i := 0; i < len(waiting); i++ { // the list grows as it is gone through
			x := waiting[i]
			if cut(x).At != s.Fence {
				continue
			}
			s.Cuts = append(s.Cuts, x)
			for _, next := range after(by[x.Sheet], cut(x)) {
				waiting = append(waiting, CutAt{x.Sheet, next})
			}
		}
		waiting = slices.DeleteFunc(waiting, func(x CutAt) bool { return cut(x).At == s.Fence })
		out = append(out, s)
	}
	return out
}
