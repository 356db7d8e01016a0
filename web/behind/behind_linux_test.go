package behind

import (
	"runtime"
	"syscall"
	"testing"
)

// priority is the nice value of this thread: the system tells 20 less it.
func priority(t *testing.T) int {
	t.Helper()
	told, err := syscall.Getpriority(syscall.PRIO_PROCESS, 0)
	if err != nil {
		t.Fatal(err)
	}
	return 20 - told
}

func TestWhatIsBehindIsSlowerAndNobodyElse(t *testing.T) {
	runtime.LockOSThread()
	defer runtime.UnlockOSThread()
	before, inside := priority(t), 0
	for range 20 {
		Run(func() { inside = priority(t) })
		if inside != nice {
			t.Fatalf("what runs behind has priority %d, not %d", inside, nice)
		}
		if now := priority(t); now != before {
			t.Fatalf("who waits for it has priority %d, not %d", now, before)
		}
		// No thread that was slowed is used again.
		others := make(chan int)
		go func() { others <- priority(t) }()
		if now := <-others; now != before {
			t.Fatalf("work after it has priority %d, not %d", now, before)
		}
	}
}

func TestAPanicBehindIsTheCallers(t *testing.T) {
	defer func() {
		if x := recover(); x != "the box fell" {
			t.Errorf("the caller met %v", x)
		}
	}()
	Run(func() { panic("the box fell") })
	t.Error("nobody heard of it")
}
