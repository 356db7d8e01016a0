package store

import (
	"context"
	"strings"
	"time"

	"brevium/core/fault"
	"brevium/core/people"
	"brevium/store/scope"
)

// atTheDoor are the tables of who is let in. They are this machine's own: they go along
// with no copy that is brought back.
var atTheDoor = []string{"people", "codes", "sessions", "events", "passkeys"}

// personRow is a person as their table has them.
type personRow struct {
	ID, Epoch   int64
	Name        string
	Role        people.Role
	Hash, Place string
	Since, Seen int64
	Struck      bool
}

const noPerson absent = "person"

const personColumns = `id, name, role, hash, epoch, since, seen, struck, place`

// selectPeople reads such rows.
const selectPeople = `SELECT ` + personColumns + ` FROM people `

func (r personRow) person() (people.Person, error) {
	p := people.Person{ID: r.ID, Name: r.Name, Role: r.Role, Hash: r.Hash, Epoch: r.Epoch, Since: time.UnixMilli(r.Since), Struck: r.Struck, Place: r.Place}
	if r.Seen > 0 {
		p.Seen = time.UnixMilli(r.Seen)
	}
	return p, nil
}

// People are all who were ever let in, by name.
func (d *Desk) People(ctx context.Context) ([]people.Person, error) {
	return rowsOf(ctx, d.at, personRow.person, scope.Workshop.SQL(selectPeople+`ORDER BY name`))
}

// Person is the one of an id.
func (d *Desk) Person(ctx context.Context, id int64) (people.Person, error) {
	return rowOf(ctx, d.at, personRow.person, noPerson, scope.Workshop.SQL(selectPeople+`WHERE id = ?`), id)
}

// PersonCalled is the one of a name, whatever its capitals.
func (d *Desk) PersonCalled(ctx context.Context, name string) (people.Person, error) {
	return rowOf(ctx, d.at, personRow.person, noPerson, scope.Workshop.SQL(selectPeople+`WHERE name = ?`), name)
}

// LetIn is ErrNotFound where the desk's person, who was let in once, is let in no more, or
// signed out of all their sessions since.
func (d *Desk) LetIn(ctx context.Context) error {
	if d.at.Asker == scope.Alone {
		return nil
	}
	p, err := d.Person(ctx, d.me.ID)
	if err == nil && (p.Struck || p.Epoch != d.me.Epoch) {
		err = noPerson
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
func (d *Desk) NewCode(ctx context.Context, c Code) (people.Code, error) {
	code := people.NewCode()
	err := d.at.In(ctx, func(tx *scope.Tx) error {
		if _, err := tx.Do(ctx, scope.Workshop.SQL(`DELETE FROM codes WHERE until < ? OR what = 'set-up' AND ? = 'set-up' OR what = 'recover' AND person = ?`),
			d.s.now().UnixMilli(), c.For, c.Person); err != nil {
			return err
		}
		_, err := tx.Do(ctx, scope.Workshop.SQL(`INSERT INTO codes (mark, what, role, person, maker, until) VALUES (?, ?, ?, nullif(?, 0), nullif(?, 0), ?)`),
			code.Mark, c.For, c.Role, c.Person, c.By, c.Until.UnixMilli())
		return err
	})
	return code, err
}

// codeRow is a one-time code as its table has it.
type codeRow struct {
	For           CodeFor `db:"what"`
	Role          people.Role
	Person, Maker int64
	Until         int64
}

const noCode absent = "code"

const selectCodes = `SELECT what, role, coalesce(person, 0) AS person, coalesce(maker, 0) AS maker, until FROM codes `

func (r codeRow) code() (Code, error) {
	return Code{r.For, r.Role, r.Person, r.Maker, time.UnixMilli(r.Until)}, nil
}

// codeOf is what a code is for, while it holds.
func codeOf(ctx context.Context, from scope.Rows, text string, now time.Time) (Code, error) {
	c, err := rowOf(ctx, from, codeRow.code, noCode, scope.Workshop.SQL(selectCodes+`WHERE mark = ?`), people.MarkOf(text))
	if err == nil && !now.Before(c.Until) {
		err = noCode
	}
	return c, err
}

// Code is what a one-time code is for; ErrNotFound where it is none, was used, or has
// ended.
func (d *Desk) Code(ctx context.Context, text string) (Code, error) {
	return codeOf(ctx, d.at, text, d.s.now())
}

// Codes are those to join by that still hold, the one that ends first before all.
func (d *Desk) Codes(ctx context.Context) ([]Code, error) {
	return rowsOf(ctx, d.at, codeRow.code, scope.Workshop.SQL(selectCodes+`WHERE until > ? AND what <> 'set-up' ORDER BY until`), d.s.now().UnixMilli())
}

// DropCodes ends all codes that a person could still join or recover by.
func (d *Desk) DropCodes(ctx context.Context) error {
	_, err := d.at.Do(ctx, scope.Workshop.SQL(`DELETE FROM codes WHERE what <> 'set-up'`))
	return err
}

// Join uses a code up: a person of a new name is let in by it, or the one that it is for
// gets another password, which ends their sessions. A fault is at the field.
func (d *Desk) Join(ctx context.Context, text, name, hash string) (p people.Person, err error) {
	err = d.at.In(ctx, func(tx *scope.Tx) error {
		c, err := codeOf(ctx, tx, text, d.s.now())
		if err != nil {
			return err
		}
		role := c.Role
		if c.For == ForSetUp {
			role = people.Steward
		}
		if c.For == ForRecover {
			if _, err := tx.Do(ctx, scope.Workshop.SQL(`UPDATE people SET hash = ?, epoch = epoch + 1 WHERE id = ? AND struck = 0`), hash, c.Person); err != nil {
				return err
			}
			p, err = rowOf(ctx, tx, personRow.person, noPerson, scope.Workshop.SQL(selectPeople+`WHERE id = ? AND struck = 0`), c.Person)
		} else {
			if err := freeName(ctx, tx, name); err != nil {
				return err
			}
			p, err = rowOf(ctx, tx, personRow.person, noPerson, scope.Workshop.SQL(`INSERT INTO people (name, role, hash, since) VALUES (?, ?, ?, ?) RETURNING `+personColumns), name, role, hash, d.s.now().UnixMilli())
		}
		if err != nil {
			return err
		}
		if _, err := tx.Do(ctx, scope.Workshop.SQL(`DELETE FROM codes WHERE mark = ?`), people.MarkOf(text)); err != nil {
			return err
		}
		return adopt(ctx, tx)
	})
	return p, err
}

// freeName refuses the name of somebody who is here, or one that looks like it.
func freeName(ctx context.Context, tx *scope.Tx, name string) error {
	var names []string
	if err := tx.All(ctx, &names, scope.Workshop.SQL(`SELECT name FROM people`)); err != nil {
		return err
	}
	for _, other := range names {
		if strings.EqualFold(name, other) {
			return fault.New(fault.Invalid, "name", "somebody here is called %q already; add a letter or a second name", other)
		}
		if people.Alike(name, other) {
			return fault.New(fault.Invalid, "name", "this name looks like %q, who is here already; take one that nobody mixes up", other)
		}
	}
	return nil
}

// SetPassword gives a person another password, which ends all their sessions.
func (d *Desk) SetPassword(ctx context.Context, id int64, hash string) error {
	return one(noPerson)(d.at.Do(ctx, scope.Workshop.SQL(`UPDATE people SET hash = ?, epoch = epoch + 1 WHERE id = ?`), hash, id))
}

// EndSessions signs a person out everywhere.
func (d *Desk) EndSessions(ctx context.Context, id int64) error {
	return one(noPerson)(d.at.Do(ctx, scope.Workshop.SQL(`UPDATE people SET epoch = epoch + 1 WHERE id = ?`), id))
}

// SeePerson notes that a person signed in.
func (d *Desk) SeePerson(ctx context.Context, id int64) error {
	return one(noPerson)(d.at.Do(ctx, scope.Workshop.SQL(`UPDATE people SET seen = ? WHERE id = ?`), d.s.now().UnixMilli(), id))
}

// SetPerson gives a person another role, lets them in no more or again; both end their
// sessions. The last steward who is let in stays one.
func (d *Desk) SetPerson(ctx context.Context, id int64, role people.Role, struck bool) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		if err := one(noPerson)(tx.Do(ctx, scope.Workshop.SQL(`UPDATE people SET role = ?, struck = ?, epoch = epoch + 1 WHERE id = ?`), role, struck, id)); err != nil {
			return err
		}
		var stewards int
		if err := tx.Get(ctx, &stewards, scope.Workshop.SQL(`SELECT count(*) FROM people WHERE role = 'steward' AND struck = 0`)); err != nil {
			return err
		}
		if stewards == 0 {
			return fault.New(fault.Invalid, "role", "this is the last steward; make somebody else one first")
		}
		return nil
	})
}

// HasSteward reports whether the workshop is set up.
func (d *Desk) HasSteward(ctx context.Context) (is bool, err error) {
	err = d.at.Get(ctx, &is, scope.Workshop.SQL(`SELECT EXISTS (SELECT 1 FROM people WHERE role = 'steward' AND struck = 0)`))
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
func (d *Desk) AddEvent(ctx context.Context, e Event) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		if _, err := tx.Do(ctx, scope.Workshop.SQL(`DELETE FROM events WHERE at < ?`), d.s.now().Add(-keptEvents).UnixMilli()); err != nil {
			return err
		}
		_, err := tx.Do(ctx, scope.Workshop.SQL(`INSERT INTO events (at, what, person, address, request, detail) VALUES (?, ?, ?, ?, ?, ?)`),
			d.s.now().UnixMilli(), e.What, e.Person, e.Address, e.Request, e.Detail)
		return err
	})
}

// Events are the newest, up to a number; of one person where a name is given.
func (d *Desk) Events(ctx context.Context, of string, most int) ([]Event, error) {
	type row struct {
		At                                     int64
		What, Person, Address, Request, Detail string
	}
	return rowsOf(ctx, d.at, func(r row) (Event, error) {
		return Event{time.UnixMilli(r.At), r.What, r.Person, r.Address, r.Request, r.Detail}, nil
	}, scope.Workshop.SQL(`SELECT at, what, person, address, request, detail FROM events WHERE ?1 = '' OR person = ?1 COLLATE NOCASE ORDER BY id DESC LIMIT ?2`), of, most)
}
