package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"strconv"

	"brevium/core/cupboard"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/photo"
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
func (s *Store) All(ctx context.Context) (Everything, error) { return s.gather(ctx, "") }

// gather gathers the rows that a condition is true of.
func (s *Store) gather(ctx context.Context, whose string) (Everything, error) {
	tx, err := s.db.BeginTx(ctx, &sql.TxOptions{ReadOnly: true})
	if err != nil {
		return Everything{}, err
	}
	defer tx.Rollback() // it only reads
	var out Everything
	for _, part := range []struct {
		query string
		scan  func(*sql.Rows) error
	}{
		{`SELECT id, name, inputs FROM boxes WHERE deleted_at IS NULL` + whose + ` ORDER BY changed_at, id`, func(r *sql.Rows) error {
			b := KeptBox{Ticks: map[string]string{}}
			err := r.Scan(&b.ID, &b.Name, (*[]byte)(&b.Design))
			out.Boxes = append(out.Boxes, b)
			return err
		}},
		{`SELECT thing FROM things WHERE deleted_at IS NULL` + whose + ` ORDER BY id`, func(r *sql.Rows) error {
			var thing []byte
			err := r.Scan(&thing)
			out.Things = append(out.Things, thing)
			return err
		}},
		{`SELECT id, card, gsm, thickness, direction, sheet, width, height, count, price, offcut, origin, coalesce(job_id, 0), look, measured
			FROM lots WHERE count > 0 OR id IN (SELECT lot_id FROM job_lots) ORDER BY id`, func(r *sql.Rows) error {
			var p KeptPaper
			err := r.Scan(&p.ID, &p.Card, &p.GSM, &p.Thickness, &p.Direction, &p.Sheet, &p.Width, &p.Height, &p.Count, &p.Price, &p.Offcut, &p.From, &p.Job, (*[]byte)(&p.Look), &p.Measured)
			out.Paper = append(out.Paper, p)
			return err
		}},
		{`SELECT made, name, style, card, felt, minutes, remember, photo, design FROM notes WHERE 1` + whose + ` ORDER BY made, id`, func(r *sql.Rows) error {
			var n KeptNote
			var felt []byte
			if err := r.Scan(&n.Made, &n.Name, &n.Style, &n.Card, &felt, &n.Minutes, &n.Remember, &n.Photo, (*[]byte)(&n.Design)); err != nil {
				return err
			}
			out.Notes = append(out.Notes, n)
			return json.Unmarshal(felt, &out.Notes[len(out.Notes)-1].Felt)
		}},
		{`SELECT id, jpeg, wide, high FROM photos WHERE NOT sent ORDER BY at, id`, func(r *sql.Rows) error {
			var p photo.Picture
			err := r.Scan(&p.ID, &p.JPEG, &p.Wide, &p.High)
			out.Photos = append(out.Photos, p)
			return err
		}},
		{`SELECT id, name, state, items, choices, layouts, coalesce(stocks, 'null'), goods FROM jobs WHERE deleted_at IS NULL` + whose + ` ORDER BY changed_at, id`, func(r *sql.Rows) error {
			var j KeptJob
			var items []byte
			if err := r.Scan(&j.ID, &j.Name, &j.State, &items, (*[]byte)(&j.Choices), (*[]byte)(&j.Layouts), (*[]byte)(&j.Stocks), (*[]byte)(&j.Goods)); err != nil {
				return err
			}
			out.Jobs = append(out.Jobs, j)
			return json.Unmarshal(items, &out.Jobs[len(out.Jobs)-1].Items)
		}},
	} {
		if err := each(ctx, tx, part.query, part.scan); err != nil {
			return out, err
		}
	}
	if out.Goods, err = goodsIn(ctx, tx, ""); err != nil {
		return out, err
	}
	boxes, jobs := map[int64]int{}, map[int64]int{}
	for i, b := range out.Boxes {
		boxes[b.ID] = i
	}
	for i, j := range out.Jobs {
		jobs[j.ID] = i
	}
	if err := out.work(ctx, tx, boxes, jobs); err != nil {
		return out, err
	}
	err = each(ctx, tx, `SELECT box_id, step, mark FROM ticks`, func(r *sql.Rows) error {
		var id int64
		var step, mark string
		err := r.Scan(&id, &step, &mark)
		if i, there := boxes[id]; there {
			out.Boxes[i].Ticks[step] = mark
		}
		return err
	})
	if err != nil {
		return out, err
	}
	return out, each(ctx, tx, `SELECT job_id, lot_id, count FROM job_lots ORDER BY job_id, lot_id`, func(r *sql.Rows) error {
		var id int64
		var t Taken
		err := r.Scan(&id, &t.Paper, &t.Count)
		if i, there := jobs[id]; there {
			out.Jobs[i].Paper = append(out.Jobs[i].Paper, t)
		}
		return err
	})
}

// each reads every row of a query.
func each(ctx context.Context, tx *sql.Tx, query string, scan func(*sql.Rows) error, args ...any) error {
	rows, err := tx.QueryContext(ctx, query, args...)
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

// Brought tells what Bring put in.
type Brought struct{ Boxes, Things, Paper, Jobs int }

// Bring puts everything in, in one step: beside what is here, or in place of
// it. What is here already, the same to the letter, is not put in twice. What
// was here is copied first and that copy's name given.
func (s *Store) Bring(ctx context.Context, all Everything, replace bool) (n Brought, before string, err error) {
	if err := all.check(); err != nil {
		return n, "", err
	}
	if before, err = s.MakeCopy(ctx, Before); err != nil {
		return n, "", err
	}
	err = s.in(ctx, func(tx *sql.Tx) error {
		if replace {
			for _, table := range []string{"job_lots", "lots", "jobs", "things", "goods", "notes", "settings", "styles", "boxes"} {
				if _, err := tx.ExecContext(ctx, `DELETE FROM `+table); err != nil {
					return err
				}
			}
		}
		b := bringing{s: s, ctx: ctx, tx: tx, boxes: map[int64]int64{}, paper: map[int64]int64{}, jobs: map[int64]int64{}, used: map[string]bool{}}
		err := error(nil)
		if b.place, err = s.place(ctx, tx); err == nil {
			err = b.all(all)
		}
		n = b.n
		if who := s.who(ctx); err == nil && who > 0 { // in a workshop it is of whoever brought it
			err = give(ctx, tx, `maker = 0`, who)
		}
		if err == nil {
			err = s.hasRoom(ctx, tx)
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
	s                  *Store
	ctx                context.Context
	tx                 *sql.Tx
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
		if _, err := bringNote(b.ctx, b.tx, max(0, b.s.who(b.ctx)), n.logged()); err != nil {
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
		if err := b.s.setGood(b.ctx, b.tx, g, b.place); err != nil {
			return err
		}
	}
	for _, p := range e.Photos {
		if err := b.s.keepPhoto(b.ctx, b.tx, p, false, b.s.now()); err != nil {
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
	r, err := b.tx.ExecContext(b.ctx, query, args...)
	if err != nil {
		return 0, err
	}
	return r.LastInsertId()
}

// same finds a row that is the same already, each for one; 0 when there is
// none.
func (b *bringing) same(table, where string, args ...any) (int64, error) {
	var found int64
	err := each(b.ctx, b.tx, `SELECT id FROM `+table+` WHERE `+where+` ORDER BY id`, func(r *sql.Rows) error {
		var id int64
		err := r.Scan(&id)
		if found == 0 && !b.used[table+strconv.FormatInt(id, 10)] {
			found = id
		}
		return err
	}, args...)
	b.use(table, found)
	return found, err
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
	now := b.s.now().UnixMilli()
	if id, err = b.insert(`INSERT INTO boxes (name, inputs, created_at, changed_at) VALUES (?, ?, ?, ?)`, x.Name, string(x.Design), now, now); err != nil {
		return err
	}
	if _, err := b.s.state(b.ctx, b.tx, "box", id, "", string(x.Design)); err != nil {
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
	here := map[string]int64{}
	err := each(b.ctx, b.tx, `SELECT id, thing FROM things`, func(r *sql.Rows) error {
		var id int64
		var text []byte
		if err := r.Scan(&id, &text); err != nil {
			return err
		}
		if t, err := design.ReadThing(text); err == nil {
			here[string(design.WriteThing(t))] = id
		}
		return nil
	})
	if err != nil {
		return err
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
		r, err := b.tx.ExecContext(b.ctx, query, value)
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
		x.Name, x.State, string(text), string(x.Choices), string(x.Layouts), stocks, goods, b.s.now().UnixMilli())
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
	_, err = b.s.state(b.ctx, b.tx, "job", id, "", string(asked))
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
