package design

import (
	"fmt"
	"strconv"
	"strings"

	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/recipe"
)

// UsualBought is a bow, brad, eyelet or ring as it is bought as a rule.
func UsualBought(what label.What, unit measure.Unit) label.Label {
	l := label.Label{What: what, Name: map[label.What]string{label.Bow: "Flat bow", label.Brad: "Brad", label.Eyelet: "Eyelet", label.Ring: "Ring"}[what], Copies: 1, Colour: "#b23331"}
	l.Width, l.Height, l.Stands, l.Shape = what.Usual(unit)
	return l
}

// boughtSupplies are the bows, brads, eyelets and rings of all copies.
func (d *Dressed) boughtSupplies() []recipe.Supply {
	var out []recipe.Supply
	for _, l := range d.Inputs.Labels {
		if n := l.Copies * d.Inputs.Copies; l.What.Bought() {
			out = append(out, recipe.Supply{
				ID: string(l.What) + "." + strconv.Itoa(l.ID), Amount: float64(n), Unit: "piece", Name: l.Name,
				Text: fmt.Sprintf("%d × %s, %s wide", n, strings.ToLower(l.Name), d.Show(l.Width)),
			})
		}
	}
	return out
}
