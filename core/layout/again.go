package layout

import (
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/paper"
)

// again reads a layout back into the trees it was made of, by following its
// cuts. It is nil when there is none, or when it is not one of this job.
func (j *Job) again(r *Result) *attempt {
	if r == nil {
		return nil
	}
	a := &attempt{}
	placed := make([]int, len(j.Pieces))
	for _, l := range r.Sheets {
		kind := slices.IndexFunc(j.Sheets, func(s paper.Sheet) bool {
			return s.Name == l.Sheet.Name && s.Width == l.Sheet.Width && s.Height == l.Sheet.Height
		})
		if kind < 0 {
			return nil
		}
		root := j.regrow(l)
		if root == nil {
			return nil
		}
		for _, p := range l.Placed {
			if p.Piece >= len(placed) {
				return nil
			}
			placed[p.Piece]++
		}
		a.sheets = append(a.sheets, kind)
		a.roots = append(a.roots, root)
		a.cost += sheetCost(j.Sheets[kind])
	}
	for i, n := range placed {
		if n != j.Pieces[i].Copies {
			return nil
		}
	}
	return a
}

// regrow makes a sheet's tree from its cuts; nil when they do not take it
// apart into its pieces.
func (j *Job) regrow(l Laid) *node {
	part, trims := "1", 0
	if j.Trim > 0 {
		trims, part = 4, "1.2.1.2.1"
	}
	if len(l.Cuts) < trims {
		return nil
	}
	parts := map[string]*node{part: leaf(l.Sheet.Width-2*j.Trim+j.Kerf, l.Sheet.Height-2*j.Trim+j.Kerf)}
	root := parts[part]
	at := map[*node][2]measure.Length{root: {j.Trim, j.Trim}}
	for _, c := range l.Cuts[trims:] {
		n := parts[c.Part]
		if n == nil || n.a != nil {
			return nil
		}
		n.across, n.at = c.Across, c.At+j.Kerf
		x, y := at[n][0], at[n][1]
		if c.Across {
			n.a, n.b = leaf(n.at, n.h), leaf(n.w-n.at, n.h)
			x += n.at
		} else {
			n.a, n.b = leaf(n.w, n.at), leaf(n.w, n.h-n.at)
			y += n.at
		}
		at[n.a], at[n.b] = at[n], [2]measure.Length{x, y}
		parts[c.Part+".1"], parts[c.Part+".2"] = n.a, n.b
	}
	for _, p := range l.Placed {
		found := false
		for name, n := range parts {
			if n.a != nil || at[n] != [2]measure.Length{p.X, p.Y} || n.w != p.Width+j.Kerf || n.h != p.Height+j.Kerf || !strings.HasPrefix(name, part) {
				continue
			}
			n.piece, n.turned, found = p.Piece, p.Turned, true
		}
		if !found {
			return nil
		}
	}
	return root
}
