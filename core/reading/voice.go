package reading

import (
	_ "embed"
	"fmt"
	"regexp"
	"strings"
	"sync"
	"unicode"
	"unicode/utf8"
)

// Voice is the language in which a recipe is answered: the one that it is written in, where there
// is a voice for it.
type Voice int

// The voices, in the order of the columns of voices.txt.
const (
	English Voice = iota
	German
	French
)

// Code is the voice's language as pages tell it.
func (v Voice) Code() string { return [...]string{"en", "de", "fr"}[v] }

// voicesText has what is said, pattern by pattern, and the words that are put into the patterns.
//
//go:embed voices.txt
var voicesText string

var voices = sync.OnceValue(func() map[string][]string {
	out := map[string][]string{}
	for line := range strings.Lines(voicesText) {
		if columns := strings.Split(strings.TrimSuffix(line, "\n"), "\t"); len(columns) == 3 {
			out[columns[0]] = columns
		}
	}
	return out
})

// Said is what was said already, which is put into a pattern as it is.
type Said string

// points are decimal points of a length.
var points = regexp.MustCompile(`(\d)\.(\d+ ?(?:cm|mm))`)

// Say is Sprintf in a voice: the pattern and the words that are put into it are those of the voice,
// what the maker typed and what there is no word for stays.
func (v Voice) Say(pattern string, args ...any) string {
	columns := voices()[pattern]
	if v == English || columns == nil {
		for i, a := range args {
			if s, is := a.(Said); is {
				args[i] = string(s)
			}
		}
		return fmt.Sprintf(pattern, args...)
	}
	put := make([]any, len(args))
	for i, a := range args {
		switch a := a.(type) {
		case string:
			put[i] = v.Phrase(a)
		case Said:
			put[i] = string(a)
		default:
			put[i] = a
		}
	}
	return points.ReplaceAllString(fmt.Sprintf(columns[v], put...), "$1,$2")
}

// Phrase is a word, or several, in a voice: as they are where one of them is not known.
func (v Voice) Phrase(text string) string {
	if first, _ := utf8.DecodeRuneInString(text); v == English {
		return text
	} else if !unicode.IsLetter(first) { // a length, perhaps with the other unit beside it
		return strings.ReplaceAll(text, "about", voices()["about"][v])
	}
	if columns := voices()[text]; columns != nil {
		return columns[v]
	}
	words := strings.Split(text, " ")
	for i, w := range words {
		bare := strings.TrimRight(w, ",")
		columns := voices()[strings.ToLower(bare)]
		if columns == nil {
			return text
		}
		now := columns[v]
		if strings.ToLower(bare) != bare {
			now = Sentence(now)
		}
		words[i] = now + w[len(bare):]
	}
	return strings.Join(words, " ")
}

// Sentence begins a text with a capital.
func Sentence(text string) string {
	first, size := utf8.DecodeRuneInString(text)
	if size == 0 {
		return text
	}
	return string(unicode.ToUpper(first)) + text[size:]
}

// voiceOf is the voice for a text: that of another tongue where at least as many words are of it as
// are of the English grammar.
func voiceOf(text string) Voice {
	other, english := spoken(text), 0
	if other == nil {
		return English
	}
	theirs := 0
	for _, w := range strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return !unicode.IsLetter(r) }) {
		if len(w) < 3 {
			continue // units, and signs that all have
		}
		if other.word(w, true) != "" {
			theirs++
		} else if filler[w] || noun(w) != "" || scores[w] || turns[w] {
			english++
		}
	}
	if theirs < english {
		return English
	}
	if other == &tongues[0] {
		return German
	}
	return French
}
