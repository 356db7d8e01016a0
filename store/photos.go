package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"
	"time"

	"brevium/core/fault"
	"brevium/core/paper"
	"brevium/photo"
)

// MostSent is how many sent pictures of one person wait to be straightened; the oldest of theirs
// goes when one more comes. One waits for a day.
const (
	MostSent = 20
	sentFor  = 24 * time.Hour
)

// MostPhotos is how many photographs are kept, and MostPhotosEach how many of one person in
// a workshop.
const (
	MostPhotos     = 400
	MostPhotosEach = 100
)

// PutPhoto keeps a picture; sent says that it waits to be straightened.
func (s *Store) PutPhoto(ctx context.Context, p photo.Picture, sent bool) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		now, most, of := s.now(), MostPhotos, ""
		if who := s.who(ctx); who != 0 {
			most, of = MostPhotosEach, fmt.Sprintf(` AND id IN (SELECT photo FROM photo_makers WHERE maker = %d)`, who)
		}
		_, err := tx.ExecContext(ctx, `
			DELETE FROM photos WHERE sent AND (at < ? OR id IN (SELECT id FROM photos WHERE sent`+of+` ORDER BY at DESC LIMIT -1 OFFSET ?))`,
			now.Add(-sentFor).UnixMilli(), MostSent-1)
		if err != nil {
			return err
		}
		var n int
		if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM photos WHERE NOT sent`+of).Scan(&n); err != nil {
			return err
		}
		if n >= most && !sent {
			return fault.New(fault.TooLarge, "file", "There are %d photographs here already; that is the most.", most)
		}
		return s.keepPhoto(ctx, tx, p, sent, now)
	})
}

// keepPhoto keeps a picture as the asker's.
func (s *Store) keepPhoto(ctx context.Context, tx *sql.Tx, p photo.Picture, sent bool, at time.Time) error {
	_, err := tx.ExecContext(ctx, `
		INSERT INTO photos (id, jpeg, wide, high, sent, at) VALUES (?, ?, ?, ?, ?, ?)
		ON CONFLICT (id) DO UPDATE SET sent = sent AND excluded.sent`, p.ID, p.JPEG, p.Wide, p.High, sent, at.UnixMilli())
	if who := s.who(ctx); err == nil && who > 0 {
		_, err = tx.ExecContext(ctx, `INSERT OR IGNORE INTO photo_makers (photo, maker) VALUES (?, ?)`, p.ID, who)
	}
	return err
}

// Photo gives a picture, or ErrNotFound. In a workshop it is of who sent it, and is seen
// where a box or a paper shows it that one sees.
func (s *Store) Photo(ctx context.Context, id string) (photo.Picture, error) {
	p := photo.Picture{ID: id}
	err := s.db.QueryRowContext(ctx, `SELECT jpeg, wide, high FROM photos p WHERE id = ?`+s.shown(ctx), strings.ToLower(id)).Scan(&p.JPEG, &p.Wide, &p.High)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	return p, err
}

// shown is the condition that a photograph p is the asker's, or shown in what they see, by one
// whose it is too: naming one in a box of one's own shows nothing. What everybody sees by a link
// or in a class is among it.
func (s *Store) shown(ctx context.Context) string {
	who := s.who(ctx)
	if who == 0 {
		return ""
	}
	return fmt.Sprintf(` AND (EXISTS (SELECT 1 FROM photo_makers m WHERE m.photo = p.id AND m.maker = %d)
		OR EXISTS (SELECT 1 FROM boxes b JOIN photo_makers m ON m.maker = b.maker AND m.photo = p.id WHERE b.deleted_at IS NULL AND instr(b.inputs, p.id) AND (1%s
			OR b.link_mark IS NOT NULL
			OR EXISTS (SELECT 1 FROM classes c LEFT JOIN jobs j ON j.id = c.job_id WHERE c.until > %d AND
				(c.box_id = b.id OR EXISTS (SELECT 1 FROM json_each(j.items) i WHERE i.value ->> 'box' = b.id)))))
		OR EXISTS (SELECT 1 FROM lots l WHERE 1%s AND instr(l.look, p.id)))`, who, s.seen(ctx, "b."), s.now().UnixMilli(), s.here(ctx, "l."))
}

// claim makes the photographs that a text names, and that the asker sees, a person's too: what
// is put into somebody's box, or copied into one's own, stays seen there.
func (s *Store) claim(ctx context.Context, tx *sql.Tx, text string, whose int64) error {
	if s.who(ctx) <= 0 || !strings.Contains(text, `"photo"`) {
		return nil
	}
	_, err := tx.ExecContext(ctx, `INSERT OR IGNORE INTO photo_makers (photo, maker) SELECT p.id, ? FROM photos p WHERE instr(?, p.id)`+s.shown(ctx), whose, text)
	return err
}

// seenLook is a look without its photograph, where the asker does not see that: a paper in the
// drawer shows what is on it to a whole table.
func (s *Store) seenLook(ctx context.Context, tx *sql.Tx, l paper.Look) (paper.Look, error) {
	if l.Photo.ID == "" || s.who(ctx) == 0 {
		return l, nil
	}
	var hidden bool
	err := tx.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM photos WHERE id = ?1) AND NOT EXISTS (SELECT 1 FROM photos p WHERE id = ?1`+s.shown(ctx)+`)`, l.Photo.ID).Scan(&hidden)
	if hidden {
		l.Photo = paper.Photo{}
	}
	return l, err
}
