package found

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/reading"
	"brevium/core/style"
)

// widestBorder is how much of a face may show round a panel, in mm: with more it is not
// cut for that face.
const widestBorder = 25.4

// place is faces of one size on a piece, and what shows of them round a panel.
type place struct {
	piece  string // its id
	name   string
	faces  []string
	words  []string // the faces in plain words
	border dress.Border
	off    float64 // how far from an even, narrow border
}

// papers puts the panels that fit on faces of the box, each on those that it leaves the
// evenest border of; what is larger than all is said. A panel that is smaller than one
// before, where all its faces are taken, is a layer on it.
func (t *Told) papers() {
	if t.Made == nil {
		return
	}
	taken := map[string]bool{}
	for _, p := range t.Pieces {
		if !p.Panel || p.Name == "label" || p.Name == "tag" {
			continue
		}
		many := max(1, p.Copies/max(1, t.Match.Inputs.Copies))
		on, fits := t.places(p, taken)
		i := slices.IndexFunc(on, func(x place) bool { return len(x.faces) >= many })
		size := t.show(p.Width) + " × " + t.show(p.Height)
		switch {
		case i >= 0:
			x := on[i]
			for _, f := range x.faces[:many] {
				taken[x.piece+"/"+f] = true
			}
			t.Papers = append(t.Papers, dress.Dressing{ID: len(t.Papers) + 1, Piece: x.piece, Faces: slices.Clone(x.faces[:many]), Layers: []dress.Layer{{Card: dress.Patterned, Border: x.border}}})
			if many == 1 {
				t.say("A %s of %s goes on the %s of the %s.", named(p), size, x.words[0], x.name)
			} else {
				t.say("%d %ss of %s go on the %s of the %s.", many, named(p), size, strings.Join(x.words[:many-1], ", ")+" and "+x.words[many-1], x.name)
			}
		case t.layer(p):
			t.say("A %s of %s goes on the one under it.", named(p), size)
		case !fits:
			t.say("A %s of %s is larger than every face of this box.", named(p), size)
		default:
			t.say("A %s of %s has no face that it was cut for; it is left out of the box.", named(p), size)
		}
	}
}

// places are faces that a panel goes on, the likeliest first, and whether it goes on any,
// taken or not.
func (t *Told) places(p reading.Piece, taken map[string]bool) (out []place, fits bool) {
	for _, part := range t.Made.Parts {
		for _, f := range part.Faces {
			if f.Role != pattern.Panel && f.Role != pattern.Wall {
				continue
			}
			along, up := f.Frame().Size(f.Polygon)
			if f.Area() < 0.98*along*up {
				continue // no rectangle
			}
			if f.Name == part.Root && f.Role == pattern.Panel && part.Opens == style.Upwards {
				continue // it stands on that
			}
			a, b := p.Width.MM(), p.Height.MM()
			for _, s := range [][2]float64{{a, b}, {b, a}} {
				x, y := (along-s[0])/2, (up-s[1])/2
				if min(x, y) < 0 {
					continue
				}
				if fits = true; max(x, y) > widestBorder || taken[part.ID+"/"+f.Name] {
					continue
				}
				border := dress.Border{Across: measure.FromMM(x), Up: measure.FromMM(y)}
				i := slices.IndexFunc(out, func(o place) bool { return o.piece == part.ID && o.border == border })
				if i < 0 {
					out = append(out, place{piece: part.ID, name: strings.ToLower(part.Name), border: border, off: 3*math.Abs(x-y) + x + y})
					i = len(out) - 1
				}
				if !slices.Contains(out[i].faces, f.Name) {
					out[i].faces, out[i].words = append(out[i].faces, f.Name), append(out[i].words, f.Plain())
				}
			}
		}
	}
	slices.SortStableFunc(out, func(a, b place) int { return cmp.Compare(a.off, b.off) })
	return out, fits
}

// layer puts a panel on one before that it is smaller than, as many of them.
func (t *Told) layer(p reading.Piece) bool {
	for i := range t.Papers {
		d := &t.Papers[i]
		if len(d.Faces) != p.Copies || len(d.Layers) >= dress.MostLayers {
			continue
		}
		part := slices.IndexFunc(t.Made.Parts, func(x design.Part) bool { return x.ID == d.Piece })
		face := slices.IndexFunc(t.Made.Parts[part].Faces, func(f pattern.Face) bool { return f.Name == d.Faces[0] })
		f := t.Made.Parts[part].Faces[face]
		along, up := f.Frame().Size(f.Polygon)
		for _, l := range d.Layers {
			along, up = along-2*l.Border.Across.MM(), up-2*l.Border.Up.MM()
		}
		for _, s := range [][2]measure.Length{{p.Width, p.Height}, {p.Height, p.Width}} {
			x, y := (along-s[0].MM())/2, (up-s[1].MM())/2
			if min(x, y) > 0 && max(x, y) <= widestBorder {
				d.Layers[0].Card = dress.Backing
				d.Layers = append(d.Layers, dress.Layer{Card: dress.Patterned, Border: dress.Border{Across: measure.FromMM(x), Up: measure.FromMM(y)}})
				return true
			}
		}
	}
	return false
}
