package stuff

import "math"

// gravity is the weight in N of a gram.
const gravity = 9.81e-3

// Verdict of a sum: Fine, Barely, or NotEnough.
type Verdict int

// From best to worst.
const (
	Fine Verdict = iota
	Barely
	NotEnough
)

// Safe judges how many times over something carries.
func (t *Table) Safe(times float64) Verdict {
	switch {
	case times >= t.SafeOK:
		return Fine
	case times >= t.SafeWarns:
		return Barely
	}
	return NotEnough
}

// Floor is a floor that hangs by its four walls: Long and Short its sides in mm, its layers from
// below, and what rests on it. Foot is how wide the one thing is that stands on it, across the
// shorter side, or 0 where the weight is spread. LongWay and ShortWay are the card's stiffness
// along the two sides, times the mean, 1 where the grain is not known.
type Floor struct {
	Long, Short       float64
	Layers            []Layer
	Grams, Foot       float64
	LongWay, ShortWay float64
}

// alphas are the sag of a plate whose edges are held, by how many times as long it is as wide.
var alphas = [][2]float64{{1, .00406}, {1.2, .00564}, {1.5, .00772}, {2, .01013}, {3, .01223}, {8, .01302}}

func alpha(r float64) float64 {
	for i := 1; i < len(alphas); i++ {
		a, b := alphas[i-1], alphas[i]
		if r <= b[0] {
			return a[1] + (b[1]-a[1])*(max(r, a[0])-a[0])/(b[0]-a[0])
		}
	}
	return alphas[len(alphas)-1][1]
}

// Share is how much worse than a spread weight one stiff thing is: 3(1 − φ), φ = foot/b, at
// least 0.3; 1 where it is spread.
func (f Floor) Share() float64 {
	if f.Foot <= 0 || f.Short <= 0 {
		return 1
	}
	return max(0.3, 3*(1-f.Foot/f.Short))
}

// Sag is how far the floor's middle sinks, in mm: q = k₁w + k₃w³ with k₁ = D/(αb⁴), bending, and
// k₃ = 3·ΣEt/(b⁴r²), hanging like cloth. It is found by halving.
func (t *Table) Sag(f Floor) float64 {
	if f.Long <= 0 || f.Short <= 0 || f.Grams <= 0 || len(f.Layers) == 0 {
		return 0
	}
	a, b := max(f.Long, f.Short), min(f.Long, f.Short)
	r := a / b
	d, et := t.Layered(f.Layers)
	q := t.Creep * f.Share() * f.Grams * gravity / (a * b)
	bent := r
	if f.LongWay > 0 && f.ShortWay > 0 {
		bent = max(1, r*math.Pow(f.ShortWay/f.LongWay, 0.25))
		d *= f.ShortWay
	}
	k1 := d / (alpha(bent) * math.Pow(b, 4))
	k3 := t.SagStretch * et / (math.Pow(b, 4) * r * r)
	lo, hi := 0.0, b
	for range 60 {
		if w := (lo + hi) / 2; k1*w+k3*w*w*w < q {
			lo = w
		} else {
			hi = w
		}
	}
	return hi
}

// SagLimits are the sags in mm up to which a floor of a shorter side is well, and over which it
// is not to be carried.
func (t *Table) SagLimits(short float64) (fine, most float64) {
	return max(t.SagLeast, short*t.SagShare), max(t.SagMore, short*t.SagMost)
}

// Sags judges a sag.
func (t *Table) Sags(w, short float64) Verdict {
	fine, most := t.SagLimits(short)
	switch {
	case w <= fine:
		return Fine
	case w <= most:
		return Barely
	}
	return NotEnough
}

// Carries is the most, in grams, that a floor carries spread with a sag of w mm at most.
func (t *Table) Carries(f Floor, w float64) float64 {
	lo, hi := 0.0, 1e5
	for range 60 {
		f.Grams = (lo + hi) / 2
		if t.Sag(f) <= w {
			lo = f.Grams
		} else {
			hi = f.Grams
		}
	}
	return lo
}

// JointHolds is how many times over the glued corners of a tray hold: V = k·m·g/8 at each of
// eight, against τ·tab·H.
func (t *Table) JointHolds(a Adhesive, tab, high, grams float64) float64 {
	return a.Shear * tab * high / (t.Swing * grams * gravity / 8)
}

// FloorHolds is how many times over the glued flaps of a bottom hold, seam mm of them: they
// are peeled by p = k·m·g/(2·seam).
func (t *Table) FloorHolds(a Adhesive, seam, grams float64) float64 {
	return a.Peel / (t.Swing * grams * gravity / (2 * seam))
}

// HandlePull is what each end of a handle is pulled by, in N: T = k·m·g/2.
func (t *Table) HandlePull(grams float64) float64 { return t.Swing * grams * gravity / 2 }

// BradHolds is what a brad bears in N, its middle edge mm from the card's edge: 2·e·t·10.
func (t *Table) BradHolds(edge, thick float64) float64 { return 2 * edge * thick * t.BradPull }

// Wall is a wall that carries what is stacked on it: its width in mm, its card, and whether it is
// rolled over and glued. Upright is the grain's way: 1 up, -1 level, 0 not known, which counts as
// level, the weaker.
type Wall struct {
	Wide    float64
	Card    Card
	Rolled  bool
	Upright int
}

// WallHolds is what it bears in N before it buckles: P = min(2π√(Fc·D), Fc·b); its edges carry
// on when its middle gives, so that it is the same for every width.
func (t *Table) WallHolds(w Wall) float64 {
	fc, d := t.ShortAcross*w.Card.weight(), t.Stiffness(w.Card)
	if w.Upright > 0 {
		fc = t.ShortAlong * w.Card.weight()
	}
	if w.Rolled {
		d, fc = d*t.StackRolledD, fc*t.StackRolledF
	}
	return min(2*math.Pi*math.Sqrt(fc*d), fc*w.Wide)
}

// BoxHolds is what a box of such walls bears in N.
func (t *Table) BoxHolds(walls []Wall) float64 {
	sum := 0.0
	for _, w := range walls {
		sum += t.WallHolds(w)
	}
	return t.StackBox * sum
}

// StackHolds is how many times over the lowest of high boxes holds the others.
func (t *Table) StackHolds(bears, grams float64, high int) float64 {
	if high < 2 || grams <= 0 {
		return math.Inf(1)
	}
	return bears / (t.StackLong * grams * gravity * float64(high-1))
}

// Lid is a lid that sinks over its base: the base's area in mm², how far the lid reaches down in
// mm, its own weight in grams, and the slits by which the air goes out.
type Lid struct {
	Area, Deep, Grams float64
	Slits             []Slit
}

// Slit is what is open between two walls: how long it is, and the gap of its axis, both sides
// together, in mm.
type Slit struct{ Along, Gap float64 }

// RoundSlits are those of a lid over four walls: the gap in length lies at the ends, which are
// as long as the base is wide.
func RoundSlits(length, width, gapLength, gapWidth float64) []Slit {
	return []Slit{{2 * width, gapLength}, {2 * length, gapWidth}}
}

// Sinks is how long the lid takes to sink, in s: T = 6μA²h²/(m·g·S), S = Σ along·(gap/2)³, the
// air going out by the slits at its walls (SI). A gap below 0 lets nothing out.
func (t *Table) Sinks(l Lid) float64 {
	s := 0.0
	for _, x := range l.Slits {
		s += x.Along / 1000 * math.Pow(max(0, x.Gap)/2000, 3)
	}
	area, deep := l.Area/1e6, l.Deep/1000
	return 6 * t.AirThick * area * area * deep * deep / (l.Grams * gravity * s)
}
