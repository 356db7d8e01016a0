package papers_test

import (
	"fmt"
	"net/http"
	"regexp"
	"strings"
	"testing"

	"brevium/core/drawer"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/webtest"
)

// A maker's own paper is photographed, straightened, and lies in the drawer; a box
// is dressed with it by its swatch, and every page shows it.
func TestAPaperOfOnesOwn(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	c := x.Photographed(1)
	if c.Look.Photo.Wide != 160*measure.Millimetre || c.Look.Photo.High != 120*measure.Millimetre || c.Direction != paper.OneWayUp {
		t.Fatalf("in the drawer lies %+v", c)
	}
	url := "/papers/" + c.Look.Photo.ID + ".jpg"
	code, body, header := x.Get(url)
	if code != http.StatusOK || header.Get("Content-Type") != "image/jpeg" || !strings.HasPrefix(body, "\xff\xd8") || !strings.Contains(header.Get("Cache-Control"), "immutable") {
		t.Errorf("the photograph: %d %v", code, header)
	}
	if _, page, _ := x.Get("/drawer"); !strings.Contains(page, url) {
		t.Error("the drawer does not show the paper")
	}
	id := x.JarBox()
	at := fmt.Sprintf("/boxes/%d/dressing", id)
	x.Post(at, "mats.add", "base")
	code, page, _ := x.Post(at, "card.pick", "mats[0].layers[1]="+form.CardText(c))
	if code >= 400 {
		t.Fatal(page)
	}
	if got := x.Box(id).Inputs.Mats[0].Layers[1].Card; got != c {
		t.Errorf("the box is dressed in %+v; want %+v", got, c)
	}
	for _, page := range []string{at, fmt.Sprintf("/boxes/%d/sheets", id), fmt.Sprintf("/boxes/%d/motion.json", id), "/"} {
		if _, text, _ := x.Get(page); !strings.Contains(text, url) {
			t.Errorf("%s does not show the paper", page)
		}
	}
	if code, _, _ := x.Get(fmt.Sprintf("/boxes/%d/sheet.pdf", id)); code != http.StatusOK {
		t.Errorf("its print: %d", code)
	}
}

// A box in four photographed papers: its page and all its pictures are small.
func TestPhotographedPapersAreLight(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	at := fmt.Sprintf("/boxes/%d/dressing", id)
	x.Post(at, "mats.add", "base")
	x.Post(at, "mats.add", "lid")
	for n := range 4 {
		x.Post(at, "card.pick", fmt.Sprintf("mats[%d].layers[%d]=%s", n/2, n%2, form.CardText(x.Photographed(n))))
	}
	_, page, _ := x.Get(at)
	all := len(page)
	pictures := map[string]bool{}
	for _, m := range regexp.MustCompile(`/papers/[0-9a-f]+\.jpg`).FindAllString(page, -1) {
		pictures[m] = true
	}
	for p := range pictures {
		_, body, _ := x.Get(p)
		all += len(body)
	}
	if len(pictures) != 4 || all > 600_000 {
		t.Errorf("%d pictures, %d bytes with the page's %d", len(pictures), all, len(page))
	}
}

func TestPicturesThatAreRefused(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	for name, c := range map[string]struct {
		sent []byte
		says string
	}{
		"text":   {[]byte("no picture"), "send a PNG, a JPEG or a WebP"},
		"script": {[]byte(`<svg xmlns="http://www.w3.org/2000/svg" onload="alert(1)"/>`), "send a PNG, a JPEG or a WebP"},
		"cut":    {webtest.PaperPicture(t, 1)[:600], "breaks off"},
		"large":  {make([]byte, 9<<20), "8 MB"},
	} {
		code, page, _ := x.Send("/papers", c.sent)
		if code != http.StatusUnprocessableEntity && code != http.StatusRequestEntityTooLarge || !strings.Contains(page, c.says) && code == http.StatusUnprocessableEntity {
			t.Errorf("%s: %d", name, code)
		}
	}
	for _, path := range []string{"/papers/ffff.jpg", "/papers/../x.jpg", "/papers/ffff/straighten", "/swatch.svg?l=<script>", "/swatch.svg?l=~~unicorns"} {
		if code, _, _ := x.Get(path); code != http.StatusNotFound && code != http.StatusMovedPermanently {
			t.Errorf("%s: %d", path, code)
		}
	}
	_, _, header := x.Send("/papers", webtest.PaperPicture(t, 2))
	code, page, _ := x.Post(header.Get("Location"), "x0", "far left", "wide", "0", "high", "120 mm", "name", "", "gsm", "120")
	if code != http.StatusUnprocessableEntity || !strings.Contains(page, "is no place in the picture") || !strings.Contains(page, "Give the paper a name") {
		t.Errorf("a form of nonsense: %d", code)
	}
}

// A hundred pictures sent and left: the last few wait, the others go.
func TestPicturesLeftBehindGo(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	var first string
	for n := range boxshelf.MostSent + 1 {
		_, _, header := x.Send("/papers", webtest.PaperPicture(t, n))
		if first == "" {
			first = header.Get("Location")
		}
	}
	if code, _, _ := x.Get(first); code != http.StatusNotFound {
		t.Errorf("the first of too many is still there: %d", code)
	}
}

// A card's colours and print are chosen on the ticket and in the drawer, and stay
// its name's until they are.
func TestACardsLook(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	at := fmt.Sprintf("/boxes/%d/box", id)
	x.Post(at, "card.name", "Moss card", "card.look.outside", "#fffdf8", "card.look.inside", "#fffdf8", "card.look.print", "plain")
	if c := x.Box(id).Inputs.Card; c.Look != (paper.Look{}) || c.Seen().Outside != "#76854a" {
		t.Errorf("with a new name it is %+v", c)
	}
	x.Post(at, "card.look.print", "stripes")
	x.Post(at, "card.look.ink1", "#102030", "card.look.scale", "8", "card.look.turn", "90")
	c := x.Box(id).Inputs.Card
	if l := c.Look; l.Print != paper.Stripes || l.Inks[0] != "#102030" || l.Scale != 8*measure.Millimetre || l.Turn != 90 || c.Direction != paper.TwoWays {
		t.Errorf("the look is %+v, running %s", l, c.Direction)
	}
	if code, page, _ := x.Post(at, "card.look.scale", "0.5"); code != http.StatusUnprocessableEntity || !strings.Contains(page, "2 to 150 mm") {
		t.Errorf("a print too fine: %d", code)
	}
	if err := x.Store.Of(t.Context()).AddLots(t.Context(), []drawer.Lot{{Card: paper.Card{Name: "Oat card", GSM: 240, Thickness: 300_000, Direction: paper.NoDirection}, Sheet: "A4", Width: 210 * measure.Millimetre, Height: 297 * measure.Millimetre, Count: 2}}); err != nil {
		t.Fatal(err)
	}
	lots, err := x.Store.Of(t.Context()).Lots(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	_, page, _ := x.Get("/drawer")
	at = regexp.MustCompile(`name="at" value="(paper\w+)"`).FindStringSubmatch(page)[1]
	x.Post("/drawer/look", "at", at, "card", form.CardText(lots[0].Card), at+".look.print", "gingham", at+".look.outside", "#ffffff")
	if lots, err = x.Store.Of(t.Context()).Lots(t.Context()); err != nil || lots[0].Card.Look.Print != paper.Gingham || lots[0].Card.Look.Outside != "#ffffff" {
		t.Errorf("in the drawer: %+v, %v", lots[0].Card.Look, err)
	}
}

// Everything taken along brings the photographs and the looks with it.
func TestPhotographsGoAlong(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	c := x.Photographed(3)
	_, zip, _ := x.Get("/data/everything.zip")
	y := webtest.NewTable(t)
	if code, page, _ := y.Send("/data/bring", []byte(zip)); code >= 400 {
		t.Fatal(page)
	}
	p, err := y.Store.Of(t.Context()).Photo(t.Context(), c.Look.Photo.ID)
	if err != nil || p.Wide != 960 {
		t.Errorf("the photograph: %d wide, %v", p.Wide, err)
	}
	if lots, err := y.Store.Of(t.Context()).Lots(t.Context()); err != nil || len(lots) != 1 || lots[0].Card != c {
		t.Errorf("the drawer: %+v, %v", lots, err)
	}
}

// A print holds the papers, and in lines alone it does not.
func TestPrintsInLinesAlone(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	c := x.Photographed(2)
	id := x.JarBox()
	x.Post(fmt.Sprintf("/boxes/%d/box", id), "card.pick", "card="+form.CardText(c))
	at := fmt.Sprintf("/boxes/%d/sheet.pdf?what=cuts", id)
	_, whole, _ := x.Get(at)
	code, lines, _ := x.Get(at + "&plain=1")
	if code != http.StatusOK || !strings.Contains(whole, "/DCTDecode") || strings.Contains(lines, "/DCTDecode") {
		t.Errorf("the photograph is printed: %v, in lines alone: %v", strings.Contains(whole, "/DCTDecode"), strings.Contains(lines, "/DCTDecode"))
	}
	if _, page, _ := x.Get(fmt.Sprintf("/boxes/%d/making?print=lines", id)); !strings.Contains(page, "&amp;plain=1") {
		t.Error("the making stop does not print in lines alone")
	}
}
