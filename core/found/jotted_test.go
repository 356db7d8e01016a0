package found

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/reading"
	"brevium/core/sample"
	"brevium/core/style"
)

// jot writes blanks down as somebody would: one hand has one way with numbers, units, lists and
// edges, and says all of it once.
type jot struct {
	r       *rand.Rand
	unit    measure.Unit
	comma   bool // decimal
	number  int  // way with fractions
	suffix  string
	every   bool // a unit behind each number
	between string
	times   string
	slip    bool
}

// jotted is a blank that is told.
type jotted struct {
	name         string
	wide, high   measure.Length
	across, down []measure.Length
	copies       int
}

func newJot(r *rand.Rand, unit measure.Unit) *jot {
	j := &jot{r: r, unit: unit, number: r.IntN(4), every: r.IntN(3) == 0, slip: r.IntN(5) == 0}
	j.comma = unit != measure.In && r.IntN(2) == 0
	j.suffix = map[measure.Unit][]string{measure.In: {" in", `"`, " inches"}, measure.CM: {" cm", "cm"}, measure.MM: {" mm", "mm"}}[unit][r.IntN(2)]
	j.times = []string{" x ", " by ", " × ", "x"}[r.IntN(4)]
	j.between = []string{", ", " and ", " / ", ", "}[r.IntN(4)]
	if j.comma {
		j.between = []string{" / ", " and ", "; "}[r.IntN(3)]
	}
	return j
}

func (j *jot) pick(all ...string) string { return all[j.r.IntN(len(all))] }

// can reports whether a length is one that a hand writes in this unit.
func (j *jot) can(l measure.Length) bool {
	if j.unit == measure.In {
		return l%(measure.Inch/32) == 0
	}
	return l%(measure.Millimetre/2) == 0
}

func (j *jot) bare(l measure.Length) string {
	switch j.unit {
	case measure.In:
		whole, part := int64(l/measure.Inch), int64(l%measure.Inch)*32/int64(measure.Inch)
		under := int64(32)
		for part > 0 && part%2 == 0 {
			part, under = part/2, under/2
		}
		switch {
		case part == 0:
			return fmt.Sprint(whole)
		case j.number == 1 && under <= 4:
			return strings.TrimRight(fmt.Sprintf("%.3f", float64(whole)+float64(part)/float64(under)), "0")
		case j.number == 2 && whole > 0:
			return fmt.Sprintf("%d-%d/%d", whole, part, under)
		case j.number == 3 && under <= 8:
			sign := map[int64]string{1*100 + 2: "½", 1*100 + 4: "¼", 3*100 + 4: "¾", 1*100 + 8: "⅛", 3*100 + 8: "⅜", 5*100 + 8: "⅝", 7*100 + 8: "⅞"}[part*100+under]
			if whole > 0 {
				return fmt.Sprint(whole) + sign
			}
			return sign
		case whole > 0:
			return fmt.Sprintf("%d %d/%d", whole, part, under)
		}
		return fmt.Sprintf("%d/%d", part, under)
	case measure.CM:
		text := strings.TrimSuffix(strings.TrimRight(fmt.Sprintf("%.2f", l.MM()/10), "0"), ".")
		if j.comma {
			text = strings.Replace(text, ".", ",", 1)
		}
		return text
	}
	text := strings.TrimSuffix(fmt.Sprintf("%.1f", l.MM()), ".0")
	if j.comma {
		text = strings.Replace(text, ".", ",", 1)
	}
	return text
}

func (j *jot) len(l measure.Length) string {
	if j.every {
		return j.bare(l) + j.suffix
	}
	return j.bare(l)
}

func (j *jot) size(b jotted) string { return j.bare(b.wide) + j.times + j.bare(b.high) + j.suffix }

func (j *jot) list(all []measure.Length) string {
	var out []string
	for _, l := range all {
		out = append(out, j.len(l))
	}
	return strings.Join(out, j.between)
}

func mirrored(at []measure.Length, whole measure.Length) bool {
	return len(at) == 2 && at[0]+at[1] == whole
}

// score tells where a blank is scored.
func (j *jot) score(b jotted) string {
	verb := j.pick("score", "Score", "scored", "crease")
	if j.slip {
		verb = j.pick("scroe", "scrore", "socre")
	}
	v, h := j.list(b.across), j.list(b.down)
	uneven := b.wide != b.high
	long, short := v, h
	if b.wide < b.high {
		long, short = h, v
	}
	var ways []string
	if mirrored(b.across, b.wide) && mirrored(b.down, b.high) {
		a, c := j.len(b.down[0]), j.len(b.across[0])
		if b.across[0] == b.down[0] {
			ways = append(ways, verb+" "+a+" on all four sides", verb+" "+a+" all round", verb+" at "+a+" from each edge", verb+" each side at "+a, verb+" "+a+" in from every edge")
		} else if uneven {
			if b.wide < b.high {
				a, c = c, a
			}
			ways = append(ways, verb+" "+a+" on both long sides and "+c+" on both short sides", verb+" the long edges at "+a+", the short edges at "+c)
		}
	}
	switch {
	case len(b.across) > 0 && len(b.down) > 0:
		ways = append(ways, verb+" at "+v+". Turn. "+verb+" at "+h, verb+" "+v+", turn, "+verb+" "+h, verb+" at "+v+"; rotate and "+verb+" at "+h, "vertical scores at "+v+", horizontal scores at "+h, verb+" at "+v+" from the left and at "+h+" from the top")
		if uneven {
			ways = append(ways, verb+" the long side at "+long+", the short side at "+short, verb+" along the short side at "+short+"; along the long side at "+long)
		}
	case len(b.across) > 0:
		ways = append(ways, verb+" at "+v+" from the left", "vertical scores at "+v)
		if b.wide > b.high {
			ways = append(ways, verb+" the long side at "+v, verb+" at "+v+" along the long side")
		}
	case len(b.down) > 0:
		ways = append(ways, verb+" at "+h+" from the top", "horizontal scores at "+h)
	}
	return ways[j.r.IntN(len(ways))]
}

// recipe tells blanks one after the other, or all sizes before all scores.
func (j *jot) recipe(all []jotted) string {
	var lines []string
	scored := func(b jotted) bool { return len(b.across)+len(b.down) > 0 }
	head := func(b jotted) string {
		if b.copies > 1 {
			return fmt.Sprintf("%d %ss", b.copies, b.name)
		}
		return j.pick(b.name, strings.ToUpper(b.name[:1])+b.name[1:], "Cut the "+b.name)
	}
	size := func(b jotted) string {
		text := j.size(b)
		if j.r.IntN(9) == 0 && b.copies == 1 { // a slip that is taken back
			wrong := b
			wrong.wide += measure.Inch
			if j.unit != measure.In {
				wrong.wide = b.wide + measure.Centimetre
			}
			text = j.size(wrong) + ", no wait, make that " + text
		}
		return head(b) + j.pick(": ", " ", " - ") + text
	}
	if j.r.IntN(4) == 0 {
		for _, b := range all {
			lines = append(lines, size(b)+".")
		}
		for _, b := range all {
			if scored(b) {
				lines = append(lines, strings.ToUpper(b.name[:1])+b.name[1:]+": "+j.score(b)+".")
			}
		}
	} else {
		for _, b := range all {
			line := size(b)
			if scored(b) {
				line += j.pick(", ", ". ", "; ", "\n") + j.score(b)
			}
			lines = append(lines, line+".")
		}
	}
	switch j.r.IntN(5) {
	case 0:
		for i := range lines {
			lines[i] = fmt.Sprintf("%d. %s", i+1, lines[i])
		}
	case 1:
		for i := range lines {
			lines[i] = "- " + lines[i]
		}
	}
	text := strings.Join(lines, j.pick("\n", " ", "\n\n"))
	if j.r.IntN(3) == 0 {
		text += "\n" + j.pick("Fold, cut the corners and glue.", "Burnish the folds.", "Glue the tabs inside.")
	}
	return text
}

// Recipes of random boxes, jotted down by two thousand hands: ninety-seven of a hundred are read
// right, and none wrong with nothing said.
func TestJottedRecipes(t *testing.T) {
	t.Parallel()
	r := rand.New(rand.NewPCG(39, uint64(sample.Seed(3))))
	right, of := 0, 0
	want := sample.Of(t, 2000)
	for n := 0; of < want && n < 20*want; n++ {
		s := style.Boxes()[n%len(style.Boxes())]
		unit := []measure.Unit{measure.In, measure.CM, measure.MM}[r.IntN(3)]
		in, _ := random(r, s, unit)
		made, err := design.Sketch(in)
		if err != nil {
			continue
		}
		for range handsEach {
			j := newJot(r, unit)
			all := j.blanks(made)
			if len(all) == 0 || of == want {
				continue
			}
			of++
			text := j.recipe(all)
			got, err := reading.Read(text, unit)
			if err != nil {
				t.Errorf("%q: %v", text, err)
				continue
			}
			wrong := otherwise(all, got)
			switch {
			case wrong == "" && len(got.NotUnderstood) == 0:
				right++
			case wrong != "" && len(got.NotUnderstood) == 0 && len(got.Said) == 0:
				t.Errorf("nothing is said: %s\n%s", wrong, text)
			default:
				t.Logf("marked: %s; not understood %v, said %q\n%s", wrong, got.NotUnderstood, got.Said, text)
			}
		}
	}
	t.Logf("%d of %d are right", right, of)
	if of == 0 || right*100 < 97*of {
		t.Errorf("%d of %d are right", right, of)
	}
}

// handsEach is how many jot one box down.
const handsEach = 4

// called are names that a grammar knows.
var called = []string{"base", "lid", "tray", "drawer", "sleeve", "wrap", "band", "cover", "liner", "carton", "shell", "insert"}

// blanks are those of a box whose numbers this hand can write.
func (j *jot) blanks(made *design.Built) (all []jotted) {
	for _, p := range made.Parts {
		b := jotted{wide: p.Pattern.Width, high: p.Pattern.Height, across: p.Pattern.Scores.Vertical, down: p.Pattern.Scores.Horizontal, copies: 1}
		if p.Copies() > 1 && j.r.IntN(2) == 0 {
			b.copies = p.Copies()
		}
		if p.Loose || len(all) == len(called) || len(b.across)+len(b.down) == 0 || slices.ContainsFunc(slices.Concat(b.across, b.down, []measure.Length{b.wide, b.high}), func(l measure.Length) bool { return !j.can(l) }) {
			continue
		}
		b.name = called[len(all)]
		all = append(all, b)
	}
	return all
}

// otherwise says what was read otherwise than it was jotted, "" for nothing.
func otherwise(all []jotted, got *reading.Reading) string {
	if len(got.Pieces) != len(all) {
		return fmt.Sprintf("%d pieces of %d", len(got.Pieces), len(all))
	}
	same := func(a, b []measure.Length) bool {
		return slices.EqualFunc(a, b, func(x, y measure.Length) bool { return (x - y).Abs() <= measure.Micrometre })
	}
	for i, b := range all {
		p := got.Pieces[i]
		if !same([]measure.Length{p.Width, p.Height}, []measure.Length{b.wide, b.high}) || !same(p.Vertical, b.across) || !same(p.Horizontal, b.down) || p.Copies != b.copies {
			return fmt.Sprintf("%s is %d of %v x %v, scored %v and %v; want %d of %v x %v, %v and %v", b.name, p.Copies, p.Width, p.Height, p.Vertical, p.Horizontal, b.copies, b.wide, b.high, b.across, b.down)
		}
	}
	return ""
}
