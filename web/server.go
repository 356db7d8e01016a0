// Package web serves the pages: Echo handlers over html/template, htmx and
// Alpine. Handlers read a form, change a design's inputs, and show what the
// core makes of them; no rule of the craft lives here.
package web

import (
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net/http"
	"strconv"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"brevium/core/fault"
	"brevium/core/strict"
	"brevium/store"
)

//go:embed static
var static embed.FS

// server holds what the handlers share.
type server struct {
	store *store.Store
	log   *slog.Logger
}

// security is sent with every answer. Drawings carry their colours as
// attributes, so no inline style or script is ever needed.
const security = "default-src 'self'; script-src 'self'; style-src 'self'; img-src 'self' data:; " +
	"object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"

// New gives the handler for the whole application.
func New(boxes *store.Store, log *slog.Logger) (http.Handler, error) {
	s := &server{store: boxes, log: log}
	files, err := fs.Sub(static, "static")
	if err != nil {
		return nil, err
	}
	views, err := parseTemplates()
	if err != nil {
		return nil, err
	}
	e := echo.New()
	e.Logger = log
	e.Renderer = views
	e.HTTPErrorHandler = s.fail
	e.Use(middleware.RequestLoggerWithConfig(middleware.RequestLoggerConfig{
		LogMethod: true, LogURI: true, LogStatus: true, LogLatency: true, HandleError: true,
		LogValuesFunc: func(_ *echo.Context, v middleware.RequestLoggerValues) error {
			log.Info("request", "method", v.Method, "uri", v.URI, "status", v.Status, "took", v.Latency)
			return nil
		},
	}), middleware.Recover(), middleware.BodyLimit(strict.MostBytes), headers)

	e.GET("/static/*", echo.WrapHandler(http.StripPrefix("/static/", cached(http.FileServerFS(files)))))
	e.GET("/health", s.health)
	e.GET("/", s.list)
	e.GET("/new", s.newBox)
	e.POST("/new", s.makeBox)
	e.POST("/units", s.preferUnits)
	e.GET("/boxes/:id", s.open)
	e.POST("/boxes/:id/undo", s.undo)
	e.POST("/boxes/:id/copy", s.copy)
	e.POST("/boxes/:id/rename", s.rename)
	e.POST("/boxes/:id/units", s.units)
	e.POST("/boxes/:id/delete", s.delete)
	e.POST("/boxes/:id/restore", s.restore)
	e.POST("/boxes/:id/tick", s.tick)
	e.GET("/boxes/:id/design.json", s.designFile)
	e.GET("/boxes/:id/plan.json", s.planFile)
	e.GET("/boxes/:id/sheet.pdf", s.sheetPDF)
	e.GET("/boxes/:id/fold", s.fold)
	e.GET("/boxes/:id/compare", s.compare)
	e.GET("/boxes/:id/biggest", s.biggest)
	e.POST("/boxes/:id/biggest", s.takeBiggest)
	e.GET("/boxes/:id/holds", s.holds)
	e.POST("/boxes/:id/things/keep", s.keepThings)
	e.POST("/boxes/:id/things/add", s.addKept)
	e.POST("/boxes/:id/things/import", s.importThings)
	e.GET("/caliper", s.reading)
	e.GET("/boxes/:id/motion.json", s.motion)
	e.GET("/boxes/:id/model.obj", s.objFile)
	e.GET("/boxes/:id/pieces/:piece", s.pieceSVG)
	e.GET("/drawer", s.drawer)
	e.POST("/drawer", s.putPaper)
	e.POST("/drawer/import", s.importPaper)
	e.GET("/drawer.csv", s.exportPaper)
	e.POST("/drawer/:id", s.setPaper)
	e.GET("/jobs", s.jobs)
	e.POST("/jobs", s.makeJob)
	e.GET("/jobs/:id", s.showJob)
	e.POST("/jobs/:id", s.changeJob)
	e.GET("/jobs/:id/piece", s.piece)
	e.POST("/jobs/:id/hold", s.hold)
	e.POST("/jobs/:id/search", s.search)
	e.POST("/jobs/:id/:step", s.jobStep)
	e.GET("/boxes/:id/:stop", s.show)
	e.POST("/boxes/:id/:stop", s.change)

	// Forms are only taken from this application's own pages.
	return http.NewCrossOriginProtection().Handler(e), nil
}

func headers(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		h := c.Response().Header()
		h.Set("Content-Security-Policy", security)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "same-origin")
		h.Set("Cache-Control", "no-store")
		return next(c)
	}
}

// cached lets the browser keep embedded files for the day.
func cached(h http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Cache-Control", "max-age=3600")
		h.ServeHTTP(w, r)
	})
}

func (s *server) health(c *echo.Context) error {
	if err := s.store.Ping(c.Request().Context()); err != nil {
		return c.String(http.StatusServiceUnavailable, "the database does not answer\n")
	}
	return c.String(http.StatusOK, "ok\n")
}

// fail turns any error into a page with a sentence on it.
func (s *server) fail(c *echo.Context, err error) {
	if r, _ := echo.UnwrapResponse(c.Response()); r != nil && r.Committed {
		return
	}
	status, text := http.StatusInternalServerError, "Something went wrong here. What you had is safe; go back and try again."
	var f *fault.Fault
	switch code := echo.StatusCode(err); {
	case errors.Is(err, store.ErrNotFound):
		status, text = http.StatusNotFound, "There is no box here. It may have been deleted; the list shows what there is."
	case errors.Is(err, store.ErrNoJob):
		status, text = http.StatusNotFound, "There is no job here. It may have been deleted; the list of jobs shows what there is."
	case errors.As(err, &f):
		status, text = http.StatusUnprocessableEntity, f.Text
	case code == http.StatusNotFound:
		status, text = code, "There is no such page. The list shows what there is."
	case code == http.StatusRequestEntityTooLarge:
		status, text = code, "That is over 4 MiB, far more than a box needs. Nothing was changed."
	case code != 0 && code < 500:
		status, text = code, http.StatusText(code)
	}
	if status >= 500 {
		s.log.Error("request failed", "path", c.Request().URL.Path, "error", err)
	}
	page := problemPage{chrome: s.chrome(c, "Nothing here"), Text: text}
	if err := c.Render(status, "problem.html", page); err != nil {
		s.log.Error("the problem page failed", "error", err)
	}
}

// id reads the box number from the address; anything else is not found.
func id(c *echo.Context) (int64, error) {
	n, err := strconv.ParseInt(c.Param("id"), 10, 64)
	if err != nil {
		return 0, store.ErrNotFound
	}
	return n, nil
}

// box loads the box of the address.
func (s *server) box(c *echo.Context) (store.Box, error) {
	n, err := id(c)
	if err != nil {
		return store.Box{}, err
	}
	return s.store.Box(c.Request().Context(), n)
}

// back sends the browser to an address after a change, as a plain redirect
// or, for htmx, a fresh page.
func back(c *echo.Context, format string, args ...any) error {
	url := fmt.Sprintf(format, args...)
	if c.Request().Header.Get("HX-Request") != "" {
		c.Response().Header().Set("HX-Redirect", url)
		return c.NoContent(http.StatusNoContent)
	}
	return c.Redirect(http.StatusSeeOther, url)
}
