// Package recipe writes out the work: the score list of each piece as it is
// read off the board, the numbered steps, the supplies and the time.
package recipe

import (
	"fmt"
	"hash/fnv"
	"math"
	"reflect"
	"slices"
	"strings"

	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Kind is the kind of a step.
type Kind string

// The kinds, in the order of the work.
const (
	Cut      Kind = "cut"
	Score    Kind = "score"
	Fold     Kind = "fold"
	Remove   Kind = "remove"
	Decorate Kind = "decorate"
	Glue     Kind = "glue"
	Assemble Kind = "assemble"
	Fill     Kind = "fill"
	Close    Kind = "close"
)

// Kinds lists them.
var Kinds = []Kind{Cut, Score, Fold, Remove, Decorate, Glue, Assemble, Fill, Close}

// Step is one thing to do. Key stays the same while the design changes; Mark
// changes with what the step says, whatever the unit, so that a tick put
// against other numbers can be told.
type Step struct {
	N         int
	Key, Mark string
	Piece     string
	Kind      Kind
	Text      string
	// List is the sentences of Text, when they are a list to be done one by
	// one: its first is what they are done to.
	List []string
	// Cuts are those of a step that cuts a piece away, each with its own sentence,
	// also where Text says that it is the same as another piece's; last, without
	// lines, what has fallen away.
	Cuts []Snip
	// Full is the whole text, where Text says that it is the same as another
	// piece's.
	Full    string
	Seconds float64 // for one box
}

// Work is a whole design as the recipe needs it.
type Work struct {
	Units  measure.Unit
	Tick   measure.Tick
	Fence  Fence
	Copies int
	Parts  []style.Part
	Cards  map[string]paper.Card // by piece
	// EndForEnd are the pieces whose paper runs up towards their lower edge.
	EndForEnd map[string]bool
	Mats      []dress.Mat
	// Fixings are put on flat pieces before the papers that hide them.
	Fixings []Fixing
	// Assembly says how the parts go together before the box is filled, and
	// Inserting how the pieces inside it go in; Closing how it is shut after.
	Assembly, Inserting, Closing []string
	Contents                     string // what is filled in, "" when not known
	Adhesive                     string
}

// Fixing is something small that is put on a flat piece, told in full.
type Fixing struct{ Piece, Key, Text string }

// Seconds each kind of step takes, for one piece, by an unhurried hand.
var pace = map[Kind]float64{
	Cut: 40, Score: 45, Remove: 60, Fold: 60, Decorate: 45, Glue: 90, Assemble: 30, Fill: 30, Close: 10,
}

// Steps writes the numbered steps, all of one kind of work before the next
// where the order allows: cut, score, fold and burnish, cut away, decorate
// while flat, glue, assemble, fill, close.
func (w Work) Steps() []Step {
	words, alike := make([]faceWords, len(w.Parts)), make([]int, len(w.Parts))
	for i, p := range w.Parts {
		if alike[i] = w.firstLike(i); alike[i] < i {
			words[i] = words[alike[i]]
			_, words[i].later = glueWords(p, w.elsewhere)
			continue
		}
		words[i] = wordsOf(p, w.elsewhere)
	}
	steps := w.write(w.Units, w.Tick, words, alike)
	// The same steps in plain millimetres say whether a tick still holds.
	for i, s := range w.write(measure.MM, measure.Tenth, words, alike) {
		h := fnv.New64a()
		h.Write([]byte(s.Text))
		steps[i].Mark = fmt.Sprintf("%016x", h.Sum64())
		steps[i].N = i + 1
	}
	return steps
}

// firstLike is the first part that is cut, scored, folded and glued to itself like
// part i.
func (w Work) firstLike(i int) int {
	own := func(all []pattern.Glue) []pattern.Glue {
		return slices.DeleteFunc(slices.Clone(all), func(g pattern.Glue) bool { return g.Piece != "" })
	}
	p := w.Parts[i]
	for k, other := range w.Parts[:i] {
		if p.Shim == other.Shim && p.Pattern.Alike(other.Pattern) && reflect.DeepEqual(own(p.Pattern.Glue), own(other.Pattern.Glue)) {
			return k
		}
	}
	return i
}

func (w Work) write(unit measure.Unit, tick measure.Tick, words []faceWords, alike []int) []Step {
	t := Telling{unit, tick}
	var out []Step
	add := func(kind Kind, piece, key, text string, count int) {
		out = append(out, Step{Key: string(kind) + "/" + key, Piece: piece, Kind: kind, Text: text, Seconds: pace[kind] * float64(count)})
	}
	// A piece that is made like an earlier one as large is not told again.
	like := map[string]string{}
	same := func(kind Kind, p style.Part, key, text string) string {
		plain := strings.NewReplacer(p.Name, "#", strings.ToLower(p.Name), "#").Replace(text)
		k := fmt.Sprint(kind, strings.TrimPrefix(key, p.ID), p.Pattern.Width, p.Pattern.Height, plain)
		if first, told := like[k]; told {
			return fmt.Sprintf("%s: the same as %s.", p.Name, lowerFirst(first))
		}
		like[k] = p.Name
		return text
	}
	tell := func(kind Kind, p style.Part, key, text string) {
		add(kind, p.ID, key, same(kind, p, key, text), p.Copies())
		if last := &out[len(out)-1]; last.Text != text {
			last.Full = text
		}
	}
	listed := func(p style.Part, key, of string, cuts []Snip) {
		list := telling(of, cuts)
		text := strings.Join(list, " ")
		tell(Remove, p, key, text)
		last := &out[len(out)-1]
		if last.Cuts = cuts; last.Text == text {
			last.List = list
		}
	}
	for _, p := range w.Parts {
		times := ""
		if n := w.Copies * p.Copies(); n > 1 {
			times = fmt.Sprintf(" (%d of them)", n)
		}
		add(Cut, p.ID, p.ID, fmt.Sprintf("Cut the %s blank, %s × %s, from %s%s%s.", strings.ToLower(p.Name),
			t.length(p.Pattern.Width), t.length(p.Pattern.Height), w.Cards[p.ID].Name, w.runs(p.ID), times), p.Copies())
	}
	sets := MatSets(w.Mats)
	for _, s := range sets {
		add(Cut, s.Mat.Piece, s.Mat.ID, s.cutting(t, w.Copies), s.Count)
	}
	lists := make([]ScoreList, len(w.Parts))
	for i, p := range w.Parts {
		if lists[i] = lists[alike[i]]; alike[i] == i {
			lists[i] = Scores(p, w.Fence, w.Tick)
		}
		if told := lists[i].Sentence(t); told != "" {
			text := fmt.Sprintf("Score %s, outside up. %s", the(strings.ToLower(p.Name)), told)
			if p.Measuring != "" {
				text += " " + p.Measuring
			}
			tell(Score, p, p.ID, text)
		}
	}
	cuts := make([][]Snip, len(w.Parts))
	for i, p := range w.Parts {
		if cuts[i] = slices.Clone(cuts[alike[i]]); alike[i] == i {
			cuts[i] = lists[i].Cuts(t)
		}
		first := slices.DeleteFunc(slices.Clone(cuts[i]), func(s Snip) bool { return !s.before() })
		if len(first) > 0 && !p.Template {
			listed(p, p.ID+"/first", p.Name+", still flat", first)
		}
	}
	for i, p := range w.Parts {
		if text := sentences(words[i].names, words[i].folding, p.Folding); words[i].folding != "" || p.Folding != "" {
			tell(Fold, p, p.ID, p.Name+": "+lowerFirst(text))
		}
	}
	for _, p := range w.Parts {
		if p.First != "" {
			tell(Glue, p, p.ID+"/before", fmt.Sprintf("%s, before you cut: %s", p.Name, p.First))
		}
	}
	for i, p := range w.Parts {
		if p.Template {
			tell(Remove, p, p.ID, fmt.Sprintf("%s: print its template at true size, lay it on the blank and cut along its line%s.", p.Name, w.holed(t, p)))
			continue
		}
		rest := slices.DeleteFunc(slices.Clone(cuts[i]), Snip.before)
		if len(rest) > 0 {
			if off := t.falling(p.Pattern); off != "" {
				rest = append(rest, Snip{Text: off})
			}
			listed(p, p.ID, p.Name, rest)
		}
	}
	for _, f := range w.Fixings {
		add(Decorate, f.Piece, f.Key, f.Text, 1)
	}
	late := func(s MatSet) bool { return s.Mat.Side == dress.Inside && w.tabbed(s) }
	for _, s := range sets {
		if !late(s) {
			add(Decorate, s.Mat.Piece, s.Mat.ID, sentences(s.gluing(t, w.Parts, false), w.through(s)), len(s.Faces))
		}
	}
	for k, p := range w.Parts {
		for i, g := range p.Gluing {
			says := sentences(g.Says, words[k].gluing[i])
			tell(Glue, p, fmt.Sprintf("%s/%d", p.ID, i+1), fmt.Sprintf("%s: %s", p.Name, lowerFirst(says)))
			if i == 0 {
				out[len(out)-1].Text = sentences(out[len(out)-1].Text, words[k].later)
			}
		}
	}
	for _, s := range sets {
		if late(s) {
			add(Decorate, s.Mat.Piece, s.Mat.ID, sentences(s.gluing(t, w.Parts, true), w.through(s)), len(s.Faces))
		}
	}
	for i, text := range w.Assembly {
		add(Assemble, "", fmt.Sprint(i+1), text, 1)
	}
	for i, text := range w.Inserting {
		add(Assemble, "", fmt.Sprintf("inside/%d", i+1), text, 1)
	}
	if w.Contents != "" {
		add(Fill, "", "contents", fmt.Sprintf("Put in %s.", w.Contents), 1)
	}
	for i, text := range w.Closing {
		add(Close, "", fmt.Sprint(i+1), text, 1)
	}
	return out
}

// holed tells the holes of a piece that is cut round a template.
func (w Work) holed(t Telling, p style.Part) string {
	text := ""
	for _, h := range p.Pattern.Holes {
		lo, hi := pattern.Bounds(h.Flat())
		text += fmt.Sprintf("; punch a hole %s across, its middle %s from the left and %s from the top edge of the blank",
			t.mm(hi.X-lo.X), t.mm((lo.X+hi.X)/2), t.mm((lo.Y+hi.Y)/2))
	}
	return text
}

// tabbed reports whether tabs are glued onto the side of a face that papers go on:
// those wait until the piece is glued.
func (w Work) tabbed(s MatSet) bool {
	i := slices.IndexFunc(w.Parts, func(p style.Part) bool { return p.ID == s.Mat.Piece })
	if i < 0 {
		return false
	}
	return slices.ContainsFunc(w.Parts[i].Pattern.Glue, func(g pattern.Glue) bool {
		return !g.Dry && g.Piece == "" && !g.OntoOutside && slices.Contains(s.ids, g.Onto)
	})
}

// runs says which edge of a blank the pattern of its paper runs up to.
func (w Work) runs(piece string) string {
	edge := "top"
	if w.EndForEnd[piece] {
		edge = "bottom"
	}
	switch w.Cards[piece].Direction {
	case paper.OneWayUp:
		return ", its pattern running up towards the " + edge + " edge"
	case paper.TwoWays:
		return ", its pattern running from the top edge to the bottom"
	}
	return ""
}

// upright says which way a one-way pattern stands on a wall.
func upright(m dress.Mat) string {
	if m.Card.Direction == paper.OneWayUp {
		return "; check on each wall that the pattern will stand upright"
	}
	return ""
}

// sentences puts what is not empty behind one another.
func sentences(all ...string) string {
	return strings.Join(slices.DeleteFunc(all, func(s string) bool { return s == "" }), " ")
}

// telling puts the sentences of cuts behind a piece's name.
func telling(name string, cuts []Snip) []string {
	list := []string{name + ", outside up:"}
	for _, c := range cuts {
		list = append(list, c.Text)
	}
	return list
}

// Minutes adds the steps up, for one box and for all copies.
func Minutes(steps []Step, copies int) (one, all float64) {
	return Seconds(steps, 1) / 60, Seconds(steps, copies) / 60
}

// Seconds is how long the steps take for all copies. Setting up is paid once for a
// batch, so later copies of cutting and scoring go twice as fast.
func Seconds(steps []Step, copies int) float64 {
	sum := 0.0
	for _, s := range steps {
		more := float64(copies - 1)
		if s.Kind == Cut || s.Kind == Score {
			more /= 2
		}
		sum += s.Seconds * (1 + more)
	}
	return sum
}

// Clock writes a time of so many minutes as people say it: "40 min", "3 h 20 min";
// from an hour on in steps of five, since it is never known better.
func Clock(minutes float64) string {
	n := int(math.Round(max(1, minutes)))
	if n >= 60 {
		n = int(math.Round(minutes/5)) * 5
	}
	switch {
	case n < 60:
		return fmt.Sprintf("%d min", n)
	case n%60 == 0:
		return fmt.Sprintf("%d h", n/60)
	}
	return fmt.Sprintf("%d h %d min", n/60, n%60)
}
