package plotter

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"

	"brevium/core/fault"
	"brevium/core/pattern"
	"brevium/core/strokes"
)

// mute are layers that no tool follows: what is printed, words for people, and the marks that a
// printed sheet is found by.
var mute = []string{"print", "marks", "notes", "words"}

// ReadSVG reads one sheet of lines in layers named for their tools, in millimetres: paths of M, L, H,
// V, A and Z. Anything else in such a layer is refused.
func ReadSVG(text []byte) (*File, error) {
	if len(text) > mostBytes {
		return nil, refuse(fault.TooLarge, "", "the file is over 4 MiB; export the sheets one by one")
	}
	r := svgReader{file: &File{}, d: xml.NewDecoder(bytes.NewReader(text))}
	for {
		token, err := r.d.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, refuse(fault.CutShort, "", "the drawing is not whole (%v); export it again", err)
		}
		switch e := token.(type) {
		case xml.StartElement:
			err = r.start(e)
		case xml.EndElement:
			r.end(e)
		}
		if err != nil {
			return nil, err
		}
	}
	if r.file.Width == 0 {
		return nil, refuse(fault.NotDrawn, "", "this is no drawing with a size; give an SVG as export writes it")
	}
	return r.file, nil
}

type svgReader struct {
	file   *File
	d      *xml.Decoder
	layers []string
	points int
}

func attribute(e xml.StartElement, name string) string {
	for _, a := range e.Attr {
		if a.Name.Local == name && a.Name.Space == "" {
			return a.Value
		}
	}
	return ""
}

func (r *svgReader) layer() string {
	for _, l := range slices.Backward(r.layers) {
		if l != "" {
			return l
		}
	}
	return ""
}

func (r *svgReader) start(e xml.StartElement) error {
	if attribute(e, "transform") != "" {
		return refuse(fault.UnknownCommand, e.Name.Local, "it is moved by a transform; draw it where it belongs")
	}
	switch e.Name.Local {
	case "svg":
		return r.size(e)
	case "g":
		r.layers = append(r.layers, attribute(e, "id"))
		return nil
	}
	layer := r.layer()
	drawn := slices.Contains([]string{"path", "line", "rect", "circle", "ellipse", "polyline", "polygon", "use"}, e.Name.Local)
	if slices.Contains(mute, layer) || !drawn {
		if layer == "marks" && e.Name.Local == "circle" {
			return r.mark(e)
		}
		return nil
	}
	tool := slices.Index(strokes.Names, layer)
	switch {
	case layer == "":
		return refuse(fault.NoTool, e.Name.Local, "it stands in no layer; put it into one of score, perforate, kiss and cut")
	case tool < 0:
		return refuse(fault.UnknownTool, "layer "+layer, "no tool is called so; use score, perforate, kiss, cut, print or marks")
	case e.Name.Local != "path":
		return refuse(fault.UnknownCommand, e.Name.Local, "the mat reads paths of M, L, H, V, A and Z")
	}
	return r.path(attribute(e, "d"), strokes.Tool(tool))
}

func (r *svgReader) end(e xml.EndElement) {
	if e.Name.Local == "g" && len(r.layers) > 0 {
		r.layers = r.layers[:len(r.layers)-1]
	}
}

func (r *svgReader) size(e xml.StartElement) error {
	w, wOK := strings.CutSuffix(attribute(e, "width"), "mm")
	h, hOK := strings.CutSuffix(attribute(e, "height"), "mm")
	width, err := strconv.ParseFloat(w, 64)
	height, other := strconv.ParseFloat(h, 64)
	box := strings.Fields(attribute(e, "viewBox"))
	if !wOK || !hOK || err != nil || other != nil || len(box) != 4 || !(width > 0 && height > 0) {
		return refuse(fault.NotDrawn, "svg", "give its width and height in mm and its viewBox")
	}
	var view [4]float64
	for i, v := range box {
		if view[i], err = strconv.ParseFloat(v, 64); err != nil {
			return refuse(fault.NotDrawn, "viewBox", "%q is no number", v)
		}
	}
	if view[0] != 0 || view[1] != 0 || math.Abs(view[2]-width) > 1e-3 || math.Abs(view[3]-height) > 1e-3 {
		return refuse(fault.NotDrawn, "viewBox", "it is not %s × %s mm from 0, 0; draw at true size", w, h)
	}
	r.file.Width, r.file.Height = width, height
	return nil
}

func (r *svgReader) mark(e xml.StartElement) error {
	x, err := strconv.ParseFloat(attribute(e, "cx"), 64)
	y, other := strconv.ParseFloat(attribute(e, "cy"), 64)
	if err != nil || other != nil {
		return refuse(fault.NotDrawn, "marks", "a mark has its middle at cx and cy")
	}
	r.file.Marks = append(r.file.Marks, pattern.Pt(x, y))
	return nil
}

// path reads the words of one path.
func (r *svgReader) path(words string, tool strokes.Tool) error {
	p := pathReader{words: words}
	lines, err := p.read(tool)
	if err != nil {
		return err
	}
	for _, l := range lines {
		if r.points += len(l.Path); r.points > mostPoints {
			return refuse(fault.TooLarge, "", "there are over a million points; export the sheets one by one")
		}
	}
	r.file.Lines = append(r.file.Lines, lines...)
	return nil
}

type pathReader struct {
	words string
	at    int
}

// number reads the next number; ok is false where none stands.
func (p *pathReader) number() (v float64, ok bool) {
	for p.at < len(p.words) && strings.ContainsRune(" ,\t\n\r", rune(p.words[p.at])) {
		p.at++
	}
	end := p.at
	for end < len(p.words) && (strings.IndexByte("0123456789.eE", p.words[end]) >= 0 ||
		strings.IndexByte("+-", p.words[end]) >= 0 && (end == p.at || strings.IndexByte("eE", p.words[end-1]) >= 0)) {
		end++
	}
	v, err := strconv.ParseFloat(p.words[p.at:end], 64)
	if err != nil || math.IsInf(v, 0) || math.IsNaN(v) {
		return 0, false
	}
	p.at = end
	return v, true
}

// wants is how many numbers a letter takes.
var wants = map[byte]int{'M': 2, 'L': 2, 'H': 1, 'V': 1, 'A': 7, 'Z': 0}

func (p *pathReader) read(tool strokes.Tool) ([]strokes.Line, error) {
	var out []strokes.Line
	var at pattern.Point
	open := func() *strokes.Line { return &out[len(out)-1] }
	var letter byte
	for {
		here := p.at
		first, more := p.number()
		switch {
		case more && letter == 0 || more && letter == 'Z':
			return nil, refuse(fault.UnknownCommand, "path at "+strconv.Itoa(here), "a number stands where a letter should; paths are of M, L, H, V, A and Z")
		case !more && p.at >= len(p.words):
			return closed(out), nil
		case !more:
			letter = p.words[p.at]
			p.at++
			if _, known := wants[letter]; !known {
				return nil, refuse(fault.UnknownCommand, string(letter), "the mat reads paths of M, L, H, V, A and Z")
			}
			if letter == 'Z' {
				if len(out) == 0 || len(open().Path) == 0 {
					return nil, refuse(fault.UnknownCommand, "Z", "nothing was begun that it closes")
				}
				open().Closed = true
				at = open().Path[0].Point
				continue
			}
			if first, more = p.number(); !more {
				return nil, refuse(fault.OddNumbers, string(letter), "its numbers are missing")
			}
		}
		args := []float64{first}
		for len(args) < wants[letter] {
			v, ok := p.number()
			if !ok {
				return nil, refuse(fault.OddNumbers, string(letter), "it takes %d numbers", wants[letter])
			}
			args = append(args, v)
		}
		if letter != 'M' && len(out) == 0 {
			return nil, refuse(fault.UnknownCommand, string(letter), "a path begins with M")
		}
		to, bulge := at, 0.0
		switch letter {
		case 'M', 'L':
			to = pattern.Pt(args[0], args[1])
		case 'H':
			to.X = args[0]
		case 'V':
			to.Y = args[0]
		case 'A':
			to = pattern.Pt(args[5], args[6])
			if math.Abs(args[0]-args[1]) > 1e-6 || args[0] <= 0 {
				return nil, refuse(fault.UnknownCommand, "A", "the mat reads arcs of circles, not of ellipses")
			}
			bulge = bulgeOf(at, to, args[0], args[3] != 0, args[4] != 0)
		}
		if letter == 'M' {
			out = append(out, strokes.Line{Tool: tool})
			letter = 'L'
		} else {
			if open().Closed { // after Z the next line begins where that one did
				out = append(out, strokes.Line{Tool: tool, Path: pattern.Loop{{Point: at}}})
			}
			path := open().Path
			path[len(path)-1].Bulge = bulge
		}
		open().Path = append(open().Path, pattern.Vertex{Point: to})
		at = to
	}
}

// closed makes rings of what ends where it began, and leaves out corners that are there twice and
// single points.
func closed(lines []strokes.Line) []strokes.Line {
	var out []strokes.Line
	for _, l := range lines {
		path := l.Path[:1:1]
		for _, v := range l.Path[1:] {
			last := &path[len(path)-1]
			if v.Sub(last.Point).Len() < 1e-9 {
				last.Bulge = v.Bulge
				continue
			}
			path = append(path, v)
		}
		l.Path = path
		if n := len(l.Path); n > 2 && l.Path[0].Sub(l.Path[n-1].Point).Len() < strokes.Tolerance {
			l.Path, l.Closed = l.Path[:n-1], true
		}
		if len(l.Path) > 1 {
			out = append(out, l)
		}
	}
	return out
}

// bulgeOf is the bulge of an arc of a radius: a chord c and radius r make an angle 2·asin(c/2r), or
// the rest of the circle; with the sweep the arc bends to the left as seen.
func bulgeOf(a, b pattern.Point, radius float64, large, sweep bool) float64 {
	half := math.Asin(min(1, b.Sub(a).Len()/2/radius))
	if large {
		half = math.Pi - half
	}
	bulge := math.Tan(half / 2)
	if !sweep {
		bulge = -bulge
	}
	return bulge
}
