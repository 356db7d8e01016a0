package door

import (
	"encoding/base64"
	"encoding/binary"
	"encoding/json"
	"errors"
	"net"
	"net/http"

	"github.com/go-webauthn/webauthn/protocol"
	"github.com/go-webauthn/webauthn/webauthn"
	"github.com/labstack/echo/v5"

	"brevium/core/people"
	"brevium/store/desk"
	"brevium/store/roster"
	"brevium/web/page"
)

// keyed is a person with their passkeys, as the protocol asks for them.
type keyed struct {
	people.Person
	keys []webauthn.Credential
}

// WebAuthnID is a number that tells nothing of the person.
func (k keyed) WebAuthnID() []byte { return binary.BigEndian.AppendUint64(nil, uint64(k.ID)) }

// WebAuthnName is what a device shows the key under.
func (k keyed) WebAuthnName() string { return k.Name }

// WebAuthnDisplayName is the same.
func (k keyed) WebAuthnDisplayName() string { return k.Name }

// WebAuthnCredentials are the person's passkeys.
func (k keyed) WebAuthnCredentials() []webauthn.Credential { return k.keys }

// keyedOf gives a person with their passkeys.
func (d *Door) keyedOf(c *echo.Context, p people.Person) (keyed, error) {
	out := keyed{Person: p}
	all, err := d.Store.Of(c.Request().Context()).Passkeys(c.Request().Context(), p.ID)
	for _, k := range all {
		var one webauthn.Credential
		if err := json.Unmarshal(k.Key, &one); err != nil {
			return out, err
		}
		out.keys = append(out.keys, one)
	}
	return out, err
}

// relying is this machine under the name that it is asked for by: passkeys are of it.
func relying(c *echo.Context) (*webauthn.WebAuthn, error) {
	host := c.Request().Host
	if name, _, err := net.SplitHostPort(host); err == nil {
		host = name
	}
	return webauthn.New(&webauthn.Config{RPDisplayName: "Brevium", RPID: host, RPOrigins: []string{page.Here(c)}})
}

// noName is said where this machine is asked for by a number, which keys cannot be of.
const noName = "Passkeys need this machine to be asked for by a name, not by a number."

const passkeySession = "passkey"

// begin keeps what a device is asked in the session, and asks it.
func (d *Door) begin(c *echo.Context, asks any, session *webauthn.SessionData) error {
	text, err := json.Marshal(session)
	if err != nil {
		return err
	}
	d.sessions.Put(c.Request().Context(), passkeySession, text)
	return c.JSON(http.StatusOK, asks)
}

// answered is what the device that answers was asked last, which it answers once; said
// where it cannot be.
func (d *Door) answered(c *echo.Context) (w *webauthn.WebAuthn, session webauthn.SessionData, said string) {
	w, err := relying(c)
	if err != nil {
		return nil, session, noName
	}
	if json.Unmarshal(d.sessions.PopBytes(c.Request().Context(), passkeySession), &session) != nil {
		said = "Ask for the passkey again."
	}
	return w, session, said
}

// notByKey is said where one has passkeys and did not sign in by one: with the password
// alone none is added or taken away.
const notByKey = "Sign in by a passkey you have, or by a link for a new password, to make another or take one away."

// makePasskey asks the device for a new key.
func (d *Door) makePasskey(c *echo.Context) error {
	me, err := d.keyedOf(c, people.Of(c.Request().Context()))
	if err != nil {
		return err
	}
	if len(me.keys) > 0 && !d.sessions.GetBool(c.Request().Context(), sessionByKey) {
		return c.String(http.StatusUnprocessableEntity, notByKey)
	}
	w, err := relying(c)
	if err != nil {
		return c.String(http.StatusUnprocessableEntity, noName)
	}
	asks, session, err := w.BeginRegistration(me,
		webauthn.WithAuthenticatorSelection(protocol.AuthenticatorSelection{RequireResidentKey: protocol.ResidentKeyRequired(), ResidentKey: protocol.ResidentKeyRequirementRequired, UserVerification: protocol.VerificationRequired}),
		webauthn.WithExclusions(webauthn.Credentials(me.keys).CredentialDescriptors()))
	if err != nil {
		return err
	}
	return d.begin(c, asks, session)
}

// keepPasskey keeps the key that the device made.
func (d *Door) keepPasskey(c *echo.Context) error {
	ctx := c.Request().Context()
	me, err := d.keyedOf(c, people.Of(ctx))
	if err != nil {
		return err
	}
	w, session, said := d.answered(c)
	if said != "" {
		return c.String(http.StatusUnprocessableEntity, said)
	}
	key, err := w.FinishRegistration(me, session, c.Request())
	if err != nil {
		return c.String(http.StatusUnprocessableEntity, "This passkey was not taken; try again.")
	}
	text, err := json.Marshal(key)
	if err != nil {
		return err
	}
	if err := d.Store.Of(ctx).AddPasskey(ctx, roster.Passkey{ID: key.ID, Person: me.ID, Key: text}); err != nil {
		return err
	}
	d.note(c, "added a passkey", me.Name, "")
	return c.NoContent(http.StatusNoContent)
}

// dropPasskey takes one of one's own away.
func (d *Door) dropPasskey(c *echo.Context) error {
	ctx := c.Request().Context()
	me := people.Of(ctx)
	if !d.sessions.GetBool(ctx, sessionByKey) {
		return d.showMe(c, http.StatusUnprocessableEntity, notByKey)
	}
	id, err := base64.RawURLEncoding.DecodeString(c.FormValue("id"))
	if err != nil {
		return desk.ErrNotFound
	}
	if err := d.Store.Of(ctx).DropPasskey(ctx, me.ID, id); err != nil {
		return err
	}
	d.note(c, "took a passkey away", me.Name, "")
	return c.Redirect(http.StatusSeeOther, "/me")
}

// askPasskey asks any device for a key of this machine.
func (d *Door) askPasskey(c *echo.Context) error {
	w, err := relying(c)
	if err != nil {
		return c.String(http.StatusUnprocessableEntity, noName)
	}
	asks, session, err := w.BeginDiscoverableLogin(webauthn.WithUserVerification(protocol.VerificationRequired))
	if err != nil {
		return err
	}
	return d.begin(c, asks, session)
}

// signInByPasskey lets the person in whose key the device has. Tries are not counted: what a
// device signs is not guessed.
func (d *Door) signInByPasskey(c *echo.Context) error {
	ctx := c.Request().Context()
	w, session, said := d.answered(c)
	if said != "" {
		return c.String(http.StatusUnprocessableEntity, said)
	}
	var who people.Person
	_, key, err := w.FinishPasskeyLogin(func(id, handle []byte) (webauthn.User, error) {
		k, err := d.Store.Of(ctx).PasskeyBy(ctx, id)
		if err != nil {
			return nil, err
		}
		if who, err = d.Store.Of(ctx).Person(ctx, k.Person); err != nil {
			return nil, err
		}
		user, err := d.keyedOf(c, who)
		if err == nil && (who.Struck || string(user.WebAuthnID()) != string(handle)) {
			err = errors.New("this key is of nobody who is let in")
		}
		return user, err
	}, session, c.Request())
	if err != nil || key.Authenticator.CloneWarning {
		d.note(c, "wrong passkey", who.Name, "")
		return c.String(http.StatusUnauthorized, "This passkey is of nobody who is let in here.")
	}
	text, err := json.Marshal(key)
	if err != nil {
		return err
	}
	if err := errors.Join(d.Store.Of(ctx).UsePasskey(ctx, key.ID, text), d.let(c, who, true)); err != nil {
		return err
	}
	d.note(c, "signed in by a passkey", who.Name, "")
	return c.NoContent(http.StatusNoContent)
}
