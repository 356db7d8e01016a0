package page

import (
	"cmp"
	"fmt"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/strict"
)

// Listed is a list that was brought in, as a file or as text.
func Listed(c *echo.Context) ([]byte, error) {
	file, err := c.FormFile("file")
	if err != nil || file.Size == 0 {
		return []byte(c.FormValue("list")), nil
	}
	in, err := file.Open()
	if err != nil {
		return nil, BadForm(err)
	}
	defer in.Close()
	return strict.Read(in)
}

// longestFileName bounds the names of files made from names of boxes.
const longestFileName = 60

// FileName is a name that every file system takes, for a box's name in any
// script; "box" when nothing of it is left.
func FileName(name string) string {
	safe := strings.Map(func(r rune) rune {
		if r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' {
			return r
		}
		return '-'
	}, name)
	safe = strings.Trim(safe[:min(len(safe), longestFileName)], "-")
	return cmp.Or(safe, "box")
}

// Attach answers with a file to be kept, by its whole name.
func Attach(c *echo.Context, name, kind string, body []byte) error {
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf("attachment; filename=%q", name))
	return c.Blob(http.StatusOK, kind, body)
}

// Download answers with a file named after the box.
func Download(c *echo.Context, name, ending, kind string, body []byte) error {
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf("inline; filename=%q", FileName(name)+ending))
	return c.Blob(http.StatusOK, kind, body)
}
