package draw

import (
	"bytes"
	"encoding/base64"
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/dress"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/style"
)

// framesPerStage is how many poses are sent for each stage of folding; the
// page goes smoothly from one to the next.
const framesPerStage = 16

// Motion is a box folding, for a page to show in space: the flat faces, and
// where each one is at every frame.
type Motion struct {
	Stages []string `json:"stages"`
	Frames int      `json:"frames"` // in each stage
	Height float64  `json:"height"` // of the finished box, mm
	Reach  float64  `json:"reach"`  // the radius that holds every frame, mm
	Shut   float64  `json:"shut"`   // the radius that holds the last, mm
	Open   int      `json:"open"`   // the frame at which it stands open
	// Contents is the block of what goes in, shown from the open box on; null
	// when nothing is known of it.
	Contents *MotionBlock  `json:"contents"`
	Pieces   []MotionPiece `json:"pieces"`
	// Papers are what cards and mats show; they are told by their place in it.
	Papers []MotionPaper `json:"papers"`
	// Lying is what lies on the shut box.
	Lying []MotionPlate `json:"lying"`
	// Residual is, at each frame, how far in mm rings of faces are from
	// closing; it is nothing at the last.
	Residual []float64 `json:"residual"`
}

// MotionBlock is a block in the finished box, by its middle and its sides in mm,
// and the number of the piece and of its face that it goes with.
type MotionBlock struct {
	Piece  int        `json:"piece"`
	Face   int        `json:"face"`
	Middle [3]float64 `json:"middle"`
	Sides  [3]float64 `json:"sides"`
}

// MotionPiece is one piece. Poses[frame][face] is a quaternion x, y, z, w and
// a shift in mm; a flat point (x, y) is at (x, −y, 0) before it.
type MotionPiece struct {
	ID    string         `json:"id"`
	Name  string         `json:"name"`
	Card  float64        `json:"card"` // how thick, mm
	Paper int            `json:"paper"`
	Tile  Affine         `json:"tile"` // takes a flat point to repeats of its print
	Faces []MotionFace   `json:"faces"`
	Poses [][][7]float64 `json:"poses"`
}

// MotionFace is a face, its outline and holes as flat points, and what is
// stuck on its outside.
type MotionFace struct {
	Name    string         `json:"name"`
	Words   string         `json:"words"` // what a person calls it, "" where no paper goes on it
	Outline [][2]float64   `json:"outline"`
	Holes   [][][2]float64 `json:"holes"`
	Mats    []MotionMat    `json:"mats"`
	// Edges are the sides of the outline that are drawn, where a bend goes on over others; none is all.
	Edges []int `json:"edges,omitempty"`
	// Lift sets the face off its plane, towards its outside, by the layers it
	// lies over when it is glued, in mm.
	Lift float64 `json:"lift"`
}

// MotionPaper is a card as it is seen: the colours of its outside and inside, and
// a picture of one repeat of its print, "" for none.
type MotionPaper struct {
	look    paper.Look
	Outside paper.Colour `json:"outside"`
	Inside  paper.Colour `json:"inside"`
	Tile    string       `json:"tile"`
}

// MotionMat is a paper on a face: which one, its outline as flat points, the side
// it is on, and Tile, which takes a flat point to repeats of its print.
type MotionMat struct {
	Paper   int          `json:"paper"`
	Outline [][2]float64 `json:"outline"`
	Inside  bool         `json:"inside"`
	Tile    Affine       `json:"tile"`
	Lift    float64      `json:"lift"` // how far its upper side is from the card's, mm
	// Holes are cut out of it along the openings of the card below.
	Holes [][][2]float64 `json:"holes,omitempty"`
}

// MotionPlate is a flat piece on the shut box: its paper, and its corners in
// space.
type MotionPlate struct {
	Paper   int          `json:"paper"`
	Corners [][3]float64 `json:"corners"`
	Tile    float64      `json:"tile"` // one repeat of its print, mm
}

// paperOf gives the place of a look among the papers.
func (m *Motion) paperOf(l paper.Look) int {
	if i := slices.IndexFunc(m.Papers, func(p MotionPaper) bool { return p.look == l }); i >= 0 {
		return i
	}
	p := MotionPaper{look: l, Outside: l.Outside, Inside: l.Inside}
	switch {
	case l.Photo.ID != "":
		p.Tile = PhotoURL(l.Photo.ID)
	case l.Print != paper.Plain:
		p.Tile = "data:image/svg+xml;base64," + base64.StdEncoding.EncodeToString([]byte(TileSVG(l)))
	}
	m.Papers = append(m.Papers, p)
	return len(m.Papers) - 1
}

// repeats takes a flat point to repeats of a print that lies so.
func repeats(l paper.Look, lay Affine) Affine {
	wide, high := TileSize(l)
	return Laid(l).Then(lay).Back().Then(Affine{1 / wide, 0, 0, 1 / high, 0, 0})
}

func flatPoints(points []pattern.Point) [][2]float64 {
	out := make([][2]float64, len(points))
	for i, q := range points {
		out[i] = [2]float64{round3(q.X), round3(q.Y)}
	}
	return out
}

func round3(f float64) float64 { return math.Round(f*1000) / 1000 }

// Motion works every frame out.
func (m *Model) Motion() (*Motion, error) {
	out := &Motion{Stages: m.Stages, Frames: framesPerStage, Open: int(m.Open()) * framesPerStage}
	total := len(m.Stages) * framesPerStage
	for frame := 0; frame <= total; frame++ {
		solids, err := m.At(float64(frame) / framesPerStage)
		if err != nil {
			return nil, err
		}
		residual := 0.0
		for i, s := range solids {
			if frame == 0 {
				out.Pieces = append(out.Pieces, m.still(out, s))
			}
			var poses [][7]float64
			for _, p := range s.Poses {
				poses = append(
					poses,
					[7]float64{p.Turn.Imag, p.Turn.Jmag, p.Turn.Kmag, p.Turn.Real, round3(p.Shift.X), round3(p.Shift.Y), round3(p.Shift.Z)},
				)
			}
			out.Pieces[i].Poses = append(out.Pieces[i].Poses, poses)
			residual = max(residual, s.Residual)
			for k, f := range s.Faces {
				for _, q := range f.Polygon {
					v := s.Poses[k].Place(q)
					out.Reach = max(out.Reach, r3.Norm(v))
					if frame == total {
						out.Height = max(out.Height, v.Z)
						out.Shut = max(out.Shut, r3.Norm(v))
					}
				}
			}
		}
		out.Residual = append(out.Residual, round3(residual))
	}
	out.Lying = []MotionPlate{}
	for _, l := range m.lying {
		look := l.Card.Seen()
		wide, _ := TileSize(look)
		for _, p := range l.Plates {
			x := MotionPlate{Paper: out.paperOf(look), Tile: wide}
			for _, v := range p.Corners {
				v = r3.Add(v, r3.Scale(p.Thick, p.Outward()))
				x.Corners = append(x.Corners, [3]float64{round3(v.X), round3(v.Y), round3(v.Z)})
			}
			out.Lying = append(out.Lying, x)
		}
	}
	return out, nil
}

// Holding is the block of a room's need, standing on the floor of its part or lying where it is cradled.
func (m *Model) Holding(room style.Room, need style.Extent) *MotionBlock {
	at, out := room.At, &MotionBlock{}
	if !room.Cradles { // its foot is there, not its middle
		at.Z += need.Height.MM() / 2
	}
	out.Middle = [3]float64{round3(at.X), round3(at.Y), round3(at.Z)}
	out.Sides = [3]float64{need.Length.MM(), need.Width.MM(), need.Height.MM()}
	in := max(0, slices.IndexFunc(m.parts, func(p style.Part) bool { return p.ID == room.Part }))
	for _, p := range m.parts[:in] {
		out.Piece += p.Copies()
	}
	out.Face = max(0, slices.IndexFunc(m.finished[in].Faces, func(f pattern.Face) bool { return f.Name == m.parts[in].Root }))
	return out
}

// still gives a piece's faces as they lie flat.
func (m *Model) still(out *Motion, s Solid) MotionPiece {
	p := MotionPiece{ID: s.Part.ID, Name: s.Part.Name, Card: s.Part.Card.MM()}
	from := From{}
	if s.from != nil {
		from = *s.from
	}
	look := from.Card.Seen()
	p.Paper, p.Tile = out.paperOf(look), repeats(look, from.lay(s.Part.Pattern.Width.MM(), s.Part.Pattern.Height.MM()))
	open := dress.Open(s.Part.Pattern, s.Faces, dress.Outside)
	for i, f := range s.Faces {
		x := MotionFace{Name: f.Name, Outline: flatPoints(f.Polygon), Holes: [][][2]float64{}, Mats: []MotionMat{}}
		x.Edges = edgesOf(s.Part.Pattern, f.Polygon)
		over := map[dress.Side]float64{}
		if slices.ContainsFunc(open, func(o pattern.Face) bool { return o.Name == f.Name }) {
			x.Words = f.Plain()
		}
		for _, h := range f.Holes {
			x.Holes = append(x.Holes, flatPoints(h))
		}
		for _, mat := range m.mats {
			for _, patch := range mat.On {
				if mat.Piece == s.Part.ID && patch.Face == f.Name {
					over[mat.Side] += mat.Card.Thickness.MM()
					l := mat.Card.Seen()
					paper := MotionMat{Paper: out.paperOf(l), Outline: flatPoints(patch.Corners), Inside: mat.Side == dress.Inside, Tile: repeats(l, matLay(mat)), Lift: round3(over[mat.Side])}
					for _, hole := range openIn(s.Part.Pattern.Holes, patch.Corners) {
						paper.Holes = append(paper.Holes, flatPoints(hole))
					}
					x.Mats = append(x.Mats, paper)
				}
			}
		}
		x.Lift = float64(s.levels[i]) * s.Part.Card.MM()
		p.Faces = append(p.Faces, x)
	}
	return p
}

// OBJ writes the finished box as a Wavefront OBJ file: one object a piece, one
// polygon a face, millimetres, z up.
func (m *Model) OBJ() ([]byte, error) {
	solids, err := m.At(m.Shut())
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	b.WriteString("# a folded box in millimetres, z up\n")
	n := 1
	for _, s := range solids {
		fmt.Fprintf(&b, "o %s\n", s.Part.ID)
		for i, f := range s.Faces {
			for _, q := range f.Polygon {
				v := s.Poses[i].Place(q)
				fmt.Fprintf(&b, "v %.6f %.6f %.6f\n", v.X, v.Y, v.Z)
			}
			// Pattern corners run clockwise from outside; OBJ wants the other way.
			b.WriteString("f")
			for k := len(f.Polygon) - 1; k >= 0; k-- {
				fmt.Fprintf(&b, " %d", n+k)
			}
			b.WriteString("\n")
			n += len(f.Polygon)
		}
	}
	return b.Bytes(), nil
}

// edgesOf are the sides of a flat of a bend along which it does not go on; none where it is no flat.
func edgesOf(p *pattern.Pattern, polygon []pattern.Point) []int {
	var out []int
	for i, a := range polygon {
		if !p.RolledAlong(pattern.Segment{A: a, B: polygon[(i+1)%len(polygon)]}) {
			out = append(out, i)
		}
	}
	if len(out) == len(polygon) {
		return nil
	}
	return out
}
