package workspace

import (
	"cmp"
	"context"
	"fmt"
	"html/template"
	"strings"
	"unicode"

	"brevium/core/design"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/stuff"
	"brevium/core/style"
	"brevium/draw"
	"brevium/web/form"
	"brevium/web/page"
)

// fitStop is where it is decided how easily one part goes over the other.
var fitStop = &stop{
	ID: "fit", Title: "Will it fit", Decides: "Decide how easily one part goes over the other.",
	read: readFit, page: showFit, settles: []string{"fit"}, small: true,
	answer: func(p *workPage) string {
		if tightest, some := p.Result.Tightest(); some {
			return string(tightest.Verdict)
		}
		return "nothing to fit"
	},
}

type fitPage struct {
	*workPage
	Fields, More      []form.Field
	Allowance         form.Field
	Typed             bool
	Bare              string
	Lessons, Reckoned []leanView // of the logbook
	Asks              string     // the maker's own number, where the account calls it tight
}

func showFit(ctx context.Context, frame *workPage) (any, error) {
	p := &fitPage{workPage: frame}
	if err := p.lessons(ctx); err != nil {
		return nil, err
	}
	p.fill(&frame.Box.Inputs, frame.Form)
	return p, nil
}

// fill makes the fields.
func (p *fitPage) fill(in *design.Inputs, f *form.Form) {
	s, err := style.ByID(in.Style)
	if err != nil || s.Allowance == nil {
		return
	}
	if p.Result != nil {
		p.Bare = bare(p.Result)
	}
	o := s.Allowance
	_, p.Typed = in.Lengths[o.ID]
	if v := f.Posted.Get("allowance"); v != "" {
		p.Typed = v == "typed"
	}
	used := o.Usual(in.Tools.Tick)
	if p.Result != nil {
		used = p.Result.Spec.Lengths[o.ID]
	}
	if tightest, some := p.tightest(); some && p.Typed && tightest.Verdict == fit.Tight {
		p.Asks = measure.Field(used, in.Units)
		if !strings.ContainsFunc(p.Asks, unicode.IsLetter) { // else it brings its own unit
			p.Asks += " " + string(in.Units)
		}
	}
	p.Allowance = f.LengthField("options."+o.ID, o.Label, o.About, used)
	p.Fields = []form.Field{f.ChoiceField("fit", "It should be", "", string(in.Fit), fitChoices()...), handField(f, in)}
	for _, o := range s.Options {
		switch {
		case !o.ForFit || o == s.Allowance:
		case o.Kind == style.ChoiceKind:
			p.Fields = append(p.Fields, optionField(f, in, o))
		default:
			v := o.Usual(in.Tools.Tick)
			if p.Result != nil {
				v = p.Result.Spec.Lengths[o.ID]
			}
			p.More = append(p.More, f.LengthField("options."+o.ID, o.Label, o.About, v))
		}
	}
}

// noHand stands in a form for a hand of which nobody says how steady it is.
const noHand = "any"

func handField(f *form.Form, in *design.Inputs) form.Field {
	words := map[stuff.Steadiness]string{
		stuff.New: "a new hand", stuff.Practised: "a practised hand", stuff.Careful: "a careful hand", stuff.Learned: "my hand, as my notes tell",
	}
	choices := []form.Choice{{Value: noHand, Label: "not said"}}
	for _, h := range stuff.Hands {
		choices = append(choices, form.Choice{Value: string(h), Label: words[h]})
	}
	return f.ChoiceField("hand", "Made by", "how many of a batch will fit", cmp.Or(string(in.Hand), noHand), choices...)
}

// hillView is how a fit comes out in many boxes.
type hillView struct {
	design.Hill
	Picture template.HTML
}

// Hills are drawn where it is said how steady the hand is.
func (p *fitPage) Hills() []hillView {
	var out []hillView
	for _, h := range p.Result.Hills() {
		out = append(out, hillView{h, page.SVG(draw.Hill(h))})
	}
	return out
}

// tightest is the tightest fit of the box, where there is a box.
func (p *fitPage) tightest() (fit.Account, bool) {
	if p.Result == nil {
		return fit.Account{}, false
	}
	return p.Result.Tightest()
}

func fitChoices() []form.Choice {
	words := map[fit.Verdict]string{
		fit.Grips: "gripping: stays on when shaken", fit.Snug: "snug: slides with a little air",
		fit.Easy: "easy: on and off with one hand", fit.Loose: "loose: drops over",
	}
	var out []form.Choice
	for _, v := range fit.Wanted {
		out = append(out, form.Choice{Value: string(v), Label: words[v]})
	}
	return out
}

// fitView is one account with its picture.
type fitView struct {
	fit.Account
	Picture template.HTML
	Gap     string
	Lines   []fitLine
}

type fitLine struct{ Text, Amount string }

// Accounts gives the gap accounts line by line, in millimetres.
func (p *fitPage) Accounts() []fitView {
	var out []fitView
	show := measure.Hundredths
	for _, a := range p.Result.Fits {
		v := fitView{Account: a, Picture: page.SVG(draw.StackUp(a)), Gap: show(a.Gap)}
		for _, l := range a.Lines {
			v.Lines = append(v.Lines, fitLine{l.Text, show(l.Amount)})
		}
		out = append(out, v)
	}
	return out
}

// bare compares the fit over mats with that over bare walls; "" when there are
// no mats or no fit.
func bare(r *design.Result) string {
	bare, dressed, known := r.BareFit()
	if !known {
		return ""
	}
	return fmt.Sprintf("Made the usual %s bigger it %s over bare walls; over these papers it %s.",
		measure.Label(measure.Inch/16, r.Inputs.Units, measure.Tenth), does[bare], does[dressed])
}

// does puts a verdict into a sentence.
var does = map[fit.Verdict]string{
	fit.WontGoOn: "won't go on",
	fit.Tight:    "is tight",
	fit.Grips:    "goes on and grips",
	fit.Snug:     "is snug",
	fit.Easy:     "is easy",
	fit.Loose:    "is loose",
}

func readFit(f *form.Form, in *design.Inputs, now *design.Result) {
	readLean(f, in)
	for _, o := range now.Style.Options {
		if o != now.Style.Allowance {
			readOption(f, in, now, o, true)
		}
	}
	if v := f.Posted.Get("hand"); v != "" {
		in.Hand = stuff.Steadiness(strings.TrimPrefix(v, noHand))
	}
	if v := f.Posted.Get("fit"); v != "" {
		want, err := fit.ParseVerdict(v)
		if err != nil {
			f.Fail(err)
		}
		in.Fit = want
	}
	if now.Style.Allowance == nil {
		return
	}
	id := now.Style.Allowance.ID
	switch f.Posted.Get("allowance") {
	case "solve":
		delete(in.Lengths, id)
		f.Posted.Del("options." + id)
	case "typed":
		v := now.Spec.Lengths[id]
		f.Length("options."+id, &v)
		in.Lengths[id] = v
	}
}
