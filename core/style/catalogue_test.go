package style

import (
	"encoding/json"
	"slices"
	"testing"
)

func TestCatalogueTellsTheTruth(t *testing.T) {
	text, err := Catalogue()
	if err != nil {
		t.Fatal(err)
	}
	var all []struct {
		ID         string
		Parameters []struct {
			ID, Kind          string
			Default, Min, Max float64
		}
		Options []struct {
			ID, Kind string
			Choices  []string
			Default  any
		}
	}
	if err := json.Unmarshal(text, &all); err != nil {
		t.Fatal(err)
	}
	if len(all) != len(All) {
		t.Fatalf("%d styles listed of %d", len(all), len(All))
	}
	for _, s := range all {
		for _, p := range s.Parameters {
			if p.Kind != "length" || p.Default < p.Min || p.Default > p.Max {
				t.Errorf("%s.%s: %v not in %v to %v", s.ID, p.ID, p.Default, p.Min, p.Max)
			}
		}
		for _, o := range s.Options {
			if d, word := o.Default.(string); word != (o.Kind == "choice") || word && !slices.Contains(o.Choices, d) {
				t.Errorf("%s.%s: default %v among %v", s.ID, o.ID, o.Default, o.Choices)
			}
		}
		if _, err := ByID(s.ID); err != nil {
			t.Error(err)
		}
	}
	if _, err := ByID("hat-box"); err == nil {
		t.Error("a hat box was found")
	}
}
