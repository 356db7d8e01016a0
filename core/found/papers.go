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
	side   dress.Side
	said   bool // the recipe tells of these
	name   string
	faces  []string
	words  []string // the faces in plain words
	border dress.Border
	off    float64 // how far from an even, narrow border
}

// papers puts the panels that fit on faces of the box: those that they are told for, else those
// that they leave the evenest border of; what is larger than all is said. A panel that is smaller
// than one before, where all its faces are taken, is a layer on it.
func (t *Told) papers() {
	if t.Made == nil {
		return
	}
	taken := map[string]bool{}
	for _, p := range t.Pieces {
		if !p.Panel || p.Name == "label" || p.Name == "tag" {
			continue
		}
		size := t.show(p.Width) + " × " + t.show(p.Height)
		on, fits := t.places(p, taken)
		many := max(1, p.Copies/max(1, t.Match.Inputs.Copies))
		if said := slices.DeleteFunc(slices.Clone(on), func(x place) bool { return !x.said }); len(said) > 0 {
			on = said
			if p.On.All && many == 1 {
				many = len(on[0].faces)
			}
			many = max(many, min(len(p.On.Groups), len(on[0].faces)))
		} else if words := p.On.Words(); words != "" && t.layer(p) {
			t.say("A %s of %s goes on the one under it.", named(p), size)
			continue
		} else if words != "" {
			t.say("A %s of %s is told for the %s, where it does not fit.", named(p), size, words)
			continue
		}
		i := slices.IndexFunc(on, func(x place) bool { return len(x.faces) >= many })
		switch {
		case i >= 0:
			x := on[i]
			for _, f := range x.faces[:many] {
				taken[spot(x.piece, x.side, f)] = true
			}
			t.put(x, x.faces[:many])
			if many == 1 {
				t.say("A %s of %s goes on the %s%s of the %s.", named(p), size, inner(x.side), x.words[0], x.name)
			} else {
				var faces []string
				for _, w := range x.words[:many] {
					faces = append(faces, t.Voice.Phrase(w))
				}
				t.say("%d %ss of %s go on the %s%s and %s of the %s.", many, named(p), size, inner(x.side), reading.Said(strings.Join(faces[:many-1], ", ")), reading.Said(faces[many-1]), x.name)
			}
		case t.layer(p):
			t.say("A %s of %s goes on the one under it.", named(p), size)
		case !fits:
			t.say("A %s of %s is larger than every face of this box.", named(p), size)
		default:
			t.say("A %s of %s has no face that it was cut for; it is left out of the box.", named(p), size)
		}
	}
	for _, b := range t.Borders {
		t.bordered(b, taken)
	}
}

// spot names a side of a face of a piece.
func spot(piece string, side dress.Side, face string) string {
	return piece + "/" + string(side) + "/" + face
}

func sideOf(on reading.On) dress.Side {
	if on.Inside {
		return dress.Inside
	}
	return dress.Outside
}

// standsOn reports whether a box stands on a face of a part.
func standsOn(part design.Part, f pattern.Face) bool {
	return f.Name == part.Root && f.Role == pattern.Panel && part.Opens == style.Upwards
}

// put lays a paper on faces of a place.
func (t *Told) put(x place, faces []string) {
	t.Papers = append(t.Papers, dress.Dressing{ID: len(t.Papers) + 1, Piece: x.piece, Side: x.side, Faces: slices.Clone(faces), Layers: []dress.Layer{{Card: dress.Patterned, Border: x.border}}})
}

func inner(s dress.Side) string {
	if s == dress.Inside {
		return "inside of the "
	}
	return ""
}

// bordered lays papers that are told by their border on the faces that are named, or on all walls
// and what is on top, where none lies yet.
func (t *Told) bordered(b reading.Border, taken map[string]bool) {
	side, count := sideOf(b.On), 0
	for _, part := range t.Made.Parts {
		x := place{piece: part.ID, side: side, border: dress.Border{Across: b.Width, Up: b.Width}}
		for _, f := range dress.Open(part.Pattern, part.Faces, side) {
			along, up := f.Frame().Size(f.Polygon)
			if f.Role != pattern.Panel && f.Role != pattern.Wall || f.Area() < rectangular*along*up || min(along, up) <= 2*b.Width.MM() {
				continue
			}
			if taken[spot(part.ID, side, f.Name)] || !t.saysOn(b.On, part, f) && (len(b.Groups) > 0 || standsOn(part, f)) {
				continue
			}
			taken[spot(part.ID, side, f.Name)] = true
			x.faces = append(x.faces, f.Name)
		}
		if len(x.faces) > 0 {
			t.put(x, x.faces)
			count += len(x.faces)
		}
	}
	t.say("Papers with a border of %s go on %d faces.", t.show(b.Width), count)
}

// rectangular is how much of its rectangle a face fills that takes paper of a size.
const rectangular = 0.98

// places are faces that a panel goes on, the likeliest first, and whether it goes on any,
// taken or not.
func (t *Told) places(p reading.Piece, taken map[string]bool) (out []place, fits bool) {
	side := sideOf(p.On)
	for _, part := range t.Made.Parts {
		for _, f := range dress.Open(part.Pattern, part.Faces, side) {
			said := t.saysOn(p.On, part, f)
			if f.Role != pattern.Panel && f.Role != pattern.Wall && !(f.Role == pattern.Flap && said) {
				continue
			}
			along, up := f.Frame().Size(f.Polygon)
			if f.Area() < rectangular*along*up && f.Role != pattern.Flap {
				continue
			}
			if standsOn(part, f) && side != dress.Inside {
				continue
			}
			a, b := p.Width.MM(), p.Height.MM()
			for _, s := range [][2]float64{{a, b}, {b, a}} {
				x, y := (along-s[0])/2, (up-s[1])/2
				if min(x, y) < 0 {
					continue
				}
				if fits = true; max(x, y) > widestBorder || taken[spot(part.ID, side, f.Name)] {
					continue
				}
				border := dress.Border{Across: measure.FromMM(x), Up: measure.FromMM(y)}
				i := slices.IndexFunc(out, func(o place) bool { return o.piece == part.ID && o.border == border && o.said == said })
				if i < 0 {
					out = append(out, place{piece: part.ID, side: side, said: said, name: strings.ToLower(part.Name), border: border, off: 3*math.Abs(x-y) + x + y})
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

// saysOn reports whether a recipe tells of a face: all words of one of its groups are of it.
func (t *Told) saysOn(on reading.On, part design.Part, f pattern.Face) bool {
	root := f.Name == part.Root && f.Role == pattern.Panel
	if len(on.Groups) == 0 {
		return on.Inside && root
	}
	of := strings.Fields(strings.ToLower(part.ID + " " + part.Name))
	own := strings.Fields(f.Plain())
	has := func(words ...string) bool {
		return slices.ContainsFunc(words, func(w string) bool { return slices.Contains(own, w) })
	}
	wall := f.Role == pattern.Wall
	is := func(w string) bool {
		switch w {
		case "side", "sides":
			return wall && has("left", "right", "side") || wall && len(own) > 0 && has("wall", "front", "back")
		case "end", "ends":
			return wall && has("left", "right", "end")
		case "long", "short":
			return wall && (has("front", "back") == t.longFront() == (w == "long"))
		case "top", "roof":
			return has("top", "roof", "lid") || root && part.Opens == style.Downwards
		case "bottom", "floor":
			return has("bottom", "floor") || root && part.Opens == style.Upwards
		case "wall", "walls":
			return wall
		}
		w = strings.TrimSuffix(w, "s")
		return has(w) || slices.Contains(of, w)
	}
	return slices.ContainsFunc(on.Groups, func(g []string) bool {
		// "Side panels" are those at the left and right, unless it is told otherwise.
		if len(g) == 1 && (g[0] == "side" || g[0] == "sides") && !has("left", "right", "side") {
			return false
		}
		return !slices.ContainsFunc(g, func(w string) bool { return !is(w) })
	})
}

// longFront reports whether the front of the box is the longer of its sides.
func (t *Told) longFront() bool {
	axes := t.Made.Style.Axes
	return axes[0] == nil || axes[1] == nil || t.Made.Spec.Lengths[axes[0].ID] >= t.Made.Spec.Lengths[axes[1].ID]
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
