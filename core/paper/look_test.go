package paper

import (
	"strings"
	"testing"

	"brevium/core/measure"
)

// A card that says nothing of its look is seen as its name tells.
func TestSeenByName(t *testing.T) {
	for name, want := range map[string]Look{
		"Plain card":         {Outside: White, Inside: White, Print: Plain},
		"Moss card":          {Outside: "#76854a", Inside: "#76854a", Print: Plain},
		"Navy dotted paper":  {Outside: "#26365c", Inside: White, Print: Dots},
		"Kraft, heavy":       {Outside: "#c09a6b", Inside: "#c09a6b", Print: Fleck},
		"sprig-paper, green": {Outside: "#41764f", Inside: White, Print: Sprigs},
		"":                   {Outside: White, Inside: White, Print: Plain},
	} {
		got := Card{Name: name}.Seen()
		if got.Outside != want.Outside || got.Inside != want.Inside || got.Print != want.Print {
			t.Errorf("%q is seen as %+v", name, got)
		}
		if got.Scale != UsualScale || got.Inks[0] == "" || got.Check() != nil {
			t.Errorf("%q leaves something unsaid: %+v, %v", name, got, got.Check())
		}
	}
	// What is said stands, whatever the name.
	said := Card{Name: "Moss card", Look: Look{Outside: "#112233", Print: Stars}}.Seen()
	if said.Outside != "#112233" || said.Print != Stars || said.Inside != "#76854a" {
		t.Errorf("%+v", said)
	}
}

// On every ground that a name tells, each ink of each print can be told from it.
func TestInksAreSeen(t *testing.T) {
	for word, ground := range colourWords {
		for _, print := range Prints {
			seen := Card{Look: Look{Outside: ground, Print: print}}.Seen()
			for i := range print.Inks() {
				if d := seen.Inks[i].Light() - ground.Light(); d > -0.015 && d < 0.015 {
					t.Errorf("%s, %s: ink %d %s is not seen on %s", word, print, i+1, seen.Inks[i], ground)
				}
			}
		}
	}
}

func TestColours(t *testing.T) {
	for text, want := range map[string]Colour{"#7A2355": "#7a2355", " #000000 ": "#000000", "red": "", "#12345": "", "#12345g": "", "": ""} {
		if got, err := ParseColour(text); got != want || (err == nil) != (want != "") {
			t.Errorf("%q: %q, %v", text, got, err)
		}
	}
	if got := Colour("#000000").Mixed("#ffffff", 0.5); got != "#808080" {
		t.Errorf("half-way to white is %s", got)
	}
	if l := Colour("#ffffff").Light(); l != 1 {
		t.Errorf("white is %v light", l)
	}
	if a, b := Colour("#804020").Shaded(0.2), Colour("#804020"); !(a.Light() < b.Light()) {
		t.Errorf("%s in the shade is %s", b, a)
	}
}

func TestLooksThatCannotBe(t *testing.T) {
	mm := measure.Millimetre
	for field, l := range map[string]Look{
		"outside":    {Outside: "red"},
		"inks[1]":    {Inks: [MostInks]Colour{"#000000", "x"}},
		"print":      {Print: "unicorns"},
		"scale":      {Scale: mm},
		"turn":       {Turn: 30},
		"photo.id":   {Photo: Photo{ID: "../x", Wide: 50 * mm, High: 50 * mm}},
		"photo.wide": {Photo: Photo{ID: "ab12", Wide: 50 * mm}},
	} {
		if err := l.Check(); err == nil || !strings.HasPrefix(err.Error(), field+":") {
			t.Errorf("%s: %v", field, err)
		}
	}
}

// The ready cards are known by their names, and each looks otherwise.
func TestReady(t *testing.T) {
	seen := map[Look]string{}
	for _, c := range Ready {
		l := c.Seen()
		if other, twice := seen[l]; twice {
			t.Errorf("%s looks like %s", c.Name, other)
		}
		seen[l] = c.Name
		if c.Direction != l.Print.Direction() {
			t.Errorf("%s runs %q, and is printed with %s", c.Name, c.Direction, l.Print)
		}
	}
}
