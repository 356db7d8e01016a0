package design

import (
	"math"
	"strings"
	"testing"

	"brevium/core/inspect"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// A heart lies on a topper, and that on the paper of a lid: each by the edges of what it lies on,
// told so, and none is in the other's way.
func TestThingsLieOnThings(t *testing.T) {
	t.Parallel()
	const text = `{"brevium":1,"name":"x","units":"mm","style":"tray-lid","size":{"length":120,"width":100,"height":40},"sheets":[{"name":"big","width":900,"height":900}],"tools":{"trimmer":900},
		"mats":[{"piece":"lid","faces":["top"],"layers":[{"card":{"name":"Sprigs"},"border":"10 mm"}]}],
		"placed":[
			{"id":"base-label","what":"label","name":"Topper","shape":"rectangle","width":40,"height":30,"layers":[{"card":{"name":"Red"}}],"on":{"paper":"lid.top.1"},"across":{"from":"left","at":5},"up":{"from":"top","at":6}},
			{"id":"heart","what":"label","name":"Heart","shape":"heart","width":12,"height":12,"layers":[{"card":{"name":"White"}}],"on":{"placed":"base-label"},"across":{"from":"right","at":3}}]}`
	r := make_(t, read(t, text))
	mats := r.LabelMats()
	p, _ := r.part("lid")
	var top pattern.Face
	for _, f := range p.Faces {
		if f.Name == "top" {
			top = f
		}
	}
	fr := top.Frame()
	bounds := func(n int) (lo, hi pattern.Point) {
		var in []pattern.Point
		for _, q := range mats[n].On[0].Corners {
			in = append(in, fr.In(q))
		}
		return pattern.Bounds(in)
	}
	_, up := fr.Size(top.Polygon)
	lo, hi := bounds(0) // 10 mm of border and 5 more; 10 and 6 from the top
	near := func(what string, got, want float64) {
		t.Helper()
		if math.Abs(got-want) > 0.26 { // the paper's size is on the ruler's mark, its border takes the rest
			t.Errorf("%s is at %.2f mm; want %.2f", what, got, want)
		}
	}
	near("the topper's left edge", lo.X, 15)
	near("its upper edge", up-hi.Y, 16)
	low, high := bounds(1)
	near("the heart's right edge", hi.X-high.X, 3)
	near("the heart's middle", (low.Y+high.Y)/2, (lo.Y+hi.Y)/2)
	if mats[1].Layer != mats[0].Layer+1 {
		t.Errorf("the heart is layer %d over layer %d", mats[1].Layer, mats[0].Layer)
	}
	told := ""
	for _, s := range r.Steps {
		told += s.Text + " "
	}
	for _, want := range []string{"Glue the topper on the paper on the top of the lid, ", "Glue the heart on the topper, 3 mm from its right edge"} {
		if !strings.Contains(told, want) {
			t.Errorf("it lacks %q: %s", want, told)
		}
	}
	for _, c := range r.Checks {
		if c.ID == "label" && c.Verdict != inspect.OK {
			t.Error(c.Text)
		}
	}
	back, err := Read(r.Inputs.Write())
	if err != nil || back.Labels[1].Upon != r.Inputs.Labels[1].Upon || back.Labels[0].Upon != r.Inputs.Labels[0].Upon || back.Labels[0].Piece != "" {
		t.Errorf("read back: %+v, %v", back.Labels, err)
	}
	bare := r.Inputs.Clone() // without the paper the topper lies on the lid, and is told so
	bare.Mats = nil
	told = ""
	for _, s := range make_(t, bare).Steps {
		told += s.Text + " "
	}
	if strings.Contains(told, "on the paper on") || !strings.Contains(told, "Glue the topper on the top of the lid, ") {
		t.Errorf("without its paper: %s", told)
	}
	for _, wrong := range []string{
		strings.Replace(text, `"on":{"placed":"base-label"}`, `"on":{"placed":"nobody"}`, 1),
		strings.Replace(text, `"on":{"placed":"base-label"}`, `"on":{"placed":"heart"}`, 1),
		strings.Replace(text, `"on":{"placed":"base-label"}`, `"on":{"placed":"base-label","piece":"lid","face":"top"}`, 1),
	} {
		in, err := Read([]byte(wrong))
		if err == nil {
			_, err = Make(t.Context(), in)
		}
		if err == nil || !strings.Contains(err.Error(), "on") {
			t.Errorf("it is taken: %v", err)
		}
	}
}

// A label pushed on the flat piece is counted from the edge that is near, on the ruler's marks; near
// the middle it lies in the middle, near an edge at it; and so by the edges of what it lies on.
func TestALabelIsPushed(t *testing.T) {
	t.Parallel()
	r := make_(t, read(t, `{"brevium":1,"name":"x","units":"mm","style":"tray-lid","size":{"length":120,"width":100,"height":40},"sheets":[{"name":"big","width":900,"height":900}],"tools":{"trimmer":900},
		"options":{"lid.allowance":2},
		"placed":[
			{"id":"a","what":"label","name":"Topper","shape":"rectangle","width":40,"height":30,"layers":[{"card":{"name":"Red"}}],"on":{"piece":"lid","face":"top"},"across":{"from":"left","at":10}},
			{"id":"b","what":"label","name":"Heart","shape":"heart","width":12,"height":12,"layers":[{"card":{"name":"White"}}],"on":{"placed":"a"}}]}`))
	p, _ := r.part("lid")
	var top pattern.Face
	for _, f := range p.Faces {
		if f.Name == "top" {
			top = f
		}
	}
	fr := top.Frame() // 122 × 102 mm: the topper's right edge is 72 mm from the face's, its middle 21 from that
	topper, heart := r.Inputs.Labels[0], r.Inputs.Labels[1]
	off := func(from label.Edge, mm float64) label.Off { return label.Off{From: from, At: measure.FromMM(mm)} }
	for _, x := range []struct {
		l        label.Label
		along    float64
		up       float64
		across   label.Off
		upwards  label.Off
		whatItIs string
	}{
		{topper, 3.2, 0, off(label.Left, 13), off(label.Middle, 0), "to the right, to the mark"},
		{topper, -9, 0, off(label.Left, 0), off(label.Middle, 0), "near the edge"},
		{topper, -14, 0, off(label.Left, -4), off(label.Middle, 0), "over the edge"},
		{topper, 30.2, 0, off(label.Middle, 0), off(label.Middle, 0), "near the middle"},
		{topper, 0, 20, off(label.Left, 10), off(label.Top, 16), "up"},
		{topper, 0, -20, off(label.Left, 10), off(label.Bottom, 16), "down"},
		{heart, 5, 0, off(label.Right, 9), off(label.Middle, 0), "on the topper"},
	} {
		got := r.Moved(x.l, fr.Along.Scale(x.along).Add(fr.Up.Scale(x.up)))
		if got.Across != x.across || got.Up != x.upwards {
			t.Errorf("%s: across %v %v mm, up %v %v mm", x.whatItIs, got.Across.From, got.Across.At.MM(), got.Up.From, got.Up.At.MM())
		}
	}
}
