package store

import (
	"context"
	"sync"

	"brevium/store/classroom"
	"brevium/store/desk"
	"brevium/store/scope"
)

// changes lets many wait for the next change.
type changes struct {
	mu   sync.Mutex
	next chan struct{}
}

func (c *changes) tell() {
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.next != nil {
		close(c.next)
		c.next = nil
	}
}

// Tell wakes those who wait for a change, when what they show is another without one here.
func (s *Store) Tell() { s.changed.tell() }

// Changed is closed when anything is changed from now on.
func (s *Store) Changed() <-chan struct{} {
	s.changed.mu.Lock()
	defer s.changed.mu.Unlock()
	if s.changed.next == nil {
		s.changed.next = make(chan struct{})
	}
	return s.changed.next
}

// The class of a box or of a job, by the number of that.
const (
	ClassSort    desk.Sort = "class"
	JobClassSort desk.Sort = "job class"
)

// Stamp is another text whenever a box, with what is ticked of it, a job or a class is
// another.
func (d *Desk) Stamp(ctx context.Context, sort desk.Sort, id int64) (stamp string, err error) {
	query := map[desk.Sort]string{
		desk.BoxSort: `SELECT version || '-' || shared || '-' || (SELECT count(*) || '-' || coalesce(max(at), 0) || '-' || coalesce(sum(length(mark)), 0) FROM ticks WHERE box_id = boxes.id) FROM boxes`,
		ClassSort:    classroom.Seated(desk.BoxSort), JobClassSort: classroom.Seated(desk.JobSort),
		desk.JobSort: `SELECT version || '-' || shared || '-' || state || '-' || changed_at || '-' || length(layouts) || '-' || length(done) FROM jobs`,
	}[sort]
	if query == "" {
		return "", desk.Absent(sort)
	}
	err = d.at.Get(ctx, &stamp, scope.Seen.SQL(query+` WHERE id = ? AND deleted_at IS NULL AND {whose}`), id)
	return stamp, desk.Found(err, desk.Absent(sort))
}
