// Package scope makes every statement say whose rows it touches, and runs it for somebody:
// a text of SQL alone cannot be run.
package scope

import (
	"context"
	"database/sql"
	"fmt"
	"regexp"
	"strings"

	"github.com/jmoiron/sqlx"
	"github.com/jmoiron/sqlx/reflectx"
)

// Scope is whose rows a statement touches. Its SQL says where that is held against the
// rows: {whose}, or {whose b.} where the columns are called by b., stands for its condition,
// {own}, {seen} and {table} for those of others beside it, {me} for the number that rows of the
// asker's own are written with, {asker} for the asker and {alone} for whether one maker has all.
type Scope struct{ condition string }

// The scopes. Held are rows of what the same transaction has just found in another scope,
// such as the changes of a box that is seen; Workshop are all there are.
var (
	Own      = Scope{"%[1]smaker = %[2]d"}
	Seen     = Scope{"(%[1]smaker = %[2]d OR %[1]sshared)"}
	Table    = Scope{"%[1]splace = (SELECT place FROM people WHERE id = %[2]d)"}
	Held     = Scope{}
	Workshop = Scope{}
)

// Statement is SQL with a scope; only a scope makes one.
type Statement struct {
	of   Scope
	text string
}

// SQL is a statement of the scope. One that touches rows of a person without {whose} or {me}
// is a slip of the pen, and panics where it is first made.
func (s Scope) SQL(text string) Statement {
	if s.condition != "" && !says.MatchString(text) {
		panic("a statement does not say where its rows are held against the asker: " + text)
	}
	return Statement{s, text}
}

var says = regexp.MustCompile(`\{(whose|own|seen|table|me|asker)\b`)

// Asker is for whom statements run: the number of a person of a workshop, Alone where one
// maker has all, or Nobody, who gets nothing.
type Asker int64

// Those who are no person of a workshop.
const (
	Alone  Asker = 0
	Nobody Asker = -1
)

// Me is the number that the asker's own rows are written with.
func (a Asker) Me() int64 { return int64(max(a, 0)) }

// Where is the condition of a scope, of columns that are called by before.
func (a Asker) Where(of Scope, before string) string {
	switch {
	case of.condition == "" || a == Alone:
		return "1"
	case a < 0:
		return "0"
	default:
		return fmt.Sprintf(of.condition, before, int64(a))
	}
}

// mixed are the scopes that may stand in a statement beside its own, by their words.
var mixed = []struct {
	word string
	of   Scope
}{{"own", Own}, {"seen", Seen}, {"table", Table}}

// text is a statement for an asker.
func (a Asker) text(s Statement) string {
	out := a.put(s.text, "whose", s.of)
	for _, m := range mixed {
		out = a.put(out, m.word, m.of)
	}
	alone := 0
	if a == Alone {
		alone = 1
	}
	return strings.NewReplacer("{me}", fmt.Sprint(a.Me()), "{asker}", fmt.Sprint(int64(a)), "{alone}", fmt.Sprint(alone)).Replace(out)
}

// put puts the condition of a scope in place of its word in braces.
func (a Asker) put(text, word string, of Scope) string {
	for {
		before, rest, there := strings.Cut(text, "{"+word)
		if !there {
			return text
		}
		name, after, _ := strings.Cut(rest, "}")
		text = before + a.Where(of, strings.TrimSpace(name)) + after
	}
}

// Rows are read by name: a column is that of the field of the same name in small letters,
// or with the tag db.
type Rows interface {
	// Get reads one row into a value, or gives sql.ErrNoRows.
	Get(ctx context.Context, into any, s Statement, args ...any) error
	// All reads all rows into a slice.
	All(ctx context.Context, into any, s Statement, args ...any) error
}

// Desk is a database as one asker has it. Reads and writes may be of two handles.
type Desk struct {
	Asker
	read  *sqlx.DB
	write *sqlx.DB
	wrote func() // told after each change
}

// New is the desk of an asker; wrote is told after each change.
func New(read, write *sql.DB, a Asker, wrote func()) Desk {
	return Desk{a, sqlx.NewDb(read, "sqlite"), sqlx.NewDb(write, "sqlite"), wrote}
}

// Get reads one row.
func (d Desk) Get(ctx context.Context, into any, s Statement, args ...any) error {
	return d.read.GetContext(ctx, into, d.text(s), args...)
}

// All reads all rows.
func (d Desk) All(ctx context.Context, into any, s Statement, args ...any) error {
	return d.read.SelectContext(ctx, into, d.text(s), args...)
}

// Do runs one statement that changes something.
func (d Desk) Do(ctx context.Context, s Statement, args ...any) (r sql.Result, err error) {
	err = d.In(ctx, func(tx *Tx) error {
		r, err = tx.Do(ctx, s, args...)
		return err
	})
	return r, err
}

// In runs f in one transaction: all of it is kept, or with an error nothing.
func (d Desk) In(ctx context.Context, f func(*Tx) error) error {
	tx, err := d.write.BeginTxx(ctx, nil)
	if err != nil {
		return err
	}
	defer tx.Rollback() // does nothing after a commit
	if err := f(&Tx{d.Asker, tx}); err != nil {
		return err
	}
	if err := tx.Commit(); err != nil {
		return err
	}
	d.wrote()
	return nil
}

// Reading runs f over one state of the database, and changes nothing.
func (d Desk) Reading(ctx context.Context, f func(*Tx) error) error {
	tx, err := d.read.BeginTxx(ctx, &sql.TxOptions{ReadOnly: true})
	if err != nil {
		return err
	}
	defer tx.Rollback() // it only reads
	return f(&Tx{d.Asker, tx})
}

// Tx is a transaction of an asker.
type Tx struct {
	Asker
	tx *sqlx.Tx
}

// Around makes a transaction that was begun elsewhere one of an asker.
func Around(tx *sql.Tx, a Asker) *Tx {
	return &Tx{a, &sqlx.Tx{Tx: tx, Mapper: reflectx.NewMapperFunc("db", strings.ToLower)}}
}

// Get reads one row.
func (t *Tx) Get(ctx context.Context, into any, s Statement, args ...any) error {
	return t.tx.GetContext(ctx, into, t.text(s), args...)
}

// All reads all rows.
func (t *Tx) All(ctx context.Context, into any, s Statement, args ...any) error {
	return t.tx.SelectContext(ctx, into, t.text(s), args...)
}

// Do changes something.
func (t *Tx) Do(ctx context.Context, s Statement, args ...any) (sql.Result, error) {
	return t.tx.ExecContext(ctx, t.text(s), args...)
}
