package workspace

import (
	"cmp"
	"context"
	"fmt"
	"html/template"
	"slices"
	"strconv"
	"strings"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/loose"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
	"brevium/draw"
	"brevium/web/form"
	"brevium/web/page"
)

// slipHead is what stands over the questions about one thing that dresses the box. It is open
// when it is the only one, or was put on just now.
type slipHead struct {
	ID, Name, Says string
	Open           bool
}

// head is that of the nth of so many of a kind.
func (p *dressingPage) head(kind string, n, of int, name, says string) slipHead {
	return slipHead{fmt.Sprintf("%s-%d", kind, n), name, says, p.things(&p.Box.Inputs) == 1 || p.Changed && n == of-1}
}

// things is how many things dress the box.
func (p *dressingPage) things(in *design.Inputs) int {
	n := len(in.Mats) + len(in.Bands) + len(in.Covers) + len(in.Ribbons) + len(in.Closures) + len(in.Labels) + len(in.Windows) + len(in.Loose)
	if in.Wrap != nil {
		n++
	}
	return n
}

// dressView is one mat as the ticket asks about it: the faces it goes on, by
// their plain names, and its layers.
type dressView struct {
	Head        slipHead
	N           int
	Piece, Name string
	FacesName   string
	FacesFault  string
	Faces       []faceTick
	Side        form.Field
	Joined      bool
	Across      bool
	Shape       form.Field
	Radius      []form.Field // asked for where corners are rounded
	Count, Runs form.Field
	Layer       []layerView
}

// layerView is one layer of a mat: its card, and what shows round it.
type layerView struct {
	Card   form.CardView
	Border []form.Field
	Size   []form.Field
	Sized  bool
}

type faceTick struct {
	ID, Words string
	On        bool
}

// dressable is a piece that a mat can be put on.
type dressable struct{ ID, Name string }

// shapeChoices are what a paper is cut to.
var shapeChoices = []form.Choice{
	{Value: string(dress.AsMakersDo), Label: "rectangles, where that nearly covers"},
	{Value: string(dress.Square), Label: "rectangles, whatever the face"},
	{Value: string(dress.Rounded), Label: "rectangles to the edge, corners rounded"},
	{Value: string(dress.FaceShaped), Label: "the face's own shape, by template"},
}

// dressingStop is where papers, bands and all else that dresses the box are put on.
var dressingStop = &stop{
	ID: "dressing", Title: "Papers on top", Decides: "Say which faces get paper or card, or press them in the drawing.",
	read: readDressing, page: showDressing, small: true,
	answer: func(p *workPage) string { return dressingAnswer(p.Result) },
}

type dressingPage struct {
	*workPage
	lots         []drawer.Lot // in the drawer
	Shelf        []paper.Card // to choose from
	Dressings    []dressView
	Dressable    []dressable
	Loose        []looseView
	LooseChoices []looseChoice
	Bands        []bandView
	Round        goodsView
	Closures     []closureView
	MayClose     string // the flap that can be held shut, if any
	Labels       []labelView
	Windows      []windowView
}

func showDressing(ctx context.Context, frame *workPage) (any, error) {
	lots, err := frame.room.Store.Of(ctx).Lots(ctx)
	if err != nil {
		return nil, err
	}
	in := &frame.Box.Inputs
	p := &dressingPage{workPage: frame, lots: lots, Shelf: shelf(in, lots)}
	p.fill(in, frame.Form)
	return p, nil
}

// Folded draws the finished box, its faces to be pressed.
func (p *dressingPage) Folded() template.HTML {
	return page.Draw(&p.room.Drawn, p.Result, "folded, to be dressed", p.dressed)
}

func (p *dressingPage) dressed() template.HTML {
	picture, err := draw.ModelOf(p.Result, false).Picks().Look(p.Result.Style.Name + ", folded: press a face to dress it")
	if err != nil {
		return ""
	}
	return page.SVG(picture)
}

// Nets draws each piece flat, its faces to be pressed.
func (p *dressingPage) Nets() []netView {
	return page.Draw(&p.room.Drawn, p.Result, "nets, to be dressed", func() []netView { return nets(p.Result, true) })
}

// MayNumber reports whether the box has rooms with fronts to put numbers on.
func (p *dressingPage) MayNumber() bool {
	if p.Result == nil {
		return false
	}
	_, can := p.Result.Numbered()
	return can
}

// dressingAnswer tells in half a line what dresses the box.
func dressingAnswer(r *design.Result) string {
	var parts []string
	bought := 0
	for _, l := range r.Inputs.Labels {
		if l.What.Bought() {
			bought++
		}
	}
	for _, x := range []struct {
		n    int
		noun string
	}{{len(r.Mats), "paper"}, {len(r.Inputs.Covers), "covering"}, {len(r.Bands), "band"}, {len(r.Ribbons), "ribbon"}, {len(r.Inputs.Labels) - bought, "label"}, {bought, "ornament"}, {len(r.Inputs.Windows), "window"}} {
		if x.n > 0 {
			parts = append(parts, page.Counted(x.n, x.noun))
		}
	}
	if r.Wrapped != nil {
		parts = append(parts, "wrapped")
	}
	if len(parts) == 0 {
		return "plain"
	}
	return strings.Join(parts[:min(2, len(parts))], ", ")
}

// MatSets are the mats to cut, alike ones together.
func (p *dressingPage) MatSets() []recipe.MatSet { return recipe.MatSets(p.Result.Mats) }

// fill makes the fields.
func (p *dressingPage) fill(in *design.Inputs, f *form.Form) {
	p.loose(in, f)
	if p.Result == nil {
		return
	}
	p.bands(in, f)
	p.goods(in, f)
	p.closures(in, f)
	p.labels(in, f)
	p.windows(in, f)
	for _, part := range p.Result.Parts {
		if part.Loose && !slices.ContainsFunc(in.Loose, func(x loose.Piece) bool { return x.PieceID() == part.ID }) {
			continue // a band or a covering has its paper
		}
		if len(part.Places) == 0 || len(dress.Open(part.Pattern, part.Faces, dress.Outside)) > 0 {
			p.Dressable = append(p.Dressable, dressable{part.ID, part.Name})
		}
	}
	for n, d := range in.Mats {
		i := slices.IndexFunc(p.Result.Parts, func(x design.Part) bool { return x.ID == d.Piece })
		if i < 0 {
			continue
		}
		part := p.Result.Parts[i]
		at := func(path ...any) string { return fault.Path(append([]any{"mats", n}, path...)...) }
		v := dressView{N: n, Piece: d.Piece, Name: part.Name, FacesName: at("faces"), Joined: d.Joined, Across: d.Across}
		v.Shape = f.ChoiceField(at("shape"), "Cut as", "", string(d.Shape), shapeChoices...)
		if d.Shape == dress.Rounded {
			hint := "what the corner rounder cuts"
			if own := in.Tools.Owned.Rounders; len(own) > 0 {
				hint = "yours cut " + f.LengthsText(own)
			}
			v.Radius = []form.Field{f.LengthField(at("radius"), "Rounded to", hint, d.Radius)}
		}
		shown := dress.Open(part.Pattern, part.Faces, d.Side)
		for _, face := range part.Faces {
			on := d.Covers(face.Name, face.Role)
			if on && face.Role != pattern.Bend || slices.ContainsFunc(shown, func(o pattern.Face) bool { return o.Name == face.Name }) {
				v.Faces = append(v.Faces, faceTick{face.Name, face.Plain(), on})
			}
		}
		first := fmt.Sprintf("mat-%d-%s", n, v.Faces[0].ID)
		v.FacesFault = f.Group(v.FacesName, "Faces it goes on", first)
		for k := range d.Faces {
			v.FacesFault = cmp.Or(v.FacesFault, f.Group(at("faces", k), "Faces it goes on", first))
		}
		side := d.Side
		if side == "" {
			side = dress.Outside
		}
		v.Side = f.ChoiceField(at("side"), "On its", "", string(side), form.Plain("outside", "inside")...)
		v.Count = f.ChoiceField(at("layers"), "Layers", "", fmt.Sprint(len(d.Layers)), form.Plain("1", "2", "3", "4")...)
		v.Runs = f.ChoiceField(at("runs"), "The picture", "of the top layer", string(d.Runs),
			form.Choice{Value: string(dress.Ends), Label: "ends at each face"},
			form.Choice{Value: string(dress.CutAway), Label: "runs on round the box, under what shows between"},
			form.Choice{Value: string(dress.AllKept), Label: "runs on round the box, every bit of it seen"})
		for k, l := range d.Layers {
			layer := func(part string) string { return at("layers", k, part) }
			v.Layer = append(v.Layer, layerView{f.CardView(at("layers", k), l.Card, p.Shelf), []form.Field{
				f.LengthField(layer("border"), "Border", "left and right", l.Border.Across),
				f.LengthField(layer("up"), "and", "above and below", l.Border.Up),
			}, []form.Field{
				f.LengthField(layer("width"), "Wide", "0: by the border", l.Width),
				f.LengthField(layer("height"), "High", "0: by the border", l.Height),
			}, l.Sized()})
		}
		v.Head = p.head("paper", n, len(in.Mats), "Paper on the "+strings.ToLower(part.Name), paperSays(v, d))
		p.Dressings = append(p.Dressings, v)
	}
}

// paperSays is where a paper is and what shows of it, in a few words.
func paperSays(v dressView, d dress.Dressing) string {
	var on []string
	for _, f := range v.Faces {
		if f.On {
			on = append(on, f.Words)
		}
	}
	where := strings.Join(on, ", ")
	if len(on) > 2 {
		where = page.Counted(len(on), "face")
	}
	return where + ": " + d.Layers[len(d.Layers)-1].Card.Name
}

// forgetMoved lets go of what was posted about a list of which one thing is taken
// away, for the others have new places; it reports whether one is.
func forgetMoved(f *form.Form, list string) bool {
	if !f.Posted.Has(list + ".remove") {
		return false
	}
	for name := range f.Posted {
		if strings.HasPrefix(name, list+"[") {
			f.Posted.Del(name)
		}
	}
	return true
}

// readDressing reads the mats: those there are, one that is taken away and one
// that is put on.
func readDressing(f *form.Form, in *design.Inputs, now *design.Result) {
	readLoose(f, in)
	readBands(f, in)
	readGoods(f, in)
	readClosures(f, in)
	readLabels(f, in, now)
	readWindows(f, in, now)
	var mats []dress.Dressing
	for n, d := range in.Mats {
		if f.Posted.Get("mats.remove") == strconv.Itoa(n) {
			continue
		}
		readMat(f, n, &d, in, now)
		mats = append(mats, d)
	}
	forgetMoved(f, "mats")
	in.Mats = mats
	readLining(f, in, now)
	readLike(f, in, now)
	readReady(f, in, now)
	readPalette(f, in)
	if piece := f.Posted.Get("mats.add"); piece != "" {
		i := slices.IndexFunc(now.Parts, func(p design.Part) bool { return p.ID == piece })
		if i < 0 {
			f.Fail(fault.New(fault.UnknownPiece, "mats.add", "This box has no such piece."))
			return
		}
		faces := firstFaces(in, now.Parts[i], f.Posted.Get("mats.face"))
		if len(faces) == 0 {
			f.Fail(fault.New(fault.UnknownPlace, "mats.add", "Every face of the %s that shows has its paper.", strings.ToLower(now.Parts[i].Name)))
			return
		}
		in.Mats = append(in.Mats, form.UsualMat(piece, faces, in.Units))
		f.Posted.Del("mats.add")
	}
}

// readLining lines the inside of a piece: its floor and walls, as far as they are
// bare, each to a little from its edges.
func readLining(f *form.Form, in *design.Inputs, now *design.Result) {
	i := slices.IndexFunc(now.Parts, func(p design.Part) bool { return p.ID == f.Posted.Get("mats.line") })
	f.Posted.Del("mats.line")
	if i < 0 {
		return
	}
	p := now.Parts[i]
	var faces []string
	for _, face := range dress.Open(p.Pattern, p.Faces, dress.Inside) {
		bare := !slices.ContainsFunc(in.Mats, func(d dress.Dressing) bool {
			return d.Piece == p.ID && d.Side == dress.Inside && d.Covers(face.Name, face.Role)
		})
		if bare && (face.Role == pattern.Panel || face.Role == pattern.Wall || face.Role == pattern.Lining) {
			faces = append(faces, face.Name)
		}
	}
	if len(faces) == 0 {
		f.Fail(fault.New(fault.UnknownPlace, "mats.line", "The inside of the %s is lined.", strings.ToLower(p.Name)))
		return
	}
	border := dress.Even(in.Tools.Tick.Ruler().Length())
	in.Mats = append(in.Mats, dress.Dressing{Piece: p.ID, Faces: faces, Side: dress.Inside, Layers: []dress.Layer{{Card: paper.Flocked, Border: border}}})
	in.NumberThings()
}

// firstFaces are what a new mat goes on: the face asked for; else a lid's top,
// or the walls of anything else, as far as they are bare.
func firstFaces(in *design.Inputs, p design.Part, asked string) []string {
	bare := func(role pattern.Role) []string {
		var out []string
		for _, face := range dress.Open(p.Pattern, p.Faces, dress.Outside) {
			dressed := slices.ContainsFunc(in.Mats, func(d dress.Dressing) bool {
				return d.Piece == p.ID && d.Side != dress.Inside && d.Covers(face.Name, face.Role)
			})
			if !dressed && (face.Role == role || face.Name == asked) && (asked == "" || face.Name == asked) {
				out = append(out, face.Name)
			}
		}
		return out
	}
	first, second := pattern.Wall, pattern.Panel
	if p.Opens == style.Downwards {
		first, second = second, first
	}
	for _, role := range []pattern.Role{first, second, pattern.Flap} {
		if faces := bare(role); len(faces) > 0 {
			return faces
		}
	}
	return nil
}

// readMat reads the nth mat. Faces that are the same as before leave it said as
// it was.
func readMat(f *form.Form, n int, d *dress.Dressing, in *design.Inputs, now *design.Result) {
	at := func(path ...any) string { return fault.Path(append([]any{"mats", n}, path...)...) }
	if f.Posted.Has(at("asked")) && !f.PutBack(at("faces")) {
		faces := f.Posted[at("faces")]
		var before []string
		for _, p := range now.Parts {
			if p.ID != d.Piece {
				continue
			}
			for _, face := range p.Faces {
				if d.Covers(face.Name, face.Role) && (face.Role != pattern.Bend || slices.Contains(faces, face.Name)) {
					before = append(before, face.Name)
				}
			}
		}
		switch {
		case len(faces) == 0:
			f.Fail(fault.New(fault.UnknownPlace, at("faces"), "Tick a face, or take the paper away."))
		case !slices.Equal(sorted(faces), sorted(before)):
			d.Faces, d.Where = slices.Clone(faces), ""
		}
		d.Joined, d.Across = f.Posted.Get(at("joined")) != "", f.Posted.Get(at("across")) != ""
	}
	if shape, err := dress.ParseShape(f.Posted.Get(at("shape"))); err == nil && f.Posted.Has(at("shape")) {
		d.Shape = shape
	}
	switch f.Length(at("radius"), &d.Radius); {
	case d.Shape != dress.Rounded:
		d.Radius = 0
	case d.Radius == 0:
		d.Radius = in.UsualRadius()
	}
	if runs, err := dress.ParseRun(f.Posted.Get(at("runs"))); err == nil && f.Posted.Has(at("runs")) {
		d.Runs = runs
	}
	switch side := dress.Side(f.Posted.Get(at("side"))); side {
	case dress.Inside:
		d.Side = side
	case dress.Outside:
		if d.Side == dress.Inside {
			d.Side = ""
		}
	}
	d.Layers = slices.Clone(d.Layers)
	if want, err := strconv.Atoi(f.Posted.Get(at("layers"))); err == nil && want >= 1 && want <= dress.MostLayers {
		for len(d.Layers) < want {
			d.Layers = append(d.Layers, form.UsualLayer(len(d.Layers), in.Units))
		}
		d.Layers = d.Layers[:want]
	}
	for i := range d.Layers {
		l, was := &d.Layers[i], d.Layers[i].Border
		layer := func(part string) string { return at("layers", i, part) }
		f.ReadCard(at("layers", i), &l.Card)
		f.Signed(layer("border"), &l.Border.Across)
		f.Signed(layer("up"), &l.Border.Up)
		f.Length(layer("width"), &l.Width)
		f.Length(layer("height"), &l.Height)
		if was.Across == was.Up && l.Border.Up == was.Up { // it follows
			l.Border.Up = l.Border.Across
			if f.OK() {
				f.Posted.Del(layer("up"))
			}
		}
	}
}

func sorted(all []string) []string {
	out := slices.Clone(all)
	slices.Sort(out)
	return out
}
