package bench

import (
	"bytes"
	"errors"
	"fmt"
	"html/template"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/bench"
	"brevium/core/fault"
	"brevium/core/people"
	"brevium/draw/pdf"
	"brevium/store"
	"brevium/web/page"
)

// A class is open for an evening; the moves of so many boxes are kept ready.
const (
	openFor     = 8 * time.Hour
	mostClasses = 8
)

// boardPage is a class as its maker sees it.
type boardPage struct {
	page.Chrome
	Box   store.Box
	Open  bool
	Link  string
	Until string
	Code  template.HTML
	Seats []seatView
	Of    int
}

type seatView struct {
	store.Seat
	Step    string
	Percent int
	Away    bool // nothing was heard for a while
}

// awayAfter is how long nothing is heard of a seat until it may have gone.
const awayAfter = 15 * time.Minute

// board shows who is at which step, and who asked for help.
func (s *room) board(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	v := &boardPage{Chrome: s.Chrome(c, "A class: "+b.Name), Box: b}
	class, err := s.Store.ClassOf(ctx, b.ID)
	if errors.Is(err, store.ErrNotFound) {
		return c.Render(http.StatusOK, "class.html", v)
	}
	if err != nil {
		return err
	}
	v.Open, v.Until, v.Link = true, class.Until.Format("15:04"), page.Here(c)+"/class/"+class.Code
	if v.Code, err = codeOf(v.Link); err != nil {
		return err
	}
	r, err := s.Made(ctx, b.Inputs)
	if err != nil {
		return err
	}
	moves := bench.Moves(r)
	v.Of = len(moves)
	seats, err := s.Store.Seats(ctx, class.ID)
	if err != nil {
		return err
	}
	for _, x := range seats {
		y := seatView{Seat: x, Step: "it is made", Percent: 100, Away: s.Store.Now().Sub(x.Seen) > awayAfter}
		if x.At < len(moves) {
			m := moves[x.At]
			y.Step, y.Percent = fmt.Sprintf("step %d: %s", m.Step.N, strings.ToLower(kinds[m.Step.Kind])), 100*x.At/max(1, len(moves))
		}
		v.Seats = append(v.Seats, y)
	}
	return c.Render(http.StatusOK, "class.html", v)
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

// setClass opens a class for one's own box, or closes it.
func (s *room) setClass(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	if c.FormValue("do") == "close" {
		err = s.Store.CloseClass(ctx, b.ID)
	} else {
		err = s.Store.OpenClass(ctx, b.ID, s.Store.Now().Add(openFor))
	}
	if err != nil {
		return err
	}
	return page.Back(c, "/boxes/%d/class", b.ID)
}

// followPage is what one who follows sees: first the question for a name, then all moves
// at once, so that they are there without a connection.
type followPage struct {
	page.Chrome
	Code, Box   string
	Name, Fault string
	Seat        store.Seat
	Moves       []template.HTML
}

// seatCookie tells a seat; it goes to the address of its class alone.
const seatCookie = "brevium-seat"

func (s *room) follow(c *echo.Context) error {
	class, b, err := s.Store.ClassBy(c.Request().Context(), c.Param("code"))
	if err != nil {
		return noClass(err)
	}
	v := &followPage{Chrome: s.Chrome(c, b.Name), Code: class.Code, Box: b.Name}
	seat, err := s.seat(c, class)
	if errors.Is(err, store.ErrNotFound) {
		return c.Render(http.StatusOK, "seat.html", v)
	}
	if err != nil {
		return err
	}
	v.Seat, v.Units = seat, b.Inputs.Units
	if v.Moves, err = s.drawn(c, b); err != nil {
		return err
	}
	return c.Render(http.StatusOK, "follow.html", v)
}

func noClass(err error) error {
	if errors.Is(err, store.ErrNotFound) {
		return fault.New(fault.Invalid, "", "There is no class here now. Ask whoever teaches for the code.")
	}
	return err
}

func (s *room) seat(c *echo.Context, class store.Class) (store.Seat, error) {
	k, err := c.Cookie(seatCookie)
	if err != nil {
		return store.Seat{}, store.ErrNotFound
	}
	return s.Store.SeatBy(c.Request().Context(), class.ID, k.Value)
}

// drawn are all moves of a box as they are shown, once for all who follow.
func (s *room) drawn(c *echo.Context, b store.Box) ([]template.HTML, error) {
	return s.moves.Of("class", b.Inputs, func() ([]template.HTML, error) {
		r, err := s.Made(c.Request().Context(), b.Inputs)
		if err != nil {
			return nil, err
		}
		m := &made{box: b, r: r, moves: bench.Moves(r)}
		out := make([]template.HTML, 0, len(m.moves)+1)
		for at := range len(m.moves) + 1 {
			v := &benchPage{Box: b, At: at, Of: len(m.moves), Done: at == len(m.moves), StepsTotal: len(r.Steps)}
			if !v.Done {
				if err := v.fill(m); err != nil {
					return nil, err
				}
			}
			var text bytes.Buffer
			if err := c.Echo().Renderer.Render(c, &text, "bench-now", v); err != nil {
				return nil, err
			}
			out = append(out, template.HTML(text.String()))
		}
		return out, nil
	})
}

// sit gives a seat by the name that is chosen.
func (s *room) sit(c *echo.Context) error {
	ctx := c.Request().Context()
	class, b, err := s.Store.ClassBy(ctx, c.Param("code"))
	if err != nil {
		return noClass(err)
	}
	v := &followPage{Chrome: s.Chrome(c, b.Name), Code: class.Code, Box: b.Name, Name: c.FormValue("name")}
	name, err := people.CleanName(v.Name)
	token := ""
	if err == nil {
		token, err = s.Store.Sit(ctx, class.ID, name)
	}
	if page.IsFault(err) {
		v.Fault = fault.Of(err).Text
		return c.Render(http.StatusUnprocessableEntity, "seat.html", v)
	}
	if err != nil {
		return err
	}
	at := "/class/" + class.Code
	c.SetCookie(&http.Cookie{Name: seatCookie, Value: token, Path: at, Expires: class.Until, HttpOnly: true, Secure: page.IsSecure(c.Request()), SameSite: http.SameSiteLaxMode})
	return c.Redirect(http.StatusSeeOther, at)
}

// tell keeps where one who follows is, and whether they ask for help.
func (s *room) tell(c *echo.Context) error {
	ctx := c.Request().Context()
	class, _, err := s.Store.ClassBy(ctx, c.Param("code"))
	if err != nil {
		return noClass(err)
	}
	seat, err := s.seat(c, class)
	if err != nil {
		return noClass(err)
	}
	at, err := strconv.Atoi(c.FormValue("at"))
	if err != nil || at < 0 || at > mostMoves {
		return fault.New(fault.OutOfRange, "at", "this is no step of the box")
	}
	if err := s.Store.Move(ctx, seat.ID, at, c.FormValue("help") == "1"); err != nil {
		return err
	}
	return c.NoContent(http.StatusNoContent)
}

// mostMoves is more than any box has.
const mostMoves = 5000
