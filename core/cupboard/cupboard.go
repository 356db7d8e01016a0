// Package cupboard is the supplies in stock beside the paper: tape, glue, ribbon
// and all that is counted by the piece, with what a box or a job needs of them.
package cupboard

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode/utf8"

	"brevium/core/fault"
	"brevium/core/recipe"
)

// Kind is a kind of supply.
type Kind string

// The kinds. Lengths are in mm, wet glue in cm² of card, the rest are counted.
const (
	Tape    Kind = "tape"
	Glue    Kind = "wet-glue"
	Dots    Kind = "glue-dots"
	Pads    Kind = "foam-pads"
	Hooks   Kind = "hook-and-loop"
	Magnets Kind = "magnets"
	Brads   Kind = "brads"
	Clips   Kind = "clips"
	Restick Kind = "repositionable-tape"
	Ribbon  Kind = "ribbon"
	Twine   Kind = "twine"
)

// Kinds lists them in the order they are shown.
var Kinds = []Kind{Tape, Glue, Dots, Pads, Hooks, Magnets, Brads, Clips, Restick, Ribbon, Twine}

// words are what kinds are called, and what one of them is.
var words = map[Kind]struct{ name, unit string }{
	Tape: {"Double-sided tape", "mm"}, Glue: {"Wet glue", "cm²"}, Dots: {"Removable glue dots", "dot"}, Pads: {"Foam pads", "pad"},
	Hooks: {"Hook-and-loop", "pair"}, Magnets: {"Thin magnets", "magnet"}, Brads: {"Brads", "brad"}, Clips: {"Clips or pegs", "clip"},
	Restick: {"Repositionable tape", "strip"}, Ribbon: {"Ribbon", "mm"}, Twine: {"Twine or string", "mm"},
}

// Name is what a kind is called.
func (k Kind) Name() string { return words[k].name }

// Unit is what its amounts are in: "mm", "cm²", or what is counted.
func (k Kind) Unit() string { return words[k].unit }

// Long reports whether it is measured by length.
func (k Kind) Long() bool { return words[k].unit == "mm" }

// Good is a supply in stock. Ribbon and twine go by their names; of the others
// there is one of a kind. Price is that of a metre, of 100 cm², or of one; Spare
// how much more is planned than is used, in percent; Reserved what jobs under way
// have set aside.
type Good struct {
	Kind     Kind    `json:"kind"`
	Name     string  `json:"name,omitempty"`
	Amount   float64 `json:"amount"`
	Price    float64 `json:"price,omitempty"`
	Spare    float64 `json:"spare,omitempty"`
	Reserved float64 `json:"-"`
}

// UsualSpare is the spare of what is cut by length; what is counted has none.
const UsualSpare = 10

// Limits of a good.
const (
	mostAmount = 1e7
	mostPrice  = 10_000
	mostSpare  = 200
	mostName   = 60
)

// Named is the good's own name, or that of its kind.
func (g Good) Named() string {
	if g.Name != "" {
		return g.Name
	}
	return g.Kind.Name()
}

// Worth is what there is of it at its price.
func (g Good) Worth() float64 { return g.Amount * g.Price / priced(g.Kind) }

// Check refuses a good that cannot be, naming the field.
func (g Good) Check() error {
	switch {
	case !slices.Contains(Kinds, g.Kind):
		return fault.New(fault.UnknownChoice, "kind", "%q is not a kind of supply; use one of %v", g.Kind, Kinds)
	case utf8.RuneCountInString(g.Name) > mostName:
		return fault.New(fault.TooLong, "name", "a name has at most %d letters", mostName)
	case !(g.Amount >= 0 && g.Amount <= mostAmount):
		return fault.New(fault.CountRange, "amount", "there is 0 to %.0f of it", mostAmount)
	case !(g.Price >= 0 && g.Price <= mostPrice):
		return fault.New(fault.CostRange, "price", "it costs 0 to %d", mostPrice)
	case !(g.Spare >= 0 && g.Spare <= mostSpare):
		return fault.New(fault.OutOfRange, "spare", "a spare is 0 to %d percent", mostSpare)
	}
	return nil
}

// Need is what work takes of a kind of supply, without a spare.
type Need struct {
	Kind   Kind    `json:"kind"`
	Name   string  `json:"name,omitempty"`
	Amount float64 `json:"amount"`
}

// kindOf reads a supply's id.
func kindOf(id string) (Kind, bool) {
	for prefix, k := range map[string]Kind{
		"tape": Tape, "glue": Glue, "holding.dots": Dots, "dots": Dots, "closure.dot": Dots, "pads": Pads, "paper.pads": Pads, "hook": Hooks, "holding.hooks": Hooks,
		"closure.hook-and-loop": Hooks, "magnets": Magnets, "closure.magnets": Magnets, "brads": Brads, "holding.brads": Brads, "closure.brad": Brads,
		"clips": Clips, "closure.clip": Clips, "restick": Restick, "closure.tape": Restick, "ribbon": Ribbon, "tags.string": Twine,
	} {
		if id == prefix || prefix == "ribbon" && strings.HasPrefix(id, "ribbon.") {
			return k, true
		}
	}
	return "", false
}

// Needs adds supplies up by kind and name, in the order of Kinds; sheets and what
// no cupboard holds are passed over.
func Needs(all []recipe.Supply) []Need {
	var out []Need
	for _, s := range all {
		k, known := kindOf(s.ID)
		if !known || s.Amount <= 0 {
			continue
		}
		name := s.Name
		if k == Ribbon && isString(name) {
			k = Twine
		}
		out = append(out, Need{k, name, s.Amount})
	}
	return Sum(out)
}

// Times is what so many need of what one needs.
func Times(needs []Need, n int) []Need {
	out := slices.Clone(needs)
	for i := range out {
		out[i].Amount *= float64(n)
	}
	return out
}

// Sum adds needs up by kind and name.
func Sum(all ...[]Need) []Need {
	var out []Need
	for _, n := range slices.Concat(all...) {
		i := slices.IndexFunc(out, func(o Need) bool { return o.Kind == n.Kind && strings.EqualFold(o.Name, n.Name) })
		if i < 0 {
			out = append(out, n)
		} else {
			out[i].Amount += n.Amount
		}
	}
	slices.SortStableFunc(out, func(a, b Need) int { return slices.Index(Kinds, a.Kind) - slices.Index(Kinds, b.Kind) })
	return out
}

// isString reports whether a ribbon is called a string or twine.
func isString(name string) bool {
	name = strings.ToLower(name)
	return strings.Contains(name, "twine") || strings.Contains(name, "string") || strings.Contains(name, "yarn")
}

// Line is a need held against the cupboard: with its spare, what is free of it,
// what is to be bought, and what all of it costs.
type Line struct {
	Need
	With, Have, Buy, Cost float64
}

// Against holds needs against what is in stock. What is cut by length has the
// usual spare where none is in stock to say another. Counted things are whole.
func Against(needs []Need, goods []Good) []Line {
	var out []Line
	for _, n := range needs {
		g := Good{Kind: n.Kind, Name: n.Name}
		if n.Kind.Long() {
			g.Spare = UsualSpare
		}
		if i := find(goods, n); i >= 0 {
			g = goods[i]
		}
		l := Line{Need: n, With: n.Amount * (1 + g.Spare/100), Have: max(0, g.Amount-g.Reserved)}
		if !n.Kind.Long() && n.Kind != Glue {
			l.With = math.Ceil(l.With - 1e-9)
		}
		l.Buy = max(0, l.With-l.Have)
		l.Cost = l.With * g.Price / priced(n.Kind)
		out = append(out, l)
	}
	return out
}

// find is the good that a need takes from: of its name, or else the nameless one
// of its kind.
func find(goods []Good, n Need) int {
	i := slices.IndexFunc(goods, func(g Good) bool { return g.Kind == n.Kind && strings.EqualFold(g.Name, n.Name) })
	if i < 0 {
		i = slices.IndexFunc(goods, func(g Good) bool { return g.Kind == n.Kind && g.Name == "" })
	}
	return i
}

// priced is how much a price is for.
func priced(k Kind) float64 {
	switch {
	case k.Long():
		return 1000 // a metre
	case k == Glue:
		return 100
	}
	return 1
}

// Tells writes an amount of a kind for a person: "1.4 m", "12 magnets".
func (k Kind) Tells(amount float64) string {
	switch {
	case k.Long():
		return fmt.Sprintf("%.1f m", math.Ceil(amount/100-1e-9)/10)
	case k == Glue:
		return fmt.Sprintf("for %.0f cm²", amount)
	}
	n := math.Ceil(amount - 1e-9)
	if n == 1 {
		return "1 " + k.Unit()
	}
	return fmt.Sprintf("%.0f %ss", n, k.Unit())
}

// Take gives what is left in stock after needs are used up; what there is too
// little of comes to nothing.
func Take(goods []Good, needs []Need) []Good {
	out := slices.Clone(goods)
	for _, n := range needs {
		if i := find(out, n); i >= 0 {
			out[i].Amount = max(0, out[i].Amount-n.Amount)
		}
	}
	return out
}

// Reserve gives goods with what needs have set aside added.
func Reserve(goods []Good, needs []Need) []Good {
	out := slices.Clone(goods)
	for _, n := range needs {
		if i := find(out, n); i >= 0 {
			out[i].Reserved += n.Amount
		}
	}
	return out
}
