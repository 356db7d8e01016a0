package strict

import (
	"bytes"
	"encoding/json"
	"reflect"
	"strings"
)

// Rest is what a JSON object held beyond the known fields, in the same shape:
// an object holds the unknown fields and the known ones that hold some. A list
// has a place for each of its members, null where there is nothing.
type Rest map[string]any

// places is the rest of a list's members, place by place.
type places []any

// DecodeKept reads one JSON object into v, which points to a struct, as Decode
// does, but sets unknown fields aside instead of refusing them.
func DecodeKept(text []byte, v any) (Rest, error) {
	d := json.NewDecoder(bytes.NewReader(text))
	d.UseNumber()
	var all map[string]any
	if err := d.Decode(&all); err != nil {
		return nil, Decode(text, v) // which says what is wrong, in its words
	}
	known, rest := split(all, reflect.TypeOf(v).Elem())
	if rest == nil {
		return nil, Decode(text, v)
	}
	clean, err := json.Marshal(known)
	if err != nil {
		return nil, err
	}
	return rest.(Rest), Decode(clean, v)
}

// split parts a value into what a type knows, and the rest of it, nil for
// nothing.
func split(value any, t reflect.Type) (known, rest any) {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	switch x := value.(type) {
	case map[string]any:
		return splitObject(x, t)
	case []any:
		if t.Kind() != reflect.Slice {
			return value, nil
		}
		out, others, some := make([]any, len(x)), make(places, len(x)), false
		for i := range x {
			out[i], others[i] = split(x[i], t.Elem())
			some = some || others[i] != nil
		}
		if !some {
			return out, nil
		}
		return out, others
	}
	return value, nil
}

func splitObject(x map[string]any, t reflect.Type) (known, rest any) {
	out, others := map[string]any{}, Rest{}
	for name, v := range x {
		var of reflect.Type
		switch t.Kind() {
		case reflect.Map:
			of = t.Elem()
		case reflect.Struct:
			of = fieldOf(t, name)
		default:
			out[name] = v
			continue
		}
		if of == nil {
			others[name] = v
			continue
		}
		k, r := split(v, of)
		out[name] = k
		if r != nil {
			others[name] = r
		}
	}
	if len(others) == 0 {
		return out, nil
	}
	return out, others
}

// fieldOf is the type of a struct's field by its name in JSON; nil for none.
func fieldOf(t reflect.Type, name string) reflect.Type {
	for _, f := range reflect.VisibleFields(t) {
		if tag, _, _ := strings.Cut(f.Tag.Get("json"), ","); strings.EqualFold(tag, name) {
			return f.Type
		}
	}
	return nil
}

// Put lays the rest over a JSON value that was written from the known fields;
// what is written there stays. A list that has another length now keeps none.
func (r Rest) Put(text []byte) ([]byte, error) {
	if len(r) == 0 {
		return text, nil
	}
	d := json.NewDecoder(bytes.NewReader(text))
	d.UseNumber()
	var all any
	if err := d.Decode(&all); err != nil {
		return nil, err
	}
	return json.MarshalIndent(lay(all, r), "", " ")
}

func lay(value, rest any) any {
	switch r := rest.(type) {
	case Rest:
		object, ok := value.(map[string]any)
		if !ok && value != nil {
			return value
		}
		if object == nil {
			object = map[string]any{}
		}
		for name, v := range r {
			if now, there := object[name]; there {
				object[name] = lay(now, v)
			} else if whole(v) {
				object[name] = v
			}
		}
		return object
	case places:
		list, ok := value.([]any)
		if !ok || len(list) != len(r) {
			return value
		}
		for i := range list {
			list[i] = lay(list[i], r[i])
		}
		return list
	}
	return value
}

// whole reports whether a part of the rest is a field of its own, not the rest
// of one that is known.
func whole(rest any) bool {
	switch rest.(type) {
	case Rest, places:
		return false
	}
	return true
}
