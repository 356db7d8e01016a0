package pdf

import (
	_ "embed"
	"strings"
	"sync"
	"unicode/utf8"

	"golang.org/x/image/font/sfnt"
	"golang.org/x/text/unicode/bidi"
	"golang.org/x/text/unicode/norm"
)

//go:embed fonts/regular.ttf
var regular []byte

//go:embed fonts/semibold.ttf
var semibold []byte

// Fonts for names that the first does not have letters for.
var (
	//go:embed fonts/wide.ttf
	wide []byte
	//go:embed fonts/eastern.ttf
	eastern []byte
)

// family is the font that everything is set in which it has letters for.
const family = "sans"

// typeface is a font by what it covers.
type typeface struct {
	family string
	text   []byte
	font   *sfnt.Font
}

// typefaces are looked through in order: the house's, one for the scripts of
// Europe and the Near East, one for those of East Asia.
var typefaces = sync.OnceValue(func() []typeface {
	all := []typeface{{family, regular, nil}, {"wide", wide, nil}, {"eastern", eastern, nil}}
	for i := range all {
		font, err := sfnt.Parse(all[i].text)
		if err != nil {
			panic(err) // it ships with the program
		}
		all[i].font = font
	}
	return all
})

func (f typeface) has(r rune) bool {
	var b sfnt.Buffer
	i, err := f.font.GlyphIndex(&b, r)
	return err == nil && i != 0 && r <= 0xFFFF
}

// faceFor is the font that has most of a text's letters, and the text as it
// prints in it: right-to-left runs in the order they are seen, and letters that
// no font has without their accents, or as a dot of the same standing.
func faceFor(text string) (typeface, string) {
	all := typefaces()
	best, least := all[0], -1
	for _, f := range all {
		missing := 0
		for _, r := range text {
			if r > ' ' && !f.has(r) {
				missing++
			}
		}
		if least < 0 || missing < least {
			best, least = f, missing
		}
		if least == 0 {
			break
		}
	}
	return best, strings.Map(best.nearest, ordered(text))
}

func (f typeface) nearest(r rune) rune {
	if r <= ' ' || f.has(r) {
		return r
	}
	if base, _ := utf8.DecodeRuneInString(norm.NFD.String(string(r))); f.has(base) {
		return base
	}
	return '•'
}

// ordered puts the letters of right-to-left scripts in the order in which they
// are printed from the left.
func ordered(text string) string {
	if !strings.ContainsFunc(text, func(r rune) bool {
		p, _ := bidi.LookupRune(r)
		return p.Class() == bidi.R || p.Class() == bidi.AL
	}) {
		return text
	}
	var p bidi.Paragraph
	if _, err := p.SetString(text, bidi.DefaultDirection(bidi.LeftToRight)); err != nil {
		return text
	}
	order, err := p.Order()
	if err != nil {
		return text
	}
	var b strings.Builder
	for i := range order.NumRuns() {
		run := order.Run(i)
		if run.Direction() == bidi.RightToLeft {
			b.WriteString(bidi.ReverseString(run.String()))
		} else {
			b.WriteString(run.String())
		}
	}
	return b.String()
}

// SetFont is fpdf's; what is set is kept, to come back to after a text in
// another font.
func (c *canvas) SetFont(name, style string, size float64) {
	c.style, c.size = style, size
	c.Fpdf.SetFont(name, style, size)
}

// in sets a text in the font that has its letters, and does something with it.
func (c *canvas) in(text string, do func(text string)) {
	face, as := faceFor(text)
	if face.family == family {
		do(as)
		return
	}
	if !c.added[face.family] {
		c.added[face.family] = true
		c.AddUTF8FontFromBytes(face.family, "", face.text)
	}
	c.Fpdf.SetFont(face.family, "", c.size)
	do(as)
	c.Fpdf.SetFont(family, c.style, c.size)
}

// CellFormat, Text, SplitText, MultiCell and GetStringWidth are fpdf's, for any text.
func (c *canvas) CellFormat(w, h float64, text, border string, ln int, align string, fill bool, link int, url string) {
	c.in(text, func(text string) { c.Fpdf.CellFormat(w, h, text, border, ln, align, fill, link, url) })
}

// Text prints at a place.
func (c *canvas) Text(x, y float64, text string) {
	c.in(text, func(text string) { c.Fpdf.Text(x, y, text) })
}

// SplitText breaks a text into lines of a width.
func (c *canvas) SplitText(text string, w float64) (lines []string) {
	c.in(text, func(text string) { lines = c.Fpdf.SplitText(text, w) })
	return lines
}

// MultiCell prints a paragraph.
func (c *canvas) MultiCell(w, h float64, text, border, align string, fill bool) {
	c.in(text, func(text string) { c.Fpdf.MultiCell(w, h, text, border, align, fill) })
}

// GetStringWidth is how wide a text prints, mm.
func (c *canvas) GetStringWidth(text string) (wide float64) {
	c.in(text, func(text string) { wide = c.Fpdf.GetStringWidth(text) })
	return wide
}
