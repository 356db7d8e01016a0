package workspace

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/band"
	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/paper"
	"brevium/web/form"
)

// coverView is a covering, ribbonView a ribbon and wrapView the wrapping paper, as
// the ticket asks about them, and what each came to.
type (
	coverView struct {
		Head   slipHead
		N      int
		Name   string
		Fields []form.Field
		Card   form.CardView
		Sheet  string
	}
	ribbonView struct {
		Head   slipHead
		N      int
		Name   string
		Fields []form.Field
		Length string
	}
	wrapView struct {
		Head   slipHead
		Fields []form.Field
		Card   form.CardView
		Sheet  string
	}
)

// goodsView is all that covers, ties and wraps the box.
type goodsView struct {
	Covers    []coverView
	Coverable []dressable
	Ribbons   []ribbonView
	Wrap      *wrapView
}

func coverAt(n int, part string) string  { return fault.Path("covers", n, part) }
func ribbonAt(n int, part string) string { return fault.Path("ribbons", n, part) }

var bowChoices = []form.Choice{
	{Value: string(band.Single), Label: "a bow of two loops"}, {Value: string(band.Double), Label: "a bow of four loops"},
	{Value: string(band.Paper), Label: "a bow of paper loops"}, {Value: string(band.Knot), Label: "a knot"}, {Value: string(band.Curls), Label: "a knot with four curls"}, {Value: string(band.Lapped), Label: "nothing: lapped and glued"},
}

// goods shows them.
func (p *dressingPage) goods(in *design.Inputs, f *form.Form) {
	for n, c := range in.Covers {
		v := coverView{N: n, Name: strings.ToLower(p.Result.PieceName(c.Piece)), Card: f.CardView(coverAt(n, "card"), c.Card, p.Shelf)}
		v.Fields = []form.Field{
			f.LengthField(coverAt(n, "turn_in"), "Turned in", "over the rim to the inside", c.TurnIn),
			f.ChoiceField(coverAt(n, "corners"), "At the corners the walls", "", string(c.Corners),
				form.Choice{Value: string(dress.LappedCorners), Label: "lap one under the other"}, form.Choice{Value: string(dress.MeetingCorners), Label: "meet edge to edge"}),
		}
		for _, part := range p.Result.Parts {
			if part.ID == c.PieceID() {
				v.Sheet = p.Result.Show(part.Pattern.Width) + " × " + p.Result.Show(part.Pattern.Height)
			}
		}
		v.Head = p.head("cover", n, len(in.Covers), "Paper all over the "+v.Name, c.Card.Name)
		p.Round.Covers = append(p.Round.Covers, v)
	}
	for _, part := range p.Result.Parts {
		if design.Coverable(part) && !slices.ContainsFunc(in.Covers, func(c dress.Cover) bool { return c.Piece == part.ID }) {
			p.Round.Coverable = append(p.Round.Coverable, dressable{part.ID, part.Name})
		}
	}
	for n, x := range in.Ribbons {
		v := ribbonView{N: n, Name: x.Name}
		colour := f.Control(ribbonAt(n, "colour"), "Colour", "", string(x.Colour))
		colour.Kind = "color"
		v.Fields = []form.Field{
			f.Control(ribbonAt(n, "name"), "Ribbon or string", "its name", x.Name), colour,
			f.ChoiceField(ribbonAt(n, "way"), "It goes", "", x.Way, form.Choice{Value: "crossed", Label: "crossed on the top"},
				form.Choice{Value: "length", Label: "once over front and back"}, form.Choice{Value: "width", Label: "once over both ends"}, form.Choice{Value: "height", Label: "round the walls"},
				form.Choice{Value: design.ByHandle, Label: "over it as a handle"}, form.Choice{Value: design.ThroughTop, Label: "through the top, tied on it"}, form.Choice{Value: design.ByPull, Label: "out of a wall, to pull by"}),
			f.LengthField(ribbonAt(n, "width"), "Width", "", x.Tied.Width),
		}
		if x.Ties() {
			v.Fields = append(v.Fields, f.ChoiceField(ribbonAt(n, "bow"), "Its ends make", "", string(x.Tied.Bow), bowChoices...))
		}
		if x.Way == design.ByHandle {
			v.Fields = append(v.Fields, f.LengthField(ribbonAt(n, "rise"), "The handle stands", "over the box", x.Rise))
		}
		if x.Way == design.ByPull && x.Cut == 0 { // else its length says it
			v.Fields = append(v.Fields, f.LengthField(ribbonAt(n, "rise"), "The loop stands out", "of the wall", x.Rise))
		}
		v.Fields = append(v.Fields, f.LengthField(ribbonAt(n, "length"), "You cut it", "0 has it worked out", x.Cut))
		if x.Ties() {
			v.Fields = append(v.Fields, bowFields(f, n, x)...)
		}
		if n < len(p.Result.Ribbons) {
			v.Length = p.Result.Show(p.Result.Ribbons[n].Length)
		}
		v.Head = p.head("ribbon", n, len(in.Ribbons), x.Name, v.Length)
		p.Round.Ribbons = append(p.Round.Ribbons, v)
	}
	if w := in.Wrap; w != nil {
		v := &wrapView{Card: f.CardView("wrap.card", w.Card, p.Shelf)}
		v.Fields = []form.Field{
			f.ChoiceField("wrap.way", "The box lies", "", w.Way, form.Choice{Value: "straight", Label: "straight on it"}, form.Choice{Value: "diagonal", Label: "across it, on the diagonal"}),
			f.LengthField("wrap.roll", "The roll is", "wide", w.Roll),
		}
		if r := p.Result.Wrapped; r != nil {
			v.Sheet = p.Result.Show(r.Width) + " × " + p.Result.Show(r.Height)
			if n := in.Copies; n > 1 {
				v.Sheet += fmt.Sprintf(", %d of them %s off the roll", n, p.Result.Show(r.OffRoll))
			}
		}
		v.Head = p.head("wrap", 0, 1, "Wrapping paper", v.Sheet)
		p.Round.Wrap = v
	}
}

// bowFields ask how large the bow of a ribbon is.
func bowFields(f *form.Form, n int, x design.Ribbon) (out []form.Field) {
	if x.Tied.Bow == band.Paper {
		out = append(out, f.Control(ribbonAt(n, "loops"), "Loops of the bow", "", strconv.Itoa(x.Loops)))
	}
	if x.Tied.Bow.Loops() > 0 || x.Tied.Bow == band.Paper {
		out = append(out, f.LengthField(ribbonAt(n, "loop"), "Each loop", "from the knot", x.Tied.Loop))
	}
	if x.Tied.Bow.Tails() > 0 {
		out = append(out, f.LengthField(ribbonAt(n, "tail"), "Each tail", "from the knot", x.Tied.Tail))
	}
	return out
}

// readGoods reads them: those there are, one that is taken away, one that is added.
func readGoods(f *form.Form, in *design.Inputs) {
	readCovers(f, in)
	readRibbons(f, in)
	switch {
	case f.Posted.Has("wrap.remove"):
		in.Wrap = nil
	case in.Wrap != nil:
		w := *in.Wrap
		if v := f.Posted.Get("wrap.way"); slices.Contains(design.WrapWays, v) {
			w.Way = v
		}
		f.LongLength("wrap.roll", &w.Roll)
		f.ReadCard("wrap.card", &w.Card)
		in.Wrap = &w
	case f.Posted.Has("wrap.add"):
		in.Wrap = design.UsualWrapping(in.Units)
	}
	f.Posted.Del("wrap.add")
}

func readCovers(f *form.Form, in *design.Inputs) {
	var covers []dress.Cover
	for n, c := range in.Covers {
		if f.Posted.Get("covers.remove") == strconv.Itoa(n) {
			continue
		}
		f.Length(coverAt(n, "turn_in"), &c.TurnIn)
		if v := dress.CoverCorner(f.Posted.Get(coverAt(n, "corners"))); slices.Contains(dress.CoverCorners, v) {
			c.Corners = v
		}
		f.ReadCard(coverAt(n, "card"), &c.Card)
		covers = append(covers, c)
	}
	forgetMoved(f, "covers")
	in.Covers = covers
	if piece := f.Posted.Get("covers.add"); piece != "" {
		in.Covers = append(in.Covers, design.UsualCover(piece, in.Units))
		in.NumberThings()
		f.Posted.Del("covers.add")
	}
}

func readRibbons(f *form.Form, in *design.Inputs) {
	var ribbons []design.Ribbon
	for n, x := range in.Ribbons {
		if f.Posted.Get("ribbons.remove") == strconv.Itoa(n) {
			continue
		}
		if f.Text(ribbonAt(n, "name"), &x.Name); x.Name == "" {
			f.Fail(fault.New(fault.Empty, ribbonAt(n, "name"), "Give the ribbon a name, such as satin ribbon."))
		}
		if c, err := paper.ParseColour(f.Posted.Get(ribbonAt(n, "colour"))); err == nil {
			x.Colour = c
		}
		if v := f.Posted.Get(ribbonAt(n, "way")); slices.Contains(design.RibbonWays, v) {
			x.Way = v
		}
		if v := band.Bow(f.Posted.Get(ribbonAt(n, "bow"))); slices.Contains(band.Bows, v) {
			x.Tied.Bow = v
		}
		f.Length(ribbonAt(n, "width"), &x.Tied.Width)
		f.Length(ribbonAt(n, "loop"), &x.Tied.Loop)
		f.Length(ribbonAt(n, "tail"), &x.Tied.Tail)
		f.Length(ribbonAt(n, "rise"), &x.Rise)
		f.LongLength(ribbonAt(n, "length"), &x.Cut)
		f.Whole(ribbonAt(n, "loops"), &x.Loops)
		ribbons = append(ribbons, x)
	}
	forgetMoved(f, "ribbons")
	in.Ribbons = ribbons
	if f.Posted.Get("ribbons.add") != "" && len(in.Ribbons) < design.MostRibbons {
		in.Ribbons = append(in.Ribbons, design.UsualRibbon(in.Units))
		in.NumberThings()
		f.Posted.Del("ribbons.add")
	}
}
