package design

import (
	"encoding/json"
	"reflect"
	"strings"
	"testing"

	"brevium/core/fault"
	"brevium/core/inspect"
)

// strapped is a tray with two straps and a tag of other card.
const strapped = `{"brevium":1,"name":"strapped","units":"in","style":"tray","size":{"length":"4 in","width":"3 in","height":"1 in"},
 "contents":[],"copies":2,"loose":[
 {"name":"Strap","width":"7 in","height":"3/4 in","copies":2,"scores":{"vertical":["1 in","6 in"]},"corners":"rounded","radius":"1/4 in"},
 {"name":"Tag","width":"2 in","height":"1 1/4 in","holes":[{"x":"1 in","y":"1/4 in","across":"1/8 in"}],
  "slits":[{"x1":"1/2 in","y1":"1 in","x2":"1 1/2 in","y2":"1 in"}],"part_scores":[{"x1":"0","y1":"3/4 in","x2":"2 in","y2":"1 in"}],
  "card":{"name":"Snow","gsm":120}}]}`

// Loose pieces go into the sheets, the steps and the plan, as often as the box
// needs them, from their own card; the box itself is as it was.
func TestLoosePiecesAreMade(t *testing.T) {
	t.Parallel()
	in, err := Read([]byte(strapped))
	if err != nil {
		t.Fatal(err)
	}
	again, err := Read(in.Write())
	if err != nil || !reflect.DeepEqual(in, again) {
		t.Errorf("read back as %+v, %v", again.Loose, err)
	}
	r, err := Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	bare := in.Clone()
	bare.Loose = nil
	without, err := Make(t.Context(), bare)
	if err != nil {
		t.Fatal(err)
	}
	if r.Outside != without.Outside || len(r.Fits) != len(without.Fits) {
		t.Error("a strap changes the box")
	}
	placed := map[string]int{}
	for _, s := range r.Stocks {
		for _, p := range s.Job.Pieces {
			placed[s.Card.Name+"/"+p.Name] += p.Copies
		}
	}
	if placed["Plain card/loose-1"] != 4 || placed["Snow/loose-2"] != 2 {
		t.Errorf("on the sheets: %v", placed)
	}
	var told []string
	for _, s := range r.Steps {
		told = append(told, s.Text)
	}
	all := strings.Join(told, "\n")
	for _, want := range []string{"Cut four of the strap, each 7 × 3/4 in", "Round all four corners, 1/4 in", "Cut two of the tag, each 2 × 1 1/4 in", "Print the template"} {
		if !strings.Contains(all, want) && !strings.Contains(all, strings.ToLower(want[:1])+want[1:]) {
			t.Errorf("%q is not told in\n%s", want, all)
		}
	}
	for _, c := range r.Checks {
		if c.Verdict == inspect.Fail {
			t.Errorf("%s", c.Text)
		}
	}
	text, err := r.Plan()
	if err != nil {
		t.Fatal(err)
	}
	var plan struct {
		Pieces []any
		Loose  []struct {
			ID, Name string
			Copies   int
			Blank    struct{ Width, Height float64 }
		}
	}
	if err := json.Unmarshal(text, &plan); err != nil {
		t.Fatal(err)
	}
	if len(plan.Pieces) != 1 || len(plan.Loose) != 2 || plan.Loose[0].Blank.Width != 177.8 || plan.Loose[0].Copies != 4 {
		t.Errorf("%d pieces and %+v", len(plan.Pieces), plan.Loose)
	}
}

func TestLooseIsRefusedAtItsField(t *testing.T) {
	t.Parallel()
	for _, c := range []struct{ old, new, field string }{
		{`"width":"7 in"`, `"width":"0"`, "loose[0].width"},
		{`"x":"1 in","y":"1/4 in"`, `"x":"1 in","y":"1 1/4 in"`, "loose[1].holes"},
		{`["1 in","6 in"]`, `["1 in","six"]`, "loose[0].scores.vertical[1]"},
		{`"corners":"rounded"`, `"corners":"wavy"`, "loose[0].corners"},
	} {
		if _, err := Read([]byte(strings.Replace(strapped, c.old, c.new, 1))); err == nil || fault.Of(err).Field != c.field {
			t.Errorf("%s: %v at %q; want %s", c.new, err, fault.Of(err).Field, c.field)
		}
	}
}
