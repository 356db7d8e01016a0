package design

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/contents"
	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/inspect"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
)

// MostWindows is how many windows a box has at most.
const MostWindows = 8

const (
	// besideWindow is what card stays beside a window to keep its shape, and leastBeside the least
	// that a knife leaves whole.
	besideWindow = 6 * measure.Millimetre
	leastBeside  = 2 * measure.Millimetre
	// behindWindow is how near what lies before or behind a window hides what is inside.
	behindWindow = 6.0 // mm
	// mostHidden is how much of a window may be hidden before it is said, as a share.
	mostHidden = 0.02
)

// paneLap is how far film comes over the card beside a window, on each side.
func paneLap(unit measure.Unit) measure.Length {
	if unit == measure.In {
		return measure.Inch / 4
	}
	return 6 * measure.Millimetre
}

// UsualWindow is a window in the middle of a face, with film.
func (b *Built) UsualWindow() label.Window {
	piece, face := b.LabelPlace()
	w := label.Window{Shape: label.Rectangle, Piece: piece, Face: face, Film: true}
	f, known := b.faceOf(label.Label{Piece: piece, Face: face})
	along, up := 60.0, 40.0
	if known {
		along, up = f.Frame().Size(f.Polygon)
	}
	step := measure.Tick(5 * measure.Millimetre)
	if b.Inputs.Units == measure.In {
		step = measure.Tick(measure.Inch / 4)
	}
	side := func(mm float64) measure.Length {
		return max(measure.Up(10*measure.Millimetre, step), measure.Down(measure.FromMM(mm*0.6), step))
	}
	w.Width, w.Height = side(along), side(up)
	return w
}

func checkWindows(in *Inputs) error {
	if len(in.Windows) > MostWindows {
		return fault.New(fault.CountRange, "windows", "a box has at most %d windows", MostWindows)
	}
	for i, w := range in.Windows {
		if err := w.Check(in.show); err != nil {
			return fault.At(fault.Path("windows", i), err)
		}
	}
	return nil
}

// cutWindows cuts the windows into the pieces, before papers go on. Every fault names the window.
func (p *Papered) cutWindows() error {
	for i, w := range p.Inputs.Windows {
		f, known := p.faceOf(label.Label{Piece: w.Piece, Face: w.Face})
		if !known {
			return fault.New(fault.UnknownPlace, fault.Path("windows", i, "face"), "this box has no face %q of a piece %q to cut a window into", w.Face, w.Piece)
		}
		edge := onFace(w, f)
		if beside(f, edge) < leastBeside.MM() {
			return fault.New(fault.OutOfRange, fault.Path("windows", i, "width"), "the window leaves less than %s of card beside it on the %s; make it smaller, or move it",
				p.Show(p.ruled(leastBeside)), f.Plain())
		}
		part, _ := p.part(w.Piece)
		if part.Making == nil {
			k := slices.IndexFunc(p.Parts, func(x Part) bool { return x.ID == w.Piece })
			p.Parts[k].Part = generally(part.Part, style.AdhesiveOf(p.Spec))
		}
		if err := p.pierce(w.Piece, []pattern.Opening{{Kind: "window", Face: w.Face, Loop: edge}}, p.windowCut(w, f, edge)); err != nil {
			return err
		}
	}
	return nil
}

// onFace is a window's edge on the flat piece.
func onFace(w label.Window, f pattern.Face) pattern.Loop {
	fr := f.Frame()
	along, up := fr.Size(f.Polygon)
	out := w.On(along, up)
	for i, v := range out {
		out[i].Point = fr.At(v.X, v.Y)
	}
	return out
}

// pierce cuts openings into a piece, and tells its hand by which moves.
func (p *Papered) pierce(piece string, all []pattern.Opening, moves []hand.Move) error {
	x := &p.Parts[slices.IndexFunc(p.Parts, func(p Part) bool { return p.ID == piece })]
	made := *x.Pattern
	made.Holes, made.Openings, made.Marks = slices.Clone(made.Holes), slices.Clone(made.Openings), slices.Clone(made.Marks)
	for _, o := range all {
		made.Holes, made.Openings = append(made.Holes, o.Loop), append(made.Openings, o)
		// A face is known by a place on it, which is not to be in the opening.
		for k, m := range made.Marks {
			if m.Name == o.Face && pattern.Contains(grown(o.Loop.Flat()), m.At) {
				_, f, _ := x.Folded.Face(o.Face)
				made.Marks[k].At = clearOf(*f, o.Loop.Flat(), m.At)
			}
		}
	}
	folded, err := made.Finished(x.Root)
	if err != nil {
		return err
	}
	x.Pattern, x.Folded, x.Faces = &made, folded, folded.Faces
	if x.Making != nil { // else it is told by its pattern, holes and all
		tell := x.Making
		x.Making = func() []hand.Move { return hand.Pierced(tell(), &made, moves...) }
	}
	return nil
}

// grown is a polygon twice as large about its middle.
func grown(polygon []pattern.Point) []pattern.Point {
	lo, hi := pattern.Bounds(polygon)
	mid := lo.Add(hi).Scale(0.5)
	out := make([]pattern.Point, len(polygon))
	for i, q := range polygon {
		out[i] = mid.Add(q.Sub(mid).Scale(2))
	}
	return out
}

// clearOf is a place on a face beside an opening: on the way to a corner, the first that has most
// card round it.
func clearOf(f pattern.Face, opening []pattern.Point, from pattern.Point) pattern.Point {
	best, most := from, -1.0
	for _, corner := range f.Polygon {
		for _, part := range []float64{0.5, 0.7, 0.85, 0.95} {
			at := from.Add(corner.Sub(from).Scale(part))
			if !pattern.Contains(f.Polygon, at) || pattern.Contains(opening, at) {
				continue
			}
			room := math.Inf(1)
			for _, ring := range [][]pattern.Point{f.Polygon, opening} {
				for i, a := range ring {
					room = min(room, apart(a, ring[(i+1)%len(ring)], at))
				}
			}
			if room > most+1e-6 {
				best, most = at, room
			}
		}
	}
	return best
}

// beside is how much card stays beside a loop in a face, in mm: under nothing where it reaches out
// of it, or into another opening.
func beside(f pattern.Face, edge pattern.Loop) float64 {
	least := math.Inf(1)
	flat := edge.Flat()
	for _, q := range flat {
		if !pattern.Contains(f.Polygon, q) || slices.ContainsFunc(f.Holes, func(h []pattern.Point) bool { return pattern.Contains(h, q) }) {
			return -1
		}
	}
	for _, ring := range append([][]pattern.Point{f.Polygon}, f.Holes...) {
		for i, a := range ring {
			b := ring[(i+1)%len(ring)]
			if pattern.Contains(flat, a) {
				return -1
			}
			for k, c := range flat {
				least = min(least, apart(a, b, c), apart(c, flat[(k+1)%len(flat)], a))
			}
		}
	}
	return least
}

// apart is how far a point lies from a stretch, in mm.
func apart(a, b, c pattern.Point) float64 {
	d := b.Sub(a)
	t := max(0, min(1, c.Sub(a).Dot(d)/d.Dot(d)))
	return c.Sub(a.Add(d.Scale(t))).Len()
}

// windowCut are the moves that cut a window into the flat piece.
func (p *Papered) windowCut(w label.Window, f pattern.Face, edge pattern.Loop) []hand.Move {
	key := "window-traced"
	switch w.Shape {
	case label.Rectangle:
		key = "window-ruled"
	case label.Circle:
		key = "window-compass"
	}
	if w.Place.Turn != 0 {
		key = "window-traced"
	}
	return []hand.Move{hand.Bite{Loops: []pattern.Loop{edge}, Said: hand.Said{
		Key: key, Names: map[string][]string{"shape": {string(w.Shape)}},
		Lengths: map[string][]measure.Length{"size": {w.Width, w.Height}, "across": {w.Width}},
		Phrases: map[string]hand.Said{
			"where": {Key: "spot", Words: map[string]string{"place": f.Plain(), "piece": p.called(w.Piece)}}, "place": p.placed(w.Place),
		},
	}}}
}

// panes are the films behind the windows, by their size.
func (d *Dressed) panes() []hand.Pane {
	var out []hand.Pane
	for _, w := range d.Inputs.Windows {
		f, known := d.faceOf(label.Label{Piece: w.Piece, Face: w.Face})
		if !w.Film || !known {
			continue
		}
		wide, high := d.film(w)
		out = append(out, hand.Pane{Piece: w.Piece, At: onFace(w, f), Said: hand.Said{Key: "window-film",
			Lengths: map[string][]measure.Length{"size": {wide, high}},
			Phrases: map[string]hand.Said{"where": {Key: "spot-window", Words: map[string]string{"place": f.Plain()}}},
		}})
	}
	return out
}

// film is how large the film of a window is cut: as large as the window lies, and its lap.
func (d *Dressed) film(w label.Window) (wide, high measure.Length) {
	tick, lap := d.Inputs.Tools.Tick.Ruler(), paneLap(d.Inputs.Units)
	x, y := label.Label{Shape: w.Shape, Width: w.Width, Height: w.Height, Place: w.Place}.Spread()
	return measure.Up(measure.FromMM(x)+2*lap, tick), measure.Up(measure.FromMM(y)+2*lap, tick)
}

// filmSupplies are the films of all copies.
func (d *Dressed) filmSupplies() []recipe.Supply {
	var out []recipe.Supply
	for i, w := range d.Inputs.Windows {
		if !w.Film {
			continue
		}
		wide, high := d.film(w)
		n := d.Inputs.Copies
		out = append(out, recipe.Supply{ID: fmt.Sprintf("film.%d", i+1), Amount: float64(n) * wide.MM() * high.MM(), Unit: "mm²",
			Text: fmt.Sprintf("Clear film for windows: %d of %s", n, measure.Labels(d.Inputs.Units, d.Inputs.Tools.Tick.Ruler(), wide, high))})
	}
	return out
}

// judgeWindows looks whether windows keep their shape, and whether one sees through.
func (d *Dressed) judgeWindows() []inspect.Finding {
	var out []inspect.Finding
	if len(d.Inputs.Windows) == 0 {
		return nil
	}
	bodies, err := d.Bodies(style.Finished)
	if err != nil {
		return nil
	}
	for _, w := range d.Inputs.Windows {
		say := func(v inspect.Verdict, format string, args ...any) {
			out = append(out, inspect.Finding{ID: "window", Verdict: v, Piece: w.Piece, Text: fmt.Sprintf(format, args...)})
		}
		part, _ := d.part(w.Piece)
		f, _ := d.faceOf(label.Label{Piece: w.Piece, Face: w.Face})
		edge := onFace(w, f)
		glued := slices.ContainsFunc(part.Pattern.Glue, func(g pattern.Glue) bool { return g.Face == w.Face && pattern.Overlap(g.Area, edge.Flat()) > 1 })
		bare := f
		bare.Holes = slices.DeleteFunc(slices.Clone(f.Holes), func(h []pattern.Point) bool { return pattern.Overlap(h, edge.Flat()) > math.Abs(pattern.Area(h))/2 })
		switch left, before := beside(bare, edge), covering(bodies, w.Piece, w.Face, edge); {
		case glued:
			say(inspect.Fail, "The window is cut into the %s where that is glued: move it, or make it smaller.", f.Plain())
		case before != "":
			say(inspect.Warn, "The %s lies over or behind the window in the %s when the box is shut: one sees card there. Cut one into that, too, or move the window.", before, f.Plain())
		case left < besideWindow.MM()-0.05:
			say(inspect.Warn, "Beside the window in the %s %s of card is left; %s keeps its shape. Make the window smaller, or move it.", f.Plain(),
				d.Show(d.ruled(measure.FromMM(left))), d.Show(d.ruled(besideWindow)))
		default:
			say(inspect.OK, "The window in the %s is clear of folds and glue, and one sees through it.", f.Plain())
		}
	}
	if food := slices.ContainsFunc(d.Inputs.Things, func(t contents.Thing) bool { return t.Kind == contents.Food || t.Kind == contents.GreasyFood }); food {
		out = append(out, inspect.Finding{ID: "window.food", Verdict: inspect.Warn, Text: "Food comes near the window: use film that is sold for food, glue that stays dry and off the inside, and wrap what is not; local rules stand above this."})
	}
	return out
}

// covering names what of other pieces lies close before or behind a window of the shut box and hides
// more than a little of it; "" is nothing. What of its own piece does so is told of all openings.
func covering(bodies []style.Body, piece, face string, edge pattern.Loop) string {
	flat := edge.Flat()
	for _, b := range bodies {
		if b.Part.ID != piece || b.Copy > 0 {
			continue
		}
		i := slices.IndexFunc(b.Faces, func(f pattern.Face) bool { return f.Name == face })
		pose := b.Poses[i]
		var hole []r3.Vec
		for _, q := range flat {
			hole = append(hole, pose.Place(q))
		}
		for _, o := range bodies {
			for k, f := range o.Faces {
				off := r3.Dot(r3.Sub(o.Poses[k].Place(f.Polygon[0]), hole[0]), pose.Normal())
				if o.Part.ID == piece && o.Copy == b.Copy || math.Abs(r3.Dot(pose.Normal(), o.Poses[k].Normal())) < 0.99 || math.Abs(off) > behindWindow {
					continue
				}
				var on []pattern.Point
				for _, v := range hole {
					on = append(on, o.Poses[k].Flat(r3.Add(v, r3.Scale(off, pose.Normal()))))
				}
				covered := pattern.Overlap(f.Polygon, on)
				for _, h := range f.Holes {
					covered -= pattern.Overlap(h, on)
				}
				if covered > mostHidden*math.Abs(pattern.Area(flat)) {
					return f.Plain() + " of the " + strings.ToLower(o.Part.Name)
				}
			}
		}
	}
	return ""
}
