package draw

import (
	"html"
	"strings"
)

// Escaped is a text as it stands in a drawing: marks that mean something there are written
// otherwise, and what no XML 1.0 may hold is left out.
func Escaped(text string) string {
	return html.EscapeString(strings.Map(func(r rune) rune {
		switch {
		case r == '\t' || r == '\n' || r == '\r' || r >= 0x20 && r <= 0xd7ff || r >= 0xe000 && r <= 0xfffd || r >= 0x10000:
			return r
		}
		return -1
	}, strings.ToValidUTF8(text, "")))
}
