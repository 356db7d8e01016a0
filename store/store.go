// Package store keeps boxes in SQLite: their inputs, the inputs before each
// change, and the steps ticked off. Results are never stored; they follow
// from the inputs.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"time"
	"unicode/utf8"

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // the driver "sqlite"

	"brevium/core/design"
	"brevium/core/measure"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound means that there is no box of that number, or it was deleted.
var ErrNotFound = errors.New("there is no box of this number")

// Store is an open database. Its methods may be called from any goroutine;
// each one that changes something does so in one transaction and returns
// once that is on disk.
type Store struct {
	db    *sql.DB // reads, by up to readers at a time
	write *sql.DB // writes, one after the other: SQLite has one writer
	now   func() time.Time
}

// readers is how many connections read at the same time.
const readers = 8

// Open opens or makes the database in the file and brings its tables up to
// date.
func Open(ctx context.Context, file string) (*Store, error) {
	q := url.Values{
		"_pragma": {"journal_mode(WAL)", "foreign_keys(1)", "busy_timeout(5000)", "synchronous(FULL)"},
		"_txlock": {"immediate"},
	}
	// Only the maker's own account reads it; SQLite gives its other files the
	// same rights.
	made, err := os.OpenFile(file, os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, fmt.Errorf("open %s: %w", file, err)
	}
	if err := made.Close(); err != nil {
		return nil, err
	}
	source := "file:" + (&url.URL{Path: file}).EscapedPath() + "?" + q.Encode()
	write, err := sql.Open("sqlite", source)
	if err != nil {
		return nil, fmt.Errorf("open %s: %w", file, err)
	}
	write.SetMaxOpenConns(1)
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	up, err := goose.NewProvider(goose.DialectSQLite3, write, dir)
	if err == nil {
		_, err = up.Up(ctx)
	}
	if err != nil {
		return nil, errors.Join(fmt.Errorf("prepare %s: %w", file, err), write.Close())
	}
	db, err := sql.Open("sqlite", source)
	if err != nil {
		return nil, errors.Join(fmt.Errorf("open %s: %w", file, err), write.Close())
	}
	db.SetMaxOpenConns(readers)
	return &Store{db: db, write: write, now: time.Now}, nil
}

// Close closes the database.
func (s *Store) Close() error { return errors.Join(s.db.Close(), s.write.Close()) }

// Ping reports whether the database answers.
func (s *Store) Ping(ctx context.Context) error {
	return s.db.QueryRowContext(ctx, `SELECT 1`).Scan(new(int))
}

// Box is a kept design.
type Box struct {
	ID      int64
	Name    string
	Inputs  design.Inputs
	Changed time.Time
	// Version numbers its present state; numbers only grow.
	Version int64
	// Last is what Undo would take back, and Undone what Redo would bring
	// back; their What is "" when there is nothing.
	Last, Undone Change
	// Broken tells why a box cannot be read, and Text is then what is stored
	// of it; its Inputs are only a stand-in and are never saved.
	Broken error
	Text   string
}

const columns = `b.id, b.name, b.inputs, b.changed_at, b.version,
	coalesce(c.id, 0), coalesce(c.what, ''), coalesce(u.id, 0), coalesce(u.what, '')`

// fromBoxes are boxes with their last change and the last one undone.
const fromBoxes = ` FROM boxes b
	LEFT JOIN changes c ON c.id = (SELECT max(id) FROM changes WHERE box_id = b.id)
	LEFT JOIN undone u ON u.id = (SELECT max(id) FROM undone WHERE box_id = b.id) `

func scan(row interface{ Scan(...any) error }) (Box, error) {
	var b Box
	var inputs string
	var changed int64
	err := row.Scan(&b.ID, &b.Name, &inputs, &changed, &b.Version, &b.Last.ID, &b.Last.What, &b.Undone.ID, &b.Undone.What)
	if err != nil {
		if errors.Is(err, sql.ErrNoRows) {
			err = ErrNotFound
		}
		return b, err
	}
	b.Changed = time.UnixMilli(changed)
	if b.Inputs, err = design.Read([]byte(inputs)); err != nil {
		// It stays in its list, to be exported, mended or deleted.
		b.Broken, b.Text = fmt.Errorf("box %d: %w", b.ID, err), inputs
		b.Inputs = design.New(b.Name, measure.MM, "tray")
	}
	return b, nil
}

// Boxes lists what is not deleted, the last changed first.
func (s *Store) Boxes(ctx context.Context) ([]Box, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+columns+fromBoxes+`WHERE b.deleted_at IS NULL ORDER BY b.changed_at DESC, b.id DESC`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Box
	for rows.Next() {
		b, err := scan(rows)
		if err != nil {
			return nil, err
		}
		out = append(out, b)
	}
	return out, rows.Err()
}

// Box gives one box, or ErrNotFound.
func (s *Store) Box(ctx context.Context, id int64) (Box, error) {
	return scan(s.db.QueryRowContext(ctx, `SELECT `+columns+fromBoxes+`WHERE b.id = ? AND b.deleted_at IS NULL`, id))
}

// Add keeps a new box and gives its number.
func (s *Store) Add(ctx context.Context, in design.Inputs) (id int64, err error) {
	in.NumberThings()
	err = s.in(ctx, func(tx *sql.Tx) error {
		now := s.now().UnixMilli()
		r, err := tx.ExecContext(ctx, `INSERT INTO boxes (name, inputs, created_at, changed_at) VALUES (?, ?, ?, ?)`,
			in.Name, string(in.Write()), now, now)
		if err != nil {
			return err
		}
		if id, err = r.LastInsertId(); err != nil {
			return err
		}
		_, err = s.state(ctx, tx, "box", id, "", string(in.Write()))
		return err
	})
	return id, err
}

// Copy keeps a second box like the first and gives its number.
func (s *Store) Copy(ctx context.Context, id int64) (int64, error) {
	b, err := s.Box(ctx, id)
	if err != nil {
		return 0, err
	}
	in := b.Inputs
	in.Name += ", copy"
	if utf8.RuneCountInString(in.Name) > design.LongestName {
		in.Name = b.Inputs.Name
	}
	return s.Add(ctx, in)
}

// Delete hides a box until Restore.
func (s *Store) Delete(ctx context.Context, id int64) error {
	return one(s.write.ExecContext(ctx, `UPDATE boxes SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL`, s.now().UnixMilli(), id))
}

// Restore brings a deleted box back.
func (s *Store) Restore(ctx context.Context, id int64) error {
	return one(s.write.ExecContext(ctx, `UPDATE boxes SET deleted_at = NULL WHERE id = ?`, id))
}

// Ticks gives the steps ticked off: by step, what it said then.
func (s *Store) Ticks(ctx context.Context, id int64) (map[string]string, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT step, mark FROM ticks WHERE box_id = ?`, id)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := map[string]string{}
	for rows.Next() {
		var step, mark string
		if err := rows.Scan(&step, &mark); err != nil {
			return nil, err
		}
		out[step] = mark
	}
	return out, rows.Err()
}

// Tick ticks a step off, or takes the tick away.
func (s *Store) Tick(ctx context.Context, id int64, step, mark string, done bool) error {
	if _, err := s.Box(ctx, id); err != nil {
		return err
	}
	if !done {
		_, err := s.write.ExecContext(ctx, `DELETE FROM ticks WHERE box_id = ? AND step = ?`, id, step)
		return err
	}
	_, err := s.write.ExecContext(ctx, `
		INSERT INTO ticks (box_id, step, mark, at) VALUES (?1, ?2, ?3, ?4)
		ON CONFLICT (box_id, step) DO UPDATE SET mark = ?3, at = ?4`, id, step, mark, s.now().UnixMilli())
	return err
}

// in runs f in one transaction.
func (s *Store) in(ctx context.Context, f func(*sql.Tx) error) error {
	tx, err := s.write.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	if err := f(tx); err != nil {
		return errors.Join(err, tx.Rollback())
	}
	return tx.Commit()
}

// one turns a statement that touched no row into ErrNotFound.
func one(r sql.Result, err error) error {
	if err != nil {
		return err
	}
	if n, err := r.RowsAffected(); err != nil || n == 1 {
		return err
	}
	return ErrNotFound
}
