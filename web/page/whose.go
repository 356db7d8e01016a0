package page

import (
	"context"
	"errors"

	"brevium/core/people"
	"brevium/store/desk"
)

// Whose is whose a box or a job is, in a workshop; Sort is "" where one maker works alone.
type Whose struct {
	Sort   string // "boxes" or "jobs"
	ID     int64
	Mine   bool
	Shared bool
	By     string // its maker's name, where that is somebody else
}

// Whose says whose something is, to the person of a context.
func (s *Room) Whose(ctx context.Context, sort string, id, maker int64, shared bool) (Whose, error) {
	me := people.Of(ctx)
	if me.ID == 0 {
		return Whose{}, nil
	}
	w := Whose{Sort: sort, ID: id, Mine: maker == me.ID, Shared: shared}
	if w.Mine {
		return w, nil
	}
	p, err := s.Store.Of(ctx).Person(ctx, maker)
	if err == nil {
		w.By = p.Name
	} else if errors.Is(err, desk.ErrNotFound) {
		err = nil
	}
	return w, err
}
