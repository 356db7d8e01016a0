package pattern

import (
	"encoding/json"
	"fmt"
	"math"

	"brevium/core/measure"
)

// The pattern as it stands in a file; lengths in mm, points as [x, y], loop
// corners as [x, y, bulge]. Numbers are written in full, so that what is read
// back is the same pattern.
type (
	patternFile struct {
		Width    float64       `json:"width"`
		Height   float64       `json:"height"`
		Outline  loopFile      `json:"outline"`
		Creases  []creaseFile  `json:"creases"`
		Slits    []slitFile    `json:"slits,omitempty"`
		Holes    []loopFile    `json:"holes,omitempty"`
		Openings []openingFile `json:"openings,omitempty"`
		Scores   scoresFile    `json:"scores"`
		Glue     []glueFile    `json:"glue,omitempty"`
		Marks    []markFile    `json:"faces"`
	}
	loopFile   [][3]float64
	lineFile   [2][2]float64
	slitFile   [][]float64 // its first point with a bulge where it is an arc
	creaseFile struct {
		Line   lineFile `json:"line"`
		Angle  float64  `json:"angle"`
		Side   Side     `json:"side"`
		Rolled bool     `json:"rolled,omitempty"`
		Hinge  bool     `json:"hinge,omitempty"`
		Opened float64  `json:"opened,omitempty"`
	}
	openingFile struct {
		Kind    string   `json:"kind"`
		Face    string   `json:"face"`
		Loop    loopFile `json:"loop"`
		Through bool     `json:"through,omitempty"`
	}
	scoresFile struct {
		Vertical   []float64  `json:"vertical"`
		Horizontal []float64  `json:"horizontal"`
		Part       []lineFile `json:"part,omitempty"`
	}
	glueFile struct {
		Face        string       `json:"face"`
		Outside     bool         `json:"outside,omitempty"`
		Area        [][2]float64 `json:"area"`
		Onto        string       `json:"onto"`
		OntoOutside bool         `json:"onto_outside,omitempty"`
		Dry         bool         `json:"dry,omitempty"`
		Piece       string       `json:"piece,omitempty"`
		Play        float64      `json:"play,omitempty"`
	}
	markFile struct {
		Name  string     `json:"name"`
		Words string     `json:"words,omitempty"`
		Role  Role       `json:"role"`
		At    [2]float64 `json:"at"`
		Up    [2]float64 `json:"up"`
	}
)

func xy(p Point) [2]float64         { return [2]float64{p.X, p.Y} }
func point(a [2]float64) Point      { return Point{a[0], a[1]} }
func writeLine(s Segment) lineFile  { return lineFile{xy(s.A), xy(s.B)} }
func (l lineFile) segment() Segment { return Segment{point(l[0]), point(l[1])} }

func writeSlit(s Slit) slitFile {
	out := slitFile{{s.A.X, s.A.Y}, {s.B.X, s.B.Y}}
	if s.Bulge != 0 {
		out[0] = append(out[0], s.Bulge)
	}
	return out
}

func (f slitFile) slit() (Slit, error) {
	if len(f) != 2 || len(f[0]) < 2 || len(f[0]) > 3 || len(f[1]) != 2 {
		return Slit{}, fmt.Errorf("a slit goes from one point to another")
	}
	s := Slit{Segment: Segment{Point{f[0][0], f[0][1]}, Point{f[1][0], f[1][1]}}}
	if len(f[0]) == 3 {
		s.Bulge = f[0][2]
	}
	return s, nil
}

func writeLoop(l Loop) loopFile {
	var out loopFile
	for _, v := range l {
		out = append(out, [3]float64{v.X, v.Y, v.Bulge})
	}
	return out
}

func (f loopFile) loop() Loop {
	var out Loop
	for _, v := range f {
		out = append(out, Vertex{Point{v[0], v[1]}, v[2]})
	}
	return out
}

func writeLengths(all []measure.Length) []float64 {
	out := []float64{}
	for _, l := range all {
		out = append(out, l.MM())
	}
	return out
}

func readLengths(all []float64) []measure.Length {
	var out []measure.Length
	for _, f := range all {
		out = append(out, measure.FromMM(f))
	}
	return out
}

// MarshalJSON writes the pattern.
func (p *Pattern) MarshalJSON() ([]byte, error) {
	f := patternFile{
		Width: p.Width.MM(), Height: p.Height.MM(), Outline: writeLoop(p.Outline), Creases: []creaseFile{}, Marks: []markFile{},
		Scores: scoresFile{Vertical: writeLengths(p.Scores.Vertical), Horizontal: writeLengths(p.Scores.Horizontal)},
	}
	for _, s := range p.Scores.Part {
		f.Scores.Part = append(f.Scores.Part, writeLine(s))
	}
	for _, c := range p.Creases {
		f.Creases = append(f.Creases, creaseFile{writeLine(c.Segment), c.Angle, c.Side, c.Rolled, c.Hinge, c.Opened})
	}
	for _, s := range p.Slits {
		f.Slits = append(f.Slits, writeSlit(s))
	}
	for _, h := range p.Holes {
		f.Holes = append(f.Holes, writeLoop(h))
	}
	for _, o := range p.Openings {
		f.Openings = append(f.Openings, openingFile{o.Kind, o.Face, writeLoop(o.Loop), o.Through})
	}
	for _, g := range p.Glue {
		x := glueFile{Face: g.Face, Outside: g.Outside, Onto: g.Onto, OntoOutside: g.OntoOutside, Dry: g.Dry, Piece: g.Piece, Play: g.Play}
		for _, q := range g.Area {
			x.Area = append(x.Area, xy(q))
		}
		f.Glue = append(f.Glue, x)
	}
	for _, m := range p.Marks {
		f.Marks = append(f.Marks, markFile{m.Name, m.Words, m.Role, xy(m.At), xy(m.Up)})
	}
	return json.Marshal(f)
}

// largest is the farthest coordinate accepted, in mm.
const largest = 4000

// UnmarshalJSON reads a pattern. It refuses an outline of under three
// corners, coordinates beyond four metres and sides other than away and
// towards; Faces tells whether the lines make sense together.
func (p *Pattern) UnmarshalJSON(text []byte) error {
	var f patternFile
	if err := json.Unmarshal(text, &f); err != nil {
		return err
	}
	*p = Pattern{
		Width: measure.FromMM(f.Width), Height: measure.FromMM(f.Height), Outline: f.Outline.loop(),
		Scores: Scores{Vertical: readLengths(f.Scores.Vertical), Horizontal: readLengths(f.Scores.Horizontal)},
		parted: &parted{},
	}
	for _, s := range f.Scores.Part {
		p.Scores.Part = append(p.Scores.Part, s.segment())
	}
	for _, c := range f.Creases {
		if c.Side != Away && c.Side != Towards {
			return fmt.Errorf("a crease folds away or towards, not %q", c.Side)
		}
		p.Creases = append(p.Creases, Crease{c.Line.segment(), c.Angle, c.Side, c.Rolled, c.Hinge, c.Opened})
	}
	for _, s := range f.Slits {
		slit, err := s.slit()
		if err != nil {
			return err
		}
		p.Slits = append(p.Slits, slit)
	}
	for _, h := range f.Holes {
		p.Holes = append(p.Holes, h.loop())
	}
	for _, o := range f.Openings {
		p.Openings = append(p.Openings, Opening{o.Kind, o.Face, o.Loop.loop(), o.Through})
	}
	for _, g := range f.Glue {
		x := Glue{Face: g.Face, Outside: g.Outside, Onto: g.Onto, OntoOutside: g.OntoOutside, Dry: g.Dry, Piece: g.Piece, Play: g.Play}
		for _, q := range g.Area {
			x.Area = append(x.Area, point(q))
		}
		p.Glue = append(p.Glue, x)
	}
	for _, m := range f.Marks {
		p.Marks = append(p.Marks, Mark{m.Name, m.Words, m.Role, point(m.At), point(m.Up)})
	}
	return p.sane()
}

// sane refuses what no card could be.
func (p *Pattern) sane() error {
	if len(p.Outline) < 2 || p.Width <= 0 || p.Height <= 0 {
		return fmt.Errorf("a pattern has a size and an outline")
	}
	for _, l := range append([]Loop{p.Outline}, p.Holes...) {
		for _, v := range l {
			if math.Abs(v.X) > largest || math.Abs(v.Y) > largest || math.Abs(v.Bulge) > 100 {
				return fmt.Errorf("a corner at (%v, %v) mm lies beyond any card", v.X, v.Y)
			}
		}
	}
	for _, s := range p.Slits {
		if max(math.Abs(s.A.X), math.Abs(s.A.Y), math.Abs(s.B.X), math.Abs(s.B.Y)) > largest || math.Abs(s.Bulge) > 100 {
			return fmt.Errorf("a slit at (%v, %v) mm lies beyond any card", s.A.X, s.A.Y)
		}
	}
	for _, c := range p.Creases {
		if max(math.Abs(c.A.X), math.Abs(c.A.Y), math.Abs(c.B.X), math.Abs(c.B.Y)) > largest || math.Abs(c.Angle) > 180 {
			return fmt.Errorf("a crease at (%v, %v) mm lies beyond any card or folds beyond 180°", c.A.X, c.A.Y)
		}
	}
	return nil
}
