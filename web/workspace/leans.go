package workspace

import (
	"context"
	"encoding/json"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/logbook"
	"brevium/web/form"
)

// leanView is what the maker's notes say, as the page offers it or reckons with it.
type leanView struct {
	Says string
	// Take is what a button sends to reckon with it, or to set it aside.
	Take string
}

func viewLeans(all []fit.Lean, aside bool) []leanView {
	var out []leanView
	for _, l := range all {
		sent := l
		if aside {
			sent.By = 0
		}
		text, err := json.Marshal(sent)
		if err != nil {
			panic(err) // plain texts and whole numbers
		}
		out = append(out, leanView{l.Says(), string(text)})
	}
	return out
}

// lessons fills in what the notes say of this box's fits, and what it reckons with.
func (p *fitPage) lessons(ctx context.Context) error {
	if p.Result == nil {
		return nil
	}
	felt, err := p.room.Store.Of(ctx).Felt(ctx)
	if err != nil {
		return err
	}
	p.Lessons = viewLeans(p.Result.Lessons(logbook.Learn(felt)), false)
	p.Reckoned = viewLeans(p.Result.Reckoned(), true)
	return nil
}

// readLean takes a lesson in or sets it aside.
func readLean(f *form.Form, in *design.Inputs) {
	text := f.Posted.Get("lean")
	if text == "" {
		return
	}
	var l fit.Lean
	if err := json.Unmarshal([]byte(text), &l); err != nil {
		f.Fail(fault.New(fault.Invalid, "lean", "That lesson cannot be read; reload the page."))
		return
	}
	in.Reckon(l)
}
