package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"math/rand/v2"

	"brevium/core/fault"
	"brevium/core/people"
)

// Workshop makes the store a workshop's: from now on every read and write is of the
// person of its context, who gets their own and what is shared, and a context of nobody
// gets nothing. What one maker made alone before becomes the first steward's. Codes that are
// shown again are made with the pepper, which is not kept here.
func (s *Store) Workshop(ctx context.Context, pepper people.Pepper) error {
	s.pepper = pepper
	s.shop.Store(true)
	return s.in(ctx, func(tx *sql.Tx) error { return adopt(ctx, tx) })
}

// adopt gives what is of nobody who is known here to the first steward, if there is one.
func adopt(ctx context.Context, tx *sql.Tx) error {
	var steward sql.NullInt64
	if err := tx.QueryRowContext(ctx, `SELECT min(id) FROM people WHERE role = 'steward' AND struck = 0`).Scan(&steward); err != nil || !steward.Valid {
		return err
	}
	if _, err := tx.ExecContext(ctx, `INSERT OR IGNORE INTO photo_makers (photo, maker) SELECT id, ? FROM photos WHERE id NOT IN (SELECT photo FROM photo_makers)`, steward.Int64); err != nil {
		return err
	}
	return give(ctx, tx, `maker NOT IN (SELECT id FROM people)`, steward.Int64)
}

// give makes rows, of which a condition is true, a person's. Of a thing that they keep
// already nothing is given.
func give(ctx context.Context, tx *sql.Tx, which string, to int64) error {
	for _, table := range []string{"boxes", "jobs", "notes", "things", "photo_makers"} {
		if _, err := tx.ExecContext(ctx, fmt.Sprintf(`UPDATE OR IGNORE %s SET maker = ? WHERE %s`, table, which), to); err != nil {
			return err
		}
	}
	return nil
}

// who is the person that something is asked for: 0 where one maker works alone, −1 for
// nobody.
func (s *Store) who(ctx context.Context) int64 {
	if !s.shop.Load() {
		return 0
	}
	if id := people.Of(ctx).ID; id > 0 {
		return id
	}
	return -1
}

// own is the condition, added to others, that a row is the asker's own. before is what
// its columns are called by, such as "b.".
func (s *Store) own(ctx context.Context, before string) string {
	if id := s.who(ctx); id != 0 {
		return fmt.Sprintf(" AND %smaker = %d", before, id)
	}
	return ""
}

// seen is the condition that a row is the asker's own, or shared.
func (s *Store) seen(ctx context.Context, before string) string {
	return s.asks(ctx, "(%[1]smaker = %[2]d OR %[1]sshared)", before)
}

// asks is a condition, added to others, of what columns are called by and the asker's number:
// none where one maker works alone, and never true for nobody.
func (s *Store) asks(ctx context.Context, condition, before string) string {
	switch id := s.who(ctx); {
	case id == 0:
		return ""
	case id < 0:
		return " AND 0"
	default:
		return " AND " + fmt.Sprintf(condition, before, id)
	}
}

// ofBox is the condition that a row's box is seen.
func (s *Store) ofBox(ctx context.Context) string {
	if s.who(ctx) == 0 {
		return ""
	}
	return " AND box_id IN (SELECT b.id FROM boxes b WHERE 1" + s.seen(ctx, "b.") + ")"
}

// number is a number for a new row: of one maker's the next, of a workshop's any, so that
// those of others cannot be guessed.
func (s *Store) number(ctx context.Context) any {
	if s.who(ctx) == 0 {
		return nil
	}
	return rand.Int64N(1<<52) + 1
}

// most is how many rows of a table one has in a workshop, those in the bin among them.
var most = map[string]int{"boxes": 2000, "jobs": 300, "things": 500, "notes": 5000}

// count is how many rows of a table the asker has.
func (s *Store) count(ctx context.Context, tx *sql.Tx, table string) (n int, err error) {
	err = tx.QueryRowContext(ctx, `SELECT count(*) FROM `+table+` WHERE 1`+s.own(ctx, "")).Scan(&n)
	return n, err
}

// roomFor refuses one more row where the asker has as many as one may.
func (s *Store) roomFor(ctx context.Context, tx *sql.Tx, table string) error {
	if s.who(ctx) <= 0 {
		return nil
	}
	n, err := s.count(ctx, tx, table)
	if err != nil {
		return err
	}
	if n >= most[table] {
		return fault.New(fault.TooLarge, "", "You have %d %s, as many as one has in a workshop. Delete some for good to make room.", n, table)
	}
	return nil
}

// hasRoom refuses what made the asker's rows more than one may have.
func (s *Store) hasRoom(ctx context.Context, tx *sql.Tx) error {
	if s.who(ctx) <= 0 {
		return nil
	}
	for table, may := range most {
		n, err := s.count(ctx, tx, table)
		if err != nil {
			return err
		}
		if n > may {
			return fault.New(fault.TooLarge, "file", "With these you would have %d %s, and one has up to %d in a workshop. Nothing was taken.", n, table, may)
		}
	}
	return nil
}

// Share lets everybody in the workshop work on a box or a job of one's own, or no more.
// The boxes of a job are shared with it.
func (s *Store) Share(ctx context.Context, sort Sort, id int64, shared bool) error {
	table := map[Sort]string{BoxSort: "boxes", JobSort: "jobs"}[sort]
	if table == "" {
		return ErrNotFound
	}
	return s.in(ctx, func(tx *sql.Tx) error {
		if err := one(tx.ExecContext(ctx, fmt.Sprintf(`UPDATE %s SET shared = ? WHERE id = ? AND deleted_at IS NULL%s`, table, s.own(ctx, "")), shared, id)); err != nil {
			return err
		}
		if sort == JobSort && shared {
			return s.shareBoxes(ctx, tx, id)
		}
		return nil
	})
}

// shareBoxes shares the asker's boxes that a shared job makes.
func (s *Store) shareBoxes(ctx context.Context, tx *sql.Tx, job int64) error {
	if s.who(ctx) == 0 {
		return nil
	}
	var shared bool
	var text []byte
	if err := tx.QueryRowContext(ctx, `SELECT shared, items FROM jobs WHERE id = ?`, job).Scan(&shared, &text); err != nil || !shared {
		return err
	}
	var items []JobItem
	if err := json.Unmarshal(text, &items); err != nil {
		return err
	}
	for _, it := range items {
		if _, err := tx.ExecContext(ctx, `UPDATE boxes SET shared = 1 WHERE id = ?`+s.own(ctx, ""), it.Box); err != nil {
			return err
		}
	}
	return nil
}
