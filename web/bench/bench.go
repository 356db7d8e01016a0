// Package bench is the page for the table: one thing to do at a time, read from a
// metre.
package bench

import (
	"embed"
	"html/template"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/bench"
	"brevium/core/design"
	"brevium/core/logbook"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/draw"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/web/page"
)

// Templates are the room's pages.
//
//go:embed *.html
var Templates embed.FS

type room struct {
	*page.Room
	moves *page.Kept[[]template.HTML] // of boxes that classes make
}

// Routes adds the room's addresses.
func Routes(e *echo.Echo, shared *page.Room) {
	s := &room{shared, page.NewKept[[]template.HTML](mostClasses, nil)}
	e.GET("/boxes/:id/bench", s.show)
	e.POST("/boxes/:id/bench", s.move)
	e.GET("/boxes/:id/class", s.board(desk.BoxSort))
	e.POST("/boxes/:id/class", s.setClass(desk.BoxSort))
	e.GET("/jobs/:id/class", s.board(desk.JobSort))
	e.POST("/jobs/:id/class", s.setClass(desk.JobSort))
	e.GET("/class/:code", s.follow)
	e.POST("/class/:code", s.sit)
	e.POST("/class/:code/at", s.tell)
	e.POST("/class/:code/up", s.standUp)
}

// benchPage is one move.
type benchPage struct {
	page.Chrome
	Box        boxshelf.Box
	At, Of     int
	Move       bench.Move
	Kind       string
	Number     string // of the groove or the fence, very large
	Beside     string
	Size       string // of the words: how many there are
	Picture    template.HTML
	Near       template.HTML   // the same magnified, or where the glue goes
	Frames     []template.HTML // instead of Picture: from before to after
	Done       bool            // all of it
	Bag        []string        // what one looks for first, out of a kit
	Left       string
	Percent    int
	First      bool
	NextIs     string
	StepsTotal int
	Usual      float64 // seconds of this move
	// Was is where one was before all copies were passed over at once, and WasAt
	// what was in the hand there; −1 when they were not.
	Was   int
	WasAt string
}

// kinds are the steps' kinds in words.
var kinds = map[recipe.Kind]string{
	recipe.Cut: "Cut", recipe.Score: "Score", recipe.Fold: "Fold and burnish", recipe.Remove: "Cut away", recipe.Decorate: "Decorate",
	recipe.Glue: "Glue", recipe.Assemble: "Put together", recipe.Fill: "Fill", recipe.Close: "Close",
}

// made is a box with its moves, and what is ticked off of them.
type made struct {
	box   boxshelf.Box
	r     *design.Result
	moves []bench.Move
	ticks map[string]string
	paces map[string]logbook.Pace
}

func (s *room) made(c *echo.Context) (*made, error) {
	b, err := s.Box(c)
	if err != nil {
		return nil, err
	}
	ctx := c.Request().Context()
	r, err := s.Finished(ctx, b.Inputs)
	if err != nil {
		return nil, err
	}
	m := &made{box: b, r: r, moves: bench.Moves(r)}
	if m.ticks, err = s.Store.Of(ctx).Ticks(ctx, b.ID); err != nil {
		return nil, err
	}
	m.ticks = recipe.Ticked(r.Steps, m.ticks)
	times, err := s.Store.Of(ctx).Times(ctx, 0)
	m.paces = logbook.Paces(times)
	return m, err
}

func (m *made) done(s recipe.Step) bool { return m.ticks[s.Key] == s.Mark }

// at is the move one stands at: where one was, if its step is still to be done;
// else the first that is not.
func (m *made) at() int {
	from := bench.From(m.moves, m.done)
	if n, err := strconv.Atoi(m.ticks[boxshelf.BenchAt]); err == nil && n >= 0 && n < len(m.moves) && !m.done(m.moves[n].Step) {
		return n
	}
	return from
}

// seconds is how long this maker takes for a move.
func (m *made) seconds(x bench.Move) float64 {
	return logbook.Of(m.paces, string(x.Step.Kind), x.Seconds)
}

func (s *room) show(c *echo.Context) error {
	m, err := s.made(c)
	if err != nil {
		return err
	}
	return s.render(c, m, m.at(), -1)
}

// A time that is shorter than a second, or so much longer than usual that someone
// must have gone away, is not a time of work.
const (
	leastTook = 1.0
	mostTook  = 6.0 // times the usual
	slowStart = 90.0
)

// move goes a move on or back, over all copies of a step, or back to where one was
// before that. The last move of a step ticks it off; what one goes back behind is
// ticked no more.
func (s *room) move(c *echo.Context) error {
	m, err := s.made(c)
	if err != nil {
		return err
	}
	at, wrong := strconv.Atoi(c.FormValue("at"))
	if wrong != nil || at < 0 || at > len(m.moves) {
		at = m.at()
	}
	was := -1
	to := boxshelf.Stand{At: at}
	back := func(n int) {
		to.At = max(0, min(n, at))
		for _, x := range m.moves[to.At:at] {
			if !slices.Contains(to.Undone, x.Step.Key) {
				to.Undone = append(to.Undone, x.Step.Key)
				delete(m.ticks, x.Step.Key)
			}
		}
	}
	switch c.FormValue("go") {
	case "back":
		back(at - 1)
	case "undo":
		if n, err := strconv.Atoi(c.FormValue("was")); err == nil {
			back(n)
		}
	default:
		if at == len(m.moves) {
			break
		}
		x := m.moves[at]
		if to.At = at + 1; c.FormValue("go") == "all" {
			to.At, was = bench.AllOf(m.moves, at), at
		} else if took, err := strconv.ParseFloat(c.FormValue("took"), 64); err == nil && took >= leastTook && took < mostTook*x.Seconds+slowStart {
			to.Step, to.Took = x.Step.Key, logbook.Took{Kind: string(x.Step.Kind), Seconds: took, Usual: x.Seconds}
		}
		if last := m.moves[to.At-1]; last.Last() {
			to.Done = []boxshelf.Tick{{Step: last.Step.Key, Mark: last.Step.Mark}}
			m.ticks[last.Step.Key] = last.Step.Mark
		}
	}
	if err := s.Store.Of(c.Request().Context()).Stand(c.Request().Context(), m.box.ID, to); err != nil {
		return err
	}
	if c.Request().Header.Get("HX-Request") == "" {
		return page.Back(c, "/boxes/%d/bench", m.box.ID)
	}
	return s.render(c, m, to.At, was)
}

func (s *room) render(c *echo.Context, m *made, at, was int) error {
	v := &benchPage{Chrome: s.Chrome(c, "At the bench · "+m.box.Name), Box: m.box, At: at, Of: len(m.moves), First: at == 0, StepsTotal: len(m.r.Steps), Was: was}
	v.Units = m.box.Inputs.Units
	left, all := 0.0, 0.0
	for i, x := range m.moves {
		all += m.seconds(x)
		if i >= at {
			left += m.seconds(x)
		}
	}
	if left > 0 {
		v.Left = "about " + recipe.Clock(left/60) + " left"
	}
	v.Percent = int(100 * (all - left) / max(1, all))
	if was >= 0 {
		v.WasAt = m.moves[was].Counted()
	}
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

// frames are how many pictures a movement is shown in.
const frames = 6

// fill readies what is done now.
func (v *benchPage) fill(m *made) error {
	v.Move = m.moves[v.At]
	v.Kind = kinds[v.Move.Part.Kind]
	v.Usual = m.seconds(v.Move)
	switch n := len(v.Move.Says); {
	case n > longerWords:
		v.Size = "longer"
	case n > longWords:
		v.Size = "long"
	}
	if v.At+1 < len(m.moves) {
		if v.NextIs = strings.ToLower(kinds[m.moves[v.At+1].Step.Kind]); v.NextIs == strings.ToLower(v.Kind) {
			v.NextIs = ""
		}
	}
	in := &m.box.Inputs
	i := slices.IndexFunc(m.r.Parts, func(p design.Part) bool { return p.ID == v.Move.Part.Piece })
	if t := v.Move.Trim; t != nil {
		v.Number, v.Beside = measure.Number(t.At, in.Units, in.Tools.Tick), measure.Beside(t.At, in.Units)
		v.Picture = page.SVG(draw.Trimmer(m.r, *t))
		return nil
	}
	if i >= 0 {
		p := m.r.Parts[i]
		if g := v.Move.Groove; g != nil {
			v.Number, v.Beside = measure.Number(g.At, in.Units, in.Tools.Tick), measure.Beside(g.At, in.Units)
			board := draw.Board{Fence: in.Tools.Fence, Units: in.Units, Tick: in.Tools.Tick, From: *draw.FromOf(p), Up: p.PaperUp()}
			v.Picture = page.SVG(board.Picture(*g, p.Pattern.Width, p.Pattern.Height))
			return nil
		}
		if len(v.Move.Lines) > 0 {
			if near := draw.Magnified(m.r, p, v.Move.Lines); near != nil {
				v.Near = page.SVG(near)
			}
			return v.drawn(m, draw.OpenModelOf(m.r, false))
		}
		if v.Move.Part.Kind == recipe.Glue {
			v.Near = page.SVG(draw.Gluing(m.r, p))
		}
	}
	return v.folded(m)
}

// folded readies what moves in a step, or the picture of it where nothing does.
func (v *benchPage) folded(m *made) error {
	model := draw.OpenModelOf(m.r, false)
	if span, moves := draw.SpanOf(m.r, model, v.Move.Part); moves {
		all, err := span.Frames(frames)
		if err != nil {
			return err
		}
		for i, p := range all {
			if i < len(all)-1 {
				p.Title = "" // the last says it
			}
			v.Frames = append(v.Frames, page.SVG(p))
		}
		return nil
	}
	return v.drawn(m, model)
}

// The window of the picture of a move, in mm as on paper.
const windowWide, windowHigh = 60, 44

// drawn readies the picture of the move as the hand does it.
func (v *benchPage) drawn(m *made, model *draw.Model) error {
	moves := draw.Moves(m.r, model, recipe.Flat(m.r.Steps))
	i := slices.IndexFunc(moves, func(x draw.Moved) bool { return x.Step.Key == v.Move.Part.Key })
	if i < 0 {
		return nil // its words stand alone
	}
	picture, err := moves[i].Picture(windowWide, windowHigh)
	if err == nil {
		picture.Title = v.Move.Part.Text
		v.Picture = page.SVG(picture)
	}
	return err
}
