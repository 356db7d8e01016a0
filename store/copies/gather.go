package copies

import (
	"context"
	"encoding/json"
	"errors"

	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/store/scope"
	"brevium/store/stockroom"
)

// Gather gathers what a scope has of boxes, jobs, things and notes, and the rest whole, but for
// what lies in the bin.
func Gather(ctx context.Context, at desk.Desk, of scope.Scope) (out Everything, err error) {
	err = at.Reading(ctx, func(tx *scope.Tx) error {
		for _, part := range []func(context.Context, *scope.Tx, scope.Scope) error{out.gatherBoxes, out.gatherThings, out.gatherPaper, out.gatherNotes, out.gatherJobs, out.gatherRest} {
			if err := part(ctx, tx, of); err != nil {
				return err
			}
		}
		return nil
	})
	return out, err
}

// gatherBoxes gathers boxes with what is ticked of them and how long their steps took.
func (e *Everything) gatherBoxes(ctx context.Context, tx *scope.Tx, of scope.Scope) error {
	type row struct {
		ID                  int64
		Name                string
		Inputs, Tags        []byte
		Favourite, Archived bool
	}
	var err error
	e.Boxes, err = desk.RowsOf(ctx, tx, func(r row) (KeptBox, error) {
		return KeptBox{ID: r.ID, Name: r.Name, Design: r.Inputs, Ticks: map[string]string{}, Tags: r.Tags, Favourite: r.Favourite, Archived: r.Archived}, nil
	}, of.SQL(`SELECT id, name, inputs, CAST(tags AS BLOB) AS tags, favourite, archived FROM boxes WHERE deleted_at IS NULL AND {whose} ORDER BY changed_at, id`))
	if err != nil {
		return err
	}
	boxes := map[int64]*KeptBox{}
	for i := range e.Boxes {
		boxes[e.Boxes[i].ID] = &e.Boxes[i]
	}
	var ticks []struct {
		Box int64 `db:"box_id"`
		boxshelf.Tick
	}
	if err := tx.All(ctx, &ticks, scope.Held.SQL(`SELECT box_id, step, mark FROM ticks`)); err != nil {
		return err
	}
	for _, t := range ticks {
		if b := boxes[t.Box]; b != nil {
			b.Ticks[t.Step] = t.Mark
		}
	}
	var times []struct {
		Box int64 `db:"box_id"`
		KeptTime
	}
	if err := tx.All(ctx, &times, scope.Held.SQL(`SELECT box_id, step, kind, seconds, usual, at FROM times ORDER BY at, step`)); err != nil {
		return err
	}
	for _, t := range times {
		if b := boxes[t.Box]; b != nil {
			b.Times = append(b.Times, t.KeptTime)
		}
	}
	return nil
}

func (e *Everything) gatherThings(ctx context.Context, tx *scope.Tx, of scope.Scope) (err error) {
	e.Things, err = desk.RowsOf(ctx, tx, func(text []byte) (json.RawMessage, error) { return text, nil },
		of.SQL(`SELECT thing FROM things WHERE deleted_at IS NULL AND {whose} ORDER BY id`))
	return err
}

// gatherPaper gathers all paper there is or was, and the supplies.
func (e *Everything) gatherPaper(ctx context.Context, tx *scope.Tx, _ scope.Scope) (err error) {
	err = tx.All(ctx, &e.Paper, scope.Workshop.SQL(`SELECT id, card, gsm, thickness, direction, sheet, width, height, count, price, offcut, origin, coalesce(job_id, 0) AS job, CAST(look AS BLOB) AS look, measured, grain, finish, shape
		FROM lots WHERE count > 0 OR id IN (SELECT lot_id FROM job_lots) ORDER BY id`))
	if err == nil {
		e.Goods, err = stockroom.GoodsIn(ctx, tx, scope.Workshop.SQL(stockroom.GoodsWhere+`1`+stockroom.GoodsOrder))
	}
	return err
}

func (e *Everything) gatherNotes(ctx context.Context, tx *scope.Tx, of scope.Scope) (err error) {
	e.Notes, err = desk.RowsOf(ctx, tx, func(r boxshelf.NoteRow) (n boxshelf.KeptNote, err error) {
		n = boxshelf.KeptNote{Made: r.Made, Name: r.Name, Style: r.Style, Card: r.Card, Minutes: r.Minutes, Remember: r.Remember, Photo: r.Photo, Design: r.Design}
		err = json.Unmarshal(r.Felt, &n.Felt)
		return n, err
	}, of.SQL(boxshelf.SelectNotes+`WHERE {whose} ORDER BY made, id`))
	return err
}

// gatherJobs gathers jobs with the paper they took, their evenings and what is done.
func (e *Everything) gatherJobs(ctx context.Context, tx *scope.Tx, of scope.Scope) error {
	type row struct {
		ID                                                     int64
		Name                                                   string
		State                                                  jobbook.State
		Items, Choices, Layouts, Stocks, Goods, Evenings, Done []byte
	}
	var err error
	e.Jobs, err = desk.RowsOf(ctx, tx, func(r row) (j KeptJob, err error) {
		j = KeptJob{ID: r.ID, Name: r.Name, State: r.State, Choices: r.Choices, Layouts: r.Layouts, Stocks: r.Stocks, Goods: r.Goods}
		if string(r.Evenings) != "null" || string(r.Done) != "{}" {
			j.Evenings = r.Evenings
			err = json.Unmarshal(r.Done, &j.Done)
		}
		return j, errors.Join(err, json.Unmarshal(r.Items, &j.Items))
	}, of.SQL(`SELECT id, name, state, items, choices, layouts, coalesce(stocks, 'null') AS stocks, goods, evenings, done FROM jobs WHERE deleted_at IS NULL AND {whose} ORDER BY changed_at, id`))
	if err != nil {
		return err
	}
	jobs := map[int64]*KeptJob{}
	for i := range e.Jobs {
		jobs[e.Jobs[i].ID] = &e.Jobs[i]
	}
	var took []struct {
		Job   int64 `db:"job_id"`
		Paper int64 `db:"lot_id"`
		Count int
	}
	if err := tx.All(ctx, &took, scope.Held.SQL(`SELECT job_id, lot_id, count FROM job_lots ORDER BY job_id, lot_id`)); err != nil {
		return err
	}
	for _, t := range took {
		if j := jobs[t.Job]; j != nil {
			j.Paper = append(j.Paper, Taken{t.Paper, t.Count})
		}
	}
	return nil
}

// gatherRest gathers photographs, settings and styles of one's own, of all.
func (e *Everything) gatherRest(ctx context.Context, tx *scope.Tx, _ scope.Scope) error {
	if err := tx.All(ctx, &e.Photos, scope.Workshop.SQL(`SELECT id, jpeg, wide, high FROM photos WHERE NOT sent ORDER BY at, id`)); err != nil {
		return err
	}
	var settings []struct {
		Name  string
		Value []byte
	}
	if err := tx.All(ctx, &settings, scope.Workshop.SQL(`SELECT name, value FROM settings ORDER BY name`)); err != nil {
		return err
	}
	for _, s := range settings {
		if e.Settings == nil {
			e.Settings = map[string]json.RawMessage{}
		}
		e.Settings[s.Name] = s.Value
	}
	return tx.All(ctx, &e.Styles, scope.Workshop.SQL(`SELECT id, version, CAST(file AS BLOB) AS file, struck FROM styles ORDER BY id, version`))
}
