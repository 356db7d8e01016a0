// Package pdf writes the instruction sheet and the true-size templates.
package pdf

import (
	"strconv"
	"strings"

	"codeberg.org/go-pdf/fpdf"

	"brevium/core/fault"
	"brevium/draw"
)

// Paper is a size of page, in mm.
type Paper struct {
	Name          string
	Width, Height float64
}

// The two papers people print on.
var (
	A4     = Paper{"A4", 210, 297}
	Letter = Paper{"Letter", 215.9, 279.4}
)

// ParsePaper accepts "a4" or "letter".
func ParsePaper(s string) (Paper, error) {
	for _, p := range []Paper{A4, Letter} {
		if strings.EqualFold(p.Name, s) {
			return p, nil
		}
	}
	return Paper{}, fault.New(fault.UnknownPaper, "paper", "%q is not a paper to print on; use a4 or letter", s)
}

// canvas is a document in the making.
type canvas struct {
	*fpdf.Fpdf
	paper Paper
	style string // of the font that is set, and its size in points
	size  float64
	added map[string]bool // further fonts in the document
	// photos gives the photograph of a paper as JPEG, nil where there is none.
	photos func(id string) []byte
}

func newCanvas(p Paper, title string) *canvas {
	f := fpdf.NewCustom(&fpdf.InitType{OrientationStr: "P", UnitStr: "mm", Size: fpdf.SizeType{Wd: p.Width, Ht: p.Height}})
	f.AddUTF8FontFromBytes(family, "", regular)
	f.AddUTF8FontFromBytes(family, "B", semibold)
	f.SetTitle(title, true)
	f.SetCreator("Brevium", true)
	f.SetCatalogSort(true)
	f.SetAutoPageBreak(false, 0)
	f.SetMargins(0, 0, 0)
	return &canvas{Fpdf: f, paper: p, added: map[string]bool{}}
}

// fit draws a picture as large as it will go in a box of w × h mm, centred.
func (c *canvas) fit(p *draw.Picture, x, y, w, h float64) {
	k := min(w/p.Width, h/p.Height)
	c.at(p, x+(w-p.Width*k)/2-p.X*k, y+(h-p.Height*k)/2-p.Y*k, k)
}

// at draws a picture k times its size, its origin at (x, y).
func (c *canvas) at(p *draw.Picture, x, y, k float64) {
	c.SetLineJoinStyle("round")
	c.SetLineCapStyle("butt")
	edged := p.Edged()
	for i, s := range p.Shapes {
		if i == edged {
			c.edges(p, p.Shapes[i:], x, y, k)
		}
		pen := s.Pen()
		if s.Label != "" {
			c.label(s, pen, x+s.At.X*k, y+s.At.Y*k, k, i >= edged)
			continue
		}
		if s.Fill != nil {
			c.filled(s, x, y, k)
		}
		style := ""
		if pen.Fill != "" && (s.Closed || s.Circle > 0) {
			c.SetFillColor(rgb(pen.Fill))
			style = "F"
		}
		if pen.Stroke != "" {
			c.SetDrawColor(rgb(pen.Stroke))
			c.SetLineWidth(max(0.08, pen.Width*p.U*k))
			dash := make([]float64, len(pen.Dash))
			for i, d := range pen.Dash {
				dash[i] = d * p.U * k
			}
			c.SetDashPattern(dash, 0)
			if pen.Dots {
				c.SetLineCapStyle("round")
			} else {
				c.SetLineCapStyle("butt")
			}
			style += "D"
		}
		if style == "" {
			continue
		}
		if s.Circle > 0 {
			c.Circle(x+s.At.X*k, y+s.At.Y*k, s.Circle*k, style)
			continue
		}
		c.loops(s.Loops, s.Closed, x, y, k)
		if pen.Veil {
			c.SetAlpha(draw.Veil, "Normal")
		}
		if style[0] == 'F' {
			style += "*" // holes stay open
		}
		c.DrawPath(style)
		if pen.Veil {
			c.SetAlpha(1, "Normal")
		}
	}
	c.SetLineCapStyle("butt")
	c.SetDashPattern(nil, 0)
}

// pointsPerMM turns a text height in mm into points.
const pointsPerMM = 72 / 25.4

// label writes a text; edged, it has a light edge.
func (c *canvas) label(s draw.Shape, pen draw.Pen, x, y, k float64, edged bool) {
	weight := ""
	if pen.Bold {
		weight = "B"
	}
	c.SetFont(family, weight, s.Size*k*pointsPerMM)
	c.SetTextColor(rgb(pen.Fill))
	if edged {
		c.SetTextColor(rgb(draw.Pens[draw.Text].Fill))
	}
	w := c.GetStringWidth(s.Label)
	shift := map[draw.Anchor]float64{draw.Middle: w / 2, draw.End: w}[s.Anchor]
	if s.Angle != 0 {
		c.TransformBegin()
		c.TransformRotate(-s.Angle, x, y)
		defer c.TransformEnd()
	}
	if edged {
		c.SetTextRenderingMode(1)
		c.SetDrawColor(rgb(string(draw.EdgeColour)))
		c.SetDashPattern(nil, 0)
		c.SetLineWidth(s.Size * k * draw.Halo)
		c.Text(x-shift, y, s.Label)
		c.SetTextRenderingMode(0)
	}
	c.Text(x-shift, y, s.Label)
}

// rgb reads "#rrggbb".
func rgb(hex string) (r, g, b int) {
	n, err := strconv.ParseUint(hex[1:], 16, 32)
	if err != nil {
		return 0, 0, 0
	}
	return int(n >> 16), int(n >> 8 & 255), int(n & 255)
}
