package stuff

import (
	"math"
	"sync"
)

// Note is a fit that was worked out at a gap and felt to lie between two, in mm.
type Note struct{ Gap, Least, Below float64 }

// Learnt is what notes say of one card and kind of fit: the lean, by how much gaps in the hand
// are wider than those worked out, with the range that holds it 95 times of 100, and the spread
// of a box about it, in mm (its geometric mean).
type Learnt struct {
	Lean, From, To float64
	Sigma          float64
}

// What is known before any note, and the grid that it is summed over: leans normal with .35 mm,
// spreads lognormal about .32 mm with .5; so many of all notes are wild, alike over six verdicts.
const (
	leanFar   = 1.4
	leanStep  = .04
	leanPrior = .35
	sigmas    = 22
	sigmaFrom = .08
	sigmaTo   = 1.
	sigmaMid  = .32
	sigmaLog  = .5
	wild      = .12
	verdicts  = 6
)

// grid is the prior over leans and spreads.
var grid = sync.OnceValue(func() (out []cell) {
	for i := range int(2*leanFar/leanStep) + 1 {
		d := -leanFar + float64(i)*leanStep
		for k := range sigmas {
			s := sigmaFrom * math.Pow(sigmaTo/sigmaFrom, float64(k)/(sigmas-1))
			ln := (math.Log(s) - math.Log(sigmaMid)) / sigmaLog
			out = append(out, cell{d, s, -d*d/(2*leanPrior*leanPrior) - ln*ln/2})
		}
	}
	return out
})

type cell struct{ lean, sigma, log float64 }

// Learn sums the posterior up over the grid: each note times
// .88·[Φ((hi−g−d)/σ) − Φ((lo−g−d)/σ)] + .12/6.
func Learn(notes []Note) Learnt {
	cells := grid()
	weights := make([]float64, len(cells))
	most := math.Inf(-1)
	for i, c := range cells {
		w := c.log
		for _, n := range notes {
			w += math.Log((1-wild)*n.Chance(c.lean, c.sigma) + wild/verdicts)
		}
		weights[i], most = w, max(most, w)
	}
	total := 0.0
	for i := range weights {
		weights[i] = math.Exp(weights[i] - most)
		total += weights[i]
	}
	out := Learnt{From: math.Inf(1), To: math.Inf(1)}
	sum, spread := 0.0, 0.0
	for i, c := range cells {
		w := weights[i] / total
		out.Lean, spread = out.Lean+w*c.lean, spread+w*math.Log(c.sigma)
		before := sum
		sum += w
		if math.IsInf(out.From, 1) && before < .025 && sum >= .025 {
			out.From = c.lean
		}
		if math.IsInf(out.To, 1) && sum >= .975 {
			out.To = c.lean
		}
	}
	out.Sigma = math.Exp(spread)
	return out
}

// Chance is how likely a box with a lean and a spread is felt as the note says.
func (n Note) Chance(lean, sigma float64) float64 {
	return phi((n.Below-n.Gap-lean)/sigma) - phi((n.Least-n.Gap-lean)/sigma)
}

// Explains is the share of a note that is no wild one.
func (l Learnt) Explains(n Note) float64 {
	p := (1 - wild) * n.Chance(l.Lean, l.Sigma)
	return p / (p + wild/verdicts)
}
