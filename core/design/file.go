package design

import (
	"crypto/sha256"
	"encoding/json"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/money"
	"brevium/core/paper"
	"brevium/core/strict"
	"brevium/core/style"
)

// The design as it stands in a file; see docs/formats.md. Pointers are fields
// that may be left out.
type (
	inputsFile struct {
		Brevium   int                     `json:"brevium"`
		Name      string                  `json:"name"`
		Units     string                  `json:"units"`
		Style     string                  `json:"style"`
		Size      map[string]measure.Text `json:"size,omitempty"`
		Contents  []thingFile             `json:"contents"`
		Each      []string                `json:"rooms,omitempty"`
		Stand     string                  `json:"stand,omitempty"`
		Cells     *cellsFile              `json:"compartments,omitempty"`
		Linings   []string                `json:"linings,omitempty"`
		Riser     measure.Text            `json:"riser,omitempty"`
		Card      *cardFile               `json:"card,omitempty"`
		Cards     map[string]cardFile     `json:"cards,omitempty"`
		Load      *loadFile               `json:"load,omitempty"`
		For       string                  `json:"for,omitempty"`
		Grain     map[string]string       `json:"grain,omitempty"`
		Hand      string                  `json:"hand,omitempty"`
		Glue      map[string]string       `json:"glue,omitempty"`
		Constants map[string]float64      `json:"constants,omitempty"`
		Options   map[string]measure.Text `json:"options,omitempty"`
		Fit       string                  `json:"fit,omitempty"`
		Leans     []leanFile              `json:"leans,omitempty"`
		Mats      []matsFile              `json:"mats,omitempty"`
		Loose     []looseFile             `json:"loose,omitempty"`
		Bands     []bandFile              `json:"bands,omitempty"`
		Covers    []coverFile             `json:"covers,omitempty"`
		Ribbons   []ribbonFile            `json:"ribbons,omitempty"`
		Closures  []closureFile           `json:"closures,omitempty"`
		Labels    []labelFile             `json:"labels,omitempty"`
		Placed    []placedFile            `json:"placed,omitempty"`
		Wrap      *wrapFile               `json:"wrap,omitempty"`
		Own       []ownFile               `json:"own_steps,omitempty"`
		Sheets    []sheetFile             `json:"sheets,omitempty"`
		Tools     *toolsFile              `json:"tools,omitempty"`
		Copies    *int                    `json:"copies,omitempty"`
		Price     float64                 `json:"price,omitempty"`
		Recipe    string                  `json:"recipe,omitempty"`
		Shown     string                  `json:"photograph,omitempty"`
	}
	cardFile struct {
		Name      string       `json:"name,omitempty"`
		GSM       float64      `json:"gsm,omitempty"`
		Thickness measure.Text `json:"thickness,omitempty"`
		Measured  int          `json:"measured,omitempty"`
		Direction string       `json:"direction,omitempty"`
		Grain     string       `json:"grain,omitempty"`
		Finish    string       `json:"finish,omitempty"`
		Look      *lookFile    `json:"look,omitempty"`
	}
	matsFile struct {
		ID     int          `json:"id,omitempty"`
		Piece  string       `json:"piece"`
		Where  string       `json:"where,omitempty"`
		Faces  []string     `json:"faces,omitempty"`
		Side   string       `json:"side,omitempty"`
		Shape  string       `json:"shape,omitempty"`
		Radius measure.Text `json:"radius,omitempty"`
		Across bool         `json:"across,omitempty"`
		Joined bool         `json:"joined,omitempty"`
		Runs   string       `json:"runs,omitempty"`
		Layers []layerFile  `json:"layers"`
	}
	layerFile struct {
		Card   cardFile       `json:"card"`
		Border borderFile     `json:"border,omitzero"`
		Size   []measure.Text `json:"size,omitempty"` // along and up, in the place of a border
	}
	sheetFile struct {
		Name   string       `json:"name"`
		Width  measure.Text `json:"width,omitempty"`
		Height measure.Text `json:"height,omitempty"`
		Count  *int         `json:"count,omitempty"`
		Cost   float64      `json:"cost,omitempty"`
		Offcut bool         `json:"offcut,omitempty"`
	}
)

// Read reads a design file: strictly, so that a mistyped field is refused by
// name, with every length and choice checked. What is left out takes its
// usual value.
func Read(text []byte) (Inputs, error) {
	var f inputsFile
	if err := strict.Decode(text, &f); err != nil {
		return Inputs{}, err
	}
	return f.inputs(nil)
}

// ReadKept reads a design that was kept, perhaps by another version: fields,
// sizes, options and choices that this one does not know are set aside, and
// Write puts them back where they were.
func ReadKept(text []byte) (Inputs, error) {
	var f inputsFile
	rest, err := strict.DecodeKept(text, &f)
	if err != nil {
		return Inputs{}, err
	}
	if rest == nil {
		rest = strict.Rest{}
	}
	in, err := f.inputs(rest)
	if len(rest) > 0 {
		in.Rest = rest
	}
	return in, err
}

// inputs checks the file and gives what it says. With a rest, what is not
// known goes there; without one it is refused.
func (f inputsFile) inputs(rest strict.Rest) (Inputs, error) {
	if f.Brevium != 1 {
		return Inputs{}, fault.New(fault.UnknownFormat, "brevium", "this file is of format %d; this program reads format 1", f.Brevium)
	}
	unit := measure.MM
	if f.Units != "" {
		u, err := measure.ParseUnit(f.Units)
		if err != nil {
			return Inputs{}, fault.At("units", err)
		}
		unit = u
	}
	s, err := style.ByID(f.Style)
	if err != nil {
		return Inputs{}, fault.At("style", err)
	}
	r := reader{unit: unit, in: New(f.Name, unit, s.ID), rest: rest}
	r.size(s, f.Size)
	r.options(s, f.Options, f.Fit)
	r.things(f)
	r.in.Each = f.Each
	r.inside(f)
	r.load(f)
	if f.Card != nil {
		r.in.Card, r.in.Cards = r.card("card", *f.Card), map[string]paper.Card{}
	}
	for piece, c := range f.Cards {
		r.in.Cards[piece] = r.card(fault.Path("cards", piece), c)
	}
	if f.Tools != nil {
		r.tools(*f.Tools)
	}
	r.leans(f.Leans)
	r.mats(f.Mats)
	r.loose(f.Loose)
	r.bands(f.Bands)
	r.covers(f.Covers)
	r.ribbons(f.Ribbons)
	r.closures(f.Closures)
	r.labels(f.Labels)
	r.placed(f.Placed)
	r.wrap(f.Wrap)
	r.ownSteps(f.Own)
	r.numbered()
	r.sheets(f.Sheets)
	if f.Copies != nil {
		r.in.Copies = *f.Copies
	}
	if !(f.Price >= 0 && f.Price <= money.Most.Coins()) {
		r.fail(fault.New(fault.CostRange, "price", "a price is 0 to a million"))
	}
	r.in.Price, r.in.Recipe, r.in.Photograph = money.Of(f.Price), f.Recipe, f.Shown
	if r.err != nil {
		return Inputs{}, r.err
	}
	return r.in, r.in.Check()
}

// reader turns the file into inputs, keeping the first fault.
type reader struct {
	unit measure.Unit
	in   Inputs
	err  error
	rest strict.Rest // where what is not known goes; nil when that is refused
}

// unknown sets a size or option aside that the style does not know, or
// refuses it.
func (r *reader) unknown(group, id string, value measure.Text, err error) {
	if r.rest == nil {
		r.fail(err)
		return
	}
	in, _ := r.rest[group].(strict.Rest)
	if in == nil {
		in = strict.Rest{}
		r.rest[group] = in
	}
	in[id] = string(value)
}

func (r *reader) fail(err error) {
	if r.err == nil {
		r.err = err
	}
}

func (r *reader) length(field string, t measure.Text, usual measure.Length) measure.Length {
	if t == "" {
		return usual
	}
	l, err := t.Length(r.unit)
	if err != nil {
		r.fail(fault.At(field, err))
	}
	return l
}

// signed reads a length that may be below zero.
func (r *reader) signed(field string, t measure.Text) measure.Length {
	s := strings.TrimSpace(string(t))
	for _, minus := range []string{"-", "−"} {
		if rest, ok := strings.CutPrefix(s, minus); ok {
			return -r.length(field, measure.Text(rest), 0)
		}
	}
	return r.length(field, t, 0)
}

func (r *reader) size(s *style.Style, size map[string]measure.Text) {
	for id, t := range size {
		if id == "basis" {
			r.in.Basis = Basis(t)
			if !slices.Contains(Bases, r.in.Basis) {
				r.fail(fault.New(fault.UnknownBasis, "size.basis", "%q is not a basis; use scored, inside or outside", string(t)))
			}
			continue
		}
		if !slices.ContainsFunc(s.Parameters, func(p *style.Parameter) bool { return p.ID == id }) {
			r.unknown("size", id, t, fault.New(fault.UnknownField, fault.Path("size", id), "%s has no size of this name; see brevium styles", s.ID))
			continue
		}
		r.in.Size[id] = r.length(fault.Path("size", id), t, 0)
	}
}

// options reads the style's options, and two that every design has: the
// tick, and the fit wanted (which may also stand at the top of the file).
func (r *reader) options(s *style.Style, options map[string]measure.Text, fitWanted string) {
	for id, t := range options {
		field := fault.Path("options", id)
		o, known := s.Option(id)
		switch {
		case id == "tick":
			r.in.Tools.Tick = measure.Tick(r.length(field, t, r.unit.Tick().Length()))
		case id == "fit":
			fitWanted = string(t)
		case !known:
			r.unknown("options", id, t, fault.New(fault.UnknownField, field, "%s has no option of this name; see brevium styles", s.ID))
		case o.Kind == style.LengthKind:
			r.in.Lengths[id] = r.length(field, t, o.Default)
		case !slices.Contains(o.Choices, string(t)):
			r.unknown("options", id, t, unknownChoice(field, o, string(t)))
		default:
			r.in.Choices[id] = string(t)
		}
	}
	if fitWanted != "" {
		v, err := fit.ParseVerdict(fitWanted)
		if err != nil {
			r.fail(fault.At("fit", err))
		}
		r.in.Fit = v
	}
}

func unknownChoice(field string, o *style.Option, got string) error {
	return fault.New(fault.UnknownChoice, field, "%q is not one of %v", got, o.Choices)
}

// card reads a card; a thickness left out comes from the weight, and a
// weight left out is that of the usual card.
func (r *reader) card(field string, f cardFile) paper.Card {
	c := paper.Card{Name: f.Name, GSM: f.GSM, Measured: f.Measured, Direction: paper.Direction(f.Direction), Look: r.look(fault.Path(field, "look"), f.Look)}
	r.stuffing(field, f, &c)
	if c.Name == "" {
		c.Name = UsualCard.Name
	}
	if c.GSM == 0 {
		c.GSM = UsualCard.GSM
	}
	if f.Direction != "" && !slices.Contains(paper.Directions, c.Direction) {
		r.fail(
			fault.New(
				fault.UnknownDirection,
				fault.Path(field, "direction"),
				"%q is not a direction; use none, two-ways or one-way-up",
				f.Direction,
			),
		)
	}
	if c.GSM > 0 && c.GSM <= paper.LargestGSM {
		c.Thickness = paper.ThicknessOf(c.GSM, c.Finish.Bulk())
	}
	c.Thickness = r.length(fault.Path(field, "thickness"), f.Thickness, c.Thickness)
	if err := checkCard(field, c); err != nil {
		r.fail(err)
	}
	return c
}

// sheets reads the sheets to cut from. One without a size is a standard
// sheet, found by name.
func (r *reader) sheets(all []sheetFile) {
	if len(all) > 0 {
		r.in.Sheets = nil
	}
	for i, f := range all {
		field := fault.Path("sheets", i)
		s := paper.Sheet{Name: f.Name, Count: paper.Unlimited, Cost: f.Cost, Offcut: f.Offcut}
		if f.Width == "" && f.Height == "" {
			standard, ok := paper.SheetNamed(f.Name)
			if !ok {
				r.fail(
					fault.New(
						fault.UnknownSheet,
						fault.Path(field, "name"),
						"%q is not a standard sheet; give its width and height",
						f.Name,
					),
				)
			}
			s.Width, s.Height = standard.Width, standard.Height
			if ok {
				s.Name = standard.Name
			}
		} else {
			s.Width = r.length(fault.Path(field, "width"), f.Width, 0)
			s.Height = r.length(fault.Path(field, "height"), f.Height, 0)
			if s.Width <= 0 || s.Height <= 0 {
				r.fail(fault.New(fault.TooSmall, field, "a sheet has a width and a height over zero"))
			}
		}
		if f.Count != nil {
			s.Count = *f.Count
			if s.Count < 1 {
				r.fail(
					fault.New(fault.CountRange, fault.Path(field, "count"), "there is 1 of a sheet or more, or null for as many as needed"),
				)
			}
		}
		if !(s.Cost >= 0) {
			r.fail(fault.New(fault.CostRange, fault.Path(field, "cost"), "a sheet costs zero or more"))
		}
		r.in.Sheets = append(r.in.Sheets, s)
	}
}

// Write gives the inputs as a design file that Read turns back into the same
// inputs. Lengths are numbers of millimetres, exact to the nanometre.
func (in Inputs) Write() []byte {
	text, err := json.MarshalIndent(fileOf(in), "", " ")
	if err != nil {
		panic(err) // every field is plain text or a finite number
	}
	if text, err = in.Rest.Put(text); err != nil {
		panic(err) // it was just written
	}
	return text
}

// Key is the same for inputs that are the same, and only for those: what Write gives, and
// the room that a comparison asks for, which is in no file.
func (in Inputs) Key() [sha256.Size]byte {
	h := sha256.New()
	to := json.NewEncoder(h)
	for _, x := range []any{fileOf(in), in.Rest, in.Room} {
		if err := to.Encode(x); err != nil {
			panic(err) // every field is plain text or a finite number
		}
	}
	return [sha256.Size]byte(h.Sum(nil))
}

func fileOf(in Inputs) inputsFile {
	f := inputsFile{
		Brevium: 1, Name: in.Name, Units: string(in.Units), Style: in.Style, Stand: in.Stand,
		Size: map[string]measure.Text{"basis": measure.Text(in.Basis)}, Fit: string(in.Fit),
		Options: map[string]measure.Text{"tick": mmText(in.Tools.Tick.Length())},
		Copies:  &in.Copies, Price: in.Price.Coins(), Recipe: in.Recipe, Shown: in.Photograph, Cards: map[string]cardFile{},
	}
	tools := writeTools(in.Tools)
	f.Tools = &tools
	for id, l := range in.Size {
		f.Size[id] = mmText(l)
	}
	for id, l := range in.Lengths {
		f.Options[id] = mmText(l)
	}
	for id, c := range in.Choices {
		f.Options[id] = measure.Text(c)
	}
	card := writeCard(in.Card)
	f.Card = &card
	for piece, c := range in.Cards {
		f.Cards[piece] = writeCard(c)
	}
	for _, t := range in.Things {
		f.Contents = append(f.Contents, writeThing(t))
	}
	f.Each = in.Each
	writeInside(in, &f)
	writeLoad(in, &f)
	for _, d := range in.Mats {
		m := matsFile{ID: d.ID, Piece: d.Piece, Where: string(d.Where), Faces: d.Faces, Side: string(d.Side), Joined: d.Joined, Runs: string(d.Runs), Shape: string(d.Shape), Across: d.Across}
		if d.Radius > 0 {
			m.Radius = mmText(d.Radius)
		}
		for _, l := range d.Layers {
			m.Layers = append(m.Layers, writeLayer(l))
		}
		f.Mats = append(f.Mats, m)
	}
	for _, l := range in.Leans {
		f.Leans = append(f.Leans, writeLean(l))
	}
	for _, p := range in.Loose {
		f.Loose = append(f.Loose, writeLoose(p))
	}
	for _, b := range in.Bands {
		f.Bands = append(f.Bands, writeBand(b))
	}
	for _, c := range in.Covers {
		f.Covers = append(f.Covers, writeCover(c))
	}
	for _, x := range in.Ribbons {
		f.Ribbons = append(f.Ribbons, writeRibbon(x))
	}
	for _, c := range in.Closures {
		f.Closures = append(f.Closures, writeClosure(c))
	}
	for _, o := range in.OwnSteps {
		f.Own = append(f.Own, writeOwnStep(o))
	}
	for _, w := range in.Windows {
		f.Placed = append(f.Placed, writeWindow(w))
	}
	placed := slices.ContainsFunc(in.Labels, isPlaced) // all of them then: their order counts
	for _, l := range in.Labels {
		if placed {
			f.Placed = append(f.Placed, writePlaced(l))
		} else {
			f.Labels = append(f.Labels, writeLabel(l))
		}
	}
	f.Wrap = writeWrap(in.Wrap)
	for _, s := range in.Sheets {
		x := sheetFile{Name: s.Name, Width: mmText(s.Width), Height: mmText(s.Height), Cost: s.Cost, Offcut: s.Offcut}
		if s.Count != paper.Unlimited {
			x.Count = &s.Count
		}
		f.Sheets = append(f.Sheets, x)
	}
	return f
}

func writeCard(c paper.Card) cardFile {
	return cardFile{Name: c.Name, GSM: c.GSM, Thickness: mmText(c.Thickness), Measured: c.Measured, Direction: string(c.Direction), Grain: string(c.Grain), Finish: string(c.Finish), Look: writeLook(c.Look)}
}

// mmText is a length as a number of millimetres.
func mmText(l measure.Length) measure.Text {
	text, _ := l.MarshalJSON()
	return measure.Text(string(text) + " mm")
}
