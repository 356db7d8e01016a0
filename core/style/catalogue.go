package style

import (
	"encoding/json"
	"slices"

	"brevium/core/measure"
)

// All is the catalogue, in the order it is shown.
var All = []*Style{
	tray,
	trayDouble,
	trayLid,
	collarBox,
	hingedCarton,
	clamBox,
	walletBox,
	pouch,
	pillow,
	drawerSleeve,
	drawerChest,
	calendar,
	tallBox,
	gableCarton,
	gableLid,
	polygonBox,
	roundBox,
	pyramid,
	slice,
	foldTopBag,
	archedBox,
	boundBox,
	bookWrap,
	cornerShells,
	flatFoldTray,
	dispenser,
	wovenBasket,
	facetBasket,
	blossomBox,
	explodeBox,
	foldOutCarrier,
	tower,
	nest,
	dividerGrid,
	insert,
}

// Usual is the style that a box begins in when nothing else is said.
func Usual() *Style { return trayLid }

// Boxes are the styles that are listed and stand alone.
func Boxes() []*Style {
	return slices.DeleteFunc(Listed(), func(s *Style) bool { return s.Inner })
}

// Fittings are the styles that go into a box which is there: no boxes themselves.
func Fittings() []*Style {
	return slices.DeleteFunc(Listed(), func(s *Style) bool { return !s.Inner })
}

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
	type face struct {
		Piece string `json:"piece"`
		ID    string `json:"id"`
		Name  string `json:"name"`
	}
	type entry struct {
		ID         string      `json:"id"`
		Name       string      `json:"name"`
		About      string      `json:"about"`
		Parameters []parameter `json:"parameters"`
		Options    []option    `json:"options"`
		Room       string      `json:"room"`
		Faces      []face      `json:"faces"`
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
		e.Options = append(e.Options, option{ID: "tick", Kind: LengthKind, Default: measure.In.Tick().Length(), Min: &least, Max: &most,
			About: "How far apart the board's grooves are; 1 mm for a metric board"})
		if s.Allowance != nil {
			e.Options = append(
				e.Options,
				option{ID: "fit", Kind: ChoiceKind, Choices: []string{"grips", "snug", "easy", "loose"}, Default: "snug",
					About: "The fit that an allowance left out is worked out for"},
			)
		}
		// Faces and room are those of the usual sizes.
		box, err := s.Make(s.Usual(measure.In.Tick(), 300*measure.Micrometre))
		if err != nil {
			return nil, err
		}
		e.Room, e.Faces = box.Room.Shape, []face{}
		for _, p := range box.Parts {
			for _, m := range p.Pattern.Marks {
				e.Faces = append(e.Faces, face{p.ID, m.Name, m.Plain()})
			}
		}
		out = append(out, e)
	}
	return json.MarshalIndent(out, "", " ")
}
