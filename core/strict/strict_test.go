package strict

import (
	"encoding/json"
	"errors"
	"reflect"
	"strings"
	"testing"

	"brevium/core/fault"
)

type sample struct {
	Name  string         `json:"name"`
	N     int            `json:"n"`
	Yes   bool           `json:"yes"`
	List  []int          `json:"list"`
	Group map[string]int `json:"group"`
}

func TestDecodeRefusesByName(t *testing.T) {
	for _, c := range []struct{ text, field, says string }{
		{``, "file", "breaks off"},
		{`{"name":"x"`, "file", "breaks off"},
		{`{"name":x}`, "file", "not JSON"},
		{`{"nmae":"x"}`, "nmae", "no field of this name"},
		{`{"name":1}`, "name", "give a text"},
		{`{"n":"one"}`, "n", "give a number"},
		{`{"yes":1}`, "yes", "give a true or false"},
		{`{"list":{}}`, "list", "give a list"},
		{`{"group":[]}`, "group", "give a group of fields"},
		{`{} []`, "file", "after the end"},
		{strings.Repeat(" ", MostBytes+1), "file", "4 MiB"},
	} {
		var s sample
		err := Decode([]byte(c.text), &s)
		var f *fault.Fault
		if !errors.As(err, &f) || f.Field != c.field || !strings.Contains(f.Text, c.says) {
			t.Errorf("%.30q: got %v; want a fault at %s saying %q", c.text, err, c.field, c.says)
		}
	}
	var s sample
	if err := Decode([]byte(`{"name":"x","n":2,"list":[1]} `), &s); err != nil || s.Name != "x" || s.N != 2 {
		t.Errorf("a sound file gives %+v, %v", s, err)
	}
}

func TestReadStopsAtTheLimit(t *testing.T) {
	if _, err := Read(strings.NewReader(strings.Repeat("x", MostBytes+1))); err == nil {
		t.Error("a file over the limit was read")
	}
	if text, err := Read(strings.NewReader("{}")); err != nil || string(text) != "{}" {
		t.Errorf("read %q, %v", text, err)
	}
	if _, err := Read(broken{}); err == nil || !strings.Contains(err.Error(), "cannot be read") {
		t.Errorf("a broken reader gives %v", err)
	}
}

type broken struct{}

func (broken) Read([]byte) (int, error) { return 0, errors.New("the disk is out") }

// Whatever object is read, its unknown fields come back where they were, and
// nothing else is added.
func FuzzDecodeKept(f *testing.F) {
	f.Add(`{"name":"a","more":1,"list":[{"n":1,"x":2},{}],"deep":{"n":1,"y":[3]}}`)
	f.Add(`{"list":[],"list":[{"z":null}],"NAME":"b"}`)
	type inner struct {
		N int `json:"n"`
	}
	type outer struct {
		Name string            `json:"name"`
		List []inner           `json:"list"`
		Deep *inner            `json:"deep,omitempty"`
		Map  map[string]string `json:"map"`
	}
	f.Fuzz(func(t *testing.T, text string) {
		var v outer
		rest, err := DecodeKept([]byte(text), &v)
		if err != nil {
			return
		}
		known, err := json.Marshal(v)
		if err != nil {
			t.Fatal(err)
		}
		whole, err := rest.Put(known)
		if err != nil {
			t.Fatalf("%s with %v: %v", known, rest, err)
		}
		var again outer
		if _, err := DecodeKept(whole, &again); err != nil || !reflect.DeepEqual(v, again) {
			t.Errorf("%s became %s, %v", text, whole, err)
		}
	})
}
