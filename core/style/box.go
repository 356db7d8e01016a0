package style

import (
	"fmt"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// Box is a style built to a size.
type Box struct {
	Parts []Part
	// Fits are the relations of parts that go over or into one another.
	Fits []fit.Pair
	// Stands are the parts that stand on another.
	Stands []Standing
	// Room is what the finished box gives.
	Room Room
	// Shut is what keeps the box shut; Dots, Brads and Hooks are how many
	// removable dots, brads and pieces of hook-and-loop hold it besides.
	Shut               Shut
	Dots, Brads, Hooks int
	// Small are the small boxes that an assembly is made of.
	Small []Small
	// Remarks are what is not as it should be, and is made all the same.
	Remarks []Remark
	// Doubled says that the walls which carry are of two layers.
	Doubled bool
	// Flat says that what is made lies flat again, to be stored.
	Flat bool
	// Shuts are the faces of the first part that are folded to close it, in the
	// order in which nothing is in the way; nil when there is but one way.
	Shuts []string
	// Together is how the made parts become the box, are filled and closed.
	Together []hand.Move
}

// Closes reports whether a move closes the box.
func (b *Box) Closes() bool {
	return slices.ContainsFunc(b.Together, func(m hand.Move) bool {
		own, says := m.(hand.Own)
		_, shuts := m.(hand.Shut)
		return shuts || says && own.Kind == hand.OwnClosing
	})
}

// Added reports whether something that is no part of the box keeps it shut.
func (s Shut) Added() bool {
	return slices.Contains([]Shut{ByDot, ByClip, ByRestick, ByRibbon, ByMagnet, ByHook, ByBand, ByBrad}, s)
}

// Shut is what keeps a box shut when it is full.
type Shut string

// A box stays shut by the fit of its parts, by a flap that is tucked in, or by
// something that is added to it; or it is open and stays so.
const (
	StaysOpen  Shut = ""
	ByFriction Shut = "friction"
	ByTuck     Shut = "a tucked flap"
	ByDot      Shut = "a removable dot"
	ByClip     Shut = "a clip"
	ByRestick  Shut = "repositionable tape"
	ByRibbon   Shut = "a ribbon"
	ByMagnet   Shut = "a pair of magnets"
	ByHook     Shut = "hook-and-loop"
	ByBand     Shut = "a band"
	ByBrad     Shut = "a brad"
	Sealed     Shut = "glue"
)

// Standing is a part that stands on another; Otherwise says what to do when
// it would not.
type Standing struct{ Upper, Lower, Otherwise string }

// Part is one piece of a box. Root names the face that stays on the table.
type Part struct {
	ID, Name string
	Pattern  *pattern.Pattern
	Root     string
	// Card is its thickness.
	Card measure.Length
	// Opens says which way the piece stands in use.
	Opens Facing
	// HalfTurn: it is given half a turn on the table.
	HalfTurn bool
	// Count is how many of it one box has; 0 is one.
	Count int
	// At is where the piece stands in the finished box, in mm: its middle
	// from the middle of the table, to the right and back, and its foot up.
	At r3.Vec
	// Lies, when set, is how it then lies there, such as on its side; and On is
	// the face of another part that it moves with.
	Lies *pattern.Pose
	On   *Carrier
	// Away is how far it is moved from there when the box is open. Last says
	// that it is put on for good when the box is full, and stays.
	Away r3.Vec
	Last bool
	// Places are where the copies of a piece that goes inside another stand,
	// by poses from the root's own, the middle of the box's floor being the
	// origin. They take the place of Opens and At.
	Places []pattern.Pose
	// Apart is how far such copies are moved away from the middle of the box when it is open, in mm.
	Apart float64
	// Handle says that the box may be carried by it.
	Handle bool
	// Shim is how far the card is held off the fence when it is scored; its
	// numbers are then read from each edge in turn, larger by the shim.
	Shim measure.Length
	// Way, when set, is how the piece moves from open to shut, or from Via to
	// finished: the angle of each crease, in degrees on its own side, from 0 to 1.
	Way func(at float64) ([]float64, error)
	// Via, when set, is a form on the way from flat to finished, as Way's: such as
	// a tube before its top is closed.
	Via []float64
	// Making is how a hand makes it, move by move; nil, or telling no moves, where no
	// construction tells it and General does. Told when somebody asks: most boxes are only sized.
	Making func() []hand.Move
	// Own are the words of whoever made the style up, on folding and gluing it.
	Own []hand.Own
}

// Moves is how a hand makes it; none where no construction tells it.
func (p Part) Moves() []hand.Move {
	if p.Making == nil {
		return nil
	}
	return p.Making()
}

// Traced reports whether it is drawn round a printed template.
func (p Part) Traced() bool {
	return slices.ContainsFunc(p.Moves(), func(m hand.Move) bool { _, traced := m.(hand.Template); return traced })
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

// Raise says which way is up on the walls round a panel: away from it, or, on a piece that
// opens downwards, towards it.
func (f Facing) Raise(b *pattern.Builder, panel *pattern.Leaf, walls ...*pattern.Leaf) {
	if f == Downwards {
		b.Hang(panel, walls...)
		return
	}
	b.Up(panel, walls...)
}

// Settle gives the box the room of its first part when the style said none.
func (b *Box) Settle(inner bool) error {
	if inner || b.Room.Shape != "" {
		return nil
	}
	room, err := roomOf(b.Parts[0])
	b.Room = room
	return err
}

// roomOf is the block inside one folded part, from its layers: it stands on
// the part's root, or a tube's foot.
func roomOf(p Part) (Room, error) {
	f, err := p.Pattern.Finished(p.Root)
	if err != nil {
		return Room{}, fmt.Errorf("%s: %w", p.ID, err)
	}
	in, _ := f.Sizes(p.Pattern, p.Card.MM())
	if p.Opens == Upright { // the root is a wall: its y is the height
		in.Y, in.Z = in.Z, in.Y
	}
	return blockRoom(p, f, Extent{measure.FromMM(in.X), measure.FromMM(in.Y), measure.FromMM(in.Z)}), nil
}

// blockRoom is a block of the given size that stands in the middle of a part.
func blockRoom(p Part, f *pattern.Folded, e Extent) Room {
	stand := p.stand(f)
	at := r3.Vec{X: p.At.X, Y: p.At.Y, Z: p.At.Z + p.Card.MM()/2}
	if pose, root, i := f.Face(p.Root); i >= 0 && p.Opens != Upright {
		lo, hi := pattern.Bounds(root.Polygon)
		v := pose.Then(stand).Place(lo.Add(hi).Scale(0.5))
		at.X, at.Y, at.Z = v.X, v.Y, v.Z+p.Card.MM()/2
	}
	return Block(e, at)
}

// And puts words in a row: "a", "a and b", "a, b and c".
func And(words []string) string {
	last := len(words) - 1
	if last < 1 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:last], ", ") + " and " + words[last]
}
