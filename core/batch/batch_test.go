package batch

import (
	"reflect"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
)

const (
	mm   = measure.Millimetre
	inch = measure.Inch
)

// tray is an open tray with a blank of the size of its panel and two walls.
func tray(name string, panel, wall measure.Length) design.Inputs {
	in := design.New(name, measure.In, "tray")
	in.Size = map[string]measure.Length{"length": panel, "width": panel, "height": wall}
	in.Card = paper.Card{Name: "Oat card", GSM: 240, Thickness: 300 * measure.Micrometre}
	return in
}

func sheets(id int64, count int, w, h measure.Length) drawer.Lot {
	l := drawer.Lot{ID: id, Card: paper.Card{Name: "oat card", GSM: 240}, Width: w, Height: h, Count: count, Price: 0.8}
	l.Complete()
	return l
}

func gather(t *testing.T, items []Item, lots []drawer.Lot, ch Choices) []Stock {
	t.Helper()
	stocks, err := Gather(t.Context(), items, lots, ch)
	if err != nil {
		t.Fatal(err)
	}
	for i := range stocks {
		if err := stocks[i].Lay(t.Context(), Quick); err != nil {
			t.Fatal(err)
		}
	}
	return stocks
}

// Blanks of 8 and of 4 in: alone the large ones take a sheet each and the small
// ones another, together the small ones lie beside the large.
func TestTogetherTakesLess(t *testing.T) {
	items := []Item{{Inputs: tray("large", 6*inch, inch), Copies: 2}, {Inputs: tray("small", 2*inch, inch), Copies: 10}}
	stocks := gather(t, items, []drawer.Lot{sheets(7, 9, 12*inch, 12*inch)}, Choices{})
	if len(stocks) != 1 || len(stocks[0].Layout.Sheets) != 2 || len(stocks[0].Layout.Unplaced) > 0 {
		t.Fatalf("%d stocks, %+v", len(stocks), stocks)
	}
	alone, worth, err := Alone(t.Context(), 2, stocks)
	if err != nil || alone != 4 || worth != 4*0.8 {
		t.Errorf("one by one they take %d sheets worth %v, %v; want 4 and 3.2", alone, worth, err)
	}
	takes := Takes(stocks)
	want := []Take{{Lot: 7, Card: stocks[0].Card, Sheet: takes[0].Sheet, Count: 2, Price: 0.8}}
	if !reflect.DeepEqual(takes, want) || takes[0].Sheet.Name != "12 × 12 in" || Cost(takes) != 1.6 {
		t.Errorf("the job takes %+v", takes)
	}
	if o := stocks[0].Origins; o[0].Item != 0 || o[0].Part != "tray" || o[1].Item != 1 || o[1].Part != "tray" {
		t.Errorf("the pieces come from %+v", o)
	}
	if n := stocks[0].Job.Pieces; n[0].Name != "large: tray" && n[0].Name != "large: open tray" {
		t.Errorf("a piece is called %q", n[0].Name)
	}
}

// Offcuts first, then the drawer, and what is still missing is to be bought.
func TestTheDrawerIsUsedFirst(t *testing.T) {
	items := []Item{{Inputs: tray("t", 6*inch, inch), Copies: 3}}
	offcut := sheets(3, 1, 9*inch, 8*inch)
	offcut.Offcut, offcut.Price = true, 0
	reserved := sheets(5, 2, 12*inch, 12*inch)
	reserved.Reserved = 1
	got := map[int64]int{}
	for _, x := range Takes(gather(t, items, []drawer.Lot{reserved, offcut}, Choices{})) {
		got[x.Lot] = x.Count
	}
	if want := map[int64]int{3: 1, 5: 1, 0: 1}; !reflect.DeepEqual(got, want) {
		t.Errorf("takes by lot %v; want the offcut, one sheet of the drawer, and one bought", got)
	}
	// Another weight of the same name is another card.
	heavy := sheets(9, 9, 12*inch, 12*inch)
	heavy.Card.GSM = 300
	for _, x := range Takes(gather(t, items, []drawer.Lot{heavy}, Choices{})) {
		if x.Lot != 0 {
			t.Errorf("a box of 240 gsm is cut from %+v", x)
		}
	}
}

func TestHeldPiecesGoByName(t *testing.T) {
	items := []Item{{Inputs: tray("t", 2*inch, inch), Copies: 3}}
	lots := []drawer.Lot{sheets(7, 9, 12*inch, 12*inch)}
	first := gather(t, items, lots, Choices{})
	ch := Choices{
		Held: []Held{
			{
				Card:   first[0].Card.Key(),
				Sheet:  first[0].Job.Sheets[0].Name,
				Pieces: []HeldPiece{{Piece: first[0].Job.Pieces[0].Name, X: 3 * inch, Y: 5 * inch}},
			},
		},
	}
	found := false
	for _, p := range gather(t, items, lots, ch)[0].Layout.Sheets[0].Placed {
		found = found || p.X == 3*inch && p.Y == 5*inch
	}
	if !found {
		t.Error("the piece did not stay where it was put")
	}
	again, err := ReadChoices(ch.Write())
	if err != nil || !reflect.DeepEqual(again, ch) {
		t.Errorf("choices come back as %+v, %v", again, err)
	}
	// What is no longer in the job is let go.
	ch.Held[0].Pieces[0].Piece = "t: roof"
	if stocks := gather(t, items, lots, ch); len(stocks[0].Job.Held) != 0 {
		t.Errorf("a piece that is not there is held: %+v", stocks[0].Job.Held)
	}
}

func TestStocksAndLayoutsComeBack(t *testing.T) {
	items := []Item{{Inputs: tray("a", 6*inch, inch), Copies: 2}, {Inputs: tray("b", 2*inch, inch), Copies: 5}}
	lots := []drawer.Lot{sheets(7, 9, 12*inch, 12*inch)}
	stocks := gather(t, items, lots, Choices{Stages: 3})
	again, err := ReadStocks(WriteStocks(stocks))
	if err != nil {
		t.Fatal(err)
	}
	if !reflect.DeepEqual(Takes(again), Takes(stocks)) || !reflect.DeepEqual(again[0].Origins, stocks[0].Origins) ||
		len(again[0].Layout.Sheets) != len(stocks[0].Layout.Sheets) {
		t.Errorf("stocks come back as %+v", again)
	}
	fresh, err := Gather(t.Context(), items, lots, Choices{Stages: 3})
	if err != nil {
		t.Fatal(err)
	}
	Recall(fresh, WriteLayouts(stocks))
	if fresh[0].Layout == nil {
		t.Error("a layout of the same job is not recalled")
	}
	items[0].Copies++
	other, err := Gather(t.Context(), items, lots, Choices{Stages: 3})
	if err != nil {
		t.Fatal(err)
	}
	if Recall(other, WriteLayouts(stocks)); other[0].Layout != nil {
		t.Error("a layout of another job is recalled")
	}
	for _, bad := range []string{"", "{}", `[{"card":"x"}]`} {
		if _, err := ReadStocks([]byte(bad)); err == nil {
			t.Errorf("%q was read", bad)
		}
	}
}

func TestJobsThatCannotBe(t *testing.T) {
	good := tray("t", 2*inch, inch)
	for name, c := range map[string]struct {
		items []Item
		field string
	}{
		"nothing":        {nil, "items"},
		"no copies":      {[]Item{{Inputs: good}}, "items[0].copies"},
		"a broken box":   {[]Item{{Inputs: good, Copies: 1}, {Inputs: tray("huge", 20*inch, inch), Copies: 1}}, "items[1]"},
		"too many boxes": {make([]Item, MostItems+1), "items"},
	} {
		_, err := Gather(t.Context(), c.items, nil, Choices{})
		if err == nil || !strings.HasPrefix(fault.Of(err).Field, c.field) {
			t.Errorf("%s: got %v; want a fault at %s", name, err, c.field)
		}
	}
}

func TestMakeableFromTheDrawer(t *testing.T) {
	in := tray("t", 3*inch, inch)
	wrap := sheets(2, 5, 12*inch, 12*inch)
	wrap.Card = paper.Card{Name: "wrap", GSM: 120, Thickness: 150 * measure.Micrometre, Direction: paper.NoDirection}
	small := sheets(3, 5, 4*inch, 4*inch)
	small.Card.Name = "scraps"
	offers := Makeable(t.Context(), in, []drawer.Lot{sheets(1, 1, 12*inch, 12*inch), wrap, small})
	if len(offers) == 0 {
		t.Fatal("nothing can be made from a whole sheet")
	}
	for i, o := range offers {
		if o.Card.Name != "oat card" || o.Sheets > 1 {
			t.Errorf("%s of %s on %d sheets", o.Style.ID, o.Card.Name, o.Sheets)
		}
		if i > 0 && offers[i-1].Cost > o.Cost {
			t.Errorf("%s stands behind a dearer one", o.Style.ID)
		}
	}
}

func TestWhatAnOffcutWouldMake(t *testing.T) {
	pieces := []Blanks{
		{"is wide", []layout.Piece{{Name: "a", Width: 101 * mm, Height: 10 * mm, Copies: 1}}},
		{"fits", []layout.Piece{{Name: "a", Width: 50 * mm, Height: 40 * mm, Copies: 2}}},
		{"has three", []layout.Piece{{Name: "a", Width: 60 * mm, Height: 40 * mm, Copies: 2}}},
		{"cannot be made", nil},
	}
	if got := fitting(t.Context(), layout.Rect{Width: 100 * mm, Height: 45 * mm}, pieces); !reflect.DeepEqual(got, []string{"fits"}) {
		t.Errorf("an offcut of 100 × 45 mm would make %v", got)
	}
}

// Facts are kept as facts: what a sheet is called goes into the drawer as it
// is, brackets and all, and a box's name makes no mat of its trays.
func TestNamesAreOnlyNames(t *testing.T) {
	in := design.New("Tea: matching set", measure.MM, "tray")
	in.Sheets = []paper.Sheet{
		{Name: "Big (recycled, 90 lb)", Width: 300 * measure.Millimetre, Height: 300 * measure.Millimetre, Count: paper.Unlimited},
	}
	in.Mats = []dress.Dressing{{Piece: "tray", Where: dress.Walls, Layers: []dress.Layer{{Card: in.Card, Border: dress.Even(2 * measure.Millimetre)}}}}
	stocks, err := Gather(t.Context(), []Item{{Inputs: in, Copies: 1}}, nil, Choices{})
	if err != nil {
		t.Fatal(err)
	}
	if err := stocks[0].Lay(t.Context(), Quick); err != nil {
		t.Fatal(err)
	}
	again, err := ReadStocks(WriteStocks(stocks))
	if err != nil {
		t.Fatal(err)
	}
	for _, all := range [][]Stock{stocks, again} {
		if buy := ToBuy(all); len(buy) != 1 || buy[0].Sheet != "Big (recycled, 90 lb)" {
			t.Errorf("to buy are %+v", buy)
		}
		mats := 0
		for _, o := range all[0].Origins {
			if o.Box != "Tea: matching set" || o.Mat == (o.Part == "tray") {
				t.Errorf("a piece comes from %+v", o)
			}
			if o.Mat {
				mats++
			}
		}
		if mats != 4 {
			t.Errorf("%d mats; want 4", mats)
		}
	}
}

// Of a thousand offcuts a few are laid out on, those on which pieces are held
// among them; none is too small for every piece.
func TestAThousandOffcuts(t *testing.T) {
	in := design.New("tray", measure.MM, "tray")
	var lots []drawer.Lot
	for i := range 1000 {
		lots = append(lots, drawer.Lot{ID: int64(i + 1), Card: in.Card, Width: measure.Length(60+i%200) * mm, Height: measure.Length(60+i/4) * mm, Count: 1, Offcut: true})
	}
	held := Held{Card: in.Card.Key(), Sheet: sheetName(lots[500])}
	stocks, err := Gather(t.Context(), []Item{{Inputs: in, Copies: 5}}, lots, Choices{Held: []Held{held}})
	if err != nil {
		t.Fatal(err)
	}
	offcuts, there := 0, false
	for i, sheet := range stocks[0].Job.Sheets {
		if stocks[0].Lots[i] == 0 {
			continue
		}
		offcuts++
		there = there || sheet.Name == held.Sheet
		if p := stocks[0].Job.Pieces[0]; !goesOn(p, lots[stocks[0].Lots[i]-1]) && sheet.Name != held.Sheet {
			t.Errorf("%s holds no piece", sheet.Name)
		}
	}
	if offcuts == 0 || offcuts > mostOffcutKinds+1 || !there {
		t.Errorf("%d offcuts are laid out on, the held one among them: %v", offcuts, there)
	}
}

// What lies in the drawer and is not used while sheets are bought is told, with
// the reason.
func TestPassedOverSheetsSayWhy(t *testing.T) {
	in := design.New("Tray", measure.In, "tray")
	in.Size["length"], in.Size["width"], in.Size["height"] = 6*measure.Inch, 4*measure.Inch, measure.Inch
	lot := func(id int64, card paper.Card, w, h measure.Length) drawer.Lot {
		return drawer.Lot{ID: id, Card: card, Sheet: "A4", Width: w, Height: h, Count: 1}
	}
	plain := in.Card
	oneWay, heavy, other := plain, plain, plain
	oneWay.Direction, heavy.GSM, other.Name = paper.OneWayUp, 300, "Meadow"
	mm := measure.Millimetre
	for _, c := range []struct {
		lot drawer.Lot
		why string
	}{
		{lot(1, oneWay, 210*mm, 297*mm), "its pattern runs one way up, and the box says that it has no direction"},
		{lot(2, heavy, 210*mm, 297*mm), "it weighs 300 gsm"},
		{lot(3, other, 320*mm, 320*mm), "the box does not name its card"},
		{lot(4, plain, 60*mm, 90*mm), "none of its pieces goes on it"},
		{lot(5, other, 100*mm, 100*mm), ""},
	} {
		stocks, err := Gather(t.Context(), []Item{{Inputs: in, Copies: 1}}, []drawer.Lot{c.lot}, Choices{})
		if err != nil {
			t.Fatal(err)
		}
		for i := range stocks {
			if err := stocks[i].Lay(t.Context(), Quick); err != nil {
				t.Fatal(err)
			}
		}
		got := ""
		if passed := PassedOver(stocks, []drawer.Lot{c.lot}); len(passed) > 0 {
			got = passed[0].Why
		}
		if !strings.HasPrefix(got, c.why) || c.why == "" && got != "" {
			t.Errorf("lot %d: %q; want %q", c.lot.ID, got, c.why)
		}
	}
}
