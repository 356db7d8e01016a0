// Package live tells a page when what it shows was changed by somebody else at the table.
package live

import (
	"errors"
	"fmt"
	"io"
	"net/http"
	"strconv"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/store/desk"
	"brevium/web/page"
)

type room struct{ *page.Room }

// Routes adds the room's addresses.
func Routes(e *echo.Echo, shared *page.Room) {
	s := &room{shared}
	for at, sort := range page.LiveSorts {
		e.GET(at+"/:id", s.watch(sort))
	}
}

// How long changes are gathered before they are told, and how often a word is sent while
// there are none, so that nothing between thinks that the line is dead.
const (
	gathered = 80 * time.Millisecond
	still    = 20 * time.Second
)

// watch sends the state of a box or a job, as an event, whenever it is another; it ends
// with the page, or when the thing is there no more for who asks, or they are let in no more.
func (s *room) watch(sort desk.Sort) echo.HandlerFunc {
	return func(c *echo.Context) error {
		id, err := strconv.ParseInt(c.Param("id"), 10, 64)
		if err != nil {
			return desk.ErrNotFound
		}
		ctx := c.Request().Context()
		if _, err := s.Store.Of(ctx).Stamp(ctx, sort, id); err != nil {
			return err
		}
		defer s.Turns.Leave()()
		w := c.Response()
		line := http.NewResponseController(w)
		_ = line.SetWriteDeadline(time.Time{}) // a writer that has none is a test's
		w.Header().Set("Content-Type", "text/event-stream")
		w.Header().Set("X-Accel-Buffering", "no")
		w.WriteHeader(http.StatusOK)
		for told := ""; ; {
			changed := s.Store.Changed()
			err := s.Store.Of(ctx).LetIn(ctx)
			stamp := ""
			if err == nil {
				stamp, err = s.State(ctx, sort, id)
			}
			if err != nil {
				if !errors.Is(err, desk.ErrNotFound) && ctx.Err() == nil {
					s.Log.Error("a change cannot be told", "error", err)
				}
				return nil
			}
			word := ": still here\n\n"
			if stamp != told {
				told, word = stamp, fmt.Sprintf("data: %s\n\n", stamp)
			}
			if _, err := io.WriteString(w, word); err != nil {
				return nil // nobody is there any more
			}
			if err := line.Flush(); err != nil {
				return nil
			}
			select {
			case <-ctx.Done():
				return nil
			case <-time.After(still):
			case <-changed:
				time.Sleep(gathered)
			}
		}
	}
}
