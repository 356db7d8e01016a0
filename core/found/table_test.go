package found

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"flag"
	"math"
	"os"
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/sample"
	"brevium/core/style"
)

var writeTable = flag.Bool("table", false, "write the table of kinds again")

// viewsOf works out how the numbers of a kind lie and follow its sizes, there and about others.
func viewsOf(k *kind) (out []view) {
	round := func(all []float64) []float64 {
		for i := range all {
			all[i] = math.Round(all[i]*1e6) / 1e6
		}
		return all
	}
	for _, x := range append([]*kind{k}, k.others()...) {
		x.follow()
		v := view{x.spec.Lengths, round(x.numbers), x.ids, nil}
		for _, s := range x.slopes {
			v.Slopes = append(v.Slopes, round(s))
		}
		out = append(out, v)
	}
	return out
}

// What the table knows of how the numbers of kinds follow their sizes is what the styles give.
func TestTheViewsOfKinds(t *testing.T) {
	t.Parallel()
	var file bytes.Buffer
	z := zip.NewWriter(&file)
	for n, s := range style.Boxes() {
		for m, unit := range []measure.Unit{measure.In, measure.MM} {
			if !*writeTable && !sample.Part(t, n+8*m, 16) {
				continue
			}
			var now [][]view
			for _, k := range workedOut(s, unit) {
				now = append(now, viewsOf(k))
			}
			text, err := json.Marshal(now)
			if err != nil {
				t.Fatal(err)
			}
			key := s.ID + "/" + string(unit)
			if kept, err := json.Marshal(views(key)); !*writeTable && (err != nil || !bytes.Equal(kept, text)) {
				t.Errorf("%s: its numbers are not those of the table: go test ./core/found -run OfKinds -args -table", key)
			}
			w, err := z.CreateHeader(&zip.FileHeader{Name: key + ".json", Method: zip.Deflate})
			if err == nil {
				_, err = w.Write(text)
			}
			if err != nil {
				t.Fatal(err)
			}
		}
	}
	if err := z.Close(); err != nil {
		t.Fatal(err)
	}
	if *writeTable {
		if err := os.WriteFile("kinds.zip", file.Bytes(), 0o644); err != nil {
			t.Fatal(err)
		}
	}
}

// The table has the very kinds of the styles: with the same choices, parts and lines.
func TestTheTableOfKinds(t *testing.T) {
	t.Parallel()
	var lines []string
	for n, s := range style.Boxes() {
		for m, unit := range []measure.Unit{measure.In, measure.MM} {
			if !*writeTable && !sample.Takes(t, n+2*m) {
				continue
			}
			var now, kept []string
			for _, k := range workedOut(s, unit) {
				now = append(now, k.row())
			}
			lines = append(lines, now...)
			for line := range strings.Lines(tableText) {
				if strings.HasPrefix(line, s.ID+"/"+string(unit)+"\t") {
					kept = append(kept, strings.TrimSpace(line))
				}
			}
			if !*writeTable && !slices.Equal(now, kept) {
				t.Errorf("%s: its kinds are not those of the table: go test ./core/found -run OfKinds -args -table", s.ID)
			}
			for _, line := range now {
				if _, r, ok := readRow(line); !ok || len(r.parts) == 0 {
					t.Errorf("%q is not read", line)
				}
			}
		}
	}
	if *writeTable {
		if err := os.WriteFile("kinds.txt", []byte(strings.Join(lines, "\n")+"\n"), 0o644); err != nil {
			t.Fatal(err)
		}
	}
}
