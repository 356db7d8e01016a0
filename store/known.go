package store

import (
	"context"
	"database/sql"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"slices"

	"github.com/pressly/goose/v3"
)

// appID marks a database as Brevium's ("Brev"); those of before the migration that sets it
// have none.
const appID = 0x42726576

// known reports whether a database has the tables that this program made in the version it
// says it is of, and nothing else: no trigger, view or computed column of anybody else's, which
// would be run when it is brought up to date or read. The file is read and not changed.
func known(ctx context.Context, file string) (bool, error) {
	db, err := sql.Open("sqlite", source(file, "query_only(1)", "trusted_schema(0)"))
	if err != nil {
		return false, err
	}
	defer db.Close()
	has, err := schemaOf(ctx, db)
	if err != nil {
		return false, err
	}
	if has["table goose_db_version"] == "" {
		return false, nil
	}
	var id, version int64
	if err := db.QueryRowContext(ctx, `PRAGMA application_id`).Scan(&id); err != nil {
		return false, err
	}
	if err := db.QueryRowContext(ctx, `SELECT coalesce(max(version_id), 0) FROM goose_db_version`).Scan(&version); err != nil {
		return false, err
	}
	if id != 0 && id != appID {
		return false, nil
	}
	is, newer, err := schemaAt(ctx, version)
	if newer {
		return true, nil // it is refused as a newer one's when it is opened
	}
	return err == nil && maps.Equal(has, is), err
}

// schemaOf is what a database says of its tables, indexes, triggers and views, by kind and
// name.
func schemaOf(ctx context.Context, db *sql.DB) (map[string]string, error) {
	rows, err := db.QueryContext(ctx, `SELECT type, name, coalesce(sql, '') FROM sqlite_schema WHERE name NOT LIKE 'sqlite\_%' ESCAPE '\'`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := map[string]string{}
	for rows.Next() {
		var kind, name, text string
		if err := rows.Scan(&kind, &name, &text); err != nil {
			return nil, err
		}
		out[kind+" "+name] = text
	}
	return out, rows.Err()
}

// schemaAt is what this program's databases of a version say; newer where it knows no such
// version.
func schemaAt(ctx context.Context, version int64) (is map[string]string, newer bool, err error) {
	folder, err := os.MkdirTemp("", "brevium-schema-")
	if err != nil {
		return nil, false, err
	}
	defer os.RemoveAll(folder)
	db, err := sql.Open("sqlite", source(filepath.Join(folder, "empty.db"), "synchronous(OFF)"))
	if err != nil {
		return nil, false, err
	}
	defer db.Close()
	up, err := migrationsOf(db)
	if err != nil {
		return nil, false, err
	}
	all := up.ListSources()
	if version > all[len(all)-1].Version {
		return nil, true, nil
	}
	if !slices.ContainsFunc(all, func(m *goose.Source) bool { return m.Version == version }) {
		return nil, false, fmt.Errorf("there is no version %d", version)
	}
	if _, err := up.UpTo(ctx, version); err != nil {
		return nil, false, err
	}
	is, err = schemaOf(ctx, db)
	return is, false, err
}
