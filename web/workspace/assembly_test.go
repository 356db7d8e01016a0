package workspace_test

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/web/webtest"
)

// A small box of an assembly is opened, gets a card and a tick of its own, a
// paper on its lid, and becomes a box of its own with all of them.
func TestSmallBoxesAreOpened(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.Carried()
	if _, body, _ := x.Get(fmt.Sprintf("/boxes/%d/box", id)); strings.Count(body, "/small/box-") != 3 {
		t.Error("the three small boxes cannot be opened from the page of the box")
	}
	here := fmt.Sprintf("/boxes/%d/small/box-2", id)
	code, body, _ := x.Get(here)
	for _, want := range []string{"Box 2", "Base with a lift-off lid", "Lid 2", "Cut box 2: "} {
		if code != http.StatusOK || !strings.Contains(body, want) {
			t.Errorf("%s: %d, without %q", here, code, want)
		}
	}
	if strings.Contains(body, "the same as") {
		t.Error("its steps are told by another's")
	}
	if to := x.Submit(fmt.Sprintf("/boxes/%d/box", id), url.Values{"to": {here}, "cards.box-2.name": {"Berry card"}}); to != here {
		t.Errorf("its card leads to %q", to)
	}
	if got := x.Box(id).Inputs.Cards; len(got) != 1 || got["box-2"].Name != "Berry card" {
		t.Errorf("cards: %v", got)
	}
	x.Submit(fmt.Sprintf("/boxes/%d/dressing", id), url.Values{"mats.add": {"lid-2"}})
	if to := x.Submit(fmt.Sprintf("/boxes/%d/tick", id), url.Values{"to": {here}, "step": {"fold/box-2"}, "mark": {"x"}, "done": {"1"}}); to != here {
		t.Errorf("its tick leads to %q", to)
	}
	to := x.Submit(here+"/alone", nil)
	own := x.Box(id + 1)
	if to != fmt.Sprintf("/boxes/%d/box", id+1) || own.Inputs.Style != "tray-lid" || own.Inputs.Cards["base"].Name != "Berry card" ||
		len(own.Inputs.Mats) != 1 || own.Inputs.Mats[0].Piece != "lid" {
		t.Errorf("by itself, at %s: %+v", to, own.Inputs)
	}
	of, err := design.Make(t.Context(), x.Box(id).Inputs)
	if err != nil {
		t.Fatal(err)
	}
	alone, err := design.Make(t.Context(), own.Inputs)
	if err != nil {
		t.Fatal(err)
	}
	if a, b := alone.Parts[0].Pattern, of.Parts[3].Pattern; a.Width != b.Width || a.Height != b.Height {
		t.Errorf("by itself its blank is %v × %v", a.Width, a.Height)
	}
	if code, _, _ := x.Get(fmt.Sprintf("/boxes/%d/small/box-9", id)); code != http.StatusNotFound {
		t.Errorf("a box that is not there: %d", code)
	}
}

// A loose piece is added, drawn as it is filled in, refused at its field, dressed,
// and taken away with its paper.
func TestLooseSlip(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	at := fmt.Sprintf("/boxes/%d/dressing", id)
	x.Post(at, "loose.add", "strap")
	code, body, _ := x.Post(at, "loose[0].name", "Sash", "loose[0].width", "8", "loose[0].scores.vertical", "1; 7", "loose[0].holes", "4, 3/8: 1/8",
		"loose[0].slits", "2, 1/4 to 2, 1/2", "loose[0].corners", "rounded")
	p := x.Box(id).Inputs.Loose
	if code != http.StatusOK || len(p) != 1 || p[0].Width != 8*measure.Inch || len(p[0].Vertical) != 2 || len(p[0].Holes) != 1 || len(p[0].Slits) != 1 ||
		!strings.Contains(body, "Sash, flat, outside up") {
		t.Errorf("%d: %+v", code, p)
	}
	for field, wrong := range map[string][2]string{
		"loose[0].scores.vertical": {"1; nine", "nine"}, "loose[0].holes": {"4: 1", "a place as"}, "loose[0].slits": {"1, 1", "a line as"}, "loose[0].width": {"1/16", "it can be"},
	} {
		code, body, _ := x.Post(at, field, wrong[0])
		if code != http.StatusUnprocessableEntity || !strings.Contains(body, wrong[1]) {
			t.Errorf("%s = %s: %d without %q", field, wrong[0], code, wrong[1])
		}
		if got := x.Box(id).Inputs.Loose[0]; got.Width != 8*measure.Inch || len(got.Vertical) != 2 {
			t.Errorf("%s = %s changed it to %+v", field, wrong[0], got)
		}
	}
	x.Post(at, "mats.add", p[0].PieceID())
	x.Post(fmt.Sprintf("/boxes/%d/box", id), "style", "tray")
	if in := x.Box(id).Inputs; len(in.Loose) != 1 || len(in.Mats) != 1 {
		t.Errorf("in another kind of box: %d loose pieces, %d papers", len(in.Loose), len(in.Mats))
	}
	x.Post(at, "loose.remove", "0")
	if in := x.Box(id).Inputs; len(in.Loose) != 0 || len(in.Mats) != 0 {
		t.Errorf("taken away: %+v, %d papers", in.Loose, len(in.Mats))
	}
}

// The manners of parting things are compared by card and air, and the one that is
// pressed is taken; what makes no sense is one press away with its reason.
func TestPartedAndCompared(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in, err := design.Read([]byte(`{"brevium":1,"name":"x","units":"mm","style":"tray-lid",
	 "contents":[{"name":"vial","across":20,"height":55,"count":4},{"name":"deck","length":90,"width":62,"height":20}]}`))
	if err != nil {
		t.Fatal(err)
	}
	id, err := x.Store.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	_, body, _ := x.Get(fmt.Sprintf("/boxes/%d/parted", id))
	for _, want := range []string{"nothing between them", "dividers in a grid", "dividers that end in others", "small trays", "a floor with holes", "% air"} {
		if !strings.Contains(body, want) {
			t.Errorf("the manners are without %q", want)
		}
	}
	x.Post(fmt.Sprintf("/boxes/%d/contents", id), "parted", "1", "compartments.per", "thing", "compartments.as", "dividers", "stand", "bands-2-1")
	if got := x.Box(id).Inputs; got.Stand != "bands-2-1" || got.Compartments.As != design.AsDividers {
		t.Errorf("they stand in %q, %+v", got.Stand, got.Compartments)
	}
	_, body, _ = x.Get(fmt.Sprintf("/boxes/%d/compare", id))
	if !strings.Contains(body, "don’t fit this") || !strings.Contains(body, "<dt>Corner shells</dt>") {
		t.Error("nothing is hidden of what makes no sense")
	}
	if _, body, _ = x.Get(fmt.Sprintf("/boxes/%d/box", id)); !strings.Contains(body, "Kinds that don’t fit: see why") || strings.Contains(body, `id="not-going"`) {
		t.Error("why kinds do not fit is not to be asked")
	}
	if _, body, _ = x.Get(fmt.Sprintf("/boxes/%d/box?kinds=all", id)); !strings.Contains(body, "kinds don’t fit</summary>") || !strings.Contains(body, `id="tile-corner-shells"`) {
		t.Error("asked, the kinds that do not fit are not told")
	}
}

// A belly band is put round, told with its girth, refused at its field and taken
// away.
func TestBellyBand(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	at := fmt.Sprintf("/boxes/%d/dressing", id)
	if code, body, _ := x.Post(at, "bands.add", "1"); code != http.StatusOK || !strings.Contains(body, "2 of these") {
		t.Errorf("a band longer than every sheet is not of two strips: %d", code)
	}
	x.Post(at, "bands.remove", "0")
	x.Post(fmt.Sprintf("/boxes/%d/sheets", id), "choosing-sheets", "1", "sheets", "A3", "tools.trimmer", "16")
	x.Post(at, "bands.add", "1")
	code, body, _ := x.Post(at, "bands[0].axis", "width", "bands[0].width", "2", "bands[0].card.name", "Berry paper")
	if b := x.Box(id).Inputs.Bands; code != http.StatusOK || len(b) != 1 || b[0].Axis != "width" || b[0].Width != 2*measure.Inch || b[0].Card == nil {
		t.Errorf("%d: %+v", code, b)
	}
	if !strings.Contains(body, "round, and it slides") || !strings.Contains(body, "Belly band, flat, outside up") {
		t.Error("the band is not drawn or its girth is not told")
	}
	if code, body, _ := x.Post(at, "bands[0].at", "9"); code != http.StatusUnprocessableEntity || !strings.Contains(body, "beside the box") {
		t.Errorf("beside the box: %d", code)
	}
	if _, body, _ := x.Get(fmt.Sprintf("/boxes/%d/making", id)); !strings.Contains(body, "Put the belly band round the width") {
		t.Error("no step puts it on")
	}
	x.Post(at, "bands.remove", "0")
	if b := x.Box(id).Inputs.Bands; len(b) != 0 {
		t.Errorf("taken away: %+v", b)
	}
}

// A thing in two sizes makes a set: a second box of the same kind and card, and a
// job of both. What cannot be is said at its field.
func TestSetOfTwoSizes(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	in, err := design.Read([]byte(`{"brevium":1,"name":"Mint tin","units":"mm","style":"book-wrap","contents":[{"name":"tin","length":44,"width":66,"height":15}],"card":{"name":"Berry card","gsm":240}}`))
	if err != nil {
		t.Fatal(err)
	}
	id, err := x.Store.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	at := fmt.Sprintf("/boxes/%d/set", id)
	if to := x.Submit(at, url.Values{"set.length": {"60"}, "set.width": {"90"}, "set.height": {"20"}}); to != "/jobs/1" {
		t.Errorf("a set leads to %q", to)
	}
	second := x.Box(id + 1).Inputs
	if second.Things[0].Length != 60*measure.Millimetre || second.Style != "book-wrap" || second.Card.Name != "Berry card" {
		t.Errorf("the second is %+v", second)
	}
	if code, body, _ := x.Get("/jobs/1"); code != http.StatusOK || !strings.Contains(body, "second size") {
		t.Errorf("the job: %d", code)
	}
	if code, body, _ := x.Post(at, "set.length", "wide"); code != http.StatusUnprocessableEntity || !strings.Contains(body, "Not yet") {
		t.Errorf("a size that is none: %d", code)
	}
}

// A basket is begun from a whole sheet in thirds.
func TestBasketFromASheetInThirds(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	n, err := x.Store.Of(t.Context()).Add(t.Context(), design.New("Eggs", measure.MM, "woven-basket"))
	if err != nil {
		t.Fatal(err)
	}
	at := fmt.Sprintf("/boxes/%d/biggest", n)
	if _, body, _ := x.Get(at + "?sheet=own&sheet.width=180&sheet.height=225&keep=parted"); !strings.Contains(body, "75 × 60 × 60 mm") {
		t.Errorf("a sheet in thirds gives\n%s", body)
	}
	x.Submit(at, url.Values{"sheet": {"own"}, "sheet.width": {"180"}, "sheet.height": {"225"}, "keep": {"parted"}, "style": {"woven-basket"},
		"length": {"75"}, "width": {"60"}, "height": {"60"}})
	if got := x.Box(n).Inputs.Size; got["end"] != 75*measure.Millimetre || got["side"] != 60*measure.Millimetre {
		t.Errorf("it took %v", got)
	}
}
