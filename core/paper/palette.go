package paper

import (
	"cmp"
	"math"
	"slices"
)

// InPalette is how many papers go together.
const InPalette = 4

// mostPalettes is how many sets are worth looking at.
const mostPalettes = 3

// tone is a colour as it looks: how light, 0 to 1, and how far from grey towards red and towards
// yellow.
type tone struct{ l, a, b float64 }

// toneOf is the colour in OKLab (B. Ottosson, "A perceptual color space for image processing").
func toneOf(c Colour) tone {
	r, g, b := c.rgb()
	linear := func(v int) float64 {
		x := float64(v) / 255
		if x <= 0.04045 {
			return x / 12.92
		}
		return math.Pow((x+0.055)/1.055, 2.4)
	}
	x, y, z := linear(r), linear(g), linear(b)
	l := math.Cbrt(0.4122214708*x + 0.5363325363*y + 0.0514459929*z)
	m := math.Cbrt(0.2119034982*x + 0.6806995451*y + 0.1073969566*z)
	s := math.Cbrt(0.0883024619*x + 0.2817188376*y + 0.6299787005*z)
	return tone{
		0.2104542553*l + 0.7936177850*m - 0.0040720468*s,
		1.9779984951*l - 2.4285922050*m + 0.4505937099*s,
		0.0259040371*l + 0.7827717662*m - 0.8086757660*s,
	}
}

func (t tone) chroma() float64      { return math.Hypot(t.a, t.b) }
func (t tone) from(o tone) float64  { return math.Hypot(math.Hypot(t.l-o.l, t.a-o.a), t.b-o.b) }
func (t tone) plus(o tone) tone     { return tone{t.l + o.l, t.a + o.a, t.b + o.b} }
func (t tone) times(k float64) tone { return tone{t.l * k, t.a * k, t.b * k} }
func (t tone) hueTo(o tone) float64 { // in degrees, 0 to 180
	d := math.Abs(math.Atan2(t.b, t.a)-math.Atan2(o.b, o.a)) * 180 / math.Pi
	return min(d, 360-d)
}

// hued is a paper with its tones: the ground first, then its inks, and all of them in one.
type hued struct {
	card  Card
	tones []tone
	whole tone
}

func hueOf(c Card) hued {
	l := c.Seen()
	h := hued{card: c, tones: []tone{toneOf(l.Outside)}}
	for _, ink := range l.Inks[:l.Print.Inks()] {
		h.tones = append(h.tones, toneOf(ink))
	}
	for i, t := range h.tones { // the ground is half of it
		share := 0.5 / float64(max(1, len(h.tones)-1))
		if i == 0 && len(h.tones) == 1 {
			share = 1
		} else if i == 0 {
			share = 0.5
		}
		h.whole = h.whole.plus(t.times(share))
	}
	return h
}

// Limits of what is told apart by eye, in OKLab.
const (
	grey   = 0.04 // less colour than this goes with any
	shared = 0.06 // two tones so near are one
	alike  = 0.05 // two papers so near are no choice
)

// goes says how well two papers go with each other, 0 to 1: they share a colour, are of near or
// of opposite hues, or one of them has none.
func (h hued) goes(o hued) float64 {
	best := 0.0
	for _, t := range h.tones {
		for _, u := range o.tones {
			if t.from(u) < shared && t.chroma() > grey {
				best = 1
			}
		}
	}
	switch hue := h.whole.hueTo(o.whole); {
	case h.whole.chroma() < grey || o.whole.chroma() < grey:
		best = max(best, 0.7)
	case hue < 40:
		best = max(best, 0.9)
	case hue > 150:
		best = max(best, 0.6)
	}
	return best
}

// Palettes puts papers together that go with each other by their own colours, four in a set, the
// best set first: none is like another in its set, a light and a dark one are there, and one at
// least is printed. Sets share at most two papers. It is the same for the same papers.
func Palettes(cards []Card) [][]Card {
	var all []hued
	for _, c := range cards {
		h := hueOf(c)
		if !slices.ContainsFunc(all, func(o hued) bool {
			return o.whole.from(h.whole) < alike && (o.card.Seen().Print == h.card.Seen().Print)
		}) {
			all = append(all, h)
		}
	}
	type set struct {
		is    [InPalette]int
		worth float64
	}
	var sets []set
	n := len(all)
	goes := make([][]float64, n)
	for i := range all {
		goes[i] = make([]float64, n)
		for j := range i {
			goes[i][j] = all[i].goes(all[j])
			goes[j][i] = goes[i][j]
		}
	}
	for a := range n {
		for b := a + 1; b < n; b++ {
			for c := b + 1; c < n; c++ {
				for d := c + 1; d < n; d++ {
					is := [InPalette]int{a, b, c, d}
					if w := worth(all, goes, is[:]); w > 0 {
						sets = append(sets, set{is, w})
					}
				}
			}
		}
	}
	slices.SortStableFunc(sets, func(x, y set) int { return cmp.Compare(y.worth, x.worth) })
	var out [][]Card
	var taken []set
	for _, s := range sets {
		common := func(o set) bool {
			n := 0
			for _, i := range s.is {
				if slices.Contains(o.is[:], i) {
					n++
				}
			}
			return n > 2
		}
		if len(out) == mostPalettes || slices.ContainsFunc(taken, common) {
			continue
		}
		taken = append(taken, s)
		var papers []Card
		for _, i := range s.is {
			papers = append(papers, all[i].card)
		}
		// The plain ones lie below.
		slices.SortStableFunc(papers, func(x, y Card) int { return cmp.Compare(x.Seen().Print.Inks(), y.Seen().Print.Inks()) })
		out = append(out, papers)
	}
	return out
}

// worth says how good a set is; 0 is none.
func worth(all []hued, goes [][]float64, is []int) float64 {
	sum, light, dark, printed := 0.0, 0.0, 1.0, 0
	for k, i := range is {
		light, dark = max(light, all[i].whole.l), min(dark, all[i].whole.l)
		if all[i].card.Seen().Print != Plain {
			printed++
		}
		for _, j := range is[k+1:] {
			g := goes[i][j]
			if g == 0 {
				return 0
			}
			sum += g
		}
	}
	if light-dark < 0.2 || printed == 0 || printed == len(is) {
		return 0
	}
	return sum + min(light-dark, 0.5)
}
