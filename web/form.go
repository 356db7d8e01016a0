package web

import (
	"net/url"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
)

// form is what a page's fields hold: what was posted, else what is stored,
// and the fault of each field that cannot be taken.
type form struct {
	posted url.Values
	faults map[string]string
	unit   measure.Unit
	placed map[string]bool // fields that showed their fault
	// Rows are the faults of a list that was brought in, and List its text.
	Rows []string
	List string
}

func newForm(posted url.Values, unit measure.Unit) *form {
	return &form{posted: posted, faults: map[string]string{}, unit: unit, placed: map[string]bool{}}
}

// field is one control for a template.
type field struct {
	ID, Name, Label, Hint string
	Value, Fault, Unit    string
	Choices               []choice
	OwnUnit               bool
}

type choice struct {
	Value, Label string
	Chosen       bool
}

// HintID and FaultID tie a control to its texts.
func (f field) HintID() string  { return f.ID + "-hint" }
func (f field) FaultID() string { return f.ID + "-fault" }

// fail puts a fault at its field; the first one stays.
func (f *form) fail(err error) {
	x := fault.Of(err)
	if _, has := f.faults[x.Field]; !has {
		f.faults[x.Field] = x.Text
	}
}

func (f *form) ok() bool { return len(f.faults) == 0 }

// OK is ok for a template.
func (f *form) OK() bool { return f.ok() }

// Unplaced gives the faults that no control of the page has shown.
func (f *form) Unplaced() []string {
	var out []string
	for name, text := range f.faults {
		if !f.placed[name] {
			out = append(out, text)
		}
	}
	slices.Sort(out)
	return out
}

// control makes a field that holds what was posted, or else what is stored.
func (f *form) control(name, label, hint, stored string) field {
	value := stored
	if f.posted.Has(name) {
		value = f.posted.Get(name)
	}
	f.placed[name] = true
	return field{
		ID: "f-" + strings.NewReplacer(".", "-", "[", "-", "]", "").Replace(name), Name: name,
		Label: label, Hint: hint, Value: value, Fault: f.faults[name],
	}
}

func (f *form) lengthField(name, label, hint string, stored measure.Length) field {
	x := f.control(name, label, hint, measure.Field(stored, f.unit))
	x.Unit = string(f.unit)
	// A value that brings its own unit needs none beside it.
	x.OwnUnit = strings.ContainsFunc(x.Value, unicode.IsLetter)
	return x
}

func (f *form) choiceField(name, label, hint, stored string, choices ...choice) field {
	x := f.control(name, label, hint, stored)
	for _, c := range choices {
		c.Chosen = c.Value == x.Value
		x.Choices = append(x.Choices, c)
	}
	return x
}

// plain makes choices of which the label is the value with its hyphens out.
func plain(values ...string) []choice {
	var out []choice
	for _, v := range values {
		label := strings.ReplaceAll(v, "-", " ")
		out = append(out, choice{Value: v, Label: strings.ToUpper(label[:1]) + label[1:]})
	}
	return out
}

// length reads a posted length into *into, of several readings the largest; what cannot be read becomes the
// field's fault. A field that was not posted changes nothing.
func (f *form) length(name string, into *measure.Length) {
	if !f.posted.Has(name) {
		return
	}
	l, err := measure.ParseLargest(f.posted.Get(name), f.unit)
	if err != nil {
		f.fail(fault.At(name, err))
		return
	}
	*into = l
}

func (f *form) whole(name string, into *int) {
	if !f.posted.Has(name) {
		return
	}
	n, err := strconv.Atoi(strings.TrimSpace(f.posted.Get(name)))
	if err != nil {
		f.fail(fault.New(fault.NotANumber, name, "%q is not a whole number; type one such as 4", f.posted.Get(name)))
		return
	}
	*into = n
}

// grams reads a mass; left empty it is not known.
func (f *form) grams(name string, into *float64) {
	text := strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(f.posted.Get(name)), "g"))
	if !f.posted.Has(name) {
		return
	}
	if text == "" {
		*into = 0
		return
	}
	g, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64)
	if err != nil {
		f.fail(fault.New(fault.NotANumber, name, "%q is not a weight in grams; type one such as 120", f.posted.Get(name)))
		return
	}
	*into = g
}

func (f *form) weight(name string, into *float64) {
	if !f.posted.Has(name) {
		return
	}
	gsm, err := paper.ParseWeight(f.posted.Get(name))
	if err != nil {
		f.fail(fault.At(name, err))
		return
	}
	*into = gsm
}

func (f *form) text(name string, into *string) {
	if f.posted.Has(name) {
		*into = strings.TrimSpace(f.posted.Get(name))
	}
}

// lengthIn reads a length whose bare numbers are in a unit of their own, such
// as a thickness in millimetres.
func (f *form) lengthIn(name string, unit measure.Unit, into *measure.Length) {
	own := *f
	own.unit = unit
	own.length(name, into)
}

// thicknessField is a length shown in millimetres whatever the project's unit.
func (f *form) thicknessField(name, label, hint string, stored measure.Length) field {
	own := *f
	own.unit = measure.MM
	return own.lengthField(name, label, hint, stored)
}
