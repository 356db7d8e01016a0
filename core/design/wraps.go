package design

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/band"
	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
)

// Wrapping is wrapping paper for the finished box: how it is laid, and how wide
// the roll is that it comes from.
type Wrapping struct {
	Way  string
	Roll measure.Length
	Card paper.Card
}

// WrapWays lists the ways a box is laid on its wrapping paper.
var WrapWays = []string{"straight", "diagonal"}

// Wrapped is the paper worked out: its size, the sides of the box, how the batch
// comes off the roll.
type Wrapped struct {
	Wrapping
	band.Wrap
	Long, Wide, High measure.Length // as the box lies on it
	Across           int            // sheets side by side on the roll
	OffRoll          measure.Length // in all
	Turned           bool
}

// UsualWrapping is straight, from a roll 70 cm or 28 in wide.
func UsualWrapping(unit measure.Unit) *Wrapping {
	roll := 700 * measure.Millimetre
	if unit == measure.In {
		roll = 28 * measure.Inch
	}
	return &Wrapping{Way: "straight", Roll: roll,
		Card: paper.Card{Name: "Wrapping paper, striped", GSM: 80, Thickness: 100 * measure.Micrometre, Direction: paper.NoDirection}}
}

type wrapFile struct {
	Way  string       `json:"way,omitempty"`
	Roll measure.Text `json:"roll,omitempty"`
	Card *cardFile    `json:"card,omitempty"`
}

func (r *reader) wrap(f *wrapFile) {
	if f == nil {
		return
	}
	w := UsualWrapping(r.unit)
	if f.Way != "" {
		w.Way = f.Way
	}
	w.Roll = r.length("wrap.roll", f.Roll, w.Roll)
	if f.Card != nil {
		w.Card = r.card("wrap.card", *f.Card)
	}
	r.in.Wrap = w
}

func writeWrap(w *Wrapping) *wrapFile {
	if w == nil {
		return nil
	}
	card := writeCard(w.Card)
	return &wrapFile{Way: w.Way, Roll: mmText(w.Roll), Card: &card}
}

func checkWrap(in *Inputs) error {
	w := in.Wrap
	switch {
	case w == nil:
		return nil
	case !slices.Contains(WrapWays, w.Way):
		return fault.New(fault.UnknownChoice, "wrap.way", "wrapping paper is laid straight or diagonal")
	case w.Roll < 100*measure.Millimetre || w.Roll > 3000*measure.Millimetre:
		return fault.New(fault.OutOfRange, "wrap.roll", "a roll of paper is 100 mm to 3 m wide")
	}
	return checkCard("wrap.card", w.Card)
}

// wrapUp works the wrapping paper out over the closed box and what lies on it.
func (t *Tied) wrapUp() error {
	w := t.Inputs.Wrap
	if w == nil {
		return nil
	}
	bodies, err := t.Bodies(style.Finished)
	if err != nil {
		return err
	}
	const whole = 4000.0
	// Every section as seen along an axis, whole: its hull, and how far it reaches.
	hulls := [3][]pattern.Point{}
	reach := func(axis int) (across, up float64) {
		hulls[axis] = style.Section(bodies, t.flatOver(), axis, 0, whole, raisedBy(&t.Inputs))
		lo, hi := pattern.Bounds(hulls[axis])
		return hi.X - lo.X, hi.Y - lo.Y
	}
	wide, high := reach(style.AlongLength)
	long, _ := reach(style.AlongWidth)
	out := &Wrapped{Wrapping: *w, Long: measure.FromMM(long), Wide: measure.FromMM(wide), High: measure.FromMM(high)}
	ruler := t.Inputs.Tools.Tick.Ruler()
	if w.Way == "diagonal" {
		out.Wrap = band.OnDiagonal(out.Long, out.Wide, out.High, ruler)
	} else {
		out.Wrap = band.Straight(band.Perimeter(hulls[style.AlongLength]), out.Long, out.High, out.Wide, ruler)
	}
	across, length, turned, goes := out.FromRoll(w.Roll, t.Inputs.Copies)
	if !goes {
		return fault.New(fault.LargerThanSheet, "wrap.roll", "the paper would be %s × %s, wider than the roll either way; take a wider roll", t.Show(out.Width), t.Show(out.Height))
	}
	out.Across, out.OffRoll, out.Turned = across, length, turned
	t.Wrapped = out
	return nil
}

// flatOver is what lies on the closed box without bows, which come over the paper.
func (t *Tied) flatOver() []style.Plate {
	var out []style.Plate
	for _, l := range t.Lying {
		if l.Piece != "" {
			out = append(out, l.Plates...)
		}
	}
	return out
}

// wrapMoves are how the paper is cut, where the box is put, and how it is folded.
func (t *Tied) wrapMoves() []hand.Put {
	w := t.Wrapped
	if w == nil {
		return nil
	}
	said := func(key string, by map[string][]measure.Length) hand.Said {
		return hand.Said{Key: key, Lengths: by, Words: map[string]string{"paper": w.Card.Name}}
	}
	all := []hand.Said{
		said("wrap-square", map[string][]measure.Length{"size": {w.Width}}), said("wrap-corner", nil),
		said("wrap-diagonal", map[string][]measure.Length{"past": {t.ruled(w.Past)}}),
	}
	if !w.Diagonal {
		// The flaps across the lesser way of an end come last, and meet past its middle.
		flaps := "wrap-ends-wide"
		if w.High > w.Wide {
			flaps = "wrap-ends-high"
		}
		all = []hand.Said{
			said("wrap-sheet", map[string][]measure.Length{"size": {w.Width, w.Height}}),
			said("wrap-across", map[string][]measure.Length{"across": {w.Width}, "past": {t.ruled(w.End)}}),
			said("wrap-round", map[string][]measure.Length{"lap": {t.ruled(band.WrapLap)}}),
			said(flaps, nil),
		}
	}
	var out []hand.Put
	for i, x := range all {
		m := hand.Put{Thing: fmt.Sprintf("wrapping, %d", i+1), When: t.atLast(), Phrase: []hand.Said{x}}
		if i > 0 {
			m.After = []string{out[i-1].Thing}
		}
		out = append(out, m)
	}
	return out
}

// wrapSupply is the paper for all copies, off the roll.
func (t *Tied) wrapSupply() (recipe.Supply, bool) {
	w := t.Wrapped
	if w == nil {
		return recipe.Supply{}, false
	}
	text := fmt.Sprintf("%s: %.1f m off a roll %s wide", w.Card.Name, math.Ceil(w.OffRoll.MM()/100)/10, t.Show(w.Roll))
	if w.Across > 1 && t.Inputs.Copies > 1 {
		text += fmt.Sprintf(", %d sheets side by side", min(w.Across, t.Inputs.Copies))
	}
	return recipe.Supply{ID: "wrap", Amount: w.OffRoll.MM(), Unit: "mm", Text: text}, true
}
