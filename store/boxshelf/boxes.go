// Package boxshelf keeps boxes: their inputs, the inputs before each change, the steps ticked off, what
// was noted of them and the photographs they show.
package boxshelf

import (
	"context"
	"fmt"
	"time"
	"unicode/utf8"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/store/desk"
	"brevium/store/scope"
)

// Shelf is the boxes as one person has them.
type Shelf struct{ at desk.Desk }

// At opens the room for a desk.
func At(d desk.Desk) *Shelf { return &Shelf{d} }

// Box is a kept design.
type Box struct {
	ID      int64
	Name    string
	Inputs  design.Inputs
	Changed time.Time
	// Version numbers its present state; numbers only grow.
	Version int64
	// Last is what Undo would take back, and Undone what Redo would bring
	// back; their What is "" when there is nothing.
	Last, Undone Change
	// Broken tells why a box cannot be read, and Text is then what is stored
	// of it; its Inputs are only a stand-in and are never saved.
	Broken error
	Text   string
	// Maker is whose it is in a workshop, and Shared that everybody there works on it.
	Maker  int64
	Shared bool
	// Tags are what it is sorted by; a favourite stands first, and what is archived is out of the way.
	Tags                []string
	Favourite, Archived bool
}

// BoxRow is a box with its last change and the last one undone, as the tables have it.
type BoxRow struct {
	ID, Maker, Version, Changed int64
	Shared, Favourite, Archived bool
	Name, Inputs, Tags          string
	LastID, UndoneID            int64
	LastWhat, LastBy            string
	UndoneWhat                  string
}

// SelectBoxes reads such rows.
const SelectBoxes = `SELECT b.id, b.maker, b.shared, b.name, b.inputs, b.changed_at AS changed, b.version, b.tags, b.favourite, b.archived,
	coalesce(c.id, 0) AS lastid, coalesce(c.what, '') AS lastwhat, coalesce((SELECT name FROM people WHERE id = c.maker), '') AS lastby,
	coalesce(u.id, 0) AS undoneid, coalesce(u.what, '') AS undonewhat
	FROM boxes b
	LEFT JOIN changes c ON c.id = (SELECT max(id) FROM changes WHERE box_id = b.id)
	LEFT JOIN undone u ON u.id = (SELECT max(id) FROM undone WHERE box_id = b.id) `

// Box reads a row.
func (r BoxRow) Box() (Box, error) {
	b := Box{ID: r.ID, Name: r.Name, Changed: time.UnixMilli(r.Changed), Version: r.Version, Maker: r.Maker, Shared: r.Shared, Tags: tagRow{Tags: r.Tags}.tags(), Favourite: r.Favourite, Archived: r.Archived,
		Last: Change{r.LastID, r.LastWhat, r.LastBy}, Undone: Change{ID: r.UndoneID, What: r.UndoneWhat}}
	in, err := design.ReadKept([]byte(r.Inputs))
	if b.Inputs = in; err != nil {
		// It stays in its list, to be exported, mended or deleted.
		b.Broken, b.Text = fmt.Errorf("box %d: %w", b.ID, err), r.Inputs
		b.Inputs = design.Plain(b.Name, measure.MM)
	}
	return b, nil
}

// Boxes lists what is not deleted, the last changed first.
func (d *Shelf) Boxes(ctx context.Context) ([]Box, error) {
	return desk.RowsOf(ctx, d.at, BoxRow.Box, scope.Seen.SQL(SelectBoxes+`WHERE b.deleted_at IS NULL AND {whose b.} ORDER BY b.changed_at DESC, b.id DESC`))
}

// Box gives one box, or ErrNotFound.
func (d *Shelf) Box(ctx context.Context, id int64) (Box, error) {
	return desk.RowOf(ctx, d.at, BoxRow.Box, desk.NoBox, scope.Seen.SQL(SelectBoxes+`WHERE b.id = ? AND b.deleted_at IS NULL AND {whose b.}`), id)
}

// Add keeps a new box and gives its number.
func (d *Shelf) Add(ctx context.Context, in design.Inputs) (id int64, err error) {
	in.NumberThings()
	err = d.at.In(ctx, func(tx *scope.Tx) error {
		if err := d.at.RoomFor(ctx, tx, "boxes"); err != nil {
			return err
		}
		now := d.at.Now().UnixMilli()
		id, err = desk.NewRow(tx.Do(ctx, scope.Own.SQL(`INSERT INTO boxes (id, maker, name, inputs, created_at, changed_at) VALUES (?, {me}, ?, ?, ?, ?)`),
			d.at.NewNumber(), in.Name, string(in.Write()), now, now))
		if err != nil {
			return err
		}
		if _, err = d.at.KeepState(ctx, tx, desk.BoxSort, id, "", string(in.Write())); err != nil {
			return err
		}
		return d.at.Claim(ctx, tx, string(in.Write()), d.at.Me())
	})
	return id, err
}

// Copy keeps a second box like the first and gives its number.
func (d *Shelf) Copy(ctx context.Context, id int64) (int64, error) {
	b, err := d.Box(ctx, id)
	if err != nil {
		return 0, err
	}
	in := b.Inputs
	in.Name += ", copy"
	if utf8.RuneCountInString(in.Name) > design.LongestName {
		in.Name = b.Inputs.Name
	}
	return d.Add(ctx, in)
}

// ofBox is the condition, in a statement of what is seen, that a row's box is.
const ofBox = `box_id IN (SELECT b.id FROM boxes b WHERE {whose b.})`

// Ticks gives the steps ticked off: by step, what it said then; nothing for one that is
// ticked no more.
func (d *Shelf) Ticks(ctx context.Context, id int64) (map[string]string, error) {
	var rows []Tick
	err := d.at.All(ctx, &rows, scope.Seen.SQL(`SELECT step, mark FROM ticks WHERE box_id = ? AND `+ofBox), id)
	out := map[string]string{}
	for _, t := range rows {
		out[t.Step] = t.Mark
	}
	return out, err
}

// Tick ticks a step off, or takes the tick away.
func (d *Shelf) Tick(ctx context.Context, id int64, step, mark string, done bool) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		if _, err := d.present(ctx, tx, id); err != nil {
			return err
		}
		if !done {
			return untick(ctx, tx, id, step, d.at.Now())
		}
		return tick(ctx, tx, id, Tick{step, mark}, d.at.Now())
	})
}

// tick and untick tick a step of a box that was found off, or no more; that is kept, too,
// with no mark, since an older tick of more than this step may stand.
func tick(ctx context.Context, tx *scope.Tx, box int64, t Tick, at time.Time) error {
	_, err := tx.Do(ctx, scope.Held.SQL(`
		INSERT INTO ticks (box_id, step, mark, at) VALUES (?1, ?2, ?3, ?4)
		ON CONFLICT (box_id, step) DO UPDATE SET mark = ?3, at = ?4`), box, t.Step, t.Mark, at.UnixMilli())
	return err
}

func untick(ctx context.Context, tx *scope.Tx, box int64, step string, at time.Time) error {
	return tick(ctx, tx, box, Tick{Step: step}, at)
}
