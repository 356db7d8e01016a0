package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"slices"
	"strconv"

	"brevium/core/cupboard"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/photo"
	"brevium/store/scope"
)

// Everything is all that a maker has, free of this database's own form: what
// is carried to another Brevium. Numbers are those of the database it came
// from and tie its parts together.
type Everything struct {
	Boxes  []KeptBox         `json:"boxes"`
	Things []json.RawMessage `json:"things"`
	Paper  []KeptPaper       `json:"paper"`
	Jobs   []KeptJob         `json:"jobs"`
	Photos []photo.Picture   `json:"-"`
	Goods  []cupboard.Good   `json:"supplies,omitempty"`
	Notes  []KeptNote        `json:"notes,omitempty"`
	// Settings are what a maker reckons with everywhere, by name.
	Settings map[string]json.RawMessage `json:"settings,omitempty"`
	Styles   []OwnStyle                 `json:"styles,omitempty"`
}

// KeptBox is a box's design, as in its file, and the steps ticked off.
type KeptBox struct {
	ID     int64             `json:"id"`
	Name   string            `json:"name"`
	Design json.RawMessage   `json:"design"`
	Ticks  map[string]string `json:"ticks,omitempty"`
	Times  []KeptTime        `json:"times,omitempty"`
}

// KeptJob is a job with what is cut and the paper it has taken.
type KeptJob struct {
	ID      int64           `json:"id"`
	Name    string          `json:"name"`
	State   State           `json:"state"`
	Items   []JobItem       `json:"items"`
	Choices json.RawMessage `json:"choices"`
	Layouts json.RawMessage `json:"layouts"`
	Stocks  json.RawMessage `json:"stocks,omitempty"`
	Goods   json.RawMessage `json:"goods,omitempty"`
	Paper   []Taken         `json:"paper,omitempty"`
	// Evenings say who makes it and when, Done how many copies of its tasks are done.
	Evenings json.RawMessage `json:"evenings,omitempty"`
	Done     map[string]int  `json:"done,omitempty"`
}

// Taken is how many sheets of a pile a job has set aside or used.
type Taken struct {
	Paper int64 `json:"paper"`
	Count int   `json:"count"`
}

// All gathers everything but what lies in the bin, of all makers.
func (d *Desk) All(ctx context.Context) (Everything, error) { return d.gather(ctx, scope.Workshop) }

// gather gathers what a scope has of boxes, jobs, things and notes, and the rest whole.
func (d *Desk) gather(ctx context.Context, of scope.Scope) (out Everything, err error) {
	err = d.at.Reading(ctx, func(tx *scope.Tx) error {
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
		ID     int64
		Name   string
		Inputs []byte
	}
	var err error
	e.Boxes, err = rowsOf(ctx, tx, func(r row) (KeptBox, error) {
		return KeptBox{ID: r.ID, Name: r.Name, Design: r.Inputs, Ticks: map[string]string{}}, nil
	}, of.SQL(`SELECT id, name, inputs FROM boxes WHERE deleted_at IS NULL AND {whose} ORDER BY changed_at, id`))
	if err != nil {
		return err
	}
	boxes := map[int64]*KeptBox{}
	for i := range e.Boxes {
		boxes[e.Boxes[i].ID] = &e.Boxes[i]
	}
	var ticks []struct {
		Box int64 `db:"box_id"`
		Tick
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
	e.Things, err = rowsOf(ctx, tx, func(text []byte) (json.RawMessage, error) { return text, nil },
		of.SQL(`SELECT thing FROM things WHERE deleted_at IS NULL AND {whose} ORDER BY id`))
	return err
}

// gatherPaper gathers all paper there is or was, and the supplies.
func (e *Everything) gatherPaper(ctx context.Context, tx *scope.Tx, _ scope.Scope) (err error) {
	err = tx.All(ctx, &e.Paper, scope.Workshop.SQL(`SELECT id, card, gsm, thickness, direction, sheet, width, height, count, price, offcut, origin, coalesce(job_id, 0) AS job, CAST(look AS BLOB) AS look, measured
		FROM lots WHERE count > 0 OR id IN (SELECT lot_id FROM job_lots) ORDER BY id`))
	if err == nil {
		e.Goods, err = goodsIn(ctx, tx, scope.Workshop.SQL(goodsWhere+`1`+goodsOrder))
	}
	return err
}

func (e *Everything) gatherNotes(ctx context.Context, tx *scope.Tx, of scope.Scope) (err error) {
	e.Notes, err = rowsOf(ctx, tx, func(r noteRow) (n KeptNote, err error) {
		n = KeptNote{Made: r.Made, Name: r.Name, Style: r.Style, Card: r.Card, Minutes: r.Minutes, Remember: r.Remember, Photo: r.Photo, Design: r.Design}
		err = json.Unmarshal(r.Felt, &n.Felt)
		return n, err
	}, of.SQL(selectNotes+`WHERE {whose} ORDER BY made, id`))
	return err
}

// gatherJobs gathers jobs with the paper they took, their evenings and what is done.
func (e *Everything) gatherJobs(ctx context.Context, tx *scope.Tx, of scope.Scope) error {
	type row struct {
		ID                                                     int64
		Name                                                   string
		State                                                  State
		Items, Choices, Layouts, Stocks, Goods, Evenings, Done []byte
	}
	var err error
	e.Jobs, err = rowsOf(ctx, tx, func(r row) (j KeptJob, err error) {
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

// Brought tells what Bring put in.
type Brought struct{ Boxes, Things, Paper, Jobs int }

// Bring puts everything in, in one step: beside what is here, or in place of
// it. What is here already, the same to the letter, is not put in twice. What
// was here is copied first and that copy's name given.
func (d *Desk) Bring(ctx context.Context, all Everything, replace bool) (n Brought, before string, err error) {
	if err := all.check(); err != nil {
		return n, "", err
	}
	if before, err = d.s.MakeCopy(ctx, Before); err != nil {
		return n, "", err
	}
	err = d.at.In(ctx, func(tx *scope.Tx) error {
		if replace {
			for _, table := range []string{"job_lots", "lots", "jobs", "things", "goods", "notes", "settings", "styles", "boxes"} {
				if _, err := tx.Do(ctx, scope.Workshop.SQL(`DELETE FROM `+table)); err != nil {
					return err
				}
			}
		}
		b := bringing{d: d, ctx: ctx, tx: tx, boxes: map[int64]int64{}, paper: map[int64]int64{}, jobs: map[int64]int64{}, used: map[string]bool{}}
		err := error(nil)
		if b.place, err = d.place(ctx, tx); err == nil {
			err = b.all(all)
		}
		n = b.n
		if err == nil && d.at.Asker > 0 { // in a workshop it is of whoever brought it
			err = give(ctx, tx, `maker = 0`, d.at.Me())
		}
		if err == nil {
			err = d.hasRoom(ctx, tx)
		}
		return err
	})
	return n, before, err
}

// check refuses what cannot have been written by All.
func (e Everything) check() error {
	for i, b := range e.Boxes {
		var object map[string]any
		if json.Unmarshal(b.Design, &object) != nil {
			return fault.New(fault.NotJSON, fault.Path("boxes", i, "design"), "this box's design is no JSON object")
		}
	}
	for i, t := range e.Things {
		if _, err := design.ReadThing(t); err != nil {
			return fault.At(fault.Path("things", i), err)
		}
	}
	paper := map[int64]bool{}
	for i, p := range e.Paper {
		paper[p.ID] = true
		if err := p.lot().Check(); err != nil {
			return fault.At(fault.Path("paper", i), err)
		}
		if _, err := design.ReadLook(p.Look); err != nil {
			return fault.At(fault.Path("paper", i), err)
		}
	}
	for i, n := range e.Notes {
		if err := n.logged().Check(); err != nil {
			return fault.At(fault.Path("notes", i), err)
		}
		if !json.Valid(n.Design) {
			return fault.New(fault.NotJSON, fault.Path("notes", i, "design"), "this note's box is no JSON")
		}
	}
	for i, g := range e.Goods {
		if err := g.Check(); err != nil {
			return fault.At(fault.Path("supplies", i), err)
		}
	}
	for i, j := range e.Jobs {
		at := fault.Path("jobs", i)
		var needs []cupboard.Need
		switch {
		case len(j.Goods) > 0 && json.Unmarshal(j.Goods, &needs) != nil:
			return fault.New(fault.NotJSON, fault.Path(at, "goods"), "what this job took of the cupboard is no JSON")
		case j.State != Planned && j.State != Begun && j.State != Finished:
			return fault.New(fault.UnknownChoice, fault.Path(at, "state"), "%q is no state of a job", j.State)
		case !json.Valid(j.Choices) || !json.Valid(j.Layouts) || len(j.Stocks) > 0 && !json.Valid(j.Stocks):
			return fault.New(fault.NotJSON, at, "what this job cuts is no JSON")
		}
		for _, t := range j.Paper {
			if !paper[t.Paper] || t.Count < 1 {
				return fault.New(fault.UnknownChoice, fault.Path(at, "paper"), "this job takes paper that is not in the list")
			}
		}
	}
	return nil
}

// bringing is one step of Bring; the maps give new numbers for the old ones.
type bringing struct {
	d                  *Desk
	ctx                context.Context
	tx                 *scope.Tx
	boxes, paper, jobs map[int64]int64
	used               map[string]bool // rows that stand for one that was brought
	n                  Brought
	place              string // the table that paper and supplies go to
}

func (b *bringing) all(e Everything) error {
	for _, x := range e.Boxes {
		if err := b.box(x); err != nil {
			return err
		}
	}
	if err := b.things(e.Things); err != nil {
		return err
	}
	for _, n := range e.Notes {
		if _, err := bringNote(b.ctx, b.tx, n.logged()); err != nil {
			return err
		}
	}
	if err := b.settings(e.Settings); err != nil {
		return err
	}
	if err := b.styles(e.Styles); err != nil {
		return err
	}
	for _, g := range e.Goods {
		if err := b.d.setGood(b.ctx, b.tx, g, b.place); err != nil {
			return err
		}
	}
	for _, p := range e.Photos {
		if err := keepPhoto(b.ctx, b.tx, p, false, b.d.s.now()); err != nil {
			return err
		}
	}
	// Jobs before the paper they left, which names them.
	for _, x := range e.Jobs {
		if err := b.job(x); err != nil {
			return err
		}
	}
	for _, x := range e.Paper {
		if err := b.pile(x); err != nil {
			return err
		}
	}
	for _, x := range e.Jobs {
		if err := b.takes(x); err != nil {
			return err
		}
	}
	return nil
}

// insert runs a statement that puts a row in and gives its number.
func (b *bringing) insert(query string, args ...any) (int64, error) {
	return newRow(b.tx.Do(b.ctx, scope.Workshop.SQL(query), args...))
}

// same finds a row that is the same already, of whomever, each for one; 0 when there is
// none.
func (b *bringing) same(table, where string, args ...any) (int64, error) {
	var all []int64
	if err := b.tx.All(b.ctx, &all, scope.Workshop.SQL(`SELECT id FROM `+table+` WHERE `+where+` ORDER BY id`), args...); err != nil {
		return 0, err
	}
	i := slices.IndexFunc(all, func(id int64) bool { return !b.used[table+strconv.FormatInt(id, 10)] })
	if i < 0 {
		return 0, nil
	}
	b.use(table, all[i])
	return all[i], nil
}

// use notes that a row stands for one that was brought.
func (b *bringing) use(table string, id int64) { b.used[table+strconv.FormatInt(id, 10)] = true }

func (b *bringing) box(x KeptBox) error {
	id, err := b.same(`boxes`, `inputs = ? AND deleted_at IS NULL`, string(x.Design))
	if err != nil || id != 0 {
		b.boxes[x.ID] = id
		if err == nil {
			err = b.times(id, x.Times)
		}
		return err
	}
	now := b.d.s.now().UnixMilli()
	if id, err = b.insert(`INSERT INTO boxes (name, inputs, created_at, changed_at) VALUES (?, ?, ?, ?)`, x.Name, string(x.Design), now, now); err != nil {
		return err
	}
	if _, err := b.d.state(b.ctx, b.tx, "box", id, "", string(x.Design)); err != nil {
		return err
	}
	for step, mark := range x.Ticks {
		if _, err := b.insert(`INSERT INTO ticks (box_id, step, mark, at) VALUES (?, ?, ?, ?)`, id, step, mark, now); err != nil {
			return err
		}
	}
	b.boxes[x.ID] = id
	b.use(`boxes`, id)
	b.n.Boxes++
	return b.times(id, x.Times)
}

// things puts in those that are not here, however they are written.
func (b *bringing) things(all []json.RawMessage) error {
	var kept []struct {
		ID    int64
		Thing []byte
	}
	if err := b.tx.All(b.ctx, &kept, scope.Workshop.SQL(`SELECT id, thing FROM things`)); err != nil {
		return err
	}
	here := map[string]int64{}
	for _, k := range kept {
		if t, err := design.ReadThing(k.Thing); err == nil {
			here[string(design.WriteThing(t))] = k.ID
		}
	}
	for _, text := range all {
		t, err := design.ReadThing(text)
		if err != nil {
			return err
		}
		query, value := `INSERT INTO things (thing) VALUES (?)`, any(string(design.WriteThing(t)))
		if id, there := here[string(design.WriteThing(t))]; there {
			query, value = `UPDATE things SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL`, id
		}
		r, err := b.tx.Do(b.ctx, scope.Workshop.SQL(query), value)
		if err := count(&b.n.Things, r, err); err != nil {
			return err
		}
	}
	return nil
}

func (b *bringing) job(x KeptJob) error {
	items := make([]JobItem, 0, len(x.Items))
	for _, it := range x.Items {
		id, there := b.boxes[it.Box]
		if !there {
			continue // it lay in the bin
		}
		items = append(items, JobItem{Box: id, Copies: it.Copies})
	}
	text, err := json.Marshal(items)
	if err != nil {
		return err
	}
	id, err := b.same(`jobs`, `name = ? AND items = ? AND state = ? AND deleted_at IS NULL`, x.Name, string(text), x.State)
	if err != nil || id != 0 {
		return err
	}
	var stocks any
	if len(x.Stocks) > 0 && string(x.Stocks) != "null" {
		stocks = string(x.Stocks)
	}
	goods := "[]"
	if len(x.Goods) > 0 {
		goods = string(x.Goods)
	}
	id, err = b.insert(`INSERT INTO jobs (name, state, items, choices, layouts, stocks, goods, changed_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
		x.Name, x.State, string(text), string(x.Choices), string(x.Layouts), stocks, goods, b.d.s.now().UnixMilli())
	if err != nil {
		return err
	}
	asked, err := json.Marshal(asked{x.Name, items, x.Choices})
	if err != nil {
		return err
	}
	if err := b.evenings(id, x); err != nil {
		return err
	}
	b.jobs[x.ID] = id
	b.use(`jobs`, id)
	b.n.Jobs++
	_, err = b.d.state(b.ctx, b.tx, "job", id, "", string(asked))
	return err
}

// takes sets aside what a job that was put in has taken.
func (b *bringing) takes(x KeptJob) error {
	job, put := b.jobs[x.ID]
	if !put {
		return nil
	}
	for _, t := range x.Paper {
		if _, err := b.insert(`INSERT INTO job_lots (job_id, lot_id, count) VALUES (?, ?, ?)`, job, b.paper[t.Paper], t.Count); err != nil {
			return err
		}
	}
	return nil
}

// count adds the rows that a statement put in.
func count(n *int, r sql.Result, err error) error {
	if err != nil {
		return err
	}
	rows, err := r.RowsAffected()
	*n += int(rows)
	return err
}
