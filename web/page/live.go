package page

import (
	"context"

	"brevium/store"
	"brevium/store/desk"
)

// LiveSorts are what is told of at the addresses of the room live.
var LiveSorts = map[string]desk.Sort{"/live/boxes": desk.BoxSort, "/live/jobs": desk.JobSort, "/live/classes": store.ClassSort, "/live/job-classes": store.JobClassSort}

// State tells one state of a box, a job or a class from another; desk.ErrNotFound where it is not
// there for who asks.
func (s *Room) State(ctx context.Context, sort desk.Sort, id int64) (string, error) {
	stamp, err := s.Store.Of(ctx).Stamp(ctx, sort, id)
	if sort == desk.JobSort {
		stamp += "-" + s.Looking.By(id)
	}
	return stamp, err
}

// liveAt are the pages that show what others change at once, where several work.
var liveAt = []string{"/boxes/:id/:stop", "/boxes/:id/bench", "/jobs/:id", "/jobs/:id/evenings"}
