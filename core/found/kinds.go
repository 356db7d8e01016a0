package found

import (
	"fmt"
	"iter"
	"maps"
	"math"
	"slices"
	"sync"

	"gonum.org/v1/gonum/mat"

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
	all     []string         // its sizes
	ids     []string         // of those that its numbers follow
	usual   []measure.Length // and their usual values
	numbers []float64        // mm, at those, part after part
	slopes  [][]float64      // by size: how its numbers follow it
	spec    style.Spec
	once    sync.Once
	// inverse turns numbers into the sizes nearest to them, and rest into what no size
	// explains; rank is how many sizes the numbers tell apart.
	inverse, rest *mat.Dense
	first         []*mat.Dense // what no size explains of the first parts' numbers
	rank          int
	hint          func() []float64 // the numbers at other sizes, to tell kinds apart
	others        func() []*kind   // the same about other sizes
	drawn         func() bool      // whether it can be made at its usual sizes, and its numbers then
	views         func() []view    // what the table has of it and of the same about other sizes
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

// kinds gives a style's kinds, the usual choices first: those of the table, made ready when
// blanks come that could be of them, and those of a style that is not in it worked out.
func kinds(s *style.Style, unit measure.Unit) []*kind {
	if unit == measure.CM {
		unit = measure.MM
	}
	key := s.ID + "/" + string(unit)
	keeper.Lock()
	defer keeper.Unlock()
	out, known := kept[key]
	if !known {
		if rows, told := table()[key]; told {
			all := sync.OnceValue(func() [][]view { return views(key) })
			for i, r := range rows {
				k := newKind(s, unit, r.choices)
				k.parts = r.parts
				k.views = func() []view {
					if all := all(); i < len(all) {
						return all[i]
					}
					return nil
				}
				out = append(out, k)
			}
		} else {
			out = workedOut(s, unit)
		}
		kept[key] = out
	}
	return out
}

// workedOut makes a style in all its ways and gives those that can be told apart.
func workedOut(s *style.Style, unit measure.Unit) (out []*kind) {
	for _, c := range choices(s) {
		k := newKind(s, unit, c)
		if k.drawn() && len(k.parts) <= mostParts && !slices.ContainsFunc(out, k.like) {
			out = append(out, k)
		}
	}
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

// newKind is a style with its choices made, at its usual sizes.
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
	for _, p := range s.Parameters {
		k.all = append(k.all, p.ID)
	}
	for _, o := range s.Options {
		if o.Kind == style.LengthKind {
			k.all = append(k.all, o.ID)
		}
	}
	k.hint = sync.OnceValue(func() []float64 {
		box, err := k.box(k.moved(0))
		if err != nil {
			return nil
		}
		return numbersOf(box)
	})
	k.views = func() []view { return nil }
	k.others = sync.OnceValue(k.elsewheres)
	k.drawn = sync.OnceValue(k.draw)
	return k
}

// draw makes the kind at its usual sizes for its numbers, where the table does not have them; false
// where it cannot be made so, or is scored by other lines than it is said to be.
func (k *kind) draw() bool {
	if v := k.views(); len(v) > 0 && k.is(v[0]) {
		return true
	}
	box, err := k.box(nil)
	if err != nil {
		return false
	}
	var parts []shape
	for _, p := range box.Parts {
		parts = append(parts, shape{p.ID, len(p.Pattern.Scores.Vertical), len(p.Pattern.Scores.Horizontal)})
	}
	if k.parts != nil && !slices.Equal(parts, k.parts) {
		return false
	}
	k.parts, k.numbers = parts, numbersOf(box)
	return true
}

// about are the kind and then the same about other sizes, where its parts are scored as blanks are;
// none where they are not.
func (k *kind) about(lie [][]lain) iter.Seq[*kind] {
	return func(yield func(*kind) bool) {
		if len(lie) != len(k.parts) || k.options(lie) == nil || !k.drawn() || !yield(k) {
			return
		}
		for _, x := range k.others() {
			if !yield(x) {
				return
			}
		}
	}
}

// mostElsewhere is at how many other sizes a kind is tried.
const mostElsewhere = 3

// elsewheres are the same kind about other sizes: where a size is the larger of two, its numbers
// follow others elsewhere.
func (k *kind) elsewheres() (out []*kind) {
	if all := k.views(); len(all) > 0 {
		for _, v := range all[1:] {
			x := &kind{style: k.style, unit: k.unit, choices: k.choices, parts: k.parts, all: k.all, spec: k.spec}
			x.spec.Lengths = v.Lengths
			if x.is(v) {
				out = append(out, x)
			}
		}
		return out
	}
	for n := range mostElsewhere {
		if far := k.elsewhere(n); far != nil {
			out = append(out, far)
		}
	}
	return out
}

// moved are the sizes moved from the usual ones, each by another length.
func (k *kind) moved(n int) map[string]measure.Length {
	out := map[string]measure.Length{}
	for i, id := range k.all {
		steps := [][]int{{1, 2, 3}, {3, -1, 1, -2, 2}, {-1, 1, -2, 0, 1}}[n]
		out[id] = k.spec.Lengths[id] + k.step()*measure.Length(steps[i%len(steps)])
	}
	return out
}

// elsewhere is the same kind about other sizes; nil where it cannot be made so.
func (k *kind) elsewhere(n int) *kind {
	x := &kind{style: k.style, unit: k.unit, choices: k.choices, parts: k.parts, all: k.all, spec: k.spec}
	x.spec.Lengths = maps.Clone(k.spec.Lengths)
	maps.Copy(x.spec.Lengths, k.moved(n))
	box, err := x.box(nil)
	if err != nil { // as many of the moves as go together
		x.spec.Lengths = maps.Clone(k.spec.Lengths)
		for _, id := range k.all {
			was := x.spec.Lengths[id]
			x.spec.Lengths[id] = k.moved(n)[id]
			if b, err := x.box(nil); err == nil {
				box = b
			} else {
				x.spec.Lengths[id] = was
			}
		}
	}
	if box == nil {
		return nil
	}
	if x.numbers = numbersOf(box); len(x.numbers) != len(k.numbers) {
		return nil
	}
	return x
}

// step is how far sizes are moved to see what follows them.
func (k *kind) step() measure.Length {
	if k.unit == measure.In {
		return measure.Inch / 8
	}
	return 4 * measure.Millimetre
}

// ready works out how the numbers follow the sizes, once; false where they tell of too
// few.
func (k *kind) ready() bool {
	k.once.Do(func() {
		if k.ids == nil {
			k.follow()
		}
		for _, id := range k.ids {
			k.usual = append(k.usual, k.spec.Lengths[id])
		}
		n, m := len(k.numbers), len(k.ids)
		if m == 0 {
			return
		}
		a := mat.NewDense(n, m, nil)
		for j, slope := range k.slopes {
			a.SetCol(j, slope)
		}
		var svd mat.SVD
		if !svd.Factorize(a, mat.SVDThin) {
			return
		}
		k.rank = svd.Rank(1e-9)
		if n-k.rank < redundant {
			return
		}
		eye := mat.NewDense(n, n, nil)
		for i := range n {
			eye.Set(i, i, 1)
		}
		k.inverse, k.rest = &mat.Dense{}, &mat.Dense{}
		svd.SolveTo(k.inverse, eye, k.rank)
		k.rest.Mul(a, k.inverse)
		k.rest.Sub(eye, k.rest)
		k.firsts(a)
	})
	return k.inverse != nil
}

// follow tries how the numbers follow each size.
func (k *kind) follow() {
	for _, id := range k.all {
		if slope := k.slope(id, k.step()); slope != nil {
			k.ids, k.slopes = append(k.ids, id), append(k.slopes, slope)
		}
	}
}

// firsts works out what no size explains of the numbers of the first part, of the first
// two, and so on.
func (k *kind) firsts(slopes *mat.Dense) {
	n := 0
	_, m := slopes.Dims()
	for _, p := range k.parts {
		n += 2 + p.vertical + p.horizontal
		rest := mat.NewDense(n, n, nil)
		for i := range n {
			rest.Set(i, i, 1)
		}
		k.first = append(k.first, rest)
		var svd mat.SVD
		a := mat.DenseCopyOf(slopes.Slice(0, n, 0, m))
		rank := 0
		if svd.Factorize(a, mat.SVDThin) {
			rank = svd.Rank(1e-9)
		}
		if rank == 0 {
			continue
		}
		var inverse, told mat.Dense
		svd.SolveTo(&inverse, mat.DenseCopyOf(rest), rank)
		told.Mul(a, &inverse)
		rest.Sub(rest, &told)
	}
}

// slope is how the numbers follow a size, nil where they do not: where they do so both
// ways alike, if they do, for a size may be one beyond which the box is laid otherwise.
func (k *kind) slope(id string, step measure.Length) []float64 {
	follows := func(slope []float64) bool { return slices.ContainsFunc(slope, func(x float64) bool { return x != 0 }) }
	var first []float64
	for _, d := range []measure.Length{step, step / 2, step / 4} {
		up, down := k.slopeBy(id, d), k.slopeBy(id, -d)
		if up != nil && down != nil && slices.EqualFunc(up, down, func(a, b float64) bool { return math.Abs(a-b) < 1e-6 }) {
			if !follows(up) {
				break
			}
			return up
		}
		for _, one := range [][]float64{up, down} {
			if first == nil && follows(one) {
				first = one
			}
		}
	}
	return first
}

// slopeBy is how the numbers follow a size that is changed by so much: nil where there is no
// box of the same lines then.
func (k *kind) slopeBy(id string, by measure.Length) []float64 {
	box, err := k.box(map[string]measure.Length{id: k.spec.Lengths[id] + by})
	if err != nil {
		return nil
	}
	at := numbersOf(box)
	if len(at) != len(k.numbers) {
		return nil
	}
	for i := range at {
		at[i] = (at[i] - k.numbers[i]) / by.MM()
	}
	return at
}

// box makes the box with some sizes set.
func (k *kind) box(set map[string]measure.Length) (*style.Box, error) {
	spec := k.spec
	spec.Lengths = maps.Clone(k.spec.Lengths)
	maps.Copy(spec.Lengths, set)
	return k.style.Pieces(spec)
}

// make gives the numbers at some sizes; false where there is no such box, or one of
// other lines.
func (k *kind) make(x []measure.Length) ([]float64, bool) { return k.makeWith(x, unseen) }

// makeWith is make, with sizes that no number follows tried at so many times the usual ones.
func (k *kind) makeWith(x []measure.Length, unseen []float64) ([]float64, bool) {
	for _, at := range x {
		if at < 0 {
			return nil, false
		}
	}
	spec, box := k.made(x, unseen)
	if spec == nil || len(box.Parts) != len(k.parts) {
		return nil, false
	}
	for i, p := range box.Parts {
		if len(p.Pattern.Scores.Vertical) != k.parts[i].vertical || len(p.Pattern.Scores.Horizontal) != k.parts[i].horizontal {
			return nil, false
		}
	}
	return numbersOf(box), true
}

// unseen are what sizes that no number follows are tried at, of the usual ones: they may
// still bound those that are seen, as a cover must be as tall as the thing in it.
var unseen = []float64{1, .75, .5, .35, .25, 1.5, 2}

// made is the box at some sizes, and what it is made to; nil where there is none.
func (k *kind) made(x []measure.Length, unseen []float64) (*style.Spec, *style.Box) {
	set := map[string]measure.Length{}
	for j, id := range k.ids {
		set[id] = x[j]
	}
	for n, by := range unseen {
		spec := k.spec
		spec.Lengths = maps.Clone(k.spec.Lengths)
		for _, p := range k.style.Parameters {
			if n > 0 {
				spec.Lengths[p.ID] = measure.Nearest(max(p.Min, min(p.Max, measure.Length(by*float64(spec.Lengths[p.ID])))), spec.Tick)
			}
		}
		maps.Copy(spec.Lengths, set)
		k.style.Follow(&spec, func(id string) bool { _, given := set[id]; return given })
		if box, err := k.style.Pieces(spec); err == nil {
			return &spec, box
		}
		if k.sees() {
			break
		}
	}
	return nil, nil
}

// sees reports whether the numbers tell of all the sizes.
func (k *kind) sees() bool {
	return !slices.ContainsFunc(k.style.Parameters, func(p *style.Parameter) bool { return !slices.Contains(k.ids, p.ID) })
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
	return measure.Nearest(measure.Length(mm*float64(measure.Millimetre)), measure.Tick(k.tick()))
}

// tick is what a hand would set sizes to at the finest.
func (k *kind) tick() measure.Length {
	if k.unit == measure.In {
		return measure.Inch / 64
	}
	return measure.Millimetre / 20
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
	return slices.Equal(k.parts, other.parts) && slices.Equal(k.numbers, other.numbers) && slices.Equal(k.hint(), other.hint())
}

// String tells a kind for a test that fails.
func (k *kind) String() string { return fmt.Sprint(k.style.ID, k.choices) }
