// Package web serves the application: it puts the rooms together, each a place
// a maker goes to. Handlers read a form, change a design's inputs, and show
// what the core makes of them; no rule of the craft lives here.
package web

import (
	"embed"
	"io/fs"
	"log/slog"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"brevium/core/strict"
	"brevium/store"
	"brevium/web/boxes"
	"brevium/web/data"
	"brevium/web/drawer"
	"brevium/web/jobs"
	"brevium/web/page"
	"brevium/web/workspace"
)

//go:embed static
var static embed.FS

// security is sent with every answer. Drawings carry their colours as
// attributes, so no inline style or script is ever needed.
const security = "default-src 'self'; script-src 'self'; style-src 'self'; img-src 'self' data:; " +
	"object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"

// New gives the handler for the whole application.
// Notices are shown on every page.
func New(kept *store.Store, log *slog.Logger, notices ...string) (http.Handler, error) {
	shared := page.NewRoom(kept, log)
	shared.Notices = notices
	files, err := fs.Sub(static, "static")
	if err != nil {
		return nil, err
	}
	views, err := page.Templates(boxes.Templates, workspace.Templates, drawer.Templates, jobs.Templates, data.Templates)
	if err != nil {
		return nil, err
	}
	e := echo.New()
	e.Logger = log
	e.Renderer = views
	e.HTTPErrorHandler = shared.Fail
	e.Use(middleware.RequestLoggerWithConfig(middleware.RequestLoggerConfig{
		LogMethod: true, LogURI: true, LogStatus: true, LogLatency: true, HandleError: true,
		LogValuesFunc: func(_ *echo.Context, v middleware.RequestLoggerValues) error {
			log.Info("request", "method", v.Method, "uri", v.URI, "status", v.Status, "took", v.Latency)
			return nil
		},
	}), middleware.Recover(), middleware.BodyLimitWithConfig(middleware.BodyLimitConfig{LimitBytes: strict.MostBytes, Skipper: ownLimit}), headers)

	e.GET("/static/*", echo.WrapHandler(http.StripPrefix("/static/", cached(http.FileServerFS(files)))))
	e.GET("/health", health(kept))
	boxes.Routes(e, shared)
	workspace.Routes(e, shared)
	drawer.Routes(e, shared)
	jobs.Routes(e, shared)
	data.Routes(e, shared)

	// Forms are only taken from this application's own pages.
	return http.NewCrossOriginProtection().Handler(e), nil
}

// ownLimit reports whether a request is for a room that sets its own limit for
// what is sent.
func ownLimit(c *echo.Context) bool { return strings.HasPrefix(c.Request().URL.Path, "/data/") }

func headers(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		h := c.Response().Header()
		h.Set("Content-Security-Policy", security)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "same-origin")
		h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=(), payment=()")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		h.Set("Cache-Control", "no-store")
		return next(c)
	}
}

// cached lets the browser keep embedded files for the day.
func cached(h http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if strings.HasSuffix(r.URL.Path, "/") || r.URL.Path == "" {
			http.NotFound(w, r) // folders are not listed
			return
		}
		w.Header().Set("Cache-Control", "max-age=3600")
		h.ServeHTTP(w, r)
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
