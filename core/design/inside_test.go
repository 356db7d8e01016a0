package design

import (
	"fmt"
	"math/rand"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/fault"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/style"
)

const jarsAndDeck = `{"brevium":1,"name":"Jars and a deck","units":"mm","style":"tray-lid","options":{"tick":"1 mm"},
 "contents":[{"name":"jar","across":"48 mm","height":"62 mm","count":4,"ease":2},
  {"name":"deck","shape":"stack","length":63,"width":88,"height":18,"ease":2,"up":["height","length","width"]}],
 "card":{"thickness":0.3},"sheets":[{"name":"A3"}],"tools":{"trimmer":"42 cm"},"compartments":{"per":"thing","as":"dividers"}}`

// Six little jars: every way is found with its size, 3 × 2 wins for a base
// and lid, and it is told by how much.
func TestSixCylinders(t *testing.T) {
	t.Parallel()
	in := read(t, `{"brevium":1,"name":"six","units":"mm","style":"tray-lid","options":{"tick":"1 mm"},
	 "contents":[{"name":"vial","across":48,"height":62,"count":6,"ease":2}],"card":{"thickness":0.3}}`)
	r := make_(t, in)
	sizes := map[string][3]float64{
		"3x2x1": {146, 98, 64}, "6x1x1": {290, 50, 64}, "2x3x1": {98, 146, 64},
		"3s2x1": {170, 91.57, 64}, // 3½ across, one row and √3/2 of one deep
	}
	for id, want := range sizes {
		found := false
		for _, w := range r.Ways {
			if w.ID != id {
				continue
			}
			found = true
			for i, got := range []measure.Length{w.Length, w.Width, w.Height} {
				if d := got.MM() - want[i]; d < -0.005 || d > 0.005 {
					t.Errorf("%s takes %v × %v × %v mm; want %v", id, w.Length.MM(), w.Width.MM(), w.Height.MM(), want)
				}
			}
		}
		if !found {
			t.Errorf("%s is not among the ways", id)
		}
	}
	if r.Stand.ID != "3x2x1" && r.Stand.ID != "2x3x1" {
		t.Errorf("%s wins; want three by two", r.Stand.ID)
	}
	for _, w := range r.Ways {
		if w.Card > 0 && w.Goes && w.Card < r.Ways[0].Card {
			t.Errorf("%s takes %v mm², less than the %v of the one chosen", w.ID, w.Card, r.Ways[0].Card)
		}
	}
	if next := r.Ways[1]; next.Card < r.Ways[0].Card {
		t.Error("the ways are not in order of card")
	}
}

// Four jars and a deck, one cell each: every thing has its cell with its
// ease, and cells, dividers and what rounding left make up the inside exactly.
func TestFourJarsAndADeckInCells(t *testing.T) {
	t.Parallel()
	r := make_(t, read(t, jarsAndDeck))
	if len(r.Stand.Cells) != 5 || len(r.Stand.Spots) != 5 {
		t.Fatalf("%d cells for 5 things", len(r.Stand.Cells))
	}
	for i, s := range r.Stand.Spots {
		c, ease := r.Stand.Cells[i], r.Inputs.Things[s.Thing].Ease
		if c.Thing != s.Thing || c.Length < s.Length+ease || c.Width < s.Width+ease || s.X < c.X || s.X+s.Length > c.X+c.Length ||
			s.Y < c.Y ||
			s.Y+s.Width > c.Y+c.Width {
			t.Errorf("thing %d of %v × %v in a cell of %v × %v", i, s.Length.MM(), s.Width.MM(), c.Length.MM(), c.Width.MM())
		}
	}
	card := r.Inputs.Card.Thickness
	sum := func(cells []measure.Length) measure.Length {
		total := measure.Length(len(cells)-1) * card
		for _, c := range cells {
			total += c
		}
		return total
	}
	if sum(r.Stand.Rows) != r.Inside.Width {
		t.Errorf("rows and dividers make %v mm of an inside %v wide", sum(r.Stand.Rows).MM(), r.Inside.Width.MM())
	}
	for _, cells := range r.Stand.Bands {
		if sum(cells) != r.Inside.Length {
			t.Errorf("cells and dividers make %v mm of an inside %v long", sum(cells).MM(), r.Inside.Length.MM())
		}
	}
	account := style.Extent{}
	for _, l := range r.Stand.Account {
		account.Length, account.Width, account.Height = account.Length+l.Length, account.Width+l.Width, account.Height+l.Height
	}
	if account != r.Inside {
		t.Errorf("the account comes to %v of %v", account, r.Inside)
	}
	if inspect.Worst(r.Checks) == inspect.Fail {
		t.Errorf("the dividers do not meet: %+v", r.Checks)
	}
	if !strings.Contains(string(r.planText(t)), "deck") {
		t.Error("the plan does not say what goes where")
	}
}

func (r *Result) planText(t *testing.T) []byte {
	t.Helper()
	text, err := r.Plan()
	if err != nil {
		t.Fatal(err)
	}
	return text
}

// Slots that do not meet are found by folding.
func TestStripsThatMissAreFound(t *testing.T) {
	t.Parallel()
	d := style.Dividers{Length: 156 * mm_, Width: 104 * mm_, Height: 50 * mm_, Card: 300 * measure.Micrometre, Tick: measure.Tick(mm_)}
	d.Columns, d.Rows = style.Equal(d.Length, d.Card, 3), style.Equal(d.Width, d.Card, 2)
	parts, err := d.Parts()
	if err != nil {
		t.Fatal(err)
	}
	r := &Result{}
	for _, p := range parts {
		if err := r.add(p); err != nil {
			t.Fatal(err)
		}
	}
	for _, c := range []struct {
		off  float64
		hits bool
	}{{0, false}, {4, true}} {
		for i := range parts[0].Places {
			r.Parts[0].Places[i].Shift.X += c.off
		}
		bodies, err := r.Bodies(style.Finished)
		if err != nil || len(style.Collisions(bodies)) > 0 != c.hits {
			t.Errorf("strips %v mm out of place: %v, %v", c.off, style.Collisions(bodies), err)
		}
	}
}

// Every manner of cells and linings gives pieces that fit the box, are laid
// on sheets, and have steps.
func TestInsidesAreRealPieces(t *testing.T) {
	t.Parallel()
	for _, as := range Cellings {
		for _, per := range []contents.Per{contents.PerKind, contents.PerThing} {
			in := read(t, jarsAndDeck)
			in.Compartments = Compartments{Per: per, As: as}
			in.Linings = []Lining{Stiffener, Liner, Riser}
			in.RiserHeight = 10 * mm_
			r := make_(t, in)
			want := map[As]string{AsDividers: "divider.cross", AsTrays: "cell.1", AsInsert: "insert"}[as]
			if as == AsDividers && (len(r.Stand.Columns) == 1 || len(r.Stand.Bands) > 0) {
				want = "divider.long"
			}
			for _, id := range []string{want, "stiffener", "liner", "riser"} {
				laid := 0
				for _, s := range r.Stocks {
					for _, p := range s.Job.Pieces {
						if p.Name == id {
							laid += p.Copies
						}
					}
				}
				cut := false
				for _, s := range r.Steps {
					cut = cut || s.Piece == id
				}
				if laid == 0 || !cut {
					t.Errorf("%s %s: %d of %s laid out, cut by a step: %v", as, per, laid, id, cut)
				}
			}
			for _, f := range r.Fits {
				if f.Gap < 0 {
					t.Errorf(
						"%s %s: %s in %s is tight by %v mm along the %s",
						as,
						per,
						f.Pair.InnerName,
						f.Pair.OuterName,
						f.Gap.MM(),
						f.Pair.Axis,
					)
				}
			}
			for _, c := range r.Checks {
				if c.Verdict == inspect.Fail {
					t.Errorf("%s %s: %s", as, per, c.Text)
				}
			}
			again, err := Read(r.Inputs.Write())
			if err != nil || Difference(r.Inputs, again) != "" {
				t.Errorf("%s %s: written and read back: %v, %s", as, per, err, Difference(r.Inputs, again))
			}
		}
	}
}

// For random things the inside is what the arrangement needs, and not a tick
// more; and no way that was tried takes less card.
func TestTheInsideIsTheSmallestOnTheTick(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewSource(9))
	for range 60 {
		in := New("random", measure.MM, []string{"tray", "tray-lid", "hinged-carton"}[rng.Intn(3)])
		in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
		for range 1 + rng.Intn(3) {
			in.Things = append(in.Things, contents.Thing{
				Shape: contents.Block,
				Ease:  2 * mm_,
				Count: 1 + rng.Intn(3),
				Length: measure.Length(
					10+rng.Intn(30),
				) * mm_,
				Width:  measure.Length(10+rng.Intn(30)) * mm_,
				Height: measure.Length(10+rng.Intn(20)) * mm_,
			})
		}
		r := make_(t, in)
		tick := in.Tools.Tick
		have, need := r.Inside, r.Ways[0]
		for i, x := range [][2]measure.Length{{have.Length, need.Length}, {have.Width, need.Width}, {have.Height, need.Height}} {
			most := tick.Length()
			if i < 2 && need.Length == need.Width { // it stays square: the longer side of both
				most += tick.Length()
			}
			if x[0] < x[1] || x[0]-x[1] >= most {
				t.Errorf("%+v: an inside of %v mm for %v", in.Things, x[0].MM(), x[1].MM())
			}
		}
	}
}

func TestContentsFiles(t *testing.T) {
	t.Parallel()
	csv := "Name, across, length, width, height, count, fragile, up\njar, 48 mm,,, 62 mm, 4, yes,\nbook,, 10 cm, 7 cm, 1 1/2 cm, 1, no, height width\n"
	got, faults := ReadContents([]byte(csv), measure.CM)
	if len(faults) > 0 || len(got) != 2 {
		t.Fatalf("%v, %v", got, faults)
	}
	if j, b := got[0], got[1]; j.Shape != contents.Round || j.Length != 48*mm_ || !j.Fragile || b.Height != 15*mm_ || len(b.Up) != 2 {
		t.Errorf("read %+v and %+v", j, b)
	}
	for _, thing := range got {
		if again, err := ReadThing(
			WriteThing(thing),
		); err != nil || again.Name != thing.Name || again.Length != thing.Length ||
			again.Height != thing.Height {
			t.Errorf("%+v came back as %+v, %v", thing, again, err)
		}
	}
	bad := "name,across,height,count\njar,48 mm,62 mm,4\ntin,fat,3 cm,1\npot,5 cm,6 cm,0\n"
	got, faults = ReadContents([]byte(bad), measure.CM)
	if len(got) != 0 || len(faults) != 2 || !strings.HasPrefix(faults[0].Error(), "row 2.across") ||
		!strings.HasPrefix(faults[1].Error(), "row 3.count") {
		t.Errorf("a file with two bad rows gave %v and %v", got, faults)
	}
	for _, text := range []string{"", "[]", "[1]", "{}", "size\n3", `[{"nme":"jar"}]`, "name,height\nx"} {
		if got, faults := ReadContents([]byte(text), measure.MM); len(faults) == 0 || len(got) > 0 {
			t.Errorf("%q gave %v without a fault", text, got)
		}
	}
}

func FuzzReadContents(f *testing.F) {
	f.Add([]byte("name,across,height,count\njar,48 mm,62 mm,4\n"))
	f.Add([]byte(`[{"name":"jar","across":48,"height":62,"up":["height"]}]`))
	f.Fuzz(func(t *testing.T, text []byte) {
		got, faults := ReadContents(text, measure.In)
		if len(faults) > 0 && len(got) > 0 {
			t.Error("things were given beside faults")
		}
		for _, thing := range got {
			if err := thing.Check(); err != nil {
				t.Errorf("%+v was read: %v", thing, err)
			}
		}
	})
}

// Over small cases no way to stand, each made into its whole box, takes less
// card than the one chosen.
func TestNoWayTakesLessCard(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewSource(12))
	for range 8 {
		in := New("random", measure.MM, []string{"tray", "tray-lid"}[rng.Intn(2)])
		in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
		for range 1 + rng.Intn(2) {
			in.Things = append(in.Things, contents.Thing{Shape: contents.Round, Ease: 2 * mm_, Count: 1 + rng.Intn(4),
				Length: measure.Length(15+rng.Intn(30)) * mm_, Height: measure.Length(15+rng.Intn(30)) * mm_})
			in.Things[len(in.Things)-1].Width = in.Things[len(in.Things)-1].Length
		}
		best := make_(t, in).CardArea()
		for _, a := range arrangementsOf(&in, sharesOf(&in, 1, 0)[0]) {
			in.Stand = a.ID
			if r, err := Sketch(in); err == nil && r.CardArea() < best-1e-6 {
				t.Errorf("%+v: %s takes %v mm² of card; the one chosen takes %v", in.Things, a.ID, r.CardArea(), best)
			}
		}
	}
}

// Dividers are parted by no dividers: two pieces would have one name. It is said, and a box that
// becomes dividers forgets its cells.
func TestDividersHaveNoCells(t *testing.T) {
	t.Parallel()
	text := `{"brevium":1,"name":"x","units":"in","style":"%s","contents":[{"name":"jar","shape":"block","length":"1 in","width":"1 in","height":"1 in","count":4}],"compartments":{"per":"thing","as":"dividers"}}`
	in, err := Read([]byte(fmt.Sprintf(text, "divider-grid")))
	if err == nil {
		_, err = Make(t.Context(), in)
	}
	if f := fault.Of(err); err == nil || f.Field != "compartments.per" {
		t.Errorf("%v", err)
	}
	box, err := Read([]byte(fmt.Sprintf(text, "tray")))
	if err != nil {
		t.Fatal(err)
	}
	if err := box.SetStyle("divider-grid"); err != nil || box.Compartments != (Compartments{}) {
		t.Errorf("%v, %+v", err, box.Compartments)
	}
	made := make_(t, box)
	ids := map[string]bool{}
	for _, p := range made.Parts {
		if ids[p.ID] {
			t.Errorf("two pieces are called %s", p.ID)
		}
		ids[p.ID] = true
	}
}
