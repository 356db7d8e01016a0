package recipe

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/pattern"
	"brevium/core/style"
)

// elsewhere names where a glue patch lands on another piece.
func (w Work) elsewhere(g pattern.Glue) string {
	for _, p := range w.Parts {
		if p.ID != g.Piece {
			continue
		}
		name := "the " + strings.ToLower(p.Name)
		if mark, known := p.Pattern.Mark(g.Onto); known {
			return name + "'s " + mark.Plain()
		}
		return name
	}
	return "the " + strings.ReplaceAll(g.Piece, "-", " ")
}

// faceWords tells of a piece's faces what no number tells: which is which on
// the flat card, which way each score is folded, what is glued and what stays
// dry.
type faceWords struct {
	names, folding string
	gluing         []string // of each act
	later          string   // what is glued to another piece
}

func wordsOf(part style.Part, elsewhere func(pattern.Glue) string) faceWords {
	p := part.Pattern
	faces, err := p.Faces()
	if err != nil { // a pattern that does not fold has been refused before
		return faceWords{gluing: make([]string, len(part.Gluing))}
	}
	now, later := glueWords(part, elsewhere)
	whole := unparted(part, faces)
	return faceWords{faceRows(whole), foldWords(p, whole), now, later}
}

// unparted are the faces as a hand tells them apart: those that only a bend without a score
// parts are one, called by the one that lies nearest to the piece's root. What is itself no
// more than part of a bend keeps its name.
func unparted(part style.Part, faces []pattern.Face) []pattern.Face {
	p := part.Pattern
	of := make([]int, len(faces)) // the face that each counts to
	far := make([]int, len(faces))
	for i := range faces {
		of[i] = i
		if far[i] = len(faces); faces[i].Name == part.Root {
			far[i] = 0
		}
	}
	for range faces { // each round goes one fold further from the root
		for _, c := range p.Creases {
			if two := besides(faces, c.Segment); len(two) == 2 {
				far[two[0]], far[two[1]] = min(far[two[0]], far[two[1]]+1), min(far[two[1]], far[two[0]]+1)
			}
		}
	}
	root := func(i int) int {
		for of[i] != i {
			i = of[i]
		}
		return i
	}
	for _, c := range p.Creases {
		two := besides(faces, c.Segment)
		if !c.Rolled || len(two) != 2 || faces[two[0]].Role == pattern.Bend || faces[two[1]].Role == pattern.Bend {
			continue
		}
		a, b := root(two[0]), root(two[1])
		if far[b] < far[a] {
			a, b = b, a
		}
		of[b] = a
	}
	out := slices.Clone(faces)
	for i := range out {
		if k := root(i); k != i {
			out[i].Name, out[i].Words, out[i].Role = faces[k].Name, faces[k].Words, faces[k].Role
		}
	}
	return out
}

// faceRows names the faces as they lie, outside up, row by row from the top.
func faceRows(faces []pattern.Face) string {
	type row struct {
		top, bottom float64
		faces       []*pattern.Face
	}
	middle := func(f *pattern.Face) float64 {
		lo, hi := pattern.Bounds(f.Polygon)
		return (lo.X + hi.X) / 2
	}
	sorted := make([]*pattern.Face, 0, len(faces))
	for i := range faces {
		if faces[i].Role != pattern.Bend && faces[i].Name != "" {
			sorted = append(sorted, &faces[i])
		}
	}
	// Of a face in several parts the largest stands for all.
	slices.SortStableFunc(sorted, func(a, b *pattern.Face) int { return -cmp.Compare(a.Area(), b.Area()) })
	seen := map[string]bool{}
	sorted = slices.DeleteFunc(sorted, func(f *pattern.Face) bool {
		was := seen[f.Name]
		seen[f.Name] = true
		return was
	})
	// The tallest decide what a row is; a narrow tab belongs to the row it is beside.
	var rows []row
	for _, f := range sorted {
		lo, hi := pattern.Bounds(f.Polygon)
		k := slices.IndexFunc(rows, func(r row) bool {
			return min(r.bottom, hi.Y)-max(r.top, lo.Y) > 0.6*min(r.bottom-r.top, hi.Y-lo.Y)
		})
		if k < 0 {
			k = len(rows)
			rows = append(rows, row{top: lo.Y, bottom: hi.Y})
		}
		rows[k].faces = append(rows[k].faces, f)
	}
	slices.SortFunc(rows, func(a, b row) int { return cmp.Compare(a.top, b.top) })
	if len(sorted) < 2 {
		return ""
	}
	var out []string
	for _, r := range rows {
		slices.SortFunc(r.faces, func(a, b *pattern.Face) int { return cmp.Compare(middle(a), middle(b)) })
		var names []string
		for _, f := range r.faces {
			if f.Role == pattern.Tab && strings.Contains(f.Plain(), "tab") {
				names = append(names, "tab")
			} else {
				names = append(names, f.Plain())
			}
		}
		out = append(out, strings.Join(names, ", "))
	}
	return "Its faces, outside up, from the top edge down and from left to right, row by row: " + strings.Join(out, "; ") + "."
}

// the puts the article before a name that is not a number's.
func the(name string) string {
	if name[len(name)-1] >= '0' && name[len(name)-1] <= '9' && !strings.Contains(name, " of ") {
		return name
	}
	return "the " + name
}

// foldWords says which scores are folded which way: away from someone who
// looks at the outside, but for those that are named. Faces that are numbered
// are named once where all of their kind fold alike.
func foldWords(p *pattern.Pattern, faces []pattern.Face) string {
	kinds := map[string]map[pattern.Side]bool{} // the sides that folds between two kinds of face go to
	over := map[string]map[bool]bool{}
	var named []foldName
	longest := longestFolds(p, faces)
	for _, c := range p.Creases {
		f := nameFold(faces, c)
		if c.Rolled || c.B.Sub(c.A).Len() < longest[f.faces]-Straight {
			continue
		}
		if kinds[f.kind] == nil {
			kinds[f.kind], over[f.kind] = map[pattern.Side]bool{}, map[bool]bool{}
		}
		kinds[f.kind][c.Side] = true
		over[f.kind][c.Angle > 179] = true
		if c.Angle >= 0.01 {
			named = append(named, f)
		}
	}
	var towards, flat []string
	away := false
	add := func(to *[]string, f foldName, alike bool) {
		words := f.faces
		if alike {
			words = f.kind
		}
		if !slices.Contains(*to, words) {
			*to = append(*to, words)
		}
	}
	for _, f := range named {
		away = away || f.side == pattern.Away
		if f.side == pattern.Towards {
			add(&towards, f, len(kinds[f.kind]) == 1)
		} else if f.over {
			add(&flat, f, len(over[f.kind]) == 1)
		}
	}
	var out []string
	switch {
	case away && len(towards) == 0:
		out = append(out, "Fold every score away from you and burnish it.")
	case away:
		out = append(out, fmt.Sprintf("Fold these scores towards you: %s; fold all others away from you, and burnish them.", strings.Join(towards, "; ")))
	case len(towards) > 0:
		out = append(out, "Fold every score towards you and burnish it.")
	}
	if len(flat) > 0 {
		out = append(out, fmt.Sprintf("Fold right over, flat: %s.", strings.Join(flat, "; ")))
	}
	return strings.Join(out, " ")
}

// longestFolds is how long, in mm, the longest fold between two faces is, by what they are
// called together. Where a bend without a score goes on in a fold, the rest is its short end
// and is folded with it; without such bends no fold is the end of another, and it is nil.
func longestFolds(p *pattern.Pattern, faces []pattern.Face) map[string]float64 {
	seen := map[string]bool{}
	if !slices.ContainsFunc(faces, func(f pattern.Face) bool {
		again := f.Name != "" && seen[f.Name]
		seen[f.Name] = true
		return again
	}) {
		return nil
	}
	out := map[string]float64{}
	for _, c := range p.Creases {
		between := nameFold(faces, c).faces
		out[between] = max(out[between], c.B.Sub(c.A).Len())
	}
	return out
}

// foldName is what one fold is called: by its two faces, or by what kinds of
// face they are when such are numbered.
type foldName struct {
	faces, kind string
	side        pattern.Side
	over        bool
}

func nameFold(faces []pattern.Face, c pattern.Crease) foldName {
	names := beside(faces, c.Segment)
	f := foldName{side: c.Side, over: c.Angle > 179}
	var each, kind []string
	numbered := false
	for _, n := range names {
		k := strings.TrimRight(n, "0123456789")
		numbered = numbered || k != n
		each, kind = append(each, the(n)), append(kind, strings.TrimSpace(k))
	}
	slices.Sort(each)
	slices.Sort(kind)
	f.faces = "between " + style.And(each)
	f.kind = f.faces
	switch {
	case numbered && len(kind) == 2 && kind[0] == kind[1]:
		f.kind = "every fold between two " + kind[0] + "s"
	case numbered:
		f.kind = "every fold between a " + strings.Join(kind, " and a ")
	}
	return f
}

// beside names the faces on both sides of a fold.
func beside(faces []pattern.Face, s pattern.Segment) []string {
	var names []string
	for _, i := range besides(faces, s) {
		names = append(names, faces[i].Plain())
	}
	return names
}

// besides are the faces on both sides of a fold.
func besides(faces []pattern.Face, s pattern.Segment) []int {
	mid, d := s.A.Add(s.B).Scale(0.5), s.B.Sub(s.A)
	off := pattern.Pt(-d.Y, d.X).Scale(0.05 / d.Len())
	var out []int
	for _, at := range []pattern.Point{mid.Add(off), mid.Sub(off)} {
		for i := range faces {
			if faces[i].Name != "" && pattern.Contains(faces[i].Polygon, at) {
				out = append(out, i)
				break
			}
		}
	}
	return out
}

// glueWords says where adhesive goes and where it lands, face by face, in each act of
// gluing what it puts on, and which faces that lie on another stay dry; and what lands on
// another piece only when they are put together. elsewhere names where a patch lands on
// another piece.
func glueWords(part style.Part, elsewhere func(pattern.Glue) string) (alone []string, together string) {
	p := part.Pattern
	called := map[string]string{} // by what is told of a face that a bend parts from a larger one
	if faces, err := p.Faces(); err == nil {
		for i, f := range unparted(part, faces) {
			called[faces[i].Name] = f.Name
		}
	}
	plain := func(name string) string {
		if larger := called[name]; larger != "" {
			name = larger
		}
		if mark, known := p.Mark(name); known {
			return the(mark.Plain())
		}
		return "the other piece"
	}
	sides := map[bool]string{true: "outside", false: "inside"}
	type landing struct {
		side, onto string
		later      bool
		act        int
		faces      []string
	}
	var glued []landing
	acts := max(1, len(part.Gluing))
	dry := make([][]string, acts)
	for _, g := range p.Glue {
		face, act, own := plain(g.Face), 0, false
		if m, known := p.Mark(g.Face); known {
			act, own = part.GluedIn(m)
		}
		if g.Dry {
			if !own && called[g.Face] == g.Face && !slices.Contains(dry[act], face) {
				dry[act] = append(dry[act], face)
			}
			continue
		}
		onto := fmt.Sprintf("the %s of %s", sides[g.OntoOutside], plain(g.Onto))
		if g.Piece != "" {
			onto = elsewhere(g)
		}
		k := slices.IndexFunc(glued, func(l landing) bool { return l.act == act && l.side == sides[g.Outside] && l.onto == onto })
		if k < 0 {
			k = len(glued)
			glued = append(glued, landing{side: sides[g.Outside], onto: onto, later: g.Piece != "", act: act})
		}
		if !slices.Contains(glued[k].faces, face) {
			glued[k].faces = append(glued[k].faces, face)
		}
	}
	now := make([][]string, acts)
	var later []string
	for _, l := range glued {
		words := fmt.Sprintf("the %s of %s onto %s", l.side, style.And(l.faces), l.onto)
		if l.later {
			later = append(later, words)
		} else {
			now[l.act] = append(now[l.act], words)
		}
	}
	if len(later) > 0 {
		together = "Only when they are put together: " + strings.Join(later, "; ") + "."
	}
	for act := range acts {
		var text []string
		if len(now[act]) > 0 {
			text = append(text, "What is glued: "+strings.Join(now[act], "; ")+".")
		}
		if len(dry[act]) > 0 {
			text = append(text, "No adhesive on "+style.And(dry[act])+".")
		}
		alone = append(alone, strings.Join(text, " "))
	}
	return alone, together
}
