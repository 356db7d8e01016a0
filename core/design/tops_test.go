package design

import (
	"strings"
	"testing"
)

// A tall box's top is shut as it was chosen, and its last steps say how: a clip on pressed or folded fins,
// glue on folded ones, a tongue otherwise.
func TestATallBoxIsShutAsChosen(t *testing.T) {
	t.Parallel()
	says := map[string]string{"clip": "a clip", "glue": "glue"}
	for options, want := range map[string]string{
		`"top":"clip","top.scores":"scored"`:  "clip",
		`"top":"clip","top.scores":"none"`:    "clip",
		`"top":"pinch","top.scores":"scored"`: "glue",
		`"top":"tuck"`:                        "",
	} {
		r := withPlaced(t, "tall-box", `"options":{`+options+`}`)
		steps := toldOf(r)
		last := strings.ToLower(steps[len(steps)*3/4:])
		for way, words := range says {
			if got := strings.Contains(last, words); got != (way == want) {
				t.Errorf("%s: %q is said %v at its end: %s", options, words, got, last)
			}
		}
	}
}
