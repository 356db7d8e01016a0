package stockroom

import (
	"context"
	"strings"

	"brevium/core/fault"
	"brevium/store/desk"
	"brevium/store/scope"
)

// longestPlace is how long a table's name may be.
const longestPlace = 60

// SetPlace sits a person at a table, by its name; "" is the workshop's own. What lies in
// the table's drawer and cupboard is theirs from now on, with all who sit there.
func (d *Stockroom) SetPlace(ctx context.Context, person int64, place string) error {
	place = strings.Join(strings.Fields(place), " ")
	if len(place) > longestPlace {
		return fault.New(fault.TooLarge, "place", "a table has a name of up to %d letters", longestPlace)
	}
	return desk.One(desk.NoPerson)(d.at.Do(ctx, scope.Workshop.SQL(`UPDATE people SET place = coalesce((SELECT place FROM people WHERE place = ?1), ?1) WHERE id = ?2`), place, person))
}

// Places are the tables at which somebody sits or something lies, the workshop's own first.
func (d *Stockroom) Places(ctx context.Context) (out []string, err error) {
	err = d.at.All(ctx, &out, scope.Workshop.SQL(`SELECT '' UNION SELECT place FROM people UNION SELECT place FROM lots WHERE count > 0 UNION SELECT place FROM goods ORDER BY 1`))
	return out, err
}
