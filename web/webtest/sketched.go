package webtest

import (
	"bytes"
	"image"
	"image/color"
	"image/png"
	"testing"
)

// Sketched is a picture of a sheet of 100 × 80 mm, ten dots to a millimetre, on which a tray of 80 ×
// 60 mm is drawn with walls of 15: its outline, four dashed folds and a slit at each corner.
func Sketched(t testing.TB) []byte {
	t.Helper()
	img := image.NewGray(image.Rect(0, 0, 1000, 800))
	for i := range img.Pix {
		img.Pix[i] = 235
	}
	stroke := func(x1, y1, x2, y2 int, dashed bool) {
		for y := y1 * 10; y <= y2*10; y++ {
			for x := x1 * 10; x <= x2*10; x++ {
				if dashed && (x-x1*10+y-y1*10)%70 > 45 {
					continue
				}
				for d := -2; d <= 2; d++ {
					img.SetGray(x+d, y, color.Gray{90})
					img.SetGray(x, y+d, color.Gray{90})
				}
			}
		}
	}
	for _, x := range []int{10, 90} {
		stroke(x, 10, x, 70, false)
	}
	for _, y := range []int{10, 70} {
		stroke(10, y, 90, y, false)
	}
	for _, x := range []int{25, 75} {
		stroke(x, 10, x, 25, false)
		stroke(x, 25, x, 55, true)
		stroke(x, 55, x, 70, false)
	}
	for _, y := range []int{25, 55} {
		stroke(10, y, 90, y, true)
	}
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// OnSquares is a picture of 180 × 120 mm of squared paper, six dots to a millimetre, on which an L of dark
// card lies.
func OnSquares(t testing.TB) []byte {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, 1080, 720))
	for y := range 720 {
		for x := range 1080 {
			c := color.RGBA{238, 236, 228, 255}
			if x%30 < 2 || y%30 < 2 {
				c = color.RGBA{150, 170, 205, 255}
			}
			if x > 120 && x < 900 && y > 90 && y < 600 && !(x > 540 && y < 360) {
				c = color.RGBA{90, 40, 70, 255}
			}
			img.SetRGBA(x, y, c)
		}
	}
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}
