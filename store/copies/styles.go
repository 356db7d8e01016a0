package copies

import (
	"brevium/store/scope"
	"brevium/store/stockroom"
)

// styles puts in those versions that are not here.
func (b *bringing) styles(all []stockroom.OwnStyle) error {
	for _, x := range all {
		if _, err := b.tx.Do(b.ctx, scope.Workshop.SQL(`INSERT OR IGNORE INTO styles (id, version, file, struck, at) VALUES (?, ?, ?, ?, ?)`),
			x.ID, x.Version, string(x.File), x.Struck, b.at.Now().UnixMilli()); err != nil {
			return err
		}
	}
	return nil
}
