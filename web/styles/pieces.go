package styles

import (
	"fmt"
	"net/url"
	"slices"
	"strings"

	"brevium/core/stylefile"
	"brevium/web/form"
)

type pieceView struct {
	N      int
	Name   string
	Picked bool
}

// dividedView is a face that is parted by lines, and what its parts are called.
type dividedView struct {
	N     int
	Face  string
	Parts []form.Field
}

type biteView struct {
	Is, Face, X, Y, Radius form.Field
}

type overView struct {
	Kind, Outer, Inner, Along                    form.Field
	OuterSpan, InnerSpan, OuterDepth, InnerDepth form.Field
}

// words for the choices of pieces.
var (
	standsWords = []form.Choice{{Value: "", Label: "with that face on the table"}, {Value: "upright", Label: "upright, as a tube"}}
	overWords   = map[string]string{"lid": "is a lid on", "sleeve": "is a sleeve round", "cover": "is a cover round", "shuts": "shuts over"}
)

// pieces readies what is asked of pieces, divided faces, notches and holes, and what goes
// over what. posted is what a line is being chosen between.
func (v *tablePage) pieces(f *form.Form, t *stylefile.Table, posted url.Values) {
	names, ids := t.Names(), t.IDs()
	var pieces []form.Choice
	for i, n := range names {
		v.Pieces = append(v.Pieces, pieceView{i, n, i == t.Picked()})
		pieces = append(pieces, form.Choice{Value: ids[i], Label: n})
	}
	s := t.Stance()
	if s.Opens == "upwards" {
		s.Opens = ""
	}
	v.Stance = []form.Field{
		f.Control("stance.name", "This piece is called", "", s.Name),
		f.ChoiceField("stance.opens", "It stands", "", s.Opens, standsWords...),
		f.Control("stance.stands", "High above the table", "when shut; empty: on it", s.Stands),
		f.Control("stance.lifts", "Lifted to open", "empty: it is not", s.Lifts),
	}
	faces := t.Faces()
	v.divide(f, t, faces, posted)
	for i, b := range t.Bites() {
		is := "notch"
		if b.Hole {
			is = "hole"
		}
		at := func(field string) string { return fmt.Sprintf("bite.%d.%s", i, field) }
		which := fmt.Sprintf("Cut %d", i+1)
		v.Bites = append(v.Bites, biteView{
			f.ChoiceField(at("is"), which+" is a", "", is, form.Choice{Value: "notch", Label: "half circle out of an edge"}, form.Choice{Value: "hole", Label: "round hole"}),
			f.ChoiceField(at("face"), which+" is in", "", b.Face, form.Plain(faces...)...),
			f.Control(at("x"), which+", its centre across", "", b.X), f.Control(at("y"), which+", its centre down", "", b.Y), f.Control(at("radius"), which+", its radius", "", b.Radius),
		})
	}
	var kinds []form.Choice
	for _, k := range stylefile.Kinds {
		kinds = append(kinds, form.Choice{Value: k, Label: overWords[k]})
	}
	for i, o := range t.Overs() {
		at := func(field string) string { return fmt.Sprintf("over.%d.%s", i, field) }
		which := fmt.Sprintf("Fit %d: ", i+1)
		v.Overs = append(v.Overs, overView{
			f.ChoiceField(at("kind"), which+"how it goes over", "", o.Kind, kinds...),
			f.ChoiceField(at("outer"), which+"the outer piece", "", o.Outer, pieces...), f.ChoiceField(at("inner"), which+"the inner piece", "", o.Inner, pieces...),
			f.ChoiceField(at("along"), which+"along", "", o.Along, form.Plain("length", "width", "height")...),
			f.Control(at("outer_span"), which+"the outer between its scores", "", o.OuterSpan), f.Control(at("inner_span"), which+"the inner between its scores", "", o.InnerSpan),
			f.Control(at("outer_depth"), which+"the outer walls come down", "", o.OuterDepth), f.Control(at("inner_depth"), which+"the inner walls are high", "", o.InnerDepth),
		})
	}
	as, usual := t.Allow()
	if as != "" || len(v.Overs) > 0 {
		v.Allow = []form.Field{f.Control("allow.as", "Its name in formulas", "empty: there is none", as), f.Control("allow.usual", "Usually", "empty: 1/16 in", usual)}
	}
}

// divide readies a line that parts a face, and the faces that are parted.
func (v *tablePage) divide(f *form.Form, t *stylefile.Table, faces []string, posted url.Values) {
	face := posted.Get("divide.face")
	if parts := t.Parts(face); parts != nil { // parted just now
		face = parts[len(parts)-1]
	}
	if !slices.Contains(faces, face) {
		face = t.Root()
	}
	if !slices.Contains(faces, face) && len(faces) > 0 {
		face = faces[0]
	}
	v.parting = face
	points := t.Points(face)
	pick := func(field string, usual int) string {
		if got := posted.Get(field); slices.Contains(points, got) {
			return got
		}
		if usual < len(points) {
			return points[usual]
		}
		return ""
	}
	v.Divide = []form.Field{
		f.ChoiceField("divide.face", "A line over", "", face, form.Plain(faces...)...),
		f.ChoiceField("divide.from", "from", "", pick("divide.from", 0), form.Plain(points...)...),
		f.ChoiceField("divide.to", "to", "", pick("divide.to", len(points)/2), form.Plain(points...)...),
		f.Control("divide.rise", "an arc that rises by", "empty: a straight line; less than nothing: it bends the other way", posted.Get("divide.rise")),
		f.Control("divide.folded", "folded by degrees", "along an arc: empty to cut it apart", posted.Get("divide.folded")),
	}
	for i, n := range t.Divided() {
		x := dividedView{N: i, Face: n}
		for k, part := range t.Parts(n) {
			if part == "." {
				part = ""
			}
			x.Parts = append(x.Parts, f.Control(fmt.Sprintf("part.%d.%d", i, k), fmt.Sprintf("Part %d of %s", k+1, n), "empty: cut away", part))
		}
		v.Divided = append(v.Divided, x)
	}
}

// applyPieces puts what was posted of a piece's shapes and of what goes over what into the
// table.
func applyPieces(t *stylefile.Table, posted url.Values) {
	get, has := posted.Get, posted.Has
	if has("stance.name") {
		t.SetStance(stylefile.Stance{Name: get("stance.name"), Opens: get("stance.opens"), Stands: get("stance.stands"), Lifts: get("stance.lifts")})
	}
	bites := t.Bites()
	for i := range bites {
		at := fmt.Sprintf("bite.%d.", i)
		if has(at + "radius") {
			bites[i] = stylefile.Bite{Hole: get(at+"is") == "hole", Face: get(at + "face"), X: get(at + "x"), Y: get(at + "y"), Radius: get(at + "radius")}
		}
	}
	t.SetBites(bites)
	for i := range t.Overs() {
		at := fmt.Sprintf("over.%d.", i)
		if has(at + "kind") {
			t.SetOver(i, stylefile.Over{
				Kind: get(at + "kind"), Outer: get(at + "outer"), Inner: get(at + "inner"), Along: get(at + "along"),
				OuterSpan: get(at + "outer_span"), InnerSpan: get(at + "inner_span"), OuterDepth: get(at + "outer_depth"), InnerDepth: get(at + "inner_depth"),
			})
		}
	}
	t.DropOvers()
	if has("allow.as") {
		t.SetAllow(get("allow.as"), get("allow.usual"))
	}
	for i, face := range t.Divided() {
		for k := range t.Parts(face) {
			if name := fmt.Sprintf("part.%d.%d", i, k); has(name) {
				t.RenamePart(face, k, get(name))
			}
		}
	}
}

// doPieces does what a button of the table asks of pieces and shapes; what it refuses
// changes nothing.
func doPieces(t *stylefile.Table, what string, n int, posted url.Values) error {
	switch what {
	case "piece":
		t.Pick(n)
	case "piece-add":
		t.AddPiece()
	case "piece-away":
		t.RemovePiece()
	case "divide":
		return part(t, posted)
	case "whole":
		if all := t.Divided(); n < len(all) {
			t.Whole(all[n])
		}
	case "notch", "hole":
		t.AddBite(what == "hole")
	case "over":
		t.AddOver()
	}
	return nil
}

// part parts a face by a line: straight, cut along an arc, or folded along one.
func part(t *stylefile.Table, posted url.Values) error {
	face, from, to := posted.Get("divide.face"), posted.Get("divide.from"), posted.Get("divide.to")
	rise, folded := strings.TrimSpace(posted.Get("divide.rise")), strings.TrimSpace(posted.Get("divide.folded"))
	if rise != "" && folded != "" {
		return t.Curve(face, from, to, rise, folded)
	}
	before := t.Parts(face)
	if err := t.Divide(face, from, to, rise); err != nil || folded == "" || before != nil {
		return err
	}
	parts := t.Parts(face)
	t.SetEdge(parts[0], parts[1], "fold", folded)
	return nil
}
