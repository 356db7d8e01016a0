package page

import (
	"fmt"

	"brevium/core/cupboard"
)

// SupplyLine is a supply that work takes, held against the cupboard.
type SupplyLine struct {
	Name, Takes string
	Buy         string // what is missing of it, "" for nothing
}

// SupplyLines holds needs against what is in stock, and adds up what they are
// worth, "" when no price is known.
func SupplyLines(needs []cupboard.Need, goods []cupboard.Good) (lines []SupplyLine, worth string) {
	sum := 0.0
	for _, l := range cupboard.Against(needs, goods) {
		x := SupplyLine{Name: cupboard.Good{Kind: l.Kind, Name: l.Name}.Named(), Takes: l.Kind.Tells(l.With)}
		if l.Buy > 1e-9 {
			x.Buy = l.Kind.Tells(l.Buy)
		}
		sum += l.Cost
		lines = append(lines, x)
	}
	if sum > 0 {
		worth = fmt.Sprintf("%.2f", sum)
	}
	return lines, worth
}
