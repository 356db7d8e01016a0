package main

import (
	"cmp"
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// bench is where changes are tried: the tests of all rooms, and how long a change is looked at.
type bench struct {
	all    []mutant
	suites []*suite
	folder string
	budget time.Duration
}

// try gives what becomes of a change: the tests that come by it are run, those of its own
// room first, then from the quick to the slow, until one fails or the budget is used up.
func (b bench) try(i int) (fate, error) {
	m := b.all[i]
	type group struct {
		s     *suite
		tests []*trial
		takes time.Duration
		own   bool
	}
	var quick, slow []group
	for _, s := range b.suites {
		tests, _ := s.meeting(i)
		own := strings.HasSuffix(s.pkg, "/"+m.room())
		var first group
		for _, t := range tests {
			if first.takes+t.takes < 10*time.Second {
				first = group{s, append(first.tests, t), first.takes + t.takes, own}
			} else {
				slow = append(slow, group{s, []*trial{t}, t.takes, own})
			}
		}
		if first.s != nil {
			quick = append(quick, first)
		}
	}
	order := func(a, b group) int {
		if a.own != b.own {
			return cmp.Compare(btoi(b.own), btoi(a.own))
		}
		return cmp.Compare(a.takes, b.takes)
	}
	slices.SortFunc(quick, order)
	slices.SortFunc(slow, order)
	groups := append(quick, slow...)
	if len(groups) == 0 {
		return unseen, nil
	}
	var used time.Duration
	for _, g := range groups {
		if used > 0 && used+g.takes > b.budget {
			continue
		}
		used += g.takes
		s := *g.s
		if m.kind == limit {
			s.binary = filepath.Join(b.folder, fmt.Sprintf("limit%d.test", i))
			list, err := alone(m, b.folder, i)
			if err != nil {
				return "", err
			}
			if _, err := compile(list, s.binary, s.pkg); err != nil {
				return senseless, nil
			}
		}
		failed := s.run(fmt.Sprintf("BREVIUM_MUTANT=%d", i), 5*g.takes+30*time.Second, "-test.failfast", "-test.run", pattern(g.tests)).Run() != nil
		if m.kind == limit {
			if err := os.Remove(s.binary); err != nil {
				return "", err
			}
		}
		if failed {
			return died, nil
		}
	}
	return lives, nil
}

func btoi(b bool) int {
	if b {
		return 1
	}
	return 0
}

// alone writes one change as it is, and gives the list with which the go command takes it
// for the kept file.
func alone(m mutant, folder string, i int) (list string, err error) {
	kept, err := filepath.Abs(m.file)
	if err != nil {
		return "", err
	}
	text, err := os.ReadFile(kept)
	if err != nil {
		return "", err
	}
	if m.of(text) != m.was {
		return "", fmt.Errorf("%v: %q stands there", m, m.of(text))
	}
	changed := filepath.Join(folder, fmt.Sprintf("alone%d.go", i))
	list = filepath.Join(folder, fmt.Sprintf("alone%d.json", i))
	replace, err := json.Marshal(map[string]map[string]string{"Replace": {kept: changed}})
	if err != nil {
		return "", err
	}
	if err := os.WriteFile(changed, []byte(string(text[:m.from])+m.now+string(text[m.to:])), 0o600); err != nil {
		return "", err
	}
	return list, os.WriteFile(list, replace, 0o600)
}

// around are the tests that a written change has to pass too, by where it is.
var around = []struct{ room, tests string }{
	{"core/", "./core/..."},
	{"store", "./store/... ./web/..."},
	{"web", "./web/..."},
}

// tryWritten gives what becomes of a change that is written down: the tests of its own room
// are run, and where it lives those of all that may be built on it.
func (b bench) tryWritten(i int) (fate, error) {
	m := b.all[i]
	list, err := alone(m, b.folder, i)
	if err != nil {
		return "", err
	}
	passes := func(args ...string) bool { return exec.Command("go", args...).Run() == nil }
	if !passes("build", "-overlay", list, "./"+m.room()) {
		return senseless, nil
	}
	tests := []string{"./" + m.room()}
	for _, a := range around {
		if strings.HasPrefix(m.room(), a.room) {
			tests = append(tests, a.tests)
			break
		}
	}
	for _, of := range tests {
		args := append([]string{"test", "-overlay", list, "-failfast", "-vet=off", "-timeout", "15m"}, strings.Fields(of)...)
		if !passes(args...) {
			return died, nil
		}
	}
	return lives, nil
}
