package fit

import (
	"cmp"
	"fmt"
	"strings"

	"brevium/core/measure"
)

// Kind is how two parts of a box belong together. It carries the words for
// their fit and what is checked of it, so that nothing else need know.
type Kind struct {
	// ID names it in notes and files.
	ID string
	// goes says what the outer part does to the inner one, as in "lid over base".
	goes string
	// inner says it the other way round, for what stands inside something.
	inner bool
	// tight, grips and loose say what to do about such a gap, wont about one that is worse
	// than tight; "" is as for tight. {outer} and {inner} stand for the two parts.
	tight, grips, loose, wont string
	// Closes: the outer part comes down over the inner one, and must not reach
	// the table first.
	Closes bool
	// Dressed: mats on the inner part's outside stand in the gap.
	Dressed bool
	// Gives: the walls bend out of each other's way, so that it goes on where others
	// would not, down to bendsTo.
	Gives bool
	// roomy: a loose gap is no fault.
	roomy bool
	// glued: they are held together anyway, so that only a gap that bends the
	// card either way is worth a word.
	glued bool
	// rests: the outer part lies on the inner one where that stands higher.
	rests bool
	// clears: the inner one is an opening that the outer must not reach into.
	clears bool
}

// The kinds of relation between two parts.
var (
	LidOn = &Kind{
		ID:   "lid",
		goes: "over", Closes: true, Dressed: true,
		tight: "Let it be worked out how much bigger the {outer} is, or make it bigger.",
		grips: "It may crease the rim. Allow one tick more unless you want that.",
		loose: "It may drop off. Allow less, or hold it with a band.",
	}
	SleeveRound = &Kind{
		ID:   "sleeve",
		goes: "round", Dressed: true,
		tight: "Let it be worked out how much bigger the {outer} is, or make it bigger.",
		grips: "It will stick when it is pushed. Allow one tick more unless you want that.",
		loose: "The {inner} may fall out. Allow less, or hold it with a band.",
	}
	ShutsOver = &Kind{
		ID:   "shuts",
		goes: "over", Closes: true, Dressed: true, Gives: true,
		tight: "The walls bend past each other: taper the tabs well, or step the scores.",
		wont:  "Step the scores of the {outer}, or take thinner card.",
		grips: "Taper the tabs well.",
		loose: "It may fall open. Allow less, or hold it with a band.",
	}
	CoverRound = &Kind{
		ID:   "cover",
		goes: "round", Dressed: true,
		tight: "Let it be worked out how much wider the {outer} is, or make it wider.",
		grips: "The {outer} bows. Allow one tick more unless you want that.",
		loose: "The {outer} stands off the {inner}. Allow less.",
	}
	InNest = &Kind{
		ID:   "nest",
		goes: "in", inner: true, Dressed: true,
		tight: "Let the gap be worked out, or give it more.",
		grips: "It lifts its neighbour with it. Allow one tick more.",
		roomy: true,
	}
	GluedIn = &Kind{
		ID:   "glued",
		goes: "in", inner: true, Gives: true, roomy: true, glued: true,
		tight: "the walls bulge: make it narrower.",
	}
	RestsOn = &Kind{ID: "rests", goes: "over", Gives: true, roomy: true, rests: true}
	Clears  = &Kind{ID: "clears", goes: "between", inner: true, roomy: true, clears: true}
	InBox   = &Kind{
		goes: "in", inner: true,
		tight: "Make it smaller by that.",
		grips: "It goes in with a push.",
		roomy: true,
	}
)

// bends is how far, both sides together, what is glued on may stand off before
// the card is seen to bend.
const bends = 2 * measure.Millimetre

// What names the relation along an axis: "Lid over base, length".
func (p Pair) What() string {
	if p.Kind.inner {
		return fmt.Sprintf("%s %s %s, %s", p.InnerName, p.Kind.goes, strings.ToLower(p.OuterName), p.Axis)
	}
	return fmt.Sprintf("%s %s %s, %s", p.OuterName, p.Kind.goes, strings.ToLower(p.InnerName), p.Axis)
}

// Moves tells whether one part is to move in the other, so that their gap is
// what a hand feels: neither glued in it nor only resting on it.
func (k *Kind) Moves() bool { return !k.glued && !k.rests && !k.clears }

// Widened tells whether an allowance of the style is for this relation: what
// stands in a box has a size of its own.
func (k *Kind) Widened() bool { return k.Moves() && k != InBox }

// Fails tells whether the account says: do not cut this. Warns tells whether
// it is to be said with care.
func (a Account) Fails() bool { return a.Verdict == WontGoOn }

// Warns tells whether the account is worth a second look before cutting.
func (a Account) Warns() bool {
	if a.Pair.Kind.glued {
		return a.Gap.Abs() > bends
	}
	if a.Pair.Kind.rests || a.Pair.Kind.clears {
		return false
	}
	return a.Verdict == Tight || a.Verdict == Grips || a.Verdict == Loose && !a.Pair.Kind.roomy
}

// Sentence says what the account came to and what to do about it.
func (a Account) Sentence() string {
	return strings.NewReplacer("{outer}", strings.ToLower(a.Pair.OuterName), "{inner}", strings.ToLower(a.Pair.InnerName)).Replace(a.sentence())
}

func (a Account) sentence() string {
	k, what := a.Pair.Kind, a.Pair.What()
	gap := measure.Label(a.Gap.Abs(), measure.MM, measure.Hundredth)
	switch {
	case k.clears:
		return fmt.Sprintf("%s: it clears them by %s, both sides together.", what, gap)
	case k.rests && a.Gap < 0:
		return fmt.Sprintf("%s: it rests %s higher, on the layers in the middle.", what, gap)
	case k.rests:
		return fmt.Sprintf("%s: it rests on the rim, %s above them.", what, gap)
	case k.glued && a.Gap < 0:
		rest := "the card gives."
		if a.Warns() {
			rest = k.tight
		}
		return fmt.Sprintf("%s: glued, %s too wide for the layers round it; %s", what, gap, rest)
	case k.glued:
		return fmt.Sprintf("%s: glued, with %s of play inside the layers round it.", what, gap)
	case a.Fails():
		return fmt.Sprintf("%s: it won't go on, %s too tight. %s", what, gap, cmp.Or(k.wont, k.tight))
	case a.Verdict == Tight && a.Gap < tightFrom:
		return fmt.Sprintf("%s: the same scores are %s tight. %s", what, gap, k.tight)
	case a.Verdict == Tight:
		return fmt.Sprintf("%s: %s tight; the card gives and the walls bow. %s", what, gap, k.tight)
	case a.Verdict == Grips:
		return fmt.Sprintf("%s: a gap of %s grips. %s", what, gap, k.grips)
	case a.Verdict == Loose && k.roomy:
		return fmt.Sprintf("%s: it stands with %s to spare.", what, gap)
	case a.Verdict == Loose:
		return fmt.Sprintf("%s: a gap of %s is loose. %s", what, gap, k.loose)
	}
	return fmt.Sprintf("%s: a gap of %s, %s.", what, gap, a.Verdict)
}

// Held says what an account came to that is loose, of parts that are held the other way.
func (a Account) Held() string {
	return fmt.Sprintf("%s: a gap of %s is loose; the fit the other way holds them.", a.Pair.What(), measure.Label(a.Gap.Abs(), measure.MM, measure.Hundredth))
}

// AsCloseAsMarks says of a loose account that the marks of the tools give no closer one.
func (a Account) AsCloseAsMarks() string {
	return fmt.Sprintf("%s: a gap of %s is loose, and one mark less would be too tight: put a band round it where it is carried.", a.Pair.What(), measure.Label(a.Gap.Abs(), measure.MM, measure.Hundredth))
}

// TooDeep is how much deeper the outer part's wall is than the inner one is
// high, where it has to close over it; 0 where it need not or is not.
func (p Pair) TooDeep() measure.Length {
	if !p.Kind.Closes || p.InnerDepth == 0 {
		return 0
	}
	return max(0, p.OuterDepth-p.InnerDepth)
}
