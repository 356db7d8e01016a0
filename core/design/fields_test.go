package design

import (
	"encoding/json"
	"os"
	"reflect"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/dress"
	"brevium/core/fit"
	"brevium/core/label"
	"brevium/core/loose"
	"brevium/core/measure"
	"brevium/core/money"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/stuff"
)

// changes give each field of a design something else than the usual.
var changes = map[string]func(in *Inputs){
	"Name":         func(in *Inputs) { in.Name = "Jars" },
	"Units":        func(in *Inputs) { in.SetUnits(measure.CM) },
	"Style":        func(in *Inputs) { in.Style = "tray" },
	"Size":         func(in *Inputs) { in.Size["length"] = 90 * mm_ },
	"Basis":        func(in *Inputs) { in.Basis = Outside },
	"Things":       func(in *Inputs) { in.Things = someThings() },
	"Stand":        func(in *Inputs) { in.Stand = "2x1x1" },
	"Compartments": func(in *Inputs) { in.Compartments = Compartments{Per: contents.PerThing, As: AsTrays} },
	"Linings":      func(in *Inputs) { in.Linings = []Lining{Liner} },
	"RiserHeight":  func(in *Inputs) { in.RiserHeight = 30 * mm_ },
	"Card":         func(in *Inputs) { in.Card.GSM = 300 },
	"Cards":        func(in *Inputs) { in.Cards["lid"] = paper.Card{Name: "Holly", GSM: 200, Thickness: mm_ / 4} },
	"Choices":      func(in *Inputs) { in.Choices["lid.custom"] = "shim" },
	"Lengths":      func(in *Inputs) { in.Lengths["lid.allowance"] = mm_ },
	"Load": func(in *Inputs) {
		in.Load = Load{Grams: 490, One: true, Foot: [2]measure.Length{80 * mm_, 80 * mm_}, Carry: CarryBelow, Stacked: 3, Humidity: 30}
	},
	"For":       func(in *Inputs) { in.For = ChildUnder3 },
	"Grains":    func(in *Inputs) { in.Grains["lid"] = paper.RunWidth },
	"Hand":      func(in *Inputs) { in.Hand = stuff.Careful },
	"Glue":      func(in *Inputs) { in.Glue[stuff.Papers] = stuff.WetGlue },
	"Constants": func(in *Inputs) { in.Constants["air.slow"] = 12 },
	"Fit":       func(in *Inputs) { in.Fit = fit.Easy },
	"Leans":     func(in *Inputs) { in.Leans = []fit.Lean{{Card: "Holly", Kind: "lid", By: mm_ / 4, Notes: 3}} },
	"Mats": func(in *Inputs) {
		in.Mats = []dress.Dressing{{ID: 1, Piece: "lid", Where: dress.Top, Layers: []dress.Layer{{Card: dress.Patterned, Border: dress.Even(2 * mm_)}}}}
	},
	"Loose": func(in *Inputs) {
		in.Loose = []loose.Piece{{ID: 1, Name: "Card", Width: 60 * mm_, Height: 40 * mm_, Copies: 1, Corners: loose.Square}}
	},
	"Covers":   func(in *Inputs) { c := UsualCover("base", measure.MM); c.ID = 1; in.Covers = []dress.Cover{c} },
	"Bands":    func(in *Inputs) { b := UsualBand(measure.MM); b.ID = 1; in.Bands = []Band{b} },
	"Closures": func(in *Inputs) { in.Closures = []Closure{{ID: 1, Kind: Dot, Pairs: 1}} },
	"Labels":   func(in *Inputs) { l := UsualLabel("", "", measure.MM); l.ID = 1; in.Labels = []label.Label{l} },
	"Ribbons":  func(in *Inputs) { x := UsualRibbon(measure.MM); x.ID = 1; in.Ribbons = []Ribbon{x} },
	"OwnSteps": func(in *Inputs) {
		in.OwnSteps = []recipe.Own{{ID: 1, Text: "Stamp the front", After: "cut", Piece: "lid", Minutes: 2, Supplies: []string{"ink"}}}
	},
	"Each": func(in *Inputs) { in.Each = []string{"24 Dec: bell", "chocolate coin"} },
	"Windows": func(in *Inputs) {
		in.Windows = []label.Window{{ID: 1, Shape: label.Oval, Width: 40 * mm_, Height: 30 * mm_, Piece: "lid", Face: "top", Film: true, Place: label.Place{Across: label.Off{From: label.Left, At: 8 * mm_}}}}
	},
	"Wrap":   func(in *Inputs) { in.Wrap = UsualWrapping(measure.MM) },
	"Sheets": func(in *Inputs) { in.Sheets = in.Sheets[:1] },
	"Tools":  func(in *Inputs) { in.Tools.Trimmer = 400 * mm_ },
	"Copies": func(in *Inputs) { in.Copies = 7 },
	"Price":  func(in *Inputs) { in.Price = money.Of(4) },
	"Recipe": func(in *Inputs) { in.Recipe = "Cut 7 x 6 in" },

	"Photograph": func(in *Inputs) { in.Photograph = "0a1b2c" },
}

// unkept are no part of a design's file: what a comparison wants, and what another version kept.
var unkept = []string{"Room", "Rest"}

func someThings() []contents.Thing {
	return []contents.Thing{{ID: 1, Name: "Jar", Shape: contents.Round, Length: 40 * mm_, Width: 40 * mm_, Height: 50 * mm_, Count: 2, Ease: mm_}}
}

// Every field that a person decides is written, read back, named when it changes, carried by a
// copy of its own, and told of in the formats: a new one without these fails here.
func TestEveryFieldIsWrittenReadAndNamed(t *testing.T) {
	t.Parallel()
	formats, err := os.ReadFile("../../docs/formats.md")
	if err != nil {
		t.Fatal(err)
	}
	fields := reflect.TypeFor[Inputs]()
	for i := range fields.NumField() {
		name := fields.Field(i).Name
		if name == unkept[0] || name == unkept[1] {
			continue
		}
		change, known := changes[name]
		if !known {
			t.Errorf("%s is a new field: give it a change here", name)
			continue
		}
		before := New("", measure.MM, "tray-lid")
		if name == "Stand" { // of contents
			before.Things = someThings()
		}
		after := before.Clone()
		change(&after)
		if reflect.DeepEqual(reflect.ValueOf(before).Field(i).Interface(), reflect.ValueOf(after).Field(i).Interface()) {
			t.Errorf("%s: a copy is changed with what it is of, or nothing is", name)
		}
		again, err := Read(after.Write())
		if err != nil {
			t.Errorf("%s cannot be read back: %v", name, err)
		} else if got, want := reflect.ValueOf(again).Field(i).Interface(), reflect.ValueOf(after).Field(i).Interface(); !reflect.DeepEqual(got, want) {
			t.Errorf("%s is read back as %+v, not %+v", name, got, want)
		}
		if Difference(before, after) == "" {
			t.Errorf("that %s changed is not said", name)
		}
		for _, key := range changedKeys(t, before, after) {
			if !strings.Contains(string(formats), "`"+key+"`") && !strings.Contains(string(formats), `"`+key+`"`) {
				t.Errorf("%s is written as %q, of which docs/formats.md says nothing", name, key)
			}
		}
	}
}

// changedKeys are the fields of the files of two designs that differ.
func changedKeys(t *testing.T, before, after Inputs) []string {
	t.Helper()
	read := func(in Inputs) map[string]json.RawMessage {
		out := map[string]json.RawMessage{}
		if err := json.Unmarshal(in.Write(), &out); err != nil {
			t.Fatal(err)
		}
		return out
	}
	was, is := read(before), read(after)
	var out []string
	for key, v := range is {
		if string(v) != string(was[key]) {
			out = append(out, key)
		}
	}
	if len(out) == 0 {
		t.Error("nothing of the file changes")
	}
	return out
}
