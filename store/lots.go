package store

import (
	"context"
	"database/sql"
	"errors"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/paper"
)

const lotColumns = `l.id, l.card, l.gsm, l.thickness, l.direction, l.sheet, l.width, l.height, l.count, l.price, l.offcut, l.origin, l.look, l.measured,
	coalesce((SELECT sum(r.count) FROM job_lots r JOIN jobs j ON j.id = r.job_id WHERE r.lot_id = l.id AND j.state = 'begun'), 0)`

func scanLot(row interface{ Scan(...any) error }) (drawer.Lot, error) {
	var l drawer.Lot
	var direction string
	var look []byte
	err := row.Scan(&l.ID, &l.Card.Name, &l.Card.GSM, (*int64)(&l.Card.Thickness), &direction, &l.Sheet,
		(*int64)(&l.Width), (*int64)(&l.Height), &l.Count, &l.Price, &l.Offcut, &l.From, &look, &l.Card.Measured, &l.Reserved)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	l.Card.Direction = paper.Direction(direction)
	// A look that a later version wrote is taken from the name here.
	if seen, wrong := design.ReadLook(look); wrong == nil {
		l.Card.Look = seen
	}
	return l, err
}

// Lots lists the paper in the drawer; piles that are used up are not there.
func (s *Store) Lots(ctx context.Context) ([]drawer.Lot, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+lotColumns+` FROM lots l WHERE l.count > 0`+s.here(ctx, "l.")+` ORDER BY l.id`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []drawer.Lot
	for rows.Next() {
		l, err := scanLot(rows)
		if err != nil {
			return nil, err
		}
		out = append(out, l)
	}
	return out, rows.Err()
}

// Lot gives one lot, or ErrNotFound.
func (s *Store) Lot(ctx context.Context, id int64) (drawer.Lot, error) {
	return scanLot(s.db.QueryRowContext(ctx, `SELECT `+lotColumns+` FROM lots l WHERE l.id = ? AND l.count > 0`+s.here(ctx, "l."), id))
}

// AddLots puts paper into the drawer, all of it or none. Sheets like those of
// a pile that is there, at its price, are laid on that pile.
func (s *Store) AddLots(ctx context.Context, lots []drawer.Lot) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		place, err := s.place(ctx, tx)
		if err != nil {
			return err
		}
		for _, l := range lots {
			if err := s.addLot(ctx, tx, l, nil, place); err != nil {
				return err
			}
		}
		return mostPiles(ctx, tx, place)
	})
}

// MostPiles is how many piles of paper lie in the drawer of a table.
const MostPiles = 2000

func mostPiles(ctx context.Context, tx *sql.Tx, place string) error {
	var n int
	if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM lots WHERE count > 0 AND place = ?`, place).Scan(&n); err != nil {
		return err
	}
	if n > MostPiles {
		return fault.New(fault.TooLarge, "", "With these there would be %d piles in the drawer, and it holds up to %d. Nothing was taken.", n, MostPiles)
	}
	return nil
}

// addLot puts paper into the drawer of a table; one maker alone has one drawer.
func (s *Store) addLot(ctx context.Context, tx *sql.Tx, l drawer.Lot, job *int64, place string) error {
	if err := l.Check(); err != nil {
		return err
	}
	if l.Count == 0 {
		return nil
	}
	if err := bestMeasured(ctx, tx, &l.Card); err != nil {
		return err
	}
	seen, err := s.seenLook(ctx, tx, l.Card.Look)
	if err != nil {
		return err
	}
	look := string(design.WriteLook(seen))
	if !l.Offcut {
		r, err := tx.ExecContext(ctx, `
			UPDATE lots SET count = count + ?, look = CASE ? WHEN '' THEN look ELSE ? END WHERE id = (
				SELECT id FROM lots WHERE lower(card) = lower(?) AND gsm = ? AND direction = ? AND width = ? AND height = ? AND price = ? AND NOT offcut AND count > 0 AND (place = ? OR ?) LIMIT 1)`,
			l.Count, look, look, l.Card.Name, l.Card.GSM, string(l.Card.Direction), int64(l.Width), int64(l.Height), l.Price, place, s.who(ctx) == 0)
		if err != nil {
			return err
		}
		if n, err := r.RowsAffected(); err != nil || n > 0 {
			return err
		}
	}
	_, err = tx.ExecContext(
		ctx,
		`
		INSERT INTO lots (card, gsm, thickness, direction, sheet, width, height, count, price, offcut, origin, job_id, look, measured, place)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
		l.Card.Name,
		l.Card.GSM,
		int64(l.Card.Thickness),
		string(l.Card.Direction),
		l.Sheet,
		int64(l.Width),
		int64(l.Height),
		l.Count,
		l.Price,
		l.Offcut,
		l.From,
		job,
		look,
		l.Card.Measured,
		place,
	)
	return err
}

// ofCard finds the piles of a card by its name, weight and direction.
const ofCard = `lower(trim(card)) = lower(trim(?)) AND round(gsm) = round(?) AND direction = ?`

// bestMeasured gives a card and all its piles the thickness that is known best.
func bestMeasured(ctx context.Context, tx *sql.Tx, c *paper.Card) error {
	var there paper.Card
	err := tx.QueryRowContext(ctx, `SELECT thickness, measured FROM lots WHERE `+ofCard+` ORDER BY measured DESC, id DESC LIMIT 1`,
		c.Name, c.GSM, string(c.Direction)).Scan((*int64)(&there.Thickness), &there.Measured)
	if errors.Is(err, sql.ErrNoRows) {
		return nil
	}
	if err != nil {
		return err
	}
	*c = c.Measures(there)
	_, err = tx.ExecContext(ctx, `UPDATE lots SET thickness = ?, measured = ? WHERE measured < ? AND `+ofCard,
		int64(c.Thickness), c.Measured, c.Measured, c.Name, c.GSM, string(c.Direction))
	return err
}

// SetLot changes how many sheets a pile has and what one costs; a pile of none
// goes from the drawer to the bin. No fewer may be left than are reserved.
func (s *Store) SetLot(ctx context.Context, id int64, count int, price float64) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		l, err := scanLot(tx.QueryRowContext(ctx, `SELECT `+lotColumns+` FROM lots l WHERE l.id = ? AND l.count > 0`+s.here(ctx, "l."), id))
		if err != nil {
			return err
		}
		l.Count, l.Price = count, price
		if err := l.Check(); err != nil {
			return err
		}
		if count == 0 {
			return s.putAside(ctx, tx, id)
		}
		return one(tx.ExecContext(ctx, `UPDATE lots SET count = ?, price = ? WHERE id = ?`, count, price, id))
	})
}

// SetLook gives all piles of a card a look.
func (s *Store) SetLook(ctx context.Context, c paper.Card) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		seen, err := s.seenLook(ctx, tx, c.Look)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `UPDATE lots SET look = ? WHERE `+ofCard+s.here(ctx, ""),
			string(design.WriteLook(seen)), c.Name, c.GSM, string(c.Direction))
		return err
	})
}

// take takes sheets off a pile, or with a negative count puts them back.
func take(ctx context.Context, tx *sql.Tx, lot int64, count int) error {
	r, err := tx.ExecContext(ctx, `UPDATE lots SET count = count - ?1 WHERE id = ?2 AND count >= ?1`, count, lot)
	if err != nil {
		return err
	}
	if n, err := r.RowsAffected(); err != nil || n == 1 {
		return err
	}
	return fault.New(fault.TooFew, "sheets", "the drawer has fewer sheets now than the job takes; lay it out again")
}

// free tells how many sheets of a lot nobody has reserved.
func (s *Store) free(ctx context.Context, tx *sql.Tx, lot int64) (int, error) {
	l, err := scanLot(tx.QueryRowContext(ctx, `SELECT `+lotColumns+` FROM lots l WHERE l.id = ?`+s.here(ctx, "l."), lot))
	return l.Free(), err
}
