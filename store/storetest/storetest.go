// Package storetest gives tests a database that is ready at once: its tables are made one
// time a run and copied, and it lies in memory where the machine has a folder there, so that
// no test waits for a disk.
package storetest

import (
	"context"
	"os"
	"path/filepath"
	"sync"
	"testing"

	"brevium/store"
)

// inMemory is a folder that lies in memory, on machines that have one.
const inMemory = "/dev/shm"

// Folder is an empty folder for one test's data, gone when the test ends.
func Folder(t testing.TB) string {
	t.Helper()
	folder, err := os.MkdirTemp(inMemory, "brevium-test-")
	if err != nil {
		return t.TempDir()
	}
	t.Cleanup(func() {
		if err := os.RemoveAll(folder); err != nil {
			t.Error(err)
		}
	})
	return folder
}

// empty is a database without a box in it, as the present version makes one.
var empty = sync.OnceValues(func() ([]byte, error) {
	folder, err := os.MkdirTemp("", "brevium-empty-")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(folder)
	file := filepath.Join(folder, "b.db")
	s, err := store.Open(context.Background(), file)
	if err != nil {
		return nil, err
	}
	if err := s.Close(); err != nil {
		return nil, err
	}
	return os.ReadFile(file)
})

// File is the path of a fresh database of a test.
func File(t testing.TB) string {
	t.Helper()
	data, err := empty()
	if err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(Folder(t), "b.db")
	if err := os.WriteFile(file, data, 0o600); err != nil {
		t.Fatal(err)
	}
	return file
}

// Open gives a fresh store, closed when the test ends.
func Open(t testing.TB) *store.Store {
	t.Helper()
	return At(t, File(t))
}

// At opens the data of a file, and closes them when the test ends.
func At(t testing.TB, file string) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), file)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	})
	return s
}
