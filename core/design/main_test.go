package design

import (
	"os"
	"runtime/debug"
	"testing"
)

// The tests make many thousand boxes; collecting less often saves a fifth of
// their time.
func TestMain(m *testing.M) {
	debug.SetGCPercent(400)
	os.Exit(m.Run())
}
