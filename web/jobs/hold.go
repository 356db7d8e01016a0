package jobs

import (
	"errors"
	"fmt"
	"hash/fnv"
	"net/http"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/web/form"
	"brevium/web/page"
)

// piecePage is what can be done with one placed piece.
type piecePage struct {
	page.Chrome
	Job      int64
	At, Name string
	Sheet    string
	X, Y     form.Field
	Shaped   bool
	Turn     form.Field // where it is laid by shape
	Turned   bool
	MayTurn  bool
	Kept     bool
	Planned  bool
}

// piece shows what can be done with the placed piece that was chosen.
func (s *room) piece(c *echo.Context) error {
	w, err := s.job(c)
	if err != nil {
		return err
	}
	at, p, err := w.placeAt(c.QueryParam("at"))
	if err != nil {
		return err
	}
	st := &w.stocks[at.Stock]
	f := form.New(nil, page.UnitsOf(c))
	name := sheetName(st, st.Layout.Sheets[at.Sheet])
	return c.Render(http.StatusOK, "job-piece", piecePage{
		Chrome: s.Chrome(
			c,
			w.Name,
		),
		Job:     w.ID,
		At:      placeText(st, at, p),
		Name:    st.Job.Pieces[p.Piece].Name,
		Sheet:   fmt.Sprintf("sheet %d, %s", at.Sheet+1, name),
		X:       f.LengthField("x", "From the left", "", p.X),
		Y:       f.LengthField("y", "From the top", "", p.Y),
		Turned:  p.Turned,
		MayTurn: st.Job.Pieces[p.Piece].Turn,
		Kept:    st.Keeps(at.Sheet, p),
		Planned: w.State == jobbook.Planned,
		Shaped:  st.Shapes != nil,
		Turn:    f.ChoiceField("turn", "It lies", "", fmt.Sprint(90*p.Quarters()), turns(st, p.Piece)...),
	})
}

// turns are those in which a piece may lie that is laid by shape.
func turns(st *batch.Stock, piece int) []form.Choice {
	if st.Shapes == nil {
		return nil
	}
	var out []form.Choice
	for i, words := range []string{"upright", "a quarter with the clock", "upside down", "a quarter against the clock"} {
		if slices.Contains(st.Shapes.Pieces[piece].Turns, 90*i) {
			out = append(out, form.Choice{Value: fmt.Sprint(90 * i), Label: words})
		}
	}
	return out
}

// turned is a placed piece as the form has it turned.
func turned(f *form.Form, st *batch.Stock, p layout.Placed) layout.Placed {
	was := p.Turned
	if st.Shapes == nil {
		if f.Posted.Has("moving") {
			p.Turned = f.Posted.Has("turned")
		}
	} else if f.Posted.Has("turn") {
		turn := p.Turn
		f.Whole("turn", &turn)
		if !slices.ContainsFunc(turns(st, p.Piece), func(c form.Choice) bool { return c.Value == fmt.Sprint(turn) }) {
			f.Fail(fault.New(fault.MayNotTurn, "turn", "It may not be turned so: its pattern or grain runs one way."))
			return p
		}
		p.Turn, p.Turned = turn, turn%180 != 0
	}
	if p.Turned != was {
		p.Width, p.Height = p.Height, p.Width
	}
	return p
}

// hold keeps a piece where it lies or where a hand puts it, or lets it go, and
// lays the rest anew around what is kept.
func (s *room) hold(c *echo.Context) error {
	w, err := s.job(c)
	if err != nil {
		return err
	}
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	f := form.New(posted, page.UnitsOf(c))
	at, placed, err := w.placeAt(posted.Get("at"))
	if err == nil && w.State != jobbook.Planned {
		err = errElsewhere
	}
	if err != nil {
		return err
	}
	to := placed
	f.Length("x", &to.X)
	f.Length("y", &to.Y)
	to = turned(f, &w.stocks[at.Stock], to)
	if posted.Get("do") == "keep" && !posted.Has("moving") { // dragged: it comes to touch what is near
		to = w.stocks[at.Stock].Near(at, to)
	}
	if f.OK() {
		next := *w
		switch posted.Get("do") {
		case "free":
			next.Choices.Held = batch.Free(w.stocks, at)
		case "sheet":
			next.Choices.Held = batch.KeepSheet(w.stocks, at, to)
		default:
			next.Choices.Held = batch.Keep(w.stocks, at, to)
		}
		next.Layouts = without(w.stocks, at.Stock)
		if err := s.plan(c.Request().Context(), &next); page.IsFault(err) {
			x := *fault.Of(err)
			x.Field = "hold"
			f.Fail(&x)
		} else if err != nil {
			return err
		} else if err := s.Store.Of(c.Request().Context()).SaveJob(c.Request().Context(), next.Job, page.Window(c)); errors.Is(err, desk.ErrStale) {
			return errElsewhere
		} else if err != nil {
			return err
		} else {
			return s.afterJob(c, &next)
		}
	}
	return s.renderJob(c, http.StatusUnprocessableEntity, w, f)
}

// afterJob shows a job again after a change.
func (s *room) afterJob(c *echo.Context, w *work) error {
	if c.Request().Header.Get("HX-Request") == "" {
		return page.Back(c, "/jobs/%d", w.ID)
	}
	return s.renderJob(c, http.StatusOK, w, form.New(nil, page.UnitsOf(c)))
}

// without gives the layouts to remember of all stocks but one.
func without(stocks []batch.Stock, changed int) []byte {
	kept := slices.Clone(stocks)
	kept[changed].Layout = nil
	return batch.WriteLayouts(kept)
}

// placeAt reads which piece is meant, as placeText writes it; one that lies
// elsewhere by now is refused.
func (w *work) placeAt(text string) (batch.Place, layout.Placed, error) {
	var at batch.Place
	if _, err := fmt.Sscanf(text, "%d.%d.%d-", &at.Stock, &at.Sheet, &at.N); err != nil {
		return at, layout.Placed{}, errElsewhere
	}
	p, ok := batch.At(w.stocks, at)
	if !ok || placeText(&w.stocks[at.Stock], at, p) != text {
		return at, p, errElsewhere
	}
	return at, p, nil
}

// placeText names a placed piece: where it stands in the layout, and a sum of
// what it is and where it lies, which another layout does not share.
func placeText(st *batch.Stock, at batch.Place, p layout.Placed) string {
	sum := fnv.New32a()
	fmt.Fprintln(sum, st.Card, st.Layout.Sheets[at.Sheet].Sheet.Name, st.Job.Pieces[p.Piece].Name, p.X, p.Y, p.Turned)
	return fmt.Sprintf("%d.%d.%d-%x", at.Stock, at.Sheet, at.N, sum.Sum32())
}

var errElsewhere = fault.New(fault.UnknownPiece, "at", "That piece lies elsewhere by now; load the page again.")
