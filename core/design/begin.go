package design

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"
	"sync"
	"time"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/style"
)

// Beginning is a box that can be made of a wish. Changed says in a sentence or two what is other
// than was wished; "" where nothing is.
type Beginning struct {
	Inputs  Inputs
	Built   *Built
	Changed string
}

// mostBeginnings is how many are given at most, and beginsIn how long others are looked for
// beside the first.
const (
	mostBeginnings = 4
	alwaysTried    = 6 // of other kinds, whatever time it takes
	beginsIn       = 60 * time.Millisecond
)

// Begin answers a wish: first the box as it was wished, or else the nearest that can be made,
// then other ways. What is changed is, in this order: the kind where any will do, the sheet, the
// kind, a size to its limit, the card, and how many go into one box. Where nothing comes of it
// there is none.
func Begin(in Inputs, anyKind bool) []Beginning {
	in = parted(in)
	if b, err := quick(in); err == nil {
		return append([]Beginning{{in, b, ""}}, suiting(in)...)
	}
	w := wish{in: in, anyKind: anyKind}
	for _, look := range []func(){w.cured, w.look, w.usualCard, w.fewer} {
		if look(); len(w.found) > 0 {
			break
		}
	}
	if len(w.found) > 0 {
		w.found[0].settle()
	}
	return w.found
}

// suiting are other kinds of box that makers like for what goes in, by its name.
func suiting(in Inputs) []Beginning {
	var out []Beginning
	for _, t := range in.Things {
		for _, s := range style.Suiting(t.Name) {
			other := in.Clone()
			if s.ID == in.Style || len(out) == mostBeginnings-1 || slices.ContainsFunc(out, func(b Beginning) bool { return b.Inputs.Style == s.ID }) || other.SetStyle(s.ID) != nil {
				continue
			}
			if a, can := answerOf(parted(other)); can {
				out = append(out, Beginning{a.in, a.built, ""})
			}
		}
	}
	return out
}

// parted gives several of one thing a room each, where the kind of box can have so many and nothing
// is chosen of that.
func parted(in Inputs) Inputs {
	s, err := style.ByID(in.Style)
	if err != nil || s.Several == nil || len(in.Things) != 1 {
		return in
	}
	out := in.Clone()
	for option, choice := range s.Several(in.Things[0].Count) {
		if _, chosen := in.Choices[option]; !chosen {
			out.Choices[option] = choice
		}
	}
	return out
}

// settle makes sure that what is drawn is what is made: with all ways of standing looked at
// another may be chosen that does not come out of the sheets.
func (b *Beginning) settle() {
	full, err := Sketch(b.Inputs)
	if err != nil && b.Built.Stand != nil {
		b.Inputs.Stand = b.Built.Stand.ID
		full, err = Sketch(b.Inputs)
	}
	if err == nil {
		b.Built = full
	}
}

// wish is what is asked for while an answer is sought.
type wish struct {
	in      Inputs
	anyKind bool
	found   []Beginning
}

// fewTried is how many arrangements are priced of each kind: enough to see whether it can be.
const fewTried = 2

// quick sketches a kind without looking through all the ways that things can stand.
func quick(in Inputs) (*Built, error) {
	if err := in.Check(); err != nil {
		return nil, err
	}
	s, err := style.ByID(in.Style)
	if err != nil {
		return nil, err
	}
	return sketchTrying(in, s, fewTried)
}

// answer is a kind that can be made of a wish, with the sheet that it needs besides those there
// are, if any.
type answer struct {
	in    Inputs
	built *Built
	sheet *paper.Sheet
}

// area is of the sheet that it needs besides, in mm².
func (a answer) area() float64 {
	if a.sheet == nil {
		return 0
	}
	return a.sheet.Width.MM() * a.sheet.Height.MM()
}

// look tries the wished kind, from its sheets or a larger one, and for a while all others, those
// first that need the least sheet besides.
func (w *wish) look() {
	till := time.Now().Add(beginsIn)
	var answers []answer
	for _, first := range w.first() {
		if a, is := answerOf(first); is {
			answers = append(answers, a)
			break
		}
	}
	var got sync.Mutex
	var all sync.WaitGroup
	turns := make(chan struct{}, 2)
	for i, kind := range w.kinds() {
		all.Go(func() {
			turns <- struct{}{}
			defer func() { <-turns }()
			if i >= alwaysTried && time.Now().After(till) {
				return
			}
			if a, is := answerOf(kind); is {
				got.Lock()
				defer got.Unlock()
				if !slices.ContainsFunc(answers, func(x answer) bool { return x.in.Style == a.in.Style }) {
					answers = append(answers, a)
				}
			}
		})
	}
	all.Wait()
	boxes := style.Boxes()
	rank := func(a answer) int {
		if a.in.Style == w.in.Style {
			return -1
		}
		return slices.IndexFunc(boxes, func(s *style.Style) bool { return s.ID == a.in.Style })
	}
	slices.SortStableFunc(answers, func(a, b answer) int {
		mine := func(a answer) int {
			if !w.anyKind && a.in.Style == w.in.Style {
				return 0
			}
			return 1
		}
		return cmp.Or(cmp.Compare(mine(a), mine(b)), cmp.Compare(a.area(), b.area()), cmp.Compare(rank(a), rank(b)))
	})
	for _, a := range answers[:min(len(answers), mostBeginnings)] {
		w.found = append(w.found, Beginning{a.in, a.built, w.says(a)})
	}
}

// answerOf makes a kind from its sheets, or from the smallest besides that gives its blanks.
func answerOf(in Inputs) (answer, bool) {
	b, err := quick(in)
	if err == nil {
		return answer{in, b, nil}, sensible(b)
	}
	if fault.Of(err).Code != fault.LargerThanSheet {
		return answer{}, false
	}
	wide := in.Clone()
	wide.Sheets = []paper.Sheet{{Name: "board", Width: unbounded, Height: unbounded, Count: paper.Unlimited}}
	if b, err = quick(wide); err != nil || !sensible(b) {
		return answer{}, false
	}
	sheet := sheetFor(&in, b)
	on := in.Clone()
	on.Sheets = append(on.Sheets, sheet)
	if b, err = quick(on); err != nil {
		return answer{}, false
	}
	return answer{on, b, &sheet}, true
}

// first are the kinds that are tried whatever time it takes: the wished one, and those that take
// most.
func (w *wish) first() []Inputs {
	out := []Inputs{w.in}
	for _, s := range []*style.Style{style.Usual(), style.Boxes()[0]} {
		plain := w.in.Clone()
		if s.ID != w.in.Style && plain.SetStyle(s.ID) == nil {
			out = append(out, plain)
		}
	}
	return out
}

// kinds are the wish in every other kind of box, those first whose proportions are most like what
// goes in.
func (w *wish) kinds() []Inputs {
	var out []Inputs
	like := w.proportions()
	boxes := style.Boxes()
	slices.SortStableFunc(boxes, func(a, b *style.Style) int {
		return cmp.Compare(unlike(a, like, w.in.Tools.Tick), unlike(b, like, w.in.Tools.Tick))
	})
	for _, s := range boxes {
		other := w.in.Clone()
		if s.ID != w.in.Style && other.SetStyle(s.ID) == nil {
			out = append(out, other)
		}
	}
	return out
}

// proportions are those of what goes in, or of the size that is wished.
func (w *wish) proportions() style.Extent {
	if len(w.in.Things) == 0 {
		s, err := style.ByID(w.in.Style)
		if err != nil {
			return style.Extent{}
		}
		lengths := s.Usual(w.in.Tools.Tick, w.in.Card.Thickness).Lengths
		maps.Copy(lengths, w.in.Size)
		return s.Along(lengths)
	}
	a := arrangementsOf(&w.in, sharesOf(&w.in, 1, 0)[0])[0]
	return style.Extent{Length: a.Length, Width: a.Width, Height: a.Height}
}

// unlike is how far the usual proportions of a style are from others: the sum of how many times
// longer or shorter its height is against each side.
func unlike(s *style.Style, like style.Extent, tick measure.Tick) float64 {
	usual := s.Along(s.Usual(tick, UsualCard.Thickness).Lengths)
	ratio := func(e style.Extent, side measure.Length) float64 {
		return math.Log(max(1e-3, e.Height.MM()) / max(1e-3, side.MM()))
	}
	return math.Abs(ratio(usual, usual.Length)-ratio(like, like.Length)) + math.Abs(ratio(usual, usual.Width)-ratio(like, like.Width))
}

// sensible leaves out boxes that are mostly air.
func sensible(b *Built) bool {
	need := volume(b.Needs)
	return need == 0 || volume(b.Inside)/need <= mostAir
}

// says tells what of an answer is other than was wished.
func (w *wish) says(a answer) string {
	var out []string
	switch {
	case a.in.Style == w.in.Style:
	case w.anyKind:
		out = append(out, fmt.Sprintf("This is %s.", article(a.built.Style.Name)))
	default:
		out = append(out, w.instead(a.built))
	}
	if a.sheet != nil {
		out = append(out, fmt.Sprintf("%s too small for this: drawn on %s.", isAre(namesOf(w.in.Sheets), len(w.in.Sheets)), a.sheet.Name))
	}
	return strings.Join(out, " ")
}

// unbounded is a sheet that every blank comes out of.
const unbounded = 4000 * measure.Millimetre

// sheetFor is the smallest standard sheet that gives the blanks which those chosen do not, one of
// the maker's own unit before others, or one of the size that they need.
func sheetFor(in *Inputs, b *Built) paper.Sheet {
	var blanks []Part
	long, wide := measure.Length(0), measure.Length(0)
	for _, p := range b.Parts {
		if !blankFits(in, p.Part) {
			blanks = append(blanks, p)
			w, h := p.Pattern.Width, p.Pattern.Height
			long, wide = max(long, max(w, h)), max(wide, min(w, h))
		}
	}
	for _, s := range nextSheets(in.Units) {
		with := Inputs{Sheets: []paper.Sheet{s}, Card: in.Card, Cards: in.Cards}
		if !slices.ContainsFunc(blanks, func(p Part) bool { return !blankFits(&with, p.Part) }) {
			return s
		}
	}
	step := measure.Tick(10 * measure.Centimetre)
	if in.Units == measure.In {
		step = measure.Tick(2 * measure.Inch)
	}
	unit := measure.CM
	if in.Units == measure.In {
		unit = measure.In
	}
	high, across := measure.Up(long, step), measure.Up(wide, step)
	if !in.Card.Direction.MayTurn() { // whichever way they lie
		across = high
	}
	return paper.Sheet{Name: measure.Labels(unit, unit.Tick(), across, high), Width: across, Height: high, Count: paper.Unlimited}
}

// nextSheets are the standard sheets in the order in which one takes a larger one: those of one's
// own unit first, then those that are common, the smallest first.
func nextSheets(unit measure.Unit) []paper.Sheet {
	sheets := slices.Clone(paper.Standard)
	rank := func(s paper.Sheet) (n int) {
		if inches := s.Width%(measure.Inch/2) == 0; inches != (unit == measure.In) {
			n = 2
		}
		if slices.Index(paper.Standard, s) >= paper.Common {
			n++
		}
		return n
	}
	slices.SortStableFunc(sheets, func(a, b paper.Sheet) int {
		return cmp.Or(rank(a)-rank(b), cmp.Compare(a.Width.MM()*a.Height.MM(), b.Width.MM()*b.Height.MM()))
	})
	return sheets
}

// instead says that another kind was drawn, and why the wished one was not.
func (w *wish) instead(b *Built) string {
	s, err := style.ByID(w.in.Style)
	if err != nil {
		return ""
	}
	why := "it cannot be made of this"
	if _, err := quick(w.in); err != nil {
		f := fault.Of(err)
		why = strings.TrimSuffix(f.Text, ".")
		if f.Code == fault.LargerThanSheet {
			why = "its blanks are larger than " + namesOf(w.in.Sheets)
		}
	}
	return fmt.Sprintf("Not %s: %s. This is %s.", article(s.Name), why, article(b.Style.Name))
}

// cured tries the changes that mend a refusal of sizes, such as one at its limit.
func (w *wish) cured() {
	if len(w.in.Things) > 0 {
		return // which sizes follow
	}
	for _, c := range Cures(w.in) {
		if b, err := quick(c.Inputs); err == nil {
			w.found = append(w.found, Beginning{c.Inputs, b, "It cannot be made just so. Drawn with one change: " + strings.ToLower(c.Text[:1]) + c.Text[1:] + "."})
		}
	}
}

// usualCard tries the wish in medium card.
func (w *wish) usualCard() {
	if w.in.Card.Thickness == UsualCard.Thickness {
		return
	}
	usual := wish{in: w.in.Clone(), anyKind: w.anyKind}
	usual.in.Card, usual.in.Cards = UsualCard, nil
	said := fmt.Sprintf("Card %s thick does not fold to this: drawn in %.0f gsm.", w.in.show(w.in.Card.Thickness), UsualCard.GSM)
	usual.look()
	w.take(usual.found, said)
}

// fewer parts what goes in among several boxes: as many in each as go, by doubling.
func (w *wish) fewer() {
	total := 0
	for _, t := range w.in.Things {
		total += t.Count
	}
	each := func(n int) Inputs { // about so many in each
		less := w.in.Clone()
		for i, t := range less.Things {
			less.Things[i].Count = max(1, t.Count*n/max(1, total))
		}
		return less
	}
	if total < 2 {
		return
	}
	one := wish{in: each(1), anyKind: w.anyKind}
	for _, first := range one.first() {
		if a, is := answerOf(first); is {
			one.found = []Beginning{{a.in, a.built, w.says(a)}}
			break
		}
	}
	if len(one.found) == 0 {
		return
	}
	best := one.found[0].Inputs
	for n := 2; n < total; n *= 2 {
		more := each(n)
		if more.SetStyle(best.Style) != nil {
			break
		}
		a, is := answerOf(more)
		if !is {
			break
		}
		best, one.found[0] = a.in, Beginning{a.in, a.built, w.says(a)}
	}
	in := 0
	for _, t := range best.Things {
		in += t.Count
	}
	boxes := min(MostCopies, w.in.Copies*((total+in-1)/in))
	one.found[0].Inputs.Copies = boxes
	w.take(one.found[:1], fmt.Sprintf("%d in one box are too many: %d in each of %d boxes.", total, in, boxes))
}

// take takes what was found of another wish, and says first what that changed.
func (w *wish) take(found []Beginning, said string) {
	for _, b := range found {
		b.Changed = strings.TrimSpace(said + " " + b.Changed)
		w.found = append(w.found, b)
	}
}

// namesOf are the names of sheets.
func namesOf(sheets []paper.Sheet) string {
	var out []string
	for _, s := range sheets {
		out = append(out, s.Name)
	}
	return strings.Join(out, " and ")
}

func isAre(what string, n int) string {
	if n == 1 {
		return what + " is"
	}
	return what + " are"
}
