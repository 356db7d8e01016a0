package stockroom

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"

	"brevium/store/desk"
	"brevium/store/scope"
)

// Setting reads a setting of a name into a value, which stays as it is when it was
// never set, or when what was brought from elsewhere is no such value.
func (d *Stockroom) Setting(ctx context.Context, name string, into any) error {
	var text []byte
	err := d.at.Get(ctx, &text, scope.Own.SQL(`SELECT value FROM settings WHERE name IN (`+ownSetting+`, ?1) ORDER BY name = ?1 LIMIT 1`), name)
	if errors.Is(err, sql.ErrNoRows) {
		return nil
	}
	if err != nil {
		return err
	}
	desk.ReadKept(text, into)
	return nil
}

// ownSetting is what a setting ?1 of the asker is kept under: in a workshop each has their own, and
// until they set it that of whoever worked here alone.
const ownSetting = `CASE {alone} WHEN 1 THEN '' ELSE '@' || {asker} || '/' END || ?1`

// Set keeps a setting.
func (d *Stockroom) Set(ctx context.Context, name string, value any) error {
	text, err := json.Marshal(value)
	if err != nil {
		return err
	}
	_, err = d.at.Do(ctx, scope.Own.SQL(`INSERT INTO settings (name, value) VALUES (`+ownSetting+`, ?2) ON CONFLICT (name) DO UPDATE SET value = ?2`), name, string(text))
	return err
}
