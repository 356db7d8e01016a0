package page

import (
	"context"
	"log/slog"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/core/style"
)

// A sketch whose asker has no time left says so, and is not kept: asked again it is there.
func TestASketchThatComesTooLate(t *testing.T) {
	s := NewRoom(nil, nil, slog.New(slog.DiscardHandler))
	s.Shares.Shop = true
	in := design.New("", measure.In, style.Usual().ID)
	me := people.With(t.Context(), people.Person{ID: 1})
	end, err := s.Shares.Take(me) // another page of theirs: one has one turn
	if err != nil {
		t.Fatal(err)
	}
	gone, stop := context.WithCancel(me)
	stop()
	if x := s.Sketched(gone, in); !x.Late || x.Picture != "" || x.Fault != nil {
		t.Errorf("it is late: %v, drawn: %v, at fault: %v", x.Late, x.Picture != "", x.Fault)
	}
	end()
	if x := s.Sketched(me, in); x.Late || x.Picture == "" {
		t.Errorf("asked again it is late: %v, drawn: %v", x.Late, x.Picture != "")
	}
}
