package boxshelf

import (
	"context"

	"brevium/core/people"
	"brevium/store/desk"
	"brevium/store/scope"
)

// Unshown stands for the seed of a link that was kept in plain by an older version: it leads
// where it did, and cannot be shown any more.
const Unshown = "?"

// Link is how a box of one's own is looked at by anybody: its code, "" where it cannot be
// shown any more, and whether there is one.
func (d *Shelf) Link(ctx context.Context, id int64) (code string, is bool, err error) {
	var seed string
	err = d.at.Get(ctx, &seed, scope.Own.SQL(`SELECT link FROM boxes WHERE id = ? AND deleted_at IS NULL AND {whose}`), id)
	if err != nil || seed == "" || seed == Unshown {
		return "", seed != "", desk.Found(err, desk.NoBox)
	}
	return d.at.CodeOfSeed(desk.LinkUse, seed), true, nil
}

// SetLink lets anybody who has the code look at a box of one's own, or nobody any more.
// Each time it is another code.
func (d *Shelf) SetLink(ctx context.Context, id int64, on bool) error {
	var seed string
	var mark []byte
	if on {
		seed, mark = d.at.NewSeed(desk.LinkUse)
	}
	return desk.One(desk.NoBox)(d.at.Do(ctx, scope.Own.SQL(`UPDATE boxes SET link = ?, link_mark = ? WHERE id = ? AND deleted_at IS NULL AND {whose}`), seed, mark, id))
}

// Linked is the box that a code lets one look at.
func (d *Shelf) Linked(ctx context.Context, code string) (Box, error) {
	return desk.RowOf(ctx, d.at, BoxRow.Box, desk.NoBox, scope.Workshop.SQL(SelectBoxes+`WHERE b.link_mark = ? AND b.deleted_at IS NULL`), people.MarkOf(code))
}
