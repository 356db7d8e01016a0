// Package fit does the gap account between parts that go one over another,
// gives the verdict, and solves for the allowance that earns a wanted one.
package fit

import (
	"cmp"
	"fmt"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Verdict is how a pair of parts will feel.
type Verdict string

// Verdicts from tightest to loosest.
const (
	WontGoOn Verdict = "won't go on"
	Tight    Verdict = "tight" // card gives, walls bow: not to be asked for
	Grips    Verdict = "grips"
	Snug     Verdict = "snug"
	Easy     Verdict = "easy"
	Loose    Verdict = "loose"
)

// Verdicts lists all of them, tightest first.
var Verdicts = []Verdict{WontGoOn, Tight, Grips, Snug, Easy, Loose}

// Wanted lists the verdicts one can ask for, tightest first.
var Wanted = []Verdict{Grips, Snug, Easy, Loose}

// The gaps, both sides together, at which one verdict gives way to the next.
const (
	bendsTo   = -1500 * measure.Micrometre // for what is hinged and tapered: its walls bend
	tightFrom = -700 * measure.Micrometre
	gripsFrom = measure.Length(0)
	snugFrom  = 300 * measure.Micrometre
	easyFrom  = 900 * measure.Micrometre
	easyTo    = 1800 * measure.Micrometre
)

// Judge gives the verdict on a gap (both sides together).
func Judge(gap measure.Length) Verdict {
	switch {
	case gap < tightFrom:
		return WontGoOn
	case gap < gripsFrom:
		return Tight
	case gap < snugFrom:
		return Grips
	case gap < easyFrom:
		return Snug
	case gap <= easyTo:
		return Easy
	}
	return Loose
}

// Least is the smallest gap that earns the verdict.
func (v Verdict) Least() measure.Length {
	switch v {
	case Snug:
		return snugFrom
	case Easy:
		return easyFrom
	case Loose:
		return easyTo + measure.Micrometre
	}
	return gripsFrom
}

// Span is the gaps, from Least on and below the other, that are felt as the verdict;
// those at the ends go on for ever.
func (v Verdict) Span() (least, below measure.Length) {
	const far = 1000 * measure.Millimetre
	edges := []measure.Length{-far, tightFrom, gripsFrom, snugFrom, easyFrom, easyTo, far}
	for i, x := range Verdicts {
		if x == v {
			return edges[i], edges[i+1]
		}
	}
	return -far, far
}

// ParseVerdict accepts the verdicts one can ask for.
func ParseVerdict(s string) (Verdict, error) {
	for _, v := range Wanted {
		if s == string(v) {
			return v, nil
		}
	}
	return "", fault.New(fault.UnknownFit, "", "%q is not a fit; ask for grips, snug, easy or loose", s)
}

// Pair is two parts of which one goes over the other along one axis. Spans
// are score to score; Layers counts what stands in the space besides the
// walls themselves, both sides together: 2 for tabs glued inside the outer
// part's two walls, 2 more for rolled-over second walls, 2 for tabs on the
// outside of the inner part, 1 for a tab inside one wall only.
type Pair struct {
	Kind                 *Kind
	Outer, Inner         string
	OuterName, InnerName string
	Axis                 string
	OuterSpan, InnerSpan measure.Length
	OuterCard, InnerCard measure.Length // thickness
	OuterLayers          int
	InnerLayers          int
	// OuterIs and InnerIs say how a span is measured; "" is score to score.
	OuterIs, InnerIs       string
	OuterWhat, InnerWhat   string // what the layers are, for the account
	OuterDepth, InnerDepth measure.Length
}

// Line is one line of an account; Amount is what it adds to the gap.
type Line struct {
	Text   string
	Amount measure.Length
	// Side is the thickness one side shows in the stack-up picture; zero for spans.
	Side measure.Length
}

// Account is a pair's gap, line by line.
type Account struct {
	Pair    Pair
	Lines   []Line
	Between measure.Length // mats and paper between, both sides together
	Leant   measure.Length // of the gap, by what the maker's notes say
	Spread  measure.Length // of a box about it, as those say; 0 where they do not
	Gap     measure.Length
	Verdict Verdict
	// Closest: a mark less of the allowance would miss the fit that is wanted.
	Closest bool
}

// Do works the account out. between is the thickness of mats and paper on
// the two faces of the pair, both sides together:
//
//	gap = outer − t·(1 + 2k) − inner − t·(1 + 2k) − between
//
// with t and 2k, the layers, each part's own. A wall's card counts half a thickness on
// each side, since spans run from middle to middle of the fold.
func (p Pair) Do(between measure.Length) Account {
	a := Account{Pair: p, Between: between}
	add := func(amount, side measure.Length, format string, args ...any) {
		a.Lines = append(a.Lines, Line{fmt.Sprintf(format, args...), amount, side})
		a.Gap += amount
	}
	add(p.OuterSpan, 0, "%s, %s", p.OuterName, cmp.Or(p.OuterIs, "between folds"))
	if p.OuterCard > 0 {
		add(-p.OuterCard, p.OuterCard, "%s's own card", p.OuterName)
	}
	if p.OuterLayers > 0 {
		add(
			-measure.Length(p.OuterLayers)*p.OuterCard,
			measure.Length(p.OuterLayers)*p.OuterCard/2,
			"%s inside it, %s",
			p.OuterWhat,
			sides(p.OuterLayers),
		)
	}
	add(-p.InnerSpan, 0, "%s, %s", p.InnerName, cmp.Or(p.InnerIs, "between folds"))
	if p.InnerCard > 0 {
		add(-p.InnerCard, p.InnerCard, "%s's own card", p.InnerName)
	}
	if p.InnerLayers > 0 {
		add(
			-measure.Length(p.InnerLayers)*p.InnerCard,
			measure.Length(p.InnerLayers)*p.InnerCard/2,
			"%s outside it, %s",
			p.InnerWhat,
			sides(p.InnerLayers),
		)
	}
	if between > 0 {
		add(-between, between/2, "papers between, both sides")
	}
	a.judge()
	return a
}

func (a *Account) judge() {
	a.Verdict = Judge(a.Gap)
	k := a.Pair.Kind
	if k != nil && k.Gives && a.Verdict == WontGoOn && (a.Gap >= bendsTo || !k.Moves()) {
		a.Verdict = Tight
	}
}

func sides(layers int) string {
	if layers == 1 {
		return "one side"
	}
	return "both sides"
}

// LargestAllowance is the most a part is grown to clear another; one that
// needs more is a different box.
const LargestAllowance = measure.Inch / 2

// Solve finds the smallest allowance on the tick that earns the wanted
// verdict or the next looser one the tick allows. gap is the tightest gap
// with no allowance at all; an allowance adds its whole size to it.
func Solve(gap measure.Length, want Verdict, tick measure.Tick) (measure.Length, error) {
	need := max(0, want.Least()-gap)
	a := measure.Up(need, tick)
	if a > LargestAllowance {
		return 0, fault.New(
			fault.GapNotMet,
			"",
			"a %s fit would need %s mm more, over the %s mm a part can grow; use thinner card, fewer papers on top or single walls",
			want,
			mm(need),
			mm(LargestAllowance),
		)
	}
	return a, nil
}

func mm(l measure.Length) string { return measure.Number(l, measure.MM, measure.Tenth) }
