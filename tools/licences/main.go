// Command licences gathers the licences of all modules and files that are
// linked into brevium, for `brevium licences` and the release.
package main

import (
	"bytes"
	"errors"
	"fmt"
	"log"
	"os"
	"os/exec"
	"path/filepath"
	"sort"
	"strings"
)

func main() {
	if err := run(filepath.Join("cmd", "brevium", "licences.txt")); err != nil {
		log.Fatal(err)
	}
}

// classes are the licences that may be linked in, and words that stand in each and in none of
// those after it.
var classes = []struct{ name, says string }{
	{"Apache 2.0", "Apache License"},
	{"OFL 1.1", "SIL OPEN FONT LICENSE"},
	{"MPL 2.0", "Mozilla Public License"},
	{"BSD, 3 clauses", "Neither the name of"},
	{"BSD, 3 clauses", "may not be used to endorse"},
	{"BSD, 2 clauses", "Redistribution and use in source and binary forms"},
	{"0BSD or ISC", "Permission to use, copy, modify, and/or distribute this software"},
	{"MIT", "Permission is hereby granted, free of charge"},
}

// classOf tells which licence a text is, "" for none that is known.
func classOf(text string) string {
	text = strings.Join(strings.Fields(text), " ")
	for _, c := range classes {
		if strings.Contains(text, c.says) {
			return c.name
		}
	}
	return ""
}

// run writes a table, and then one heading and text for Brevium itself, Go, every linked module
// and every front-end package.
func run(into string) error {
	var out, table bytes.Buffer
	var unclear error
	add := func(name string, text []byte) {
		fmt.Fprintf(&out, "==== %s\n\n%s\n\n", name, bytes.TrimSpace(text))
		class := classOf(string(text))
		if class == "" {
			unclear = errors.Join(unclear, fmt.Errorf("the licence of %s is of no known class", name))
		}
		fmt.Fprintf(&table, "%s: %s\n", name, class)
	}
	own, err := os.ReadFile("LICENSE")
	if err != nil {
		return err
	}
	add("Brevium", own)
	root, err := exec.Command("go", "env", "GOROOT").Output()
	if err != nil {
		return err
	}
	if text, err := os.ReadFile(filepath.Join(strings.TrimSpace(string(root)), "LICENSE")); err == nil {
		add("Go", text)
	}
	list, err := exec.Command("go", "list", "-deps", "-f", "{{with .Module}}{{if not .Main}}{{.Path}} {{.Version}}\t{{.Dir}}{{end}}{{end}}", "./cmd/brevium").Output()
	if err != nil {
		return err
	}
	modules := strings.Split(strings.TrimSpace(string(list)), "\n")
	sort.Strings(modules)
	last := ""
	for _, m := range modules {
		name, dir, ok := strings.Cut(m, "\t")
		if !ok || m == last {
			continue
		}
		last = m
		text, err := licenceIn(dir)
		if err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
		add(name, text)
	}
	files, err := filepath.Glob("web/static/vendor/LICENSE-*.txt")
	if err != nil {
		return err
	}
	fonts, err := filepath.Glob("draw/pdf/fonts/LICENSE-*.txt")
	if err != nil {
		return err
	}
	for _, f := range append(files, fonts...) {
		text, err := os.ReadFile(f)
		if err != nil {
			return err
		}
		name := strings.TrimSuffix(strings.TrimPrefix(filepath.Base(f), "LICENSE-"), ".txt")
		if strings.HasPrefix(f, "draw/") {
			name += " fonts of the printed sheet"
		}
		add(name, text)
	}
	if unclear != nil {
		return unclear
	}
	head := fmt.Appendf(nil, "==== All that is linked in, by the class of its licence\n\n%s\n", table.Bytes())
	return os.WriteFile(into, append(head, out.Bytes()...), 0o644)
}

// licenceIn finds a module's licence text.
func licenceIn(dir string) ([]byte, error) {
	for _, name := range []string{"LICENSE", "LICENSE.txt", "LICENSE.md", "LICENSE-MIT", "LICENCE", "COPYING"} {
		if text, err := os.ReadFile(filepath.Join(dir, name)); err == nil {
			return text, nil
		}
	}
	return nil, fmt.Errorf("no licence in %s", dir)
}
