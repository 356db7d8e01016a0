// Package behind runs work that may wait behind all other work: on a thread that the system
// gives a core only where no other thread wants one.
package behind

import (
	"runtime"
	"sync"
)

// Cores is how many cores the program may use.
var Cores = sync.OnceValue(func() int { return runtime.GOMAXPROCS(0) })

// spare are the places beside the cores: two threads may wait behind at once with nobody held up.
// More of them would let the runtime's own collecting have more of the cores.
const spare = 2

// MakePlaces lets as many threads run beside the cores as may wait behind the others: Go runs no
// more at once than there are places, and who has one and gets no core would keep it from others.
// It is called once, where the program begins to serve.
func MakePlaces() { runtime.GOMAXPROCS(Cores() + spare) }

// Run runs f behind all other work and returns when it has ended; a panic of f is the caller's.
func Run(f func()) {
	fault := make(chan any)
	go func() {
		// It is never unlocked, so that the thread ends here: not everybody may quicken one again.
		runtime.LockOSThread()
		slower()
		defer func() { fault <- recover() }()
		f()
	}()
	if x := <-fault; x != nil {
		panic(x)
	}
}
