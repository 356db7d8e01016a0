package store

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"brevium/core/fault"
)

// Passkey is a key of a device that a person signs in with; Key is the JSON that it is
// checked against.
type Passkey struct {
	ID     []byte
	Person int64
	Key    []byte
	Since  time.Time
}

const mostPasskeys = 20

func scanPasskey(row interface{ Scan(...any) error }) (Passkey, error) {
	var k Passkey
	var since int64
	err := row.Scan(&k.ID, &k.Person, &k.Key, &since)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	k.Since = time.UnixMilli(since)
	return k, err
}

// Passkeys are those of a person, the first before all.
func (s *Store) Passkeys(ctx context.Context, person int64) ([]Passkey, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, person, key, since FROM passkeys WHERE person = ? ORDER BY since, id`, person)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Passkey
	for rows.Next() {
		k, err := scanPasskey(rows)
		if err != nil {
			return nil, err
		}
		out = append(out, k)
	}
	return out, rows.Err()
}

// PasskeyBy is the one of an id.
func (s *Store) PasskeyBy(ctx context.Context, id []byte) (Passkey, error) {
	return scanPasskey(s.db.QueryRowContext(ctx, `SELECT id, person, key, since FROM passkeys WHERE id = ?`, id))
}

// AddPasskey keeps a new one; that of another person stays theirs.
func (s *Store) AddPasskey(ctx context.Context, k Passkey) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		var n int
		if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM passkeys WHERE person = ?`, k.Person).Scan(&n); err != nil {
			return err
		}
		if n >= mostPasskeys {
			return fault.New(fault.TooLarge, "", "You have %d passkeys; take one away first.", n)
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO passkeys (id, person, key, since) VALUES (?, ?, ?, ?)`, k.ID, k.Person, string(k.Key), s.now().UnixMilli())
		return err
	})
}

// UsePasskey keeps what signing in has changed of one, such as how often it was used.
func (s *Store) UsePasskey(ctx context.Context, id, key []byte) error {
	return one(s.exec(ctx, `UPDATE passkeys SET key = ? WHERE id = ?`, string(key), id))
}

// DropPasskey takes one of a person away.
func (s *Store) DropPasskey(ctx context.Context, person int64, id []byte) error {
	return one(s.exec(ctx, `DELETE FROM passkeys WHERE person = ? AND id = ?`, person, id))
}
