// Package fit does the gap account between parts that go one over another,
// gives the verdict, and solves for the allowance that earns a wanted one.
package fit

import (
	"fmt"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Verdict is how a pair of parts will feel.
type Verdict string

// Verdicts from tightest to loosest.
const (
	WontGoOn Verdict = "won't go on"
	Grips    Verdict = "grips"
	Snug     Verdict = "snug"
	Easy     Verdict = "easy"
	Loose    Verdict = "loose"
)

// Wanted lists the verdicts one can ask for, tightest first.
var Wanted = []Verdict{Grips, Snug, Easy, Loose}

// The gaps, both sides together, at which one verdict gives way to the next.
const (
	gripsFrom = measure.Length(0)
	snugFrom  = 300 * measure.Micrometre
	easyFrom  = 900 * measure.Micrometre
	easyTo    = 1800 * measure.Micrometre
)

// Judge gives the verdict on a gap (both sides together).
func Judge(gap measure.Length) Verdict {
	switch {
	case gap < gripsFrom:
		return WontGoOn
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

// ParseVerdict accepts the verdicts one can ask for.
func ParseVerdict(s string) (Verdict, error) {
	for _, v := range Wanted {
		if s == string(v) {
			return v, nil
		}
	}
	return "", fault.New("unknown-fit", "", "%q is not a fit; ask for grips, snug, easy or loose", s)
}

// Pair is two parts of which one goes over the other along one axis. Spans
// are score to score; Layers counts what stands in the space on each side
// besides the wall itself: 1 for tabs glued inside the outer part's wall, 1
// more for a rolled-over second wall, 1 for tabs on the outside of the inner
// part. Faces names the inner part's walls whose decoration lies between.
type Pair struct {
	Outer, Inner           string
	OuterName, InnerName   string
	Axis                   string
	OuterSpan, InnerSpan   measure.Length
	OuterCard, InnerCard   measure.Length // thickness
	OuterLayers            int
	InnerLayers            int
	Faces                  [2]string
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
	Gap     measure.Length
	Verdict Verdict
}

// Do works the account out. between is the thickness of mats and paper on
// the two faces of the pair, both sides together:
//
//	gap = outer − t·(1 + 2k) − inner − t·(1 + 2k) − between
//
// with t and k each part's own. A wall's card counts half a thickness on
// each side, since spans run from middle to middle of the fold.
func (p Pair) Do(between measure.Length) Account {
	a := Account{Pair: p, Between: between}
	add := func(amount, side measure.Length, format string, args ...any) {
		a.Lines = append(a.Lines, Line{fmt.Sprintf(format, args...), amount, side})
		a.Gap += amount
	}
	add(p.OuterSpan, 0, "%s, score to score", p.OuterName)
	add(-p.OuterCard, p.OuterCard, "%s's own card", p.OuterName)
	if p.OuterLayers > 0 {
		add(-2*measure.Length(p.OuterLayers)*p.OuterCard, measure.Length(p.OuterLayers)*p.OuterCard, "%s inside it, both sides", p.OuterWhat)
	}
	add(-p.InnerSpan, 0, "%s, score to score", p.InnerName)
	add(-p.InnerCard, p.InnerCard, "%s's own card", p.InnerName)
	if p.InnerLayers > 0 {
		add(-2*measure.Length(p.InnerLayers)*p.InnerCard, measure.Length(p.InnerLayers)*p.InnerCard, "%s outside it, both sides", p.InnerWhat)
	}
	if between > 0 {
		add(-between, between/2, "mats between, both sides")
	}
	a.Verdict = Judge(a.Gap)
	return a
}

// LargestAllowance is the most a part is grown to clear another; a lid that
// needs more is a different box.
const LargestAllowance = measure.Inch / 2

// Solve finds the smallest allowance on the tick that earns the wanted
// verdict or the next looser one the tick allows. gap is the tightest gap
// with no allowance at all; an allowance adds its whole size to it.
func Solve(gap measure.Length, want Verdict, tick measure.Tick) (measure.Length, error) {
	need := max(0, want.Least()-gap)
	a := measure.Up(need, tick)
	if a > LargestAllowance {
		return 0, fault.New("gap-not-met", "", "a %s fit would need %s mm more, over the %s mm a lid can grow; use thinner card, fewer mats or single walls",
			want, mm(need), mm(LargestAllowance))
	}
	return a, nil
}

func mm(l measure.Length) string { return measure.Number(l, measure.MM, measure.Millimetre/10) }
