package store

import (
	"context"
	"database/sql"
	"fmt"

	"brevium/core/contents"
	"brevium/core/design"
)

// KeptThing is a thing kept to be boxed again.
type KeptThing struct {
	ID int64
	contents.Thing
}

// Things lists the kept things by name.
func (s *Store) Things(ctx context.Context) ([]KeptThing, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, thing FROM things WHERE deleted_at IS NULL`+s.own(ctx, "")+` ORDER BY json_extract(thing, '$.name') COLLATE NOCASE, id`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []KeptThing
	for rows.Next() {
		var k KeptThing
		var text string
		if err := rows.Scan(&k.ID, &text); err != nil {
			return nil, err
		}
		if k.Thing, err = design.ReadThing([]byte(text)); err != nil {
			return nil, fmt.Errorf("thing %d: %w", k.ID, err)
		}
		out = append(out, k)
	}
	return out, rows.Err()
}

// KeepThing keeps one of a thing; one that is kept already is not kept twice.
func (s *Store) KeepThing(ctx context.Context, t contents.Thing) error {
	t.Count, t.ID = 1, 0
	return s.in(ctx, func(tx *sql.Tx) error {
		if err := s.roomFor(ctx, tx, "things"); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO things (maker, thing) VALUES (?, ?) ON CONFLICT (maker, thing) DO UPDATE SET deleted_at = NULL`, max(0, s.who(ctx)), string(design.WriteThing(t)))
		return err
	})
}
