package design

import (
	"fmt"
	"math/rand"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/sample"
	"brevium/core/style"
)

// dressed puts a little of everything on a box: what is cut must be used, whatever it is.
func dressed(rng *rand.Rand, s *style.Style) string {
	var more []string
	put := func(field string) {
		if rng.Intn(2) == 0 {
			more = append(more, field)
		}
	}
	put(`"loose":[{"name":"strap","width":"5 in","height":"3/4 in","copies":1,"scores":{"vertical":["1 in"]}},{"name":"keepsake tag","width":"2 in","height":"1 in","copies":2}]`)
	put(`"bands":[{"axis":"length"}]`)
	put(`"linings":["stiffener"]`)
	put(`"linings":["riser"]`)
	put(`"labels":[{"name":"Fair tag","shape":"rounded","width":"2 in","height":"1 in","hole":true,"layers":[{"card":{"name":"Gold card","gsm":220}},{"card":{"name":"Snow card","gsm":120},"border":"1/16 in"}]}]`)
	if strings.Count(strings.Join(more, ""), "linings") > 1 {
		more = slices.DeleteFunc(more, func(x string) bool { return strings.Contains(x, "riser") })
	}
	return strings.Join(more, ",")
}

// Only the steps are read, in their order, with what lies on the table: no piece is worked
// on before it is cut, each that is cut goes somewhere later, and each that a step works on
// is on the list of what is cut.
func TestEveryStepIsFollowed(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewSource(sample.Seed(11)))
	followed := 0
	for _, s := range style.Listed() {
		for n := range sample.Of(t, 8) {
			file := of(s.ID, dressed(rng, s))
			in, err := Read([]byte(file))
			if err != nil {
				t.Fatalf("%s: %v", file, err)
			}
			if n > 0 {
				with := randomSize(rng, measure.In, s)
				in.Size, in.Lengths, in.Choices, in.Tools = with.Size, with.Lengths, with.Choices, with.Tools
			}
			in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
			r, err := Make(t.Context(), in)
			if err != nil {
				continue
			}
			followed++
			for _, wrong := range follow(r) {
				t.Errorf("%s %v: %s", s.ID, in.Choices, wrong)
			}
		}
	}
	if followed < sample.Of(t, 60) {
		t.Errorf("only %d boxes were made", followed)
	}
}

// follow lists what is wrong with the steps of a box.
func follow(r *Result) []string {
	var out []string
	wrong := func(format string, args ...any) { out = append(out, fmt.Sprintf(format, args...)) }
	var all []string
	steps := recipe.Flat(r.Steps)
	for _, s := range steps {
		all = append(all, strings.ToLower(s.Text))
	}
	together := fmt.Sprint(r.together())
	for _, p := range r.Parts {
		cut, shaped := -1, -1
		for i, s := range steps {
			if s.Piece != p.ID {
				continue
			}
			switch s.Kind {
			case recipe.Cut:
				if strings.HasPrefix(s.Key, "cut/"+p.ID) && cut < 0 {
					cut = i
				}
			default:
				if cut < 0 {
					wrong("step %d works on the %s, which is not cut yet: %s", i+1, p.Name, s.Text)
				}
			}
			if s.Kind == recipe.Cut || s.Kind == recipe.Score || s.Kind == recipe.Remove || s.Kind == recipe.Fold {
				shaped = i
			}
		}
		if cut < 0 {
			wrong("the %s is never cut", p.Name)
			continue
		}
		if len(r.Parts) == 1 {
			continue
		}
		used := false
		name := regexp.MustCompile(`\b` + regexp.QuoteMeta(strings.ToLower(singular(p.Name))) + `|\b` + kindOf(p.Name) + `s\b`)
		for i := shaped + 1; i < len(steps); i++ {
			used = used || name.MatchString(all[i]) || steps[i].Piece == p.ID && steps[i].Kind == recipe.Glue || strings.Contains(together, p.ID)
		}
		if !used {
			wrong("the %s is cut and never used", p.Name)
		}
	}
	for i, s := range r.Steps {
		if s.Piece != "" && !slices.ContainsFunc(r.Parts, func(p Part) bool { return p.ID == s.Piece }) {
			wrong("step %d works on %q, which is no piece: %s", i+1, s.Piece, s.Text)
		}
	}
	for _, m := range r.Mats {
		if !slices.ContainsFunc(r.Steps, func(s recipe.Step) bool { return s.Kind == recipe.Decorate && s.Piece == m.Piece }) {
			wrong("the paper for the %s is cut and never glued", m.Words)
		}
	}
	return out
}

// kindOf is the first word of a name, which alike pieces share: "divider" of dividers.
func kindOf(name string) string { return strings.ToLower(regexp.MustCompile(`^\w+`).FindString(name)) }

// singular is a piece's name as steps say it of one or of several: without its layer.
func singular(name string) string {
	name, _, _ = strings.Cut(name, ", layer")
	return strings.TrimRight(name, "0123456789 ()")
}
