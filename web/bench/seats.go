package bench

import (
	"errors"
	"net/http"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/core/fault"
	"brevium/core/people"
	"brevium/store/classroom"
	"brevium/store/desk"
	"brevium/web/page"
)

// seatCookie tells a seat; it goes to the address of its class alone.
const seatCookie = "brevium-seat"

// tokenOf is what a device's seat is known by, "" where it has none.
func tokenOf(c *echo.Context) string {
	k, err := c.Cookie(seatCookie)
	if err != nil {
		return ""
	}
	return k.Value
}

// seat is the seat of the device that asks.
func (s *room) seat(c *echo.Context, class classroom.Class) (classroom.Seat, error) {
	return s.Store.Of(c.Request().Context()).SeatBy(c.Request().Context(), class.ID, tokenOf(c))
}

// seated tells the device its seat, none for a token of "", and goes on to the class.
func seated(c *echo.Context, class classroom.Class, token string) error {
	at := "/class/" + class.Code
	k := &http.Cookie{Name: seatCookie, Value: token, Path: at, Expires: class.Until, HttpOnly: true, Secure: page.IsSecure(c.Request()), SameSite: http.SameSiteLaxMode}
	if token == "" {
		k.MaxAge = -1
	}
	c.SetCookie(k)
	return c.Redirect(http.StatusSeeOther, at)
}

// sit gives a seat by the name that is chosen. A device that has one is asked whether it is
// to have a second.
func (s *room) sit(c *echo.Context) error {
	ctx := c.Request().Context()
	class, name, _, err := s.classBy(ctx, c.Param("code"))
	if err != nil {
		return noClass(err)
	}
	v := &followPage{Chrome: s.Chrome(c, name), Code: class.Code, Box: name, Name: c.FormValue("name")}
	before := ""
	if has, err := s.seat(c, class); err == nil {
		if v.Has = has.Name; c.FormValue("second") == "" {
			return c.Render(http.StatusUnprocessableEntity, "seat.html", v)
		}
		before = tokenOf(c)
	} else if !errors.Is(err, desk.ErrNotFound) {
		return err
	}
	called, err := people.CleanName(v.Name)
	token := ""
	if err == nil {
		token, err = s.Store.Of(ctx).Sit(ctx, class.ID, called, before)
	}
	if page.IsFault(err) {
		v.Fault = fault.Of(err).Text
		return c.Render(http.StatusUnprocessableEntity, "seat.html", v)
	}
	if err != nil {
		return err
	}
	return seated(c, class, token)
}

// standUp gives the device's seat back.
func (s *room) standUp(c *echo.Context) error {
	ctx := c.Request().Context()
	class, _, _, err := s.classBy(ctx, c.Param("code"))
	if err != nil {
		return noClass(err)
	}
	seat, err := s.seat(c, class)
	if err == nil {
		err = s.Store.Of(ctx).StandUp(ctx, seat.ID)
	}
	if err != nil && !errors.Is(err, desk.ErrNotFound) {
		return err
	}
	return seated(c, class, "")
}

// tell keeps where one who follows is, and whether they ask for help.
func (s *room) tell(c *echo.Context) error {
	ctx := c.Request().Context()
	class, _, _, err := s.classBy(ctx, c.Param("code"))
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
	if err := s.Store.Of(ctx).Move(ctx, seat.ID, at, c.FormValue("help") == "1"); err != nil {
		return err
	}
	return c.NoContent(http.StatusNoContent)
}

// mostMoves is more than any box has.
const mostMoves = 5000
