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
