package design

import (
	"strings"
	"testing"

	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/style"
)

// A band that is longer than every sheet is cut of two strips alike: half of the loop and a lap each,
// told, laid and counted as two; on a sheet that is long enough it is one, and where half is too long
// it is refused as before.
func TestABandOfTwoStrips(t *testing.T) {
	t.Parallel()
	in, err := Read([]byte(`{"brevium":1,"name":"Jars","units":"in","style":"tray-lid","size":{"length":"6 in","width":"6 in","height":"3 in"},
	 "bands":[{"axis":"length","width":"1 in","lap":"1/2 in"}],"copies":3,"sheets":[{"name":"12 × 12 in"}]}`))
	if err != nil {
		t.Fatal(err)
	}
	r := make_(t, in)
	b := r.Bands[0]
	if b.Strips != 2 {
		t.Fatalf("it is of %d strips", b.Strips)
	}
	if over := 2*(b.Strip.Length-b.Lap) - b.Strip.Girth; over < 0 || over > 2*in.Tools.Tick.Ruler().Length() {
		t.Errorf("two strips of %v with laps of %v go round %v", b.Strip.Length.MM(), b.Lap.MM(), b.Strip.Girth.MM())
	}
	laid, told := 0, []string{}
	for _, s := range r.Stocks {
		for i, p := range s.Job.Pieces {
			for _, sheet := range s.Layout.Sheets {
				for _, x := range sheet.Placed {
					if x.Piece == i && p.Name == b.PieceID() {
						laid++
					}
				}
			}
		}
	}
	for _, s := range r.Steps {
		told = append(told, s.Text)
	}
	words := strings.Join(told, " ")
	if laid != 6 || !strings.Contains(words, "Cut six of the belly band") || !strings.Contains(words, "the two strips of the belly band end to end") {
		t.Errorf("%d strips lie on the sheets; told is %s", laid, words)
	}
	said := ""
	for _, c := range r.Checks {
		if c.ID == "band" {
			said += c.Text
			if c.Verdict == inspect.Fail {
				t.Error(c.Text)
			}
		}
	}
	if !strings.Contains(said, "of two strips") || !strings.Contains(said, "it slides") {
		t.Errorf("said is %q", said)
	}
	long, _ := paper.SheetNamed("12 × 24 in")
	in.Sheets = []paper.Sheet{long}
	if r := make_(t, in); r.Bands[0].Strips != 1 {
		t.Errorf("on a long sheet it is of %d strips", r.Bands[0].Strips)
	}
	in.Sheets[0], _ = paper.SheetNamed("12 × 12 in")
	in.Bands[0].Notch = true
	if _, err := Make(t.Context(), in); err == nil || !strings.Contains(err.Error(), "another way") {
		t.Errorf("with a notch where the second join would be: %v", err)
	}
}

// Round any kind of box a band of two strips ends where it begins, on each axis on which it is cut of
// two.
func TestBandsOfTwoGoRound(t *testing.T) {
	t.Parallel()
	two := 0
	for _, s := range style.Boxes() {
		for _, axis := range BandAxes {
			in := New("", measure.MM, s.ID)
			b := UsualBand(measure.MM)
			b.ID, b.Axis = 1, axis
			in.Bands = []Band{b}
			r, err := Make(t.Context(), in)
			if err != nil || r.Bands[0].Strips != 2 {
				continue
			}
			two++
			if over := 2*(r.Bands[0].Strip.Length-b.Lap) - r.Bands[0].Strip.Girth; over < 0 || over > 2*in.Tools.Tick.Ruler().Length() {
				t.Errorf("%s, round the %s: %v too long", s.ID, axis, over.MM())
			}
			for _, at := range r.Bands[0].Strip.Scores {
				if at <= b.Lap || at >= r.Bands[0].Strip.Length-b.Lap {
					t.Errorf("%s, round the %s: a score at %v lies in a lap", s.ID, axis, at.MM())
				}
			}
		}
	}
	if two == 0 {
		t.Error("no kind of box has a band of two strips")
	}
}
