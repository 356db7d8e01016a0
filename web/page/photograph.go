package page

import (
	"fmt"
	"io"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"brevium/core/fault"
	"brevium/photo"
	"brevium/web/form"
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

// Corner is a corner of something in a photograph: where it lies, in percent of the picture.
type Corner struct {
	Name string
	X, Y form.Field
}

var cornerNames = [4]string{"top left", "top right", "bottom right", "bottom left"}

// Corners are the fields of the four marks on a photograph, which corners.js drags.
func Corners(f *form.Form) (out []Corner) {
	for i, at := range [4][2]string{{"4", "4"}, {"96", "4"}, {"96", "96"}, {"4", "96"}} {
		n := strconv.Itoa(i)
		out = append(out, Corner{cornerNames[i], f.Control("x"+n, "across, %", "", at[0]), f.Control("y"+n, "down, %", "", at[1])})
	}
	return out
}

// ReadCorners reads them, as parts of the picture; what is no place stays a fault at its field.
func ReadCorners(f *form.Form) (out [4]photo.Corner) {
	for i := range out {
		for name, into := range map[string]*float64{fmt.Sprint("x", i): &out[i].X, fmt.Sprint("y", i): &out[i].Y} {
			v, err := strconv.ParseFloat(strings.Replace(f.Posted.Get(name), ",", ".", 1), 64)
			if err != nil {
				f.Fail(fault.New(fault.NotANumber, name, "%q is no place in the picture; drag the corner, or type 0 to 100", f.Posted.Get(name)))
			}
			*into = v / 100
		}
	}
	return out
}
