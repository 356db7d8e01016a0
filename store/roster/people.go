// Package roster keeps the people of a workshop, the codes they join by, their passkeys and what
// happened at the door.
package roster

import (
	"context"
	"strings"
	"time"

	"brevium/core/fault"
	"brevium/core/people"
	"brevium/store/desk"
	"brevium/store/scope"
)

// Roster is the people as one of them has them.
type Roster struct{ at desk.Desk }

// At opens the room for a desk.
func At(d desk.Desk) *Roster { return &Roster{d} }

// AtTheDoor are the tables of who is let in. They are this machine's own: they go along
// with no copy that is brought back.
var AtTheDoor = []string{"people", "codes", "sessions", "events", "passkeys"}

// PersonRow is a person as their table has them.
type PersonRow struct {
	ID, Epoch   int64
	Name        string
	Role        people.Role
	Hash, Place string
	Since, Seen int64
	Struck      bool
}

const personColumns = `id, name, role, hash, epoch, since, seen, struck, place`

// SelectPeople reads such rows.
const SelectPeople = `SELECT ` + personColumns + ` FROM people `

// Person reads a row.
func (r PersonRow) Person() (people.Person, error) {
	p := people.Person{ID: r.ID, Name: r.Name, Role: r.Role, Hash: r.Hash, Epoch: r.Epoch, Since: time.UnixMilli(r.Since), Struck: r.Struck, Place: r.Place}
	if r.Seen > 0 {
		p.Seen = time.UnixMilli(r.Seen)
	}
	return p, nil
}

// People are all who were ever let in, by name.
func (d *Roster) People(ctx context.Context) ([]people.Person, error) {
	return desk.RowsOf(ctx, d.at, PersonRow.Person, scope.Workshop.SQL(SelectPeople+`ORDER BY name`))
}

// Person is the one of an id.
func (d *Roster) Person(ctx context.Context, id int64) (people.Person, error) {
	return desk.RowOf(ctx, d.at, PersonRow.Person, desk.NoPerson, scope.Workshop.SQL(SelectPeople+`WHERE id = ?`), id)
}

// PersonCalled is the one of a name, whatever its capitals.
func (d *Roster) PersonCalled(ctx context.Context, name string) (people.Person, error) {
	return desk.RowOf(ctx, d.at, PersonRow.Person, desk.NoPerson, scope.Workshop.SQL(SelectPeople+`WHERE name = ?`), name)
}

// LetIn is ErrNotFound where the desk's person, who was let in once, is let in no more, or
// signed out of all their sessions since.
func (d *Roster) LetIn(ctx context.Context) error {
	if d.at.Asker == scope.Alone {
		return nil
	}
	p, err := d.Person(ctx, d.at.Person.ID)
	if err == nil && (p.Struck || p.Epoch != d.at.Person.Epoch) {
		err = desk.NoPerson
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
func (d *Roster) NewCode(ctx context.Context, c Code) (people.Code, error) {
	code := people.NewCode()
	err := d.at.In(ctx, func(tx *scope.Tx) error {
		if _, err := tx.Do(ctx, scope.Workshop.SQL(`DELETE FROM codes WHERE until < ? OR what = 'set-up' AND ? = 'set-up' OR what = 'recover' AND person = ?`),
			d.at.Now().UnixMilli(), c.For, c.Person); err != nil {
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

const noCode desk.Absent = "code"

const selectCodes = `SELECT what, role, coalesce(person, 0) AS person, coalesce(maker, 0) AS maker, until FROM codes `

func (r codeRow) code() (Code, error) {
	return Code{r.For, r.Role, r.Person, r.Maker, time.UnixMilli(r.Until)}, nil
}

// codeOf is what a code is for, while it holds.
func codeOf(ctx context.Context, from scope.Rows, text string, now time.Time) (Code, error) {
	c, err := desk.RowOf(ctx, from, codeRow.code, noCode, scope.Workshop.SQL(selectCodes+`WHERE mark = ?`), people.MarkOf(text))
	if err == nil && !now.Before(c.Until) {
		err = noCode
	}
	return c, err
}

// Code is what a one-time code is for; ErrNotFound where it is none, was used, or has
// ended.
func (d *Roster) Code(ctx context.Context, text string) (Code, error) {
	return codeOf(ctx, d.at, text, d.at.Now())
}

// Codes are those to join by that still hold, the one that ends first before all.
func (d *Roster) Codes(ctx context.Context) ([]Code, error) {
	return desk.RowsOf(ctx, d.at, codeRow.code, scope.Workshop.SQL(selectCodes+`WHERE until > ? AND what <> 'set-up' ORDER BY until`), d.at.Now().UnixMilli())
}

// DropCodes ends all codes that a person could still join or recover by.
func (d *Roster) DropCodes(ctx context.Context) error {
	_, err := d.at.Do(ctx, scope.Workshop.SQL(`DELETE FROM codes WHERE what <> 'set-up'`))
	return err
}

// Join uses a code up: a person of a new name is let in by it, or the one that it is for
// gets another password, which ends their sessions. A fault is at the field.
func (d *Roster) Join(ctx context.Context, text, name, hash string) (p people.Person, err error) {
	err = d.at.In(ctx, func(tx *scope.Tx) error {
		c, err := codeOf(ctx, tx, text, d.at.Now())
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
			p, err = desk.RowOf(ctx, tx, PersonRow.Person, desk.NoPerson, scope.Workshop.SQL(SelectPeople+`WHERE id = ? AND struck = 0`), c.Person)
		} else {
			if err := freeName(ctx, tx, name); err != nil {
				return err
			}
			p, err = desk.RowOf(ctx, tx, PersonRow.Person, desk.NoPerson, scope.Workshop.SQL(`INSERT INTO people (name, role, hash, since) VALUES (?, ?, ?, ?) RETURNING `+personColumns), name, role, hash, d.at.Now().UnixMilli())
		}
		if err != nil {
			return err
		}
		if _, err := tx.Do(ctx, scope.Workshop.SQL(`DELETE FROM codes WHERE mark = ?`), people.MarkOf(text)); err != nil {
			return err
		}
		return Adopt(ctx, tx)
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
func (d *Roster) SetPassword(ctx context.Context, id int64, hash string) error {
	return desk.One(desk.NoPerson)(d.at.Do(ctx, scope.Workshop.SQL(`UPDATE people SET hash = ?, epoch = epoch + 1 WHERE id = ?`), hash, id))
}

// EndSessions signs a person out everywhere.
func (d *Roster) EndSessions(ctx context.Context, id int64) error {
	return desk.One(desk.NoPerson)(d.at.Do(ctx, scope.Workshop.SQL(`UPDATE people SET epoch = epoch + 1 WHERE id = ?`), id))
}

// SeePerson notes that a person signed in.
func (d *Roster) SeePerson(ctx context.Context, id int64) error {
	return desk.One(desk.NoPerson)(d.at.Do(ctx, scope.Workshop.SQL(`UPDATE people SET seen = ? WHERE id = ?`), d.at.Now().UnixMilli(), id))
}

// SetPerson gives a person another role, lets them in no more or again; both end their
// sessions. The last steward who is let in stays one.
func (d *Roster) SetPerson(ctx context.Context, id int64, role people.Role, struck bool) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		if err := desk.One(desk.NoPerson)(tx.Do(ctx, scope.Workshop.SQL(`UPDATE people SET role = ?, struck = ?, epoch = epoch + 1 WHERE id = ?`), role, struck, id)); err != nil {
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
func (d *Roster) HasSteward(ctx context.Context) (is bool, err error) {
	err = d.at.Get(ctx, &is, scope.Workshop.SQL(`SELECT EXISTS (SELECT 1 FROM people WHERE role = 'steward' AND struck = 0)`))
	return is, err
}

// Event is something that happened to who is let in.
type Event struct {
	At                             time.Time
	What, Person, Address, Request string
	Detail                         string
}

// KeptEvents is how long events are kept.
const KeptEvents = 180 * 24 * time.Hour

// AddEvent keeps one, and forgets those that are older than half a year.
func (d *Roster) AddEvent(ctx context.Context, e Event) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		if _, err := tx.Do(ctx, scope.Workshop.SQL(`DELETE FROM events WHERE at < ?`), d.at.Now().Add(-KeptEvents).UnixMilli()); err != nil {
			return err
		}
		_, err := tx.Do(ctx, scope.Workshop.SQL(`INSERT INTO events (at, what, person, address, request, detail) VALUES (?, ?, ?, ?, ?, ?)`),
			d.at.Now().UnixMilli(), e.What, e.Person, e.Address, e.Request, e.Detail)
		return err
	})
}

// Events are the newest, up to a number; of one person where a name is given.
func (d *Roster) Events(ctx context.Context, of string, most int) ([]Event, error) {
	type row struct {
		At                                     int64
		What, Person, Address, Request, Detail string
	}
	return desk.RowsOf(ctx, d.at, func(r row) (Event, error) {
		return Event{time.UnixMilli(r.At), r.What, r.Person, r.Address, r.Request, r.Detail}, nil
	}, scope.Workshop.SQL(`SELECT at, what, person, address, request, detail FROM events WHERE ?1 = '' OR person = ?1 COLLATE NOCASE ORDER BY id DESC LIMIT ?2`), of, most)
}
