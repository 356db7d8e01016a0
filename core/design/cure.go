package design

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/style"
)

// Cure is one change that makes a design possible which was refused: what it
// does, in a few words, and the inputs with it.
type Cure struct {
	Key, Text string
	Inputs    Inputs
}

// mostCures is how many are offered.
const mostCures = 3

// Cures looks for single changes with which the inputs can be made: another
// way for the lid to get its gap, a size at its limit, sizes that follow
// again, single walls, a larger sheet, a style that takes the sizes.
func Cures(in Inputs) []Cure {
	if in.Check() != nil { // what no style could use is for its own field to mend
		return nil
	}
	_, err := Sketch(in)
	s, unknown := style.ByID(in.Style)
	if err == nil || unknown != nil {
		return nil
	}
	var out []Cure
	try := func(key, text string, change func(*Inputs)) {
		if len(out) == mostCures {
			return
		}
		with := in.Clone()
		change(&with)
		if _, err := Sketch(with); err == nil {
			out = append(out, Cure{key, text, with})
		}
	}
	f := fault.Of(err)
	large := f.Code == fault.LargerThanSheet || f.Code == fault.LargerThanTrimmer
	smaller := func(trims bool) {
		for _, o := range s.Options {
			now, chosen := in.Choices[o.ID]
			if !chosen {
				now = o.DefaultChoice
			}
			if o.Smaller != nil && o.Smaller.Trims == trims && now != o.Smaller.Choice {
				try("smaller."+o.ID, o.Smaller.Words, func(x *Inputs) { x.Choices[o.ID] = o.Smaller.Choice })
			}
		}
	}
	if large {
		smaller(true)
	}
	show := func(l measure.Length) string { return measure.Label(l, in.Units, in.Tools.Tick) }
	for _, p := range s.Parameters {
		v, typed := in.Size[p.ID]
		if limit := clamp(v, p, in.Tools.Tick); typed && limit != v {
			try("limit."+p.ID, fmt.Sprintf("Make the %s %s", strings.ToLower(p.Label), show(limit)), func(x *Inputs) { x.Size[p.ID] = limit })
		}
	}
	try("follow", "Let the other sizes follow", func(x *Inputs) { letFollow(x, s) })
	smaller(false)
	if large {
		for _, sheet := range nextSheets(in.Units) {
			if !slices.ContainsFunc(in.Sheets, func(have paper.Sheet) bool { return have.Name == sheet.Name }) && len(out) < mostCures {
				before := len(out)
				try("sheet."+sheet.Name, "Cut it from "+sheet.Name, func(x *Inputs) { x.Sheets = append(x.Sheets, sheet) })
				if len(out) > before {
					break
				}
			}
		}
	}
	spec, err := in.spec(s)
	if err != nil {
		return out
	}
	size := s.Along(spec.Lengths)
	for _, other := range style.Boxes() {
		if other != s && !slices.ContainsFunc(out, func(c Cure) bool { return strings.HasPrefix(c.Key, "style.") }) {
			try("style."+other.ID, "Make it "+article(other.Name), func(x *Inputs) {
				if x.SetStyle(other.ID) == nil && len(x.Things) == 0 {
					other.Give(x.Size, size)
				}
			})
		}
	}
	return out
}

// article puts "a" or "an" before a name.
func article(name string) string {
	name = strings.ToLower(name)
	if strings.ContainsRune("aeiou", rune(name[0])) {
		return "an " + name
	}
	return "a " + name
}

// letFollow drops the sizes that follow from others, as if they had never been
// typed.
func letFollow(in *Inputs, s *style.Style) {
	for _, p := range s.Parameters {
		if !s.IsAxis(p.ID) {
			delete(in.Size, p.ID)
		}
	}
	maps.DeleteFunc(in.Lengths, func(id string, _ measure.Length) bool {
		o, has := s.Option(id)
		return has && o.Follows != nil
	})
}

// clamp is a size brought within a parameter's limits, on the tick.
func clamp(l measure.Length, p *style.Parameter, tick measure.Tick) measure.Length {
	return max(measure.Up(p.Min, tick), min(measure.Down(p.Max, tick), l))
}

// Carry changes the style and keeps length, width and height by their meaning:
// what the new style does not go to is taken to the nearest limit and said, and
// what its other sizes cannot follow is left out.
func (in *Inputs) Carry(id string, now *Built) ([]string, error) {
	s, err := style.ByID(id)
	if err != nil {
		return nil, fault.At("style", err)
	}
	size := now.Style.Along(now.Spec.Lengths)
	bySize := len(in.Things) == 0 && in.Room == (style.Extent{}) && in.Basis == Scored
	if err := in.SetStyle(id); err != nil || !bySize {
		return nil, err
	}
	in.Stand = ""
	s.Give(in.Size, size)
	var said []string
	for _, i := range s.Own() {
		p := s.Axes[i]
		was := in.Size[p.ID]
		limit := clamp(was, p, in.Tools.Tick)
		if limit == was {
			continue
		}
		in.Size[p.ID] = limit
		end := "the most"
		if limit > was {
			end = "the least"
		}
		said = append(said, fmt.Sprintf("The %s is %s now, %s that this style goes.",
			strings.ToLower(p.Label), measure.Label(limit, in.Units, in.Tools.Tick), end))
	}
	if _, err := Sketch(*in); err != nil {
		letFollow(in, s)
	}
	return said, nil
}
