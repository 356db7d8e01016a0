package workspace_test

import (
	"net/http"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/web/webtest"
)

// Ten sheets measured together are typed as such and stay so; a new weight leaves what
// was measured alone; a box whose card the drawer knows better is offered that.
func TestACardIsMeasured(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	x.Post("/boxes/1/box", "card.name", "Oat card", "card.gsm", "240", "card.thickness", "3.05 for 10")
	c := x.Box(id).Inputs.Card
	if c.Thickness != 305*measure.Micrometre || c.Measured != 10 {
		t.Fatalf("the card is %v mm, %s", c.Thickness.MM(), c.ThicknessFrom())
	}
	_, page, _ := x.Get("/boxes/1/box")
	if !strings.Contains(page, `value="3.05 mm for 10"`) || !strings.Contains(page, "measured, 10 sheets together") {
		t.Error("it is not shown how it was measured")
	}
	x.Post("/boxes/1/box", "card.gsm", "250", "card.thickness", "3.05 mm for 10")
	if c := x.Box(id).Inputs.Card; c.GSM != 250 || c.Thickness != 305*measure.Micrometre || c.Measured != 10 {
		t.Errorf("a new weight makes it %v mm, %s", c.Thickness.MM(), c.ThicknessFrom())
	}
	for _, bad := range []string{"3 for none", "thick"} {
		if code, page, _ := x.Post("/boxes/1/box", "card.thickness", bad); code != http.StatusUnprocessableEntity || !strings.Contains(page, bad) {
			t.Errorf("%q: %d", bad, code)
		}
	}
	x.Post("/drawer/import", "list", "card,gsm,sheet,thickness\nPlum card,220,12 × 12 in,2.9 mm for 10")
	second := x.JarBox()
	x.Post("/boxes/2/box", "card.name", "Plum card", "card.gsm", "220")
	if c := x.Box(second).Inputs.Card; c.Measured != 0 {
		t.Fatalf("the card is %s", c.ThicknessFrom())
	}
	_, page, _ = x.Get("/boxes/2/box")
	if !strings.Contains(page, "take 2.9 mm for 10") {
		t.Fatal("the drawer's thickness is not offered")
	}
	part := page[strings.Index(page, "In the drawer it is"):]
	x.Post("/boxes/2/box", "card.pick", webtest.ButtonValue(t, part, "card.pick"))
	if c := x.Box(second).Inputs.Card; c.Thickness != 290*measure.Micrometre || c.Measured != 10 {
		t.Errorf("taken from the drawer it is %v mm, %s", c.Thickness.MM(), c.ThicknessFrom())
	}
}
