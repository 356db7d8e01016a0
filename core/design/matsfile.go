package design

import (
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/tool"
)

func (r *reader) mats(all []matsFile) {
	for i, m := range all {
		field := fault.Path("mats", i)
		d := dress.Dressing{ID: m.ID, Piece: m.Piece, Faces: m.Faces, Joined: m.Joined, Across: m.Across}
		shape, err := dress.ParseShape(m.Shape)
		if d.Shape = shape; err != nil {
			r.fail(fault.At(field, err))
		}
		if d.Shape == dress.Rounded {
			d.Radius = r.length(fault.Path(field, "radius"), m.Radius, r.in.UsualRadius())
		} else if m.Radius != "" {
			r.fail(fault.New(fault.UnknownShape, fault.Path(field, "radius"), "a radius belongs to a paper with rounded corners"))
		}
		if len(m.Faces) == 0 || m.Where != "" {
			where, err := dress.ParseWhere(m.Where)
			if err != nil {
				r.fail(fault.At(fault.Path(field, "where"), err))
			}
			d.Where = where
		}
		if d.Side = dress.Side(m.Side); d.Side != "" && d.Side != dress.Outside && d.Side != dress.Inside {
			r.fail(fault.New(fault.UnknownSide, fault.Path(field, "side"), "a paper on top goes on the outside or the inside"))
		}
		runs, err := dress.ParseRun(m.Runs)
		if err != nil {
			r.fail(fault.At(fault.Path(field, "runs"), err))
		}
		d.Runs = runs
		if len(m.Layers) < 1 || len(m.Layers) > dress.MostLayers {
			r.fail(fault.New(fault.LayersRange, fault.Path(field, "layers"), "a paper on top has one to four layers"))
		}
		for n, l := range m.Layers {
			at := fault.Path(field, "layers", n)
			layer := dress.Layer{
				Card: r.card(fault.Path(at, "card"), l.Card),
			}
			r.layerSize(at, l, &layer)
			if layer.Card.Thickness > dress.ThickestLayer {
				r.fail(fault.New(fault.ThicknessRange, fault.Path(at, "card.thickness"), "a layer of a paper on top is at most 2 mm thick"))
			}
			d.Layers = append(d.Layers, layer)
		}
		r.in.Mats = append(r.in.Mats, d)
	}
}

// layerSize reads how large a layer of a paper is: by its border, which may be below 0, or by
// a size of its own.
func (r *reader) layerSize(at string, f layerFile, l *dress.Layer) {
	switch {
	case len(f.Size) == 0:
		l.Border = r.border(fault.Path(at, "border"), f.Border)
	case len(f.Size) != 2:
		r.fail(fault.New(fault.UnknownShape, fault.Path(at, "size"), "a size is two lengths: along the face, and up it; 0 is by the border"))
	default:
		size := [2]measure.Length{}
		for i, t := range f.Size {
			size[i] = r.length(fault.Path(at, "size", i), t, 0)
		}
		l.Width, l.Height = size[0], size[1]
		if l.Width == 0 || l.Height == 0 {
			l.Border = r.border(fault.Path(at, "border"), f.Border)
		} else if f.Border != (borderFile{}) {
			r.fail(fault.New(fault.BothGiven, fault.Path(at, "size"), "give a layer its size or its border, not both"))
		}
	}
}

func writeLayer(l dress.Layer) layerFile {
	f := layerFile{Card: writeCard(l.Card)}
	if l.Sized() {
		f.Size = []measure.Text{mmText(l.Width), mmText(l.Height)}
	}
	if l.Width == 0 || l.Height == 0 {
		f.Border = borderOf(l.Border)
	}
	return f
}

// checkMats refuses papers that none could cut, whatever the box.
func checkMats(in *Inputs) error {
	for i, d := range in.Mats {
		if rounded := d.Shape == dress.Rounded; rounded && (d.Radius < tool.LeastRadius || d.Radius > tool.MostRadius) {
			return fault.New(fault.OutOfRange, fault.Path("mats", i, "radius"), "a corner rounder is made for radii of %s to %s",
				in.show(tool.LeastRadius), in.show(tool.MostRadius))
		}
		for n, l := range d.Layers {
			for _, side := range []struct {
				field string
				is    measure.Length
			}{{"width", l.Width}, {"height", l.Height}} {
				if side.is > 0 && side.is < dress.Least {
					return fault.New(fault.TooSmall, fault.Path("mats", i, "layers", n, side.field), "a paper is at least %s wide and high", in.show(dress.Least))
				}
			}
		}
	}
	return nil
}

// UsualRadius is what the maker's first corner rounder cuts, or a usual one.
func (in *Inputs) UsualRadius() measure.Length {
	if own := in.Tools.Owned.Rounders; len(own) > 0 {
		return own[0]
	}
	return dress.UsualRadius(in.Units)
}
