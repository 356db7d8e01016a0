package main

import (
	"os"
	"slices"
	"testing"
)

// The test binary's own list has the modules that it is linked of, and the front end's
// packages in the versions that are locked.
func TestList(t *testing.T) {
	self, err := os.Executable()
	if err != nil {
		t.Fatal(err)
	}
	got, err := list(self, "../../web/assets/package.json", "../../web/assets/package-lock.json")
	if err != nil {
		t.Fatal(err)
	}
	has := func(name string) bool {
		return slices.ContainsFunc(got.Components, func(c component) bool { return c.Name == name && c.Version != "" })
	}
	for _, name := range []string{"stdlib", "htmx.org", "bootstrap"} {
		if !has(name) {
			t.Errorf("%s is not in the list", name)
		}
	}
	if _, err := list(self, "main.go", "main.go"); err == nil {
		t.Error("a file that is no list is read")
	}
	if _, err := list("main.go", "", ""); err == nil {
		t.Error("a text is read as a binary")
	}
}
