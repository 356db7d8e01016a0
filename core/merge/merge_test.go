package merge

import (
	"encoding/json"
	"reflect"
	"slices"
	"testing"
)

var rules = Rules{Keys: map[string]string{"rows": "id"}}

func TestObjects(t *testing.T) {
	for _, c := range []struct {
		name, base, mine, theirs, want string
		clashes                        []Clash
		changed                        []string
	}{
		{"different fields", `{"a":1,"b":2}`, `{"a":9,"b":2}`, `{"a":1,"b":8}`, `{"a":9,"b":8}`, nil, []string{"a"}},
		{"the same field", `{"a":1}`, `{"a":2}`, `{"a":3}`, `{"a":3}`, []Clash{{"a", "a"}}, nil},
		{"the same value", `{"a":1}`, `{"a":2}`, `{"a":2}`, `{"a":2}`, nil, nil},
		{"within a group", `{"o":{"x":1,"y":1}}`, `{"o":{"x":2,"y":1}}`, `{"o":{"x":1,"y":3}}`, `{"o":{"x":2,"y":3}}`, nil, []string{"o.x"}},
		{"both add to a group that was not there", `{}`, `{"o":{"x":1}}`, `{"o":{"y":2}}`, `{"o":{"x":1,"y":2}}`, nil, []string{"o.x"}},
		{"taken out and changed", `{"a":1}`, `{}`, `{"a":2}`, `{"a":2}`, []Clash{{"a", "a"}}, nil},
		{
			"rows go by their ids, not their places",
			`{"rows":[{"id":1,"n":"A"},{"id":2,"n":"B"},{"id":3,"n":"C"}]}`,
			`{"rows":[{"id":1,"n":"A"},{"id":2,"n":"B"},{"id":3,"n":"C","count":2}]}`,
			`{"rows":[{"id":2,"n":"B"},{"id":3,"n":"C"}]}`,
			`{"rows":[{"id":2,"n":"B"},{"id":3,"n":"C","count":2}]}`, nil, []string{"rows[2]"},
		},
		{
			"one takes a row out, the other another",
			`{"rows":[{"id":1},{"id":2},{"id":3}]}`, `{"rows":[{"id":1},{"id":3}]}`, `{"rows":[{"id":2},{"id":3}]}`,
			`{"rows":[{"id":3}]}`, nil, []string{"rows"},
		},
		{
			"both add a row, by chance with one id",
			`{"rows":[{"id":1}]}`, `{"rows":[{"id":1},{"id":2,"n":"mine"}]}`, `{"rows":[{"id":1},{"id":2,"n":"theirs"}]}`,
			`{"rows":[{"id":1},{"id":2,"n":"theirs"},{"id":2,"n":"mine"}]}`, nil, []string{"rows[1]"},
		},
		{
			"a row that they took out and I changed",
			`{"rows":[{"id":1,"n":"A"}]}`, `{"rows":[{"id":1,"n":"B"}]}`, `{}`, `{}`, []Clash{{"rows[0]", ""}}, nil,
		},
		{
			"a row that I took out and they changed",
			`{"rows":[{"id":1,"n":"A"}]}`, `{}`, `{"rows":[{"id":1,"n":"B"}]}`, `{"rows":[{"id":1,"n":"B"}]}`, []Clash{{"rows[0]", "rows[0]"}}, nil,
		},
		{
			"lists without ids, place by place",
			`{"layers":[{"b":1},{"b":1}]}`, `{"layers":[{"b":2},{"b":1}]}`, `{"layers":[{"b":1},{"b":3}]}`,
			`{"layers":[{"b":2},{"b":3}]}`, nil, []string{"layers[0]"},
		},
		{"lists without ids of other lengths", `{"l":[1]}`, `{"l":[1,2]}`, `{"l":[]}`, `{"l":[]}`, []Clash{{"l", "l"}}, nil},
	} {
		m, err := Objects([]byte(c.base), []byte(c.mine), []byte(c.theirs), rules)
		if err != nil {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		var got, want any
		if json.Unmarshal(m.State, &got) != nil || json.Unmarshal([]byte(c.want), &want) != nil || !reflect.DeepEqual(got, want) {
			t.Errorf("%s: %s; want %s", c.name, m.State, c.want)
		}
		if !slices.Equal(m.Clashes, c.clashes) || !slices.Equal(m.Mine, c.changed) {
			t.Errorf("%s: clashes %v, mine %v; want %v, %v", c.name, m.Clashes, m.Mine, c.clashes, c.changed)
		}
	}
}

func TestPreferSettlesClashesForMe(t *testing.T) {
	m, err := Objects([]byte(`{"a":1,"rows":[{"id":1,"n":"A"}]}`), []byte(`{"a":2,"rows":[{"id":1,"n":"B"}]}`), []byte(`{"a":3}`),
		Rules{Keys: rules.Keys, Prefer: true})
	if err != nil || string(m.State) != `{"a":2,"rows":[{"id":1,"n":"B"}]}` || len(m.Clashes) != 0 {
		t.Errorf("%s, %v, %v", m.State, m.Clashes, err)
	}
}

// Whatever two hands do, a change of only one is kept whole, the other way
// round too, and nothing fails.
func FuzzObjects(f *testing.F) {
	f.Add(`{"a":1}`, `{"a":2}`, `{"a":3}`)
	f.Add(`{"rows":[{"id":1},{"id":2}]}`, `{"rows":[{"id":2}]}`, `{"rows":[{"id":1,"x":[1]},{"id":1}]}`)
	f.Add(`{"o":{"x":null}}`, `{"o":[]}`, `{"o":{}}`)
	f.Fuzz(func(t *testing.T, base, mine, theirs string) {
		m, err := Objects([]byte(base), []byte(mine), []byte(theirs), rules)
		if err != nil {
			return
		}
		if !json.Valid(m.State) {
			t.Fatalf("the result is %q", m.State)
		}
		one, err := Objects([]byte(base), []byte(mine), []byte(base), rules)
		if err != nil || len(one.Clashes) > 0 {
			t.Fatalf("a change of one alone clashes: %v, %v", one.Clashes, err)
		}
	})
}
