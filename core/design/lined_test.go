package design

import (
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/style"
)

// lined is a base with a lid whose inside is lined in flocked paper of 0.4 mm.
func lined() Inputs {
	in := New("x", measure.MM, "tray-lid")
	flock := paper.Card{Name: "Flocked paper, berry", GSM: 160, Thickness: 400 * measure.Micrometre}
	in.Mats = []dress.Dressing{{Piece: "base", Where: dress.Both, Side: dress.Inside, Layers: []dress.Layer{{Card: flock, Border: dress.Even(mm_)}}}}
	return in
}

// The lining takes 0.4 mm off the floor and 0.8 between the walls, of the room and
// so of what the box is made for.
func TestLiningsTakeRoom(t *testing.T) {
	t.Parallel()
	in := lined()
	bare := in.Clone()
	bare.Mats = nil
	a, b := make_(t, bare), make_(t, in)
	if l, w, h := a.Inside.Length-b.Inside.Length, a.Inside.Width-b.Inside.Width, a.Inside.Height-b.Inside.Height; l != 800*measure.Micrometre || w != l || h != 400*measure.Micrometre {
		t.Errorf("it takes %v × %v × %v mm", l.MM(), w.MM(), h.MM())
	}
	// A box that is to be so large inside is so, lined.
	in.Basis = Inside
	in.Size["length"], in.Size["width"], in.Size["height"] = 90*mm_, 70*mm_, 30*mm_
	if r := make_(t, in); r.Inside.Length < 90*mm_ || r.Inside.Height < 30*mm_ {
		t.Errorf("inside it is %v", r.Inside)
	}
	in = lined()
	in.Things = []contents.Thing{{Shape: contents.Block, Length: 60 * mm_, Width: 40 * mm_, Height: 30 * mm_, Count: 1}}
	r := make_(t, in)
	if r.Inside.Length < 60*mm_ || r.Inside.Height < 30*mm_ {
		t.Errorf("round a block of 60 × 40 × 30 it is %v inside", r.Inside)
	}
	told := false
	for _, l := range r.Stand.Account {
		told = told || l.Text == "paper glued inside" && l.Length == 800*measure.Micrometre && l.Height == 400*measure.Micrometre
	}
	if !told {
		t.Errorf("the account: %+v", r.Stand.Account)
	}
}

// On the flat card where nothing is in the way; over the tabs, after gluing, where
// they are glued to the wall.
func TestLiningsGoInWhenTheyCan(t *testing.T) {
	t.Parallel()
	r := make_(t, lined())
	glued, early, late := -1, -1, -1
	for i, s := range r.Steps {
		switch {
		case s.Piece == "base" && strings.Contains(s.Text, "the outside of the four tabs"):
			glued = i
		case strings.Contains(s.Text, "of the base, over the tabs,"):
			late = i
		case strings.Contains(s.Text, "of the base, inside,"):
			early = i
		}
	}
	if early < 0 || glued < early || late < glued {
		t.Errorf("early %d, glued %d, late %d", early, glued, late)
	}
}

// A covering's turned-in edge stands in the room, too; nothing else of it does.
func TestCoveringTakesRoom(t *testing.T) {
	t.Parallel()
	in := New("x", measure.MM, "tray-lid")
	before := make_(t, in).Inside
	in.Covers = []dress.Cover{UsualCover("base", measure.MM)}
	after := make_(t, in).Inside
	if before.Length-after.Length != 240*measure.Micrometre || before.Height != after.Height {
		t.Errorf("%v, covered %v", before, after)
	}
	in.Covers[0].Piece = "lid"
	if got := make_(t, in).Inside; got != before {
		t.Errorf("a covered lid changes the room: %v", got)
	}
	if pastedIn(&Inputs{Style: "tray-lid"}) != (style.Extent{}) {
		t.Error("nothing takes room")
	}
}
