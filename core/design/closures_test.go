package design

import (
	"math"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/dress"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

func closed(t *testing.T, styleID string, c Closure, change func(*Inputs)) (*Result, string) {
	t.Helper()
	in := New("x", measure.MM, styleID)
	in.Closures = []Closure{c}
	if change != nil {
		change(&in)
	}
	in.NumberThings()
	r := make_(t, in)
	var text []string
	for _, s := range r.Steps {
		text = append(text, s.Text)
	}
	return r, strings.Join(text, "\n")
}

// Magnets go under the paper of the face that the flap comes to lie on: the first
// before the paper, the second when the box is shut; the two places are one place.
func TestMagnetsMeet(t *testing.T) {
	t.Parallel()
	r, told := closed(t, "wallet-box", Closure{Kind: Magnets, Pairs: 1}, func(in *Inputs) {
		in.Mats = []dress.Dressing{{Piece: "body", Faces: []string{"front"}, Layers: []dress.Layer{{Card: UsualCard, Border: dress.Even(2 * mm_)}}}}
	})
	s := r.Closures[0].Seats[0]
	if s.Closing.Face != "flap" || s.On.Face != "front" || s.Closing.Outside || !s.On.Outside {
		t.Fatalf("they meet at %+v", s)
	}
	bodies, err := r.Bodies(style.Finished)
	if err != nil {
		t.Fatal(err)
	}
	at := map[string]pattern.Point{"flap": s.Closing.At, "front": s.On.At}
	var places [][3]float64
	for i, f := range bodies[0].Faces {
		if q, is := at[f.Name]; is {
			v := bodies[0].Poses[i].Place(q)
			places = append(places, [3]float64{v.X, v.Y, v.Z})
		}
	}
	if len(places) != 2 || math.Hypot(places[0][0]-places[1][0], places[0][2]-places[1][2]) > 0.01 || math.Abs(places[0][1]-places[1][1]) > 2 {
		t.Errorf("on the shut box they lie at %v", places)
	}
	first, second, paper := strings.Index(told, "Glue the first, mark down"), strings.Index(told, "second magnet find the first"), strings.Index(told, "Glue the paper on the front")
	if first < 0 || !(first < paper && paper < second) || !strings.Contains(told, "swallowed") || !strings.Contains(told, "The paper that follows hides the magnet") {
		t.Errorf("first at %d, paper at %d, second at %d:\n%s", first, paper, second, told)
	}
	supplied := false
	for _, x := range r.Supplies {
		supplied = supplied || x.ID == "closure.magnets" && x.Amount == 2
	}
	if !supplied {
		t.Errorf("supplies: %+v", r.Supplies)
	}
}

// A closure that a band covers, or that lies over a glued tab, is said; one clear
// of both is fine.
func TestClosuresAreJudged(t *testing.T) {
	t.Parallel()
	says := func(r *Result, text string) bool {
		for _, c := range r.Checks {
			if c.ID == "closure" && strings.Contains(c.Text, text) {
				return true
			}
		}
		return false
	}
	r, _ := closed(t, "wallet-box", Closure{Kind: Hooks, Pairs: 1}, nil)
	if !says(r, "clear of glue") {
		t.Errorf("a clear place: %+v", r.Checks)
	}
	r, _ = closed(t, "wallet-box", Closure{Kind: Hooks, Pairs: 1}, func(in *Inputs) {
		b := UsualBand(measure.MM)
		b.Axis = "length"
		in.Bands = []Band{b}
	})
	if !says(r, "opens only when that is slid off") {
		t.Error("a band over the closure is not said")
	}
	r, _ = closed(t, "hinged-carton", Closure{Kind: Brad, Pairs: 1}, func(in *Inputs) {
		in.Things = []contents.Thing{{Shape: contents.Block, Length: 60 * mm_, Width: 20 * mm_, Height: 30 * mm_, Count: 1, Ease: 2 * mm_}}
	})
	if !says(r, "can scratch") {
		t.Error("a brad against what is inside is not said")
	}
	// Round the whole width of the flap of a carton whose corners are glued behind
	// the front, magnets beyond its middle come over a tab.
	found := false
	for across := 2; across < 60 && !found; across++ {
		in := New("x", measure.MM, "hinged-carton")
		in.Closures = []Closure{{ID: 1, Kind: Magnets, Pairs: 2, Across: measure.Length(across) * mm_}}
		if r, err := Make(t.Context(), in); err == nil {
			found = says(r, "over a glued tab")
		}
	}
	if !found {
		t.Error("no place on the front is over a glued tab")
	}
}

// Every style that has a flap has a seat for a dot; the others say what to use
// instead.
func TestClosuresOfEveryStyle(t *testing.T) {
	t.Parallel()
	seats := 0
	for _, s := range style.Boxes() {
		in := New("x", measure.MM, s.ID)
		in.Closures = []Closure{{ID: 1, Kind: Dot, Pairs: 1}}
		r, err := Make(t.Context(), in)
		if err != nil {
			if !strings.Contains(err.Error(), "a band or a ribbon keeps it shut") {
				t.Errorf("%s: %v", s.ID, err)
			}
			continue
		}
		seats++
		if a := r.Closures[0].Seats[0]; a.Apart > 6 || a.Closing.Piece == a.On.Piece && a.Closing.Face == a.On.Face {
			t.Errorf("%s: %+v", s.ID, a)
		}
		for _, c := range r.Checks {
			if c.ID == "closure" && c.Verdict == inspect.Fail {
				t.Errorf("%s: %s", s.ID, c.Text)
			}
		}
	}
	if seats < 4 {
		t.Errorf("%d styles have a seat for a dot", seats)
	}
}

func TestClosuresAreRead(t *testing.T) {
	t.Parallel()
	for field, bad := range map[string]string{
		"closures[0].kind":   `{"kind":"glue gun"}`,
		"closures[0].pairs":  `{"kind":"dot","pairs":9}`,
		"closures[0].across": `{"kind":"dot","pairs":2}`,
	} {
		if _, err := Read([]byte(`{"brevium":1,"name":"x","units":"mm","style":"wallet-box","contents":[],"closures":[` + bad + `]}`)); err == nil || !strings.HasPrefix(err.Error(), field+":") {
			t.Errorf("%s: %v", field, err)
		}
	}
	in := New("x", measure.MM, "wallet-box")
	in.Closures = []Closure{{ID: 7, Kind: Magnets, Pairs: 2, Across: 20 * mm_}}
	again, err := Read(in.Write())
	if err != nil || len(again.Closures) != 1 || again.Closures[0] != in.Closures[0] {
		t.Errorf("%+v, %v", again.Closures, err)
	}
}

// Whatever holds the flap is a step and a supply.
func TestEveryClosureIsToldAndSupplied(t *testing.T) {
	t.Parallel()
	for kind, says := range map[ClosureKind]string{
		Magnets: "mark the sides that look outwards", Hooks: "hook half onto the loop half", Dot: "removable glue dot", Brad: "spread the legs", Tape: "repositionable tape", Clip: "push a clip",
	} {
		r, told := closed(t, "wallet-box", Closure{Kind: kind, Pairs: 1}, nil)
		supplied := false
		for _, s := range r.Supplies {
			supplied = supplied || s.ID == "closure."+string(kind) && s.Amount >= 1 && s.Text != ""
		}
		if !strings.Contains(told, says) || !supplied {
			t.Errorf("%s: told %v, supplied %v", kind, strings.Contains(told, says), supplied)
		}
	}
}

// Magnets have the sizes that they are bought in, or the maker's own: in the list, in the place
// that is free for them, and in what is said of a pair that is too thick.
func TestMagnetsOfOnesOwn(t *testing.T) {
	t.Parallel()
	made := func(more string) (supply, said string) {
		r := make_(t, read(t, `{"brevium":1,"name":"x","units":"in","style":"wallet-box","closures":[{"kind":"magnets"`+more+`}]}`))
		for _, s := range r.Supplies {
			if s.ID == "closure.magnets" {
				supply = s.Text
			}
		}
		for _, c := range r.Checks {
			if c.ID == "closure" && c.Verdict == inspect.Warn {
				said = c.Text
			}
		}
		if back, err := Read(r.Inputs.Write()); err != nil || Difference(r.Inputs, back) != "" {
			t.Errorf("read back: %v %s", err, Difference(r.Inputs, back))
		}
		return supply, said
	}
	for _, x := range []struct{ more, supply, said string }{
		{``, "2 thin magnets, 10 mm across and 1 mm thick", ""},
		{`,"wide":"3/8 in","thick":"1.5 mm"`, "2 thin magnets, 3/8 in across and 1.5 mm thick", ""},
		{`,"wide":"8 mm","thick":"2 mm"`, "2 thin magnets, 8 mm across and 2 mm thick", "are 4 mm thick together"},
	} {
		supply, said := made(x.more)
		if supply != x.supply || (x.said == "") != (said == "") || !strings.Contains(said, x.said) {
			t.Errorf("%s: %q, and it says %q", x.more, supply, said)
		}
	}
	for field, wrong := range map[string]string{"wide": `"wide":"2 mm"`, "thick": `"thick":"9 mm"`} {
		if _, err := Read([]byte(`{"brevium":1,"name":"x","style":"wallet-box","closures":[{"kind":"magnets",` + wrong + `}]}`)); err == nil || !strings.Contains(err.Error(), field) {
			t.Errorf("%s: %v", wrong, err)
		}
	}
}
