package boxshelf

import (
	"context"
	"strings"
	"time"

	"brevium/core/fault"
	"brevium/photo"
	"brevium/store/desk"
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

// PutPhoto keeps a picture; sent says that it waits to be straightened.
func (d *Shelf) PutPhoto(ctx context.Context, p photo.Picture, sent bool) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		now, most := d.at.Now(), MostPhotos
		if d.at.Asker != scope.Alone {
			most = MostPhotosEach
		}
		_, err := tx.Do(ctx, scope.Own.SQL(`
			DELETE FROM photos WHERE sent AND (at < ? OR id IN (SELECT id FROM photos WHERE sent AND `+desk.PhotosOf+` ORDER BY at DESC LIMIT -1 OFFSET ?))`),
			now.Add(-sentFor).UnixMilli(), MostSent-1)
		if err != nil {
			return err
		}
		var n int
		if err := tx.Get(ctx, &n, scope.Own.SQL(`SELECT count(*) FROM photos WHERE NOT sent AND `+desk.PhotosOf)); err != nil {
			return err
		}
		if n >= most && !sent {
			return fault.New(fault.TooLarge, "file", "There are %d photographs here already; that is the most.", most)
		}
		return desk.KeepPhoto(ctx, tx, p, sent, now)
	})
}

// Photo gives a picture, or an ErrNotFound. In a workshop it is of who sent it, and is seen
// where a box or a paper shows it that one sees.
func (d *Shelf) Photo(ctx context.Context, id string) (photo.Picture, error) {
	p := photo.Picture{ID: id}
	err := d.at.Get(ctx, &p, scope.Seen.SQL(`SELECT jpeg, wide, high FROM photos p WHERE id = ? AND `+d.at.Shown()), strings.ToLower(id))
	return p, desk.Found(err, "photograph")
}
