package store

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/people"
	"brevium/store/boxshelf"
	"brevium/store/copies"
	"brevium/store/desk"
	"brevium/store/roster"
	"brevium/store/scope"
)

// All gathers everything but what lies in the bin, of all makers.
func (d *Desk) All(ctx context.Context) (copies.Everything, error) {
	return copies.Gather(ctx, d.at, scope.Workshop)
}

// Bring puts everything in, in one step: beside what is here, or in place of it. What was here is
// copied first and that copy's name given.
func (d *Desk) Bring(ctx context.Context, all copies.Everything, replace bool) (n copies.Brought, before string, err error) {
	if err := all.Check(); err != nil {
		return n, "", err
	}
	if before, err = d.s.MakeCopy(ctx, Before); err != nil {
		return n, "", err
	}
	err = d.at.In(ctx, func(tx *scope.Tx) error {
		n, err = copies.Bring(ctx, tx, d.at, all, replace)
		return err
	})
	return n, before, err
}

// Own gathers what is of the person of a context, to be taken along: boxes, jobs, things,
// notes and settings, the pictures that these show and the paper that the jobs took. Alone
// it is everything.
func (d *Desk) Own(ctx context.Context) (copies.Everything, error) {
	if d.at.Asker == scope.Alone {
		return d.All(ctx)
	}
	all, err := copies.Gather(ctx, d.at, scope.Own)
	if err != nil {
		return all, err
	}
	all.Goods, all.Styles = nil, nil // the workshop's
	taken := map[int64]bool{}
	for _, j := range all.Jobs {
		for _, t := range j.Paper {
			taken[t.Paper] = true
		}
	}
	all.Paper = slices.DeleteFunc(all.Paper, func(p copies.KeptPaper) bool { return !taken[p.ID] })
	shown := func(id string) bool {
		in := func(text json.RawMessage) bool { return bytes.Contains(text, []byte(id)) }
		return slices.ContainsFunc(all.Boxes, func(b copies.KeptBox) bool { return in(b.Design) }) ||
			slices.ContainsFunc(all.Notes, func(n boxshelf.KeptNote) bool { return n.Photo == id || in(n.Design) })
	}
	kept := all.Photos[:0]
	for _, p := range all.Photos {
		if shown(p.ID) {
			kept = append(kept, p)
		}
	}
	all.Photos = kept
	mine := map[string]json.RawMessage{}
	for name, value := range all.Settings {
		if rest, own := strings.CutPrefix(name, fmt.Sprintf("@%d/", d.at.Asker)); own {
			mine[rest] = value
		}
	}
	all.Settings = mine
	return all, nil
}

// Leave erases a person. What they made is given to another, or for 0 deleted for good;
// their settings go, and in what happened at the door their name. Nothing of what is deleted is
// left in the file or its log; copies that were made before have it until they go.
func (d *Desk) Leave(ctx context.Context, id, to int64) error {
	if err := d.leave(ctx, id, to); err != nil {
		return err
	}
	// What was overwritten may still stand in the log beside; who reads just now holds it open.
	if _, err := d.s.write.ExecContext(context.WithoutCancel(ctx), `PRAGMA wal_checkpoint(TRUNCATE)`); err != nil {
		d.s.Note(err)
	}
	return nil
}

func (d *Desk) leave(ctx context.Context, id, to int64) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		p, err := desk.RowOf(ctx, tx, roster.PersonRow.Person, desk.NoPerson, scope.Workshop.SQL(roster.SelectPeople+`WHERE id = ?`), id)
		if err != nil {
			return err
		}
		var others int
		if err := tx.Get(ctx, &others, scope.Workshop.SQL(`SELECT count(*) FROM people WHERE role = 'steward' AND struck = 0 AND id <> ?`), id); err != nil {
			return err
		}
		if p.Role == people.Steward && others == 0 {
			return fault.New(fault.Invalid, "", "You are the last steward; make somebody else one first.")
		}
		if to != 0 {
			err = roster.Give(ctx, tx, fmt.Sprintf(`maker = %d`, id), to)
		}
		for _, table := range []string{"jobs", "boxes", "notes", "things"} {
			if err == nil {
				_, err = tx.Do(ctx, scope.Workshop.SQL(desk.Text(`DELETE FROM %s WHERE maker = ?`, table)), id)
			}
		}
		if err != nil {
			return err
		}
		// A picture of theirs alone goes, unless what stays shows it.
		for _, x := range []struct {
			query string
			arg   any
		}{
			{`DELETE FROM photo_makers WHERE maker = ?`, id},
			{`DELETE FROM photos AS p WHERE ? > 0 AND NOT EXISTS (SELECT 1 FROM photo_makers m WHERE m.photo = p.id)
				AND NOT EXISTS (SELECT 1 FROM boxes b WHERE instr(b.inputs, p.id))
				AND NOT EXISTS (SELECT 1 FROM notes n WHERE n.photo = p.id OR instr(n.design, p.id))
				AND NOT EXISTS (SELECT 1 FROM lots l WHERE instr(l.look, p.id))`, id},
			{`DELETE FROM settings WHERE name LIKE ? || '%'`, fmt.Sprintf("@%d/", id)},
			{`UPDATE events SET person = 'somebody who left', detail = '' WHERE person = ? COLLATE NOCASE`, p.Name},
			{`UPDATE events SET detail = '' WHERE instr(lower(detail), lower(?))`, p.Name},
			{`DELETE FROM passkeys WHERE person = ?`, id},
			{`DELETE FROM codes WHERE person = ?`, id},
			{`DELETE FROM people WHERE id = ?`, id},
		} {
			if _, err := tx.Do(ctx, scope.Workshop.SQL(x.query), x.arg); err != nil {
				return err
			}
		}
		return nil
	})
}

// Steward is the first who is let in, to whom things are handed over; 0 for none.
func (d *Desk) Steward(ctx context.Context, but int64) (id int64, err error) {
	err = d.at.Get(ctx, &id, scope.Workshop.SQL(`SELECT id FROM people WHERE role = 'steward' AND struck = 0 AND id <> ? ORDER BY id LIMIT 1`), but)
	if errors.Is(err, sql.ErrNoRows) {
		err = nil
	}
	return id, err
}
