package stockroom

import (
	"context"
	"encoding/json"

	"brevium/core/fault"
	"brevium/store/desk"
	"brevium/store/scope"
)

// OwnStyle is a version of a maker's own style, as its file.
type OwnStyle struct {
	ID      string          `json:"id"`
	Version int             `json:"version"`
	File    json.RawMessage `json:"file"`
	Struck  bool            `json:"struck,omitempty"`
}

// MostStyles is how many versions of styles are kept.
const MostStyles = 300

// Styles lists a maker's own styles, every version, by id and version.
func (d *Stockroom) Styles(ctx context.Context) (out []OwnStyle, err error) {
	err = d.at.All(ctx, &out, scope.Workshop.SQL(`SELECT id, version, CAST(file AS BLOB) AS file, struck FROM styles ORDER BY id, version`))
	return out, err
}

// AddStyle keeps a style file as the next version of its id, if began is the newest one there
// is, 0 for none; write puts the version into it. It gives the version, or with a fault the one
// that was kept meanwhile.
func (d *Stockroom) AddStyle(ctx context.Context, id string, began int, write func(version int) ([]byte, error)) (version int, err error) {
	err = d.at.In(ctx, func(tx *scope.Tx) error {
		var here struct{ All, Next int }
		if err := tx.Get(ctx, &here, scope.Workshop.SQL(`SELECT (SELECT count(*) FROM styles) AS "all", (SELECT coalesce(max(version), 0) + 1 FROM styles WHERE id = ?) AS next`), id); err != nil {
			return err
		}
		version = here.Next
		if here.All >= MostStyles {
			return fault.New(fault.TooLarge, "file", "There are %d styles of your own here already; that is the most.", MostStyles)
		}
		if newest := version - 1; newest != began {
			version = newest
			return fault.New(fault.NotTaken, "style", "Version %d of %q is here already, and yours was not begun from it. Keep it again to make it version %d, or look at that one first.", newest, id, newest+1)
		}
		file, err := write(version)
		if err != nil {
			return err
		}
		_, err = tx.Do(ctx, scope.Workshop.SQL(`INSERT INTO styles (id, version, file, at) VALUES (?, ?, ?, ?)`), id, version, string(file), d.at.Now().UnixMilli())
		return err
	})
	return version, err
}

// StrikeStyle offers a style no more, or again; boxes that are of it stay.
func (d *Stockroom) StrikeStyle(ctx context.Context, id string, struck bool) error {
	return desk.One(desk.Absent("style of one's own"))(d.at.Do(ctx, scope.Workshop.SQL(`UPDATE styles SET struck = ?1 WHERE id = ?2 AND version = (SELECT max(version) FROM styles WHERE id = ?2)`), struck, id))
}
