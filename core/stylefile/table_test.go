package stylefile

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// fill fills a table in as by hand, into the tray of the catalogue: from an empty sheet.
func fill(t *testing.T) *Table {
	t.Helper()
	x := NewTable()
	x.AddColumn(true)
	x.AddColumn(false)
	x.AddRow(true)
	x.AddRow(false)
	for i, f := range []string{"H", "L", "H"} {
		x.SetColumn(i, f)
	}
	for i, f := range []string{"H", "W", "H"} {
		x.SetRow(i, f)
	}
	for r, row := range [][]string{{"back.left", "back", "back.right"}, {"left", "base", "right"}, {"front.left", "front", "front.right"}} {
		for c, n := range row {
			x.Name(r, c, n)
		}
	}
	for _, wall := range []string{"back", "front"} {
		for _, end := range []string{"left", "right"} {
			tab := wall + "." + end
			x.SetRole(tab, "tab")
			for _, e := range x.Edges() {
				if e.A == tab && e.B == end || e.A == end && e.B == tab {
					x.SetEdge(e.A, e.B, "slit", "")
				}
			}
			x.SetShape(tab, "min(H, max(down(W/2, tick), tick))", "min(2, min(H, max(down(W/2, tick), tick))/4)")
			x.SetGoes(tab, Goes{"glue", end})
		}
	}
	return x
}

// A tray that is filled in by hand from an empty sheet is the tray of the catalogue.
func TestATableFromNothing(t *testing.T) {
	x := fill(t)
	s, err := Read(x.Text())
	if err != nil {
		t.Fatalf("%v\n%s", err, x.Text())
	}
	known, err := style.ByID("tray")
	if err != nil {
		t.Fatal(err)
	}
	r := specOf(rand.New(rand.NewPCG(1, 1)), known, measure.In)
	r.Lengths["height"] = measure.Inch
	want, err := known.Make(r)
	if err != nil {
		t.Fatal(err)
	}
	r.Choices = map[string]string{style.AdhesiveOption().ID: r.Choices[style.AdhesiveOption().ID]}
	got, err := s.Make(r)
	if err != nil {
		t.Fatal(err)
	}
	a, b := want.Parts[0].Pattern, got.Parts[0].Pattern
	if !slices.Equal(a.Outline, b.Outline) || !slices.Equal(a.Creases, b.Creases) || !slices.Equal(a.Slits, b.Slits) || !slices.Equal(glued(a), glued(b)) {
		t.Errorf("it is %v, not %v", b.Outline, a.Outline)
	}
}

// What was said of a face goes along when it is renamed, and goes when it is cut away;
// what is read and written again is the same; nothing that is out of range does anything.
func TestATableIsChanged(t *testing.T) {
	x := fill(t)
	x.Name(0, 0, "Ear of the back")
	if x.Role("ear-of-the-back") != "tab" || x.Goes("ear-of-the-back") != (Goes{"glue", "left"}) {
		t.Errorf("renamed it is a %s and goes %v", x.Role("ear-of-the-back"), x.Goes("ear-of-the-back"))
	}
	if _, err := Read(x.Text()); err != nil {
		t.Error(err)
	}
	x.Name(0, 0, "")
	if slices.ContainsFunc(x.Edges(), func(e Edge) bool { return strings.Contains(e.A+e.B, "ear") }) || strings.Contains(string(x.Text()), "ear-of") {
		t.Errorf("cut away it is still told of: %s", x.Text())
	}
	again, err := ReadTable(x.Text())
	if err != nil || string(again.Text()) != string(x.Text()) {
		t.Errorf("written again it is otherwise: %v", err)
	}
	was := string(x.Text())
	x.SetColumn(9, "L")
	x.Name(9, 9, "x")
	x.RemoveColumn(-1)
	x.RemoveRow(7)
	x.SetRole("nobody", "tab")
	x.SetRole("base", "ceiling")
	x.SetEdge("base", "nobody", "slit", "")
	x.SetSize(9, "a", "b", "c")
	x.SetGoes("base", Goes{"glue", "nobody"})
	if string(x.Text()) != was {
		t.Errorf("what is out of range changes it: %s", x.Text())
	}
	x.RemoveColumn(0)
	if len(x.Columns()) != 2 || slices.Contains(x.Faces(), "left") {
		t.Errorf("with its left column away it has %v", x.Faces())
	}
	for range 3 {
		x.RemoveRow(0)
		x.RemoveColumn(0)
	}
	if len(x.Rows()) != 1 || len(x.Columns()) != 1 {
		t.Errorf("%d rows and %d columns are left", len(x.Rows()), len(x.Columns()))
	}
}

// By hand: a fold of its own, a hinge, and a slit come and go.
func TestEdges(t *testing.T) {
	x := fill(t)
	for _, c := range []struct{ is, angle, want string }{{"hinge", "", "hinge 90"}, {"towards", "45", "towards 45"}, {"slit", "", "slit 90"}, {"fold", "", "fold 90"}} {
		x.SetEdge("back", "base", c.is, c.angle)
		i := slices.IndexFunc(x.Edges(), func(e Edge) bool { return e.A == "back" && e.B == "base" })
		if e := x.Edges()[i]; e.Is+" "+e.Angle != c.want {
			t.Errorf("%s: %+v", c.is, e)
		}
	}
	if n := len(x.Edges()); n != 12 {
		t.Errorf("%d edges of a table of nine", n)
	}
}

// A blank that is scored becomes a table: its steps as they are, those that are alike by
// one name.
func TestATableOfScores(t *testing.T) {
	in := measure.Inch
	x := OfScores("tray", 7*in, 6*in, []measure.Length{3 * in / 2, 11 * in / 2}, []measure.Length{3 * in / 2, 9 * in / 2})
	if got := strings.Join(x.Columns(), " ") + "; " + strings.Join(x.Rows(), " "); got != "H L H; H W H" {
		t.Errorf("its steps are %s", got)
	}
	if x.Root() != "r2c2" || len(x.Faces()) != 9 || x.List()[0].Usual != "101.6 mm" || x.List()[2].Usual != "38.1 mm" {
		t.Errorf("%s, %v, %v", x.Root(), x.Faces(), x.List())
	}
	odd := OfScores("", 5*in, 2*in, []measure.Length{in, 5 * in / 2}, nil)
	if got := strings.Join(odd.Columns(), " "); got != "H L 63.5 mm" {
		t.Errorf("its columns are %s", got)
	}
	for _, c := range []string{"r1c1", "r1c3", "r3c1", "r3c3"} { // its corners cut away it is a box
		for r, row := range x.Grid() {
			for k, n := range row {
				if n == c {
					x.Name(r, k, "")
				}
			}
		}
	}
	if _, err := Read(x.Text()); err != nil {
		t.Error(err)
	}
}

// All that a table asks, put back as it is, changes nothing of the box; nor does another
// name of a face, whatever the file says of it.
func TestATableLosesNothing(t *testing.T) {
	texts := map[string]string{"shapes": shapes, "tube": tube}
	for _, id := range files {
		texts[id] = string(example(t, id))
	}
	// The lid of two pieces alone, whose faces are divided.
	var f file
	if err := json.Unmarshal(example(t, "gable-lid"), &f); err != nil {
		t.Fatal(err)
	}
	f.Pieces, f.Fits = f.Pieces[1:], nil
	texts["lid"] = string((&Table{file: f}).Text())
	for name, text := range texts {
		table, err := ReadTable([]byte(text))
		if err != nil {
			t.Fatal(err)
		}
		before := patternOf(t, name, table)
		for _, e := range table.Edges() {
			table.SetEdge(e.A, e.B, e.Is, e.Angle)
		}
		for _, face := range table.Faces() {
			table.SetRole(face, table.Role(face))
			table.SetGoes(face, table.Goes(face))
			reach, wedge := table.Shape(face)
			table.SetShape(face, reach, wedge)
			table.SetRounded(face, table.Rounded(face))
		}
		table.SetBites(table.Bites())
		table.SetStance(table.Stance())
		for i, o := range table.Overs() {
			table.SetOver(i, o)
		}
		table.SetAllow(table.Allow())
		table.DropOvers()
		if after := patternOf(t, name, table); !slices.Equal(folded(before), folded(after)) || !slices.Equal(glued(before), glued(after)) {
			t.Errorf("%s is another box:\n%v, %v\n%v, %v", name, folded(before), glued(before), folded(after), glued(after))
		}
		for r, row := range table.Grid() {
			for c, face := range row {
				if face != "" && strings.Count(strings.Join(table.piece().Cells, " ")+" ", face+" ") == 1 {
					table.Name(r, c, face+"x")
				}
			}
		}
		after := patternOf(t, name, table)
		if !slices.Equal(folded(before), folded(after)) || len(before.Holes) != len(after.Holes) || len(before.Outline) != len(after.Outline) || len(before.Glue) != len(after.Glue) {
			t.Errorf("%s with other names is another box:\n%v\n%v", name, folded(before), folded(after))
		}
	}
}

func patternOf(t *testing.T, name string, table *Table) *pattern.Pattern {
	t.Helper()
	own, err := Read(table.Text())
	if err != nil {
		t.Fatalf("%s: %v", name, err)
	}
	spec := own.Usual(measure.In.Tick(), 300*measure.Micrometre)
	box, err := own.Make(spec)
	if err != nil {
		t.Fatalf("%s: %v", name, err)
	}
	return box.Parts[0].Pattern
}

// folded tells what is folded, slit and cut where, in whatever order.
func folded(p *pattern.Pattern) (out []string) {
	ends := func(a, b pattern.Point) string {
		if b.X < a.X || b.X == a.X && b.Y < a.Y {
			a, b = b, a
		}
		return fmt.Sprintf("%.4f", []float64{a.X, a.Y, b.X, b.Y})
	}
	for _, c := range p.Creases {
		out = append(out, fmt.Sprintf("%s %.4f° %s %v %v", ends(c.A, c.B), c.Angle, c.Side, c.Rolled, c.Hinge))
	}
	for _, s := range p.Slits {
		out = append(out, "slit "+ends(s.A, s.B))
	}
	out = append(out, fmt.Sprint(p.Width, p.Height, len(p.Outline), len(p.Holes)))
	slices.Sort(out)
	return out
}
