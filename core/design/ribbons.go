package design

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/band"
	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/style"
)

// Ribbon is a ribbon or a string that is asked for: once round an axis, or
// crossed on the top; and how its ends come together.
type Ribbon struct {
	ID     int
	Name   string // what it is: "satin ribbon", "twine"
	Way    string
	Tied   band.Tied
	Rise   measure.Length // of a handle, over the box; of a pull, out of its wall
	Cut    measure.Length // how long it is cut, where that is the maker's own; 0 is worked out
	Loops  int            // of a paper bow
	Colour paper.Colour
}

// Ties reports whether the ribbon's ends are tied to each other.
func (x Ribbon) Ties() bool { return x.Way != ByHandle && x.Way != ByPull }

// RibbonWays lists the ways a ribbon goes: round an axis as a band does, round two
// that cross, or through the card.
var RibbonWays = []string{"crossed", "length", "width", "height", ByHandle, ThroughTop, ByPull}

// MostRibbons is how many ribbons a box has at most.
const MostRibbons = 4

const longestRibbonName = 40

// longestRibbon is how long a ribbon is cut at most.
const longestRibbon = 5000 * measure.Millimetre

// Ribboned is a ribbon worked out for the closed box: its path, and what is cut.
type Ribboned struct {
	Ribbon
	Path, Length measure.Length
	Threaded     *Threaded // nil when it goes round
}

// UsualRibbon crosses on the top and is tied in a bow.
func UsualRibbon(unit measure.Unit) Ribbon {
	r := Ribbon{Name: "Satin ribbon", Way: "crossed", Colour: "#b23331", Rise: 70 * measure.Millimetre, Loops: 6,
		Tied: band.Tied{Bow: band.Single, Width: 12 * measure.Millimetre, Loop: 60 * measure.Millimetre, Tail: 80 * measure.Millimetre}}
	if unit == measure.In {
		r.Tied.Width, r.Tied.Loop, r.Tied.Tail = measure.Inch/2, 5*measure.Inch/2, 3*measure.Inch
		r.Rise = 3 * measure.Inch
	}
	return r
}

type ribbonFile struct {
	ID     int          `json:"id,omitempty"`
	Name   string       `json:"name,omitempty"`
	Way    string       `json:"way,omitempty"`
	Width  measure.Text `json:"width,omitempty"`
	Bow    string       `json:"bow,omitempty"`
	Loop   measure.Text `json:"loop,omitempty"`
	Tail   measure.Text `json:"tail,omitempty"`
	Rise   measure.Text `json:"rise,omitempty"`
	Cut    measure.Text `json:"length,omitempty"`
	Loops  int          `json:"loops,omitempty"`
	Colour string       `json:"colour,omitempty"`
}

func (r *reader) ribbons(all []ribbonFile) {
	for i, f := range all {
		at := func(part string) string { return fault.Path("ribbons", i, part) }
		x := UsualRibbon(r.unit)
		x.ID = f.ID
		if f.Name != "" {
			x.Name = f.Name
		}
		if f.Way != "" {
			x.Way = f.Way
		}
		if f.Bow != "" {
			x.Tied.Bow = band.Bow(f.Bow)
		}
		x.Tied.Width, x.Tied.Loop, x.Tied.Tail = r.length(at("width"), f.Width, x.Tied.Width), r.length(at("loop"), f.Loop, x.Tied.Loop), r.length(at("tail"), f.Tail, x.Tied.Tail)
		x.Rise, x.Cut = r.length(at("rise"), f.Rise, x.Rise), r.length(at("length"), f.Cut, 0)
		if f.Loops != 0 {
			x.Loops = f.Loops
		}
		if f.Colour != "" {
			c, err := paper.ParseColour(f.Colour)
			if err != nil {
				r.fail(fault.At(at("colour"), err))
			}
			x.Colour = c
		}
		r.in.Ribbons = append(r.in.Ribbons, x)
	}
}

func writeRibbon(x Ribbon) ribbonFile {
	f := ribbonFile{ID: x.ID, Name: x.Name, Way: x.Way, Width: mmText(x.Tied.Width), Bow: string(x.Tied.Bow), Loop: mmText(x.Tied.Loop), Tail: mmText(x.Tied.Tail), Rise: mmText(x.Rise), Loops: x.Loops, Colour: string(x.Colour)}
	if x.Cut > 0 {
		f.Cut = mmText(x.Cut)
	}
	return f
}

// checkRibbons refuses ribbons that none could tie, whatever the box.
func checkRibbons(in *Inputs) error {
	if len(in.Ribbons) > MostRibbons {
		return fault.New(fault.CountRange, "ribbons", "a box has at most %d ribbons", MostRibbons)
	}
	show := func(l measure.Length) string { return measure.Label(l, in.Units, in.Tools.Tick) }
	for i, x := range in.Ribbons {
		field := fault.Path("ribbons", i)
		switch {
		case !slices.Contains(RibbonWays, x.Way):
			return fault.New(fault.UnknownChoice, fault.Path(field, "way"), "a ribbon is crossed, goes round the length, the width or the height, or through the card as a handle, in the top or as a pull")
		case x.Way == ByHandle && (x.Rise < 10*measure.Millimetre || x.Rise > 300*measure.Millimetre):
			return fault.New(fault.OutOfRange, fault.Path(field, "rise"), "a handle rises %s to %s over the box", show(10*measure.Millimetre), show(300*measure.Millimetre))
		case x.Way == ByPull && x.Cut == 0 && (x.Rise < 5*measure.Millimetre || x.Rise > 300*measure.Millimetre):
			return fault.New(fault.OutOfRange, fault.Path(field, "rise"), "a pull stands %s to %s out of its wall", show(5*measure.Millimetre), show(300*measure.Millimetre))
		case x.Cut < 0 || x.Cut > longestRibbon:
			return fault.New(fault.OutOfRange, fault.Path(field, "length"), "a ribbon is cut up to %s long; leave it empty to have it worked out", show(longestRibbon))
		case x.Tied.Bow == band.Paper && (x.Loops < 2 || x.Loops > 16):
			return fault.New(fault.CountRange, fault.Path(field, "loops"), "a paper bow has 2 to 16 loops")
		case !slices.Contains(band.Bows, x.Tied.Bow):
			return fault.New(fault.UnknownChoice, fault.Path(field, "bow"), "its ends make a single or a double bow, a knot, curls, or none")
		case len([]rune(x.Name)) > longestRibbonName || x.Name == "":
			return fault.New(fault.TooLong, fault.Path(field, "name"), "give the ribbon a name of up to %d letters", longestRibbonName)
		}
		if err := x.Tied.Check(show); err != nil {
			return fault.At(field, err)
		}
	}
	return nil
}

// ribbonThick is how thick a ribbon or a flattened string is, in mm.
const ribbonThick = 0.2

// card is the ribbon as it is drawn.
func (x Ribbon) card() paper.Card {
	return paper.Card{Name: x.Name, Look: paper.Look{Outside: x.Colour, Inside: x.Colour, Print: paper.Plain}}
}

// tie works the ribbons out over the closed box with all that lies on it.
func (t *Tied) ribbon() error {
	if len(t.Inputs.Ribbons) == 0 {
		return nil
	}
	bodies, err := t.Bodies(style.Finished)
	if err != nil {
		return err
	}
	for i, x := range t.Inputs.Ribbons {
		var plates []style.Plate
		path := 0.0
		if x.goesThrough() {
			if err := t.tieThrough(x); err != nil {
				return fault.At(fault.Path("ribbons", i), err)
			}
			if x.Way == ByHandle {
				if err := t.conceal(i, x); err != nil {
					return err
				}
			}
			continue
		}
		if x.Tied.Bow == band.Paper {
			if err := t.paperBow(i, x); err != nil {
				return err
			}
		}
		axes := []int{style.AlongLength, style.AlongWidth}
		if x.Way != "crossed" {
			axes = []int{slices.Index(BandAxes, x.Way)}
		}
		top := r3.Vec{Z: math.Inf(-1)}
		for _, axis := range axes {
			hull := style.Section(bodies, t.over(), axis, 0, x.Tied.Width.MM(), raisedBy(&t.Inputs))
			if len(hull) < 3 {
				return fault.New(fault.OutOfRange, fault.Path("ribbons", i, "way"), "the ribbon would find nothing to lie on there; let it go another way")
			}
			path += band.Perimeter(hull)
			plates = append(plates, style.Ring(bodies, hull, axis, 0, x.Tied.Width.MM(), ribbonThick)...)
		}
		for _, p := range plates {
			for _, q := range p.Corners {
				top.Z = max(top.Z, q.Z)
			}
		}
		if x.Way == "height" { // tied in front
			top = r3.Vec{Y: style.Back(bodies) * -t.Outside.Width.MM() / 2, Z: t.Outside.Height.MM() / 2}
		}
		t.lies("", x.card(), append(plates, x.bow(top)...))
		t.cut(Ribboned{Ribbon: x, Path: measure.FromMM(path)}, x.Tied.Takes())
	}
	return nil
}

// tieThrough works a ribbon out that goes through the card: a handle is its path
// over the box and what is knotted inside; through a top it goes under it from hole
// to hole and back over it to the middle, and is tied there.
func (t *Tied) tieThrough(x Ribbon) error {
	if x.Way == ByPull && x.Cut > 0 { // it stands out as far as its length lets it
		x.Rise = max(0, x.Cut/2-taped(t.Inputs.Units))
	}
	through, path, err := t.thread(x)
	if err != nil {
		return err
	}
	done := Ribboned{Ribbon: x, Threaded: &through, Path: measure.FromMM(pathLength(path))}
	takes := 2 * knotted
	plates := along(path, x.Tied.Width.MM())
	switch x.Way {
	case ThroughTop:
		done.Path *= 2
		takes = x.Tied.Takes()
		plates = append(plates, x.bow(r3.Add(r3.Scale(0.5, r3.Add(path[0], path[1])), r3.Vec{Z: 0.5}))...)
	case ByPull:
		done.Path *= 2
		takes = 2 * taped(t.Inputs.Units)
	}
	t.lies("", x.card(), plates)
	t.cut(done, takes)
	t.found = append(t.found, t.judgeHoles(x, through)...)
	return nil
}

// cut says how long a ribbon is cut: its path and what its ends take, or the maker's own length,
// which is held against that.
func (t *Tied) cut(x Ribboned, takes measure.Length) {
	x.Length = measure.Up(x.Path+takes, t.Inputs.Tools.Tick.Ruler())
	if x.Cut > 0 {
		if short := x.Length - x.Cut; short > t.Inputs.Tools.Tick.Length() {
			t.found = append(t.found, inspect.Finding{ID: "ribbon", Verdict: inspect.Warn, Text: fmt.Sprintf(
				"The %s is cut %s; its way and its ends take %s. Cut it %s longer, or make its loops and tails shorter.",
				strings.ToLower(x.Name), t.Show(x.Cut), t.Show(x.Length), t.Show(short))})
		}
		x.Length = x.Cut
	}
	t.Ribbons = append(t.Ribbons, x)
}

// bow is the ribbon's bow as it lies flat about the middle of the top.
func (x Ribbon) bow(at r3.Vec) []style.Plate {
	var out []style.Plate
	add := func(shape [][2]float64, turn, lift float64) {
		sin, cos := math.Sincos(turn)
		p := style.Plate{Thick: ribbonThick}
		for _, q := range shape {
			p.Corners = append(p.Corners, r3.Vec{X: at.X + q[0]*cos - q[1]*sin, Y: at.Y + q[0]*sin + q[1]*cos, Z: at.Z + lift})
		}
		if p.Outward().Z < 0 {
			slices.Reverse(p.Corners)
		}
		out = append(out, p)
	}
	w, loop, tail := x.Tied.Width.MM(), x.Tied.Loop.MM(), x.Tied.Tail.MM()
	for n := range x.Tied.Bow.Tails() {
		turn := []float64{-1.1, -2.0, 1.1, 2.0}[n]
		add([][2]float64{{0, -w / 2}, {tail, -w / 2}, {tail - w/2, 0}, {tail, w / 2}, {0, w / 2}}, turn, 0.6)
	}
	loops, spread := x.Tied.Bow.Loops(), []float64{0.12, math.Pi - 0.12, 0.62, math.Pi - 0.62}
	if x.Tied.Bow == band.Paper {
		loops, spread = 2*x.Loops, nil
		for n := range loops {
			spread = append(spread, 0.15+math.Pi*float64(n)/float64(x.Loops))
		}
	}
	for n := range loops {
		turn := spread[n]
		add([][2]float64{{0, -w / 3}, {loop * 0.8, -w * 0.9}, {loop, -w * 0.4}, {loop, w * 0.4}, {loop * 0.8, w * 0.9}, {0, w / 3}}, turn, 1.2+0.3*float64(n%12))
	}
	if x.Tied.Bow != band.Lapped {
		add([][2]float64{{-w * 0.45, -w * 0.55}, {w * 0.45, -w * 0.55}, {w * 0.45, w * 0.55}, {-w * 0.45, w * 0.55}}, 0, 5)
	}
	return out
}

// ribbonMoves are how each ribbon goes round; what goes through the card does before the box is
// filled.
func (t *Tied) ribbonMoves() (inside, around []hand.Put) {
	for _, x := range t.Ribbons {
		said := func(key string) hand.Said {
			return hand.Said{
				Key: key, Words: map[string]string{"ribbon": x.Name},
				Lengths: map[string][]measure.Length{"loop": {x.Tied.Loop}, "tail": {x.Tied.Tail}, "length": {x.Length}, "width": {x.Tied.Width}, "rise": {t.ruled(x.Rise)}},
			}
		}
		m := hand.Put{Thing: fmt.Sprintf("ribbon %d", x.ID), When: t.atLast(), Phrase: []hand.Said{said("ribbon-cut"), said("ribbon-" + x.Way), said("bow-" + string(x.Tied.Bow))}}
		m.Uses = x.strips()
		through := x.Threaded
		if through == nil {
			around = append(around, m)
			continue
		}
		if slices.ContainsFunc(through.Holes[:], t.papered) {
			pierced := hand.Put{Thing: fmt.Sprintf("holes for ribbon %d", x.ID), When: hand.Empty, Phrase: []hand.Said{said("ribbon-pierce")}}
			inside, m.After = append(inside, pierced), []string{pierced.Thing}
		}
		way := said(map[string]string{ByHandle: "ribbon-handle", ThroughTop: "ribbon-under", ByPull: "ribbon-pull"}[x.Way])
		way.Words["where"] = through.Words
		if m.Phrase[1] = way; x.Way == ThroughTop {
			around = append(around, m)
			continue
		}
		if m.When, m.Phrase = hand.Empty, m.Phrase[:2]; through.Behind {
			m.Phrase = slices.Insert(m.Phrase, 1, said("ribbon-behind"))
		}
		inside = append(inside, m)
	}
	return inside, around
}

// ribbonSupplies are the ribbons of all copies, each by its length.
func (t *Tied) ribbonSupplies() []recipe.Supply {
	var out []recipe.Supply
	n := t.Inputs.Copies
	for i, x := range t.Ribbons {
		all := x.Length * measure.Length(n)
		text := fmt.Sprintf("%s, %s wide: %s", x.Name, t.Show(x.Tied.Width), t.Show(x.Length))
		if n > 1 {
			text = fmt.Sprintf("%s, %s wide: %d lengths of %s, %.1f m in all", x.Name, t.Show(x.Tied.Width), n, t.Show(x.Length), math.Ceil(all.MM()/100)/10)
		}
		out = append(out, recipe.Supply{ID: fmt.Sprintf("ribbon.%d", i+1), Amount: all.MM(), Unit: "mm", Text: text, Name: x.Name})
	}
	return out
}
