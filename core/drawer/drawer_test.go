package drawer

import (
	"math/rand"
	"reflect"
	"strings"
	"testing"

	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
)

const mm = measure.Millimetre

func oat(w, h measure.Length, count int) Lot {
	l := Lot{Card: paper.Card{Name: "Oat card", GSM: 270}, Width: w, Height: h, Count: count, Price: 0.8}
	l.Complete()
	return l
}

func TestLotsAreCompleted(t *testing.T) {
	for name, c := range map[string]struct {
		lot  Lot
		want Lot
	}{
		"a size that is standard": {Lot{Width: 12 * measure.Inch, Height: 12 * measure.Inch}, Lot{Sheet: "12 × 12 in", Width: 12 * measure.Inch, Height: 12 * measure.Inch}},
		"turned":                  {Lot{Width: 297 * mm, Height: 210 * mm}, Lot{Sheet: "A4", Width: 297 * mm, Height: 210 * mm}},
		"a name that is standard": {Lot{Sheet: "A5"}, Lot{Sheet: "A5", Width: 148 * mm, Height: 210 * mm}},
		"one's own":               {Lot{Width: 70 * mm, Height: 90 * mm}, Lot{Sheet: "own size", Width: 70 * mm, Height: 90 * mm}},
		"an offcut":               {Lot{Width: 70 * mm, Height: 90 * mm, Offcut: true}, Lot{Sheet: "offcut", Width: 70 * mm, Height: 90 * mm, Offcut: true}},
	} {
		c.lot.Complete()
		// Medium card of 240 gsm, 1.25 cm³/g: 0.3 mm.
		c.want.Card = paper.Card{GSM: 240, Thickness: 300 * measure.Micrometre, Direction: paper.NoDirection}
		if c.lot != c.want {
			t.Errorf("%s: %+v; want %+v", name, c.lot, c.want)
		}
	}
}

func TestLotsAreChecked(t *testing.T) {
	for field, change := range map[string]func(*Lot){
		"card": func(l *Lot) { l.Card.Name = " " }, "gsm": func(l *Lot) { l.Card.GSM = -1 }, "thickness": func(l *Lot) { l.Card.Thickness = 4 * mm },
		"direction": func(l *Lot) { l.Card.Direction = "up" }, "width": func(l *Lot) { l.Width = 0 }, "height": func(l *Lot) { l.Height = -mm },
		"count": func(l *Lot) { l.Count = MostSheets + 1 }, "price": func(l *Lot) { l.Price = -0.01 },
	} {
		l := oat(100*mm, 100*mm, 3)
		if err := l.Check(); err != nil {
			t.Fatal(err)
		}
		change(&l)
		if err := l.Check(); err == nil || fault.Of(err).Field != field {
			t.Errorf("%s: got %v", field, err)
		}
	}
	l := oat(100*mm, 100*mm, 3)
	l.Reserved = 4
	if err := l.Check(); err == nil || fault.Of(err).Code != fault.Reserved {
		t.Errorf("more reserved than there are: %v", err)
	}
}

func TestGroupsByCard(t *testing.T) {
	small, plum, heavy := oat(90*mm, 90*mm, 1), oat(100*mm, 100*mm, 1), oat(100*mm, 100*mm, 1)
	small.Offcut = true
	plum.Card.Name = "plum card"
	heavy.Card.GSM = 300
	spelt := oat(200*mm, 200*mm, 2)
	spelt.Card.Name = " oat CARD"
	groups := Groups([]Lot{plum, small, oat(150*mm, 150*mm, 1), heavy, spelt})
	if len(groups) != 3 || len(groups[0].Lots) != 3 || groups[2].Card.Key() != plum.Card.Key() {
		t.Fatalf("%+v", groups)
	}
	if l := groups[0].Lots; l[0].Width != 200*mm || !l[2].Offcut {
		t.Errorf("whole sheets come first, large ones before small: %+v", l)
	}
}

// What a layout leaves is kept when a tag comes out of it.
func TestUsefulOffcutsAreKept(t *testing.T) {
	laid := &layout.Result{Sheets: []layout.Laid{{}, {Offcuts: []layout.Rect{
		{
			Width:  300 * mm,
			Height: 39 * mm,
		},
		{Width: 40 * mm, Height: 75 * mm},
		{Width: 60 * mm, Height: 60 * mm},
		{Width: 120 * mm, Height: 80 * mm},
		{Width: 40 * mm, Height: 75 * mm},
	}}}}
	kept := Kept(paper.Card{Name: "Oat card", GSM: 270}, laid, "fair")
	if len(kept) != 2 || kept[0].Count != 2 || kept[1].Width != 120*mm || !kept[0].Offcut || kept[0].From != "fair, sheet 2" ||
		kept[0].Check() != nil {
		t.Errorf("%+v", kept)
	}
}

func TestCSVSaysWhatIsMeant(t *testing.T) {
	rng := rand.New(rand.NewSource(1))
	var lots []Lot
	for range 50 {
		l := oat(measure.Length(1+rng.Intn(400_000))*measure.Micrometre, measure.Length(1+rng.Intn(400))*mm, rng.Intn(30))
		l.Card.Name = []string{"Oat card", `a "quoted", name`, "żółty"}[rng.Intn(3)]
		l.Card.Direction = paper.Directions[rng.Intn(3)]
		if l.Offcut = rng.Intn(3) == 0; l.Offcut {
			l.From, l.Price = "jar boxes, sheet 2", 0
		}
		lots = append(lots, l)
	}
	got, faults := ReadCSV(WriteCSV(lots), measure.In)
	if len(faults) > 0 || !reflect.DeepEqual(got, lots) {
		t.Fatalf("%v\n%+v\nwant\n%+v", faults, got, lots)
	}
}

func TestCSVByHand(t *testing.T) {
	got, faults := ReadCSV([]byte("\ufeffSheet, card ,count,price,gsm\nA4,Oat card,12,\"0,55\",80 lb cover\n"), measure.In)
	if len(faults) > 0 || len(got) != 1 || got[0].Width != 210*mm || got[0].Count != 12 || got[0].Price != 0.55 || got[0].Card.GSM != 216 {
		t.Errorf("%+v, %v", got, faults)
	}
	got, faults = ReadCSV([]byte("card,sheet,width,height,count\nOat,,3 1/2,x,1\nOat,A4,,,2\n,A4,,,1\nOat,A4\nOat,A4,,,-3\n"), measure.In)
	var at []string
	for _, f := range faults {
		at = append(at, fault.Of(f).Field)
	}
	if got != nil || strings.Join(at, " ") != "row 1.height row 3.card row 4 row 5.count" {
		t.Errorf("%v; faults at %v", got, at)
	}
	for _, text := range []string{"", "card,colour\nOat,red\n", "card,sheet\n", "card,sheet\n\"Oat"} {
		if got, faults := ReadCSV([]byte(text), measure.In); got != nil || len(faults) == 0 {
			t.Errorf("%q gave %v", text, got)
		}
	}
}

func FuzzReadCSV(f *testing.F) {
	f.Add([]byte("card,sheet,count,price\nOat,A4,12,0.55\n"))
	f.Add(WriteCSV([]Lot{oat(100*mm, 90*mm, 2)}))
	f.Fuzz(func(t *testing.T, text []byte) {
		got, faults := ReadCSV(text, measure.CM)
		if len(faults) > 0 && got != nil {
			t.Error("lots were given beside faults")
		}
		for _, l := range got {
			if err := l.Check(); err != nil {
				t.Errorf("%+v was read: %v", l, err)
			}
		}
	})
}

// No cell that is written starts a formula, and what was written is read back.
func TestCellsThatASpreadsheetWouldRun(t *testing.T) {
	for _, name := range []string{"=1+1", "+oat", "-oat", "@oat", "'oat", "'=oat", "oat", "=", "\tx"} {
		l := oat(100*mm, 100*mm, 1)
		l.Card.Name, l.From = name, name
		text := WriteCSV([]Lot{l})
		for _, cell := range strings.Split(strings.Split(string(text), "\n")[1], ",") {
			if c := strings.Trim(cell, `"`); c != "" && strings.ContainsAny(c[:1], "=+-@\t") {
				t.Errorf("%q is written as %q", name, cell)
			}
		}
		again, faults := ReadCSV(text, measure.MM)
		if len(faults) > 0 || again[0].Card.Name != strings.TrimSpace(name) && again[0].Card.Name != name {
			t.Errorf("%q came back as %+v, %v", name, again, faults)
		}
	}
}
