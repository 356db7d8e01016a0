package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/store/roster"
	"brevium/store/scope"
)

// Restore puts what a copy holds in place of all that is here, in one step
// and while it is used. What was here is copied first, and that copy's name
// given, so that the step can be taken back; of data that are damaged the file is
// set aside, and aside is its name. All sessions and codes end. A file that is no
// sound copy is refused, and nothing is changed.
func (s *Store) Restore(ctx context.Context, file string) (before, aside string, err error) {
	ready, err := readied(ctx, file, folderOf(s.file))
	if err != nil {
		return "", "", err
	}
	defer os.RemoveAll(filepath.Dir(ready))
	if s.Damage() == "" {
		if before, err = s.MakeCopy(ctx, Before); err == nil {
			err = s.replaceAll(ctx, ready)
		}
		if s.Note(err); !damaged(err) {
			return before, "", err
		}
	}
	aside, err = s.exchange(ctx, ready)
	return "", aside, err
}

// readied copies a copy, checks it through and brings it up to date, and gives
// the file, in a folder of its own.
func readied(ctx context.Context, file, beside string) (string, error) {
	if err := os.MkdirAll(beside, 0o700); err != nil {
		return "", err
	}
	folder, err := os.MkdirTemp(beside, "restoring-")
	if err != nil {
		return "", err
	}
	ready := filepath.Join(folder, "brevium.db")
	err = duplicate(file, ready)
	if err == nil {
		err = soundCopy(ctx, ready)
	}
	if err != nil {
		return "", errors.Join(err, os.RemoveAll(folder))
	}
	return ready, nil
}

// soundCopy opens a copy, which brings it up to date, and reads it through.
func soundCopy(ctx context.Context, file string) error {
	if info, err := os.Stat(file); err != nil || info.Size() == 0 {
		return fault.New(fault.Unreadable, "file", "This file is empty, so it is no copy of the data. Nothing was changed.")
	}
	is, err := known(ctx, file)
	if err != nil || !is {
		return fault.New(fault.Unreadable, "file", "This file is no copy of Brevium's data, or it is damaged. Nothing was changed.")
	}
	copied, err := Open(ctx, file)
	if errors.Is(err, ErrNewer) {
		return fault.New(fault.UnknownFormat, "file", "This copy was made by a newer Brevium. Bring it back with that one; nothing was changed here.")
	}
	if err != nil {
		return fault.New(fault.Unreadable, "file", "This file is no copy of Brevium's data, or it is damaged. Nothing was changed.")
	}
	said, err := copied.Check(ctx, true)
	err = errors.Join(err, copied.Close())
	if err == nil && said != "" {
		err = fault.New(fault.Unreadable, "file", "This copy is damaged (%s). Try another; nothing was changed.", said)
	}
	return err
}

func duplicate(from, to string) error {
	in, err := os.Open(from)
	if err != nil {
		return fault.New(fault.Unreadable, "file", "The copy cannot be read: %v", err)
	}
	defer in.Close()
	out, err := os.OpenFile(to, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(out, in)
	return errors.Join(err, out.Close())
}

// replaceAll takes every row of every table from another database of the same
// form, in one transaction. Numbers that were given out are not given again.
func (s *Store) replaceAll(ctx context.Context, file string) (err error) {
	conn, err := s.write.Conn(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	if _, err := conn.ExecContext(ctx, `ATTACH ? AS other`, file); err != nil {
		return err
	}
	defer func() {
		_, detached := conn.ExecContext(context.WithoutCancel(ctx), `DETACH other`)
		err = errors.Join(err, detached)
	}()
	tables, err := ownTables(ctx, conn)
	if err != nil {
		return err
	}
	tx, err := conn.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	err = replaceRows(ctx, tx, tables)
	if err == nil {
		err = s.afresh(ctx, tx)
	}
	if err == nil && s.shop.Load() {
		err = roster.Adopt(ctx, scope.Around(tx, scope.Nobody)) // who is let in here, not who was then
	}
	if err != nil {
		return errors.Join(err, tx.Rollback())
	}
	return tx.Commit()
}

func replaceRows(ctx context.Context, tx *sql.Tx, tables map[string]string) error {
	statements := []string{`PRAGMA defer_foreign_keys = 1`}
	for name := range tables {
		statements = append(statements, fmt.Sprintf(`DELETE FROM main.%s`, name))
	}
	for name, columns := range tables {
		statements = append(statements, fmt.Sprintf(`INSERT INTO main.%[1]s (%[2]s) SELECT %[2]s FROM other.%[1]s`, name, columns))
	}
	for _, x := range statements {
		if _, err := tx.ExecContext(ctx, x); err != nil {
			return err
		}
	}
	return nil
}

// ownTables are the tables that hold a maker's data, with their columns.
func ownTables(ctx context.Context, conn *sql.Conn) (map[string]string, error) {
	rows, err := conn.QueryContext(ctx, `
		SELECT t.name, group_concat('"' || c.name || '"') FROM main.sqlite_schema t, pragma_table_info(t.name, 'main') c
		WHERE t.type = 'table' AND t.name NOT LIKE 'sqlite_%' AND t.name NOT LIKE 'goose_%' GROUP BY t.name`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := map[string]string{}
	for rows.Next() {
		var name, columns string
		if err := rows.Scan(&name, &columns); err != nil {
			return nil, err
		}
		if !slices.Contains(roster.AtTheDoor, name) {
			out[name] = columns
		}
	}
	return out, rows.Err()
}

// Replace puts a copy in place of a database file that cannot be opened any
// more, which is set aside and its new name given. Nobody may have it open.
func Replace(ctx context.Context, file, with string) (aside string, err error) {
	ready, err := readied(ctx, with, folderOf(file))
	if err != nil {
		return "", err
	}
	defer os.RemoveAll(filepath.Dir(ready))
	if err := endAll(ctx, ready); err != nil {
		return "", err
	}
	return putInstead(file, ready)
}

// endAll ends sessions, codes, classes and links in a copy.
func endAll(ctx context.Context, file string) error {
	db, err := sql.Open("sqlite", source(file, "journal_mode(DELETE)", "foreign_keys(1)"))
	if err != nil {
		return err
	}
	none := &Store{}
	return errors.Join(within(ctx, db, func(tx *sql.Tx) error { return none.afresh(ctx, tx) }), db.Close())
}

// putInstead gives a database that is damaged another name beside its own, and puts another in
// its place; where that cannot be done the damaged one is where it was.
func putInstead(file, ready string) (aside string, err error) {
	aside = file + ".damaged"
	for n := 2; ; n++ {
		if _, err := os.Stat(aside); err != nil {
			break
		}
		aside = fmt.Sprintf("%s.damaged-%d", file, n)
	}
	move := func(from, to string) (err error) {
		for _, part := range []string{"", "-wal", "-shm"} {
			if wrong := os.Rename(from+part, to+part); !errors.Is(wrong, os.ErrNotExist) {
				err = errors.Join(err, wrong)
			}
		}
		return err
	}
	if err = move(file, aside); err == nil {
		err = os.Rename(ready, file)
	}
	if err != nil {
		return "", errors.Join(err, move(aside, file))
	}
	return aside, nil
}

// Check reads the database through, quickly or fully, and says what is wrong
// with it; "" when it is sound. What it finds is remembered for Damage.
func (s *Store) Check(ctx context.Context, full bool) (string, error) {
	pragma := `PRAGMA quick_check(3)`
	if full {
		pragma = `PRAGMA integrity_check(3)`
	}
	rows, err := s.db.QueryContext(ctx, pragma)
	if err != nil {
		s.Note(err)
		return s.Damage(), unlessDamage(err)
	}
	defer rows.Close()
	var said []string
	for rows.Next() {
		var line string
		if err := rows.Scan(&line); err != nil {
			return "", err
		}
		if line != "ok" {
			said = append(said, line)
		}
	}
	if err := rows.Err(); err != nil {
		s.Note(err)
		return s.Damage(), unlessDamage(err)
	}
	what := strings.ReplaceAll(strings.Join(said, "; "), "\n", " ")
	if what != "" {
		s.damage.Store(&what)
	} else if full {
		s.damage.Store(nil)
	}
	return what, nil
}

// Damage says what is known to be wrong with the database; "" when nothing is.
func (s *Store) Damage() string {
	if what := s.damage.Load(); what != nil {
		return *what
	}
	return ""
}

// Note remembers an error that tells of damage.
func (s *Store) Note(err error) {
	if damaged(err) {
		what := err.Error()
		s.damage.Store(&what)
	}
}

func unlessDamage(err error) error {
	if damaged(err) {
		return nil
	}
	return err
}
