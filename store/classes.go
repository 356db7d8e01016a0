package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"
	"time"

	"brevium/core/fault"
	"brevium/core/people"
)

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
var classOf = map[Sort]struct{ column, table string }{BoxSort: {"box_id", "boxes"}, JobSort: {"job_id", "jobs"}}

// OpenClass lets a class follow one's own box or job until a time; one that is open stays.
func (s *Store) OpenClass(ctx context.Context, of Sort, id int64, until time.Time) error {
	at, known := classOf[of]
	if !known {
		return ErrNotFound
	}
	return s.in(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM classes WHERE until < ?`, s.now().UnixMilli()); err != nil {
			return err
		}
		seed, mark := s.newSeed(classUse)
		return one(tx.ExecContext(ctx, fmt.Sprintf(`
			INSERT INTO classes (%[1]s, seed, mark, until) SELECT id, ?, ?, ? FROM %[2]s WHERE id = ? AND deleted_at IS NULL%[3]s
			ON CONFLICT (%[1]s) DO UPDATE SET until = excluded.until`, at.column, at.table, s.own(ctx, "")), seed, mark, until.UnixMilli(), id))
	})
}

// CloseClass ends it; who sat in it is forgotten.
func (s *Store) CloseClass(ctx context.Context, of Sort, id int64) error {
	at, known := classOf[of]
	if !known {
		return ErrNotFound
	}
	return one(s.exec(ctx, fmt.Sprintf(`DELETE FROM classes WHERE %s IN (SELECT id FROM %s WHERE id = ?%s)`, at.column, at.table, s.own(ctx, "")), id))
}

const classColumns = `SELECT id, coalesce(box_id, 0), coalesce(job_id, 0), seed, until FROM classes`

func (s *Store) scanClass(row *sql.Row) (Class, error) {
	var c Class
	var until int64
	var seed string
	err := row.Scan(&c.ID, &c.Box, &c.Job, &seed, &until)
	c.Code = s.codeOfSeed(classUse, seed)
	if c.Until = time.UnixMilli(until); errors.Is(err, sql.ErrNoRows) || err == nil && !s.now().Before(c.Until) {
		return Class{}, ErrNotFound
	}
	return c, err
}

// ClassOf is the open class of a box or a job that one sees; ErrNotFound where there is none.
func (s *Store) ClassOf(ctx context.Context, of Sort, id int64) (Class, error) {
	at, known := classOf[of]
	if !known {
		return Class{}, ErrNotFound
	}
	return s.scanClass(s.db.QueryRowContext(ctx, fmt.Sprintf(classColumns+` WHERE %s IN (SELECT id FROM %s WHERE id = ? AND deleted_at IS NULL%s)`, at.column, at.table, s.seen(ctx, "")), id))
}

// ClassBy is the class that a code leads to, what it makes and the boxes of that; who
// follows needs no name here.
func (s *Store) ClassBy(ctx context.Context, code string) (c Class, name string, boxes []Box, err error) {
	if c, err = s.scanClass(s.db.QueryRowContext(ctx, classColumns+` WHERE mark = ?`, people.MarkOf(code))); err != nil {
		return c, "", nil, err
	}
	if c.Job == 0 {
		b, err := scan(s.db.QueryRowContext(ctx, `SELECT `+columns+fromBoxes+`WHERE b.id = ? AND b.deleted_at IS NULL`, c.Box))
		return c, b.Name, []Box{b}, err
	}
	j, err := scanJob(s.db.QueryRowContext(ctx, `SELECT `+jobColumns+` FROM jobs WHERE id = ? AND deleted_at IS NULL`, c.Job))
	if err != nil {
		return c, "", nil, err
	}
	for _, it := range j.Items { // a box of somebody else only while it is shared
		b, err := scan(s.db.QueryRowContext(ctx, `SELECT `+columns+fromBoxes+`WHERE b.id = ? AND b.deleted_at IS NULL AND (b.maker = ? OR b.shared)`, it.Box, j.Maker))
		if errors.Is(err, ErrNotFound) {
			continue
		}
		if err != nil {
			return c, "", nil, err
		}
		boxes = append(boxes, b)
	}
	if len(boxes) == 0 {
		err = ErrNotFound
	}
	return c, j.Name, boxes, err
}

// Sit gives a seat in a class under a name that nobody else has there, and the token that
// it is known by. before is the token of the seat that the device has already, or "".
func (s *Store) Sit(ctx context.Context, class int64, name, before string) (token string, err error) {
	code := people.NewCode()
	err = s.in(ctx, func(tx *sql.Tx) error {
		device := code.Mark
		if before != "" {
			err := tx.QueryRowContext(ctx, `SELECT device FROM seats WHERE class_id = ? AND token = ?`, class, people.MarkOf(before)).Scan(&device)
			if err != nil && !errors.Is(err, sql.ErrNoRows) {
				return err
			}
			var n int
			if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM seats WHERE class_id = ? AND device = ?`, class, device).Scan(&n); err != nil {
				return err
			}
			if n >= mostOnDevice {
				return fault.New(fault.TooLarge, "name", "this device has %d seats already, as many as one may have", n)
			}
		}
		if err := s.freeSeat(ctx, tx, class); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO seats (class_id, name, token, device, seen) VALUES (?, ?, ?, ?, ?)`, class, name, code.Mark, device, s.now().UnixMilli())
		if err != nil && strings.Contains(err.Error(), "UNIQUE") {
			return fault.New(fault.Invalid, "name", "somebody in this class is called %q already; add a letter, or take a colour", name)
		}
		return err
	})
	return code.Text, err
}

// freeSeat refuses one more where all seats are taken and used; of those that are not, the one
// that was heard of longest ago comes free.
func (s *Store) freeSeat(ctx context.Context, tx *sql.Tx, class int64) error {
	var n int
	if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM seats WHERE class_id = ?`, class).Scan(&n); err != nil || n < MostSeats {
		return err
	}
	now := s.now()
	r, err := tx.ExecContext(ctx, `
		DELETE FROM seats WHERE id = (SELECT id FROM seats WHERE class_id = ? AND (seen < ? OR at = 0 AND help = 0 AND seen < ?) ORDER BY seen LIMIT 1)`,
		class, now.Add(-unheardFor).UnixMilli(), now.Add(-unusedFor).UnixMilli())
	if err != nil {
		return err
	}
	if freed, err := r.RowsAffected(); err != nil || freed > 0 {
		return err
	}
	return fault.New(fault.TooLarge, "name", "this class has %d seats, and all are taken; whoever teaches can free one", MostSeats)
}

// FreeSeat takes a seat away in a class of one's own.
func (s *Store) FreeSeat(ctx context.Context, of Sort, id, seat int64) error {
	at, known := classOf[of]
	if !known {
		return ErrNotFound
	}
	return one(s.exec(ctx, fmt.Sprintf(`DELETE FROM seats WHERE id = ? AND class_id IN (SELECT c.id FROM classes c JOIN %[2]s x ON x.id = c.%[1]s WHERE x.id = ?%[3]s)`, at.column, at.table, s.own(ctx, "x.")), seat, id))
}

// StandUp gives one's own seat back.
func (s *Store) StandUp(ctx context.Context, seat int64) error {
	return one(s.exec(ctx, `DELETE FROM seats WHERE id = ?`, seat))
}

const seatColumns = `id, name, at, help, seen`

func scanSeat(row interface{ Scan(...any) error }) (Seat, error) {
	var x Seat
	var seen int64
	err := row.Scan(&x.ID, &x.Name, &x.At, &x.Help, &seen)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	x.Seen = time.UnixMilli(seen)
	return x, err
}

// SeatBy is the seat of a class that a token is of.
func (s *Store) SeatBy(ctx context.Context, class int64, token string) (Seat, error) {
	return scanSeat(s.db.QueryRowContext(ctx, `SELECT `+seatColumns+` FROM seats WHERE class_id = ? AND token = ?`, class, people.MarkOf(token)))
}

// Move keeps the move that one is at, and whether help is asked for.
func (s *Store) Move(ctx context.Context, seat int64, at int, help bool) error {
	return one(s.exec(ctx, `UPDATE seats SET at = ?, help = ?, seen = ? WHERE id = ?`, at, help, s.now().UnixMilli(), seat))
}

// Seats are all of a class, those who ask for help first, by name.
func (s *Store) Seats(ctx context.Context, class int64) ([]Seat, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+seatColumns+` FROM seats WHERE class_id = ? ORDER BY help DESC, name`, class)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Seat
	for rows.Next() {
		x, err := scanSeat(rows)
		if err != nil {
			return nil, err
		}
		out = append(out, x)
	}
	return out, rows.Err()
}
