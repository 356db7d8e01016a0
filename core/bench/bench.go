// Package bench is the work as it is done at the table: one move of the hand at a
// time, copy by copy.
package bench

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/recipe"
)

// Move is one thing a hand does. Each belongs to a step; those of a step on one copy
// follow one another, numbered from 1 to Of, and the copies follow one another too.
type Move struct {
	Step         recipe.Step
	Part         recipe.Step // the same, or the one of those it tells in one sentence
	N, Of        int
	Copy, Copies int
	// What is in the hand, in a word: "lid", "box"; "" while blanks are cut.
	What string
	// Groove is the line on the scoring board, Trim the cut on the trimmer, and
	// Lines what scissors or knife cut; of those there is one at most.
	Groove *Groove
	Trim   *Trim
	Lines  []recipe.Line
	// Says is what is done, and Head what it is done to, "" where Says tells it.
	Head, Says string
	Seconds    float64
}

// Last reports whether a step is done with this move.
func (m Move) Last() bool { return m.N == m.Of && m.Copy == m.Copies }

// Groove is a groove of the board to score in: At is read from the fence, on which
// the Edge of the card lies, held off by the Shim. Turned is how many quarter turns
// the card has been given since it was first laid down.
type Groove struct {
	Edge     string
	At, Shim measure.Length
	Turned   int
	// Turn says that the card is turned for it: another edge lay on the fence before.
	Turn bool
}

// edges in the order in which they come to the fence, a quarter turn each.
var edges = []string{"left", "top", "right", "bottom"}

// rightEdges are those on a board whose fence is on the right.
var rightEdges = []string{"right", "top", "left", "bottom"}

// Moves takes the steps of a made box apart: cutting into the trimmer's cuts, all of
// one setting of its fence together; a step of scoring into its grooves, one by one,
// and the lines that stop short; a list into its sentences. All but cutting is gone
// through copy by copy.
func Moves(r *design.Result) []Move {
	var cuts []recipe.Step
	for _, s := range recipe.Flat(r.Steps) {
		if s.Kind == recipe.Cut {
			cuts = append(cuts, s)
		}
	}
	out := cutting(r, cuts)
	for _, s := range r.Steps {
		if s.Kind == recipe.Cut {
			continue
		}
		var moves []Move
		for _, x := range recipe.Flat([]recipe.Step{s}) {
			if x.Kind == recipe.Cut {
				continue
			}
			of := movesOf(r, x)
			for i := range of {
				of[i].Seconds = x.Seconds / float64(len(of))
				of[i].Part = x
			}
			moves = append(moves, of...)
		}
		what, copies := "box", r.Inputs.Copies
		if i := slices.IndexFunc(r.Parts, func(p design.Part) bool { return p.ID == s.Piece }); i >= 0 {
			what, copies = strings.ToLower(r.Parts[i].Name), copies*r.Parts[i].Copies()
		}
		for copy := range copies {
			for i, m := range moves {
				part := m.Part
				part.Seconds = m.Seconds
				m.Step, m.N, m.Of, m.Copy, m.Copies, m.What = s, i+1, len(moves), copy+1, copies, what
				m.Seconds = recipe.Seconds([]recipe.Step{part}, r.Inputs.Copies) / float64(copies)
				out = append(out, m)
			}
		}
	}
	return out
}

// movesOf are the moves of a step on one copy.
func movesOf(r *design.Result, s recipe.Step) []Move {
	i := slices.IndexFunc(r.Scores, func(l recipe.ScoreList) bool { return l.Piece == s.Piece })
	switch {
	case s.Passes != nil && i >= 0:
		return board(r.Scores[i], s.Passes, r)
	case len(s.Cuts) > 0:
		return []Move{{Head: "Outside up", Says: s.Text, Lines: s.Cuts}}
	}
	return []Move{{Says: s.Text}}
}

// board are the moves of passes over the board, groove by groove.
func board(l recipe.ScoreList, passes []recipe.Pass, r *design.Result) []Move {
	var out []Move
	for _, g := range grooves(l, passes, r.Inputs.Tools.Fence) {
		out = append(out, Move{Groove: &g, Head: "Outside up", Says: says(g, r.Show)})
	}
	return out
}

// grooves are all the grooves of some passes of a list, each pass after the other; what
// is the same from each edge is gone through for each.
func grooves(l recipe.ScoreList, passes []recipe.Pass, fence recipe.Fence) []Groove {
	order := edges
	if fence == recipe.Right {
		order = rightEdges
	}
	var out []Groove
	turned := slices.IndexFunc(l.Passes, func(p recipe.Pass) bool { return len(passes) > 0 && p.Edge == passes[0].Edge }) > 0
	for _, p := range passes {
		of := []string{p.Edge}
		if p.Edge == recipe.EachEdge {
			of = order
		}
		for _, edge := range of {
			for _, at := range p.At {
				turn := turned && len(out) == 0 || len(out) > 0 && out[len(out)-1].Edge != edge
				out = append(out, Groove{Edge: edge, At: at, Shim: p.Shim, Turned: max(0, slices.Index(order, edge)), Turn: turn})
			}
		}
	}
	return out
}

// says tells a groove in one sentence.
func says(g Groove, show func(measure.Length) string) string {
	text := capital(g.Edge) + " edge on the fence"
	if g.Turn {
		text = "Turn the card, " + g.Edge + " edge on the fence"
	}
	if g.Shim > 0 {
		text += ", the shim of " + show(g.Shim) + " between"
	}
	return text + ": score at " + show(g.At) + "."
}

func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

// Counted names what is in the hand, "Lid 7 of 12"; "" where the sentence does.
func (m Move) Counted() string {
	switch {
	case m.What == "" || m.Copies < 2 && m.Head == "":
		return ""
	case m.Copies < 2:
		return capital(m.What)
	}
	return fmt.Sprintf("%s %d of %d", capital(m.What), m.Copy, m.Copies)
}

// From is the first move that is not done: of the steps that are ticked off, by
// their keys, none is left.
func From(moves []Move, done func(recipe.Step) bool) int {
	for i, m := range moves {
		if !done(m.Step) {
			return i
		}
	}
	return len(moves)
}

// AllOf is the move after the last copy of the step that a move belongs to.
func AllOf(moves []Move, at int) int {
	for at < len(moves) && !moves[at].Last() {
		at++
	}
	return min(at+1, len(moves))
}
