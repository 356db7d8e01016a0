package style

import (
	"slices"
	"strings"
	"unicode"
)

// Suiting are the kinds of box that makers like for a thing of a name, in the catalogue's order:
// those of which all words of one of Suits stand in it, in the singular or the plural.
func Suiting(name string) []*Style {
	words := stems(name)
	return slices.DeleteFunc(Boxes(), func(s *Style) bool {
		return !slices.ContainsFunc(s.Suits, func(suit string) bool {
			return !slices.ContainsFunc(stems(suit), func(w string) bool { return !slices.Contains(words, w) })
		})
	})
}

// stems are the words of a name in lower case, each without the ending of its plural.
func stems(name string) []string {
	words := strings.FieldsFunc(strings.ToLower(name), func(r rune) bool { return !unicode.IsLetter(r) })
	for i, w := range words {
		for _, end := range [][2]string{{"ves", "f"}, {"ies", "y"}, {"oes", "o"}, {"ches", "ch"}, {"sses", "ss"}, {"s", ""}} {
			if cut, plural := strings.CutSuffix(w, end[0]); plural && len(cut) > 1 && !strings.HasSuffix(w, "ss") {
				words[i] = cut + end[1]
				break
			}
		}
	}
	return words
}
