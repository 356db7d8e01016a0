package found

import (
	"fmt"
	"maps"
	"slices"
	"sync"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
)

// kind is a style with its choices made: its parts are cut and scored by the same
// number of lines whatever its sizes.
type kind struct {
	style   *style.Style
	unit    measure.Unit
	choices map[string]string // those that are not the usual ones
	parts   []shape
	ids     []string         // of the sizes that its numbers follow
	usual   []measure.Length // and their usual values
	numbers []float64        // mm, at those, part after part
	slopes  [][]float64      // by size: how its numbers follow it
	spec    style.Spec
}

// shape is how many lines a part is scored by.
type shape struct {
	id                   string
	vertical, horizontal int
}

// mostKinds is how many ways to make the choices of a style are tried.
const mostKinds = 96

var (
	kept   = map[string][]*kind{}
	keeper sync.Mutex
)

// kinds gives a style's kinds, the usual choices first; they are worked out once for a
// unit.
func kinds(s *style.Style, unit measure.Unit) []*kind {
	if unit == measure.CM {
		unit = measure.MM
	}
	key := s.ID + "/" + string(unit)
	keeper.Lock()
	defer keeper.Unlock()
	if out, known := kept[key]; known {
		return out
	}
	var out []*kind
	for _, c := range choices(s) {
		k := newKind(s, unit, c)
		if k != nil && !slices.ContainsFunc(out, k.like) {
			out = append(out, k)
		}
	}
	kept[key] = out
	return out
}

// choices are the ways to choose, those with the fewest unusual choices first.
func choices(s *style.Style) []map[string]string {
	out := []map[string]string{{}}
	for _, o := range s.Options {
		if o.Kind != style.ChoiceKind {
			continue
		}
		for _, c := range slices.Clone(out) {
			for _, v := range o.Choices {
				if v != o.DefaultChoice && len(out) < 4*mostKinds {
					x := maps.Clone(c)
					x[o.ID] = v
					out = append(out, x)
				}
			}
		}
	}
	slices.SortStableFunc(out, func(a, b map[string]string) int { return len(a) - len(b) })
	return out[:min(len(out), mostKinds)]
}

// newKind works a kind out at its usual sizes; nil where it cannot be made so.
func newKind(s *style.Style, unit measure.Unit, choices map[string]string) *kind {
	k := &kind{style: s, unit: unit, choices: choices}
	k.spec = style.Spec{
		Style: s, Lengths: map[string]measure.Length{}, Choices: map[string]string{}, Tick: unit.Tick(), Units: unit,
		Thickness: map[string]measure.Length{"": design.UsualCard.Thickness},
	}
	for _, o := range s.Options {
		if o.Kind == style.ChoiceKind {
			k.spec.Choices[o.ID] = o.DefaultChoice
			if v, set := choices[o.ID]; set {
				k.spec.Choices[o.ID] = v
			}
		} else {
			k.spec.Lengths[o.ID] = o.Usual(k.spec.Tick)
		}
	}
	for _, p := range s.Parameters {
		k.spec.Lengths[p.ID] = p.Usual(k.spec.Tick)
	}
	s.Follow(&k.spec, func(string) bool { return false })
	box, err := k.box(nil)
	if err != nil {
		return nil
	}
	for _, p := range box.Parts {
		k.parts = append(k.parts, shape{p.ID, len(p.Pattern.Scores.Vertical), len(p.Pattern.Scores.Horizontal)})
	}
	if len(k.parts) > mostParts {
		return nil
	}
	k.numbers = numbersOf(box)
	step := 4 * measure.Millimetre
	if unit == measure.In {
		step = measure.Inch / 8
	}
	var ids []string
	for _, p := range s.Parameters {
		ids = append(ids, p.ID)
	}
	for _, o := range s.Options {
		if o.Kind == style.LengthKind {
			ids = append(ids, o.ID)
		}
	}
	for _, id := range ids {
		if slope := k.slope(id, step); slope != nil {
			k.ids, k.usual, k.slopes = append(k.ids, id), append(k.usual, k.spec.Lengths[id]), append(k.slopes, slope)
		}
	}
	return k
}

// slope is how the numbers follow a size, nil where they do not.
func (k *kind) slope(id string, step measure.Length) []float64 {
	for _, d := range []measure.Length{step, -step} {
		box, err := k.box(map[string]measure.Length{id: k.spec.Lengths[id] + d})
		if err != nil {
			continue
		}
		at := numbersOf(box)
		if len(at) != len(k.numbers) {
			continue
		}
		follows := false
		for i := range at {
			at[i] = (at[i] - k.numbers[i]) / d.MM()
			follows = follows || at[i] != 0
		}
		if follows {
			return at
		}
		return nil
	}
	return nil
}

// box makes the box with some sizes set.
func (k *kind) box(set map[string]measure.Length) (*style.Box, error) {
	spec := k.spec
	spec.Lengths = maps.Clone(k.spec.Lengths)
	maps.Copy(spec.Lengths, set)
	return k.style.Make(spec)
}

// make gives the numbers at some sizes; false where there is no such box, or one of
// other lines.
func (k *kind) make(x []measure.Length) ([]float64, bool) {
	set := map[string]measure.Length{}
	for j, id := range k.ids {
		if x[j] < 0 {
			return nil, false
		}
		set[id] = x[j]
	}
	box, err := k.box(set)
	if err != nil || len(box.Parts) != len(k.parts) {
		return nil, false
	}
	for i, p := range box.Parts {
		if len(p.Pattern.Scores.Vertical) != k.parts[i].vertical || len(p.Pattern.Scores.Horizontal) != k.parts[i].horizontal {
			return nil, false
		}
	}
	return numbersOf(box), true
}

// numbersOf lists the numbers of a box's parts, as lain.numbers does.
func numbersOf(box *style.Box) []float64 {
	var out []float64
	for _, p := range box.Parts {
		s := p.Pattern.Scores
		out = append(out, lain{Blank: Blank{p.Pattern.Width, p.Pattern.Height, s.Vertical, s.Horizontal}}.numbers()...)
	}
	return out
}

// set is a size as a hand would set it: to 1/64 in, or 0.05 mm.
func (k *kind) set(mm float64) measure.Length {
	l := measure.Length(mm * float64(measure.Millimetre))
	if k.unit == measure.In {
		return measure.Nearest(l, measure.Tick(measure.Inch/64))
	}
	return measure.Nearest(l, measure.Tick(measure.Millimetre/20))
}

// inRange reports whether sizes are those of such a box.
func (k *kind) inRange(x []measure.Length) bool {
	for j, id := range k.ids {
		for _, p := range k.style.Parameters {
			if p.ID == id && (x[j] < p.Min || x[j] > p.Max) {
				return false
			}
		}
		for _, o := range k.style.Options {
			if o.ID == id && (x[j] < o.Min || x[j] > o.Max) {
				return false
			}
		}
	}
	return true
}

// like reports whether another kind cannot be told from this one by its numbers.
func (k *kind) like(other *kind) bool {
	return slices.Equal(k.parts, other.parts) && slices.Equal(k.numbers, other.numbers) && slices.Equal(k.ids, other.ids) &&
		slices.EqualFunc(k.slopes, other.slopes, slices.Equal[[]float64])
}

// String tells a kind for a test that fails.
func (k *kind) String() string { return fmt.Sprint(k.style.ID, k.choices) }
