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

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite"

	"brevium/core/people"
)

//go:embed migrations/*.sql
var migrations embed.FS

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
