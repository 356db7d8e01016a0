package bench

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"html/template"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/bench"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/draw/pdf"
	"brevium/store/boxshelf"
	"brevium/store/classroom"
	"brevium/store/desk"
	"brevium/web/page"
)

// A class is open for an evening; the moves of so many boxes are kept ready.
const (
	openFor     = 8 * time.Hour
	mostClasses = 32
)

// boardPage is a class as its maker sees it.
type boardPage struct {
	page.Chrome
	Name, Back, Post string // what is made, the page it is from, where the class is set
	Kits             bool   // each makes one of every box, out of a kit
	Open             bool
	Link             string
	Until            string
	Code             template.HTML
	Seats            []seatView
}

type seatView struct {
	classroom.Seat
	Step    string
	Percent int
	Away    bool // nothing was heard for a while
}

// awayAfter is how long nothing is heard of a seat until it may have gone.
const awayAfter = 15 * time.Minute

// board shows who is at which step, and who asked for help.
func (s *room) board(of desk.Sort) echo.HandlerFunc {
	return func(c *echo.Context) error {
		id, name, err := s.classed(c, of)
		if err != nil {
			return err
		}
		ctx := c.Request().Context()
		v := &boardPage{Chrome: s.Chrome(c, "A class: "+name), Name: name, Back: fmt.Sprintf("/boxes/%d/making", id), Post: fmt.Sprintf("/boxes/%d/class", id)}
		if of == desk.JobSort {
			v.Kits, v.Back, v.Post = true, fmt.Sprintf("/jobs/%d/kits", id), fmt.Sprintf("/jobs/%d/class", id)
		}
		class, err := s.Store.Of(ctx).ClassOf(ctx, of, id)
		if errors.Is(err, desk.ErrNotFound) {
			return c.Render(http.StatusOK, "class.html", v)
		}
		if err != nil {
			return err
		}
		v.Open, v.Until, v.Link = true, class.Until.Format("15:04"), page.Here(c)+"/class/"+class.Code
		if v.Code, err = codeOf(v.Link); err != nil {
			return err
		}
		_, _, boxes, err := s.classBy(ctx, class.Code)
		if err != nil {
			return err
		}
		steps, err := s.steps(ctx, class, boxes)
		if err != nil {
			return err
		}
		seats, err := s.Store.Of(ctx).Seats(ctx, class.ID)
		if err != nil {
			return err
		}
		for _, x := range seats {
			y := seatView{Seat: x, Step: "it is made", Percent: 100, Away: s.Store.Now().Sub(x.Seen) > awayAfter}
			if x.At < len(steps) {
				y.Step, y.Percent = steps[x.At], 100*x.At/max(1, len(steps))
			}
			v.Seats = append(v.Seats, y)
		}
		return c.Render(http.StatusOK, "class.html", v)
	}
}

// classBy is the class that a code leads to, with what it makes: of every box one, however
// many its maker makes, since each who follows makes one.
func (s *room) classBy(ctx context.Context, code string) (classroom.Class, string, []boxshelf.Box, error) {
	class, name, boxes, err := s.Store.Of(ctx).ClassBy(ctx, code)
	for i := range boxes {
		boxes[i].Inputs.Copies = 1
	}
	return class, name, boxes, err
}

// classed is the box or the job of an address.
func (s *room) classed(c *echo.Context, of desk.Sort) (id int64, name string, err error) {
	if of == desk.BoxSort {
		b, err := s.Box(c)
		return b.ID, b.Name, err
	}
	if id, err = page.ID(c); err != nil {
		return 0, "", desk.ErrNoJob
	}
	j, err := s.Store.Of(c.Request().Context()).Job(c.Request().Context(), id)
	return j.ID, j.Name, err
}

// steps are the moves of a class in a few words each, as drawn has them.
func (s *room) steps(ctx context.Context, class classroom.Class, boxes []boxshelf.Box) ([]string, error) {
	var out []string
	for _, b := range boxes {
		r, err := s.Finished(ctx, b.Inputs)
		if err != nil {
			return nil, err
		}
		of := ""
		if class.Job != 0 {
			of = b.Name + ", "
			out = append(out, of+"looks through the bag")
		}
		for _, m := range moves(class, r) {
			out = append(out, fmt.Sprintf("%sstep %d: %s", of, m.Step.N, strings.ToLower(kinds[m.Part.Kind])))
		}
	}
	return out, nil
}

// moves are those that one who follows makes: out of a kit the blanks are cut already.
func moves(class classroom.Class, r *design.Result) []bench.Move {
	all := bench.Moves(r)
	if class.Job == 0 {
		return all
	}
	return slices.DeleteFunc(all, func(m bench.Move) bool { return m.Part.Kind == recipe.Cut })
}

// codeOf draws an address as a code that a phone reads.
func codeOf(address string) (template.HTML, error) {
	rows, err := pdf.Squares(address)
	if err != nil {
		return "", err
	}
	var path strings.Builder
	for y, row := range rows {
		for x, dark := range row {
			if dark {
				fmt.Fprintf(&path, "M%d %dh1v1h-1z", x+pdf.QuietZone, y+pdf.QuietZone)
			}
		}
	}
	return template.HTML(fmt.Sprintf(`<svg class="code" viewBox="0 0 %[1]d %[1]d" role="img" aria-label="A code for phones, with the address below"><path d="%[2]s"/></svg>`, len(rows)+2*pdf.QuietZone, path.String())), nil
}

// setClass opens a class for one's own box or job, closes it, or frees a seat in it.
func (s *room) setClass(of desk.Sort) echo.HandlerFunc {
	return func(c *echo.Context) error {
		id, _, err := s.classed(c, of)
		if err != nil {
			return err
		}
		ctx := c.Request().Context()
		switch c.FormValue("do") {
		case "close":
			err = s.Store.Of(ctx).CloseClass(ctx, of, id)
		case "free":
			var seat int64
			if seat, err = strconv.ParseInt(c.FormValue("seat"), 10, 64); err != nil {
				return desk.ErrNotFound
			}
			err = s.Store.Of(ctx).FreeSeat(ctx, of, id, seat)
		default:
			err = s.Store.Of(ctx).OpenClass(ctx, of, id, s.Store.Now().Add(openFor))
		}
		if err != nil {
			return err
		}
		return page.Back(c, "%s", c.Request().URL.Path)
	}
}

// followPage is what one who follows sees: first the question for a name, then all moves
// at once, so that they are there without a connection.
type followPage struct {
	page.Chrome
	Code, Box   string
	Name, Fault string
	Has         string // the seat that the device has already
	Seat        classroom.Seat
	Moves       []template.HTML
}

func (s *room) follow(c *echo.Context) error {
	class, name, boxes, err := s.classBy(c.Request().Context(), c.Param("code"))
	if err != nil {
		return noClass(err)
	}
	v := &followPage{Chrome: s.Chrome(c, name), Code: class.Code, Box: name}
	seat, err := s.seat(c, class)
	if err == nil && c.QueryParam("second") != "" {
		v.Has = seat.Name
	}
	if errors.Is(err, desk.ErrNotFound) || v.Has != "" {
		return c.Render(http.StatusOK, "seat.html", v)
	}
	if err != nil {
		return err
	}
	v.Seat, v.Units = seat, boxes[0].Inputs.Units
	for _, b := range boxes {
		more, err := s.drawn(c, class, b)
		if err != nil {
			return err
		}
		v.Moves = append(v.Moves, more...)
	}
	done, err := words(c, &benchPage{Done: true})
	if err != nil {
		return err
	}
	v.Moves = append(v.Moves, done)
	return c.Render(http.StatusOK, "follow.html", v)
}

func noClass(err error) error {
	if errors.Is(err, desk.ErrNotFound) {
		return fault.New(fault.Invalid, "", "There is no class here now. Ask whoever teaches for the code.")
	}
	return err
}

// drawn are all moves of a box as they are shown, once for all who follow; out of a kit
// first what is in the bag.
func (s *room) drawn(c *echo.Context, class classroom.Class, b boxshelf.Box) ([]template.HTML, error) {
	what := "class"
	if class.Job != 0 {
		what = "kit"
	}
	return s.moves.Of(what, b.Inputs, func() ([]template.HTML, error) {
		r, err := s.Finished(c.Request().Context(), b.Inputs)
		if err != nil {
			return nil, err
		}
		m := &made{box: b, r: r, moves: moves(class, r)}
		var out []template.HTML
		if class.Job != 0 {
			v := &benchPage{Box: b, Bag: bagOf(r)}
			text, err := words(c, v)
			if err != nil {
				return nil, err
			}
			out = append(out, text)
		}
		for at := range m.moves {
			v := &benchPage{Box: b, At: at, Of: len(m.moves), StepsTotal: len(r.Steps)}
			if err := v.fill(m); err != nil {
				return nil, err
			}
			text, err := words(c, v)
			if err != nil {
				return nil, err
			}
			out = append(out, text)
		}
		return out, nil
	})
}

// words writes a move as it is shown.
func words(c *echo.Context, v *benchPage) (template.HTML, error) {
	var text bytes.Buffer
	err := c.Echo().Renderer.Render(c, &text, "bench-now", v)
	return template.HTML(text.String()), err
}

// bagOf is what lies in the bag of one box, cut to size.
func bagOf(r *design.Result) []string {
	var out []string
	for _, b := range r.Blanks {
		line := fmt.Sprintf("%s, %s, of %s", b.Name, measure.Labels(r.Inputs.Units, r.Inputs.Tools.Tick, b.Width, b.Height), b.Card.Name)
		if b.Copies > 1 {
			line = fmt.Sprintf("%d × %s", b.Copies, line)
		}
		out = append(out, line)
	}
	return out
}
