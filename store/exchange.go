package store

import (
	"context"
	"database/sql"
	"database/sql/driver"
	"errors"
	"fmt"
	"sync"
	"sync/atomic"
	"time"

	"brevium/core/fault"
	"brevium/store/desk"
	"brevium/store/roster"
)

// gate is shut while a file is exchanged; waiting is how many connections are asked for at it.
type gate struct {
	sync.RWMutex
	waiting atomic.Int64
}

// gated opens connections to a file, none while the gate is shut.
type gated struct {
	with driver.Driver
	from string
	gate *gate
}

// Connect opens one.
func (g gated) Connect(context.Context) (driver.Conn, error) {
	g.gate.waiting.Add(1)
	g.gate.RLock()
	g.gate.waiting.Add(-1)
	defer g.gate.RUnlock()
	return g.with.Open(g.from)
}

// Driver is what opens them.
func (g gated) Driver() driver.Driver { return g.with }

// opened is a pool of connections to a file.
func opened(from string, gate *gate) (*sql.DB, error) {
	db, err := sql.Open("sqlite", from)
	if err != nil {
		return nil, err
	}
	with := db.Driver()
	if err := db.Close(); err != nil {
		return nil, err
	}
	return sql.OpenDB(gated{with, from, gate}), nil
}

// longestShut is how long is waited for those who are at work before the file is exchanged, and
// idleConns how many connections are kept ready otherwise.
const (
	longestShut = 10 * time.Second
	idleConns   = 2
)

// exchange puts a sound database in place of one that is damaged, while the program runs: all
// connections are given up, and new ones are to the other file. It gives the name under which
// the damaged one lies beside it. Who is let in stays as it was where that can still be read.
func (s *Store) exchange(ctx context.Context, ready string) (aside string, err error) {
	if err := s.keepDoor(ctx, ready); err != nil {
		return "", err
	}
	s.gate.Lock()
	defer s.gate.Unlock()
	for _, db := range []*sql.DB{s.db, s.write} {
		db.SetMaxIdleConns(-1)
		defer db.SetMaxIdleConns(idleConns)
	}
	open := func() int64 {
		return int64(s.db.Stats().OpenConnections+s.write.Stats().OpenConnections) - s.gate.waiting.Load()
	}
	for until := time.Now().Add(longestShut); open() > 0; time.Sleep(5 * time.Millisecond) {
		if time.Now().After(until) || ctx.Err() != nil {
			return "", fault.New(fault.Invalid, "file", "The data are in use just now. Nothing was changed; try again in a moment.")
		}
	}
	if aside, err = putInstead(s.file, ready); err != nil {
		return "", err
	}
	s.damage.Store(nil)
	s.changed.tell()
	return aside, nil
}

// keepDoor takes over into a copy who is let in here, and ends all sessions and codes.
func (s *Store) keepDoor(ctx context.Context, ready string) error {
	db, err := sql.Open("sqlite", source(ready, "journal_mode(DELETE)", "foreign_keys(1)"))
	if err != nil {
		return err
	}
	db.SetMaxOpenConns(1)
	defer db.Close()
	if _, err := db.ExecContext(ctx, `ATTACH ? AS other`, s.file); err == nil {
		err = within(ctx, db, func(tx *sql.Tx) error {
			if _, err := tx.ExecContext(ctx, `PRAGMA defer_foreign_keys = 1`); err != nil {
				return err
			}
			for _, table := range roster.AtTheDoor {
				if _, err := tx.ExecContext(ctx, fmt.Sprintf(`DELETE FROM main.%[1]s`, table)); err != nil {
					return err
				}
				if _, err := tx.ExecContext(ctx, fmt.Sprintf(`INSERT INTO main.%[1]s SELECT * FROM other.%[1]s`, table)); err != nil {
					return err
				}
			}
			return nil
		})
		if err != nil {
			s.Note(err) // who was let in when the copy was made is let in
		}
	}
	return within(ctx, db, func(tx *sql.Tx) error { return s.afresh(ctx, tx) })
}

// within runs f in one transaction of a database.
func within(ctx context.Context, db *sql.DB, f func(*sql.Tx) error) error {
	tx, err := db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	if err := f(tx); err != nil {
		return errors.Join(err, tx.Rollback())
	}
	return tx.Commit()
}

// afresh ends what a copy that is brought back must not bring to life again: sessions, one-time
// codes and classes. Links to boxes lead there by other codes; without the secret that codes are
// made with they end.
func (s *Store) afresh(ctx context.Context, tx *sql.Tx) error {
	for _, x := range []string{`DELETE FROM sessions`, `DELETE FROM codes`, `DELETE FROM classes`} {
		if _, err := tx.ExecContext(ctx, x); err != nil {
			return err
		}
	}
	if !s.pepper.Known() {
		_, err := tx.ExecContext(ctx, `UPDATE boxes SET link = '', link_mark = NULL`)
		return err
	}
	var linked []int64
	err := each(ctx, tx, `SELECT id FROM boxes WHERE link <> ''`, func(r *sql.Rows) error {
		linked = append(linked, 0)
		return r.Scan(&linked[len(linked)-1])
	})
	for _, id := range linked {
		seed, mark := s.door().at.NewSeed(desk.LinkUse)
		if _, err := tx.ExecContext(ctx, `UPDATE boxes SET link = ?, link_mark = ? WHERE id = ?`, seed, mark, id); err != nil {
			return err
		}
	}
	return err
}
