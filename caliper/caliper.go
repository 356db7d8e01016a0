// Package caliper is a stand-in for a USB caliper: the kind that types its
// reading into the field that has the focus. It ships with the program so
// that measuring several of a thing and taking the largest can be tried, and
// tested, without one.
package caliper

import (
	"math/rand"

	"brevium/core/measure"
)

// Resolution is the last digit such a caliper shows.
const Resolution = measure.Hundredth

// Noise is the most a reading strays from the true size either way: a jaw not
// quite square, a thing pressed a little.
const Noise = measure.Millimetre / 20

// Caliper gives readings, each with its own small error.
type Caliper struct{ chance *rand.Rand }

// New makes a caliper whose errors follow from the seed.
func New(seed int64) *Caliper { return &Caliper{rand.New(rand.NewSource(seed))} }

// Read measures something of a true size: within Noise of it, in whole steps
// of Resolution, never under zero.
func (c *Caliper) Read(size measure.Length) measure.Length {
	stray := measure.Length(c.chance.Int63n(int64(2*Noise)+1)) - Noise
	return max(0, measure.Nearest(size+stray, Resolution))
}

// Type is a reading as it is typed: "48.02 mm".
func (c *Caliper) Type(size measure.Length) string {
	return measure.Number(c.Read(size), measure.MM, Resolution) + " mm"
}
