package found

import (
	"flag"
	"os"
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/sample"
	"brevium/core/style"
)

var writeTable = flag.Bool("table", false, "write the table of kinds again")

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
				t.Errorf("%s: its kinds are not those of the table: go test ./core/found -run TheTableOfKinds -table", s.ID)
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
