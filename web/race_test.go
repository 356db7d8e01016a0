package web_test

import (
	"fmt"
	"math/rand/v2"
	"net/http"
	"os"
	"strconv"
	"sync"
	"testing"
	"time"

	"brevium/web/page"
	"brevium/web/webtest"
)

// raceTime is how long makers use one workshop at once: a moment as a rule,
// a good while under the race detector.
func raceTime(t *testing.T) time.Duration {
	t.Helper()
	text := os.Getenv("BREVIUM_RACE")
	if text == "" {
		return 300 * time.Millisecond
	}
	d, err := time.ParseDuration(text)
	if err != nil {
		t.Fatal(err)
	}
	return d
}

// Makers use everything at once: pages, changes, jobs, searches, copies. The
// race detector watches; nothing may be answered with a fault.
func TestRacesOfMakers(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	for range 4 {
		x.JarBox()
	}
	x.Post("/jobs", "copies.1", "2", "copies.2", "3")
	end := time.Now().Add(raceTime(t))
	var all sync.WaitGroup
	for n := range 6 {
		all.Go(func() {
			random := rand.New(rand.NewPCG(uint64(n), 5))
			window := fmt.Sprint("maker ", n)
			for time.Now().Before(end) {
				id := int64(1 + random.IntN(4))
				var code int
				switch random.IntN(10) {
				case 0:
					code, _ = x.As(window, x.Box(id).Version, page.StopURL(id, "sheets"), "copies", strconv.Itoa(1+random.IntN(9)))
				case 1:
					code, _ = x.As(window, x.Box(id).Version, page.StopURL(id, "box"), "options.lid.depth", []string{"1", "1 1/8", "1 1/4"}[random.IntN(3)])
				case 2:
					code, _ = x.As(window, 0, fmt.Sprintf("/boxes/%d/undo", id), "change", page.Itoa(x.Box(id).Last.ID), "stop", "fit")
				case 3:
					code, _ = x.As(window, x.Job(1).Version, "/jobs/1", "copies.1", strconv.Itoa(1+random.IntN(9)))
				case 4:
					code, _, _ = x.Post("/jobs/1/search", "seconds", "1")
				case 5:
					code, _, _ = x.Get("/data/everything.zip")
				default:
					path := []string{"/", "/jobs/1", "/drawer", "/jobs", page.StopURL(id, "box"), page.StopURL(id, "making"), fmt.Sprintf("/boxes/%d/compare", id), fmt.Sprintf("/boxes/%d/sheet.pdf", id)}[random.IntN(8)]
					code, _, _ = x.Get(path)
				}
				if code >= http.StatusInternalServerError {
					t.Errorf("an answer of %d", code)
				}
			}
		})
	}
	all.Wait()
}
