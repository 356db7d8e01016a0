package page

import (
	"io"
	"strings"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"brevium/core/fault"
	"brevium/photo"
)

// ForPhotographs bounds what is sent to a page that takes a photograph.
var ForPhotographs = middleware.BodyLimit(photo.MostBytes + 64<<10)

// KeepPhotograph keeps the picture that was sent as "file", made small, and gives its id; "" where
// none was sent.
func (r *Room) KeepPhotograph(c *echo.Context) (string, error) {
	if file, err := c.FormFile("file"); err == nil && file.Size == 0 {
		return "", nil
	} else if err != nil && c.Request().ContentLength <= photo.MostBytes {
		return "", nil
	}
	sent, err := Photograph(c)
	if err != nil {
		return "", err
	}
	p, err := photo.Small(sent)
	if err != nil {
		return "", err
	}
	return p.ID, r.Store.Of(c.Request().Context()).PutPhoto(c.Request().Context(), p, false)
}

// Photograph gives the bytes of a picture that was sent as "file"; the fault says so
// where none was, or where it is too large.
func Photograph(c *echo.Context) ([]byte, error) {
	file, err := c.FormFile("file")
	if err != nil {
		if strings.Contains(err.Error(), "too large") || c.Request().ContentLength > photo.MostBytes {
			return nil, fault.New(fault.TooLarge, "file", "This picture is larger than 8 MB; take it smaller, or save it as a JPEG.")
		}
		return nil, fault.New(fault.Empty, "file", "Choose a picture first.")
	}
	in, err := file.Open()
	if err != nil {
		return nil, BadForm(err)
	}
	defer in.Close()
	sent, err := io.ReadAll(io.LimitReader(in, photo.MostBytes+1))
	if err != nil {
		return nil, BadForm(err)
	}
	return sent, nil
}
