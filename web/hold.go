package web

import (
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/store"
)

// piecePage is what can be done with one placed piece.
type piecePage struct {
	chrome
	Job      int64
	At, Name string
	Sheet    string
	X, Y     field
	Turned   bool
	MayTurn  bool
	Kept     bool
	Planned  bool
}

// piece shows what can be done with the placed piece that was chosen.
func (s *server) piece(c *echo.Context) error {
	w, err := s.job(c)
	if err != nil {
		return err
	}
	at, err := w.placeAt(c.QueryParam("at"))
	if err != nil {
		return err
	}
	st := &w.stocks[at.stock]
	laid := st.Layout.Sheets[at.sheet]
	p := laid.Placed[at.n]
	f := newForm(nil, unitsOf(c))
	name, _, _ := strings.Cut(laid.Sheet.Name, " (drawer")
	return c.Render(http.StatusOK, "job-piece", piecePage{
		chrome: s.chrome(c, w.Name), Job: w.ID, At: at.String(), Name: st.Job.Pieces[p.Piece].Name, Sheet: fmt.Sprintf("sheet %d, %s", at.sheet+1, name),
		X: f.lengthField("x", "From the left", "", p.X), Y: f.lengthField("y", "From the top", "", p.Y),
		Turned: p.Turned, MayTurn: st.Job.Pieces[p.Piece].Turn, Kept: kept(st, at.sheet, p), Planned: w.State == store.Planned,
	})
}

// hold keeps a piece where it lies or where a hand puts it, or lets it go, and
// lays the rest anew around what is kept.
func (s *server) hold(c *echo.Context) error {
	w, err := s.job(c)
	if err != nil {
		return err
	}
	posted, err := c.FormValues()
	if err != nil {
		return badForm(err)
	}
	f := newForm(posted, unitsOf(c))
	at, err := w.placeAt(posted.Get("at"))
	if err != nil || w.State != store.Planned {
		return fault.New("unknown-piece", "at", "That piece lies elsewhere by now; reload the page.")
	}
	st := &w.stocks[at.stock]
	placed := st.Layout.Sheets[at.sheet].Placed[at.n]
	to := placed
	f.length("x", &to.X)
	f.length("y", &to.Y)
	if posted.Has("moving") && posted.Has("turned") != placed.Turned {
		to.Turned = !placed.Turned
		to.Width, to.Height = placed.Height, placed.Width
	}
	ch := w.Choices
	if f.ok() {
		ch.Held = heldAs(w, at, posted.Get("do"), placed, to)
		next := *w
		next.Choices, next.Layouts = ch, without(w.stocks, at.stock)
		if err := s.plan(c.Request().Context(), &next, ch); isFault(err) {
			x := *fault.Of(err)
			x.Field = "hold"
			f.fail(&x)
		} else if err != nil {
			return err
		} else if err := s.store.SaveJob(c.Request().Context(), next.Job); err != nil {
			return err
		} else {
			return s.afterJob(c, &next)
		}
	}
	return s.renderJob(c, http.StatusUnprocessableEntity, w, f)
}

func (s *server) afterJob(c *echo.Context, w *work) error {
	if c.Request().Header.Get("HX-Request") == "" {
		return back(c, "/jobs/%d", w.ID)
	}
	return s.renderJob(c, http.StatusOK, w, newForm(nil, unitsOf(c)))
}

// without gives the layouts to remember of all stocks but one.
func without(stocks []batch.Stock, changed int) []byte {
	kept := slices.Clone(stocks)
	kept[changed].Layout = nil
	return batch.WriteLayouts(kept)
}

// place is a placed piece: the nth on a sheet of a stock.
type place struct{ stock, sheet, n int }

func (p place) String() string { return fmt.Sprintf("%d.%d.%d", p.stock, p.sheet, p.n) }

func (w *work) placeAt(text string) (place, error) {
	var p place
	if _, err := fmt.Sscanf(text, "%d.%d.%d", &p.stock, &p.sheet, &p.n); err != nil {
		return p, err
	}
	if p.stock < 0 || p.stock >= len(w.stocks) || p.sheet < 0 || p.sheet >= len(w.stocks[p.stock].Layout.Sheets) ||
		p.n < 0 || p.n >= len(w.stocks[p.stock].Layout.Sheets[p.sheet].Placed) {
		return p, store.ErrNoJob
	}
	return p, nil
}

// kept tells whether a placed piece is one that a hand keeps: held sheets come
// first in a layout.
func kept(st *batch.Stock, sheet int, p layout.Placed) bool {
	return sheet < len(st.Job.Held) && slices.ContainsFunc(st.Job.Held[sheet].Pieces, func(h layout.Placed) bool {
		return h.Piece == p.Piece && h.Rect == p.Rect && h.Turned == p.Turned
	})
}

// heldAs gives the kept pieces of a job after a piece was kept ("keep"), put
// elsewhere, let go ("free"), or all of its sheet kept ("sheet").
func heldAs(w *work, at place, do string, placed, to layout.Placed) []batch.Held {
	var out []batch.Held
	for i := range w.stocks {
		st := &w.stocks[i]
		for n, h := range st.Job.Held {
			if i == at.stock && n == at.sheet {
				continue
			}
			out = append(out, heldOf(st, st.Job.Sheets[h.Sheet].Name, h.Pieces))
		}
	}
	st := &w.stocks[at.stock]
	laid := st.Layout.Sheets[at.sheet]
	var pieces []layout.Placed
	for _, p := range laid.Placed {
		if p != placed && (kept(st, at.sheet, p) || do == "sheet") {
			pieces = append(pieces, p)
		}
	}
	if do != "free" {
		pieces = append(pieces, to)
	}
	if len(pieces) > 0 {
		h := heldOf(st, laid.Sheet.Name, pieces)
		// A kept sheet stands where it stood among those of its card, a new one
		// behind them.
		n := min(at.sheet, len(st.Job.Held))
		for _, before := range w.stocks[:at.stock] {
			n += len(before.Job.Held)
		}
		out = slices.Insert(out, n, h)
	}
	return out
}

func heldOf(st *batch.Stock, sheet string, pieces []layout.Placed) batch.Held {
	h := batch.Held{Card: drawer.Key(st.Card), Sheet: sheet}
	for _, p := range pieces {
		h.Pieces = append(h.Pieces, batch.HeldPiece{Piece: st.Job.Pieces[p.Piece].Name, X: p.X, Y: p.Y, Turned: p.Turned})
	}
	return h
}
