package page

import (
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
)

// A value is worked out once for the same inputs, again for others, and again
// once it was forgotten.
func TestKept(t *testing.T) {
	k := NewKept[int](2)
	worked := 0
	ask := func(style string, room measure.Length) int {
		in := design.New("x", measure.MM, style)
		in.Room.Length = room
		return k.Of("picture", in, func() int { worked++; return worked })
	}
	for i, c := range []struct {
		style string
		room  measure.Length
		want  int
	}{{"tray", 0, 1}, {"tray", 0, 1}, {"tray", 5, 2}, {"nest", 0, 3}, {"tray", 5, 2}, {"tray", 0, 4}} {
		if got := ask(c.style, c.room); got != c.want {
			t.Errorf("ask %d gives %d; want %d", i, got, c.want)
		}
	}
}
