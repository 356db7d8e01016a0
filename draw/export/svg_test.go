package export

import (
	"encoding/xml"
	"math"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// machineFile is what a cutting machine's program reads of a file.
type machineFile struct {
	Width  string `xml:"width,attr"`
	Layers []struct {
		ID    string `xml:"id,attr"`
		Label string `xml:"label,attr"`
		Fill  string `xml:"fill,attr"`
		Hides string `xml:"display,attr"`
		Paths []struct {
			D string `xml:"d,attr"`
		} `xml:"path"`
	} `xml:"g"`
}

func readMachine(t *testing.T, text []byte) machineFile {
	t.Helper()
	var f machineFile
	if err := xml.Unmarshal(text, &f); err != nil {
		t.Fatal(err)
	}
	return f
}

// In every style a machine gets each line once: as many closed outlines as
// there are, every score that is left, nothing filled, nothing twice.
func TestMachinesGetEachLineOnce(t *testing.T) {
	for _, s := range style.All {
		r, err := design.Make(t.Context(), design.New("x", measure.MM, s.ID))
		if err != nil {
			t.Fatalf("%s: %v", s.ID, err)
		}
		for _, part := range r.Parts {
			f := readMachine(t, OfPiece(part).SVG(Layers{}))
			if len(f.Layers) != 2 || f.Layers[0].ID != "score" || f.Layers[1].ID != "cut" || f.Layers[1].Label != "cut" {
				t.Fatalf("%s %s: layers %+v", s.ID, part.ID, f.Layers)
			}
			seen, closed := map[string]bool{}, 0
			for _, l := range f.Layers {
				if l.Fill != "none" {
					t.Errorf("%s %s: the layer %s is filled with %q", s.ID, part.ID, l.ID, l.Fill)
				}
				for _, p := range l.Paths {
					if seen[p.D] {
						t.Errorf("%s %s: %s twice", s.ID, part.ID, p.D)
					}
					seen[p.D] = true
					if strings.HasSuffix(p.D, "Z") {
						closed++
					}
				}
			}
			if want := 1 + len(part.Pattern.Holes); closed != want {
				t.Errorf("%s %s: %d closed lines; want %d", s.ID, part.ID, closed, want)
			}
			if want := f.Layers[1].Paths; len(want) != closed+len(part.Pattern.Slits) {
				t.Errorf("%s %s: %d cuts; want %d outlines and %d slits", s.ID, part.ID, len(want), closed, len(part.Pattern.Slits))
			}
		}
	}
}

// Half a circle of radius 5 is an arc, bending out of the piece, and in a
// mirrored file the other way about.
func TestArcsStayArcs(t *testing.T) {
	p := &pattern.Pattern{Width: 20 * measure.Millimetre, Height: 10 * measure.Millimetre,
		Outline: pattern.Loop{{Point: pattern.Pt(0, 0)}, {Point: pattern.Pt(15, 0), Bulge: 1}, {Point: pattern.Pt(15, 10)}, {Point: pattern.Pt(0, 10)}}}
	d := OfPiece(design.Part{Part: style.Part{ID: "p", Name: "P", Pattern: p}})
	for _, c := range []struct {
		drawing Drawing
		want    string
	}{{d, "M0 0L15 0A5 5 0 0 1 15 10L0 10Z"}, {d.Mirrored(), "M5 0L20 0L20 10L5 10A5 5 0 0 1 5 0Z"}} {
		if got := readMachine(t, c.drawing.SVG(Layers{})).Layers[1].Paths[0].D; got != c.want {
			t.Errorf("%s; want %s", got, c.want)
		}
	}
	// The arc is where the chords of the pattern are: its outermost point.
	_, hi := pattern.Bounds(p.Outline.Flat())
	if math.Abs(hi.X-20) > pattern.Chord {
		t.Errorf("the pattern itself bends to %v", hi.X)
	}
}

func TestWhatAMachineFileMayHaveBesides(t *testing.T) {
	f := readMachine(t, OfPiece(diceSet(t).Parts[0]).SVG(Layers{Perforate: true, Notes: true}))
	if f.Width != "177.8mm" || f.Layers[0].ID != "perforate" || f.Layers[2].ID != "notes" || f.Layers[2].Hides != "none" {
		t.Errorf("%+v", f)
	}
}

// A label's shape and words come out by themselves: arcs cut, words in a layer of
// their own, on its top layer alone.
func TestLabelsComeOutWithTheirWords(t *testing.T) {
	in := design.New("Fair & square", measure.MM, "tray-lid")
	l := design.UsualLabel("lid", "top", measure.MM)
	l.ID, l.Text = 1, "{name}\nwith love"
	in.Labels = []label.Label{l}
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	with := 0
	for _, d := range Pieces(r) {
		text := string(d.SVG(Layers{}))
		if err := xml.Unmarshal([]byte(text), new(struct{})); err != nil {
			t.Fatal(err)
		}
		if !strings.Contains(text, `id="words"`) {
			continue
		}
		with++
		if !strings.Contains(text, "Fair &amp; square</text>") || !strings.Contains(text, "with love</text>") || d.File != "label-1.2" {
			t.Errorf("%s: %s", d.File, text)
		}
		if strings.Contains(string(d.Mirrored().SVG(Layers{})), `id="words"`) {
			t.Error("the words are mirrored")
		}
	}
	if with != 1 {
		t.Errorf("%d pieces have words", with)
	}
}
