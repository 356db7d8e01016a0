package desk

import (
	"context"

	"brevium/store/scope"
)

// Place is the table of the asker, "" for the workshop's own: what is new in a drawer or a
// cupboard lies there.
func (d Desk) Place(ctx context.Context, tx *scope.Tx) (place string, err error) {
	if d.Asker > 0 {
		err = tx.Get(ctx, &place, scope.Own.SQL(`SELECT place FROM people WHERE id = {me}`))
	}
	return place, err
}
