package recipe

import (
	"cmp"
	_ "embed"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"unicode"
	"unicode/utf8"
)

// Voice is the words of one language: patterns by their keys, with fields in braces.
type Voice struct {
	patterns map[string]string
	keys     []string // those with the most words of their own first
	readers  sync.Map // what a pattern is read by, once it was asked for
}

// reader reads what was put into a pattern, by the names of its fields.
type reader struct {
	expression *regexp.Regexp
	names      []string
}

//go:embed english.txt
var english string

// English is the language in which makers are told.
var English = must(ReadVoice(english))

func must(v *Voice, err error) *Voice {
	if err != nil {
		panic(err)
	}
	return v
}

// ReadVoice reads a voice file: a key and a pattern a line, “key = words {field}”. What
// begins with # is a note.
func ReadVoice(text string) (*Voice, error) {
	v := &Voice{patterns: map[string]string{}}
	for n, line := range strings.Split(text, "\n") {
		line = strings.TrimSpace(line)
		if line == "" || strings.HasPrefix(line, "#") {
			continue
		}
		key, words, found := strings.Cut(line, " = ")
		if key = strings.TrimSpace(key); !found || key == "" || v.patterns[key] != "" {
			return nil, fmt.Errorf("line %d of the voice: %q is no key with a pattern of its own", n+1, line)
		}
		v.patterns[key] = strings.TrimSpace(words)
	}
	own := func(key string) int { return len(field.ReplaceAllString(v.patterns[key], "")) }
	v.keys = slices.SortedFunc(maps.Keys(v.patterns), func(a, b string) int {
		return cmp.Or(own(b)-own(a), strings.Compare(a, b))
	})
	return v, nil
}

// Fields are what is put into a pattern.
type Fields map[string]string

var field = regexp.MustCompile(`\{(\w+)\}`)

// measured are the fields that begin with a number.
var measured = []string{"size", "at", "shim", "leave", "off", "across", "square"}

// Say puts fields into the pattern of a key. A key or a field that there is not is a
// mistake of whoever says it, and is seen in the words.
func (v *Voice) Say(key string, fields Fields) string {
	words, there := v.patterns[key]
	if !there {
		return "{" + key + "}"
	}
	return field.ReplaceAllStringFunc(words, func(name string) string {
		name = name[1 : len(name)-1]
		if said, there := fields[name]; there {
			return said
		}
		if said, there := fields[lowerFirst(name)]; there {
			return Capital(said)
		}
		return "{" + name + "}"
	})
}

// Has reports whether there is a pattern of a key.
func (v *Voice) Has(key string) bool { return v.patterns[key] != "" }

// Noun is a noun's form for so many.
func (v *Voice) Noun(key string, n int) string {
	one, several, _ := strings.Cut(v.Say("noun."+key, nil), "|")
	if n == 1 {
		return strings.TrimSpace(one)
	}
	return strings.TrimSpace(several)
}

// Number is a count in words as far as they go, else in figures.
func (v *Voice) Number(n int) string {
	if key := "number." + strconv.Itoa(n); v.Has(key) {
		return v.Say(key, nil)
	}
	return strconv.Itoa(n)
}

// Nth is a place in a row.
func (v *Voice) Nth(n int) string { return v.Say("nth."+strconv.Itoa(n), nil) }

// Name is a name that a card's rows are given; a panel's is its number.
func (v *Voice) Name(name string) string {
	if n, err := strconv.Atoi(name); err == nil {
		return v.Say("panel", Fields{"n": strconv.Itoa(n)})
	}
	return v.Say("name."+name, nil)
}

// And puts words in a row: "a", "a and b", "a, b and c".
func (v *Voice) And(words []string) string {
	last := len(words) - 1
	if last < 1 {
		return strings.Join(words, "")
	}
	return v.Say("and", Fields{"some": strings.Join(words[:last], ", "), "last": words[last]})
}

// counts are all counts that are written in words, or figures.
func (v *Voice) counts() string {
	out := []string{`\d+`}
	for key, words := range v.patterns {
		if strings.HasPrefix(key, "number.") {
			out = append(out, regexp.QuoteMeta(words))
		}
	}
	return "(" + strings.Join(out, "|") + ")"
}

// Capital writes words with a capital.
func Capital(s string) string {
	r, n := utf8.DecodeRuneInString(s)
	return string(unicode.ToUpper(r)) + s[n:]
}

// Read finds the pattern that words were said by, of keys that begin so, and what was put
// into its fields: the one with the most words of its own where several fit.
func (v *Voice) Read(begins, said string) (key string, fields Fields, found bool) {
	for _, k := range v.keys {
		if !strings.HasPrefix(k, begins) {
			continue
		}
		if f, fits := v.ReadAs(k, said); fits {
			return k, f, true
		}
	}
	return "", nil, false
}

// ReadAs reads what was put into the fields of a pattern.
func (v *Voice) ReadAs(key, said string) (fields Fields, found bool) {
	r := v.reader(key)
	m := r.expression.FindStringSubmatch(said)
	if m == nil {
		return nil, false
	}
	fields = Fields{}
	for i, name := range r.names {
		fields[name] = m[i+1]
	}
	return fields, true
}

func (v *Voice) reader(key string) reader {
	if known, there := v.readers.Load(key); there {
		return known.(reader)
	}
	words := v.patterns[key]
	expression := regexp.QuoteMeta(words)
	var r reader
	for _, f := range field.FindAllString(words, -1) {
		name, what := lowerFirst(f[1:len(f)-1]), "([^.]+?)"
		switch {
		case name == "things" || name == "card":
			what = "(.+?)"
		case slices.Contains(measured, name):
			what = `([0-9](?:[0-9 /.,×]|in|mm|cm|and)*?)`
		case name == "count":
			what = v.counts()
		case name == "owner" || name == "owners":
			_, ends, _ := strings.Cut(v.patterns["owner"], "{name}")
			what = "(.+" + regexp.QuoteMeta(ends) + ")"
		}
		expression = strings.Replace(expression, regexp.QuoteMeta(f), what, 1)
		r.names = append(r.names, name)
	}
	r.expression = regexp.MustCompile("^" + expression + "$")
	v.readers.Store(key, r)
	return r
}
