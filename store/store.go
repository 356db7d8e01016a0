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
	"os"
	"sync"
	"sync/atomic"
	"time"
	"unicode/utf8"

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // the driver "sqlite"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/people"
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
	gate  *gate   // shut while the file is exchanged
	file  string
	now   func() time.Time

	shop    atomic.Bool            // it is a workshop's: all is somebody's
	pepper  people.Pepper          // a workshop's secret, kept elsewhere
	changed changes                // tells those who watch
	damage  atomic.Pointer[string] // what is known to be wrong
	wrote   chan struct{}          // something was written
	done    chan struct{}
	closing sync.Once
	tidying sync.WaitGroup
}

// readers is how many connections read at the same time.
const readers = 8

// ErrNewer means that a newer version wrote the database; it is left alone.
var ErrNewer = errors.New("these data were written by a newer Brevium")

// Open opens or makes the database in the file and brings its tables up to
// date. One that a newer version wrote is ErrNewer, and not touched.
func Open(ctx context.Context, file string) (*Store, error) {
	// Only the maker's own account reads it; SQLite gives its other files the
	// same rights.
	made, err := os.OpenFile(file, os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, fmt.Errorf("open %s: %w", file, err)
	}
	if err := made.Close(); err != nil {
		return nil, err
	}
	from := source(file, "journal_mode(WAL)", "foreign_keys(1)", "busy_timeout(5000)", "synchronous(FULL)", "secure_delete(1)")
	gate := &gate{}
	write, err := opened(from, gate)
	if err != nil {
		return nil, fmt.Errorf("open %s: %w", file, err)
	}
	write.SetMaxOpenConns(1)
	if err := migrate(ctx, write); err != nil {
		return nil, errors.Join(fmt.Errorf("prepare %s: %w", file, err), write.Close())
	}
	db, err := opened(from, gate)
	if err != nil {
		return nil, errors.Join(fmt.Errorf("open %s: %w", file, err), write.Close())
	}
	db.SetMaxOpenConns(readers)
	s := &Store{db: db, write: write, gate: gate, file: file, now: time.Now, wrote: make(chan struct{}, 1), done: make(chan struct{})}
	s.tidying.Go(s.tidy)
	return s, nil
}

// inGo are the migrations that SQL alone cannot do.
var inGo = goose.WithGoMigrations(goose.NewGoMigration(22, &goose.GoFunc{RunTx: markLinks}, nil))

// migrationsOf are the steps that bring a database's tables up to date.
func migrationsOf(db *sql.DB) (*goose.Provider, error) {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectSQLite3, db, dir, inGo)
}

// migrate brings the tables up to date.
func migrate(ctx context.Context, db *sql.DB) error {
	up, err := migrationsOf(db)
	if err != nil {
		return err
	}
	now, err := up.GetDBVersion(ctx)
	if err != nil {
		return err
	}
	known := up.ListSources()
	if newest := known[len(known)-1].Version; now > newest {
		return fmt.Errorf("%w: their format is %d, and this one writes %d; start that one, or bring back an older copy", ErrNewer, now, newest)
	}
	_, err = up.Up(ctx)
	return err
}

// tidyAfter is how long after a change the database file takes it in from
// SQLite's log beside it.
const tidyAfter = time.Second

// tidy moves what was written from the log into the file soon after, so that
// the file alone is never far behind.
func (s *Store) tidy() {
	for {
		select {
		case <-s.done:
			return
		case <-s.wrote:
		}
		select {
		case <-s.done: // closing does it
			return
		case <-time.After(tidyAfter):
		}
		// One that has to wait for readers is done after the next change.
		if _, err := s.write.Exec(`PRAGMA wal_checkpoint(PASSIVE)`); err != nil {
			s.Note(err)
		}
	}
}

// UseClock tells the time by another clock, for trying out what happens when
// one goes wrong. It may only be called before the store is used.
func (s *Store) UseClock(now func() time.Time) { s.now = now }

// Now is the time by the clock that is used.
func (s *Store) Now() time.Time { return s.now() }

// Close closes the database.
func (s *Store) Close() error {
	s.closing.Do(func() { close(s.done) })
	s.tidying.Wait()
	return errors.Join(s.db.Close(), s.write.Close())
}

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
	// Maker is whose it is in a workshop, and Shared that everybody there works on it.
	Maker  int64
	Shared bool
}

const columns = `b.maker, b.shared, b.id, b.name, b.inputs, b.changed_at, b.version,
	coalesce(c.id, 0), coalesce(c.what, ''), coalesce((SELECT name FROM people WHERE id = c.maker), ''), coalesce(u.id, 0), coalesce(u.what, '')`

// fromBoxes are boxes with their last change and the last one undone.
const fromBoxes = ` FROM boxes b
	LEFT JOIN changes c ON c.id = (SELECT max(id) FROM changes WHERE box_id = b.id)
	LEFT JOIN undone u ON u.id = (SELECT max(id) FROM undone WHERE box_id = b.id) `

func scan(row interface{ Scan(...any) error }) (Box, error) {
	var b Box
	var inputs string
	var changed int64
	err := row.Scan(&b.Maker, &b.Shared, &b.ID, &b.Name, &inputs, &changed, &b.Version, &b.Last.ID, &b.Last.What, &b.Last.By, &b.Undone.ID, &b.Undone.What)
	if err != nil {
		if errors.Is(err, sql.ErrNoRows) {
			err = ErrNotFound
		}
		return b, err
	}
	b.Changed = time.UnixMilli(changed)
	if b.Inputs, err = design.ReadKept([]byte(inputs)); err != nil {
		// It stays in its list, to be exported, mended or deleted.
		b.Broken, b.Text = fmt.Errorf("box %d: %w", b.ID, err), inputs
		b.Inputs = design.New(b.Name, measure.MM, "tray")
	}
	return b, nil
}

// Boxes lists what is not deleted, the last changed first.
func (s *Store) Boxes(ctx context.Context) ([]Box, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+columns+fromBoxes+`WHERE b.deleted_at IS NULL`+s.seen(ctx, "b.")+` ORDER BY b.changed_at DESC, b.id DESC`)
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
	return scan(s.db.QueryRowContext(ctx, `SELECT `+columns+fromBoxes+`WHERE b.id = ? AND b.deleted_at IS NULL`+s.seen(ctx, "b."), id))
}

// Add keeps a new box and gives its number.
func (s *Store) Add(ctx context.Context, in design.Inputs) (id int64, err error) {
	in.NumberThings()
	err = s.in(ctx, func(tx *sql.Tx) error {
		if err := s.roomFor(ctx, tx, "boxes"); err != nil {
			return err
		}
		now := s.now().UnixMilli()
		r, err := tx.ExecContext(ctx, `INSERT INTO boxes (id, maker, name, inputs, created_at, changed_at) VALUES (?, ?, ?, ?, ?, ?)`,
			s.number(ctx), max(0, s.who(ctx)), in.Name, string(in.Write()), now, now)
		if err != nil {
			return err
		}
		if id, err = r.LastInsertId(); err != nil {
			return err
		}
		if _, err = s.state(ctx, tx, "box", id, "", string(in.Write())); err != nil {
			return err
		}
		return s.claim(ctx, tx, string(in.Write()), s.who(ctx))
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

// Ticks gives the steps ticked off: by step, what it said then.
func (s *Store) Ticks(ctx context.Context, id int64) (map[string]string, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT step, mark FROM ticks WHERE box_id = ?`+s.ofBox(ctx), id)
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
		_, err := s.exec(ctx, `DELETE FROM ticks WHERE box_id = ? AND step = ?`, id, step)
		return err
	}
	_, err := s.exec(ctx, `
		INSERT INTO ticks (box_id, step, mark, at) VALUES (?1, ?2, ?3, ?4)
		ON CONFLICT (box_id, step) DO UPDATE SET mark = ?3, at = ?4`, id, step, mark, s.now().UnixMilli())
	return err
}

// exec runs one statement that changes something.
func (s *Store) exec(ctx context.Context, query string, args ...any) (r sql.Result, err error) {
	err = s.in(ctx, func(tx *sql.Tx) error {
		r, err = tx.ExecContext(ctx, query, args...)
		return err
	})
	return r, err
}

// in runs f in one transaction.
func (s *Store) in(ctx context.Context, f func(*sql.Tx) error) error {
	err := within(ctx, s.write, f)
	if err == nil {
		select {
		case s.wrote <- struct{}{}:
		default: // known already
		}
		s.changed.tell()
	}
	return err
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
