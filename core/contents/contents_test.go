package contents

import (
	"math/rand"
	"strings"
	"testing"

	"brevium/core/measure"
)

const mm = measure.Millimetre

func jars(n int) Thing {
	return Thing{Name: "jar", Shape: Round, Length: 48 * mm, Width: 48 * mm, Height: 62 * mm, Count: n, Ease: 2 * mm, Grams: 100}
}

func find(t *testing.T, all []Arrangement, id string) Arrangement {
	t.Helper()
	for _, a := range all {
		if a.ID == id {
			return a
		}
	}
	t.Fatalf("no arrangement %s", id)
	return Arrangement{}
}

func TestFourJars(t *testing.T) {
	all := Arrangements([]Thing{jars(4)})
	a := find(t, all, "2x2x1")
	if a.Length != 98*mm || a.Width != 98*mm || a.Height != 64*mm || len(a.Spots) != 4 {
		t.Errorf("two by two take %v × %v × %v", a.Length.MM(), a.Width.MM(), a.Height.MM())
	}
	if a := find(t, all, "4x1x1"); a.Length != 194*mm || a.Width != 50*mm {
		t.Errorf("four in a row take %v × %v", a.Length.MM(), a.Width.MM())
	}
	find(t, all, "1x4x1")
	find(t, all, "2x1x2")
}

func TestAMixtureStandsSideBySide(t *testing.T) {
	deck := Thing{Name: "deck", Shape: Stack, Length: 63 * mm, Width: 88 * mm, Height: 18 * mm, Count: 1, Ease: 3 * mm}
	a := find(t, Arrangements([]Thing{jars(4), deck}), "2x2x1+1x1x1")
	if a.Length != (96+63+3)*mm || a.Width != (96+3)*mm || a.Height != (62+3)*mm {
		t.Errorf("jars and a deck take %v × %v × %v", a.Length.MM(), a.Width.MM(), a.Height.MM())
	}
	if got := Grams([]Thing{jars(4), deck}); got != 400 {
		t.Errorf("they weigh %v g", got)
	}
}

func TestStacksGetATenthMore(t *testing.T) {
	deck := Thing{Shape: Stack, Length: 60 * mm, Width: 90 * mm, Height: 20 * mm, Count: 1, Ease: 2 * mm}
	if a := Arrangements([]Thing{deck})[0]; a.Height != 24*mm {
		t.Errorf("a stack of 20 mm takes %v mm; want 22 and 2 of ease", a.Height.MM())
	}
}

// Whatever goes in, nothing sticks out, nothing overlaps, and all of it is
// there.
func TestNothingSticksOut(t *testing.T) {
	rng := rand.New(rand.NewSource(3))
	for range 300 {
		var things []Thing
		want := 0
		for range 1 + rng.Intn(3) {
			thing := Thing{Shape: Block, Length: measure.Length(1+rng.Intn(90)) * mm, Width: measure.Length(1+rng.Intn(90)) * mm,
				Height: measure.Length(1+rng.Intn(90)) * mm, Count: 1 + rng.Intn(9), Ease: measure.Length(rng.Intn(4)) * mm}
			want += thing.Count
			things = append(things, thing)
		}
		for _, a := range Arrangements(things) {
			if len(a.Spots) != want {
				t.Fatalf("%s of %v holds %d things", a.ID, things, len(a.Spots))
			}
			for i, s := range a.Spots {
				if s.X < 0 || s.Y < 0 || s.Z < 0 || s.X+s.Length > a.Length || s.Y+s.Width > a.Width || s.Z+s.Height > a.Height {
					t.Fatalf("%s of %v: thing %d sticks out", a.ID, things, i)
				}
				for _, o := range a.Spots[:i] {
					if s.X < o.X+o.Length && o.X < s.X+s.Length && s.Y < o.Y+o.Width && o.Y < s.Y+s.Width && s.Z < o.Z+o.Height && o.Z < s.Z+s.Height {
						t.Fatalf("%s of %v: things overlap", a.ID, things)
					}
				}
			}
		}
	}
}

func TestCheckRefuses(t *testing.T) {
	for name, c := range map[string]struct {
		change func(*Thing)
		field  string
	}{
		"shape":  {func(x *Thing) { x.Shape = "blob" }, "shape"},
		"none":   {func(x *Thing) { x.Count = 0 }, "count"},
		"many":   {func(x *Thing) { x.Count = 1e9 }, "count"},
		"flat":   {func(x *Thing) { x.Height = 0 }, "height"},
		"thin":   {func(x *Thing) { x.Length = 0 }, "length"},
		"narrow": {func(x *Thing) { x.Width = 0 }, "width"},
		"roomy":  {func(x *Thing) { x.Ease = 90 * mm }, "ease"},
		"heavy":  {func(x *Thing) { x.Grams = -1 }, "grams"},
	} {
		thing := jars(4)
		c.change(&thing)
		if err := thing.Check(); err == nil || !strings.HasPrefix(err.Error(), c.field+":") {
			t.Errorf("%s: got %v", name, err)
		}
	}
	if err := jars(4).Check(); err != nil {
		t.Error(err)
	}
}
