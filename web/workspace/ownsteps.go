package workspace

import (
	"fmt"
	"strconv"
	"strings"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/recipe"
	"brevium/web/form"
)

// ownView is a step of the maker's own, as its form asks about it.
type ownView struct {
	N      int
	Text   form.Field
	Fields []form.Field
}

// readyStep is one that many makers have, to be taken by a press.
type readyStep struct {
	N    int
	Text string
}

func ownAt(n int, part string) string { return fault.Path("own_steps", n, part) }

// afterWords say when a step of one's own comes.
var afterWords = map[string]string{
	recipe.AtStart: "first of all", recipe.AfterCut: "when it is cut", recipe.AfterScore: "when it is scored",
	recipe.AfterFold: "when it is folded", recipe.AfterGlue: "when it is glued", recipe.AtEnd: "last of all",
}

// ownSteps shows the maker's own steps.
func (p *makingPage) ownSteps(in *design.Inputs, f *form.Form) {
	for n, x := range design.ReadySteps {
		p.ReadySteps = append(p.ReadySteps, readyStep{n, strings.TrimSuffix(x.Text, ".")})
	}
	if p.Result == nil {
		return
	}
	var afters []form.Choice
	for _, a := range recipe.Afters {
		afters = append(afters, form.Choice{Value: a, Label: afterWords[a]})
	}
	for _, s := range p.Result.Steps {
		if !s.Makers {
			afters = append(afters, form.Choice{Value: s.Key, Label: fmt.Sprintf("after step %d", s.N)})
		}
	}
	pieces := []form.Choice{{Value: "", Label: "the whole box"}}
	for _, part := range p.Result.Parts {
		pieces = append(pieces, form.Choice{Value: part.ID, Label: "the " + strings.ToLower(part.Name)})
	}
	for n, o := range in.OwnSteps {
		p.Own = append(p.Own, ownView{n, f.Control(ownAt(n, "text"), "What you do", "", o.Text), []form.Field{
			f.ChoiceField(ownAt(n, "after"), "When", "", o.After, afters...),
			f.ChoiceField(ownAt(n, "piece"), "To", "", o.Piece, pieces...),
			f.Control(ownAt(n, "minutes"), "Minutes", "for one box", strconv.FormatFloat(o.Minutes, 'f', -1, 64)),
			f.Control(ownAt(n, "supplies"), "It takes", "parted by commas", strings.Join(o.Supplies, ", ")),
		}})
	}
}

// readOwnSteps reads them: those there are, one that is taken away, one that is added.
func readOwnSteps(f *form.Form, in *design.Inputs, now *design.Result) {
	var all []recipe.Own
	for n, o := range in.OwnSteps {
		if f.Posted.Get("own_steps.remove") == strconv.Itoa(n) {
			continue
		}
		f.Text(ownAt(n, "text"), &o.Text)
		f.Text(ownAt(n, "after"), &o.After)
		f.Text(ownAt(n, "piece"), &o.Piece)
		if name := ownAt(n, "minutes"); f.Posted.Has(name) {
			v, err := strconv.ParseFloat(strings.TrimSpace(f.Posted.Get(name)), 64)
			if o.Minutes = v; err != nil {
				f.Fail(fault.New(fault.NotANumber, name, "%q is no number of minutes", f.Posted.Get(name)))
			}
		}
		if name := ownAt(n, "supplies"); f.Posted.Has(name) {
			o.Supplies = nil
			for _, s := range strings.Split(f.Posted.Get(name), ",") {
				if s = strings.TrimSpace(s); s != "" {
					o.Supplies = append(o.Supplies, s)
				}
			}
		}
		all = append(all, o)
	}
	forgetMoved(f, "own_steps")
	in.OwnSteps = all
	what := f.Posted.Get("own_steps.add")
	n, err := strconv.Atoi(what)
	switch {
	case what == "" || len(all) >= design.MostOwnSteps:
	case err == nil && n >= 0 && n < len(design.ReadySteps):
		in.OwnSteps = append(in.OwnSteps, design.ReadyOwnStep(n, now.Parts[0].ID))
	default:
		in.OwnSteps = append(in.OwnSteps, design.UsualOwnStep(now.Parts[0].ID))
	}
	f.Posted.Del("own_steps.add")
	in.NumberThings()
}
