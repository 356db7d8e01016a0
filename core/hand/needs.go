package hand

import (
	"slices"

	"brevium/core/pattern"
)

// stage is what a move does to a piece: what must be there before it follows from that.
type stage int

const (
	cutting  stage = iota // the blank
	lining                // lines right across, scored on the board
	marking               // lines that end on others, marks and names
	clearing              // cuts, and what falls off
	turning               // parts that are stuck while all lies flat
	folding
	fixing   // what lies under papers
	papering // papers cut
	laying   // papers glued on flat card, and cut through
	glazing  // film put behind windows
	sticking
	covering // papers glued on over what is stuck
)

func stageOf(m Move) stage {
	switch m := m.(type) {
	case Cut:
		return cutting
	case ScoreFour, ScoreFrom:
		return lining
	case Score, Mark, Names, LayTape, Template, ScoreTraced:
		return marking
	case TurnIn:
		return turning
	case FoldAll, FoldOver, FoldWays, Bend:
		return folding
	case Put:
		return fixing
	case CutPapers:
		return papering
	case LayPapers:
		if m.Late {
			return covering
		}
		return laying
	case CutThrough:
		return laying
	case Pane:
		return glazing
	case Stick, Dry:
		return sticking
	case Own:
		if m.Kind == OwnFolding {
			return folding
		}
		return sticking
	}
	return clearing
}

// before are the stages of which a stage needs all earlier moves; those of its own stage keep
// their order, but for lines on the board and cut papers, which need none of their like.
var before = map[stage][]stage{
	lining:   {cutting},
	marking:  {cutting, lining, clearing},
	clearing: {cutting, lining, marking},
	turning:  {cutting, lining, marking, clearing},
	folding:  {cutting, lining, marking, clearing, turning},
	fixing:   {cutting, lining, marking, clearing, turning, folding},
	laying:   {cutting, lining, marking, clearing, turning, folding, fixing, papering},
	glazing:  {cutting, lining, marking, clearing, laying, covering},
	sticking: {cutting, lining, marking, clearing, turning, folding, fixing, papering, laying, glazing},
	covering: {cutting, papering, sticking, laying},
}

// Needs gives for each move of a piece those before it that must have been done: the last of
// them, since these need the others.
func Needs(moves []Move) [][]int {
	all := make([]map[int]bool, len(moves)) // with what these need
	out := make([][]int, len(moves))
	for i, m := range moves {
		all[i] = map[int]bool{}
		at := stageOf(m)
		for k := i - 1; k >= 0; k-- {
			of := stageOf(moves[k])
			needed := slices.Contains(before[at], of) || of == at && at != lining && at != papering || cutsOut(m, moves[k])
			if papers, cuts := moves[k].(CutPapers); cuts && needed {
				needed = !lays(m) || uses(m, papers)
			}
			if !needed || all[i][k] {
				continue
			}
			out[i] = append(out[i], k)
			all[i][k] = true
			for x := range all[k] {
				all[i][x] = true
			}
		}
	}
	return out
}

func lays(m Move) bool { _, is := m.(LayPapers); return is }

// uses reports whether a move lays a paper that another cut.
func uses(m Move, cut CutPapers) bool {
	laid, is := m.(LayPapers)
	return is && slices.ContainsFunc(laid.Papers, func(p Laid) bool { return slices.Contains(cut.IDs, p.ID) })
}

// cutsOut reports whether a move cuts through a paper that another glued on, be it late.
func cutsOut(m, on Move) bool {
	through, cuts := m.(CutThrough)
	laid, lays := on.(LayPapers)
	return cuts && lays && slices.ContainsFunc(laid.Papers, func(p Laid) bool {
		return p.Inside == through.Inside && slices.ContainsFunc(through.At, func(at pattern.Loop) bool { return Covers(p.Outline, at) })
	})
}

// Last are the moves that no other of these needs.
func Last(needs [][]int) []int {
	var out []int
	for i := range needs {
		if !slices.ContainsFunc(needs, func(n []int) bool { return slices.Contains(n, i) }) {
			out = append(out, i)
		}
	}
	return out
}

// folds reports whether a move folds or sticks: what is cut is cut before.
func folds(m Move) bool {
	at := stageOf(m)
	return at == turning || at >= folding && at != papering
}

// Pierced are the moves of a piece with more that cut holes into it while it lies flat. Where it
// is drawn round a template, that has the holes: it is the one of the pattern with them.
func Pierced(moves []Move, with *pattern.Pattern, holes ...Move) []Move {
	out := slices.Clone(moves)
	for i, m := range out {
		if t, traces := m.(Template); traces {
			t.Pattern = with
			out[i] = t
			return out
		}
	}
	i := slices.IndexFunc(out, folds)
	if i < 0 {
		i = len(out)
	}
	return slices.Insert(out, i, holes...)
}
