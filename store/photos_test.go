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
	"brevium/core/logbook"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/people"
	"brevium/photo"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/store/roster"
)

// A photograph is of whoever sent it: another sees it only where a shared box or a paper of
// the same table shows it. It goes with its maker, unless what stays shows it.
func TestWhosePhotograph(t *testing.T) {
	s := fresh(t)
	id := func(n int) string { return fmt.Sprintf("%064x", n) }
	send := func(who context.Context, n int) error {
		return s.Of(who).PutPhoto(who, photo.Picture{ID: id(n), JPEG: []byte{1}, Wide: 1, High: 1}, false)
	}
	if err := send(t.Context(), 1); err != nil { // of one maker alone
		t.Fatal(err)
	}
	wren, ash := joined(t, s, "Wren", roster.ForSetUp), joined(t, s, "Ash", roster.ForJoining)
	if err := s.Workshop(t.Context(), people.NewPepper()); err != nil {
		t.Fatal(err)
	}
	sees := func(who context.Context, n int) bool {
		t.Helper()
		_, err := s.Of(who).Photo(who, id(n))
		if err != nil && !errors.Is(err, desk.ErrNotFound) {
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
	box, err := s.Of(ash).Add(ash, in)
	if err != nil {
		t.Fatal(err)
	}
	if sees(wren, 2) {
		t.Error("a box that is kept to oneself shows its photograph")
	}
	// Who looks at the box by a link, or follows it in a class, sees what it shows.
	nobody := t.Context()
	job, err := s.Of(ash).AddJob(ash, jobbook.Job{Name: "Fair", Items: []jobbook.JobItem{{Box: box, Copies: 2}}})
	if err != nil {
		t.Fatal(err)
	}
	for name, on := range map[string]func(bool) error{
		"a link": func(on bool) error { return s.Of(ash).SetLink(ash, box, on) },
		"a class": func(on bool) error {
			if !on {
				return s.Of(ash).CloseClass(ash, desk.BoxSort, box)
			}
			return s.Of(ash).OpenClass(ash, desk.BoxSort, box, time.Now().Add(time.Hour))
		},
		"a class of its job": func(on bool) error {
			if !on {
				return s.Of(ash).CloseClass(ash, desk.JobSort, job)
			}
			return s.Of(ash).OpenClass(ash, desk.JobSort, job, time.Now().Add(time.Hour))
		},
	} {
		for _, is := range []bool{true, false} {
			if err := on(is); err != nil || sees(nobody, 2) != is || sees(nobody, 3) {
				t.Errorf("with %s on %v, its photograph is seen %v, %v", name, is, sees(nobody, 2), err)
			}
		}
	}
	if err := s.Of(ash).Share(ash, desk.BoxSort, box, true); err != nil || !sees(wren, 2) {
		t.Errorf("a shared box does not show its photograph: %v", err)
	}
	lot := lotOf(3, 1)
	lot.Card.Look.Photo = paper.Photo{ID: id(3), Wide: 100 * measure.Millimetre, High: 100 * measure.Millimetre}
	if err := s.Of(ash).AddLots(ash, []drawer.Lot{lot}); err != nil || !sees(wren, 3) || sees(wren, 4) {
		t.Errorf("the paper in their drawer does not show its photograph: %v", err)
	}
	if err := s.Of(t.Context()).SetPlace(t.Context(), people.Of(wren).ID, "Stall"); err != nil || sees(wren, 3) {
		t.Errorf("a paper of another table shows its photograph: %v", err)
	}
	for n := range boxshelf.MostPhotosEach - 3 {
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
	if err := s.Of(t.Context()).Leave(t.Context(), people.Of(ash).ID, 0); err != nil {
		t.Fatal(err)
	}
	s.shop.Store(false)
	for n, stays := range map[int]bool{1: true, 2: false, 3: true, 4: false, 5: true} {
		if sees(t.Context(), n) != stays {
			t.Errorf("photograph %d stays: %v", n, !stays)
		}
	}
}

// Whoever knows a photograph's address sees it by naming it nowhere: not in a box, a note or a
// paper of their own. What they were shown they keep in a copy; what they put into somebody's
// box its maker sees.
func TestNamingAPhotographShowsNothing(t *testing.T) {
	s := fresh(t)
	wren, ash := joined(t, s, "Wren", roster.ForSetUp), joined(t, s, "Ash", roster.ForJoining)
	if err := s.Workshop(t.Context(), people.NewPepper()); err != nil {
		t.Fatal(err)
	}
	id := func(n int) string { return fmt.Sprintf("%064x", n) }
	sees := func(who context.Context, n int) bool {
		t.Helper()
		_, err := s.Of(who).Photo(who, id(n))
		if err != nil && !errors.Is(err, desk.ErrNotFound) {
			t.Fatal(err)
		}
		return err == nil
	}
	named := func(n int) design.Inputs {
		in := design.New("Jars", measure.In, "tray-lid")
		in.Card.Look.Photo = paper.Photo{ID: id(n), Wide: 100 * measure.Millimetre, High: 100 * measure.Millimetre}
		return in
	}
	for n, who := range map[int]context.Context{1: ash, 2: wren} {
		if err := s.Of(who).PutPhoto(who, photo.Picture{ID: id(n), JPEG: []byte{1}, Wide: 1, High: 1}, false); err != nil {
			t.Fatal(err)
		}
	}
	box, err := s.Of(wren).Add(wren, named(1))
	if err != nil {
		t.Fatal(err)
	}
	b, err := s.Of(wren).Box(wren, box)
	if err != nil {
		t.Fatal(err)
	}
	if err := s.Of(wren).Save(wren, box, named(1), boxshelf.Edit{From: b.Version, What: "the card"}); err != nil {
		t.Fatal(err)
	}
	note := logbook.Note{Box: box, Name: "Jars", Style: "tray-lid", Photo: id(1), Design: named(1).Write()}
	if err := s.Of(wren).AddNote(wren, note); err != nil {
		t.Fatal(err)
	}
	lot := lotOf(3, 1)
	lot.Card.Look = named(1).Card.Look
	if err := s.Of(wren).AddLots(wren, []drawer.Lot{lot}); err != nil {
		t.Fatal(err)
	}
	if err := s.Of(wren).SetLook(wren, lot.Card); err != nil {
		t.Fatal(err)
	}
	if err := s.Of(wren).SetLink(wren, box, true); err != nil {
		t.Fatal(err)
	}
	if sees(wren, 1) || sees(t.Context(), 1) {
		t.Error("Wren sees Ash's photograph by naming it")
	}
	// Ash shares a box: Wren copies it, and puts a photograph of her own into it.
	shared, err := s.Of(ash).Add(ash, named(1))
	if err != nil {
		t.Fatal(err)
	}
	if err := s.Of(ash).Share(ash, desk.BoxSort, shared, true); err != nil || !sees(wren, 1) {
		t.Fatalf("what Ash shares is not seen: %v", err)
	}
	if _, err := s.Of(wren).Copy(wren, shared); err != nil {
		t.Fatal(err)
	}
	if b, err = s.Of(wren).Box(wren, shared); err != nil {
		t.Fatal(err)
	}
	if err := s.Of(wren).Save(wren, shared, named(2), boxshelf.Edit{From: b.Version, What: "the card"}); err != nil || !sees(ash, 2) {
		t.Errorf("Ash does not see what Wren put into his box: %v", err)
	}
	if err := s.Of(ash).Share(ash, desk.BoxSort, shared, false); err != nil || !sees(wren, 1) || !sees(ash, 2) {
		t.Errorf("shared no more: Wren's copy shows it %v, Ash's box %v; %v", sees(wren, 1), sees(ash, 2), err)
	}
}

// Pictures that wait are pushed out by their own sender's alone.
func TestEachWaitsForEach(t *testing.T) {
	s := fresh(t)
	wren, ash := joined(t, s, "Wren", roster.ForSetUp), joined(t, s, "Ash", roster.ForJoining)
	if err := s.Workshop(t.Context(), people.NewPepper()); err != nil {
		t.Fatal(err)
	}
	now := time.Now()
	s.UseClock(func() time.Time { now = now.Add(time.Second); return now })
	send := func(who context.Context, n int) {
		t.Helper()
		if err := s.Of(who).PutPhoto(who, photo.Picture{ID: fmt.Sprintf("%064x", n), JPEG: []byte{1}, Wide: 1, High: 1}, true); err != nil {
			t.Fatal(err)
		}
	}
	send(ash, 1)
	for n := range 3 * boxshelf.MostSent {
		send(wren, 100+n)
	}
	if _, err := s.Of(ash).Photo(ash, fmt.Sprintf("%064x", 1)); err != nil {
		t.Errorf("Wren's sixty pushed Ash's out: %v", err)
	}
	for n, there := range map[int]bool{100: false, 100 + 2*boxshelf.MostSent - 1: false, 100 + 2*boxshelf.MostSent: true, 100 + 3*boxshelf.MostSent - 1: true} {
		if _, err := s.Of(wren).Photo(wren, fmt.Sprintf("%064x", n)); (err == nil) != there {
			t.Errorf("Wren's %d is there: %v", n-100, !there)
		}
	}
}
