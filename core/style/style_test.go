package style

import (
	"encoding/json"
	"errors"
	"maps"
	"math"
	"math/rand"
	"reflect"
	"regexp"
	"slices"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/sample"
)

const (
	inch = measure.Inch
	tick = inch / 16
)

// usual gives a style's spec with its usual values and the given ones.
func usual(s *Style, lengths map[string]measure.Length, choices map[string]string) Spec {
	out := s.Usual(measure.Tick(tick), 300*measure.Micrometre)
	maps.Copy(out.Lengths, lengths)
	maps.Copy(out.Choices, choices)
	following(s, &out, lengths)
	return out
}

// following gives the sizes that were not given what follows from the others, as a design does;
// what a test leaves of the options is as usual.
func following(s *Style, spec *Spec, given map[string]measure.Length) {
	s.Follow(spec, func(id string) bool {
		_, is := given[id]
		_, option := s.Option(id)
		return is || option
	})
}

// assembled stands a box's parts where they are in a state.
func assembled(t *testing.T, b *Box, state State) []Body {
	t.Helper()
	var finished []*pattern.Folded
	for _, p := range b.Parts {
		f, err := p.Pattern.Finished(p.Root)
		if err != nil {
			t.Fatal(err)
		}
		finished = append(finished, f)
	}
	bodies, err := Assemble(b.Parts, finished, state)
	if err != nil {
		t.Fatal(err)
	}
	return bodies
}

func build(t *testing.T, s *Style, lengths map[string]measure.Length, choices map[string]string) *Box {
	t.Helper()
	b, err := s.Make(usual(s, lengths, choices))
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func size(l, w, h measure.Length) map[string]measure.Length {
	return map[string]measure.Length{"length": l, "width": w, "height": h}
}

func eighths(n ...measure.Length) []measure.Length {
	out := make([]measure.Length, len(n))
	for i, x := range n {
		out[i] = x * inch / 8
	}
	return out
}

func wantScores(t *testing.T, p Part, width, height measure.Length, vertical, horizontal []measure.Length) {
	t.Helper()
	if p.Pattern.Width != width || p.Pattern.Height != height {
		t.Errorf("%s: blank %v × %v mm; want %v × %v", p.ID, p.Pattern.Width.MM(), p.Pattern.Height.MM(), width.MM(), height.MM())
	}
	if !slices.Equal(p.Pattern.Scores.Vertical, vertical) || !slices.Equal(p.Pattern.Scores.Horizontal, horizontal) {
		t.Errorf("%s: scores %v / %v; want %v / %v", p.ID, p.Pattern.Scores.Vertical, p.Pattern.Scores.Horizontal, vertical, horizontal)
	}
}

func TestTrayLidNumbers(t *testing.T) {
	b := build(t, trayLid, size(4*inch, 3*inch, 3*inch/2), map[string]string{})
	wantScores(t, b.Parts[0], 7*inch, 6*inch, eighths(12, 44), eighths(12, 36))
	sixteenth := inch / 16
	wantScores(
		t,
		b.Parts[1],
		6*inch+sixteenth,
		5*inch+sixteenth,
		[]measure.Length{inch, 5*inch + sixteenth},
		[]measure.Length{inch, 4*inch + sixteenth},
	)
	if got := b.Parts[0].ID + b.Parts[1].ID; got != "baselid" {
		t.Errorf("pieces are %s", got)
	}
}

func TestTrayDoubleNumbers(t *testing.T) {
	b := build(t, trayDouble, size(5*inch, 4*inch, inch), nil)
	p := b.Parts[0]
	wantScores(t, p, 9*inch, 8*inch, eighths(8, 16, 56, 64), eighths(8, 16, 48, 56))
	// Of each corner's four cells one stays, as a tab.
	names := map[string]bool{}
	for _, m := range p.Pattern.Marks {
		if m.Role == pattern.Tab {
			names[m.Name] = true
			if x, y := m.At.X/25.4, m.At.Y/25.4; !(x > 1 && x < 2 || x > 7 && x < 8) || !(y > 1 && y < 2 || y > 6 && y < 7) {
				t.Errorf("tab %s lies at %.1f, %.1f in; want beside its wall", m.Name, x, y)
			}
		}
	}
	if len(names) != 4 {
		t.Errorf("tabs %v; want four", names)
	}
	cells := p.Pattern.Removed() / (25.4 * 25.4)
	if cells < 12 || cells > 12.9 {
		t.Errorf("%.2f square inches are removed; want the twelve cells and the tapers", cells)
	}
	less := build(t, trayDouble, size(5*inch, 4*inch, inch), map[string]string{"walls.inner": "less-thickness"})
	t3 := inch / 16 // a card of 0.3 mm, as a hand cuts
	wantScores(
		t,
		less.Parts[0],
		9*inch-2*t3,
		8*inch-2*t3,
		[]measure.Length{
			inch - t3,
			2*inch - t3,
			7*inch - t3,
			8*inch - t3,
		},
		[]measure.Length{inch - t3, 2*inch - t3, 6*inch - t3, 7*inch - t3},
	)
}

func TestTrayInCentimetres(t *testing.T) {
	b := build(t, tray, size(95*mm, 60*mm, 25*mm), nil)
	wantScores(t, b.Parts[0], 145*mm, 110*mm, []measure.Length{25 * mm, 120 * mm}, []measure.Length{25 * mm, 85 * mm})
}

func TestCornerManners(t *testing.T) {
	for _, c := range []struct {
		corners       string
		slits         int
		removed       bool
		kLength, kWid int
	}{{"two-tab", 0, true, 2, 0}, {"slim", 0, true, 2, 0}, {"pinwheel", 4, false, 2, 2}} {
		b := build(t, trayLid, size(4*inch, 3*inch, inch), map[string]string{"corners": c.corners})
		p := b.Parts[0].Pattern
		if len(p.Slits) != c.slits || (p.Removed() > 1e-6) != c.removed {
			t.Errorf("%s: %d slits, %v mm² removed", c.corners, len(p.Slits), p.Removed())
		}
		if b.Fits[0].OuterLayers != c.kLength || b.Fits[1].OuterLayers != c.kWid {
			t.Errorf("%s: layers %d and %d; want %d and %d", c.corners, b.Fits[0].OuterLayers, b.Fits[1].OuterLayers, c.kLength, c.kWid)
		}
	}
	slim := build(t, tray, size(4*inch, 3*inch, inch), map[string]string{"corners": "slim", "adhesive": "wet-glue"})
	for _, g := range slim.Parts[0].Pattern.Glue {
		lo, hi := pattern.Bounds(g.Area)
		if math.Abs(hi.X-lo.X-6.35) > 1e-9 {
			t.Errorf("a slim tab for wet glue is %v mm wide; want 6, up to 1/4 in", hi.X-lo.X)
		}
	}
	// Two tabs in one wall never lie over each other.
	deep := build(t, tray, size(4*inch, 2*inch, 3*inch), nil)
	for _, g := range deep.Parts[0].Pattern.Glue {
		if lo, hi := pattern.Bounds(g.Area); hi.X-lo.X > 25.4+1e-9 {
			t.Errorf("tab %s reaches %v mm into a wall of 50.8 mm", g.Face, hi.X-lo.X)
		}
	}
}

func TestThreeCustomsGiveOneGap(t *testing.T) {
	a := inch / 8
	for _, c := range []struct {
		custom         string
		base, lid      measure.Length // panels along the length
		lidWall, blank measure.Length
	}{
		{"bigger-lid", 4 * inch, 4*inch + a, inch, 6*inch + a},
		{"smaller-base", 4*inch - a, 4 * inch, inch, 6 * inch},
		{"shim", 4 * inch, 4*inch + a, inch - a/2, 6 * inch},
	} {
		s := usual(trayLid, size(4*inch, 3*inch, 3*inch/2), map[string]string{"lid.custom": c.custom})
		s.Lengths["lid.allowance"], s.Lengths["lid.allowance.width"] = a, a
		b, err := trayLid.Make(s)
		if err != nil {
			t.Fatal(err)
		}
		if f := b.Fits[0]; f.OuterSpan != c.lid || f.InnerSpan != c.base {
			t.Errorf("%s: %v over %v mm", c.custom, f.OuterSpan.MM(), f.InnerSpan.MM())
		}
		lid := b.Parts[1].Pattern
		if lid.Width != c.blank || lid.Scores.Vertical[0] != c.lidWall {
			t.Errorf("%s: lid blank %v mm, wall %v mm", c.custom, lid.Width.MM(), lid.Scores.Vertical[0].MM())
		}
		if gap := b.Fits[0].Do(0).Gap; gap != a-1200*measure.Micrometre {
			t.Errorf("%s: gap %v mm; want %v", c.custom, gap.MM(), (a - 1200*measure.Micrometre).MM())
		}
	}
}

// A shim changes no number that is read: a double-walled lid of a 12 in blank
// with grooves at 1 1/2 and 3 in and an allowance of 1/16 gets its lines at
// 1 15/32 and 2 31/32 and a panel of 6 1/16. The outer wall keeps its height,
// the rolled-in one loses half the allowance.
func TestAShimUnderADoubleLid(t *testing.T) {
	s := usual(trayLid, size(6*inch, 6*inch, 3*inch/2), map[string]string{"lid.custom": "shim", "lid.walls": "double"})
	s.Lengths["lid.depth"], s.Lengths["lid.allowance"] = 3*inch/2, inch/16
	b, err := trayLid.Make(s)
	if err != nil {
		t.Fatal(err)
	}
	lid := b.Parts[1]
	want := []measure.Length{47 * inch / 32, 95 * inch / 32, 12*inch - 95*inch/32, 12*inch - 47*inch/32}
	if got := lid.Pattern.Scores.Vertical; lid.Pattern.Width != 12*inch || !slices.Equal(got, want) {
		t.Errorf("a blank of %v mm with lines at %v; want 304.8 and %v", lid.Pattern.Width.MM(), got, want)
	}
	if lid.Shim != inch/32 || b.Fits[0].OuterSpan != 6*inch+inch/16 {
		t.Errorf("a shim of %v mm, a panel of %v", lid.Shim.MM(), b.Fits[0].OuterSpan.MM())
	}
}

// For every style and its choices, at random sizes in range: the faces tile
// the outline, the piece fills its blank, its rings close, every glued face
// lands on the face it is meant for, nothing passes through anything, and the
// pattern written and read back is the same.
func TestEveryStyleFolds(t *testing.T) {
	for _, s := range All {
		t.Run(s.ID, func(t *testing.T) {
			t.Parallel()
			rng := rand.New(rand.NewSource(sample.Seed(7)))
			for made, tried := 0, 0; made < sample.Of(t, 200); tried++ {
				if tried > 20000 {
					t.Fatalf("only %d of %d random boxes could be made", made, tried)
				}
				spec := randomSpec(rng, s)
				b, err := s.Make(spec)
				var f *fault.Fault
				if errors.As(err, &f) && f.Field != "" || errors.As(err, &f) && f.Code != fault.Internal {
					continue // sizes that do not go together, said at a field
				}
				if err != nil {
					t.Fatalf("%v: %v", spec, err)
				}
				for _, p := range b.Parts {
					checkPart(t, spec, p, len(b.Remarks) == 0)
				}
				if len(b.Remarks) > 0 {
					continue // it says itself what does not come out
				}
				made++
				checkBox(t, s, spec, b)
				if made%10 == 0 {
					if hit, face, err := b.Sweep(b.Shuts); err != nil || hit != nil {
						t.Errorf("%v: folding %s, %+v is in the way, %v", spec, face, hit, err)
					}
				}
				if t.Failed() {
					return
				}
			}
		})
	}
}

func randomSpec(rng *rand.Rand, s *Style) Spec {
	spec := usual(s, nil, nil)
	random := func(least, most measure.Length) measure.Length {
		// Half of them small, so that sizes go together more often.
		if rng.Intn(2) == 0 {
			most = least + (most-least)/4
		}
		return least + measure.Length(rng.Int63n(int64(most-least)+1))
	}
	for _, p := range s.Parameters {
		spec.Lengths[p.ID] = random(p.Min, p.Max)
	}
	for _, p := range s.Parameters {
		if p.Follows != nil && rng.Intn(2) == 0 {
			spec.Lengths[p.ID] = min(p.Max, max(p.Min, p.Follows(spec)))
		}
	}
	for _, o := range s.Options {
		if o.Kind == ChoiceKind {
			spec.Choices[o.ID] = o.Choices[rng.Intn(len(o.Choices))]
		} else if o.Follows != nil && rng.Intn(2) == 0 {
			spec.Lengths[o.ID] = min(o.Max, max(o.Min, o.Follows(spec)))
		} else {
			spec.Lengths[o.ID] = random(o.Min, o.Max)
		}
	}
	return spec
}

// checkPart folds a part; of one with nothing to remark, adhesive lands and nothing is in the way.
func checkPart(t *testing.T, spec Spec, p Part, fair bool) {
	t.Helper()
	f, err := p.Pattern.Finished(p.Root)
	if err != nil {
		t.Fatalf("%s %v: %v", p.ID, spec, err)
	}
	if f.Residual > 1e-5 { // corners are whole nanometres
		t.Errorf("%s %v: rings open by %v mm", p.ID, spec, f.Residual)
	}
	sum := 0.0
	for i := range f.Faces {
		sum += f.Faces[i].Area()
	}
	if math.Abs(sum-p.Pattern.Area()) > 1e-3 {
		t.Errorf("%s %v: faces cover %v of %v mm²", p.ID, spec, sum, p.Pattern.Area())
	}
	lo, hi := pattern.Bounds(p.Pattern.Outline.Flat())
	over := func(blank measure.Length, reaches float64) bool { // a blank may be rounded up to what can be cut
		d := blank.MM() - reaches
		return d < -1e-6 || d > spec.Tick.Cut().Length().MM()
	}
	if lo.Len() > 1e-6 || over(p.Pattern.Width, hi.X) || over(p.Pattern.Height, hi.Y) {
		t.Errorf("%s %v: outline %v to %v in a blank %v × %v", p.ID, spec, lo, hi, p.Pattern.Width.MM(), p.Pattern.Height.MM())
	}
	for _, l := range f.Landings(p.Pattern) {
		if fair && (l.Off > 0.05+spec.Card("").MM() || l.Area < 1) {
			t.Errorf("%s %v: %s is %v mm off %s and covers %v mm² of it", p.ID, spec, l.Glue.Face, l.Off, l.Glue.Onto, l.Area)
		}
	}
	for _, c := range f.Collisions() {
		if !fair {
			break
		}
		t.Errorf("%s %v: %s and %s pass through each other", p.ID, spec, f.Faces[c[0]].Name, f.Faces[c[1]].Name)
	}
	text, err := json.Marshal(p.Pattern)
	if err != nil {
		t.Fatal(err)
	}
	var again pattern.Pattern
	told := func(p pattern.Pattern) []any {
		return []any{p.Width, p.Height, p.Outline, p.Creases, p.Slits, p.Holes, p.Openings, p.Scores, p.Glue, p.Marks}
	}
	if err := json.Unmarshal(text, &again); err != nil || !reflect.DeepEqual(told(*p.Pattern), told(again)) {
		t.Errorf("%s %v: read back as another pattern, %v", p.ID, spec, err)
	}
	if _, _, wall := f.Face("back.lining"); wall >= 0 || p.Name == "Tray" {
		rimsMeet(t, p, f)
	}
}

// checkBox checks the parts together, in every state: glue lands across them,
// nothing passes through anything, and what the style claims as room is free.
func checkBox(t *testing.T, s *Style, spec Spec, b *Box) {
	t.Helper()
	names := regexp.MustCompile(`[a-z]\.[a-z0-9]`)
	for _, p := range b.Parts {
		for _, m := range p.Pattern.Marks {
			if names.MatchString(m.Plain()) {
				t.Errorf("%s: a face is called %q", p.ID, m.Plain())
			}
		}
	}
	for _, p := range b.Fits {
		if p.Do(0).Gap < 0 && !p.Kind.Gives {
			return // what is too tight is said by its account
		}
	}
	for _, state := range States {
		bodies := assembled(t, b, state)
		for _, h := range Collisions(bodies) {
			t.Errorf(
				"%v, %s: %s of %s and %s of %s pass through each other",
				spec,
				state,
				h.FaceA.Name,
				h.A.Part.ID,
				h.FaceB.Name,
				h.B.Part.ID,
			)
		}
		if state != Finished {
			continue
		}
		for _, l := range Landings(bodies, bodies) {
			if !s.Inner && (l.Off > 0.05+2*spec.Card("").MM() || l.Area < 1) {
				t.Errorf("%v: %s is %v mm off %s %s and covers %v mm² of it", spec, l.Glue.Face, l.Off, l.Glue.Piece, l.Glue.Onto, l.Area)
			}
		}
		if s.Inner {
			continue
		}
		in, out := b.Room.Largest, Outside(bodies)
		if in.Length >= out.Length || in.Width >= out.Width || in.Height >= out.Height && !b.Room.Bulges {
			t.Errorf("%v: inside %v, outside %v", spec, in, out)
		}
		if in.Height <= 0 {
			t.Errorf("%v: no room inside", spec)
		}
		if h := b.Room.Hold(bodies, in); h.Lacks > 0 || !h.Floor {
			t.Errorf("%v: the room claimed, %v × %v × %v mm, is not free: %+v", spec, in.Length.MM(), in.Width.MM(), in.Height.MM(), h)
		}
		for _, x := range b.Stands {
			if spec.Choices["boxes"] == "clam-box" && !stands(bodies, x) {
				t.Errorf("%v: %s does not stand on %s", spec, x.Upper, x.Lower)
			}
		}
	}
}

func stands(bodies []Body, x Standing) bool {
	find := func(id string) *Body {
		return &bodies[slices.IndexFunc(bodies, func(b Body) bool { return b.Part.ID == id })]
	}
	return StandsOn(find(x.Upper), find(x.Lower))
}

// rimsMeet checks that neighbouring walls' upper corners come together.
func rimsMeet(t *testing.T, p Part, f *pattern.Folded) {
	t.Helper()
	corner := func(wall string, other string) r3.Vec {
		pose, face, _ := f.Face(wall)
		beside, o, _ := f.Face(other)
		// The wall's point that is farthest from the floor and nearest to the other wall.
		best, score := r3.Vec{}, math.Inf(-1)
		for _, q := range face.Polygon {
			v := pose.Place(q)
			near := math.Inf(1)
			for _, r := range o.Polygon {
				near = min(near, r3.Norm(r3.Sub(v, beside.Place(r))))
			}
			if s := math.Abs(v.Z) - 2*near; s > score {
				best, score = v, s
			}
		}
		return best
	}
	walls := []string{"back", "right", "front", "left"}
	for i, w := range walls {
		next := walls[(i+1)%4]
		if d := r3.Norm(r3.Sub(corner(w, next), corner(next, w))); d > 1e-6 {
			t.Errorf("%s: rims of %s and %s are %v mm apart", p.ID, w, next, d)
		}
	}
}

func TestBuildRefuses(t *testing.T) {
	spec := usual(trayLid, size(12*mm, 12*mm, inch), map[string]string{"lid.custom": "smaller-base"})
	spec.Lengths["lid.allowance"] = 12 * mm
	if _, err := trayLid.Make(spec); err == nil {
		t.Error("a base smaller than nothing was built")
	}
}
