package main

import (
	"math/rand"
	"reflect"
	"testing"
)

// Every class makes jobs that can be laid out, and the same again.
func TestJobsAreSound(t *testing.T) {
	for class := 1; class <= len(classes); class++ {
		for _, n := range sizes {
			j := classic(rand.New(rand.NewSource(int64(class))), class, n)
			if err := j.Check(); err != nil || len(j.Pieces) != n {
				t.Errorf("class %d of %d: %d pieces, %v", class, n, len(j.Pieces), err)
			}
		}
	}
	for seed := range int64(50) {
		j := batch(rand.New(rand.NewSource(seed)))
		if err := j.Check(); err != nil {
			t.Errorf("batch %d: %v", seed, err)
		}
		if !reflect.DeepEqual(j, batch(rand.New(rand.NewSource(seed)))) {
			t.Errorf("batch %d is another one the second time", seed)
		}
	}
}
