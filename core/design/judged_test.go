package design

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/paper"
)

// wishes are boxes as makers have made them, by their own numbers.
var wishes = []struct {
	name, style string
	change      func(in *Inputs)
	wide, high  float64 // of the first blank that is said here, in mm
	piece       string
	says        string // a remark that it gets; "" for none of sizes
}{
	{"a cover equal to its floor", "flat-fold-tray", func(in *Inputs) {
		in.Size["length"], in.Size["width"], in.Size["height"], in.Lengths["lid.allowance"] = 80*mm_, 80*mm_, 25*mm_, 0
	}, 130, 130, "tray", "springs out"},
	{"a ribbon of 50 mm", "bound-box", func(in *Inputs) { in.Choices["closure"], in.Lengths["ribbon.width"] = "ribbon", 50*mm_ }, 260, 235, "tray", ""},
	{"a liner as large as its base", "blossom-box", func(in *Inputs) { in.Size["length"], in.Size["liner"] = 100*mm_, 100*mm_ }, 200, 200, "liner", "bent outwards"},
	{"a front wider than its back", "book-wrap", func(in *Inputs) { in.Size["front"], in.Size["back"] = 52*mm_, 48*mm_ }, 116, 71, "cover", "past the back"},
	{"an arch on a strip", "arched-box", func(in *Inputs) {
		in.Size["width"], in.Size["length"], in.Size["door"], in.Size["straight"], in.Size["back"] = 30*mm_, 40*mm_, 20*mm_, 15*mm_, 30*mm_
	}, 90, 30, "base", ""},
	{"walls of 45 round boxes of 38", "fold-out-carrier", func(in *Inputs) {
		in.Size["length"], in.Size["width"], in.Size["height"], in.Size["walls"] = 38*mm_, 38*mm_, 38*mm_, 45*mm_
	}, 213, 132, "carrier", ""},
	{"refills by their own numbers", "dispenser", func(in *Inputs) {
		in.Size["length"], in.Size["width"], in.Size["height"], in.Size["refill.front"], in.Size["refill.flap"] = 100*mm_, 48*mm_, 58*mm_, 58*mm_, 50*mm_
		in.Choices["refills"], in.Choices["refill.shape"] = "2", "pointed"
	}, 120, 186, "refill-1", ""},
	{"a strap of 180 and a closer of 42", "book-wrap", func(in *Inputs) {
		in.Size["width"], in.Size["depth"], in.Size["height"], in.Size["strap.length"], in.Size["closer.length"] = 60*mm_, 22*mm_, 80*mm_, 180*mm_, 42*mm_
	}, 42, 12, "closer", ""},
	{"a wallet from what goes in", "wallet-box", func(in *Inputs) {
		in.Things = []contents.Thing{{Name: "Card", Shape: contents.Block, Length: 60 * mm_, Width: 20 * mm_, Height: 60 * mm_, Count: 1, Ease: 2 * mm_}}
	}, 109, 191, "body", ""},
	{"a bottle", "tall-box", func(in *Inputs) {
		in.Things = []contents.Thing{{Name: "Bottle", Shape: contents.Round, Length: 75 * mm_, Width: 75 * mm_, Height: 310 * mm_, Count: 1, Ease: 2 * mm_}}
		in.Sheets = []paper.Sheet{{Name: "board", Width: 500 * mm_, Height: 700 * mm_, Count: paper.Unlimited}}
	}, 324, 462, "body", ""},
	{"a lid to the table", "tray-lid", func(in *Inputs) { in.Size["height"], in.Lengths["lid.depth"] = 30*mm_, 32*mm_ }, 0, 0, "", "air under it"},
}

// A maker's numbers stand: what can be folded is made, and what comes of it is said.
func TestAMakersNumbersStand(t *testing.T) {
	t.Parallel()
	for _, w := range wishes {
		t.Run(w.name, func(t *testing.T) {
			in := New("x", measure.MM, w.style)
			w.change(&in)
			r, err := Make(t.Context(), in)
			if err != nil {
				t.Fatal(err)
			}
			if p, known := r.part(w.piece); w.piece != "" && (!known || p.Pattern.Width.MM() != w.wide || p.Pattern.Height.MM() != w.high) {
				t.Errorf("the %s is %v × %v, not %v × %v", w.piece, p.Pattern.Width, p.Pattern.Height, w.wide, w.high)
			}
			i := slices.IndexFunc(r.Checks, func(f inspect.Finding) bool { return f.Mend != nil })
			switch {
			case w.says == "" && i >= 0:
				t.Errorf("there is something to remark: %s", r.Checks[i].Text)
			case w.says != "" && (i < 0 || !strings.Contains(r.Checks[i].Text, w.says)):
				t.Errorf("nobody says that it %s: %v", w.says, r.Checks)
			case w.says != "":
				mended := r.Inputs.Clone()
				mended.Mend(*r.Checks[i].Mend)
				again, err := Make(t.Context(), mended)
				if err != nil || slices.ContainsFunc(again.Checks, func(f inspect.Finding) bool { return f.ID == r.Checks[i].ID && f.Mend != nil }) {
					t.Errorf("pressed, it is not mended: %v", err)
				}
			}
			for _, f := range r.Checks {
				if f.ID == "making" {
					t.Errorf("a hand makes another box: %s", f.Text)
				}
			}
		})
	}
}

// A blank longer than the trimmer cuts is cut with a knife, and that is said; its sheets are
// laid all the same.
func TestBeyondTheTrimmerAKnifeCuts(t *testing.T) {
	t.Parallel()
	in := New("x", measure.In, "tray-lid")
	in.Tools.Trimmer = 6 * measure.Inch
	r, err := Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	said := slices.IndexFunc(r.Checks, func(f inspect.Finding) bool { return f.ID == "trimmer" && f.Piece == "base" })
	if said < 0 || !strings.Contains(r.Checks[said].Text, "7 in long, and the trimmer cuts 6 in: cut it with a knife") || len(r.Stocks[0].Layout.Unplaced) > 0 {
		t.Errorf("of a base 7 in long nothing is said: %v", r.Checks)
	}
	in.Size["length"], in.Size["width"], in.Size["height"] = 2*measure.Inch, 2*measure.Inch, measure.Inch
	if r, err = Make(t.Context(), in); err != nil || !slices.ContainsFunc(r.Checks, func(f inspect.Finding) bool { return f.ID == "trimmer" && f.Piece == "" }) {
		t.Errorf("of a sheet that no cut goes across nothing is said: %v", err)
	}
}
