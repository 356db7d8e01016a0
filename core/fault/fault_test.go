package fault

import (
	"errors"
	"fmt"
	"strings"
	"testing"
)

func TestFaultsKeepTheirPlace(t *testing.T) {
	inner := New(TooSmall, "height", "%d is too small", 3)
	if got := inner.Error(); got != "height: 3 is too small" {
		t.Errorf("a fault reads %q", got)
	}
	outer := At("contents[0]", fmt.Errorf("wrapped: %w", inner))
	if f := Of(outer); f.Field != "contents[0].height" || f.Code != TooSmall || f.Text != "3 is too small" {
		t.Errorf("at an outer field it is %+v", f)
	}
	if At("x", nil) != nil {
		t.Error("no error became one")
	}
	if f := Of(At("x", errors.New("plain"))); f.Code != Invalid || f.Error() != "x: plain" {
		t.Errorf("a plain error becomes %+v", f)
	}
	if f := Of(errors.New("plain")); f.Code != Internal || f.Error() != "plain" {
		t.Errorf("an error without a place becomes %+v", f)
	}
}

// What a fault came from is seen through it, however often it got a field.
func TestFaultsKeepTheirCause(t *testing.T) {
	cause := errors.New("the disk is full")
	err := At("boxes", At("name", New(Unreadable, "", "the name cannot be kept: %w", cause)))
	if !errors.Is(err, cause) || Of(err).Code != Unreadable || Of(err).Field != "boxes.name" {
		t.Errorf("got %#v", err)
	}
	if err := At("x", cause); !errors.Is(err, cause) {
		t.Error("an error with a field has lost its cause")
	}
}

func TestPaths(t *testing.T) {
	for want, steps := range map[string][]any{
		"mats[0].layers[1].border": {"mats", 0, "layers", 1, "border"},
		"size.length":              {"size", "length"},
		"items[3]":                 {"items", 3},
		"items[3].copies":          {Path("items", 3), "copies"},
		"x":                        {"", "x", ""},
	} {
		if got := Path(steps...); got != want {
			t.Errorf("%v is written %q; want %q", steps, got, want)
		}
	}
}

func TestGuard(t *testing.T) {
	if err := Guard(
		func() error { panic("no such face") },
	); err == nil || Of(err).Code != Internal ||
		!strings.Contains(Of(err).Cause.Error(), "no such face") {
		t.Errorf("a panic became %v", err)
	}
	want := errors.New("x")
	if err := Guard(func() error { return want }); err != want {
		t.Errorf("an error became %v", err)
	}
}
