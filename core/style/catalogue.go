package style

import (
	"encoding/json"

	"brevium/core/measure"
)

// Catalogue writes every style with its parameters and options as JSON, for
// other programs; lengths are in millimetres.
func Catalogue() ([]byte, error) {
	type parameter struct {
		ID      string         `json:"id"`
		Kind    Kind           `json:"kind"`
		Default measure.Length `json:"default"`
		Min     measure.Length `json:"min"`
		Max     measure.Length `json:"max"`
		About   string         `json:"about"`
	}
	type option struct {
		ID      string          `json:"id"`
		Kind    Kind            `json:"kind"`
		Choices []string        `json:"choices,omitempty"`
		Default any             `json:"default"`
		Min     *measure.Length `json:"min,omitempty"`
		Max     *measure.Length `json:"max,omitempty"`
		About   string          `json:"about"`
	}
	type entry struct {
		ID         string      `json:"id"`
		Name       string      `json:"name"`
		About      string      `json:"about"`
		Parameters []parameter `json:"parameters"`
		Options    []option    `json:"options"`
	}
	var out []entry
	for _, s := range All {
		e := entry{ID: s.ID, Name: s.Name, About: s.About}
		for _, p := range s.Parameters {
			e.Parameters = append(e.Parameters, parameter{p.ID, LengthKind, p.Default, p.Min, p.Max, p.About})
		}
		for _, o := range s.Options {
			x := option{ID: o.ID, Kind: o.Kind, Choices: o.Choices, Default: o.DefaultChoice, About: o.About}
			if o.Kind == LengthKind {
				x.Default, x.Min, x.Max = o.Default, &o.Min, &o.Max
			}
			e.Options = append(e.Options, x)
		}
		// Every design has a tick; those with parts that fit have a fit.
		least, most := measure.Millimetre/10, measure.Inch
		e.Options = append(e.Options, option{ID: "tick", Kind: LengthKind, Default: measure.In.Tick(), Min: &least, Max: &most,
			About: "How far apart the board's grooves are; 1 mm for a metric board"})
		if s.Allowance != "" {
			e.Options = append(e.Options, option{ID: "fit", Kind: ChoiceKind, Choices: []string{"grips", "snug", "easy", "loose"}, Default: "snug",
				About: "The fit that an allowance left out is worked out for"})
		}
		out = append(out, e)
	}
	return json.MarshalIndent(out, "", " ")
}
