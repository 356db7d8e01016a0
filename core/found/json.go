package found

import (
	"encoding/json"

	"brevium/core/design"
)

// toldFile is what is written of a recipe that was read.
type toldFile struct {
	Brevium       int               `json:"brevium"`
	Pieces        []json.RawMessage `json:"pieces"`
	Style         *string           `json:"style"`
	Design        json.RawMessage   `json:"design"`
	Said          []string          `json:"said"`
	NotUnderstood []spanFile        `json:"not_understood"`
}

type spanFile struct {
	Text string `json:"text"`
	From int    `json:"from"`
	To   int    `json:"to"`
}

// JSON writes what a recipe makes; see docs/formats.md. Its pieces are those of a plan.
func (t *Told) JSON() ([]byte, error) {
	f := toldFile{Brevium: 1, Pieces: []json.RawMessage{}, Said: append([]string{}, t.Says...), NotUnderstood: []spanFile{}, Design: json.RawMessage("null")}
	for _, s := range t.NotUnderstood {
		f.NotUnderstood = append(f.NotUnderstood, spanFile(s))
	}
	if t.Match != nil {
		f.Style, f.Design = &t.Match.Style.ID, t.Match.Inputs.Write()
	}
	if len(t.Pieces) > 0 {
		pieces, err := design.PlanLoose(t.Loose(), t.Unit)
		if err != nil {
			return nil, err
		}
		f.Pieces = pieces
	}
	return json.MarshalIndent(f, "", " ")
}
