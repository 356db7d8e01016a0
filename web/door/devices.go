package door

import (
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/people"
)

// A device on which people have signed in keeps a cookie that says so, signed by this
// machine: who guesses elsewhere never makes them wait there. It lets nobody in.
const (
	deviceCookie = "__Host-brevium-device"
	deviceUse    = "device"
	deviceFor    = 180 * 24 * time.Hour
	mostOnOne    = 12 // people of one device, those who came last
)

// known reads a device's cookie: its name, and who signed in on it, the last one first.
func (d *Door) known(c *echo.Context) (device string, of []string) {
	cookie, err := c.Request().Cookie(deviceCookie)
	if err != nil {
		return "", nil
	}
	text, right := d.pepper.Signed(deviceUse, cookie.Value)
	if !right {
		return "", nil
	}
	device, who, _ := strings.Cut(text, ":")
	return device, strings.Split(who, ",")
}

// deviceOf is the device's name where the person has signed in on it before, or "".
func (d *Door) deviceOf(c *echo.Context, person int64) string {
	device, of := d.known(c)
	if person == 0 || !slices.Contains(of, strconv.FormatInt(person, 10)) {
		return ""
	}
	return device
}

// knowDevice notes on the device that a person signed in on it.
func (d *Door) knowDevice(c *echo.Context, person int64) {
	device, of := d.known(c)
	if device == "" {
		device = people.NewCode().Text
	}
	me := strconv.FormatInt(person, 10)
	of = slices.Insert(slices.DeleteFunc(of, func(x string) bool { return x == me }), 0, me)
	http.SetCookie(c.Response(), &http.Cookie{
		Name: deviceCookie, Value: d.pepper.Sign(deviceUse, device+":"+strings.Join(of[:min(len(of), mostOnOne)], ",")),
		Path: "/", MaxAge: int(deviceFor.Seconds()), Secure: true, HttpOnly: true, SameSite: http.SameSiteLaxMode,
	})
}
