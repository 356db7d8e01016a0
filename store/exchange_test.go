package store

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"os"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/store/desk"
	"brevium/store/roster"
)

// Data that were damaged while the program ran are exchanged for a copy while it runs on, with
// readers at work: the boxes are there again, who was struck since is let in no more, and
// nobody's session or link of before holds.
func TestDamagedDataAreExchanged(t *testing.T) {
	file := filepath.Join(t.TempDir(), "brevium.db")
	s := open(t, file)
	wren, ash := joined(t, s, "Wren", roster.ForSetUp), joined(t, s, "Ash", roster.ForJoining)
	must(t, s.Workshop(t.Context(), people.NewPepper()))
	id, err := s.Of(wren).Add(wren, trayOf("figs", 90*mm))
	must(t, err)
	must(t, s.Of(wren).SetLink(wren, id, true))
	link, _, err := s.Of(wren).Link(wren, id)
	must(t, err)
	must(t, s.Sessions().Commit("token", []byte("of before"), time.Now().Add(time.Hour)))
	for n := range 200 {
		_, err := s.Of(wren).Add(wren, trayOf("many", measure.Length(50+n)*mm))
		must(t, err)
	}
	name, err := s.MakeCopy(t.Context(), ByHand)
	must(t, err)
	must(t, s.Of(t.Context()).SetPerson(t.Context(), people.Of(ash).ID, people.Maker, true))
	if _, err := s.write.ExecContext(t.Context(), `PRAGMA wal_checkpoint(TRUNCATE)`); err != nil {
		t.Fatal(err)
	}
	text, err := os.ReadFile(file)
	must(t, err)
	f, err := os.OpenFile(file, os.O_WRONLY, 0)
	must(t, err)
	_, err = f.WriteAt(bytes.Repeat([]byte("x"), len(text)/2), int64(len(text)/3))
	must(t, errors.Join(err, f.Close()))
	must(t, s.db.Close()) // what was read is not asked of memory
	s.db, err = opened(source(file, "busy_timeout(5000)"), s.gate)
	must(t, err)
	if said, err := s.Check(t.Context(), true); said == "" || err != nil {
		t.Fatalf("damaged, it says %q, %v", said, err)
	}
	reading, stop := context.WithCancel(wren)
	var all sync.WaitGroup
	for range 4 {
		all.Go(func() {
			for reading.Err() == nil {
				s.Of(reading).Box(reading, id) //nolint:errcheck // of damaged data
			}
		})
	}
	copied, err := s.CopyFile(name)
	must(t, err)
	_, aside, err := s.Restore(t.Context(), copied)
	stop()
	all.Wait()
	must(t, err)
	if _, err := os.Stat(aside); err != nil || s.Damage() != "" {
		t.Errorf("set aside as %q, %v; damage %q", aside, err, s.Damage())
	}
	if said, err := s.Check(t.Context(), true); said != "" || err != nil {
		t.Errorf("afterwards it says %q, %v", said, err)
	}
	if b, err := s.Of(wren).Box(wren, id); err != nil || b.Name != "figs" {
		t.Errorf("the box is %q, %v", b.Name, err)
	}
	if _, err := s.Of(wren).Add(wren, trayOf("new", 50*mm)); err != nil {
		t.Errorf("a new box: %v", err)
	}
	if _, there, err := s.Sessions().Find("token"); there || err != nil {
		t.Errorf("a session of before holds: %v", err)
	}
	if _, err := s.Of(t.Context()).Linked(t.Context(), link); !errors.Is(err, desk.ErrNotFound) {
		t.Errorf("a link of before leads somewhere: %v", err)
	}
	if again, is, err := s.Of(wren).Link(wren, id); !is || again == "" || again == link || err != nil {
		t.Errorf("the box has the link %q, %v", again, err)
	}
}

// A copy that is no copy of ours, or holds what ours never does, is refused whatever it says it
// is, and nothing of it is run.
func TestCraftedCopiesAreRefused(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "brevium.db"))
	id := add(t, s, trayOf("figs", 90*mm))
	for name, statements := range map[string][]string{
		"a trigger":                  {`CREATE TRIGGER evil AFTER INSERT ON boxes BEGIN DELETE FROM boxes; END`},
		"a view in place of a table": {`DROP TABLE things`, `CREATE VIEW things AS WITH RECURSIVE n(x) AS (SELECT 1 UNION ALL SELECT x + 1 FROM n) SELECT x AS id, x AS thing, 0 AS maker, NULL AS deleted_at FROM n`},
		"a view beside":              {`CREATE VIEW more AS SELECT * FROM boxes`},
		"a computed column":          {`ALTER TABLE boxes ADD COLUMN huge AS (zeroblob(1000000000))`},
		"another column":             {`ALTER TABLE boxes ADD COLUMN more TEXT`},
		"an index on a function":     {`CREATE INDEX slow ON boxes (length(zeroblob(1000)))`},
		"no goose":                   {`DROP TABLE goose_db_version`},
		"a view for goose":           {`DROP TABLE goose_db_version`, `CREATE VIEW goose_db_version AS SELECT 1 AS id, 5 AS version_id, 1 AS is_applied`},
		"another program's mark":     {`PRAGMA application_id = 252006675`},
		"a version that was never":   {`UPDATE goose_db_version SET version_id = -7`},
		"tables of another version":  {`DELETE FROM goose_db_version WHERE version_id > 7`},
		"a virtual table":            {`CREATE VIRTUAL TABLE v USING fts5(x)`},
	} {
		file := filepath.Join(t.TempDir(), "copy.db")
		must(t, s.Backup(t.Context(), file))
		db, err := sql.Open("sqlite", source(file))
		must(t, err)
		for _, x := range statements {
			if _, err := db.ExecContext(t.Context(), x); err != nil {
				t.Fatalf("%s: %v", name, err)
			}
		}
		must(t, db.Close())
		if _, _, err := s.Restore(t.Context(), file); fault.Of(err).Code != fault.Unreadable {
			t.Errorf("%s is taken: %v", name, err)
		}
		get(t, s, id)
	}
	// Pages of 64 kB are harmless.
	file := filepath.Join(t.TempDir(), "copy.db")
	must(t, s.Backup(t.Context(), file))
	db, err := sql.Open("sqlite", source(file, "journal_mode(DELETE)"))
	must(t, err)
	for _, x := range []string{`PRAGMA page_size = 65536`, `VACUUM`} {
		_, err := db.ExecContext(t.Context(), x)
		must(t, err)
	}
	must(t, db.Close())
	if _, _, err := s.Restore(t.Context(), file); err != nil {
		t.Errorf("a copy of large pages: %v", err)
	}
	get(t, s, id)
}

// A copy that is put in place of a file that cannot be opened, or by a program that has not the
// secret of the door, brings no session, code or link to life.
func TestACopyBringsNobodyIn(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "brevium.db"))
	must(t, s.Workshop(t.Context(), people.NewPepper()))
	wren := joined(t, s, "Wren", roster.ForSetUp)
	id, err := s.Of(wren).Add(wren, trayOf("figs", 90*mm))
	must(t, err)
	must(t, s.Of(wren).SetLink(wren, id, true))
	link, _, err := s.Of(wren).Link(wren, id)
	must(t, err)
	must(t, s.Of(wren).OpenClass(wren, desk.BoxSort, id, time.Now().Add(time.Hour)))
	class, err := s.Of(wren).ClassOf(wren, desk.BoxSort, id)
	must(t, err)
	must(t, s.Sessions().Commit("token", []byte("of before"), time.Now().Add(time.Hour)))
	code, err := s.Of(t.Context()).NewCode(t.Context(), roster.Code{For: roster.ForJoining, Role: people.Steward, Until: time.Now().Add(time.Hour)})
	must(t, err)
	copied := filepath.Join(t.TempDir(), "copy.db")
	must(t, s.Backup(t.Context(), copied))
	for name, put := range map[string]func(file string){
		"replaced": func(file string) {
			must(t, os.WriteFile(file, bytes.Repeat([]byte("x"), 9000), 0o600))
			_, err := Replace(t.Context(), file, copied)
			must(t, err)
		},
		"restored": func(file string) {
			other := open(t, file)
			_, _, err := other.Restore(t.Context(), copied)
			must(t, err)
		},
	} {
		file := filepath.Join(t.TempDir(), "brevium.db")
		put(file)
		back := open(t, file)
		if _, there, err := back.Sessions().Find("token"); there || err != nil {
			t.Errorf("%s: a session holds, %v", name, err)
		}
		if _, err := back.Of(t.Context()).Code(t.Context(), code.Text); !errors.Is(err, desk.ErrNotFound) {
			t.Errorf("%s: a code to join holds, %v", name, err)
		}
		if _, err := back.Of(t.Context()).Linked(t.Context(), link); !errors.Is(err, desk.ErrNotFound) {
			t.Errorf("%s: a link leads somewhere, %v", name, err)
		}
		if _, _, _, err := back.Of(t.Context()).ClassBy(t.Context(), class.Code); !errors.Is(err, desk.ErrNotFound) {
			t.Errorf("%s: a class is open, %v", name, err)
		}
		if _, is, err := back.Of(t.Context()).Link(t.Context(), id); is || err != nil {
			t.Errorf("%s: the box says that it has a link, %v", name, err)
		}
	}
}

// Where the copy cannot be put in place the damaged file is where it was.
func TestTheFileIsNeverGone(t *testing.T) {
	file := filepath.Join(t.TempDir(), "brevium.db")
	for _, part := range []string{"", "-wal"} {
		must(t, os.WriteFile(file+part, []byte("damaged"+part), 0o600))
	}
	if aside, err := putInstead(file, filepath.Join(t.TempDir(), "not there.db")); err == nil {
		t.Errorf("put aside as %q for nothing", aside)
	}
	for _, part := range []string{"", "-wal"} {
		if text, err := os.ReadFile(file + part); err != nil || string(text) != "damaged"+part {
			t.Errorf("%q: %q, %v", part, text, err)
		}
	}
}
