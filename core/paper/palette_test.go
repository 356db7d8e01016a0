package paper

import (
	"math"
	"slices"
	"testing"
)

func seen(name string, outside Colour, print Print, inks ...Colour) Card {
	c := Card{Name: name, GSM: 120, Look: Look{Outside: outside, Inside: White, Print: print, Scale: 10_000_000}}
	copy(c.Look.Inks[:], inks)
	return c
}

// The tones of white, black and red, as the source of the formula gives them.
func TestTones(t *testing.T) {
	for c, want := range map[Colour]tone{"#ffffff": {1, 0, 0}, "#000000": {0, 0, 0}, "#ff0000": {0.628, 0.225, 0.126}} {
		if got := toneOf(c); got.from(want) > 2e-3 {
			t.Errorf("%s is %+v", c, got)
		}
	}
	if d := toneOf("#ff0000").hueTo(toneOf("#00ffff")); math.Abs(d-165) > 8 {
		t.Errorf("red and cyan are %.0f degrees apart", d)
	}
}

// What shares a colour goes together, what clashes does not; two that look the same are not two.
func TestPalettes(t *testing.T) {
	berry, mint := Colour("#7a2355"), Colour("#a8d8c0")
	together := []Card{seen("Berry", berry, Plain), seen("Berry dots", "#fff3f8", Dots, berry), seen("Cream", "#fff6e4", Plain), seen("Rose checks", "#e9b7cb", Checks, berry)}
	all := append(slices.Clone(together), seen("Berry again", berry, Plain), seen("Mint", mint, Plain), seen("Mustard stripes", "#d9a514", Stripes, "#8a6a00"), seen("Kraft", "#c49a6c", Plain))
	sets := Palettes(all)
	if len(sets) == 0 {
		t.Fatal("nothing goes together")
	}
	names := func(set []Card) (out []string) {
		for _, c := range set {
			out = append(out, c.Name)
		}
		slices.Sort(out)
		return out
	}
	if got := names(sets[0]); !slices.Equal(got, []string{"Berry", "Berry dots", "Cream", "Rose checks"}) {
		t.Errorf("the first set is %v", got)
	}
	for i, set := range sets {
		if len(set) != InPalette || slices.Contains(names(set), "Berry again") {
			t.Errorf("a set of %v", names(set))
		}
		for _, other := range sets[:i] {
			n := 0
			for _, c := range set {
				if slices.ContainsFunc(other, func(o Card) bool { return o.Name == c.Name }) {
					n++
				}
			}
			if n > 2 {
				t.Errorf("%v and %v are nearly one", names(set), names(other))
			}
		}
	}
	if again := Palettes(all); len(again) != len(sets) || !slices.Equal(names(again[0]), names(sets[0])) {
		t.Error("the same papers give other sets")
	}
	if got := Palettes([]Card{seen("A", berry, Plain), seen("B", mint, Plain), seen("C", White, Plain), seen("D", "#222222", Plain)}); len(got) != 0 {
		t.Errorf("without a print: %v", names(got[0]))
	}
}
