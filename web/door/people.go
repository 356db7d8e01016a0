package door

import (
	"cmp"
	"encoding/base64"
	"net/http"
	"strconv"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/fault"
	"brevium/core/people"
	"brevium/store/desk"
	"brevium/store/roster"
	"brevium/web/form"
	"brevium/web/page"
)

type mePage struct {
	page.Chrome
	Me    people.Person
	Fault string
	Said  string
	Least int
	Keys  []keyView
	// Sessions are where one is signed in, and Events what happened with one's name.
	Sessions []sessionView
	Events   []eventView
}

// ownEvents is how many of one's own are shown.
const ownEvents = 12

// keyView is a passkey: its id as it is posted, and since when it is there.
type keyView struct{ ID, Since string }

func (d *Door) me(c *echo.Context) error { return d.showMe(c, http.StatusOK, "") }

func (d *Door) showMe(c *echo.Context, status int, wrong string) error {
	v := mePage{Chrome: d.Chrome(c, "You"), Me: people.Of(c.Request().Context()), Fault: wrong, Least: people.LeastPassword}
	if c.QueryParam("said") == "password" {
		v.Said = "The password is changed, and all other sessions have ended."
	}
	if c.QueryParam("said") == "session" {
		v.Said = "That session has ended."
	}
	var err error
	if v.Sessions, err = d.mine(c, v.Me); err != nil {
		return err
	}
	events, err := d.Store.Of(c.Request().Context()).Events(c.Request().Context(), v.Me.Name, ownEvents)
	if err != nil {
		return err
	}
	for _, e := range events {
		v.Events = append(v.Events, eventView{e, e.At.Format(when)})
	}
	keys, err := d.Store.Of(c.Request().Context()).Passkeys(c.Request().Context(), v.Me.ID)
	if err != nil {
		return err
	}
	for _, k := range keys {
		v.Keys = append(v.Keys, keyView{base64.RawURLEncoding.EncodeToString(k.ID), k.Since.Format("2 Jan 2006")})
	}
	return c.Render(status, "me.html", v)
}

// newPassword takes another password from one who knows the present one.
func (d *Door) newPassword(c *echo.Context) error {
	ctx := c.Request().Context()
	me := people.Of(ctx)
	if no, err := d.again(c, c.FormValue("now")); err != nil {
		return err
	} else if no != nil {
		return d.showMe(c, http.StatusUnprocessableEntity, no.of("The present password is not right."))
	}
	next := c.FormValue("password")
	if err := people.CheckPassword(next, me.Name); err != nil {
		return d.showMe(c, http.StatusUnprocessableEntity, fault.Of(err).Text)
	}
	var hash string
	if no, err := d.inTurn(c, true, func() { hash = d.pepper.Hash(next) }); err != nil {
		return err
	} else if no != nil {
		return d.showMe(c, no.status, no.text)
	}
	if err := d.Store.Of(ctx).SetPassword(ctx, me.ID, hash); err != nil {
		return err
	}
	p, err := d.Store.Of(ctx).Person(ctx, me.ID)
	if err != nil {
		return err
	}
	if err := d.let(c, p, false); err != nil {
		return err
	}
	d.note(c, "changed the password", me.Name, "")
	return c.Redirect(http.StatusSeeOther, "/me?said=password")
}

// everywhere signs a person out of all sessions, this one too.
func (d *Door) everywhere(c *echo.Context) error {
	ctx := c.Request().Context()
	me := people.Of(ctx)
	if err := d.Store.Of(ctx).EndSessions(ctx, me.ID); err != nil {
		return err
	}
	forgets(c)
	d.note(c, "signed out everywhere", me.Name, "")
	if err := d.sessions.Destroy(ctx); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/sign-in")
}

// leave erases a person who asks for it, and knows the password.
func (d *Door) leave(c *echo.Context) error {
	ctx := c.Request().Context()
	me := people.Of(ctx)
	if no, err := d.again(c, c.FormValue("now")); err != nil {
		return err
	} else if no != nil {
		return d.showMe(c, http.StatusUnprocessableEntity, no.of("The password is not right; nothing was changed."))
	}
	to, detail := int64(0), "deleted what they made"
	if c.FormValue("with") != "delete" {
		steward, err := d.Store.Of(ctx).Steward(ctx, me.ID)
		if err != nil {
			return err
		}
		to, detail = steward, "handed over what they made"
	}
	err := d.Store.Of(ctx).Leave(ctx, me.ID, to)
	if page.IsFault(err) {
		return d.showMe(c, http.StatusUnprocessableEntity, fault.Of(err).Text)
	}
	if err != nil {
		return err
	}
	forgets(c)
	d.note(c, "left", "somebody who left", detail)
	if err := d.sessions.Destroy(ctx); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/sign-in")
}

type peoplePage struct {
	page.Chrome
	People []personView
	Codes  []string
	Events []eventView
	Roles  []people.Role
	Tables []string
	// Link was made just now; it is shown once.
	Link, LinkFor string
	Fault         string
	ByPassword    bool // the steward who looks has no passkey yet
}

type personView struct {
	people.Person
	Me          bool
	Since, Seen string
}

type eventView struct {
	roster.Event
	When string
}

const (
	shownEvents = 100
	when        = "2 Jan 2006, 15:04"
)

func (d *Door) people(c *echo.Context) error {
	return d.showPeople(c, http.StatusOK, peoplePage{})
}

func (d *Door) showPeople(c *echo.Context, status int, v peoplePage) error {
	ctx := c.Request().Context()
	v.Chrome, v.Roles = d.Chrome(c, "People"), people.Roles
	keys, err := d.Store.Of(ctx).Passkeys(ctx, people.Of(ctx).ID)
	if err != nil {
		return err
	}
	v.ByPassword = len(keys) == 0
	all, err := d.Store.Of(ctx).People(ctx)
	if err != nil {
		return err
	}
	for _, p := range all {
		x := personView{Person: p, Me: p.ID == people.Of(ctx).ID, Since: p.Since.Format("2 Jan 2006")}
		if !p.Seen.IsZero() {
			x.Seen = p.Seen.Format(when)
		}
		v.People = append(v.People, x)
	}
	if v.Tables, err = d.Store.Of(ctx).Places(ctx); err != nil {
		return err
	}
	codes, err := d.Store.Of(ctx).Codes(ctx)
	if err != nil {
		return err
	}
	for _, k := range codes {
		what := "to join as a " + string(k.Role)
		if k.For == roster.ForRecover {
			what = "for a new password"
		}
		v.Codes = append(v.Codes, what+", until "+k.Until.Format(when))
	}
	events, err := d.Store.Of(ctx).Events(ctx, "", shownEvents)
	if err != nil {
		return err
	}
	for _, e := range events {
		v.Events = append(v.Events, eventView{e, e.At.Format(when)})
	}
	return c.Render(status, "people.html", v)
}

// mostDays is how long a link to join may hold.
const mostDays = 31

// invite makes a link to join by.
func (d *Door) invite(c *echo.Context) error {
	ctx := c.Request().Context()
	role := people.Role(c.FormValue("role"))
	days, err := strconv.Atoi(c.FormValue("days"))
	if !role.Known() || err != nil || days < 1 || days > mostDays {
		return d.showPeople(c, http.StatusUnprocessableEntity, peoplePage{Fault: "Say as what they join, and for how many days the link holds: 1 to " + strconv.Itoa(mostDays) + "."})
	}
	code, err := d.Store.Of(ctx).NewCode(ctx, roster.Code{For: roster.ForJoining, Role: role, By: people.Of(ctx).ID, Until: d.Store.Now().AddDate(0, 0, days)})
	if err != nil {
		return err
	}
	d.note(c, "invited", people.Of(ctx).Name, "a "+string(role)+", for "+strconv.Itoa(days)+" days")
	return d.showPeople(c, http.StatusOK, peoplePage{Link: link(c, code), LinkFor: "to join as a " + string(role)})
}

func (d *Door) endCodes(c *echo.Context) error {
	if err := d.Store.Of(c.Request().Context()).DropCodes(c.Request().Context()); err != nil {
		return err
	}
	d.note(c, "ended all links", people.Of(c.Request().Context()).Name, "")
	return c.Redirect(http.StatusSeeOther, "/people")
}

// other is the person of an address.
func (d *Door) other(c *echo.Context) (people.Person, error) {
	id, err := strconv.ParseInt(c.Param("id"), 10, 64)
	if err != nil {
		return people.Person{}, desk.ErrNotFound
	}
	return d.Store.Of(c.Request().Context()).Person(c.Request().Context(), id)
}

// change gives a person another role or table, or lets them in no more or again.
func (d *Door) change(c *echo.Context) error {
	ctx := c.Request().Context()
	p, err := d.other(c)
	if err != nil {
		return err
	}
	struck := c.FormValue("struck") != ""
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	d.Merging.Lock()
	defer d.Merging.Unlock()
	if p, err = d.Store.Of(ctx).Person(ctx, p.ID); err != nil {
		return err
	}
	f := form.New(posted, page.UnitsOf(c))
	f.Meet(form.Field{Name: "role", Value: string(p.Role)}, form.Field{Name: "place", Value: p.Place})
	was := posted.Get(form.WasField("struck"))
	if f.Clashes() || was != "" && was != strconv.FormatBool(p.Struck) {
		return d.showPeople(c, http.StatusUnprocessableEntity, peoplePage{Fault: "Another steward changed " + p.Name + " meanwhile. They are shown as they stand now; change them again if need be."})
	}
	if posted.Has(form.WasField("role")) {
		struck = p.Struck // the form of a role strikes nobody
	}
	role := people.Role(posted.Get("role"))
	if !role.Known() {
		role = p.Role
	}
	sits := posted.Has("place")
	if posted.Has(form.WasField("place")) && !sits {
		return page.Back(c, "/people") // not touched here, and somebody else gave them a table
	}
	if sits {
		err = d.Store.Of(ctx).SetPlace(ctx, p.ID, posted.Get("place"))
	} else {
		err = d.Store.Of(ctx).SetPerson(ctx, p.ID, role, struck)
	}
	if page.IsFault(err) {
		return d.showPeople(c, http.StatusUnprocessableEntity, peoplePage{Fault: fault.Of(err).Text})
	}
	if err != nil {
		return err
	}
	detail := "a " + string(role)
	switch {
	case sits:
		detail = "sits at " + cmp.Or(posted.Get("place"), "the workshop's table")
	case struck:
		detail = "is let in no more"
	}
	d.note(c, "changed a person", people.Of(ctx).Name, p.Name+": "+detail)
	return c.Redirect(http.StatusSeeOther, "/people")
}

// share lets everybody work on a box or a job of one's own, or no more.
func (d *Door) share(sort desk.Sort, to string) echo.HandlerFunc {
	return func(c *echo.Context) error {
		id, err := strconv.ParseInt(c.Param("id"), 10, 64)
		if err != nil {
			return desk.ErrNotFound
		}
		ctx := c.Request().Context()
		shared := c.FormValue("shared") != ""
		if err := d.Store.Of(ctx).Share(ctx, sort, id, shared); err != nil {
			return err
		}
		what := "shared a " + string(sort)
		if !shared {
			what = "keeps a " + string(sort) + " again"
		}
		d.note(c, what, people.Of(ctx).Name, strconv.FormatInt(id, 10))
		return page.Back(c, "%s", to)
	}
}

// recoverFor is how long a link for a new password holds.
const recoverFor = 24 * time.Hour

// recover makes a link by which a person chooses a new password.
func (d *Door) recover(c *echo.Context) error {
	ctx := c.Request().Context()
	p, err := d.other(c)
	if err != nil {
		return err
	}
	code, err := d.Store.Of(ctx).NewCode(ctx, roster.Code{For: roster.ForRecover, Person: p.ID, By: people.Of(ctx).ID, Until: d.Store.Now().Add(recoverFor)})
	if err != nil {
		return err
	}
	d.note(c, "made a link for a new password", people.Of(ctx).Name, "for "+p.Name)
	return d.showPeople(c, http.StatusOK, peoplePage{Link: link(c, code), LinkFor: "for " + p.Name + " to choose a new password, once, within a day"})
}
