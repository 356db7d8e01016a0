package boxshelf

import (
	"context"
	"strconv"

	"brevium/core/logbook"
	"brevium/store/scope"
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
func (d *Shelf) Stand(ctx context.Context, box int64, to Stand) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		if _, err := d.present(ctx, tx, box); err != nil {
			return err
		}
		now := d.at.Now()
		for _, t := range to.Done {
			if err := tick(ctx, tx, box, t, now); err != nil {
				return err
			}
		}
		for _, step := range to.Undone {
			if err := untick(ctx, tx, box, step, d.at.Now()); err != nil {
				return err
			}
		}
		if t := to.Took; t.Seconds > 0 && t.Usual > 0 {
			_, err := tx.Do(ctx, scope.Held.SQL(`
				INSERT INTO times (box_id, step, kind, seconds, usual, at) VALUES (?1, ?2, ?3, ?4, ?5, ?6)
				ON CONFLICT (box_id, step) DO UPDATE SET seconds = seconds + ?4, usual = usual + ?5, at = ?6`),
				box, to.Step, t.Kind, t.Seconds, t.Usual, now.UnixMilli())
			if err != nil {
				return err
			}
		}
		return tick(ctx, tx, box, Tick{BenchAt, strconv.Itoa(to.At)}, now)
	})
}

// Times lists how long steps took, those of one box, or of all for 0: the latest
// first.
func (d *Shelf) Times(ctx context.Context, box int64) (out []logbook.Took, err error) {
	err = d.at.All(ctx, &out, scope.Seen.SQL(`
		SELECT kind, seconds, usual FROM times WHERE (?1 = 0 OR box_id = ?1) AND `+ofBox+` ORDER BY at DESC LIMIT ?2`), box, mostTimes)
	return out, err
}
