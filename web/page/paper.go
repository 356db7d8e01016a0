package page

import (
	"net/http"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/core/measure"
	"brevium/draw/pdf"
)

// paperCookie remembers the paper that is printed on.
const paperCookie = "paper"

// Papers are those that are printed on.
var Papers = []string{pdf.A4.Name, pdf.Letter.Name}

// PaperOf is the paper that is printed on: as it was chosen, or as is usual where one works in the unit.
func PaperOf(c *echo.Context, unit measure.Unit) string {
	if k, err := c.Cookie(paperCookie); err == nil && slices.Contains(Papers, k.Value) {
		return k.Value
	}
	if unit == measure.In {
		return pdf.Letter.Name
	}
	return pdf.A4.Name
}

// SetPaper remembers a paper; one that nobody prints on is passed over.
func SetPaper(c *echo.Context, name string) {
	if !slices.Contains(Papers, name) {
		return
	}
	c.SetCookie(&http.Cookie{Name: paperCookie, Value: name, Path: "/", MaxAge: 400 * 24 * 3600, HttpOnly: true, SameSite: http.SameSiteLaxMode})
}
