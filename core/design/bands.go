package design

import (
	"context"
	"encoding/json"
	"fmt"
	"regexp"
	"slices"

	"brevium/core/band"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/inspect"
	"brevium/core/label"
	"brevium/core/loose"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
)

// Axes that a band can go round, and the sides on which it can be joined.
var (
	BandAxes  = []string{"length", "width", "height"}
	BandJoins = []string{"back", "bottom", "front"}
)

// MostBands is how many bands a box has at most.
const MostBands = 4

// usualLap and usualBand are a lap and a width when nothing is said.
const (
	usualLap  = 12 * measure.Millimetre
	usualBand = 25 * measure.Millimetre
)

// Band is a belly band that is asked for. Axis is the direction it goes round: a
// loop round the length goes across the width and the height. At is how far from
// the middle along it: to the right as one sees the front, to the back, or up.
type Band struct {
	ID             int
	Called         string // its piece's id where a file gives it a word for one
	Axis, Join     string
	At, Width, Lap measure.Length
	Notch          bool        // for a thumb, in its edge opposite to the join
	Card           *paper.Card // nil is the box's
}

// PieceID is what its strip is called among the pieces of its box.
func (b Band) PieceID() string {
	if b.Called != "" {
		return b.Called
	}
	return fmt.Sprintf("band-%d", b.ID)
}

// Banded is a band worked out for the finished box.
type Banded struct {
	Band
	Strip  band.Band
	Strips int // alike ones, end to end: 1 or 2
	Name   string
}

// UsualBand is a band round the middle of the length.
func UsualBand(unit measure.Unit) Band {
	b := Band{Axis: "length", Join: "back", Width: usualBand, Lap: usualLap}
	if unit == measure.In {
		b.Width, b.Lap = measure.Inch, measure.Inch/2
	}
	return b
}

// WithBand is the design with one more band: round the first axis of which one strip comes out of
// the sheets, or else two, or else round the length, to be refused.
func (in Inputs) WithBand(ctx context.Context) Inputs {
	out := in.Clone()
	out.Bands = append(out.Bands, UsualBand(in.Units))
	out.NumberThings()
	best := 0
	for _, axis := range BandAxes {
		try := out.Clone()
		last := len(try.Bands) - 1
		try.Bands[last].Axis = axis
		if r, err := Make(ctx, try); err == nil && (best == 0 || r.Bands[last].Strips < best) {
			out, best = try, r.Bands[last].Strips
		}
	}
	return out
}

type bandFile struct {
	ID    bandID       `json:"id,omitzero"`
	Axis  string       `json:"axis"`
	At    measure.Text `json:"at,omitempty"`
	Width measure.Text `json:"width,omitempty"`
	Lap   measure.Text `json:"lap,omitempty"`
	Join  string       `json:"join,omitempty"`
	Notch bool         `json:"notch,omitempty"`
	Card  *cardFile    `json:"card,omitempty"`
}

// bandID is a number or a word.
type bandID struct {
	n    int
	word string
}

func (id bandID) MarshalJSON() ([]byte, error) {
	if id.word != "" {
		return json.Marshal(id.word)
	}
	return json.Marshal(id.n)
}

func (id *bandID) UnmarshalJSON(text []byte) error {
	if json.Unmarshal(text, &id.word) == nil {
		return nil
	}
	return json.Unmarshal(text, &id.n)
}

// bandWord is what a band's id is spelt like.
var bandWord = regexp.MustCompile(`^([a-z][a-z0-9-]{0,39})?$`)

func (r *reader) bands(all []bandFile) {
	for i, f := range all {
		at := func(part string) string { return fault.Path("bands", i, part) }
		b := UsualBand(measure.MM)
		b.ID, b.Called, b.Axis, b.Notch = f.ID.n, f.ID.word, f.Axis, f.Notch
		if f.Join != "" {
			b.Join = f.Join
		}
		b.At, b.Width, b.Lap = r.signed(at("at"), f.At), r.length(at("width"), f.Width, b.Width), r.length(at("lap"), f.Lap, b.Lap)
		if f.Card != nil {
			c := r.card(at("card"), *f.Card)
			b.Card = &c
		}
		r.in.Bands = append(r.in.Bands, b)
	}
}

func writeBand(b Band) bandFile {
	f := bandFile{ID: bandID{b.ID, b.Called}, Axis: b.Axis, At: mmText(b.At), Width: mmText(b.Width), Lap: mmText(b.Lap), Join: b.Join, Notch: b.Notch}
	if b.Card != nil {
		c := writeCard(*b.Card)
		f.Card = &c
	}
	return f
}

// checkBands refuses bands that none could make, whatever the box.
func checkBands(in *Inputs) error {
	show := func(l measure.Length) string { return measure.Label(l, in.Units, in.Tools.Tick) }
	if len(in.Bands) > MostBands {
		return fault.New(fault.CountRange, "bands", "a box has at most %d bands", MostBands)
	}
	for i, b := range in.Bands {
		at := func(part string) string { return fault.Path("bands", i, part) }
		switch {
		case !bandWord.MatchString(b.Called):
			return fault.New(fault.UnknownField, at("id"), "an id is small letters, digits and strokes, such as band")
		case slices.ContainsFunc(in.Bands[:i], func(x Band) bool { return x.PieceID() == b.PieceID() }):
			return fault.New(fault.UnknownField, at("id"), "two bands have the id %s", b.PieceID())
		case !slices.Contains(BandAxes, b.Axis):
			return fault.New(fault.OutOfRange, at("axis"), "a band goes round the length, the width or the height")
		case !slices.Contains(BandJoins, b.Join):
			return fault.New(fault.OutOfRange, at("join"), "a band is joined at the back, at the bottom or in front")
		case b.Width < 5*measure.Millimetre || b.Width > 300*measure.Millimetre:
			return fault.New(fault.OutOfRange, at("width"), "a band can be %s to %s wide", show(5*measure.Millimetre), show(300*measure.Millimetre))
		case b.Lap < 5*measure.Millimetre || b.Lap > 100*measure.Millimetre:
			return fault.New(fault.OutOfRange, at("lap"), "its lap can be %s to %s", show(5*measure.Millimetre), show(100*measure.Millimetre))
		case b.At.Abs() > 500*measure.Millimetre:
			return fault.New(fault.OutOfRange, at("at"), "it lies at most %s from the middle", show(500*measure.Millimetre))
		}
		if b.Card != nil {
			if err := checkCard(at("card"), *b.Card); err != nil {
				return err
			}
		}
	}
	return nil
}

// band works the bands out over the finished box with its papers, and puts their
// strips to the parts.
func (t *Tied) band() error {
	if len(t.Inputs.Bands) == 0 {
		return nil
	}
	bodies, err := t.Bodies(style.Finished)
	if err != nil {
		return err
	}
	back := style.Back(bodies)
	extent := func(axis int) float64 {
		return []measure.Length{t.Outside.Length, t.Outside.Width, t.Outside.Height}[axis].MM()
	}
	for i, b := range t.Inputs.Bands {
		axis := slices.Index(BandAxes, b.Axis)
		at := b.At.MM()
		if axis != style.AlongHeight {
			at *= back
		}
		hull := style.Section(bodies, t.over(), axis, at, b.Width.MM(), raisedBy(&t.Inputs))
		if len(hull) < 3 {
			return fault.New(fault.OutOfRange, fault.Path("bands", i, "at"), "the band would lie beside the box: nearer to the middle, please")
		}
		done := Banded{b, band.Round(hull, b.looks(back), b.Lap, t.Inputs.Tools.Tick.Ruler()), 1, "Belly band"}
		if b.Width.MM() > 0.6*extent(axis) {
			done.Name = "Sleeve"
		}
		if len(t.Inputs.Bands) > 1 {
			done.Name += fmt.Sprint(" ", i+1)
		}
		if slices.ContainsFunc(t.Parts, func(p Part) bool { return p.ID == b.PieceID() }) {
			return fault.New(fault.UnknownField, fault.Path("bands", i, "id"), "another piece of this box is called %s; give the band an id of its own", b.PieceID())
		}
		done, whole, err := t.cutBand(done, i, hull, back)
		if err != nil {
			return err
		}
		t.Bands = append(t.Bands, done)
		t.Parts = append(t.Parts, whole)
		part, card := whole.Part, whole.Card
		t.lies(part.ID, card, style.Ring(bodies, hull, axis, at, b.Width.MM(), card.Thickness.MM()))
		t.found = append(t.found, inspect.Finding{ID: "band", Verdict: inspect.OK, Piece: part.ID, Text: fmt.Sprintf(
			"%s: it slides: %s longer than what it goes round, all round.", part.Name, measure.Label(band.Slide, measure.MM, measure.Tenth))})
		if done.Strips > 1 {
			t.found = append(t.found, inspect.Finding{ID: "band", Verdict: inspect.OK, Piece: part.ID, Text: fmt.Sprintf(
				"%s: of two strips, joined on opposite sides: one alone would be longer than every sheet.", part.Name)})
		}
	}
	return nil
}

// cutBand is how the nth band is cut: of one strip, or where that is longer than every sheet, of two alike
// that go round together.
func (t *Tied) cutBand(b Banded, n int, hull []pattern.Point, back float64) (Banded, Part, error) {
	whole, err := t.bandPart(b, n)
	if err != nil {
		return b, whole, err
	}
	if err = t.Inputs.goesOn(whole, fault.Path("bands", n, "axis"), "put it round another way"); err == nil {
		return b, whole, nil
	}
	two, there := b, false
	if two.Strip, there = band.Halves(hull, b.looks(back), b.Lap, t.Inputs.Tools.Tick.Ruler()); !there || b.Notch {
		return b, whole, err
	}
	two.Strips = 2
	half, wrong := t.bandPart(two, n)
	if wrong != nil || t.Inputs.goesOn(half, "", "") != nil {
		return b, whole, err
	}
	return two, half, nil
}

// bandPart is the strip of the nth band as a piece that is cut.
func (t *Tied) bandPart(b Banded, n int) (Part, error) {
	strip := loose.Piece{ID: b.ID, Name: b.Name, Width: b.Strip.Length, Height: b.Width, Copies: b.Strips, Corners: loose.Square, Card: b.Card}
	for _, at := range b.Strip.Scores {
		if (at - measure.Nearest(at, t.Inputs.Tools.Tick)).Abs() < recipe.Off {
			strip.Vertical = append(strip.Vertical, at)
		} else { // by a ruler
			strip.Part = append(strip.Part, loose.Line{A: loose.Point{X: at}, B: loose.Point{X: at, Y: b.Width}})
		}
	}
	made, err := strip.Pattern()
	if err != nil {
		return Part{}, fault.At(fault.Path("bands", n), err)
	}
	if b.Notch {
		if err := notched(made, b.Strip, b.Width, t.Inputs.Tools.Tick.Ruler()); err != nil {
			return Part{}, fault.New(fault.TooSmall, fault.Path("bands", n, "notch"), "there is no room for a notch in this band; make it wider")
		}
	}
	folded, err := made.Finished(made.Marks[0].Name)
	if err != nil {
		return Part{}, err
	}
	card := t.Inputs.LooseCard(strip)
	part := style.Part{ID: b.PieceID(), Name: b.Name, Pattern: made, Root: made.Marks[0].Name, Card: card.Thickness, Opens: style.Upwards, Count: b.Strips}
	return Part{Part: part, Faces: folded.Faces, Card: card, Folded: folded, Loose: true}, nil
}

// mostNotch is the radius of the notch of a wide band.
const mostNotch = 10 * measure.Millimetre

// notched bites a thumb's notch out of the strip's upper edge, in the middle of the
// side that lies opposite to the join.
func notched(strip *pattern.Pattern, b band.Band, wide measure.Length, ruler measure.Tick) error {
	half := b.Lap + b.Girth/2
	ends := append(slices.Clone(b.Scores), b.Lap+b.Girth)
	for k := 1; k < len(ends); k++ {
		if ends[k] < half && k < len(ends)-1 {
			continue
		}
		at := measure.Nearest((ends[k-1]+ends[k])/2, ruler)
		radius := measure.Down(min(mostNotch, wide/3, (ends[k]-ends[k-1])/3), ruler)
		faces, err := strip.Faces()
		if err != nil {
			return err
		}
		for _, f := range faces {
			if radius > 0 && pattern.Contains(f.Polygon, pattern.Pt(at.MM(), wide.MM()/2)) {
				return strip.Notch(f.Name, pattern.Pt(at.MM(), 0), radius.MM())
			}
		}
		break
	}
	return fault.New(fault.TooSmall, "notch", "there is no room for a notch")
}

// raisedBy gives what the papers on a face's outside add to it, in mm.
func raisedBy(in *Inputs) func(*style.Body, pattern.Face) float64 {
	return func(b *style.Body, f pattern.Face) float64 {
		sum := 0.0
		for _, d := range in.Mats {
			if d.Piece != b.Part.ID || d.Side == dress.Inside || !d.Covers(f.Name, f.Role) {
				continue
			}
			for _, l := range d.Layers {
				sum += l.Card.Thickness.MM()
			}
		}
		for _, c := range in.Covers {
			if c.Piece == b.Part.ID && (f.Role == pattern.Wall || f.Role == pattern.Panel) {
				sum += c.Outside().MM()
			}
		}
		return sum
	}
}

// Joined is the side on which the band is joined: a loop that does not come to
// the one that is asked for is joined at the bottom, or at the back.
func (b Band) Joined() string {
	switch {
	case b.Axis == "width":
		return "bottom"
	case b.Axis == "height" && b.Join == "bottom":
		return "back"
	}
	return b.Join
}

// looks is the direction, in the section, of the side on which a band is joined.
func (b Band) looks(back float64) pattern.Point {
	side := b.Joined()
	if side == "front" {
		back = -back
	}
	switch {
	case side == "bottom":
		return pattern.Pt(0, 1)
	case b.Axis == "height":
		return pattern.Pt(0, back)
	}
	return pattern.Pt(back, 0)
}

// lies says where along its axis a band goes.
func (b Band) lies() hand.Said {
	way := "place-middle"
	switch {
	case b.At > 0:
		way = "place-" + b.Axis + "-more"
	case b.At < 0:
		way = "place-" + b.Axis + "-less"
	}
	return hand.Said{Key: way, Lengths: map[string][]measure.Length{"off": {b.At.Abs()}}}
}

// bandMoves are how each band is put on.
func (t *Tied) bandMoves() []hand.Put {
	var out []hand.Put
	for i, b := range t.Bands {
		key := "band-on"
		if b.Strips > 1 {
			key = "band-on-two"
		}
		m := hand.Put{Thing: b.PieceID(), When: t.atLast(), Uses: []string{b.PieceID()}, Phrase: []hand.Said{{
			Key: key, Pieces: map[string]string{"band": b.PieceID()},
			Phrases: map[string]hand.Said{"place": b.lies(), "side": hand.Say("join-" + b.Joined()), "axis": hand.Say("axis-" + b.Axis)},
		}}}
		for _, first := range t.Bands[:i] {
			if first.Axis != b.Axis {
				m.After = append(m.After, first.PieceID())
			}
		}
		if len(m.After) > 0 {
			m.Phrase = append(m.Phrase, hand.Say("band-crosses"))
		}
		if b.Joined() == "front" && !slices.ContainsFunc(t.Inputs.Labels, func(l label.Label) bool { return l.Band == b.PieceID() }) {
			m.Phrase = append(m.Phrase, hand.Say("band-labelled"))
		}
		out = append(out, m)
	}
	return out
}
