package recipe

import (
	"fmt"
	"slices"

	"brevium/core/hand"
)

// Own is a step of the maker's own: what is stamped, inked, embossed or weighed.
type Own struct {
	ID    int
	Text  string
	After string // where it comes: one of Afters, or the key of a step
	Piece string // that it is done to; "" is the whole box
	// Minutes are for one box.
	Minutes  float64
	Supplies []string
}

// Where a step of one's own can come, among those of its piece: before all of them, or after the
// last of a kind; after all of them where there is none of that kind.
const (
	AtStart    = "start"
	AfterCut   = "cut"
	AfterScore = "score"
	AfterFold  = "fold"
	AfterGlue  = "glue"
	AtEnd      = "end"
)

// Afters lists them in the order of the work.
var Afters = []string{AtStart, AfterCut, AfterScore, AfterFold, AfterGlue, AtEnd}

// WithOwn puts steps of the maker's own where they come among the others, and numbers all of them
// again. Several at one place come in their order.
func WithOwn(steps []Step, own []Own) []Step {
	out := slices.Clone(steps)
	for _, o := range own {
		at := o.place(out)
		does := hand.Own{Kind: hand.OwnDoing, Text: o.Text}
		x := Step{Key: fmt.Sprintf("own/%d", o.ID), Mark: markOf(does), Piece: o.Piece, Kind: Decorate, Text: o.Text,
			Move: "own", Does: does, Makers: true, Seconds: o.Minutes * 60}
		if at > 0 {
			x.Needs, x.Group = []string{out[at-1].Key}, out[at-1].Group
		}
		if at < len(out) && (at == 0 || of(out[at], o.Piece) && o.Piece != "") {
			x.Group = out[at].Group
		}
		out = slices.Insert(out, at, x)
	}
	for i := range out {
		out[i].N = i + 1
		out[i].Inner = slices.Clone(out[i].Inner)
		for k := range out[i].Inner {
			out[i].Inner[k].N = i + 1
		}
	}
	return out
}

// of reports whether a step is of a piece; all are of the whole box.
func of(s Step, piece string) bool {
	return piece == "" || slices.ContainsFunc(Flat([]Step{s}), func(x Step) bool { return x.Piece == piece })
}

// place is before which of the steps it comes.
func (o Own) place(steps []Step) int {
	kinds := map[string][]Kind{AfterCut: {Cut, Remove}, AfterScore: {Score}, AfterFold: {Fold}, AfterGlue: {Glue, Decorate}}[o.After]
	first, last, after := -1, -1, -1
	for i, s := range steps {
		for _, x := range Flat([]Step{s}) {
			if x.Key == o.After || s.Key == o.After {
				after = i
			}
			if o.Piece != "" && x.Piece != o.Piece || x.Makers && o.After != AtEnd {
				continue
			}
			if first < 0 {
				first = i
			}
			last = i
			if slices.Contains(kinds, x.Kind) {
				after = i
			}
		}
	}
	switch {
	case o.After == AtStart && first >= 0:
		for first < len(steps) && steps[first].Makers {
			first++
		}
		return first
	case after < 0 && last < 0:
		return len(steps)
	case after < 0:
		after = last
	}
	for after+1 < len(steps) && steps[after+1].Makers { // those that came to this place before
		after++
	}
	return after + 1
}
