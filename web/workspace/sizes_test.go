package workspace_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/web/page"
	"brevium/web/webtest"
)

// A new box is picked by its picture before its limits speak: a tall one of a
// size and a bottle start without a detour.
func TestTallThingsStartAtOnce(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	code, _, h := x.Post("/new", "start", "size", "style", "tall-box", "size.width", "2 1/2", "size.depth", "2 1/2", "size.height", "8", "name", "Vial")
	if code >= 400 {
		t.Fatalf("a tall box: %d", code)
	}
	if b := x.Box(1); b.Inputs.Style != "tall-box" || b.Inputs.Size["height"] != 8*measure.Inch {
		t.Errorf("%s of %v at %s", b.Inputs.Style, b.Inputs.Size, h.Get("Location"))
	}
	code, body, _ := x.Post("/new", "start", "things", "contents[0].name", "Bottle", "contents[0].shape", "round",
		"contents[0].length", "60 mm", "contents[0].height", "250 mm", "contents[0].count", "1")
	if code >= 400 {
		t.Fatalf("a bottle: %d\n%s", code, body)
	}
	// Another kind keeps what was typed, by its meaning.
	if _, body, _ := x.Get("/new?start=size&style=wallet-box&was=tray&size.length=5&size.width=3+1/2&size.height=1/2"); !strings.Contains(body, `name="size.back" value="3 1/2"`) || !strings.Contains(body, `name="size.depth" value="1/2"`) {
		t.Error("the sizes are not carried to the new kind's fields")
	}
}

// A change that is refused keeps what was typed and offers what would help; one
// press does it.
func TestARefusedChangeOffersACure(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in := design.New("Chest", measure.In, "tray-lid")
	in.Size["length"], in.Size["width"], in.Size["height"] = 6*measure.Inch, 4*measure.Inch, 3*measure.Inch/2
	in.Lengths["lid.depth"], in.Lengths["lid.allowance"] = 3*measure.Inch/2, measure.Inch/8
	in.Sheets = in.Sheets[:1]
	id, err := x.Store.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	path := "/boxes/" + page.Itoa(id) + "/box"
	code, body, _ := x.Post(path, "options.lid.walls", "double")
	if code != http.StatusUnprocessableEntity || !strings.Contains(body, `name="cure" value="smaller.lid.custom"`) || !strings.Contains(body, "Trim the base instead") {
		t.Fatalf("%d, and no cure is offered", code)
	}
	if code, _, _ := x.Post(path, "options.lid.walls", "double", "cure", "smaller.lid.custom"); code >= 400 {
		t.Fatalf("the cure is refused: %d", code)
	}
	if b := x.Box(id); b.Inputs.Choices["lid.walls"] != "double" || b.Inputs.Choices["lid.custom"] != "smaller-base" {
		t.Errorf("the box has %v", b.Inputs.Choices)
	}
}

// What follows goes on following until it is typed, and a piece's own card
// leaves the others as they are.
func TestFollowingAndOwnCards(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id, err := x.Store.Of(t.Context()).Add(t.Context(), design.New("Wallet", measure.In, "wallet-box"))
	if err != nil {
		t.Fatal(err)
	}
	path := "/boxes/" + page.Itoa(id) + "/box"
	shown := func(body string) string {
		_, after, _ := strings.Cut(body, `name="size.front" value="`)
		v, _, _ := strings.Cut(after, `"`)
		return v
	}
	all := []string{"size.length", "4 1/2", "size.depth", "3/4", "size.front", "3", "size.back", "4", "size.flap", "1"}
	_, body, _ := x.Post(path, all...)
	if got := shown(body); got != "3 3/4" {
		t.Errorf("with a back of 4 in the front is shown as %q; want 3 3/4", got)
	}
	all[5] = "3 3/4"
	all[7] = "3 1/4"
	if _, body, _ = x.Post(path, all...); shown(body) != "3" || len(x.Box(id).Inputs.Size) == 5 {
		t.Errorf("back at 3 1/4 in the front is %q, of typed sizes %v", shown(body), x.Box(id).Inputs.Size)
	}
	box := x.JarBox()
	path = "/boxes/" + page.Itoa(box) + "/box"
	x.Post(path, "cards.lid.name", "Moss card", "cards.lid.gsm", "300", "cards.base.name", "Plain card", "cards.base.gsm", "240")
	if cards := x.Box(box).Inputs.Cards; len(cards) != 1 || cards["lid"].Name != "Moss card" || cards["lid"].GSM != 300 || cards["lid"].Thickness != 375*measure.Micrometre {
		t.Errorf("own cards: %+v", cards)
	}
}

// The unit switch changes no size of a box.
func TestUnitsMoveNoSize(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	before, err := design.Make(t.Context(), x.Box(id).Inputs)
	if err != nil {
		t.Fatal(err)
	}
	for _, u := range []string{"mm", "cm", "in"} {
		x.Post("/boxes/1/units", "units", u, "stop", "box")
		after, err := design.Make(t.Context(), x.Box(id).Inputs)
		if err != nil {
			t.Fatal(err)
		}
		for i, p := range after.Parts {
			if q := before.Parts[i]; p.Pattern.Width != q.Pattern.Width || p.Pattern.Height != q.Pattern.Height {
				t.Errorf("in %s the %s's blank is %v × %v; was %v × %v", u, p.ID, p.Pattern.Width, p.Pattern.Height, q.Pattern.Width, q.Pattern.Height)
			}
		}
	}
}

// Every format is to be had from the page.
func TestFilesForOthers(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	for path, want := range map[string]string{
		"svg": "PK", "dxf": "PK", "dxf&packed=1": "PK", "svg&packed=1&mirror=1": "PK", "csv": "piece,copies", "stl": "finished box", "obj": "# the finished box", "pdf&paper=letter": "PK", "pdf&packed=1": "%PDF",
	} {
		if code, body, _ := x.Get("/boxes/1/export?to=" + path); code != http.StatusOK || !strings.Contains(body, want) {
			t.Errorf("%s: %d without %q", path, code, want)
		}
	}
	if code, _, _ := x.Get("/boxes/1/export?to=dwg"); code != http.StatusNotFound {
		t.Errorf("an unknown format: %d", code)
	}
}

// A mat goes on whatever faces are ticked, or on the face that was pressed; the
// border up follows the one across until it is typed.
func TestMatsOnChosenFaces(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	x.Post("/boxes/1/dressing", "mats.add", "base", "mats.face", "front")
	x.Post("/boxes/1/dressing", "mats.add", "lid")
	mats := x.Box(id).Inputs.Mats
	if len(mats) != 2 || strings.Join(mats[0].Faces, " ") != "front" || strings.Join(mats[1].Faces, " ") != "top" {
		t.Fatalf("mats on %+v", mats)
	}
	x.Post("/boxes/1/dressing", "mats[0].asked", "1", "mats[0].faces", "front", "mats[0].faces", "back", "mats[0].layers", "4", "mats[0].layers[0].border", "1/8", "mats[0].layers[0].up", "1/16")
	m := x.Box(id).Inputs.Mats[0]
	if strings.Join(m.Faces, " ") != "front back" || len(m.Layers) != 4 || m.Layers[0].Border.Across != measure.Inch/8 || m.Layers[0].Border.Up != measure.Inch/8 {
		t.Errorf("after a change: %+v", m)
	}
	x.Post("/boxes/1/dressing", "mats[0].layers[0].up", "1/4")
	if m = x.Box(id).Inputs.Mats[0]; m.Layers[0].Border.Across != measure.Inch/8 || m.Layers[0].Border.Up != measure.Inch/4 {
		t.Errorf("borders: %+v", m.Layers[0].Border)
	}
	if code, body, _ := x.Post("/boxes/1/dressing", "mats[1].asked", "1", "mats[1].faces", "front.left"); code != http.StatusUnprocessableEntity || !strings.Contains(body, "is glued") {
		t.Errorf("a mat on a tab that is glued: %d", code)
	}
	if code, _, _ := x.Post("/boxes/1/dressing", "mats[1].asked", "1"); code != http.StatusUnprocessableEntity {
		t.Errorf("a mat on no face: %d", code)
	}
	x.Post("/boxes/1/dressing", "mats.remove", "0")
	if mats = x.Box(id).Inputs.Mats; len(mats) != 1 || mats[0].Piece != "lid" {
		t.Errorf("what is left: %+v", mats)
	}
}

// The same box in the other unit is a box of its own, on that unit's marks; the first stays.
func TestASisterInTheOtherUnit(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in := design.New("Cards", measure.In, "tray-lid")
	in.Size["length"], in.Size["width"], in.Size["height"] = 4*measure.Inch, 3*measure.Inch, 3*measure.Inch/2
	id, err := x.Store.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	if _, page, _ := x.Get(fmt.Sprintf("/boxes/%d/box", id)); !strings.Contains(page, fmt.Sprintf(`href="/boxes/%d/sister"`, id)) {
		t.Error("the page does not offer it")
	}
	at := fmt.Sprintf("/boxes/%d/sister", id)
	if code, page, _ := x.Get(at); code != http.StatusOK || !strings.Contains(page, "in centimetres") || !strings.Contains(page, "10.2 cm") {
		t.Errorf("what changes: %d", code)
	}
	if code, _, _ := x.Post(at); code >= 400 {
		t.Fatalf("it cannot be made: %d", code)
	}
	b := x.Box(id + 1).Inputs
	if b.Units != measure.CM || b.Name != "Cards, in centimetres" || b.Size["length"] != 102*measure.Millimetre || b.Size["height"] != 38*measure.Millimetre || b.Tools.Tick != measure.CM.Tick() {
		t.Errorf("the sister is %+v", b)
	}
	if was := x.Box(id).Inputs; was.Units != measure.In || was.Size["length"] != 4*measure.Inch {
		t.Errorf("the first is %+v", was)
	}
	if _, page, _ := x.Get(fmt.Sprintf("/boxes/%d/sister", id+1)); !strings.Contains(page, "in inches") || !strings.Contains(page, "10.2 cm") {
		t.Error("a sister has none, or its numbers are not its own")
	}
}
