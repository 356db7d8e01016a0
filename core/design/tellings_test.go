package design

import (
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/style"
)

var rewrite = flag.Bool("tellings", false, "write down how the styles are told now")

// Every style is told as it was looked at: a change of a word is a change somebody has seen.
// go test ./core/design -run Tellings -tellings writes them anew.
func TestTellings(t *testing.T) {
	for _, s := range style.All {
		for _, unit := range []measure.Unit{measure.In, measure.MM} {
			in := New("x", unit, s.ID)
			in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 900*mm_, 900*mm_, 900*mm_
			r, err := Make(t.Context(), in)
			if err != nil {
				t.Fatal(err)
			}
			var out strings.Builder
			group := ""
			for _, step := range r.Steps {
				if step.Group != group {
					group = step.Group
					fmt.Fprintf(&out, "%s\n\n", group)
				}
				fmt.Fprintf(&out, "%d. %s\n", step.N, step.Text)
			}
			file := filepath.Join("testdata", "tellings", fmt.Sprintf("%s-%s.txt", s.ID, unit))
			if *rewrite {
				if err := os.WriteFile(file, []byte(out.String()), 0o644); err != nil {
					t.Fatal(err)
				}
			}
			want, err := os.ReadFile(file)
			if err != nil {
				t.Fatal(err)
			}
			if out.String() != string(want) {
				t.Errorf("%s is told otherwise than %s has it:\n%s", s.ID, file, out.String())
			}
			if strings.Contains(out.String(), "{") {
				t.Errorf("%s in %s: a word is missing", s.ID, unit)
			}
		}
	}
}
