package tool

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
)

// Mat is a cutting mat; its sizes are mm.
type Mat struct {
	Name          string
	Width, Height float64
}

// Mats are the usual ones.
var Mats = []Mat{{"12x12", 304.8, 304.8}, {"12x24", 304.8, 609.6}, {"a4", 210, 297}, {"a3", 297, 420}}

// Called is what a mat is called.
func (m Mat) Called() string {
	switch {
	case m.Name == "a4" || m.Name == "a3":
		return strings.ToUpper(m.Name)
	case slices.Contains(Mats, m):
		return strings.ReplaceAll(m.Name, "x", " × ") + " in"
	}
	return strings.ReplaceAll(m.Name, "x", " × ") + " mm"
}

// Limits of a mat, in mm.
const (
	leastMat = 50.0
	mostMat  = 1500.0
)

// OfSize is a mat of one's own; in mm.
func OfSize(width, height float64) Mat {
	name := func(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
	for _, m := range Mats {
		if m.Width == width && m.Height == height {
			return m
		}
	}
	return Mat{name(width) + "x" + name(height), width, height}
}

// ParseMat finds a mat by its name: a usual one's, or width x height in mm.
func ParseMat(name string) (Mat, error) {
	var names []string
	for _, m := range Mats {
		if m.Name == strings.ToLower(name) {
			return m, nil
		}
		names = append(names, m.Name)
	}
	if w, h, ok := strings.Cut(name, "x"); ok {
		width, err := strconv.ParseFloat(w, 64)
		height, err2 := strconv.ParseFloat(h, 64)
		if err == nil && err2 == nil && min(width, height) >= leastMat && max(width, height) <= mostMat {
			return OfSize(width, height), nil
		}
	}
	return Mat{}, fault.New(fault.UnknownChoice, "mat", "%q is no mat; use %s, or its width and height in mm such as 228.6x304.8", name, strings.Join(names, ", "))
}

// Machine is a cutting machine; without a mat it is not owned. The first of its Mats is the one it usually
// has, and nothing is cut within the Margin of a mat's edges. Its blade trails behind the head and a ring
// runs on past its beginning; it presses with so many grams at most, 0 for enough, and scores with so many,
// 0 for what the card asks for. Scores says how folds are scored.
type Machine struct {
	Mats              []Mat
	Margin            measure.Length
	Blade, Overcut    measure.Length
	Force, ScoreForce int
	Scores            Scores
}

// Scores is how a machine's owner scores folds.
type Scores string

// A machine presses a score, or perforates it; or it is left to the scoring board.
const (
	Pressed    Scores = ""
	Perforated Scores = "perforated"
	OnBoard    Scores = "board"
)

// None tells that no machine is owned.
func (m Machine) None() bool { return len(m.Mats) == 0 }

// UsualMachine is one as most are, with some mats.
func UsualMachine(mats ...Mat) Machine {
	return Machine{Mats: mats, Blade: measure.Millimetre / 4, Overcut: measure.Millimetre / 2}
}

// Usually is a machine, or where none is owned the usual one with the first of the usual mats.
func (m Machine) Usually() Machine {
	if m.None() {
		return UsualMachine(Mats[0])
	}
	return m
}

// Limits of what is made.
const (
	mostBlade   = 2 * measure.Millimetre
	mostOvercut = 5 * measure.Millimetre
	mostMargin  = 20 * measure.Millimetre
	leastForce  = 20
	mostForce   = 5000
)

// check refuses machines that nobody makes.
func (m Machine) check() error {
	if len(m.Mats) > Most {
		return fault.New(fault.CountRange, "tools.machine", "a list has up to %d mats", Most)
	}
	for i, one := range m.Mats {
		if min(one.Width, one.Height) < leastMat || max(one.Width, one.Height) > mostMat {
			return fault.New(fault.OutOfRange, "tools.machine", "mats are made from 50 mm to 1.5 m")
		}
		if slices.Contains(m.Mats[:i], one) {
			return fault.New(fault.NamedTwice, "tools.machine", "the mat %s is there twice", one.Called())
		}
	}
	force := func(field string, g int) error {
		if g != 0 && (g < leastForce || g > mostForce) {
			return fault.New(fault.OutOfRange, field, "machines press with %d to %d g; 0 is enough for any card", leastForce, mostForce)
		}
		return nil
	}
	switch {
	case m.Scores != Pressed && m.Scores != Perforated && m.Scores != OnBoard:
		return fault.New(fault.UnknownChoice, "tools.machine.scores", "%q scores nothing; use perforated or board, or leave it out", m.Scores)
	case m.Margin < 0 || m.Margin > mostMargin:
		return fault.New(fault.OutOfRange, "tools.machine.margin", "a mat's margin is 0 to 20 mm")
	case m.Blade < 0 || m.Blade > mostBlade:
		return fault.New(fault.OutOfRange, "tools.machine.blade", "a blade trails by up to 2 mm; most by 0.25")
	case m.Overcut < 0 || m.Overcut > mostOvercut:
		return fault.New(fault.OutOfRange, "tools.machine.overcut", "a cut runs on by up to 5 mm; 0.5 is usual")
	}
	if err := force("tools.machine.force", m.Force); err != nil {
		return err
	}
	return force("tools.machine.score", m.ScoreForce)
}

// With is what boxes are cut with; "" is the trimmer.
type With string

// What boxes are cut with.
const (
	Trimmer   With = ""
	Scissors  With = "scissors"
	ByMachine With = "machine"
)

// Withs lists them as they are offered.
var Withs = []With{Trimmer, Scissors, ByMachine}

// ByShape tells that pieces are laid by their outlines.
func (w With) ByShape() bool { return w != Trimmer }

// String is its word.
func (w With) String() string {
	if w == Trimmer {
		return "trimmer"
	}
	return string(w)
}

// ParseWith reads such a word; left out it is the trimmer.
func ParseWith(word string) (With, error) {
	for _, w := range Withs {
		if word == string(w) || word == w.String() {
			return w, nil
		}
	}
	return Trimmer, fault.New(fault.UnknownChoice, "", "%q cuts nothing; use %s", word, fmt.Sprint(Withs[0], ", ", Withs[1], " or ", Withs[2]))
}
