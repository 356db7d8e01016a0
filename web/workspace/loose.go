package workspace

import (
	"fmt"
	"slices"
	"strconv"

	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/loose"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/web/form"
)

// looseView is one loose piece as its slip asks about it.
type looseView struct {
	Head       slipHead
	N          int
	Name       string
	Size, More []form.Field
	Lines      []form.Field
	Card       form.CardView
	OwnCard    bool
}

// looseChoice is a usual loose piece that can be added.
type looseChoice struct{ ID, Name, For string }

func looseAt(n int, path ...any) string { return fault.Path(append([]any{"loose", n}, path...)...) }

// loose shows the slips of the loose pieces, and what can be added.
func (p *dressingPage) loose(in *design.Inputs, f *form.Form) {
	for _, u := range loose.Usual {
		if u.ID == "tag" || u.ID == "label" {
			continue // with shapes and words of their own they stand above
		}
		p.LooseChoices = append(p.LooseChoices, looseChoice{u.ID, u.Name, u.For})
	}
	for n, x := range in.Loose {
		at := func(path ...any) string { return looseAt(n, path...) }
		v := looseView{N: n, Name: x.Name, OwnCard: x.Card != nil}
		v.Size = []form.Field{
			f.Control(at("name"), "Its name", "", x.Name),
			f.Control(at("copies"), "How many", "for each box", fmt.Sprint(x.Copies)),
			f.LengthField(at("width"), "Width", "", x.Width),
			f.LengthField(at("height"), "Height", "", x.Height),
		}
		v.More = []form.Field{f.ChoiceField(at("corners"), "Corners", "", string(x.Corners), form.Plain("square", "rounded", "cut")...)}
		if x.Corners != loose.Square {
			v.More = append(v.More, f.LengthField(at("radius"), "Off each corner", "", x.Radius))
		}
		v.Lines = []form.Field{
			f.Control(at("scores.vertical"), "Scores, from the left edge", "such as 1; 6", f.LengthsText(x.Vertical)),
			f.Control(at("scores.horizontal"), "Scores, from the top edge", "", f.LengthsText(x.Horizontal)),
			f.Control(at("part_scores"), "Slanting or short scores", "from across, down to across, down: 0, 1 to 2, 1", f.LinesText(x.Part)),
			f.Control(at("slits"), "Slits", "told like these", f.LinesText(x.Slits)),
			f.Control(at("holes"), "Holes", "middle across, down: size, such as 1, 2: 1/4 or 1, 2: 1 × 1/2", f.HolesText(x.Holes)),
		}
		v.Card = f.CardView(at("card"), in.LooseCard(x), p.Shelf)
		v.Head = p.head("loose", n, len(in.Loose), x.Name, measure.Labels(in.Units, in.Tools.Tick, x.Width, x.Height))
		p.Loose = append(p.Loose, v)
	}
}

// readLoose reads the slips: those there are, one that is taken away and one
// that is added.
func readLoose(f *form.Form, in *design.Inputs) {
	var all []loose.Piece
	gone := ""
	for n, p := range in.Loose {
		if f.Posted.Get("loose.remove") == strconv.Itoa(n) {
			gone = p.PieceID()
			continue
		}
		all = append(all, readLoosePiece(f, n, p.Clone(), in.Card))
	}
	if forgetMoved(f, "loose") {
		in.Mats = slices.DeleteFunc(slices.Clone(in.Mats), func(d dress.Dressing) bool { return gone != "" && d.Piece == gone })
	}
	in.Loose = all
	if id := f.Posted.Get("loose.add"); id != "" {
		p, known := loose.Begin(id, in.Units)
		if !known || len(all) >= design.MostLoose {
			f.Fail(fault.New(fault.CountRange, "loose.add", "A box has at most %d kinds of loose piece.", design.MostLoose))
			return
		}
		in.Loose = append(in.Loose, p)
		f.Posted.Del("loose.add")
	}
}

func readLoosePiece(f *form.Form, n int, p loose.Piece, box paper.Card) loose.Piece {
	at := func(path ...any) string { return looseAt(n, path...) }
	f.Text(at("name"), &p.Name)
	f.Whole(at("copies"), &p.Copies)
	f.Length(at("width"), &p.Width)
	f.Length(at("height"), &p.Height)
	if c := loose.Corners(f.Posted.Get(at("corners"))); slices.Contains(loose.AllCorners, c) && c != p.Corners {
		p.Corners = c
		p.Radius = 0
		if c != loose.Square {
			p.Radius = min(p.Width, p.Height) / 4
		}
		f.Posted.Del(at("radius"))
	}
	f.Length(at("radius"), &p.Radius)
	f.Lengths(at("scores.vertical"), &p.Vertical)
	f.Lengths(at("scores.horizontal"), &p.Horizontal)
	f.Lines(at("part_scores"), &p.Part)
	f.Lines(at("slits"), &p.Slits)
	f.Holes(at("holes"), &p.Holes)
	p.Card = readOwnCard(f, at("card"), p.Card, box)
	return p
}
