package pattern

// Standing tells of a piece of paper with a direction which of its faces stand
// upright on the finished box, which on their heads and which sideways, by
// their plain names. Level faces, and those that are glued out of sight, do
// not count.
type Standing struct{ Upright, OnHead, Sideways []string }

// Stands tells how faces stand when the paper's own up, on the flat card, is
// the given direction.
func Stands(faces []Face, up Point) Standing {
	var s Standing
	each(faces, func(f *Face) {
		switch along := f.Up.Dot(up) / f.Up.Len(); {
		case along > 0.7:
			s.Upright = append(s.Upright, f.Plain())
		case along < -0.7:
			s.OnHead = append(s.OnHead, f.Plain())
		default:
			s.Sideways = append(s.Sideways, f.Plain())
		}
	})
	return s
}

// EndForEnd reports whether more of a piece stands upright when the pattern of
// its paper runs up towards the lower edge of the card instead of the upper.
func EndForEnd(faces []Face) bool {
	sum := 0.0
	each(faces, func(f *Face) { sum += f.Up.Y / f.Up.Len() * f.Area() })
	return sum > Tolerance
}

func each(faces []Face, do func(*Face)) {
	for i := range faces {
		f := &faces[i]
		if f.Up != (Point{}) && (f.Role == Wall || f.Role == Panel || f.Role == Flap) {
			do(f)
		}
	}
}
