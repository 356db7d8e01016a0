package inspect

import (
	"fmt"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// ways names a direction in which a block goes in.
var ways = map[r3.Vec]string{
	{Z: 1}: "from above", {Z: -1}: "from below", {Y: -1}: "from the front", {Y: 1}: "from the back", {X: -1}: "from the left", {X: 1}: "from the right",
}

// Use asks whether a hand can use the box once it is made: fill it by a
// straight way when the last glued step is done, open it again without tearing
// anything, and trust that it stays shut.
func (w Whole) Use() ([]Finding, error) {
	shut, open, err := w.stood()
	if err != nil {
		return nil, err
	}
	return w.use(shut, open)
}

func (w Whole) use(shut, open []style.Body) ([]Finding, error) {
	out := []Finding{w.fill(shut, open), w.open(shut, open)}
	if len(w.Box.Shuts) > 0 {
		closes, err := w.closes(w.Box.Shuts)
		if err != nil {
			return nil, err
		}
		out = append(out, closes)
	}
	return append(out, w.stay()), nil
}

// closes folds a box shut, face after face in the given order, past everything
// that stands on it.
func (w Whole) closes(order []string) (Finding, error) {
	box := *w.Box
	box.Parts = w.Parts
	hit, face, err := box.Sweep(order)
	if err != nil || hit == nil {
		return Finding{ID: "close", Verdict: OK, Text: "It closes in the order that is told, and nothing is in the way."}, err
	}
	mark, _ := w.Parts[0].Pattern.Mark(face)
	return Finding{ID: "close", Verdict: Fail, Piece: hit.A.Part.ID, Text: fmt.Sprintf(
		"It does not close in this order: when the %s is folded, %s is in the way of %s.",
		mark.Plain(), strings.ToLower(hit.A.Part.Name), strings.ToLower(hit.B.Part.Name))}, nil
}

// fill looks for a straight way in for the block that goes in, as wide as it
// is with its ease, past everything that is not turned or taken away when the
// box opens: what is, a hand holds aside.
func (w Whole) fill(shut, open []style.Body) Finding {
	if w.Box.Room.Height == nil {
		return Finding{ID: "fill", Verdict: OK, Text: "It holds nothing by itself."}
	}
	need := w.Inside
	if w.Filled {
		need = w.Needs
	}
	var there []style.Body
	for i, b := range open {
		moved := b.Part.Away != r3.Vec{} && b.Part.ID != w.Box.Room.Part && b.Part.ID != w.Parts[0].ID
		if len(b.Part.Places) == 0 && !moved && !b.Part.Last {
			there = append(there, still(shut[i], b))
		}
	}
	way, against, free := w.Box.Room.In(style.Packed, w.Parts).WayIn(there, need)
	if !free {
		return Finding{ID: "fill", Verdict: Fail, Text: fmt.Sprintf(
			"It cannot be filled: there is no straight way in for %s when the last glued step is done; %s is in the way. Make the opening larger, or leave that unglued.",
			w.size(need), against)}
	}
	return Finding{ID: "fill", Verdict: OK, Text: fmt.Sprintf("It is filled %s, before it is closed: the way in is clear for %s.", ways[way], w.size(need))}
}

// size writes a room, each side rounded inward on the ruler's marks: never more than it is.
func (w Whole) size(e style.Extent) string { return e.FreeIn(w.Units) }

// show writes what is lacking, up to the next mark of the ruler.
func (w Whole) show(l measure.Length) string {
	return measure.Label(measure.Up(max(0, l), w.Units.Ruler()), w.Units, w.Units.Tick())
}

// tears is how far, in mm, a glued place may move when the box is opened.
const tears = 0.5

// open holds that nothing glued is pulled apart when the box is opened.
func (w Whole) open(shut, open []style.Body) Finding {
	for i, b := range shut {
		for _, g := range b.Part.Pattern.Glue {
			if g.Dry || g.Piece != "" {
				continue
			}
			_, _, from := b.Face(g.Face)
			_, _, onto := b.Face(g.Onto)
			if from < 0 || onto < 0 {
				continue
			}
			if moves(b, open[i], onto, from, g.Area) {
				return Finding{ID: "open", Verdict: Fail, Piece: b.Part.ID, Where: [][]pattern.Point{g.Area}, Text: fmt.Sprintf(
					"%s: it is glued shut: the %s would tear off the %s when the box is opened. Leave it unglued.",
					b.Part.Name, b.Faces[from].Plain(), b.Faces[onto].Plain())}
			}
		}
	}
	f := Finding{ID: "open", Verdict: OK, Text: "It opens again without tearing anything."}
	switch w.Box.Shut {
	case style.StaysOpen:
		f.Text = "It is open: there is nothing to tear."
	case style.Sealed:
		f.Text = "It is glued shut when it is full, and torn open at the top; choose a clip if it is to be opened again."
	}
	return f
}

// moves reports whether some points of a face are elsewhere, as seen from
// another face, when the box is open.
func moves(shut, open style.Body, seenFrom, face int, points []pattern.Point) bool {
	place := func(b style.Body, at pattern.Point) r3.Vec {
		p := b.Poses[seenFrom]
		d := r3.Sub(b.Poses[face].Place(at), p.Shift)
		return r3.Vec{X: r3.Dot(d, p.Turn.Rotate(r3.Vec{X: 1})), Y: r3.Dot(d, p.Turn.Rotate(r3.Vec{Y: 1})), Z: r3.Dot(d, p.Normal())}
	}
	return slices.ContainsFunc(points, func(at pattern.Point) bool {
		return r3.Norm(r3.Sub(place(shut, at), place(open, at))) > tears
	})
}

// still is a body without the faces that turn away from its root when the box
// is opened.
func still(shut, open style.Body) style.Body {
	_, _, root := open.Face(open.Part.Root)
	out := style.Body{Folded: &pattern.Folded{}, Part: open.Part, Copy: open.Copy}
	for i, f := range open.Faces {
		if root >= 0 && moves(shut, open, root, i, f.Polygon) {
			continue
		}
		out.Faces, out.Poses, out.Levels = append(out.Faces, f), append(out.Poses, open.Poses[i]), append(out.Levels, open.Levels[i])
	}
	return out
}

// leastTuck is how far, in mm, a flap must reach in to stay there.
const leastTuck = 6

// stay says what keeps the box shut, and warns where that is not enough.
func (w Whole) stay() Finding {
	f := Finding{ID: "stay", Verdict: OK, Text: "It stays open: nothing is to be kept shut."}
	switch w.Box.Shut {
	case style.StaysOpen:
		return f
	case style.ByFriction:
		var loose []string
		holding := 0
		for _, a := range w.Fits {
			if !a.Pair.Kind.Widened() {
				continue
			}
			holding++
			if a.Verdict == fit.Loose {
				loose = append(loose, a.Pair.Axis)
			}
		}
		f.Text = "It stays shut by the fit of its parts."
		if len(loose) > 0 && len(loose) == holding {
			f.Verdict, f.Text = Warn, fmt.Sprintf("Nothing keeps it shut: the fit is loose in %s. Allow less, or hold it with a band.", strings.Join(loose, " and "))
		}
	case style.ByTuck:
		f.Text = "A flap that is tucked in keeps it shut."
		for _, p := range w.Parts {
			for _, g := range p.Pattern.Glue {
				deep, _ := pattern.Narrowest(g.Area)
				mark, _ := p.Pattern.Mark(g.Face)
				if g.Dry && g.Outside && mark.Role == pattern.Flap && deep < leastTuck {
					f.Verdict, f.Piece = Warn, p.ID
					f.Text = fmt.Sprintf("The %s reaches in only %.1f mm, and slips out below %d mm; make it deeper.", mark.Plain(), deep, leastTuck)
				}
			}
		}
	default:
		f.Text = capital(string(w.Box.Shut)) + " keeps it shut: it is among the supplies and the closing steps."
	}
	if !w.Box.Closes() {
		f.Verdict, f.Text = Fail, "No step closes it."
	}
	return f
}

func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }
