package stylefile

import (
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"slices"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/sample"
	"brevium/core/style"
)

// examples are style files that are written as styles of the catalogue are.
var files = []string{"tray", "hinged-carton", "fold-top-bag", "wallet-box", "clam-box", "gable-lid"}

func example(t testing.TB, id string) []byte {
	t.Helper()
	text, err := os.ReadFile("examples/" + id + ".json")
	if err != nil {
		t.Fatal(err)
	}
	return text
}

// specOf are a style's usual choices at sizes at random, in either unit.
func specOf(r *rand.Rand, s *style.Style, unit measure.Unit) style.Spec {
	spec := style.Spec{Style: s, Lengths: map[string]measure.Length{}, Choices: map[string]string{}, Thickness: map[string]measure.Length{"": 300 * measure.Micrometre}, Tick: unit.Tick(), Units: unit}
	for _, o := range s.Options {
		if o.Kind == style.ChoiceKind {
			spec.Choices[o.ID] = o.DefaultChoice
		} else {
			spec.Lengths[o.ID] = o.Usual(spec.Tick)
		}
	}
	for _, p := range s.Parameters {
		l := p.Default/2 + measure.Length(r.Int64N(int64(p.Default)))
		spec.Lengths[p.ID] = measure.Nearest(l, spec.Tick)
	}
	return spec
}

// A style file written along the docs gives the very patterns of the style in the
// catalogue, for sizes at random in either unit: outlines, creases, slits, glue.
func TestFilesGiveTheVeryPatterns(t *testing.T) {
	r := rand.New(rand.NewPCG(16, uint64(sample.Seed(5))))
	for _, id := range files {
		own, err := Read(example(t, id))
		if err != nil {
			t.Fatalf("%s: %v", id, err)
		}
		known, err := style.ByID(id)
		if err != nil {
			t.Fatal(err)
		}
		made := 0
		for n := 0; made < sample.Of(t, 200) && n < 4000; n++ {
			spec := specOf(r, known, []measure.Unit{measure.In, measure.MM}[n%2])
			want, err := known.Make(spec)
			if err == nil && len(want.Remarks) > 0 {
				continue // which a file refuses
			}
			spec.Choices = map[string]string{style.AdhesiveOption().ID: spec.Choices[style.AdhesiveOption().ID]} // the others are as usual in a file
			got, wrong := own.Make(spec)
			if (err == nil) != (wrong == nil) {
				t.Errorf("%s %v: %v, by the file %v", id, spec.Lengths, err, wrong)
			}
			if err != nil || wrong != nil {
				continue
			}
			made++
			if len(want.Parts) != len(got.Parts) || want.Shut != got.Shut || !slices.EqualFunc(want.Fits, got.Fits, sameFit) {
				t.Fatalf("%s %v: %d pieces, %v, fits %v; by the file %d, %v, %v", id, spec.Lengths, len(want.Parts), want.Shut, want.Fits, len(got.Parts), got.Shut, got.Fits)
			}
			for i := range want.Parts {
				a, b := want.Parts[i].Pattern, got.Parts[i].Pattern
				if !levelled(a).Alike(levelled(b)) || !slices.Equal(glued(a), glued(b)) || want.Parts[i].At != got.Parts[i].At {
					t.Fatalf("%s %v: by the file %s is %v × %v, %v, glued %v; it is %v × %v, %v, glued %v", id, spec.Lengths, got.Parts[i].ID, b.Width, b.Height, b.Outline, glued(b), a.Width, a.Height, a.Outline, glued(a))
				}
			}
		}
		if made < sample.Of(t, 200) {
			t.Errorf("%s: only %d could be made", id, made)
		}
	}
}

// levelled is a pattern with its angles to a millionth of a degree: the last bits of an
// arc sine depend on the unit it was worked out in.
func levelled(p *pattern.Pattern) *pattern.Pattern {
	q := *p
	q.Creases = slices.Clone(p.Creases)
	for i := range q.Creases {
		q.Creases[i].Angle = math.Round(q.Creases[i].Angle*1e6) / 1e6
	}
	return &q
}

// sameFit compares two fits but for what a piece's words say of its kind.
func sameFit(a, b fit.Pair) bool {
	kinds := a.Kind.ID == b.Kind.ID
	a.Kind, b.Kind = nil, nil
	return kinds && a == b
}

func glued(p *pattern.Pattern) (out []string) {
	for _, g := range p.Glue {
		out = append(out, fmt.Sprint(g.Face, g.Outside, g.Onto, g.OntoOutside, g.Dry, g.Area))
	}
	slices.Sort(out)
	return out
}

// A style of one's own is sized by contents, checked and told in steps like any other;
// a newer version leaves boxes of the older as they are.
func TestAStyleOfOnesOwnIsLikeAnyOther(t *testing.T) {
	text := example(t, "hinged-carton")
	first, err := Read(text)
	if err != nil {
		t.Fatal(err)
	}
	second, err := Read([]byte(strings.Replace(strings.Replace(string(text), `"id": "own-carton"`, `"id": "own-carton", "version": 2`, 1), `"min(H, L/2)"`, `"min(H, L/3)"`, 1)))
	if err != nil || second.ID != "own-carton.v2" {
		t.Fatalf("%v, %v", second, err)
	}
	first.Newer = true
	style.SetOwn([]*style.Style{first, second})
	defer style.SetOwn(nil)
	in := design.New("Mine", measure.In, "own-carton")
	in.Things = append(in.Things, design.New("", measure.In, "tray").Things...)
	r, err := design.Make(t.Context(), in)
	if err != nil || len(r.Steps) < 5 || r.Inside.Length <= 0 {
		t.Fatalf("%v, %v", r, err)
	}
	for _, c := range r.Checks {
		if c.Verdict == "fail" {
			t.Errorf("%s: %s", c.ID, c.Text)
		}
	}
	again, err := design.Read(in.Write())
	if err != nil || again.Style != "own-carton" {
		t.Errorf("its file gives %s, %v", again.Style, err)
	}
	in.Style = "own-carton.v2"
	newer, err := design.Make(t.Context(), in)
	if err != nil || newer.Parts[0].Pattern.Alike(r.Parts[0].Pattern) {
		t.Errorf("the newer one is as the older: %v", err)
	}
	listed := 0
	for _, s := range style.Listed() {
		if strings.HasPrefix(s.ID, "own-carton") {
			listed++
		}
	}
	if listed != 1 {
		t.Errorf("%d versions are listed", listed)
	}
}

// Formulas are arithmetic and nothing else; what is wrong is said at its field.
func TestFormulas(t *testing.T) {
	sizes := map[string]float64{"L": 100, "t": 0.3}
	for text, want := range map[string]float64{"L/2 + 1/16 in": 51.5875, "max(L - 3*t, 2 cm)": 99.1, "-L + 4*(L)": 300, "min(1, 2)": 1, "down(L/3, 1)": 33, "up(7, 2)": 8, "1/8 in": 3.175, "90": 90, "asin(1)": 90} {
		f, err := compile(text, []string{"L", "t"})
		if err != nil {
			t.Errorf("%q: %v", text, err)
			continue
		}
		if got, err := f.number(sizes); err != nil || got-want > 1e-9 || want-got > 1e-9 {
			t.Errorf("%q is %v, %v", text, got, err)
		}
	}
	for _, text := range []string{"", "L +", "M", "min(M, 1)", "min", `"a"`, "L > 3", "L ? 1 : 2", "[1,2,3]", "1..9", "len(L)", "L.x", "L ** 9", "L % 2", "map([1], #)", "let x = 1; x", "env()", "$env", "{a: 1}", "not true", "true", "now()", strings.Repeat("(", 150) + "1" + strings.Repeat(")", 150), strings.Repeat("L+", 99) + "L"} {
		if f, err := compile(text, []string{"L", "t"}); err == nil {
			if x, err := f.number(sizes); err == nil {
				t.Errorf("%q is worked out as %v", text, x)
			}
		}
	}
	for _, text := range []string{"L/0", "0/0", "L*L*L*L", "sqrt(-1)"} {
		f, err := compile(text, []string{"L", "t"})
		if err != nil {
			t.Errorf("%q: %v", text, err)
			continue
		}
		if x, err := f.number(sizes); err == nil {
			t.Errorf("%q is %v", text, x)
		}
	}
}

func TestFilesThatCannotBe(t *testing.T) {
	text := string(example(t, "tray"))
	for change, field := range map[string]string{
		`"brevium_style": 1=>"brevium_style": 2`: "brevium_style",
		`"id": "own-tray"=>"id": "Own Tray"`:     "id",
		`"id": "own-tray"=>"id": "tray"`:         "id",
		`"as": "W"=>"as": "min"`:                 "sizes[1].as",
		`"usual": "4 in"=>"usual": "4 ells"`:     "sizes[0].usual",
		`"columns": [
    "H"=>"columns": [
    "Q"`: "pieces[0].columns[0]",
		`"columns": [
    "H"=>"columns": [
    "H/0"`: "pieces[0].columns",
		`"left base right"=>"left base"`:     "pieces[0]",
		`"root": "base"=>"root": "basement"`: "",
		`"base": "panel"=>"base": "ceiling"`: "pieces[0].roles.base",
		`"length",
  "width",
  "height"=>"length",
  "breadth",
  "height"`: "room[1]",
		`"opens"=>"closes"`: "closes",
	} {
		from, to, _ := strings.Cut(change, "=>")
		bad := strings.Replace(text, from, to, 1)
		if bad == text {
			t.Errorf("%q is not in the file", from)
		}
		refused(t, bad, field)
	}
}

// Pieces that go over one another are judged, and how much bigger the outer one is is
// worked out; what lies beyond the table's cells is said at its field.
func TestALidOfOnesOwnIsFitted(t *testing.T) {
	own, err := Read(example(t, "gable-lid"))
	if err != nil {
		t.Fatal(err)
	}
	style.SetOwn([]*style.Style{own})
	defer style.SetOwn(nil)
	in := design.New("Mine", measure.In, own.ID)
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	in.Style = "gable-lid"
	known, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	if !r.Solved || len(r.Fits) != 2 {
		t.Fatalf("solved %v, fits %v", r.Solved, r.Fits)
	}
	for i, a := range r.Fits {
		if b := known.Fits[i]; a.Gap != b.Gap || a.Verdict != b.Verdict {
			t.Errorf("%s: %v %s; in the catalogue %v %s", a.Pair.Axis, a.Gap, a.Verdict, b.Gap, b.Verdict)
		}
	}
	text := string(example(t, "gable-lid"))
	for change, field := range map[string]string{
		`"as": "a"=>"as": "W"`:                                 "allowance.as",
		`"usual": "1/16 in"=>"usual": "9 in"`:                  "allowance.usual",
		`"outer_span": "W"=>"outer_span": "Q"`:                 "fits[0].outer_span",
		`"outer_span": "W"=>"outer_span": ""`:                  "fits[0].outer_span",
		`"kind": "lid"=>"kind": "cork"`:                        "fits[0].kind",
		`"along": "length"=>"along": "girth"`:                  "fits[0].along",
		`"inner": "tray"=>"inner": "saucer"`:                   "fits[0]",
		`"outer_layers": 1=>"outer_layers": -1`:                "fits[1].outer_layers",
		`"opens": "upright"=>"opens": "askew"`:                 "pieces[1].opens",
		`"lifts": "C + 10 mm"=>"lifts": "C + 10 ells"`:         "pieces[1].lifts",
		`"follows": "min(1 in, H)"=>"follows": "min(1 in, S)"`: "sizes[2].follows", // S comes after
		`"down": [=>"downwards": [`:                            "pieces[1].upwards.downwards",
	} {
		from, to, _ := strings.Cut(change, "=>")
		bad := strings.Replace(text, from, to, 1)
		if bad == text {
			t.Errorf("%q is not in the file", from)
		}
		refused(t, bad, field)
	}
}

// A tube whose fourth side is too short does not close, nor one whose corner is folded by
const tube = `{"brevium_style": 1, "id": "tube", "name": "Tube", "sizes": [
 {"id": "length", "as": "L", "usual": "80 mm"}, {"id": "width", "as": "W", "usual": "50 mm"}, {"id": "height", "as": "H", "usual": "70 mm"}],
 "room": ["length", "width", "height"],
 "pieces": [{"id": "body", "name": "Tube", "columns": ["L", "W", "L", "W", "15 mm"], "rows": ["H"], "cells": ["front right back left tab"], "root": "front",
  "roles": {"tab": "tab"}, "folds": [{"between": ["left", "tab"], "angle": "90"}], "glue": [{"face": "tab", "onto": "front"}], "opens": "upright"}]}`

// too little; a tab on the wrong side meets nothing. It is said by how much.
func TestRingsClose(t *testing.T) {
	text := tube
	if _, err := Read([]byte(text)); err != nil {
		t.Fatal(err)
	}
	for change, says := range map[string]string{
		`"L", "W", "15 mm"=>"L", "W - 5 mm", "15 mm"`:   "tab ends 5 mm off front",
		`"angle": "90"=>"angle": "60"`:                  "tab ends 7.5 mm off front", // 15 mm · sin 30°
		`"onto": "front"=>"onto": "back"`:               "tab ends 50 mm off back",
		`"angle": "90"=>"angle": "90", "towards": true`: "tab does not reach front",
	} {
		from, to, _ := strings.Cut(change, "=>")
		_, err := Read([]byte(strings.Replace(text, from, to, 1)))
		if err == nil || !strings.Contains(err.Error(), says) || !strings.HasPrefix(fault.Of(err).Field, "pieces[0]") {
			t.Errorf("%s: %v", to, err)
		}
	}
}

// A tray with a round wall, a notch in its rim, a hole in its floor, and a strip that is
const shapes = `{"brevium_style": 1, "id": "shapes", "name": "Shapes", "sizes": [
 {"id": "length", "as": "L", "usual": "100 mm"}, {"id": "width", "as": "W", "usual": "60 mm"}, {"id": "height", "as": "H", "usual": "30 mm"}],
 "room": ["length", "width", "height"],
 "pieces": [{"id": "tray", "name": "Tray", "columns": ["L"], "rows": ["H", "W", "H", "H"], "cells": ["back", "base", "front", "roll"], "root": "base",
  "roles": {"base": "panel"}, "up": {"base": ["back", "front"]},
  "folds": [{"between": ["front", "roll"], "angle": "120", "roll": true}],
  "rounds": [{"face": "back", "on": "base", "radius": "H/2"}],
  "notches": [{"face": "roll", "at": ["0.5", "1"], "radius": "H/3"}],
  "holes": [{"face": "base", "at": ["1/4", "0.5"], "radius": "8 mm"}]}]}`

// rolled: all of it is where it is said to be.
func TestShapesOfAFile(t *testing.T) {
	text := shapes
	s, err := Read([]byte(text))
	if err != nil {
		t.Fatal(err)
	}
	box, err := s.Make(s.Usual(measure.MM.Tick(), 300*measure.Micrometre))
	if err != nil {
		t.Fatal(err)
	}
	p := box.Parts[0].Pattern
	if len(p.Holes) != 1 {
		t.Fatalf("holes %v", p.Holes)
	}
	lo, hi := pattern.Bounds(p.Holes[0].Flat())
	if math.Abs((lo.X+hi.X)/2-25) > 0.1 || math.Abs((lo.Y+hi.Y)/2-60) > 0.1 || math.Abs(hi.X-lo.X-16) > 0.1 {
		t.Errorf("the hole goes from %v to %v", lo, hi)
	}
	arcs := 0
	for _, v := range p.Outline {
		if v.Bulge != 0 {
			arcs++
		}
	}
	if arcs < 3 { // two corners and the notch
		t.Errorf("%d arcs in %v", arcs, p.Outline)
	}
	if !slices.ContainsFunc(p.Creases, func(c pattern.Crease) bool { return c.Rolled && c.Angle == 120 }) {
		t.Errorf("nothing is rolled in %v", p.Creases)
	}
	for change, field := range map[string]string{
		`"radius": "H/3"=>"radius": "3*L"`: "pieces[0]",
		`"radius": "8 mm"=>"radius": "0"`:  "pieces[0].holes[0]",
		`["1/4", "0.5"]=>["1/4", "x"]`:     "pieces[0].holes[0].at",
	} {
		from, to, _ := strings.Cut(change, "=>")
		refused(t, strings.Replace(text, from, to, 1), field)
	}
}

// refused checks that a file is not taken, and that it is said at the field.
func refused(t *testing.T, text, field string) {
	t.Helper()
	_, err := Read([]byte(text))
	if err == nil {
		t.Errorf("taken, though it is wrong at %s", field)
	} else if at := fault.Of(err).Field; !strings.HasPrefix(at, field) {
		t.Errorf("%v at %q, not %s", err, at, field)
	}
}

// Whatever is in a file, it is read in bounded time, and what is taken can be made.
func FuzzRead(f *testing.F) {
	for _, id := range files {
		f.Add(string(example(f, id)))
	}
	f.Fuzz(func(t *testing.T, text string) {
		if s, err := Read([]byte(text)); err == nil && (s.ID == "" || len(s.Parameters) == 0) {
			t.Errorf("%q is a style without a name or sizes", text)
		}
	})
}

// A formula has up to 80 parts: forty numbers with thirty-nine signs between are taken, and one
// more of each is not.
func TestALongFormulaIsRefused(t *testing.T) {
	for terms, taken := range map[int]bool{40: true, 41: false, 60: false} {
		if _, err := compile(strings.Repeat("L+", terms-1)+"L", []string{"L"}); (err == nil) != taken {
			t.Errorf("%d numbers: %v", terms, err)
		}
	}
}
