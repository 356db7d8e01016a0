package money

import (
	"math/rand/v2"
	"testing"
)

func TestParseAndShow(t *testing.T) {
	for text, want := range map[string]Amount{"6.50": 650, "6,5": 650, " 6 ": 600, "": 0, "0.005": 1, "12.404": 1240} {
		got, err := Parse(text)
		if err != nil || got != want {
			t.Errorf("%q is %v, %v", text, got, err)
		}
		if again, err := Parse(got.String()); err != nil || again != got {
			t.Errorf("%v is shown as %s", got, got)
		}
	}
	for _, text := range []string{"lots", "-1", "1e9", "NaN", "6.5.0"} {
		if got, err := Parse(text); err == nil {
			t.Errorf("%q is %v", text, got)
		}
	}
	if got := Amount(-1205).String(); got != "-12.05" {
		t.Error(got)
	}
}

// By hand: a coin in three is 34, 33 and 33; and whatever is shared, the shares add up.
func TestShare(t *testing.T) {
	if got := Share(100, []float64{1, 1, 1}); got[0] != 34 || got[1] != 33 || got[2] != 33 {
		t.Error(got)
	}
	if got := Share(7, []float64{0, 0}); got[0]+got[1] != 7 {
		t.Error(got)
	}
	if got := Share(100, nil); got != nil {
		t.Error(got)
	}
	r := rand.New(rand.NewPCG(1, 1))
	for range 2000 {
		weights := make([]float64, 1+r.IntN(8))
		for i := range weights {
			weights[i] = r.Float64() * float64(r.IntN(3))
		}
		a := Amount(r.IntN(100_000))
		var sum Amount
		for i, part := range Share(a, weights) {
			if part < 0 {
				t.Fatalf("share %d of %v by %v is %v", i, a, weights, part)
			}
			sum += part
		}
		if sum != a {
			t.Fatalf("%v by %v adds up to %v", a, weights, sum)
		}
	}
}

func TestAsked(t *testing.T) {
	for a, want := range map[Amount]Amount{0: 0, 1: 5, 187: 190, 200: 200, 201: 210, 437: 440, 512: 550, 1901: 1950, 2001: 2100, 12_345: 12_500} {
		if got := a.Asked(); got != want {
			t.Errorf("%v is asked as %v, not %v", a, got, want)
		}
	}
}
