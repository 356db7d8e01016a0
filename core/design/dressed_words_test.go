package design

import (
	"testing"

	"brevium/core/inspect"
)

// Whatever dresses a box is told in sentences that can be followed with wet hands: as short as
// those of the making, never of an “it” or a face, never in sixty-fourths.
func TestWhatDressesABoxIsSayable(t *testing.T) {
	t.Parallel()
	paper := `"card":{"name":"Star paper","gsm":120}`
	mats := `"mats":[{"piece":"base","where":"walls","layers":[{` + paper + `,"border":"1/16 in"},{"card":{"name":"Snow card"},"border":"1/16 in"}]},{"piece":"lid","where":"top","layers":[{` + paper + `,"border":"1/8 in"}]}]`
	for _, c := range []struct{ style, with string }{
		{"tray-lid", mats},
		{"tray-lid", `"covers":[{"piece":"lid","turn_in":"5/8 in","corners":"lapped",` + paper + `}]`},
		{"tray-lid", `"covers":[{"piece":"base","turn_in":"5/8 in","corners":"meeting",` + paper + `}]`},
		{"tray-lid", `"bands":[{"axis":"length","at":"3/4 in","width":"1 in","lap":"1/2 in","join":"back"},{"axis":"width","at":"-1/2 in","width":"1 in","lap":"1/2 in","join":"front"}]`},
		{"tray-lid", `"linings":["stiffener","liner","riser"],"wrap":{"way":"diagonal","roll":"28 in",` + paper + `}`},
		{"tray-lid", `"wrap":{"way":"straight","roll":"28 in",` + paper + `}`},
		{"tall-box", `"wrap":{"way":"straight","roll":"28 in",` + paper + `}`},
		{"tray-lid", `"labels":[{"name":"Heart","shape":"heart","width":"2 1/2 in","height":"2 in","text":"Winter fair","copies":1,"piece":"lid","face":"top","raised":2,"layers":[{` + paper + `,"border":0},{"card":{"name":"Snow card"},"border":2}]}]`},
		{"tray-lid", `"labels":[{"name":"Tag","shape":"rectangle","width":"2 1/2 in","height":"2 in","text":"Winter fair","copies":1,"hole":true,"layers":[{` + paper + `,"border":0}]}]`},
		{"wallet-box", `"closures":[{"kind":"magnets","pairs":2,"across":"1 in"}]`},
		{"wallet-box", `"closures":[{"kind":"magnets","pairs":1}]`},
		{"wallet-box", `"closures":[{"kind":"hook-and-loop","pairs":2,"across":"1 in"}]`},
		{"wallet-box", `"closures":[{"kind":"dot","pairs":2,"across":"1 in"}]`},
		{"wallet-box", `"closures":[{"kind":"brad","pairs":1}]`},
		{"wallet-box", `"closures":[{"kind":"clip","pairs":2,"across":"1 in"}]`},
		{"wallet-box", `"closures":[{"kind":"tape","pairs":1}]`},
	} {
		sayable(t, c.style, c.with)
	}
	for _, way := range []string{"crossed", "length", "width", "height"} {
		for _, bow := range []string{"single", "double", "knot", "curls", "paper", "none"} {
			sayable(t, "tray-lid", `"ribbons":[{"name":"Satin ribbon","way":"`+way+`","width":"1/2 in","bow":"`+bow+`","loop":"2 1/2 in","tail":"3 in"}]`)
		}
	}
}

func sayable(t *testing.T, style, with string) {
	t.Helper()
	r := make_(t, read(t, `{"brevium":1,"name":"x","units":"in","style":"`+style+`","sheets":[{"name":"big","width":900,"height":900}],"tools":{"trimmer":900},`+with+`}`))
	for _, f := range r.Checks {
		if f.Verdict == inspect.Fail {
			t.Errorf("%s with %s: %s", style, with, f.Text)
		}
	}
	for _, s := range r.Steps {
		if wrong := unsayable(s.Text); wrong != "" {
			t.Errorf("%s with %s: %s: %s", style, with, wrong, s.Text)
		}
	}
}
