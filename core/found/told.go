package found

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/loose"
	"brevium/core/measure"
	"brevium/core/reading"
)

// Told is what a recipe really makes.
type Told struct {
	*reading.Reading
	// Match is the style that its pieces are of, exactly; nil where they are of none.
	Match *Match
	// Also are other styles of which the same numbers are.
	Also []Match
	// Near are the styles that they are of but for a number, and nearOf which pieces these are of.
	Near   []Match
	nearOf []int
	near   bool // whether they are asked for
	// Of says, by piece, which of the style's parts it is; −1 for one that is none.
	Of []int
	// Made is the box, where there is a style.
	Made *design.Built
	// Papers are its panels, on the faces that they were cut for.
	Papers []dress.Dressing
	// Says are sentences for the maker.
	Says []string
}

// Tell reads a recipe and says what it makes. unit is that of numbers that say none.
func Tell(text string, unit measure.Unit) (*Told, error) { return tell(text, unit, true) }

// tell is Tell, and says what pieces are but for a number only where near is asked for.
func tell(text string, unit measure.Unit, near bool) (*Told, error) {
	r, err := reading.Read(text, unit)
	if err != nil {
		return nil, err
	}
	t := &Told{Reading: r, near: near, Of: make([]int, len(r.Pieces))}
	for i := range t.Of {
		t.Of[i] = -1
	}
	if len(r.Pieces) == 0 {
		t.say("There is no blank in it: say what is cut, as in 8 x 6 in.")
		return t, nil
	}
	t.find(text)
	t.made()
	t.claims()
	t.papers()
	t.Says = append(t.Says, sentences(r.Said)...)
	return t, nil
}

func (t *Told) say(format string, args ...any) { t.Says = append(t.Says, t.Voice.Say(format, args...)) }

func (t *Told) show(l measure.Length) string {
	text := measure.Label(l, t.Unit, t.Unit.Tick())
	if also := measure.Beside(l, t.Unit); also != "" {
		text += " (" + also + ")"
	}
	return text
}

func sentences(all []string) []string {
	out := slices.Clone(all)
	for i, s := range out {
		if s != "" {
			out[i] = reading.Sentence(strings.TrimSuffix(s, ".")) + "."
		}
	}
	return out
}

// accessories are what goes with a box and is not of it.
var accessories = []string{"band", "divider", "insert", "strip", "wrap"}

// find looks for a style of all pieces that are not panels; else without what goes beside a box, of
// those alone that are scored, of all, and of pieces that are cut more than once as that many. Where
// there is none, those that they are but for a number are kept and said.
func (t *Told) find(text string) {
	var sets [][]int
	for _, only := range []func(reading.Piece) bool{
		func(p reading.Piece) bool { return !p.Panel },
		func(p reading.Piece) bool { return !p.Panel && !slices.Contains(accessories, p.Name) },
		func(p reading.Piece) bool { return len(p.Vertical)+len(p.Horizontal) > 0 },
		func(reading.Piece) bool { return true },
	} {
		var which []int
		for i, p := range t.Pieces {
			if only(p) {
				which = append(which, i)
			}
		}
		if !slices.ContainsFunc(sets, func(other []int) bool { return slices.Equal(which, other) }) {
			sets = append(sets, which)
		}
	}
	for _, which := range append(slices.Clone(sets), t.counted()...) {
		if all := t.stylesOf(which, false); len(all) > 0 {
			t.is(all, which, text)
			return
		}
	}
	if !t.near {
		return
	}
	for _, which := range sets {
		if t.Near = t.stylesOf(which, true); len(t.Near) > 0 {
			t.nearOf = which
			for _, m := range t.Near[:min(2, len(t.Near))] {
				for _, o := range m.Otherwise {
					p := t.Pieces[which[o.Blank]]
					t.say("It would be %s, but %s of the %s should be %s, not %s.", article(m.Style.Name), o.Number.of(p), named(p), t.show(o.Should), t.show(o.Is))
				}
			}
			return
		}
	}
	t.alone()
}

// stylesOf are the styles that some of the pieces are of.
func (t *Told) stylesOf(which []int, near bool) []Match {
	var blanks []Blank
	for _, i := range which {
		p := t.Pieces[i]
		blanks = append(blanks, Blank{p.Width, p.Height, p.Vertical, p.Horizontal})
	}
	return slices.DeleteFunc(find(blanks, t.Unit, near), func(m Match) bool { return t.otherLid(m, which) })
}

// is takes the first of the styles that pieces are of, and says the others.
func (t *Told) is(all []Match, which []int, text string) {
	named := t.named(all, text)
	t.Match, t.Also = &all[0], all[1:]
	if len(t.Also) > 0 && !named {
		t.say("Its numbers are those of %s as well.", article(t.Also[0].Style.Name))
	}
	for n, i := range which {
		if t.Of[i] < 0 {
			t.Of[i] = n
		}
	}
}

// counted are the ways to take pieces that are cut more than once as so many parts of one box: "three
// boxes, each 4 x 4".
func (t *Told) counted() (out [][]int) {
	var many []int
	for i, p := range t.Pieces {
		if p.Copies > 1 && p.Copies <= mostParts && !p.Panel {
			many = append(many, i)
		}
	}
	if len(many) > 4 {
		return nil
	}
	for set := 1; set < 1<<len(many); set++ {
		var which []int
		for i, p := range t.Pieces {
			times := 1
			if n := slices.Index(many, i); n >= 0 && set>>n&1 == 1 {
				times = p.Copies
			}
			for range times {
				if !p.Panel {
					which = append(which, i)
				}
			}
		}
		if len(which) <= mostParts {
			out = append(out, which)
		}
	}
	return out
}

// lids are what a piece that goes over another is called.
var lids = []string{"lid", "top", "cover"}

// otherLid reports whether a recipe calls a piece a lid that a match has as another
// part than one that goes over the rest: two trays for a tower may be a base and a lid
// that is too small.
func (t *Told) otherLid(m Match, which []int) bool {
	covers := 0
	for _, p := range t.Pieces {
		if p.Name == "cover" {
			covers++
		}
	}
	for n, i := range which {
		if covers > 1 && t.Pieces[i].Name == "cover" {
			continue // one of several goes under it
		}
		if slices.Contains(lids, t.Pieces[i].Name) && !slices.ContainsFunc(lids, func(l string) bool { return strings.HasPrefix(m.Parts[n], l) }) {
			return len(which) > 1
		}
	}
	return false
}

// of names a number of a piece.
func (n Number) of(p reading.Piece) string {
	switch n.What {
	case Wide:
		return "the width"
	case High:
		return "the height"
	case Across:
		return "the " + ordinal(n.Score+1) + " score across"
	}
	return "the " + ordinal(n.Score+1) + " score down"
}

func ordinal(n int) string {
	if words := []string{"first", "second", "third", "fourth", "fifth", "sixth"}; n <= len(words) {
		return words[n-1]
	}
	return fmt.Sprintf("%dth", n)
}

func named(p reading.Piece) string {
	if p.Name == "" {
		return "piece"
	}
	return p.Name
}

func article(name string) string {
	a := "a"
	if strings.ContainsAny(strings.ToLower(name[:1]), "aeiou") {
		a = "an"
	}
	return a + " " + strings.ToLower(name[:1]) + name[1:]
}

// alone says what pieces are that make no box together: each by itself, whether a
// sleeve closes, whether one goes over another.
func (t *Told) alone() {
	t.say("Together these pieces are no box that is known here.")
	var trays []Match
	lid := -1 // the tray that is called so
	for _, p := range t.Pieces {
		if p.Panel || len(p.Vertical)+len(p.Horizontal) == 0 {
			continue
		}
		got := Find([]Blank{{p.Width, p.Height, p.Vertical, p.Horizontal}}, t.Unit)
		switch {
		case len(got) > 0 && len(got[0].Otherwise) == 0:
			t.say("The %s by itself is %s.", named(p), article(got[0].Style.Name))
			if trays = append(trays, got[0]); slices.Contains(lids, p.Name) {
				lid = len(trays) - 1
			}
		case len(got) > 0:
			o := got[0].Otherwise[0]
			t.say("The %s by itself would be %s, but %s should be %s, not %s.", named(p), article(got[0].Style.Name), o.Number.of(p), t.show(o.Should), t.show(o.Is))
		default:
			t.closes(p)
		}
	}
	if len(trays) == 2 && trays[0].Style == trays[1].Style {
		t.goesOver(trays, lid)
	}
}

// closes says of a strip that is scored four times one way, with a tab left over,
// whether it closes round a box: its sides in turn must be as wide.
func (t *Told) closes(p reading.Piece) {
	at, whole := p.Vertical, p.Width
	if len(at) == 0 {
		at, whole = p.Horizontal, p.Height
	}
	if len(at) != 4 || len(p.Vertical) > 0 && len(p.Horizontal) > 0 {
		return
	}
	sides := []measure.Length{at[0], at[1] - at[0], at[2] - at[1], at[3] - at[2]}
	if sides[0] == sides[2] && sides[1] == sides[3] {
		return
	}
	// The two widths that come most often, in turn.
	a := sides[0]
	b := sides[1]
	for _, s := range sides {
		if s != a {
			b = s
		}
	}
	var want []string
	sum := measure.Length(0)
	for i := range 4 {
		sum += []measure.Length{a, b}[i%2]
		want = append(want, t.show(sum))
	}
	text := t.Voice.Say("The %s does not close: its sides in turn are %s, %s, %s and %s.", named(p), t.show(sides[0]), t.show(sides[1]), t.show(sides[2]), t.show(sides[3]))
	if a != b && sum < whole {
		text += " " + t.Voice.Say("Round %s × %s score it at %s.", t.show(a), t.show(b), strings.Join(want, ", "))
	}
	t.Says = append(t.Says, text)
}

// goesOver says whether the lid, or the larger of two alike boxes, goes over the other.
func (t *Told) goesOver(two []Match, lid int) {
	axes := two[0].Style.Axes
	if axes[0] == nil || axes[1] == nil {
		return
	}
	outer, inner := two[0].Inputs.Size, two[1].Inputs.Size
	what := "The lid over the base"
	if lid == 1 || lid < 0 && outer[axes[0].ID]+outer[axes[1].ID] < inner[axes[0].ID]+inner[axes[1].ID] {
		outer, inner = inner, outer
	}
	if lid < 0 {
		what = "The larger over the smaller"
	}
	card := design.UsualCard.Thickness
	for _, axis := range axes[:2] {
		a := fit.Pair{Kind: fit.LidOn, OuterName: "Lid", InnerName: "Base", Axis: axis.ID, OuterSpan: outer[axis.ID], InnerSpan: inner[axis.ID], OuterCard: card, InnerCard: card, OuterLayers: 2, OuterWhat: "tabs"}.Do(0)
		if a.Fails() {
			t.say("%s, %s: %s, too small by %s.", what, axis.ID, string(a.Verdict), t.show(measure.Nearest(-a.Gap, t.Unit.Tick())))
			continue
		}
		t.say("%s, %s: %s, with a gap of %.2f mm in card of %.1f mm.", what, axis.ID, string(a.Verdict), a.Gap.MM(), card.MM())
	}
}

// made works the box out, and says how its parts fit.
func (t *Told) made() {
	if t.Match == nil {
		return
	}
	t.say("It is %s.", article(t.Match.Style.Name))
	in := t.Match.Inputs
	for _, p := range t.Pieces {
		in.Copies = max(in.Copies, p.Copies)
	}
	if slices.ContainsFunc(t.Pieces, func(p reading.Piece) bool { return !p.Panel && p.Copies != in.Copies }) {
		in.Copies = 1
	}
	t.Match.Inputs = in
	r, err := design.Sketch(in)
	if err != nil {
		t.say("It cannot be worked out here: %s", fault.Of(err).Text)
		return
	}
	t.Made = r
	for _, a := range r.Felt() {
		t.say("%s: %s, with a gap of %.2f mm in %s.", a.Pair.What(), string(a.Verdict), a.Gap.MM(), r.Inputs.CardOf(a.Pair.Outer).Label())
	}
}

// claims holds the finished sizes that the recipe claims against what it gives.
func (t *Told) claims() {
	if t.Made == nil {
		return
	}
	var scored []measure.Length
	for _, axis := range t.Made.Style.Axes {
		if axis != nil {
			scored = append(scored, t.Made.Spec.Lengths[axis.ID])
		}
	}
	slices.Sort(scored)
	for _, c := range t.Claims {
		got := slices.Clone(c.Size[:])
		slices.Sort(got)
		near := len(got) == len(scored)
		for i := range got {
			near = near && i < len(scored) && (got[i]-scored[i]).Abs() <= measure.Millimetre
		}
		if near || len(scored) != 3 {
			continue
		}
		t.say("It claims %s; between folds the box comes to %s × %s × %s.", strings.TrimSpace(c.Text), t.show(scored[2]), t.show(scored[1]), t.show(scored[0]))
	}
}

// Loose are the pieces as pieces of no style, for drawing and for other programs.
func (t *Told) Loose() []loose.Piece {
	var out []loose.Piece
	for i, p := range t.Pieces {
		x := loose.Piece{ID: i + 1, Name: strings.ToUpper(named(p)[:1]) + named(p)[1:], Width: p.Width, Height: p.Height, Copies: p.Copies}
		x.Vertical, x.Horizontal = p.Vertical, p.Horizontal
		out = append(out, x)
	}
	return out
}
