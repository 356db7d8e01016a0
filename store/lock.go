package store

import (
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strings"

	"github.com/gofrs/flock"
)

// Lock is the sole right to serve a folder's data.
type Lock struct {
	lock  *flock.Flock
	owner string // the file that says who has it
}

// TakeLock takes the right to serve the data in a folder, for an owner that is
// told to others who ask for it. It is free again when the program ends,
// however it ends.
func TakeLock(folder, owner string) (*Lock, error) {
	l := &Lock{flock.New(filepath.Join(folder, "brevium.lock"), flock.SetPermissions(0o600)), filepath.Join(folder, "brevium.owner")}
	got, err := l.lock.TryLock()
	if err != nil {
		return nil, fmt.Errorf("the data folder cannot be locked: %w", err)
	}
	if !got {
		by, _ := os.ReadFile(l.owner) // who it is is good to know, no more
		return nil, fmt.Errorf("%w (%s); use that one, or stop it first", ErrInUse, strings.TrimSpace(string(by)))
	}
	if err := os.WriteFile(l.owner, []byte(owner+"\n"), 0o600); err != nil {
		return nil, errors.Join(err, l.lock.Close())
	}
	return l, nil
}

// ErrInUse means that another program serves the data.
var ErrInUse = errors.New("these data are in use by another Brevium")

// Free gives the right back.
func (l *Lock) Free() error {
	err := os.Remove(l.owner)
	if errors.Is(err, fs.ErrNotExist) {
		err = nil
	}
	return errors.Join(err, l.lock.Close())
}
