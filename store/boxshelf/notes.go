package boxshelf

import (
	"context"
	"encoding/json"
	"time"

	"brevium/core/fault"
	"brevium/core/logbook"
	"brevium/store/desk"
	"brevium/store/scope"
)

// NoteRow is a note as its table has it.
type NoteRow struct {
	ID, Box, Made     int64
	Name, Style, Card string
	Felt, Design      []byte
	Minutes           float64
	Remember, Photo   string
}

const noNote desk.Absent = "note"

// SelectNotes reads such rows.
const SelectNotes = `SELECT id, coalesce(box_id, 0) AS box, made, name, style, card, felt, minutes, remember, photo, design FROM notes `

func (r NoteRow) note() (n logbook.Note, err error) {
	n = logbook.Note{ID: r.ID, Box: r.Box, Made: time.UnixMilli(r.Made), Name: r.Name, Style: r.Style, Card: r.Card, Minutes: r.Minutes, Remember: r.Remember, Photo: r.Photo, Design: r.Design}
	err = json.Unmarshal(r.Felt, &n.Felt)
	return n, err
}

// AddNote writes a note into the logbook.
func (d *Shelf) AddNote(ctx context.Context, n logbook.Note) error {
	if err := n.Check(); err != nil {
		return err
	}
	felt, err := json.Marshal(append([]logbook.Felt{}, n.Felt...))
	if err != nil {
		return err
	}
	return d.at.In(ctx, func(tx *scope.Tx) error {
		if err := d.at.RoomFor(ctx, tx, "notes"); err != nil {
			return err
		}
		_, err = tx.Do(ctx, scope.Own.SQL(`
		INSERT INTO notes (maker, box_id, made, name, style, card, felt, minutes, remember, photo, design) VALUES ({me}, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`),
			n.Box, d.at.Now().UnixMilli(), n.Name, n.Style, n.Card, string(felt), n.Minutes, n.Remember, n.Photo, string(n.Design))
		if err != nil {
			return err
		}
		return d.at.Claim(ctx, tx, string(n.Design), d.at.Me())
	})
}

// BringNotes writes notes of another logbook, those that are not there yet; it gives
// how many were taken.
func (d *Shelf) BringNotes(ctx context.Context, notes []logbook.Note) (taken int, err error) {
	err = d.at.In(ctx, func(tx *scope.Tx) error {
		for i, n := range notes {
			if err := n.Check(); err != nil {
				return fault.At(fault.Path("notes", i), err)
			}
			new, err := BringNote(ctx, tx, n)
			if err != nil {
				return err
			}
			taken += new
		}
		return d.at.HasRoom(ctx, tx)
	})
	return taken, err
}

// BringNote writes a note, if the asker has none of that box and time.
func BringNote(ctx context.Context, tx *scope.Tx, n logbook.Note) (taken int, err error) {
	felt, err := json.Marshal(append([]logbook.Felt{}, n.Felt...))
	if err != nil {
		return 0, err
	}
	r, err := tx.Do(ctx, scope.Own.SQL(`
		INSERT INTO notes (made, name, style, card, felt, minutes, remember, photo, design, maker) SELECT ?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, {me}
		WHERE NOT EXISTS (SELECT 1 FROM notes WHERE made = ?1 AND name = ?2 AND maker = {me})`),
		n.Made.UnixMilli(), n.Name, n.Style, n.Card, string(felt), n.Minutes, n.Remember, n.Photo, string(n.Design))
	if err != nil {
		return 0, err
	}
	rows, err := r.RowsAffected()
	return int(rows), err
}

// Notes lists the logbook, the latest first.
func (d *Shelf) Notes(ctx context.Context) ([]logbook.Note, error) { return d.NotesFrom(ctx, 0, -1) }

// NotesFrom lists so many notes from one on, the latest first; all that follow for −1.
func (d *Shelf) NotesFrom(ctx context.Context, first, most int) ([]logbook.Note, error) {
	return desk.RowsOf(ctx, d.at, NoteRow.note, scope.Own.SQL(SelectNotes+`WHERE {whose} ORDER BY made DESC, id DESC LIMIT ? OFFSET ?`), most, first)
}

// CountNotes is how many notes there are.
func (d *Shelf) CountNotes(ctx context.Context) (n int, err error) {
	err = d.at.Get(ctx, &n, scope.Own.SQL(`SELECT count(*) FROM notes WHERE {whose}`))
	return n, err
}

// Felt lists how fits felt, note by note.
func (d *Shelf) Felt(ctx context.Context) ([][]logbook.Felt, error) {
	return desk.RowsOf(ctx, d.at, func(text []byte) (felt []logbook.Felt, err error) {
		err = json.Unmarshal(text, &felt)
		return felt, err
	}, scope.Own.SQL(`SELECT felt FROM notes WHERE {whose} ORDER BY id`))
}

// LoggedNote gives one note, or an ErrNotFound.
func (d *Shelf) LoggedNote(ctx context.Context, id int64) (logbook.Note, error) {
	return desk.RowOf(ctx, d.at, NoteRow.note, noNote, scope.Own.SQL(SelectNotes+`WHERE id = ? AND {whose}`), id)
}

// DropNote strikes a note out.
func (d *Shelf) DropNote(ctx context.Context, id int64) error {
	return desk.One(noNote)(d.at.Do(ctx, scope.Own.SQL(`DELETE FROM notes WHERE id = ? AND {whose}`), id))
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

// Logged is the note as the logbook has it.
func (n KeptNote) Logged() logbook.Note {
	return logbook.Note{
		Made: time.UnixMilli(n.Made), Name: n.Name, Style: n.Style, Card: n.Card, Felt: n.Felt,
		Minutes: n.Minutes, Remember: n.Remember, Photo: n.Photo, Design: n.Design,
	}
}
