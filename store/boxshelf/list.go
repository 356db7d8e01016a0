package boxshelf

import (
	"context"
	"encoding/json"
	"strings"

	"brevium/store/desk"
	"brevium/store/scope"
)

// Order is how a list of boxes is sorted.
type Order string

// The orders of the list.
const (
	ByDate  Order = "date" // the last changed first
	ByName  Order = "name"
	ByStyle Order = "style"
	ByThing Order = "thing"
)

// Orders lists the orders as they are offered.
var Orders = []Order{ByDate, ByName, ByStyle, ByThing}

var orderings = map[Order]string{
	ByDate:  `b.changed_at DESC, b.id DESC`,
	ByName:  `b.name COLLATE NOCASE, b.id`,
	ByStyle: `json_extract(b.inputs, '$.style'), b.name COLLATE NOCASE, b.id`,
	ByThing: `json_extract(b.inputs, '$.contents[0].name') IS NULL, json_extract(b.inputs, '$.contents[0].name') COLLATE NOCASE, b.id`,
}

// Listing says which boxes are listed, favourites first. Words are looked for in the name, the tags, the
// things, the card and the papers, the fit, and the date (2026-11-25), and each is found or one of Styles, the
// ids of the styles that the word may mean.
type Listing struct {
	Words       []Word
	Tag         string // boxes with it alone
	Archived    bool   // those that are put away, instead of the others
	Order       Order
	From, Count int
}

// Word is a word that is looked for.
type Word struct {
	Text   string
	Styles []string
}

// List lists boxes, and tells how many there are in all.
func (d *Shelf) List(ctx context.Context, l Listing) (boxes []Box, all int, err error) {
	where, args := `WHERE b.deleted_at IS NULL AND b.archived = ? AND {whose b.}`, []any{l.Archived}
	if l.Tag != "" {
		where += ` AND EXISTS (SELECT 1 FROM json_each(b.tags) WHERE value = ?)`
		args = append(args, l.Tag)
	}
	for _, w := range l.Words {
		styles, err := json.Marshal(append([]string{}, w.Styles...))
		if err != nil {
			return nil, 0, err
		}
		like := "%" + strings.NewReplacer(`\`, `\\`, `%`, `\%`, `_`, `\_`).Replace(w.Text) + "%"
		where += ` AND (b.name LIKE ? ESCAPE '\'
			OR b.tags LIKE ? ESCAPE '\'
			OR date(b.changed_at / 1000, 'unixepoch', 'localtime') LIKE ? ESCAPE '\'
			OR json_extract(b.inputs, '$.style') IN (SELECT value FROM json_each(?))
			OR json_extract(b.inputs, '$.fit') = lower(?)
			OR json_extract(b.inputs, '$.card.name') LIKE ? ESCAPE '\'
			OR EXISTS (SELECT 1 FROM json_each(b.inputs, '$.cards') c WHERE json_extract(c.value, '$.name') LIKE ? ESCAPE '\')
			OR EXISTS (SELECT 1 FROM json_each(b.inputs, '$.mats') m, json_each(m.value, '$.layers') l WHERE json_extract(l.value, '$.card.name') LIKE ? ESCAPE '\')
			OR EXISTS (SELECT 1 FROM json_each(b.inputs, '$.contents') t WHERE json_extract(t.value, '$.name') LIKE ? ESCAPE '\'))`
		args = append(args, like, like, like, string(styles), w.Text, like, like, like, like)
	}
	if err := d.at.Get(ctx, &all, scope.Seen.SQL(`SELECT count(*) FROM boxes b `+where), args...); err != nil {
		return nil, 0, err
	}
	order, known := orderings[l.Order]
	if !known {
		order = orderings[ByDate]
	}
	boxes, err = desk.RowsOf(ctx, d.at, BoxRow.Box, scope.Seen.SQL(SelectBoxes+where+` ORDER BY b.favourite DESC, `+order+` LIMIT ? OFFSET ?`), append(args, l.Count, l.From)...)
	return boxes, all, err
}

// Named is a box by its name only.
type Named struct {
	ID, Version int64
	Name        string
}

// Names lists the boxes by name, the last changed first.
func (d *Shelf) Names(ctx context.Context) (out []Named, err error) {
	err = d.at.All(ctx, &out, scope.Seen.SQL(`SELECT id, version, name FROM boxes WHERE deleted_at IS NULL AND {whose} ORDER BY changed_at DESC, id DESC`))
	return out, err
}
