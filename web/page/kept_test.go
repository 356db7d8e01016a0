package page

import (
	"errors"
	"path/filepath"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/store"
)

// A value is worked out once for the same inputs, again for others, and again
// once it was forgotten.
func TestKept(t *testing.T) {
	k := NewKept[int](2, nil)
	worked := 0
	ask := func(style string, room measure.Length) int {
		in := design.New("x", measure.MM, style)
		in.Room.Length = room
		v, err := k.Of("picture", in, func() (int, error) { worked++; return worked, nil })
		if err != nil {
			t.Fatal(err)
		}
		return v
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

// What is on disk is there after a restart, but not for another build; and an
// error is asked for again.
func TestKeptOnDisk(t *testing.T) {
	file := filepath.Join(t.TempDir(), "cache.db")
	in := design.New("x", measure.MM, "tray")
	ask := func(build string, answer Sketch, failed error) Sketch {
		disk, err := store.OpenCache(t.Context(), file, build)
		if err != nil {
			t.Fatal(err)
		}
		v, err := NewKept[Sketch](2, disk).Of("sketch", in, func() (Sketch, error) { return answer, failed })
		if err != nil && !errors.Is(err, failed) {
			t.Error(err)
		}
		if err := disk.Close(); err != nil {
			t.Error(err)
		}
		return v
	}
	ask("one", Sketch{}, errors.New("not now"))
	for i, c := range []struct {
		build string
		card  float64
		want  float64
	}{{"one", 1, 1}, {"one", 2, 1}, {"two", 3, 3}, {"two", 4, 3}} {
		if got := ask(c.build, Sketch{Card: c.card, Picture: "<svg/>"}, nil); got.Card != c.want || got.Picture != "<svg/>" {
			t.Errorf("ask %d gives %+v; want %v", i, got, c.want)
		}
	}
}
