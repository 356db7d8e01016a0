package stuff

import (
	"math"
	"slices"
	"strings"

	"brevium/core/fault"
)

// Class is a class of post: sides in mm, long to short, and grams.
type Class struct {
	Name  string
	Sides [3]float64
	Grams float64
}

// Classes are those to begin with, from the smallest; a maker's post has its own.
var Classes = []Class{
	{"letter", [3]float64{240, 165, 5}, 100},
	{"large letter", [3]float64{353, 250, 25}, 750},
	{"small parcel", [3]float64{450, 350, 160}, 2000},
	{"parcel", [3]float64{610, 460, 460}, 20000},
}

// MostClasses is how many classes of post there are at most.
const MostClasses = 8

// CheckClasses refuses classes that are none.
func CheckClasses(all []Class) error {
	if len(all) == 0 || len(all) > MostClasses {
		return fault.New(fault.CountRange, "classes", "the post has 1 to %d classes", MostClasses)
	}
	for i, c := range all {
		sides := slices.Sorted(slices.Values(c.Sides[:]))
		if strings.TrimSpace(c.Name) == "" || len(c.Name) > 60 || !(sides[0] > 0 && sides[2] <= 5000) || !(c.Grams > 0 && c.Grams <= 100_000) {
			return fault.New(fault.OutOfRange, fault.Path("classes", i), "a class of post has a name, three sides up to 5 m and a weight up to 100 kg")
		}
	}
	return nil
}

// padding goes round what is posted made up, on each side, in mm.
const padding = 20

// Padded is the size of a box with its padding.
func Padded(l, w, h float64) [3]float64 {
	return [3]float64{l + 2*padding, w + 2*padding, h + 2*padding}
}

// FlatHigh is how high n boxes lie that are posted flat and unglued: 1.1·n·Σt.
func FlatHigh(n int, cards []float64) float64 {
	sum := 0.0
	for _, t := range cards {
		sum += t
	}
	return 1.1 * float64(n) * sum
}

// over is by how much a thing is larger than a class on each sorted side, in mm, and heavier, in
// grams; nothing where it fits.
func (c Class) over(size [3]float64, grams float64) (sides [3]float64, more float64) {
	slices.SortFunc(size[:], func(a, b float64) int { return int(math.Copysign(1, b-a)) })
	for i, s := range size {
		sides[i] = max(0, s-c.Sides[i])
	}
	return sides, max(0, grams-c.Grams)
}

// Posted is the class that something goes by, and what it is over the class below: on each
// sorted side in mm, in grams. Index is -1 where it goes by none.
type Posted struct {
	Index int
	Over  [3]float64
	More  float64
}

// Post finds the first class that something fits, by sorted sides and mass.
func Post(classes []Class, size [3]float64, grams float64) Posted {
	out := Posted{Index: -1}
	for i, c := range classes {
		sides, more := c.over(size, grams)
		if sides == ([3]float64{}) && more == 0 {
			out.Index = i
			return out
		}
		out.Over, out.More = sides, more
	}
	return out
}

// Crate is how many boxes a crate holds upright: in a layer, the layers there is room for, the
// layers that the lowest box bears (1 + ⌊P/(5.4·m·g)⌋), and all of them.
type Crate struct{ Layer, Room, Bears, All int }

// Crated packs a crate of the given inside with boxes of a size, the better of two turns.
func (t *Table) Crated(inside, box [3]float64, bears, grams float64) Crate {
	fit := func(l, w float64) int { return int(inside[0]/l) * int(inside[1]/w) }
	c := Crate{Layer: max(fit(box[0], box[1]), fit(box[1], box[0])), Room: int(inside[2] / box[2])}
	c.Bears = c.Room
	if grams > 0 {
		c.Bears = 1 + int(bears/(t.StackCrate*grams*gravity))
	}
	c.All = c.Layer * min(c.Room, c.Bears)
	return c
}
