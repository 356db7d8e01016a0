package main

import (
	"bufio"
	"fmt"
	"os"
	"strings"
)

// readNamed reads changes that are written down: lines of file, what stands there and what
// is put in its place, between tabs; what stands there is there once.
func readNamed(file string) ([]mutant, error) {
	f, err := os.Open(file)
	if err != nil {
		return nil, err
	}
	defer f.Close()
	var out []mutant
	for lines := bufio.NewScanner(f); lines.Scan(); {
		parts := strings.Split(lines.Text(), "\t")
		if len(parts) != 3 {
			return nil, fmt.Errorf("%s: %q is not three columns", file, lines.Text())
		}
		text, err := os.ReadFile(parts[0])
		if err != nil {
			return nil, err
		}
		for i := range parts {
			parts[i] = strings.NewReplacer(`\n`, "\n", `\t`, "\t").Replace(parts[i])
		}
		before, after, there := strings.Cut(string(text), parts[1])
		if !there || strings.Contains(after, parts[1]) {
			return nil, fmt.Errorf("%s: %q does not stand once in %s", file, parts[1], parts[0])
		}
		out = append(out, mutant{
			file: parts[0], line: 1 + strings.Count(before, "\n"), kind: written,
			span: span{len(before), len(before) + len(parts[1])}, was: parts[1], now: parts[2],
		})
	}
	return out, nil
}
