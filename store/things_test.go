package store

import (
	"errors"
	"testing"

	"brevium/core/contents"
	"brevium/core/measure"
	"brevium/store/desk"
)

func TestThingsAreKeptOnce(t *testing.T) {
	s := fresh(t)
	starters, err := s.Of(t.Context()).Things(t.Context())
	if err != nil || len(starters) == 0 {
		t.Fatalf("a new library has %d things, %v", len(starters), err)
	}
	tin := contents.Thing{
		Name:   "a tin",
		Shape:  contents.Round,
		Length: 70 * measure.Millimetre,
		Width:  70 * measure.Millimetre,
		Height: 40 * measure.Millimetre,
		Count:  5,
		Ease:   2 * measure.Millimetre,
	}
	for range 2 {
		if err := s.Of(t.Context()).KeepThing(t.Context(), tin); err != nil {
			t.Fatal(err)
		}
	}
	all, err := s.Of(t.Context()).Things(t.Context())
	if err != nil || len(all) != len(starters)+1 {
		t.Fatalf("%d things after one was kept twice; want %d (%v)", len(all), len(starters)+1, err)
	}
	if all[0].Name != "a tin" || all[0].Count != 1 || all[0].Length != tin.Length {
		t.Errorf("the tin came back as %+v", all[0])
	}
	if err := s.Of(t.Context()).DropThing(t.Context(), all[0].ID); err != nil {
		t.Error(err)
	}
	if err := s.Of(t.Context()).DropThing(t.Context(), all[0].ID); !errors.Is(err, desk.ErrNotFound) {
		t.Errorf("dropping it twice: %v", err)
	}
}
