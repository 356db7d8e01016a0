package workspace

import (
	"encoding/json"
	"maps"
	"net/http"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/inspect"
	"brevium/core/paper"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/page"
)

// cardPage is which card each piece of a box may be cut from, and how its grain lies.
type cardPage struct {
	page.Chrome
	Box    boxshelf.Box
	Pieces []cardForView
	Listed string // the maker's constants, where the box reckons with others
}

type cardForView struct {
	design.CardFor
	Runs []form.Choice
}

// mostCards is how many cards are shown that suit a piece, and mostOthers how many of those that
// want care, and of those that do not go.
const (
	mostCards  = 8
	mostOthers = 2
)

// Verdicts in words, for whoever sees no colour.
var suitWords = map[inspect.Verdict]string{inspect.OK: "suits", inspect.Warn: "with care", inspect.Fail: "not this"}

// Word says how a card suits.
func (v cardForView) Word(x inspect.Verdict) string { return suitWords[x] }

func (s *room) card(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	lots, err := s.Store.Of(ctx).Lots(ctx)
	if err != nil {
		return err
	}
	p := cardPage{Chrome: s.beside(c, "The card for each piece", b, "box"), Box: b}
	own, err := s.Constants(ctx)
	if err != nil {
		return err
	}
	if !maps.Equal(own, b.Inputs.Constants) {
		text, err := json.Marshal(own)
		if err != nil {
			return err
		}
		p.Listed = string(text)
	}
	r, err := s.Made(ctx, b.Inputs)
	if err != nil && !page.IsFault(err) {
		return err
	}
	if err == nil {
		for _, x := range r.WhichCards(shelf(&b.Inputs, lots)) {
			x.Choices = few(x.Choices)
			p.Pieces = append(p.Pieces, cardForView{x, runChoices(x)})
		}
	}
	return c.Render(http.StatusOK, "card-page.html", p)
}

// few leaves of many cards those that suit best, and some of the others with what is the matter.
func few(all []design.CardChoice) []design.CardChoice {
	var out []design.CardChoice
	n := map[inspect.Verdict]int{}
	for _, c := range all {
		if n[c.Verdict]++; n[c.Verdict] <= mostOthers || c.Verdict == inspect.OK && n[c.Verdict] <= mostCards {
			out = append(out, c)
		}
	}
	return out
}

// runChoices are the ways a card's grain may lie in a piece.
func runChoices(x design.CardFor) []form.Choice {
	lies := "as it lies on the sheet"
	switch {
	case x.Fixed || x.Run == paper.RunUnknown:
	case x.Run == paper.RunLength:
		lies += ": from left to right"
	default:
		lies += ": up and down"
	}
	out := []form.Choice{{Value: "free", Label: lies, Chosen: !x.Fixed}}
	for _, y := range []form.Choice{{Value: string(paper.RunLength), Label: "from left to right"}, {Value: string(paper.RunWidth), Label: "up and down"}} {
		y.Chosen = x.Fixed && string(x.Run) == y.Value
		out = append(out, y)
	}
	return out
}

// readGrain reads how the grain is to lie in a piece, and by which constants the box is judged.
func readGrain(f *form.Form, in *design.Inputs, now *design.Result) {
	if text := f.Posted.Get("constants.listed"); text != "" {
		own := map[string]float64{}
		if err := json.Unmarshal([]byte(text), &own); err == nil {
			in.Constants = own
		}
	}
	for _, p := range now.Parts {
		switch run := paper.Run(f.Posted.Get("grain." + p.ID)); {
		case run == "free":
			delete(in.Grains, p.ID)
		case run != paper.RunUnknown && slices.Contains(paper.Runs, run):
			in.Grains[p.ID] = run
		}
	}
}
