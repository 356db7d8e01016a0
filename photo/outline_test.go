package photo

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"math"
	"math/rand/v2"
	"testing"
)

// lying is a photograph of an L of card on squared paper of 180 × 120 mm that fills the picture but for a
// rim, seen a little from the side, with the noise of a camera.
func lying(t *testing.T, card color.RGBA, seed uint64) (picture []byte, corners [4]Corner) {
	t.Helper()
	const w, h = 1200, 800
	rng := rand.New(rand.NewPCG(seed, 1))
	corners = [4]Corner{{0.05, 0.06}, {0.95, 0.04}, {0.97, 0.96}, {0.04, 0.94}}
	lies := projection(corners)
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for i := range img.Pix {
		img.Pix[i] = 120 // the table
	}
	const fine = 8
	for y := range 120 * fine {
		for x := range 180 * fine {
			mx, my := float64(x)/fine, float64(y)/fine
			c := color.RGBA{236, 234, 226, 255}
			if math.Mod(mx, 5) < 0.3 || math.Mod(my, 5) < 0.3 {
				c = color.RGBA{150, 170, 205, 255}
			}
			if mx > 20 && mx < 150 && my > 15 && my < 100 && !(mx > 90 && my < 60) {
				c = card
			}
			u, v := lies(mx/180, my/120)
			px, py := int(u*w), int(v*h)
			for k, ch := range []uint8{c.R, c.G, c.B} {
				img.Pix[py*img.Stride+4*px+k] = uint8(min(255, max(0, float64(ch)+rng.NormFloat64()*5)))
			}
		}
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: 85}); err != nil {
		t.Fatal(err)
	}
	return b.Bytes(), corners
}

// An L on squared paper is found within a millimetre, corner by corner; white card on white paper is not
// guessed at.
func TestOutlineOnSquaredPaper(t *testing.T) {
	want := [][2]float64{{20, 15}, {90, 15}, {90, 60}, {150, 60}, {150, 100}, {20, 100}}
	for seed, card := range []color.RGBA{{150, 40, 60, 255}, {40, 70, 60, 255}, {198, 160, 120, 255}} {
		p, corners := lying(t, card, uint64(seed))
		got, err := Outline(p, corners, 180, 120)
		if err != nil || len(got) != len(want) {
			t.Errorf("%v: %v, %v", card, got, err)
			continue
		}
		for _, c := range want {
			near := math.Inf(1)
			for _, g := range got {
				near = min(near, math.Hypot(g[0]-c[0], g[1]-c[1]))
			}
			if near > 1 {
				t.Errorf("%v: no corner within a millimetre of %v: %v", card, c, got)
			}
		}
	}
	p, corners := lying(t, color.RGBA{238, 236, 230, 255}, 9)
	if got, err := Outline(p, corners, 180, 120); err != nil || got != nil {
		t.Errorf("white on white: %v, %v", got, err)
	}
	if _, err := Outline(p, [4]Corner{}, 180, 120); err == nil {
		t.Error("corners that are none are taken")
	}
}
