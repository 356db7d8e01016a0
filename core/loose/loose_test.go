package loose

import (
	"math"
	"strings"
	"testing"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
)

func show(l measure.Length) string { return measure.Label(l, measure.MM, measure.Tenth) }

func at(x, y measure.Length) Point { return Point{x * mm, y * mm} }

func tag() Piece {
	return Piece{
		ID: 1, Name: "tag", Width: 80 * mm, Height: 40 * mm, Copies: 2, Corners: Cut, Radius: 10 * mm,
		Vertical: []measure.Length{20 * mm, 60 * mm}, Horizontal: []measure.Length{20 * mm},
		Part:  []Line{{at(20, 20), at(60, 40)}},
		Slits: []Line{{at(30, 0), at(30, 10)}},
		Holes: []Hole{{Point: at(70, 10), Width: 4 * mm}, {Point: at(40, 8), Width: 10 * mm, Height: 4 * mm}},
	}
}

// A tag by hand: 80 × 40 less four corners of 10 × 10 halved and two holes; two
// scores and one across part it in six, and the slanting one halves one of them.
func TestPieceByHand(t *testing.T) {
	p := tag()
	if err := p.Check(show); err != nil {
		t.Fatal(err)
	}
	made, err := p.Pattern()
	if err != nil {
		t.Fatal(err)
	}
	want := 80*40 - 4*50.0 - math.Pi*4 - 40
	if got := made.Area(); math.Abs(got-want) > 0.3 {
		t.Errorf("%v mm² are left; want %v", got, want)
	}
	if len(made.Marks) != 7 || len(made.Holes) != 2 || len(made.Slits) != 1 || len(made.Scores.Part) != 1 {
		t.Errorf("%d faces, %d holes, %d slits", len(made.Marks), len(made.Holes), len(made.Slits))
	}
	p.Corners = Rounded
	made, err = p.Pattern()
	if err != nil {
		t.Fatal(err)
	}
	if got := 80*40 - (4-math.Pi)*100 - math.Pi*4 - 40; math.Abs(made.Area()-got) > 0.5 {
		t.Errorf("%v mm² are left of the rounded one; want %v", made.Area(), got)
	}
}

func TestPieceIsRefused(t *testing.T) {
	for _, c := range []struct {
		change      func(*Piece)
		field, says string
	}{
		{func(p *Piece) { p.Name = " " }, "name", "name"},
		{func(p *Piece) { p.Name = strings.Repeat("x", 41) }, "name", "40"},
		{func(p *Piece) { p.Copies = 0 }, "copies", "1 to 100"},
		{func(p *Piece) { p.Width = 4 * mm }, "width", "5 mm"},
		{func(p *Piece) { p.Height = 2000 * mm }, "height", "1500 mm"},
		{func(p *Piece) { p.Radius = 21 * mm }, "radius", "20 mm"},
		{func(p *Piece) { p.Corners = "bitten" }, "corners", "rounded"},
		{func(p *Piece) { p.Vertical[0] = 80 * mm }, "scores.vertical", "79 mm"},
		{func(p *Piece) { p.Horizontal[0] = 0 }, "scores.horizontal", "1 mm"},
		{func(p *Piece) { p.Part[0].B = p.Part[0].A }, "part_scores", "line 1"},
		{func(p *Piece) { p.Slits[0].A.X = 90 * mm }, "slits", "80 mm"},
		{func(p *Piece) { p.Slits[0] = Line{at(30, 0), at(30, 40)} }, "slits", "part it in two"},
		{func(p *Piece) { p.Holes[0].X = 79 * mm }, "holes", "2 mm"},
		{func(p *Piece) { p.Holes[1].Width = 0 }, "holes", "1 mm"},
		{func(p *Piece) { p.Vertical = make([]measure.Length, 61) }, "scores.vertical", "60"},
	} {
		p := tag().Clone()
		c.change(&p)
		if err := p.Check(show); err == nil || fault.Of(err).Field != c.field || !strings.Contains(err.Error(), c.says) {
			t.Errorf("got %v at %q; want %q at %s", err, fault.Of(err).Field, c.says, c.field)
		}
	}
}

// Every usual piece can be cut, in inches and in millimetres.
func TestUsualPiecesCanBeCut(t *testing.T) {
	for _, u := range Usual {
		for _, unit := range measure.Units {
			p, known := Begin(u.ID, unit)
			if err := p.Check(show); err != nil || !known {
				t.Errorf("%s in %s: %v", u.ID, unit, err)
			}
		}
	}
	if _, known := Begin("hat", measure.In); known {
		t.Error("a hat is no loose piece")
	}
}

func TestCloneSharesNothing(t *testing.T) {
	p := tag()
	p.Card = &paper.Card{Name: "a"}
	q := p.Clone()
	q.Vertical[0], q.Part[0].A.X, q.Card.Name = 1, 1, "b"
	if p.Vertical[0] == 1 || p.Part[0].A.X == 1 || p.Card.Name == "b" {
		t.Error("a copy changes the original")
	}
}
