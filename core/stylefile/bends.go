package stylefile

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/pattern"
)

// bends says which stretches of a piece are bent over an edge instead of scored, each from
// face to face as far as it goes, and which way; "" where there are none.
func (p piece) bends(flat *pattern.Pattern) string {
	plain := func(face string) string {
		m, _ := flat.Mark(face)
		return m.Plain()
	}
	var said []string
	for _, towards := range []bool{false, true} {
		next := map[string][]string{}
		var faces []string
		for _, f := range p.Folds {
			if !f.Roll || f.Towards != towards {
				continue
			}
			for i, a := range f.Between {
				if next[a] == nil {
					faces = append(faces, a)
				}
				next[a] = append(next[a], f.Between[1-i])
			}
		}
		way := "away from you"
		if towards {
			way = "towards you"
		}
		seen := map[string]bool{}
		for _, from := range faces {
			if seen[from] || len(next[from]) != 1 { // a stretch begins at its end
				continue
			}
			to := from
			for on := true; on; {
				seen[to], on = true, false
				for _, x := range next[to] {
					if !seen[x] {
						to, on = x, true
						break
					}
				}
			}
			said = append(said, fmt.Sprintf("from the %s to the %s %s", plain(from), plain(to), way))
		}
	}
	if len(said) == 0 {
		return ""
	}
	slices.Sort(said)
	return "Bend the card evenly over the edge of the table, where nothing is scored: " + strings.Join(said, ", and ") + "."
}
