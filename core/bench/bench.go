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
	first := slices.IndexFunc(r.Steps, func(s recipe.Step) bool { return s.Kind != recipe.Cut })
	if first < 0 {
		first = len(r.Steps)
	}
	out := cutting(r, r.Steps[:first])
	for _, s := range r.Steps[first:] {
		moves := movesOf(r, s)
		what, copies := "box", r.Inputs.Copies
		if i := slices.IndexFunc(r.Parts, func(p design.Part) bool { return p.ID == s.Piece }); i >= 0 {
			what, copies = strings.ToLower(r.Parts[i].Name), copies*r.Parts[i].Copies()
		}
		each := recipe.Seconds([]recipe.Step{s}, r.Inputs.Copies) / float64(copies*len(moves))
		for copy := range copies {
			for i, m := range moves {
				m.Step, m.N, m.Of, m.Copy, m.Copies, m.What, m.Seconds = s, i+1, len(moves), copy+1, copies, what, each
				out = append(out, m)
			}
		}
	}
	return out
}

// movesOf are the moves of a step on one copy.
func movesOf(r *design.Result, s recipe.Step) []Move {
	i := slices.IndexFunc(r.Scores, func(l recipe.ScoreList) bool { return l.Piece == s.Piece })
	if s.Kind == recipe.Score && i >= 0 {
		l := r.Scores[i]
		var out []Move
		for _, g := range grooves(l, r.Inputs.Tools.Fence) {
			out = append(out, Move{Groove: &g, Head: "Outside up", Says: says(g, r.Show)})
		}
		short := slices.DeleteFunc(slices.Clone(l.Lines), func(x recipe.Line) bool { return x.Hand != recipe.Short && x.Hand != recipe.Ruler })
		for _, text := range l.FullLines(r.Telling()) {
			out = append(out, Move{Head: "Outside up, by a ruler", Says: text, Lines: short})
		}
		for _, text := range l.ShortLines(r.Telling()) {
			out = append(out, Move{Head: "Outside up, a line that stops short", Says: capital(text) + ".", Lines: short})
		}
		if len(out) > 0 {
			return out
		}
	}
	if len(s.Cuts) > 0 {
		var out []Move
		for _, c := range s.Cuts {
			out = append(out, Move{Head: "Outside up", Says: c.Text, Lines: c.Lines})
		}
		return out
	}
	text := s.Text
	if s.Full != "" {
		text = s.Full
	}
	return []Move{{Says: text}}
}

// grooves are all the grooves of a list, each pass after the other; what is the
// same from each edge is gone through for each.
func grooves(l recipe.ScoreList, fence recipe.Fence) []Groove {
	order := edges
	if fence == recipe.Right {
		order = rightEdges
	}
	var out []Groove
	for _, p := range l.Passes {
		of := []string{p.Edge}
		if p.Edge == recipe.EachEdge {
			of = order
		}
		for _, edge := range of {
			for _, at := range p.At {
				turn := len(out) > 0 && out[len(out)-1].Edge != edge
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
