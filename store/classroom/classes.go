// Package classroom keeps classes that follow a box or a job, and who sits in them.
package classroom

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"
	"time"

	"brevium/core/fault"
	"brevium/core/people"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/store/scope"
)

// Classroom is the classes as one person has them.
type Classroom struct{ at desk.Desk }

// At opens the room for a desk.
func At(d desk.Desk) *Classroom { return &Classroom{d} }

// Class is a box that a class makes together, or a job: one of every box of it each.
type Class struct {
	ID       int64
	Box, Job int64  // one of them
	Code     string // leads to it
	Until    time.Time
}

// Seat is one who follows in a class: At is the move they are at.
type Seat struct {
	ID   int64
	Name string
	At   int
	Help bool
	Seen time.Time
}

// MostSeats is how many sit in a class, and mostOnDevice how many of them on one device. A seat
// that is not used comes free for the next who needs one: where nobody went on from the first
// step for a while, or nothing was heard for long.
const (
	MostSeats    = 60
	mostOnDevice = 2
	unusedFor    = 3 * time.Minute
	unheardFor   = 40 * time.Minute
)

// classOf is where a class is of a box or of a job.
var classOf = map[desk.Sort]struct{ column, table string }{desk.BoxSort: {"box_id", "boxes"}, desk.JobSort: {"job_id", "jobs"}}

const noClass desk.Absent = "class"

// OpenClass lets a class follow one's own box or job until a time; one that is open stays.
func (d *Classroom) OpenClass(ctx context.Context, of desk.Sort, id int64, until time.Time) error {
	at, known := classOf[of]
	if !known {
		return noClass
	}
	return d.at.In(ctx, func(tx *scope.Tx) error {
		if _, err := tx.Do(ctx, scope.Workshop.SQL(`DELETE FROM classes WHERE until < ?`), d.at.Now().UnixMilli()); err != nil {
			return err
		}
		seed, mark := d.at.NewSeed(desk.ClassUse)
		return desk.One(desk.Absent(of))(tx.Do(ctx, scope.Own.SQL(desk.Text(`
			INSERT INTO classes (%[1]s, seed, mark, until) SELECT id, ?, ?, ? FROM %[2]s WHERE id = ? AND deleted_at IS NULL AND {whose}
			ON CONFLICT (%[1]s) DO UPDATE SET until = excluded.until`, at.column, at.table)), seed, mark, until.UnixMilli(), id))
	})
}

// CloseClass ends it; who sat in it is forgotten.
func (d *Classroom) CloseClass(ctx context.Context, of desk.Sort, id int64) error {
	at, known := classOf[of]
	if !known {
		return noClass
	}
	return desk.One(noClass)(d.at.Do(ctx, scope.Own.SQL(desk.Text(`DELETE FROM classes WHERE %s IN (SELECT id FROM %s WHERE id = ? AND {whose})`, at.column, at.table)), id))
}

// classRow is a class as its table has it.
type classRow struct {
	ID, Box, Job, Until int64
	Seed                string
}

const selectClasses = `SELECT id, coalesce(box_id, 0) AS box, coalesce(job_id, 0) AS job, seed, until FROM classes `

// class is one that is open still.
func (d *Classroom) class(r classRow) (Class, error) {
	c := Class{ID: r.ID, Box: r.Box, Job: r.Job, Code: d.at.CodeOfSeed(desk.ClassUse, r.Seed), Until: time.UnixMilli(r.Until)}
	if !d.at.Now().Before(c.Until) {
		return Class{}, noClass
	}
	return c, nil
}

// ClassOf is the open class of a box or a job that one sees; ErrNotFound where there is none.
func (d *Classroom) ClassOf(ctx context.Context, of desk.Sort, id int64) (Class, error) {
	at, known := classOf[of]
	if !known {
		return Class{}, noClass
	}
	return desk.RowOf(ctx, d.at, d.class, noClass, scope.Seen.SQL(desk.Text(selectClasses+`WHERE %s IN (SELECT id FROM %s WHERE id = ? AND deleted_at IS NULL AND {whose})`, at.column, at.table)), id)
}

// ClassBy is the class that a code leads to, what it makes and the boxes of that; who
// follows needs no name here.
func (d *Classroom) ClassBy(ctx context.Context, code string) (c Class, name string, boxes []boxshelf.Box, err error) {
	if c, err = desk.RowOf(ctx, d.at, d.class, noClass, scope.Workshop.SQL(selectClasses+`WHERE mark = ?`), people.MarkOf(code)); err != nil {
		return c, "", nil, err
	}
	if c.Job == 0 {
		b, err := desk.RowOf(ctx, d.at, boxshelf.BoxRow.Box, desk.NoBox, scope.Held.SQL(boxshelf.SelectBoxes+`WHERE b.id = ? AND b.deleted_at IS NULL`), c.Box)
		return c, b.Name, []boxshelf.Box{b}, err
	}
	j, err := desk.RowOf(ctx, d.at, jobbook.JobRow.Job, desk.NoJob, scope.Held.SQL(jobbook.SelectJobs+`WHERE id = ? AND deleted_at IS NULL`), c.Job)
	if err != nil {
		return c, "", nil, err
	}
	for _, it := range j.Items { // a box of somebody else only while it is shared
		b, err := desk.RowOf(ctx, d.at, boxshelf.BoxRow.Box, desk.NoBox, scope.Held.SQL(boxshelf.SelectBoxes+`WHERE b.id = ? AND b.deleted_at IS NULL AND (b.maker = ? OR b.shared)`), it.Box, j.Maker)
		if errors.Is(err, desk.ErrNotFound) {
			continue
		}
		if err != nil {
			return c, "", nil, err
		}
		boxes = append(boxes, b)
	}
	if len(boxes) == 0 {
		err = desk.NoBox
	}
	return c, j.Name, boxes, err
}

// Sit gives a seat in a class under a name that nobody else has there, and the token that
// it is known by. before is the token of the seat that the device has already, or "".
func (d *Classroom) Sit(ctx context.Context, class int64, name, before string) (token string, err error) {
	code := people.NewCode()
	err = d.at.In(ctx, func(tx *scope.Tx) error {
		device := code.Mark
		if before != "" {
			err := tx.Get(ctx, &device, scope.Held.SQL(`SELECT device FROM seats WHERE class_id = ? AND token = ?`), class, people.MarkOf(before))
			if err != nil && !errors.Is(err, sql.ErrNoRows) {
				return err
			}
			var n int
			if err := tx.Get(ctx, &n, scope.Held.SQL(`SELECT count(*) FROM seats WHERE class_id = ? AND device = ?`), class, device); err != nil {
				return err
			}
			if n >= mostOnDevice {
				return fault.New(fault.TooLarge, "name", "this device has %d seats already, as many as one may have", n)
			}
		}
		if err := d.freeSeat(ctx, tx, class); err != nil {
			return err
		}
		_, err := tx.Do(ctx, scope.Held.SQL(`INSERT INTO seats (class_id, name, token, device, seen) VALUES (?, ?, ?, ?, ?)`), class, name, code.Mark, device, d.at.Now().UnixMilli())
		if err != nil && strings.Contains(err.Error(), "UNIQUE") {
			return fault.New(fault.Invalid, "name", "somebody in this class is called %q already; add a letter, or take a colour", name)
		}
		return err
	})
	return code.Text, err
}

// freeSeat refuses one more where all seats are taken and used; of those that are not, the one
// that was heard of longest ago comes free.
func (d *Classroom) freeSeat(ctx context.Context, tx *scope.Tx, class int64) error {
	var n int
	if err := tx.Get(ctx, &n, scope.Held.SQL(`SELECT count(*) FROM seats WHERE class_id = ?`), class); err != nil || n < MostSeats {
		return err
	}
	now := d.at.Now()
	r, err := tx.Do(ctx, scope.Held.SQL(`
		DELETE FROM seats WHERE id = (SELECT id FROM seats WHERE class_id = ? AND (seen < ? OR at = 0 AND help = 0 AND seen < ?) ORDER BY seen LIMIT 1)`),
		class, now.Add(-unheardFor).UnixMilli(), now.Add(-unusedFor).UnixMilli())
	if err != nil {
		return err
	}
	if freed, err := r.RowsAffected(); err != nil || freed > 0 {
		return err
	}
	return fault.New(fault.TooLarge, "name", "this class has %d seats, and all are taken; whoever teaches can free one", MostSeats)
}

const noSeat desk.Absent = "seat"

// FreeSeat takes a seat away in a class of one's own.
func (d *Classroom) FreeSeat(ctx context.Context, of desk.Sort, id, seat int64) error {
	at, known := classOf[of]
	if !known {
		return noClass
	}
	return desk.One(noSeat)(d.at.Do(ctx, scope.Own.SQL(desk.Text(`DELETE FROM seats WHERE id = ? AND class_id IN (SELECT c.id FROM classes c JOIN %[2]s x ON x.id = c.%[1]s WHERE x.id = ? AND {whose x.})`, at.column, at.table)), seat, id))
}

// StandUp gives one's own seat back: that of the token one came by.
func (d *Classroom) StandUp(ctx context.Context, seat int64) error {
	return desk.One(noSeat)(d.at.Do(ctx, scope.Held.SQL(`DELETE FROM seats WHERE id = ?`), seat))
}

// seatRow is a seat as its table has it.
type seatRow struct {
	ID   int64
	Name string
	At   int
	Help bool
	Seen int64
}

const selectSeats = `SELECT id, name, at, help, seen FROM seats `

func (r seatRow) seat() (Seat, error) {
	return Seat{r.ID, r.Name, r.At, r.Help, time.UnixMilli(r.Seen)}, nil
}

// SeatBy is the seat of a class that a token is of.
func (d *Classroom) SeatBy(ctx context.Context, class int64, token string) (Seat, error) {
	return desk.RowOf(ctx, d.at, seatRow.seat, noSeat, scope.Held.SQL(selectSeats+`WHERE class_id = ? AND token = ?`), class, people.MarkOf(token))
}

// Move keeps the move that one is at, and whether help is asked for.
func (d *Classroom) Move(ctx context.Context, seat int64, at int, help bool) error {
	return desk.One(noSeat)(d.at.Do(ctx, scope.Held.SQL(`UPDATE seats SET at = ?, help = ?, seen = ? WHERE id = ?`), at, help, d.at.Now().UnixMilli(), seat))
}

// Seats are all of a class, those who ask for help first, by name.
func (d *Classroom) Seats(ctx context.Context, class int64) ([]Seat, error) {
	return desk.RowsOf(ctx, d.at, seatRow.seat, scope.Held.SQL(selectSeats+`WHERE class_id = ? ORDER BY help DESC, name`), class)
}

// Seated is a query of how far all are who sit in the class of a box or a job.
func Seated(of desk.Sort) string {
	at := classOf[of]
	return fmt.Sprintf(`SELECT coalesce((SELECT count(*) || '-' || sum(s.at) || '-' || sum(s.help) || '-' || max(s.seen) FROM classes c JOIN seats s ON s.class_id = c.id WHERE c.%[1]s = %[2]s.id), '') || EXISTS (SELECT 1 FROM classes WHERE %[1]s = %[2]s.id) FROM %[2]s`, at.column, at.table)
}
