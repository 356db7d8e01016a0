package inspect

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/stuff"
)

// Air looks at lids that go so deep over their bases that the air under them must get out.
func (m *Matter) Air(fits []fit.Account) []Finding {
	var out []Finding
	told := map[string]bool{}
	for _, a := range fits {
		if !a.Pair.Kind.Closes || !a.Pair.Kind.Moves() || a.Pair.Outer == a.Pair.Inner || told[a.Pair.Outer] {
			continue
		}
		told[a.Pair.Outer] = true
		if f, sinks := m.air(fits, a.Pair.Outer, a.Pair.Inner); sinks {
			out = append(out, f)
		}
	}
	return out
}

// leastNotch is how wide a notch is, in mm, that lets the air out and a thumb in.
const leastNotch = 19

func (m *Matter) air(fits []fit.Account, outer, inner string) (Finding, bool) {
	lid, is := m.piece(outer)
	if !is {
		return Finding{}, false
	}
	base, _ := m.piece(inner)
	gaps := map[string]fit.Account{}
	var first fit.Account
	for _, a := range fits {
		if a.Pair.Outer == outer && a.Pair.Inner == inner {
			gaps[a.Pair.Axis] = a
			first = a
		}
	}
	long, two := gaps["length"]
	wide, both := gaps["width"]
	deep := min(first.Pair.OuterDepth, first.Pair.InnerDepth).MM()
	x := stuff.Lid{Deep: deep, Grams: lid.Pattern.Area() * lid.Of.GSM / 1e6}
	if two && both {
		l, w := long.Pair.InnerSpan.MM(), wide.Pair.InnerSpan.MM()
		x.Area, x.Slits = l*w, stuff.RoundSlits(l, w, long.Gap.MM(), wide.Gap.MM())
	} else { // it has one gap all round, and on most of each wall no tab
		long, wide = first, first
		_, top, _ := lid.Folded.Face(lid.Root)
		open := first.Gap + measure.Length(first.Pair.OuterLayers)*first.Pair.OuterCard
		x.Area, x.Slits = top.Area(), []stuff.Slit{{Along: around(top.Polygon), Gap: open.MM()}}
	}
	if deep <= 0 || long.Gap <= 0 || wide.Gap <= 0 {
		return Finding{}, false // it grips, and its account has said so
	}
	f := Finding{ID: "air", Verdict: OK, Piece: outer, Text: fmt.Sprintf("%s: the air gets out as it is closed.", lid.Name)}
	if notched(lid) || notched(base) {
		f.Text = fmt.Sprintf("%s: the air gets out by the notches.", lid.Name)
		return f, true
	}
	secs := m.Table.Sinks(x)
	f.Account = []Sum{
		sum("it goes over its base by", "%s", m.about(deep)),
		sum("the gaps, both sides together", "%.2f and %.2f mm", long.Gap.MM(), wide.Gap.MM()),
		sum("by its own weight it sinks in about", "%.0f s", secs), sum("slow over", "%.0f s", m.Table.AirSlow),
	}
	if secs > m.Table.AirSlow {
		f.Verdict = Warn
		f.Text = fmt.Sprintf("%s: the air under it gets out slowly, and it takes about %.0f s to sink. Punch a thumb notch of %s into two opposite walls, or a hole of %s under a paper.",
			lid.Name, math.Round(secs), m.about(leastNotch), m.about(5))
		if option := m.Notch(outer); option != "" {
			to := measure.Up(measure.FromMM(leastNotch), m.Units.Tick())
			f.Mend = &Mend{Field: "options." + option, Name: "notches", To: to, Words: "Cut thumb notches of " + measure.Label(to, m.Units, m.Units.Tick()) + " into it"}
		}
	}
	return f, true
}

// around is a polygon's way round, in mm.
func around(polygon []pattern.Point) float64 {
	sum := 0.0
	for i, q := range polygon {
		sum += polygon[(i+1)%len(polygon)].Sub(q).Len()
	}
	return sum
}

// notched reports whether air gets out of a piece by an opening.
func notched(p Made) bool {
	return slices.ContainsFunc(p.Pattern.Openings, func(o pattern.Opening) bool { return o.Kind == "notch" || o.Kind == "hole" })
}
