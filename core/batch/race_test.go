package batch

import (
	"os"
	"sync"
	"testing"
	"time"

	"brevium/core/design"
	"brevium/core/measure"
)

// One box worked out is shared by jobs that are laid out at once: nobody
// changes it. The race detector watches.
func TestRacesOverOneResult(t *testing.T) {
	lasts := 200 * time.Millisecond
	if d, err := time.ParseDuration(os.Getenv("BREVIUM_RACE")); err == nil {
		lasts = d
	}
	it := Item{Inputs: design.New("tray", measure.MM, "tray-lid"), Copies: 5}
	made, err := design.Make(t.Context(), it.One())
	if err != nil {
		t.Fatal(err)
	}
	it.Made = made
	end := time.Now().Add(lasts)
	var all sync.WaitGroup
	for range 4 {
		all.Go(func() {
			for time.Now().Before(end) {
				stocks, err := Gather(t.Context(), []Item{it, it}, nil, Choices{})
				if err != nil {
					t.Error(err)
					return
				}
				for i := range stocks {
					if err := stocks[i].Lay(t.Context(), Quick); err != nil {
						t.Error(err)
					}
				}
				Kept(stocks, "fair")
			}
		})
	}
	all.Wait()
}
