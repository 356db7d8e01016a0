package rows

import (
	"reflect"
	"strings"
	"testing"
)

var people = Table{Headings: []string{"name", "age"}, Example: "name,age", Empty: "there is nobody in this file"}

type person struct {
	name string
	age  float64
}

func personOf(cells []Cell) (person, error) {
	var p person
	var err error
	for _, c := range cells {
		switch c.Head {
		case "name":
			p.name = Alive(c.Text)
		case "age":
			if p.age, err = Number(c.Text); err != nil {
				return p, err
			}
		}
	}
	return p, nil
}

// What a person typed comes back as it was, and no spreadsheet runs it.
func TestThereAndBack(t *testing.T) {
	all := []person{{"Ada", 31}, {"=1+1", 0.5}, {"'quoted", 2}, {"-", 1}, {"a \"b\", c", 7}}
	var out [][]string
	for _, p := range all {
		out = append(out, []string{Inert(p.name), Decimal(p.age)})
	}
	text := Write(people.Headings, out)
	if strings.Contains(string(text), "\n=") || strings.Contains(string(text), "\n-,") {
		t.Errorf("a spreadsheet would run %s", text)
	}
	got, faults := Read(people, text, personOf)
	if len(faults) > 0 || !reflect.DeepEqual(got, all) {
		t.Errorf("%+v, %v", got, faults)
	}
	if got, faults := Read(people, []byte("\ufeffAge, Name\n3, Ben\n"), personOf); len(faults) > 0 || got[0] != (person{"Ben", 3}) {
		t.Errorf("columns turned round: %+v, %v", got, faults)
	}
}

// Every bad row is told by its number, and then none is taken.
func TestBadRows(t *testing.T) {
	for text, says := range map[string]string{
		"":                             "heading row such as name,age",
		"name,shoes\nAda,3":            `"shoes" is not a column`,
		"name,age\n":                   "nobody",
		"name,age\nAda,x\nBen,2\nCy,y": "row 1",
		"name,age\nAda":                "1 columns and the heading 2",
		"name,age\n\"Ada":              "cannot be read",
	} {
		got, faults := Read(people, []byte(text), personOf)
		if len(faults) == 0 || got != nil || !strings.Contains(faults[0].Error(), says) {
			t.Errorf("%q: %v, %v", text, got, faults)
		}
	}
	if _, faults := Read(people, []byte("name,age\nAda,x\nBen,2\nCy,y"), personOf); len(faults) != 2 || !strings.Contains(faults[1].Error(), "row 3") {
		t.Errorf("%v", faults)
	}
}
