package store

import (
	"context"
	"database/sql"

	"brevium/core/people"
	"brevium/store/scope"
)

// What codes that are shown again and again are for: classes and links to boxes.
const (
	classUse = "class"
	linkUse  = "link"
)

// codeLetters is how long such a code is: 80 bits.
const codeLetters = 16

// newSeed is what a code is made of, with its mark. Seed and mark alone give no code: it takes
// the machine's secret to make it of the seed, and the mark only tells one that is shown.
func (s *Store) newSeed(use string) (seed string, mark []byte) {
	seed = people.NewCode().Text
	return seed, people.MarkOf(s.codeOfSeed(use, seed))
}

func (s *Store) codeOfSeed(use, seed string) string {
	return s.pepper.Secret(use, seed, codeLetters)
}

// unshown stands for the seed of a link that was kept in plain by an older version: it leads
// where it did, and cannot be shown any more.
const unshown = "?"

// markLinks leaves of links that were kept in plain the marks.
func markLinks(ctx context.Context, tx *sql.Tx) error {
	plain := map[int64]string{}
	err := each(ctx, tx, `SELECT id, link FROM boxes WHERE link <> '' AND link_mark IS NULL`, func(r *sql.Rows) error {
		var id int64
		var code string
		err := r.Scan(&id, &code)
		plain[id] = code
		return err
	})
	if err != nil {
		return err
	}
	for id, code := range plain {
		if _, err := tx.ExecContext(ctx, `UPDATE boxes SET link = ?, link_mark = ? WHERE id = ?`, unshown, people.MarkOf(code), id); err != nil {
			return err
		}
	}
	return nil
}

// each reads every row of a query of a file that is no desk's yet: one whose tables are
// brought up to date, or a copy that is readied.
func each(ctx context.Context, tx *sql.Tx, query string, scan func(*sql.Rows) error) error {
	rows, err := tx.QueryContext(ctx, query)
	if err != nil {
		return err
	}
	defer rows.Close()
	for rows.Next() {
		if err := scan(rows); err != nil {
			return err
		}
	}
	return rows.Err()
}

// Link is how a box of one's own is looked at by anybody: its code, "" where it cannot be
// shown any more, and whether there is one.
func (d *Desk) Link(ctx context.Context, id int64) (code string, is bool, err error) {
	var seed string
	err = d.at.Get(ctx, &seed, scope.Own.SQL(`SELECT link FROM boxes WHERE id = ? AND deleted_at IS NULL AND {whose}`), id)
	if err != nil || seed == "" || seed == unshown {
		return "", seed != "", found(err, noBox)
	}
	return d.s.codeOfSeed(linkUse, seed), true, nil
}

// SetLink lets anybody who has the code look at a box of one's own, or nobody any more.
// Each time it is another code.
func (d *Desk) SetLink(ctx context.Context, id int64, on bool) error {
	var seed string
	var mark []byte
	if on {
		seed, mark = d.s.newSeed(linkUse)
	}
	return one(noBox)(d.at.Do(ctx, scope.Own.SQL(`UPDATE boxes SET link = ?, link_mark = ? WHERE id = ? AND deleted_at IS NULL AND {whose}`), seed, mark, id))
}

// Linked is the box that a code lets one look at.
func (d *Desk) Linked(ctx context.Context, code string) (Box, error) {
	return rowOf(ctx, d.at, boxRow.box, noBox, scope.Workshop.SQL(selectBoxes+`WHERE b.link_mark = ? AND b.deleted_at IS NULL`), people.MarkOf(code))
}
