package contents

import (
	"fmt"
	"math/bits"
	"slices"
	"strings"
)

// mostArrangements bounds the ways that are given for a mixture.
const mostArrangements = 160

// beam is how many blocks are kept for each set of kinds. Mixtures of up to
// three kinds are searched whole in practice; larger ones by their best.
func beam(kinds int) int {
	switch {
	case kinds <= 3:
		return 400
	case kinds <= 5:
		return 40
	case kinds <= 7:
		return 16
	}
	return 6
}

// Arrangements gives the ways of standing the things that take least room:
// each kind in columns, rows and layers or staggered, in the ways up that are
// allowed, the kinds parted edge to edge: any split of the kinds in two, side
// by side or one behind the other, and so on (a slicing floor plan; blocks no
// smaller than another along any axis are dropped, as in Stockmeyer, "Optimal
// orientations of cells in slicing floorplan designs", 1983). The sizes
// include the margins, the largest any thing asks for, once on each axis. The
// list is never empty for things that pass CheckAll, and is in order of
// surface.
func Arrangements(things []Thing) []Arrangement {
	n := len(things)
	best := make([][]*block, 1<<n)
	for i, t := range things {
		best[1<<i] = stands(i, t, t.Count)
		if n > 1 {
			best[1<<i] = best[1<<i][:min(len(best[1<<i]), beam(n))]
		}
	}
	for set := 1; set < 1<<n; set++ {
		if bits.OnesCount(uint(set)) > 1 {
			best[set] = joined(best, set, beam(n))
		}
	}
	whole := best[1<<n-1]
	var around margin
	for _, t := range things {
		around = around.or(t.margin())
	}
	var out []Arrangement
	for _, b := range whole[:min(len(whole), mostArrangements)] {
		out = append(out, b.arrangement(things, around))
	}
	return out
}

// joined gives the best blocks of a set of kinds from those of its parts. A
// part and the rest are taken once, the part with the set's first kind first.
func joined(best [][]*block, set, most int) []*block {
	kept := shortlist{most: most}
	lowest := set & -set
	for part := (set - 1) & set; part > 0; part = (part - 1) & set {
		if part&lowest == 0 {
			continue
		}
		for _, a := range best[part] {
			for _, b := range best[set^part] {
				h := max(a.h, b.h)
				kept.offer(block{l: a.l + b.l, w: max(a.w, b.w), h: h, a: a, b: b})
				kept.offer(block{l: max(a.l, b.l), w: a.w + b.w, h: h, a: a, b: b, behind: true})
			}
		}
	}
	out := make([]*block, len(kept.blocks))
	for i := range kept.blocks {
		b := kept.blocks[i]
		b.layers = max(b.a.layers, b.b.layers)
		out[i] = &b
	}
	return out
}

// shortlist keeps the blocks of least surface that are offered, in order,
// none of them as large as another along every axis.
type shortlist struct {
	most     int
	blocks   []block
	surfaces []float64
}

func (s *shortlist) offer(b block) {
	surface := b.surface()
	if n := len(s.blocks); n == s.most && surface >= s.surfaces[n-1] {
		return
	}
	at := len(s.blocks)
	for i := range s.blocks {
		if o := &s.blocks[i]; o.l <= b.l && o.w <= b.w && o.h <= b.h {
			return
		}
		if surface < s.surfaces[i] {
			at = i
			break
		}
	}
	s.blocks, s.surfaces = slices.Insert(s.blocks, at, b), slices.Insert(s.surfaces, at, surface)
	n := at + 1
	for i := n; i < len(s.blocks); i++ {
		if o := &s.blocks[i]; b.l <= o.l && b.w <= o.w && b.h <= o.h {
			continue
		}
		s.blocks[n], s.surfaces[n] = s.blocks[i], s.surfaces[i]
		n++
	}
	n = min(n, s.most)
	s.blocks, s.surfaces = s.blocks[:n], s.surfaces[:n]
}

func (b *block) arrangement(things []Thing, around margin) Arrangement {
	a := Arrangement{ID: b.id(), Layers: b.layers, Length: b.l, Width: b.w, Height: b.h}
	text := "the things, side by side"
	if b.leaf != nil {
		text = several(b.leaf.count, things[b.leaf.thing].Name)
	}
	a.Account = append([]Line{{text, b.l, b.w, b.h}}, around.lines()...)
	a.total()
	a.Spots = b.place(nil, (around.ease+around.padding+around.finger)/2, (around.ease+around.padding)/2)
	return a
}

// total makes the sizes the sums of the account.
func (a *Arrangement) total() {
	a.Length, a.Width, a.Height = 0, 0, 0
	for _, l := range a.Account {
		a.Length, a.Width, a.Height = a.Length+l.Length, a.Width+l.Width, a.Height+l.Height
	}
}

// id writes a block: "+" for side by side, "/" for one behind the other, a
// letter for each kind where they are not in their own order.
func (b *block) id() string {
	inOrder, next := true, 0
	b.leaves(func(g *grid) { inOrder = inOrder && g.thing == next; next++ })
	return b.write(!inOrder)
}

func (b *block) leaves(visit func(*grid)) {
	if b.leaf != nil {
		visit(b.leaf)
		return
	}
	b.a.leaves(visit)
	b.b.leaves(visit)
}

func (b *block) write(letters bool) string {
	if b.leaf != nil {
		if letters {
			return fmt.Sprintf("%c%s", 'a'+b.leaf.thing, b.leaf.id())
		}
		return b.leaf.id()
	}
	sign := "+"
	if b.behind {
		sign = "/"
	}
	var parts []string
	for _, k := range []*block{b.a, b.b} {
		s := k.write(letters)
		if k.leaf == nil && k.behind != b.behind {
			s = "(" + s + ")"
		}
		parts = append(parts, s)
	}
	return strings.Join(parts, sign)
}
