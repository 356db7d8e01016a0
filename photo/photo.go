// Package photo takes photographs and scans of papers: reads them safely, turns
// and straightens them, and makes them small.
package photo

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"image"
	"image/color"
	"image/draw"
	"image/jpeg"
	_ "image/png" // decoded by image.DecodeConfig
	"math"
	"net/http"
	"slices"
	"strings"

	scale "golang.org/x/image/draw"
	_ "golang.org/x/image/webp" // likewise

	"brevium/core/fault"
)

// Limits of a picture that is sent: bytes, and pixels each way and in all.
const (
	MostBytes  = 8 << 20
	mostSide   = 20_000
	mostPixels = 50_000_000
)

// Sizes of what is kept, in pixels of the longer side, and in bytes.
const (
	workSide  = 1600
	paperSide = 960
	mostKept  = 105 << 10
)

// Picture is one that is kept: always a JPEG made here, with nothing in it but
// the pixels.
type Picture struct {
	ID         string // of its bytes
	JPEG       []byte
	Wide, High int // pixels
}

// idBytes is how much of a picture's sum names it.
const idBytes = 16

// kinds are what a picture may be, as its first bytes tell.
var kinds = []string{"image/png", "image/jpeg", "image/webp"}

// busy lets one picture be worked on at a time, which bounds the memory.
var busy = make(chan struct{}, 1)

// Read takes a PNG, JPEG or WebP of up to 8 MiB that somebody sent, turns it
// upright by what the camera noted, and gives it anew, small enough to work on.
// What is not such a picture, or is too large, is refused with a sentence.
func Read(sent []byte) (Picture, error) { return read(sent, workSide) }

// Sketch is Read for a picture that is measured in: it stays as fine as that takes.
func Sketch(sent []byte) (Picture, error) { return read(sent, sketchSide) }

func read(sent []byte, side int) (Picture, error) {
	wrong := fault.New(fault.NotAPicture, "file", "This is no picture that can be read; send a PNG, a JPEG or a WebP.")
	switch {
	case len(sent) == 0:
		return Picture{}, fault.New(fault.Empty, "file", "Choose a picture first.")
	case len(sent) > MostBytes:
		return Picture{}, fault.New(fault.TooLarge, "file", "This picture is larger than 8 MB; take it smaller, or save it as a JPEG.")
	case !slices.Contains(kinds, http.DetectContentType(sent)):
		return Picture{}, wrong
	}
	head, _, err := image.DecodeConfig(bytes.NewReader(sent))
	if err != nil {
		return Picture{}, wrong
	}
	if head.Width < 16 || head.Height < 16 {
		return Picture{}, fault.New(fault.TooSmall, "file", "This picture is only %d × %d dots; take one of 200 or more each way.", head.Width, head.Height)
	}
	if max(head.Width, head.Height) > mostSide || head.Width*head.Height > mostPixels {
		return Picture{}, fault.New(fault.TooLarge, "file", "This picture has %d × %d dots, more than are needed; make it smaller, 4000 across is plenty.", head.Width, head.Height)
	}
	busy <- struct{}{}
	defer func() { <-busy }()
	var img image.Image
	if err := fault.Guard(func() error {
		img, _, err = image.Decode(bytes.NewReader(sent))
		if way := orientation(sent); err == nil && way > 1 {
			img = held{img, way}
		}
		return err
	}); err != nil || img == nil {
		wrong.Text = "This picture breaks off or is damaged; save it anew and send that."
		wrong.Cause = err
		return Picture{}, wrong
	}
	return kept(fitted(img, side), 88)
}

// Again makes a kept picture anew under its old id, from a file that went through
// other hands.
func Again(id string, file []byte) (Picture, error) {
	if len(id) != 2*idBytes || strings.Trim(id, "0123456789abcdef") != "" {
		return Picture{}, fault.New(fault.NotAPicture, "file", "%q is no id of a picture", id)
	}
	p, err := Read(file)
	p.ID = id
	return p, err
}

// Dots is how many pixels a picture says that it has; 0 for what is no picture.
func Dots(file []byte) int {
	head, _, err := image.DecodeConfig(bytes.NewReader(file))
	if err != nil {
		return 0
	}
	return head.Width * head.Height
}

// fitted is the picture with its longer side no longer than so many pixels, what
// is clear in it white.
func fitted(img image.Image, side int) image.Image {
	b := img.Bounds()
	w, h := b.Dx(), b.Dy()
	if long := max(w, h); long > side {
		w, h = max(1, (w*side+long/2)/long), max(1, (h*side+long/2)/long)
	}
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	draw.Draw(out, out.Rect, image.White, image.Point{}, draw.Src)
	if w == b.Dx() {
		draw.Draw(out, out.Rect, img, b.Min, draw.Over)
	} else {
		scale.CatmullRom.Scale(out, out.Rect, img, b, draw.Over, nil)
	}
	return out
}

// kept writes a picture as a JPEG of a quality.
func kept(img image.Image, quality int) (Picture, error) {
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: quality}); err != nil {
		return Picture{}, err
	}
	sum := sha256.Sum256(b.Bytes())
	return Picture{ID: hex.EncodeToString(sum[:idBytes]), JPEG: b.Bytes(), Wide: img.Bounds().Dx(), High: img.Bounds().Dy()}, nil
}

// Corner is a place on a picture, as parts of its width and height, 0 to 1.
type Corner struct{ X, Y float64 }

// Straighten cuts a piece of paper out of a picture by its corners, from the top
// left one on with the clock, and sees it from straight above: wide × high of the
// paper itself, in any one unit. The picture comes out small.
func Straighten(p []byte, corners [4]Corner, wide, high float64) (Picture, error) {
	out, err := above(p, corners, wide, high, paperSide)
	if err != nil {
		return Picture{}, err
	}
	return light(out)
}

// sketchSide is how many pixels the longer side of a sketch has.
const sketchSide = 2000

// Above is Straighten for a sketch, wide × high mm: in grey, as fine as it is measured in, with how
// many pixels are a millimetre.
func Above(p []byte, corners [4]Corner, wide, high float64) (img *image.Gray, perMM float64, err error) {
	out, err := above(p, corners, wide, high, sketchSide)
	if err != nil {
		return nil, 0, err
	}
	img = image.NewGray(out.Rect)
	draw.Draw(img, img.Rect, out, image.Point{}, draw.Src)
	return img, sketchSide / max(wide, high), nil
}

func above(p []byte, corners [4]Corner, wide, high float64, side int) (*image.RGBA, error) {
	for i, c := range corners {
		next, after := corners[(i+1)%4], corners[(i+2)%4]
		turn := (next.X-c.X)*(after.Y-next.Y) - (next.Y-c.Y)*(after.X-next.X)
		if !(turn > 1e-4) || !(min(c.X, c.Y) >= -0.001) || !(max(c.X, c.Y) <= 1.001) {
			return nil, fault.New(fault.Invalid, "corners", "The four corners go round the paper with the clock, from its top left one; put each back on its own.")
		}
	}
	if !(wide > 0 && high > 0) || max(wide/high, high/wide) > 50 {
		return nil, fault.New(fault.Invalid, "wide", "How wide and how high is the piece of paper between the corners?")
	}
	busy <- struct{}{}
	defer func() { <-busy }()
	sent, err := jpeg.Decode(bytes.NewReader(p))
	if err != nil {
		return nil, err
	}
	b := sent.Bounds()
	img := image.NewRGBA(image.Rect(0, 0, b.Dx(), b.Dy()))
	draw.Draw(img, img.Rect, sent, b.Min, draw.Src)
	w, h := side, int(math.Round(float64(side)*high/wide))
	if high > wide {
		w, h = int(math.Round(float64(side)*wide/high)), side
	}
	w, h = max(w, 16), max(h, 16)
	lies := projection(corners)
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			u, v := lies((float64(x)+0.5)/float64(w), (float64(y)+0.5)/float64(h))
			out.SetRGBA(x, y, between(img, u*float64(b.Dx())-0.5, v*float64(b.Dy())-0.5))
		}
	}
	return out, nil
}

// light keeps a picture in few bytes, at a lower quality where it must be.
func light(img image.Image) (Picture, error) {
	for quality := 82; ; quality -= 12 {
		p, err := kept(img, quality)
		if err != nil || len(p.JPEG) <= mostKept || quality < 30 {
			if len(p.JPEG) > mostKept { // a picture of nothing but noise
				return p, errors.Join(err, fault.New(fault.TooLarge, "file", "This picture has too much in it to be kept small; take a calmer one."))
			}
			return p, err
		}
	}
}

// Small takes a picture as Read does and keeps it small, as it is: of something that
// was made.
func Small(sent []byte) (Picture, error) {
	p, err := Read(sent)
	if err != nil {
		return p, err
	}
	img, err := jpeg.Decode(bytes.NewReader(p.JPEG))
	if err != nil {
		return p, err
	}
	return light(fitted(img, paperSide))
}

// projection maps the unit square, y down, onto four corners as a camera sees it
// (the closed form for a square, Heckbert, 1989).
func projection(c [4]Corner) func(x, y float64) (u, v float64) {
	sx, sy := c[0].X-c[1].X+c[2].X-c[3].X, c[0].Y-c[1].Y+c[2].Y-c[3].Y
	dx1, dx2 := c[1].X-c[2].X, c[3].X-c[2].X
	dy1, dy2 := c[1].Y-c[2].Y, c[3].Y-c[2].Y
	det := dx1*dy2 - dx2*dy1
	g, h := (sx*dy2-dx2*sy)/det, (dx1*sy-sx*dy1)/det
	a, b := c[1].X-c[0].X+g*c[1].X, c[3].X-c[0].X+h*c[3].X
	d, e := c[1].Y-c[0].Y+g*c[1].Y, c[3].Y-c[0].Y+h*c[3].Y
	return func(x, y float64) (float64, float64) {
		w := g*x + h*y + 1
		return (a*x + b*y + c[0].X) / w, (d*x + e*y + c[0].Y) / w
	}
}

// between is the colour at a place between four pixels.
func between(img *image.RGBA, x, y float64) color.RGBA {
	b := img.Rect
	fx, fy := math.Floor(x), math.Floor(y)
	tx, ty := x-fx, y-fy
	var sum [3]float64
	for _, n := range [4]struct{ x, y, part float64 }{{0, 0, (1 - tx) * (1 - ty)}, {1, 0, tx * (1 - ty)}, {0, 1, (1 - tx) * ty}, {1, 1, tx * ty}} {
		px := min(max(int(fx+n.x), 0), b.Dx()-1)
		py := min(max(int(fy+n.y), 0), b.Dy()-1)
		at := img.Pix[py*img.Stride+4*px:]
		for c := range sum {
			sum[c] += n.part * float64(at[c])
		}
	}
	return color.RGBA{uint8(sum[0] + 0.5), uint8(sum[1] + 0.5), uint8(sum[2] + 0.5), 255}
}
