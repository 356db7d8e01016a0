package style

import (
	"math"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
)

var foldTopBag = &Style{
	ID: "fold-top-bag", Name: "Fold-top bag", About: "A little bag whose top folds in and out, held by a dot or a bow",
	Opens: "unfolds at the top", Strength: "light: sides glued, top held by a dot",
	Parameters: []Parameter{
		{ID: "width", Label: "Width", Default: 3 * measure.Inch, Min: 20 * mm, Max: 200 * mm, About: "w: left to right, score to score"},
		{ID: "depth", Label: "Depth", Default: measure.Inch, Min: 8 * mm, Max: 60 * mm, About: "d: front to back"},
		{ID: "panel", Label: "Panel", Default: 2 * measure.Inch, Min: 15 * mm, Max: 120 * mm, About: "F: the height of front and back below the turns"},
		{ID: "turn", Label: "Turn", Default: measure.Inch / 2, Min: 4 * mm, Max: 60 * mm, About: "n: how far the top folds in, and out again; at least half the depth",
			Follows: func(s Spec) measure.Length { return measure.Up(s.Lengths["depth"]/2, s.Tick) }},
	},
	Options: []Option{adhesive},
	Axes:    [3]string{"width", "depth", "panel"},
	Build: func(s Spec) (*Box, error) {
		w, d, f, n := s.Lengths["width"], s.Lengths["depth"], s.Lengths["panel"], s.Lengths["turn"]
		if n < d/2 {
			return nil, fault.New("out-of-range", "size.turn", "the turn must be at least %s, half the depth, or the top does not close",
				s.show(d/2))
		}
		g := pattern.NewGrid([]measure.Length{d, w, d}, []measure.Length{n, n, f, d, f, n, n}, `
			.            crest.front  .
			.            turn.front   .
			front.left   front        front.right
			bottom.left  bottom       bottom.right
			back.left    back         back.right
			.            turn.back    .
			.            crest.back   .`)
		g.Role(pattern.Panel, "bottom")
		g.Role(pattern.Flap, "turn.front", "turn.back", "crest.front", "crest.back")
		g.Up("bottom", "front", "back")
		// Each turn leans in until the two meet over the middle, and the crests
		// stand up together: sin(lean) = (depth/2) / turn.
		lean := math.Asin(min(1, float64(d)/2/float64(n))) * 180 / math.Pi
		for _, wall := range []string{"front", "back"} {
			g.Fold(wall, "turn."+wall, lean, pattern.Away)
			g.Fold("turn."+wall, "crest."+wall, lean, pattern.Towards)
		}
		for _, end := range []string{".left", ".right"} {
			g.Tab("front"+end, "front", d, min(tabWedge, d/4))
			g.Tab("back"+end, "back", d, min(tabWedge, d/4))
			g.Over("front"+end, "back"+end)
			g.Role(pattern.Tab, "bottom"+end)
			g.Tab("bottom"+end, "bottom", min(d, f/2), min(tabWedge, d/4))
			g.Slit("bottom"+end, "front"+end)
			g.Slit("bottom"+end, "back"+end)
			g.Tuck("bottom"+end, "back"+end)
		}
		p, err := g.Pattern()
		if err != nil {
			return nil, err
		}
		part := Part{
			ID: "body", Name: "Bag", Pattern: p, Root: "bottom", Opens: Upwards,
			Folding: "Fold every score and burnish it; the turns fold in, and the crests out again.",
			Gluing:  []string{"Fold front and back up, tuck the bottom's little tabs in behind, and glue only the side flaps, the front's over the back's."},
		}
		box := alone(part, s.Card("body"))
		box.Assembly = []string{"Fold the top in and out, and hold the crests together with a dot or a bow."}
		t := s.Card("body")
		box.Extents = func() (Extent, Extent, error) {
			in, out, err := measured(part, t)
			in.Height = f - t/2 // under the turns
			return in, out, err
		}
		return box, nil
	},
}
