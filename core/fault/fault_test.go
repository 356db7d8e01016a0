package fault

import (
	"errors"
	"fmt"
	"testing"
)

func TestFaultsKeepTheirPlace(t *testing.T) {
	inner := New("too-small", "height", "%d is too small", 3)
	if got := inner.Error(); got != "height: 3 is too small" {
		t.Errorf("a fault reads %q", got)
	}
	outer := At("contents[0]", fmt.Errorf("wrapped: %w", inner))
	if f := Of(outer); f.Field != "contents[0].height" || f.Code != "too-small" || f.Text != "3 is too small" {
		t.Errorf("at an outer field it is %+v", f)
	}
	if At("x", nil) != nil {
		t.Error("no error became one")
	}
	if f := Of(At("x", errors.New("plain"))); f.Code != "invalid" || f.Error() != "x: plain" {
		t.Errorf("a plain error becomes %+v", f)
	}
	if f := Of(errors.New("plain")); f.Code != "internal" || f.Error() != "plain" {
		t.Errorf("an error without a place becomes %+v", f)
	}
}
