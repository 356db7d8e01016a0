package boxes

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/web/form"
)

// byThings begins with what goes in.
func (s *room) byThings(f *form.Form, in design.Inputs, lastWord bool) begun {
	t := usualThing(f.Unit)
	open := leftOpen(f, lastWord)
	if len(missing(open, contents.Block)) < len(sizes) { // something is typed: no longer the example
		t.Name, t.Count = "Thing", 1
	}
	shape := contents.Shape(f.Posted.Get(form.ThingName(0, "shape")))
	if shape != "" && shape != t.Shape {
		t.Shape, t.Ease = shape, contents.UsualEaseOf(shape)
	}
	form.ReadThing(f, 0, &t)
	for _, part := range open {
		f.Posted.Set(form.ThingName(0, part), "")
	}
	if lastWord {
		for _, part := range missing(open, t.Shape) {
			f.Fail(fault.New(fault.Empty, form.ThingName(0, part), "type this size as you measured it"))
		}
	}
	in.Things = []contents.Thing{t}
	kind := f.Posted.Get("kind")
	_, err := style.ByID(kind)
	if in.Style = kind; err != nil {
		in.Style = style.Usual().ID
	}
	return wished(f, begun{in: in, next: "contents", open: open}, err != nil)
}

// sizes are those of what goes in.
var sizes = []string{"length", "width", "height"}

// missing are the sizes of a shape among the fields that were left open.
func missing(open []string, shape contents.Shape) []string {
	return slices.DeleteFunc(slices.Clone(open), func(part string) bool {
		return !slices.Contains(sizes, part) || part == "width" && shape == contents.Round
	})
}

// example says that what is drawn is one, or has something of one.
func (b begun) example() string {
	if len(b.in.Things) == 0 {
		return ""
	}
	t := b.in.Things[0]
	switch n := len(missing(b.open, t.Shape)); {
	case n == 0:
		return ""
	case len(missing(b.open, contents.Block)) == len(sizes):
		return fmt.Sprintf("An example, until you type yours: %d × %s.", t.Count, strings.ToLower(t.Name))
	}
	return "Where nothing is typed yet, an example stands."
}

// leftOpen are the fields of what goes in that nothing is typed into; their values are forgotten. In
// the last word what is not there at all is as usual.
func leftOpen(f *form.Form, lastWord bool) []string {
	var out []string
	for _, part := range append([]string{"name", "count"}, sizes...) {
		name := form.ThingName(0, part)
		if strings.TrimSpace(f.Posted.Get(name)) == "" && (f.Posted.Has(name) || !lastWord) {
			out = append(out, part)
		}
		if strings.TrimSpace(f.Posted.Get(name)) == "" {
			f.Posted.Del(name)
		}
	}
	return out
}

// openFields are the fields that nothing was typed into, with an example beside each.
func openFields(f *form.Form, x *form.ThingFields, open []string) {
	usual := usualThing(f.Unit)
	such := func(l measure.Length) string { return ", such as " + measure.Number(l, f.Unit, f.Tick) }
	for _, part := range open {
		switch name := form.ThingName(0, part); part {
		case "name":
			x.Name = f.Control(name, x.Name.Label, "such as "+strings.ToLower(usual.Name), "")
		case "count":
			x.Count = f.Control(name, x.Count.Label, "such as "+strconv.Itoa(usual.Count), "")
		case "length":
			x.Length = f.EmptyLength(name, x.Length.Label, x.Length.Hint+such(usual.Length))
		case "width":
			if !x.Round {
				x.Width = f.EmptyLength(name, x.Width.Label, x.Width.Hint+such(usual.Width))
			}
		case "height":
			x.Height = f.EmptyLength(name, x.Height.Label, x.Height.Hint+such(usual.Height))
		}
	}
}
