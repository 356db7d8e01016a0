package copies

import (
	"encoding/json"

	"brevium/core/drawer"
	"brevium/core/measure"
	"brevium/core/paper"
)

// KeptPaper is a pile or an offcut. One with a count of none was used up by a
// job.
type KeptPaper struct {
	ID        int64   `json:"id"`
	Card      string  `json:"card"`
	GSM       float64 `json:"gsm"`
	Thickness int64   `json:"thickness_nm"`
	Measured  int     `json:"measured,omitempty"`
	Direction string  `json:"direction"`
	Grain     string  `json:"grain,omitempty"`
	Finish    string  `json:"finish,omitempty"`
	Shape     string  `json:"shape,omitempty"`
	Sheet     string  `json:"sheet"`
	Width     int64   `json:"width_nm"`
	Height    int64   `json:"height_nm"`
	Count     int     `json:"count"`
	Price     float64 `json:"price"`
	Offcut    bool    `json:"offcut"`
	From      string  `json:"from" db:"origin"`
	Job       int64   `json:"job,omitempty"` // that left it
	// Look is how the card is seen, as in a design's file.
	Look json.RawMessage `json:"look,omitempty"`
}

func (p KeptPaper) lot() drawer.Lot {
	return drawer.Lot{
		Card:  paper.Card{Name: p.Card, GSM: p.GSM, Thickness: measure.Length(p.Thickness), Measured: p.Measured, Direction: paper.Direction(p.Direction), Grain: paper.Grain(p.Grain), Finish: paper.Finish(p.Finish)},
		Sheet: p.Sheet, Width: measure.Length(p.Width), Height: measure.Length(p.Height),
		Count: p.Count, Price: p.Price, Offcut: p.Offcut, From: p.From, Shape: drawer.Shape(p.Shape),
	}
}

func (b *bringing) pile(p KeptPaper) error {
	var job any
	if id, there := b.jobs[p.Job]; there {
		job = id
	}
	id, err := b.same(`lots`, `card = ? AND gsm = ? AND thickness = ? AND direction = ? AND sheet = ? AND width = ? AND height = ? AND count = ? AND price = ? AND offcut = ? AND origin = ? AND shape = ?`,
		p.Card, p.GSM, p.Thickness, p.Direction, p.Sheet, p.Width, p.Height, p.Count, p.Price, p.Offcut, p.From, p.Shape)
	if err == nil && id == 0 {
		b.n.Paper++
		id, err = b.insert(`INSERT INTO lots (card, gsm, thickness, direction, sheet, width, height, count, price, offcut, origin, job_id, look, measured, grain, finish, place, shape) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
			p.Card, p.GSM, p.Thickness, p.Direction, p.Sheet, p.Width, p.Height, p.Count, p.Price, p.Offcut, p.From, job, string(p.Look), p.Measured, p.Grain, p.Finish, b.place, p.Shape)
	}
	b.paper[p.ID] = id
	b.use(`lots`, id)
	return err
}
