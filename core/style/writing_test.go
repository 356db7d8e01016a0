package style

import (
	"math/rand"
	"os"
	"regexp"
	"strings"
	"testing"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/sample"
)

// The style that docs/writing-a-style.md writes, word for word.

var caseLip = &Parameter{ID: "lip", Label: "Lip", Default: 8 * mm, Min: 4 * mm, Max: 30 * mm,
	About: "how far the open end's strip comes up"}

var slipCase = &Style{
	ID: "slip-case", Name: "Slip case", About: "A tray with a low end, for a pile of cards",
	Opens: "at one end", Strength: "light",
	Parameters: []*Parameter{length, width, height, caseLip},
	Options:    []*Option{adhesive},
	Axes:       lengthWidthHeight, // which sizes set the room's length, width and height
	Build:      buildSlipCase,
}

func buildSlipCase(s Spec) (*Box, error) {
	l, w, h, lip := s.Size(length), s.Size(width), s.Size(height), s.Size(caseLip)
	if err := s.atMost(caseLip, h, "it would stand over the walls"); err != nil {
		return nil, err
	}
	g := s.grid([]measure.Length{h, l, lip}, []measure.Length{h, w, h}, `
		back.left   back   .
		left        base   right
		front.left  front  .`)
	base, left := g.Face("base"), g.Face("left")
	g.Role(pattern.Panel, base)
	for _, wall := range []string{"back", "front"} {
		side, tab := g.Face(wall), g.Face(wall+".left")
		g.Call(side, wall+" wall")
		g.Call(tab, "tab of the "+wall+" wall")
		g.Role(pattern.Tab, tab)
		g.Tab(tab, side, min(h, w/2), tabWedge)
		g.Slit(tab, left)
		g.Glue(tab, true, left)
		g.Up(base, side)
	}
	g.Call(left, "end wall")
	g.Call(g.Face("right"), "lip")
	g.Up(base, left, g.Face("right"))
	p, err := g.Pattern()
	if err != nil {
		return nil, err
	}
	return &Box{
		Parts: []Part{{
			ID: "body", Name: "Case", Pattern: p, Root: base.Name(), Opens: Upwards,
			Making: told(func() []hand.Move { return s.caseMaking(p) }),
		}},
		Shut:     ByRibbon,
		Together: []hand.Move{hand.Fill{Into: "body"}, hand.Shut{Said: hand.Say("hold-ribbon")}},
	}, nil
}

func (s Spec) caseMaking(p *pattern.Pattern) []hand.Move {
	m := s.make(p)
	m.scores()
	m.do(hand.Names{Across: true, Words: []string{"left", "base", "lip"}})
	m.slit(1, []hand.Edge{hand.Left}, 0, 1)
	m.do(hand.CutOff{What: m.cells("beside", []string{"lip"}, [2]int{2, 0}, [2]int{2, 2})})
	m.shape("tab", group{"tab", nil, []string{"back.left", "front.left"}})
	m.do(hand.FoldAll{})
	end := m.parts("wall", nil, "left", "left")
	end.Words = "left wall"
	m.stick(hand.Stick{Way: hand.Inside, Outside: true, What: m.parts("tab", nil, "back.left", "front.left"), Onto: end})
	return m.moves
}

// The guide's code is this file's, and its style passes what every style does.
func TestTheGuidesStyleFolds(t *testing.T) {
	guide, err := os.ReadFile("../../docs/writing-a-style.md")
	if err != nil {
		t.Fatal(err)
	}
	own, err := os.ReadFile("writing_test.go")
	if err != nil {
		t.Fatal(err)
	}
	for _, block := range regexp.MustCompile("(?s)```go\n(.*?)```").FindAllSubmatch(guide, -1) {
		if !strings.Contains(string(own), string(block[1])) {
			t.Errorf("the guide has code that is not tested here:\n%s", block[1])
		}
	}
	rng := rand.New(rand.NewSource(sample.Seed(2)))
	for made := 0; made < sample.Of(t, 100); {
		spec := randomSpec(rng, slipCase)
		b, err := slipCase.Make(spec)
		if err != nil {
			continue
		}
		made++
		checkPart(t, spec, b.Parts[0], true)
		table, err := hand.Do(hand.Work{Piece: "body", Moves: b.Parts[0].Moves()}, hand.Work{Moves: b.Together})
		if err != nil {
			t.Fatal(err)
		}
		if card, _ := table.Card("body"); card.Equal(b.Parts[0].Pattern) != nil {
			t.Fatal(card.Equal(b.Parts[0].Pattern))
		}
		checkBox(t, slipCase, spec, b)
		if t.Failed() {
			return
		}
	}
}

// What a style does not declare it cannot read, and what a piece does not have
// is a fault at the line that asks for it.
func TestSlipsOfThePenAreSaid(t *testing.T) {
	reads := *slipCase
	reads.Parameters = []*Parameter{length, width, height}
	if _, err := reads.Make(usual(&reads, nil, nil)); err == nil || !strings.Contains(err.Error(), "size lip") {
		t.Errorf("reading a size that is not declared gives %v", err)
	}
	reads = *slipCase
	reads.Options = nil
	reads.Build = func(s Spec) (*Box, error) { s.adhesive(); return buildSlipCase(s) }
	if _, err := reads.Make(usual(&reads, nil, nil)); err == nil || !strings.Contains(err.Error(), "option adhesive") {
		t.Errorf("reading an option that is not declared gives %v", err)
	}
	for want, draw := range map[string]func(g *pattern.Grid){
		`writing_test.go:\d+: the grid has no face "frnot"`:       func(g *pattern.Grid) { g.Slit(g.Face("base"), g.Face("frnot")) },
		`writing_test.go:\d+: "nothing" is no face of this piece`: func(g *pattern.Grid) { g.Role(pattern.Panel, nil) },
		`writing_test.go:\d+: there is a face "front" already`: func(g *pattern.Grid) {
			g.Polygon("front", pattern.Pt(0, 0), pattern.Pt(9, 0), pattern.Pt(9, 9))
		},
		`writing_test.go:\d+: the face "bow" has no area`: func(g *pattern.Grid) {
			g.Polygon("bow", pattern.Pt(0, 0), pattern.Pt(9, 9), pattern.Pt(9, 0), pattern.Pt(0, 8))
		},
		`writing_test.go:\d+: the face "tag" hangs on nothing`: func(g *pattern.Grid) {
			g.Polygon("tag", pattern.Pt(300, 0), pattern.Pt(309, 0), pattern.Pt(309, 9), pattern.Pt(300, 9))
		},
		`lie over one another`: func(g *pattern.Grid) {
			g.Polygon("patch", pattern.Pt(2, 2), pattern.Pt(30, 2), pattern.Pt(30, 30))
		},
	} {
		g := pattern.NewGrid([]measure.Length{20 * mm, 20 * mm}, []measure.Length{20 * mm}, `front base`)
		draw(g)
		if _, err := g.Pattern(); err == nil || !regexp.MustCompile(want).MatchString(err.Error()) {
			t.Errorf("got %v; want %s", err, want)
		}
	}
}
