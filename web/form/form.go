// Package form is the fields of pages: what was posted, what is stored, and the
// fault of each field that cannot be taken.
package form

import (
	"net/url"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
)

// Form is what a page's fields hold: what was posted, else what is stored,
// and the fault of each field that cannot be taken.
type Form struct {
	Posted  url.Values
	Faults  map[string]string
	Unit    measure.Unit
	Tick    measure.Tick    // that the arrow keys step by
	placed  map[string]bool // fields that showed their fault
	clashes map[string]bool // fields that were changed elsewhere, too
	refused []Refusal       // what the fields that were made could not take
	Back    []string        // the fields whose value is to be what it was
	// Longest, when set, is the longest side of any sheet: no length of a box
	// is longer.
	Longest measure.Length
	instead map[string][]string // by field, what may have been meant
	judged  map[string]Judged   // by field, what is said of its value
	Told    map[string]bool     // the fields of which that was shown
	// Notes are what was done otherwise than asked, and Cures what one press
	// would do about a fault.
	Notes []string
	Cures []design.Cure
	// Carry lets each field take along what it showed, for Meet.
	Carry bool
	// Rows are the faults of a list that was brought in, and List its text.
	Rows []string
	List string
}

// New reads a form. A button "back" takes what was typed out of the field it
// names; a button "put" types a value into one.
func New(posted url.Values, unit measure.Unit) *Form {
	back := slices.Clone(posted["back"])
	for _, name := range back {
		posted.Del(name)
	}
	posted.Del("back")
	if name, value, pressed := strings.Cut(posted.Get("put"), "="); pressed {
		posted.Set(name, value)
		posted.Del("put")
	}
	return &Form{Posted: posted, Faults: map[string]string{}, Unit: unit, Tick: unit.Tick(), Back: back,
		placed: map[string]bool{}, clashes: map[string]bool{}, instead: map[string][]string{},
		judged: map[string]Judged{}, Told: map[string]bool{}}
}

// Refusal is what a field could not take: what was typed, what stands there
// instead, and why. One that belongs to no field has only the reason.
type Refusal struct{ ID, Name, Label, Shown, Was, Text string }

// Refusals are all that was not taken, in the order of the page.
func (f *Form) Refusals() []Refusal {
	out := slices.Clone(f.refused)
	for _, text := range f.Unplaced() {
		out = append(out, Refusal{Text: text})
	}
	return out
}

// Field is one control for a template.
type Field struct {
	ID, Name, Label, Hint string
	Value, Fault, Unit    string
	Instead               []string // what may have been meant
	Tick                  string   // that the arrow keys step by, in the unit
	Choices               []Choice
	OwnUnit               bool
	Kind                  string // of the control; "" is a line of text, "lines" several
	Clash                 *Clash
	Carries               bool   // it takes along what it showed
	Was                   string // that is what is stored now
	Judged                *Judged
}

// Judged is what is said of a value that was taken, and the words of the button that gives it
// another.
type Judged struct{ Text, Words string }

// Judge has something said at a field, if the page shows it.
func (f *Form) Judge(name string, j Judged) {
	f.judged[name] = j
}

type Choice struct {
	Value, Label string
	Chosen       bool
}

// HintID and FaultID tie a control to its texts.
func (f Field) HintID() string  { return f.ID + "-hint" }
func (f Field) FaultID() string { return f.ID + "-fault" }

// Fail puts a fault at its field; the first one stays.
func (f *Form) Fail(err error) {
	x := fault.Of(err)
	if _, has := f.Faults[x.Field]; !has {
		f.Faults[x.Field] = x.Text
	}
}

// OK reports whether every field could be taken.
func (f *Form) OK() bool { return len(f.Faults) == 0 }

// Unplaced gives the faults that no control of the page has shown.
func (f *Form) Unplaced() []string {
	var out []string
	for name, text := range f.Faults {
		if !f.placed[name] {
			out = append(out, text)
		}
	}
	slices.Sort(out)
	return out
}

// Control makes a field that holds what was posted, or else what is stored.
func (f *Form) Control(name, label, hint, stored string) Field {
	value := stored
	if f.Posted.Has(name) {
		value = f.Posted.Get(name)
	}
	f.placed[name] = true
	x := Field{
		ID: "f-" + strings.NewReplacer(".", "-", "[", "-", "]", "").Replace(name), Name: name,
		Label: label, Hint: hint, Value: value, Fault: f.Faults[name], Carries: f.Carry, Was: stored,
	}
	if f.clashes[name] && f.Posted.Has(name) {
		x.Fault, x.Clash = "", &Clash{Theirs: stored, Mine: value}
	}
	if j, is := f.judged[name]; is && x.Fault == "" && x.Clash == nil {
		x.Judged, f.Told[name] = &j, true
	}
	if x.Fault != "" {
		x.Instead = f.instead[name]
		f.refused = append(f.refused, Refusal{x.ID, name, label, value, stored, x.Fault})
	}
	return x
}

// PutBack reports whether a field's value is to be what it was: of a set of
// choices, that none is posted does not mean that none is chosen.
func (f *Form) PutBack(name string) bool { return slices.Contains(f.Back, name) }

// Group is the fault of a set of choices, "" for none; id is that of the first
// of them.
func (f *Form) Group(name, label, id string) string { return f.GroupOf(name, label, id, "", "") }

// GroupOf is Group with what was chosen and what stands there instead.
func (f *Form) GroupOf(name, label, id, shown, was string) string {
	f.placed[name] = true
	text := f.Faults[name]
	if text != "" {
		f.refused = append(f.refused, Refusal{id, name, label, shown, was, text})
	}
	return text
}

// told is the refusal of a field just made, to be told in other words.
func (f *Form) told(x Field) *Refusal {
	if x.Fault == "" {
		return &Refusal{}
	}
	return &f.refused[len(f.refused)-1]
}

func (f *Form) LengthField(name, label, hint string, stored measure.Length) Field {
	x := f.Control(name, label, hint, measure.Field(stored, f.Unit))
	x.Unit, x.Tick = string(f.Unit), measure.Field(f.Tick.Length(), f.Unit)
	// A value that brings its own unit needs none beside it.
	x.OwnUnit = strings.ContainsFunc(x.Value, unicode.IsLetter)
	if was := f.told(x); !strings.ContainsFunc(was.Was, unicode.IsLetter) {
		was.Was += " " + x.Unit
	}
	if x.Clash != nil {
		x.Clash.Theirs += " " + x.Unit
		if !x.OwnUnit {
			x.Clash.Mine += " " + x.Unit
		}
	}
	return x
}

// EmptyLength is a length that may be left out.
func (f *Form) EmptyLength(name, label, hint string) Field {
	x := f.Control(name, label, hint, "")
	if x.OwnUnit = strings.ContainsFunc(x.Value, unicode.IsLetter); !x.OwnUnit {
		x.Unit = string(f.Unit)
	}
	return x
}

func (f *Form) ChoiceField(name, label, hint, stored string, choices ...Choice) Field {
	x := f.Control(name, label, hint, stored)
	for _, c := range choices {
		c.Chosen = c.Value == x.Value
		if c.Value == stored {
			f.told(x).Was = c.Label
			if x.Clash != nil {
				x.Clash.Theirs = c.Label
			}
		}
		if c.Chosen {
			f.told(x).Shown = c.Label
		}
		if x.Clash != nil && c.Chosen {
			x.Clash.Mine = c.Label
		}
		x.Choices = append(x.Choices, c)
	}
	return x
}

// Plain makes choices of which the label is the value with its hyphens out.
func Plain(values ...string) []Choice {
	var out []Choice
	for _, v := range values {
		label := strings.ReplaceAll(v, "-", " ")
		out = append(out, Choice{Value: v, Label: strings.ToUpper(label[:1]) + label[1:]})
	}
	return out
}

// Length reads a posted length into *into, of several readings the largest; what cannot be read becomes the
// field's fault. A field that was not posted changes nothing.
func (f *Form) Length(name string, into *measure.Length) {
	if !f.Posted.Has(name) {
		return
	}
	l, err := measure.ParseLargest(f.Posted.Get(name), f.Unit)
	if err != nil {
		f.Fail(fault.At(name, err))
		return
	}
	if f.Longest > 0 && l > f.Longest {
		f.Fail(fault.New(fault.LargerThanSheet, name, "%s is larger than any sheet of card.", measure.Label(l, f.Unit, f.Tick)))
		f.instead[name] = measure.Otherwise(f.Posted.Get(name), f.Unit, f.Longest)
		return
	}
	*into = l
}

// LongLength reads a length that no sheet bounds: of a roll, or a sheet's own side.
func (f *Form) LongLength(name string, into *measure.Length) {
	long := *f
	long.Longest = 0
	long.Length(name, into)
}

// Signed reads a length that may be less than nothing: with a minus before it.
func (f *Form) Signed(name string, into *measure.Length) {
	typed := f.Posted.Get(name)
	rest := strings.TrimLeft(strings.TrimSpace(typed), "-−–")
	if rest == strings.TrimSpace(typed) {
		f.Length(name, into)
		return
	}
	l := -*into
	f.Posted.Set(name, rest)
	f.Length(name, &l)
	f.Posted.Set(name, typed)
	if _, wrong := f.Faults[name]; !wrong {
		*into = -l
	}
}

func (f *Form) Whole(name string, into *int) {
	if !f.Posted.Has(name) {
		return
	}
	n, err := strconv.Atoi(strings.TrimSpace(f.Posted.Get(name)))
	if err != nil {
		f.Fail(fault.New(fault.NotANumber, name, "%q is not a whole number; type one such as 4", f.Posted.Get(name)))
		return
	}
	*into = n
}

// Grams reads a mass; left empty it is not known.
func (f *Form) Grams(name string, into *float64) {
	text := strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(f.Posted.Get(name)), "g"))
	if !f.Posted.Has(name) {
		return
	}
	if text == "" {
		*into = 0
		return
	}
	g, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64)
	if err != nil {
		f.Fail(fault.New(fault.NotANumber, name, "%q is not a weight in grams; type one such as 120", f.Posted.Get(name)))
		return
	}
	*into = g
}

func (f *Form) Weight(name string, into *float64) {
	if !f.Posted.Has(name) {
		return
	}
	gsm, err := paper.ParseWeight(f.Posted.Get(name))
	if err != nil {
		f.Fail(fault.At(name, err))
		return
	}
	*into = gsm
}

func (f *Form) Text(name string, into *string) {
	if f.Posted.Has(name) {
		*into = strings.TrimSpace(f.Posted.Get(name))
	}
}

// LengthIn reads a length whose bare numbers are in a unit of their own, such
// as a thickness in millimetres.
func (f *Form) LengthIn(name string, unit measure.Unit, into *measure.Length) {
	own := *f
	own.Unit, own.Tick = unit, unit.Tick()
	own.Length(name, into)
}

// ThicknessField is a length shown in millimetres whatever the project's unit.
func (f *Form) ThicknessField(name, label, hint string, stored measure.Length) Field {
	own := *f
	own.Unit, own.Tick = measure.MM, measure.Hundredth
	return own.LengthField(name, label, hint, stored)
}

// Thickness reads what was measured of a card, one sheet or several together; what is
// shown unchanged, or left empty, stays as it was.
func (f *Form) Thickness(name string, c *paper.Card) {
	text := strings.TrimSpace(f.Posted.Get(name))
	if text == "" || text == c.ThicknessText() {
		return
	}
	l, sheets, err := paper.ParseThickness(text)
	if err != nil {
		f.Fail(fault.At(name, err))
		return
	}
	if l != c.Thickness || sheets > 1 {
		c.Thickness, c.Measured = l, sheets
	}
}

// Price reads an amount of money.
func (f *Form) Price(name string, into *float64) { f.decimal(name, "price", into) }

// Decimal reads a number; what is left empty stays as it was.
func (f *Form) Decimal(name string, into *float64) { f.decimal(name, "number", into) }

func (f *Form) decimal(name, what string, into *float64) {
	text := strings.TrimSpace(f.Posted.Get(name))
	if text == "" {
		return
	}
	v, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64)
	if err != nil {
		f.Fail(fault.New(fault.NotANumber, name, "%q is not a %s; type one such as 0.80", text, what))
		return
	}
	*into = v
}

// Refuse shows a list that was brought in again, with what is wrong in its rows.
func (f *Form) Refuse(list []byte, faults []error) {
	for _, err := range faults {
		f.Rows = append(f.Rows, err.Error())
	}
	f.List = string(list)
}

func BasisField(f *Form, stored design.Basis) Field {
	return f.ChoiceField(
		"size.basis",
		"These sizes are",
		"",
		string(stored),
		Choice{
			Value: "scored",
			Label: "between folds",
		},
		Choice{Value: "inside", Label: "the clear inside"},
		Choice{Value: "outside", Label: "the finished outside"},
	)
}
