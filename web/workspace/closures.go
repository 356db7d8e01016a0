package workspace

import (
	"slices"
	"strconv"
	"strings"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/web/form"
)

// closureView is a closure as the ticket asks about it, and where it goes.
type closureView struct {
	Head   slipHead
	N      int
	Name   string
	Fields []form.Field
	Where  []string
}

// closureNames are what closures are called.
var closureNames = map[design.ClosureKind]string{
	design.Magnets: "Magnets, in pairs", design.Hooks: "Hook-and-loop", design.Dot: "A removable dot", design.Brad: "A brad", design.Tape: "Tape that comes off again", design.Clip: "A clip",
}

func closureAt(n int, part string) string { return fault.Path("closures", n, part) }

// closures shows what keeps the box shut, as it was asked for.
func (p *dressingPage) closures(in *design.Inputs, f *form.Form) {
	for n, c := range in.Closures {
		v := closureView{N: n, Name: closureNames[c.Kind]}
		var kinds []form.Choice
		for _, k := range design.ClosureKinds {
			kinds = append(kinds, form.Choice{Value: string(k), Label: closureNames[k]})
		}
		across := "from the middle of the flap, to the right"
		if c.Pairs == 2 {
			across = "from the middle of the flap, to both sides"
		}
		v.Fields = []form.Field{
			f.ChoiceField(closureAt(n, "kind"), "It is shut by", "", string(c.Kind), kinds...),
			f.ChoiceField(closureAt(n, "pairs"), "How many", "", strconv.Itoa(c.Pairs), form.Choice{Value: "1", Label: "one"}, form.Choice{Value: "2", Label: "two, side by side"}),
			f.LengthField(closureAt(n, "across"), "Across", across, c.Across),
		}
		if c.Kind == design.Magnets || c.Kind == design.Hooks {
			sized := c.Sized()
			v.Fields = append(v.Fields,
				f.LengthField(closureAt(n, "wide"), "How wide", "each of them", sized.Wide), f.LengthField(closureAt(n, "thick"), "How thick", "each of them", sized.Thick))
		}
		if n < len(p.Result.Closures) {
			for _, s := range p.Result.Closures[n].Seats {
				v.Where = append(v.Where, "on "+p.Result.Tells(s.On))
			}
		}
		v.Head = p.head("closure", n, len(in.Closures), v.Name, "")
		p.Closures = append(p.Closures, v)
	}
	if seats, err := p.Result.Seats(0, 8); err == nil && len(seats) > 0 && len(in.Closures) < design.MostClosures {
		p.MayClose = strings.ToLower(seats[0].Closing.Words)
	}
}

// readClosures reads them: those there are, one that is taken away and one that is
// added.
func readClosures(f *form.Form, in *design.Inputs) {
	var all []design.Closure
	for n, c := range in.Closures {
		if f.Posted.Get("closures.remove") == strconv.Itoa(n) {
			continue
		}
		if v := design.ClosureKind(f.Posted.Get(closureAt(n, "kind"))); slices.Contains(design.ClosureKinds, v) && v != c.Kind {
			c.Kind, c.Wide, c.Thick = v, 0, 0 // in the sizes that it is bought in
			f.Posted.Del(closureAt(n, "wide"))
			f.Posted.Del(closureAt(n, "thick"))
		}
		wide, thick := c.Sized().Wide, c.Sized().Thick
		if f.Length(closureAt(n, "wide"), &wide); wide != c.Sized().Wide {
			c.Wide = wide
		}
		if f.Length(closureAt(n, "thick"), &thick); thick != c.Sized().Thick {
			c.Thick = thick
		}
		before := c.Pairs
		f.Whole(closureAt(n, "pairs"), &c.Pairs)
		f.Length(closureAt(n, "across"), &c.Across)
		if c.Pairs != before { // one lies in the middle, two beside it
			c.Across = 0
			if c.Pairs == 2 {
				c.Across = 2 * in.Units.Tick().Length() * 10
			}
			f.Posted.Del(closureAt(n, "across"))
		}
		all = append(all, c)
	}
	forgetMoved(f, "closures")
	in.Closures = all
	if f.Posted.Get("closures.add") != "" && len(all) < design.MostClosures {
		in.Closures = append(in.Closures, design.Closure{Kind: design.Magnets, Pairs: 1})
		in.NumberThings()
		f.Posted.Del("closures.add")
	}
}
