package main

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"
)

// suite is the tests of a room, compiled with all changes woven in.
type suite struct {
	pkg, folder, binary string
	tests               []*trial
}

// trial is a test as it is without a change: how long it takes and which changes it comes by.
type trial struct {
	name  string
	takes time.Duration
	fails bool
	meets map[int]bool
}

// suites compiles the tests of all rooms.
func suites(list, to string, hands int) ([]*suite, error) {
	out, err := exec.Command("go", "list", "-f", "{{if or .TestGoFiles .XTestGoFiles}}{{.ImportPath}} {{.Dir}}{{end}}", "./...").Output()
	if err != nil {
		return nil, err
	}
	var all []*suite
	for line := range strings.Lines(string(out)) {
		if f := strings.Fields(line); len(f) == 2 && !strings.Contains(f[0], "/tools/") {
			all = append(all, &suite{pkg: f[0], folder: f[1], binary: filepath.Join(to, strconv.Itoa(len(all))+".test")})
		}
	}
	faults := make([]error, len(all))
	side(hands, len(all), func(i int) {
		s := all[i]
		if said, err := compile(list, s.binary, s.pkg); err != nil {
			faults[i] = fmt.Errorf("%s: %v\n%s", s.pkg, err, said)
			return
		}
		names, err := s.run("", 0, "-test.list", ".").Output()
		if err != nil {
			faults[i] = fmt.Errorf("%s: %v", s.pkg, err)
		}
		for name := range strings.Lines(string(names)) {
			if name = strings.TrimSpace(name); strings.HasPrefix(name, "Test") || strings.HasPrefix(name, "Fuzz") {
				s.tests = append(s.tests, &trial{name: name})
			}
		}
	})
	for _, err := range faults {
		if err != nil {
			return nil, err
		}
	}
	return all, nil
}

func compile(list, to, pkg string) (said []byte, err error) {
	return exec.Command("go", "test", "-c", "-overlay", list, "-vet=off", "-ldflags=-s -w", "-o", to, pkg).CombinedOutput()
}

// side does a number of things, so many at a time.
func side(hands, n int, do func(i int)) {
	next := make(chan int)
	var work sync.WaitGroup
	for range hands {
		work.Go(func() {
			for i := range next {
				do(i)
			}
		})
	}
	for i := range n {
		next <- i
	}
	close(next)
	work.Wait()
}

// run is the tests of a suite, with a setting of the environment.
func (s *suite) run(setting string, limit time.Duration, args ...string) *exec.Cmd {
	if limit > 0 {
		args = append(args, "-test.timeout", limit.String())
	}
	c := exec.Command(s.binary, args...)
	c.Dir, c.Env = s.folder, append(os.Environ(), setting)
	return c
}

// pattern gives the names as the tests' own flag takes them.
func pattern(tests []*trial) string {
	names := make([]string, len(tests))
	for i, t := range tests {
		names[i] = t.name
	}
	return "^(" + strings.Join(names, "|") + ")$"
}

// watch runs each test alone and notes how long it takes and which changes it comes by.
func watch(all []*suite, folder string, hands int) error {
	type pair struct {
		s *suite
		t *trial
	}
	var pairs []pair
	for _, s := range all {
		for _, t := range s.tests {
			pairs = append(pairs, pair{s, t})
		}
	}
	faults := make([]error, len(pairs))
	side(hands, len(pairs), func(i int) {
		p := pairs[i]
		log := filepath.Join(folder, fmt.Sprintf("seen%d", i))
		if faults[i] = os.WriteFile(log, nil, 0o600); faults[i] != nil {
			return
		}
		began := time.Now()
		p.t.fails = p.s.run("BREVIUM_MUTANTS_SEEN="+log, 20*time.Minute, "-test.run", pattern([]*trial{p.t})).Run() != nil
		p.t.takes, p.t.meets = time.Since(began), map[int]bool{}
		if p.t.fails {
			fmt.Printf("%s %s fails without a change, and is not asked\n", p.s.pkg, p.t.name)
		}
		text, err := os.ReadFile(log)
		faults[i] = err
		for _, id := range strings.Fields(string(text)) {
			if n, err := strconv.Atoi(id); err == nil {
				p.t.meets[n] = true
			}
		}
		faults[i] = os.Remove(log)
	})
	for _, err := range faults {
		if err != nil {
			return err
		}
	}
	return nil
}

// meeting gives the tests of a suite that come by a change, the quick ones first.
func (s *suite) meeting(i int) (tests []*trial, takes time.Duration) {
	for _, t := range s.tests {
		if t.meets[i] && !t.fails {
			tests, takes = append(tests, t), takes+t.takes
		}
	}
	slices.SortFunc(tests, func(a, b *trial) int { return int(a.takes - b.takes) })
	return tests, takes
}
