package logbook

import (
	"fmt"
	"html/template"
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/fit"
	"brevium/core/logbook"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/page"
)

// askPage asks how a box came out: of each thing that goes over another how it felt,
// how long it took, and what to remember.
type askPage struct {
	page.Chrome
	ID       int64
	Name     string
	Picture  template.HTML
	Form     *form.Form
	Felt     []form.Field
	Minutes  form.Field
	Remember form.Field
}

func feltAt(n int) string { return fmt.Sprint("felt", n) }

func (s *room) ask(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	return s.showAsk(c, http.StatusOK, b, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func (s *room) showAsk(c *echo.Context, status int, b boxshelf.Box, f *form.Form) error {
	ctx := c.Request().Context()
	r, err := s.Made(ctx, b.Inputs)
	if err != nil {
		return err
	}
	v := askPage{Chrome: s.Chrome(c, "How it came out · "+b.Name), ID: b.ID, Name: b.Name, Picture: page.BoxPicture(r, ""), Form: f}
	choices := []form.Choice{{Value: "", Label: "not noted"}}
	for _, verdict := range fit.Verdicts {
		choices = append(choices, form.Choice{Value: string(verdict), Label: string(verdict)})
	}
	for n, a := range r.Felt() {
		v.Felt = append(v.Felt, f.ChoiceField(feltAt(n), a.Pair.What(), fmt.Sprintf("worked out: %s", a.Verdict), "", choices...))
	}
	minutes, hint := "", "minutes, if you know"
	times, err := s.Store.Of(ctx).Times(ctx, b.ID)
	if err != nil {
		return err
	}
	if took := logbook.Minutes(times); took > 0 {
		minutes, hint = fmt.Sprintf("%.0f", max(1, took)), "minutes, as the bench measured it"
	}
	v.Minutes = f.Control("minutes", "How long it took", hint, minutes)
	v.Remember = f.Control("remember", "What to remember", "for the next one", "")
	v.Remember.Kind = "lines"
	return c.Render(status, "made.html", v)
}

func (s *room) write(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	r, err := s.Made(ctx, b.Inputs)
	if err != nil {
		return err
	}
	n := logbook.Note{Box: b.ID, Name: b.Name, Style: b.Inputs.Style, Card: b.Inputs.Card.Label(), Design: b.Inputs.Write()}
	f := form.New(posted, page.UnitsOf(c))
	f.Text("remember", &n.Remember)
	f.Decimal("minutes", &n.Minutes)
	for i, a := range r.Felt() {
		if felt := posted.Get(feltAt(i)); felt != "" {
			n.Felt = append(n.Felt, logbook.Felt{Pair: a.Pair.What(), Kind: a.Pair.Kind.ID, Card: b.Inputs.CardOf(a.Pair.Outer).Label(), Gap: a.Gap - a.Leant, Felt: fit.Verdict(felt)})
		}
	}
	err = n.Check()
	if err == nil && f.OK() {
		if n.Photo, err = s.KeepPhotograph(c); err == nil {
			err = s.Store.Of(ctx).AddNote(ctx, n)
		}
	}
	if page.IsFault(err) {
		f.Fail(err)
	} else if err != nil {
		return err
	}
	if !f.OK() {
		return s.showAsk(c, http.StatusUnprocessableEntity, b, f)
	}
	return page.Back(c, "/logbook?written=1")
}
