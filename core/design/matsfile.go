package design

import (
	"brevium/core/dress"
	"brevium/core/fault"
)

func (r *reader) mats(all []matsFile) {
	for i, m := range all {
		field := fault.Path("mats", i)
		d := dress.Dressing{ID: m.ID, Piece: m.Piece, Faces: m.Faces, Joined: m.Joined}
		shape, err := dress.ParseShape(m.Shape)
		if d.Shape = shape; err != nil {
			r.fail(fault.At(field, err))
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
				Card:   r.card(fault.Path(at, "card"), l.Card),
				Border: r.border(fault.Path(at, "border"), l.Border),
			}
			if layer.Card.Thickness > dress.ThickestLayer {
				r.fail(fault.New(fault.ThicknessRange, fault.Path(at, "card.thickness"), "a layer of a paper on top is at most 2 mm thick"))
			}
			d.Layers = append(d.Layers, layer)
		}
		r.in.Mats = append(r.in.Mats, d)
	}
}
