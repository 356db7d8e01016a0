package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"

	"brevium/core/fault"
	"brevium/core/logbook"
)

const noteColumns = `id, coalesce(box_id, 0), made, name, style, card, felt, minutes, remember, photo, design`

func scanNote(row interface{ Scan(...any) error }) (logbook.Note, error) {
	var n logbook.Note
	var made int64
	var felt []byte
	err := row.Scan(&n.ID, &n.Box, &made, &n.Name, &n.Style, &n.Card, &felt, &n.Minutes, &n.Remember, &n.Photo, &n.Design)
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
	return s.in(ctx, func(tx *sql.Tx) error {
		if err := s.roomFor(ctx, tx, "notes"); err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `
		INSERT INTO notes (maker, box_id, made, name, style, card, felt, minutes, remember, photo, design) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
			max(0, s.who(ctx)), n.Box, s.now().UnixMilli(), n.Name, n.Style, n.Card, string(felt), n.Minutes, n.Remember, n.Photo, string(n.Design))
		if err != nil {
			return err
		}
		return s.claim(ctx, tx, string(n.Design), s.who(ctx))
	})
}

// BringNotes writes notes of another logbook, those that are not there yet; it gives
// how many were taken.
func (s *Store) BringNotes(ctx context.Context, notes []logbook.Note) (taken int, err error) {
	err = s.in(ctx, func(tx *sql.Tx) error {
		for i, n := range notes {
			if err := n.Check(); err != nil {
				return fault.At(fault.Path("notes", i), err)
			}
			new, err := bringNote(ctx, tx, max(0, s.who(ctx)), n)
			if err != nil {
				return err
			}
			taken += new
		}
		return s.hasRoom(ctx, tx)
	})
	return taken, err
}

// bringNote writes a note, if there is none of that box and time.
func bringNote(ctx context.Context, tx *sql.Tx, maker int64, n logbook.Note) (taken int, err error) {
	felt, err := json.Marshal(append([]logbook.Felt{}, n.Felt...))
	if err != nil {
		return 0, err
	}
	r, err := tx.ExecContext(ctx, `
		INSERT INTO notes (made, name, style, card, felt, minutes, remember, photo, design, maker) SELECT ?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10
		WHERE NOT EXISTS (SELECT 1 FROM notes WHERE made = ?1 AND name = ?2 AND maker = ?10)`,
		n.Made.UnixMilli(), n.Name, n.Style, n.Card, string(felt), n.Minutes, n.Remember, n.Photo, string(n.Design), maker)
	if err != nil {
		return 0, err
	}
	rows, err := r.RowsAffected()
	return int(rows), err
}

// Notes lists the logbook, the latest first.
func (s *Store) Notes(ctx context.Context) ([]logbook.Note, error) { return s.NotesFrom(ctx, 0, -1) }

// NotesFrom lists so many notes from one on, the latest first; all that follow for −1.
func (s *Store) NotesFrom(ctx context.Context, first, most int) ([]logbook.Note, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+noteColumns+` FROM notes WHERE 1`+s.own(ctx, "")+` ORDER BY made DESC, id DESC LIMIT ? OFFSET ?`, most, first)
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

// CountNotes is how many notes there are.
func (s *Store) CountNotes(ctx context.Context) (n int, err error) {
	return n, s.db.QueryRowContext(ctx, `SELECT count(*) FROM notes WHERE 1`+s.own(ctx, "")).Scan(&n)
}

// Felt lists how fits felt, note by note.
func (s *Store) Felt(ctx context.Context) ([][]logbook.Felt, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT felt FROM notes WHERE 1`+s.own(ctx, "")+` ORDER BY id`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out [][]logbook.Felt
	for rows.Next() {
		var text []byte
		var felt []logbook.Felt
		if err := rows.Scan(&text); err != nil {
			return nil, err
		}
		if err := json.Unmarshal(text, &felt); err != nil {
			return nil, err
		}
		out = append(out, felt)
	}
	return out, rows.Err()
}

// LoggedNote gives one note, or ErrNotFound.
func (s *Store) LoggedNote(ctx context.Context, id int64) (logbook.Note, error) {
	return scanNote(s.db.QueryRowContext(ctx, `SELECT `+noteColumns+` FROM notes WHERE id = ?`+s.own(ctx, ""), id))
}

// DropNote strikes a note out.
func (s *Store) DropNote(ctx context.Context, id int64) error {
	return one(s.exec(ctx, `DELETE FROM notes WHERE id = ?`+s.own(ctx, ""), id))
}

// KeptNote is a note of the logbook; Made is in milliseconds since 1970.
type KeptNote struct {
	Made     int64           `json:"made_ms"`
	Name     string          `json:"name"`
	Style    string          `json:"style"`
	Card     string          `json:"card"`
	Felt     []logbook.Felt  `json:"felt"`
	Minutes  float64         `json:"minutes,omitempty"`
	Remember string          `json:"remember,omitempty"`
	Photo    string          `json:"photo,omitempty"`
	Design   json.RawMessage `json:"design"`
}

// logged is the note as the logbook has it.
func (n KeptNote) logged() logbook.Note {
	return logbook.Note{
		Made: time.UnixMilli(n.Made), Name: n.Name, Style: n.Style, Card: n.Card, Felt: n.Felt,
		Minutes: n.Minutes, Remember: n.Remember, Photo: n.Photo, Design: n.Design,
	}
}
