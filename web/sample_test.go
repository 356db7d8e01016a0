package web

import (
	"os"
	"strconv"
	"testing"
	"time"
)

// quarters is into how many parts many like things are parted, of which one is tried at a time.
const quarters = 4

// seed says which quarter is tried: another one each day, or that of BREVIUM_SEED.
var seed = func() int {
	if n, err := strconv.Atoi(os.Getenv("BREVIUM_SEED")); err == nil {
		return n
	}
	return time.Now().UTC().YearDay()
}()

// every reports whether all are tried, as make every does.
var every = os.Getenv("BREVIUM_EACH") != ""

// sampled reports whether the nth of many like things is tried this time.
func sampled(t testing.TB, n int) bool {
	t.Helper()
	if n == 0 && !every {
		t.Logf("a quarter of them is tried: BREVIUM_SEED=%d", seed)
	}
	return every || n%quarters == seed%quarters
}
