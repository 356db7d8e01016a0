package design

import (
	"encoding/json"

	"brevium/core/merge"
)

// rowKeys tell the rows of a design's lists apart.
var rowKeys = map[string]string{"contents": "id", "mats": "id", "loose": "id", "bands": "id", "own_steps": "id", "sheets": "name"}

// ofStyle are the fields that mean something to one style only, so that they
// change with it or not at all.
var ofStyle = []string{"style", "size", "options", "mats", "cards"}

// Merge brings together what was changed from base: mine, and theirs, which
// was kept first. At a clash theirs stands, unless mine is preferred. The
// paths are those of the design's file. The result need not be a box that can
// be made.
func Merge(base, mine, theirs Inputs, preferMine bool) (Inputs, merge.Merged, error) {
	restyled := mine.Style != theirs.Style
	text := func(in Inputs) []byte {
		if !restyled {
			return in.Write()
		}
		return fold(in)
	}
	out, err := merge.Objects(text(base), text(mine), text(theirs), merge.Rules{Keys: rowKeys, Prefer: preferMine})
	if err != nil {
		return Inputs{}, out, err
	}
	if restyled {
		if out.State, err = unfold(out.State); err != nil {
			return Inputs{}, out, err
		}
	}
	in, err := ReadKept(out.State)
	in.Room = mine.Room
	return in, out, err
}

// fold writes the inputs with all that belongs to the style as one text.
func fold(in Inputs) []byte {
	var all, group map[string]json.RawMessage
	plain(in.Write(), &all)
	group = map[string]json.RawMessage{}
	for _, name := range ofStyle {
		if v, there := all[name]; there {
			group[name] = v
			delete(all, name)
		}
	}
	all["style"] = written(string(written(group)))
	return written(all)
}

// unfold undoes fold.
func unfold(state []byte) ([]byte, error) {
	var all, group map[string]json.RawMessage
	var text string
	if err := json.Unmarshal(state, &all); err != nil {
		return nil, err
	}
	if err := json.Unmarshal(all["style"], &text); err != nil {
		return nil, err
	}
	if err := json.Unmarshal([]byte(text), &group); err != nil {
		return nil, err
	}
	for name, v := range group {
		all[name] = v
	}
	return written(all), nil
}

// plain reads what Write wrote.
func plain(text []byte, v any) {
	if err := json.Unmarshal(text, v); err != nil {
		panic(err) // it was written by json.Marshal
	}
}

// written writes plain texts and numbers.
func written(v any) []byte {
	text, err := json.Marshal(v)
	if err != nil {
		panic(err) // every field is plain text or a finite number
	}
	return text
}
