package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"time"
)

// Kind says what a copy was made for; it begins the copy's name.
type Kind string

// The kinds of copies.
const (
	Daily  Kind = "day"
	ByHand Kind = "hand"
	Before Kind = "before"
)

// daysKept is how many daily copies are kept.
const daysKept = 14

// beforesKept is how many copies of what a restore replaced are kept.
const beforesKept = 10

// Copy is a copy of the whole database.
type Copy struct {
	Name  string // of its file in the folder of copies
	Kind  Kind
	Made  time.Time
	Bytes int64
}

var copyName = regexp.MustCompile(`^brevium-(day|hand|before)-(\d{4}-\d{2}-\d{2}(?:-\d{6}-\d{3})?)\.db$`)

// stamps are how a copy's name tells when it was made.
const (
	dayStamp    = "2006-01-02"
	momentStamp = "2006-01-02-150405.000"
)

// CopiesOf lists the copies that lie beside a database, the newest first.
func CopiesOf(file string) ([]Copy, error) {
	entries, err := os.ReadDir(folderOf(file))
	if errors.Is(err, fs.ErrNotExist) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	var out []Copy
	for _, e := range entries {
		m := copyName.FindStringSubmatch(e.Name())
		info, err := e.Info()
		if m == nil || err != nil || !info.Mode().IsRegular() {
			continue
		}
		c := Copy{Name: e.Name(), Kind: Kind(m[1]), Made: info.ModTime(), Bytes: info.Size()}
		out = append(out, c)
	}
	slices.SortStableFunc(out, func(a, b Copy) int { return b.Made.Compare(a.Made) })
	return out, nil
}

func folderOf(file string) string { return filepath.Join(filepath.Dir(file), "backups") }

// Copies lists the copies of this database, the newest first.
func (s *Store) Copies() ([]Copy, error) { return CopiesOf(s.file) }

// CopyFile is where a copy of the given name lies; an error for a name that
// is none of a copy's.
func (s *Store) CopyFile(name string) (string, error) {
	if !copyName.MatchString(name) {
		return "", ErrNoCopy
	}
	file := filepath.Join(folderOf(s.file), name)
	if _, err := os.Stat(file); err != nil {
		return "", ErrNoCopy
	}
	return file, nil
}

// ErrNoCopy means that there is no copy of that name.
var ErrNoCopy = errors.New("there is no copy of this name")

// MakeCopy copies the database as it is now and gives the copy's name.
func (s *Store) MakeCopy(ctx context.Context, kind Kind) (string, error) {
	stamp := s.now().Format(momentStamp)
	if kind == Daily {
		stamp = s.now().Format(dayStamp)
	}
	name := fmt.Sprintf("brevium-%s-%s.db", kind, strings.ReplaceAll(stamp, ".", "-"))
	return name, s.Backup(ctx, filepath.Join(folderOf(s.file), name))
}

// DailyCopy makes today's copy if there is none yet, and drops the copies that
// are no longer kept. It gives the name of one that it made.
func (s *Store) DailyCopy(ctx context.Context) (made string, err error) {
	today := filepath.Join(folderOf(s.file), fmt.Sprintf("brevium-%s-%s.db", Daily, s.now().Format(dayStamp)))
	if _, err := os.Stat(today); errors.Is(err, fs.ErrNotExist) {
		if made, err = s.MakeCopy(ctx, Daily); err != nil {
			return "", err
		}
	}
	all, err := s.Copies()
	if err != nil {
		return made, err
	}
	keep := map[Kind]int{Daily: daysKept, Before: beforesKept}
	for _, c := range all {
		if c.Kind == ByHand {
			continue
		}
		if keep[c.Kind]--; keep[c.Kind] < 0 {
			err = errors.Join(err, os.Remove(filepath.Join(folderOf(s.file), c.Name)))
		}
	}
	return made, err
}

// Backup writes a copy of the database to a file, safely while it is used:
// either the whole copy is there afterwards, or what was there before.
func (s *Store) Backup(ctx context.Context, to string) error { return backup(ctx, s.db, to) }

// BackupFile does so for a database that another program may have open, and
// that may be of another version.
func BackupFile(ctx context.Context, file, to string) error {
	if info, err := os.Stat(file); err != nil || info.Size() == 0 {
		return fmt.Errorf("there is no data to copy at %s", file)
	}
	db, err := sql.Open("sqlite", source(file, "busy_timeout(5000)"))
	if err != nil {
		return err
	}
	return errors.Join(backup(ctx, db, to), db.Close())
}

func backup(ctx context.Context, db *sql.DB, to string) error {
	if err := os.MkdirAll(filepath.Dir(to), 0o700); err != nil {
		return err
	}
	made := to + ".part"
	if err := os.Remove(made); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	defer os.Remove(made) // gone when all went well
	if _, err := db.ExecContext(ctx, `VACUUM INTO ?`, made); err != nil {
		return err
	}
	if err := os.Chmod(made, 0o600); err != nil {
		return err
	}
	if err := flush(made); err != nil {
		return err
	}
	return os.Rename(made, to)
}

// flush waits until a file is on disk.
func flush(name string) error {
	f, err := os.OpenFile(name, os.O_RDWR, 0)
	if err != nil {
		return err
	}
	return errors.Join(f.Sync(), f.Close())
}

// source is how the driver is told of a file.
func source(file string, pragmas ...string) string {
	q := url.Values{"_pragma": pragmas, "_txlock": {"immediate"}}
	return "file:" + (&url.URL{Path: file}).EscapedPath() + "?" + q.Encode()
}
