package page

import (
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/measure"
)

// unitsCookie remembers the unit for pages that show no one box.
const unitsCookie = "units"

// keep remembers a choice in this browser for so many seconds; −1 forgets it.
func keep(c *echo.Context, name, value string, seconds int) {
	c.SetCookie(&http.Cookie{Name: name, Value: value, Path: "/", MaxAge: seconds, HttpOnly: true, SameSite: http.SameSiteLaxMode})
}

// aYear, and a month, in seconds, is how long browsers keep a choice at most.
const aYear = 400 * 24 * 3600

func SetUnits(c *echo.Context, u measure.Unit) { keep(c, unitsCookie, string(u), aYear) }

func UnitsOf(c *echo.Context) measure.Unit {
	if k, err := c.Cookie(unitsCookie); err == nil {
		if u, err := measure.ParseUnit(k.Value); err == nil {
			return u
		}
	}
	return measure.In
}

// Light is how bright the pages are: as the system is, or as chosen.
type Light string

// The lights, in the order in which they are gone through.
const (
	AsTheSystem Light = ""
	Evening     Light = "evening"
	Day         Light = "day"
)

// Next is the light that one press more gives.
func (l Light) Next() Light {
	return map[Light]Light{AsTheSystem: Evening, Evening: Day, Day: AsTheSystem}[l]
}

// Name says it.
func (l Light) Name() string {
	return map[Light]string{AsTheSystem: "as your system", Evening: "evening", Day: "day"}[l]
}

const lightCookie = "light"

// SetLight remembers the light; what is none is as the system.
func SetLight(c *echo.Context, l Light) {
	age := aYear
	if l != Evening && l != Day {
		l, age = AsTheSystem, -1
	}
	keep(c, lightCookie, string(l), age)
}

func lightOf(c *echo.Context) Light {
	if k, err := c.Cookie(lightCookie); err == nil && (k.Value == string(Evening) || k.Value == string(Day)) {
		return Light(k.Value)
	}
	return AsTheSystem
}
