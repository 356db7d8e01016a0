package stuff

import (
	"math"

	"gonum.org/v1/gonum/stat/distuv"

	"brevium/core/fit"
)

// Hand is how steady a maker is: standard deviations in mm of a cut, of a card's seat on the
// fence, of a fold, of a groove's own place and of tape; Thick is a card's thickness, as a share.
type Hand struct{ Cut, Seat, Fold, Groove, Thick, Tape float64 }

// Steadiness names a hand.
type Steadiness string

// The hands there are to begin with; a learned one is a practised one as its notes say.
const (
	New       Steadiness = "new"
	Practised Steadiness = "practised"
	Careful   Steadiness = "careful"
	Learned   Steadiness = "learned"
)

// Hands lists them in the order they are offered.
var Hands = []Steadiness{New, Practised, Careful, Learned}

// HandOf gives a hand's numbers.
func HandOf(s Steadiness) Hand {
	switch s {
	case New:
		return Hand{.35, .20, .15, .06, .06, .05}
	case Careful:
		return Hand{.12, .06, .05, .04, .03, .03}
	}
	return Hand{.20, .10, .08, .05, .04, .04}
}

// Scored is how a span comes off the board.
type Scored int

// A span is scored from both its edges (the cut lands in the panel), in one seating from one
// edge, cut with a knife alone, or a wall from the edge that lies on the fence. One that comes
// off the same two lines as the other part's scatters with it, and counts nothing.
const (
	FourEdges Scored = iota
	OneEdge
	Cut
	WallUp
	Given
)

// Spread is the standard deviation of a span in mm: of a panel from four edges
// √(cut² + 4·groove² + 2·seat² + 2·fold²), since the cut lands in the panel and the groove counts
// double; of two lines in one seating √(2·groove² + 2·fold²).
func (h Hand) Spread(s Scored) float64 {
	g, f, e := h.Groove*h.Groove, h.Fold*h.Fold, h.Seat*h.Seat
	switch s {
	case FourEdges:
		return math.Sqrt(h.Cut*h.Cut + 4*g + 2*e + 2*f)
	case OneEdge:
		return math.Sqrt(2*g + 2*f)
	case Cut:
		return h.Cut
	case WallUp:
		return math.Sqrt(g + e + f)
	}
	return 0
}

// Gap is a fit along one axis as it scatters: the mean in mm, how its two spans are scored, the
// cards in its account and their thickness in mm, and the taped tabs. Sides says that two walls
// stand side by side under two others, so that the tighter of two pairs counts.
type Gap struct {
	Mean         float64
	Outer, Inner Scored
	Cards, Tabs  int
	Thick        float64
	ByWeight     bool // the thickness is known by weight alone
	Sides        bool
}

// sides: the lower of two like things against the higher of two others lies .56 of the sum of
// their spreads lower, with .68 of the variances (the least and the most of two normal ones).
const (
	sidesLower = .56
	sidesLess  = .68
)

// Normal gives the gap's mean and standard deviation in mm:
// σ² = σ²outer + σ²inner + (n·σt)² + tabs·tape².
func (t *Table) Normal(h Hand, g Gap) (mean, sigma float64) {
	share := h.Thick
	if g.ByWeight {
		share = t.ByWeight
	}
	outer, inner, mean := h.Spread(g.Outer), h.Spread(g.Inner), g.Mean
	v := outer*outer + inner*inner
	if g.Sides {
		mean, v = mean-sidesLower*(outer+inner), v*sidesLess
	}
	card := float64(g.Cards) * share * g.Thick
	return mean, math.Sqrt(v + card*card + float64(g.Tabs)*h.Tape*h.Tape)
}

// Axis is one axis of a fit, normal about a mean, in mm.
type Axis struct{ Mean, Sigma float64 }

// Above is the chance that the tighter axis is over x: P(min > x) = Π Φ((gᵢ − x)/σᵢ).
func Above(x float64, axes []Axis) float64 {
	p := 1.0
	for _, a := range axes {
		p *= phi((a.Mean - x) / max(a.Sigma, 1e-9))
	}
	return p
}

func phi(x float64) float64 { return distuv.UnitNormal.CDF(x) }

// Chance is how likely a fit is felt as a verdict, by its tightest axis.
func Chance(v fit.Verdict, axes []Axis) float64 {
	least, below := v.Span()
	return Above(least.MM(), axes) - Above(below.MM(), axes)
}

// UsableOf is the chance that it neither strains nor falls off: that it grips, is snug or easy.
func UsableOf(axes []Axis) float64 {
	least, _ := fit.Grips.Span()
	_, below := fit.Easy.Span()
	return Above(least.MM(), axes) - Above(below.MM(), axes)
}

// Batch is how many of n boxes come out usable, in the mean, with the least and the most that 95
// of 100 batches give.
type Batch struct{ Mean, Least, Most int }

// BatchOf counts a batch of n: a share of the variance is common to all, as while the fence stays
// where it is, and the rest is each box's own: Σ over the common offset of binomial(n, p(offset)).
// All axes take the offset alike.
func BatchOf(n int, axes []Axis, common float64) Batch {
	if n < 1 {
		return Batch{}
	}
	const steps = 81
	chance := make([]float64, n+1)
	weights := 0.0
	for i := range steps {
		z := -4 + 8*float64(i)/(steps-1)
		w := math.Exp(-z * z / 2)
		if common <= 0 {
			if z != 0 {
				continue
			}
			w = 1
		}
		own := make([]Axis, len(axes))
		for k, a := range axes {
			own[k] = Axis{a.Mean + z*math.Sqrt(common)*a.Sigma, a.Sigma * math.Sqrt(1-common)}
		}
		d := distuv.Binomial{N: float64(n), P: UsableOf(own)}
		for k := range chance {
			chance[k] += w * prob(d, k)
		}
		weights += w
	}
	mean, sum := 0.0, 0.0
	out := Batch{Least: -1, Most: -1}
	for k := range chance {
		p := chance[k] / weights
		mean, sum = mean+p*float64(k), sum+p
		if out.Least < 0 && sum >= .025 {
			out.Least = k
		}
		if out.Most < 0 && sum >= .975 {
			out.Most = k
		}
	}
	if out.Most < 0 {
		out.Most = n
	}
	out.Mean = int(math.Round(mean))
	return out
}

// prob is the chance of k of a binomial, also where each is certain or impossible.
func prob(d distuv.Binomial, k int) float64 {
	const sure = 1e-12
	switch {
	case d.P < sure:
		return truth(k == 0)
	case d.P > 1-sure:
		return truth(k == int(d.N))
	}
	return d.Prob(float64(k))
}

func truth(is bool) float64 {
	if is {
		return 1
	}
	return 0
}
