package reading

import (
	"cmp"
	"regexp"
	"strconv"
	"strings"
	"unicode/utf8"

	"brevium/core/measure"
)

// kind of a token.
type kind int

const (
	word kind = iota
	number
	mark // one sign: a comma, a stop, the end of a line
)

// token is a word, a number or a sign of the text, with where it stands in it.
type token struct {
	kind     kind
	text     string // in small letters; of a number as it was typed
	from, to int    // bytes
	// A number is over/under of a unit; no unit is said where it is "".
	over, under int64
	unit        measure.Unit
	fraction    bool // typed as one
	spelled     bool // in words
	loose       bool // its unit may be the word in: "7 in from every edge"
	// parted is a number with a comma that may part two: "5,8".
	parted bool
}

// length is a number in its unit, or in another where it has none.
func (t token) length(usual measure.Unit) measure.Length {
	u := t.unit
	if u == "" {
		u = usual
	}
	nm := map[measure.Unit]int64{measure.In: int64(measure.Inch), measure.CM: int64(measure.Centimetre), measure.MM: int64(measure.Millimetre)}[u]
	return measure.Length((2*nm*t.over + t.under) / (2 * t.under))
}

// whole reports whether it is a whole number, and gives it.
func (t token) whole() (int, bool) {
	if t.kind != number || t.under == 0 || t.over%t.under != 0 {
		return 0, false
	}
	return int(t.over / t.under), true
}

// glyphs are fractions of one sign.
var glyphs = map[rune][2]int64{'½': {1, 2}, '⅓': {1, 3}, '⅔': {2, 3}, '¼': {1, 4}, '¾': {3, 4}, '⅛': {1, 8}, '⅜': {3, 8}, '⅝': {5, 8}, '⅞': {7, 8}}

var (
	digits   = regexp.MustCompile(`^(\d{1,5})(?:(?: |-)(\d{1,3})[/⁄](\d{1,3})|[/⁄](\d{1,3})| ?([½⅓⅔¼¾⅛⅜⅝⅞])|\.(\d{1,4}))?`)
	pointed  = regexp.MustCompile(`^\.(\d{1,4})`)
	comma    = regexp.MustCompile(`^(\d{1,4}),(\d{1,3})(?:\D|$)`)
	commaFor = regexp.MustCompile(`\d,\d{1,3}\s*(?:x|×|by |cm|mm)|(?:x|×)\s*\d{1,4},\d|\d,\d{1,2}\s*/|/\s*\d{1,4},\d|\d,\d{1,2}, \d`)
	unitWord = regexp.MustCompile(`(?i)^[\s-]?(inches|inch|ins|in|″|"|''|cms|cm|centimetres|centimeters|centimetre|centimeter|mm|millimetres|millimeters|millimetre|millimeter)`)
	letters  = regexp.MustCompile(`^[\p{L}'’]+`)
	formats  = regexp.MustCompile(`^[aAbB]\d\b`) // of a sheet: A4
)

// longest is how much text is read, in bytes; a design keeps as much.
const longest = 8_000

// lexer parts texts of one recipe into tokens: what its commas are, and what is spoken in it, is
// told by all of it.
type lexer struct {
	commas  bool // are decimal ones
	guessed bool // between digits they are likely so
	tongue  *tongue
}

func lexerOf(text string) lexer {
	x := lexer{commas: commaFor.MatchString(text), tongue: spoken(text)}
	x.guessed = !x.commas && metric.MatchString(text)
	return x
}

// lex parts a text into tokens, in the words of the grammar.
func (x lexer) lex(text string) []token {
	toks := x.cut(text)
	if x.tongue != nil {
		toks = x.tongue.translated(toks)
	}
	return reckoned(spelled(toks))
}

// cut parts a text into its words, numbers and signs.
func (x lexer) cut(text string) []token {
	var out []token
	for at := 0; at < len(text); {
		rest := text[at:]
		r, size := utf8.DecodeRuneInString(rest)
		switch {
		case r == '\n':
			out = append(out, token{kind: mark, text: "\n", from: at, to: at + 1})
			at++
		case strings.HasPrefix(rest, "..") || r == '…': // a pause, no end
			n := max(size, len(rest)-len(strings.TrimLeft(rest, ".")))
			out = append(out, token{kind: mark, text: "…", from: at, to: at + n})
			at += n
		case r == ' ' || r == '\t' || r == '\r' || r == '\u00a0':
			at += size
		default:
			t := one(begin(rest), x.commas)
			if m := tenth.FindStringSubmatch(begin(rest)); x.guessed && m != nil {
				t = decimal(m[1]+","+m[2], m[1], m[2])
				t.parted = true
			}
			t.from, t.to = at, at+len(t.text)
			t.text = strings.ToLower(t.text)
			at = t.to
			if t.kind == number {
				if u := unitAfter(begin(text[at:])); u != "" {
					t.unit, at = unitOf(strings.ToLower(strings.Trim(u, " -\t\r\n"))), at+len(u)
					t.to = at
					t.loose = strings.TrimSpace(u) == "in" && inFrom.MatchString(begin(text[at:]))
				}
			}
			out = append(out, t)
		}
	}
	return out
}

// metric tells that a text counts in centimetres or millimetres; tenth is a number with a decimal
// comma that nothing else follows.
var (
	metric = regexp.MustCompile(`(?:\d\s*|\b)(?:cm|mm|centimet\w+|millimet\w+)\b`)
	tenth  = regexp.MustCompile(`^(\d{1,4}),(\d)(?:[^\d,]|,[^\d]|$)`)
)

// begin is enough of a text for its first token: what is matched costs by its length.
func begin(text string) string {
	n := min(len(text), 80)
	for n < len(text) && !utf8.RuneStart(text[n]) {
		n++
	}
	return text[:n]
}

// one is the token that a text begins with.
func one(rest string, commas bool) token {
	if commas {
		if m := comma.FindStringSubmatch(rest); m != nil {
			return decimal(m[1]+","+m[2], m[1], m[2])
		}
	}
	if m := digits.FindStringSubmatch(rest); m != nil {
		whole, _ := strconv.ParseInt(m[1], 10, 64) // a few digits
		t := token{kind: number, text: m[0], over: whole, under: 1}
		switch {
		case m[3] != "":
			t.over, t.under, t.fraction = mixed(whole, m[2], m[3])
		case m[4] != "":
			t.over, t.under, t.fraction = mixed(0, m[1], m[4])
		case m[5] != "":
			f := glyphs[[]rune(m[5])[0]]
			t.over, t.under, t.fraction = whole*f[1]+f[0], f[1], true
		case m[6] != "":
			return decimal(m[0], m[1], m[6])
		}
		return t
	}
	if m := pointed.FindStringSubmatch(rest); m != nil {
		return decimal(m[0], "0", m[1])
	}
	r, size := utf8.DecodeRuneInString(rest)
	if f, is := glyphs[r]; is {
		return token{kind: number, text: rest[:size], over: f[0], under: f[1], fraction: true}
	}
	if (r == 'x' || r == 'X') && len(rest) > 1 && !letters.MatchString(rest[1:2]) {
		return token{kind: mark, text: "x"}
	}
	if m := formats.FindString(rest); m != "" {
		return token{kind: word, text: m}
	}
	if m := letters.FindString(rest); m != "" {
		return token{kind: word, text: m}
	}
	if r == '×' {
		return token{kind: mark, text: rest[:size]}
	}
	return token{kind: mark, text: rest[:size]}
}

func mixed(whole int64, over, under string) (int64, int64, bool) {
	o, _ := strconv.ParseInt(over, 10, 64)
	u, _ := strconv.ParseInt(under, 10, 64)
	if u == 0 {
		return whole, 0, true // refused where it is used
	}
	return whole*u + o, u, true
}

func decimal(text, whole, part string) token {
	under := int64(1)
	for range part {
		under *= 10
	}
	w, _ := strconv.ParseInt(whole, 10, 64)
	p, _ := strconv.ParseInt(part, 10, 64)
	return token{kind: number, text: text, over: w*under + p, under: under}
}

// unitAfter is the unit that follows a number, with the space before it; "in" before
// "from" and the like is one, too.
func unitAfter(rest string) string {
	u := unitWord.FindString(rest)
	if u == "" {
		return ""
	}
	if next := rest[len(u):]; letters.MatchString(next) && letters.MatchString(strings.TrimLeft(u, " -\t\r\n")) {
		return "" // the beginning of a word
	}
	// "8 in. x 6 in.": a stop that ends no sentence.
	if next := rest[len(u):]; strings.TrimSpace(u) == "in" && goesOn.MatchString(next) {
		u += "."
	}
	return u
}

// goesOn is a stop after which a sentence goes on.
var goesOn = regexp.MustCompile(`^\.\s*(?:x|×|by|,|and|from|on|all|each|\d+(?:[^.\d]|\.\d|$)|\(|\))`)

// inFrom is what follows where "in" need be no inches: "7 in from every edge".
var inFrom = regexp.MustCompile(`^\s(?:from|on|along|at|around|all|each|every)\b`)

// alone are units as words of their own: "all in mm".
var alone = map[string]measure.Unit{"cm": measure.CM, "centimetres": measure.CM, "centimeters": measure.CM, "mm": measure.MM, "millimetres": measure.MM, "millimeters": measure.MM, "inches": measure.In}

// long are units as they follow a number in words.
var long = set("inch inches centimetre centimetres centimeter centimeters cm millimetre millimetres millimeter millimeters mm")

func unitOf(text string) measure.Unit {
	switch {
	case strings.HasPrefix(text, "c"):
		return measure.CM
	case strings.HasPrefix(text, "m"):
		return measure.MM
	}
	return measure.In
}

// counts and parts are numbers in words.
var (
	counts = map[string]int64{"pair": 2, "couple": 2, "dozen": 12, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9, "ten": 10, "eleven": 11, "twelve": 12}
	parts  = map[string]int64{"half": 2, "halves": 2, "third": 3, "thirds": 3, "quarter": 4, "quarters": 4, "eighth": 8, "eighths": 8, "sixteenth": 16, "sixteenths": 16, "thirty-second": 32}
)

// spelled puts numbers in words together: "one and a half", "three quarters", "a
// sixteenth of an inch". A quarter that something is turned by is none, nor is "the third".
func spelled(in []token) []token {
	var out []token
	is := func(i int, words ...string) bool {
		if i < 0 || i >= len(in) || in[i].kind != word {
			return false
		}
		for _, w := range words {
			if in[i].text == w {
				return true
			}
		}
		return false
	}
	for i := 0; i < len(in); {
		t := in[i]
		n, j := int64(-1), i
		if c, known := counts[t.text]; known && t.kind == word {
			n, j = c, i+1
		} else if k, whole := t.whole(); whole && t.unit == "" && is(i+1, "and") {
			n, j = int64(k), i+1 // "6 and a sixteenth", "3 and 3/8"; "one and 1/2" goes the same way
		}
		over, under := int64(0), int64(1)
		end := j
		part := func(k int) bool {
			if k < len(in) && in[k].kind == number && in[k].fraction && in[k].over < in[k].under && in[k].under > 0 {
				over, under, end = in[k].over, in[k].under, k+1
				return true
			}
			many := int64(1)
			if is(k, "a", "an") {
				k++
			} else if k < len(in) && in[k].kind == word && counts[in[k].text] > 0 {
				many, k = counts[in[k].text], k+1
			}
			if k >= len(in) || in[k].kind != word || parts[in[k].text] == 0 {
				return false
			}
			if in[k].text == "quarter" && (is(k+1, "turn") || is(k-2, "turn", "rotate", "it", "card", "round") || is(k-1, "turn")) {
				return false
			}
			if is(k-1, "the") && is(k, "third", "eighth", "sixteenth") {
				return false // one of several things
			}
			over, under, end = many, parts[in[k].text], k+1
			return true
		}
		// "an inch", "an inch and a half"; "each one" counts no lengths.
		if is(i, "a", "an") && is(i+1, "inch") {
			n, j = 1, i+2
			if !is(j, "and") || !part(j+1) {
				out = append(out, token{kind: number, text: t.text, from: t.from, to: in[i+1].to, over: 1, under: 1, unit: measure.In, spelled: true})
				i += 2
				continue
			}
		}
		if t.kind == word && long[t.text] && is(i-1, "every") {
			out = append(out, token{kind: number, text: t.text, from: t.from, to: t.to, over: 1, under: 1, unit: unitOf(t.text), spelled: true})
			i++
			continue
		}
		if is(i, "one") && is(i-1, "each", "every", "this", "that", "the", "second", "first", "other") ||
			is(i, "one") && i+1 < len(in) && in[i+1].kind == word && (noun(in[i+1].text) != "" || scores[in[i+1].text] || is(i+1, "of", "more", "time", "side", "end", "corner", "long", "short")) {
			n = -1
		}
		switch {
		case n > 0 && is(j, "and") && part(j+1):
			over += n * under
		case n > 0 && t.kind == number: // a number that goes on in no words
			out = append(out, t)
			i++
			continue
		case n > 0 && part(i):
		case n > 0:
			over = n
		case t.kind == word && part(i):
		default:
			out = append(out, t)
			i++
			continue
		}
		x := token{kind: number, text: t.text, from: t.from, to: in[end-1].to, over: over, under: under, fraction: under > 1, spelled: true}
		if is(end, "a", "of") && end+1 < len(in) && long[in[end+1].text] {
			end++ // "half a centimetre"
		}
		for is(end, "of", "an") {
			if !is(end+1, "an", "inch") && !is(end, "an") {
				break
			}
			end++
		}
		if j == i+2 {
			x.unit = measure.In
		}
		if end < len(in) && in[end].kind == word && long[in[end].text] {
			x.unit, x.to, end = unitOf(in[end].text), in[end].to, end+1
		}
		if in[end-1].kind == number && in[end-1].unit != "" {
			x.unit = in[end-1].unit
		}
		out = append(out, x)
		i = end
	}
	return out
}

// reckoned takes a number from another where the text does: "8 1/2 less a quarter", "11
// in minus 1/2".
func reckoned(in []token) []token {
	var out []token
	for i := 0; i < len(in); i++ {
		t := in[i]
		if t.kind == number && t.under > 0 && i+2 < len(in) && in[i+1].kind == word && (in[i+1].text == "minus" || in[i+1].text == "less") {
			by := in[i+2]
			u := cmp.Or(t.unit, by.unit)
			if by.kind == number && by.under > 0 && t.under*by.under <= 10_000 && (by.unit == "" || by.unit == u) && t.over*by.under > by.over*t.under {
				t.over, t.under, t.unit = t.over*by.under-by.over*t.under, t.under*by.under, u
				t.fraction, t.to = t.fraction || by.fraction, by.to
				i += 2
			}
		}
		out = append(out, t)
	}
	return out
}
