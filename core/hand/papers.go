package hand

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/measure"
	"brevium/core/pattern"
)

// CutPapers cuts equal blanks of paper, and of each the papers that it gives: itself, two
// halves, a shape by its printed template, or parts of a strip.
type CutPapers struct {
	IDs           []string // of the papers, in the order of their places
	Width, Height measure.Length
	Card          string         // what they are cut from
	Count, Copies int            // blanks for one box, and boxes
	Halved        bool           // from corner to corner
	Traced        bool           // round a printed template
	Rounded       measure.Length // to what the corners are rounded; 0 leaves them
	// Strip says where a strip is cut up, from its left end: each part from and to, with the
	// place that it is for. Begun is whether the picture goes on from the strip before.
	Strip []StripPart
	Begun bool
}

// StripPart is one part of a strip of paper.
type StripPart struct {
	From, To measure.Length
	Place    string
}

// LayPapers glues papers onto a piece that lies flat, or over its tabs once they are stuck.
type LayPapers struct {
	Papers     []Laid
	Places     []string // in a person's words
	Inside     bool
	Late       bool // over the tabs
	Layer      int  // 1 lies on the card, 2 on layer 1
	Across, Up measure.Length
	Sized      bool // of their own size: what shows is what is left
	Narrow     bool // on faces that are wider at one end: in the middle
	Strip      bool // the picture goes on from each to the next
	Upright    bool // a pattern stands upright
	Turned     bool // its top lies to the right
}

// Laid is a paper where it lies: its outline on the flat piece as that is drawn, mm.
type Laid struct {
	ID      string
	Outline []pattern.Point
	Layer   int
	Inside  bool
	Over    float64 // how far it may stand over an edge, mm
}

// firm is the outline without what stands over edges.
func (p Laid) firm() []pattern.Point {
	if p.Over == 0 {
		return p.Outline
	}
	ring := slices.Clone(p.Outline)
	if pattern.Area(ring) < 0 {
		slices.Reverse(ring)
	}
	return pattern.Inset(ring, func(pattern.Point) float64 { return p.Over })
}

// CutThrough cuts papers out along the edges of what was cut out of the card below.
type CutThrough struct {
	At          []pattern.Loop
	Inside      bool
	Kind, Place string // of the first: "window", and where that is in a person's words
}

// Pane sticks clear film behind an opening, inside.
type Pane struct {
	Piece string
	At    pattern.Loop
	Said
}

func (m Pane) do(_ *Table, c *Card) error {
	if c == nil || !c.opened(m.At) {
		return fmt.Errorf("nothing is cut out at (%.1f, %.1f) mm for film to go behind", m.At[0].X, m.At[0].Y)
	}
	if slices.ContainsFunc(c.panes, func(at pattern.Loop) bool { return slices.Equal(at, m.At) }) {
		return fmt.Errorf("there is film behind it already")
	}
	if err := c.uncovered([]pattern.Loop{m.At}); err != nil {
		return err
	}
	c.panes = append(c.panes, m.At)
	return nil
}

// opened reports whether a loop was cut out, by itself or along a template.
func (c *Card) opened(at pattern.Loop) bool {
	cut := slices.Clone(c.bites)
	if c.round {
		cut = append(cut, c.traced.Holes...)
	}
	return slices.ContainsFunc(cut, func(l pattern.Loop) bool { return slices.Equal(l, at) })
}

// OpensUp reports whether a move cuts papers out along an opening.
func OpensUp(m Move, at pattern.Loop) bool {
	through, cuts := m.(CutThrough)
	return cuts && slices.ContainsFunc(through.At, func(l pattern.Loop) bool { return slices.Equal(l, at) })
}

// leaf is a paper on the table, cut and not laid yet.
type leaf struct {
	id   string
	laid bool
}

func (m CutPapers) do(t *Table, _ *Card) error {
	if m.Width <= 0 || m.Height <= 0 || m.Count <= 0 || m.Copies <= 0 {
		return fmt.Errorf("the papers have no size")
	}
	for _, p := range m.Strip {
		if p.From < 0 || p.To <= p.From || p.To > m.Width {
			return fmt.Errorf("the paper for the %s is no part of its strip", p.Place)
		}
	}
	for _, id := range m.IDs {
		if slices.ContainsFunc(t.leaves, func(l leaf) bool { return l.id == id }) {
			return fmt.Errorf("the paper %s is cut already", id)
		}
		t.leaves = append(t.leaves, leaf{id: id})
	}
	return nil
}

func (m LayPapers) do(t *Table, c *Card) error {
	switch {
	case c == nil || len(c.cells) == 0:
		return fmt.Errorf("there is no card to lay papers on")
	case !m.Late && c.stands:
		return fmt.Errorf("the %s is stuck already, and does not lie flat", c.ID)
	case t.filled:
		return fmt.Errorf("the box is filled already")
	}
	for _, p := range m.Papers {
		i := slices.IndexFunc(t.leaves, func(l leaf) bool { return l.id == p.ID && !l.laid })
		if i < 0 {
			return fmt.Errorf("the paper %s is not cut, or is glued on already", p.ID)
		}
		if p.Inside != m.Inside || p.Layer != m.Layer {
			return fmt.Errorf("the paper %s goes on another side or layer", p.ID)
		}
		if err := c.takes(p); err != nil {
			return err
		}
		t.leaves[i].laid = true
		c.papers = append(c.papers, p)
	}
	return nil
}

// takes says why a paper cannot lie where it is to.
func (c *Card) takes(p Laid) error {
	give, lies := Close*around(p.Outline), p.firm()
	for _, x := range c.cells {
		if x.off && c.traced == nil && pattern.Overlap(lies, x.ring) > give {
			return fmt.Errorf("the paper %s hangs over where card was cut off", p.ID)
		}
	}
	under := false
	for _, o := range c.papers {
		over := pattern.Overlap(lies, o.firm())
		switch {
		case o.Inside != p.Inside || over < give:
		case o.Layer == p.Layer-1 && math.Abs(over-math.Abs(pattern.Area(lies))) < give:
			under = true
		case o.Layer >= p.Layer:
			return fmt.Errorf("the paper %s lies over the paper %s", p.ID, o.ID)
		}
	}
	if p.Layer > 1 && !under {
		return fmt.Errorf("there is no layer %d under the paper %s", p.Layer-1, p.ID)
	}
	for _, b := range c.stuck {
		if b.Outside != p.Inside && pattern.Contains(p.Outline, b.Part) {
			return fmt.Errorf("the paper %s lies where card is stuck", p.ID)
		}
	}
	return nil
}

// bare says why adhesive cannot be put where a paper lies already.
func (c *Card) bare(b Bond) error {
	for _, p := range c.papers {
		if p.Inside == !b.Outside && pattern.Contains(p.Outline, b.Part) || p.Inside && !b.OntoOutside && pattern.Contains(p.Outline, b.Onto) {
			return fmt.Errorf("the paper %s lies where it is to be stuck", p.ID)
		}
	}
	return nil
}

func (m CutThrough) do(_ *Table, c *Card) error {
	if c == nil || len(c.papers) == 0 {
		return fmt.Errorf("no paper lies there to cut through")
	}
	for _, at := range m.At {
		if !slices.ContainsFunc(c.papers, func(p Laid) bool { return p.Inside == m.Inside && Covers(p.Outline, at) }) {
			return fmt.Errorf("no paper covers what is cut out at (%.1f, %.1f) mm", at[0].X, at[0].Y)
		}
		c.through = append(c.through, through{at, m.Inside})
	}
	return nil
}

// through is an opening that papers were cut out along.
type through struct {
	at     pattern.Loop
	inside bool
}

// Papers holds the papers that lie on pieces against those of the design, by piece: each
// once and where it belongs, none left over, and none over an opening.
func (t *Table) Papers(want map[string][]Laid, openings map[string][]pattern.Loop) error {
	for _, l := range t.leaves {
		if !l.laid {
			return fmt.Errorf("the paper %s is cut and never glued on", l.id)
		}
	}
	for _, c := range t.cards {
		left := slices.Clone(c.papers)
		for _, w := range want[c.ID] {
			i := slices.IndexFunc(left, func(p Laid) bool {
				return p.ID == w.ID && p.Layer == w.Layer && p.Inside == w.Inside &&
					slices.EqualFunc(p.Outline, w.Outline, func(a, b pattern.Point) bool { return a.Sub(b).Len() < Close })
			})
			if i < 0 {
				return fmt.Errorf("the paper %s is not on the %s", w.ID, c.ID)
			}
			left = slices.Delete(left, i, i+1)
		}
		if len(left) > 0 {
			return fmt.Errorf("the paper %s is on the %s and is not to be", left[0].ID, c.ID)
		}
		if err := c.uncovered(openings[c.ID]); err != nil {
			return err
		}
	}
	return nil
}

// Covers reports whether a paper lies over what is cut out of the card below.
func Covers(paper []pattern.Point, at pattern.Loop) bool {
	ring := at.Flat()
	return pattern.Overlap(paper, ring) > Close*around(ring)
}

// uncovered says which opening a paper still covers.
func (c *Card) uncovered(openings []pattern.Loop) error {
	for _, at := range openings {
		for _, p := range c.papers {
			cut := slices.ContainsFunc(c.through, func(x through) bool { return x.inside == p.Inside && slices.Equal(x.at, at) })
			if !cut && Covers(p.Outline, at) {
				return fmt.Errorf("the paper %s covers what is cut out at (%.1f, %.1f) mm", p.ID, at[0].X, at[0].Y)
			}
		}
	}
	return nil
}
