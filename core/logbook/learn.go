package logbook

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/fit"
)

// What is known before any note. A hand's whole leaning in one card is about this
// far, in mm (the standard deviation of a normal distribution round none); a single
// box comes out of its scores and folds this much otherwise; and so many of all notes
// are of a box that was bent, a card that was swapped or a slip of the finger.
const (
	usualLean  = 0.35
	boxToBox   = 0.12
	wildShare  = 0.12
	mostLean   = 0.5 // mm: less than an allowance's tick, so that no lesson moves a size by more
	leastNotes = 2
	agreeing   = 2.0 / 3 // of the notes must be explained by what is learned from them
)

// lesson is what a fit of a kind in a card was worked out at, and how it felt; note
// tells which it is of.
type lesson struct {
	gap  float64 // mm
	felt fit.Verdict
	note int
}

// Learn estimates from how fits felt, for each card and kind of fit, by how much gaps in the
// hand differ from those worked out.
//
// A verdict is ordinal: it says between which gaps the one in the hand lay. With a
// lean d, a gap g worked out is felt at g + d + e, e normal with boxToBox, or, with
// wildShare, as any verdict alike. The lean has a normal prior with usualLean, so that
// few notes move it little; what is told is the mean of the posterior, summed up over
// a fine row of leans (a grid, in place of an integral). Wild notes weigh nothing
// where the others say otherwise.
//
// Fewer than two notes that it explains teach nothing; nor do notes of which a third
// contradicts the rest; a note that tells of both its lid's ways is one. At most it is
// mostLean. notes are the fits of each note.
func Learn(notes [][]Felt) []fit.Lean {
	type key struct{ card, kind string }
	all := map[key][]lesson{}
	for n, felt := range notes {
		for _, f := range felt {
			if f.Kind != "" && f.Card != "" {
				k := key{f.Card, f.Kind}
				all[k] = append(all[k], lesson{f.Gap.MM(), f.Felt, n})
			}
		}
	}
	var out []fit.Lean
	for k, lessons := range all {
		if by := fit.LeanOf(lean(lessons)); by != 0 {
			out = append(out, fit.Lean{Card: k.card, Kind: k.kind, By: by, Notes: len(byNote(lessons))})
		}
	}
	slices.SortFunc(out, func(a, b fit.Lean) int { return cmp.Or(cmp.Compare(a.Card, b.Card), cmp.Compare(a.Kind, b.Kind)) })
	return out
}

// lean is the mean of the posterior in mm, 0 where nothing is to be learned.
func lean(all []lesson) float64 {
	const step = 0.02
	var weight, sum float64
	var rows [][2]float64 // lean, log of its weight
	highest := math.Inf(-1)
	for d := -4 * usualLean; d <= 4*usualLean; d += step {
		w := -d * d / (2 * usualLean * usualLean)
		for _, l := range all {
			w += math.Log((1-wildShare)*l.chance(d) + wildShare/float64(len(fit.Verdicts)))
		}
		rows = append(rows, [2]float64{d, w})
		highest = max(highest, w)
	}
	for _, r := range rows {
		w := math.Exp(r[1] - highest)
		weight, sum = weight+w, sum+w*r[0]
	}
	mean := sum / weight
	notes, explained := byNote(all), 0.0
	for _, lessons := range notes {
		for _, l := range lessons {
			p := (1 - wildShare) * l.chance(mean)
			explained += p / (p + wildShare/float64(len(fit.Verdicts))) / float64(len(lessons))
		}
	}
	if len(notes) < leastNotes || explained < agreeing*float64(len(notes)) {
		return 0
	}
	return max(-mostLean, min(mostLean, mean))
}

// byNote parts lessons by the note they are of.
func byNote(all []lesson) map[int][]lesson {
	out := map[int][]lesson{}
	for _, l := range all {
		out[l.note] = append(out[l.note], l)
	}
	return out
}

// chance is how likely a box with a lean is felt as it was.
func (l lesson) chance(lean float64) float64 {
	least, below := l.felt.Span()
	return normal((below.MM()-l.gap-lean)/boxToBox) - normal((least.MM()-l.gap-lean)/boxToBox)
}

// normal is the standard normal distribution.
func normal(x float64) float64 { return math.Erfc(-x/math.Sqrt2) / 2 }
