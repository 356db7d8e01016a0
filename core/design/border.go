package design

import (
	"encoding/json"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/strict"
)

// borderFile is a layer's border in a file: one length for all sides, or one
// across and one up.
type borderFile struct {
	All    measure.Text `json:"-"`
	Across measure.Text `json:"across,omitempty"`
	Up     measure.Text `json:"up,omitempty"`
}

// UnmarshalJSON accepts a length, or an object of two.
func (b *borderFile) UnmarshalJSON(text []byte) error {
	if len(text) == 0 || text[0] != '{' {
		return json.Unmarshal(text, &b.All)
	}
	type two borderFile // without this method
	return strict.Decode(text, (*two)(b))
}

// MarshalJSON writes one length where both are the same.
func (b borderFile) MarshalJSON() ([]byte, error) {
	if b.All != "" {
		return json.Marshal(b.All)
	}
	type two borderFile
	return json.Marshal(two(b))
}

func borderOf(b dress.Border) borderFile {
	if b.Across == b.Up {
		return borderFile{All: mmText(b.Up)}
	}
	return borderFile{Across: mmText(b.Across), Up: mmText(b.Up)}
}

// border reads a border; what is left out is the usual one.
func (r *reader) border(field string, f borderFile) dress.Border {
	if f.All != "" || f.Across == "" && f.Up == "" {
		return dress.Even(r.length(field, f.All, measure.Inch/16))
	}
	return dress.Border{
		Across: r.length(fault.Path(field, "across"), f.Across, measure.Inch/16),
		Up:     r.length(fault.Path(field, "up"), f.Up, measure.Inch/16),
	}
}
