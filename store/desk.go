package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"

	"brevium/core/people"
	"brevium/store/scope"
)

// Desk is the store as one person has it: all that reads or changes what is kept in tables
// is asked of a desk, and gives what its person may have.
type Desk struct {
	s  *Store
	at scope.Desk
	me people.Person
}

// For is the desk of a person; where one maker works alone it is theirs, whoever asks, and
// in a workshop nobody's where the person is none.
func (s *Store) For(p people.Person) *Desk {
	a := scope.Asker(p.ID)
	switch {
	case !s.shop.Load():
		a = scope.Alone
	case p.ID <= 0:
		a = scope.Nobody
	}
	return &Desk{s, scope.New(s.db, s.write, a, s.tell), p}
}

// Of is the desk of the person of a context.
func (s *Store) Of(ctx context.Context) *Desk { return s.For(people.Of(ctx)) }

// door is the desk of the program itself, for what is at the door before anybody is known.
func (s *Store) door() *Desk { return s.For(people.Person{}) }

// tell wakes those who wait for a change.
func (s *Store) tell() {
	select {
	case s.wrote <- struct{}{}:
	default: // known already
	}
	s.changed.tell()
}

// ErrNotFound means that what was asked for is not here, or not for who asks; the error
// that is of its kind says what it is.
var ErrNotFound = errors.New("it is not here")

// absent is an ErrNotFound that says what there is none of.
type absent string

func (a absent) Error() string        { return "there is no " + string(a) + " here" }
func (a absent) Is(target error) bool { return target == ErrNotFound }

// ErrNoJob is that there is no such job.
var ErrNoJob error = noJob

// Missing says what an ErrNotFound tells there is none of; "" where it does not say.
func Missing(err error) string {
	var a absent
	errors.As(err, &a)
	return string(a)
}

// found turns the absence of a row into an ErrNotFound that says what is not there.
func found(err error, what absent) error {
	if errors.Is(err, sql.ErrNoRows) {
		return what
	}
	return err
}

// one turns a statement that touched no row into such an error too.
func one(what absent) func(r sql.Result, err error) error {
	return func(r sql.Result, err error) error {
		if err != nil {
			return err
		}
		if n, err := r.RowsAffected(); err != nil || n == 1 {
			return err
		}
		return what
	}
}

// rowsOf reads all rows of a statement, each into a value by what takes a row.
func rowsOf[R, V any](ctx context.Context, from scope.Rows, read func(R) (V, error), s scope.Statement, args ...any) ([]V, error) {
	var rows []R
	if err := from.All(ctx, &rows, s, args...); err != nil {
		return nil, err
	}
	var out []V
	for _, r := range rows {
		v, err := read(r)
		if err != nil {
			return nil, err
		}
		out = append(out, v)
	}
	return out, nil
}

// rowOf reads one row so; without one it is what is absent.
func rowOf[R, V any](ctx context.Context, from scope.Rows, read func(R) (V, error), what absent, s scope.Statement, args ...any) (V, error) {
	var row R
	if err := from.Get(ctx, &row, s, args...); err != nil {
		var none V
		return none, found(err, what)
	}
	return read(row)
}

// newRow is the number of a row that was put in.
func newRow(r sql.Result, err error) (int64, error) {
	if err != nil {
		return 0, err
	}
	return r.LastInsertId()
}

// tableOf are the tables that a sort lies in.
var tableOf = map[Sort]string{BoxSort: "boxes", JobSort: "jobs", ThingSort: "things", PaperSort: "lots"}

// in puts names of tables and columns into a statement's text; they are never what somebody wrote.
func in(text string, names ...any) string { return fmt.Sprintf(text, names...) }
