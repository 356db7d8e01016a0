package store

import (
	"context"
	"database/sql"
	"strconv"

	"brevium/core/logbook"
)

// Tick is a step that is ticked off, and what it said when it was.
type Tick struct{ Step, Mark string }

// BenchAt is the key beside the ticks under which the move is kept that a maker
// stands at.
const BenchAt = "bench/at"

// Stand is what one move at the bench changes: the move one stands at after it, the
// steps ticked off and those no more, and how long the step was worked on; a time
// without seconds is none.
type Stand struct {
	At     int
	Done   []Tick
	Undone []string
	Step   string
	Took   logbook.Took
}

// mostTimes is how many times are asked for; older ones say little of today's pace.
const mostTimes = 5000

// Stand keeps a move at the bench, in one transaction.
func (s *Store) Stand(ctx context.Context, box int64, to Stand) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		if _, _, _, err := s.present(ctx, tx, box); err != nil {
			return err
		}
		now := s.now().UnixMilli()
		tick := func(step, mark string) error {
			_, err := tx.ExecContext(ctx, `
				INSERT INTO ticks (box_id, step, mark, at) VALUES (?1, ?2, ?3, ?4)
				ON CONFLICT (box_id, step) DO UPDATE SET mark = ?3, at = ?4`, box, step, mark, now)
			return err
		}
		for _, t := range to.Done {
			if err := tick(t.Step, t.Mark); err != nil {
				return err
			}
		}
		for _, step := range to.Undone {
			if _, err := tx.ExecContext(ctx, `DELETE FROM ticks WHERE box_id = ? AND step = ?`, box, step); err != nil {
				return err
			}
		}
		if t := to.Took; t.Seconds > 0 && t.Usual > 0 {
			_, err := tx.ExecContext(ctx, `
				INSERT INTO times (box_id, step, kind, seconds, usual, at) VALUES (?1, ?2, ?3, ?4, ?5, ?6)
				ON CONFLICT (box_id, step) DO UPDATE SET seconds = seconds + ?4, usual = usual + ?5, at = ?6`,
				box, to.Step, t.Kind, t.Seconds, t.Usual, now)
			if err != nil {
				return err
			}
		}
		return tick(BenchAt, strconv.Itoa(to.At))
	})
}

// Times lists how long steps took, those of one box, or of all for 0: the latest
// first.
func (s *Store) Times(ctx context.Context, box int64) ([]logbook.Took, error) {
	rows, err := s.db.QueryContext(ctx, `
		SELECT kind, seconds, usual FROM times WHERE (?1 = 0 OR box_id = ?1)`+s.ofBox(ctx)+` ORDER BY at DESC LIMIT ?2`, box, mostTimes)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []logbook.Took
	for rows.Next() {
		var t logbook.Took
		if err := rows.Scan(&t.Kind, &t.Seconds, &t.Usual); err != nil {
			return nil, err
		}
		out = append(out, t)
	}
	return out, rows.Err()
}
