package design

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/dress"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/stuff"
	"brevium/core/style"
)

// sided is a tray-lid of so many millimetres a side.
func sided(l, w, h measure.Length) func(in *Inputs) {
	return func(in *Inputs) {
		in.Size["length"], in.Size["width"], in.Size["height"] = l*mm_, w*mm_, h*mm_
	}
}

func gsm(weight float64) paper.Card { return plainCard(weight) }

func mat(weight float64, side measure.Length) dress.Dressing {
	return dress.Dressing{ID: 1, Piece: "lid", Faces: []string{"top"},
		Layers: []dress.Layer{{Card: paper.Card{Name: "Star paper", GSM: weight, Thickness: paper.ThicknessOf(weight, 1.25)}, Width: side * mm_, Height: side * mm_}}}
}

// Hands know these; each check is tried on both sides of where it changes its mind.
var hands = []struct {
	name, style string
	change      func(in *Inputs)
	id          string
	want        inspect.Verdict // "" where it is not spoken of
}{
	{"240 gsm, a box edge", "tray-lid", nil, "card.crack", inspect.OK},
	{"280 gsm across the grain", "tray-lid", func(in *Inputs) { in.Card = gsm(280) }, "card.crack", inspect.OK},
	{"290 gsm across the grain", "tray-lid", func(in *Inputs) { in.Card = gsm(290) }, "card.crack", inspect.Warn},
	{"400 gsm across the grain", "tray-lid", func(in *Inputs) { in.Card = gsm(400) }, "card.crack", inspect.Fail},
	{"300 gsm rolled over", "tray-double", func(in *Inputs) { in.Card = gsm(300) }, "card.crack", inspect.Warn},
	{"350 gsm rolled over", "tray-double", func(in *Inputs) { in.Card = gsm(350) }, "card.crack", inspect.Fail},
	{"240 gsm coated", "tray-lid", func(in *Inputs) { in.Card.Finish = paper.Coated }, "card.crack", inspect.Warn},
	{"320 gsm textured", "tray-lid", func(in *Inputs) { in.Card = gsm(320); in.Card.Finish = paper.Textured }, "card.crack", inspect.OK},
	{"280 gsm in dry air", "tray-lid", func(in *Inputs) { in.Card, in.Load.Humidity = gsm(280), 30 }, "card.crack", inspect.Warn},
	{"a sleeve of 350 gsm, its grain along", "drawer-sleeve", func(in *Inputs) { in.Cards["sleeve"] = gsm(350); in.Grains["sleeve"] = paper.RunLength }, "card.crack", inspect.OK},
	{"a sleeve of 350 gsm, its grain across", "drawer-sleeve", func(in *Inputs) { in.Cards["sleeve"] = gsm(350); in.Grains["sleeve"] = paper.RunWidth }, "card.crack", inspect.Warn},
	{"160 gsm over 76 mm", "tray", func(in *Inputs) { in.Card = gsm(160) }, "card.flimsy", inspect.OK},
	{"120 gsm over 76 mm", "tray", func(in *Inputs) { in.Card = gsm(120) }, "card.flimsy", inspect.Warn},
	{"80 gsm over 76 mm", "tray", func(in *Inputs) { in.Card = gsm(80) }, "card.flimsy", inspect.Fail},
	{"240 gsm over 203 mm", "tray", func(in *Inputs) { sided(203, 203, 30)(in) }, "card.flimsy", inspect.Warn},
	{"crossed grains over 130 mm", "tray-lid", func(in *Inputs) { sided(130, 100, 30)(in); crossed(in) }, "grain", inspect.OK},
	{"crossed grains over 150 mm", "tray-lid", func(in *Inputs) { sided(150, 100, 30)(in); crossed(in) }, "grain", inspect.Warn},
	{"grains that run one way", "tray-lid", func(in *Inputs) {
		sided(150, 100, 30)(in)
		in.Grains["base"], in.Grains["lid"] = paper.RunLength, paper.RunLength
	}, "grain", inspect.OK},
	{"wet paper on a small face", "tray-lid", func(in *Inputs) { in.Choices["adhesive"] = "wet-glue"; in.Mats = []dress.Dressing{mat(140, 40)} }, "curl", inspect.OK},
	{"wet paper on a large face", "tray-lid", func(in *Inputs) {
		sided(150, 150, 30)(in)
		in.Choices["adhesive"] = "wet-glue"
		in.Mats = []dress.Dressing{mat(140, 140)}
	}, "curl", inspect.Warn},
	{"thin paper glued wet", "tray-lid", func(in *Inputs) { in.Choices["adhesive"] = "wet-glue"; in.Mats = []dress.Dressing{mat(120, 40)} }, "cockle", inspect.Warn},
	{"stout paper glued wet", "tray-lid", func(in *Inputs) { in.Choices["adhesive"] = "wet-glue"; in.Mats = []dress.Dressing{mat(160, 60)} }, "cockle", inspect.OK},
	{"thin paper taped", "tray-lid", func(in *Inputs) { in.Mats = []dress.Dressing{mat(120, 40)} }, "cockle", ""},
	{"240 g on 102 × 76", "tray", func(in *Inputs) { sided(102, 76, 38)(in); in.Load.Grams = 240 }, "load.sag", inspect.OK},
	{"300 g on 102 × 76", "tray", func(in *Inputs) { sided(102, 76, 38)(in); in.Load.Grams = 300 }, "load.sag", inspect.Warn},
	{"2 kg on 102 × 76", "tray", func(in *Inputs) { sided(102, 76, 38)(in); in.Load.Grams = 2000 }, "load.sag", inspect.Fail},
	{"490 g on 277 × 277 of 200 gsm", "tray", func(in *Inputs) { wide(in); in.Load.Grams = 490 }, "load.sag", inspect.Warn},
	{"one thing of 490 g there", "tray", func(in *Inputs) {
		wide(in)
		in.Load = Load{Grams: 490, One: true, Foot: [2]measure.Length{80 * mm_, 80 * mm_}}
	}, "load.sag", inspect.Fail},
	{"a board under it", "tray", func(in *Inputs) {
		wide(in)
		in.Load.Grams = 490
		in.Mend(inspect.Mend{Field: "linings"})
	}, "load.sag", inspect.OK},
	{"carried from below", "tray", func(in *Inputs) { wide(in); in.Load = Load{Grams: 2000, Carry: CarryBelow} }, "load.sag", inspect.OK},
	{"900 g at corners of 6.35 mm", "tray", func(in *Inputs) { sided(100, 100, 0)(in); in.Size["height"] = 635 * mm_ / 100; in.Load.Grams = 900 }, "load.joint", inspect.Fail},
	{"340 g at corners of 38 mm", "tray", func(in *Inputs) { sided(100, 100, 38)(in); in.Load.Grams = 340 }, "load.joint", inspect.OK},
	{"1300 g on a taped floor of flaps", "tall-box", tower(1300, "tape"), "load.floor", inspect.Fail},
	{"1300 g on a wet floor of flaps", "tall-box", tower(1300, "wet-glue"), "load.floor", inspect.Warn},
	{"a board on the flaps", "tall-box", func(in *Inputs) { tower(1300, "tape")(in); in.Mend(inspect.Mend{Field: "linings"}) }, "load.floor", inspect.OK},
	{"300 g by a glued handle", "woven-basket", func(in *Inputs) { in.Load = Load{Grams: 300, Carry: CarryHandle} }, "load.handle", inspect.OK},
	{"300 g hung up by a taped handle", "woven-basket", func(in *Inputs) { in.Load = Load{Grams: 300, Carry: CarryHandle} }, "load.hang", inspect.OK},
	{"450 g hung up by a taped handle", "woven-basket", func(in *Inputs) { in.Load = Load{Grams: 450, Carry: CarryHandle} }, "load.hang", inspect.Warn},
	{"600 g by a handle", "woven-basket", func(in *Inputs) { in.Load = Load{Grams: 600, Carry: CarryHandle} }, "load.handle", inspect.Fail},
	{"no handle", "tray", func(in *Inputs) { in.Load = Load{Grams: 100, Carry: CarryHandle} }, "load.handle", inspect.Warn},
	{"3 high", "tray", func(in *Inputs) { in.Load = Load{Grams: 340, Stacked: 3} }, "stack", inspect.OK},
	{"10 high", "tray", func(in *Inputs) { in.Load = Load{Grams: 340, Stacked: 10} }, "stack", inspect.Fail},
	{"10 high, double walls", "tray-double", func(in *Inputs) { in.Load = Load{Grams: 340, Stacked: 10} }, "stack", inspect.OK},
	{"a lid of 25 mm", "tray-lid", nil, "air", inspect.OK},
	{"a lid of 100 mm", "tray-lid", func(in *Inputs) {
		sided(152, 152, 100)(in)
		in.Card, in.Lengths["lid.depth"], in.Lengths["lid.allowance"] = gsm(300), 100*mm_, measure.Inch/16
		in.Sheets = []paper.Sheet{{Name: "board", Width: 500 * mm_, Height: 700 * mm_, Count: paper.Unlimited}}
	}, "air", inspect.Warn},
	{"biscuits", "tray-lid", kind(contents.GreasyFood, 100), "food", inspect.Warn},
	{"yarn", "tray-lid", kind(contents.Yarn, 100), "food", ""},
	{"a candle", "tray-lid", kind(contents.Candle, 100), "candle", inspect.Fail},
	{"a pie", "tray-lid", func(in *Inputs) { kind(contents.Hot, 100)(in); in.Glue[stuff.Ribbons] = stuff.HotGlue }, "heat", inspect.Fail},
	{"glass of 300 g", "tray-lid", kind(contents.Glass, 300), "load.glass", inspect.Warn},
	{"glass of 200 g", "tray-lid", kind(contents.Glass, 200), "load.glass", ""},
	{"magnets for a baby", "hinged-carton", func(in *Inputs) { magnets(in); in.For = ChildUnder3 }, "child", inspect.Fail},
	{"magnets for a child of five", "hinged-carton", func(in *Inputs) { magnets(in); in.For = ChildFrom3 }, "child", inspect.Warn},
	{"magnets for anyone", "hinged-carton", magnets, "child", ""},
	{"magnets", "hinged-carton", magnets, "magnet", inspect.Warn},
	{"a new hand, 2/32", "tray-lid", hand32(2, stuff.New), "fit.scatter", inspect.Warn},
	{"a practised hand, 2/32", "tray-lid", hand32(2, stuff.Practised), "fit.scatter", inspect.OK},
	{"a new hand, 3/32", "tray-lid", hand32(3, stuff.New), "fit.scatter", inspect.OK},
	{"a careful hand, 4/32", "tray-lid", hand32(4, stuff.Careful), "fit.scatter", inspect.Warn},
	{"no hand is told", "tray-lid", hand32(4, ""), "fit.scatter", ""},
	{"a floor of flaps with dots", "tall-box", func(in *Inputs) { in.Glue[stuff.Floors] = stuff.Dot }, "glue.kind", inspect.Warn},
	{"a floor of flaps with wet glue", "tall-box", func(in *Inputs) { in.Glue[stuff.Floors] = stuff.WetGlue }, "glue.kind", inspect.OK},
}

func crossed(in *Inputs) { in.Grains["base"], in.Grains["lid"] = paper.RunLength, paper.RunWidth }

func wide(in *Inputs) {
	sided(277, 277, 40)(in)
	in.Card = gsm(200)
	in.Sheets = []paper.Sheet{{Name: "board", Width: 500 * mm_, Height: 700 * mm_, Count: paper.Unlimited}}
}

func tower(grams float64, adhesive string) func(in *Inputs) {
	return func(in *Inputs) {
		in.Size["width"], in.Size["depth"], in.Size["height"] = 889*mm_/10, 889*mm_/10, 150*mm_
		in.Load.Grams, in.Choices["adhesive"] = grams, adhesive
		in.Sheets = []paper.Sheet{{Name: "board", Width: 500 * mm_, Height: 700 * mm_, Count: paper.Unlimited}}
	}
}

func kind(k contents.Kind, grams float64) func(in *Inputs) {
	return func(in *Inputs) {
		in.Things = []contents.Thing{{ID: 1, Name: "Thing", Shape: contents.Block, Length: 60 * mm_, Width: 60 * mm_, Height: 30 * mm_, Count: 1, Ease: 2 * mm_, Grams: grams, Kind: k}}
	}
}

func magnets(in *Inputs) { in.Closures = []Closure{{ID: 1, Kind: Magnets, Pairs: 1}} }

func hand32(n measure.Length, hand stuff.Steadiness) func(in *Inputs) {
	return func(in *Inputs) {
		in.SetUnits(measure.In)
		in.Tools.Tick = measure.In.Tick()
		in.Lengths["lid.allowance"], in.Hand, in.Card.Measured = n*measure.Inch/32, hand, 10
	}
}

func TestWhatHandsKnow(t *testing.T) {
	t.Parallel()
	for _, h := range hands {
		in := New("x", measure.MM, h.style)
		if h.change != nil {
			h.change(&in)
		}
		r, err := Make(t.Context(), in)
		if err != nil {
			t.Errorf("%s: %v", h.name, err)
			continue
		}
		if got := worstOf(r, h.id); got != h.want {
			t.Errorf("%s: %s is %q, and a hand says %q\n%s", h.name, h.id, got, h.want, saidOf(r, h.id))
		}
	}
}

// worstOf is the gravest verdict of a check, "" where it is not there.
func worstOf(r *Result, id string) inspect.Verdict {
	all := slices.DeleteFunc(slices.Clone(r.Checks), func(f inspect.Finding) bool { return f.ID != id })
	if len(all) == 0 {
		return ""
	}
	return inspect.Worst(all)
}

func saidOf(r *Result, id string) string {
	var out []string
	for _, c := range r.Checks {
		if c.ID == id {
			out = append(out, fmt.Sprint(c.Verdict, " ", c.Text, " ", c.Account))
		}
	}
	return strings.Join(out, "\n")
}

// What a check offers mends it, or makes it no worse.
func TestWhatIsOfferedMends(t *testing.T) {
	t.Parallel()
	for _, h := range hands {
		if h.want != inspect.Warn && h.want != inspect.Fail {
			continue
		}
		in := New("x", measure.MM, h.style)
		if h.change != nil {
			h.change(&in)
		}
		r, err := Make(t.Context(), in)
		if err != nil {
			continue
		}
		for _, c := range r.Checks {
			if c.ID != h.id || c.Mend == nil || c.Verdict == inspect.OK {
				continue
			}
			with := in.Clone()
			with.Mend(*c.Mend)
			again, err := Make(t.Context(), with)
			if err != nil {
				t.Errorf("%s: %s: %v", h.name, c.Mend.Words, err)
				continue
			}
			for _, d := range again.Checks {
				if d.ID == c.ID && d.Piece == c.Piece && d.Verdict == c.Verdict && d.Text == c.Text {
					t.Errorf("%s: %q changes nothing: %s", h.name, c.Mend.Words, d.Text)
				}
			}
		}
	}
}

// The usual box of each style is without a warning of its card, but where two halves are scored alike.
func TestUsualBoxesAreSound(t *testing.T) {
	t.Parallel()
	for _, u := range []measure.Unit{measure.In, measure.MM} {
		for _, s := range style.All {
			r, err := Make(t.Context(), New("x", u, s.ID))
			if err != nil {
				t.Error(err)
				continue
			}
			for _, c := range r.Checks {
				if c.Verdict != inspect.OK && !strings.Contains(c.Text, "taper the tabs well") {
					t.Errorf("%s in %s: %s %s: %s", s.ID, u, c.ID, c.Verdict, c.Text)
				}
			}
			ids := map[string]bool{}
			for _, c := range r.Checks {
				if key := c.ID + c.Piece + c.Text; ids[key] {
					t.Errorf("%s says twice: %s", s.ID, c.Text)
				} else {
					ids[key] = true
				}
			}
		}
	}
}
