// Command sbom writes what a binary of brevium is made of: its Go modules, as the binary
// itself tells them, and the packages whose files it ships, as a CycloneDX list.
package main

import (
	"debug/buildinfo"
	"encoding/json"
	"fmt"
	"log"
	"os"
	"path"
	"slices"
	"strings"
)

// component is one entry of the list.
type component struct {
	Type    string `json:"type"`
	Name    string `json:"name"`
	Version string `json:"version"`
	PURL    string `json:"purl"`
}

type bom struct {
	Format     string      `json:"bomFormat"`
	Spec       string      `json:"specVersion"`
	Version    int         `json:"version"`
	Metadata   metadata    `json:"metadata"`
	Components []component `json:"components"`
}

type metadata struct {
	Component component `json:"component"`
}

func main() {
	if len(os.Args) != 2 {
		log.Fatal("usage: sbom BINARY")
	}
	out, err := list(os.Args[1], "web/assets/package.json", "web/assets/package-lock.json")
	if err != nil {
		log.Fatal(err)
	}
	text, err := json.MarshalIndent(out, "", " ")
	if err != nil {
		log.Fatal(err)
	}
	fmt.Println(string(text))
}

// list tells what a binary is made of, and what of the front end's packages is shipped.
func list(binary, wanted, locked string) (bom, error) {
	info, err := buildinfo.ReadFile(binary)
	if err != nil {
		return bom{}, err
	}
	module := func(name, version string) component {
		return component{Type: "library", Name: name, Version: version, PURL: "pkg:golang/" + name + "@" + version}
	}
	out := bom{Format: "CycloneDX", Spec: "1.6", Version: 1, Metadata: metadata{component{Type: "application", Name: "brevium", Version: info.Main.Version, PURL: "pkg:generic/brevium"}}}
	out.Components = append(out.Components, module("stdlib", strings.TrimPrefix(info.GoVersion, "go")))
	for _, m := range info.Deps {
		if m.Replace != nil {
			m = m.Replace
		}
		out.Components = append(out.Components, module(m.Path, m.Version))
	}
	packages, err := front(wanted, locked)
	out.Components = append(out.Components, packages...)
	slices.SortFunc(out.Components, func(a, b component) int { return strings.Compare(a.PURL, b.PURL) })
	return out, err
}

// front are the packages whose files are copied into the binary, in the versions that
// are locked.
func front(wanted, locked string) ([]component, error) {
	var want struct{ Dependencies map[string]string }
	var lock struct {
		Packages map[string]struct{ Version string }
	}
	for file, into := range map[string]any{wanted: &want, locked: &lock} {
		text, err := os.ReadFile(file)
		if err != nil {
			return nil, err
		}
		if err := json.Unmarshal(text, into); err != nil {
			return nil, fmt.Errorf("%s: %w", file, err)
		}
	}
	var out []component
	for name := range want.Dependencies {
		p, known := lock.Packages[path.Join("node_modules", name)]
		if !known {
			return nil, fmt.Errorf("%s is not locked", name)
		}
		out = append(out, component{Type: "library", Name: name, Version: p.Version, PURL: "pkg:npm/" + strings.Replace(name, "@", "%40", 1) + "@" + p.Version})
	}
	return out, nil
}
