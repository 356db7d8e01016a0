package style

import (
	"strings"

	"brevium/core/pattern"
)

// Styles name the faces of a box as one looks at it: the front is called front, or front and
// something more where it is of several; so are the back and the base, which it stands on.

// IsFront reports whether a face is the one that is looked at, or a part of it.
func IsFront(f pattern.Face) bool { return strings.HasPrefix(f.Name, "front") }

// IsFoot reports whether a face is what a piece stands on.
func IsFoot(p Part, f pattern.Face) bool {
	return f.Role == pattern.Panel && p.Opens == Upwards && strings.HasPrefix(f.Name, "base")
}

// Back is 1 where a box's back looks along the width, as it stands, and -1 where
// it looks the other way or the box does not say.
func Back(bodies []Body) float64 {
	for i, f := range bodies[0].Faces {
		if f.Name == "back" && bodies[0].Poses[i].Normal().Y > 0.5 {
			return 1
		}
	}
	return -1
}

// KindOf is what a piece is one of: of pieces that are numbered, as divider.cross.2 is, their
// id without the number; else its own.
func KindOf(piece string) string {
	if i := strings.LastIndexByte(piece, '.'); i > 0 && i < len(piece)-1 && strings.Trim(piece[i+1:], "0123456789") == "" {
		return piece[:i]
	}
	return piece
}
