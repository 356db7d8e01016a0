// Package sample says how many of many like things a test tries: a quarter, the one that
// BREVIUM_SEED=n names. make test names another for each state of the files, so that the
// tests are quick, a week of changes looks at all, and one state always answers the same.
// BREVIUM_EACH=1 tries the whole, and BREVIUM_EACH=n of random cases n times the whole.
package sample

import (
	"os"
	"strconv"
	"sync"
	"testing"
)

// quarters is into how many parts the like things are parted.
const quarters = 4

// times is how often the whole of random cases is tried; 0 tries a quarter. It is asked for
// in a test, not as the program begins, so that go test knows its results by it.
var times = number("BREVIUM_EACH", 0)

// seed says which part is tried.
var seed = number("BREVIUM_SEED", 1)

func number(name string, usual int) func() int {
	return sync.OnceValue(func() int {
		if n, err := strconv.Atoi(os.Getenv(name)); err == nil && n >= 0 {
			return n
		}
		return usual
	})
}

// Whole reports whether all is tried.
func Whole() bool { return times() > 0 }

// Takes reports whether the nth of many like things is tried.
func Takes(t testing.TB, n int) bool { return Part(t, n, quarters) }

// Part does so where one of more parts than four is tried.
func Part(t testing.TB, n, parts int) bool {
	if Whole() {
		return true
	}
	say(t)
	return n%parts == seed()%parts
}

// Other reports, of two ways to try the nth thing, whether it is tried in the way 0 or 1.
func Other(n, way int) bool { return Whole() || (n+seed())%2 == way }

// Of is how many random cases are tried where count are the whole.
func Of(t testing.TB, count int) int {
	if Whole() {
		return times() * count
	}
	say(t)
	return (count + quarters - 1) / quarters
}

// Seed is what the random numbers of a quarter begin with, where those of the whole begin
// with whole.
func Seed(whole int64) int64 {
	if Whole() {
		return whole
	}
	return whole + 1000*int64(seed()%quarters)
}

// said are the tests that have said which part they try.
var said sync.Map

func say(t testing.TB) {
	if _, already := said.LoadOrStore(t.Name(), true); !already {
		t.Logf("a part is tried: BREVIUM_SEED=%d", seed())
	}
}
