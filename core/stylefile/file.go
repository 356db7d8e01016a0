// Package stylefile reads a style of one's own out of an open JSON file: a table of
// scores whose columns and rows are formulas of named sizes, what its cells are, how they
// are folded, cut and glued. docs/style-files.md has every field.
package stylefile

import (
	"cmp"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/strict"
	"brevium/core/style"
)

// The file as it is written.
type (
	file struct {
		Format  int       `json:"brevium_style"`
		ID      string    `json:"id"`
		Version int       `json:"version,omitempty"`
		Name    string    `json:"name"`
		About   string    `json:"about,omitempty"`
		Opens   string    `json:"opens,omitempty"`
		Sizes   []size    `json:"sizes"`
		Room    [3]string `json:"room"` // the sizes of its length, width and height
		Needs   []need    `json:"needs,omitempty"`
		// Allowance and Fits are how pieces go over one another.
		Allowance *allowance `json:"allowance,omitempty"`
		Pieces    []piece    `json:"pieces"`
		Fits      []fits     `json:"fits,omitempty"`
		Shut      string     `json:"shut,omitempty"`
		Closing   []string   `json:"closing,omitempty"`
	}
	size struct {
		ID    string       `json:"id"`
		As    string       `json:"as"` // what formulas call it
		Label string       `json:"label,omitempty"`
		About string       `json:"about,omitempty"`
		Usual measure.Text `json:"usual"`
		Least measure.Text `json:"least,omitempty"`
		Most  measure.Text `json:"most,omitempty"`
		// Follows is a formula of sizes before it, for one that is not given.
		Follows string `json:"follows,omitempty"`
	}
	// need is that one formula is at most another, with why.
	need struct {
		This string `json:"this"`
		Most string `json:"most"`
		Why  string `json:"why"`
	}
	piece struct {
		ID      string              `json:"id"`
		Name    string              `json:"name"`
		Columns []string            `json:"columns"`
		Rows    []string            `json:"rows"`
		Cells   []string            `json:"cells"`
		Root    string              `json:"root"`
		Called  map[string]string   `json:"called,omitempty"`
		Roles   map[string]string   `json:"roles,omitempty"`
		Up      map[string][]string `json:"up,omitempty"` // faces that stand up from one
		Folds   []fold              `json:"folds,omitempty"`
		Tabs    []tab               `json:"tabs,omitempty"`
		Slits   [][2]string         `json:"slits,omitempty"`
		Glue    []glue              `json:"glue,omitempty"`
		Tucks   [][2]string         `json:"tucks,omitempty"`
		Laps    [][2]string         `json:"laps,omitempty"`
		Within  [][2]string         `json:"within,omitempty"` // lies inside another, dry
		Divide  []divide            `json:"divide,omitempty"`
		Rounds  []round             `json:"rounds,omitempty"`
		Notches []bite              `json:"notches,omitempty"`
		Holes   []bite              `json:"holes,omitempty"`
		Upwards map[string][]string `json:"upwards,omitempty"` // faces whose paper stands that way
		Gluing  []string            `json:"gluing,omitempty"`
		Opens   string              `json:"opens,omitempty"`
		Stands  string              `json:"stands,omitempty"` // how high above the table
		Lifts   string              `json:"lifts,omitempty"`  // how far, to open
	}
	fold struct {
		Between [2]string `json:"between"`
		Angle   string    `json:"angle"` // degrees
		Towards bool      `json:"towards,omitempty"`
		Hinge   bool      `json:"hinge,omitempty"` // it stands flat while the box is open
		Roll    bool      `json:"roll,omitempty"`  // bent over an edge, not scored
	}
	tab struct {
		Face  string `json:"face"`
		On    string `json:"on"`
		Reach string `json:"reach"`
		Wedge string `json:"wedge,omitempty"`
	}
	glue struct {
		Face   string `json:"face"`
		Onto   string `json:"onto"`
		Inside bool   `json:"inside,omitempty"` // with its inside; else with its outside
		Over   bool   `json:"over,omitempty"`   // its inside on the other's outside
	}
)

// Limits of a style file.
const (
	MostBytes  = 200 << 10
	mostSizes  = 20
	mostPieces = 6
	mostLines  = 40
)

var (
	name = regexp.MustCompile(`^[A-Za-z][A-Za-z0-9_]{0,15}$`)
	slug = regexp.MustCompile(`^[a-z][a-z0-9-]{1,39}$`)
)

// given are the names that formulas have besides the sizes: the card's thickness, the
// ruler's step, the width of a tab that the adhesive holds by.
var given = []string{"t", "tick", "tab"}

// words are names that formulas have other use for.
var words = []string{"in", "cm", "mm", "min", "max", "sqrt", "down", "up", "asin", "atan", "not", "and", "or", "let", "nil", "true", "false", "matches", "contains"}

// kinds of a face.
var roles = map[string]pattern.Role{"panel": pattern.Panel, "wall": pattern.Wall, "tab": pattern.Tab, "flap": pattern.Flap, "lining": pattern.Lining}

// shuts are the ways to keep a box shut.
var shuts = map[string]style.Shut{"": "", "friction": style.ByFriction, "tuck": style.ByTuck, "dot": style.ByDot, "clip": style.ByClip, "ribbon": style.ByRibbon, "band": style.ByBand}

// Read reads a style file, tries it at its usual sizes, and gives the style. Faults name
// the field to mend.
func Read(text []byte) (*style.Style, error) {
	if len(text) > MostBytes {
		return nil, fault.New(fault.TooLarge, "file", "a style file has up to %d kB", MostBytes>>10)
	}
	var f file
	if err := strict.Decode(text, &f); err != nil {
		return nil, err
	}
	if f.Format != 1 {
		return nil, fault.New(fault.UnknownFormat, "brevium_style", "this style file is of format %d; this program reads format 1", f.Format)
	}
	if !slug.MatchString(f.ID) {
		return nil, fault.New(fault.Invalid, "id", "an id is made of small letters, numbers and strokes, such as my-tray")
	}
	if slices.ContainsFunc(style.All, func(s *style.Style) bool { return s.ID == f.ID }) {
		return nil, fault.New(fault.Invalid, "id", "%q is a style of the catalogue; call yours otherwise", f.ID)
	}
	return f.style()
}

// style checks what a file says, and gives its style.
func (f file) style() (*style.Style, error) {
	if strings.TrimSpace(f.Name) == "" || len(f.Name) > 60 {
		return nil, fault.New(fault.Empty, "name", "give it a name of up to 60 letters")
	}
	m, err := f.maker()
	if err != nil {
		return nil, err
	}
	s := &style.Style{ID: m.id(), Name: f.Name, About: f.About, Opens: f.Opens, Strength: "of your own", Parameters: m.parameters, Options: m.options(), Axes: m.axes, Build: m.build, Allowance: m.allowance}
	m.trying = true
	_, err = s.Make(m.usual())
	m.trying = false
	return s, err
}

// options are what can be chosen of any box of the file.
func (m *maker) options() []*style.Option {
	out := []*style.Option{style.AdhesiveOption()}
	if m.allowance != nil {
		out = append(out, m.allowance)
	}
	return out
}

// usual are the sizes and choices of a box of which nothing else is said.
func (m *maker) usual() style.Spec {
	spec := style.Spec{Lengths: map[string]measure.Length{}, Choices: map[string]string{}, Thickness: map[string]measure.Length{"": measure.Millimetre * 3 / 10}, Tick: measure.MM.Tick(), Units: measure.MM}
	for _, o := range m.options() {
		if o.Kind == style.LengthKind {
			spec.Lengths[o.ID] = o.Default
		} else {
			spec.Choices[o.ID] = o.DefaultChoice
		}
	}
	for _, p := range m.parameters {
		spec.Lengths[p.ID] = p.Default
	}
	return spec
}

// maker builds the boxes of a file.
type maker struct {
	file
	parameters []*style.Parameter
	axes       [3]*style.Parameter
	names      []string
	made       []made
	allowance  *style.Option
	book       book
	trying     bool // faults name fields of the file, not sizes
}

// made is a piece with the book of its formulas.
type made struct {
	piece
	book book
}

func (m *maker) id() string {
	if m.Version > 1 {
		return fmt.Sprintf("%s.v%d", m.ID, m.Version)
	}
	return m.ID
}

// maker checks the file and readies its formulas.
func (f file) maker() (*maker, error) {
	m := &maker{file: f, names: slices.Clone(given), book: book{}}
	if len(f.Sizes) == 0 || len(f.Sizes) > mostSizes {
		return nil, fault.New(fault.CountRange, "sizes", "a style has 1 to %d sizes", mostSizes)
	}
	for i, x := range f.Sizes {
		at := fault.Path("sizes", i)
		if x.As == "" {
			x.As = x.ID
		}
		if !slug.MatchString(x.ID) || !m.free(x.As) {
			return nil, fault.New(fault.Invalid, fault.Path(at, "as"), "%q cannot be a size's name in formulas; use letters, such as L", x.As)
		}
		p := &style.Parameter{ID: x.ID, Label: x.Label, About: x.About, Min: measure.Millimetre, Max: 600 * measure.Millimetre}
		if p.Label == "" {
			p.Label = strings.ToUpper(x.ID[:1]) + strings.ReplaceAll(x.ID[1:], "-", " ")
		}
		for _, y := range []struct {
			field string
			text  measure.Text
			into  *measure.Length
		}{{"usual", x.Usual, &p.Default}, {"least", x.Least, &p.Min}, {"most", x.Most, &p.Max}} {
			if y.text == "" {
				continue
			}
			l, err := y.text.Length(measure.MM)
			if err != nil {
				return nil, fault.At(fault.Path(at, y.field), err)
			}
			*y.into = l
		}
		if p.Default < p.Min || p.Default > p.Max {
			return nil, fault.New(fault.OutOfRange, fault.Path(at, "usual"), "the usual %s lies outside its least and most", p.ID)
		}
		if x.Follows != "" {
			if err := m.follows(p, x.Follows); err != nil {
				return nil, fault.At(fault.Path(at, "follows"), err)
			}
		}
		m.parameters, m.names = append(m.parameters, p), append(m.names, x.As)
	}
	for i, id := range f.Room {
		k := slices.IndexFunc(m.parameters, func(p *style.Parameter) bool { return p.ID == id })
		if k < 0 {
			return nil, fault.New(fault.UnknownField, fault.Path("room", i), "%q is none of its sizes", id)
		}
		m.axes[i] = m.parameters[k]
	}
	if err := m.readyAllowance(); err != nil {
		return nil, err
	}
	for i, n := range f.Needs {
		at := fault.Path("needs", i)
		if err := m.book.ready(fault.Path(at, "this"), m.names, n.This); err != nil {
			return nil, err
		}
		if err := m.book.ready(fault.Path(at, "most"), m.names, n.Most); err != nil {
			return nil, err
		}
	}
	if len(f.Pieces) == 0 || len(f.Pieces) > mostPieces {
		return nil, fault.New(fault.CountRange, "pieces", "a style has 1 to %d pieces", mostPieces)
	}
	if _, known := shuts[f.Shut]; !known {
		return nil, fault.New(fault.UnknownChoice, "shut", "%q keeps no box shut; use friction, tuck, dot, clip, ribbon or band", f.Shut)
	}
	for i, p := range f.Pieces {
		if err := m.ready(p); err != nil {
			return nil, fault.At(fault.Path("pieces", i), err)
		}
		m.made = append(m.made, made{p, m.book})
	}
	return m, m.readyFits()
}

// follows lets a size follow from those before it.
func (m *maker) follows(p *style.Parameter, text string) error {
	f, err := compile(text, m.names)
	before := len(m.parameters)
	p.Follows = func(s style.Spec) measure.Length {
		l, err := f.length(m.sizes(s, before))
		if err != nil {
			return p.Default
		}
		return min(max(l, p.Min), p.Max)
	}
	return err
}

// sizes are the first n sizes by their names in formulas, in mm, and what else those have.
func (m *maker) sizes(s style.Spec, n int) map[string]float64 {
	out := map[string]float64{"t": s.Card("").MM(), "tick": s.Tick.Ruler().Length().MM(), "tab": s.TabWidth().MM()}
	for i, p := range m.parameters[:n] {
		out[m.names[i+len(given)]] = s.Size(p).MM()
	}
	return out
}

// numbers are what all names in formulas stand for in a box, in mm.
func (m *maker) numbers(s style.Spec) map[string]float64 {
	out := m.sizes(s, len(m.parameters))
	if m.allowance != nil {
		out[m.Allowance.As] = s.Length(m.allowance).MM()
	}
	return out
}

// free reports whether a size can have a name in formulas.
func (m *maker) free(as string) bool {
	return name.MatchString(as) && !slices.Contains(words, as) && !slices.Contains(m.names, as)
}

// ready checks a piece and readies its formulas.
func (m *maker) ready(p piece) error {
	if !slug.MatchString(p.ID) || strings.TrimSpace(p.Name) == "" {
		return fault.New(fault.Empty, "name", "give the piece an id and a name")
	}
	if len(p.Columns) == 0 || len(p.Rows) == 0 || len(p.Columns) > mostLines || len(p.Rows) > mostLines {
		return fault.New(fault.CountRange, "columns", "a piece has 1 to %d columns and rows", mostLines)
	}
	if len(p.Cells) != len(p.Rows) {
		return fault.New(fault.CountRange, "cells", "there are %d rows of cells for %d rows", len(p.Cells), len(p.Rows))
	}
	for i, text := range p.Columns {
		if err := m.book.ready(fault.Path("columns", i), m.names, text); err != nil {
			return err
		}
	}
	for i, text := range p.Rows {
		if err := m.book.ready(fault.Path("rows", i), m.names, text); err != nil {
			return err
		}
	}
	for i, f := range p.Folds {
		if err := m.book.ready(fault.Path(fault.Path("folds", i), "angle"), m.names, f.Angle); err != nil {
			return err
		}
	}
	for i, t := range p.Tabs {
		if err := m.book.ready(fault.Path(fault.Path("tabs", i), "reach"), m.names, t.Reach, t.narrower()); err != nil {
			return err
		}
	}
	for face, role := range p.Roles {
		if _, known := roles[role]; !known {
			return fault.New(fault.UnknownChoice, fault.Path("roles", face), "%q is no kind of face; use panel, wall, tab, flap or lining", role)
		}
	}
	return p.readyShapes(m.book, m.names)
}

// narrower is the formula of how much a tab loses on each side, nothing where none is
// given.
func (t tab) narrower() string { return cmp.Or(t.Wedge, "0") }
