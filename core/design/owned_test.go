package design

import (
	"strings"
	"testing"

	"brevium/core/measure"
)

// withTools is a box made with a maker's tools, and all that is found of them.
func withTools(t *testing.T, tools, rest string) (*Result, string) {
	t.Helper()
	in, err := Read([]byte(`{"brevium":1,"name":"x","units":"in","style":"tray-lid","tools":` + tools + `,"sheets":[{"name":"big","width":900,"height":900}],` + rest + `}`))
	if err != nil {
		t.Fatal(err)
	}
	if back, err := Read(in.Write()); err != nil || Difference(in, back) != "" {
		t.Errorf("read back, %q is another: %v", Difference(in, back), err)
	}
	r := make_(t, in)
	var said []string
	for _, c := range r.Checks {
		switch c.ID {
		case "punch.size", "punch.reach", "rounder", "die":
			said = append(said, c.Text)
		}
	}
	return r, strings.Join(said, "\n")
}

// What is owned decides: a ribbon's hole is one that a punch makes, a rounded paper has the
// radius of the rounder, and what no tool makes is said with what there is.
func TestToolsDecide(t *testing.T) {
	t.Parallel()
	const handle = `"ribbons":[{"way":"through-top","width":"1/4 in"}]`
	for _, x := range []struct{ tools, rest, says string }{
		{`{"trimmer":900,"punches":[{"across":"7/32 in","reach":"3 in"}]}`, handle, ""},
		{`{"trimmer":900,"punches":[{"across":"7/32 in","reach":"1/2 in"}]}`, handle, "Your 7/32 in punch gets as far as 1/2 in from the edge, and the hole in the lid lies "},
		{`{"trimmer":900,"rounders":["3/8 in"]}`, `"mats":[{"piece":"lid","faces":["top"],"shape":"rounded","layers":[{"card":{"name":"Sprigs"},"border":"1/4 in"}]}]`, ""},
		{`{"trimmer":900,"rounders":["3/8 in","3/4 in"]}`, `"mats":[{"piece":"lid","faces":["top"],"shape":"rounded","radius":"1/2 in","layers":[{"card":{"name":"Sprigs"},"border":"1/4 in"}]}]`,
			"No corner rounder of yours is for 1/2 in: you have 3/8 and 3/4 in."},
		{`{"trimmer":900,"dies":[{"width":"2 in","height":"2 in"}]}`, `"labels":[{"name":"Heart","shape":"heart","width":"1 3/4 in","height":"1 3/4 in","layers":[{"card":{"name":"Red"},"border":0}]}]`,
			"No die of yours cuts a heart of 1 3/4 × 1 3/4 in; 2 × 2 in is nearest."},
		{`{"trimmer":900,"dies":[{"width":"2 in","height":"2 in"}],"circles":{"from":"1 in","to":"6 in"}}`,
			`"labels":[{"name":"Dot","shape":"circle","width":"1 3/4 in","height":"1 3/4 in","layers":[{"card":{"name":"Red"},"border":0}]}]`, ""},
	} {
		if _, said := withTools(t, x.tools, x.rest); said != x.says && (x.says == "" || !strings.HasPrefix(said, x.says)) {
			t.Errorf("%s: it says %q; want %q", x.tools, said, x.says)
		}
	}
	r, _ := withTools(t, `{"trimmer":900,"punches":[{"across":"7/32 in"}]}`, handle)
	if got := r.Ribbons[0].Threaded.Across; got != measure.Inch*7/32 {
		t.Errorf("the hole is %v mm", got.MM())
	}
	r, _ = withTools(t, `{"trimmer":900,"rounders":["3/8 in"]}`, `"mats":[{"piece":"lid","faces":["top"],"shape":"rounded","layers":[{"card":{"name":"Sprigs"},"border":"1/4 in"}]}]`)
	if got := r.Mats[0].Radius; got != measure.Inch*3/8 {
		t.Errorf("the corners are rounded to %v mm", got.MM())
	}
}

// A hole's middle lies as far in as the nearest edge of the blank, worked by hand: a style's own
// notch lies on it.
func TestHowDeepAPunchGets(t *testing.T) {
	t.Parallel()
	for _, x := range []struct{ punch, says string }{
		{`{"across":"3/4 in"}`, ""},
		{`{"across":"1/2 in"}`, "No punch of yours makes the notch of 3/4 in in the sleeve: you have 1/2 in."},
	} {
		r := make_(t, read(t, `{"brevium":1,"name":"x","units":"in","style":"drawer-sleeve","tools":{"trimmer":900,"punches":[`+x.punch+`]},"sheets":[{"name":"big","width":900,"height":900}]}`))
		said := ""
		for _, c := range r.Checks {
			if strings.HasPrefix(c.ID, "punch") {
				said += c.Text
			}
		}
		if said != x.says && (x.says == "" || !strings.HasPrefix(said, x.says)) {
			t.Errorf("%s: it says %q", x.punch, said)
		}
	}
}
