package door

import (
	"errors"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strconv"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/fault"
	"brevium/core/people"
	"brevium/store"
	"brevium/web/page"
)

// signInPage asks for a name and a password; of Kind "set-up", "join" or "recover" also
// what goes with a code.
type signInPage struct {
	page.Chrome
	Kind, At  string // "" signs in; where the form goes
	Code      string
	Name, To  string
	Role      people.Role
	Fault     string
	Of        string // the field that the fault is of
	Least     int
	Recovers  string // whose password it is
	NoSteward bool
}

func (d *Door) render(c *echo.Context, status int, v signInPage) error {
	title := map[string]string{"": "Sign in", "set-up": "Set the workshop up", "join": "Join the workshop", "recover": "A new password"}[v.Kind]
	v.Chrome = d.Chrome(c, title)
	if v.To != "" {
		v.To = within(v.To)
	}
	if v.Least = people.LeastPassword; v.At == "" {
		v.At = "/sign-in"
	}
	return c.Render(status, "sign-in.html", v)
}

func (d *Door) ask(c *echo.Context) error {
	is, err := d.Store.HasSteward(c.Request().Context())
	if err != nil {
		return err
	}
	return d.render(c, http.StatusOK, signInPage{To: c.QueryParam("to"), NoSteward: !is})
}

// signIn lets a person in by name and password.
func (d *Door) signIn(c *echo.Context) error {
	ctx := c.Request().Context()
	v := signInPage{Name: c.FormValue("name"), To: c.FormValue("to")}
	if fault, err := d.tried(c, v.Name, c.FormValue("password")); err != nil {
		return err
	} else if fault != "" {
		v.Fault = fault
		status := http.StatusUnauthorized
		if d.throttle.Wait(v.Name, c.RealIP()) > 0 {
			status = http.StatusTooManyRequests
		}
		return d.render(c, status, v)
	}
	p, err := d.Store.PersonCalled(ctx, clean(v.Name))
	if err != nil {
		return err
	}
	if err := d.let(c, p, false); err != nil {
		return err
	}
	d.note(c, "signed in", p.Name, "")
	return c.Redirect(http.StatusSeeOther, within(v.To))
}

func clean(name string) string {
	name, _ = people.CleanName(name)
	return name
}

// tried checks a name and a password, and says what is wrong with them: the same of all
// that is, so that names cannot be found out. Wrong tries make the next ones wait.
func (d *Door) tried(c *echo.Context, name, password string) (string, error) {
	address := c.RealIP()
	if wait := d.throttle.Wait(name, address); wait > 0 {
		return fmt.Sprintf("There were too many wrong tries from here. Try again in %s.", waits(wait)), nil
	}
	p, err := d.Store.PersonCalled(c.Request().Context(), clean(name))
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return "", err
	}
	hash := p.Hash
	if p.Struck {
		hash = ""
	}
	if !d.pepper.Same(password, hash) {
		d.throttle.Wrong(name, address)
		if wait := d.throttle.Wait(name, address); wait > 0 {
			d.note(c, "slowed down", clean(name), waits(wait))
		} else {
			d.note(c, "wrong password", clean(name), "")
		}
		return "This name and this password do not go together.", nil
	}
	d.throttle.Right(name, address)
	return "", nil
}

func waits(d time.Duration) string {
	if s := int(math.Ceil(d.Seconds())); s < 60 {
		return strconv.Itoa(s) + " s"
	}
	return strconv.Itoa(int(math.Ceil(d.Minutes()))) + " min"
}

// forgets tells the browser to keep nothing that it was given.
func forgets(c *echo.Context) { c.Response().Header().Set("Clear-Site-Data", `"cache"`) }

func (d *Door) signOut(c *echo.Context) error {
	forgets(c)
	d.note(c, "signed out", people.Of(c.Request().Context()).Name, "")
	if err := d.sessions.Destroy(c.Request().Context()); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/sign-in")
}

func (d *Door) askSetUp(c *echo.Context) error {
	if is, err := d.Store.HasSteward(c.Request().Context()); err != nil {
		return err
	} else if is {
		return c.Redirect(http.StatusSeeOther, "/sign-in")
	}
	return d.render(c, http.StatusOK, signInPage{Kind: "set-up", At: "/set-up"})
}

func (d *Door) setUp(c *echo.Context) error {
	return d.use(c, signInPage{Kind: "set-up", At: "/set-up", Code: c.FormValue("code")}, store.ForSetUp)
}

func (d *Door) askJoin(c *echo.Context) error {
	v, err := d.joining(c)
	if errors.Is(err, store.ErrNotFound) {
		return d.nowhere(c)
	}
	if err != nil {
		return err
	}
	return d.render(c, http.StatusOK, v)
}

// nowhere says that a link has no use any more.
func (d *Door) nowhere(c *echo.Context) error {
	return d.render(c, http.StatusNotFound, signInPage{Fault: "That link leads nowhere: it was used, or its time is over. Ask the steward for another."})
}

// joining is the page of a link, for what its code is for.
func (d *Door) joining(c *echo.Context) (signInPage, error) {
	ctx := c.Request().Context()
	v := signInPage{Kind: "join", At: "/join/" + c.Param("code"), Code: c.Param("code")}
	code, err := d.Store.Code(ctx, v.Code)
	if errors.Is(err, store.ErrNotFound) || err == nil && code.For == store.ForSetUp {
		return v, store.ErrNotFound
	}
	if err != nil {
		return v, err
	}
	v.Role = code.Role
	if code.For == store.ForRecover {
		p, err := d.Store.Person(ctx, code.Person)
		if err != nil {
			return v, err
		}
		v.Kind, v.Recovers = "recover", p.Name
	}
	return v, nil
}

func (d *Door) join(c *echo.Context) error {
	v, err := d.joining(c)
	if errors.Is(err, store.ErrNotFound) {
		return d.nowhere(c)
	}
	if err != nil {
		return err
	}
	return d.use(c, v, store.ForJoining, store.ForRecover)
}

// use lets somebody in by a code, with the name and the password that they choose.
func (d *Door) use(c *echo.Context, v signInPage, kinds ...store.CodeFor) error {
	ctx := c.Request().Context()
	again := func(f *fault.Fault) error {
		v.Fault, v.Of = f.Text, f.Field
		return d.render(c, http.StatusUnprocessableEntity, v)
	}
	if wait := d.throttle.Wait("a code", c.RealIP()); wait > 0 {
		return again(fault.New(fault.Invalid, "code", "There were too many wrong codes from here. Try again in %s.", waits(wait)))
	}
	code, err := d.Store.Code(ctx, v.Code)
	if errors.Is(err, store.ErrNotFound) || err == nil && !slices.Contains(kinds, code.For) {
		d.throttle.Wrong("a code", c.RealIP())
		d.note(c, "wrong code", "", v.Kind)
		return again(fault.New(fault.Invalid, "code", "This code is not right, or its time is over."))
	}
	if err != nil {
		return err
	}
	v.Name = c.FormValue("name")
	name := v.Recovers
	if v.Kind != "recover" {
		if name, err = people.CleanName(v.Name); err != nil {
			return again(fault.Of(err))
		}
	}
	password := c.FormValue("password")
	if err := people.CheckPassword(password, name); err != nil {
		return again(fault.Of(err))
	}
	p, err := d.Store.Join(ctx, v.Code, name, d.pepper.Hash(password))
	if page.IsFault(err) {
		return again(fault.Of(err))
	}
	if err != nil {
		return err
	}
	if err := d.let(c, p, v.Kind == "recover"); err != nil {
		return err
	}
	d.note(c, map[string]string{"set-up": "set up", "join": "joined", "recover": "chose a new password by a link"}[v.Kind], p.Name, string(p.Role))
	return c.Redirect(http.StatusSeeOther, "/")
}

// refuse says that somebody else may do this.
func (d *Door) refuse(c *echo.Context, needs people.Role) error {
	text := map[people.Role]string{
		people.Steward: "Only the steward of this workshop does that. Nothing was changed.",
		byKey:          "This asks for your passkey: sign out, and sign in by it. Nothing was changed.",
		people.Maker:   "You look on as a guest here; makers change things. Nothing was changed.",
	}[needs]
	if c.Request().Header.Get("HX-Request") != "" {
		c.Response().Header().Set("HX-Reswap", "none")
		return c.String(http.StatusForbidden, text)
	}
	return c.Render(http.StatusForbidden, "problem.html", struct {
		page.Chrome
		Text string
	}{d.Chrome(c, "Not yours to do"), text})
}
