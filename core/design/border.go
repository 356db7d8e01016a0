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

// border reads a border, which may be below 0; what is left out is the usual one.
func (r *reader) border(field string, f borderFile) dress.Border {
	side := func(field string, t measure.Text) measure.Length {
		if t == "" {
			return measure.Inch / 16
		}
		return r.signed(field, t)
	}
	if f.All != "" || f.Across == "" && f.Up == "" {
		return dress.Even(side(field, f.All))
	}
	return dress.Border{Across: side(fault.Path(field, "across"), f.Across), Up: side(fault.Path(field, "up"), f.Up)}
}
