package style

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Sizes just out of range are refused at their field, with the limit.
func TestLimitsAreSaid(t *testing.T) {
	for _, c := range []struct {
		style   *Style
		size    map[string]measure.Length
		choices map[string]string
		field   string
		says    string
	}{
		{blossomBox, lengths("length", 32, "height", 3, "liner", 31), map[string]string{"lid.walls": "single"}, "size.height", "11.11 mm"},
		{foldOutCarrier, lengths("length", 6), map[string]string{"form": "strip"}, "size.length", "at least"},
		{wovenBasket, lengths("length", 20, "side", 21, "end", 16), nil, "size.side", "63.5 mm"},
		{wovenBasket, lengths("length", 28, "side", 16, "end", 16), nil, "size.length", "do not meet"},
		{wovenBasket, lengths("length", 16, "side", 16, "end", 24), nil, "size.end", "can be at most"},
		{wovenBasket, lengths("handle.length", 32), nil, "size.handle.length", "at least"},
		{facetBasket, lengths("width", 32, "height", 16, "bevel", 8, "lip", 9, "slant", 11), nil, "size.lip", "25.4 mm"},
		{facetBasket, lengths("width", 32, "height", 24, "bevel", 8, "lip", 9, "slant", 15), nil, "size.slant", "38.1 mm"},
		{facetBasket, lengths("width", 16, "bevel", 7, "height", 32), nil, "size.bevel", "19.4 mm"},
		{dispenser, lengths("length", 32, "width", 16, "ledge", 4, "window.length", 25), nil, "options.window.length", "76.2 mm"},
		{dispenser, lengths("length", 16, "width", 17), nil, "size.width", "50.8 mm"},
		{flatFoldTray, lengths("width", 16, "height", 17), nil, "size.height", "50.8 mm"},
		{cornerShells, lengths("length", 16, "height", 9, "panel", 17), nil, "size.height", "25.4 mm"},
		{walletBox, lengths("length", 16, "notch", 16, "flap", 24), nil, "options.notch", "0 for none"},
		{drawerSleeve, lengths("width", 16, "height", 4, "notch", 8), map[string]string{"notch.on": "drawer"}, "options.notch", "25.4 mm"},
		{drawerSleeve, lengths("length", 12, "notch", 16), nil, "options.notch", "50.8 mm"},
		{tallBox, lengths("width", 20, "depth", 16, "bottom", 7), nil, "size.bottom", "25.4 mm"},
		{tallBox, lengths("width", 20, "depth", 16, "bottom", 17), nil, "size.bottom", "50.8 mm"},
		{tallBox, lengths("width", 16, "depth", 20, "bottom", 12), map[string]string{"top": "pinch"}, "size.depth", "50.8 mm"},
		{tallBox, lengths("height", 24), nil, "size.height", "at least 96.2 mm"},
		{gableLid, lengths("width", 18, "slope", 9), nil, "size.slope", "30.16 mm"},
		{archedBox, lengths("width", 8, "tab", 5), nil, "size.tab", "12.7 mm"},
		{tower, lengths("length", 16, "step", 8), nil, "size.step", "12 mm"},
		{tower, lengths("sheet.1", 96, "sheet.2", 96), map[string]string{"grade": "sheets"}, "size.sheet.2", "304.8 mm"},
		{tower, lengths("sheet.1", 32, "sheet.2", 24, "sheet.3", 20, "height.1", 15), map[string]string{"grade": "sheets", "boxes": "tray"}, "size.height.1", "at most"},
		{nest, size(inch, inch, inch/4), map[string]string{"count": "5"}, "size.height", "6 mm"},
	} {
		_, err := c.style.Make(usual(c.style, c.size, c.choices))
		if err == nil || fault.Of(err).Field != c.field || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: got %v; want a fault at %s with %q", c.style.ID, err, c.field, c.says)
		}
	}
}

// A size that makers have reasons for is made, judged, and the value named that mends it.
func TestWhatCanBeFoldedIsMadeAndJudged(t *testing.T) {
	for _, c := range []struct {
		style   *Style
		size    map[string]measure.Length
		choices map[string]string
		field   string
		to      string
	}{
		{trayLid, lengths("height", 8, "lid.depth", 9), nil, "options.lid.depth", "25.4 mm"},
		{polygonBox, lengths("height", 8, "lid.depth", 9), nil, "options.lid.depth", "25.4 mm"},
		{hingedCarton, lengths("height", 8, "flap", 9), nil, "size.flap", "25.4 mm"},
		{walletBox, lengths("front", 27, "back", 26), nil, "size.front", "82.55 mm"},
		{blossomBox, lengths("length", 32, "height", 16, "liner", 32), nil, "size.liner", "100.01 mm"},
		{foldOutCarrier, lengths("height", 8, "lid.depth", 9), nil, "size.lid.depth", "25.4 mm"},
		{foldOutCarrier, lengths("width", 8, "cap.depth", 12), nil, "options.cap.depth", "30.16 mm"},
		{flatFoldTray, lengths("height", 8, "flap", 10), nil, "size.flap", "26.99 mm"},
		{flatFoldTray, lengths("lid.allowance", measure.Length(0)), nil, "options.lid.allowance", "0.79 mm"},
		{cornerShells, lengths("length", 24, "panel", 23), nil, "size.panel", "76.2 mm"},
		{bookWrap, lengths("width", 16, "margin", 1, "front", 15, "back", 17), nil, "size.front", "50.8 mm"},
		{bookWrap, lengths("depth", 8, "spine", 7), nil, "size.spine", "25.4 mm"},
		{bookWrap, lengths("height", 20, "tall", 22, "strap", 21), nil, "size.strap", "63.5 mm"},
		{boundBox, lengths("front", 12, "flap", 10), nil, "size.flap", "29.37 mm"},
		{boundBox, lengths("height", 12, "front", 13), nil, "size.front", "38.1 mm"},
		{walletBox, lengths("front", 16, "back", 26, "flap", 8), nil, "size.flap", "42.07 mm"},
		{gableLid, lengths("height", 8, "wall", 9), nil, "size.wall", "25.4 mm"},
		{foldTopBag, lengths("depth", 16, "turn", 7), nil, "size.turn", "25.4 mm"},
	} {
		b, err := c.style.Make(usual(c.style, c.size, c.choices))
		if err != nil {
			t.Errorf("%s: %v", c.style.ID, err)
			continue
		}
		i := slices.IndexFunc(b.Remarks, func(r Remark) bool { return r.Field == c.field })
		if i < 0 {
			t.Errorf("%s: nothing is said of %s: %+v", c.style.ID, c.field, b.Remarks)
			continue
		}
		r := b.Remarks[i]
		if got := measure.Label(r.To, measure.MM, measure.Hundredth); got != c.to || !strings.Contains(r.Text, "That is ") {
			t.Errorf("%s: %s is mended by %s, not %s: %s", c.style.ID, c.field, got, c.to, r.Text)
		}
		id := strings.TrimPrefix(strings.TrimPrefix(c.field, "size."), "options.")
		mended := usual(c.style, c.size, c.choices)
		mended.Lengths[id] = r.To
		if b, err := c.style.Make(mended); err != nil || slices.ContainsFunc(b.Remarks, func(r Remark) bool { return r.Field == c.field }) {
			t.Errorf("%s: at %s there is something to remark still: %v", c.style.ID, c.to, err)
		}
	}
}
