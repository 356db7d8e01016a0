package logbook

import (
	"fmt"
	"math"
	"slices"
)

// Took is how long the work on one step really took, beside what is usual.
type Took struct {
	Kind           string // of the step, as the recipe has it
	Seconds, Usual float64
}

// Pace is how fast a maker is at a kind of step: the usual time is multiplied by Times.
type Pace struct {
	Kind  string
	Times float64
	Notes int
}

// The pace of a kind is drawn towards the usual one as if it had been met this often,
// and what is beyond a few times faster or slower counts as that: someone went away,
// or pressed on without working.
const (
	usualPace = 3.0
	mostTimes = 3.0
	leastPace = 2 // notes that are needed
)

// Paces gives the maker's pace by kind of step: the geometric middle of how the times
// compare with the usual ones, a maker's habits being by ratio. The middle one (the
// median) is drawn towards 1 by the weight of usualPace, so that one note moves
// nothing far, and fewer than two move nothing at all.
func Paces(all []Took) map[string]Pace {
	logs := map[string][]float64{}
	for _, t := range all {
		if t.Seconds > 0 && t.Usual > 0 {
			most := math.Log(mostTimes)
			logs[t.Kind] = append(logs[t.Kind], max(-most, min(most, math.Log(t.Seconds/t.Usual))))
		}
	}
	out := map[string]Pace{}
	for kind, x := range logs {
		if n := float64(len(x)); len(x) >= leastPace {
			out[kind] = Pace{kind, math.Exp(median(x) * n / (n + usualPace)), len(x)}
		}
	}
	return out
}

// Says tells it in a line: "scoring takes you 1.4 times as long as is usual: 6 times
// measured".
func (p Pace) Says() string {
	return fmt.Sprintf("%s takes you %.1f times the usual: measured %d times", doing[p.Kind], p.Times, p.Notes)
}

// doing is what the kinds of step are called while they are done.
var doing = map[string]string{
	"cut": "cutting", "score": "scoring", "fold": "folding", "remove": "cutting away", "decorate": "decorating",
	"glue": "gluing", "assemble": "putting together", "fill": "filling", "close": "closing",
}

// Minutes is how long all of it took.
func Minutes(all []Took) float64 {
	sum := 0.0
	for _, t := range all {
		sum += t.Seconds
	}
	return sum / 60
}

// Of is the maker's time for what usually takes so many seconds.
func Of(paces map[string]Pace, kind string, seconds float64) float64 {
	if p, known := paces[kind]; known {
		return seconds * p.Times
	}
	return seconds
}

// median is the middle of some numbers, of an even count the mean of the two.
func median(all []float64) float64 {
	x := slices.Sorted(slices.Values(all))
	n := len(x)
	return (x[(n-1)/2] + x[n/2]) / 2
}
