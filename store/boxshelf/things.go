package boxshelf

import (
	"context"
	"fmt"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/store/desk"
	"brevium/store/scope"
)

// KeptThing is a thing kept to be boxed again.
type KeptThing struct {
	ID int64
	contents.Thing
}

const NoThing desk.Absent = "kept thing"

// Things lists the kept things by name.
func (d *Shelf) Things(ctx context.Context) ([]KeptThing, error) {
	type row struct {
		ID    int64
		Thing []byte
	}
	return desk.RowsOf(ctx, d.at, func(r row) (KeptThing, error) {
		t, err := design.ReadThing(r.Thing)
		if err != nil {
			err = fmt.Errorf("thing %d: %w", r.ID, err)
		}
		return KeptThing{r.ID, t}, err
	}, scope.Own.SQL(`SELECT id, thing FROM things WHERE deleted_at IS NULL AND {whose} ORDER BY json_extract(thing, '$.name') COLLATE NOCASE, id`))
}

// KeepThing keeps one of a thing; one that is kept already is not kept twice.
func (d *Shelf) KeepThing(ctx context.Context, t contents.Thing) error {
	t.Count, t.ID = 1, 0
	return d.at.In(ctx, func(tx *scope.Tx) error {
		if err := d.at.RoomFor(ctx, tx, "things"); err != nil {
			return err
		}
		_, err := tx.Do(ctx, scope.Own.SQL(`INSERT INTO things (maker, thing) VALUES ({me}, ?) ON CONFLICT (maker, thing) DO UPDATE SET deleted_at = NULL`), string(design.WriteThing(t)))
		return err
	})
}
