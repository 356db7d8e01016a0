package design

import (
	"encoding/json"
	"reflect"
	"strings"
	"testing"

	"brevium/core/dress"
	"brevium/core/measure"
)

const fromLater = `{"brevium":1,"name":"Jars","units":"mm","style":"tray-lid","later":{"a":[1,2.50]},
 "size":{"basis":"scored","length":"100 mm","width":"80 mm","height":"40 mm","twist":"3 mm"},
 "card":{"gsm":240,"thickness":"0.3 mm","sheen":"pearl"},
 "options":{"tick":"1 mm","lid.walls":"triple","base.corners":"two-tab","hinge":"left"},
 "mats":[{"piece":"lid","where":"top","foil":true,"layers":[{"card":{"gsm":200},"border":"2 mm","glue":"dots"}]}]}`

// A design that a later version kept is read, and what this one does not know
// comes back out of it, changed or not.
func TestWhatIsNotKnownIsPassedOn(t *testing.T) {
	t.Parallel()
	if _, err := Read([]byte(fromLater)); err == nil {
		t.Error("a file with unknown fields is taken without a word")
	}
	in, err := ReadKept([]byte(fromLater))
	if err != nil {
		t.Fatal(err)
	}
	if _, err := Make(t.Context(), in); err != nil {
		t.Errorf("it cannot be made: %v", err)
	}
	in.Copies = 7
	text := in.Write()
	for _, part := range []string{`"later": {`, "2.50", `"twist": "3 mm"`, `"sheen": "pearl"`, `"hinge": "left"`, `"lid.walls": "triple"`, `"foil": true`, `"glue": "dots"`, `"copies": 7`} {
		if !strings.Contains(string(text), part) {
			t.Errorf("written without %s:\n%s", part, text)
		}
	}
	again, err := ReadKept(text)
	if err != nil || !reflect.DeepEqual(again, in) {
		t.Errorf("read again it differs: %v\n%+v\n%+v", err, again, in)
	}
	// A list that has another length by now keeps none of it.
	in.Mats = nil
	if text := string(in.Write()); strings.Contains(text, "foil") || !json.Valid([]byte(text)) {
		t.Errorf("without mats: %s", text)
	}
}

// What is no design at all is refused in the same words as a file.
func TestWhatIsNoDesignIsRefused(t *testing.T) {
	t.Parallel()
	for _, text := range []string{``, `[]`, `{}`, `{"brevium":1,"style":"barrel"}`, strings.Replace(fromLater, `"100 mm"`, `"long"`, 1), `{"brevium":1,"style":{}}`} {
		if _, err := ReadKept([]byte(text)); err == nil || err.Error() == "" {
			t.Errorf("%.40q: %v", text, err)
		}
	}
}

// Mats on named faces are written as they were read, an earlier file's place
// among them.
func TestMatsAreWrittenAsRead(t *testing.T) {
	t.Parallel()
	text := []byte(`{"brevium":1,"units":"in","style":"tray-lid","mats":[
	 {"piece":"lid","faces":["top"],"side":"inside","shape":"rectangle","layers":[{"card":{"gsm":240},"border":"1/8 in"},{"card":{"gsm":120},"border":{"across":"3/32 in","up":"1/8 in"}}]},
	 {"piece":"base","where":"walls","layers":[{"card":{"gsm":120},"border":2}]}]}`)
	for _, read := range []func([]byte) (Inputs, error){Read, ReadKept} {
		in, err := read(text)
		if err != nil {
			t.Fatal(err)
		}
		again, err := read(in.Write())
		if err != nil || !reflect.DeepEqual(in, again) {
			t.Errorf("%+v and %+v, %v", in.Mats, again.Mats, err)
		}
		if m := in.Mats[0]; m.Side != dress.Inside || m.Shape != dress.Square || m.Layers[1].Border != (dress.Border{Across: 3 * measure.Inch / 32, Up: measure.Inch / 8}) || in.Mats[1].Where != dress.Walls {
			t.Errorf("read as %+v", in.Mats)
		}
		if _, err := Make(t.Context(), in); err != nil {
			t.Error(err)
		}
	}
	for _, wrong := range []string{`"faces":["cellar"]`, `"faces":["top"],"side":"under"`, `"faces":["top"],"shape":"star"`} {
		in, err := Read([]byte(`{"brevium":1,"units":"in","style":"tray-lid","mats":[{"piece":"lid",` + wrong + `,"layers":[{"card":{"gsm":120},"border":2}]}]}`))
		if err == nil {
			_, err = Make(t.Context(), in)
		}
		if err == nil || !strings.HasPrefix(err.Error(), "mats[0].") {
			t.Errorf("%s: %v", wrong, err)
		}
	}
}

// Two mats of one piece are told apart: what two windows change of one each
// comes together.
func TestMatsOfOnePieceMerge(t *testing.T) {
	t.Parallel()
	base, err := Read([]byte(`{"brevium":1,"units":"mm","style":"tray-lid","mats":[
	 {"piece":"base","faces":["front"],"layers":[{"card":{"gsm":120},"border":2}]},
	 {"piece":"base","faces":["back"],"layers":[{"card":{"gsm":120},"border":2}]}]}`))
	if err != nil {
		t.Fatal(err)
	}
	mine, theirs := base.Clone(), base.Clone()
	mine.Mats[0].Layers[0].Border = dress.Even(3 * measure.Millimetre)
	theirs.Mats[1].Layers[0].Border = dress.Even(4 * measure.Millimetre)
	out, m, err := Merge(base, mine, theirs, false)
	if err != nil || len(m.Clashes) > 0 || len(out.Mats) != 2 {
		t.Fatalf("%+v, clashes %+v, %v", out.Mats, m.Clashes, err)
	}
	if out.Mats[0].Layers[0].Border.Up != 3*measure.Millimetre || out.Mats[1].Layers[0].Border.Up != 4*measure.Millimetre {
		t.Errorf("merged: %+v", out.Mats)
	}
}
