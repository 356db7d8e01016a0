package workspace

import (
	"slices"
	"strconv"
	"strings"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/label"
	"brevium/web/form"
)

// windowView is a window as the ticket asks about it.
type windowView struct {
	Head          slipHead
	N             int
	Fields, Where []form.Field
	Placed        bool // not in the middle of its face
	Film          bool
}

func windowAt(n int, path ...any) string {
	return fault.Path(append([]any{"windows", n}, path...)...)
}

// windows shows the windows.
func (p *dressingPage) windows(in *design.Inputs, f *form.Form) {
	places := p.openFaces()
	for n, w := range in.Windows {
		at := func(path ...any) string { return windowAt(n, path...) }
		place := w.Piece + "/" + w.Face
		v := windowView{N: n, Film: w.Film, Placed: w.Place != (label.Place{}), Where: whereFields(f, at, w.Place, "from that edge of the face")}
		v.Fields = []form.Field{
			f.ChoiceField(at("face"), "It is in the", "", place, places...),
			f.ChoiceField(at("shape"), "Shape", "", string(w.Shape), form.Plain(asPlain(label.WindowShapes)...)...),
			f.LengthField(at("width"), "Width", "", w.Width),
			f.LengthField(at("height"), "Height", "", w.Height),
		}
		says := ""
		if i := slices.IndexFunc(places, func(c form.Choice) bool { return c.Value == place }); i >= 0 {
			says = places[i].Label
		}
		v.Head = p.head("window", n, len(in.Windows), "Window", says)
		p.Windows = append(p.Windows, v)
	}
}

// readWindows reads them: those there are, one that is taken away, one that is added.
func readWindows(f *form.Form, in *design.Inputs, now *design.Result) {
	away, err := strconv.Atoi(f.Posted.Get("windows.remove"))
	if err != nil {
		away = -1
	}
	var all []label.Window
	for n, w := range in.Windows {
		if n != away {
			all = append(all, readWindow(f, n, w))
		}
	}
	forgetMoved(f, "windows")
	if f.Posted.Has("windows.add") && len(all) < design.MostWindows {
		all = append(all, now.UsualWindow())
	}
	f.Posted.Del("windows.add")
	in.Windows = all
	in.NumberThings()
}

func readWindow(f *form.Form, n int, w label.Window) label.Window {
	at := func(path ...any) string { return windowAt(n, path...) }
	if v := label.Shape(f.Posted.Get(at("shape"))); slices.Contains(label.WindowShapes, v) && v != w.Shape {
		if w.Shape = v; v == label.Circle {
			w.Width = min(w.Width, w.Height)
			w.Height = w.Width
			f.Posted.Del(at("width"))
			f.Posted.Del(at("height"))
		}
	}
	f.Length(at("width"), &w.Width)
	f.Length(at("height"), &w.Height)
	if piece, face, ok := strings.Cut(f.Posted.Get(at("face")), "/"); ok {
		w.Piece, w.Face = piece, face
	}
	readWhere(f, at, &w.Place)
	if f.Posted.Has(at("asked")) {
		w.Film = f.Posted.Get(at("film")) != ""
	}
	return w
}
