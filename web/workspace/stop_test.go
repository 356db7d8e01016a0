package workspace

import (
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
)

// What a stop is lies in its own file and its own template: no other asks which stop it is.
func TestNoStopIsNamedOutsideItsFile(t *testing.T) {
	asks := regexp.MustCompile(`(case|[=!]=|eq \.Stop) *"(\w+)"|\.(?:ID|Stop) *[=!]= *"(\w+)"`)
	files, err := filepath.Glob("*")
	if err != nil || len(files) < 40 {
		t.Fatal(len(files), err)
	}
	for _, name := range files {
		text, err := os.ReadFile(name)
		if err != nil || strings.HasSuffix(name, "_test.go") {
			continue
		}
		for _, m := range asks.FindAllStringSubmatch(string(text), -1) {
			if _, is := stopByID(m[2] + m[3]); is {
				t.Errorf("%s asks for a stop: %s", name, m[0])
			}
		}
	}
	for _, s := range stops {
		for _, file := range []string{s.ID + ".go", s.ID + ".html"} {
			if !slices.Contains(files, file) {
				t.Errorf("the stop %s has no %s", s.ID, file)
			}
		}
		if s.read == nil || s.page == nil || s.answer == nil {
			t.Errorf("the stop %s lacks a part", s.ID)
		}
	}
}

// Each check's matter is settled at one stop.
func TestWhereAChecksMatterIsSettled(t *testing.T) {
	for check, at := range map[string]*stop{
		"fit": fitStop, "fit.lid": fitStop, "sheets": sheetsStop, "trimmer": sheetsStop, "corners": boxStop, "": boxStop,
	} {
		if got := stopOf(check); got != at {
			t.Errorf("%q is settled at %s; want %s", check, got.ID, at.ID)
		}
	}
}
