package found

import (
	"math/rand/v2"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
)

// blanksOf are a design's parts as they are cut and scored.
func blanksOf(r *design.Result) []Blank {
	var out []Blank
	for _, p := range r.Box.Parts {
		out = append(out, Blank{p.Pattern.Width, p.Pattern.Height, p.Pattern.Scores.Vertical, p.Pattern.Scores.Horizontal})
	}
	return out
}

// random is a design of a style with sizes at random.
func random(r *rand.Rand, s *style.Style, unit measure.Unit) (design.Inputs, *design.Result) {
	for {
		in := design.New("x", unit, s.ID)
		tick := unit.Tick().Length()
		for _, p := range s.Parameters {
			least := max(p.Min, p.Default/2)
			most := min(p.Max, p.Default*3/2)
			if most > least {
				in.Size[p.ID] = measure.Nearest(least+measure.Length(r.Int64N(int64(most-least))), measure.Tick(tick))
			}
		}
		in.Sheets = nil
		for _, side := range []measure.Length{12 * measure.Inch, 40 * measure.Inch} {
			in.Sheets = append(in.Sheets, sheet(side))
		}
		in.Tools.Trimmer = 40 * measure.Inch
		if res, err := design.Sketch(in); err == nil {
			return in, res
		}
	}
}
