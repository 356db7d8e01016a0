package desk

import (
	"context"

	"brevium/store/scope"
)

const NoJob Absent = "job"

// JobPlace is the table whose drawer and cupboard a job was begun from.
func JobPlace(ctx context.Context, tx *scope.Tx, job int64) (place string, err error) {
	err = tx.Get(ctx, &place, scope.Held.SQL(`SELECT place FROM jobs WHERE id = ?`), job)
	return place, err
}
