package reading

import (
	"cmp"
	"slices"

	"brevium/core/measure"
)

// Now gives the number that stands for a use when its piece is cut and scored
// otherwise: counted from where the recipe counts it. False where it has no such line
// any more, or where one number of all edges would have to be two.
func (r *Reading) Now(u Use, now Piece) (measure.Length, bool) {
	was := &r.Pieces[u.Piece]
	switch u.What {
	case Width:
		return now.Width, true
	case Height:
		return now.Height, true
	}
	x := was.passes[u.pass]
	if x.every {
		return 0, false
	}
	one := Piece{Width: was.Width, Height: was.Height}
	one.place(pass{from: x.from, turned: x.turned, size: x.size, at: x.at[u.n : u.n+1], shim: x.shim})
	found := measure.Length(-1)
	// Each line that the number made tells what it is now, from its own edge.
	tell := func(lines, before, after []measure.Length, whole, wide measure.Length) bool {
		for _, at := range lines {
			k := slices.Index(before, at)
			if k < 0 || len(before) != len(after) {
				return false
			}
			n := after[k]
			if near := x.at[u.n] - x.shim; at != near {
				n = wide - n
			}
			if found >= 0 && found != n+x.shim {
				return false
			}
			found = n + x.shim
		}
		return true
	}
	ok := tell(one.Vertical, was.Vertical, now.Vertical, was.Width, now.Width) && tell(one.Horizontal, was.Horizontal, now.Horizontal, was.Height, now.Height)
	return found, ok && found >= 0
}

// Again writes the recipe once more in the same words, numbers that say gives another
// text for put in the place of theirs.
func (r *Reading) Again(text string, say func(Use) (string, bool)) string {
	uses := slices.Clone(r.Uses)
	slices.SortStableFunc(uses, func(a, b Use) int { return cmp.Compare(b.From, a.From) })
	end := len(text)
	for _, u := range uses {
		if new, other := say(u); other && u.To <= end {
			text, end = text[:u.From]+new+text[u.To:], u.From
		}
	}
	return text
}
