package measure

import (
	"brevium/core/fault"
)

// Unit is the unit a person works in.
type Unit string

// The three units people choose from.
const (
	In Unit = "in"
	CM Unit = "cm"
	MM Unit = "mm"
)

// Units lists the units in the order they are offered.
var Units = []Unit{In, CM, MM}

// ParseUnit accepts "in", "cm" or "mm".
func ParseUnit(s string) (Unit, error) {
	switch u := Unit(s); u {
	case In, CM, MM:
		return u, nil
	}
	return "", fault.New(fault.UnknownUnit, "", "%q is not a unit; use in, cm or mm", s)
}

// Size is the length of one unit; an unknown unit counts as a millimetre.
func (u Unit) Size() Length {
	switch u {
	case In:
		return Inch
	case CM:
		return Centimetre
	}
	return Millimetre
}

// Other is the unit shown beside this one: inches beside metric, and
// centimetres beside inches.
func (u Unit) Other() Unit {
	if u == In {
		return CM
	}
	return In
}

// Tick is the smallest step of a tool: the user's board, or what a number is
// shown to. It is a type of its own, so that a tick and a length cannot be
// taken for each other.
type Tick Length

// What accounts and thicknesses are shown to.
const (
	Tenth     = Tick(Millimetre / 10)
	Hundredth = Tick(Millimetre / 100)
)

// System is the unit that a board of this tick is marked in: inches or
// millimetres. The other tools on the table are taken to be marked in it too.
func (t Tick) System() Unit {
	if In.Marks(t) && !MM.Marks(t) {
		return In
	}
	return MM
}

// Ruler is the finest mark that an eye sets on the ruler and the trimmer that
// go with a board of this tick.
func (t Tick) Ruler() Tick { return t.System().Ruler() }

// Cut is what a hand cuts and marks to with the tools that go with a board of this tick: 1/16
// in, or half a millimetre.
func (t Tick) Cut() Tick {
	if t.System() == In {
		return In.Tick()
	}
	return MM.Ruler()
}

// Length is the tick as a length.
func (t Tick) Length() Length { return Length(t) }

// Tick is the usual tick of a board in this unit: 1/16 in, or 1 mm.
func (u Unit) Tick() Tick {
	if u == In {
		return Tick(Inch / 16)
	}
	return Tick(Millimetre)
}

// Ruler is the finest mark that an eye sets on a ruler or a trimmer in this
// unit: 1/32 in, or half a millimetre.
func (u Unit) Ruler() Tick {
	if u == In {
		return Tick(Inch / 32)
	}
	return Tick(Millimetre / 2)
}

// Marks reports whether a tick is one of this unit's own: a board marked in it.
func (u Unit) Marks(t Tick) bool {
	fine := Millimetre / 10
	if u == In {
		fine = Inch / 64
	}
	return t > 0 && (fine%t.Length() == 0 || t.Length()%fine == 0)
}

// Own is a tick that is one of this unit's own: the given one, or the usual
// where that is a board's in the other unit.
func (u Unit) Own(t Tick) Tick {
	if u.Marks(t) {
		return t
	}
	return u.Tick()
}

// OnMark is l as a hand sets it: the mark that Label writes when it lies on
// one, and else the nearest between those of the ruler, where the eye finds the
// middle.
func OnMark(l Length, u Unit, tick Tick) Length {
	if near := readable(l, u, tick); (l - near).Abs() <= nearNothing {
		return near
	}
	return Nearest(l, u.Ruler()/2)
}

// Nearest rounds l to a whole number of ticks, halves away from zero.
// The three functions here are the only places where lengths are rounded;
// score positions are rounded each from the fence, so errors never add up.
func Nearest(l Length, tick Tick) Length {
	if l < 0 {
		return -Nearest(-l, tick)
	}
	t := tick.Length()
	return (l + t/2) / t * t
}

// Up rounds a length of zero or more up to a whole number of ticks: the way for whatever
// must go round something else, so that clearance is never less than asked.
func Up(l Length, tick Tick) Length {
	t := tick.Length()
	return (l + t - 1) / t * t
}

// Down rounds a length of zero or more down to a whole number of ticks: the way for whatever
// must go inside something else.
func Down(l Length, tick Tick) Length { return l / tick.Length() * tick.Length() }
