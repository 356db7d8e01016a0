package main

import (
	"os/exec"
	"strings"
	"testing"
)

// Every module linked into the program, as go list has it, is in the list with
// its version.
func TestEveryLinkedModuleHasItsLicence(t *testing.T) {
	list, err := exec.Command("go", "list", "-deps", "-f", "{{with .Module}}{{if not .Main}}{{.Path}} {{.Version}}{{end}}{{end}}", ".").Output()
	if err != nil {
		t.Fatal(err)
	}
	modules := strings.Split(strings.TrimSpace(string(list)), "\n")
	for _, m := range modules {
		if m != "" && (!strings.Contains(string(licences), "==== "+m+"\n") || !strings.Contains(string(licences), "\n"+m+": ")) {
			t.Errorf("%s has no licence or no class in the list; run make licences", m)
		}
	}
	for _, own := range []string{"Brevium", "bootstrap", "three", "house fonts of the printed sheet", "wide fonts of the printed sheet", "eastern fonts of the printed sheet"} {
		if !strings.Contains(string(licences), "==== "+own) {
			t.Errorf("%s has no licence in the list", own)
		}
	}
}
