package design

import (
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"brevium/core/fault"
	"brevium/core/recipe"
)

// Limits of a maker's own steps on a box.
const (
	MostOwnSteps    = 20
	longestOwn      = 200 // letters of one
	mostOwnMinutes  = 600
	mostOwnSupplies = 5
	longestSupply   = 40
	longestAfter    = 100
)

// ReadySteps are steps that many makers have of their own, with when they come.
var ReadySteps = []recipe.Own{
	{Text: "Ink the edges.", After: recipe.AfterCut, Minutes: 3, Supplies: []string{"ink pad"}},
	{Text: "Curve the card over the table's edge before it is folded.", After: recipe.AfterScore, Minutes: 1},
	{Text: "Burnish again, lightly, with a cloth over the card.", After: recipe.AfterFold, Minutes: 1},
	{Text: "Wipe the pencil marks off.", After: recipe.AtEnd, Minutes: 1, Supplies: []string{"soft eraser"}},
}

// UsualOwnStep is a step of one's own to begin from, done to a piece.
func UsualOwnStep(piece string) recipe.Own {
	return recipe.Own{Text: "Stamp the front.", After: recipe.AfterCut, Piece: piece, Minutes: 2}
}

// ReadyOwnStep is the nth of ReadySteps, done to a piece unless it is the last of all.
func ReadyOwnStep(n int, piece string) recipe.Own {
	x := ReadySteps[n]
	x.Supplies = slices.Clone(x.Supplies)
	if x.After != recipe.AtEnd {
		x.Piece = piece
	}
	return x
}

type ownFile struct {
	ID       int      `json:"id,omitempty"`
	Text     string   `json:"text"`
	After    string   `json:"after,omitempty"`
	Piece    string   `json:"piece,omitempty"`
	Minutes  float64  `json:"minutes,omitempty"`
	Supplies []string `json:"supplies,omitempty"`
}

func (r *reader) ownSteps(all []ownFile) {
	for _, f := range all {
		o := recipe.Own{ID: f.ID, Text: f.Text, After: f.After, Piece: f.Piece, Minutes: f.Minutes, Supplies: f.Supplies}
		if o.After == "" {
			o.After = recipe.AtEnd
		}
		r.in.OwnSteps = append(r.in.OwnSteps, o)
	}
}

func writeOwnStep(o recipe.Own) ownFile {
	return ownFile{o.ID, o.Text, o.After, o.Piece, o.Minutes, o.Supplies}
}

// checkOwnSteps refuses steps that say nothing, or too much. One of a piece that the box has not
// comes among those of the whole box.
func checkOwnSteps(in *Inputs) error {
	if len(in.OwnSteps) > MostOwnSteps {
		return fault.New(fault.CountRange, "own_steps", "a box has at most %d steps of your own", MostOwnSteps)
	}
	for i, o := range in.OwnSteps {
		at := func(part string) string { return fault.Path("own_steps", i, part) }
		switch {
		case CleanName(o.Text) == "":
			return fault.New(fault.Empty, at("text"), "say what is done, such as Stamp the front")
		case utf8.RuneCountInString(o.Text) > longestOwn:
			return fault.New(fault.TooLong, at("text"), "a step is a line of up to %d letters", longestOwn)
		case len(o.After) > longestAfter || len(o.Piece) > longestAfter:
			return fault.New(fault.TooLong, at("after"), "a step comes after one of %s, or after a step by its key", strings.Join(recipe.Afters, ", "))
		case !(o.Minutes >= 0 && o.Minutes <= mostOwnMinutes):
			return fault.New(fault.OutOfRange, at("minutes"), "a step takes 0 to %d minutes a box", mostOwnMinutes)
		case len(o.Supplies) > mostOwnSupplies:
			return fault.New(fault.CountRange, at("supplies"), "a step takes up to %d things besides", mostOwnSupplies)
		}
		for _, s := range o.Supplies {
			if CleanName(s) == "" || utf8.RuneCountInString(s) > longestSupply {
				return fault.New(fault.TooLong, at("supplies"), "name what it takes in up to %d letters each", longestSupply)
			}
		}
	}
	return nil
}

// own are the maker's own steps of this box; those of pieces that it has not are of the whole.
func (d *Dressed) own() []recipe.Own {
	out := slices.Clone(d.Inputs.OwnSteps)
	for i, o := range out {
		if _, known := d.part(o.Piece); !known {
			out[i].Piece = ""
		}
	}
	return out
}

// ownSupplies are what those steps take, each thing once.
func (d *Dressed) ownSupplies() []recipe.Supply {
	var out []recipe.Supply
	for _, o := range d.Inputs.OwnSteps {
		for _, s := range o.Supplies {
			if !slices.ContainsFunc(out, func(x recipe.Supply) bool { return strings.EqualFold(x.Text, s) }) {
				out = append(out, recipe.Supply{ID: fmt.Sprintf("own.%d", len(out)+1), Amount: 1, Unit: "piece", Text: s, Name: s})
			}
		}
	}
	return out
}
