// Package strict reads JSON files the way Brevium reads all of them: nothing
// unknown, nothing after the end, nothing over four MiB, and every refusal a
// Fault that names the field.
package strict

import (
	"bytes"
	"encoding/json"
	"errors"
	"io"
	"reflect"
	"strings"

	"brevium/core/fault"
)

// MostBytes is the largest file read: 4 MiB.
const MostBytes = 4 << 20

// Read reads all of r, refusing more than MostBytes.
func Read(r io.Reader) ([]byte, error) {
	text, err := io.ReadAll(io.LimitReader(r, MostBytes+1))
	if err != nil {
		return nil, fault.New(fault.Unreadable, "file", "the file cannot be read: %v", err)
	}
	if len(text) > MostBytes {
		return nil, fault.New(fault.TooLarge, "file", "the file is over 4 MiB; a design or job is far smaller")
	}
	return text, nil
}

// Decode reads one JSON value into v.
func Decode(text []byte, v any) error {
	if len(text) > MostBytes {
		return fault.New(fault.TooLarge, "file", "the file is over 4 MiB; a design or job is far smaller")
	}
	d := json.NewDecoder(bytes.NewReader(text))
	d.DisallowUnknownFields()
	if err := d.Decode(v); err != nil {
		return explain(err)
	}
	if _, err := d.Token(); err != io.EOF {
		return fault.New(fault.NotJSON, "file", "something stands after the end of the JSON value; leave one value in the file")
	}
	return nil
}

func explain(err error) error {
	var f *fault.Fault
	var kind *json.UnmarshalTypeError
	var syntax *json.SyntaxError
	switch {
	case errors.As(err, &f):
		return f
	case errors.As(err, &kind):
		return fault.New(fault.WrongKind, kind.Field, "this cannot be a %s; give a %s", kind.Value, kindName(kind.Type.Kind()))
	case errors.As(err, &syntax):
		return fault.New(fault.NotJSON, "file", "this is not JSON: %s at byte %d", syntax.Error(), syntax.Offset)
	case errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF):
		return fault.New(fault.NotJSON, "file", "the JSON breaks off; the file is empty or cut short")
	}
	if name, ok := strings.CutPrefix(err.Error(), "json: unknown field "); ok {
		name = strings.Trim(name, `"`)
		return fault.New(fault.UnknownField, name, "there is no field of this name; check the spelling against docs/formats.md")
	}
	return fault.New(fault.NotJSON, "file", "this cannot be read: %v", err)
}

// kindName puts a Go kind into a word for a person.
func kindName(k reflect.Kind) string {
	switch k {
	case reflect.Slice, reflect.Array:
		return "list"
	case reflect.Map, reflect.Struct:
		return "group of fields"
	case reflect.Bool:
		return "true or false"
	case reflect.String:
		return "text"
	}
	return "number"
}
