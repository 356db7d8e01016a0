package web

import (
	"context"
	"runtime"
	"runtime/debug"
	"time"
)

// Memory that was needed for a moment is given back to the machine soon after: looked for so
// often, where the heap has so much more than is in use.
const (
	giveBackEvery = 20 * time.Second
	mostSpare     = 48 << 20
)

// GiveBack gives memory back that is not used any more, until the program ends. The runtime
// does so by itself where there is work; on a machine at rest it may keep it for long.
func GiveBack(ctx context.Context) {
	tick := time.NewTicker(giveBackEvery)
	defer tick.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
		var m runtime.MemStats
		runtime.ReadMemStats(&m)
		if m.HeapInuse+m.HeapIdle-m.HeapReleased > m.HeapAlloc+mostSpare || m.HeapAlloc > mostSpare {
			debug.FreeOSMemory()
		}
	}
}
