package logbook

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/fit"
	"brevium/core/stuff"
)

// What is made of notes.
const (
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
// hand differ from those worked out, and how much a box scatters about that.
//
// A verdict is ordinal: it says between which gaps the one in the hand lay. What is told is the
// mean of the posterior over leans and spreads, with the range that holds the lean 95 times of
// 100; see stuff.Learn. Wild notes weigh nothing where the others say otherwise.
//
// Fewer than two notes that it explains teach nothing; nor do notes of which a third
// contradicts the rest; a note that tells of both its lid's ways is one. At most it is
// mostLean. notes are the fits of each note.
func Learn(notes [][]Felt) []fit.Lean {
	var out []fit.Lean
	for k, lessons := range byCard(notes) {
		l, taught := learn(lessons)
		if by := fit.LeanOf(l.Lean); taught && by != 0 {
			out = append(out, fit.Lean{Card: k.card, Kind: k.kind, By: by, Notes: len(byNote(lessons)),
				From: fit.LeanOf(l.From), To: fit.LeanOf(l.To), Spread: fit.LeanOf(l.Sigma)})
		}
	}
	slices.SortFunc(out, func(a, b fit.Lean) int { return cmp.Or(cmp.Compare(a.Card, b.Card), cmp.Compare(a.Kind, b.Kind)) })
	return out
}

// Changed says what notes teach otherwise than others did, such as with one more: a sentence for
// each card and kind of fit.
func Changed(before, after [][]Felt) []string {
	was := map[cardKind]fit.Lean{}
	for _, l := range Learn(before) {
		was[cardKind{l.Card, l.Kind}] = l
	}
	var out []string
	for _, l := range Learn(after) {
		switch old, there := was[cardKind{l.Card, l.Kind}]; {
		case !there:
			out = append(out, "It has taught something: "+l.Says())
		case old.By != l.By:
			out = append(out, fmt.Sprintf("%s; before it was %s", capital(l.Says()), old.Short()))
		}
		delete(was, cardKind{l.Card, l.Kind})
	}
	for k := range was {
		out = append(out, fmt.Sprintf("Of your %s the notes contradict one another now, and nothing is learned of it", k.card))
	}
	slices.Sort(out)
	return out
}

// capital begins a sentence.
func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

// NotYet says of each card whose notes teach nothing why that is, in the order of the cards.
func NotYet(notes [][]Felt) []string {
	var out []string
	for k, lessons := range byCard(notes) {
		l, taught := learn(lessons)
		why := ""
		switch n := len(byNote(lessons)); {
		case n < leastNotes:
			why = "one note so far; from the second on it learns"
		case !taught:
			why = fmt.Sprintf("its %d notes contradict one another", n)
		case fit.LeanOf(l.Lean) == 0:
			why = fmt.Sprintf("%d notes, and boxes come out as worked out", n)
		default:
			continue
		}
		out = append(out, fmt.Sprintf("your %s: %s", k.card, why))
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// cardKind is a card and a kind of fit.
type cardKind struct{ card, kind string }

// byCard parts what was felt by the card and the kind of fit.
func byCard(notes [][]Felt) map[cardKind][]lesson {
	all := map[cardKind][]lesson{}
	for n, felt := range notes {
		for _, f := range felt {
			if f.Kind != "" && f.Card != "" {
				k := cardKind{f.Card, f.Kind}
				all[k] = append(all[k], lesson{f.Gap.MM(), f.Felt, n})
			}
		}
	}
	return all
}

// learn sums lessons up, and reports whether there is something to be learned.
func learn(all []lesson) (stuff.Learnt, bool) {
	notes, explained := byNote(all), 0.0
	if len(notes) < leastNotes {
		return stuff.Learnt{}, false
	}
	var told []stuff.Note
	for _, l := range all {
		told = append(told, l.told())
	}
	out := stuff.Learn(told)
	for _, lessons := range notes {
		for _, l := range lessons {
			explained += out.Explains(l.told()) / float64(len(lessons))
		}
	}
	out.Lean = max(-mostLean, min(mostLean, out.Lean))
	return out, explained >= agreeing*float64(len(notes))
}

// told is a lesson as a gap and the two between which it was felt.
func (l lesson) told() stuff.Note {
	least, below := l.felt.Span()
	return stuff.Note{Gap: l.gap, Least: least.MM(), Below: below.MM()}
}

// byNote parts lessons by the note they are of.
func byNote(all []lesson) map[int][]lesson {
	out := map[int][]lesson{}
	for _, l := range all {
		out[l.note] = append(out[l.note], l)
	}
	return out
}
