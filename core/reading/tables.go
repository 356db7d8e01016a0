package reading

import (
	"regexp"
	"strings"

	"brevium/core/measure"
)

// column is what a column of a table tells, by its heading.
type column int

const (
	nothing column = iota
	ofName
	ofSide // one side of the blank; there are two
	ofSizes
	ofScores
	ofCopies
)

// headings are the words that a column begins with.
var headings = map[string]column{
	"piece": ofName, "part": ofName, "name": ofName, "item": ofName, "what": ofName, "teil": ofName, "pièce": ofName,
	"width": ofSide, "w": ofSide, "height": ofSide, "h": ofSide, "length": ofSide, "l": ofSide, "breite": ofSide, "höhe": ofSide, "länge": ofSide, "largeur": ofSide, "hauteur": ofSide, "longueur": ofSide,
	"size": ofSizes, "blank": ofSizes, "cut": ofSizes, "card": ofSizes, "sheet": ofSizes, "größe": ofSizes, "format": ofSizes, "taille": ofSizes,
	"score": ofScores, "scores": ofScores, "scored": ofScores, "crease": ofScores, "creases": ofScores, "rillen": ofScores, "plis": ofScores,
	"count": ofCopies, "qty": ofCopies, "quantity": ofCopies, "copies": ofCopies, "number": ofCopies, "anzahl": ofCopies, "nombre": ofCopies,
}

// table is how the rows of a table are parted, and what its columns tell.
type table struct {
	parts   string
	columns []column
	units   []measure.Unit
}

var (
	inBrackets = regexp.MustCompile(`\(\s*(cm|mm|in|inches)\s*\)`)
	ruled      = regexp.MustCompile(`^[\s|:+-]+$`)
)

// mostHeading is how many words a heading has.
const mostHeading = 3

// headed reads the heading of a table; nil where a line is none. It tells a size and something else.
func headed(line string) *table {
	for _, parts := range []string{"|", "\t", ";", ","} {
		if strings.Count(line, parts) < 1 || strings.ContainsAny(line, "0123456789") {
			continue
		}
		t := &table{parts: parts}
		sides, sizes, others, sentence := 0, 0, 0, false
		for _, cell := range strings.Split(line, parts) {
			cell = strings.ToLower(strings.TrimSpace(cell))
			kind, unit := nothing, measure.Unit("")
			f := strings.Fields(cell)
			if len(f) > 0 {
				kind = headings[f[0]]
			}
			sentence = sentence || len(f) > mostHeading
			if m := inBrackets.FindStringSubmatch(cell); m != nil {
				unit = unitOf(m[1])
			}
			switch kind {
			case ofSide:
				sides++
			case ofSizes:
				sizes++
			case ofName, ofScores, ofCopies:
				others++
			}
			t.columns, t.units = append(t.columns, kind), append(t.units, unit)
		}
		if !sentence && others > 0 && (sizes == 1 && sides == 0 || sides == 2 && sizes == 0) {
			return t
		}
	}
	return nil
}

// tokens parts a text into tokens; the rows of a table are put into the words of a sentence:
// "4 panel: 2 x 1, score 1/2 all sides".
func tokens(text string) []token {
	var out []token
	x := lexerOf(text)
	plain := 0 // where what is no table begins
	flush := func(to int) {
		out = append(out, shifted(x.lex(text[plain:to]), plain)...)
		plain = to
	}
	var now *table
	for at := 0; at < len(text); {
		end := len(text)
		if k := strings.IndexByte(text[at:], '\n'); k >= 0 {
			end = at + k
		}
		line := text[at:end]
		switch {
		case now == nil:
			if now = headed(line); now != nil {
				flush(at)
				plain = end
			}
		case ruled.MatchString(line) && strings.TrimSpace(line) != "":
			plain = end
		case strings.Count(line, now.parts) > 0:
			out = append(out, now.row(text, at, end, x)...)
			plain = end
		default:
			now = nil
		}
		at = end + 1
	}
	flush(len(text))
	return out
}

func shifted(toks []token, by int) []token {
	for i := range toks {
		toks[i].from += by
		toks[i].to += by
	}
	return toks
}

// row puts a row into the order of a sentence. What stands in a column of another heading is read
// behind it, as it is.
func (t *table) row(text string, at, end int, x lexer) []token {
	cells := map[column][][]token{}
	for i, cell := range strings.Split(text[at:end], t.parts) {
		toks := shifted(x.lex(cell), at)
		kind := nothing
		if i < len(t.columns) {
			kind = t.columns[i]
			for k := range toks {
				if toks[k].kind == number && toks[k].unit == "" && kind != ofCopies {
					toks[k].unit = t.units[i]
				}
			}
		}
		if len(toks) > 0 {
			cells[kind] = append(cells[kind], toks)
		}
		at += len(cell) + len(t.parts)
	}
	var out []token
	sign := func(kind kind, text string) { out = append(out, token{kind: kind, text: text, from: end, to: end}) }
	put := func(kind column, between string) {
		for i, toks := range cells[kind] {
			if i > 0 {
				sign(mark, between)
			}
			out = append(out, toks...)
		}
	}
	put(ofCopies, ",")
	put(ofName, " ")
	if len(out) > 0 {
		sign(mark, ":")
	}
	put(ofSizes, ",")
	put(ofSide, "x")
	if len(cells[ofScores]) > 0 {
		sign(mark, ",")
		sign(word, "score")
		put(ofScores, ",")
	}
	if len(cells[nothing]) > 0 {
		sign(mark, ".")
		put(nothing, ",")
	}
	sign(mark, "\n")
	return out
}
