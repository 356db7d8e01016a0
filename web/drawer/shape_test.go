package drawer_test

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"brevium/web/webtest"
)

// An offcut is drawn by its corners, in the page's unit; what is no outline is refused with what was typed.
func TestAnOffcutIsDrawn(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	card := []string{"card", "Oat card", "gsm", "270", "direction", "none", "count", "2"}
	if code, body, _ := x.Post("/drawer/shape", append(card, "shape", "1, 1; 7, 1; 7, 3 1/2; 3, 3 1/2; 3, 5; 1, 5")...); code != http.StatusNoContent {
		t.Fatalf("%d: %s", code, body)
	}
	lots, err := x.Store.Of(t.Context()).Lots(t.Context())
	if err != nil || len(lots) != 1 {
		t.Fatalf("%v, %v", lots, err)
	}
	l := lots[0]
	if l.Shape != "0,0 152.4,0 152.4,63.5 50.8,63.5 50.8,101.6 0,101.6" || !l.Offcut || l.Count != 2 || l.Width.MM() != 152.4 || l.Height.MM() != 101.6 {
		t.Errorf("%+v", l)
	}
	for corners, says := range map[string]string{
		"": "once round", "1, 1; 2": "across, down", "0, 0; 2, 2; 2, 0; 0, 2": "without crossing", "0, 0; 0.1, 0; 0, 0.1": "once round",
		strings.Repeat("1, 1; ", 300): "corners", strings.Repeat("1, 1; ", 2000): "longer than any outline",
	} {
		code, body, _ := x.Post("/drawer/shape", append(card, "shape", corners)...)
		if code != http.StatusUnprocessableEntity || !strings.Contains(body, says) || !strings.Contains(body, `value="Oat card"`) {
			t.Errorf("%.30q: %d, and it does not say %q", corners, code, says)
		}
	}
	if code, body, _ := x.Post("/drawer/shape", "shape", "0, 0; 6, 0; 6, 6", "gsm", "270", "direction", "none", "card", "", "count", "1"); code != http.StatusUnprocessableEntity || !strings.Contains(body, "which card is it") {
		t.Errorf("without a card: %d", code)
	}
}

// A photograph of an offcut on squared paper gives its outline, in whole ticks of the page.
func TestAnOffcutIsPhotographed(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	code, body, header := x.Send("/papers", webtest.OnSquares(t), "next", "shape")
	at := header.Get("Location")
	if code != http.StatusSeeOther || !strings.HasPrefix(at, "/drawer/shape/") {
		t.Fatalf("%d, %q: %s", code, at, body)
	}
	if _, body, _ := x.Get(at); !strings.Contains(body, "Squares round your offcut") {
		t.Error("the marks are not asked for")
	}
	marks := []string{"x0", "0", "y0", "0", "x1", "100", "y1", "0", "x2", "100", "y2", "100", "x3", "0", "y3", "100"}
	if code, body, _ := x.Post(at, append(marks, "wide", "180 mm", "high", "")...); code != http.StatusUnprocessableEntity || !strings.Contains(body, "Not yet") {
		t.Errorf("without a height: %d", code)
	}
	code, body, header = x.Post(at, append(marks, "wide", "180 mm", "high", "120 mm")...)
	to := header.Get("Location") + header.Get("HX-Redirect")
	if code >= 400 || !strings.HasPrefix(to, "/drawer/shape?") {
		t.Fatalf("%d, %q: %s", code, to, body)
	}
	_, body, _ = x.Get(to)
	q, err := url.Parse(to)
	if err != nil {
		t.Fatal(err)
	}
	if !strings.Contains(body, "found in your photograph") || !strings.Contains(body, `href="/papers/`+q.Query().Get("over")+`.jpg"`) || !strings.Contains(body, `viewBox="-4 -4 188 128"`) {
		t.Errorf("%s", body)
	}
	if n := strings.Count(q.Query().Get("found"), "-") + 1; n != 12 {
		t.Errorf("%d numbers are found: %s", n, to)
	}
	// In another unit it is the same photograph and outline.
	code, _, header = x.Post("/units", "units", "mm", "to", to)
	if back := header.Get("Location") + header.Get("HX-Redirect"); code >= 400 || back != to {
		t.Errorf("another unit goes to %q", back)
	}
}
