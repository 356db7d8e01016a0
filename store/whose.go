package store

import (
	"context"

	"brevium/core/people"
	"brevium/store/roster"
	"brevium/store/scope"
)

// Workshop makes the store a workshop's: from now on every read and write is of the
// person of its context, who gets their own and what is shared, and a context of nobody
// gets nothing. What one maker made alone before becomes the first steward's. Codes that are
// shown again are made with the pepper, which is not kept here.
func (s *Store) Workshop(ctx context.Context, pepper people.Pepper) error {
	s.pepper = pepper
	s.shop.Store(true)
	return s.door().at.In(ctx, func(tx *scope.Tx) error { return roster.Adopt(ctx, tx) })
}
