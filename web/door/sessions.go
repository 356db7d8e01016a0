package door

import (
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/people"
)

// What a session has.
const (
	sessionPerson = "person"
	sessionEpoch  = "epoch"
	sessionID     = "id" // known by in the list of one's own
	sessionSince  = "since"
	sessionFrom   = "from"
	sessionDevice = "device"
	sessionByKey  = "by a passkey"
)

// let begins a person's session, under a new token. byKey says that a passkey let them in,
// or a link that the steward gave them: more than a password.
func (d *Door) let(c *echo.Context, p people.Person, byKey bool) error {
	ctx := c.Request().Context()
	if err := d.sessions.RenewToken(ctx); err != nil {
		return err
	}
	for name, value := range map[string]any{
		sessionPerson: p.ID, sessionEpoch: p.Epoch, sessionID: people.NewCode().Text, sessionSince: d.Store.Now().UnixMilli(),
		sessionFrom: c.RealIP(), sessionDevice: device(c.Request().UserAgent()), sessionByKey: byKey,
	} {
		d.sessions.Put(ctx, name, value)
	}
	d.knowDevice(c, p.ID)
	return d.Store.Of(ctx).SeePerson(ctx, p.ID)
}

// device tells in a word what a browser runs on, as it says itself.
func device(agent string) string {
	for _, x := range []struct{ says, word string }{
		{"iPhone", "a phone"}, {"iPad", "a tablet"}, {"Android", "a phone or tablet"}, {"Windows", "a computer"}, {"Macintosh", "a computer"}, {"CrOS", "a computer"}, {"Linux", "a computer"},
	} {
		if strings.Contains(agent, x.says) {
			return x.word
		}
	}
	return "something else"
}

// sessionView is a session of one's own.
type sessionView struct {
	ID, Since, From, Device string
	This                    bool
	began                   int64
	token                   string // its hash
}

// mine are the sessions of a person that hold, the newest first.
func (d *Door) mine(c *echo.Context, me people.Person) ([]sessionView, error) {
	ctx := c.Request().Context()
	all, err := d.Store.Sessions().All(ctx)
	if err != nil {
		return nil, err
	}
	var out []sessionView
	for token, data := range all {
		_, has, err := d.sessions.Codec.Decode(data)
		if err != nil || has[sessionPerson] != me.ID || has[sessionEpoch] != me.Epoch {
			continue
		}
		v := sessionView{token: token}
		v.ID, _ = has[sessionID].(string)
		v.From, _ = has[sessionFrom].(string)
		v.Device, _ = has[sessionDevice].(string)
		v.began, _ = has[sessionSince].(int64)
		v.Since = time.UnixMilli(v.began).Format(when)
		v.This = v.ID == d.sessions.GetString(ctx, sessionID)
		out = append(out, v)
	}
	slices.SortFunc(out, func(a, b sessionView) int { return int(b.began - a.began) })
	return out, nil
}

// endSession signs one out at one of the places where one is signed in; it asks for the
// password.
func (d *Door) endSession(c *echo.Context) error {
	me := people.Of(c.Request().Context())
	if no, err := d.again(c, c.FormValue("now")); err != nil {
		return err
	} else if no != nil {
		return d.showMe(c, http.StatusUnprocessableEntity, no.of("The password is not right; nothing was ended."))
	}
	all, err := d.mine(c, me)
	if err != nil {
		return err
	}
	for _, v := range all {
		if v.ID == c.FormValue("id") {
			if err := d.Store.Sessions().DeleteCtx(c.Request().Context(), v.token); err != nil {
				return err
			}
			d.note(c, "ended a session", me.Name, "from "+v.From)
		}
	}
	return c.Redirect(http.StatusSeeOther, "/me?said=session")
}
