package design

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/style"
)

// Ask is a question for the biggest box that one sheet gives. Fixed holds
// sizes by the style's axes; the others are free, as are the options that may vary and that
// nobody has chosen, and the box of the largest room is found. With none fixed and
// Proportions (any three lengths) given it keeps those.
type Ask struct {
	Sheet       paper.Sheet
	Fixed       map[string]measure.Length
	Proportions style.Extent
}

// Biggest is the biggest box a sheet gives, on the tick.
type Biggest struct {
	Size style.Extent // along the style's axes, score to score
	Used float64      // of the sheet, 0 to 1
	Near []Choice
	// Chosen are the options that were chosen for it.
	Chosen []Chosen
	// Cut says that time ran out: this is the biggest that was found until then.
	Cut bool
	// Follow lists options that were typed for another size and cannot hold at
	// this one, such as a lid deeper than the base; they follow the size.
	Follow []string
}

// Apply gives the inputs of a box that is the biggest.
func (b *Biggest) Apply(in Inputs) Inputs {
	out := in.Sized(b.Size)
	for _, id := range b.Follow {
		delete(out.Lengths, id)
	}
	for _, c := range b.Chosen {
		c.set(&out)
	}
	return out
}

// Says tells what was chosen for it, and whether time ran out.
func (b *Biggest) Says(unit measure.Unit) string {
	var out []string
	for _, c := range b.Chosen {
		what := strings.ReplaceAll(c.Choice, "-", " ")
		if c.Choice == "" {
			what = measure.Label(c.Length, unit, unit.Tick())
		}
		out = append(out, c.Label+": "+what+".")
	}
	if b.Cut {
		out = append(out, "This is the biggest found in the time a page has; a larger one may exist.")
	}
	return strings.Join(out, " ")
}

// Choice is a size near the biggest, and what it changes.
type Choice struct {
	Size style.Extent
	Text string
}

// Volume of a size in mm³.
func volume(e style.Extent) float64 { return e.Length.MM() * e.Width.MM() * e.Height.MM() }

// seek answers an Ask. All of it is by trial on the tick: nothing is assumed
// of how a style's blanks grow, but that of two sizes that fit each smaller
// one does too.
type seek struct {
	ctx    context.Context // ends the search: nothing fits any more
	in     Inputs
	style  *style.Style
	ask    Ask
	tick   measure.Tick
	step   measure.Length    // the tick, to count by
	small  []*style.Option   // the options that are as small as is usual, whatever the size
	widens map[string][]bool // what the allowances widen, once it is known
	// trials are how many sizes were tried, and amiss how many of those could not be made.
	trials, amiss int
}

// FindBiggest finds the biggest box of the design's style and options that
// the sheet gives, all its pieces of the box's own card cut from that one
// sheet. Sizes are score to score and on the user's tick; no larger tick
// fits. It fails at "sheet" when not even the smallest box does.
func FindBiggest(ctx context.Context, in Inputs, ask Ask) (*Biggest, error) {
	return findFollowing(ctx, in, ask, true)
}

// findFollowing does so, with what is near if that is wanted.
func findFollowing(ctx context.Context, in Inputs, ask Ask, near bool) (*Biggest, error) {
	b, err := findBiggest(ctx, in, ask, near)
	if err == nil || fault.Of(err).Code != fault.NoRoom {
		return b, err
	}
	s, known := style.ByID(in.Style)
	if known != nil {
		return nil, known
	}
	in = in.Clone()
	var follow []string
	for _, o := range s.Options {
		if _, typed := in.Lengths[o.ID]; typed && o.Follows != nil {
			delete(in.Lengths, o.ID)
			follow = append(follow, o.ID)
		}
	}
	if follow == nil {
		return nil, err
	}
	if b, err = findBiggest(ctx, in, ask, near); err == nil {
		b.Follow = follow
	}
	return b, err
}

func findBiggest(ctx context.Context, in Inputs, ask Ask, near bool) (*Biggest, error) {
	s, err := style.ByID(in.Style)
	if err != nil {
		return nil, fault.At("style", err)
	}
	if ask.Sheet.Width <= 0 || ask.Sheet.Height <= 0 {
		return nil, fault.New(fault.TooSmall, "sheet", "give the sheet's two sides; both are more than nothing")
	}
	if min(ask.Sheet.Width, ask.Sheet.Height) > in.Tools.Trimmer {
		return nil, fault.New(
			fault.LongerThanTrimmer,
			"sheet",
			"no cut across this sheet is short enough for your trimmer; cut it in two by hand first, and give one half",
		)
	}
	in = in.Clone()
	in.Things, in.Linings, in.Basis, in.Mats, in.Room = nil, nil, Scored, nil, style.Extent{}
	in.Loose, in.Bands, in.Covers, in.Ribbons, in.Wrap, in.Closures, in.Labels, in.Windows = nil, nil, nil, nil, nil, nil, nil, nil
	ask.Sheet.Count = 1
	q := seek{ctx: ctx, in: in, style: s, ask: ask, tick: in.Tools.Tick, step: in.Tools.Tick.Length(), widens: map[string][]bool{}}
	free := q.free()
	var found style.Extent
	var chosen []Chosen
	switch {
	case len(free) == 0:
		return nil, fault.New(fault.NothingFree, "fixed", "leave one size or more free to grow")
	case len(ask.Fixed) == 0 && ask.Proportions != (style.Extent{}):
		if found, err = q.scaled(); err != nil {
			return nil, err
		}
	default:
		found, chosen = q.freest(free)
	}
	switch gone := ctx.Err(); {
	case volume(found) > 0:
	case errors.Is(gone, context.DeadlineExceeded):
		return nil, fault.New(
			fault.NoRoom,
			"sheet",
			"this sheet gives no %s that was found in the time a page has; fix a size, or take a larger sheet",
			strings.ToLower(s.Name),
		)
	case gone != nil:
		return nil, gone
	default:
		return nil, fault.New(
			fault.NoRoom,
			"sheet",
			"this sheet gives no %s at all with these sizes; take a larger sheet or fix smaller ones",
			strings.ToLower(s.Name),
		)
	}
	b := &Biggest{Size: found, Chosen: chosen, Cut: ctx.Err() != nil}
	for _, c := range chosen {
		c.set(&q.in)
	}
	if near && !b.Cut {
		b.Near = q.near(found, free)
	}
	q.ctx = context.WithoutCancel(ctx) // one more look at what was found
	_, b.Used = q.fits(found)
	return b, nil
}

// free lists the axes that may grow: 0 length, 1 width, 2 height. A square
// box has one size for two of them; the first stands for both.
func (q *seek) free() []int {
	return slices.DeleteFunc(q.style.Own(), func(i int) bool { _, fixed := q.ask.Fixed[q.style.Axes[i].ID]; return fixed })
}

// set gives an axis, and any that shares its size, a length.
func (q *seek) set(e *style.Extent, axis int, l measure.Length) {
	for i, p := range q.style.Axes {
		if p == q.style.Axes[axis] {
			*e.Axis(i) = l
		}
	}
}

// sizes fills the fixed axes in.
func (q *seek) sizes(e style.Extent) style.Extent {
	for i, p := range q.style.Axes {
		if l, fixed := q.ask.Fixed[p.ID]; fixed {
			*e.Axis(i) = l
		}
	}
	return e
}

// limits of an axis on the tick.
func (q *seek) limits(i int) (least, most measure.Length) {
	p := q.style.Axes[i]
	return measure.Up(p.Min, q.tick), measure.Down(min(p.Max, q.ask.Sheet.Width+q.ask.Sheet.Height), q.tick)
}

// side says on which side of the border a size lies.
type side int

const (
	fitting side = iota
	tooLarge
	unmade  // it cannot be made, or not without a remark: as a rule it is too small
	neither // that, and its pieces are too large as well
)

// fits tells whether a box of the size comes out of the sheet, and how much
// of it that uses.
func (q *seek) fits(e style.Extent) (bool, float64) {
	at, used := q.try(e)
	return at == fitting, used
}

// last is the largest n from least to most whose size fits; 0 is none.
func (q *seek) last(least, most int, size func(n int) style.Extent) int {
	return lastFitting(least, most, func(n int) side {
		at, _ := q.try(size(n))
		return at
	})
}

// lastFitting is the largest n from least to most that fits, by halving: of
// two sizes that fit each smaller one does too, and what cannot be made lies
// below those. Where that does not hold, as when a size between cannot be
// made, the others are tried one by one. 0 is none.
func lastFitting(least, most int, try func(n int) side) int {
	low, high := least-1, most+1
	at := fitting // of low, once it is one that was tried
	for high-low > 1 {
		n := (low + high) / 2
		if now := try(n); now == tooLarge || now == neither {
			high = n
		} else {
			low, at = n, now
		}
	}
	for ; low >= least; low-- {
		if at == fitting {
			return low
		}
		if low > least {
			at = try(low - 1)
		}
	}
	return 0
}

// try works one size out: on which side it lies, and how much of the sheet it uses.
func (q *seek) try(e style.Extent) (side, float64) {
	at, used, _ := q.tried(e)
	return at, used
}

// tried does so, and gives the volume of its room too, in mm³: that of the size itself where
// the box is no room.
func (q *seek) tried(e style.Extent) (at side, used, room float64) {
	q.trials++
	defer func() {
		if at == unmade || at == neither {
			q.amiss++
		}
	}()
	layout.Yield(q.ctx)
	if q.ctx.Err() != nil {
		return unmade, 0, 0
	}
	for i, p := range q.style.Axes {
		if *e.Axis(i) > p.Max {
			return tooLarge, 0, 0
		}
	}
	z := newSizer(&q.in, q.style, q.sized(e))
	z.widens = q.widens
	for _, o := range q.small {
		z.worked[o.ID] = true
	}
	if z.spec.Style == nil || z.inRange() != nil {
		return unmade, 0, 0
	}
	box, err := z.box()
	if err != nil {
		return unmade, 0, 0
	}
	good, large := fitting, tooLarge
	if len(box.Remarks) > 0 {
		good, large = unmade, neither
	}
	for _, p := range q.style.Parameters { // what follows from the size
		if l := z.spec.Lengths[p.ID]; l > p.Max {
			return large, 0, 0
		} else if l < p.Min {
			return unmade, 0, 0
		}
	}
	job := layout.Job{Sheets: []paper.Sheet{q.ask.Sheet}, Trimmer: q.in.Tools.Trimmer}
	area, sheet := 0.0, q.ask.Sheet.Width.MM()*q.ask.Sheet.Height.MM()
	for _, p := range box.Parts {
		if q.in.CardOf(p.ID) != q.in.Card {
			continue
		}
		w, h := p.Pattern.Width, p.Pattern.Height
		if max(w, h) > q.in.Tools.Trimmer {
			return large, 0, 0
		}
		area += w.MM() * h.MM() * float64(p.Copies())
		job.Pieces = append(
			job.Pieces,
			layout.Piece{Name: p.ID, Width: w, Height: h, Copies: p.Copies(), Turn: q.in.Card.Direction.MayTurn()},
		)
	}
	if area > sheet+1e-6 || job.Check() != nil {
		return large, 0, 0
	}
	if len(job.Pieces) > 1 || job.Pieces[0].Copies > 1 {
		laid, err := layout.Solve(q.ctx, &job, layout.Effort{})
		if err != nil || len(laid.Unplaced) > 0 {
			return large, 0, 0
		}
	}
	if room = volume(box.Room.Largest); room == 0 {
		room = volume(e)
	}
	return good, area / sheet, room
}

// scaled keeps the proportions: the smallest side takes tick after tick, the
// others follow rounded to theirs.
func (q *seek) scaled() (style.Extent, error) {
	p := q.ask.Proportions
	smallest := min(p.Length, p.Width, p.Height)
	if smallest <= 0 {
		return style.Extent{}, fault.New(fault.TooSmall, "proportions", "proportions are three sizes over zero, such as 2, 1 and 1")
	}
	at := func(n int) style.Extent {
		of := func(l measure.Length) measure.Length {
			return measure.Nearest(measure.FromMM(l.MM()/smallest.MM()*(measure.Length(n)*q.step).MM()), q.tick)
		}
		e := style.Extent{Length: of(p.Length), Width: of(p.Width), Height: of(p.Height)}
		for _, i := range q.style.Own() {
			q.set(&e, i, *e.Axis(i))
		}
		return e
	}
	if n := q.last(1, int((q.ask.Sheet.Width+q.ask.Sheet.Height)/q.step), at); n > 0 {
		return at(n), nil
	}
	return style.Extent{}, nil
}

// mostTrade is how many ticks one size is made smaller to let another grow.
const mostTrade = 16

// near gives choices around the biggest: each free size a tick larger and
// what that costs, and each fixed size a tick smaller and what that gives.
func (q *seek) near(found style.Extent, free []int) []Choice {
	var out []Choice
	show := func(l measure.Length) string { return measure.Label(l, q.in.Units, q.tick) }
	label := func(i int) string { return q.style.Axes[i].Label }
	for _, i := range free {
		if grown := q.grown(found, i); grown != found {
			out = append(out, Choice{grown, fmt.Sprintf("%s alone can grow to %s; the others stay", label(i), show(*grown.Axis(i)))})
			continue
		}
		for _, j := range q.style.Own() {
			if j == i || q.style.Axes[j] == q.style.Axes[i] {
				continue
			}
			if n := q.trade(found, i, j); n > 0 {
				e := q.traded(found, i, j, n)
				out = append(out, Choice{e, fmt.Sprintf("%s %s more costs %s of the %s",
					label(i), show(q.step), show(measure.Length(n)*q.step), strings.ToLower(label(j)))})
			}
		}
	}
	for _, i := range q.style.Own() {
		if slices.Contains(free, i) {
			continue
		}
		id := q.style.Axes[i].ID
		less := *q
		less.ask.Fixed = maps.Clone(q.ask.Fixed)
		less.ask.Fixed[id] = measure.Down(q.ask.Fixed[id]-1, q.tick)
		e := less.largest(less.sizes(found), free, 0)
		if volume(e) > 0 {
			out = append(
				out,
				Choice{
					e,
					fmt.Sprintf(
						"%s %s less gives %s × %s × %s",
						label(i),
						show(q.ask.Fixed[id]-less.ask.Fixed[id]),
						show(e.Length),
						show(e.Width),
						show(e.Height),
					),
				},
			)
		}
	}
	return out
}

// traded is a size with axis i a tick larger and j some ticks smaller.
func (q *seek) traded(e style.Extent, i, j, ticks int) style.Extent {
	q.set(&e, i, *e.Axis(i)+q.step)
	q.set(&e, j, *e.Axis(j)-measure.Length(ticks)*q.step)
	return e
}

// trade is how few ticks of axis j make up for one more of i; 0 when up to
// mostTrade do not.
func (q *seek) trade(e style.Extent, i, j int) int {
	if at, _ := q.try(q.traded(e, i, j, mostTrade)); at == tooLarge {
		return 0
	}
	for n := 1; n <= mostTrade; n++ {
		if at, _ := q.try(q.traded(e, i, j, n)); at == fitting {
			return n
		}
	}
	return 0
}

// grown lets one axis grow alone as far as it goes.
func (q *seek) grown(e style.Extent, axis int) style.Extent {
	at := func(n int) style.Extent {
		next := e
		q.set(&next, axis, *next.Axis(axis)+measure.Length(n)*q.step)
		return next
	}
	_, most := q.limits(axis)
	return at(q.last(1, int((most-*e.Axis(axis))/q.step)+1, at))
}
