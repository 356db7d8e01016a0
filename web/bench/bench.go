// Package bench is the page for the table: one thing to do at a time, read from a
// metre.
package bench

import (
	"embed"
	"fmt"
	"html/template"
	"net/http"
	"slices"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/core/bench"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/draw"
	"brevium/store"
	"brevium/web/page"
)

// Templates are the room's pages.
//
//go:embed *.html
var Templates embed.FS

type room struct{ *page.Room }

// Routes adds the room's addresses.
func Routes(e *echo.Echo, shared *page.Room) {
	s := &room{shared}
	e.GET("/boxes/:id/bench", s.show)
	e.POST("/boxes/:id/bench", s.move)
}

// place is the key under which the move that one stands at is kept beside the ticks.
const place = "bench/at"

// benchPage is one move.
type benchPage struct {
	page.Chrome
	Box        store.Box
	At, Of     int
	Move       bench.Move
	Kind       string
	Number     string // of the groove, very large
	Beside     string
	Size       string // of the words: how many there are
	Picture    template.HTML
	Done       bool // all of it
	Left       string
	Percent    int
	First      bool
	NextIs     string
	StepsTotal int
}

// kinds are the steps' kinds in words.
var kinds = map[recipe.Kind]string{
	recipe.Cut: "Cut", recipe.Score: "Score", recipe.Fold: "Fold and burnish", recipe.Remove: "Cut away", recipe.Decorate: "Decorate",
	recipe.Glue: "Glue", recipe.Assemble: "Put together", recipe.Fill: "Fill", recipe.Close: "Close",
}

// made is a box with its moves, and what is ticked off of them.
type made struct {
	box   store.Box
	r     *design.Result
	moves []bench.Move
	ticks map[string]string
}

func (s *room) made(c *echo.Context) (*made, error) {
	b, err := s.Box(c)
	if err != nil {
		return nil, err
	}
	ctx := c.Request().Context()
	r, err := s.Made(ctx, b.Inputs)
	if err != nil {
		return nil, err
	}
	m := &made{box: b, r: r, moves: bench.Moves(r.Steps, r.Scores, b.Inputs.Tools.Fence, r.Show, func(l recipe.ScoreList) []string { return l.ShortLines(r.Telling()) })}
	m.ticks, err = s.Store.Ticks(ctx, b.ID)
	return m, err
}

func (m *made) done(s recipe.Step) bool { return m.ticks[s.Key] == s.Mark }

// at is the move one stands at: where one was, if its step is still to be done;
// else the first that is not.
func (m *made) at() int {
	from := bench.From(m.moves, m.done)
	if n, err := strconv.Atoi(m.ticks[place]); err == nil && n >= 0 && n < len(m.moves) && !m.done(m.moves[n].Step) {
		return n
	}
	return from
}

func (s *room) show(c *echo.Context) error {
	m, err := s.made(c)
	if err != nil {
		return err
	}
	return s.render(c, m, m.at())
}

// move goes a move on or back. The last move of a step ticks it off; going back
// into one takes its tick away.
func (s *room) move(c *echo.Context) error {
	m, err := s.made(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	at, wrong := strconv.Atoi(c.FormValue("at"))
	if wrong != nil || at < 0 || at > len(m.moves) {
		at = m.at()
	}
	tick := func(step recipe.Step, done bool) error {
		if done {
			m.ticks[step.Key] = step.Mark
		} else {
			delete(m.ticks, step.Key)
		}
		return s.Store.Tick(ctx, m.box.ID, step.Key, step.Mark, done)
	}
	switch c.FormValue("go") {
	case "back":
		if at = max(0, at-1); at < len(m.moves) && m.done(m.moves[at].Step) {
			err = tick(m.moves[at].Step, false)
		}
	default:
		if at < len(m.moves) {
			if x := m.moves[at]; x.N == x.Of {
				err = tick(x.Step, true)
			}
			at++
		}
	}
	if err == nil {
		err = s.Store.Tick(ctx, m.box.ID, place, strconv.Itoa(at), true)
	}
	if err != nil {
		return err
	}
	if c.Request().Header.Get("HX-Request") == "" {
		return page.Back(c, "/boxes/%d/bench", m.box.ID)
	}
	return s.render(c, m, at)
}

func (s *room) render(c *echo.Context, m *made, at int) error {
	v := &benchPage{Chrome: s.Chrome(c, "At the bench · "+m.box.Name), Box: m.box, At: at, Of: len(m.moves), First: at == 0, StepsTotal: len(m.r.Steps)}
	v.Units = m.box.Inputs.Units
	left := 0.0
	for _, x := range m.moves[min(at, len(m.moves)):] {
		left += x.Step.Seconds / float64(x.Of)
	}
	if left > 0 {
		v.Left = fmt.Sprintf("about %.0f min left", max(1, left/60))
	}
	v.Percent = 100 * at / max(1, len(m.moves))
	if v.Done = at >= len(m.moves); !v.Done {
		if err := v.fill(m); err != nil {
			return err
		}
	}
	if c.Request().Header.Get("HX-Request") != "" {
		return c.Render(http.StatusOK, "bench-move", v)
	}
	return c.Render(http.StatusOK, "bench.html", v)
}

// longWords and longerWords are from how many letters on words are set smaller.
const (
	longWords   = 90
	longerWords = 240
)

// fill readies what is done now.
func (v *benchPage) fill(m *made) error {
	v.Move = m.moves[v.At]
	v.Kind = kinds[v.Move.Step.Kind]
	switch n := len(v.Move.Says); {
	case n > longerWords:
		v.Size = "longer"
	case n > longWords:
		v.Size = "long"
	}
	if v.At+1 < len(m.moves) {
		v.NextIs = kinds[m.moves[v.At+1].Step.Kind]
	}
	in := &m.box.Inputs
	g := v.Move.Groove
	i := slices.IndexFunc(m.r.Parts, func(p design.Part) bool { return p.ID == v.Move.Step.Piece })
	if g == nil || i < 0 {
		picture, err := draw.Step(m.r, draw.OpenModelOf(m.r, false), v.Move.Step, false)
		if err == nil {
			v.Picture = page.SVG(picture)
		}
		return err
	}
	p := m.r.Parts[i]
	v.Number, v.Beside = measure.Number(g.At, in.Units, in.Tools.Tick), measure.Beside(g.At, in.Units)
	board := draw.Board{Fence: in.Tools.Fence, Units: in.Units, Tick: in.Tools.Tick, From: *draw.FromOf(p)}
	v.Picture = page.SVG(board.Picture(*g, p.Pattern.Width, p.Pattern.Height))
	return nil
}
