package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"brevium/core/fault"
	"brevium/store/boxshelf"
	"brevium/store/desk"
)

func TestACopyIsBroughtBackAndThatIsUndone(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "brevium.db"))
	id := add(t, s, trayOf("figs", 90*mm))
	name, err := s.MakeCopy(t.Context(), ByHand)
	must(t, err)
	save(t, s, id, 95*mm, "length", "one")
	later := add(t, s, trayOf("later", 50*mm))
	file, err := s.CopyFile(name)
	must(t, err)
	before, _, err := s.Restore(t.Context(), file)
	must(t, err)
	if b := get(t, s, id); b.Inputs.Size["length"] != 90*mm || b.Last.What != "" {
		t.Errorf("after bringing the copy back the length is %v, undo %q", b.Inputs.Size["length"].MM(), b.Last.What)
	}
	if _, err := s.Of(t.Context()).Box(t.Context(), later); !errors.Is(err, desk.ErrNotFound) {
		t.Errorf("a box that the copy does not have: %v", err)
	}
	// A number that was given out is not given to another box.
	if n := add(t, s, trayOf("new", 50*mm)); n <= later {
		t.Errorf("a new box has number %d; %d was another's", n, later)
	}
	file, err = s.CopyFile(before)
	must(t, err)
	_, _, err = s.Restore(t.Context(), file)
	must(t, err)
	if got := get(t, s, id).Inputs.Size["length"]; got != 95*mm {
		t.Errorf("undone, the length is %v", got.MM())
	}
	get(t, s, later)
	if said, err := s.Check(t.Context(), true); said != "" || err != nil {
		t.Errorf("the database says %q, %v", said, err)
	}
	if left, _ := filepath.Glob(filepath.Join(folderOf(s.file), "restoring-*")); len(left) > 0 {
		t.Errorf("left behind: %v", left)
	}
}

// Copies made while others write are whole.
func TestCopiesWhileWriting(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "brevium.db"))
	id := add(t, s, trayOf("figs", 90*mm))
	ctx, stop := context.WithCancel(t.Context())
	ended := make(chan error)
	go func() {
		var err error
		for ctx.Err() == nil && err == nil {
			var b boxshelf.Box
			if b, err = s.Of(ctx).Box(ctx, id); err == nil {
				err = s.Of(ctx).Save(ctx, id, trayOf("figs", b.Inputs.Size["length"]+mm), boxshelf.Edit{From: b.Version, What: "length"})
			}
		}
		ended <- err
	}()
	for range 5 {
		to := filepath.Join(t.TempDir(), "copy.db")
		must(t, s.Backup(t.Context(), to))
		copied := open(t, to)
		if said, err := copied.Check(t.Context(), true); said != "" || err != nil {
			t.Errorf("the copy says %q, %v", said, err)
		}
		get(t, copied, id)
	}
	stop()
	// Cancelled in the middle, a transaction may be done with before it is told.
	if err := <-ended; err != nil && !errors.Is(err, context.Canceled) && !errors.Is(err, sql.ErrTxDone) {
		t.Error(err)
	}
}

// Two copies within one second are two.
func TestCopiesInOneSecond(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "brevium.db"))
	now := time.Date(2026, 11, 25, 9, 0, 0, 0, time.UTC)
	s.now = func() time.Time { now = now.Add(7 * time.Millisecond); return now }
	for range 2 {
		_, err := s.MakeCopy(t.Context(), Before)
		must(t, err)
	}
	if all, err := s.Copies(); err != nil || len(all) != 2 {
		t.Errorf("%d copies, %v", len(all), err)
	}
}

func TestDailyCopiesAreKeptForTwoWeeks(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "brevium.db"))
	hand, err := s.MakeCopy(t.Context(), ByHand)
	must(t, err)
	day := time.Date(2026, 11, 1, 9, 0, 0, 0, time.UTC)
	for n := range 20 {
		now := day.AddDate(0, 0, n)
		s.now = func() time.Time { return now }
		made, err := s.DailyCopy(t.Context())
		must(t, err)
		must(t, os.Chtimes(filepath.Join(folderOf(s.file), made), now, now))
		if again, err := s.DailyCopy(t.Context()); again != "" || err != nil {
			t.Errorf("a second copy on one day: %q, %v", again, err)
		}
	}
	all, err := s.Copies()
	must(t, err)
	days, found := 0, false
	for _, c := range all {
		if c.Kind == Daily {
			days++
		}
		found = found || c.Name == hand
	}
	if days != daysKept || !found {
		t.Errorf("%d daily copies are kept, the one by hand %v; want %d, true", days, found, daysKept)
	}
}

func TestWhatIsNoCopyIsRefused(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "brevium.db"))
	id := add(t, s, trayOf("figs", 90*mm))
	folder := t.TempDir()
	write := func(name, text string) string {
		file := filepath.Join(folder, name)
		must(t, os.WriteFile(file, []byte(text), 0o600))
		return file
	}
	whole := filepath.Join(folder, "whole.db")
	must(t, s.Backup(t.Context(), whole))
	text, err := os.ReadFile(whole)
	must(t, err)
	for _, file := range []string{
		write("empty.db", ""), write("text.db", strings.Repeat("no database ", 1000)), filepath.Join(folder, "nowhere.db"),
		write("cut.db", string(text[:len(text)/2])), write("hole.db", string(text[:8192])+strings.Repeat("x", 8192)+string(text[16384:])),
	} {
		if _, _, err := s.Restore(t.Context(), file); err == nil || fault.Of(err).Code == fault.Internal {
			t.Errorf("%s: %v; want a refusal", filepath.Base(file), err)
		}
	}
	if b := get(t, s, id); b.Name != "figs" {
		t.Errorf("the box is %q", b.Name)
	}
	for _, name := range []string{"../brevium.db", "brevium.db", "x", "brevium-day-2026-01-01.db"} {
		if _, err := s.CopyFile(name); !errors.Is(err, ErrNoCopy) {
			t.Errorf("%q: %v", name, err)
		}
	}
}

// A file that a newer version wrote is not written to, and says so.
func TestANewerFormatIsLeftAlone(t *testing.T) {
	file := filepath.Join(t.TempDir(), "brevium.db")
	s := open(t, file)
	_, err := s.write.Exec(`INSERT INTO goose_db_version (version_id, is_applied) VALUES (99, 1)`)
	must(t, err)
	must(t, s.Close())
	before, err := os.ReadFile(file)
	must(t, err)
	if _, err := Open(t.Context(), file); !errors.Is(err, ErrNewer) || !strings.Contains(err.Error(), "format is 99") {
		t.Errorf("opened: %v", err)
	}
	if after, err := os.ReadFile(file); err != nil || string(after) != string(before) {
		t.Errorf("the file was changed, %v", err)
	}
}

// The file alone, copied a moment after a change, holds it.
func TestTheFileIsNeverFarBehind(t *testing.T) {
	file := filepath.Join(t.TempDir(), "brevium.db")
	s := open(t, file)
	id := add(t, s, trayOf("figs", 90*mm))
	for deadline := time.Now().Add(20 * time.Second); ; time.Sleep(50 * time.Millisecond) {
		alone := filepath.Join(t.TempDir(), "alone.db")
		must(t, copyFile(file, alone))
		var name string
		db, err := sql.Open("sqlite", source(alone))
		must(t, err)
		err = db.QueryRow(`SELECT name FROM boxes WHERE id = ?`, id).Scan(&name)
		must(t, db.Close())
		if name == "figs" {
			return
		}
		if time.Now().After(deadline) {
			t.Fatalf("the file alone has %q, %v", name, err)
		}
	}
}

func copyFile(from, to string) error {
	in, err := os.Open(from)
	if err != nil {
		return err
	}
	defer in.Close()
	out, err := os.Create(to)
	if err != nil {
		return err
	}
	_, err = io.Copy(out, in)
	return errors.Join(err, out.Close())
}

// A full disk refuses the change with a sentence, and what was there stays.
func TestAFullDiskIsSaid(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "brevium.db"))
	id := add(t, s, trayOf("figs", 90*mm))
	var pages int
	must(t, s.write.QueryRow(`PRAGMA page_count`).Scan(&pages))
	_, err := s.write.Exec(fmt.Sprintf(`PRAGMA max_page_count = %d`, pages+5))
	must(t, err)
	var failed error
	for n := 0; n < 500 && failed == nil; n++ {
		_, failed = s.Of(t.Context()).Add(t.Context(), trayOf(strings.Repeat("x", 100), 50*mm))
	}
	if !strings.Contains(Reason(failed), "disk is full") {
		t.Errorf("a full disk gives %v: %q", failed, Reason(failed))
	}
	if b := get(t, s, id); b.Name != "figs" {
		t.Errorf("the box is %q", b.Name)
	}
	if said, err := s.Check(t.Context(), true); said != "" || err != nil {
		t.Errorf("the database says %q, %v", said, err)
	}
}

// Damage is found, remembered, and told until a full check finds none.
func TestDamageIsTold(t *testing.T) {
	file := filepath.Join(t.TempDir(), "brevium.db")
	s := open(t, file)
	for range 200 {
		add(t, s, trayOf(strings.Repeat("x", 100), 50*mm))
	}
	must(t, s.Close())
	text, err := os.ReadFile(file)
	must(t, err)
	for i := len(text) / 2; i < len(text)/2+8192; i++ {
		text[i] = 'x'
	}
	must(t, os.WriteFile(file, text, 0o600))
	s = open(t, file)
	if said, err := s.Check(t.Context(), false); said == "" || err != nil || s.Damage() == "" {
		t.Errorf("a quick check says %q, %v", said, err)
	}
}

func TestOneProgramAtATime(t *testing.T) {
	folder := t.TempDir()
	lock, err := TakeLock(folder, "process 7, at http://127.0.0.1:1")
	must(t, err)
	if _, err := TakeLock(folder, "another"); !errors.Is(err, ErrInUse) || !strings.Contains(err.Error(), "process 7") {
		t.Errorf("a second lock: %v", err)
	}
	must(t, lock.Free())
	again, err := TakeLock(folder, "another")
	must(t, err)
	must(t, again.Free())
}
