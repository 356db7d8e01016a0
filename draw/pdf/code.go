package pdf

import (
	"image/color"

	"github.com/boombuler/barcode/qr"
)

// Squares is the QR code of a text: whether each square of each row is dark.
func Squares(text string) ([][]bool, error) {
	code, err := qr.Encode(text, qr.M, qr.Auto)
	if err != nil {
		return nil, err
	}
	b := code.Bounds()
	rows := make([][]bool, b.Dy())
	for y := range rows {
		rows[y] = make([]bool, b.Dx())
		for x := range rows[y] {
			grey := color.GrayModel.Convert(code.At(b.Min.X+x, b.Min.Y+y)).(color.Gray)
			rows[y][x] = grey.Y < 128
		}
	}
	return rows, nil
}

// QuietZone is the light rim of a code, in squares, without which nothing reads it.
const QuietZone = 4

// code prints the QR code of a text with its light rim, so large.
func (c *canvas) code(text string, x, y, size float64) error {
	rows, err := Squares(text)
	if err != nil {
		return err
	}
	c.SetFillColor(255, 255, 255)
	c.Rect(x, y, size, size, "F")
	c.SetFillColor(0, 0, 0)
	one := size / float64(len(rows)+2*QuietZone)
	for r, row := range rows {
		for from := 0; from < len(row); from++ {
			to := from
			for to < len(row) && row[to] { // dark ones beside each other in one
				to++
			}
			if to > from {
				c.Rect(x+one*float64(QuietZone+from), y+one*float64(QuietZone+r), one*float64(to-from), one*1.02, "F")
				from = to
			}
		}
	}
	return nil
}
