package cupboard

import (
	"math"
	"reflect"
	"strings"
	"testing"

	"brevium/core/recipe"
)

// What several boxes take is added up by kind and name; sheets are the drawer's.
func TestNeeds(t *testing.T) {
	got := Needs([]recipe.Supply{
		{ID: "sheet.Moss card.A4", Amount: 4}, {ID: "ribbon.1", Name: "Satin ribbon", Amount: 900}, {ID: "tape", Amount: 1500}, {ID: "closure.magnets", Amount: 2},
		{ID: "magnets", Amount: 4}, {ID: "ribbon.2", Name: "satin Ribbon", Amount: 100}, {ID: "ribbon.1", Name: "Kitchen string", Amount: 700}, {ID: "tags.string", Amount: 250},
		{ID: "holding.dots", Amount: 4}, {ID: "wrap", Amount: 300}, {ID: "glue", Amount: 0},
	})
	want := []Need{{Tape, "", 1500}, {Dots, "", 4}, {Magnets, "", 6}, {Ribbon, "Satin ribbon", 1000}, {Twine, "Kitchen string", 700}, {Twine, "", 250}}
	if !reflect.DeepEqual(got, want) {
		t.Errorf("needs are %+v", got)
	}
}

func TestTimesAndSum(t *testing.T) {
	one := []Need{{Tape, "", 100}, {Brads, "", 2}}
	got := Sum(Times(one, 3), []Need{{Ribbon, "Gold", 5}, {Tape, "", 50}})
	if want := []Need{{Tape, "", 350}, {Brads, "", 6}, {Ribbon, "Gold", 5}}; !reflect.DeepEqual(got, want) || one[0].Amount != 100 {
		t.Errorf("%+v", got)
	}
}

// By hand: 1500 mm of tape and a tenth is 1650; 800 are there, 200 of them set
// aside, so 1050 are to be bought; at 0.40 a metre all of it is worth 0.66. Seven
// magnets and a fifth are nine.
func TestAgainst(t *testing.T) {
	lines := Against([]Need{{Tape, "", 1500}, {Magnets, "", 7}, {Ribbon, "Gold ribbon", 1000}, {Pads, "", 3}}, []Good{
		{Kind: Tape, Amount: 800, Reserved: 200, Spare: 10, Price: 0.4}, {Kind: Magnets, Amount: 20, Spare: 20, Price: 0.1},
		{Kind: Ribbon, Amount: 5000, Spare: 0, Price: 1},
	})
	for i, want := range []Line{
		{With: 1650, Have: 600, Buy: 1050, Cost: 0.66}, {With: 9, Have: 20, Buy: 0, Cost: 0.9},
		{With: 1000, Have: 5000, Buy: 0, Cost: 1}, // no gold one: from the nameless roll
		{With: 3, Have: 0, Buy: 3, Cost: 0},
	} {
		l := lines[i]
		for k, pair := range [][2]float64{{l.With, want.With}, {l.Have, want.Have}, {l.Buy, want.Buy}, {l.Cost, want.Cost}} {
			if math.Abs(pair[0]-pair[1]) > 1e-9 {
				t.Errorf("%s: number %d is %v; want %v", l.Kind, k, pair[0], pair[1])
			}
		}
	}
}

// What is set aside and used up adds up; there is never less than nothing.
func TestTakeAndReserve(t *testing.T) {
	goods := []Good{{Kind: Tape, Amount: 1000}, {Kind: Brads, Amount: 3}}
	needs := []Need{{Tape, "", 400}, {Brads, "", 5}, {Pads, "", 2}}
	held := Reserve(goods, needs)
	if held[0].Reserved != 400 || held[1].Reserved != 5 || goods[0].Reserved != 0 {
		t.Errorf("held: %+v of %+v", held, goods)
	}
	left := Take(goods, needs)
	if left[0].Amount != 600 || left[1].Amount != 0 || goods[0].Amount != 1000 {
		t.Errorf("left: %+v of %+v", left, goods)
	}
}

// Prices are of a metre, of 100 cm² or of one.
func TestWorth(t *testing.T) {
	for _, g := range []struct {
		Good
		want float64
	}{{Good{Kind: Tape, Amount: 33_000, Price: 0.08}, 2.64}, {Good{Kind: Glue, Amount: 500, Price: 0.2}, 1}, {Good{Kind: Magnets, Amount: 8, Price: 0.15}, 1.2}} {
		if got := g.Worth(); math.Abs(got-g.want) > 1e-9 {
			t.Errorf("%v of %s is worth %v; want %v", g.Amount, g.Kind, got, g.want)
		}
	}
}

func TestTells(t *testing.T) {
	for _, c := range []struct {
		kind   Kind
		amount float64
		want   string
	}{{Tape, 1420, "1.5 m"}, {Tape, 1400, "1.4 m"}, {Magnets, 1, "1 magnet"}, {Pads, 3.2, "4 pads"}, {Glue, 250, "for 250 cm²"}} {
		if got := c.kind.Tells(c.amount); got != c.want {
			t.Errorf("%v of %s is %q", c.amount, c.kind, got)
		}
	}
}

func TestCSV(t *testing.T) {
	goods := []Good{{Kind: Tape, Amount: 33000, Price: 0.08, Spare: 10}, {Kind: Ribbon, Name: "=red, wide", Amount: 2000, Price: 1.2, Spare: 5}, {Kind: Brads, Amount: 40}}
	got, faults := ReadCSV(WriteCSV(goods))
	if len(faults) > 0 || !reflect.DeepEqual(got, goods) {
		t.Errorf("%+v, %v", got, faults)
	}
	got, faults = ReadCSV([]byte("kind,amount,unit\nribbon,12,m\nmagnets,7,\n"))
	if len(faults) > 0 || got[0].Amount != 12000 || got[0].Spare != UsualSpare || got[1].Amount != 7 {
		t.Errorf("%+v, %v", got, faults)
	}
	for text, says := range map[string]string{
		"":                              "heading row",
		"kind,colour\nx,y":              "not a column",
		"kind,amount\n":                 "no supplies",
		"kind,amount\nglitter,1":        "row 1",
		"kind,amount\ntape,lots":        "not a number",
		"kind,amount,unit\ntape,1,ell":  "unit of length",
		"kind,amount\ntape,-1":          "row 1",
		"kind,amount\ntape,1,2,3":       "4 columns",
		"kind,amount\ntape,1\n\"broken": "cannot be read",
	} {
		if _, faults := ReadCSV([]byte(text)); len(faults) == 0 || !strings.Contains(faults[0].Error(), says) {
			t.Errorf("%q: %v", text, faults)
		}
	}
}

func FuzzReadCSV(f *testing.F) {
	f.Add([]byte("kind,name,amount,unit,price,spare\ntape,,1,m,0.1,5\n"))
	f.Fuzz(func(t *testing.T, text []byte) {
		goods, faults := ReadCSV(text)
		if len(faults) > 0 {
			return
		}
		again, faults := ReadCSV(WriteCSV(goods))
		if len(faults) > 0 || len(again) != len(goods) {
			t.Errorf("%+v is written and read as %+v, %v", goods, again, faults)
		}
	})
}
