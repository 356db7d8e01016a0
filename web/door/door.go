// Package door is who is let in to a workshop: signing in and out, setting the workshop
// up, joining it by a link, and the steward's list of people.
package door

import (
	"context"
	"embed"
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/labstack/echo/v5"

	"brevium/core/people"
	"brevium/store/desk"
	"brevium/store/roster"
	"brevium/web/page"
)

// Templates are the room's pages.
//
//go:embed *.html
var Templates embed.FS

// How long one stays signed in: at most, and without doing anything.
const (
	longest = 12 * time.Hour
	idle    = 30 * time.Minute
)

// Door lets people in.
type Door struct {
	*page.Room
	sessions *scs.SessionManager
	throttle *people.Throttle
	queue    people.Queue // of passwords that are worked out
	pepper   people.Pepper
}

// New readies the door of a workshop, whose passwords go with a pepper.
func New(shared *page.Room, pepper people.Pepper) *Door {
	m := scs.New()
	m.Store = shared.Store.Sessions()
	m.HashTokenInStore = true
	m.Lifetime, m.IdleTimeout = longest, idle
	m.Cookie.Name, m.Cookie.Path, m.Cookie.Secure, m.Cookie.HttpOnly, m.Cookie.SameSite = "__Host-brevium", "/", true, true, http.SameSiteLaxMode
	m.Cookie.Persist = false
	d := &Door{Room: shared, sessions: m, throttle: people.NewThrottle(shared.Store.Now), pepper: pepper}
	m.ErrorFunc = func(w http.ResponseWriter, r *http.Request, err error) {
		if r.Context().Err() != nil {
			return // nobody is there any more
		}
		shared.Log.Error("a session cannot be read or kept", "error", err)
		if read, _ := r.Context().Value(sessionRead{}).(*bool); read != nil && *read {
			return // the page goes on; that one is here still is kept with the next
		}
		http.Error(w, "Your session could not be read. Try again.", http.StatusInternalServerError)
	}
	return d
}

// Routes adds the room's addresses.
func (d *Door) Routes(e *echo.Echo) {
	e.GET("/sign-in", d.ask)
	e.POST("/sign-in", d.signIn)
	e.POST("/sign-in/strength", d.strength)
	e.POST("/sign-out", d.signOut)
	e.GET("/set-up", d.askSetUp)
	e.POST("/set-up", d.setUp)
	e.GET("/join/:code", d.askJoin)
	e.POST("/join/:code", d.join)
	e.GET("/me", d.me)
	e.POST("/me/password", d.newPassword)
	e.POST("/me/everywhere", d.everywhere)
	e.POST("/me/leave", d.leave)
	e.POST("/me/sessions/end", d.endSession)
	e.POST("/me/passkeys/begin", d.makePasskey)
	e.POST("/me/passkeys", d.keepPasskey)
	e.POST("/me/passkeys/drop", d.dropPasskey)
	e.POST("/sign-in/passkey/begin", d.askPasskey)
	e.POST("/sign-in/passkey", d.signInByPasskey)
	e.GET("/people", d.people)
	e.POST("/people/invite", d.invite)
	e.POST("/people/codes", d.endCodes)
	e.POST("/people/:id", d.change)
	e.POST("/people/:id/recover", d.recover)
	e.POST("/boxes/:id/share", d.share(desk.BoxSort, "/"))
	e.GET("/boxes/:id/link", d.linkOf)
	e.POST("/boxes/:id/link", d.setLink)
	e.GET("/look/:code", d.linked(d.look))
	e.POST("/look/:code/copy", d.linked(d.copyLook))
	e.POST("/jobs/:id/share", d.share(desk.JobSort, "/jobs"))
}

// sessionRead tells in a request's context that its session was read.
type sessionRead struct{}

// Sessions reads and keeps the session of each request but those for what ships with the
// program.
func (d *Door) Sessions(next http.Handler) http.Handler {
	kept := d.sessions.LoadAndSave(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if read, is := r.Context().Value(sessionRead{}).(*bool); is {
			*read = true
		}
		next.ServeHTTP(w, r)
	}))
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if strings.HasPrefix(r.URL.Path, "/static/") || r.URL.Path == "/health" {
			next.ServeHTTP(w, r)
			return
		}
		kept.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), sessionRead{}, new(bool))))
	})
}

// Guard lets a request through that its person may make. It runs after the route is
// found.
func (d *Door) Guard(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		needs := Needs(c.Request().Method, c.Path())
		if c.Path() == "" { // there is no such page; strangers are not told
			needs = people.Guest
		}
		if static := strings.HasPrefix(c.Path(), "/static/") || c.Path() == "/health"; static {
			return next(c)
		}
		who, err := d.who(c)
		if err != nil {
			return err
		}
		c.SetRequest(c.Request().WithContext(people.With(c.Request().Context(), who)))
		weak, err := d.weak(c, who, needs)
		if err != nil {
			return err
		}
		switch {
		case weak:
			d.note(c, "refused without a passkey", who.Name, c.Request().Method+" "+c.Path())
			return d.refuse(c, byKey)
		case needs == stranger || who.Role.AtLeast(needs):
			err := next(c)
			if what := noted[c.Request().Method+" "+c.Path()]; what != "" && err == nil {
				d.note(c, what, who.Name, c.Param("name"))
			}
			return err
		case who.Role != "":
			d.note(c, "refused", who.Name, c.Request().Method+" "+c.Path())
			return d.refuse(c, needs)
		}
		d.Log.Info("door", "what", "not signed in", "address", c.RealIP(), "request", c.Response().Header().Get(echo.HeaderXRequestID), "detail", c.Request().Method+" "+c.Path())
		switch {
		case c.Request().Header.Get("HX-Request") != "":
			return page.Back(c, "/sign-in")
		case c.Request().Method == http.MethodGet:
			return c.Redirect(http.StatusSeeOther, "/sign-in?to="+escaped(c.Request().URL.RequestURI()))
		}
		return d.render(c, http.StatusUnauthorized, signInPage{Fault: "Sign in first; nothing was changed."})
	}
}

// noted are the routes by which data leave the machine, come in or are put back.
var noted = map[string]string{
	"GET /data/everything.zip": "took everything along", "GET /data/copies/:name": "took a copy along", "GET /me/everything.zip": "took along what is theirs",
	"POST /data/bring": "brought data in", "POST /data/restore": "put a copy back",
}

// byKey stands for the steward's own pages, which ask for a passkey where one has any.
const byKey = people.Role("passkey")

// weak reports whether a steward who has a passkey did not sign in by it: the password alone
// does not open what only the steward may do.
func (d *Door) weak(c *echo.Context, who people.Person, needs people.Role) (bool, error) {
	ctx := c.Request().Context()
	if needs != people.Steward || who.Role != people.Steward || d.sessions.GetBool(ctx, sessionByKey) {
		return false, nil
	}
	keys, err := d.Store.Of(ctx).Passkeys(ctx, who.ID)
	return len(keys) > 0, err
}

// who is the person of a session that still holds; nobody otherwise.
func (d *Door) who(c *echo.Context) (people.Person, error) {
	ctx := c.Request().Context()
	id := d.sessions.GetInt64(ctx, sessionPerson)
	if id == 0 {
		return people.Person{}, nil
	}
	p, err := d.Store.Of(ctx).Person(ctx, id)
	if errors.Is(err, desk.ErrNotFound) || err == nil && (p.Struck || p.Epoch != d.sessions.GetInt64(ctx, sessionEpoch)) {
		return people.Person{}, d.sessions.Destroy(ctx)
	}
	return p, err
}

// note keeps what happened at the door, though who asked is gone, and logs it.
func (d *Door) note(c *echo.Context, what, person, detail string) {
	e := roster.Event{What: what, Person: person, Address: c.RealIP(), Request: c.Response().Header().Get(echo.HeaderXRequestID), Detail: detail}
	d.Log.Info("door", "what", e.What, "person", e.Person, "address", e.Address, "request", e.Request, "detail", e.Detail)
	if err := d.Store.Of(context.WithoutCancel(c.Request().Context())).AddEvent(context.WithoutCancel(c.Request().Context()), e); err != nil {
		d.Log.Error("an event could not be kept", "error", err)
	}
}

// escaped is an address as a value of another.
func escaped(text string) string {
	return strings.NewReplacer("%", "%25", "&", "%26", "#", "%23", "+", "%2B", " ", "%20").Replace(text)
}

// within is an address of this application's own to go on to, or its first page.
func within(to string) string {
	if !strings.HasPrefix(to, "/") || strings.HasPrefix(to, "//") || strings.ContainsAny(to, "\\\r\n\t") || strings.HasPrefix(to, "/sign-") {
		return "/"
	}
	return to
}

// link is where a code leads to, as the asker reached this machine.
func link(c *echo.Context, code people.Code) string { return page.Here(c) + "/join/" + code.Text }
