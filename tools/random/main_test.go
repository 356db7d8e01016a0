package main

import (
	"testing"

	"brevium/core/design"
	"brevium/core/sample"
)

// Random designs are made, drawn, told and printed, or refused. make random
// tries fifty thousand.
func TestRandomDesignsAreMadeOrRefused(t *testing.T) {
	n := sample.Of(t, 400)
	made, _ := try(uint64(sample.Seed(23)), n, func(in design.Inputs, err error) { t.Errorf("%v\n%s", err, in.Write()) })
	if made < int64(n)/8 {
		t.Errorf("only %d of %d could be made", made, n)
	}
}
