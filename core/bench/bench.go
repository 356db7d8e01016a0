// Package bench is the work as it is done at the table: one move of the hand at a
// time.
package bench

import (
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/recipe"
)

// Move is one thing a hand does. Each belongs to a step; those of a step follow one
// another, numbered from 1 to Of.
type Move struct {
	Step  recipe.Step
	N, Of int
	// Groove is the line on the scoring board, nil when nothing lies on it.
	Groove *Groove
	// Says is what is done, and Head what it is done to, "" where Says tells it.
	Head, Says string
}

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

// Moves takes the steps apart: a step of scoring into its grooves, one by one, and
// the lines that stop short; a list into its sentences. show writes a length, and
// short tells the lines of a piece that stop short.
func Moves(steps []recipe.Step, lists []recipe.ScoreList, fence recipe.Fence, show func(measure.Length) string, short func(recipe.ScoreList) []string) []Move {
	var out []Move
	for _, s := range steps {
		moves := movesOf(s, lists, fence, show, short)
		for i := range moves {
			moves[i].Step, moves[i].N, moves[i].Of = s, i+1, len(moves)
		}
		out = append(out, moves...)
	}
	return out
}

func movesOf(s recipe.Step, lists []recipe.ScoreList, fence recipe.Fence, show func(measure.Length) string, short func(recipe.ScoreList) []string) []Move {
	i := slices.IndexFunc(lists, func(l recipe.ScoreList) bool { return l.Piece == s.Piece })
	if s.Kind == recipe.Score && i >= 0 {
		var out []Move
		for _, g := range grooves(lists[i], fence) {
			out = append(out, Move{Groove: &g, Head: lists[i].Name + ", outside up", Says: says(g, show)})
		}
		for _, text := range short(lists[i]) {
			out = append(out, Move{Head: lists[i].Name + ", a line that stops short", Says: strings.ToUpper(text[:1]) + text[1:] + "."})
		}
		if len(out) > 0 {
			return out
		}
	}
	if len(s.List) > 1 {
		var out []Move
		for _, text := range s.List[1:] {
			out = append(out, Move{Head: s.List[0], Says: text})
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
	text := strings.ToUpper(g.Edge[:1]) + g.Edge[1:] + " edge on the fence"
	if g.Turn {
		text = "Turn the card, " + g.Edge + " edge on the fence"
	}
	if g.Shim > 0 {
		text += ", the shim of " + show(g.Shim) + " between"
	}
	return text + ": score at " + show(g.At) + "."
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
