package style

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/measure"
	"brevium/core/pattern"
)

var archedBox = &Style{
	ID: "arched-box", Name: "Arched box", About: "A base strip under an arched cover: closed at the back, open in front",
	Opens: "at the front", Strength: "fair: an arch on a base strip",
	Parameters: []Parameter{
		{ID: "length", Label: "Length", Default: 3 * measure.Inch, Min: 20 * mm, Max: 200 * mm, About: "l: front to back"},
		{ID: "width", Label: "Width", Default: 3 * measure.Inch / 2, Min: 20 * mm, Max: 120 * mm, About: "w: across the arch"},
		{ID: "straight", Label: "Straight sides", Default: measure.Inch / 2, Min: 8 * mm, Max: 100 * mm, About: "How far the cover's sides rise before they bend"},
		{ID: "tab", Label: "Tabs", Default: measure.Inch / 2, Min: 6 * mm, Max: 30 * mm, About: "Glued under the base, and inside the cover",
			Follows: func(s Spec) measure.Length { return min(measure.Inch/2, measure.Down(s.Lengths["width"]/3, s.Tick)) }},
	},
	Options: []Option{adhesive},
	Axes:    [3]string{"length", "width", "straight"},
	Build:   buildArchedBox,
}

// rolls is how many flats stand for the bend of the arch when it is folded
// and drawn; with so many the cover's width is right to under a tenth of a
// millimetre.
const rolls = 32

func buildArchedBox(s Spec) (*Box, error) {
	l, w, straight, tab := s.Lengths["length"], s.Lengths["width"], s.Lengths["straight"], s.Lengths["tab"]
	if err := s.atMost("tab", w/2, "the cover's two tabs would lie over each other"); err != nil {
		return nil, err
	}
	base, err := archBase(l, w, straight, tab)
	if err != nil {
		return nil, err
	}
	// arc = 2·straight + π·w/2, over the half circle.
	exact := 2*straight + measure.FromMM(math.Pi*w.MM()/2)
	arc := measure.Nearest(exact, s.Tick)
	cover, err := archCover(l, straight, arc, tab)
	if err != nil {
		return nil, err
	}
	cover.Measuring = fmt.Sprintf("The arc is %s by reckoning and cut as %s; what is over or short goes into the bend.",
		measure.Label(exact, measure.MM, measure.Millimetre/10), measure.Label(arc, measure.MM, measure.Millimetre/10))
	t := s.Card("cover")
	return &Box{
		Parts:    []Part{base, cover},
		Assembly: []string{"Lay the base on the cover's tabs, glue it down, and press the back's tabs inside the cover."},
		Extents: func() (Extent, Extent, error) {
			high := straight + w/2
			return Extent{l - t, w - t, straight - t/2}, Extent{l + t, w + t, high + t}, nil
		},
	}, nil
}

func archBase(l, w, straight, tab measure.Length) (Part, error) {
	front := min(straight, tab)
	g := pattern.NewGrid([]measure.Length{front, l, straight, w / 2}, []measure.Length{tab, w, tab}, `
		.      .     back.1  .
		front  base  back    back
		.      .     back.2  .`)
	g.Role(pattern.Panel, "base")
	g.Role(pattern.Tab, "back.1", "back.2")
	g.Up("base", "front", "back")
	g.Round("back", "base", w/2)
	for _, name := range []string{"back.1", "back.2"} {
		g.Tab(name, "back", tab, min(tabWedge, tab/4))
		g.Elsewhere(name, true, "cover")
	}
	p, err := g.Pattern()
	return Part{
		ID: "base", Name: "Base", Pattern: p, Root: "base", Opens: Upwards,
		Folding: "Fold the back up with its two tabs, and the low front.",
		Gluing:  []string{"Leave the base's tabs dry until the cover is on."},
	}, err
}

func archCover(l, straight, arc, tab measure.Length) (Part, error) {
	rows, names := []measure.Length{tab, straight}, []string{"tab.1", "side.1"}
	bend := arc - 2*straight
	for i := range measure.Length(rolls) {
		// The flats' lengths add up to the bend exactly.
		rows = append(rows, bend*(i+1)/rolls-bend*i/rolls)
		names = append(names, fmt.Sprint("bend.", i+1))
	}
	rows, names = append(rows, straight, tab), append(names, "side.2", "tab.2")
	g := pattern.NewGrid([]measure.Length{l}, rows, strings.Join(names, "\n"))
	g.Role(pattern.Tab, "tab.1", "tab.2")
	g.Role(pattern.Bend, names[2:len(names)-2]...)
	g.Up("tab.1", "side.1")
	g.Tab("tab.1", "side.1", tab, tabWedge)
	g.Tab("tab.2", "side.2", tab, tabWedge)
	last := len(names) - 3 // the line between the last flat and the second side
	for i := 1; i <= last; i++ {
		turn := 180.0 / rolls
		if i == 1 || i == last {
			turn /= 2
		}
		g.Roll(names[i], names[i+1], turn)
	}
	g.Elsewhere("tab.1", false, "base")
	g.Elsewhere("tab.2", false, "base")
	p, err := g.Pattern()
	return Part{
		ID: "cover", Name: "Cover", Pattern: p, Root: "side.1", Opens: Upright,
		Folding: "Fold the two tabs, and roll the part between the straight sides over a pencil or the table's edge until it springs into the arch.",
		Gluing:  []string{"Put adhesive on the inside of the cover's tabs; they go under the base."},
	}, err
}
