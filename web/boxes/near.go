package boxes

import (
	"cmp"
	"context"
	"regexp"
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/style"
	"brevium/store/boxshelf"
)

// sized is two or three sides that are looked for, as "9.4 x 3.9", with a unit at the end or none.
var sized = regexp.MustCompile(`(?i)` + side + `\s*[x×]\s*` + side + `(?:\s*[x×]\s*` + side + `)?\s*(in|cm|mm)?\b`)

// side is a length without its unit: "9.4", "3,9", "5 3/8", "3/8", "5½".
const side = `(\d+\s+\d+/\d+|\d+/\d+|\d+[½¼¾⅛⅜⅝⅞]|\d+(?:[.,]\d+)?)`

// sizeIn takes a size out of what is looked for, and gives it with the rest.
func sizeIn(find string, unit measure.Unit) (sides []measure.Length, rest string) {
	m := sized.FindStringSubmatchIndex(find)
	if m == nil {
		return nil, find
	}
	if m[8] >= 0 {
		unit = measure.Unit(strings.ToLower(find[m[8]:m[9]]))
	}
	for k := 1; k <= 3; k++ {
		if m[2*k] < 0 {
			continue
		}
		l, err := measure.Parse(strings.TrimSpace(find[m[2*k]:m[2*k+1]]), unit)
		if err != nil {
			return nil, find
		}
		sides = append(sides, l)
	}
	return sides, strings.TrimSpace(find[:m[0]] + " " + find[m[1]:])
}

// How near a side is to one that is looked for: by a share of it, or by a little where it is short.
const (
	nearShare = 0.08
	nearLeast = 4 * measure.Millimetre
)

// off is how far a box's inside is from the sides that are looked for, as a share, whichever way
// round it stands; false where it is not near.
func off(inside style.Extent, sides []measure.Length) (float64, bool) {
	all := []measure.Length{inside.Length, inside.Width, inside.Height}
	least, found := 0.0, false
	for _, order := range [][]int{{0, 1, 2}, {0, 2, 1}, {1, 0, 2}, {1, 2, 0}, {2, 0, 1}, {2, 1, 0}} {
		sum, near := 0.0, true
		for i, s := range sides {
			d := (all[order[i]] - s).Abs()
			near = near && d <= max(nearLeast, measure.Length(nearShare*float64(s)))
			sum += float64(d) / float64(max(s, measure.Millimetre))
		}
		if near && (!found || sum < least) {
			least, found = sum, true
		}
	}
	return least, found
}

// mostSized is how many boxes are worked out to find those of a size.
const mostSized = 500

// listed lists boxes; where a size is looked for, those whose inside is near it, the nearest first.
func (s *room) listed(ctx context.Context, l boxshelf.Listing, sides []measure.Length) ([]boxshelf.Box, int, error) {
	if len(sides) == 0 {
		return s.Store.Of(ctx).List(ctx, l)
	}
	from, count := l.From, l.Count
	l.From, l.Count = 0, mostSized
	all, _, err := s.Store.Of(ctx).List(ctx, l)
	if err != nil {
		return nil, 0, err
	}
	type found struct {
		boxshelf.Box
		off float64
	}
	var near []found
	for _, e := range s.entries(ctx, all) {
		if by, is := off(e.Inside, sides); is && e.Problem == "" {
			near = append(near, found{e.Box, by})
		}
	}
	slices.SortStableFunc(near, func(a, b found) int { return cmp.Compare(a.off, b.off) })
	var out []boxshelf.Box
	for _, f := range near[min(from, len(near)):min(from+count, len(near))] {
		out = append(out, f.Box)
	}
	return out, len(near), nil
}
