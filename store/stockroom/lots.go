// Package stockroom keeps what lies at a table, its drawer and its cupboard, and what is set there.
package stockroom

import (
	"context"
	"database/sql"
	"errors"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/store/desk"
	"brevium/store/scope"
)

// Stockroom is what lies at the table of one person.
type Stockroom struct{ at desk.Desk }

// At opens the room for a desk.
func At(d desk.Desk) *Stockroom { return &Stockroom{d} }

// lotRow is a pile as its table has it, with how many of it begun jobs have set aside.
type lotRow struct {
	ID                             int64
	Card, Direction, Sheet, Origin string
	Grain, Finish                  string
	GSM, Price                     float64
	Thickness, Width, Height       int64
	Count, Measured, Reserved      int
	Offcut                         bool
	Look                           []byte
	Shape                          string
}

const noPile desk.Absent = "pile of paper"

// selectLots reads such rows.
const selectLots = `SELECT l.id, l.card, l.gsm, l.thickness, l.direction, l.sheet, l.width, l.height, l.count, l.price, l.offcut, l.origin, l.look, l.measured, l.grain, l.finish, l.shape,
	coalesce((SELECT sum(r.count) FROM job_lots r JOIN jobs j ON j.id = r.job_id WHERE r.lot_id = l.id AND j.state = 'begun'), 0) AS reserved FROM lots l `

func (r lotRow) lot() (drawer.Lot, error) {
	l := drawer.Lot{
		ID:    r.ID,
		Card:  paper.Card{Name: r.Card, GSM: r.GSM, Thickness: measure.Length(r.Thickness), Measured: r.Measured, Direction: paper.Direction(r.Direction), Grain: paper.Grain(r.Grain), Finish: paper.Finish(r.Finish)},
		Sheet: r.Sheet, Width: measure.Length(r.Width), Height: measure.Length(r.Height),
		Count: r.Count, Price: r.Price, Offcut: r.Offcut, From: r.Origin, Reserved: r.Reserved, Shape: drawer.Shape(r.Shape),
	}
	// A look that a later version wrote is taken from the name here.
	if seen, wrong := design.ReadLook(r.Look); wrong == nil {
		l.Card.Look = seen
	}
	return l, nil
}

// Lots lists the paper in the drawer; piles that are used up are not there.
func (d *Stockroom) Lots(ctx context.Context) ([]drawer.Lot, error) {
	return desk.RowsOf(ctx, d.at, lotRow.lot, scope.Table.SQL(selectLots+`WHERE l.count > 0 AND {whose l.} ORDER BY l.id`))
}

// lotHere is one pile of the table that is not used up.
var lotHere = scope.Table.SQL(selectLots + `WHERE l.id = ? AND l.count > 0 AND {whose l.}`)

// Lot gives one lot, or an ErrNotFound.
func (d *Stockroom) Lot(ctx context.Context, id int64) (drawer.Lot, error) {
	return desk.RowOf(ctx, d.at, lotRow.lot, noPile, lotHere, id)
}

// AddLots puts paper into the drawer, all of it or none. Sheets like those of
// a pile that is there, at its price, are laid on that pile.
func (d *Stockroom) AddLots(ctx context.Context, lots []drawer.Lot) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		place, err := d.at.Place(ctx, tx)
		if err != nil {
			return err
		}
		for _, l := range lots {
			if err := AddLot(ctx, tx, d.at, l, nil, place); err != nil {
				return err
			}
		}
		return mostPiles(ctx, tx, place)
	})
}

// MostPiles is how many piles of paper lie in the drawer of a table.
const MostPiles = 2000

func mostPiles(ctx context.Context, tx *scope.Tx, place string) error {
	var n int
	if err := tx.Get(ctx, &n, scope.Held.SQL(`SELECT count(*) FROM lots WHERE count > 0 AND place = ?`), place); err != nil {
		return err
	}
	if n > MostPiles {
		return fault.New(fault.TooLarge, "", "With these there would be %d piles in the drawer, and it holds up to %d. Nothing was taken.", n, MostPiles)
	}
	return nil
}

// AddLot puts paper into the drawer of a table; one maker alone has one drawer.
func AddLot(ctx context.Context, tx *scope.Tx, at desk.Desk, l drawer.Lot, job *int64, place string) error {
	if err := l.Check(); err != nil {
		return err
	}
	if l.Count == 0 {
		return nil
	}
	if err := bestMeasured(ctx, tx, &l.Card); err != nil {
		return err
	}
	seen, err := at.SeenLook(ctx, tx, l.Card.Look)
	if err != nil {
		return err
	}
	look := string(design.WriteLook(seen))
	if !l.Offcut {
		r, err := tx.Do(ctx, scope.Held.SQL(`
			UPDATE lots SET count = count + ?, look = CASE ? WHEN '' THEN look ELSE ? END, grain = CASE ? WHEN '' THEN grain ELSE ? END, finish = CASE ? WHEN '' THEN finish ELSE ? END WHERE id = (
				SELECT id FROM lots WHERE lower(card) = lower(?) AND gsm = ? AND direction = ? AND width = ? AND height = ? AND price = ? AND NOT offcut AND count > 0 AND (place = ? OR ?) LIMIT 1)`),
			l.Count, look, look, string(l.Card.Grain), string(l.Card.Grain), string(l.Card.Finish), string(l.Card.Finish), l.Card.Name, l.Card.GSM, string(l.Card.Direction), int64(l.Width), int64(l.Height), l.Price, place, at.Asker == scope.Alone)
		if err != nil {
			return err
		}
		if n, err := r.RowsAffected(); err != nil || n > 0 {
			return err
		}
	}
	_, err = tx.Do(ctx, scope.Held.SQL(`
		INSERT INTO lots (card, gsm, thickness, direction, sheet, width, height, count, price, offcut, origin, job_id, look, measured, grain, finish, place, shape)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`),
		l.Card.Name, l.Card.GSM, int64(l.Card.Thickness), string(l.Card.Direction), l.Sheet, int64(l.Width), int64(l.Height),
		l.Count, l.Price, l.Offcut, l.From, job, look, l.Card.Measured, string(l.Card.Grain), string(l.Card.Finish), place, string(l.Shape))
	return err
}

// ofCard finds the piles of a card by its name, weight and direction.
const ofCard = `lower(trim(card)) = lower(trim(?)) AND round(gsm) = round(?) AND direction = ?`

// bestMeasured gives a card and all its piles the thickness that is known best.
func bestMeasured(ctx context.Context, tx *scope.Tx, c *paper.Card) error {
	var there paper.Card
	err := tx.Get(ctx, &there, scope.Workshop.SQL(`SELECT thickness, measured FROM lots WHERE `+ofCard+` ORDER BY measured DESC, id DESC LIMIT 1`),
		c.Name, c.GSM, string(c.Direction))
	if errors.Is(err, sql.ErrNoRows) {
		return nil
	}
	if err != nil {
		return err
	}
	*c = c.Measures(there)
	_, err = tx.Do(ctx, scope.Workshop.SQL(`UPDATE lots SET thickness = ?, measured = ? WHERE measured < ? AND `+ofCard),
		int64(c.Thickness), c.Measured, c.Measured, c.Name, c.GSM, string(c.Direction))
	return err
}

// SetLot changes how many sheets a pile has and what one costs; a pile of none
// goes from the drawer to the bin. No fewer may be left than are reserved.
func (d *Stockroom) SetLot(ctx context.Context, id int64, count int, price float64) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		l, err := desk.RowOf(ctx, tx, lotRow.lot, noPile, lotHere, id)
		if err != nil {
			return err
		}
		l.Count, l.Price = count, price
		if err := l.Check(); err != nil {
			return err
		}
		if count == 0 {
			return d.putAside(ctx, tx, id)
		}
		return desk.One(noPile)(tx.Do(ctx, scope.Held.SQL(`UPDATE lots SET count = ?, price = ? WHERE id = ?`), count, price, id))
	})
}

// SetLook gives all piles of a card a look.
func (d *Stockroom) SetLook(ctx context.Context, c paper.Card) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		seen, err := d.at.SeenLook(ctx, tx, c.Look)
		if err != nil {
			return err
		}
		_, err = tx.Do(ctx, scope.Table.SQL(`UPDATE lots SET look = ? WHERE `+ofCard+` AND {whose}`),
			string(design.WriteLook(seen)), c.Name, c.GSM, string(c.Direction))
		return err
	})
}

// Take takes sheets off a pile, or with a negative count puts them back.
func Take(ctx context.Context, tx *scope.Tx, lot int64, count int) error {
	r, err := tx.Do(ctx, scope.Held.SQL(`UPDATE lots SET count = count - ?1 WHERE id = ?2 AND count >= ?1`), count, lot)
	if err != nil {
		return err
	}
	if n, err := r.RowsAffected(); err != nil || n == 1 {
		return err
	}
	return fault.New(fault.TooFew, "sheets", "the drawer has fewer sheets now than the job takes; lay it out again")
}

// Free tells how many sheets of a pile of the table nobody has reserved.
func Free(ctx context.Context, tx *scope.Tx, lot int64) (int, error) {
	l, err := desk.RowOf(ctx, tx, lotRow.lot, noPile, scope.Table.SQL(selectLots+`WHERE l.id = ? AND {whose l.}`), lot)
	return l.Free(), err
}
