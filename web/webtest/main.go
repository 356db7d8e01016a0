package webtest

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"runtime/debug"
	"testing"

	"brevium/store"
)

// pictures are the drawings that the tests of a room share.
var pictures *store.Cache

// Main runs the tests of a room that draws much, and gives the code to leave with: they share what
// one of them has drawn, and collecting less often saves a tenth of their time. ended is called
// after the last.
func Main(m *testing.M, ended func() error) (code int) {
	debug.SetGCPercent(400)
	folder, err := os.MkdirTemp("", "brevium-pictures-")
	if err == nil {
		pictures, err = store.OpenCache(context.Background(), filepath.Join(folder, "cache.db"), "tests")
	}
	if code = 1; err == nil {
		code = m.Run()
		err = errors.Join(ended(), pictures.Close())
	}
	if err := errors.Join(err, os.RemoveAll(folder)); err != nil {
		fmt.Fprintln(os.Stderr, err)
	}
	return code
}
