package design

import (
	"fmt"
	"math"
	"reflect"
	"strings"
	"testing"

	"brevium/core/inspect"
	"brevium/core/pattern"
)

// withPlaced is a design file of a style with things placed on it.
func withPlaced(t *testing.T, style, more string) *Result {
	t.Helper()
	in, err := Read([]byte(fmt.Sprintf(`{"brevium":1,"name":"Fair","units":"in","style":%q,%s}`, style, more)))
	if err != nil {
		t.Fatal(err)
	}
	again, err := ReadKept(in.Write())
	if err != nil || !reflect.DeepEqual(again.Labels, in.Labels) {
		t.Errorf("it is read back otherwise: %v\n%+v\n%+v", err, again.Labels, in.Labels)
	}
	r, err := Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

func toldOf(r *Result) string {
	var out []string
	for _, s := range r.Steps {
		out = append(out, s.Text)
	}
	return strings.Join(out, "\n")
}

func labelled(r *Result, want inspect.Verdict) string {
	for _, f := range r.Checks {
		if f.ID == "label" && f.Verdict == want {
			return f.Text
		}
	}
	return ""
}

const gold = `"layers":[{"card":{"name":"Gold card","gsm":220}}]`

// A heart on the front of a wallet, 1/2 in from its top edge: it is told so, and lies there.
func TestAHeartIsPlacedFromTheTop(t *testing.T) {
	t.Parallel()
	r := withPlaced(t, "hinged-carton", `"placed":[{"id":"heart","what":"label","name":"Heart","shape":"heart","width":"1 in","height":"1 in",`+gold+`,
		"on":{"piece":"body","face":"front"},"up":{"from":"top","at":"1/2 in"}}]`)
	if said := toldOf(r); !strings.Contains(said, "Glue the heart on the front wall of the carton, 1/2 in from its top edge, upright.") {
		t.Errorf("the steps say %s", said)
	}
	f, _ := r.faceOf(r.Inputs.Labels[0])
	fr := f.Frame()
	_, up := fr.Size(f.Polygon)
	hi := math.Inf(-1)
	for _, q := range r.LabelMats()[0].On[0].Corners {
		hi = max(hi, q.Sub(fr.Origin).Dot(fr.Up))
	}
	if math.Abs(hi-(up-12.7)) > 1e-6 {
		t.Errorf("its top lies %v over the foot of a front %v high", hi, up)
	}
}

// A scalloped circle half over the edge of a wallet's flap is glued to the flap alone.
func TestATopperStandsOverAFlap(t *testing.T) {
	t.Parallel()
	r := withPlaced(t, "wallet-box", `"size":{"length":"5 1/2 in","front":"4 in","back":"4 in","depth":"1 1/4 in","flap":"1 1/4 in"},
		"placed":[{"id":"scallop","what":"topper","name":"Scalloped circle","shape":"scallop","width":"1 1/2 in","height":"1 1/2 in",`+gold+`,
		"on":{"piece":"body","face":"flap"},"up":{"from":"bottom","at":"-3/4 in"}}]`)
	if said := toldOf(r); !strings.Contains(said, "on the flap of the wallet, 3/4 in over its bottom edge, upright.") {
		t.Errorf("the steps say %s", said)
	}
	if said := labelled(r, inspect.OK); !strings.Contains(said, "3/4 in over its bottom edge, as wished: glue it to the flap alone") {
		t.Errorf("it is judged %q, %q", said, labelled(r, inspect.Warn))
	}
	// At the very edge, but higher than the flap: over the other edge, which nobody asked for.
	r.Inputs.Labels[0].Place.Up.At = 0
	if high, err := Make(t.Context(), r.Inputs); err != nil || !strings.Contains(labelled(high, inspect.Warn), "over its top edge") {
		t.Errorf("at the edge: %v, %q", err, labelled(high, inspect.Warn))
	}
	r.Inputs.Labels[0].Place.Up.From = "" // in the middle it is wider than the flap is high
	again, err := Make(t.Context(), r.Inputs)
	if err != nil || !strings.Contains(labelled(again, inspect.Warn), "larger than its place") {
		t.Errorf("in the middle: %v", err)
	}
}

// A round tag over the join of a band, in the middle of the front: it goes on the band, which
// still slides; on the front beside it, it would hold the band.
func TestATagOverABandsJoin(t *testing.T) {
	t.Parallel()
	band := `"size":{"length":"3 in","width":"2 in","height":"2 in"},"bands":[{"id":"band","axis":"height","width":"1 in","join":"front"}],`
	r := withPlaced(t, "hinged-carton", band+`"placed":[{"id":"tag","what":"tag","name":"Round tag","shape":"circle","width":"1 1/4 in","height":"1 1/4 in",`+gold+`,"on":{"band":"band"}}]`)
	said := toldOf(r)
	if !strings.Contains(said, "Glue the round tag on the belly band, over its join, and nowhere on the box.") || strings.Contains(said, "A label hides the join") {
		t.Errorf("the steps say %s", said)
	}
	if on, off := strings.Index(said, "over its join"), strings.Index(said, "to the band only"); off < 0 || on < off {
		t.Errorf("the tag goes on before the band: %s", said)
	}
	r = withPlaced(t, "hinged-carton", band+`"placed":[{"id":"tag","what":"tag","name":"Round tag","shape":"circle","width":"1 1/4 in","height":"1 1/4 in",`+gold+`,"on":{"piece":"body","face":"front"}}]`)
	if said := labelled(r, inspect.Warn); !strings.Contains(said, "holds it fast: glue it on the band alone") {
		t.Errorf("on the front it is judged %q", said)
	}
}

// Two on one spot are said; beside one another they are not.
func TestLabelsBesideOneAnother(t *testing.T) {
	t.Parallel()
	one := func(id, across string) string {
		return fmt.Sprintf(`{"id":%q,"what":"label","name":%q,"shape":"rectangle","width":"1 in","height":"1 in",%s,"on":{"piece":"lid","face":"panel"},"across":%s}`, id, id, gold, across)
	}
	box := `"size":{"length":"5 in","width":"4 in","height":"2 in"},`
	var p pattern.Face
	in, err := Read([]byte(`{"brevium":1,"units":"in","style":"tray-lid"}`))
	if err != nil {
		t.Fatal(err)
	}
	bare, err := Sketch(in)
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range bare.Parts[1].Faces {
		if f.Role == pattern.Panel {
			p = f
		}
	}
	fix := func(s string) string { return strings.ReplaceAll(s, `"panel"`, `"`+p.Name+`"`) }
	r := withPlaced(t, "tray-lid", box+fix(`"placed":[`+one("moon", `{"from":"left","at":"1/4 in"}`)+","+one("star", `{"from":"right","at":"1/4 in"}`)+`]`))
	if said := labelled(r, inspect.Warn); said != "" {
		t.Errorf("beside one another: %s", said)
	}
	r = withPlaced(t, "tray-lid", box+fix(`"placed":[`+one("moon", `{"from":"left","at":"1/4 in"}`)+","+one("star", `{"from":"left","at":"1 in"}`)+`]`))
	if said := labelled(r, inspect.Warn); !strings.Contains(said, "lies over the moon") {
		t.Errorf("one over the other: %q", said)
	}
	if said := toldOf(r); !strings.Contains(said, "1/4 in from its left edge, upright") {
		t.Errorf("the steps say %s", said)
	}
}

// What cannot be placed is refused at its field.
func TestWhatCannotBePlaced(t *testing.T) {
	t.Parallel()
	for placed, says := range map[string]string{
		`{"what":"lantern","name":"x","shape":"star","width":20,"height":20,` + gold + `}`:                                   "placed[0].what: what is placed is a window or one of",
		`{"what":"label","name":"x","shape":"star","width":20,"height":20,` + gold + `,"on":{"band":"none"}}`:                `no band "none"`,
		`{"what":"label","name":"x","shape":"star","width":20,"height":20,` + gold + `,"on":{"piece":"tray","face":"roof"}}`: `no face "roof"`,
		`{"what":"label","name":"x","shape":"star","width":20,"height":20,` + gold + `,"side":"inside"}`:                     "lies on the outside",
		`{"what":"label","name":"x","shape":"star","width":20,"height":20,` + gold + `,"across":{"from":"top","at":2}}`:      "left, right or middle",
		`{"what":"label","name":"x","shape":"star","width":20,"height":20,` + gold + `,"turn":400}`:                          "180 degrees",
	} {
		in, err := Read([]byte(`{"brevium":1,"units":"mm","style":"tray","placed":[` + placed + `]}`))
		if err == nil {
			_, err = Make(t.Context(), in)
		}
		if err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%s: %v, not %q", placed, err, says)
		}
	}
}
