package desk

import (
	"context"
	"strings"
	"time"

	"brevium/core/paper"
	"brevium/photo"
	"brevium/store/scope"
)

// PhotosOf is the condition that a photograph is the asker's; of one maker alone all are.
const PhotosOf = `({alone} OR id IN (SELECT photo FROM photo_makers WHERE maker = {me}))`

// KeepPhoto keeps a picture as the asker's.
func KeepPhoto(ctx context.Context, tx *scope.Tx, p photo.Picture, sent bool, at time.Time) error {
	_, err := tx.Do(ctx, scope.Workshop.SQL(`
		INSERT INTO photos (id, jpeg, wide, high, sent, at) VALUES (?, ?, ?, ?, ?, ?)
		ON CONFLICT (id) DO UPDATE SET sent = sent AND excluded.sent`), p.ID, p.JPEG, p.Wide, p.High, sent, at.UnixMilli())
	if err == nil && tx.Asker > 0 {
		_, err = tx.Do(ctx, scope.Own.SQL(`INSERT OR IGNORE INTO photo_makers (photo, maker) VALUES (?, {me})`), p.ID)
	}
	return err
}

// Shown is the condition that a photograph p is the asker's, or shown in what they see, by one
// whose it is too: naming one in a box of one's own shows nothing. What everybody sees by a link
// or in a class is among it.
func (d Desk) Shown() string {
	return Text(`({alone} OR EXISTS (SELECT 1 FROM photo_makers m WHERE m.photo = p.id AND {own m.})
		OR EXISTS (SELECT 1 FROM boxes b JOIN photo_makers m ON m.maker = b.maker AND m.photo = p.id WHERE b.deleted_at IS NULL AND instr(b.inputs, p.id) AND ({seen b.}
			OR b.link_mark IS NOT NULL
			OR EXISTS (SELECT 1 FROM classes c LEFT JOIN jobs j ON j.id = c.job_id WHERE c.until > %d AND
				(c.box_id = b.id OR EXISTS (SELECT 1 FROM json_each(j.items) i WHERE i.value ->> 'box' = b.id)))))
		OR EXISTS (SELECT 1 FROM lots l WHERE {table l.} AND instr(l.look, p.id)))`, d.Now().UnixMilli())
}

// Claim makes the photographs that a text names, and that the asker sees, a person's too: what
// is put into somebody's box, or copied into one's own, stays seen there.
func (d Desk) Claim(ctx context.Context, tx *scope.Tx, text string, whose int64) error {
	if d.Asker <= 0 || !strings.Contains(text, `"photo`) {
		return nil
	}
	_, err := tx.Do(ctx, scope.Seen.SQL(`INSERT OR IGNORE INTO photo_makers (photo, maker) SELECT p.id, ? FROM photos p WHERE instr(?, p.id) AND `+d.Shown()), whose, text)
	return err
}

// SeenLook is a look without its photograph, where the asker does not see that: a paper in the
// drawer shows what is on it to a whole table.
func (d Desk) SeenLook(ctx context.Context, tx *scope.Tx, l paper.Look) (paper.Look, error) {
	if l.Photo.ID == "" || d.Asker == scope.Alone {
		return l, nil
	}
	var hidden bool
	err := tx.Get(ctx, &hidden, scope.Seen.SQL(`SELECT EXISTS (SELECT 1 FROM photos WHERE id = ?1) AND NOT EXISTS (SELECT 1 FROM photos p WHERE id = ?1 AND `+d.Shown()+`)`), l.Photo.ID)
	if hidden {
		l.Photo = paper.Photo{}
	}
	return l, err
}
