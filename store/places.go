package store

import (
	"context"
	"database/sql"
	"strings"

	"brevium/core/fault"
)

// longestPlace is how long a table's name may be.
const longestPlace = 60

// SetPlace sits a person at a table, by its name; "" is the workshop's own. What lies in
// the table's drawer and cupboard is theirs from now on, with all who sit there.
func (s *Store) SetPlace(ctx context.Context, person int64, place string) error {
	place = strings.Join(strings.Fields(place), " ")
	if len(place) > longestPlace {
		return fault.New(fault.TooLarge, "place", "a table has a name of up to %d letters", longestPlace)
	}
	return s.person(ctx, person, `UPDATE people SET place = coalesce((SELECT place FROM people WHERE place = ?1), ?1) WHERE id = ?2`, place, person)
}

// Places are the tables at which somebody sits or something lies, the workshop's own first.
func (s *Store) Places(ctx context.Context) ([]string, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT '' UNION SELECT place FROM people UNION SELECT place FROM lots WHERE count > 0 UNION SELECT place FROM goods ORDER BY 1`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []string
	for rows.Next() {
		var place string
		if err := rows.Scan(&place); err != nil {
			return nil, err
		}
		out = append(out, place)
	}
	return out, rows.Err()
}

// place is the table of the asker, "" for the workshop's own: what is new in a drawer or a
// cupboard lies there.
func (s *Store) place(ctx context.Context, tx *sql.Tx) (place string, err error) {
	if id := s.who(ctx); id > 0 {
		err = tx.QueryRowContext(ctx, `SELECT place FROM people WHERE id = ?`, id).Scan(&place)
	}
	return place, err
}

// here is the condition that a row lies at the asker's table. One maker alone has all.
func (s *Store) here(ctx context.Context, before string) string {
	return s.asks(ctx, "%splace = (SELECT place FROM people WHERE id = %d)", before)
}
