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
	Numbers       []numberFile      `json:"numbers"`
	Remedies      []remedyFile      `json:"remedies"`
	Readings      []remedyFile      `json:"readings"`
	NotUnderstood []spanFile        `json:"not_understood"`
}

type spanFile struct {
	Text string `json:"text"`
	From int    `json:"from"`
	To   int    `json:"to"`
}

// numberFile is a number of the text, what it was taken as, and of which piece.
type numberFile struct {
	From  int    `json:"from"`
	To    int    `json:"to"`
	As    string `json:"as"`
	Piece *int   `json:"piece,omitempty"`
}

// remedyFile is what would mend a recipe.
type remedyFile struct {
	Put     string `json:"put"`
	Because string `json:"because"`
	Text    string `json:"text"`
}

// JSON writes what a recipe makes, with what would mend it and the other ways to read it; see
// docs/formats.md. Its pieces are those of a plan.
func (t *Told) JSON(remedies, ways []Remedy) ([]byte, error) {
	f := toldFile{Brevium: 1, Pieces: []json.RawMessage{}, Said: append([]string{}, t.Says...), Numbers: []numberFile{}, Remedies: []remedyFile{}, Readings: []remedyFile{}, NotUnderstood: []spanFile{}, Design: json.RawMessage("null")}
	for _, s := range t.NotUnderstood {
		f.NotUnderstood = append(f.NotUnderstood, spanFile(s))
	}
	for _, r := range remedies {
		f.Remedies = append(f.Remedies, remedyFile{r.Put, r.Because, r.Text})
	}
	for _, w := range ways {
		f.Readings = append(f.Readings, remedyFile{w.Put, w.Because, w.Text})
	}
	for _, n := range t.Numbers {
		x := numberFile{From: n.From, To: n.To, As: string(n.As)}
		if n.Piece >= 0 {
			x.Piece = &n.Piece
		}
		f.Numbers = append(f.Numbers, x)
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
