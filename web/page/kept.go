package page

import (
	"crypto/sha256"
	"sync"

	"brevium/core/design"
)

// Kept holds what was worked out from inputs, so that it is not done again
// while they are the same. It keeps the latest so many and forgets the rest.
type Kept[V any] struct {
	mu    sync.Mutex
	most  int
	byKey map[[sha256.Size]byte]V
	order [][sha256.Size]byte
}

// NewKept keeps up to most values.
func NewKept[V any](most int) *Kept[V] {
	return &Kept[V]{most: most, byKey: map[[sha256.Size]byte]V{}}
}

// Of gives the value kept for the inputs and a word for what it is, or works
// it out and keeps it. Two that ask at once may both work it out.
func (k *Kept[V]) Of(what string, in design.Inputs, work func() V) V {
	// The room that a comparison asks for is not in the design's file.
	room, _ := in.Room.Length.MarshalJSON()
	wide, _ := in.Room.Width.MarshalJSON()
	high, _ := in.Room.Height.MarshalJSON()
	key := sha256.Sum256([]byte(what + "\n" + string(room) + "×" + string(wide) + "×" + string(high) + "\n" + string(in.Write())))
	k.mu.Lock()
	v, there := k.byKey[key]
	k.mu.Unlock()
	if there {
		return v
	}
	v = work()
	k.mu.Lock()
	defer k.mu.Unlock()
	if _, there := k.byKey[key]; !there {
		k.order = append(k.order, key)
	}
	k.byKey[key] = v
	if len(k.order) > k.most {
		delete(k.byKey, k.order[0])
		k.order = k.order[1:]
	}
	return v
}
