package stuff

import (
	"fmt"
	"math"
	"os"
	"strings"
	"testing"

	"brevium/core/paper"
)

var usual = Usual()

// near holds a worked number against what comes out, within its last digit.
func near(t *testing.T, what string, got, want, within float64) {
	t.Helper()
	if math.Abs(got-want) > within {
		t.Errorf("%s: %.4g, and it is %.4g", what, got, want)
	}
}

func TestStiffness(t *testing.T) {
	for gsm, want := range map[float64]float64{120: 0.98, 160: 2.3, 200: 4.6, 240: 7.9, 300: 15.4, 350: 24, 400: 36} {
		near(t, "D", usual.Stiffness(Of(gsm)), want, want*0.03)
	}
	near(t, "grey board of 1.6 mm", usual.Stiffness(Card{GSM: 1000, Thick: 1.6}), 785, 1)
	one := Layer{Card: Of(240)}
	d, et := usual.Layered([]Layer{one})
	twice, etTwice := usual.Layered([]Layer{one, {Card: Of(240), Glued: true}})
	loose, _ := usual.Layered([]Layer{one, one})
	near(t, "two glued", twice/d, 8, 1e-9)
	near(t, "two loose", loose/d, 2, 1e-9)
	near(t, "the stretch of two", etTwice/et, 2, 1e-9)
}

func TestCrack(t *testing.T) {
	for _, c := range []struct {
		fold     Fold
		ok, warn float64
	}{{Fold{Degrees: 90}, 284, 391}, {Fold{Degrees: 90, Along: true}, 384, 528}, {Fold{Degrees: 180}, 247, 340}, {Fold{Degrees: 180, Along: true}, 334, 459}} {
		near(t, "folds well to", usual.FoldsTo(c.fold, usual.CrackFolds), c.ok, 1)
		near(t, "breaks over", usual.FoldsTo(c.fold, usual.CrackWarns), c.warn, 1)
	}
	plain := usual.Crack(Of(240), Fold{Degrees: 90, Along: true})
	near(t, "240 gsm along", plain, 1, 1e-9)
	near(t, "coated", usual.Crack(Card{240, .3, paper.Coated}, Fold{Degrees: 90, Along: true}), 1.25, 1e-9)
	near(t, "white core", usual.Crack(Card{240, .3, paper.WhiteCore}, Fold{Degrees: 90, Along: true}), 1.25, 1e-9)
	near(t, "textured", usual.Crack(Card{240, .3, paper.Textured}, Fold{Degrees: 90, Along: true}), .85, 1e-9)
	near(t, "dry and flat", usual.Crack(Of(240), Fold{Degrees: 150, Along: true, Dry: true}), 1.15*1.15, 1e-9)
}

func TestFirm(t *testing.T) {
	for span, want := range map[float64][2]float64{50: {115, 63}, 76: {153, 84}, 102: {186, 102}, 125: {213, 117}, 152: {242, 133}, 203: {294, 162}, 280: {364, 200}} {
		near(t, "firm from", usual.FirmFrom(span), want[0], 1)
		near(t, "fails under", usual.FlimsyUnder(span), want[1], 1)
	}
}

func TestCurlAndGrain(t *testing.T) {
	bow, radius := usual.Curl(Of(300), Card{GSM: 120, Thick: .168}, usual.CurlCrossed, 152)
	near(t, "R", radius, 296, 1)
	near(t, "bow", bow, 9.8, .05)
	near(t, "crossed grains move", usual.Moves(140, 20), .308, .001)
	for _, c := range []struct {
		gsm, area float64
		want      bool
	}{{120, 100, true}, {121, 5000, false}, {170, 5001, true}, {171, 9000, false}} {
		if usual.Cockles(c.gsm, c.area) != c.want {
			t.Errorf("%v gsm over %v mm²: %v", c.gsm, c.area, !c.want)
		}
	}
}

func TestSag(t *testing.T) {
	card := []Layer{{Card: Of(200)}}
	floor := Floor{Long: 277, Short: 277, Layers: card, Grams: 490}
	near(t, "490 g spread", usual.Sag(floor), 5.9, .05)
	fine, most := usual.SagLimits(277)
	near(t, "fine", fine, 4.3, .05)
	near(t, "most", most, 6.9, .05)
	if usual.Sags(usual.Sag(floor), 277) != Barely {
		t.Error("490 g on 277 × 277 of 200 gsm is a warning")
	}
	one := floor
	one.Foot = 80
	near(t, "one thing of 80 mm", usual.Sag(one), 7.6, .05)
	if usual.Sags(usual.Sag(one), 277) != NotEnough {
		t.Error("one thing of 80 mm fails")
	}
	two := floor
	two.Layers = []Layer{{Card: Of(200)}, {Card: Of(200), Glued: true}}
	near(t, "a second card glued on", usual.Sag(two), 4.6, .05)
	board := floor
	board.Layers = []Layer{{Card: Of(200)}, {Card: Card{GSM: 1000, Thick: 1.6}, Glued: true}}
	near(t, "a board", usual.Sag(board), 1.5, .05)
	if usual.Sags(usual.Sag(board), 277) != Fine {
		t.Error("a board of 1.6 mm carries it")
	}
	narrow := Floor{Long: 200, Short: 100, Layers: []Layer{{Card: Of(240)}}, Grams: 204}
	narrow.LongWay, narrow.ShortWay = usual.Along(), usual.Across()
	along := usual.Sag(narrow)
	narrow.LongWay, narrow.ShortWay = usual.Across(), usual.Along()
	across := usual.Sag(narrow)
	near(t, "one way of the grain", min(along, across), 2.51, .02)
	near(t, "the other way of the grain", max(along, across), 2.57, .02)
}

func TestWhatFloorsCarry(t *testing.T) {
	for _, c := range []struct{ a, b, gsm, ok, fail float64 }{
		{102, 76, 240, 258, 1840}, {152, 152, 240, 132, 616}, {203, 203, 300, 217, 880}, {254, 254, 300, 263, 1090},
	} {
		f := Floor{Long: c.a, Short: c.b, Layers: []Layer{{Card: Of(c.gsm)}}}
		fine, most := usual.SagLimits(c.b)
		near(t, "carries", usual.Carries(f, fine), c.ok, c.ok*.02)
		near(t, "fails over", usual.Carries(f, most), c.fail, c.fail*.02)
		half := f
		half.Foot = c.b / 2
		near(t, "one thing half as wide, to two thirds", usual.Carries(half, fine)/usual.Carries(f, fine), 2./3, .01)
	}
}

func TestJointsFloorsAndHandles(t *testing.T) {
	tape, wet, dot := AdhesiveOf(Tape), AdhesiveOf(WetGlue), AdhesiveOf(Dot)
	near(t, "900 g at corners of 6.35", usual.JointHolds(tape, 10, 6.35, 900), 1.4, .05)
	near(t, "340 g at corners of 38", usual.JointHolds(tape, 10, 38, 340), 23, .5)
	near(t, "1300 g, taped bottom", usual.FloorHolds(tape, 2*88.9, 1300), .7, .05)
	near(t, "1300 g, wet bottom", usual.FloorHolds(wet, 2*88.9, 1300), 2.1, .05)
	pull := usual.HandlePull(400)
	near(t, "400 g pull", pull, 3.9, .05)
	near(t, "two dots", 2*dot.Shear/pull, 1.0, .05)
	near(t, "brads", usual.BradHolds(6, .3)/pull, 9, .2)
	for times, want := range map[float64]Verdict{3: Fine, 2.99: Barely, 1.5: Barely, 1.49: NotEnough} {
		if got := usual.Safe(times); got != want {
			t.Errorf("%v times over: %v", times, got)
		}
	}
	if wet.Days().Shear != .3 || AdhesiveOf("chewing gum").Glue != Tape {
		t.Error("what holds for days, and what is not known")
	}
}

func TestStack(t *testing.T) {
	wall := Wall{Wide: 100, Card: Of(240)}
	near(t, "a wall", usual.WallHolds(wall), 33.5, .2)
	box := usual.BoxHolds([]Wall{wall, wall, wall, wall})
	near(t, "a box", box, 54, .5)
	near(t, "3 high", usual.StackHolds(box, 340, 3), 4.5, .05)
	near(t, "10 high", usual.StackHolds(box, 340, 10), 1.0, .05)
	wall.Rolled = true
	near(t, "10 high, double walls", usual.StackHolds(usual.BoxHolds([]Wall{wall, wall, wall, wall}), 340, 10), 4.0, .05)
	near(t, "a narrow wall", usual.WallHolds(Wall{Wide: 5, Card: Of(240)}), 18, .1)
	if !math.IsInf(usual.StackHolds(54, 340, 1), 1) {
		t.Error("one box carries none")
	}
	upright := Wall{Wide: 100, Card: Of(240), Upright: 1}
	if usual.WallHolds(upright) <= usual.WallHolds(Wall{Wide: 100, Card: Of(240)}) {
		t.Error("a wall whose grain stands up is stronger")
	}
}

func TestAir(t *testing.T) {
	small := Lid{Area: 102 * 76, Deep: 25, Slits: RoundSlits(102, 76, .39, .99), Grams: .24e-3 * (152*126 - 4*12*25)}
	near(t, "102 × 76, 25 deep", usual.Sinks(small), 4, .6)
	deep := Lid{Area: 152 * 152, Deep: 100, Slits: RoundSlits(152, 152, .39, .99), Grams: .3e-3 * (352*352 - 4*100*100)}
	near(t, "152², 100 deep", usual.Sinks(deep), 60, 6)
}

func TestTheTableIsOnesOwn(t *testing.T) {
	own := Usual()
	ids := map[string]bool{}
	for _, c := range own.Constants() {
		if c.ID == "" || c.Means == "" || c.From == "" || c.Value == 0 || ids[c.ID] {
			t.Errorf("a constant without its words: %+v", c)
		}
		ids[c.ID] = true
	}
	if err := own.Set("crack.across", 1.2); err != nil || own.CrackAcross != 1.2 {
		t.Errorf("set to 1.2: %v, %v", own.CrackAcross, err)
	}
	for id, v := range map[string]float64{"crack.nothing": 1, "crack.across": 100, "air.slow": math.NaN()} {
		if own.Set(id, v) == nil {
			t.Errorf("%s = %v is taken", id, v)
		}
	}
}

// The document tells of every constant as it is.
func TestConstantsAreDocumented(t *testing.T) {
	text, err := os.ReadFile("../../docs/card-and-glue.md")
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range Usual().Constants() {
		if row := fmt.Sprintf("| `%s` | %s | %s |", c.ID, number(c.Value), c.Unit); !strings.Contains(string(text), row) {
			t.Errorf("docs/card-and-glue.md has no row %q", row)
		}
	}
}
