package inspect

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/stuff"
	"brevium/core/style"
)

// Made is a piece as it is made: folded, of its card, with the way the card's grain runs in it.
type Made struct {
	style.Part
	Folded *pattern.Folded
	Of     paper.Card
	Run    paper.Run
	Loose  bool
}

// Matter is a box as its card and glue see it.
type Matter struct {
	Table  stuff.Table
	Pieces []Made
	Units  measure.Unit
	Dry    bool    // the air is
	Points float64 // by which its damp changes; 0 is as usual
	// RunOf is how the grain runs in what is cut under an id.
	RunOf func(id string) paper.Run
	// Notch is the option by which a piece gets notches, "" for none.
	Notch func(piece string) string
	// PapersWet says that papers are glued on wet, all over.
	PapersWet bool
}

// piece finds one by its id.
func (m *Matter) piece(id string) (Made, bool) {
	i := slices.IndexFunc(m.Pieces, func(p Made) bool { return p.ID == id })
	if i < 0 {
		return Made{}, false
	}
	return m.Pieces[i], true
}

// Sum is one line of the account of a check: what counts, and how much.
type Sum struct{ Text, Value string }

func sum(text, format string, args ...any) Sum { return Sum{text, fmt.Sprintf(format, args...)} }

// about writes a length in mm as it may be told of what is known to a fifth: on the ruler.
func (m *Matter) about(mm float64) string {
	if m.Units == measure.In {
		return measure.Label(measure.Nearest(measure.FromMM(mm), measure.In.Tick()), measure.In, measure.In.Tick())
	}
	if mm < inCentimetres {
		return measure.Label(measure.Nearest(measure.FromMM(mm), measure.Tick(measure.Millimetre/2)), measure.MM, measure.Tick(measure.Millimetre/2))
	}
	return measure.Label(measure.Nearest(measure.FromMM(mm), measure.Tick(measure.Millimetre)), m.Units, measure.Tick(measure.Millimetre))
}

// inCentimetres is from how many millimetres on a length is told in centimetres to whoever works
// in those.
const inCentimetres = 20

func weight(gsm float64) string { return fmt.Sprintf("%.0f gsm", gsm) }

// Card looks at the card of each piece: whether it cracks where it folds, is firm enough, and is
// not too much in one place.
func (m *Matter) Card() []Finding {
	var out []Finding
	seen := map[string]bool{}
	for _, p := range m.Pieces {
		if p.Loose && len(p.Pattern.Creases) == 0 {
			continue
		}
		kind := style.KindOf(p.ID)
		if kind != p.ID && seen[kind] { // its like has been looked at
			continue
		}
		seen[kind] = true
		out = append(out, m.crack(p), m.flimsy(p), m.bulk(p))
	}
	return out
}

// leastFold is from how many degrees on a fold can crack.
const leastFold = 20

// worstFold is the fold of a piece that cracks first, its index, and whether it folds at all.
func (m *Matter) worstFold(p Made) (stuff.Fold, float64, bool) {
	var fold stuff.Fold
	worst := 0.0
	for _, c := range p.Pattern.Creases {
		if c.Rolled || math.Abs(c.Angle) < leastFold {
			continue
		}
		f := stuff.Fold{Degrees: math.Abs(c.Angle), Along: runsAlong(c.Segment, p.Run), Dry: m.Dry}
		if i := m.Table.Crack(stuff.CardOf(p.Of), f); i > worst {
			fold, worst = f, i
		}
	}
	return fold, worst, worst > 0
}

// nearlyAlong is how far off the grain, as a sine, a score still runs along it.
const nearlyAlong = 0.26 // 15°

// runsAlong reports whether a score runs along the grain; one across it, or aslant, does not, nor
// does any where the grain is not known.
func runsAlong(s pattern.Segment, run paper.Run) bool {
	d := s.B.Sub(s.A)
	d = d.Scale(1 / d.Len())
	switch run {
	case paper.RunLength:
		return math.Abs(d.Y) <= nearlyAlong
	case paper.RunWidth:
		return math.Abs(d.X) <= nearlyAlong
	}
	return false
}

// crack judges the folds of a piece.
func (m *Matter) crack(p Made) Finding {
	f := Finding{ID: "card.crack", Verdict: OK, Piece: p.ID, Text: p.Name + ": nothing is folded."}
	fold, index, folds := m.worstFold(p)
	if !folds {
		return f
	}
	t := &m.Table
	f.Account = m.crackSums(p, fold, index)
	how := "across the grain"
	switch {
	case fold.Along:
		how = "along the grain"
	case p.Run == paper.RunUnknown:
		how = "if the fold runs across the grain"
	}
	if fold.Flat() {
		how = "folded flat, " + how
	}
	switch {
	case index <= t.CrackFolds+1e-9:
		f.Text = fmt.Sprintf("%s: this card folds well, %s.", p.Name, how)
	case index <= t.CrackWarns+1e-9:
		f.Verdict = Warn
		f.Text = fmt.Sprintf("%s: this card may crack, %s. Score it twice, burnish, and fold slowly.", p.Name, how)
	default:
		f.Verdict = Fail
		f.Text = fmt.Sprintf("%s: this card breaks, %s. Take a lighter card; or cut half through its outside and hinge it with paper, or glue it up from panels.", p.Name, how)
	}
	if f.Verdict != OK {
		f.Mend = m.mendCrack(p, fold)
	}
	return f
}

// crackSums is the account of a fold.
func (m *Matter) crackSums(p Made, fold stuff.Fold, index float64) []Sum {
	t := &m.Table
	out := []Sum{sum(fmt.Sprintf("card %.2f mm thick, of %.2f", p.Of.Thickness.MM(), t.CrackThick), "%.2f", p.Of.Thickness.MM()/t.CrackThick)}
	times := func(is bool, text string, by float64) {
		if is {
			out = append(out, sum(text, "× %.2f", by))
		}
	}
	grain := "the fold runs across the grain"
	if p.Run == paper.RunUnknown {
		grain = "the grain is not known: across it"
	}
	times(!fold.Along, grain, t.CrackAcross)
	times(p.Of.Finish == paper.Coated, "coated", t.CrackCoated)
	times(p.Of.Finish == paper.WhiteCore, "a white core", t.CrackCoated)
	times(p.Of.Finish == paper.Textured, "soft and textured", t.CrackTextured)
	times(fold.Flat(), "folded flat", t.CrackFlat)
	times(fold.Dry, "dry air", t.CrackDry)
	return append(out, sum("together", "%.2f", index), sum("folds well up to", "%.1f", t.CrackFolds), sum("breaks over", "%.1f", t.CrackWarns))
}

// usualWeights are those of cards that are sold everywhere, in g/m².
var usualWeights = []float64{120, 160, 200, 240, 280, 300, 350, 400}

// heaviest is the heaviest usual weight that is light enough and not flimsy in a piece, 0 for none.
func (m *Matter) heaviest(p Made, light func(gsm float64) bool) float64 {
	least, best := m.Table.FlimsyUnder(m.span(p)), 0.0
	for _, gsm := range usualWeights {
		if gsm >= least && light(gsm) {
			best = gsm
		}
	}
	return best
}

// mendCrack turns the blank so that the fold runs along the grain, where that is known and helps,
// or takes the heaviest usual card that folds well and is firm.
func (m *Matter) mendCrack(p Made, fold stuff.Fold) *Mend {
	turned := p
	switch p.Run {
	case paper.RunLength:
		turned.Run = paper.RunWidth
	case paper.RunWidth:
		turned.Run = paper.RunLength
	}
	if _, index, _ := m.worstFold(turned); p.Run != paper.RunUnknown && index <= m.Table.CrackFolds {
		return &Mend{Field: "grain." + p.ID, Choice: string(turned.Run), Words: "Turn the blank: the grain along its folds"}
	}
	finish := stuff.Card{GSM: 1, Thick: stuff.Of(1).Thick, Finish: p.Of.Finish}
	most := m.Table.CrackFolds / m.Table.Crack(finish, fold)
	return m.otherWeight(p, m.heaviest(p, func(gsm float64) bool { return gsm <= most }))
}

// otherWeight takes card of another weight for a piece; nothing where there is none.
func (m *Matter) otherWeight(p Made, gsm float64) *Mend {
	if gsm == 0 || gsm == p.Of.GSM {
		return nil
	}
	card := p.Of
	card.GSM, card.Thickness, card.Measured = gsm, paper.ThicknessOf(gsm, card.Finish.Bulk()), 0
	return &Mend{Field: "cards." + p.ID, Card: &card, Words: fmt.Sprintf("Make the %s of %s", strings.ToLower(p.Name), weight(gsm))}
}

// span is the shorter side, in mm, of a piece's largest panel of a single layer; of a wall with a
// free rim it is its length, or twice its height where that is less. 0 where it has none.
func (m *Matter) span(p Made) float64 {
	if p.Folded == nil {
		return 0
	}
	most := 0.0
	for i := range p.Folded.Faces {
		f := &p.Folded.Faces[i]
		if f.Role != pattern.Panel && f.Role != pattern.Wall || doubled(p, i) {
			continue
		}
		s, _ := pattern.Narrowest(f.Polygon)
		if f.Role == pattern.Wall && f.FreeRim() {
			tall, wide := f.Tall()
			s = min(wide, 2*tall)
		}
		most = max(most, s)
	}
	return most
}

// doubledFrom is what share of a face another one that is glued on it covers, for it to count as
// double.
const doubledFrom = 0.6

// doubled reports whether another face is glued on a face, nearly all over it.
func doubled(p Made, i int) bool {
	f := &p.Folded.Faces[i]
	for _, g := range p.Pattern.Glue {
		if g.Dry || g.Piece != "" || g.Face != f.Name && g.Onto != f.Name {
			continue
		}
		other := g.Face
		if other == f.Name {
			other = g.Onto
		}
		if _, _, j := p.Folded.Face(other); j >= 0 && p.Folded.Overlap(i, j) >= doubledFrom*f.Area() {
			return true
		}
	}
	return false
}

// flimsy judges whether a piece is firm.
func (m *Matter) flimsy(p Made) Finding {
	f := Finding{ID: "card.flimsy", Verdict: OK, Piece: p.ID}
	s, t := m.span(p), &m.Table
	if s == 0 {
		f.Text = p.Name + ": it has no panel that could be flimsy."
		return f
	}
	share := p.Of.Thickness.MM() / t.Firm(s)
	from := t.FirmFrom(s)
	f.Account = []Sum{
		sum("its largest panel, the shorter side", "%s", m.about(s)),
		sum("firm there from", "%s", weight(from)),
		sum("flimsy under", "%s", weight(t.FlimsyUnder(s))),
		sum("this card, as smooth card is thick", "%s", weight(stuff.SmoothWeight(p.Of.Thickness.MM()))),
	}
	switch {
	case share >= 1-1e-9:
		f.Text = fmt.Sprintf("%s: this card is firm over %s.", p.Name, m.about(s))
		return f
	case share >= t.FirmWarns:
		f.Verdict = Warn
		f.Text = fmt.Sprintf("%s: over %s this card dents under a thumb; %s is firm there.", p.Name, m.about(s), weight(from))
	default:
		f.Verdict = Fail
		f.Text = fmt.Sprintf("%s: over %s this card is too thin to keep its shape; take %s, at the very least %s.", p.Name, m.about(s), weight(from), weight(t.FlimsyUnder(s)))
	}
	for _, gsm := range usualWeights {
		card := stuff.Of(gsm)
		card.Finish = p.Of.Finish
		fold, _, folds := m.worstFold(p)
		if gsm >= from && (!folds || t.Crack(card, fold) <= t.CrackFolds) {
			f.Mend = m.otherWeight(p, gsm)
			break
		}
	}
	return f
}

// bulk judges how much card comes to lie in one place.
func (m *Matter) bulk(p Made) Finding {
	f := Finding{ID: "card.bulk", Verdict: OK, Piece: p.ID, Text: p.Name + ": nowhere is there too much card in one place."}
	if p.Folded == nil {
		return f
	}
	n, where := p.Folded.Thickest(p.Pattern)
	thick := float64(n) * p.Of.Thickness.MM()
	f.Account = []Sum{sum(fmt.Sprintf("%d layers of %.2f mm", n, p.Of.Thickness.MM()), "%.2f mm", thick), sum("at most", "%.1f mm", m.Table.BulkMost)}
	if thick > m.Table.BulkMost+1e-6 {
		f.Verdict = Warn
		f.Text = fmt.Sprintf("%s: %d layers meet at the %s, %.1f mm of card, and it does not lie flat. Take a lighter card.", p.Name, n, where, thick)
		f.Mend = m.otherWeight(p, m.heaviest(p, func(gsm float64) bool { return float64(n)*stuff.Of(gsm).Thick <= m.Table.BulkMost }))
	}
	return f
}
