package workspace

import (
	"maps"
	"net/url"
	"slices"
	"strings"

	"brevium/web/form"
)

// refusing finds the fields of a form that cannot be taken, so that all others
// can. A fault names a field as a rule; when it names none that was typed into,
// the fields that were refused before are left out, and then the last changed.
type refusing struct {
	posted  url.Values
	back    []string // fields that the maker puts back
	refused []string // by the page, as it was sent
	last    string   // the field that was changed last
	names   []string // that are left out
	faults  map[string]string
}

// mostRefused bounds how many fields are tried to be left out.
const mostRefused = 12

// rest is what was posted without the fields that are left out.
func (r *refusing) rest() url.Values {
	out := maps.Clone(r.posted)
	for _, name := range slices.Concat(r.back, r.names) {
		out.Add("back", name)
	}
	return out
}

// out leaves one more field out, for what is wrong in a form; false when none
// is to blame.
func (r *refusing) out(f *form.Form) bool {
	for name, text := range f.Faults {
		blame := r.blame(name)
		if blame == "" || len(r.names) == mostRefused {
			return false
		}
		if r.faults == nil {
			r.faults = map[string]string{}
		}
		if slices.Contains(r.names, name) {
			// It was not this one: without it the same is wrong.
			r.names = slices.DeleteFunc(r.names, func(x string) bool { return x == name })
			delete(r.faults, name)
		}
		r.names, r.faults[blame] = append(r.names, blame), text
		return true
	}
	return false
}

// blame is the field to leave out next for a fault at the named one: that one,
// else one that was refused before, else the last changed; "" for none.
func (r *refusing) blame(name string) string {
	before := slices.DeleteFunc(slices.Clone(r.refused), func(x string) bool { return x == r.last })
	for _, x := range slices.Concat([]string{name}, before, []string{r.last}) {
		// Of a set of choices nothing may be posted.
		if x != "" && (r.posted.Has(x) || x == r.last) && !slices.Contains(r.names, x) {
			return x
		}
	}
	return ""
}

// show puts what was left out back into the form, each with its fault.
func (r *refusing) show(f *form.Form) {
	for _, name := range r.names {
		f.Faults[name] = r.faults[name]
		if r.posted.Has(name) {
			f.Posted[name] = r.posted[name]
		}
	}
}

// split parts the names in a header.
func split(names string) []string {
	return strings.FieldsFunc(names, func(c rune) bool { return c == ' ' })
}
