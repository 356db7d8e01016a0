package pdf

import (
	"image"
	"image/color"
	"strings"
	"testing"

	"github.com/makiuchi-d/gozxing"
	zxing "github.com/makiuchi-d/gozxing/qrcode"

	"brevium/core/design"
	"brevium/core/measure"
)

// Another program reads the code that is printed.
func TestCodeIsReadByAnother(t *testing.T) {
	for _, text := range []string{"http://workshop.local:8787/boxes/7/bench", "http://192.168.1.20/boxes/123456/bench"} {
		rows, err := Squares(text)
		if err != nil {
			t.Fatal(err)
		}
		const one = 6
		side := (len(rows) + 2*QuietZone) * one
		img := image.NewGray(image.Rect(0, 0, side, side))
		for y := range side {
			for x := range side {
				r, c := y/one-QuietZone, x/one-QuietZone
				dark := r >= 0 && r < len(rows) && c >= 0 && c < len(rows) && rows[r][c]
				img.SetGray(x, y, color.Gray{Y: map[bool]uint8{true: 0, false: 255}[dark]})
			}
		}
		bits, err := gozxing.NewBinaryBitmapFromImage(img)
		if err != nil {
			t.Fatal(err)
		}
		read, err := zxing.NewQRCodeReader().Decode(bits, nil)
		if err != nil || read.GetText() != text {
			t.Errorf("%q is read as %v, %v", text, read, err)
		}
	}
}

// The instruction sheet and the cards carry it when there is an address to go to.
func TestPrintsCarryTheCode(t *testing.T) {
	in := design.New("x", measure.MM, "tray")
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	for what, says := range map[What]string{Instructions: "at the bench", Cards: "how to make one"} {
		with := told(t, r, Print{Paper: A4, What: what, Bench: "http://workshop.local/boxes/1/bench"})
		without := told(t, r, Print{Paper: A4, What: what})
		if !strings.Contains(with, says) || strings.Contains(without, says) {
			t.Errorf("%q: told with it %v, without it %v", what, strings.Contains(with, says), strings.Contains(without, says))
		}
	}
}
