package drawer_test

import (
	"fmt"
	"html"
	"net/http"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/band"
	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/dress"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/web/webtest"
)

// Whatever goes over, round and onto a box is put on by a button, changed in its
// fields, refused with a sentence at its field, and taken away again.
func TestGoodsOnTheTicket(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	at := fmt.Sprintf("/boxes/%d/dressing", id)
	post := func(pairs ...string) {
		t.Helper()
		if code, page, _ := x.Post(at, pairs...); code != http.StatusOK {
			t.Fatalf("%v: %d %s", pairs, code, x.Words(at)+page[:min(len(page), 400)])
		}
	}
	in := func() design.Inputs { return x.Box(id).Inputs }

	post("covers.add", "base")
	post("covers[0].turn_in", "3/4", "covers[0].corners", "meeting")
	if c := in().Covers[0]; c.TurnIn != 3*measure.Inch/4 || c.Corners != dress.MeetingCorners {
		t.Errorf("the covering is %+v", c)
	}
	post("ribbons.add", "1")
	post("ribbons[0].name", "Twine", "ribbons[0].way", "height", "ribbons[0].bow", "curls", "ribbons[0].width", "1/16", "ribbons[0].colour", "#998877")
	if r := in().Ribbons[0]; r.Name != "Twine" || r.Way != "height" || r.Tied.Bow != band.Curls || r.Tied.Width != measure.Inch/16 || r.Colour != "#998877" {
		t.Errorf("the ribbon is %+v", r)
	}
	post("wrap.add", "1")
	post("wrap.way", "diagonal", "wrap.roll", "30")
	if w := in().Wrap; w == nil || w.Way != "diagonal" || w.Roll != 30*measure.Inch {
		t.Errorf("the wrapping paper is %+v", w)
	}
	post("labels.add", "label")
	post("labels[0].shape", "heart", "labels[0].text", "{name}\r\nwith love", "labels[0].layers", "1", "labels[0].face", "tag", "labels[0].asked", "1", "labels[0].hole", "1")
	if l := in().Labels[0]; l.Shape != label.Heart || l.Text != "{name}\nwith love" || len(l.Layers) != 1 || l.Piece != "" || !l.Hole {
		t.Errorf("the label is %+v", l)
	}
	for field, value := range map[string]string{"covers[0].turn_in": "1/16", "ribbons[0].width": "9", "wrap.roll": "1", "labels[0].width": "0.1", "labels[0].name": " "} {
		code, page, _ := x.Post(at, field, value)
		if code != http.StatusUnprocessableEntity || !strings.Contains(page, `aria-invalid="true"`) {
			t.Errorf("%s of %s: %d", field, value, code)
		}
	}
	if _, page, _ := x.Get(fmt.Sprintf("/boxes/%d/making", id)); !strings.Contains(page, "Twine") || !strings.Contains(page, "Print the template at full size") {
		t.Error("the making stop does not tell them")
	}
	for _, gone := range []string{"covers.remove", "ribbons.remove", "wrap.remove", "labels.remove"} {
		post(gone, "0")
	}
	if b := in(); len(b.Covers)+len(b.Ribbons)+len(b.Labels) != 0 || b.Wrap != nil {
		t.Errorf("they are still there: %+v", b)
	}
}

// A flap is held shut by a button, and the page says where it goes.
func TestClosuresOnTheTicket(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id, err := x.Store.Of(t.Context()).Add(t.Context(), design.New("Cards", measure.In, "wallet-box"))
	if err != nil {
		t.Fatal(err)
	}
	at := fmt.Sprintf("/boxes/%d/dressing", id)
	x.Post(at, "bands.add", "crossing")
	if b := x.Box(id).Inputs.Bands; len(b) != 2 || b[0].Axis == b[1].Axis {
		t.Errorf("the bands are %+v", b)
	}
	x.Post(at, "bands.remove", "1")
	x.Post(at, "bands.remove", "0")
	if _, page, _ := x.Get(at); !strings.Contains(page, "Hold the flap shut") {
		t.Fatal("nothing holds the flap")
	}
	x.Post(at, "closures.add", "1")
	x.Post(at, "closures[0].pairs", "2")
	c := x.Box(id).Inputs.Closures
	if len(c) != 1 || c[0].Pairs != 2 || c[0].Across <= 0 {
		t.Fatalf("closures %+v", c)
	}
	x.Post(at, "closures[0].kind", "dot", "closures[0].across", "1/2")
	if c := x.Box(id).Inputs.Closures[0]; c.Kind != design.Dot || c.Across != measure.Inch/2 {
		t.Errorf("it is %+v", c)
	}
	if _, page, _ := x.Get(at); !strings.Contains(page, "The middle: ") {
		t.Error("the page does not say where it goes")
	}
	if code, page, _ := x.Post(at, "closures[0].across", "5"); code != http.StatusUnprocessableEntity || !strings.Contains(page, "comes to lie on anything") {
		t.Errorf("far off the flap: %d", code)
	}
	x.Post(at, "closures.remove", "0")
	if n := len(x.Box(id).Inputs.Closures); n != 0 {
		t.Errorf("%d closures are left", n)
	}
}

// The cupboard tells what a box and a job take of it and what to buy; a job sets it
// aside, uses it up, and undone puts it back.
func TestTheCupboard(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	x.Post(fmt.Sprintf("/boxes/%d/dressing", id), "ribbons.add", "1")
	sheets := fmt.Sprintf("/boxes/%d/sheets", id)
	if page := x.Words(sheets); !strings.Contains(page, "From the cupboard") || !strings.Contains(page, "buy") {
		t.Error("an empty cupboard has nothing to buy")
	}
	if code, _, _ := x.Post("/drawer/cupboard", "at", "new", "new.kind", "ribbon", "new.name", "Satin ribbon", "new.amount", "20", "new.price", "0,50", "new.spare", "0"); code != http.StatusNoContent {
		t.Fatalf("put in: %d", code)
	}
	x.Post("/drawer/cupboard", "at", "new", "new.kind", "tape", "new.amount", "33", "new.price", "0.08")
	if page := x.Words(sheets); strings.Contains(page, "buy") || !strings.Contains(page, "worth") {
		t.Errorf("with all there: %s", page)
	}
	for field, value := range map[string]string{"new.amount": "much", "new.price": "-1", "new.spare": "900"} {
		if code, page, _ := x.Post("/drawer/cupboard", "at", "new", "new.kind", "brads", field, value); code != http.StatusUnprocessableEntity || !strings.Contains(page, `aria-invalid="true"`) {
			t.Errorf("%s of %s: %d", field, value, code)
		}
	}
	amount := func() (there, aside float64) {
		goods, err := x.Store.Of(t.Context()).Goods(t.Context())
		if err != nil {
			t.Fatal(err)
		}
		for _, g := range goods {
			if g.Name == "Satin ribbon" {
				return g.Amount, g.Reserved
			}
		}
		return -1, -1
	}
	x.Lot(20, 12*measure.Inch, 12*measure.Inch, false)
	card := x.Box(id).Inputs.Card
	sheet := drawer.Lot{Card: card, Sheet: "12 × 12 in", Width: 12 * measure.Inch, Height: 12 * measure.Inch, Count: 20}
	sheet.Card.Direction = paper.NoDirection
	if err := x.Store.Of(t.Context()).AddLots(t.Context(), []drawer.Lot{sheet}); err != nil {
		t.Fatal(err)
	}
	x.Post("/jobs", fmt.Sprintf("copies.%d", id), "3", "name", "fair")
	if page := x.Words("/jobs/1"); !strings.Contains(page, "Satin ribbon:") {
		t.Errorf("the job does not tell what it takes: %s", page)
	}
	if code, page, _ := x.Post("/jobs/1/begin"); code != http.StatusNoContent {
		t.Fatalf("begun: %d %s", code, page)
	}
	there, aside := amount()
	if there != 20_000 || aside <= 0 {
		t.Errorf("begun, %v mm are there and %v set aside", there, aside)
	}
	x.Post("/jobs/1/finish")
	if left, none := amount(); left != there-aside || none != 0 {
		t.Errorf("finished, %v mm are left of %v less %v, %v set aside", left, there, aside, none)
	}
	x.Post("/jobs/1/unfinish")
	if back, again := amount(); back != there || again != aside {
		t.Errorf("undone, %v and %v", back, again)
	}
	x.Post("/jobs/1/release")
	if _, none := amount(); none != 0 {
		t.Errorf("released, %v is still set aside", none)
	}
	_, csv, _ := x.Get("/cupboard.csv")
	y := webtest.NewTable(t)
	if code, page, _ := y.Send("/drawer/cupboard/import", []byte(csv)); code != http.StatusSeeOther {
		t.Fatalf("brought: %d %s", code, page)
	}
	if _, again, _ := y.Get("/cupboard.csv"); again != csv {
		t.Errorf("brought, it is\n%s\nof\n%s", again, csv)
	}
	x.Post("/drawer/cupboard", "kind", "ribbon", "name", "Satin ribbon", "out", "1")
	if there, _ := amount(); there != -1 {
		t.Errorf("taken out, %v is there", there)
	}
	if code, page, _ := y.Send("/drawer/cupboard/import", []byte("kind\nglitter\n")); code != http.StatusUnprocessableEntity || !strings.Contains(page, "row 1") {
		t.Errorf("a list with glitter: %d", code)
	}
}

// A box is dressed in one press with the papers at hand; a paper is put on all
// faces like its own; what that does to the lid stands beside it.
func TestReadyWays(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	at := fmt.Sprintf("/boxes/%d/dressing", id)
	_, page, _ := x.Get(at)
	cards := regexp.MustCompile(`name="ready.card" value="([^"]+)"`).FindAllStringSubmatch(page, -1)
	if len(cards) != 2 {
		t.Fatalf("%d papers are at hand", len(cards))
	}
	press := func(way string) design.Inputs {
		t.Helper()
		code, page, _ := x.Post(at, "ready.card", html.UnescapeString(cards[0][1]), "ready.card", html.UnescapeString(cards[1][1]), "ready", way)
		if code != http.StatusOK {
			t.Fatalf("%s: %d %s", way, code, page[:min(len(page), 300)])
		}
		return x.Box(id).Inputs
	}
	if in := press("walls"); len(in.Mats) != 2 || len(in.Mats[0].Faces) != 4 || in.Mats[0].Layers[1].Card.Seen().Print == paper.Plain {
		t.Errorf("all walls: %+v", in.Mats)
	}
	if page := x.Words(at); !strings.Contains(page, "What it does and costs") || !strings.Contains(page, "mm instead of") {
		t.Error("the gap is not told beside the papers")
	}
	in := press("top")
	if len(in.Mats) != 2 || !slices.Equal(in.Mats[0].Faces, []string{"front"}) || !slices.Equal(in.Mats[1].Faces, []string{"top"}) {
		t.Fatalf("front and lid: %+v", in.Mats)
	}
	x.Post(at, "mats.like", "0")
	if faces := x.Box(id).Inputs.Mats[0].Faces; len(faces) < 2 || !slices.Contains(faces, "front") || !slices.Contains(faces, "back") {
		t.Errorf("on all like the front: %v", faces)
	}
	if in := press("plain"); len(in.Mats)+len(in.Bands) != 0 {
		t.Errorf("plain: %+v", in.Mats)
	}
	if _, page, _ := x.Get(at); strings.Count(page, `class="face-pick"`) < 8 {
		t.Errorf("%d faces can be pressed", strings.Count(page, `class="face-pick"`))
	}
}

// A new label goes on a lid's top, or else on the front: never under the floor.
func TestANewLabelsPlace(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	for kind, want := range map[string]string{"tray-lid": "lid/top", "tray": "tray/front", "wallet-box": "body/front"} {
		id, err := x.Store.Of(t.Context()).Add(t.Context(), design.New("Labelled "+kind, measure.MM, kind))
		if err != nil {
			t.Fatal(err)
		}
		x.Post(fmt.Sprintf("/boxes/%d/dressing", id), "labels.add", "label")
		if l := x.Box(id).Inputs.Labels; len(l) != 1 || l[0].Piece+"/"+l[0].Face != want {
			t.Errorf("on a %s: %+v", kind, l)
		}
	}
}

// The inside is lined by one press, once; what it takes is told.
func TestLiningOnTheTicket(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	at := fmt.Sprintf("/boxes/%d/dressing", id)
	before := x.Words(fmt.Sprintf("/boxes/%d/contents", id))
	x.Post(at, "mats.line", "base")
	m := x.Box(id).Inputs.Mats
	if len(m) != 1 || m[0].Side != dress.Inside || len(m[0].Faces) != 5 || m[0].Layers[0].Card != paper.Flocked {
		t.Fatalf("lined: %+v", m)
	}
	if after := x.Words(fmt.Sprintf("/boxes/%d/contents", id)); strings.Contains(before, "paper glued inside") || !strings.Contains(after, "paper glued inside") {
		t.Error("the account does not tell what the lining takes")
	}
	if code, page, _ := x.Post(at, "mats.line", "base"); code != http.StatusUnprocessableEntity || !strings.Contains(page, "is lined") {
		t.Errorf("lined twice: %d", code)
	}
}

// A pack of twelve papers, two sheets of each, is twelve papers in the drawer, told apart by their numbers.
func TestAPackIsPutIn(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	put := []string{"card", "Frost", "gsm", "160", "sheet", "6 × 6 in", "count", "2", "price", "0.30"}
	if code, page, _ := x.Post("/drawer", append(put, "papers", "99")...); code != http.StatusUnprocessableEntity || !strings.Contains(page, "1 to 60 different papers") {
		t.Errorf("a pack of 99: %d", code)
	}
	x.Post("/drawer", append(put, "papers", "12")...)
	lots, err := x.Store.Of(t.Context()).Lots(t.Context())
	if err != nil || len(lots) != 12 {
		t.Fatalf("%d lots, %v", len(lots), err)
	}
	names := map[string]bool{}
	for _, l := range lots {
		names[l.Card.Name] = true
		if l.Count != 2 || l.Sheet != "6 × 6 in" || l.Price != 0.3 {
			t.Errorf("%+v", l)
		}
	}
	if !names["Frost 1"] || !names["Frost 12"] || len(names) != 12 {
		t.Errorf("they are called %v", names)
	}
}
