package tool

import (
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Mat is a cutting mat; its sizes are mm.
type Mat struct {
	Name          string
	Width, Height float64
}

// Mats are those there are.
var Mats = []Mat{{"12x12", 304.8, 304.8}, {"12x24", 304.8, 609.6}, {"a4", 210, 297}, {"a3", 297, 420}}

// Called is what a mat is called.
func (m Mat) Called() string {
	switch m.Name {
	case "a4", "a3":
		return strings.ToUpper(m.Name)
	}
	return strings.ReplaceAll(m.Name, "x", " × ") + " in"
}

// ParseMat finds a mat by its name.
func ParseMat(name string) (Mat, error) {
	var names []string
	for _, m := range Mats {
		if m.Name == strings.ToLower(name) {
			return m, nil
		}
		names = append(names, m.Name)
	}
	return Mat{}, fault.New(fault.UnknownChoice, "mat", "%q is no mat; use %s", name, strings.Join(names, ", "))
}

// Machine is a cutting machine; the zero one is not owned. Its blade trails behind the head and a ring
// runs on past its beginning; it presses with so many grams at most, 0 for enough.
type Machine struct {
	Mat            string
	Blade, Overcut measure.Length
	Force          int
}

// UsualMachine is one as most are, with a mat.
func UsualMachine(mat string) Machine {
	return Machine{Mat: mat, Blade: measure.Millimetre / 4, Overcut: measure.Millimetre / 2}
}

// Limits of what is made.
const (
	mostBlade   = 2 * measure.Millimetre
	mostOvercut = 5 * measure.Millimetre
	leastForce  = 20
	mostForce   = 5000
)

// check refuses machines that nobody makes.
func (m Machine) check() error {
	if m == (Machine{}) {
		return nil
	}
	if _, err := ParseMat(m.Mat); err != nil {
		return fault.At("tools.machine", err)
	}
	switch {
	case m.Blade < 0 || m.Blade > mostBlade:
		return fault.New(fault.OutOfRange, "tools.machine.blade", "a blade trails by up to 2 mm; most by 0.25")
	case m.Overcut < 0 || m.Overcut > mostOvercut:
		return fault.New(fault.OutOfRange, "tools.machine.overcut", "a cut runs on by up to 5 mm; 0.5 is usual")
	case m.Force != 0 && (m.Force < leastForce || m.Force > mostForce):
		return fault.New(fault.OutOfRange, "tools.machine.force", "machines press with %d to %d g; 0 is enough for any card", leastForce, mostForce)
	}
	return nil
}
