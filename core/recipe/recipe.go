// Package recipe writes out the work: the score list of each piece as it is
// read off the board, the numbered steps, the supplies and the time.
package recipe

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/dress"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Kind is the kind of a step.
type Kind string

// The kinds, in the order of the work.
const (
	Cut      Kind = "cut"
	Score    Kind = "score"
	Fold     Kind = "fold"
	Remove   Kind = "remove"
	Decorate Kind = "decorate"
	Glue     Kind = "glue"
	Assemble Kind = "assemble"
	Fill     Kind = "fill"
	Close    Kind = "close"
)

// Kinds lists them.
var Kinds = []Kind{Cut, Score, Fold, Remove, Decorate, Glue, Assemble, Fill, Close}

// Step is one thing to do. Key stays the same while the design changes; Mark
// changes with what the step says, whatever the unit, so that a tick put
// against other numbers can be told.
type Step struct {
	N         int
	Key, Mark string
	Piece     string
	Kind      Kind
	Text      string
	// Cuts are the lines that scissors or knife cut in it.
	Cuts []Line
	// Move is the kind of the move that it tells, as "score-four"; "" where it tells several, and
	// Does the move itself.
	Move string
	Does hand.Move
	// Needs are the keys of the steps that must have been done before.
	Needs []string
	// Group is what the step belongs to: a piece's name, putting together.
	Group string
	// Inner are the steps that this one tells in one sentence, as of a piece that is made
	// like another.
	Inner []Step
	// Passes are those over the board.
	Passes  []Pass
	Seconds float64 // for one box
	Makers  bool    // a step of the maker's own, that no style tells
}

// Flat are steps with those that are told in one sentence each by itself.
func Flat(steps []Step) []Step {
	var out []Step
	for _, s := range steps {
		if len(s.Inner) > 0 {
			out = append(out, Flat(s.Inner)...)
		} else {
			out = append(out, s)
		}
	}
	return out
}

// ByKind are the steps in the order in which many boxes are made: all of one kind of work
// before the next, as far as what each needs is done by then.
func ByKind(steps []Step) []Step {
	order := []Kind{Cut, Score, Remove, Fold, Decorate, Glue, Assemble, Fill, Close}
	rank := func(s Step) int { return slices.Index(order, s.Kind) }
	var out []Step
	done := map[string]bool{}
	left := Flat(steps)
	for len(left) > 0 {
		best := -1
		for i, s := range left {
			ready := !slices.ContainsFunc(s.Needs, func(key string) bool { return !done[key] })
			if ready && (best < 0 || rank(s) < rank(left[best])) {
				best = i
			}
		}
		best = max(best, 0) // steps of before that need one which is there no more
		done[left[best].Key] = true
		out = append(out, left[best])
		left = slices.Delete(left, best, best+1)
	}
	return out
}

// Work is a whole design as the recipe needs it.
type Work struct {
	Units  measure.Unit
	Tick   measure.Tick
	Fence  Fence
	Copies int
	Parts  []style.Part
	Cards  map[string]paper.Card // by piece
	// Loose are the pieces of no style.
	Loose map[string]bool
	// EndForEnd are the pieces whose paper runs up towards their lower edge.
	EndForEnd map[string]bool
	Mats      []dress.Mat
	// Fixings are put on flat pieces before the papers that hide them.
	Fixings []hand.Put
	// Panes are the films behind windows, put there when papers are cut out along them.
	Panes []hand.Pane
	// Together is how the pieces become the box, are filled and closed; Inserting what is put
	// into it before that, and Closing what is put round it and on it after.
	Together           []hand.Move
	Inserting, Closing []hand.Put
	Contents           string // what is filled in, "" when not known
	Adhesive           style.Adhesive
	// Papers is what papers are stuck with, where that was chosen by itself; nil is as the box.
	Papers *Sticking
	// Cutter is who cuts its pieces out.
	Cutter Cutter
}

// Seconds each kind of step takes, for one piece, by an unhurried hand.
var pace = map[Kind]float64{
	Cut: 40, Score: 45, Remove: 60, Fold: 60, Decorate: 45, Glue: 90, Assemble: 30, Fill: 30, Close: 10,
}

// Steps writes the numbered steps.
func (w Work) Steps() []Step {
	steps, _, _ := w.Tell()
	return steps
}

// Tell writes the numbered steps, piece by piece: each is cut, scored, cut away, folded,
// decorated while flat and glued; then the box is put together, filled and closed. It gives
// the table on which all of it was done, and the first fault of a move, a *hand.Fault, after
// which nothing on the table can be relied on.
func (w Work) Tell() ([]Step, *hand.Table, error) {
	m := &maker{teller: teller{English, Telling{w.Units, w.Tick}, w.called, w.Adhesive.Wet(), w.Cutter}, w: w}
	sets := MatSets(w.Mats)
	told := make([]bool, len(w.Parts))
	var out []Step
	for i, p := range w.Parts {
		if told[i] {
			continue
		}
		out = append(out, m.made(p, sets)...)
		if !w.dressed(p.ID, sets) {
			out = append(out, m.again(i, told, sets)...)
		}
	}
	out = w.cutOut(append(out, m.together(w.whole())...))
	for i := range out {
		out[i].N = i + 1
		for k := range out[i].Inner {
			out[i].Inner[k].N = i + 1
		}
	}
	return out, &m.table, m.fault
}

// whole are the moves of the whole box: put together, what goes inside, filled, closed, and what
// goes round it.
func (w Work) whole() []hand.Move {
	var joining, after []hand.Move
	for _, m := range w.Together {
		if actOf(m).kind == Assemble {
			joining = append(joining, m)
		} else {
			after = append(after, m)
		}
	}
	return slices.Concat(joining, puts(w.Inserting), after, puts(w.Closing))
}

func puts(all []hand.Put) []hand.Move {
	var out []hand.Move
	for _, m := range all {
		out = append(out, m)
	}
	return out
}

// called is what a piece is called in a sentence: one with a number needs no article.
func (w Work) called(id string) string {
	for _, p := range w.Parts {
		if p.ID != id {
			continue
		}
		if name := strings.ToLower(p.Name); numbered(name) {
			return name
		}
		return English.Say("the", Fields{"name": strings.ToLower(p.Name)})
	}
	return id
}

// numbered reports whether a name ends in a number.
func numbered(name string) bool {
	return name != "" && name[len(name)-1] >= '0' && name[len(name)-1] <= '9'
}

// papers are the moves that put, cut and glue what goes onto a flat piece, and those of the
// papers that wait until it is glued.
func (w Work) papers(p style.Part, sets []MatSet) (early, late []hand.Move) {
	for _, f := range w.Fixings {
		if f.On == p.ID {
			early = append(early, f)
		}
	}
	var waiting []string // faces, inside: what goes on a paper that waits does, too
	for _, s := range sets {
		if s.Mat.Piece != p.ID {
			continue
		}
		waits := s.Mat.Side == dress.Inside &&
			(w.tabbed(s) || slices.ContainsFunc(s.ids, func(id string) bool { return slices.Contains(waiting, id) }))
		to := &early
		if waits {
			to, waiting = &late, append(waiting, s.ids...)
		}
		*to = append(*to, s.cut(w.Copies), s.lay(w.Mats, waits))
		if m, covers := w.through(p, s); covers {
			*to = append(*to, m)
		}
	}
	for _, x := range w.Panes {
		if x.Piece != p.ID {
			continue
		}
		to := &early
		if slices.ContainsFunc(late, func(m hand.Move) bool { return hand.OpensUp(m, x.At) }) {
			to = &late
		}
		*to = append(*to, x)
	}
	return early, late
}

// tabbed reports whether tabs are glued onto the side of a face that papers go on:
// those wait until the piece is glued.
func (w Work) tabbed(s MatSet) bool {
	i := slices.IndexFunc(w.Parts, func(p style.Part) bool { return p.ID == s.Mat.Piece })
	if i < 0 {
		return false
	}
	return slices.ContainsFunc(w.Parts[i].Pattern.Glue, func(g pattern.Glue) bool {
		return !g.Dry && g.Piece == "" && !g.OntoOutside && slices.Contains(s.ids, g.Onto)
	})
}

// Minutes adds the steps up, for one box and for all copies.
func Minutes(steps []Step, copies int) (one, all float64) {
	return Seconds(steps, 1) / 60, Seconds(steps, copies) / 60
}

// Seconds is how long the steps take for all copies. Setting up is paid once for a
// batch, so later copies of cutting and scoring go twice as fast.
func Seconds(steps []Step, copies int) float64 {
	sum := 0.0
	for _, s := range Flat(steps) {
		more := float64(copies - 1)
		if s.Kind == Cut || s.Kind == Score {
			more /= 2
		}
		sum += s.Seconds * (1 + more)
	}
	return sum
}

// Clock writes a time of so many minutes as people say it: "40 min", "3 h 20 min";
// from an hour on in steps of five, since it is never known better.
func Clock(minutes float64) string {
	n := int(math.Round(max(1, minutes)))
	if n >= 60 {
		n = int(math.Round(minutes/5)) * 5
	}
	switch {
	case n < 60:
		return fmt.Sprintf("%d min", n)
	case n%60 == 0:
		return fmt.Sprintf("%d h", n/60)
	}
	return fmt.Sprintf("%d h %d min", n/60, n%60)
}
