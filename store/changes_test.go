package store

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"brevium/core/measure"
	"brevium/store/boxshelf"
	"brevium/store/desk"
)

// save changes a tray's length as the window does, from what it is now.
func save(t *testing.T, s *Store, id int64, l measure.Length, what, window string) {
	t.Helper()
	must(t, s.Of(t.Context()).Save(t.Context(), id, trayOf("a", l), boxshelf.Edit{From: get(t, s, id).Version, What: what, Page: window}))
}

func TestUndoTakesBackOneChangeAtATime(t *testing.T) {
	s := fresh(t)
	now := time.Unix(1000, 0)
	s.now = func() time.Time { return now }
	id := add(t, s, trayOf("a", 90*mm))
	at := func(l measure.Length, what, window string, later time.Duration) {
		t.Helper()
		now = now.Add(later)
		save(t, s, id, l, what, window)
	}
	at(91*mm, "length", "one", 0)
	at(92*mm, "length", "one", time.Second)    // still typing
	at(93*mm, "length", "other", time.Second)  // another hand
	at(94*mm, "length", "other", -time.Minute) // a clock set back: not the same typing
	at(95*mm, "width", "other", time.Second)
	for _, want := range []struct {
		what string
		l    measure.Length
	}{{"width", 94 * mm}, {"length", 93 * mm}, {"length", 92 * mm}, {"length", 90 * mm}} {
		b := get(t, s, id)
		if b.Last.What != want.what {
			t.Errorf("undo would take back %q; want %q", b.Last.What, want.what)
		}
		must(t, s.Of(t.Context()).Undo(t.Context(), id, b.Last.ID, "one"))
		if b := get(t, s, id); b.Inputs.Size["length"] != want.l || b.Undone.What != want.what {
			t.Errorf("after undo the length is %v, to redo %q; want %v, %q", b.Inputs.Size["length"].MM(), b.Undone.What, want.l.MM(), want.what)
		}
	}
	if b := get(t, s, id); b.Last.What != "" || !errors.Is(s.Of(t.Context()).Undo(t.Context(), id, 0, ""), desk.ErrStale) {
		t.Errorf("with nothing left undo would take back %q", b.Last.What)
	}
	// All the way forward again, and a new change ends it.
	for _, want := range []measure.Length{92 * mm, 93 * mm, 94 * mm} {
		must(t, s.Of(t.Context()).Redo(t.Context(), id, get(t, s, id).Undone.ID, "one"))
		if b := get(t, s, id); b.Inputs.Size["length"] != want {
			t.Errorf("redo gives %v; want %v", b.Inputs.Size["length"].MM(), want.MM())
		}
	}
	at(99*mm, "length", "one", 0)
	if b := get(t, s, id); b.Undone.What != "" {
		t.Errorf("after another change %q could be done again", b.Undone.What)
	}
}

// Undo takes back what its button names, or nothing.
func TestUndoOfAnotherChangeIsRefused(t *testing.T) {
	s := fresh(t)
	id := add(t, s, trayOf("a", 90*mm))
	save(t, s, id, 91*mm, "length", "one")
	seen := get(t, s, id).Last.ID
	save(t, s, id, 92*mm, "length", "other")
	if err := s.Of(t.Context()).Undo(t.Context(), id, seen, "one"); !errors.Is(err, desk.ErrStale) {
		t.Errorf("undo of an earlier change: %v", err)
	}
	if got := get(t, s, id).Inputs.Size["length"]; got != 92*mm {
		t.Errorf("it took something back: the length is %v", got.MM())
	}
}

func TestASaveFromAnOlderStateIsRefused(t *testing.T) {
	s := fresh(t)
	id := add(t, s, trayOf("a", 90*mm))
	old := get(t, s, id).Version
	save(t, s, id, 91*mm, "length", "one")
	if err := s.Of(t.Context()).Save(t.Context(), id, trayOf("a", 95*mm), boxshelf.Edit{From: old, What: "length", Page: "other"}); !errors.Is(err, desk.ErrStale) {
		t.Errorf("a save from an older state: %v", err)
	}
	in, own, err := s.Of(t.Context()).State(t.Context(), id, old, "one")
	if err != nil || !own || in.Size["length"] != 90*mm {
		t.Errorf("the older state is %v, all since of one window %v, %v", in.Size["length"].MM(), own, err)
	}
	if _, own, _ := s.Of(t.Context()).State(t.Context(), id, old, "other"); own {
		t.Error("what another window changed counts as one's own")
	}
	if _, _, err := s.Of(t.Context()).State(t.Context(), id, old+1000, ""); !errors.Is(err, desk.ErrForgotten) {
		t.Errorf("a state that never was: %v", err)
	}
}

func TestOldChangesAndStatesAreForgotten(t *testing.T) {
	s := fresh(t)
	id := add(t, s, trayOf("a", 50*mm))
	for i := range desk.MostChanges + 10 {
		save(t, s, id, measure.Length(50+i)*mm, fmt.Sprint("change ", i), "one")
	}
	for table, most := range map[string]int{"changes": desk.MostChanges, "versions": desk.MostStates} {
		var n int
		must(t, s.db.QueryRow(`SELECT count(*) FROM `+table).Scan(&n))
		if n != most {
			t.Errorf("%d %s are kept; want %d", n, table, most)
		}
	}
}

// Writers, readers and copies at once, watched by the race detector.
func TestRacesOfWriters(t *testing.T) {
	lasts := 300 * time.Millisecond
	if d, err := time.ParseDuration(os.Getenv("BREVIUM_RACE")); err == nil {
		lasts = d
	}
	s := open(t, filepath.Join(t.TempDir(), "brevium.db"))
	id := add(t, s, trayOf("shared", 10*mm))
	end := time.Now().Add(lasts)
	var all sync.WaitGroup
	var kept atomic.Int64
	for n := range 6 {
		all.Go(func() {
			for time.Now().Before(end) {
				b, err := s.Of(t.Context()).Box(t.Context(), id)
				if err != nil {
					t.Error(err)
					return
				}
				err = s.Of(t.Context()).Save(t.Context(), id, trayOf("shared", b.Inputs.Size["length"]+mm), boxshelf.Edit{From: b.Version, What: "length", Page: fmt.Sprint(n)})
				switch {
				case err == nil:
					kept.Add(1)
				case !errors.Is(err, desk.ErrStale):
					t.Error(err)
				}
				if n == 0 {
					if _, err := s.MakeCopy(t.Context(), Daily); err != nil {
						t.Error(err)
					}
				}
				if _, _, err := s.Of(t.Context()).List(t.Context(), boxshelf.Listing{Count: 5}); err != nil {
					t.Error(err)
				}
			}
		})
	}
	all.Wait()
	if got := int64(get(t, s, id).Inputs.Size["length"] / mm); got != 10+kept.Load() {
		t.Errorf("%d saves were answered; the length says %d", kept.Load(), got-10)
	}
}
