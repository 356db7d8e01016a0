package page

import (
	"fmt"
	"html/template"
	"net/url"

	"brevium/core/paper"
	"brevium/draw"
	"brevium/web/form"
)

// SwatchURL is the address of a picture of a card.
func SwatchURL(c paper.Card) string {
	seen := c.Seen()
	if seen.Photo.ID != "" {
		return draw.PhotoURL(seen.Photo.ID)
	}
	return "/swatch.svg?l=" + url.QueryEscape(form.LookText(seen))
}

// swatch is that picture; the words beside it say what it is of.
func swatch(c paper.Card) template.HTML {
	return template.HTML(fmt.Sprintf(`<img class="swatch" src="%s" alt="" width="36" height="36" loading="lazy">`, template.HTMLEscapeString(SwatchURL(c))))
}
