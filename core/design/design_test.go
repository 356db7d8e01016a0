package design

import (
	"context"
	"encoding/json"
	"errors"
	"math"
	"math/rand"
	"reflect"
	"strings"
	"testing"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/style"
)

const (
	mm_  = measure.Millimetre
	inch = measure.Inch
)

const diceSet = `{"brevium":1,"name":"Dice set box","units":"in","style":"tray-lid",
 "size":{"length":"4 in","width":"3 in","height":"1 1/2 in","basis":"scored"},
 "contents":null,
 "card":{"gsm":240,"thickness":0.3},
 "options":{"lid.depth":"1 in","lid.walls":"single","lid.allowance":"1/16 in","corners":"two-tab","tick":"1/16 in"},
 "copies":1}`

const twoLayers = `"mats":[{"piece":"base","where":"walls","layers":[
 {"card":{"name":"Plum","thickness":0.3},"border":"1/16 in"},{"card":{"name":"Stars","gsm":120,"thickness":0.15},"border":"1/16 in"}]}]`

func read(t *testing.T, text string) Inputs {
	t.Helper()
	in, err := Read([]byte(text))
	if err != nil {
		t.Fatal(err)
	}
	return in
}

func make_(t *testing.T, in Inputs) *Result {
	t.Helper()
	r, err := Make(context.Background(), in)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

// edit changes one field of the dice set, which must be there.
func edit(t *testing.T, pairs ...string) string {
	t.Helper()
	text := diceSet
	for i := 0; i < len(pairs); i += 2 {
		if !strings.Contains(text, pairs[i]) {
			t.Fatalf("%s is not in the design", pairs[i])
		}
		text = strings.Replace(text, pairs[i], pairs[i+1], 1)
	}
	return text
}

func TestTheDiceSet(t *testing.T) {
	t.Parallel()
	r := make_(t, read(t, diceSet))
	if len(r.Fits) != 2 || r.Fits[0].Gap != 387_500 || r.Fits[0].Verdict != fit.Snug || r.Fits[1].Gap != 987_500 ||
		r.Fits[1].Verdict != fit.Easy {
		t.Errorf("fits %+v", r.Fits)
	}
	if r.Solved || inspect.Worst(r.Checks) != inspect.OK {
		t.Errorf("solved %v, checks %v", r.Solved, r.Checks)
	}
	// Inside: the panel less a thickness and, lengthwise, two tabs.
	if got, want := r.Inside, (style.Extent{Length: 4*inch - 900*measure.Micrometre, Width: 3*inch - 300*measure.Micrometre, Height: 3*inch/2 - 150*measure.Micrometre}); got != want {
		t.Errorf("inside %v; want %v", got, want)
	}
}

func TestMatsMakeItTight(t *testing.T) {
	t.Parallel()
	r := make_(t, read(t, edit(t, `"copies":1`, twoLayers+`,"copies":1`)))
	if r.Fits[0].Gap != -512_500 || r.Fits[0].Verdict != fit.Tight || inspect.Worst(r.Checks) != inspect.Warn {
		t.Errorf("with two mat layers the gap is %v mm, %s", r.Fits[0].Gap.MM(), r.Fits[0].Verdict)
	}
	for _, c := range []struct {
		tick    string
		a, gap  measure.Length
		verdict fit.Verdict
	}{{"1/16 in", inch / 8, 1_075_000, fit.Easy}, {"0.5 mm", 2500 * measure.Micrometre, 400_000, fit.Snug}} {
		r := make_(
			t,
			read(
				t,
				edit(t, `"copies":1`, twoLayers+`,"copies":1`, `"lid.allowance":"1/16 in",`, "", `"tick":"1/16 in"`, `"tick":"`+c.tick+`"`),
			),
		)
		if a := r.Spec.Lengths["lid.allowance"]; !r.Solved || a != c.a || r.Fits[0].Gap != c.gap || r.Fits[0].Verdict != c.verdict {
			t.Errorf("on a tick of %s: allowance %v mm, gap %v mm, %s", c.tick, a.MM(), r.Fits[0].Gap.MM(), r.Fits[0].Verdict)
		}
	}
}

func TestFourJars(t *testing.T) {
	t.Parallel()
	in := read(t, `{"brevium":1,"name":"Jars","units":"in","style":"tray-lid","fit":"snug",
	 "contents":[{"name":"jar","across":"48 mm","height":"62 mm","count":4,"grams":110}],"card":{"thickness":0.3}}`)
	r := make_(t, in)
	if r.Stand.ID != "2x2x1" {
		t.Errorf("the jars stand %s; want two by two", r.Stand.ID)
	}
	// 98 + 0.9 and 98 + 0.3 mm, and 64 + 0.15 high, rounded up to sixteenths; what is
	// square stays square, as long as the longer side.
	want := map[string]measure.Length{"length": 63 * inch / 16, "width": 63 * inch / 16, "height": 41 * inch / 16}
	for id, l := range want {
		if r.Spec.Lengths[id] != l {
			t.Errorf("%s is %v mm; want %v", id, r.Spec.Lengths[id].MM(), l.MM())
		}
	}
	if e := r.Inside; e.Length < 98*mm_ || e.Width < 98*mm_ || e.Height < 64*mm_ {
		t.Errorf("the jars do not fit inside %v", e)
	}
	in.Stand = "4x1x1"
	wantFault(t, in, "size.length", "larger than every sheet")
	in.Stand = "2x1x2"
	in.Things[0].Height = 20 * mm_
	if high := make_(t, in); high.Inside.Height < 42*mm_ {
		t.Errorf("two on two get %v mm of height", high.Inside.Height.MM())
	}
	in.Stand = "9x9x9"
	wantFault(t, in, "stand", "cannot stand")
}

func wantFault(t *testing.T, in Inputs, field, says string) {
	t.Helper()
	_, err := Make(context.Background(), in)
	var f *fault.Fault
	if !errors.As(err, &f) || f.Field != field || !strings.Contains(f.Text, says) {
		t.Errorf("got %v; want a fault at %s saying %q", err, field, says)
	}
}

func TestBadDesignsAreRefusedByField(t *testing.T) {
	t.Parallel()
	for _, c := range []struct{ from, to, says string }{
		{`"brevium":1`, `"brevium":7`, "brevium:"},
		{`"units":"in"`, `"units":"ell"`, "units:"},
		{`"style":"tray-lid"`, `"style":"hat"`, "style:"},
		{`"copies":1`, `"copies":0`, "copies:"},
		{`"copies":1`, `"copies":1,"colour":"red"`, "colour:"},
		{`"copies":1`, `"copies":"many"`, "copies: this cannot be a string; give a number"},
		{`"length":"4 in"`, `"length":"4//3"`, "size.length:"},
		{`"length":"4 in"`, `"length":""`, "size.length:"},
		{`"length":"4 in"`, `"length":-5`, "size.length:"},
		{`"length":"4 in"`, `"length":"1/0"`, "size.length:"},
		{`"length":"4 in"`, `"length":"3 m"`, "size.length:"},
		{`"length":"4 in"`, `"length":"2 mm"`, "size.length: Length is"},
		{`"length":"4 in"`, `"length":"11 in"`, "size.length: the base's blank would be 14 in × 6 in, larger than every sheet"},
		{`"width":"3 in"`, `"breadth":"3 in"`, "size.breadth:"},
		{`"basis":"scored"`, `"basis":"guessed"`, "size.basis:"},
		{`"lid.walls":"single"`, `"lid.walls":"triple"`, "options.lid.walls:"},
		{`"lid.walls":"single"`, `"lid.hinge":"yes"`, "options.lid.hinge:"},
		{`"tick":"1/16 in"`, `"tick":"0"`, "options.tick:"},
		{`"thickness":0.3`, `"thickness":9`, "card.thickness:"},
		{`"gsm":240`, `"gsm":99999`, "card.gsm:"},
		{`"contents":null`, `"contents":[{"name":"jar","across":48,"height":62}]`, "size."},
		{`"copies":1`, `"copies":1,"fit":"tight"`, "fit:"},
		{`"copies":1`, `"copies":1,"sheets":[{"name":"napkin"}]`, "sheets[0].name:"},
		{`"copies":1`, `"copies":1,"sheets":[{"name":"x","width":100}]`, "sheets[0]"},
		{`"copies":1`, `"copies":1,"tools":{"fence":"top"}`, "tools.fence:"},
		{`"copies":1`, `"copies":1,"mats":[{"piece":"roof","where":"walls","layers":[{"card":{},"border":1}]}]`, "mats[0].piece:"},
		{`"copies":1`, `"copies":1,"mats":[{"piece":"lid","where":"walls","layers":[{"card":{},"border":12}]}]`, "mats[0].layers[0].border:"},
		{`"copies":1`, `"copies":1,"mats":[{"piece":"lid","where":"walls","layers":[]}]`, "mats[0].layers:"},
		{`"copies":1}`, `"copies":1} {}`, "file:"},
		{`"copies":1}`, `"copies":1`, "file:"},
		{`"card":{"gsm":240,"thickness":0.3}`, `"card":{"thickness":2.9},"cards":{"lid":{"thickness":3}}`, "options.lid"},
	} {
		text := edit(t, c.from, c.to)
		if strings.Contains(c.says, "options.lid") && strings.Contains(c.to, "2.9") {
			text = strings.Replace(text, `"lid.allowance":"1/16 in",`, "", 1)
			text = strings.Replace(text, `"lid.walls":"single"`, `"lid.walls":"double"`, 1)
		}
		in, err := Read([]byte(text))
		if err == nil {
			_, err = Make(context.Background(), in)
		}
		if err == nil || !strings.Contains(err.Error(), c.says) || strings.Contains(err.Error(), "\n") {
			t.Errorf("%s: got %v; want one line with %q", c.to, err, c.says)
		}
	}
	if _, err := Read(make([]byte, 5<<20)); err == nil || !strings.Contains(err.Error(), "4 MiB") {
		t.Errorf("five MiB give %v", err)
	}
}

// A blank the trimmer cuts but the board does not take is warned of.
func TestALongBlankOnALongTrimmer(t *testing.T) {
	t.Parallel()
	in := read(t, edit(t, `"copies":1`, `"copies":1,"sheets":[{"name":"A3"}],"tools":{"trimmer":"18 in"}`, `"4 in"`, `"10 in"`))
	for _, c := range make_(t, in).Checks {
		if c.ID == "board" && c.Piece == "base" && c.Verdict == inspect.Warn {
			return
		}
	}
	t.Error("a blank of 13 in is not warned of")
}

// Walls that leave no floor are said at the height.
func TestWallsHigherThanHalfTheBlank(t *testing.T) {
	t.Parallel()
	in := New("x", measure.In, "tray-lid")
	in.Basis = Outside
	in.Size = map[string]measure.Length{"length": 13 * mm_, "width": 13 * mm_, "height": 30 * mm_}
	in.Choices["lid.custom"] = "smaller-base"
	in.Lengths["lid.allowance"] = 12 * mm_
	if _, err := Make(context.Background(), in); err == nil || fault.Of(err).Field == "" || fault.Of(err).Code == fault.Internal {
		t.Errorf("got %v; want a fault at a field", err)
	}
}

func randomInputs(rng *rand.Rand) Inputs {
	in := read2(diceSet)
	if rng.Intn(2) == 0 {
		in = read2(strings.Replace(diceSet, `"copies":1`, twoLayers+`,"copies":1`, 1))
	}
	s := style.All[rng.Intn(len(style.All))]
	if err := in.SetStyle(s.ID); err != nil {
		panic(err)
	}
	in.SetUnits(measure.Units[rng.Intn(3)])
	for _, p := range s.Parameters {
		in.Size[p.ID] = p.Min + measure.Length(rng.Int63n(int64(p.Max-p.Min)/3))
	}
	for _, o := range s.Options {
		if o.Kind == style.ChoiceKind && rng.Intn(2) == 0 {
			in.Choices[o.ID] = o.Choices[rng.Intn(len(o.Choices))]
		}
	}
	in.Copies = 1 + rng.Intn(4)
	return in
}

func read2(text string) Inputs {
	in, err := Read([]byte(text))
	if err != nil {
		panic(err)
	}
	return in
}

// What is written reads back the same, and the plan's printed numbers parse
// back to the numbers computed.
func TestFilesSayWhatIsMeant(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewSource(9))
	made := 0
	for range 300 {
		in := randomInputs(rng)
		again, err := Read(in.Write())
		if err != nil || !reflect.DeepEqual(in, again) {
			t.Fatalf("%v: wrote\n%s\nread back %+v; want %+v", err, in.Write(), again, in)
		}
		r, err := Make(context.Background(), in)
		if err != nil {
			continue // out of range together; each refusal is tested above
		}
		made++
		text, err := r.Plan()
		if err != nil {
			t.Fatal(err)
		}
		var plan struct {
			Pieces []struct {
				Blank  struct{ Width, Height float64 }
				Scores struct {
					Vertical, Horizontal []float64
					VerticalLabel        []string `json:"vertical_label"`
					HorizontalLabel      []string `json:"horizontal_label"`
				}
			}
		}
		if err := json.Unmarshal(text, &plan); err != nil {
			t.Fatal(err)
		}
		for i, p := range plan.Pieces {
			pat := r.Parts[i].Pattern
			if measure.FromMM(p.Blank.Width) != pat.Width || measure.FromMM(p.Blank.Height) != pat.Height {
				t.Fatalf("the plan's blank is %v; computed %v × %v", p.Blank, pat.Width, pat.Height)
			}
			check := func(labels []string, numbers []float64, want []measure.Length) {
				for n, l := range want {
					got, err := measure.Parse(labels[n], in.Units)
					if err != nil || (got-l).Abs() > 50*measure.Micrometre || measure.FromMM(numbers[n]) != l {
						t.Fatalf("a score at %d nm is printed %q and written %v", l, labels[n], numbers[n])
					}
				}
			}
			check(p.Scores.VerticalLabel, p.Scores.Vertical, pat.Scores.Vertical)
			check(p.Scores.HorizontalLabel, p.Scores.Horizontal, pat.Scores.Horizontal)
		}
	}
	if made < 60 {
		t.Errorf("only %d of 300 random designs could be made", made)
	}
}

func TestChangingStyleKeepsWhatMeansSomething(t *testing.T) {
	t.Parallel()
	in := read(t, edit(t, `"copies":1`, twoLayers+`,"copies":1`))
	in.Choices["corners"] = "pinwheel"
	other := in.Clone()
	if err := other.SetStyle("tray"); err != nil {
		t.Fatal(err)
	}
	if other.Choices["corners"] != "pinwheel" || len(other.Mats) != 0 || len(other.Lengths) != 0 || other.Size["length"] != 4*inch {
		t.Errorf("a tray keeps %+v", other)
	}
	if len(in.Mats) != 1 || len(in.Lengths) != 2 {
		t.Error("changing the copy changed the original")
	}
	make_(t, other)
	if err := other.SetStyle("hat"); err == nil {
		t.Error("a hat is a style")
	}
}

func TestDifference(t *testing.T) {
	t.Parallel()
	a := read(t, diceSet)
	for _, c := range []struct {
		change func(*Inputs)
		want   string
	}{
		{func(*Inputs) {}, ""},
		{func(x *Inputs) { x.Size["length"] = 5 * inch }, "length"},
		{func(x *Inputs) { x.Lengths["lid.depth"] = inch / 2; x.Copies = 3 }, "lid depth and copies"},
		{func(x *Inputs) { x.SetUnits(measure.CM) }, "units"},
		{func(x *Inputs) { x.Name, x.Copies, x.Fit = "y", 2, fit.Easy }, "name and 2 more"},
		{func(x *Inputs) { x.Mats = read2(strings.Replace(diceSet, `"copies":1`, twoLayers, 1)).Mats }, "dressing"},
	} {
		b := a.Clone()
		c.change(&b)
		if got := Difference(a, b); got != c.want {
			t.Errorf("got %q; want %q", got, c.want)
		}
	}
}

// What is on a sheet together is what was to be cut.
func TestEveryPieceIsLaidOut(t *testing.T) {
	t.Parallel()
	in := read(t, edit(t, `"copies":1`, twoLayers+`,"copies":5`))
	r := make_(t, in)
	placed := 0
	for _, s := range r.Stocks {
		if len(s.Layout.Unplaced) > 0 {
			t.Errorf("%s: %v unplaced", s.Card.Name, s.Layout.Unplaced)
		}
		for _, l := range s.Layout.Sheets {
			placed += len(l.Placed)
		}
	}
	if want := 5 * (len(r.Parts) + len(r.Mats)); placed != want || len(r.Stocks) != 3 {
		t.Errorf("%d pieces on sheets of %d cards; want %d of 3", placed, len(r.Stocks), want)
	}
	if got := r.PieceName("base.back.1"); got != "base paper, back wall" {
		t.Errorf("a mat is called %q", got)
	}
}

func FuzzRead(f *testing.F) {
	f.Add([]byte(diceSet))
	f.Add([]byte(`{"brevium":1,"units":"cm","style":"tray","contents":[{"name":"x","across":"5","height":5}]}`))
	f.Fuzz(func(t *testing.T, text []byte) {
		in, err := Read(text)
		if err != nil {
			var x *fault.Fault
			if !errors.As(err, &x) {
				t.Errorf("a refusal without a field: %v", err)
			}
			return
		}
		if in.Copies > 20 {
			in.Copies = 20
		}
		if _, err := Make(context.Background(), in); err != nil && fault.Of(err).Code == fault.Internal {
			t.Errorf("a design that reads cannot be made: %v", err)
		}
	})
}

// BenchmarkMake is the whole result of a two-part double-walled box with mats
// and the layout of 12 copies.
func BenchmarkMake(b *testing.B) {
	text := strings.NewReplacer(`"copies":1`, twoLayers+`,"copies":12`, `"lid.walls":"single"`, `"lid.walls":"double","base.walls":"double"`,
		`"4 in"`, `"3 in"`, `"1 1/2 in"`, `"1 in"`, `"lid.allowance":"1/16 in",`, "").
		Replace(diceSet)
	in := read2(text)
	for b.Loop() {
		if _, err := Make(context.Background(), in); err != nil {
			b.Fatal(err)
		}
	}
}

// BenchmarkStyles is the whole result of every style at its usual size.
func BenchmarkStyles(b *testing.B) {
	for _, s := range style.All {
		b.Run(s.ID, func(b *testing.B) {
			in := New("x", measure.In, s.ID)
			for b.Loop() {
				if _, err := Make(context.Background(), in); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

// A board of eighths makes no lid loose: the allowance has a tick of its own.
func TestAnAllowanceOnACoarseBoard(t *testing.T) {
	t.Parallel()
	in := New("lid", measure.In, "tray-lid")
	in.Size["length"], in.Size["width"], in.Size["height"] = 4*measure.Inch, 3*measure.Inch, 3*measure.Inch/2
	in.Tools.Tick = measure.Tick(measure.Inch / 8)
	r := make_(t, in)
	if got := r.Spec.Lengths["lid.allowance"]; got != measure.Inch/16 {
		t.Errorf("the allowance is %v mm; want 1/16 in", got.MM())
	}
	for i, want := range []float64{0.39, 0.99} {
		if gap := r.Fits[i].Gap.MM(); math.Abs(gap-want) > 0.005 {
			t.Errorf("gap %d is %.3f mm; want %v", i, gap, want)
		}
	}
}
