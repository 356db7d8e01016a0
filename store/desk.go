package store

import (
	"context"

	"brevium/core/people"
	"brevium/store/boxshelf"
	"brevium/store/classroom"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/store/roster"
	"brevium/store/scope"
	"brevium/store/stockroom"
)

// Desk is the store as one person has it: all that reads or changes what is kept in tables
// is asked of a desk, and gives what its person may have.
type Desk struct {
	s  *Store
	at desk.Desk
	*boxshelf.Shelf
	*jobbook.Jobbook
	*stockroom.Stockroom
	*roster.Roster
	*classroom.Classroom
}

// For is the desk of a person; where one maker works alone it is theirs, whoever asks, and
// in a workshop nobody's where the person is none.
func (s *Store) For(p people.Person) *Desk {
	a := scope.Asker(p.ID)
	switch {
	case !s.shop.Load():
		a = scope.Alone
	case p.ID <= 0:
		a = scope.Nobody
	}
	at := desk.Desk{Desk: scope.New(s.db, s.write, a, s.tell), Person: p, Now: s.Now, Pepper: s.pepper}
	return &Desk{s, at, boxshelf.At(at), jobbook.At(at), stockroom.At(at), roster.At(at), classroom.At(at)}
}

// Of is the desk of the person of a context.
func (s *Store) Of(ctx context.Context) *Desk { return s.For(people.Of(ctx)) }

// door is the desk of the program itself, for what is at the door before anybody is known.
func (s *Store) door() *Desk { return s.For(people.Person{}) }

// tell wakes those who wait for a change.
func (s *Store) tell() {
	select {
	case s.wrote <- struct{}{}:
	default: // known already
	}
	s.changed.tell()
}
