package page

import (
	"context"
	"log/slog"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
)

// A sketch whose asker has no time left says so, and is not kept: asked again it is there.
func TestASketchThatComesTooLate(t *testing.T) {
	s := NewRoom(nil, nil, slog.New(slog.DiscardHandler))
	in := design.New("", measure.In, style.Usual().ID)
	gone, stop := context.WithCancel(t.Context())
	stop()
	if x := s.Sketched(gone, in); !x.Late || x.Picture != "" || x.Fault != nil {
		t.Errorf("it is late: %v, drawn: %v, at fault: %v", x.Late, x.Picture != "", x.Fault)
	}
	if x := s.Sketched(t.Context(), in); x.Late || x.Picture == "" {
		t.Errorf("asked again it is late: %v, drawn: %v", x.Late, x.Picture != "")
	}
}
