package stockroom

import (
	"context"

	"brevium/store/desk"
	"brevium/store/scope"
)

// putAside puts all of a pile of paper into the bin.
func (d *Stockroom) putAside(ctx context.Context, tx *scope.Tx, id int64) error {
	return desk.One(noPile)(tx.Do(ctx, scope.Held.SQL(`UPDATE lots SET binned = count, count = 0, deleted_at = ? WHERE id = ?`), d.at.Now().UnixMilli(), id))
}
