package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
)

// Setting reads a setting of a name into a value, which stays as it is when it was
// never set, or when what was brought from elsewhere is no such value.
func (s *Store) Setting(ctx context.Context, name string, into any) error {
	var text []byte
	err := s.db.QueryRowContext(ctx, `SELECT value FROM settings WHERE name IN (?1, ?2) ORDER BY name <> ?1 LIMIT 1`, s.named(ctx, name), name).Scan(&text)
	if errors.Is(err, sql.ErrNoRows) {
		return nil
	}
	if err != nil {
		return err
	}
	readKept(text, into)
	return nil
}

// readKept reads what was kept into a value; what is no such value leaves it as it is.
func readKept(text []byte, into any) {
	kept := reflect.ValueOf(into).Elem()
	fresh := reflect.New(kept.Type())
	fresh.Elem().Set(kept)
	if json.Unmarshal(text, fresh.Interface()) == nil {
		kept.Set(fresh.Elem())
	}
}

// Set keeps a setting.
func (s *Store) Set(ctx context.Context, name string, value any) error {
	text, err := json.Marshal(value)
	if err != nil {
		return err
	}
	_, err = s.exec(ctx, `INSERT INTO settings (name, value) VALUES (?1, ?2) ON CONFLICT (name) DO UPDATE SET value = ?2`, s.named(ctx, name), string(text))
	return err
}

// named is what a setting is kept under: in a workshop each has their own, and until they
// set it that of whoever worked here alone.
func (s *Store) named(ctx context.Context, name string) string {
	if id := s.who(ctx); id != 0 {
		return fmt.Sprintf("@%d/%s", id, name)
	}
	return name
}
