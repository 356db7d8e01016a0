package batch

import (
	"encoding/json"
	"strings"

	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/strict"
	"brevium/core/tool"
)

// choicesFile is a job's choices as they are kept.
type (
	choicesFile struct {
		Stages int            `json:"stages,omitempty"`
		Trim   measure.Length `json:"trim,omitempty"`
		Kerf   measure.Length `json:"kerf,omitempty"`
		Held   []heldFile     `json:"held,omitempty"`
		With   tool.With      `json:"with,omitempty"`
	}
	heldFile struct {
		Card   string          `json:"card"`
		Sheet  string          `json:"sheet"`
		Pieces []heldPieceFile `json:"pieces"`
	}
	heldPieceFile struct {
		Piece  string         `json:"piece"`
		X      measure.Length `json:"x"`
		Y      measure.Length `json:"y"`
		Turned bool           `json:"turned,omitempty"`
		Turn   int            `json:"turn,omitempty"`
	}
)

// Write gives the choices as JSON.
func (c Choices) Write() []byte {
	f := choicesFile{Stages: c.Stages, Trim: c.Trim, Kerf: c.Kerf, With: c.With}
	for _, h := range c.Held {
		x := heldFile{Card: h.Card, Sheet: h.Sheet}
		for _, p := range h.Pieces {
			x.Pieces = append(x.Pieces, heldPieceFile(p))
		}
		f.Held = append(f.Held, x)
	}
	return must(json.Marshal(f))
}

// ReadChoices reads what Write wrote.
func ReadChoices(text []byte) (Choices, error) {
	var f choicesFile
	if err := strict.Decode(text, &f); err != nil {
		return Choices{}, err
	}
	c := Choices{Stages: f.Stages, Trim: f.Trim, Kerf: f.Kerf}
	var err error
	if c.With, err = tool.ParseWith(string(f.With)); err != nil {
		return Choices{}, fault.At("with", err)
	}
	for _, h := range f.Held {
		x := Held{Card: h.Card, Sheet: h.Sheet}
		for _, p := range h.Pieces {
			x.Pieces = append(x.Pieces, HeldPiece(p))
		}
		c.Held = append(c.Held, x)
	}
	return c, nil
}

func must(text []byte, err error) []byte {
	if err != nil {
		panic(err) // every field is plain text or a finite number
	}
	return text
}

// WriteLayouts gives the stocks' layouts as JSON, by card.
func WriteLayouts(stocks []Stock) []byte {
	out := map[string]json.RawMessage{}
	for _, s := range stocks {
		if s.Layout != nil {
			out[s.Card.Key()] = s.writeLayout()
		}
	}
	return must(json.Marshal(out))
}

// Recall gives each stock the layout that is kept of it. A stock whose pieces
// or sheets are others now has none.
func Recall(stocks []Stock, text []byte) {
	var kept map[string]json.RawMessage
	if json.Unmarshal(text, &kept) != nil {
		return
	}
	for i := range stocks {
		if old, ok := kept[stocks[i].Card.Key()]; ok {
			if laid, err := stocks[i].readLayout(old); err == nil {
				stocks[i].Layout = laid
			}
		}
	}
}

// stockFile is a stock as it was when its job was begun; from then on the
// boxes may change, the sheets do not.
type (
	stockFile struct {
		Card    string          `json:"card"`
		GSM     float64         `json:"gsm"`
		Thick   measure.Length  `json:"thickness"`
		Sheets  int             `json:"measured,omitempty"`
		Grain   string          `json:"grain,omitempty"`
		Finish  string          `json:"finish,omitempty"`
		Way     string          `json:"direction"`
		Lots    []int64         `json:"lots"`
		Prices  []float64       `json:"prices"`
		Names   []string        `json:"names,omitempty"`
		Origins []originFile    `json:"origins"`
		Job     json.RawMessage `json:"job"`
		Layout  json.RawMessage `json:"layout"`
		Shapes  json.RawMessage `json:"shapes,omitempty"`
	}
	originFile struct {
		Item int    `json:"item"`
		Box  string `json:"box,omitempty"`
		Part string `json:"part"`
		Name string `json:"name,omitempty"`
		Mat  bool   `json:"mat,omitempty"`
		// Of its box, from when jobs kept them: the unit, and the board's tick in nanometres.
		Unit measure.Unit `json:"unit,omitempty"`
		Tick int64        `json:"tick_nm,omitempty"`
	}
)

// WriteStocks gives stocks, each with its layout, as JSON.
func WriteStocks(stocks []Stock) []byte {
	out := []stockFile{}
	for _, s := range stocks {
		f := stockFile{
			Card:   s.Card.Name,
			GSM:    s.Card.GSM,
			Thick:  s.Card.Thickness,
			Sheets: s.Card.Measured,
			Grain:  string(s.Card.Grain),
			Finish: string(s.Card.Finish),
			Way:    string(s.Card.Direction),
			Lots:   s.Lots,
			Prices: s.Prices,
			Names:  s.Names,
			Job:    s.Job.JSON(),
			Layout: s.writeLayout(),
			Shapes: s.writeShapes(),
		}
		for _, o := range s.Origins {
			f.Origins = append(f.Origins, originFile{o.Item, o.Box, o.Part, o.Name, o.Mat, o.Made.Units, int64(o.Made.Tick)})
		}
		out = append(out, f)
	}
	return must(json.Marshal(out))
}

// older fills in what stocks written before names were kept apart do not say.
func (s *Stock) older() {
	for i := range s.Origins {
		if s.Origins[i].Name == "" && i < len(s.Job.Pieces) {
			box, name, _ := strings.Cut(s.Job.Pieces[i].Name, ": ")
			s.Origins[i].Box, s.Origins[i].Name = box, name
		}
	}
	if s.Names == nil {
		for _, sheet := range s.Job.Sheets {
			name, _, _ := strings.Cut(strings.TrimSuffix(sheet.Name, " (to buy)"), " (drawer ")
			s.Names = append(s.Names, name)
		}
	}
}

// ReadStocks reads what WriteStocks wrote.
func ReadStocks(text []byte) ([]Stock, error) {
	var all []stockFile
	if err := strict.Decode(text, &all); err != nil {
		return nil, err
	}
	var out []Stock
	for _, f := range all {
		s := Stock{
			Card:   paper.Card{Name: f.Card, GSM: f.GSM, Thickness: f.Thick, Measured: f.Sheets, Direction: paper.Direction(f.Way), Grain: paper.Grain(f.Grain), Finish: paper.Finish(f.Finish)},
			Lots:   f.Lots,
			Prices: f.Prices,
			Names:  f.Names,
		}
		for _, o := range f.Origins {
			s.Origins = append(s.Origins, Origin{o.Item, o.Box, o.Part, o.Name, o.Mat, recipe.Telling{Units: o.Unit, Tick: measure.Tick(o.Tick)}})
		}
		var err error
		if s.Job, _, err = layout.ReadJob(f.Job); err != nil {
			return nil, err
		}
		if f.Shapes != nil {
			if err = s.readShapes(f.Shapes); err != nil {
				return nil, err
			}
		}
		if s.Layout, err = s.readLayout(f.Layout); err != nil {
			return nil, err
		}
		s.older()
		if len(s.Lots) != len(s.Job.Sheets) || len(s.Prices) != len(s.Lots) || len(s.Names) != len(s.Lots) ||
			len(s.Origins) != len(s.Job.Pieces) {
			return nil, fault.New(fault.Invalid, "stocks", "the job's record is not whole")
		}
		out = append(out, s)
	}
	return out, nil
}
