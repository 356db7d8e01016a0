package recipe

import (
	"maps"
	"strings"
)

// told is how the mark of a step begins that moves tell.
const told = "m"

// Ticked is what was ticked off, by key, in the terms of these steps: of a step that tells
// others in one sentence all of them, and it with them. A tick put when steps were told by
// their kind, which has another mark, ticks all moves of that piece and kind.
func Ticked(steps []Step, kept map[string]string) map[string]string {
	out := maps.Clone(kept)
	if out == nil {
		out = map[string]string{}
	}
	before := func(s Step) bool {
		of := string(s.Kind) + "/" + s.Piece
		for key, mark := range kept {
			if mark != "" && !strings.HasPrefix(mark, told) && (key == s.Key || key == of || strings.HasPrefix(key, of+"/")) {
				return true
			}
		}
		return false
	}
	settle := func(s Step) {
		mark, there := out[s.Key]
		if old := mark != "" && !strings.HasPrefix(mark, told); (old || !there) && strings.HasPrefix(s.Mark, told) && before(s) {
			out[s.Key] = s.Mark
		}
	}
	for _, s := range steps {
		settle(s)
		all := len(s.Inner) > 0
		for _, in := range s.Inner {
			if _, there := out[in.Key]; !there && out[s.Key] == s.Mark {
				out[in.Key] = in.Mark
			}
			settle(in)
			all = all && out[in.Key] == in.Mark
		}
		if _, there := out[s.Key]; !there && all {
			out[s.Key] = s.Mark
		}
	}
	return out
}
