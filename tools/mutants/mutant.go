package main

import (
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
)

// mutant is one change of the code: what stands from one byte of a file to another, and
// what takes its place.
type mutant struct {
	file     string // from the module's folder
	line     int
	from, to int
	was, now string
}

func (m mutant) String() string {
	return fmt.Sprintf("%s:%d: %s → %s", m.file, m.line, oneLine(m.was), oneLine(m.now))
}

func oneLine(text string) string { return strings.Join(strings.Fields(text), " ") }

// room is the folder that the change is in.
func (m mutant) room() string { return filepath.ToSlash(filepath.Dir(m.file)) }

// fate is what becomes of a mutant.
type fate string

const (
	died      fate = "died"      // a test failed
	lives     fate = "LIVES"     // none did
	senseless fate = "senseless" // it cannot be compiled
)

// around are the tests that a change has to pass too, by where it is: where its room has none
// of its own, and where all that is built on it is asked.
var around = []struct{ room, tests string }{
	{"core/", "./core/..."},
	{"store", "./store/... ./web/..."},
	{"web", "./web/..."},
}

// live runs the tests of a mutant's own room, and where it lives and wide is asked for those
// around.
func (m mutant) live(wide bool) (fate, error) {
	folder, err := os.MkdirTemp("", "brevium-mutant-")
	if err != nil {
		return "", err
	}
	defer os.RemoveAll(folder)
	kept, err := filepath.Abs(m.file)
	if err != nil {
		return "", err
	}
	text, err := os.ReadFile(kept)
	if err != nil {
		return "", err
	}
	if string(text[m.from:m.to]) != m.was {
		return "", fmt.Errorf("%q stands there", text[m.from:m.to])
	}
	changed, overlay := filepath.Join(folder, "changed.go"), filepath.Join(folder, "overlay.json")
	list, err := json.Marshal(map[string]map[string]string{"Replace": {kept: changed}})
	if err != nil {
		return "", err
	}
	for file, content := range map[string][]byte{changed: []byte(string(text[:m.from]) + m.now + string(text[m.to:])), overlay: list} {
		if err := os.WriteFile(file, content, 0o600); err != nil {
			return "", err
		}
	}
	passes := func(args ...string) bool { return exec.Command("go", args...).Run() == nil }
	own := "./" + m.room()
	if !passes("build", "-overlay", overlay, own) {
		return senseless, nil
	}
	tests := []string{own}
	theirs, err := filepath.Glob(filepath.Join(m.room(), "*_test.go"))
	if err != nil {
		return "", err
	}
	for _, a := range around {
		if (wide || len(theirs) == 0) && strings.HasPrefix(m.room(), a.room) {
			tests = append(tests, a.tests)
			break
		}
	}
	for _, of := range tests {
		args := append([]string{"test", "-overlay", overlay, "-failfast", "-vet=off", "-timeout", "15m"}, strings.Fields(of)...)
		if !passes(args...) {
			return died, nil
		}
	}
	return lives, nil
}
