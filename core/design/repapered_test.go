package design

import (
	"testing"

	"brevium/core/paper"
)

// Alike papers stay alike, the set goes round, and the box that was asked is as before.
func TestRepapered(t *testing.T) {
	t.Parallel()
	in := read(t, `{"brevium":1,"name":"x","units":"mm","style":"tray-lid","mats":[
		{"piece":"lid","faces":["top"],"layers":[{"card":{"name":"A"},"border":2},{"card":{"name":"B"},"border":2}]},
		{"piece":"base","faces":["front"],"layers":[{"card":{"name":"B"},"border":2},{"card":{"name":"C"},"border":2}]}],
		"bands":[{"axis":"width","width":25,"lap":12,"join":"back","card":{"name":"A"}}]}`)
	var set []paper.Card
	for _, name := range []string{"W", "X", "Y", "Z"} {
		set = append(set, paper.Card{Name: name, GSM: 120})
	}
	got := in.Repapered(set, 3)
	now := []string{got.Mats[0].Layers[0].Card.Name, got.Mats[0].Layers[1].Card.Name, got.Mats[1].Layers[0].Card.Name, got.Mats[1].Layers[1].Card.Name, got.Bands[0].Card.Name}
	for i, want := range []string{"Z", "W", "W", "X", "Z"} {
		if now[i] != want {
			t.Errorf("the papers are %v", now)
			break
		}
	}
	if in.Mats[0].Layers[0].Card.Name != "A" || in.Bands[0].Card.Name != "A" {
		t.Error("the box that was asked is another")
	}
}
