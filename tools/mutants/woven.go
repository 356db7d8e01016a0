package main

import (
	"encoding/json"
	"fmt"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"slices"
	"strings"
)

// thread is what is woven into a place of a file: changes of what stands there, or (with an
// empty span) a note that somebody came by.
type thread struct {
	span
	changes []int
}

// weaver writes one file again with all changes in it, each of which waits for its number.
type weaver struct {
	all     []mutant
	text    []byte
	threads []thread // by their beginning, the wider first
}

// overlay writes into a folder all files with a change in them and what these changes call,
// and gives the list with which the go command takes them for the kept ones.
func overlay(all []mutant, folder string) (list string, err error) {
	files := map[string]map[span][]int{}
	note := func(file string, s span, i int) {
		if files[file] == nil {
			files[file] = map[span][]int{}
		}
		files[file][s] = append(files[file][s], i)
	}
	for i, m := range all {
		if m.kind == condition || m.kind == choice {
			note(m.file, m.span, i)
		}
		for _, u := range m.used {
			note(u.file, span{u.at, u.at}, i)
		}
	}
	replace, rooms := map[string]string{}, map[string]bool{}
	put := func(file, text string) error {
		kept, err := filepath.Abs(file)
		if err != nil {
			return err
		}
		replace[kept] = filepath.Join(folder, fmt.Sprintf("%d.go", len(replace)))
		return os.WriteFile(replace[kept], []byte(text), 0o600)
	}
	for file, spans := range files {
		w := weaver{all: all}
		if w.text, err = os.ReadFile(file); err != nil {
			return "", err
		}
		for s, changes := range spans {
			w.threads = append(w.threads, thread{s, changes})
		}
		slices.SortFunc(w.threads, func(a, b thread) int {
			if a.from != b.from {
				return a.from - b.from
			}
			return b.to - a.to
		})
		if err := put(file, w.weave(span{0, len(w.text)}, span{})); err != nil {
			return "", err
		}
		if room := filepath.Dir(file); !rooms[room] {
			rooms[room] = true
			f, err := parser.ParseFile(token.NewFileSet(), file, w.text, parser.PackageClauseOnly)
			if err != nil {
				return "", err
			}
			if err := put(filepath.Join(room, "zz_mutant.go"), fmt.Sprintf(called, f.Name.Name, len(all))); err != nil {
				return "", err
			}
		}
	}
	text, err := json.Marshal(map[string]any{"Replace": replace})
	if err != nil {
		return "", err
	}
	list = filepath.Join(folder, "overlay.json")
	return list, os.WriteFile(list, text, 0o600)
}

// weave gives a span of the text with what is to be woven in, but for the thread that is
// being woven already.
func (w weaver) weave(s, but span) string {
	var b strings.Builder
	at := s.from
	for _, t := range w.threads {
		if t.from < at || !s.holds(t.span) || t.span == but {
			continue
		}
		b.Write(w.text[at:t.from])
		b.WriteString(w.change(t))
		at = t.to
	}
	b.Write(w.text[at:s.to])
	return b.String()
}

func (w weaver) change(t thread) string {
	if t.from == t.to {
		var b strings.Builder
		for _, i := range t.changes {
			fmt.Fprintf(&b, "mutantIs(%d);", i)
		}
		return b.String()
	}
	was := w.weave(t.span, t.span)
	if i := t.changes[0]; w.all[i].kind == choice {
		return fmt.Sprintf("mutantPick(%d, %s, %s)", i, was, w.all[i].now)
	}
	var b strings.Builder
	b.WriteString("func() bool { ")
	for _, i := range t.changes {
		fmt.Fprintf(&b, "if mutantIs(%d) { return ", i)
		for _, p := range w.all[i].parts {
			if p.text != "" {
				b.WriteString(p.text)
			} else {
				b.WriteString(w.weave(p.span, t.span))
			}
		}
		b.WriteString(" }; ")
	}
	return b.String() + "return " + was + " }()"
}

// called is what the changes of a room call: which of them is on is in the environment, and
// so is the file in which to note which a test comes by. A change that fills the memory ends.
const called = `package %[1]s

import (
	mutantOS "os"
	mutantRuntime "runtime"
	mutantNumbers "strconv"
	mutantAtomic "sync/atomic"
	mutantTime "time"
)

var mutantNow, mutantLog = func() (int, *mutantOS.File) {
	now := -1
	if n, err := mutantNumbers.Atoi(mutantOS.Getenv("BREVIUM_MUTANT")); err == nil {
		now = n
		go func() {
			for {
				var m mutantRuntime.MemStats
				if mutantRuntime.ReadMemStats(&m); m.HeapAlloc > 4<<30 {
					mutantOS.Exit(3)
				}
				mutantTime.Sleep(2 * mutantTime.Second)
			}
		}()
	}
	log, err := mutantOS.OpenFile(mutantOS.Getenv("BREVIUM_MUTANTS_SEEN"), mutantOS.O_APPEND|mutantOS.O_WRONLY, 0)
	if err != nil {
		return now, nil
	}
	return now, log
}()

var mutantSeen [%[2]d]mutantAtomic.Bool

func mutantIs(i int) bool {
	if mutantLog != nil && !mutantSeen[i].Swap(true) {
		mutantLog.WriteString(mutantNumbers.Itoa(i) + "\n")
	}
	return i == mutantNow
}

func mutantPick[T any](i int, was, now T) T {
	if mutantIs(i) {
		return now
	}
	return was
}
`
