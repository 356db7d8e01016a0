package contents

import (
	"strings"
	"testing"
)

func TestAListIsReadLineByLine(t *testing.T) {
	for _, c := range []struct {
		n    int
		line string
		want Each
	}{
		{3, "chocolate coin", Each{"3", "chocolate coin"}},
		{3, "24 Dec: chocolate coin", Each{"24 Dec", "chocolate coin"}},
		{3, " Eve :  a note: read it ", Each{"Eve", "a note: read it"}},
		{3, ": bell", Each{"3", "bell"}},
		{3, "24 Dec:", Each{"24 Dec", ""}},
		{3, "", Each{"3", ""}},
	} {
		if got := EachOf(c.n, c.line); got != c.want {
			t.Errorf("%q: %+v; want %+v", c.line, got, c.want)
		}
	}
}

func TestListLimits(t *testing.T) {
	for _, c := range []struct {
		lines []string
		good  bool
	}{
		{make([]string, MostEach), true},
		{make([]string, MostEach+1), false},
		{[]string{strings.Repeat("ö", mostEachLong)}, true},
		{[]string{strings.Repeat("ö", mostEachLong+1)}, false},
		{[]string{"bell\x07"}, false},
	} {
		if err := CheckEach(c.lines); (err == nil) != c.good {
			t.Errorf("%d lines: %v", len(c.lines), err)
		}
	}
}
