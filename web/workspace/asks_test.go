package workspace_test

import (
	"strings"
	"testing"

	"brevium/web/webtest"
)

// A number of the maker's own that the account calls tight stands, and the page asks what it did;
// one that fits, or one that is worked out, is not asked about.
func TestATightNumberIsAskedAbout(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	asks := func(pairs ...string) bool {
		t.Helper()
		if code, _, _ := x.Post("/boxes/1/fit", pairs...); code >= 400 {
			t.Fatalf("%v: %d", pairs, code)
		}
		return strings.Contains(x.Words("/boxes/1/fit"), "What did yours do?")
	}
	if asks("allowance", "solve") {
		t.Error("what is worked out is asked about")
	}
	if asks("allowance", "typed", "options.lid.allowance", "1/8") {
		t.Error("what fits is asked about")
	}
	if !asks("allowance", "typed", "options.lid.allowance", "1 mm") {
		t.Errorf("what is tight is not: %s", x.Words("/boxes/1/fit"))
	}
	_, page, _ := x.Get("/boxes/1/fit")
	if !strings.Contains(page, `href="/boxes/1/made"`) {
		t.Error("there is no way to say it")
	}
}
