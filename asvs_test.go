package brevium

import (
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
)

// The table of what guards a workshop has every item of the standard's chapters, and each
// names a test or a command that is there, or says why it does not apply or is not so.
func TestWhatGuardsAWorkshopIsShown(t *testing.T) {
	sections := map[string]string{
		"2.1": "1-12", "2.2": "1-3", "2.3": "1-3", "2.4": "1-5", "2.5": "1-7", "2.6": "1-3", "2.7": "1-6", "2.8": "1-7", "2.9": "1-3", "2.10": "1-4",
		"3.1": "1-1", "3.2": "1-4", "3.3": "1-4", "3.4": "1-5", "3.5": "1-3", "3.7": "1-1", "4.1": "1-3 5-5", "4.2": "1-2", "4.3": "1-3",
		"5.1": "1-5", "5.2": "1-8", "5.3": "1-10", "5.4": "1-3", "5.5": "1-4", "6.1": "1-3", "6.2": "1-6", "6.3": "1-2", "6.4": "1-2",
		"7.1": "1-4", "7.2": "1-2", "7.3": "1-1 3-4", "7.4": "1-3", "8.1": "1-4", "8.2": "1-3", "8.3": "1-8", "11.1": "1-8",
		"12.1": "1-3", "12.2": "1-1", "12.3": "1-6", "12.4": "1-2", "12.5": "1-2", "12.6": "1-1", "13.1": "1-1 3-5", "13.2": "1-3 5-6", "13.3": "1-2", "13.4": "1-2",
		"14.1": "1-4", "14.2": "1-6", "14.3": "2-3", "14.4": "1-7", "14.5": "1-4",
	}
	want := map[string]bool{}
	for section, ranges := range sections {
		for _, r := range strings.Fields(ranges) {
			var from, to int
			if _, err := fmt.Sscanf(r, "%d-%d", &from, &to); err != nil {
				t.Fatal(err)
			}
			for n := from; n <= to; n++ {
				want[fmt.Sprintf("%s.%d", section, n)] = true
			}
		}
	}
	tests := map[string]bool{}
	named := regexp.MustCompile(`(?m)^func ((?:Test|Fuzz)\w+)\(`)
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, "_test.go") {
			return err
		}
		text, err := os.ReadFile(path)
		for _, m := range named.FindAllStringSubmatch(string(text), -1) {
			tests[m[1]] = true
		}
		return err
	})
	if err != nil {
		t.Fatal(err)
	}
	text, err := os.ReadFile("docs/asvs.md")
	if err != nil {
		t.Fatal(err)
	}
	commands, err := os.ReadFile("Makefile")
	if err != nil {
		t.Fatal(err)
	}
	shown := regexp.MustCompile("`([^`]+)`")
	var rows []string
	for _, m := range regexp.MustCompile(`(?m)^\| (\d+\.\d+\.\d+) \| ([^|]+) \| ([^|]+) \|$`).FindAllStringSubmatch(string(text), -1) {
		item, by := m[1], m[3]
		if slices.Contains(rows, item) || !want[item] {
			t.Errorf("%s is there twice, or is no item", item)
		}
		rows = append(rows, item)
		if reason, is := strings.CutPrefix(by, "does not apply: "); is && len(reason) > 8 {
			continue
		}
		if reason, is := strings.CutPrefix(by, "is not so: "); is && len(reason) > 20 {
			continue
		}
		names := shown.FindAllStringSubmatch(by, -1)
		if len(names) == 0 {
			t.Errorf("%s is shown by nothing: %q", item, by)
		}
		for _, n := range names {
			target, is := strings.CutPrefix(n[1], "make ")
			if !tests[n[1]] && !(is && strings.Contains(string(commands), "\n"+target+":")) {
				t.Errorf("%s is shown by %s, which is not there", item, n[1])
			}
		}
	}
	for item := range want {
		if !slices.Contains(rows, item) {
			t.Errorf("%s is missing", item)
		}
	}
}
