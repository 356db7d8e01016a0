package workspace

import (
	"html/template"
	"net/http"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/recipe"
	"brevium/core/style"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/page"
)

// smallPage shows a small box of an assembly as a box in its own right: its
// drawing, its pieces, their card and papers, and what is ticked of its making.
type smallPage struct {
	page.Chrome
	Box     boxshelf.Box
	Small   style.Small
	Pieces  []smallPiece
	Picture template.HTML
	Inside  string
	Steps   []stepView
	Key     string // what holds for all of them
	Done    int
	Others  []style.Small
}

type smallPiece struct {
	ID, Name string
	Net      template.HTML
	Card     form.CardView
	Papers   int
}

// small shows one.
func (s *room) small(c *echo.Context) error {
	b, r, err := s.result(c)
	if err != nil {
		return err
	}
	x, known := r.SmallBox(c.Param("small"))
	if !known {
		return echo.NewHTTPError(http.StatusNotFound, "no such small box")
	}
	view := smallPage{Chrome: s.beside(c, x.Name+" · "+b.Name, b, "box"), Box: b, Small: x, Others: r.Box.Small}
	f := form.New(nil, b.Inputs.Units)
	if alone, err := s.Made(c.Request().Context(), r.Alone(x)); err == nil {
		view.Picture, view.Inside = page.BoxPicture(alone, ""), alone.Inside.FreeIn(b.Inputs.Units)
	}
	lots, err := s.Store.Of(c.Request().Context()).Lots(c.Request().Context())
	if err != nil {
		return err
	}
	choices := shelf(&b.Inputs, lots)
	of := func(piece string) bool {
		for _, id := range x.Pieces {
			if id == piece {
				return true
			}
		}
		return false
	}
	for _, p := range r.Parts {
		if !of(p.ID) {
			continue
		}
		one := smallPiece{ID: p.ID, Name: p.Name, Net: page.SVG(netOf(r, p).Picture()), Card: f.CardView("cards."+p.ID, b.Inputs.CardOf(p.ID), choices)}
		for _, d := range b.Inputs.Mats {
			if d.Piece == p.ID {
				one.Papers++
			}
		}
		view.Pieces = append(view.Pieces, one)
	}
	ticks, err := s.Store.Of(c.Request().Context()).Ticks(c.Request().Context(), b.ID)
	if err != nil {
		return err
	}
	// Alone it is not like anything else: each of its steps is told in full.
	full := recipe.Ticked(r.Steps, ticks)
	view.Steps, view.Done = stepViews(slices.DeleteFunc(recipe.Flat(r.Steps), func(x recipe.Step) bool { return !of(x.Piece) }), full)
	view.Key = recipe.Key(b.Inputs.Units)
	for i := range view.Steps {
		view.Steps[i].N = i + 1
	}
	return c.Render(http.StatusOK, "small.html", view)
}

// alone makes a small box a box of its own beside the assembly.
func (s *room) alone(c *echo.Context) error {
	_, r, err := s.result(c)
	if err != nil {
		return err
	}
	x, known := r.SmallBox(c.Param("small"))
	if !known {
		return echo.NewHTTPError(http.StatusNotFound, "no such small box")
	}
	in := r.Alone(x)
	in.NumberThings()
	if _, err := design.Sketch(in); err != nil {
		return err
	}
	n, err := s.Store.Of(c.Request().Context()).Add(c.Request().Context(), in)
	if err != nil {
		return err
	}
	return page.Back(c, "%s", page.StopURL(n, "box"))
}

// Smalls are the small boxes of an assembly, to be opened.
func (p *boxPage) Smalls() []style.Small { return slices.Clone(p.Result.Box.Small) }
