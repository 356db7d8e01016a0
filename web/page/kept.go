package page

import (
	"crypto/sha256"
	"encoding/json"
	"errors"
	"sync"

	"brevium/core/design"
	"brevium/store"
)

// Kept holds what was worked out from inputs, so that it is not done again
// while they are the same. It keeps the latest so many and forgets the rest;
// with a disk it also asks there, and keeps there what that finds new.
type Kept[V any] struct {
	mu    sync.Mutex
	most  int
	disk  *store.Cache
	byKey map[[sha256.Size]byte]V
	order [][sha256.Size]byte
}

// errShort says that what was worked out is the best there was time for: asked again it may be
// better.
var errShort = errors.New("there was not the time for all of it")

// NewKept keeps up to most values in memory, and on a disk if there is one.
// What is kept on disk must come back whole from JSON.
func NewKept[V any](most int, disk *store.Cache) *Kept[V] {
	return &Kept[V]{most: most, disk: disk, byKey: map[[sha256.Size]byte]V{}}
}

// Of gives the value kept for the inputs and a word for what it is, or works
// it out and keeps it. Two that ask at once may both work it out. An error is
// not kept, and what comes with errShort is given and not kept.
func (k *Kept[V]) Of(what string, in design.Inputs, work func() (V, error)) (V, error) {
	inputs := in.Key()
	return k.OfKey(what, inputs[:], work)
}

// Known reports whether OfKey has an answer in memory.
func (k *Kept[V]) Known(what string, of []byte) bool {
	key := sha256.Sum256(append([]byte(what+"\n"), of...))
	k.mu.Lock()
	defer k.mu.Unlock()
	_, there := k.byKey[key]
	return there
}

// OfKey is Of for what is known by other bytes than a design's inputs.
func (k *Kept[V]) OfKey(what string, of []byte, work func() (V, error)) (V, error) {
	key := sha256.Sum256(append([]byte(what+"\n"), of...))
	k.mu.Lock()
	v, there := k.byKey[key]
	k.mu.Unlock()
	if there {
		return v, nil
	}
	if text, there := k.disk.Get(key[:]); there && json.Unmarshal(text, &v) == nil {
		k.keep(key, v)
		return v, nil
	}
	v, err := work()
	if errors.Is(err, errShort) {
		return v, nil
	}
	if err != nil {
		return v, err
	}
	k.keep(key, v)
	if k.disk != nil {
		if text, err := json.Marshal(v); err == nil {
			k.disk.Put(key[:], text)
		}
	}
	return v, nil
}

func (k *Kept[V]) keep(key [sha256.Size]byte, v V) {
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
}
