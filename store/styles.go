package store

import (
	"context"
	"database/sql"
	"encoding/json"

	"brevium/core/fault"
)

// OwnStyle is a version of a maker's own style, as its file.
type OwnStyle struct {
	ID      string          `json:"id"`
	Version int             `json:"version"`
	File    json.RawMessage `json:"file"`
	Struck  bool            `json:"struck,omitempty"`
}

// MostStyles is how many versions of styles are kept.
const MostStyles = 300

// Styles lists a maker's own styles, every version, by id and version.
func (s *Store) Styles(ctx context.Context) ([]OwnStyle, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, version, file, struck FROM styles ORDER BY id, version`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []OwnStyle
	for rows.Next() {
		var x OwnStyle
		if err := rows.Scan(&x.ID, &x.Version, (*[]byte)(&x.File), &x.Struck); err != nil {
			return nil, err
		}
		out = append(out, x)
	}
	return out, rows.Err()
}

// AddStyle keeps a style file as the next version of its id, if began is the newest one there
// is, 0 for none; write puts the version into it. It gives the version, or with a fault the one
// that was kept meanwhile.
func (s *Store) AddStyle(ctx context.Context, id string, began int, write func(version int) ([]byte, error)) (version int, err error) {
	err = s.in(ctx, func(tx *sql.Tx) error {
		var all int
		if err := tx.QueryRowContext(ctx, `SELECT (SELECT count(*) FROM styles), (SELECT coalesce(max(version), 0) + 1 FROM styles WHERE id = ?)`, id).Scan(&all, &version); err != nil {
			return err
		}
		if all >= MostStyles {
			return fault.New(fault.TooLarge, "file", "There are %d styles of your own here already; that is the most.", MostStyles)
		}
		if newest := version - 1; newest != began {
			version = newest
			return fault.New(fault.NotTaken, "style", "Version %d of %q is here already, and yours was not begun from it. Keep it again to make it version %d, or look at that one first.", newest, id, newest+1)
		}
		file, err := write(version)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO styles (id, version, file, at) VALUES (?, ?, ?, ?)`, id, version, string(file), s.now().UnixMilli())
		return err
	})
	return version, err
}

// StrikeStyle offers a style no more, or again; boxes that are of it stay.
func (s *Store) StrikeStyle(ctx context.Context, id string, struck bool) error {
	return one(s.exec(ctx, `UPDATE styles SET struck = ?1 WHERE id = ?2 AND version = (SELECT max(version) FROM styles WHERE id = ?2)`, struck, id))
}

// styles puts in those versions that are not here.
func (b *bringing) styles(all []OwnStyle) error {
	for _, x := range all {
		if _, err := b.tx.ExecContext(b.ctx, `INSERT OR IGNORE INTO styles (id, version, file, struck, at) VALUES (?, ?, ?, ?, ?)`,
			x.ID, x.Version, string(x.File), x.Struck, b.s.now().UnixMilli()); err != nil {
			return err
		}
	}
	return nil
}
