package design

import (
	"reflect"
	"strings"
	"testing"

	"brevium/core/inspect"
	"brevium/core/label"
	"brevium/core/measure"
)

// A raised label on the lid's top is in nobody's way; on the base's front, which
// the lid goes over, it is, and that is said before anything is cut.
func TestLabelsAreJudged(t *testing.T) {
	t.Parallel()
	in := New("Fair", measure.MM, "tray-lid")
	in.Size["height"] = 60 * mm_
	l := UsualLabel("lid", "top", measure.MM)
	l.Raised = 2 * mm_
	in.Labels = []label.Label{l}
	in.NumberThings()
	finding := func(r *Result) inspect.Finding {
		for _, c := range r.Checks {
			if c.ID == "label" {
				return c
			}
		}
		return inspect.Finding{}
	}
	r := make_(t, in)
	if f := finding(r); f.Verdict != inspect.OK {
		t.Errorf("on the lid's top: %+v", f)
	}
	if n := len(r.LabelMats()); n != 2 {
		t.Errorf("%d layers are drawn", n)
	}
	pads := false
	for _, s := range r.Supplies {
		pads = pads || s.ID == "pads" && s.Amount == 4 // 60 × 40 mm: two by two
	}
	if !pads {
		t.Errorf("supplies: %+v", r.Supplies)
	}
	in.Labels[0].Piece, in.Labels[0].Face = "base", "front"
	if f := finding(make_(t, in)); f.Verdict != inspect.Warn || !strings.Contains(f.Text, "2.4 mm off the front wall, where the lid goes over it") {
		t.Errorf("under the lid: %+v", f)
	}
	in.Labels[0].Width, in.Labels[0].Piece, in.Labels[0].Face = 200*mm_, "lid", "top"
	if f := finding(make_(t, in)); f.Verdict != inspect.Warn || !strings.Contains(f.Text, "larger than its place on the top of the lid") {
		t.Errorf("larger than its face: %+v", f)
	}
	in.Labels[0].Face = "roof"
	if _, err := Make(t.Context(), in); err == nil || !strings.Contains(err.Error(), "labels[0].face") {
		t.Errorf("on no face: %v", err)
	}
}

// Every layer is cut from its own card, round its template; a tag is hung up.
func TestLabelsAreToldAndCut(t *testing.T) {
	t.Parallel()
	in := New("Fair", measure.In, "tray-lid")
	heart := UsualLabel("lid", "top", measure.In)
	heart.Name, heart.Shape, heart.Text = "Heart", label.Heart, "{name}, {size}"
	in.Labels = []label.Label{heart, UsualLabel("", "", measure.In)}
	in.Copies = 3
	in.NumberThings()
	r := make_(t, in)
	var told []string
	for _, s := range r.Steps {
		told = append(told, s.Text)
	}
	text := strings.Join(told, "\n")
	for _, want := range []string{"Cut three of heart, layer 1", "from Gold card", "Print the template", "1/16 in showing all round", "in the middle of the top of the lid, upright", "Hang the tag", "Fair, "} {
		if !strings.Contains(text, want) {
			t.Errorf("the steps do not say %q", want)
		}
	}
	again, err := Read(in.Write())
	if err != nil || !reflect.DeepEqual(again.Labels, in.Labels) {
		t.Errorf("read back: %+v, %v", again.Labels, err)
	}
	if err := in.SetStyle("wallet-box"); err != nil || in.Labels[0].Piece != "" {
		t.Errorf("on another kind of box the label lies on %q, %v", in.Labels[0].Piece, err)
	}
	make_(t, in)
}
