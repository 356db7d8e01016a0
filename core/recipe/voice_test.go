package recipe

import (
	"maps"
	"slices"
	"strings"
	"testing"
)

// What is said is read back as it was put in, by the pattern with the most words of its own.
func TestTheVoiceIsReadBack(t *testing.T) {
	for _, c := range []struct {
		key    string
		fields Fields
		said   string
	}{
		{"cut", Fields{"piece": "the base", "size": "7 × 6 in"}, "Cut the base 7 × 6 in."},
		{"score-four", Fields{"at": "1 1/2 and 3 in"}, "Score 1 1/2 and 3 in from all four edges."},
		{"score-from", Fields{"edge": "left", "at": "37.5 mm"}, "Left edge on the fence: score 37.5 mm."},
		{"off-corners-square", Fields{"square": "1 in"}, "Cut out the four corners, 1 in square."},
		{"parts-of-many", Fields{"owner": "the spine's", "count": "two", "nouns": "tabs"}, "the spine's two tabs"},
	} {
		if got := English.Say(c.key, c.fields); got != c.said {
			t.Errorf("%s says %q; want %q", c.key, got, c.said)
		}
		f, found := English.ReadAs(c.key, c.said)
		if f["edge"] = strings.ToLower(f["edge"]); c.fields["edge"] == "" {
			delete(f, "edge")
		}
		if !found || !maps.Equal(f, c.fields) {
			t.Errorf("%q is read as %v, %v", c.said, f, found)
		}
	}
	if key, _, _ := English.Read("", "Cut out the four corners, 1 in square."); key != "off-corners-square" {
		t.Errorf("what is cut out is read as %q", key)
	}
}

// A word that is missing is seen, and a file that is none is refused at its line.
func TestAVoiceFileIsHeld(t *testing.T) {
	if got := English.Say("no such words", nil); got != "{no such words}" {
		t.Errorf("said %q", got)
	}
	if got := English.Say("cut", Fields{"piece": "the lid"}); !strings.Contains(got, "{size}") {
		t.Errorf("without its size: %q", got)
	}
	for _, bad := range []string{"no pattern", "twice = a\ntwice = b", " = nothing"} {
		if _, err := ReadVoice(bad); err == nil || !strings.Contains(err.Error(), "line ") {
			t.Errorf("%q: %v", bad, err)
		}
	}
	if got := English.And([]string{"a", "b", "c"}); got != "a, b and c" {
		t.Errorf("in a row: %q", got)
	}
	if got := []string{English.Noun("tab", 1), English.Noun("tab", 2), English.Number(4), English.Number(40), English.Name("3"), English.Name("lid")}; !slices.Equal(got, []string{"tab", "tabs", "four", "40", "panel 3", "lid"}) {
		t.Errorf("names: %q", got)
	}
}
