package main

import "testing"

// The changes that are written down can still be made: what they change stands there once.
func TestNamedChangesStand(t *testing.T) {
	t.Chdir("../..")
	all, err := readNamed("tools/mutants/named.txt")
	if err != nil {
		t.Fatal(err)
	}
	if len(all) < 10 {
		t.Errorf("only %d are written down", len(all))
	}
}
