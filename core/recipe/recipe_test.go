package recipe

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/dress"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/style"
)

const mm = measure.Millimetre

// lopsided is a piece whose scores differ from either side.
func lopsided(t *testing.T) style.Part {
	t.Helper()
	g := pattern.NewGrid([]measure.Length{10 * mm, 50 * mm, 20 * mm}, []measure.Length{15 * mm, 40 * mm, 25 * mm}, `
		.     back   .
		left  base   right
		.     front  .`)
	p, err := g.Pattern()
	if err != nil {
		t.Fatal(err)
	}
	return style.Part{ID: "tray", Name: "Tray", Pattern: p, Root: "base", Own: []hand.Own{{Kind: hand.OwnGluing, Text: "Glue it."}}}
}

func TestScoresAreReadFromTheFence(t *testing.T) {
	part := lopsided(t)
	shimmed := part
	shimmed.Shim = mm
	for _, c := range []struct {
		name  string
		part  style.Part
		fence Fence
		want  []Pass
	}{
		{"left", part, Left, []Pass{{Edge: "left", At: []measure.Length{10 * mm, 60 * mm}}, {Edge: "top", At: []measure.Length{15 * mm, 55 * mm}}}},
		{"right", part, Right, []Pass{{Edge: "right", At: []measure.Length{20 * mm, 70 * mm}}, {Edge: "top", At: []measure.Length{15 * mm, 55 * mm}}}},
		{"shim", shimmed, Left, []Pass{{"left", []measure.Length{11 * mm}, mm}, {"top", []measure.Length{16 * mm}, mm}, {"right", []measure.Length{21 * mm}, mm}, {"bottom", []measure.Length{26 * mm}, mm}}},
	} {
		got := Scores(c.part, c.fence, measure.Tick(mm))
		same := slices.EqualFunc(
			got.Passes,
			c.want,
			func(a, b Pass) bool { return a.Edge == b.Edge && a.Shim == b.Shim && slices.Equal(a.At, b.At) },
		)
		if !same {
			t.Errorf("%s: got %v; want %v", c.name, got.Passes, c.want)
		}
	}
}

func TestNumbers(t *testing.T) {
	in := measure.Inch
	for _, c := range []struct {
		at   []measure.Length
		want string
	}{{[]measure.Length{3 * in / 2, 11 * in / 2}, "1 1/2 and 5 1/2 in"}, {[]measure.Length{in, 2 * in, 3 * in}, "1, 2 and 3 in"}, {nil, "none"}, {[]measure.Length{in + 300*measure.Micrometre}, "1 in + 0.3 mm"}} {
		if got := Numbers(c.at, measure.In, measure.Tick(in/16)); got != c.want {
			t.Errorf("got %q; want %q", got, c.want)
		}
	}
}

func work(t *testing.T) Work {
	card := paper.Card{Name: "Moss card", Thickness: 300 * measure.Micrometre}
	strip := []pattern.Point{{X: 0, Y: 0}, {X: 46, Y: 0}, {X: 46, Y: 11}, {X: 0, Y: 11}}
	tray := lopsided(t)
	tray.Making = func() []hand.Move { return style.General(lopsided(t), "tape") }
	return Work{
		Units:  measure.CM,
		Tick:   measure.Tick(mm),
		Fence:  Left,
		Copies: 3,
		Parts:  []style.Part{tray},
		Cards:  map[string]paper.Card{"tray": card},
		Mats: []dress.Mat{
			{
				ID:     "tray.back.1",
				Piece:  "tray",
				Face:   "back",
				Words:  "back wall",
				Layer:  1,
				Width:  46 * mm,
				Height: 11 * mm,
				Card:   card,
				Shape:  strip,
			},
			{
				ID:     "tray.front.1",
				Piece:  "tray",
				Face:   "front",
				Words:  "front wall",
				Layer:  1,
				Width:  46 * mm,
				Height: 11 * mm,
				Card:   card,
				Shape:  strip,
			},
		},
		Together: []hand.Move{hand.Join{Said: hand.Say("lids-on")}, hand.Fill{Into: "tray"}},
		Closing:  []hand.Put{{Key: "1", Thing: "band", When: hand.Closed, Phrase: []hand.Said{hand.Say("band-labelled")}}},
		Contents: "3 × figs",
		Adhesive: "tape",
	}
}

func TestStepsInWorkingOrder(t *testing.T) {
	w := work(t)
	steps := w.Steps()
	// A piece as it is made: flat, folded, its papers, glued; then the box.
	order := []string{"cut/tray", "score/tray/left", "score/tray/top", "remove/tray/template", "score/tray/template-draw", "remove/tray/template-all", "fold/tray", "cut/tray.back.1", "decorate/tray.back.1", "glue/tray/own", "assemble/lids-on", "fill/contents", "close/1"}
	at, keys := 0, map[string]bool{}
	for i, s := range steps {
		k := slices.Index(order, s.Key)
		if k < at || s.N != i+1 || s.Text == "" || s.Mark == "" || keys[s.Key] {
			t.Errorf("step %d (%s, %q: %q) is out of order, empty or double", s.N, s.Kind, s.Key, s.Text)
		}
		at, keys[s.Key] = k, true
	}
	papers := slices.IndexFunc(steps, func(s Step) bool { return s.Key == "cut/tray.back.1" })
	if got := steps[papers].Text; !strings.HasPrefix(got, "Cut six papers, 4.6 × 1.1 cm") {
		t.Errorf("equal mats are cut as %q", got)
	}
	// Of many boxes all of one kind of work comes before the next, but for what needs another
	// kind first.
	kinds := []Kind{Cut, Score, Remove, Fold, Decorate, Glue, Assemble, Fill, Close}
	done, latest := map[string]bool{}, 0
	for _, s := range ByKind(steps) {
		needs := false
		for _, key := range s.Needs {
			if !done[key] {
				t.Errorf("%s comes before %s, which it needs", s.Key, key)
			}
			i := slices.IndexFunc(steps, func(x Step) bool { return x.Key == key })
			needs = needs || slices.Index(kinds, steps[i].Kind) == latest
		}
		done[s.Key] = true
		switch k := slices.Index(kinds, s.Kind); {
		case k >= latest:
			latest = k
		case !needs:
			t.Errorf("%s comes after %s, and needs nothing of it", s.Key, kinds[latest])
		}
	}
	one, all := Minutes(steps, w.Copies)
	if one <= 0 || all <= one || all >= 3*one {
		t.Errorf("%v minutes for one, %v for three", one, all)
	}
}

// A tick holds when only the unit changes and lapses when a number does.
func TestMarksFollowTheNumbers(t *testing.T) {
	w := work(t)
	before := w.Steps()
	w.Units, w.Tick = measure.In, measure.Tick(measure.Inch/16)
	for i, s := range w.Steps() {
		if s.Mark != before[i].Mark || s.Key != before[i].Key {
			t.Errorf("step %d lost its tick to a change of unit", s.N)
		}
	}
	w.Mats[0].Width += mm
	papers := func(s Step) bool { return s.Key == "cut/tray.back.1" }
	changed := w.Steps()
	if changed[slices.IndexFunc(changed, papers)].Mark == before[slices.IndexFunc(before, papers)].Mark {
		t.Error("a mat of another size kept its tick")
	}
}

func TestAdhesive(t *testing.T) {
	w := work(t)
	w.Parts[0].Pattern.Glue = []pattern.Glue{
		{Face: "back", Area: []pattern.Point{{X: 0, Y: 0}, {X: 50, Y: 0}, {X: 50, Y: 15}, {X: 0, Y: 15}}},
	}
	if got := w.AdhesiveSupplies()[0]; got.ID != "tape" || got.Amount != 3*(50+4*(46+11)) {
		t.Errorf("tape: %+v", got)
	}
	w.Adhesive = "wet-glue"
	if got := w.AdhesiveSupplies()[0]; got.ID != "glue" || got.Amount != 3*(50*15+2*46*11)/100.0 {
		t.Errorf("glue: %+v", got)
	}
	if len(Cautions(true, false)) <= len(Cautions(false, false)) || len(Cautions(false, true)) <= len(Cautions(false, false)) {
		t.Error("what goes in adds no caution")
	}
}

// Papers that are stuck otherwise than the tabs take an adhesive of their own, and it is said once.
func TestPapersStuckByThemselves(t *testing.T) {
	w := work(t)
	w.Adhesive = "wet-glue"
	for with, want := range map[string]string{"tape": "tape", "wet-glue": "", "glue-stick": "paper.stick", "dot": "paper.dots", "foam-pad": "paper.pads", "hot-glue": "paper.hot"} {
		w.Papers = &Sticking{With: with, Words: "this", Hold: "press"}
		var ids []string
		for _, s := range w.AdhesiveSupplies() {
			ids = append(ids, s.ID)
		}
		if got := strings.Join(ids, " "); got != strings.TrimSpace("glue "+want) {
			t.Errorf("%s: %s", with, got)
		}
	}
	said := 0
	for _, s := range w.Steps() {
		said += strings.Count(s.Text, "Use this: press.")
	}
	if said != 1 {
		t.Errorf("what the papers are stuck with is said %d times", said)
	}
}

// Narrow patches take tape of 6 mm, wide ones and the edges of papers 12 mm; what
// each takes is told where there are both.
func TestTapeWidths(t *testing.T) {
	for _, c := range []struct {
		narrow, wide float64
		want         string
	}{{0, 1000, ", 12 mm wide"}, {500, 0, ", 6 mm wide"}, {1510, 2390, ": 1.6 m 6 mm wide, 2.4 m 12 mm wide"}} {
		if got := tapeWidths(c.narrow, c.wide); got != c.want {
			t.Errorf("%v and %v mm: %q", c.narrow, c.wide, got)
		}
	}
	strip := func(wide float64) pattern.Glue {
		return pattern.Glue{Area: []pattern.Point{{X: 0, Y: 0}, {X: 100, Y: 0}, {X: 100, Y: wide}, {X: 0, Y: wide}}}
	}
	w := Work{Copies: 2, Parts: []style.Part{{Pattern: &pattern.Pattern{Glue: []pattern.Glue{strip(8), strip(20), strip(30)}}}}}
	// 100 of 6 mm; 100 and twice 100 of 12; for two boxes.
	if s := w.AdhesiveSupplies()[0]; s.Amount != 800 || !strings.HasSuffix(s.Text, "about 0.8 m: 0.2 m 6 mm wide, 0.6 m 12 mm wide") {
		t.Errorf("%v: %s", s.Amount, s.Text)
	}
}
