package boxshelf

import (
	"context"
	"fmt"
	"time"

	"brevium/core/design"
	"brevium/store/desk"
	"brevium/store/scope"
)

// Past is a box as it was before a change.
type Past struct {
	Change
	At     time.Time
	Inputs design.Inputs
	// Broken tells that it cannot be read any more.
	Broken error
}

// pastRow is such a state as its table has it.
type pastRow struct {
	ID, At           int64
	What, By, Inputs string
}

func (r pastRow) past() (Past, error) {
	p := Past{Change: Change{r.ID, r.What, r.By}, At: time.UnixMilli(r.At)}
	in, err := design.ReadKept([]byte(r.Inputs))
	if p.Inputs = in; err != nil {
		p.Broken = fmt.Errorf("change %d: %w", r.ID, err)
	}
	return p, nil
}

// selectPast reads states of boxes that are seen, and not deleted.
const selectPast = `SELECT c.id, c.at, c.what, coalesce((SELECT name FROM people WHERE id = c.maker), '') AS by, c.inputs
	FROM changes c JOIN boxes b ON b.id = c.box_id WHERE b.deleted_at IS NULL AND {whose b.} AND c.box_id = ? `

// History gives a box as it was before each of its changes, the last first.
func (d *Shelf) History(ctx context.Context, id int64) ([]Past, error) {
	return desk.RowsOf(ctx, d.at, pastRow.past, scope.Seen.SQL(selectPast+`ORDER BY c.id DESC`), id)
}

// noPast is what is said of a change that is not kept.
const noPast desk.Absent = "state of the box"

// PastOf gives a box as it was before one of its changes, or an ErrNotFound.
func (d *Shelf) PastOf(ctx context.Context, id, change int64) (Past, error) {
	return desk.RowOf(ctx, d.at, pastRow.past, noPast, scope.Seen.SQL(selectPast+`AND c.id = ?`), id, change)
}
