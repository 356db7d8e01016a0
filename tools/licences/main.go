// Command licences gathers the licences of all modules and files that are
// linked into brevium, for `brevium licences` and the release.
package main

import (
	"bytes"
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

// run writes one heading and text for Brevium itself, Go, every linked module
// and every front-end package.
func run(into string) error {
	var out bytes.Buffer
	add := func(name string, text []byte) {
		fmt.Fprintf(&out, "==== %s\n\n%s\n\n", name, bytes.TrimSpace(text))
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
	return os.WriteFile(into, out.Bytes(), 0o644)
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
