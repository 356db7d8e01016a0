package stuff

import (
	"math"

	"brevium/core/paper"
)

// Card is a card as its behaviour needs it: weight in g/m², thickness of one layer in mm, its
// surface.
type Card struct {
	GSM, Thick float64
	Finish     paper.Finish
}

// CardOf is a card as it lies in a drawer.
func CardOf(c paper.Card) Card { return Card{c.GSM, c.Thickness.MM(), c.Finish} }

// usualBulk is that of smooth card, in cm³/g (ISO 534).
const usualBulk = paper.SmoothBulk

// SmoothWeight is the weight in g/m² of smooth card that is thick mm.
func SmoothWeight(thick float64) float64 { return 1000 * thick / usualBulk }

// Of is a smooth card of a weight, by weight alone.
func Of(gsm float64) Card { return Card{GSM: gsm, Thick: gsm * usualBulk / 1000} }

// Bulk is how thick the card is for its weight, in cm³/g: t = gsm·bulk/1000. Without a weight it
// is that of smooth card.
func (c Card) Bulk() float64 {
	if c.GSM <= 0 {
		return usualBulk
	}
	return 1000 * c.Thick / c.GSM
}

// weight is the card's own, or that of smooth card of its thickness.
func (c Card) weight() float64 {
	if c.GSM > 0 {
		return c.GSM
	}
	return SmoothWeight(c.Thick)
}

// modulus is the card's E in MPa, the mean of both ways: E = 3500·(1.25/bulk)^1.7, since a bulky
// card of the same weight is softer.
func (t *Table) modulus(c Card) float64 { return t.Modulus * math.Pow(usualBulk/c.Bulk(), t.BulkPower) }

// Stiffness is D = E·t³/12 in N·mm, the mean of both ways (ISO 2493: 1.68 times the moment in mN·m
// at 15°, 50 mm, 38 mm).
func (t *Table) Stiffness(c Card) float64 { return t.modulus(c) * c.Thick * c.Thick * c.Thick / 12 }

// Layer is a card in a stack of layers.
type Layer struct {
	Card Card
	// Way is the stiffness this way, times the mean: √2 along the grain, 1/√2 across, 1 unknown.
	Way float64
	// Glued says that it is glued all over to the layer before.
	Glued bool
}

// Along and Across are how much stiffer than the mean a card is along its grain and across.
func (t *Table) Along() float64  { return math.Sqrt(t.TwoWays) }
func (t *Table) Across() float64 { return 1 / math.Sqrt(t.TwoWays) }

// Layered gives D in N·mm and E·t in N/mm of layers one over another. Glued all over they are one
// composite plate, bent round its own middle (n alike give n³·D); at the edges or loose each
// bends by itself (n·D).
func (t *Table) Layered(layers []Layer) (stiff, stretch float64) {
	for from := 0; from < len(layers); {
		to := from + 1
		for to < len(layers) && layers[to].Glued {
			to++
		}
		d, et := t.composite(layers[from:to])
		stiff, stretch = stiff+d, stretch+et
		from = to
	}
	return stiff, stretch
}

// composite is the bending of layers that are glued all over: Σ E(t³/12 + t·d²) about the middle
// of their stretch.
func (t *Table) composite(layers []Layer) (stiff, stretch float64) {
	at, moment := 0.0, 0.0
	for _, l := range layers {
		et := t.modulus(l.Card) * way(l) * l.Card.Thick
		moment += et * (at + l.Card.Thick/2)
		stretch += et
		at += l.Card.Thick
	}
	if stretch == 0 {
		return 0, 0
	}
	middle := moment / stretch
	at = 0
	for _, l := range layers {
		e, h := t.modulus(l.Card)*way(l), l.Card.Thick
		off := at + h/2 - middle
		stiff += e*h*h*h/12 + e*h*off*off
		at += h
	}
	return stiff, stretch
}

func way(l Layer) float64 {
	if l.Way == 0 {
		return 1
	}
	return l.Way
}

// Fold is how a card is folded at one score.
type Fold struct {
	Degrees float64
	Along   bool // along the grain; across where that is not known
	Dry     bool // under 35 % damp
}

// flat is from how many degrees on a fold lies flat, in the table's sense.
const flat = 150

// Flat reports whether the fold lies flat, as a rolled wall's and a lip's.
func (f Fold) Flat() bool { return f.Degrees >= flat }

// Crack is the fold's index: t/0.30, and worse across the grain, coated, folded flat or dry. Up
// to CrackFolds it folds well, over CrackWarns it breaks.
func (t *Table) Crack(c Card, f Fold) float64 {
	i := c.Thick / t.CrackThick
	if !f.Along {
		i *= t.CrackAcross
	}
	switch c.Finish {
	case paper.Coated, paper.WhiteCore:
		i *= t.CrackCoated
	case paper.Textured:
		i *= t.CrackTextured
	}
	if f.Flat() {
		i *= t.CrackFlat
	}
	if f.Dry {
		i *= t.CrackDry
	}
	return i
}

// FoldsTo is the weight in g/m² of smooth solid card up to which the index of a fold is at most a
// limit.
func (t *Table) FoldsTo(f Fold, limit float64) float64 {
	return limit / t.Crack(Of(1), f)
}

// Firm is the thickness in mm that a panel wants whose shorter side is span mm:
// 0.30·(s/150)^⅔, since the same thumb dents alike (dent ~ s²/t³).
func (t *Table) Firm(span float64) float64 {
	return t.FirmThick * math.Pow(span/t.FirmSpan, 2./3)
}

// FirmFrom is that as a weight of smooth card, in g/m²; FlimsyUnder is the weight under which a
// panel fails.
func (t *Table) FirmFrom(span float64) float64    { return SmoothWeight(t.Firm(span)) }
func (t *Table) FlimsyUnder(span float64) float64 { return t.FirmWarns * t.FirmFrom(span) }

// Moves is how far, in mm, two parts move against each other over length mm when their grains are
// crossed and the air's damp changes by points.
func (t *Table) Moves(length, points float64) float64 {
	return length * (t.SwellAcross - t.SwellAlong) / 1000 * points
}

// Curl is the bow in mm over span mm of a free panel that a paper is glued to all over, and its
// radius: 1/R = 6ε(1+m)²/(h(3(1+m)² + (1+mn)(m² + 1/(mn)))) with m = t₂/t₁, n = E₂/E₁,
// h = t₁ + t₂ (the bimetal strip). The paper swells by strain more than the card.
func (t *Table) Curl(card, paper Card, strain, span float64) (bow, radius float64) {
	if card.Thick <= 0 || paper.Thick <= 0 || strain <= 0 {
		return 0, math.Inf(1)
	}
	m, n, h := paper.Thick/card.Thick, t.modulus(paper)/t.modulus(card), card.Thick+paper.Thick
	one := (1 + m) * (1 + m)
	radius = h * (3*one + (1+m*n)*(m*m+1/(m*n))) / (6 * strain * one)
	return span * span / (8 * radius), radius
}

// Cockles reports whether a paper of gsm, wet glued all over area mm², cockles.
func (t *Table) Cockles(gsm, area float64) bool {
	return gsm <= t.CockleThin || gsm <= t.CockleThick && area > t.CockleArea
}
