package copies

import (
	"encoding/json"
	"fmt"
	"strconv"
	"strings"

	"brevium/store/scope"
)

// KeptTime is how long a step of a box took at the bench; At is in milliseconds since
// 1970.
type KeptTime struct {
	Step    string  `json:"step"`
	Kind    string  `json:"kind"`
	Seconds float64 `json:"seconds"`
	Usual   float64 `json:"usual"`
	At      int64   `json:"at_ms"`
}

// times puts in how long the steps of a box took.
func (b *bringing) times(box int64, all []KeptTime) error {
	if len(all) == 0 {
		return nil
	}
	list, err := json.Marshal(all)
	if err != nil {
		return err
	}
	_, err = b.tx.Do(b.ctx, scope.Workshop.SQL(`INSERT OR IGNORE INTO times (box_id, step, kind, seconds, usual, at)
		SELECT ?, value ->> 'step', value ->> 'kind', value ->> 'seconds', value ->> 'usual', value ->> 'at_ms' FROM json_each(?)`), box, string(list))
	return err
}

// settings puts in those that are not set here.
func (b *bringing) settings(all map[string]json.RawMessage) error {
	for name, value := range all {
		if _, err := b.tx.Do(b.ctx, scope.Workshop.SQL(`INSERT OR IGNORE INTO settings (name, value) VALUES (?, ?)`), name, string(value)); err != nil {
			return err
		}
	}
	return nil
}

// evenings gives a job that was brought its evenings, and what is done of it, its boxes
// by their new numbers.
func (b *bringing) evenings(job int64, x KeptJob) error {
	done := map[string]int{}
	for key, n := range x.Done {
		box, rest, _ := strings.Cut(key, "/")
		if id, err := strconv.ParseInt(box, 10, 64); err == nil && b.boxes[id] != 0 {
			done[fmt.Sprintf("%d/%s", b.boxes[id], rest)] = n
		}
	}
	text, err := json.Marshal(done)
	if err != nil {
		return err
	}
	when := "null"
	if len(x.Evenings) > 0 {
		when = string(x.Evenings)
	}
	_, err = b.tx.Do(b.ctx, scope.Workshop.SQL(`UPDATE jobs SET evenings = ?, done = ? WHERE id = ?`), when, string(text), job)
	return err
}
