package draw

import (
	"encoding/xml"
	"math"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
)

func TestAffine(t *testing.T) {
	m := Affine{2, 1, -1, 3, 5, 7}
	n := Affine{0, 1, -1, 0, 2, -2}
	q := pattern.Pt(3, -4)
	if got, want := m.Then(n).At(q), n.At(m.At(q)); got.Sub(want).Len() > 1e-9 {
		t.Errorf("one after the other is %v; want %v", got, want)
	}
	if got := m.Back().At(m.At(q)); got.Sub(q).Len() > 1e-9 {
		t.Errorf("there and back is %v", got)
	}
}

// Every print repeats without a seam: what stands at the left edge of a tile goes
// on at its right edge, and what stands at the top goes on at the foot.
func TestPrintsRepeat(t *testing.T) {
	for _, print := range paper.Prints {
		l := paper.Card{Look: paper.Look{Print: print, Scale: 10 * measure.Millimetre}}.Seen()
		motif := Motif(l)
		if (len(motif) == 0) != (print == paper.Plain) {
			t.Errorf("%s has %d parts", print, len(motif))
		}
		w, h := TileSize(l)
		colour := func(x, y float64) paper.Colour {
			out := l.Outside
			for _, m := range motif {
				if pattern.Contains(m.Points, pattern.Pt(x, y)) {
					out = m.Colour
				}
			}
			return out
		}
		const near = 1e-4
		differ := 0
		for i := range 200 {
			at := (float64(i) + 0.37) / 200
			if colour(near, at*h) != colour(w-near, at*h) || colour(at*w, near) != colour(at*w, h-near) {
				differ++
			}
		}
		if differ > 4 {
			t.Errorf("%s: %d of 200 places differ over the seam", print, differ)
		}
		inked := map[paper.Colour]bool{}
		for _, m := range motif {
			inked[m.Colour] = true
		}
		if n := print.Inks(); len(inked) < n {
			t.Errorf("%s is drawn in %d colours; it has %d inks", print, len(inked), n)
		}
	}
}

// A picture of a printed paper holds its print once, and shows it as it lies.
func TestPrintedPicture(t *testing.T) {
	p := Swatch(paper.Card{Name: "Star paper"}.Seen())
	text := p.Inline()
	if err := xml.Unmarshal([]byte(text), new(struct{})); err != nil {
		t.Fatal(err)
	}
	if strings.Count(text, "<pattern") != 2 || strings.Count(text, `fill="url(#`) != 1 {
		t.Errorf("%d patterns, %d filled", strings.Count(text, "<pattern"), strings.Count(text, `fill="url(#`))
	}
	p.Mark = "again"
	if p.Inline() == text {
		t.Error("the same picture twice on a page has the same names in it")
	}
	if plain := Swatch(paper.Card{Name: "Snow card"}.Seen()).Inline(); strings.Contains(plain, "<pattern") {
		t.Error("plain card has a print")
	}
}

// Lines and words over printed or dark paper have light edges; over light plain
// paper they need none.
func TestLinesAreSeenOverPaper(t *testing.T) {
	for name, want := range map[string]bool{"Star paper": true, "Black card": true, "Snow card": false} {
		p := newPicture("", 100, 60, 0)
		p.polygon(Card, rect(0, 0, 100, 60)...).Fill = From{Card: paper.Card{Name: name}}.fill(100, 60)
		p.line(Score, pattern.Pt(0, 30), pattern.Pt(100, 30))
		p.text(TextQuiet, pattern.Pt(50, 30), 20, Middle, "front wall")
		text := p.Inline()
		if got := strings.Contains(text, "paint-order") && strings.Contains(text, "stroke-opacity"); got != want {
			t.Errorf("%s: light edges %v", name, got)
		}
	}
}

// A card that lies end for end shows its print the other way up.
func TestFromLies(t *testing.T) {
	up := From{Card: paper.Card{Name: "Sprig paper"}, Over: true}.lay(100, 60)
	if q := up.At(pattern.Pt(10, 5)); math.Abs(q.X-90) > 1e-9 || math.Abs(q.Y-55) > 1e-9 {
		t.Errorf("its top left corner lies at %v", q)
	}
}
