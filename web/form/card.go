package form

import (
	"cmp"
	"fmt"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
)

// CardView is a card as a ticket asks about it: chosen from a shelf by how it
// looks, or told field by field.
type CardView struct {
	At           string
	Card         paper.Card
	Fields, Look []Field
	Wrong        bool // a field of it could not be taken
	Shelf        []paper.Card
	// Better is the same card with a thickness that is known better; nil for none.
	Better *paper.Card
}

// photoPrint stands among the prints for the photograph of a paper.
const photoPrint = "photograph"

// CardView asks for the card whose fields are named after at.
func (f *Form) CardView(at string, c paper.Card, shelf []paper.Card) CardView {
	v := CardView{At: at, Card: c, Shelf: shelf}
	v.Fields = []Field{
		f.Control(at+".name", "Card or paper", "its name", c.Name),
		f.Control(at+".gsm", "Weight", "gsm, or 80 lb cover", fmt.Sprintf("%g", c.GSM)),
		f.Control(at+".thickness", "Thickness, mm", c.ThicknessFrom()+"; ten sheets together are best, as in 3.05 for 10", c.ThicknessText()),
		DirectionField(f, at+".direction", c.Direction),
		GrainField(f, at+".grain", c.Grain),
		FinishField(f, at+".finish", c.Finish),
	}
	v.Look = f.LookFields(at+".look", c)
	for _, x := range shelf {
		if strings.EqualFold(x.Name, c.Name) && x.GSM == c.GSM && x.Measured > c.Measured && x.Thickness != c.Thickness {
			known := c.Measures(x)
			v.Better = &known
		}
	}
	for _, x := range slices.Concat(v.Fields, v.Look) {
		v.Wrong = v.Wrong || x.Fault != "" || x.Clash != nil
	}
	return v
}

// LookFields asks how a card looks: its colours, and what is printed on it.
func (f *Form) LookFields(at string, c paper.Card) []Field {
	seen := c.Seen()
	colour := func(name, label string, stored paper.Colour) Field {
		x := f.Control(at+"."+name, label, "", string(stored))
		x.Kind = "color"
		return x
	}
	prints, print := Plain(asStrings(paper.Prints)...), string(seen.Print)
	if seen.Photo.ID != "" {
		prints, print = append(prints, Choice{Value: photoPrint, Label: "The photograph"}), photoPrint
	}
	out := []Field{
		f.ChoiceField(at+".print", "Printed with", "", print, prints...),
		colour("outside", "Outside", seen.Outside),
		colour("inside", "Inside", seen.Inside),
	}
	if print == photoPrint {
		return out
	}
	for i := range seen.Print.Inks() {
		out = append(out, colour("ink"+strconv.Itoa(i+1), fmt.Sprintf("Ink %d", i+1), seen.Inks[i]))
	}
	if seen.Print != paper.Plain {
		out = append(out,
			f.ThicknessField(at+".scale", "Repeats every", "", seen.Scale),
			f.ChoiceField(at+".turn", "The print is", "", strconv.Itoa(seen.Turn),
				Choice{Value: "0", Label: "Upright"}, Choice{Value: "45", Label: "Slanting"}, Choice{Value: "90", Label: "Lying"}))
	}
	return out
}

func asStrings[S ~string](all []S) []string {
	var out []string
	for _, s := range all {
		out = append(out, string(s))
	}
	return out
}

// cardFields are the names of a card's fields.
var cardFields = []string{"name", "gsm", "thickness", "direction", "grain", "finish"}

// lookFields are those of its look.
var lookFields = []string{"print", "outside", "inside", "ink1", "ink2", "ink3", "scale", "turn"}

// ForgetCard lets go of what was posted about a card.
func (f *Form) ForgetCard(at string) {
	for _, name := range cardFields {
		f.Posted.Del(at + "." + name)
	}
	f.forgetLook(at)
}

func (f *Form) forgetLook(at string) {
	for _, name := range lookFields {
		f.Posted.Del(at + ".look." + name)
	}
}

// ReadCard reads a card; a new weight brings its thickness with it, and a new
// name its look, as long as none was chosen. What is picked from the shelf comes
// with all its fields.
func (f *Form) ReadCard(at string, c *paper.Card) {
	if where, text, _ := strings.Cut(f.Posted.Get("card.pick"), "="); where == at && text != "" {
		if picked, ok := CardOfText(text); ok {
			*c = picked
		}
		f.ForgetCard(at)
		f.Posted.Del("card.pick")
		return
	}
	old := *c
	f.Text(at+".name", &c.Name)
	f.Weight(at+".gsm", &c.GSM)
	f.Thickness(at+".thickness", c)
	f.ReadMatter(at+".", c)
	if (c.GSM != old.GSM || c.Finish.Bulk() != old.Finish.Bulk()) && c.Thickness == old.Thickness && c.Measured == 0 {
		c.Thickness = paper.ThicknessOf(c.GSM, c.Finish.Bulk())
		f.Posted.Del(at + ".thickness")
	}
	if c.Name == "" {
		c.Name = old.Name
	}
	// No direction is left unsaid, as it was.
	if d := paper.Direction(f.Posted.Get(at + ".direction")); slices.Contains(paper.Directions, d) && (d != paper.NoDirection || c.Direction != "") {
		c.Direction = d
	}
	f.ReadLook(at, old, c)
}

// notKnown stands in a form for a grain that is not known, and solid for a card of no other finish.
const (
	notKnown = "unknown"
	solid    = "solid"
)

// GrainField asks which way the fibres of a card's sheet run.
func GrainField(f *Form, name string, stored paper.Grain) Field {
	return f.ChoiceField(name, "Grain of the sheet", "bend it both ways: the easier bend's fold runs along it", cmp.Or(string(stored), notKnown),
		Choice{Value: notKnown, Label: "not known"}, Choice{Value: string(paper.LongGrain), Label: "along its longer side"}, Choice{Value: string(paper.ShortGrain), Label: "along its shorter side"})
}

// FinishField asks for a card's surface and core.
func FinishField(f *Form, name string, stored paper.Finish) Field {
	return f.ChoiceField(name, "Its core", "what a torn edge shows", cmp.Or(string(stored), solid),
		Choice{Value: solid, Label: "coloured through"}, Choice{Value: string(paper.WhiteCore), Label: "white core"},
		Choice{Value: string(paper.Coated), Label: "coated"}, Choice{Value: string(paper.Textured), Label: "soft and textured"})
}

// ReadMatter reads the grain of a card's sheet, and its finish, from fields whose names begin so.
func (f *Form) ReadMatter(at string, c *paper.Card) {
	if g := f.Posted.Get(at + "grain"); g != "" {
		if g = strings.TrimPrefix(g, notKnown); slices.Contains(paper.Grains, paper.Grain(g)) {
			c.Grain = paper.Grain(g)
		}
	}
	if x := f.Posted.Get(at + "finish"); x != "" {
		if x = strings.TrimPrefix(x, solid); slices.Contains(paper.Finishes, paper.Finish(x)) {
			c.Finish = paper.Finish(x)
		}
	}
}

// ReadLook reads how a card looks. What is shown unchanged stays unsaid, where it
// was.
func (f *Form) ReadLook(at string, old paper.Card, c *paper.Card) {
	seen := old.Seen()
	look := at + ".look."
	colour := func(name string, was paper.Colour, into *paper.Colour) {
		if v, err := paper.ParseColour(f.Posted.Get(look + name)); err == nil && v != was {
			*into = v
		}
	}
	colour("outside", seen.Outside, &c.Look.Outside)
	colour("inside", seen.Inside, &c.Look.Inside)
	for i := range seen.Inks {
		colour("ink"+strconv.Itoa(i+1), seen.Inks[i], &c.Look.Inks[i])
	}
	print := paper.Print(f.Posted.Get(look + "print"))
	switch {
	case !slices.Contains(paper.Prints, print):
	case seen.Photo.ID != "":
		c.Look.Photo, c.Look.Print = paper.Photo{}, print
	case print != seen.Print:
		c.Look.Print = print
		if old.Direction == seen.Print.Direction() || old.Direction == "" {
			c.Direction = print.Direction()
			f.Posted.Del(at + ".direction")
		}
	}
	scale := seen.Scale
	f.LengthIn(look+"scale", measure.MM, &scale)
	switch {
	case scale == seen.Scale:
	case scale < paper.LeastScale || scale > paper.MostScale:
		f.Fail(fault.New(fault.ScaleRange, look+"scale", "A print repeats every 2 to 150 mm."))
	default:
		c.Look.Scale = scale
	}
	if n, err := strconv.Atoi(f.Posted.Get(look + "turn")); err == nil && slices.Contains(paper.Turns, n) {
		c.Look.Turn = n
	}
	if c.Seen() != seen && f.OK() {
		f.forgetLook(at)
	}
}

// CardText writes a card for a button to send back, and CardOfText reads it.
func CardText(c paper.Card) string {
	l := c.Look
	v := url.Values{"n": {c.Name}, "w": {fmt.Sprintf("%g", c.GSM)}, "t": {strconv.FormatInt(int64(c.Thickness), 10)}, "d": {string(c.Direction)}}
	if c.Measured > 0 {
		v.Set("m", strconv.Itoa(c.Measured))
	}
	if c.Grain != paper.UnknownGrain {
		v.Set("g", string(c.Grain))
	}
	if c.Finish != paper.Solid {
		v.Set("f", string(c.Finish))
	}
	if text := LookText(l); text != "" {
		v.Set("l", text)
	}
	return v.Encode()
}

func CardOfText(text string) (paper.Card, bool) {
	v, err := url.ParseQuery(text)
	if err != nil {
		return paper.Card{}, false
	}
	gsm, _ := strconv.ParseFloat(v.Get("w"), 64)
	thick, _ := strconv.ParseInt(v.Get("t"), 10, 64)
	measured, _ := strconv.Atoi(v.Get("m"))
	look, err := LookOfText(v.Get("l"))
	c := paper.Card{Name: v.Get("n"), GSM: gsm, Thickness: measure.Length(thick), Measured: measured, Direction: paper.Direction(v.Get("d")), Look: look,
		Grain: paper.Grain(v.Get("g")), Finish: paper.Finish(v.Get("f"))}
	return c, err == nil && c.Name != "" && len(c.Name) < 400 && gsm > 0
}

// LookText writes a look shortly, for an address; "" for the one by the name.
func LookText(l paper.Look) string {
	if l == (paper.Look{}) {
		return ""
	}
	nm := func(x measure.Length) string { return strconv.FormatInt(int64(x), 10) }
	parts := []string{string(l.Outside), string(l.Inside), string(l.Print), string(l.Inks[0]), string(l.Inks[1]), string(l.Inks[2]),
		nm(l.Scale), strconv.Itoa(l.Turn), l.Photo.ID, nm(l.Photo.Wide), nm(l.Photo.High)}
	return strings.ReplaceAll(strings.Join(parts, "~"), "#", "")
}

// LookOfText reads what LookText wrote.
func LookOfText(text string) (paper.Look, error) {
	if text == "" {
		return paper.Look{}, nil
	}
	p := append(strings.Split(text, "~"), make([]string, 11)...)
	colour := func(s string) paper.Colour {
		if s == "" {
			return ""
		}
		return paper.Colour("#" + s)
	}
	nm := func(s string) measure.Length { n, _ := strconv.ParseInt(s, 10, 64); return measure.Length(n) }
	turn, _ := strconv.Atoi(p[7])
	l := paper.Look{Outside: colour(p[0]), Inside: colour(p[1]), Print: paper.Print(p[2]), Inks: [paper.MostInks]paper.Colour{colour(p[3]), colour(p[4]), colour(p[5])},
		Scale: nm(p[6]), Turn: turn, Photo: paper.Photo{ID: p[8], Wide: nm(p[9]), High: nm(p[10])}}
	return l, l.Check()
}
