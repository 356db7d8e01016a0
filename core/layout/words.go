package layout

import (
	"fmt"
	"strings"

	"brevium/core/measure"
)

// Words tells every cut of a laid sheet in order: which part is cut, which way
// and how far from which of its edges, and what comes off on either side. name
// is a piece's name, and show writes a length.
func (l Laid) Words(name func(piece int) string, show func(measure.Length) string) []string {
	parts := map[string]Rect{"1": {Width: l.Sheet.Width, Height: l.Sheet.Height}}
	called := map[string]string{"1": "the sheet"}
	var out []string
	for _, c := range l.Cuts {
		whole := parts[c.Part]
		near, far := whole, whole
		edge, sides := "top", [2]string{"above", "below"}
		if c.Across {
			edge, sides = "left", [2]string{"left of", "right of"}
			near.Width, far.X, far.Width = c.At, whole.X+c.At, whole.Width-c.At
		} else {
			near.Height, far.Y, far.Height = c.At, whole.Y+c.At, whole.Height-c.At
		}
		parts[c.Part+".1"], parts[c.Part+".2"] = near, far
		for i, side := range sides {
			called[fmt.Sprint(c.Part, ".", i+1)] = fmt.Sprintf("what lies %s cut %d", side, c.N)
		}
		out = append(out, fmt.Sprintf("%s, %s from its %s edge: %s | %s", called[c.Part], show(c.At), edge, l.within(near, name), l.within(far, name)))
	}
	return out
}

// within names what lies in a part of a sheet.
func (l Laid) within(r Rect, name func(piece int) string) string {
	var names []string
	count := map[string]int{}
	for _, p := range l.Placed {
		if p.X >= r.X && p.Y >= r.Y && p.X+p.Width <= r.X+r.Width && p.Y+p.Height <= r.Y+r.Height {
			n := name(p.Piece)
			if count[n] == 0 {
				names = append(names, n)
			}
			count[n]++
		}
	}
	for i, n := range names {
		if count[n] > 1 {
			names[i] = fmt.Sprintf("%d × %s", count[n], n)
		}
	}
	switch {
	case len(names) == 0:
		return "offcut"
	case len(names) > 3:
		return fmt.Sprintf("%s; and %d kinds more", names[0], len(names)-1)
	}
	return strings.Join(names, "; ")
}
