package workspace

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/style"
	"brevium/web/form"
)

// readyWay is a way to dress a box to begin with.
type readyWay struct{ ID, Name string }

// readyWays in the order they are offered.
var readyWays = []readyWay{{"walls", "All walls"}, {"top", "Front and lid"}, {"band", "A band alone"}, {"plain", "Plain"}}

// atHand chooses two of the shelf for a box of a card: a plain card that is told
// from it, and a printed paper.
func atHand(box paper.Card, shelf []paper.Card) (under, over paper.Card) {
	seen := box.Seen()
	for _, c := range shelf {
		l := c.Seen()
		printed := l.Print != paper.Plain || l.Photo.ID != ""
		switch {
		case c.Key() == box.Key():
		case printed && over.Name == "" && c.GSM <= 170:
			over = c
		case !printed && under.Name == "" && l.Outside != seen.Outside && c.Thickness <= thickest:
			under = c
		}
	}
	return under, over
}

// Ready are the ways to begin, with the papers they take; none where the shelf
// has no two that go together.
func (p *dressingPage) Ready() []readyWay {
	if under, over := atHand(p.Box.Inputs.Card, p.Shelf); under.Name == "" || over.Name == "" {
		return nil
	}
	return readyWays
}

// ReadyCards writes the papers of the ready ways, for their buttons to send back.
func (p *dressingPage) ReadyCards() []string {
	under, over := atHand(p.Box.Inputs.Card, p.Shelf)
	return []string{form.CardText(under), form.CardText(over)}
}

// ReadyNames says what they are.
func (p *dressingPage) ReadyNames() string {
	under, over := atHand(p.Box.Inputs.Card, p.Shelf)
	return over.Name + " on " + under.Name
}

// readReady dresses the box in one of the ready ways, in place of the papers and
// bands it had.
func readReady(f *form.Form, in *design.Inputs, now *design.Result) {
	way := f.Posted.Get("ready")
	f.Posted.Del("ready")
	var cards []paper.Card
	for _, text := range f.Posted["ready.card"] {
		if c, ok := form.CardOfText(text); ok {
			cards = append(cards, c)
		}
	}
	if way == "" || len(cards) != 2 || !slices.ContainsFunc(readyWays, func(w readyWay) bool { return w.ID == way }) {
		return
	}
	for name := range f.Posted { // about what there was
		for _, list := range []string{"mats[", "bands["} {
			if strings.HasPrefix(name, list) {
				f.Posted.Del(name)
			}
		}
	}
	in.Mats, in.Bands = nil, nil
	border := form.UsualLayer(0, in.Units).Border
	put := func(piece string, faces []string) {
		if len(faces) > 0 {
			in.Mats = append(in.Mats, dress.Dressing{Piece: piece, Faces: faces, Layers: []dress.Layer{{Card: cards[0], Border: border}, {Card: cards[1], Border: border}}})
		}
	}
	first := true
	for _, p := range now.Parts {
		if p.Loose || len(p.Places) > 0 {
			continue
		}
		front, walls, panel := openFaces(p)
		switch {
		case way == "walls":
			put(p.ID, walls)
		case way == "top" && first:
			put(p.ID, front)
			if p.Opens != style.Downwards && len(now.Parts) == 1 {
				put(p.ID, panel)
			}
		case way == "top" && p.Opens == style.Downwards:
			put(p.ID, panel)
		}
		first = false
	}
	if way == "band" {
		b := design.UsualBand(in.Units)
		b.Card = &cards[1]
		in.Bands = []design.Band{b}
	}
	in.NumberThings()
}

// least is the narrowest face that a ready way puts papers on.
const leastReady = 18.0

// openFaces are the faces of a part that a ready way dresses: its front, its walls,
// and its panel.
func openFaces(p design.Part) (front, walls, panel []string) {
	for _, f := range dress.Open(p.Pattern, p.Faces, dress.Outside) {
		along, up := f.Frame().Size(f.Polygon)
		if min(along, up) < leastReady {
			continue
		}
		switch f.Role {
		case pattern.Wall:
			walls = append(walls, f.Name)
			if style.IsFront(f) {
				front = append(front, f.Name)
			}
		case pattern.Panel:
			if style.IsFront(f) {
				front = append(front, f.Name)
			} else {
				panel = append(panel, f.Name)
			}
		}
	}
	if len(front) == 0 && len(walls) > 0 {
		front = walls[:1]
	}
	return front, walls, panel
}

// Lineable is the piece that things go into, whose inside can be lined; nil when
// there is none, or it is lined.
func (p *dressingPage) Lineable() *dressable {
	if p.Result == nil || len(p.Result.Parts) == 0 {
		return nil
	}
	part := p.Result.Parts[0]
	lined := slices.ContainsFunc(p.Box.Inputs.Mats, func(d dress.Dressing) bool { return d.Piece == part.ID && d.Side == dress.Inside })
	if lined || len(dress.Open(part.Pattern, part.Faces, dress.Inside)) == 0 {
		return nil
	}
	return &dressable{part.ID, part.Name}
}

// readLike puts a paper onto all faces like those it is on: of the same piece and
// kind, as wide and as high.
func readLike(f *form.Form, in *design.Inputs, now *design.Result) {
	n, err := strconv.Atoi(f.Posted.Get("mats.like"))
	f.Posted.Del("mats.like")
	if err != nil || n < 0 || n >= len(in.Mats) {
		return
	}
	d := &in.Mats[n]
	i := slices.IndexFunc(now.Parts, func(p design.Part) bool { return p.ID == d.Piece })
	if i < 0 {
		return
	}
	type size struct {
		role      pattern.Role
		along, up int // tenths of a mm
	}
	of := func(x pattern.Face) size {
		along, up := x.Frame().Size(x.Polygon)
		return size{x.Role, int(along*10 + 0.5), int(up*10 + 0.5)}
	}
	var like []size
	for _, x := range now.Parts[i].Faces {
		if d.Covers(x.Name, x.Role) {
			like = append(like, of(x))
		}
	}
	var faces []string
	for _, x := range dress.Open(now.Parts[i].Pattern, now.Parts[i].Faces, d.Side) {
		other := slices.ContainsFunc(in.Mats, func(o dress.Dressing) bool {
			return o.ID != d.ID && o.Piece == d.Piece && o.Side == d.Side && o.Covers(x.Name, x.Role)
		})
		if !other && (d.Covers(x.Name, x.Role) || slices.Contains(like, of(x))) {
			faces = append(faces, x.Name)
		}
	}
	d.Faces, d.Where = faces, ""
	f.Posted.Del(fmt.Sprintf("mats[%d].faces", n))
}

// worthLine is what the dressing costs and does to a gap, beside the papers.
type worthLine struct{ What, Says string }

// Worth tells what stands beside the dressing: each gap with and without it, and
// what its papers take.
func (p *dressingPage) Worth() []worthLine {
	if p.Result == nil {
		return nil
	}
	var out []worthLine
	for _, g := range p.Result.GapsBare() {
		if g.Bare == g.Dressed {
			continue
		}
		show := measure.Hundredths
		out = append(out, worthLine{g.Name, fmt.Sprintf("a gap of %s mm instead of %s", show(g.Dressed), show(g.Bare))})
	}
	if area := p.Result.DressingArea(); area > 0 {
		out = append(out, worthLine{"Papers and card of it", cardArea(area, p.Box.Inputs.Units) + " for one box"})
	}
	if price, all := p.Price(); price > 0 {
		says := fmt.Sprintf("%.2f for one box", price)
		if !all {
			says += ", as far as the drawer knows the prices"
		}
		out = append(out, worthLine{"At the drawer's prices", says})
	}
	return out
}

// Price is what the dressing's papers cost by their area, at the prices of the
// sheets in the drawer, and whether all of them are known there.
func (p *dressingPage) Price() (sum float64, all bool) {
	all = true
	for _, b := range p.Result.DressingBlanks() {
		i := slices.IndexFunc(p.lots, func(l drawer.Lot) bool { return l.Card.Key() == b.Card.Key() && l.Price > 0 })
		if i < 0 {
			all = false
			continue
		}
		sum += float64(b.Copies) * p.lots[i].Price * b.Width.MM() * b.Height.MM() / (p.lots[i].Width.MM() * p.lots[i].Height.MM())
	}
	return sum, all
}
