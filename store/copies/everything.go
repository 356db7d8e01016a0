// Package copies is all there is of a person or a workshop: gathered to be taken along, and
// brought in again.
package copies

import (
	"context"
	"database/sql"
	"encoding/json"
	"slices"
	"strconv"

	"brevium/core/cupboard"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/photo"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/store/roster"
	"brevium/store/scope"
	"brevium/store/stockroom"
)

// Everything is all that a maker has, free of this database's own form: what
// is carried to another Brevium. Numbers are those of the database it came
// from and tie its parts together.
type Everything struct {
	Boxes  []KeptBox           `json:"boxes"`
	Things []json.RawMessage   `json:"things"`
	Paper  []KeptPaper         `json:"paper"`
	Jobs   []KeptJob           `json:"jobs"`
	Photos []photo.Picture     `json:"-"`
	Goods  []cupboard.Good     `json:"supplies,omitempty"`
	Notes  []boxshelf.KeptNote `json:"notes,omitempty"`
	// Settings are what a maker reckons with everywhere, by name.
	Settings map[string]json.RawMessage `json:"settings,omitempty"`
	Styles   []stockroom.OwnStyle       `json:"styles,omitempty"`
}

// KeptBox is a box's design, as in its file, and the steps ticked off.
type KeptBox struct {
	ID     int64             `json:"id"`
	Name   string            `json:"name"`
	Design json.RawMessage   `json:"design"`
	Ticks  map[string]string `json:"ticks,omitempty"`
	Times  []KeptTime        `json:"times,omitempty"`
	// Tags, and whether it is a favourite or put away.
	Tags      json.RawMessage `json:"tags,omitempty"`
	Favourite bool            `json:"favourite,omitempty"`
	Archived  bool            `json:"archived,omitempty"`
}

// KeptJob is a job with what is cut and the paper it has taken.
type KeptJob struct {
	ID      int64             `json:"id"`
	Name    string            `json:"name"`
	State   jobbook.State     `json:"state"`
	Items   []jobbook.JobItem `json:"items"`
	Choices json.RawMessage   `json:"choices"`
	Layouts json.RawMessage   `json:"layouts"`
	Stocks  json.RawMessage   `json:"stocks,omitempty"`
	Goods   json.RawMessage   `json:"goods,omitempty"`
	Paper   []Taken           `json:"paper,omitempty"`
	// Evenings say who makes it and when, Done how many copies of its tasks are done.
	Evenings json.RawMessage `json:"evenings,omitempty"`
	Done     map[string]int  `json:"done,omitempty"`
}

// Taken is how many sheets of a pile a job has set aside or used.
type Taken struct {
	Paper int64 `json:"paper"`
	Count int   `json:"count"`
}

// Brought tells what Bring put in.
type Brought struct{ Boxes, Things, Paper, Jobs int }

// Bring puts everything in: beside what is here, or in place of it. What is here already, the same
// to the letter, is not put in twice.
func Bring(ctx context.Context, tx *scope.Tx, at desk.Desk, all Everything, replace bool) (n Brought, err error) {
	if replace {
		for _, table := range []string{"job_lots", "lots", "jobs", "things", "goods", "notes", "settings", "styles", "boxes"} {
			if _, err := tx.Do(ctx, scope.Workshop.SQL(`DELETE FROM `+table)); err != nil {
				return n, err
			}
		}
	}
	b := bringing{at: at, ctx: ctx, tx: tx, boxes: map[int64]int64{}, paper: map[int64]int64{}, jobs: map[int64]int64{}, used: map[string]bool{}}
	if b.place, err = at.Place(ctx, tx); err == nil {
		err = b.all(all)
	}
	if err == nil && at.Asker > 0 { // in a workshop it is of whoever brought it
		err = roster.Give(ctx, tx, `maker = 0`, at.Me())
	}
	if err == nil {
		err = at.HasRoom(ctx, tx)
	}
	return b.n, err
}

// Check refuses what cannot have been gathered.
func (e Everything) Check() error {
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
		if err := n.Logged().Check(); err != nil {
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
		case j.State != jobbook.Planned && j.State != jobbook.Begun && j.State != jobbook.Finished:
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
	at                 desk.Desk
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
		if _, err := boxshelf.BringNote(b.ctx, b.tx, n.Logged()); err != nil {
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
		if err := stockroom.SetGood(b.ctx, b.tx, b.at, g, b.place); err != nil {
			return err
		}
	}
	for _, p := range e.Photos {
		if err := desk.KeepPhoto(b.ctx, b.tx, p, false, b.at.Now()); err != nil {
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
	return desk.NewRow(b.tx.Do(b.ctx, scope.Workshop.SQL(query), args...))
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
	now := b.at.Now().UnixMilli()
	if id, err = b.insert(`INSERT INTO boxes (name, inputs, created_at, changed_at, tags, favourite, archived) VALUES (?, ?, ?, ?, ?, ?, ?)`,
		x.Name, string(x.Design), now, now, boxshelf.KeptTags(x.Tags), x.Favourite, x.Archived); err != nil {
		return err
	}
	if _, err := b.at.KeepState(b.ctx, b.tx, "box", id, "", string(x.Design)); err != nil {
		return err
	}
	if len(x.Ticks) > 0 { // there may be as many as a zip's list has rows: one statement for all
		ticks, err := json.Marshal(x.Ticks)
		if err != nil {
			return err
		}
		if _, err := b.insert(`INSERT INTO ticks (box_id, step, mark, at) SELECT ?, key, value, ? FROM json_each(?)`, id, now, string(ticks)); err != nil {
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
	items := make([]jobbook.JobItem, 0, len(x.Items))
	for _, it := range x.Items {
		id, there := b.boxes[it.Box]
		if !there {
			continue // it lay in the bin
		}
		items = append(items, jobbook.JobItem{Box: id, Copies: it.Copies})
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
		x.Name, x.State, string(text), string(x.Choices), string(x.Layouts), stocks, goods, b.at.Now().UnixMilli())
	if err != nil {
		return err
	}
	asked, err := json.Marshal(jobbook.Asked{Name: x.Name, Items: items, Choices: x.Choices})
	if err != nil {
		return err
	}
	if err := b.evenings(id, x); err != nil {
		return err
	}
	b.jobs[x.ID] = id
	b.use(`jobs`, id)
	b.n.Jobs++
	_, err = b.at.KeepState(b.ctx, b.tx, "job", id, "", string(asked))
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
