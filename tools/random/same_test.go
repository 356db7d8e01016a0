package main

import (
	"os"
	"path/filepath"
	"testing"

	"brevium/core/sample"
)

// The same design comes to the same plan, pictures and sheet, to the byte; and what comes to
// something else is noticed.
func TestTheSameDesignComesToTheSame(t *testing.T) {
	n, seed := sample.Of(t, 200), uint64(sample.Seed(30))
	kept := filepath.Join(t.TempDir(), "kept")
	if err := compare(seed, n, kept, ""); err != nil {
		t.Fatal(err)
	}
	if err := compare(seed, n, "", kept); err != nil {
		t.Error(err)
	}
	text, err := os.ReadFile(kept)
	if err != nil {
		t.Fatal(err)
	}
	text[0] ^= 1
	if err := os.WriteFile(kept, text, 0o644); err != nil {
		t.Fatal(err)
	}
	if compare(seed, n, "", kept) == nil {
		t.Error("another outcome was not noticed")
	}
}
