package store

import (
	"context"
	"strings"

	"brevium/core/fault"
	"brevium/store/scope"
)

// longestPlace is how long a table's name may be.
const longestPlace = 60

// SetPlace sits a person at a table, by its name; "" is the workshop's own. What lies in
// the table's drawer and cupboard is theirs from now on, with all who sit there.
func (d *Desk) SetPlace(ctx context.Context, person int64, place string) error {
	place = strings.Join(strings.Fields(place), " ")
	if len(place) > longestPlace {
		return fault.New(fault.TooLarge, "place", "a table has a name of up to %d letters", longestPlace)
	}
	return one(noPerson)(d.at.Do(ctx, scope.Workshop.SQL(`UPDATE people SET place = coalesce((SELECT place FROM people WHERE place = ?1), ?1) WHERE id = ?2`), place, person))
}

// Places are the tables at which somebody sits or something lies, the workshop's own first.
func (d *Desk) Places(ctx context.Context) (out []string, err error) {
	err = d.at.All(ctx, &out, scope.Workshop.SQL(`SELECT '' UNION SELECT place FROM people UNION SELECT place FROM lots WHERE count > 0 UNION SELECT place FROM goods ORDER BY 1`))
	return out, err
}

// place is the table of the asker, "" for the workshop's own: what is new in a drawer or a
// cupboard lies there.
func (d *Desk) place(ctx context.Context, tx *scope.Tx) (place string, err error) {
	if d.at.Asker > 0 {
		err = tx.Get(ctx, &place, scope.Own.SQL(`SELECT place FROM people WHERE id = {me}`))
	}
	return place, err
}
