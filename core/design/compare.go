package design

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"brevium/core/fault"
	"brevium/core/inspect"
	"brevium/core/layout"
	"brevium/core/style"
)

// Comparison is one style made for the same contents as another.
type Comparison struct {
	Style  *style.Style
	Result *Result // nil when the style does not go
	Fault  *fault.Fault
	// Senseless says why nobody would take it; "" when one might.
	Senseless string
	// Card is the area of one box's blanks in mm²; Glued the length of its
	// glue patches in mm; Cost and Sheets are those of all copies.
	Card, Glued          float64
	Sheets, Pieces, Cuts int
	Cost, Minutes        float64
}

// With gives the inputs in another style: for the same things standing as
// they do in now, or for the same inside.
func (in Inputs) With(styleID string, now *Built) (Inputs, error) {
	with := in.Clone()
	with.Mats = nil
	if err := with.SetStyle(styleID); err != nil {
		return with, err
	}
	s, err := style.ByID(styleID)
	if err != nil {
		return with, err
	}
	if now != nil && now.Stand != nil && (now.Box.Room.Times > 1 || s.Rooms != nil) {
		// They are shared out among the rooms of one of the two.
		with.Stand, with.Linings, with.Compartments = "", nil, Compartments{}
	} else if now != nil && now.Stand != nil {
		// What the things need is an inside; linings are in it already.
		with.Things, with.Linings, with.Compartments, with.Room = nil, nil, Compartments{}, now.Needs
	}
	return with, nil
}

// mostAir is how many times what goes in a box may hold before it is no box for
// it.
const mostAir = 4

// senseless says why nobody would make a box for what goes in: it fails a check,
// or is mostly air.
func (r *Result) senseless() string {
	for _, c := range r.Checks {
		if c.Verdict == inspect.Fail {
			return c.Text
		}
	}
	if need := volume(r.Needs); need > 0 {
		if times := volume(r.Inside) / need; times > mostAir {
			return fmt.Sprintf("It would hold %.0f times what goes in: mostly air.", times)
		}
	}
	return ""
}

// Compare makes every style of box for what goes in, and ranks them: those
// that can be made first, by what their sheets cost, then by their card.
func Compare(ctx context.Context, in Inputs) []Comparison {
	now, err := Sketch(in)
	if err != nil {
		now = nil
	}
	boxes := style.Boxes()
	out := make([]Comparison, len(boxes))
	layout.Each(ctx, len(boxes), layout.Workers(ctx), func(i int) {
		out[i] = Comparison{Style: boxes[i]}
		if err := fault.Guard(func() error { out[i] = compared(ctx, in, now, boxes[i]); return nil }); err != nil {
			out[i].Fault = fault.Of(err)
		}
	})
	slices.SortStableFunc(out, func(a, b Comparison) int {
		rank := func(c Comparison) int {
			if c.Result == nil {
				return 1
			}
			return 0
		}
		return cmp.Or(cmp.Compare(rank(a), rank(b)), cmp.Compare(a.Cost, b.Cost), cmp.Compare(a.Card, b.Card))
	})
	return out
}

func compared(ctx context.Context, in Inputs, now *Built, s *style.Style) Comparison {
	c := Comparison{Style: s}
	with, err := in.With(s.ID, now)
	if err == nil {
		c.Result, err = Make(ctx, with)
	}
	if err == nil {
		for _, stock := range c.Result.Stocks {
			if len(stock.Layout.Unplaced) > 0 {
				err = fault.New(fault.SheetsRunOut, "sheets", "the sheets there are do not give all its pieces")
			}
		}
	}
	if err != nil {
		c.Result, c.Fault = nil, fault.Of(err)
		return c
	}
	r := c.Result
	c.Senseless = r.senseless()
	c.Card, c.Minutes = r.CardArea(), r.One
	for _, p := range r.Parts {
		c.Pieces += p.Copies()
	}
	for _, s := range r.Stocks {
		c.Sheets += len(s.Layout.Sheets)
		c.Cost += s.Layout.Cost
		for _, l := range s.Layout.Sheets {
			c.Cuts += len(l.Cuts)
		}
	}
	c.Glued = r.work().GlueLength()
	return c
}
