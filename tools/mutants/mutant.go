package main

import (
	"fmt"
	"go/types"
	"path/filepath"
	"strings"
)

// mutant is one change of the code.
type mutant struct {
	file string // from the module's folder
	line int
	kind kind
	span
	was, now string
	parts    []part       // what it is made of that stands there instead
	object   types.Object // a limit that is doubled
	used     []mark       // where functions begin that use that limit
}

// kind is how a change can be made.
type kind int

const (
	condition kind = iota // a truth that is turned: woven in, and chosen when the test runs
	choice                // another value of the same type: woven in
	limit                 // a constant, for which what uses it is compiled anew
	written               // a text for a text, compiled anew
)

// span is from one byte of a file to another.
type span struct{ from, to int }

func (s span) of(text []byte) string { return string(text[s.from:s.to]) }

func (s span) holds(other span) bool { return s.from <= other.from && other.to <= s.to }

// part is a piece of code that is put in: a text, or what stands at a place already.
type part struct {
	text string
	span
}

// mark is a byte of a file.
type mark struct {
	file string
	at   int
}

// told gives what is put in as text.
func (m mutant) told(text []byte) string {
	var b strings.Builder
	for _, p := range m.parts {
		if p.text != "" {
			b.WriteString(p.text)
		} else {
			b.WriteString(p.of(text))
		}
	}
	return b.String()
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
	lives     fate = "LIVES"     // tests came by, and none failed
	unseen    fate = "UNSEEN"    // no test comes by
	senseless fate = "senseless" // it cannot be compiled
)
