package stylefile

import (
	"embed"
	"encoding/json"
	"io/fs"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/strict"
	"brevium/core/style"
)

//go:embed examples/*.json
var examples embed.FS

// Example is a style file to begin with, and the name of its style.
type Example struct{ ID, Name, Text string }

// Examples are files that give the boxes of styles in the catalogue, to be changed.
func Examples() []Example {
	var out []Example
	names, _ := fs.Glob(examples, "examples/*.json") // the pattern is right
	for _, name := range names {
		text, err := examples.ReadFile(name)
		if err != nil {
			continue
		}
		id := strings.TrimSuffix(strings.TrimPrefix(name, "examples/"), ".json")
		if s, err := style.ByID(id); err == nil {
			out = append(out, Example{id, s.Name, string(text)})
		}
	}
	return out
}

// Kept is a version of a style file that is kept.
type Kept struct {
	File   []byte
	Struck bool
}

// Own reads kept styles, the newest version of each first to be offered; one that cannot
// be read any more is left out. Each version is a style of its own.
func Own(kept []Kept) []*style.Style {
	type version struct {
		of     string
		number int
		style  *style.Style
	}
	var all []version
	for _, k := range kept {
		var f file
		if json.Unmarshal(k.File, &f) != nil {
			continue
		}
		f.Version = max(1, f.Version)
		if s, err := f.style(); err == nil {
			s.Newer = k.Struck
			all = append(all, version{f.ID, f.Version, s})
		}
	}
	var out []*style.Style
	for _, v := range all {
		v.style.Newer = v.style.Newer || slices.ContainsFunc(all, func(w version) bool { return w.of == v.of && w.number > v.number })
		out = append(out, v.style)
	}
	return out
}

// Versioned gives a style file as a version of its id, written as it is kept.
func Versioned(text []byte, number int) ([]byte, error) {
	var f file
	if err := strict.Decode(text, &f); err != nil {
		return nil, err
	}
	f.Version = number
	return json.MarshalIndent(f, "", " ")
}

// IDOf is a file's id.
func IDOf(text []byte) (string, error) {
	var f file
	if err := strict.Decode(text, &f); err != nil {
		return "", err
	}
	if !slug.MatchString(f.ID) {
		return "", fault.New(fault.Invalid, "id", "an id is made of small letters, numbers and strokes, such as my-tray")
	}
	return f.ID, nil
}
