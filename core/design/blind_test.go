package design

import (
	"fmt"
	"math"
	"math/rand"
	"regexp"
	"slices"
	"strings"
	"sync"
	"testing"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/sample"
	"brevium/core/style"
)

// expressions are what was compiled before: a hand reads many steps.
var expressions sync.Map

func compiled(expression string) *regexp.Regexp {
	if known, there := expressions.Load(expression); there {
		return known.(*regexp.Regexp)
	}
	r := regexp.MustCompile(expression)
	expressions.Store(expression, r)
	return r
}

// told is how far, in mm, a line made from the words may lie from the
// pattern's: half a mark of the ruler.
const told = 0.3

// A hand that has only the steps makes every piece of every style: each score,
// slit, cut-away edge, hole, notch and slot of the pattern is where the words
// put it, and they tell to cut nothing that stays.
func TestMadeFromTheWordsAlone(t *testing.T) {
	t.Parallel()
	metric := regexp.MustCompile(`\d (mm|cm)\b`)
	remainder := regexp.MustCompile(`[−+] ?\d*\.?\d+ mm`)
	for _, s := range style.All {
		t.Run(s.ID, func(t *testing.T) {
			t.Parallel()
			for _, unit := range []measure.Unit{measure.In, measure.MM} {
				rng := rand.New(rand.NewSource(sample.Seed(23)))
				for made, tried := 0, 0; made < sample.Of(t, 50); tried++ {
					if tried > 4000 {
						t.Fatalf("only %d of %d random sizes could be made", made, tried)
					}
					in := randomSize(rng, unit, s)
					r, err := Sketch(in)
					if err != nil {
						if f := fault.Of(err); f.Code == fault.Internal {
							t.Fatal(err)
						}
						continue
					}
					made++
					steps := r.work().Steps()
					for _, step := range steps {
						if remainder.MatchString(step.Text) || unit == measure.In && metric.MatchString(step.Text) {
							t.Errorf("a number that is none of its unit: %s", step.Text)
						}
					}
					for _, p := range r.Parts {
						b, err := readBlind(likewise(t, steps), p.ID, in.Units)
						if err != nil {
							t.Fatalf("%s in %s, %+v: %v", p.ID, unit, in.Choices, err)
						}
						sum := 0.0
						for _, snip := range recipe.Scores(p.Part, in.Tools.Fence, in.Tools.Tick).Cuts(r.Telling()) {
							for _, l := range snip.Lines {
								points := l.Points()
								for k := 1; k < len(points); k++ {
									sum += points[k].Sub(points[k-1]).Len()
								}
							}
						}
						if want := cutLength(p.Pattern); math.Abs(sum-want) > 0.05 {
							t.Errorf("%s: %v mm of cuts are told, of %v", p.ID, sum, want)
						}
						for _, wrong := range b.differs(p.Pattern) {
							t.Errorf("%s in %s, fence %s, %v %v: %s", p.ID, unit, in.Tools.Fence, in.Size, in.Choices, wrong)
						}
					}
					if t.Failed() {
						for _, step := range steps {
							t.Log(step.Text)
						}
						return
					}
				}
			}
		})
	}
}

// likewise looks up what a piece is told to be made the same as.
func likewise(t *testing.T, steps []recipe.Step) []recipe.Step {
	pieces := map[string]string{} // by what they are called where they are cut
	for _, s := range steps {
		if m := compiled(`^Cut the (.*) blank, `).FindStringSubmatch(s.Text); m != nil && s.Kind == recipe.Cut {
			pieces[m[1]] = s.Piece
		}
	}
	out := slices.Clone(steps)
	for i, s := range out {
		m := compiled(`^.+: the same as ([^.]+)\.`).FindStringSubmatch(s.Text)
		if m == nil {
			continue
		}
		like := strings.Replace(s.Key, s.Piece, pieces[m[1]], 1)
		k := slices.IndexFunc(steps, func(o recipe.Step) bool { return o.Key == like })
		if k < 0 || pieces[m[1]] == "" {
			t.Fatalf("%q: there is no such step", s.Text)
		}
		out[i].Text = steps[k].Text
	}
	return out
}

// randomSize is a design of a style with sizes on the board's grooves.
func randomSize(rng *rand.Rand, unit measure.Unit, s *style.Style) Inputs {
	in := New("x", unit, s.ID)
	in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
	if rng.Intn(3) == 0 {
		in.Tools.Fence = recipe.Right
	}
	switch rng.Intn(4) {
	case 0:
		in.Tools.Tick *= 2
	case 1:
		in.Card.Thickness = 450 * measure.Micrometre
	}
	for _, p := range s.Parameters {
		if rng.Intn(4) > 0 {
			l := p.Min + measure.Length(rng.Int63n(int64(max(p.Min+1, min(p.Max, 4*p.Usual(in.Tools.Tick)))-p.Min)))
			in.Size[p.ID] = measure.Down(l, in.Tools.Tick)
		}
	}
	randomChoices(rng, &in, s)
	return in
}

// differs lists where a piece made from the words is not the pattern.
func (b *blind) differs(p *pattern.Pattern) []string {
	var out []string
	wrong := func(format string, args ...any) { out = append(out, fmt.Sprintf(format, args...)) }
	if math.Abs(b.w-p.Width.MM()) > told || math.Abs(b.h-p.Height.MM()) > told {
		wrong("the blank is %v × %v", b.w, b.h)
	}
	var scored [][]pattern.Point
	for _, x := range p.Scores.Vertical {
		scored = append(scored, []pattern.Point{{X: x.MM(), Y: 0}, {X: x.MM(), Y: p.Height.MM()}})
	}
	for _, y := range p.Scores.Horizontal {
		scored = append(scored, []pattern.Point{{X: 0, Y: y.MM()}, {X: p.Width.MM(), Y: y.MM()}})
	}
	for _, s := range p.Scores.Part {
		scored = append(scored, []pattern.Point{s.A, s.B})
	}
	var made [][]pattern.Point
	for _, s := range b.scores {
		made = append(made, []pattern.Point{s.A, s.B})
	}
	for _, q := range samples(scored) {
		if !nearAny(q, made) {
			wrong("nothing is scored at %.2f", q)
			break
		}
	}
	for _, q := range samples(made) {
		if !nearAny(q, scored) {
			wrong("the words score at %.2f", q)
			break
		}
	}
	rolled := false
	for _, c := range p.Creases {
		if !c.Rolled || b.shaped {
			continue
		}
		mid := (c.A.Y + c.B.Y) / 2
		if said := len(b.bent) == 1 && mid > b.bent[0][0]-told && mid < b.bent[0][1]+told; !said && math.Abs(c.A.X-c.B.X) < p.Width.MM()-1 {
			// It is found by the cuts that end where it begins and ends.
			for _, end := range []pattern.Point{c.A, c.B} {
				if !slices.ContainsFunc(p.Slits, func(s pattern.Slit) bool { return min(s.A.Sub(end).Len(), s.B.Sub(end).Len()) < told }) {
					wrong("nothing shows where the bend at %v ends", end)
				}
			}
			continue
		}
		rolled = true
		if len(b.bent) != 1 || mid < b.bent[0][0]-told || mid > b.bent[0][1]+told {
			wrong("the bend at %.2f down is not told: %v", mid, b.bent)
			break
		}
	}
	if !rolled && len(b.bent) > 0 {
		wrong("the words bend %v", b.bent)
	}
	w, h := p.Width.MM(), p.Height.MM()
	edge := [][]pattern.Point{{{X: 0, Y: 0}, {X: w, Y: 0}, {X: w, Y: h}, {X: 0, Y: h}, {X: 0, Y: 0}}}
	var cut [][]pattern.Point
	for _, loop := range p.Cuts() {
		for i, a := range loop {
			q := loop[(i+1)%len(loop)]
			if mid := a.Add(q).Scale(0.5); !onEdge(mid, w, h) {
				cut = append(cut, []pattern.Point{a, q})
			}
		}
	}
	for _, s := range p.Slits {
		cut = append(cut, []pattern.Point{s.A, s.B})
	}
	words := append(append([][]pattern.Point{}, b.cuts...), b.holes...)
	for _, q := range samples(cut) {
		if !nearAny(q, words) {
			wrong("nothing is cut at %.2f", q)
			break
		}
	}
	outline := p.Outline.Flat()
	for _, q := range samples(words) {
		if nearAny(q, cut) || nearAny(q, edge) || !pattern.Contains(outline, q) {
			continue
		}
		wrong("the words cut what stays at %.2f", q)
		break
	}
	return out
}

func onEdge(q pattern.Point, w, h float64) bool {
	return min(q.X, w-q.X, q.Y, h-q.Y) < 1e-3
}

// samples are points along paths, a millimetre or two apart.
func samples(paths [][]pattern.Point) []pattern.Point {
	var out []pattern.Point
	for _, path := range paths {
		for i := 1; i < len(path); i++ {
			d := path[i].Sub(path[i-1])
			n := int(d.Len()/2) + 1
			for k := range n + 1 {
				out = append(out, path[i-1].Add(d.Scale(float64(k)/float64(n))))
			}
		}
	}
	return out
}

func nearAny(q pattern.Point, paths [][]pattern.Point) bool {
	for _, path := range paths {
		for i := 1; i < len(path); i++ {
			if distance(q, path[i-1], path[i]) < told {
				return true
			}
		}
	}
	return false
}

func distance(q, a, b pattern.Point) float64 {
	d := b.Sub(a)
	if d.Len() == 0 {
		return q.Sub(a).Len()
	}
	along := max(0, min(1, q.Sub(a).Dot(d)/d.Dot(d)))
	return q.Sub(a.Add(d.Scale(along))).Len()
}

// A hand that was told a wrong number makes another piece, and one that cannot
// read a sentence says so.
func TestAWrongWordIsNoticed(t *testing.T) {
	t.Parallel()
	in := New("x", measure.In, style.All[0].ID)
	r, err := Sketch(in)
	if err != nil {
		t.Fatal(err)
	}
	p := r.Parts[0]
	for _, c := range []struct{ right, wrong string }{
		{"the score 1 1/2 in from the bottom edge to", "the score 1 5/8 in from the bottom edge to"},
		{"first crossing (1 1/2 in)", "second crossing (1 1/2 in)"},
		{"1/16 in wide at the left and right edges", "1/16 in wide at the left edge"},
		{"1 1/2 in from each of the four edges", "1 5/8 in from each of the four edges"},
		{"From the left edge and the right edge, cut", "Snip"},
	} {
		steps, changed := r.work().Steps(), false
		for i, s := range steps {
			steps[i].Text = strings.Replace(s.Text, c.right, c.wrong, 1)
			changed = changed || steps[i].Text != s.Text
		}
		if !changed {
			t.Fatalf("no step says %q", c.right)
		}
		if b, err := readBlind(steps, p.ID, in.Units); err == nil && len(b.differs(p.Pattern)) == 0 {
			t.Errorf("%q for %q makes the same piece", c.wrong, c.right)
		}
	}
}
