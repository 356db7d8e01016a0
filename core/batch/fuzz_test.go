package batch

import (
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
)

// FuzzKeptJob reads a job's choices, layouts and stocks as they are kept, and
// lays a job out by them: they are taken, or refused, or passed over.
func FuzzKeptJob(f *testing.F) {
	in := design.New("tray", measure.MM, "tray")
	stocks, err := Gather(f.Context(), []Item{{Inputs: in, Copies: 3}}, nil, Choices{})
	if err != nil {
		f.Fatal(err)
	}
	for i := range stocks {
		if err := stocks[i].Lay(f.Context(), Quick); err != nil {
			f.Fatal(err)
		}
	}
	choices := Choices{Trim: mm, Held: Keep(stocks, Place{}, stocks[0].Layout.Sheets[0].Placed[0])}
	f.Add(choices.Write(), WriteLayouts(stocks), WriteStocks(stocks))
	f.Add([]byte(`{"stages":-3,"kerf":1e300,"held":[{"card":"","sheet":"x","pieces":[{"piece":"tray","x":-5,"y":0}]}]}`), []byte(`{"a":null}`), []byte(`[{}]`))
	f.Fuzz(func(t *testing.T, choices, layouts, kept []byte) {
		c, err := ReadChoices(choices)
		if err != nil {
			c = Choices{}
		}
		stocks, err := Gather(t.Context(), []Item{{Inputs: in, Copies: 3}}, nil, c)
		if err != nil {
			return
		}
		Recall(stocks, layouts)
		for i := range stocks {
			if stocks[i].Layout == nil {
				if err := stocks[i].Lay(t.Context(), Quick); err != nil {
					return
				}
			}
		}
		if old, err := ReadStocks(kept); err == nil {
			for i := range old {
				_ = old[i].Layout.Settings()
			}
			_ = Takes(old)
		}
	})
}
