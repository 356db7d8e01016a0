package workspace

import (
	"context"
	"slices"
	"strings"

	"brevium/core/design"
	"brevium/web/form"
)

// stop is one of the pages along the work. Each is in a file of its own, with what it reads of
// its form, what its page loads and shows, and its answer on the tape; in the template file of
// the same name are "at-" and its id, what is decided there, and "picture-" and its id.
type stop struct {
	ID, Title string
	Decides   string // what is decided there, in a line
	// read changes the inputs by what was posted, noting faults in the form.
	read func(f *form.Form, in *design.Inputs, now *design.Result)
	// page is what is shown there; it embeds the frame.
	page func(ctx context.Context, frame *workPage) (any, error)
	// answer is what is decided at present, in half a line.
	answer func(frame *workPage) string
	// settles are what the ids of those checks begin with whose matter is settled there;
	// settlesRest has those that no other stop settles.
	settles     []string
	settlesRest bool
	small       bool // a narrow screen shows the box over what is decided
}

// stops in the order of the work.
var stops = []*stop{contentsStop, boxStop, fitStop, dressingStop, sheetsStop, makingStop}

func stopByID(id string) (int, bool) {
	i := slices.IndexFunc(stops, func(s *stop) bool { return s.ID == id })
	return i, i >= 0
}

// stopOf is where a check's matter is settled.
func stopOf(check string) *stop {
	i := slices.IndexFunc(stops, func(s *stop) bool {
		return slices.ContainsFunc(s.settles, func(begins string) bool { return strings.HasPrefix(check, begins) })
	})
	if i < 0 {
		i = slices.IndexFunc(stops, func(s *stop) bool { return s.settlesRest })
	}
	return stops[i]
}
