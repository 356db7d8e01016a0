package store

import (
	"context"
	"strings"
	"time"

	"brevium/core/fault"
	"brevium/core/paper"
	"brevium/photo"
	"brevium/store/scope"
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

// photosOf is the condition that a photograph is the asker's; of one maker alone all are.
const photosOf = `({alone} OR id IN (SELECT photo FROM photo_makers WHERE maker = {me}))`

// PutPhoto keeps a picture; sent says that it waits to be straightened.
func (d *Desk) PutPhoto(ctx context.Context, p photo.Picture, sent bool) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		now, most := d.s.now(), MostPhotos
		if d.at.Asker != scope.Alone {
			most = MostPhotosEach
		}
		_, err := tx.Do(ctx, scope.Own.SQL(`
			DELETE FROM photos WHERE sent AND (at < ? OR id IN (SELECT id FROM photos WHERE sent AND `+photosOf+` ORDER BY at DESC LIMIT -1 OFFSET ?))`),
			now.Add(-sentFor).UnixMilli(), MostSent-1)
		if err != nil {
			return err
		}
		var n int
		if err := tx.Get(ctx, &n, scope.Own.SQL(`SELECT count(*) FROM photos WHERE NOT sent AND `+photosOf)); err != nil {
			return err
		}
		if n >= most && !sent {
			return fault.New(fault.TooLarge, "file", "There are %d photographs here already; that is the most.", most)
		}
		return keepPhoto(ctx, tx, p, sent, now)
	})
}

// keepPhoto keeps a picture as the asker's.
func keepPhoto(ctx context.Context, tx *scope.Tx, p photo.Picture, sent bool, at time.Time) error {
	_, err := tx.Do(ctx, scope.Workshop.SQL(`
		INSERT INTO photos (id, jpeg, wide, high, sent, at) VALUES (?, ?, ?, ?, ?, ?)
		ON CONFLICT (id) DO UPDATE SET sent = sent AND excluded.sent`), p.ID, p.JPEG, p.Wide, p.High, sent, at.UnixMilli())
	if err == nil && tx.Asker > 0 {
		_, err = tx.Do(ctx, scope.Own.SQL(`INSERT OR IGNORE INTO photo_makers (photo, maker) VALUES (?, {me})`), p.ID)
	}
	return err
}

// Photo gives a picture, or an ErrNotFound. In a workshop it is of who sent it, and is seen
// where a box or a paper shows it that one sees.
func (d *Desk) Photo(ctx context.Context, id string) (photo.Picture, error) {
	p := photo.Picture{ID: id}
	err := d.at.Get(ctx, &p, scope.Seen.SQL(`SELECT jpeg, wide, high FROM photos p WHERE id = ? AND `+d.shown()), strings.ToLower(id))
	return p, found(err, "photograph")
}

// shown is the condition that a photograph p is the asker's, or shown in what they see, by one
// whose it is too: naming one in a box of one's own shows nothing. What everybody sees by a link
// or in a class is among it.
func (d *Desk) shown() string {
	return in(`({alone} OR EXISTS (SELECT 1 FROM photo_makers m WHERE m.photo = p.id AND {own m.})
		OR EXISTS (SELECT 1 FROM boxes b JOIN photo_makers m ON m.maker = b.maker AND m.photo = p.id WHERE b.deleted_at IS NULL AND instr(b.inputs, p.id) AND ({seen b.}
			OR b.link_mark IS NOT NULL
			OR EXISTS (SELECT 1 FROM classes c LEFT JOIN jobs j ON j.id = c.job_id WHERE c.until > %d AND
				(c.box_id = b.id OR EXISTS (SELECT 1 FROM json_each(j.items) i WHERE i.value ->> 'box' = b.id)))))
		OR EXISTS (SELECT 1 FROM lots l WHERE {table l.} AND instr(l.look, p.id)))`, d.s.now().UnixMilli())
}

// claim makes the photographs that a text names, and that the asker sees, a person's too: what
// is put into somebody's box, or copied into one's own, stays seen there.
func (d *Desk) claim(ctx context.Context, tx *scope.Tx, text string, whose int64) error {
	if d.at.Asker <= 0 || !strings.Contains(text, `"photo"`) {
		return nil
	}
	_, err := tx.Do(ctx, scope.Seen.SQL(`INSERT OR IGNORE INTO photo_makers (photo, maker) SELECT p.id, ? FROM photos p WHERE instr(?, p.id) AND `+d.shown()), whose, text)
	return err
}

// seenLook is a look without its photograph, where the asker does not see that: a paper in the
// drawer shows what is on it to a whole table.
func (d *Desk) seenLook(ctx context.Context, tx *scope.Tx, l paper.Look) (paper.Look, error) {
	if l.Photo.ID == "" || d.at.Asker == scope.Alone {
		return l, nil
	}
	var hidden bool
	err := tx.Get(ctx, &hidden, scope.Seen.SQL(`SELECT EXISTS (SELECT 1 FROM photos WHERE id = ?1) AND NOT EXISTS (SELECT 1 FROM photos p WHERE id = ?1 AND `+d.shown()+`)`), l.Photo.ID)
	if hidden {
		l.Photo = paper.Photo{}
	}
	return l, err
}
