package jobs

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/layout"
	"brevium/core/people"
	"brevium/store/jobbook"
	"brevium/web/form"
	"brevium/web/page"
)

// mostSeconds is the longest search that a page may ask for.
const mostSeconds = 300

// betweenDrawings is how long a better layout waits to be drawn and kept while
// others are still found.
const betweenDrawings = time.Second

// progress is one line of a search's answer.
type progress struct {
	Says string  `json:"says"`
	Part float64 `json:"part"` // of the time, 0 to 1
	HTML string  `json:"html,omitempty"`
}

// search looks for a better layout of a planned job for some seconds. It
// answers line by line as it finds one, and keeps each at once; when the page
// stops listening it ends. A browser without scripts waits for the end.
func (s *room) search(c *echo.Context) error {
	w, err := s.job(c)
	if err != nil {
		return err
	}
	if w.State != jobbook.Planned {
		return page.Back(c, "/jobs/%d", w.ID)
	}
	f := form.New(nil, page.UnitsOf(c))
	f.Posted, err = c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	seconds := 5
	if f.Whole("seconds", &seconds); !f.OK() || seconds < 1 || seconds > mostSeconds {
		seconds = 5
	}
	// It has a deadline of its own: its turn, its time, and a little to end.
	_ = http.NewResponseController(c.Response()).SetWriteDeadline(time.Now().Add(2*mostSeconds*time.Second + time.Minute))
	live := strings.Contains(c.Request().Header.Get("Accept"), "application/x-ndjson")
	tell := func(progress) {}
	if live {
		c.Response().Header().Set("Content-Type", "application/x-ndjson")
		c.Response().WriteHeader(http.StatusOK)
		flush := http.NewResponseController(c.Response())
		lines := json.NewEncoder(c.Response())
		tell = func(p progress) {
			if lines.Encode(p) == nil {
				_ = flush.Flush() // a page that has gone is noticed by the context
			}
		}
	}
	defer s.Turns.Leave()()
	if me := people.Of(c.Request().Context()).ID; me != 0 {
		if _, busy := s.whose.LoadOrStore(me, true); busy {
			tell(progress{Says: "You have a search under way already; others have their turn before your next.", Part: 1})
			if live {
				return nil
			}
			return page.Back(c, "/jobs/%d", w.ID)
		}
		defer s.whose.Delete(me)
	}
	if !s.wait(c.Request().Context(), tell) {
		return nil // the page has gone
	}
	defer func() { <-s.searching }()
	defer s.Looking.Begin(w.ID, people.Of(c.Request().Context()).Name, s.Store.Tell)()
	s.look(c, w, time.Duration(seconds)*time.Second, tell)
	if !live {
		return page.Back(c, "/jobs/%d", w.ID)
	}
	return nil
}

// wait holds a search back until no other runs, and says so to the page. It
// gives up when the page has gone.
func (s *room) wait(ctx context.Context, tell func(progress)) bool {
	select {
	case s.searching <- struct{}{}:
		return true
	default:
		tell(progress{Says: "Another search is under way; yours begins when it ends."})
	}
	select {
	case s.searching <- struct{}{}:
		return true
	case <-ctx.Done():
		return false
	}
}

// look searches stock after stock, each for its share of the time.
func (s *room) look(c *echo.Context, w *work, all time.Duration, tell func(progress)) {
	ctx := c.Request().Context()
	pieces, done := 0, 0
	for _, st := range w.stocks {
		pieces += len(st.Job.Pieces)
	}
	start := time.Now()
	var drawn time.Time
	for i := range w.stocks {
		st := &w.stocks[i]
		share := float64(len(st.Job.Pieces)) / float64(pieces)
		first := true
		before := st.Layout
		laid, err := st.Search(
			ctx,
			layout.Effort{Seconds: share * all.Seconds(), Start: st.Layout, Yield: s.Turns.Wait, Better: func(r *layout.Result) {
				p := progress{
					Says: fmt.Sprintf(
						"%s: %s, %.0f %% used; at least %d",
						st.Card.Name,
						page.Counted(len(r.Sheets), "sheet"),
						100*r.Used,
						r.Bound.Sheets,
					),
					Part: time.Since(start).Seconds() / all.Seconds(),
				}
				// Many come in the first moments; not each is drawn.
				if !first && before.Dearer(r) && time.Since(drawn) > betweenDrawings {
					st.Layout = r
					s.keep(ctx, w)
					p.HTML = s.sheetsHTML(c, w)
					drawn = time.Now()
				}
				first = false
				tell(p)
			}},
		)
		if err != nil {
			break
		}
		if st.Layout = laid; laid.Dearer(before) {
			st.Layout = before
		}
		s.keep(ctx, w)
		done += len(st.Job.Pieces)
		if ctx.Err() != nil {
			return
		}
		tell(progress{Says: st.Card.Name + " is done", Part: float64(done) / float64(pieces), HTML: s.sheetsHTML(c, w)})
	}
}

// keep keeps the layouts found, also when the page has gone.
func (s *room) keep(ctx context.Context, w *work) {
	w.Layouts = batch.WriteLayouts(w.stocks)
	if err := s.Store.Of(context.WithoutCancel(ctx)).SaveLayouts(context.WithoutCancel(ctx), w.ID, w.Layouts); err != nil {
		s.Log.Error("a layout is not kept", "job", w.ID, "error", err)
	}
}

// sheetsHTML is the part of the page that shows the sheets.
func (s *room) sheetsHTML(c *echo.Context, w *work) string {
	p := &jobPage{Chrome: s.Chrome(c, w.Name), Job: w.Job, Planned: true, Form: form.New(nil, page.UnitsOf(c))}
	p.sheets(w)
	var out bytes.Buffer
	if err := c.Echo().Renderer.Render(c, &out, "job-sheets", p); err != nil {
		s.Log.Error("the sheets are not drawn", "error", err)
	}
	return out.String()
}
