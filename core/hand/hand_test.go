package hand

import (
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
)

func mm(n float64) measure.Length { return measure.FromMM(n) }

// A tray by hand: 160 × 130 mm of card scored 30 mm from every edge, the four corner tabs slit
// from the left and the right edge, tapered by 2 mm, folded and stuck inside the end walls.
func trayMoves() []Move {
	tabs := Parts{At: []pattern.Point{pattern.Pt(15, 15), pattern.Pt(145, 15), pattern.Pt(15, 115), pattern.Pt(145, 115)}}
	ends := Parts{At: []pattern.Point{pattern.Pt(15, 65), pattern.Pt(145, 65), pattern.Pt(15, 65), pattern.Pt(145, 65)}}
	return []Move{
		Cut{Width: mm(160), Height: mm(130)},
		ScoreFour{At: []measure.Length{mm(30)}},
		Slit{Runs: []Run{{Left, 0, 1}, {Left, 1, 1}, {Right, 0, 1}, {Right, 1, 1}}},
		Taper{What: tabs, Off: mm(2)},
		FoldAll{},
		Stick{What: tabs, Onto: ends, Way: Inside, Outside: true},
	}
}

// drawn is the same tray as a construction draws it: by its columns, rows and faces.
func drawn(t *testing.T, high float64) *pattern.Pattern {
	t.Helper()
	g := pattern.NewGrid([]measure.Length{mm(high), mm(160 - 2*high), mm(high)}, []measure.Length{mm(high), mm(130 - 2*high), mm(high)},
		"back.left back back.right\nleft base right\nfront.left front front.right")
	for _, wall := range []string{"back", "front"} {
		for _, end := range []string{"left", "right"} {
			tab := g.Face(wall + "." + end)
			g.Slit(tab, g.Face(end))
			g.Role(pattern.Tab, tab)
			g.Tab(tab, g.Face(wall), mm(high), mm(2))
			g.Glue(tab, true, g.Face(end))
		}
	}
	p, err := g.Pattern()
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// What the moves leave on the table is the tray as it is drawn, and no tray 1 mm higher.
func TestAHandMakesATray(t *testing.T) {
	table, err := Do(Work{Piece: "body", Moves: trayMoves()})
	if err != nil {
		t.Fatal(err)
	}
	c, there := table.Card("body")
	if !there || len(c.Bonds()) != 4 {
		t.Fatalf("no card with four bonds lies there: %v", c)
	}
	if cut := c.Cuts(); len(cut) < 4 || cut[0] != (pattern.Segment{A: pattern.Pt(0, 30), B: pattern.Pt(30, 30)}) {
		t.Errorf("the first slit goes along %v", cut)
	}
	if err := c.Equal(drawn(t, 30)); err != nil {
		t.Error(err)
	}
	if c.Equal(drawn(t, 31)) == nil {
		t.Error("a tray of another height is taken for it")
	}
}

// A hand cannot do what is not there yet, or is done already, and hears at which move.
func TestAHandSaysWhatItCannotDo(t *testing.T) {
	tray := trayMoves()
	for name, x := range map[string]struct {
		moves []Move
		at    int
		says  string
	}{
		"scored before it is cut":    {tray[1:], 0, "cut first"},
		"cut twice":                  {[]Move{tray[0], tray[0]}, 1, "once"},
		"no size":                    {[]Move{Cut{}}, 0, "no size"},
		"a score off the card":       {[]Move{tray[0], ScoreFour{At: []measure.Length{mm(200)}}}, 1, "card"},
		"slit where nothing crosses": {[]Move{tray[0], tray[2]}, 1, "no line 1"},
		"slit twice":                 {[]Move{tray[0], tray[1], tray[2], tray[2]}, 3, "slit already"},
		"tapered before it is slit":  {[]Move{tray[0], tray[1], tray[3]}, 2, "hangs by"},
		"stuck before it is folded":  {[]Move{tray[0], tray[1], tray[2], tray[5]}, 3, "not folded"},
		"slit when it is folded":     {[]Move{tray[0], tray[1], FoldAll{}, tray[2]}, 3, "folded already"},
		"stuck twice":                {append(trayMoves(), tray[5]), 6, "stuck already"},
		"more names than rows":       {[]Move{tray[0], tray[1], Names{Words: []string{"base", "back"}}}, 2, "2 names for 2 scores"},
	} {
		_, err := Do(Work{Piece: "body", Moves: x.moves})
		fault, is := err.(*Fault)
		if !is {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if fault.N != x.at || !strings.Contains(fault.Error(), x.says) {
			t.Errorf("%s: at move %d: %v", name, fault.N, fault)
		}
	}
}

// Pieces come together only when they stand; a box is filled before it is shut, and once.
func TestTogetherInOrder(t *testing.T) {
	lid := Work{Piece: "lid", Moves: trayMoves()}
	body := Work{Piece: "body", Moves: trayMoves()}
	shut := Shut{Uses: []string{"lid"}, Said: Say("lower")}
	for name, x := range map[string]struct {
		together []Move
		says     string
	}{
		"made":               {[]Move{Fill{Into: "body"}, shut}, ""},
		"filled twice":       {[]Move{Fill{Into: "body"}, Fill{Into: "body"}}, "filled"},
		"shut before":        {[]Move{shut, Fill{Into: "body"}}, "nothing is filled"},
		"a lid nobody made":  {[]Move{Fill{Into: "body"}, Shut{Uses: []string{"cover"}, Said: Say("lower")}}, "cover"},
		"into what is not":   {[]Move{Fill{Into: "drawer"}}, "drawer"},
		"joined to no piece": {[]Move{Join{Uses: []string{"body", "cover"}}}, "cover"},
	} {
		_, err := Do(body, lid, Work{Moves: x.together})
		if x.says == "" && err != nil || x.says != "" && (err == nil || !strings.Contains(err.Error(), x.says)) {
			t.Errorf("%s: %v", name, err)
		}
	}
}
