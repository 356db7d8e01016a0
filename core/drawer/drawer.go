// Package drawer is the paper in stock: piles of sheets and kept offcuts, with
// what they cost and what is reserved of them, and the file they are moved by.
package drawer

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
)

// Lot is a pile of equal sheets of one card, or a kept offcut of it. Price is
// that of one sheet; From says where an offcut came from.
type Lot struct {
	ID            int64
	Card          paper.Card
	Sheet         string
	Width, Height measure.Length
	Count         int
	Reserved      int // of Count, for jobs that are under way
	Price         float64
	Offcut        bool
	From          string
	// Shape is an offcut's where it is no rectangle; Width and Height are then its bounds.
	Shape Shape
}

// Free is how many sheets nobody has reserved.
func (l Lot) Free() int { return l.Count - l.Reserved }

// Limits of a lot.
const (
	MostSheets   = 10_000
	LongestName  = 80
	HighestPrice = 10_000
)

// Check refuses a lot that cannot be, naming the field.
func (l Lot) Check() error {
	switch {
	case strings.TrimSpace(l.Card.Name) == "":
		return fault.New(fault.Empty, "card", "which card is it? Give it the name your boxes call it by")
	case letters(l.Card.Name) > LongestName || letters(l.Sheet) > LongestName || letters(l.From) > 2*LongestName:
		return fault.New(fault.TooLong, "card", "that name is too long; %d letters do", LongestName)
	case !(l.Card.GSM >= 0 && l.Card.GSM <= paper.LargestGSM):
		return fault.New(fault.WeightRange, "gsm", "card that folds weighs 40 to %d gsm", paper.LargestGSM)
	case l.Card.Thickness < 0 || l.Card.Thickness > 3*measure.Millimetre:
		return fault.New(fault.ThicknessRange, "thickness", "card that folds is up to 3 mm thick")
	case !slices.Contains(paper.Directions, l.Card.Direction):
		return fault.New(fault.UnknownDirection, "direction", "%q is not a direction; use none, two-ways or one-way-up", l.Card.Direction)
	case !slices.Contains(paper.Grains, l.Card.Grain):
		return fault.New(fault.UnknownChoice, "grain", "%q is not the grain of a sheet; use long, short or unknown", l.Card.Grain)
	case !slices.Contains(paper.Finishes, l.Card.Finish):
		return fault.New(fault.UnknownChoice, "finish", "%q is not a card's finish; use solid, coated, white-core or textured", l.Card.Finish)
	case l.Width <= 0:
		return fault.New(fault.TooSmall, "width", "how wide is the sheet? The width is more than nothing")
	case l.Height <= 0:
		return fault.New(fault.TooSmall, "height", "how high is the sheet? The height is more than nothing")
	case l.Count < 0 || l.Count > MostSheets:
		return fault.New(fault.CountRange, "count", "a pile has 0 to %d sheets, not %d", MostSheets, l.Count)
	case l.Count < l.Reserved:
		return fault.New(fault.Reserved, "count", "%d of these are reserved for jobs; release those first", l.Reserved)
	case l.Shape != "" && (!l.Offcut || len(l.Shape.Points()) < 3):
		return fault.New(fault.UnknownShape, "shape", "an offcut has a shape, written as its corners in mm")
	case !(l.Price >= 0 && l.Price <= HighestPrice):
		return fault.New(fault.CostRange, "price", "a sheet costs 0 to %d", HighestPrice)
	}
	return nil
}

// letters counts characters, in any script.
func letters(s string) int { return utf8.RuneCountInString(s) }

// Group is all the lots of one card.
type Group struct {
	Card paper.Card
	Lots []Lot
}

// Groups puts lots together by card, the cards by name, whole sheets before
// offcuts, large ones first.
func Groups(lots []Lot) []Group {
	var out []Group
	for _, l := range lots {
		i := slices.IndexFunc(out, func(g Group) bool { return g.Card.Key() == l.Card.Key() })
		if i < 0 {
			i = len(out)
			out = append(out, Group{Card: l.Card})
		}
		out[i].Lots = append(out[i].Lots, l)
	}
	slices.SortStableFunc(out, func(a, b Group) int { return cmp.Compare(a.Card.Key(), b.Card.Key()) })
	for _, g := range out {
		slices.SortStableFunc(g.Lots, func(a, b Lot) int {
			switch {
			case a.Offcut && !b.Offcut:
				return 1
			case b.Offcut && !a.Offcut:
				return -1
			}
			return cmp.Compare(b.Width.MM()*b.Height.MM(), a.Width.MM()*a.Height.MM())
		})
	}
	return out
}

// Free gives the lots that have a free sheet, a rectangle, card by card as Groups puts them.
func Free(lots []Lot) []Lot {
	var out []Lot
	for _, g := range Groups(lots) {
		for _, l := range g.Lots {
			if l.Free() > 0 && l.Shape == "" {
				out = append(out, l)
			}
		}
	}
	return out
}

// An offcut is useful from this size on: a tag or a small band comes out of it.
const (
	usefulShort = 40 * measure.Millimetre
	usefulLong  = 75 * measure.Millimetre
)

// Useful tells whether a rectangle is worth keeping.
func Useful(r layout.Rect) bool {
	return min(r.Width, r.Height) >= usefulShort && max(r.Width, r.Height) >= usefulLong
}

// Kept gives the useful offcuts of a layout as lots, equal ones together, each
// with where it is from: the work's name and the sheet's number.
func Kept(card paper.Card, laid *layout.Result, work string) []Lot {
	var out []Lot
	for i, l := range laid.Sheets {
		for k, o := range l.Offcuts {
			if !Useful(o) {
				continue
			}
			var shape Shape
			if k < len(l.Shapes) {
				if len(l.Shapes[k]) > mostCorners {
					continue // it is drawn too finely to be kept
				}
				shape = shapeOf(l.Shapes[k])
			}
			if like := slices.IndexFunc(out, func(x Lot) bool {
				return x.Width == o.Width && x.Height == o.Height && x.Shape == shape
			}); like >= 0 {
				out[like].Count++
				continue
			}
			l := Lot{Card: card, Width: o.Width, Height: o.Height, Count: 1, Offcut: true, From: fmt.Sprintf("%s, sheet %d", work, i+1), Shape: shape}
			l.Complete()
			out = append(out, l)
		}
	}
	return out
}
