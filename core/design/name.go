package design

import (
	"strings"
	"unicode"
	"unicode/utf8"

	"brevium/core/fault"
)

// LongestName is the most characters in a name.
const LongestName = 120

// CleanName takes out of a name what cannot be seen or turns the text around
// it: control and direction characters. White space becomes single spaces.
func CleanName(name string) string {
	name = strings.Map(func(r rune) rune {
		switch {
		case unicode.IsSpace(r):
			return ' '
		case unicode.IsControl(r) || unicode.Is(unicode.Cf, r) && r != '\u200d' || r == utf8.RuneError:
			return -1
		}
		return r
	}, name)
	return strings.Join(strings.Fields(name), " ")
}

// checkName refuses a name that is too long or has nothing in it to read.
func checkName(name string) error {
	if utf8.RuneCountInString(name) > LongestName {
		return fault.New(fault.TooLong, "name", "the name is over %d letters; a shorter one is easier to find", LongestName)
	}
	if name != "" && CleanName(name) == "" {
		return fault.New(fault.Empty, "name", "the name has nothing in it to read; give it a word")
	}
	return nil
}
