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
	called := map[string]string{"1": "the sheet"}
	var out []string
	for i, d := range l.Divisions() {
		c := l.Cuts[i]
		sides := [2]string{"above", "below"}
		if c.Across {
			sides = [2]string{"left of", "right of"}
		}
		for i, side := range sides {
			called[fmt.Sprint(c.Part, ".", i+1)] = fmt.Sprintf("what lies %s cut %d", side, c.N)
		}
		out = append(out, fmt.Sprintf("%s, %s from its %s edge: %s | %s", called[c.Part], show(c.At), c.Edge(), l.Within(d.Near, name), l.Within(d.Far, name)))
	}
	return out
}

// Edge is the edge of a part that lies on the fence for a cut.
func (c Cut) Edge() string {
	if c.Across {
		return "left"
	}
	return "top"
}

// Division is a part of a sheet, and what a cut makes of it: Near lies between the
// fence and the blade, Far falls off.
type Division struct{ Whole, Near, Far Rect }

// Divisions gives what each cut divides, in their order.
func (l Laid) Divisions() []Division {
	parts := map[string]Rect{"1": {Width: l.Sheet.Width, Height: l.Sheet.Height}}
	out := make([]Division, len(l.Cuts))
	for i, c := range l.Cuts {
		whole := parts[c.Part]
		near, far := whole, whole
		if c.Across {
			near.Width, far.X, far.Width = c.At, whole.X+c.At, whole.Width-c.At
		} else {
			near.Height, far.Y, far.Height = c.At, whole.Y+c.At, whole.Height-c.At
		}
		parts[c.Part+".1"], parts[c.Part+".2"] = near, far
		out[i] = Division{whole, near, far}
	}
	return out
}

// Holds reports whether all of another rectangle lies in this one.
func (r Rect) Holds(p Rect) bool {
	return p.X >= r.X && p.Y >= r.Y && p.X+p.Width <= r.X+r.Width && p.Y+p.Height <= r.Y+r.Height
}

// Leftover is what a part is called that holds no piece.
const Leftover = "offcut"

// Within names what lies in a part of a sheet.
func (l Laid) Within(r Rect, name func(piece int) string) string {
	var names []string
	count := map[string]int{}
	for _, p := range l.Placed {
		if r.Holds(p.Rect) {
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
		return Leftover
	case len(names) > 3:
		return fmt.Sprintf("%s; and %d kinds more", names[0], len(names)-1)
	}
	return strings.Join(names, "; ")
}

// Places tells where on its sheet each piece lies that scissors cut out by its shape: how far its frame is
// from the left and the top edge, and how it lies turned. Of others it tells nothing.
func (l Laid) Places(name func(piece int) string, show func(measure.Length) string) []string {
	if !l.ByShape || len(l.Loads) > 0 {
		return nil
	}
	from := func(at measure.Length, edge string) string {
		if at < measure.Millimetre/20 {
			return "at the " + edge + " edge"
		}
		return show(at) + " from the " + edge + " edge"
	}
	turns := [4]string{"", ", a quarter turn with the clock", ", upside down", ", a quarter turn against the clock"}
	var out []string
	for _, p := range l.Placed {
		out = append(out, fmt.Sprintf("%s: %s, %s%s", name(p.Piece), from(p.X, "left"), from(p.Y, "top"), turns[p.Quarters()]))
	}
	return out
}
