package design

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/dress"
	"brevium/core/inspect"
	"brevium/core/label"
	"brevium/core/loose"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/sample"
	"brevium/core/style"
)

// A drawer with a sleeve as it is dressed for a fair: a banner on the roof, half an inch from its
// left edge, a flat bow on the end of the drawer, a pull of three inches of ribbon through it. The
// sleeve goes over none of them.
func TestADrawerWithAPullAndABow(t *testing.T) {
	t.Parallel()
	r := withPlaced(t, "drawer-sleeve", `"ribbons":[{"way":"pull","width":"1/4 in","length":"3 in"}],
		"placed":[{"id":"banner","what":"label","name":"Banner","shape":"banner","width":"2 in","height":"3/4 in",`+gold+`,"on":{"piece":"sleeve","face":"roof"},"across":{"from":"left","at":"1/2 in"}},
		{"id":"bow","what":"bow","on":{"piece":"drawer","face":"left"},"up":{"from":"top","at":"1/8 in"}}]`)
	for _, c := range r.Checks {
		if c.Verdict != inspect.OK {
			t.Errorf("%s: %s", c.ID, c.Text)
		}
	}
	told := toldOf(r)
	for _, want := range []string{
		"Punch a hole, 1/4 in across, through the right end wall", "Cut 3 in of Satin ribbon", "Pierce the layers behind the hole too", "Fold the ribbon in half.", "through the hole in the right end wall",
		"Glue the banner on the roof of the sleeve, 1/2 in from its left edge", "Glue the flat bow on the left end wall of the drawer, 1/8 in from its top edge",
	} {
		if !strings.Contains(told, want) {
			t.Errorf("it is not told %q:\n%s", want, told)
		}
	}
	pull := r.Ribbons[0]
	if len(pull.Threaded.Holes) != 1 || pull.Length != 3*measure.Inch {
		t.Errorf("the pull: %+v", pull)
	}
	for _, s := range r.Supplies {
		if strings.HasPrefix(s.ID, "bow.") && !strings.HasPrefix(s.Text, "1 × flat bow, 2 in wide") {
			t.Errorf("the bow is bought as %q", s.Text)
		}
	}
}

// A brad goes through the card, and is told before the box is filled; a bow sits on a flat label,
// and not on one that stands on pads; over a lid's wall it is in the way.
func TestWhatIsBoughtIsPut(t *testing.T) {
	t.Parallel()
	r := withPlaced(t, "tray-lid", `"placed":[{"what":"brad","on":{"piece":"base","face":"front"},"across":{"from":"left","at":"1/2 in"}}]`)
	told := toldOf(r)
	brad := strings.Index(told, "Pierce a small hole on the front wall of the base, 1/2 in from its left edge.")
	if fill := strings.Index(told, "Fill "); brad < 0 || brad > fill {
		t.Errorf("the brad is told at %d and the box filled at %d:\n%s", brad, fill, told)
	}
	if labelled(r, inspect.Warn) == "" {
		t.Error("a brad under the lid's wall is in nobody's way")
	}
	for pads, want := range map[string]inspect.Verdict{"false": inspect.OK, "true": inspect.Warn} {
		r = withPlaced(t, "tray-lid", `"placed":[{"id":"a","what":"topper","name":"Star","shape":"star","width":"2 in","height":"2 in",`+gold+`,"on":{"piece":"lid","face":"top"},"raised":`+pads+`},
			{"what":"bow","on":{"piece":"lid","face":"top"}}]`)
		if labelled(r, inspect.Warn) != "" != (want == inspect.Warn) {
			t.Errorf("a bow on a label on pads (%s): %q", pads, labelled(r, inspect.Warn))
		}
	}
	if len(r.Inputs.Labels[1].Layers) != 0 || r.Inputs.Labels[1].Width != 2*measure.Inch {
		t.Errorf("the bow: %+v", r.Inputs.Labels[1])
	}
	for text, says := range map[string]string{
		`{"what":"bow"}`: "say which face or band the flat bow goes on",
		`{"what":"ring","on":{"piece":"lid","face":"top"},` + gold + `}`:        "no layers",
		`{"what":"ring","on":{"piece":"lid","face":"top"},"stands":"5 in"}`:     "stands out by up to",
		`{"what":"ring","on":{"piece":"lid","face":"top"},"colour":"greenish"}`: "placed[0].colour",
	} {
		in, err := Read([]byte(`{"brevium":1,"name":"Fair","units":"in","style":"tray-lid","placed":[` + text + `]}`))
		if err == nil {
			_, err = Make(t.Context(), in)
		}
		if err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%s: %v; want %q", text, err, says)
		}
	}
	kept := r.Inputs.Clone()
	kept.Labels[1].Piece, kept.Labels[1].Face = "lid", "top"
	tray, err := kept.With("tray", &r.Built)
	if err != nil || len(tray.Labels) != 1 {
		t.Errorf("as a tray without a lid: %v, %+v", err, tray.Labels)
	}
}

// A ribbon may be cut as its maker cuts it: shorter than it takes is said, with by how much.
func TestARibbonsOwnLength(t *testing.T) {
	t.Parallel()
	short := func(length string) (string, measure.Length) {
		r := withPlaced(t, "tray-lid", `"ribbons":[{"way":"length","bow":"knot","length":"`+length+`"}]`)
		for _, c := range r.Checks {
			if c.ID == "ribbon" && c.Verdict == inspect.Warn {
				return c.Text, r.Ribbons[0].Length
			}
		}
		return "", r.Ribbons[0].Length
	}
	if said, cut := short("10 in"); !strings.Contains(said, "is cut 10 in; its way and its ends take") || cut != 10*measure.Inch {
		t.Errorf("10 in: %q, cut %v", said, cut)
	}
	if said, cut := short("40 in"); said != "" || cut != 40*measure.Inch {
		t.Errorf("40 in: %q, cut %v", said, cut)
	}
}

// On each face of each kind of box that can be seen, whatever is bought is put, told once, counted
// among the supplies, and drawn where it is said.
func TestWhatIsBoughtOnEveryFace(t *testing.T) {
	t.Parallel()
	whats := label.BoughtWhats
	n := 0
	for _, s := range style.All {
		bare := make_(t, New("x", measure.In, s.ID))
		for _, p := range bare.Parts {
			for _, f := range dress.Open(p.Pattern, p.Faces, dress.Outside) {
				if n++; !sample.Takes(t, n) || f.Role == pattern.Bend {
					continue
				}
				in := bare.Inputs.Clone()
				l := UsualBought(whats[n/4%len(whats)], measure.In)
				l.ID, l.Piece, l.Face = 7, p.ID, f.Name
				in.Labels = []label.Label{l}
				r, err := Make(t.Context(), in)
				if err != nil {
					t.Errorf("%s: a %s on the %s of the %s: %v", s.ID, l.What, f.Plain(), p.Name, err)
					continue
				}
				said := "the " + strings.ToLower(l.Name)
				if told := strings.Count(toldOf(r), said) - strings.Count(toldOf(bare), said); told != 1 {
					t.Errorf("%s: the %s is told %d times", s.ID, l.Name, told)
				}
				if !slices.ContainsFunc(r.Supplies, func(x recipe.Supply) bool { return x.ID == string(l.What)+".7" && x.Amount == 1 }) {
					t.Errorf("%s: no %s among the supplies", s.ID, l.Name)
				}
				mats := r.LabelMats()
				if len(mats) != 1 || mats[0].Face != f.Name || len(mats[0].On[0].Corners) < 12 {
					t.Errorf("%s: it is drawn as %+v", s.ID, mats)
				}
				for _, c := range r.Checks {
					if c.ID == "hand" || c.Verdict == inspect.Fail && !slices.ContainsFunc(bare.Checks, func(x inspect.Finding) bool { return x.ID == c.ID && x.Verdict == c.Verdict }) {
						t.Errorf("%s, a %s on the %s of the %s: %s", s.ID, l.What, f.Plain(), p.Name, c.Text)
					}
				}
			}
		}
	}
}

// What is no box and is never filled can be dressed too, and its steps make it.
func TestFittingsAreDressed(t *testing.T) {
	t.Parallel()
	for _, s := range style.Fittings() {
		in := New("x", measure.In, s.ID)
		p, known := loose.Begin(loose.Usual[0].ID, measure.In)
		if !known {
			t.Fatal("there is no usual loose piece")
		}
		in.Loose = []loose.Piece{p}
		in.Labels = []label.Label{UsualLabel("", "", measure.In)}
		in.NumberThings()
		r := make_(t, in)
		for _, c := range r.Checks {
			if c.ID == "hand" || strings.Contains(c.Text, "do not make this box") {
				t.Errorf("%s: %s", s.ID, c.Text)
			}
		}
	}
}

// A new label goes where it is seen and sticks: on no window, and no larger than its face lets it.
func TestANewLabelsPlace(t *testing.T) {
	t.Parallel()
	for _, s := range style.Boxes() {
		r := make_(t, New("x", measure.MM, s.ID))
		piece, face := r.LabelPlace()
		in := r.Inputs.Clone()
		in.Labels = []label.Label{r.Fitted(UsualLabel(piece, face, measure.MM))}
		in.NumberThings()
		for _, c := range make_(t, in).Checks {
			if c.ID == "label" && strings.Contains(c.Text, " there: put one of them") {
				t.Errorf("%s: %s", s.ID, c.Text)
			}
		}
	}
}
