package sketch

import (
	"bytes"
	"image"
	"image/jpeg"
	"math"
	"math/rand/v2"

	"brevium/photo"
)

// scene is a net drawn on a sheet, photographed by a hand-held camera.
type scene struct {
	r          *rand.Rand
	wide, high float64 // mm, of the sheet
	step       float64 // of its squares, 0 for none
	lines      []Line  // as they are meant
}

// scenes draws a net at random: a tray with tabs, a carton, a strip with scores; on squares of 5 mm
// or 1/4 in, or on plain paper with any sizes.
func newScene(seed uint64) *scene {
	s := &scene{r: rand.New(rand.NewPCG(seed, 13)), wide: 210, high: 297}
	s.step = []float64{5, 25.4 / 4, 0}[s.r.IntN(3)]
	on := func(mm float64) float64 {
		if s.step > 0 {
			return math.Round(mm/s.step) * s.step
		}
		return mm
	}
	left, top := on(15+15*s.r.Float64()), on(15+20*s.r.Float64())
	w, h := on(100+55*s.r.Float64()), on(120+80*s.r.Float64())
	d := on(25 + 12*s.r.Float64())
	cut := func(x1, y1, x2, y2 float64) {
		s.lines = append(s.lines, Line{X1: left + x1, Y1: top + y1, X2: left + x2, Y2: top + y2})
	}
	fold := func(x1, y1, x2, y2 float64) {
		cut(x1, y1, x2, y2)
		s.lines[len(s.lines)-1].Fold = true
	}
	cut(0, 0, w, 0)
	cut(0, h, w, h)
	cut(0, 0, 0, h)
	cut(w, 0, w, h)
	switch s.r.IntN(3) {
	case 0: // a tray, with a slit at each corner
		fold(d, d, d, h-d)
		fold(w-d, d, w-d, h-d)
		fold(0, d, w, d)
		fold(0, h-d, w, h-d)
		for _, x := range []float64{d, w - d} {
			cut(x, 0, x, d)
			cut(x, h-d, x, h)
		}
	case 1: // a strip
		for at := d; at < h-12; at = at + on(d+8) {
			fold(0, at, w, at)
		}
	case 2: // a carton with tapered tabs at its top
		fold(0, d, w, d)
		fold(d, d, d, h)
		fold(w-d, d, w-d, h)
		fold(0, h-d, w, h-d)
		cut(d, d, d+on(8), 0)
		cut(w-d, d, w-d-on(8), 0)
	}
	return s
}

// taken gives the photograph, 2000 pixels high, and where the corners of the sheet are in it.
func (s *scene) taken() ([]byte, [4]photo.Corner) {
	const wide, high = 1500, 2000
	// The sheet before the camera: its corners a little off, as it is held.
	var corners [4]photo.Corner
	for i, at := range [4][2]float64{{0.07, 0.06}, {0.93, 0.06}, {0.93, 0.94}, {0.07, 0.94}} {
		corners[i] = photo.Corner{X: at[0] + 0.05*(s.r.Float64()-0.5), Y: at[1] + 0.05*(s.r.Float64()-0.5)}
	}
	const fine = 8 // dots to a millimetre on the sheet itself
	w, h := int(s.wide*fine), int(s.high*fine)
	sheet := make([]float32, w*h)
	for i := range sheet {
		sheet[i] = 1
	}
	stroke := func(l Line, width, dark, wobble float64) {
		n, length := l.Length()*fine*2, l.Length()
		nx, ny := (l.Y2-l.Y1)/length, -(l.X2-l.X1)/length
		phase, waves := s.r.Float64()*6, 1+2*s.r.Float64()
		for k := 0.0; k <= n; k++ {
			t := k / n
			if at := math.Mod(t*length, 6.5); l.Fold && at > 4 {
				continue
			}
			off := wobble * math.Sin(phase+waves*math.Pi*t)
			x, y := l.X1+t*(l.X2-l.X1)+off*nx, l.Y1+t*(l.Y2-l.Y1)+off*ny
			for dx := -width / 2; dx <= width/2; dx += 1.0 / fine {
				for dy := -width / 2; dy <= width/2; dy += 1.0 / fine {
					px, py := int((x+dx)*fine), int((y+dy)*fine)
					if dx*dx+dy*dy <= width*width/4 && px >= 0 && py >= 0 && px < w && py < h {
						grain := 0.75 + 0.25*s.r.Float64()
						if v := float32(1 - dark*grain); v < sheet[py*w+px] {
							sheet[py*w+px] = v
						}
					}
				}
			}
		}
	}
	if s.step > 0 {
		for x := s.step; x < s.wide; x += s.step {
			stroke(Line{X1: x, Y1: 0, X2: x, Y2: s.high}, 0.2, 0.22, 0)
		}
		for y := s.step; y < s.high; y += s.step {
			stroke(Line{X1: 0, Y1: y, X2: s.wide, Y2: y}, 0.2, 0.22, 0)
		}
	}
	width, dark := 0.4+0.5*s.r.Float64(), 0.45+0.35*s.r.Float64()
	for _, l := range s.lines {
		// A hand begins and ends a little off.
		a, b := 0.6*(s.r.Float64()-0.3), 0.6*(s.r.Float64()-0.3)
		n := l.Length()
		ux, uy := (l.X2-l.X1)/n, (l.Y2-l.Y1)/n
		l.X1, l.Y1, l.X2, l.Y2 = l.X1-a*ux, l.Y1-a*uy, l.X2+b*ux, l.Y2+b*uy
		stroke(l, width, dark, 0.2*s.r.Float64())
	}
	// Back from the photograph to the sheet.
	back := homography(corners)
	img := image.NewGray(image.Rect(0, 0, wide, high))
	shadeX, shadeY := 0.35*(s.r.Float64()-0.5), 0.35*(s.r.Float64()-0.5)
	for y := range high {
		for x := range wide {
			u, v := back((float64(x)+0.5)/wide, (float64(y)+0.5)/high)
			light := 225 * (1 + shadeX*(float64(x)/wide-0.5) + shadeY*(float64(y)/high-0.5))
			value := 90.0 // the table
			if u >= 0 && v >= 0 && u < 1 && v < 1 {
				sum, n := 0.0, 0
				for dy := -1; dy <= 1; dy++ { // what one dot of the camera sees
					for dx := -1; dx <= 1; dx++ {
						px, py := int(u*float64(w))+dx, int(v*float64(h))+dy
						if px >= 0 && py >= 0 && px < w && py < h {
							sum, n = sum+float64(sheet[py*w+px]), n+1
						}
					}
				}
				value = light * sum / float64(max(1, n))
			}
			img.Pix[y*img.Stride+x] = uint8(min(255, max(0, value+5*s.r.NormFloat64())))
		}
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: 88}); err != nil {
		panic(err)
	}
	return b.Bytes(), corners
}

// homography maps places of a picture back onto the unit square whose corners are there.
func homography(c [4]photo.Corner) func(x, y float64) (u, v float64) {
	sx, sy := c[0].X-c[1].X+c[2].X-c[3].X, c[0].Y-c[1].Y+c[2].Y-c[3].Y
	dx1, dx2, dy1, dy2 := c[1].X-c[2].X, c[3].X-c[2].X, c[1].Y-c[2].Y, c[3].Y-c[2].Y
	det := dx1*dy2 - dx2*dy1
	g, h := (sx*dy2-dx2*sy)/det, (dx1*sy-sx*dy1)/det
	a, b, e := c[1].X-c[0].X+g*c[1].X, c[3].X-c[0].X+h*c[3].X, c[0].X
	d, f, k := c[1].Y-c[0].Y+g*c[1].Y, c[3].Y-c[0].Y+h*c[3].Y, c[0].Y
	// The inverse of the matrix, by its cofactors.
	m := [9]float64{f - k*h, e*h - b, b*k - e*f, k*g - d, a - e*g, e*d - a*k, d*h - f*g, b*g - a*h, a*f - b*d}
	return func(x, y float64) (float64, float64) {
		w := m[6]*x + m[7]*y + m[8]
		return (m[0]*x + m[1]*y + m[2]) / w, (m[3]*x + m[4]*y + m[5]) / w
	}
}
