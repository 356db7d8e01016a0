package contents

import (
	"math"
	"math/rand"
	"strings"
	"testing"

	"brevium/core/measure"
)

const mm = measure.Millimetre

func jars(n int) Thing {
	return Thing{Name: "jar", Shape: Round, Length: 48 * mm, Width: 48 * mm, Height: 62 * mm, Count: n, Ease: 2 * mm, Grams: 100}
}

func find(t *testing.T, all []Arrangement, id string) Arrangement {
	t.Helper()
	for _, a := range all {
		if a.ID == id {
			return a
		}
	}
	t.Fatalf("no arrangement %s", id)
	return Arrangement{}
}

func TestFourJars(t *testing.T) {
	all := Arrangements([]Thing{jars(4)})
	a := find(t, all, "2x2x1")
	if a.Length != 98*mm || a.Width != 98*mm || a.Height != 64*mm || len(a.Spots) != 4 {
		t.Errorf("two by two take %v × %v × %v", a.Length.MM(), a.Width.MM(), a.Height.MM())
	}
	if a := find(t, all, "4x1x1"); a.Length != 194*mm || a.Width != 50*mm {
		t.Errorf("four in a row take %v × %v", a.Length.MM(), a.Width.MM())
	}
	find(t, all, "1x4x1")
	find(t, all, "2x1x2")
}

func TestAMixtureStandsSideBySide(t *testing.T) {
	deck := Thing{Name: "deck", Shape: Stack, Length: 63 * mm, Width: 88 * mm, Height: 18 * mm, Count: 1, Ease: 3 * mm}
	a := find(t, Arrangements([]Thing{jars(4), deck}), "2x2x1+1x1x1")
	if a.Length != (96+63+3)*mm || a.Width != (96+3)*mm || a.Height != (62+3)*mm {
		t.Errorf("jars and a deck take %v × %v × %v", a.Length.MM(), a.Width.MM(), a.Height.MM())
	}
	if got := Grams([]Thing{jars(4), deck}); got != 400 {
		t.Errorf("they weigh %v g", got)
	}
}

func TestStacksGetATenthMore(t *testing.T) {
	deck := Thing{Shape: Stack, Length: 60 * mm, Width: 90 * mm, Height: 20 * mm, Count: 1, Ease: 2 * mm}
	if a := Arrangements([]Thing{deck})[0]; a.Height != 24*mm {
		t.Errorf("a stack of 20 mm takes %v mm; want 22 and 2 of ease", a.Height.MM())
	}
}

// Whatever goes in, nothing sticks out, nothing overlaps, and all of it is
// there.
func TestNothingSticksOut(t *testing.T) {
	rng := rand.New(rand.NewSource(3))
	for range 300 {
		var things []Thing
		want := 0
		for range 1 + rng.Intn(3) {
			thing := Thing{Shape: Block, Length: measure.Length(1+rng.Intn(90)) * mm, Width: measure.Length(1+rng.Intn(90)) * mm,
				Height: measure.Length(1+rng.Intn(90)) * mm, Count: 1 + rng.Intn(9), Ease: measure.Length(rng.Intn(4)) * mm,
				Up: Sides[:1+rng.Intn(3)], Fragile: rng.Intn(4) == 0, PullOut: rng.Intn(4) == 0}
			if rng.Intn(3) == 0 {
				thing.Shape, thing.Width = Round, thing.Length
			}
			want += thing.Count
			things = append(things, thing)
		}
		all := Arrangements(things)
		for _, per := range []Per{PerKind, PerThing} {
			all = append(all, Divided(things, Parting{Per: per, Between: mm, Edge: mm / 2})...)
		}
		for _, a := range all {
			if len(a.Spots) != want {
				t.Fatalf("%s of %v holds %d things", a.ID, things, len(a.Spots))
			}
			for i, s := range a.Spots {
				if s.X < 0 || s.Y < 0 || s.Z < 0 || s.X+s.Length > a.Length || s.Y+s.Width > a.Width || s.Z+s.Height > a.Height {
					t.Fatalf("%s of %v: thing %d sticks out", a.ID, things, i)
				}
				for _, o := range a.Spots[:i] {
					if s.meets(o, things) {
						t.Fatalf("%s of %v: things overlap", a.ID, things)
					}
				}
			}
		}
	}
}

// meets reports whether two things overlap: standing round ones as circles,
// all else as boxes.
func (s Spot) meets(o Spot, things []Thing) bool {
	if s.X >= o.X+o.Length || o.X >= s.X+s.Length || s.Y >= o.Y+o.Width || o.Y >= s.Y+s.Width || s.Z >= o.Z+o.Height ||
		o.Z >= s.Z+s.Height {
		return false
	}
	if s.Thing != o.Thing || things[s.Thing].Shape != Round || s.Lying {
		return true
	}
	dx, dy := (s.X - o.X).MM(), (s.Y - o.Y).MM()
	return dx*dx+dy*dy < s.Length.MM()*s.Length.MM()*(1-1e-12)
}

// The account adds up to the room, whatever goes in.
func TestTheAccountAddsUp(t *testing.T) {
	vase := jars(1)
	vase.Fragile, vase.PullOut = true, true
	a := Arrangements([]Thing{vase, jars(2)})[0]
	sum := Line{}
	for _, l := range a.Account {
		sum.Length, sum.Width, sum.Height = sum.Length+l.Length, sum.Width+l.Width, sum.Height+l.Height
	}
	if sum.Length != a.Length || sum.Width != a.Width || sum.Height != a.Height {
		t.Errorf("%v add up to %v of %v", a.Account, sum, a)
	}
	if want := (62+2)*mm + Padding; a.Height != want {
		t.Errorf("the height is %v mm; want %v", a.Height.MM(), want.MM())
	}
	alone := Arrangements([]Thing{vase})[0]
	if want := (48+2)*mm + Padding + FingerGap; alone.Length != want {
		t.Errorf("with room for a finger it is %v mm long; want %v", alone.Length.MM(), want.MM())
	}
}

func TestStaggeredRowsCloseUp(t *testing.T) {
	a := find(t, Arrangements([]Thing{jars(5)}), "3z2x1")
	// Three and two between them: 3 × 48 long, 48 + √3/2 × 48 deep.
	if a.Length != 146*mm || a.Width < 91560*measure.Micrometre || a.Width > 91580*measure.Micrometre {
		t.Errorf("three and two staggered take %v × %v mm", a.Length.MM(), a.Width.MM())
	}
}

// However few things in however many ways: no arrangement made by splitting
// the kinds in every way, with nothing left out, has a smaller surface.
func TestNothingSmallerIsMissed(t *testing.T) {
	rng := rand.New(rand.NewSource(5))
	for range 40 {
		var things []Thing
		for range 1 + rng.Intn(3) {
			things = append(
				things,
				Thing{Shape: Block, Length: measure.Length(10+rng.Intn(50)) * mm, Width: measure.Length(10+rng.Intn(50)) * mm,
					Height: measure.Length(10+rng.Intn(50)) * mm, Count: 1 + rng.Intn(3), Up: Sides[:1+rng.Intn(3)]},
			)
		}
		least := -1.0
		for _, b := range everyBlock(things, 1<<len(things)-1) {
			if s := b.surface(); least < 0 || s < least {
				least = s
			}
		}
		a := Arrangements(things)[0]
		if got := (&block{l: a.Length, w: a.Width, h: a.Height}).surface(); got > least+1e-6 {
			t.Fatalf("%+v: %s has a surface of %v mm²; %v can be had", things, a.ID, got, least)
		}
	}
}

// everyBlock splits a set of kinds in every way and keeps everything.
func everyBlock(things []Thing, set int) []*block {
	var out []*block
	for i, t := range things {
		if set != 1<<i {
			continue
		}
		for _, g := range t.ways() {
			for across := 1; across <= t.Count; across++ {
				for deep := 1; across*deep <= 2*t.Count; deep++ {
					for layers := 1; layers <= t.Count; layers++ {
						if across*deep*layers >= t.Count {
							g.thing, g.count, g.across, g.deep, g.layers, g.pack = i, t.Count, across, deep, layers, straight
							copied := g
							out = append(out, copied.block())
						}
					}
				}
			}
		}
	}
	for part := (set - 1) & set; part > 0; part = (part - 1) & set {
		for _, a := range everyBlock(things, part) {
			for _, b := range everyBlock(things, set^part) {
				out = append(out, &block{l: a.l + b.l, w: max(a.w, b.w), h: max(a.h, b.h)})
			}
		}
		if len(out) > 100_000 {
			break
		}
	}
	return out
}

func TestCapacity(t *testing.T) {
	for name, c := range map[string]struct {
		room  Room
		thing Thing
		count int
		stops Axis
		lacks measure.Length
	}{
		"four jars and no more": {Room{98 * mm, 98 * mm, 64 * mm}, jars(1), 4, AlongLength, 48 * mm},
		"rows the other way":    {Room{145 * mm, 98 * mm, 64 * mm}, jars(1), 5, AlongLength, 2*rowPitch(48*mm) - 47*mm},
		"not one":               {Room{98 * mm, 40 * mm, 64 * mm}, jars(1), 0, AlongWidth, 10 * mm},
		"two layers":            {Room{50 * mm, 50 * mm, 126 * mm}, jars(1), 2, AlongLength, 48 * mm},
		"staggered":             {Room{146 * mm, 92 * mm, 64 * mm}, jars(1), 5, AlongWidth, 2*rowPitch(48*mm) - 42*mm},
	} {
		h := Capacity(c.room, c.thing)
		if h.Count != c.count || h.Stops != c.stops || h.Lacks != c.lacks {
			t.Errorf(
				"%s: %d, the %s stops it by %v mm; want %d, %s, %v",
				name,
				h.Count,
				h.Stops,
				h.Lacks.MM(),
				c.count,
				c.stops,
				c.lacks.MM(),
			)
		}
	}
}

// Flat cards and cards with raised decoration: a tenth more than their
// thickness each.
func TestCapacityInCards(t *testing.T) {
	cards := Thing{Shape: Stack, Length: 100 * mm, Width: 140 * mm, Count: 1, Cards: 1, Each: mm}
	room := Room{102 * mm, 142 * mm, 24 * mm}
	cards.Ease = 2 * mm
	if h := Capacity(room, cards); h.Cards != 20 || h.Stops != AlongHeight {
		t.Errorf("%d flat cards, stopped by the %s; want 20", h.Cards, h.Stops)
	}
	cards.Raised = mm
	if h := Capacity(room, cards); h.Cards != 10 {
		t.Errorf("%d raised cards; want 10", h.Cards)
	}
}

// What Capacity says can be seen: that many things stand in the room, none in
// another, whatever their directions.
func TestCapacityStands(t *testing.T) {
	rng := rand.New(rand.NewSource(4))
	for range 200 {
		thing := jars(1)
		thing.Shape, thing.Fragile = []Shape{Round, Block}[rng.Intn(2)], rng.Intn(3) == 0
		thing.Length = measure.Length(10+rng.Intn(40)) * mm
		thing.Width, thing.Height = thing.Length, measure.Length(20+rng.Intn(30))*mm
		if thing.Shape == Block {
			thing.Width = measure.Length(10+rng.Intn(40)) * mm
			thing.Up = []Side{HeightUp, WidthUp, LengthUp}[:1+rng.Intn(3)]
		}
		room := Room{measure.Length(60+rng.Intn(100)) * mm, measure.Length(60+rng.Intn(100)) * mm, measure.Length(20+rng.Intn(80)) * mm}
		h := Capacity(room, thing)
		if len(h.Spots) != h.Count {
			t.Fatalf("%d are said to go in and %d stand", h.Count, len(h.Spots))
		}
		for i, s := range h.Spots {
			if s.X < 0 || s.Y < 0 || s.Z < 0 || s.X+s.Length > room.Length || s.Y+s.Width > room.Width || s.Z+s.Height > room.Height {
				t.Fatalf("%+v stands outside %v", s, room)
			}
			for _, o := range h.Spots[:i] {
				apart := s.X >= o.X+o.Length || o.X >= s.X+s.Length || s.Y >= o.Y+o.Width || o.Y >= s.Y+s.Width || s.Z >= o.Z+o.Height || o.Z >= s.Z+s.Height
				if !apart && thing.Shape == Round && !s.Lying && !o.Lying {
					dx, dy := (s.X + s.Length/2 - o.X - o.Length/2).MM(), (s.Y + s.Width/2 - o.Y - o.Width/2).MM()
					apart = math.Hypot(dx, dy) >= s.Length.MM()-1e-3
				}
				if !apart {
					t.Fatalf("%+v stands in %+v", s, o)
				}
			}
		}
	}
}

// Staggered rows run whichever way takes more, and blocks stand in two
// directions where that takes more.
func TestCapacityMixesDirections(t *testing.T) {
	rounds := Thing{Shape: Round, Length: 35600 * measure.Micrometre, Width: 35600 * measure.Micrometre, Height: 20 * mm, Count: 1}
	for _, room := range []Room{{68800 * measure.Micrometre, 160 * mm, 30 * mm}, {160 * mm, 68800 * measure.Micrometre, 30 * mm}} {
		if h := Capacity(room, rounds); h.Count != 7 {
			t.Errorf("%d rounds of 35.6 mm go into %v; want 7", h.Count, room)
		}
	}
	// Three of 30 × 20 the one way beside each other and two the other way fill
	// 50 × 60, of which straight rows take four.
	blocks := Thing{Shape: Block, Length: 30 * mm, Width: 20 * mm, Height: 20 * mm, Count: 1, Up: []Side{HeightUp}}
	if h := Capacity(Room{50 * mm, 60 * mm, 20 * mm}, blocks); h.Count != 5 {
		t.Errorf("%d blocks of 30 × 20 go into 50 × 60; want 5, all of it", h.Count)
	}
}

func BenchmarkArrangements(b *testing.B) {
	var things []Thing
	for i := range measure.Length(10) {
		things = append(
			things,
			Thing{
				Shape:  []Shape{Round, Block}[i%2],
				Length: (20 + 3*i) * mm,
				Width:  (20 + 3*i) * mm,
				Height: (30 + 2*i) * mm,
				Count:  6,
				Ease:   2 * mm,
			},
		)
	}
	b.Run("ten kinds", func(b *testing.B) {
		for b.Loop() {
			Arrangements(things)
		}
	})
	b.Run("sixty cells", func(b *testing.B) {
		for b.Loop() {
			Divided(things, Parting{Per: PerThing, Between: mm})
		}
	})
}

func TestCheckRefuses(t *testing.T) {
	for name, c := range map[string]struct {
		change func(*Thing)
		field  string
	}{
		"shape":   {func(x *Thing) { x.Shape = "blob" }, "shape"},
		"none":    {func(x *Thing) { x.Count = 0 }, "count"},
		"many":    {func(x *Thing) { x.Count = 1e9 }, "count"},
		"flat":    {func(x *Thing) { x.Height = 0 }, "height"},
		"thin":    {func(x *Thing) { x.Length = 0 }, "length"},
		"narrow":  {func(x *Thing) { x.Width = 0 }, "width"},
		"roomy":   {func(x *Thing) { x.Ease = 90 * mm }, "ease"},
		"heavy":   {func(x *Thing) { x.Grams = -1 }, "grams"},
		"pressed": {func(x *Thing) { x.Squeeze = -1 }, "squeeze"},
		"no way":  {func(x *Thing) { x.Up = []Side{} }, "up"},
		"odd way": {func(x *Thing) { x.Up = []Side{"corner"} }, "up"},
		"cards":   {func(x *Thing) { x.Cards = 4 }, "each"},
	} {
		thing := jars(4)
		c.change(&thing)
		if err := thing.Check(); err == nil || !strings.HasPrefix(err.Error(), c.field+":") {
			t.Errorf("%s: got %v", name, err)
		}
	}
	if err := jars(4).Check(); err != nil {
		t.Error(err)
	}
}
