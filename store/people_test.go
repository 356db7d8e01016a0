package store

import (
	"errors"
	"testing"
	"time"

	"brevium/core/fault"
	"brevium/core/people"
	"brevium/store/desk"
	"brevium/store/roster"
)

// A workshop is set up by its code, once; others join by theirs while it holds; a new
// password ends all sessions; the last steward stays one.
func TestPeople(t *testing.T) {
	s, ctx := fresh(t), t.Context()
	now := time.Now()
	s.UseClock(func() time.Time { return now })
	if is, err := s.Of(ctx).HasSteward(ctx); is || err != nil {
		t.Fatal("a new store has a steward", err)
	}
	first, err := s.Of(ctx).NewCode(ctx, roster.Code{For: roster.ForSetUp, Until: now.Add(time.Hour)})
	if err != nil {
		t.Fatal(err)
	}
	second, _ := s.Of(ctx).NewCode(ctx, roster.Code{For: roster.ForSetUp, Until: now.Add(time.Hour)})
	if _, err := s.Of(ctx).Join(ctx, first.Text, "Wren", "h"); !errors.Is(err, desk.ErrNotFound) {
		t.Errorf("a code that another took the place of: %v", err)
	}
	wren, err := s.Of(ctx).Join(ctx, second.Written(), "Wren", "h1")
	if err != nil || wren.Role != people.Steward {
		t.Fatal(wren, err)
	}
	if _, err := s.Of(ctx).Join(ctx, second.Text, "Wren again", "h"); !errors.Is(err, desk.ErrNotFound) {
		t.Errorf("a code twice: %v", err)
	}
	code, _ := s.Of(ctx).NewCode(ctx, roster.Code{For: roster.ForJoining, Role: people.Maker, By: wren.ID, Until: now.Add(time.Hour)})
	if _, err := s.Of(ctx).Join(ctx, code.Text, "wREN", "h"); fault.Of(err).Field != "name" {
		t.Errorf("two of one name: %v", err)
	}
	ash, err := s.Of(ctx).Join(ctx, code.Text, "Ash", "h2") // the code still holds
	if err != nil || ash.Role != people.Maker || ash.Epoch != 1 {
		t.Fatal(ash, err)
	}
	late, _ := s.Of(ctx).NewCode(ctx, roster.Code{For: roster.ForJoining, Role: people.Guest, Until: now.Add(time.Hour)})
	if got, err := s.Of(ctx).Codes(ctx); err != nil || len(got) != 1 || got[0].Role != people.Guest {
		t.Errorf("%+v, %v", got, err)
	}
	now = now.Add(2 * time.Hour)
	if _, err := s.Of(ctx).Join(ctx, late.Text, "Late", "h"); !errors.Is(err, desk.ErrNotFound) {
		t.Errorf("a code that has ended: %v", err)
	}
	back, _ := s.Of(ctx).NewCode(ctx, roster.Code{For: roster.ForRecover, Person: ash.ID, Until: now.Add(time.Hour)})
	got, err := s.Of(ctx).Join(ctx, back.Text, "", "h3")
	if err != nil || got.ID != ash.ID || got.Hash != "h3" || got.Epoch != 2 {
		t.Errorf("%+v, %v", got, err)
	}
	if err := s.Of(ctx).SetPerson(ctx, wren.ID, people.Maker, false); fault.Of(err).Field != "role" {
		t.Errorf("the last steward becomes a maker: %v", err)
	}
	if err := errors.Join(s.Of(ctx).SetPerson(ctx, ash.ID, people.Steward, false), s.Of(ctx).SetPerson(ctx, wren.ID, people.Steward, true), s.Of(ctx).SeePerson(ctx, ash.ID), s.Of(ctx).EndSessions(ctx, ash.ID), s.Of(ctx).SetPassword(ctx, ash.ID, "h4")); err != nil {
		t.Fatal(err)
	}
	if err := s.Of(ctx).SetPerson(ctx, 99, people.Guest, false); !errors.Is(err, desk.ErrNotFound) {
		t.Errorf("nobody is changed: %v", err)
	}
	all, err := s.Of(ctx).People(ctx)
	if err != nil || len(all) != 2 || all[0].Name != "Ash" || all[0].Epoch != 5 || !all[1].Struck || all[0].Seen.IsZero() {
		t.Errorf("%+v, %v", all, err)
	}
	if p, err := s.Of(ctx).PersonCalled(ctx, "ASH"); err != nil || p.ID != ash.ID {
		t.Errorf("%+v, %v", p, err)
	}
	for n := range 3 {
		if err := s.Of(ctx).AddEvent(ctx, roster.Event{What: "sign-in", Person: "Ash", Detail: string(rune('a' + n))}); err != nil {
			t.Fatal(err)
		}
		now = now.Add(roster.KeptEvents / 2)
	}
	if got, err := s.Of(ctx).Events(ctx, "", 10); err != nil || len(got) != 3 || got[0].Detail != "c" {
		t.Errorf("%+v, %v", got, err)
	}
	now = now.Add(time.Hour)
	s.Of(ctx).AddEvent(ctx, roster.Event{What: "sign-out"})
	if got, _ := s.Of(ctx).Events(ctx, "", 10); len(got) != 2 {
		t.Errorf("after half a year %d events are kept", len(got))
	}
}

// Sessions are found while they hold; a copy that is brought back brings nobody in, and ends
// all of them.
func TestSessionsAndCopies(t *testing.T) {
	s, ctx := fresh(t), t.Context()
	now := time.Now()
	s.UseClock(func() time.Time { return now })
	x := s.Sessions()
	if err := x.Commit("one", []byte("data"), now.Add(time.Hour)); err != nil {
		t.Fatal(err)
	}
	copied, err := s.MakeCopy(ctx, ByHand)
	if err != nil {
		t.Fatal(err)
	}
	file, err := s.CopyFile(copied)
	if err != nil {
		t.Fatal(err)
	}
	if err := x.Commit("one", []byte("data"), now.Add(time.Hour+commitAfter/2)); err != nil { // not written
		t.Fatal(err)
	}
	now = now.Add(time.Hour + time.Minute)
	if _, found, err := x.Find("one"); found || err != nil {
		t.Error("a session that has ended is found", err)
	}
	if err := x.Commit("two", []byte("x"), now.Add(time.Hour)); err != nil {
		t.Fatal(err)
	}
	if _, _, err := s.Restore(ctx, file); err != nil {
		t.Fatal(err)
	}
	for _, token := range []string{"one", "two"} {
		if _, found, err := x.Find(token); found || err != nil {
			t.Error("a copy that is brought back leaves a session", token, err)
		}
	}
	if err := x.Commit("two", []byte("x"), now.Add(time.Hour)); err != nil {
		t.Fatal(err)
	}
	if data, found, err := x.Find("two"); !found || string(data) != "x" || err != nil {
		t.Error("after that nobody signs in", err)
	}
	if err := x.Delete("two"); err != nil {
		t.Fatal(err)
	}
	if _, found, _ := x.Find("two"); found {
		t.Error("a session that was ended is found")
	}
}
