package paper

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Look is how a card is seen: the colour of its outside and of its inside, and
// what is printed on the outside. The zero Look is taken from the card's name.
type Look struct {
	Outside, Inside Colour
	Print           Print
	Inks            [MostInks]Colour // what the print is drawn in, on the outside's colour
	Scale           measure.Length   // of one repeat of the print
	Turn            int              // of the print, in degrees with the clock: 0, 45 or 90
	Photo           Photo
}

// MostInks is how many colours a print has beside the paper's own.
const MostInks = 3

// Photo is a picture of a real paper, kept elsewhere by its ID; Wide and High
// say how large a piece of paper it shows. It lies over the print.
type Photo struct {
	ID         string
	Wide, High measure.Length
}

// Colour is "#rrggbb" in small letters; "" is not said.
type Colour string

// White is paper as it comes.
const White Colour = "#fffdf8"

// ParseColour reads "#rrggbb", in letters of any size.
func ParseColour(text string) (Colour, error) {
	s := strings.ToLower(strings.TrimSpace(text))
	if len(s) == 7 && s[0] == '#' && strings.Trim(s[1:], "0123456789abcdef") == "" {
		return Colour(s), nil
	}
	return "", fault.New(fault.NotAColour, "", "%q is not a colour; write one as # and six digits, such as #7a2355", text)
}

// rgb gives the three parts of a colour, 0 to 255.
func (c Colour) rgb() (r, g, b int) {
	all, err := strconv.ParseUint(strings.TrimPrefix(string(c), "#"), 16, 24)
	if err != nil {
		return 255, 253, 248
	}
	return int(all >> 16), int(all >> 8 & 255), int(all & 255)
}

// Shadow is what a shade turns a colour to.
const Shadow Colour = "#33261a"

// Shaded is the colour in a shade: part of its light, 0 to 1, is missing.
func (c Colour) Shaded(part float64) Colour {
	return c.Mixed(Shadow, part)
}

// Mixed is the colour so far, 0 to 1, towards another.
func (c Colour) Mixed(other Colour, far float64) Colour {
	r, g, b := c.rgb()
	x, y, z := other.rgb()
	of := func(v, w int) int { return int(float64(v) + (float64(w)-float64(v))*far + 0.5) }
	return Colour(fmt.Sprintf("#%02x%02x%02x", of(r, x), of(g, y), of(b, z)))
}

// Light is how bright a colour looks, 0 to 1 (the weights of ITU-R BT.601).
func (c Colour) Light() float64 {
	r, g, b := c.rgb()
	return (0.299*float64(r) + 0.587*float64(g) + 0.114*float64(b)) / 255
}

// Print is a pattern that is drawn by its name.
type Print string

// The prints; Plain is one colour.
const (
	Plain    Print = "plain"
	Stripes  Print = "stripes"
	Pinlines Print = "pin-lines"
	Dots     Print = "dots"
	Checks   Print = "checks"
	Gingham  Print = "gingham"
	Tartan   Print = "tartan"
	Stars    Print = "stars"
	Sprigs   Print = "sprigs"
	Waves    Print = "waves"
	Zigzag   Print = "zigzag"
	Diamonds Print = "diamonds"
	Fleck    Print = "kraft-fleck"
)

// Prints lists the prints in the order they are offered.
var Prints = []Print{Plain, Stripes, Pinlines, Dots, Checks, Gingham, Tartan, Stars, Sprigs, Waves, Zigzag, Diamonds, Fleck}

// Direction is that of a paper with the print on it, not turned.
func (p Print) Direction() Direction {
	switch p {
	case Sprigs:
		return OneWayUp
	case Stripes, Pinlines, Waves, Zigzag:
		return TwoWays
	}
	return NoDirection
}

// Inks is how many colours a print is drawn in, on that of the paper.
func (p Print) Inks() int {
	switch p {
	case Plain, "":
		return 0
	case Checks, Gingham:
		return 1
	case Tartan, Stars, Fleck:
		return MostInks
	}
	return 2
}

// Limits of a look.
const (
	LeastScale = 2 * measure.Millimetre
	MostScale  = 150 * measure.Millimetre
	LeastPhoto = 5 * measure.Millimetre
	MostPhoto  = 1000 * measure.Millimetre

	LongestPhotoID = 64 // letters
)

// UsualScale is the repeat of a print that says none.
const UsualScale = 12 * measure.Millimetre

// Turns are the ways a print may be turned, in degrees.
var Turns = []int{0, 45, 90}

// Check refuses a look that cannot be drawn, naming the field.
func (l Look) Check() error {
	for i, c := range append([]Colour{l.Outside, l.Inside}, l.Inks[:]...) {
		if c == "" {
			continue
		}
		if _, err := ParseColour(string(c)); err != nil {
			return fault.At([]string{"outside", "inside", "inks[0]", "inks[1]", "inks[2]"}[i], err)
		}
	}
	switch {
	case l.Print != "" && !slices.Contains(Prints, l.Print):
		return fault.New(fault.UnknownPrint, "print", "%q is not a print; use one of %v", l.Print, Prints)
	case l.Scale != 0 && (l.Scale < LeastScale || l.Scale > MostScale):
		return fault.New(fault.ScaleRange, "scale", "a print repeats every 2 to 150 mm")
	case !slices.Contains(Turns, l.Turn):
		return fault.New(fault.ScaleRange, "turn", "a print is turned by 0, 45 or 90 degrees")
	case l.Photo.ID == "":
		return nil
	case strings.Trim(l.Photo.ID, "0123456789abcdef") != "" || len(l.Photo.ID) > LongestPhotoID:
		return fault.New(fault.Invalid, "photo.id", "a photograph's id is up to %d of the digits 0 to f", LongestPhotoID)
	case min(l.Photo.Wide, l.Photo.High) < LeastPhoto || max(l.Photo.Wide, l.Photo.High) > MostPhoto:
		return fault.New(fault.ScaleRange, "photo.wide", "a photograph shows 5 to 1000 mm of paper each way")
	}
	return nil
}

// Seen is the card's look with nothing left unsaid: what its name tells, such as
// "plum dots", and else plain white.
func (c Card) Seen() Look {
	l, told := c.Look, named(c.Name)
	if l == (Look{}) {
		l = told
	}
	if l.Outside == "" {
		l.Outside = orElse(told.Outside, White)
	}
	if l.Inside == "" {
		l.Inside = orElse(told.Inside, White)
	}
	if l.Print == "" {
		l.Print = Plain
	}
	if l.Scale == 0 {
		l.Scale = UsualScale
	}
	usual := inksOn(l.Outside)
	if l.Outside == told.Outside && told.Inks[0] != "" {
		usual = told.Inks
	}
	for i := range l.Inks {
		l.Inks[i] = orElse(l.Inks[i], usual[i])
	}
	return l
}

func orElse(c, other Colour) Colour {
	if c == "" {
		return other
	}
	return c
}

// inksOn are three inks that are seen on a colour: towards white on a dark one,
// towards black on a light one.
func inksOn(ground Colour) [MostInks]Colour {
	if ground.Light() < 0.55 {
		return [MostInks]Colour{"#f6ead2", "#e3bf74", "#ffffff"}
	}
	return [MostInks]Colour{ground.Shaded(0.38), ground.Shaded(0.2), ground.Shaded(0.62)}
}

// usualLooks are those of prints of which nothing but the kind is told.
var usualLooks = map[Print]Look{
	Stripes:  {Outside: "#f7f0e2", Inks: [MostInks]Colour{"#3d7c80", "#c9a13b"}},
	Pinlines: {Outside: "#f3eee4", Inks: [MostInks]Colour{"#5b6670", "#a9532e"}},
	Dots:     {Outside: "#f7e4df", Inks: [MostInks]Colour{"#b23331", "#ffffff"}},
	Checks:   {Outside: "#f5f2e8", Inks: [MostInks]Colour{"#41764f"}},
	Gingham:  {Outside: "#fdfaf4", Inks: [MostInks]Colour{"#b23331"}},
	Tartan:   {Outside: "#8c2f34", Inks: [MostInks]Colour{"#2c513e", "#e3c878", "#f5e9cd"}},
	Stars:    {Outside: "#2b3a63", Inks: [MostInks]Colour{"#e8c66a", "#f6ead2", "#ffffff"}},
	Sprigs:   {Outside: "#f6efdd", Inks: [MostInks]Colour{"#3f7350", "#b23331"}},
	Waves:    {Outside: "#e4eff2", Inks: [MostInks]Colour{"#3f6ea8", "#7fb2c9"}},
	Zigzag:   {Outside: "#f7f1e4", Inks: [MostInks]Colour{"#d9752c", "#5b6670"}},
	Diamonds: {Outside: "#efe6f1", Inks: [MostInks]Colour{"#6a4d94", "#e3bf74"}},
}

// named is the look a card's name tells of.
func named(name string) Look {
	var l Look
	for _, word := range strings.FieldsFunc(strings.ToLower(name), func(r rune) bool { return r == ' ' || r == '-' || r == ',' }) {
		if c, ok := colourWords[word]; ok && l.Outside == "" {
			l.Outside, l.Inside = c, c
		}
		if p, ok := printWords[word]; ok && l.Print == "" {
			l.Print = p
		}
	}
	if l.Print != "" && l.Print != Plain { // printed paper is white behind
		l.Inside = White
	}
	if l.Print == Fleck && l.Outside == "" {
		l.Outside = colourWords["kraft"]
	}
	if usual, is := usualLooks[l.Print]; is && l.Outside == "" {
		l.Outside, l.Inks = usual.Outside, usual.Inks
	}
	if l.Print == Fleck { // in the pulp, not on it
		l.Inside = l.Outside
		l.Inks = [MostInks]Colour{l.Outside.Shaded(0.38), l.Outside.Shaded(0.2), l.Outside.Mixed(White, 0.5)}
	}
	return l
}

// colourWords are the names cards go by.
var colourWords = map[string]Colour{
	"white": White, "snow": "#fbfbf7", "ivory": "#f8f0dc", "cream": "#f5e9cd", "butter": "#f3dd93", "linen": "#e9dec8", "oat": "#dccbab",
	"sand": "#dcc59b", "kraft": "#c09a6b", "straw": "#e3c878", "honey": "#d99a2b", "gold": "#c9a13b", "yellow": "#ecc53f", "orange": "#d9752c",
	"apricot": "#eeb583", "peach": "#f0c0a0", "coral": "#e07a66", "red": "#b23331", "poppy": "#c4382c", "rust": "#a9532e", "brick": "#9d4636",
	"copper": "#a8663c", "rose": "#d58b99", "pink": "#ecbcc6", "berry": "#943157", "plum": "#6b3158", "wine": "#6c2338", "lilac": "#bba6d1",
	"lavender": "#b4a8d6", "violet": "#6a4d94", "purple": "#65408a", "navy": "#26365c", "blue": "#3f6ea8", "sky": "#a5cbe2", "ice": "#d8e8ee",
	"teal": "#2f7a7a", "mint": "#b6dbc7", "sage": "#a7b497", "moss": "#76854a", "green": "#41764f", "fern": "#5c8a4e", "pine": "#2c513e",
	"olive": "#7c7a3c", "brown": "#7a5238", "chestnut": "#6d4029", "oak": "#a67f53", "slate": "#5b6670", "grey": "#9a9a98", "gray": "#9a9a98",
	"silver": "#c6c9cc", "stone": "#c9c4b9", "charcoal": "#45454a", "black": "#2c2a2d",
}

// printWords are the names patterns go by.
var printWords = map[string]Print{
	"plain": Plain, "stripe": Stripes, "stripes": Stripes, "striped": Stripes, "dot": Dots, "dots": Dots, "dotted": Dots,
	"check": Checks, "checks": Checks, "checked": Checks, "gingham": Gingham, "tartan": Tartan, "star": Stars, "stars": Stars,
	"sprig": Sprigs, "sprigs": Sprigs, "leaf": Sprigs, "leaves": Sprigs, "holly": Sprigs, "wave": Waves, "waves": Waves,
	"zigzag": Zigzag, "diamond": Diamonds, "diamonds": Diamonds, "fleck": Fleck, "flecked": Fleck, "kraft": Fleck,
}
