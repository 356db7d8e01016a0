package pdf

import (
	"bytes"
	"math"

	"codeberg.org/go-pdf/fpdf"

	"brevium/core/pattern"
	"brevium/draw"
)

// mostTiles is how many repeats of a print are drawn into one shape; what has
// more is too small on the page to be seen.
const mostTiles = 5000

// filled lays the paper of a shape under it; the picture stands k times its size
// with its origin at (x, y).
func (c *canvas) filled(s draw.Shape, x, y, k float64) {
	f := s.Fill
	c.SetFillColor(rgb(string(f.Colour())))
	c.loops(s.Loops, true, x, y, k)
	c.DrawPath("F*")
	if !f.Printed() {
		return
	}
	wide, high := draw.TileSize(f.Look)
	lay := draw.Laid(f.Look).Then(f.Lay).Then(draw.Affine{k, 0, 0, k, x, y})
	// Which repeats the shape reaches over.
	back := lay.Back()
	var on []pattern.Point
	for _, loop := range s.Loops {
		for _, q := range loop {
			on = append(on, back.At(pattern.Pt(x+q.X*k, y+q.Y*k)))
		}
	}
	lo, hi := pattern.Bounds(on)
	left, right := int(math.Floor(lo.X/wide)), int(math.Ceil(hi.X/wide))
	top, bottom := int(math.Floor(lo.Y/high)), int(math.Ceil(hi.Y/high))
	if (right-left)*(bottom-top) > mostTiles {
		return
	}
	photo := c.photo(f.Look.Photo.ID)
	if f.Look.Photo.ID != "" && photo == "" {
		return
	}
	c.TransformBegin()
	c.loops(s.Loops, true, x, y, k)
	c.RawWriteStr("W* n") // and nothing past the shape
	c.Transform(c.matrix(lay))
	for i := left; i < right; i++ {
		for j := top; j < bottom; j++ {
			ox, oy := float64(i)*wide, float64(j)*high
			if photo != "" {
				c.ImageOptions(photo, ox, oy, wide, high, false, fpdf.ImageOptions{ImageType: "JPG"}, 0, "")
			}
			for _, m := range draw.Motif(f.Look) {
				c.SetFillColor(rgb(string(m.Colour.Shaded(f.Shade))))
				c.loops([][]pattern.Point{m.Points}, true, ox, oy, 1)
				c.DrawPath("F")
			}
		}
	}
	c.TransformEnd()
}

// matrix writes a map of the page, in mm from its top left corner, as PDF has it:
// in points from the lower left.
func (c *canvas) matrix(m draw.Affine) fpdf.TransformMatrix {
	high := c.paper.Height
	return fpdf.TransformMatrix{A: m[0], B: -m[1], C: -m[2], D: m[3],
		E: pointsPerMM * (m[2]*high + m[4]), F: pointsPerMM * (high - m[3]*high - m[5])}
}

// photo puts the photograph of a paper into the document and gives its name
// there, "" when it is not to be had.
func (c *canvas) photo(id string) string {
	if id == "" || c.photos == nil {
		return ""
	}
	if c.GetImageInfo(id) != nil {
		return id
	}
	picture := c.photos(id)
	if picture == nil {
		return ""
	}
	c.RegisterImageOptionsReader(id, fpdf.ImageOptions{ImageType: "JPG"}, bytes.NewReader(picture))
	return id
}

// loops begins a path.
func (c *canvas) loops(loops [][]pattern.Point, closed bool, x, y, k float64) {
	for _, loop := range loops {
		for i, q := range loop {
			if i == 0 {
				c.MoveTo(x+q.X*k, y+q.Y*k)
			} else {
				c.LineTo(x+q.X*k, y+q.Y*k)
			}
		}
		if closed {
			c.ClosePath()
		}
	}
}

// edges draws the light edges of the lines of shapes that lie over papers.
func (c *canvas) edges(p *draw.Picture, shapes []draw.Shape, x, y, k float64) {
	c.SetDashPattern(nil, 0)
	c.SetLineCapStyle("round")
	c.SetDrawColor(rgb(string(draw.EdgeColour)))
	for _, s := range shapes {
		width, has := s.Edge()
		if !has {
			continue
		}
		c.SetLineWidth(width * p.U * k)
		c.loops(s.Loops, s.Closed, x, y, k)
		c.DrawPath("D")
	}
}
