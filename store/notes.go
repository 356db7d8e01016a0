package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"

	"brevium/core/logbook"
)

const noteColumns = `id, coalesce(box_id, 0), made, name, style, card, felt, remember, design`

func scanNote(row interface{ Scan(...any) error }) (logbook.Note, error) {
	var n logbook.Note
	var made int64
	var felt []byte
	err := row.Scan(&n.ID, &n.Box, &made, &n.Name, &n.Style, &n.Card, &felt, &n.Remember, &n.Design)
	if errors.Is(err, sql.ErrNoRows) {
		return n, ErrNotFound
	}
	if err != nil {
		return n, err
	}
	n.Made = time.UnixMilli(made)
	return n, json.Unmarshal(felt, &n.Felt)
}

// AddNote writes a note into the logbook.
func (s *Store) AddNote(ctx context.Context, n logbook.Note) error {
	if err := n.Check(); err != nil {
		return err
	}
	felt, err := json.Marshal(append([]logbook.Felt{}, n.Felt...))
	if err != nil {
		return err
	}
	_, err = s.exec(ctx, `INSERT INTO notes (box_id, made, name, style, card, felt, remember, design) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
		n.Box, s.now().UnixMilli(), n.Name, n.Style, n.Card, string(felt), n.Remember, string(n.Design))
	return err
}

// Notes lists the logbook, the latest first.
func (s *Store) Notes(ctx context.Context) ([]logbook.Note, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+noteColumns+` FROM notes ORDER BY made DESC, id DESC`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []logbook.Note
	for rows.Next() {
		n, err := scanNote(rows)
		if err != nil {
			return nil, err
		}
		out = append(out, n)
	}
	return out, rows.Err()
}

// LoggedNote gives one note, or ErrNotFound.
func (s *Store) LoggedNote(ctx context.Context, id int64) (logbook.Note, error) {
	return scanNote(s.db.QueryRowContext(ctx, `SELECT `+noteColumns+` FROM notes WHERE id = ?`, id))
}

// DropNote strikes a note out.
func (s *Store) DropNote(ctx context.Context, id int64) error {
	return one(s.exec(ctx, `DELETE FROM notes WHERE id = ?`, id))
}

// KeptNote is a note of the logbook; Made is in milliseconds since 1970.
type KeptNote struct {
	Made     int64           `json:"made_ms"`
	Name     string          `json:"name"`
	Style    string          `json:"style"`
	Card     string          `json:"card"`
	Felt     []logbook.Felt  `json:"felt"`
	Remember string          `json:"remember,omitempty"`
	Design   json.RawMessage `json:"design"`
}

// note writes a note, if there is none of that box and time.
func (b *bringing) note(n KeptNote) error {
	felt, err := json.Marshal(append([]logbook.Felt{}, n.Felt...))
	if err != nil {
		return err
	}
	_, err = b.tx.ExecContext(b.ctx, `
		INSERT INTO notes (made, name, style, card, felt, remember, design) SELECT ?1, ?2, ?3, ?4, ?5, ?6, ?7
		WHERE NOT EXISTS (SELECT 1 FROM notes WHERE made = ?1 AND name = ?2)`,
		n.Made, n.Name, n.Style, n.Card, string(felt), n.Remember, string(n.Design))
	return err
}
