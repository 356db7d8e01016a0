package design

import (
	"fmt"
	"math"
	"math/rand"
	"regexp"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/fault"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/sample"
	"brevium/core/style"
)

// Whatever the style and options, asking for an outside gives at most that
// and not a tick less, along every axis that has a size of its own.
func TestOutside(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewSource(5))
	made := 0
	for range 300 {
		s := style.All[rng.Intn(len(style.All))]
		in := New("x", measure.Units[rng.Intn(3)], s.ID)
		in.Basis = Outside
		want := style.Extent{
			Length: measure.Length(50e6 + rng.Int63n(50e6)),
			Width:  measure.Length(50e6 + rng.Int63n(50e6)),
			Height: measure.Length(60e6 + rng.Int63n(40e6)),
		}
		s.Give(in.Size, want)
		randomChoices(rng, &in, s)
		r, err := Sketch(in)
		if err != nil {
			if f := fault.Of(err); f.Code != fault.Internal {
				continue
			}
			t.Fatalf("%s %+v: %v", s.ID, in, err)
		}
		made++
		has := r.Outside
		for i := range 3 {
			if *has.Axis(i) > *want.Axis(i) && len(s.Own()) == 3 {
				t.Errorf("%s axis %d: asked for at most %v outside, is %v mm", s.ID, i, want.Axis(i).MM(), has.Axis(i).MM())
			}
		}
	}
	if made < 60 {
		t.Errorf("only %d of 300 could be made", made)
	}
}

func randomChoices(rng *rand.Rand, in *Inputs, s *style.Style) {
	for _, o := range s.Options {
		if o.Kind == style.ChoiceKind {
			in.Choices[o.ID] = o.Choices[rng.Intn(len(o.Choices))]
		}
	}
	if s.ID == "tower" { // a tower of trays says that it cannot stand
		in.Choices["boxes"], in.Choices["grade"] = "clam-box", "step"
	}
}

// Random contents in every style that stands alone: what goes in, with its
// ease, stands in the measured free space of the finished box, nothing passes
// through anything in any state, and no face is called by its id.
func TestContentsStandInEveryStyle(t *testing.T) {
	t.Parallel()
	ids := regexp.MustCompile(`[a-z]\.[a-z0-9]`)
	for _, s := range style.Boxes() {
		t.Run(s.ID, func(t *testing.T) {
			t.Parallel()
			rng := rand.New(rand.NewSource(sample.Seed(17)))
			for made, tried := 0, 0; made < sample.Of(t, 100); tried++ {
				if tried > 3000 {
					t.Fatalf("only %d of %d random contents could be boxed", made, tried)
				}
				in := New("random", measure.Units[rng.Intn(3)], s.ID)
				in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
				tall := 60
				if s.Lies && rng.Intn(2) == 0 {
					tall = 3 // flat things go into boxes that lie
				}
				for range 1 + rng.Intn(2) {
					in.Things = append(in.Things, contents.Thing{
						Shape: contents.Block,
						Ease:  2 * mm_,
						Count: 1 + rng.Intn(2),
						Length: measure.Length(
							10+rng.Intn(50),
						) * mm_,
						Width:  measure.Length(10+rng.Intn(40)) * mm_,
						Height: measure.Length(min(10, tall-2)+rng.Intn(tall)) * mm_,
					})
				}
				randomChoices(rng, &in, s)
				r, err := Make(t.Context(), in)
				if err != nil {
					if f := fault.Of(err); f.Code == fault.Internal {
						t.Fatalf("%+v: %v", in, err)
					}
					continue
				}
				if len(r.Box.Remarks) > 0 {
					continue // it says itself what does not come out
				}
				made++
				for _, c := range r.Checks {
					if c.Verdict == inspect.Fail && !strings.HasPrefix(c.ID, "fit") && c.ID != "card.flimsy" {
						t.Errorf("%s, %+v of %v: %s", s.ID, in.Things, in.Choices, c.Text)
					}
				}
				for _, step := range r.Steps {
					if word := ids.FindString(step.Text); word != "" {
						t.Errorf("a step calls a face by its id: %s", step.Text)
					}
				}
				if t.Failed() {
					return
				}
			}
		})
	}
}

// A block in a gable: one parameter sets two axes and the larger need counts.
func TestABlockUnderAGable(t *testing.T) {
	t.Parallel()
	in := New("block", measure.MM, "gable-lid")
	in.Things = []contents.Thing{{Shape: contents.Block, Length: 60 * mm_, Width: 20 * mm_, Height: 30 * mm_, Count: 1, Ease: 2 * mm_}}
	r := make_(t, in)
	if r.Inside.Length < 62*mm_ || verdict(r, "room") != inspect.OK {
		t.Errorf("a block of 62 × 22 gets %v × %v mm, room %s", r.Inside.Length.MM(), r.Inside.Width.MM(), verdict(r, "room"))
	}
}

// A candle of 55 × 200 mm stands in the straight part of a pinched tube, or
// as high into its roof as it still fits.
func TestACandleUnderAPinchedTop(t *testing.T) {
	t.Parallel()
	in := New("candle", measure.MM, "tall-box")
	in.Choices["top"] = "pinch"
	in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 500*mm_, 500*mm_, 500*mm_
	in.Things = []contents.Thing{{Shape: contents.Round, Length: 55 * mm_, Width: 55 * mm_, Height: 200 * mm_, Count: 1, Ease: 2 * mm_}}
	r := make_(t, in)
	top := measure.Up(r.Spec.Lengths["depth"]*3/4, measure.Tick(mm_)) + inch/2
	if straight := r.Spec.Lengths["height"] - top; straight < 200*mm_ || verdict(r, "room") != inspect.OK {
		t.Errorf("the straight wall is %v mm, room %s", straight.MM(), verdict(r, "room"))
	}
	// The arch counts for what is narrower than it: 32 high and 22 wide under one of 24, of which
	// the bend is 3 above the block's edge.
	arch := New("bird", measure.MM, "arched-box")
	arch.Things = []contents.Thing{{Shape: contents.Block, Length: 50 * mm_, Width: 20 * mm_, Height: 30 * mm_, Count: 1, Ease: 2 * mm_}}
	if r := make_(t, arch); r.Spec.Lengths["straight"] > 31*mm_ || verdict(r, "room") != inspect.OK {
		t.Errorf("under an arch %v mm of straight side, room %s", r.Spec.Lengths["straight"].MM(), verdict(r, "room"))
	}
}

func verdict(r *Result, id string) inspect.Verdict {
	for _, c := range r.Checks {
		if c.ID == id {
			return c.Verdict
		}
	}
	return ""
}

// The usual nest and tower can be cut; open trays on one another cannot
// stand, and it is said what does.
func TestAssembliesStand(t *testing.T) {
	t.Parallel()
	for _, id := range []string{"nest", "tower"} {
		if r := make_(t, New("x", measure.In, id)); inspect.Worst(r.Checks) == inspect.Fail {
			t.Errorf("%s: %+v", id, r.Checks)
		}
	}
	in := New("x", measure.In, "tower")
	in.Choices["boxes"] = "tray"
	r := make_(t, in)
	if verdict(r, "stand") != inspect.Fail || !strings.Contains(fmt.Sprint(r.Checks), "clam boxes") {
		t.Errorf("open trays stand: %+v", r.Checks)
	}
	// Three clam boxes of 1 1/2 in, each with its card's two thicknesses, the
	// lid's walls over the base's: no gap of a picture is in the height.
	in.Choices["boxes"] = "clam-box"
	if got := make_(t, in).Outside.Height; got != 3*(3*inch/2+300*measure.Micrometre) {
		t.Errorf("the tower is %v mm high", got.MM())
	}
}

// Every crease and every cut of every style is told exactly once.
func TestEveryLineIsToldOnce(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewSource(sample.Seed(3)))
	for _, s := range style.All {
		for made := 0; made < sample.Of(t, 200); {
			in := New("x", measure.MM, s.ID)
			in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
			for _, p := range s.Parameters {
				in.Size[p.ID] = p.Min + measure.Length(rng.Int63n(int64(p.Max-p.Min)/2))
			}
			randomChoices(rng, &in, s)
			r, err := Sketch(in)
			if err != nil {
				in.Size = map[string]measure.Length{}
				if r, err = Sketch(in); err != nil {
					continue
				}
			}
			made++
			for _, p := range r.Parts {
				told := make([]int, len(p.Pattern.Creases))
				cut := 0.0
				for _, l := range recipe.Lines(p.Pattern, recipe.Left, in.Tools.Tick) {
					for _, c := range l.Creases {
						told[c]++
					}
					if l.Hand.Cuts() {
						points := l.Points()
						for i := 1; i < len(points); i++ {
							cut += points[i].Sub(points[i-1]).Len()
						}
					}
				}
				for i, n := range told {
					if n != 1 {
						t.Errorf("%s, %s: the crease %+v is told %d times", s.ID, p.ID, p.Pattern.Creases[i].Segment, n)
					}
				}
				if want := cutLength(p.Pattern); math.Abs(cut-want) > 0.01 {
					t.Errorf("%s, %s: %v mm of cuts are told, of %v", s.ID, p.ID, cut, want)
				}
			}
			if t.Failed() {
				return
			}
		}
	}
}

// cutLength is the length of a pattern's cuts that are not its blank's edge.
func cutLength(p *pattern.Pattern) float64 {
	sum := 0.0
	for _, loop := range p.Cuts() {
		for i, a := range loop {
			b := loop[(i+1)%len(loop)]
			edge := false
			for _, at := range []float64{0, p.Width.MM()} {
				edge = edge || math.Abs(a.X-at) < 1e-3 && math.Abs(b.X-at) < 1e-3
			}
			for _, at := range []float64{0, p.Height.MM()} {
				edge = edge || math.Abs(a.Y-at) < 1e-3 && math.Abs(b.Y-at) < 1e-3
			}
			if !edge {
				sum += b.Sub(a).Len()
			}
		}
	}
	for _, s := range p.Slits {
		sum += s.B.Sub(s.A).Len()
	}
	return sum
}
