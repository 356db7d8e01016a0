package export

import (
	"archive/zip"
	"bytes"
	"fmt"
	"strings"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/draw/pdf"
)

// Format is a kind of file.
type Format string

// The formats, in the order they are offered.
const (
	SVG    Format = "svg"
	DXF    Format = "dxf"
	HPGL   Format = "hpgl"
	PDF    Format = "pdf"
	Lists  Format = "csv"
	Object Format = "obj"
	Solid  Format = "stl"
)

// Formats lists them.
var Formats = []Format{SVG, DXF, HPGL, PDF, Lists, Object, Solid}

// Kinds are the media types.
var Kinds = map[Format]string{
	SVG: "image/svg+xml", DXF: "image/vnd.dxf", HPGL: "application/vnd.hp-hpgl", PDF: "application/pdf", Lists: "text/csv; charset=utf-8", Object: "model/obj", Solid: "model/stl",
}

// ParseFormat accepts a format by its ending.
func ParseFormat(s string) (Format, error) {
	for _, f := range Formats {
		if string(f) == strings.ToLower(s) {
			return f, nil
		}
	}
	return "", fault.New(fault.UnknownChoice, "to", "%q is not a format; use svg, dxf, hpgl, pdf, csv, obj or stl", s)
}

// Options are how a design is written.
type Options struct {
	Paper   pdf.Paper // for PDF
	Mirror  bool      // inside up
	Packed  bool      // on sheets, not one by one
	Printed bool      // what is printed on Paper and then cut, with its marks
	Layers
	Knife // for HPGL: the way of the head
}

// Ending is that of a format's files.
func (f Format) Ending() string {
	if f == HPGL {
		return "plt"
	}
	return string(f)
}

// File is one file that was written.
type File struct {
	Name  string
	Bytes []byte
}

// documents are those that a box is made by, or the templates alone.
func documents(r *design.Result, o Options) ([]File, error) {
	whats := []pdf.What{pdf.Instructions, pdf.ScoreCard, pdf.Plan, pdf.Templates}
	if o.Packed || o.Mirror {
		whats = []pdf.What{pdf.Templates}
	}
	if o.Printed {
		whats = []pdf.What{pdf.Marked}
	}
	var out []File
	for _, what := range whats {
		print := pdf.Print{Paper: o.Paper, Mirror: o.Mirror, What: what}
		var b bytes.Buffer
		if err := pdf.Write(&b, r, print); err != nil {
			return nil, err
		}
		name, _, _ := strings.Cut(strings.ToLower(strings.ReplaceAll(print.Title(), " ", "-")), ",")
		out = append(out, File{name + "." + string(PDF), b.Bytes()})
	}
	return out, nil
}

// Files writes a design in a format.
func Files(r *design.Result, to Format, o Options) ([]File, error) {
	one := func(name string, text []byte, err error) ([]File, error) {
		return []File{{name + "." + string(to), text}}, err
	}
	switch to {
	case PDF:
		return documents(r, o)
	case Lists:
		text, err := CSV(r)
		return one("lists", text, err)
	case Object:
		text, err := OBJ(r)
		return one("box", text, err)
	case Solid:
		text, err := STL(r)
		return one("box", text, err)
	}
	drawings := Pieces(r)
	if o.Printed {
		var err error
		if drawings, err = Marked(r, o.Paper); err != nil {
			return nil, err
		}
		if len(drawings) == 0 {
			return nil, fault.New(fault.NothingFree, "printed", "nothing of this box is printed and cut: it has no label of its own and no paper with a print")
		}
	} else if o.Packed {
		drawings = Packed(r)
	}
	return FilesOf(drawings, to, o), nil
}

// Flat tells whether a format holds flat pieces and sheets.
func Flat(to Format) bool { return to == SVG || to == DXF || to == HPGL }

// FilesOf writes drawings in a format that is flat, a file each.
func FilesOf(drawings []Drawing, to Format, o Options) []File {
	var out []File
	for _, d := range drawings {
		if o.Mirror {
			d = d.Mirrored()
			d.File += "-inside-up"
		}
		text := d.SVG(o.Layers)
		switch to {
		case DXF:
			text = d.DXF(o.Layers)
		case HPGL:
			text = d.HPGL(o.Layers, o.Knife, d.Card)
		}
		out = append(out, File{strings.ReplaceAll(d.File, ".", "-") + "." + to.Ending(), text})
	}
	return out
}

// Zip puts several files into one.
func Zip(files []File) ([]byte, error) {
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for _, f := range files {
		w, err := z.Create(f.Name)
		if err != nil {
			return nil, fmt.Errorf("zip: %w", err)
		}
		if _, err := w.Write(f.Bytes); err != nil {
			return nil, fmt.Errorf("zip: %w", err)
		}
	}
	if err := z.Close(); err != nil {
		return nil, fmt.Errorf("zip: %w", err)
	}
	return b.Bytes(), nil
}
