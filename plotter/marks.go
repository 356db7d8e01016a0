package plotter

import (
	"fmt"
	"math"
	"math/cmplx"
	"math/rand"
	"slices"

	"brevium/core/fault"
	"brevium/core/pattern"
	"brevium/core/strokes"
)

// How a printed sheet may lie and be scaled, and what a machine still takes.
const (
	shift, turn           = 2.0, 1.5 // mm, degrees
	scaled, askew         = 0.004, 0.001
	eye                   = 0.03 // mm: how well a mark is seen
	mostResidual          = 0.25
	mostTurn              = 3.0
	mostScale             = 0.02
	sameMark      float64 = 3 // mm: a mark is looked for this near to where it should be, and as the others lie
)

// affine maps a point: x' = a·x + b·y + c, y' = d·x + e·y + f.
type affine [6]float64

func (t affine) of(p pattern.Point) pattern.Point {
	return pattern.Pt(t[0]*p.X+t[1]*p.Y+t[2], t[3]*p.X+t[4]*p.Y+t[5])
}

// back undoes the map.
func (t affine) back(p pattern.Point) pattern.Point {
	d := t[0]*t[4] - t[1]*t[3]
	q := pattern.Pt(p.X-t[2], p.Y-t[5])
	return pattern.Pt((t[4]*q.X-t[1]*q.Y)/d, (t[0]*q.Y-t[3]*q.X)/d)
}

// finding is how a printed sheet was found to lie.
type finding struct {
	report *marksReport
	fit    affine
}

// place moves a line to where the sheet was found. An arc stays one: what a print is askew by is far
// less than what an arc may stray.
func (f *finding) place(l strokes.Line) strokes.Line {
	if f.report == nil {
		return l
	}
	l.Path = slices.Clone(l.Path)
	for i := range l.Path {
		l.Path[i].Point = f.fit.of(l.Path[i].Point)
	}
	return l
}

// find lays the printed sheet as chance has it, looks for its marks and works out how it lies; the
// map back is from the mat to the print as it truly lies.
func find(f *File, o Options, chance *rand.Rand) (*finding, func(pattern.Point) pattern.Point, error) {
	if o.Marks == 0 {
		return &finding{}, func(p pattern.Point) pattern.Point { return p }, nil
	}
	if len(f.Marks) < o.Marks {
		return nil, nil, refuse(fault.MarkMissing, fmt.Sprintf("%d of %d", len(f.Marks), o.Marks), "print the sheet with its marks, and lay it so that all are seen")
	}
	within := func(most float64) float64 { return most * (2*chance.Float64() - 1) }
	angle := within(turn) * math.Pi / 180
	k := 1 + within(scaled)
	kx := k * (1 + within(askew))
	sin, cos := math.Sincos(angle)
	mid := pattern.Pt(f.Width/2, f.Height/2)
	at := pattern.Pt(within(shift), within(shift))
	truly := affine{kx * cos, -k * sin, 0, kx * sin, k * cos, 0}
	moved := mid.Add(at).Sub(truly.of(mid))
	truly[2], truly[5] = moved.X, moved.Y
	want := f.Marks[:o.Marks]
	var seen []pattern.Point
	for _, m := range want {
		seen = append(seen, truly.of(m).Add(pattern.Pt(chance.NormFloat64(), chance.NormFloat64()).Scale(eye)))
	}
	out, err := fitted(want, seen)
	return out, truly.back, err
}

// fitted is the map by least squares: of three marks a similarity w = a·z + b, of four an affine one.
func fitted(want, seen []pattern.Point) (*finding, error) {
	out := &finding{report: &marksReport{Wanted: len(want), Found: len(seen), Fit: "similarity"}}
	if len(want) == 3 {
		out.fit = similar(want, seen)
	} else {
		out.report.Fit = "affine"
		out.fit = straightened(want, seen)
	}
	for i, w := range want {
		out.report.Residual = max(out.report.Residual, out.fit.of(w).Sub(seen[i]).Len())
	}
	r := out.report
	r.Turn = math.Atan2(out.fit[3], out.fit[0]) * 180 / math.Pi
	r.Scale = math.Sqrt(math.Abs(out.fit[0]*out.fit[4] - out.fit[1]*out.fit[3]))
	r.Offset = [2]float64{hundredth(out.fit[2]), hundredth(out.fit[5])}
	where := fmt.Sprintf("turned %.2f°, scale %.4f, residual %.2f mm", r.Turn, r.Scale, r.Residual)
	if r.Residual > mostResidual || math.Abs(r.Turn) > mostTurn || math.Abs(r.Scale-1) > mostScale {
		return nil, refuse(fault.MarkResidual, where, "this is not how it was printed; print it at 100 %% and lay it straight")
	}
	round := func(v *float64) { *v = math.Round(*v*1e4) / 1e4 }
	round(&r.Turn)
	round(&r.Scale)
	round(&r.Residual)
	return out, nil
}

func similar(want, seen []pattern.Point) affine {
	n := complex(float64(len(want)), 0)
	var z, w complex128
	c := func(p pattern.Point) complex128 { return complex(p.X, p.Y) }
	for i := range want {
		z, w = z+c(want[i])/n, w+c(seen[i])/n
	}
	var top complex128
	var under float64
	for i := range want {
		d := c(want[i]) - z
		top += (c(seen[i]) - w) * cmplx.Conj(d)
		under += real(d)*real(d) + imag(d)*imag(d)
	}
	a := top / complex(under, 0)
	b := w - a*z
	return affine{real(a), -imag(a), real(b), imag(a), real(a), imag(b)}
}

func straightened(want, seen []pattern.Point) affine {
	row := func(of func(pattern.Point) float64) [3]float64 {
		var a [3][4]float64
		for i, p := range want {
			v := [4]float64{p.X, p.Y, 1, of(seen[i])}
			for j := range 3 {
				for k := range 4 {
					a[j][k] += v[j] * v[k]
				}
			}
		}
		x, _ := solve3(a)
		return x
	}
	x := row(func(p pattern.Point) float64 { return p.X })
	y := row(func(p pattern.Point) float64 { return p.Y })
	return affine{x[0], x[1], x[2], y[0], y[1], y[2]}
}
