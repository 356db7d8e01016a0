package store

import (
	"context"
	"errors"
	"fmt"
	"testing"
	"time"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/people"
	"brevium/photo"
)

// A photograph is of whoever sent it: another sees it only where a shared box or a paper of
// the same table shows it. It goes with its maker, unless what stays shows it.
func TestWhosePhotograph(t *testing.T) {
	s := fresh(t)
	id := func(n int) string { return fmt.Sprintf("%064x", n) }
	send := func(who context.Context, n int) error {
		return s.PutPhoto(who, photo.Picture{ID: id(n), JPEG: []byte{1}, Wide: 1, High: 1}, false)
	}
	if err := send(t.Context(), 1); err != nil { // of one maker alone
		t.Fatal(err)
	}
	wren, ash := joined(t, s, "Wren", ForSetUp), joined(t, s, "Ash", ForJoining)
	if err := s.Workshop(t.Context(), people.NewPepper()); err != nil {
		t.Fatal(err)
	}
	sees := func(who context.Context, n int) bool {
		t.Helper()
		_, err := s.Photo(who, id(n))
		if err != nil && !errors.Is(err, ErrNotFound) {
			t.Fatal(err)
		}
		return err == nil
	}
	if !sees(wren, 1) || sees(ash, 1) || sees(t.Context(), 1) {
		t.Error("what was sent alone is not the steward's")
	}
	for _, n := range []int{2, 3, 4} {
		if err := send(ash, n); err != nil {
			t.Fatal(err)
		}
	}
	if !sees(ash, 2) || sees(wren, 2) {
		t.Error("Ash's photograph is seen by another")
	}
	in := design.New("Jars", measure.In, "tray-lid")
	in.Card.Look.Photo = paper.Photo{ID: id(2), Wide: 100 * measure.Millimetre, High: 100 * measure.Millimetre}
	box, err := s.Add(ash, in)
	if err != nil {
		t.Fatal(err)
	}
	if sees(wren, 2) {
		t.Error("a box that is kept to oneself shows its photograph")
	}
	// Who looks at the box by a link, or follows it in a class, sees what it shows.
	nobody := t.Context()
	job, err := s.AddJob(ash, Job{Name: "Fair", Items: []JobItem{{box, 2}}})
	if err != nil {
		t.Fatal(err)
	}
	for name, on := range map[string]func(bool) error{
		"a link": func(on bool) error { return s.SetLink(ash, box, on) },
		"a class": func(on bool) error {
			if !on {
				return s.CloseClass(ash, BoxSort, box)
			}
			return s.OpenClass(ash, BoxSort, box, time.Now().Add(time.Hour))
		},
		"a class of its job": func(on bool) error {
			if !on {
				return s.CloseClass(ash, JobSort, job)
			}
			return s.OpenClass(ash, JobSort, job, time.Now().Add(time.Hour))
		},
	} {
		for _, is := range []bool{true, false} {
			if err := on(is); err != nil || sees(nobody, 2) != is || sees(nobody, 3) {
				t.Errorf("with %s on %v, its photograph is seen %v, %v", name, is, sees(nobody, 2), err)
			}
		}
	}
	if err := s.Share(ash, BoxSort, box, true); err != nil || !sees(wren, 2) {
		t.Errorf("a shared box does not show its photograph: %v", err)
	}
	lot := lotOf(3, 1)
	lot.Card.Look.Photo = paper.Photo{ID: id(3), Wide: 100 * measure.Millimetre, High: 100 * measure.Millimetre}
	if err := s.AddLots(ash, []drawer.Lot{lot}); err != nil || !sees(wren, 3) || sees(wren, 4) {
		t.Errorf("the paper in their drawer does not show its photograph: %v", err)
	}
	if err := s.SetPlace(t.Context(), people.Of(wren).ID, "Stall"); err != nil || sees(wren, 3) {
		t.Errorf("a paper of another table shows its photograph: %v", err)
	}
	for n := range MostPhotosEach - 3 {
		if err := send(ash, 10+n); err != nil {
			t.Fatal(err)
		}
	}
	if err := send(ash, 5); fault.Of(err).Code != fault.TooLarge {
		t.Errorf("one photograph too many: %v", err)
	}
	if err := send(wren, 5); err != nil {
		t.Errorf("Wren's: %v", err)
	}
	if err := s.Leave(t.Context(), people.Of(ash).ID, 0); err != nil {
		t.Fatal(err)
	}
	s.shop.Store(false)
	for n, stays := range map[int]bool{1: true, 2: false, 3: true, 4: false, 5: true} {
		if sees(t.Context(), n) != stays {
			t.Errorf("photograph %d stays: %v", n, !stays)
		}
	}
}
