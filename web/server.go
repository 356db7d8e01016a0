// Package web serves the application: it puts the rooms together, each a place
// a maker goes to. Handlers read a form, change a design's inputs, and show
// what the core makes of them; no rule of the craft lives here.
package web

import (
	"compress/gzip"
	"context"
	"embed"
	"log/slog"
	"mime"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"brevium/core/layout"
	"brevium/core/people"
	"brevium/core/strict"
	"brevium/store"
	"brevium/web/behind"
	"brevium/web/bench"
	"brevium/web/boxes"
	"brevium/web/data"
	"brevium/web/door"
	"brevium/web/drawer"
	"brevium/web/guide"
	"brevium/web/jobs"
	"brevium/web/live"
	"brevium/web/logbook"
	"brevium/web/page"
	"brevium/web/papers"
	"brevium/web/reader"
	"brevium/web/styles"
	"brevium/web/workspace"
)

//go:embed static
var static embed.FS

// security is sent with every answer. Drawings carry their colours as
// attributes, so no inline style or script is ever needed.
const security = "default-src 'self'; script-src 'self'; style-src 'self'; img-src 'self' data:; " +
	"object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"

// New gives the handler for the whole application, for one maker at their own machine.
// A disk, which may be nil, keeps pictures over a restart.
func New(kept *store.Store, disk *store.Cache, log *slog.Logger) (http.Handler, error) {
	h, _, err := build(kept, disk, log, nil)
	return h, err
}

// NewWorkshop gives the handler for a workshop: one signs in, and does what one's role
// allows. Passwords go with a pepper, which is kept apart from the data. The routes are given too, to be held against the table of who may what.
func NewWorkshop(kept *store.Store, disk *store.Cache, log *slog.Logger, pepper people.Pepper) (http.Handler, echo.Routes, error) {
	return build(kept, disk, log, pepper)
}

func build(kept *store.Store, disk *store.Cache, log *slog.Logger, pepper people.Pepper) (http.Handler, echo.Routes, error) {
	shared := page.NewRoom(kept, disk, log)
	own, err := shipped()
	if err != nil {
		return nil, nil, err
	}
	views, err := page.Templates(own.address, boxes.Templates, workspace.Templates, drawer.Templates, papers.Templates, bench.Templates, logbook.Templates, reader.Templates, styles.Templates, guide.Templates, jobs.Templates, data.Templates, door.Templates)
	if err != nil {
		return nil, nil, err
	}
	e := echo.New()
	e.Logger = log
	e.Renderer = views
	e.HTTPErrorHandler = shared.Fail
	e.IPExtractor = echo.ExtractIPDirect() // a proxy's word is taken before it comes here
	e.Use(middleware.RequestID(), middleware.RequestLoggerWithConfig(middleware.RequestLoggerConfig{
		LogMethod: true, LogRoutePath: true, LogStatus: true, LogLatency: true, LogRequestID: true, HandleError: true,
		// The route, not the address: codes and what was asked for stay out of the log.
		LogValuesFunc: func(_ *echo.Context, v middleware.RequestLoggerValues) error {
			log.Info("request", "id", v.RequestID, "method", v.Method, "route", v.RoutePath, "status", v.Status, "took", v.Latency)
			return nil
		},
	}), middleware.Recover(), middleware.BodyLimitWithConfig(middleware.BodyLimitConfig{LimitBytes: strict.MostBytes, Skipper: ownLimit}), kinds, inTime,
		middleware.GzipWithConfig(middleware.GzipConfig{Level: gzip.BestSpeed, MinLength: leastGzip, Skipper: asItIs}))

	e.GET("/static/*", echo.WrapHandler(own))
	e.GET("/health", health(kept))
	boxes.Routes(e, shared)
	workspace.Routes(e, shared)
	drawer.Routes(e, shared)
	papers.Routes(e, shared)
	bench.Routes(e, shared)
	logbook.Routes(e, shared)
	reader.Routes(e, shared)
	if err := styles.Routes(e, shared); err != nil {
		return nil, nil, err
	}
	jobs.Routes(e, shared)
	data.Routes(e, shared)
	guide.Routes(e, shared)
	live.Routes(e, shared)

	// Forms are only taken from this application's own pages.
	forms := http.NewCrossOriginProtection()
	forms.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		refusedAt(log, r, "a form from elsewhere", r.Header.Get("Origin"))
		http.Error(w, "This form comes from another site; nothing was changed.", http.StatusForbidden)
	}))
	handler := shared.Turns.Page(forms.Handler(e))
	if pepper != nil { // a workshop
		shared.Shares.Shop = true
		if err := kept.Workshop(context.Background(), pepper); err != nil {
			return nil, nil, err
		}
		d := door.New(shared, pepper)
		d.Routes(e)
		e.Use(d.Guard, fair(shared))
		handler = d.Sessions(handler)
	}
	return guarded(handler), e.Router().Routes(), nil
}

// deadline is how long an answer may take, working it out and sending it; a
// search sets its own.
const deadline = 40 * time.Second

// inTime ends what takes too long, and says what may be spent on layouts meanwhile.
func inTime(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		if lasts(c.Request()) {
			c.SetRequest(c.Request().WithContext(layout.ForSearch.In(c.Request().Context())))
			return next(c)
		}
		ctx, stop := context.WithTimeout(layout.ForPage.In(c.Request().Context()), deadline)
		defer stop()
		c.SetRequest(c.Request().WithContext(ctx))
		// A writer that cannot be given a deadline is a test's.
		_ = http.NewResponseController(c.Response()).SetWriteDeadline(time.Now().Add(deadline + 5*time.Second))
		return next(c)
	}
}

// fair has each page answered in its asker's share of the machine.
func fair(shared *page.Room) echo.MiddlewareFunc {
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			path := c.Request().URL.Path
			if strings.HasPrefix(path, livePath) || strings.HasPrefix(path, "/static/") {
				return next(c)
			}
			if lasts(c.Request()) {
				return atEase(next, c)
			}
			ctx, leave, err := shared.Shares.Page(c.Request().Context())
			if err != nil {
				return err
			}
			defer leave()
			c.SetRequest(c.Request().WithContext(ctx))
			if page.Behind(ctx) {
				return atEase(next, c)
			}
			return next(c)
		}
	}
}

// atEase answers behind all other work.
func atEase(next echo.HandlerFunc, c *echo.Context) (err error) {
	behind.Run(func() { err = next(c) })
	return err
}

// livePath is where the streams are that tell what changes.
const livePath = "/live/"

// lasts reports whether a request is a search or a stream, which take turns of their own.
func lasts(r *http.Request) bool {
	return strings.HasSuffix(r.URL.Path, "/search") || strings.HasPrefix(r.URL.Path, livePath)
}

// leastGzip is the shortest answer worth compressing, in bytes.
const leastGzip = 1400

// asItIs reports whether an answer is not compressed: files that are already,
// and a search's lines, each of which is to be seen at once.
func asItIs(c *echo.Context) bool {
	path := c.Request().URL.Path
	return strings.HasPrefix(path, "/static/") || strings.HasPrefix(path, "/data/") || strings.HasPrefix(path, livePath) || strings.HasSuffix(path, "/search") || strings.HasSuffix(path, ".pdf")
}

// ownLimit reports whether a request is for a room that sets its own limit for
// what is sent.
func ownLimit(c *echo.Context) bool {
	path := c.Request().URL.Path
	return strings.HasPrefix(path, "/data/") || strings.HasPrefix(path, papers.Path) || strings.HasSuffix(path, "/made")
}

// taken are the kinds of body that some page sends.
var taken = []string{"application/x-www-form-urlencoded", "multipart/form-data", "application/json"}

// kinds refuses a body of a kind that no page sends.
func kinds(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		kind, _, _ := mime.ParseMediaType(c.Request().Header.Get("Content-Type"))
		if c.Request().Method == http.MethodPost && c.Request().ContentLength != 0 && !slices.Contains(taken, kind) {
			return echo.NewHTTPError(http.StatusUnsupportedMediaType, "forms are sent here, and files in them")
		}
		return next(c)
	}
}

// guarded gives every answer, refusals among them, what keeps it from being framed, guessed
// at, kept between or read by another site.
func guarded(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", security)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "same-origin")
		h.Set("Permissions-Policy", "camera=(), microphone=(self), geolocation=(), payment=()")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		h.Set("Cache-Control", "no-store")
		next.ServeHTTP(w, r)
	})
}

// health answers whether the database does.
func health(kept *store.Store) echo.HandlerFunc {
	return func(c *echo.Context) error {
		err := kept.Ping(c.Request().Context())
		kept.Note(err)
		if kept.Damage() != "" {
			return c.String(http.StatusServiceUnavailable, "the data file is damaged\n")
		}
		if err != nil {
			return c.String(http.StatusServiceUnavailable, "the database does not answer\n")
		}
		return c.String(http.StatusOK, "ok\n")
	}
}
