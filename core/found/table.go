package found

import (
	"archive/zip"
	"bytes"
	_ "embed"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"sync"

	"brevium/core/measure"
)

// row is a kind as the table has it.
type row struct {
	choices map[string]string
	parts   []shape
}

// tableText says of all kinds of the catalogue by how many lines their parts are scored, so
// that only those are made that blanks could be of: to make all takes seconds. A line is a
// style and unit, the unusual choices, and the parts, between tabs; TestTheTableOfKinds holds
// it against the styles, and writes it again with -table.
//
//go:embed kinds.txt
var tableText string

// table gives the kinds by style and unit.
var table = sync.OnceValue(func() map[string][]row {
	out := map[string][]row{}
	for line := range strings.Lines(tableText) {
		if key, r, ok := readRow(strings.TrimRight(line, "\n")); ok {
			out[key] = append(out[key], r)
		}
	}
	return out
})

func readRow(line string) (key string, r row, ok bool) {
	columns := strings.Split(line, "\t")
	if len(columns) != 3 {
		return "", row{}, false
	}
	r.choices = map[string]string{}
	for _, c := range strings.Fields(columns[1]) {
		id, v, _ := strings.Cut(c, "=")
		r.choices[id] = v
	}
	for p := range strings.SplitSeq(columns[2], ", ") {
		var s shape
		if n, err := fmt.Sscan(p, &s.id, &s.vertical, &s.horizontal); n != 3 || err != nil {
			return "", row{}, false
		}
		r.parts = append(r.parts, s)
	}
	return columns[0], r, true
}

// row writes a kind as a line of the table.
func (k *kind) row() string {
	var set, parts []string
	for _, o := range k.style.Options {
		if v, unusual := k.choices[o.ID]; unusual {
			set = append(set, o.ID+"="+v)
		}
	}
	for _, p := range k.parts {
		parts = append(parts, fmt.Sprint(p.id, " ", p.vertical, " ", p.horizontal))
	}
	return fmt.Sprintf("%s/%s\t%s\t%s", k.style.ID, k.unit, strings.Join(set, " "), strings.Join(parts, ", "))
}

// view is a kind about some sizes: its numbers there, in mm, and how they follow the sizes.
type view struct {
	Lengths map[string]measure.Length
	Numbers []float64
	IDs     []string
	Slopes  [][]float64
}

// viewsZip has the views of all kinds of the table, a file for a style and unit, in the table's
// order: of each kind that at its usual sizes, then those about others. They tell which kinds to
// try; what a recipe makes is always made again by the style itself.
//
//go:embed kinds.zip
var viewsZip []byte

var viewFiles = sync.OnceValue(func() *zip.Reader {
	z, err := zip.NewReader(bytes.NewReader(viewsZip), int64(len(viewsZip)))
	if err != nil {
		return nil
	}
	return z
})

// views gives those of a style's kinds in a unit; nil where there are none.
func views(key string) (out [][]view) {
	if viewFiles() == nil {
		return nil
	}
	f, err := viewFiles().Open(key + ".json")
	if err != nil {
		return nil
	}
	defer f.Close()
	if json.NewDecoder(f).Decode(&out) != nil {
		return nil
	}
	return out
}

// is takes what the table has of a kind; false where that is not of its parts.
func (k *kind) is(v view) bool {
	count := 0
	for _, p := range k.parts {
		count += 2 + p.vertical + p.horizontal
	}
	if len(v.Numbers) != count || len(v.IDs) != len(v.Slopes) || slices.ContainsFunc(v.Slopes, func(s []float64) bool { return len(s) != count }) {
		return false
	}
	k.numbers, k.ids, k.slopes = v.Numbers, v.IDs, v.Slopes
	return true
}
