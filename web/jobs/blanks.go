package jobs

import (
	"context"
	"sync"
	"time"

	"brevium/core/batch"
	"brevium/core/fault"
	"brevium/store"
	"brevium/store/boxshelf"
)

// blanks knows what each box is cut from, so that offcuts can be tried
// against all of them at once.
type blanks struct {
	mu    sync.Mutex
	known map[int64]knownBlanks
}

type knownBlanks struct {
	version int64
	batch.Blanks
}

// patience is how long one page looks for blanks that are not known yet; the
// next page goes on from there.
const patience = 60 * time.Millisecond

// of gives the blanks of boxes, and whether all of them are known by now.
func (k *blanks) of(ctx context.Context, kept *store.Store, boxes []boxshelf.Named) (out []batch.Blanks, all bool) {
	k.mu.Lock()
	defer k.mu.Unlock()
	until, fresh := time.Now().Add(patience), make(map[int64]knownBlanks, len(boxes))
	all = true
	for _, b := range boxes {
		x, there := k.known[b.ID]
		if !there || x.version != b.Version {
			if time.Now().After(until) || ctx.Err() != nil {
				all = false
				continue
			}
			x = knownBlanks{b.Version, batch.Blanks{Name: b.Name}}
			// One that goes wrong comes out of nothing.
			_ = fault.Guard(func() error {
				box, err := kept.Of(ctx).Box(ctx, b.ID)
				if err == nil && box.Broken == nil {
					x.Pieces = batch.BlanksOf(box.Inputs)
				}
				return err
			})
		}
		fresh[b.ID] = x
		out = append(out, x.Blanks)
	}
	k.known = fresh
	return out, all
}
