package web_test

import (
	"context"
	"net/http"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/webauthn"
	"github.com/chromedp/chromedp"

	"brevium/core/people"
	"brevium/web/webtest"
)

// On a device with a chip for it: a passkey is made, one signs in with it and without the
// password, and not any more once it is taken away; a made-up answer is of nobody.
func TestPasskeys(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	w.Person("Wren", people.Steward)
	h := newHand(t, w.Table, 1280, 800)
	h.at = strings.Replace(h.at, "127.0.0.1", "localhost", 1) // keys are of names
	h.do(chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		if _, err := cdp.Call(ctx, tab, webauthn.Enable, webauthn.EnableParams{}); err != nil {
			return err
		}
		_, err := cdp.Call(ctx, tab, webauthn.AddVirtualAuthenticator, webauthn.AddVirtualAuthenticatorParams{Options: &webauthn.VirtualAuthenticatorOptions{
			Protocol: "ctap2", Transport: "internal", HasResidentKey: true, HasUserVerification: true, IsUserVerified: true, AutomaticPresenceSimulation: true,
		}})
		return err
	}))
	h.visit("/sign-in")
	h.write("Your name", "Wren")
	h.write("Password", webtest.GoodPassword)
	h.press("button", "Sign in")
	h.until(`location.pathname === "/"`)
	h.visit("/me")
	h.press("button", "Make a passkey on this device")
	h.until(`document.querySelectorAll(".passkeys li").length === 1`)
	h.press("button", "Sign out")
	h.until(`location.pathname === "/sign-in"`)
	// The password alone does not open what only the steward may do.
	h.write("Your name", "Wren")
	h.write("Password", webtest.GoodPassword)
	h.press("button", "Sign in")
	h.until(`location.pathname === "/"`)
	h.visit("/people")
	h.until(`document.querySelector("main").innerText.includes("This asks for your passkey")`)
	h.visit("/me")
	h.press("button", "Take it away") // nor does it take the passkey away, or add another
	h.until(`document.querySelector("[role=alert]")?.innerText.includes("Sign in by a passkey you have")`)
	h.visit("/me")
	h.press("button", "Make a passkey on this device")
	h.until(`document.getElementById("passkey-said").innerText.includes("Sign in by a passkey you have")`)
	h.press("button", "Sign out")
	h.until(`location.pathname === "/sign-in"`)
	h.press("button", "Sign in with a passkey")
	h.until(`location.pathname === "/" && document.querySelector(".who").innerText === "Wren"`)
	h.visit("/people")
	h.until(`document.body.textContent.includes("signed in by a passkey")`)
	h.visit("/me")
	h.press("button", "Take it away")
	h.until(`location.pathname === "/me" && document.querySelectorAll(".passkeys li").length === 0`)
	h.press("button", "Sign out")
	h.until(`location.pathname === "/sign-in"`)
	h.press("button", "Sign in with a passkey")
	h.until(`document.getElementById("passkey-said").innerText.includes("nobody who is let in")`)

	v := w.Visitor("10.0.0.7")
	if status, _, _ := v.Post("/sign-in/passkey"); status != http.StatusUnprocessableEntity {
		t.Errorf("an answer that nobody asked for: %d", status)
	}
}
