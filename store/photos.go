package store

import (
	"context"
	"database/sql"
	"errors"
	"strings"
	"time"

	"brevium/core/fault"
	"brevium/photo"
)

// MostSent is how many sent pictures wait to be straightened; the oldest goes
// when one more comes. One waits for a day.
const (
	MostSent = 20
	sentFor  = 24 * time.Hour
)

// MostPhotos is how many photographs of papers are kept.
const MostPhotos = 400

// PutPhoto keeps a picture; sent says that it waits to be straightened.
func (s *Store) PutPhoto(ctx context.Context, p photo.Picture, sent bool) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		now := s.now()
		_, err := tx.ExecContext(ctx, `
			DELETE FROM photos WHERE sent AND (at < ? OR id NOT IN (SELECT id FROM photos WHERE sent ORDER BY at DESC LIMIT ?))`,
			now.Add(-sentFor).UnixMilli(), MostSent-1)
		if err != nil {
			return err
		}
		var n int
		if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM photos WHERE NOT sent`).Scan(&n); err != nil {
			return err
		}
		if n >= MostPhotos && !sent {
			return fault.New(fault.TooLarge, "file", "There are %d photographs of papers here already; that is the most.", MostPhotos)
		}
		return putPhoto(ctx, tx, p, sent, now)
	})
}

func putPhoto(ctx context.Context, tx *sql.Tx, p photo.Picture, sent bool, at time.Time) error {
	_, err := tx.ExecContext(ctx, `
		INSERT INTO photos (id, jpeg, wide, high, sent, at) VALUES (?, ?, ?, ?, ?, ?)
		ON CONFLICT (id) DO UPDATE SET sent = sent AND excluded.sent`, p.ID, p.JPEG, p.Wide, p.High, sent, at.UnixMilli())
	return err
}

// Photo gives a picture, or ErrNotFound.
func (s *Store) Photo(ctx context.Context, id string) (photo.Picture, error) {
	p := photo.Picture{ID: id}
	err := s.db.QueryRowContext(ctx, `SELECT jpeg, wide, high FROM photos WHERE id = ?`, strings.ToLower(id)).Scan(&p.JPEG, &p.Wide, &p.High)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	return p, err
}
