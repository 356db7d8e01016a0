// Package merge brings together what two hands made of the same JSON object:
// changes to different fields both count, and where both changed the same
// field it is said, never guessed.
package merge

import (
	"bytes"
	"encoding/json"
	"maps"
	"reflect"
	"slices"

	"brevium/core/fault"
)

// Clash is a field that both changed. Mine is its path as my change has it,
// Merged its path in the result, where the other's value stands; "" when the
// other took out what I changed.
type Clash struct{ Mine, Merged string }

// Merged is what came of it. Mine are the paths that only I changed, as my
// change has them; a path stands for all below it.
type Merged struct {
	State   []byte
	Clashes []Clash
	Mine    []string
}

// Rules tell how to merge. Keys gives, for a list of objects by its field's
// name, the field that tells which is which, such as "id". With Prefer a
// clash is settled for me, as when the other change was my own.
type Rules struct {
	Keys   map[string]string
	Prefer bool
}

// Objects merges two changes of the JSON object base: mine, and theirs, which
// was kept first. It fails on what is not a JSON object.
func Objects(base, mine, theirs []byte, rules Rules) (Merged, error) {
	var values [3]map[string]any
	for i, text := range [][]byte{base, mine, theirs} {
		d := json.NewDecoder(bytes.NewReader(text))
		d.UseNumber()
		if err := d.Decode(&values[i]); err != nil {
			return Merged{}, fault.New(fault.NotJSON, "", "these cannot be put together: %v", err)
		}
	}
	m := merger{rules: rules}
	all := m.object("", "", values[0], values[1], values[2])
	state, err := json.Marshal(all)
	m.out.State = state
	return m.out, err
}

type merger struct {
	rules Rules
	out   Merged
}

// value merges one field; was and at are its paths in mine and in the result.
// What is absent is nil, like null.
func (m *merger) value(name, was, at string, base, mine, theirs any) any {
	switch {
	case reflect.DeepEqual(mine, theirs), reflect.DeepEqual(base, mine):
		return theirs
	case reflect.DeepEqual(base, theirs):
		m.out.Mine = append(m.out.Mine, was)
		return mine
	}
	mo, isMine := mine.(map[string]any)
	to, isTheirs := theirs.(map[string]any)
	bo, isBase := base.(map[string]any)
	if isMine && isTheirs && (isBase || base == nil) {
		return m.object(was, at, bo, mo, to)
	}
	ml, isMine := mine.([]any)
	tl, isTheirs := theirs.([]any)
	bl, isBase := base.([]any)
	if key := m.rules.Keys[name]; key != "" && (isMine || mine == nil) && (isTheirs || theirs == nil) && (isBase || base == nil) {
		return m.list(key, was, at, bl, ml, tl)
	}
	if isMine && isTheirs && isBase && len(ml) == len(bl) && len(tl) == len(bl) {
		out := make([]any, len(bl))
		for i := range bl {
			out[i] = m.value("", fault.Path(was, i), fault.Path(at, i), bl[i], ml[i], tl[i])
		}
		return out
	}
	return m.clash(was, at, mine, theirs)
}

func (m *merger) clash(was, at string, mine, theirs any) any {
	if m.rules.Prefer {
		m.out.Mine = append(m.out.Mine, was)
		return mine
	}
	m.out.Clashes = append(m.out.Clashes, Clash{was, at})
	return theirs
}

func (m *merger) object(was, at string, base, mine, theirs map[string]any) map[string]any {
	out, all := map[string]any{}, map[string]bool{}
	for _, side := range []map[string]any{base, mine, theirs} {
		for name := range side {
			all[name] = true
		}
	}
	for _, name := range slices.Sorted(maps.Keys(all)) {
		if v := m.value(name, fault.Path(was, name), fault.Path(at, name), base[name], mine[name], theirs[name]); v != nil {
			out[name] = v
		}
	}
	return out
}

// list merges lists of objects that are told apart by a key, in the other's
// order, with what I added at the end.
func (m *merger) list(key, was, at string, base, mine, theirs []any) any {
	var out []any
	inBase, inMine := byKey(key, base), byKey(key, mine)
	inTheirs := byKey(key, theirs)
	for _, t := range theirs {
		k := keyOf(key, t)
		b, old := inBase[k]
		my, have := inMine[k]
		switch here := fault.Path(at, len(out)); {
		case old && !have && reflect.DeepEqual(base[b], t): // I took it out
			m.out.Mine = append(m.out.Mine, was)
			continue
		case old && !have:
			if t = m.clash(fault.Path(was, b), here, nil, t); t == nil {
				continue
			}
		case old && have:
			t = m.value("", fault.Path(was, my), here, base[b], mine[my], t)
		}
		out = append(out, t)
	}
	for i, x := range mine {
		k := keyOf(key, x)
		b, old := inBase[k]
		if _, there := inTheirs[k]; !old {
			if there && reflect.DeepEqual(theirs[inTheirs[k]], x) {
				continue // both added the same
			}
			m.out.Mine = append(m.out.Mine, fault.Path(was, i))
			out = append(out, x)
		} else if !there && !reflect.DeepEqual(base[b], x) { // they took out what I changed
			if x = m.clash(fault.Path(was, i), "", x, nil); x != nil {
				out = append(out, x)
			}
		}
	}
	if out == nil {
		return nil
	}
	return out
}

// byKey is where each object of a list stands; of several with one key the
// first.
func byKey(key string, list []any) map[any]int {
	out := map[any]int{}
	for i, x := range list {
		k := keyOf(key, x)
		if _, twice := out[k]; !twice {
			out[k] = i
		}
	}
	return out
}

// keyOf is what tells an object from the others: a number or a text.
func keyOf(key string, x any) any {
	o, _ := x.(map[string]any)
	switch k := o[key].(type) {
	case string, json.Number:
		return k
	}
	return nil
}
