package form

import (
	"fmt"
	"strings"

	"brevium/core/fault"
	"brevium/core/loose"
	"brevium/core/measure"
)

// Lists of lengths, lines and holes are typed as text: one after another, a
// semicolon between; a place is so far across, a comma and a space, so far down;
// a line goes from one place to another; a hole has its size behind a colon.

func listText[T any](all []T, one func(T) string) string {
	var out []string
	for _, x := range all {
		out = append(out, one(x))
	}
	return strings.Join(out, "; ")
}

// LengthsText, LinesText and HolesText are how such lists are shown.
func (f *Form) LengthsText(all []measure.Length) string {
	return listText(all, func(l measure.Length) string { return measure.Field(l, f.Unit) })
}

func (f *Form) pointText(q loose.Point) string {
	return measure.Field(q.X, f.Unit) + ", " + measure.Field(q.Y, f.Unit)
}

// LinesText is how lines are shown.
func (f *Form) LinesText(all []loose.Line) string {
	return listText(all, func(l loose.Line) string { return f.pointText(l.A) + " to " + f.pointText(l.B) })
}

// HolesText is how holes are shown.
func (f *Form) HolesText(all []loose.Hole) string {
	return listText(all, func(h loose.Hole) string {
		size := measure.Field(h.Width, f.Unit)
		if h.Height > 0 {
			size += " × " + measure.Field(h.Height, f.Unit)
		}
		return f.pointText(h.Point) + ": " + size
	})
}

// readList reads a list that was changed; one that is as it was shown changes
// nothing.
func readList[T any](f *Form, name, shown string, into *[]T, one func(text string) (T, error)) {
	if !f.Posted.Has(name) || strings.TrimSpace(f.Posted.Get(name)) == shown {
		return
	}
	var out []T
	for _, text := range strings.FieldsFunc(f.Posted.Get(name), func(r rune) bool { return r == ';' || r == '\n' }) {
		if strings.TrimSpace(text) == "" {
			continue
		}
		x, err := one(text)
		if err != nil {
			f.Fail(fault.At(name, err))
			return
		}
		out = append(out, x)
	}
	*into = out
}

// Lengths reads a list of lengths.
func (f *Form) Lengths(name string, into *[]measure.Length) {
	readList(f, name, f.LengthsText(*into), into, func(text string) (measure.Length, error) { return measure.Parse(text, f.Unit) })
}

// Lines reads a list of lines.
func (f *Form) Lines(name string, into *[]loose.Line) {
	readList(f, name, f.LinesText(*into), into, func(text string) (loose.Line, error) {
		from, to, both := strings.Cut(text, " to ")
		if !both {
			return loose.Line{}, f.how(text, "a line as 0, 1 to 2, 1: from so far across and down, to so far across and down")
		}
		a, err := f.point(from)
		if err != nil {
			return loose.Line{}, err
		}
		b, err := f.point(to)
		return loose.Line{A: a, B: b}, err
	})
}

// Holes reads a list of holes.
func (f *Form) Holes(name string, into *[]loose.Hole) {
	readList(f, name, f.HolesText(*into), into, func(text string) (loose.Hole, error) {
		at, size, both := strings.Cut(text, ":")
		if !both {
			return loose.Hole{}, f.how(text, "a hole as 1, 2: 1/4 or 1, 2: 1 × 1/2, its middle so far across and down, then its size")
		}
		q, err := f.point(at)
		if err != nil {
			return loose.Hole{}, err
		}
		out := loose.Hole{Point: q}
		wide, high, oblong := strings.Cut(strings.NewReplacer("x", "×", "X", "×").Replace(size), "×")
		if out.Width, err = measure.Parse(wide, f.Unit); err == nil && oblong {
			out.Height, err = measure.Parse(high, f.Unit)
		}
		return out, err
	})
}

func (f *Form) how(text, example string) error {
	return fault.New(fault.NotALength, "", "%q cannot be read; write %s.", strings.TrimSpace(text), example)
}

func (f *Form) point(text string) (loose.Point, error) {
	x, y, both := strings.Cut(strings.TrimSpace(text), ", ")
	if !both {
		return loose.Point{}, f.how(text, fmt.Sprintf("a place as %s, %s: so far across, a comma, so far down", measure.Field(f.Tick.Length()*4, f.Unit), measure.Field(f.Tick.Length()*8, f.Unit)))
	}
	var out loose.Point
	var err error
	if out.X, err = measure.Parse(x, f.Unit); err == nil {
		out.Y, err = measure.Parse(y, f.Unit)
	}
	return out, err
}
