package design

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/style"
)

// Saving is one size made a little smaller so that fewer sheets do: what is
// changed, from how many sheets to how many, and the inputs with it.
type Saving struct {
	Key             string
	Label           string // of the size
	From, To        measure.Length
	Choice          string // instead of From and To: what is chosen of an option
	Sheets, Instead int    // that it takes then, and that it takes now
	Inside          style.Extent
	Inputs          Inputs
}

// mostGiven is how much is taken off a size at most: 1/8 in on a board in
// inches, 3 mm on another.
func mostGiven(tick measure.Tick) measure.Length {
	if tick.System() == measure.In {
		return measure.Inch / 8
	}
	return 3 * measure.Millimetre
}

// leastSpare is the room to spare that is left to a thing.
const leastSpare = measure.Millimetre

// giving is a size that may give, and how it is changed.
type giving struct {
	key, label string
	now, least measure.Length
	set        func(in *Inputs, l measure.Length)
}

// Savings looks for sizes that would save sheets when they gave a little, each
// by itself and by the fewest ticks that save as many: the box's own sizes, and
// where things set those the room to spare around them. What is wrong with the
// box may not become worse by it. The most saved comes first.
func Savings(ctx context.Context, in Inputs) []Saving {
	now, err := Make(ctx, in)
	if err != nil {
		return nil
	}
	sheets := now.SheetCount()
	if sheets < 2 {
		return nil
	}
	step := in.Tools.Tick.Length()
	var out []Saving
	for _, g := range now.giving() {
		try := func(ticks measure.Length) (Saving, bool) {
			s := Saving{Key: g.key, Label: g.label, From: g.now, To: g.now - ticks*step, Instead: sheets, Inputs: in.Clone()}
			if s.To < g.least || ctx.Err() != nil {
				return s, false
			}
			g.set(&s.Inputs, s.To)
			r, err := Make(ctx, s.Inputs)
			if err != nil || worse(r, now) {
				return s, false
			}
			s.Sheets, s.Inside = r.SheetCount(), r.Inside
			return s, s.Sheets < sheets
		}
		for ticks := mostGiven(in.Tools.Tick) / step; ticks > 0; ticks-- {
			best, saves := try(ticks)
			if !saves {
				continue
			}
			for fewer := measure.Length(1); fewer < ticks; fewer++ {
				if s, saves := try(fewer); saves && s.Sheets <= best.Sheets {
					best = s
					break
				}
			}
			out = append(out, best)
			break
		}
	}
	out = append(out, otherChoices(ctx, now, in, sheets)...)
	slices.SortStableFunc(out, func(a, b Saving) int { return a.Sheets - b.Sheets })
	return out
}

// otherChoices are the savings of options that may vary, such as how a lid gets its gap:
// of each the choice that saves the most.
func otherChoices(ctx context.Context, r *Result, in Inputs, sheets int) []Saving {
	var out []Saving
	for _, o := range r.Style.Options {
		best := Saving{Sheets: sheets}
		for _, c := range o.Choices {
			if !o.Varies || c == r.Spec.Choices[o.ID] || ctx.Err() != nil {
				continue
			}
			with := in.Clone()
			with.Choices[o.ID] = c
			made, err := Make(ctx, with)
			if err == nil && !worse(made, r) && made.SheetCount() < best.Sheets {
				best = Saving{Key: "options." + o.ID, Label: o.Label, Choice: c, Sheets: made.SheetCount(), Instead: sheets, Inside: made.Inside, Inputs: with}
			}
		}
		if best.Choice != "" {
			out = append(out, best)
		}
	}
	return out
}

// Text says what it changes.
func (s Saving) Text() string {
	in := &s.Inputs
	show := func(l measure.Length) string { return measure.Label(l, in.Units, in.Tools.Tick) }
	gives := fmt.Sprintf("%d sheets do instead of %d. The clear inside is then %s.", s.Sheets, s.Instead, s.Inside.FreeIn(in.Units))
	if s.Choice != "" {
		return fmt.Sprintf("%s: with %s, %s", s.Label, strings.ReplaceAll(s.Choice, "-", " "), gives)
	}
	return fmt.Sprintf("With %s at %s instead of %s, %s", strings.ToLower(s.Label[:1])+s.Label[1:], show(s.To), show(s.From), gives)
}

// SheetCount is how many sheets it takes.
func (l *Laid) SheetCount() int {
	n := 0
	for _, s := range l.Stocks {
		n += len(s.Layout.Sheets)
	}
	return n
}

// worse reports whether a box has a graver fault than another, or does not
// come out of its sheets.
func worse(a, b *Result) bool {
	rank := map[inspect.Verdict]int{inspect.OK: 0, inspect.Warn: 1, inspect.Fail: 2}
	for _, s := range a.Stocks {
		if len(s.Layout.Unplaced) > 0 {
			return true
		}
	}
	return rank[inspect.Worst(a.Checks)] > rank[inspect.Worst(b.Checks)]
}

// giving lists the sizes of a box that may give.
func (s *Sized) giving() []giving {
	in := &s.Inputs
	var out []giving
	for i, t := range in.Things {
		out = append(out, giving{
			key: thingField(i), label: "The room to spare around " + s.ThingName(i), now: t.Ease, least: leastSpare,
			set: func(x *Inputs, l measure.Length) { x.Things[i].Ease, x.Stand = l, "" },
		})
	}
	for _, p := range s.Style.Parameters {
		if len(in.Things) > 0 && s.Style.IsAxis(p.ID) {
			continue
		}
		now, typed := in.Size[p.ID]
		if !typed {
			now = s.Spec.Lengths[p.ID]
		}
		out = append(out, giving{"size." + p.ID, p.Label, now, p.Min, func(x *Inputs, l measure.Length) { x.Size[p.ID] = l }})
	}
	for _, o := range s.Style.Options {
		if o.Kind == style.LengthKind && !o.ForFit {
			out = append(out, giving{"options." + o.ID, o.Label, s.Spec.Lengths[o.ID], o.Min, func(x *Inputs, l measure.Length) { x.Lengths[o.ID] = l }})
		}
	}
	return out
}
