// Package desk is what the rooms of the store share: the database as one person has it, rows that
// are read and found missing, the states that things had, and how much one may keep.
package desk

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"

	"brevium/core/people"
	"brevium/store/scope"
)

// Desk is the database as one person has it: all rooms of the store ask and write by one.
type Desk struct {
	scope.Desk
	Person people.Person
	Now    func() time.Time
	Pepper people.Pepper // a workshop's secret, which codes that are shown again are made with
}

// ErrNotFound means that what was asked for is not here, or not for who asks; the error
// that is of its kind says what it is.
var ErrNotFound = errors.New("it is not here")

// Absent is an ErrNotFound that says what there is none of.
type Absent string

// Error says it.
func (a Absent) Error() string { return "there is no " + string(a) + " here" }

// Is reports that it is an ErrNotFound.
func (a Absent) Is(target error) bool { return target == ErrNotFound }

// ErrNoJob is that there is no such job.
var ErrNoJob error = NoJob

// Missing says what an ErrNotFound tells there is none of; "" where it does not say.
func Missing(err error) string {
	var a Absent
	errors.As(err, &a)
	return string(a)
}

// Found turns the absence of a row into an ErrNotFound that says what is not there.
func Found(err error, what Absent) error {
	if errors.Is(err, sql.ErrNoRows) {
		return what
	}
	return err
}

// One turns a statement that touched no row into such an error too.
func One(what Absent) func(r sql.Result, err error) error {
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

// RowsOf reads all rows of a statement, each into a value by what takes a row.
func RowsOf[R, V any](ctx context.Context, from scope.Rows, read func(R) (V, error), s scope.Statement, args ...any) ([]V, error) {
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

// RowOf reads one row so; without one it is what is absent.
func RowOf[R, V any](ctx context.Context, from scope.Rows, read func(R) (V, error), what Absent, s scope.Statement, args ...any) (V, error) {
	var row R
	if err := from.Get(ctx, &row, s, args...); err != nil {
		var none V
		return none, Found(err, what)
	}
	return read(row)
}

// NewRow is the number of a row that was put in.
func NewRow(r sql.Result, err error) (int64, error) {
	if err != nil {
		return 0, err
	}
	return r.LastInsertId()
}

// TableOf are the tables that a sort lies in.
var TableOf = map[Sort]string{BoxSort: "boxes", JobSort: "jobs", ThingSort: "things", PaperSort: "lots"}

// Text puts names of tables and columns into a statement's text; they are never what somebody wrote.
func Text(text string, names ...any) string { return fmt.Sprintf(text, names...) }
