// Package style is the catalogue of boxes: one file a style, each saying its
// parameters, its pieces as scored grids, what must fit what, and how it is
// glued. See docs/writing-a-style.md.
package style

import (
	"slices"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// Style is one kind of box.
type Style struct {
	ID, Name, About string
	Parameters      []Parameter
	Options         []Option
	// Axes are the parameters that set the inside's length, width and height.
	Axes [3]string
	// Allowance is the option to be solved from the gap account when the
	// user leaves it out; "" for a box without fitting parts.
	Allowance string
	// Inner styles go inside a box of another style.
	Inner bool
	// Opens says in a few words how one gets in, and Strength how well the
	// box stands up to handling, for comparing.
	Opens, Strength string
	Build           func(Spec) (*Box, error)
}

// Parameter is a size of the box.
type Parameter struct {
	ID, Label, About  string
	Default, Min, Max measure.Length
	// Follows gives the value from the others when it is left out; nil means
	// the default whatever they are.
	Follows func(Spec) measure.Length
}

// Kind is what an option takes.
type Kind string

// A choice is one of some words; a length is typed like any other.
const (
	ChoiceKind Kind = "choice"
	LengthKind Kind = "length"
)

// Option is a choice of manner, or a length with a usual value.
type Option struct {
	ID, Label, About  string
	Kind              Kind
	Choices           []string
	DefaultChoice     string
	Default, Min, Max measure.Length
	Follows           func(Spec) measure.Length // as a Parameter's
	// ForFit puts the option with the questions of fit, not of shape.
	ForFit bool
}

// Spec is the values a style is built from, all present and in range.
type Spec struct {
	Lengths map[string]measure.Length // parameters and length options
	Choices map[string]string
	// Thickness of the card of each piece; "" is the box's own.
	Thickness map[string]measure.Length
	Tick      measure.Tick
	Units     measure.Unit // for what is said about limits; "" is millimetres
}

// show writes a limit for a person.
func (s Spec) show(l measure.Length) string {
	if s.Units == "" {
		return measure.Label(l, measure.MM, measure.Millimetre/100)
	}
	return measure.Label(l, s.Units, s.Tick)
}

// Card is the thickness of the card a piece is made from.
func (s Spec) Card(piece string) measure.Length {
	if t, ok := s.Thickness[piece]; ok {
		return t
	}
	return s.Thickness[""]
}

// Box is a style built to a size.
type Box struct {
	Parts []Part
	Fits  []fit.Pair
	// Extents measures the finished box inside and outside, from the layers
	// of its folded parts.
	Extents func() (inside, outside Extent, err error)
	// Assembly says, in order, how the finished parts go together.
	Assembly []string
}

// Extent is a size in space.
type Extent struct{ Length, Width, Height measure.Length }

// Part is one piece of a box. Root names the face that stays on the table.
type Part struct {
	ID, Name string
	Pattern  *pattern.Pattern
	Root     string
	// Opens says which way the piece stands in use.
	Opens Facing
	// Count is how many of it one box has; 0 is one.
	Count int
	// Beside moves the piece in pictures of the whole, in mm: to the right,
	// back and up from the middle of the table.
	Beside [3]float64
	// Places are where the copies of a piece that goes inside another stand,
	// in mm from the middle of the box's floor: to the right, back and up.
	Places []pattern.Pose
	// Measuring, when set, says how this piece is cut or scored in a way
	// its numbers alone do not show.
	Measuring string
	// Shim is how far the card is held off the fence when it is scored; its
	// numbers are then read from each edge in turn, larger by the shim.
	Shim measure.Length
	// Folding and Gluing say how, in working order; Removing does where
	// snipping and scissors at the corners are not all.
	Folding, Removing string
	Gluing            []string
}

// Copies is how many of the piece one box has.
func (p Part) Copies() int { return max(1, p.Count) }

// Facing is the way a piece's opening looks in use.
type Facing string

// A base opens upwards, a lid downwards; a tube stands on its end, the root
// being one of its walls.
const (
	Upwards   Facing = "up"
	Downwards Facing = "down"
	Upright   Facing = "upright"
)

// All is the catalogue, in the order it is shown.
var All = []*Style{
	tray, trayDouble, trayLid, hingedCarton, clamBox, walletBox, drawerSleeve, tallBox, gableLid, foldTopBag, archedBox, tower, nest,
	dividerGrid, insert,
}

// Boxes are the styles of All that stand alone.
func Boxes() []*Style {
	return slices.DeleteFunc(slices.Clone(All), func(s *Style) bool { return s.Inner })
}

// ByID finds a style.
func ByID(id string) (*Style, error) {
	i := slices.IndexFunc(All, func(s *Style) bool { return s.ID == id })
	if i < 0 {
		return nil, fault.New("unknown-style", "", "%q is not a box style; see brevium styles", id)
	}
	return All[i], nil
}

// Option finds an option.
func (s *Style) Option(id string) (Option, bool) {
	i := slices.IndexFunc(s.Options, func(o Option) bool { return o.ID == id })
	if i < 0 {
		return Option{}, false
	}
	return s.Options[i], true
}

// Options every style has.
var (
	adhesive = Option{
		ID: "adhesive", Label: "Adhesive", Kind: ChoiceKind, Choices: []string{"tape", "wet-glue"}, DefaultChoice: "tape",
		About: "Tape holds at once and wants tabs of 10 mm; wet glue gives minutes to adjust and wants 6 mm",
	}
	corners = Option{
		ID: "corners", Label: "Corners", Kind: ChoiceKind, Choices: []string{"two-tab", "slim", "pinwheel"}, DefaultChoice: "two-tab",
		About: "Two-tab: two walls carry both tabs. Slim: the same, cut narrow. Pinwheel: one tab a wall, no waste",
	}
)

// TabWidth is the narrowest tab that an adhesive holds.
func TabWidth(adhesive string) measure.Length {
	if adhesive == "wet-glue" {
		return 6 * measure.Millimetre
	}
	return 10 * measure.Millimetre
}

// measured gives the inside and outside of one folded part.
func measured(p Part, card measure.Length) (inside, outside Extent, err error) {
	f, err := p.Pattern.Finished(p.Root)
	if err != nil {
		return inside, outside, err
	}
	in, out := f.Sizes(p.Pattern, card.MM())
	extent := func(e pattern.Extent3) Extent {
		if p.Opens == Upright { // the root is a wall: its y is the height
			e.Y, e.Z = e.Z, e.Y
		}
		return Extent{measure.FromMM(e.X), measure.FromMM(e.Y), measure.FromMM(e.Z)}
	}
	return extent(in), extent(out), nil
}

// alone makes a box of one part, which holds and shows itself.
func alone(p Part, card measure.Length) *Box {
	return &Box{Parts: []Part{p}, Extents: func() (Extent, Extent, error) { return measured(p, card) }}
}

// atMost refuses one size that may not be over another, naming the limit.
func (s Spec) atMost(id string, limit measure.Length, because string) error {
	if s.Lengths[id] > limit {
		return fault.New("out-of-range", "size."+id, "the %s can be at most %s: %s", id, s.show(limit), because)
	}
	return nil
}
