package form

import (
	"maps"
	"regexp"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/merge"
)

// Clash is a field that was changed elsewhere while it was changed here.
type Clash struct{ Theirs, Mine string }

// Onto fits the form to what was changed elsewhere since its page was drawn:
// only what was changed here keeps its typed value, and what both changed
// shows both. was and now are the form's names of paths in my change and in
// what came of the merge; sameUnits tells that typed numbers mean the same.
func (f *Form) Onto(m merge.Merged, was, now func(path string) string, sameUnits bool) {
	typed := f.Posted
	f.Posted = maps.Clone(typed)
	maps.DeleteFunc(f.Posted, func(name string, _ []string) bool {
		_, wrong := f.Faults[name]
		return !sameUnits || !wrong && !slices.ContainsFunc(m.Mine, func(path string) bool { return Within(name, was(path)) })
	})
	for _, c := range m.Clashes {
		name := now(c.Merged)
		f.clashes[name] = true
		f.Faults[name] = "This was changed in another window meanwhile, and stands as it was changed there. Look at it, and change it again if need be."
		if v, there := typed[was(c.Mine)]; there && c.Merged != "" && sameUnits {
			f.Posted[name] = v
		}
	}
}

// WasField is the name under which a field takes along what it showed.
func WasField(name string) string { return "was." + name }

// Meet holds fields of a form against what is stored now, where they took along what they
// showed: one that was not touched here is left out, so that what somebody else put there
// meanwhile stays; one that both changed shows both, and asks. now are the same fields, as they
// would be shown.
func (f *Form) Meet(now ...Field) {
	for _, x := range now {
		if !f.Posted.Has(WasField(x.Name)) || !f.Posted.Has(x.Name) {
			continue
		}
		was, mine := line(f.Posted.Get(WasField(x.Name))), line(f.Posted.Get(x.Name))
		switch theirs := line(x.Value); {
		case f.Posted.Get("take") == x.Name, mine == was && theirs != was:
			f.Posted.Del(x.Name)
		case theirs != was && theirs != mine:
			f.clashes[x.Name] = true
			f.Faults[x.Name] = "This was changed in another window meanwhile; look which it shall be."
		}
	}
}

// line is a text with the ends of its lines as they are kept.
func line(text string) string { return strings.TrimSpace(strings.ReplaceAll(text, "\r\n", "\n")) }

// Clashes reports whether anything was changed both here and elsewhere.
func (f *Form) Clashes() bool { return len(f.clashes) > 0 }

// Within reports whether a field is the path or below it.
func Within(field, path string) bool {
	rest, ok := strings.CutPrefix(field, path)
	return ok && (rest == "" || rest[0] == '.' || rest[0] == '[')
}

var (
	acrossOf = regexp.MustCompile(`^(contents\[\d+\])\.across$`)
	cardOf   = regexp.MustCompile(`(layers\[\d+\])\.card\.`)
)

// FieldName is the form's name for a path in a design's file.
func FieldName(path string) string {
	path = acrossOf.ReplaceAllString(path, "$1.length")
	return cardOf.ReplaceAllString(path, "$1.")
}

// Placed is a fault at the form's name for its field.
func Placed(err error) *fault.Fault {
	x := *fault.Of(err)
	x.Field = FieldName(x.Field)
	return &x
}
