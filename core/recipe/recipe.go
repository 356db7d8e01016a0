// Package recipe writes out the work: the score list of each piece as it is
// read off the board, the numbered steps, the supplies and the time.
package recipe

import (
	"fmt"
	"hash/fnv"
	"slices"
	"strings"

	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Fence is the side of the scoring board the card is pushed against.
type Fence string

// Boards have their fence on the left, or some on the right.
const (
	Left  Fence = "left"
	Right Fence = "right"
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

// Step is one thing to do. Key stays the same while the design changes; Mark
// changes with what the step says, whatever the unit, so that a tick put
// against other numbers can be told.
type Step struct {
	N         int
	Key, Mark string
	Piece     string
	Kind      Kind
	Text      string
	Seconds   float64 // for one box
}

// Pass is one placing of the card on the board: which of its edges lies on
// the fence, and the numbers to score, in order.
type Pass struct {
	Edge string
	At   []measure.Length
	Shim measure.Length // held between the fence and the card
}

// ScoreList is how one piece is scored: each pass, turning the card between.
type ScoreList struct {
	Piece, Name string
	Passes      []Pass
}

// Work is a whole design as the recipe needs it.
type Work struct {
	Units    measure.Unit
	Tick     measure.Tick
	Fence    Fence
	Copies   int
	Parts    []style.Part
	Cards    map[string]paper.Card // by piece
	Mats     []dress.Mat
	Assembly []string
	// Inserting says how the pieces inside the box go in, before it is filled.
	Inserting []string
	Contents  string // what is filled in, "" when not known
	Adhesive  string
}

// Scores gives a piece's score list for a board with its fence on the given
// side. The card lies outside up and right way round for the first pass. It
// is then turned a quarter so that its top edge comes to the fence: against
// the clock for a left fence, with it for a right one, where numbers count
// from the right.
func Scores(p style.Part, fence Fence) ScoreList {
	if p.Shim > 0 {
		return ScoreList{p.ID, p.Name, shimmed(p)}
	}
	first := slices.Clone(p.Pattern.Scores.Vertical)
	edge := "left"
	if fence == Right {
		edge = "right"
		for i := range first {
			first[i] = p.Pattern.Width - first[i]
		}
		slices.Sort(first)
	}
	passes := []Pass{{Edge: edge, At: first}, {Edge: "top", At: slices.Clone(p.Pattern.Scores.Horizontal)}}
	return ScoreList{p.ID, p.Name, slices.DeleteFunc(passes, func(x Pass) bool { return len(x.At) == 0 })}
}

// shimmed scores each wall from its own edge, turning a quarter each time.
// Lines nearer to one edge belong to it.
func shimmed(p style.Part) []Pass {
	edges := []Pass{{Edge: "left"}, {Edge: "top"}, {Edge: "right"}, {Edge: "bottom"}}
	split := func(at []measure.Length, whole measure.Length, near, far *Pass) {
		for _, l := range at {
			if 2*l <= whole {
				near.At = append(near.At, l+p.Shim)
			} else {
				far.At = append([]measure.Length{whole - l + p.Shim}, far.At...)
			}
		}
	}
	split(p.Pattern.Scores.Vertical, p.Pattern.Width, &edges[0], &edges[2])
	split(p.Pattern.Scores.Horizontal, p.Pattern.Height, &edges[1], &edges[3])
	for i := range edges {
		edges[i].Shim = p.Shim
	}
	return edges
}

// ShortLines says where the scores that stop short start and stop: from the
// left and from the top edge of the blank as drawn.
func ShortLines(p style.Part, unit measure.Unit, tick measure.Tick) []string {
	show := func(mm float64) string { return measure.Label(measure.FromMM(mm), unit, tick) }
	var out []string
	for _, s := range p.Pattern.Scores.Part {
		switch {
		case s.A.X == s.B.X:
			out = append(out, fmt.Sprintf("%s from the left, from %s to %s down", show(s.A.X), show(min(s.A.Y, s.B.Y)), show(max(s.A.Y, s.B.Y))))
		case s.A.Y == s.B.Y:
			out = append(out, fmt.Sprintf("%s from the top, from %s to %s across", show(s.A.Y), show(min(s.A.X, s.B.X)), show(max(s.A.X, s.B.X))))
		default:
			out = append(out, fmt.Sprintf("by a ruler, from %s across and %s down to %s across and %s down", show(s.A.X), show(s.A.Y), show(s.B.X), show(s.B.Y)))
		}
	}
	return out
}

// Sentence says how the passes are made, one after the other.
func (l ScoreList) Sentence(unit measure.Unit, tick measure.Tick) string {
	var out []string
	for i, p := range l.Passes {
		lead := capital(p.Edge) + " edge"
		if i > 0 {
			lead = "Turn a quarter, " + p.Edge + " edge"
		}
		lead += " against the fence"
		if p.Shim > 0 {
			lead += " with a shim of " + measure.Label(p.Shim, unit, tick) + " between"
		}
		out = append(out, lead+": "+Numbers(p.At, unit, tick)+".")
	}
	return strings.Join(out, " ")
}

// Numbers writes lengths for a sentence: "1 1/2 and 5 1/2 in".
func Numbers(at []measure.Length, unit measure.Unit, tick measure.Tick) string {
	var parts []string
	for _, l := range at {
		parts = append(parts, measure.Number(l, unit, tick))
	}
	last := len(parts) - 1
	if last < 0 {
		return "none"
	}
	text := parts[last]
	if last > 0 {
		text = strings.Join(parts[:last], ", ") + " and " + text
	}
	if strings.HasSuffix(text, "mm") && unit != measure.MM {
		return text
	}
	return text + " " + string(unit)
}

// Seconds each kind of step takes, for one piece, by an unhurried hand.
var pace = map[Kind]float64{
	Cut: 40, Score: 45, Remove: 60, Fold: 60, Decorate: 45, Glue: 90, Assemble: 30, Fill: 30, Close: 10,
}

// Steps writes the numbered steps, all of one kind of work before the next
// where the order allows: cut, score, fold and burnish, cut away, decorate
// while flat, glue, assemble, fill, close.
func (w Work) Steps() []Step {
	steps := w.write(w.Units, w.Tick)
	// The same steps in plain millimetres say whether a tick still holds.
	for i, s := range w.write(measure.MM, measure.Millimetre/10) {
		h := fnv.New64a()
		h.Write([]byte(s.Text))
		steps[i].Mark = fmt.Sprintf("%016x", h.Sum64())
		steps[i].N = i + 1
	}
	return steps
}

func (w Work) write(unit measure.Unit, tick measure.Tick) []Step {
	var out []Step
	add := func(kind Kind, piece, key, text string, count int) {
		out = append(out, Step{Key: string(kind) + "/" + key, Piece: piece, Kind: kind, Text: text, Seconds: pace[kind] * float64(count)})
	}
	show := func(l measure.Length) string { return measure.Label(l, unit, tick) }
	for _, p := range w.Parts {
		times := ""
		if n := w.Copies * p.Copies(); n > 1 {
			times = fmt.Sprintf(" (%d of them)", n)
		}
		add(Cut, p.ID, p.ID, fmt.Sprintf("Cut the %s blank, %s × %s, from %s%s.", strings.ToLower(p.Name),
			show(p.Pattern.Width), show(p.Pattern.Height), w.Cards[p.ID].Name, times), p.Copies())
	}
	for _, s := range mergeMats(w.Mats) {
		add(Cut, s.piece, s.key, fmt.Sprintf("Cut %d mat%s, %s × %s (height last), from %s for the %s.",
			s.count*w.Copies, plural(s.count*w.Copies), show(s.mat.Width), show(s.mat.Height), s.mat.Card.Name, s.where()), s.count)
	}
	for _, p := range w.Parts {
		list := Scores(p, w.Fence)
		if len(list.Passes) == 0 {
			continue
		}
		text := fmt.Sprintf("Score the %s, outside up. %s", strings.ToLower(p.Name), list.Sentence(unit, tick))
		if short := ShortLines(p, unit, tick); len(short) > 0 {
			text += " Lines that stop short: " + strings.Join(short, "; ") + "."
		}
		if p.Measuring != "" {
			text += " " + p.Measuring
		}
		add(Score, p.ID, p.ID, text, p.Copies())
	}
	for _, p := range w.Parts {
		if p.Folding != "" {
			add(Fold, p.ID, p.ID, fmt.Sprintf("%s: %s", p.Name, lowerFirst(p.Folding)), p.Copies())
		}
	}
	for _, p := range w.Parts {
		if text := removing(p); text != "" {
			add(Remove, p.ID, p.ID, text, p.Copies())
		}
	}
	for _, s := range mergeMats(w.Mats) {
		on := "onto the flat"
		if s.mat.Layer > 1 {
			on = "onto the first layer of the"
		}
		add(Decorate, s.piece, s.key, fmt.Sprintf("Glue the %s mat%s %s %s, centred, the same border all round%s.",
			s.where(), plural(s.count), on, s.name(w.Parts), upright(s.mat)), s.count)
	}
	for _, p := range w.Parts {
		for i, g := range p.Gluing {
			add(Glue, p.ID, fmt.Sprintf("%s/%d", p.ID, i+1), fmt.Sprintf("%s: %s", p.Name, lowerFirst(g)), p.Copies())
		}
	}
	for i, text := range w.Inserting {
		add(Assemble, "", fmt.Sprintf("inside/%d", i+1), text, 1)
	}
	if w.Contents != "" {
		add(Fill, "", "contents", fmt.Sprintf("Put in %s.", w.Contents), 1)
	}
	for i, a := range w.Assembly {
		add(Close, "", fmt.Sprint(i+1), a, 1)
	}
	return out
}

// upright says which way a one-way pattern stands on a wall.
func upright(m dress.Mat) string {
	if m.Card.Direction == paper.OneWayUp {
		return "; check on each wall that the pattern will stand upright"
	}
	return ""
}

func plural(n int) string {
	if n == 1 {
		return ""
	}
	return "s"
}

func capital(s string) string    { return strings.ToUpper(s[:1]) + s[1:] }
func lowerFirst(s string) string { return strings.ToLower(s[:1]) + s[1:] }

// removing says what is cut along and what is cut away.
func removing(p style.Part) string {
	name := strings.ToLower(p.Name)
	if p.Removing != "" {
		return p.Name + ": " + lowerFirst(p.Removing)
	}
	var parts []string
	if n := len(p.Pattern.Slits); n > 0 {
		parts = append(parts, fmt.Sprintf("Snip the %s in along the %d solid lines, each stopping at the crossing of the scores.", name, n))
	}
	if p.Pattern.Removed() > 1 {
		tabs := 0
		for _, m := range p.Pattern.Marks {
			if m.Role == pattern.Tab {
				tabs++
			}
		}
		parts = append(parts, fmt.Sprintf("Cut away the hatched parts of the %s with scissors; its %d tabs stay.", name, tabs))
	}
	return strings.Join(parts, " ")
}

// matSet is equal mats of one piece and layer.
type matSet struct {
	mat   dress.Mat
	piece string
	key   string
	count int
	faces []string
}

func (s matSet) where() string { return strings.Join(s.faces, " and ") }

func (s matSet) name(parts []style.Part) string {
	for _, p := range parts {
		if p.ID == s.piece {
			return strings.ToLower(p.Name)
		}
	}
	return s.piece
}

// mergeMats puts equal mats together, in the order they first appear.
func mergeMats(mats []dress.Mat) []matSet {
	var out []matSet
	for _, m := range mats {
		i := slices.IndexFunc(out, func(s matSet) bool {
			return s.piece == m.Piece && s.mat.Layer == m.Layer && s.mat.Width == m.Width && s.mat.Height == m.Height && s.mat.Card == m.Card
		})
		if i < 0 {
			out = append(out, matSet{mat: m, piece: m.Piece, key: m.ID})
			i = len(out) - 1
		}
		out[i].count++
		out[i].faces = append(out[i].faces, m.Face)
	}
	return out
}

// Minutes adds the steps up, for one box and for all copies. Setting up is
// paid once for a batch, so later copies of cutting and scoring go twice as
// fast.
func Minutes(steps []Step, copies int) (one, all float64) {
	for _, s := range steps {
		one += s.Seconds / 60
		more := s.Seconds / 60 * float64(copies-1)
		if s.Kind == Cut || s.Kind == Score {
			more /= 2
		}
		all += s.Seconds/60 + more
	}
	return one, all
}
