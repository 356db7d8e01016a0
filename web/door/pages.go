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
	"brevium/store/desk"
	"brevium/store/roster"
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
	is, err := d.Store.Of(c.Request().Context()).HasSteward(c.Request().Context())
	if err != nil {
		return err
	}
	return d.render(c, http.StatusOK, signInPage{To: c.QueryParam("to"), NoSteward: !is})
}

// signIn lets a person in by name and password.
func (d *Door) signIn(c *echo.Context) error {
	ctx := c.Request().Context()
	v := signInPage{Name: c.FormValue("name"), To: c.FormValue("to")}
	p, err := d.Store.Of(ctx).PersonCalled(ctx, clean(v.Name))
	if err != nil && !errors.Is(err, desk.ErrNotFound) {
		return err
	}
	if no, err := d.tried(c, p, v.Name, c.FormValue("password"), d.deviceOf(c, p.ID)); err != nil {
		return err
	} else if no != nil {
		v.Fault = no.text
		return d.render(c, no.status, v)
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

// refusal is why a password is not taken, and the status of the answer.
type refusal struct {
	status int
	text   string
}

// of is what is said of a password that was asked for again: that it is not right, in the
// words of the page, or that it was not looked at.
func (r *refusal) of(wrong string) string {
	if r.status == http.StatusUnauthorized {
		return wrong
	}
	return r.text
}

// busy is the refusal where passwords are worked out for too many at once.
var busy = &refusal{http.StatusServiceUnavailable, "Many people are signing in at this moment. Try again in a few seconds."}

// tried checks a password of a person, who is nobody where there is none of the name, on a
// device that they are known by ("" for any other), and says what is wrong: the same of all
// that is, so that names cannot be found out. A try is counted before it is made.
func (d *Door) tried(c *echo.Context, p people.Person, name, password, device string) (*refusal, error) {
	ctx := c.Request().Context()
	try := people.Try{Account: clean(name), Address: c.RealIP(), Device: device}
	held, wait := d.throttle.Begin(try)
	if wait > 0 {
		d.Log.Warn("door", "what", "has to wait", "person", clean(name), "address", c.RealIP(), "request", c.Response().Header().Get(echo.HeaderXRequestID), "detail", waits(wait))
		return &refusal{http.StatusTooManyRequests, fmt.Sprintf("There were too many wrong tries. Try again in %s; where you have signed in before, or by a passkey, you do not wait for others.", waits(wait))}, nil
	}
	select {
	case <-ctx.Done():
		return nil, ctx.Err()
	case <-time.After(held):
	}
	hash := p.Hash
	if p.Struck {
		hash = ""
	}
	right := false
	if no, err := d.inTurn(c, device != "", func() { right = d.pepper.Same(password, hash) }); no != nil || err != nil {
		d.throttle.Right(try, false)
		return no, err
	}
	if right {
		d.throttle.Right(try, true)
		return nil, nil
	}
	if wait := d.throttle.Wait(try); wait > 0 {
		d.note(c, "slowed down", clean(name), waits(wait))
	} else {
		d.note(c, "wrong password", clean(name), "")
	}
	return &refusal{http.StatusUnauthorized, "This name and this password do not go together."}, nil
}

// inTurn works a password out when it is this asker's turn.
func (d *Door) inTurn(c *echo.Context, known bool, work func()) (*refusal, error) {
	done, err := d.queue.Turn(c.Request().Context(), c.RealIP(), known)
	if errors.Is(err, people.ErrBusy) {
		d.Log.Warn("door", "what", "too many at once", "address", c.RealIP(), "request", c.Response().Header().Get(echo.HeaderXRequestID))
		c.Response().Header().Set("Retry-After", "3")
		return busy, nil
	}
	if err != nil {
		return nil, err
	}
	defer done()
	work()
	return nil, nil
}

// again checks the present password of who is signed in.
func (d *Door) again(c *echo.Context, password string) (*refusal, error) {
	ctx := c.Request().Context()
	me := people.Of(ctx)
	return d.tried(c, me, me.Name, password, "session "+d.sessions.GetString(ctx, sessionID))
}

// strength says how hard a password is to guess that is being chosen; it is not kept.
func (d *Door) strength(c *echo.Context) error {
	name, password := c.FormValue("name"), c.FormValue("password")
	said := "hard to guess"
	if err := people.CheckPassword(password, name); err != nil {
		said = fault.Of(err).Text
	}
	return c.String(http.StatusOK, said)
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
	if is, err := d.Store.Of(c.Request().Context()).HasSteward(c.Request().Context()); err != nil {
		return err
	} else if is {
		return c.Redirect(http.StatusSeeOther, "/sign-in")
	}
	return d.render(c, http.StatusOK, signInPage{Kind: "set-up", At: "/set-up"})
}

func (d *Door) setUp(c *echo.Context) error {
	return d.use(c, signInPage{Kind: "set-up", At: "/set-up", Code: c.FormValue("code")}, roster.ForSetUp)
}

func (d *Door) askJoin(c *echo.Context) error {
	v, err := d.joining(c)
	if errors.Is(err, desk.ErrNotFound) {
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
	code, err := d.Store.Of(ctx).Code(ctx, v.Code)
	if errors.Is(err, desk.ErrNotFound) || err == nil && code.For == roster.ForSetUp {
		return v, desk.ErrNotFound
	}
	if err != nil {
		return v, err
	}
	v.Role = code.Role
	if code.For == roster.ForRecover {
		p, err := d.Store.Of(ctx).Person(ctx, code.Person)
		if err != nil {
			return v, err
		}
		v.Kind, v.Recovers = "recover", p.Name
	}
	return v, nil
}

func (d *Door) join(c *echo.Context) error {
	v, err := d.joining(c)
	if errors.Is(err, desk.ErrNotFound) {
		return d.nowhere(c)
	}
	if err != nil {
		return err
	}
	return d.use(c, v, roster.ForJoining, roster.ForRecover)
}

// use lets somebody in by a code, with the name and the password that they choose.
func (d *Door) use(c *echo.Context, v signInPage, kinds ...roster.CodeFor) error {
	ctx := c.Request().Context()
	again := func(f *fault.Fault) error {
		v.Fault, v.Of = f.Text, f.Field
		return d.render(c, http.StatusUnprocessableEntity, v)
	}
	// A code has 160 bits: it is not guessed, however many are tried.
	code, err := d.Store.Of(ctx).Code(ctx, v.Code)
	if errors.Is(err, desk.ErrNotFound) || err == nil && !slices.Contains(kinds, code.For) {
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
	var hash string
	if no, err := d.inTurn(c, true, func() { hash = d.pepper.Hash(password) }); err != nil {
		return err
	} else if no != nil {
		v.Fault = no.text
		return d.render(c, no.status, v)
	}
	p, err := d.Store.Of(ctx).Join(ctx, v.Code, name, hash)
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
