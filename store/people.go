package store

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"strings"
	"time"

	"brevium/core/fault"
	"brevium/core/people"
)

// atTheDoor are the tables of who is let in. They are this machine's own: they go along
// with no copy that is brought back.
var atTheDoor = []string{"people", "codes", "sessions", "events", "passkeys"}

const personColumns = `id, name, role, hash, epoch, since, seen, struck, place`

func scanPerson(row interface{ Scan(...any) error }) (people.Person, error) {
	var p people.Person
	var since, seen int64
	err := row.Scan(&p.ID, &p.Name, &p.Role, &p.Hash, &p.Epoch, &since, &seen, &p.Struck, &p.Place)
	if errors.Is(err, sql.ErrNoRows) {
		return p, ErrNotFound
	}
	p.Since = time.UnixMilli(since)
	if seen > 0 {
		p.Seen = time.UnixMilli(seen)
	}
	return p, err
}

// People are all who were ever let in, by name.
func (s *Store) People(ctx context.Context) ([]people.Person, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+personColumns+` FROM people ORDER BY name`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []people.Person
	for rows.Next() {
		p, err := scanPerson(rows)
		if err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	return out, rows.Err()
}

// Person is the one of an id.
func (s *Store) Person(ctx context.Context, id int64) (people.Person, error) {
	return scanPerson(s.db.QueryRowContext(ctx, `SELECT `+personColumns+` FROM people WHERE id = ?`, id))
}

// PersonCalled is the one of a name, whatever its capitals.
func (s *Store) PersonCalled(ctx context.Context, name string) (people.Person, error) {
	return scanPerson(s.db.QueryRowContext(ctx, `SELECT `+personColumns+` FROM people WHERE name = ?`, name))
}

// LetIn is ErrNotFound where the person of a context, who was let in once, is let in no more, or
// signed out of all their sessions since.
func (s *Store) LetIn(ctx context.Context) error {
	me := people.Of(ctx)
	if s.who(ctx) == 0 {
		return nil
	}
	p, err := s.Person(ctx, me.ID)
	if err == nil && (p.Struck || p.Epoch != me.Epoch) {
		err = ErrNotFound
	}
	return err
}

// Sort of a one-time code.
type CodeFor string

// What one-time codes are for.
const (
	ForSetUp   CodeFor = "set-up"
	ForJoining CodeFor = "join"
	ForRecover CodeFor = "recover"
)

// Code is what a one-time code is for: a role to join in, or a person who chooses a new
// password.
type Code struct {
	For    CodeFor
	Role   people.Role
	Person int64 // 0 for none
	By     int64 // who made it, 0 for the program
	Until  time.Time
}

// NewCode makes a one-time code. One to set the workshop up takes the place of any before.
func (s *Store) NewCode(ctx context.Context, c Code) (people.Code, error) {
	code := people.NewCode()
	err := s.in(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM codes WHERE until < ? OR what = 'set-up' AND ? = 'set-up' OR what = 'recover' AND person = ?`,
			s.now().UnixMilli(), c.For, c.Person); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO codes (mark, what, role, person, maker, until) VALUES (?, ?, ?, nullif(?, 0), nullif(?, 0), ?)`,
			code.Mark, c.For, c.Role, c.Person, c.By, c.Until.UnixMilli())
		return err
	})
	return code, err
}

// codeOf is what a code is for, while it holds.
func codeOf(ctx context.Context, from interface {
	QueryRowContext(context.Context, string, ...any) *sql.Row
}, text string, now time.Time) (Code, error) {
	var c Code
	var until int64
	err := from.QueryRowContext(ctx, `SELECT what, role, coalesce(person, 0), coalesce(maker, 0), until FROM codes WHERE mark = ?`, people.MarkOf(text)).
		Scan(&c.For, &c.Role, &c.Person, &c.By, &until)
	if c.Until = time.UnixMilli(until); errors.Is(err, sql.ErrNoRows) || err == nil && !now.Before(c.Until) {
		return c, ErrNotFound
	}
	return c, err
}

// Code is what a one-time code is for; ErrNotFound where it is none, was used, or has
// ended.
func (s *Store) Code(ctx context.Context, text string) (Code, error) {
	return codeOf(ctx, s.db, text, s.now())
}

// Codes are those to join by that still hold, the one that ends first before all.
func (s *Store) Codes(ctx context.Context) ([]Code, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT what, role, coalesce(person, 0), coalesce(maker, 0), until FROM codes WHERE until > ? AND what <> 'set-up' ORDER BY until`, s.now().UnixMilli())
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Code
	for rows.Next() {
		var c Code
		var until int64
		if err := rows.Scan(&c.For, &c.Role, &c.Person, &c.By, &until); err != nil {
			return nil, err
		}
		c.Until = time.UnixMilli(until)
		out = append(out, c)
	}
	return out, rows.Err()
}

// DropCodes ends all codes that a person could still join or recover by.
func (s *Store) DropCodes(ctx context.Context) error {
	_, err := s.exec(ctx, `DELETE FROM codes WHERE what <> 'set-up'`)
	return err
}

// Join uses a code up: a person of a new name is let in by it, or the one that it is for
// gets another password, which ends their sessions. A fault is at the field.
func (s *Store) Join(ctx context.Context, text, name, hash string) (p people.Person, err error) {
	err = s.in(ctx, func(tx *sql.Tx) error {
		c, err := codeOf(ctx, tx, text, s.now())
		if err != nil {
			return err
		}
		role := c.Role
		if c.For == ForSetUp {
			role = people.Steward
		}
		if c.For == ForRecover {
			if _, err := tx.ExecContext(ctx, `UPDATE people SET hash = ?, epoch = epoch + 1 WHERE id = ? AND struck = 0`, hash, c.Person); err != nil {
				return err
			}
			p, err = scanPerson(tx.QueryRowContext(ctx, `SELECT `+personColumns+` FROM people WHERE id = ? AND struck = 0`, c.Person))
		} else {
			if err := s.freeName(ctx, tx, name); err != nil {
				return err
			}
			p, err = scanPerson(tx.QueryRowContext(ctx, `INSERT INTO people (name, role, hash, since) VALUES (?, ?, ?, ?) RETURNING `+personColumns, name, role, hash, s.now().UnixMilli()))
		}
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM codes WHERE mark = ?`, people.MarkOf(text)); err != nil {
			return err
		}
		return adopt(ctx, tx)
	})
	return p, err
}

// freeName refuses the name of somebody who is here, or one that looks like it.
func (s *Store) freeName(ctx context.Context, tx *sql.Tx, name string) error {
	rows, err := tx.QueryContext(ctx, `SELECT name FROM people`)
	if err != nil {
		return err
	}
	defer rows.Close()
	for rows.Next() {
		var other string
		if err := rows.Scan(&other); err != nil {
			return err
		}
		if strings.EqualFold(name, other) {
			return fault.New(fault.Invalid, "name", "somebody here is called %q already; add a letter or a second name", other)
		}
		if people.Alike(name, other) {
			return fault.New(fault.Invalid, "name", "this name looks like %q, who is here already; take one that nobody mixes up", other)
		}
	}
	return rows.Err()
}

// SetPassword gives a person another password, which ends all their sessions.
func (s *Store) SetPassword(ctx context.Context, id int64, hash string) error {
	return s.person(ctx, id, `UPDATE people SET hash = ?, epoch = epoch + 1 WHERE id = ?`, hash, id)
}

// EndSessions signs a person out everywhere.
func (s *Store) EndSessions(ctx context.Context, id int64) error {
	return s.person(ctx, id, `UPDATE people SET epoch = epoch + 1 WHERE id = ?`, id)
}

// SeePerson notes that a person signed in.
func (s *Store) SeePerson(ctx context.Context, id int64) error {
	return s.person(ctx, id, `UPDATE people SET seen = ? WHERE id = ?`, s.now().UnixMilli(), id)
}

// SetPerson gives a person another role, lets them in no more or again; both end their
// sessions. The last steward who is let in stays one.
func (s *Store) SetPerson(ctx context.Context, id int64, role people.Role, struck bool) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		r, err := tx.ExecContext(ctx, `UPDATE people SET role = ?, struck = ?, epoch = epoch + 1 WHERE id = ?`, role, struck, id)
		if err != nil {
			return err
		}
		if n, err := r.RowsAffected(); err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		var stewards int
		if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM people WHERE role = 'steward' AND struck = 0`).Scan(&stewards); err != nil {
			return err
		}
		if stewards == 0 {
			return fault.New(fault.Invalid, "role", "this is the last steward; make somebody else one first")
		}
		return nil
	})
}

func (s *Store) person(ctx context.Context, id int64, query string, args ...any) error {
	r, err := s.exec(ctx, query, args...)
	if err != nil {
		return err
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrNotFound)
	}
	return nil
}

// HasSteward reports whether the workshop is set up.
func (s *Store) HasSteward(ctx context.Context) (is bool, err error) {
	err = s.db.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM people WHERE role = 'steward' AND struck = 0)`).Scan(&is)
	return is, err
}

// Event is something that happened to who is let in.
type Event struct {
	At                             time.Time
	What, Person, Address, Request string
	Detail                         string
}

// keptEvents is how long events are kept.
const keptEvents = 180 * 24 * time.Hour

// AddEvent keeps one, and forgets those that are older than half a year.
func (s *Store) AddEvent(ctx context.Context, e Event) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM events WHERE at < ?`, s.now().Add(-keptEvents).UnixMilli()); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO events (at, what, person, address, request, detail) VALUES (?, ?, ?, ?, ?, ?)`,
			s.now().UnixMilli(), e.What, e.Person, e.Address, e.Request, e.Detail)
		return err
	})
}

// Events are the newest, up to a number; of one person where a name is given.
func (s *Store) Events(ctx context.Context, of string, most int) ([]Event, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT at, what, person, address, request, detail FROM events WHERE ?1 = '' OR person = ?1 COLLATE NOCASE ORDER BY id DESC LIMIT ?2`, of, most)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Event
	for rows.Next() {
		var e Event
		var at int64
		if err := rows.Scan(&at, &e.What, &e.Person, &e.Address, &e.Request, &e.Detail); err != nil {
			return nil, err
		}
		e.At = time.UnixMilli(at)
		out = append(out, e)
	}
	return out, rows.Err()
}

// Sessions keeps sessions, as the session manager asks for it.
type Sessions struct{ s *Store }

// Sessions of the store.
func (s *Store) Sessions() Sessions { return Sessions{s} }

// All are the sessions that hold: their data, by their tokens as they are kept.
func (x Sessions) All(ctx context.Context) (map[string][]byte, error) {
	rows, err := x.s.db.QueryContext(ctx, `SELECT token, data FROM sessions WHERE until > ?`, x.s.now().UnixMilli())
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := map[string][]byte{}
	for rows.Next() {
		var token string
		var data []byte
		if err := rows.Scan(&token, &data); err != nil {
			return nil, err
		}
		out[token] = data
	}
	return out, rows.Err()
}

// FindCtx gives a session's data, while it holds.
func (x Sessions) FindCtx(ctx context.Context, token string) (data []byte, found bool, err error) {
	err = x.s.db.QueryRowContext(ctx, `SELECT data FROM sessions WHERE token = ? AND until > ?`, token, x.s.now().UnixMilli()).Scan(&data)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, false, nil
	}
	return data, err == nil, err
}

// commitAfter is how much longer a session has to hold for that alone to be written: it is
// told at every page.
const commitAfter = 5 * time.Minute

// CommitCtx keeps a session, and drops those that have ended.
func (x Sessions) CommitCtx(ctx context.Context, token string, data []byte, until time.Time) error {
	var was []byte
	var held int64
	err := x.s.db.QueryRowContext(ctx, `SELECT data, until FROM sessions WHERE token = ?`, token).Scan(&was, &held)
	if err == nil && bytes.Equal(was, data) && until.Sub(time.UnixMilli(held)).Abs() < commitAfter {
		return nil
	}
	return x.s.in(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM sessions WHERE until <= ?`, x.s.now().UnixMilli()); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `REPLACE INTO sessions (token, data, until) VALUES (?, ?, ?)`, token, data, until.UnixMilli())
		return err
	})
}

// DeleteCtx ends a session.
func (x Sessions) DeleteCtx(ctx context.Context, token string) error {
	_, err := x.s.exec(ctx, `DELETE FROM sessions WHERE token = ?`, token)
	return err
}

// Find, Commit and Delete are the same without a context.
func (x Sessions) Find(token string) ([]byte, bool, error) {
	return x.FindCtx(context.Background(), token)
}

// Commit keeps a session.
func (x Sessions) Commit(token string, data []byte, until time.Time) error {
	return x.CommitCtx(context.Background(), token, data, until)
}

// Delete ends a session.
func (x Sessions) Delete(token string) error { return x.DeleteCtx(context.Background(), token) }
