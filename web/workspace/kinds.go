package workspace

import (
	"cmp"
	"context"
	"fmt"
	"html/template"
	"slices"
	"strconv"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/web/page"
)

// kindsView are the kinds of box that are shown to choose from: those that fit, one screen of the
// list after another as it is scrolled, and, asked for, those that do not.
type kindsView struct {
	Fitting, Not []styleTile
	First        string // the kind that the list began with when the page came, and begins with
	Shown        int    // how many fitting ones are shown
	More         int    // how many are shown next; 0 when all were tried
	Whole        bool   // all are tried, and those that do not fit are told
}

type styleTile struct {
	ID, Name, About, Cost string
	Picture               template.HTML
	Chosen                bool
	// Problem says in half a line that it does not go, and Why in full.
	Problem, Why string
}

// fits reports whether a kind makes sense for what goes in, or is the one that is chosen.
func (t styleTile) fits() bool { return t.Problem == "" || t.Chosen }

const (
	// kindsAtOnce is how many kinds that fit are drawn at once: more than the list has in sight.
	kindsAtOnce = 6
	// allKinds asks for all.
	allKinds = "all"
)

// kinds draws the kinds of box for the present contents or size, with what each costs in card: in the
// catalogue's order, so many as were seen already, but the one that is chosen first where it
// would not be among them. A list keeps its order while another is chosen from it.
func (p *boxPage) kinds(ctx context.Context, in *design.Inputs) kindsView {
	ctx, stop := context.WithTimeout(ctx, page.PageTakes)
	defer stop()
	styles := style.Listed()
	if len(in.Things) > 0 {
		styles = style.Boxes()
	}
	asked := in.Style
	if p.Form.Faults["style"] != "" {
		asked = p.Form.Posted.Get("style")
	}
	v := kindsView{First: cmp.Or(p.asked("first"), asked), Whole: p.asked("kinds") == allKinds, Shown: kindsAtOnce}
	if n, err := strconv.Atoi(p.asked("kinds")); err == nil {
		v.Shown = min(max(n, kindsAtOnce), len(styles))
	}
	if v.Whole {
		v.Shown = len(styles)
	}
	tried := 0
	for tried < len(styles) && len(v.Fitting) < v.Shown {
		next := styles[tried:min(len(styles), tried+max(v.Shown-len(v.Fitting), 2))]
		tried += len(next)
		for _, t := range p.tiles(ctx, in, next, asked) {
			if t.fits() {
				v.Fitting = append(v.Fitting, t)
			} else {
				v.Not = append(v.Not, t)
			}
		}
	}
	if tried < len(styles) {
		v.More = v.Shown + kindsAtOnce
	}
	for _, id := range []string{asked, v.First} {
		s, err := style.ByID(id)
		if err != nil || slices.ContainsFunc(slices.Concat(v.Fitting, v.Not), func(t styleTile) bool { return t.ID == id }) {
			continue
		}
		if t := p.tile(ctx, in, s, asked); t.fits() {
			v.Fitting = append([]styleTile{t}, v.Fitting...)
		}
	}
	return v
}

// tiles draws some kinds, which do not wait for one another; what is not reached in a page's time
// says so.
func (p *boxPage) tiles(ctx context.Context, in *design.Inputs, styles []*style.Style, asked string) []styleTile {
	out := make([]styleTile, len(styles))
	layout.Each(ctx, len(styles), layout.AtOnce, func(i int) { out[i] = p.tile(ctx, in, styles[i], asked) })
	return out
}

// problemWords says in half a line why a style does not go.
func problemWords(f *fault.Fault) string {
	switch f.Code {
	case fault.LargerThanSheet:
		return "too large for the sheets"
	case fault.LargerThanTrimmer:
		return "too long for the trimmer"
	}
	return "does not go at this size"
}

func (p *boxPage) tile(ctx context.Context, in *design.Inputs, s *style.Style, asked string) styleTile {
	t := styleTile{ID: s.ID, Name: s.Name, About: s.About, Chosen: s.ID == asked}
	var now *design.Built
	if p.Result != nil {
		now = &p.Result.Built
	}
	with, err := in.With(s.ID, now)
	with.Copies, with.Name = 1, ""
	sketch := page.Sketch{}
	if err == nil {
		sketch = p.room.Sketched(ctx, with)
	} else {
		sketch.Fault = fault.Of(err)
	}
	if sketch.Late {
		t.Problem, t.Why = "not tried yet", "There was no time to try this one: load the page again."
		return t
	}
	if sketch.Fault != nil {
		t.Problem, t.Why = problemWords(sketch.Fault), sketch.Fault.Text
		return t
	}
	t.Picture, t.Cost = sketch.Picture, cardCost(sketch.Card, in.Units)
	return t
}

// cardCost is the area of a box's blanks, for comparing styles.
func cardCost(area float64, unit measure.Unit) string {
	if unit == measure.In {
		return fmt.Sprintf("%.0f sq in of card", area/645.16)
	}
	return fmt.Sprintf("%.0f cm² of card", area/100)
}
