package design

import (
	"math"
	"strings"
	"testing"

	"brevium/core/dress"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// withPaper is a tray and lid of round sizes with a paper as a file gives it on the lid's top,
// 104 × 84 mm where the base is 100 × 80.
func withPaper(t *testing.T, mat string) *Result {
	t.Helper()
	in, err := Read([]byte(`{"brevium":1,"name":"Tokens","units":"mm","style":"tray-lid","size":{"length":"100 mm","width":"80 mm","height":"40 mm"},
		"options":{"lid.allowance":"2 mm"},"mats":[` + mat + `]}`))
	if err != nil {
		t.Fatal(err)
	}
	r, err := Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range r.Checks {
		if c.Verdict == inspect.Fail {
			t.Errorf("%s: %s", c.ID, c.Text)
		}
	}
	if again := r.Inputs.Write(); !strings.Contains(string(again), `"mats"`) {
		t.Error("the paper is not written")
	}
	return r
}

// told is all that is told of the papers.
func papersTold(r *Result) string {
	var out []string
	for _, s := range r.Steps {
		if strings.Contains(s.Text, "paper") || strings.Contains(s.Text, "pattern") {
			out = append(out, s.Text)
		}
	}
	return strings.Join(out, " ")
}

const sprigs = `{"name":"Sprigs","gsm":120,"thickness":"0.15 mm","direction":"one-way-up"}`

// A paper goes to the edge with its corners rounded: it is a rectangle till a corner rounder
// takes the corners off, and no template.
func TestPaperWithRoundedCorners(t *testing.T) {
	t.Parallel()
	r := withPaper(t, `{"piece":"lid","faces":["top"],"shape":"rounded","radius":"6 mm","layers":[{"card":`+sprigs+`,"border":"3 mm"}]}`)
	m := r.Mats[0]
	top := r.Inputs.face(t, r, "lid", "top")
	if w, h := top[0]-6, top[1]-6; math.Abs(m.Width.MM()-w) > 0.5 || math.Abs(m.Height.MM()-h) > 0.5 {
		t.Errorf("it is %v × %v mm on a top of %v", m.Width.MM(), m.Height.MM(), top)
	}
	lost := m.Width.MM()*m.Height.MM() - math.Abs(pattern.Area(m.Shape))
	if want := (4 - math.Pi) * 6 * 6; math.Abs(lost-want) > 0.5 { // a square of 2r less its circle
		t.Errorf("the corners lose %.2f mm²; want %.2f", lost, want)
	}
	if b := dress.Blanks(r.Mats); b[0].Width != m.Width || b[0].Height != m.Height {
		t.Errorf("it is cut from %v × %v mm", b[0].Width.MM(), b[0].Height.MM())
	}
	if told := papersTold(r); !strings.Contains(told, "round all four corners to 6 mm") || strings.Contains(told, "template") {
		t.Errorf("told: %s", told)
	}
}

// face is how wide and high a face is.
func (in *Inputs) face(t *testing.T, r *Result, piece, face string) [2]float64 {
	t.Helper()
	p, _ := r.part(piece)
	for _, f := range p.Faces {
		if f.Name == face {
			w, h := f.Frame().Size(f.Polygon)
			return [2]float64{w, h}
		}
	}
	t.Fatalf("the %s has no %s", piece, face)
	return [2]float64{}
}

// A paper of its own size lies in the middle of its face, and its border is what is left.
func TestPaperOfItsOwnSize(t *testing.T) {
	t.Parallel()
	r := withPaper(t, `{"piece":"lid","faces":["top"],"layers":[{"card":`+sprigs+`,"size":["60 mm","45 mm"]},{"card":`+sprigs+`,"border":"5 mm"}]}`)
	top := r.Inputs.face(t, r, "lid", "top")
	under, over := r.Mats[0], r.Mats[1]
	if under.Width != 60*measure.Millimetre || under.Height != 45*measure.Millimetre || over.Width != 50*measure.Millimetre || over.Height != 35*measure.Millimetre {
		t.Errorf("they are %v × %v and %v × %v mm", under.Width.MM(), under.Height.MM(), over.Width.MM(), over.Height.MM())
	}
	if got, want := under.Border.Across.MM(), (top[0]-60)/2; math.Abs(got-want) > 1e-3 {
		t.Errorf("%v mm show beside it; want %v", got, want)
	}
	lo, hi := pattern.Bounds(under.Outline())
	p, _ := r.part("lid")
	for _, f := range p.Faces {
		if a, b := pattern.Bounds(f.Polygon); f.Name == "top" && a.Add(b).Sub(lo.Add(hi)).Len() > 1e-3 {
			t.Error("it does not lie in the middle")
		}
	}
	if back, err := Read(r.Inputs.Write()); err != nil || back.Mats[0].Layers[0].Width != 60*measure.Millimetre {
		t.Errorf("read back: %+v, %v", back.Mats, err)
	}
}

// A border below 0 stands over the card's edge; it is told so, and judged.
func TestPaperOverTheEdge(t *testing.T) {
	t.Parallel()
	r := withPaper(t, `{"piece":"lid","faces":["top"],"layers":[{"card":`+sprigs+`,"border":"-0.5 mm"}]}`)
	top := r.Inputs.face(t, r, "lid", "top")
	if m := r.Mats[0]; m.Width.MM() < top[0]+0.5 || m.Width.MM() > top[0]+1 {
		t.Errorf("it is %v mm wide on a top of %v", m.Width.MM(), top[0])
	}
	if told := papersTold(r); !strings.Contains(told, "0.5 mm over the edge all round") {
		t.Errorf("told: %s", told)
	}
	said := false
	for _, c := range r.Checks {
		said = said || c.ID == "paper.over" && strings.Contains(c.Text, "0.5 mm")
	}
	if !said {
		t.Error("what it does at the folds is not said")
	}
	if even := papersTold(withPaper(t, `{"piece":"lid","faces":["top"],"layers":[{"card":`+sprigs+`,"border":"0 mm"}]}`)); !strings.Contains(even, "even with the edges") {
		t.Errorf("told: %s", even)
	}
	in := r.Inputs
	in.Mats[0].Layers[0].Border = dress.Even(-4 * measure.Millimetre)
	if _, err := Make(t.Context(), in); err == nil || !strings.Contains(err.Error(), "over an edge by up to") {
		t.Errorf("4 mm over: %v", err)
	}
}

// A pattern that runs across has its top to the right: the paper is cut turned, since the sheet
// is not, and what is upper left on what is cut is upper right on the face.
func TestPaperAcross(t *testing.T) {
	t.Parallel()
	mat := func(across string) *Result {
		return withPaper(t, `{"piece":"lid","faces":["top"]`+across+`,"layers":[{"card":`+sprigs+`,"border":"4 mm"}]}`)
	}
	up, turned := mat(""), mat(`,"across":true`)
	a, b := dress.Blanks(up.Mats)[0], dress.Blanks(turned.Mats)[0]
	if a.Width != b.Height || a.Height != b.Width || a.Width == a.Height {
		t.Errorf("upright it is cut %v × %v mm, across %v × %v", a.Width.MM(), a.Height.MM(), b.Width.MM(), b.Height.MM())
	}
	m := turned.Mats[0]
	if got, want := m.Place(0, 0), m.Lies.At(m.Width.MM(), m.Height.MM()); got.Sub(want).Len() > 1e-9 {
		t.Errorf("the paper's upper left corner lies at %v, the face's upper right at %v", got, want)
	}
	if lo, hi := pattern.Bounds(m.Outline()); hi.Sub(lo).Sub(pattern.Pt(m.Width.MM(), m.Height.MM())).Len() > 1e-6 && hi.Sub(lo).Sub(pattern.Pt(m.Height.MM(), m.Width.MM())).Len() > 1e-6 {
		t.Error("it lies elsewhere than it is drawn")
	}
	if told := papersTold(turned); !strings.Contains(told, "The pattern runs across, its top to the right.") || strings.Contains(told, "stands upright") {
		t.Errorf("told: %s", told)
	}
}

// A notch under the first layer alone is cut out of that, though a smaller layer follows.
func TestTheUnderLayerIsCutThrough(t *testing.T) {
	t.Parallel()
	r := make_(t, read(t, `{"brevium":1,"name":"x","units":"mm","style":"drawer-sleeve","sheets":[{"name":"big","width":900,"height":900}],"tools":{"trimmer":900},
		"mats":[{"piece":"sleeve","faces":["roof"],"shape":"rectangle","layers":[{"card":`+sprigs+`,"border":"1 mm"},{"card":`+sprigs+`,"border":"20 mm"}]}]}`)) // the notch is 9.5 mm deep
	if told := papersTold(r); !strings.Contains(told, "cut the paper out along") {
		t.Errorf("told: %s", told)
	}
	for _, c := range r.Checks {
		if c.ID == "making" {
			t.Error(c.Text)
		}
	}
}

// What is cut is called by the piece's name on every list, never by its id.
func TestAPaperIsCalledByItsPiece(t *testing.T) {
	t.Parallel()
	r := make_(t, read(t, `{"brevium":1,"name":"x","units":"in","style":"wallet-box","mats":[{"piece":"body","faces":["flap"],"layers":[{"card":`+sprigs+`,"border":"1/8 in"}]}]}`))
	if got := r.PieceName("body.flap.1"); got != "wallet paper, flap" {
		t.Errorf("it is called %q", got)
	}
}
