package export

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/design"
	"brevium/core/pattern"
	"brevium/core/style"
)

// solid is the card of one face in space: a prism as thick as the card, closed
// all round, its triangles against the clock as seen from outside.
type solid struct {
	name      string
	triangles [][3]r3.Vec
}

// solids gives the finished box, one closed solid a face, in mm, z up.
func solids(r *design.Result) ([]solid, error) {
	bodies, err := r.Bodies(style.Finished)
	if err != nil {
		return nil, err
	}
	var out []solid
	for _, b := range bodies {
		for i, f := range b.Faces {
			s := solid{name: fmt.Sprintf("%s-%d-%s", b.Part.ID, b.Copy+1, strings.ReplaceAll(f.Name, ".", "-"))}
			t := b.Part.Card.MM()
			middle := float64(b.Levels[i]) * t
			rings := [][]pattern.Point{clean(f.Polygon)}
			for _, h := range f.Holes {
				rings = append(rings, clean(h))
			}
			at := func(q pattern.Point, up float64) r3.Vec {
				return r3.Add(b.Poses[i].Place(q), r3.Scale(middle+up*t/2, b.Poses[i].Normal()))
			}
			flat, err := triangles(rings)
			if err != nil {
				return nil, fmt.Errorf("%s, %s: %w", b.Part.Name, f.Plain(), err)
			}
			for _, k := range flat { // clockwise on the card, which is seen from outside with y down
				s.triangles = append(s.triangles, [3]r3.Vec{at(k[0], 1), at(k[2], 1), at(k[1], 1)}, [3]r3.Vec{at(k[0], -1), at(k[1], -1), at(k[2], -1)})
			}
			for n, ring := range rings {
				outer := (pattern.Area(ring) > 0) == (n == 0)
				for k, q := range ring {
					p := ring[(k+1)%len(ring)]
					if !outer {
						q, p = p, q
					}
					s.triangles = append(s.triangles, [3]r3.Vec{at(q, 1), at(p, 1), at(p, -1)}, [3]r3.Vec{at(q, 1), at(p, -1), at(q, -1)})
				}
			}
			out = append(out, s)
		}
	}
	return out, nil
}

// clean leaves out corners that are none: on a straight edge, or double.
func clean(ring []pattern.Point) []pattern.Point {
	out := slices.Clone(ring)
	for i := 0; i < len(out) && len(out) > 3; {
		a, b, c := out[(i+len(out)-1)%len(out)], out[i], out[(i+1)%len(out)]
		if math.Abs(b.Sub(a).Cross(c.Sub(b))) < 1e-9 {
			out = slices.Delete(out, i, i+1)
			i = 0
			continue
		}
		i++
	}
	return out
}

// triangles parts a polygon with holes into triangles, clockwise as seen, by
// cutting off ears (G. H. Meisters, Polygons have ears, 1975). Holes are joined
// to what is outside them by a bridge first.
func triangles(rings [][]pattern.Point) ([][3]pattern.Point, error) {
	ring := slices.Clone(rings[0])
	if pattern.Area(ring) < 0 {
		slices.Reverse(ring)
	}
	holes := slices.Clone(rings[1:])
	right := func(h []pattern.Point) float64 { _, hi := pattern.Bounds(h); return hi.X }
	slices.SortFunc(holes, func(a, b []pattern.Point) int {
		if right(a) > right(b) {
			return -1
		}
		return 1
	})
	for _, h := range holes {
		h = slices.Clone(h)
		if pattern.Area(h) > 0 {
			slices.Reverse(h)
		}
		ring = bridged(ring, h)
	}
	var out [][3]pattern.Point
	for len(ring) > 3 {
		cut := -1
		for i := range ring {
			if ear(ring, i) {
				cut = i
				break
			}
		}
		if cut < 0 {
			return nil, fmt.Errorf("the face does not part into triangles")
		}
		n := len(ring)
		out = append(out, [3]pattern.Point{ring[(cut+n-1)%n], ring[cut], ring[(cut+1)%n]})
		ring = slices.Delete(ring, cut, cut+1)
	}
	return append(out, [3]pattern.Point{ring[0], ring[1], ring[2]}), nil
}

// ear reports whether a corner can be cut off: it turns with the clock, and no
// other corner lies in its triangle.
func ear(ring []pattern.Point, i int) bool {
	n := len(ring)
	a, b, c := ring[(i+n-1)%n], ring[i], ring[(i+1)%n]
	if b.Sub(a).Cross(c.Sub(b)) <= 1e-12 {
		return false
	}
	for _, q := range ring {
		if q == a || q == b || q == c {
			continue
		}
		if b.Sub(a).Cross(q.Sub(a)) >= 0 && c.Sub(b).Cross(q.Sub(b)) >= 0 && a.Sub(c).Cross(q.Sub(c)) >= 0 {
			return false
		}
	}
	return true
}

// bridged joins a hole to a ring by the shortest line between two of their
// corners that meets neither.
func bridged(ring, hole []pattern.Point) []pattern.Point {
	best, from, to := math.Inf(1), 0, 0
	clear := func(a, b pattern.Point) bool {
		for _, loop := range [][]pattern.Point{ring, hole} {
			for i, p := range loop {
				q := loop[(i+1)%len(loop)]
				if p == a || p == b || q == a || q == b {
					continue
				}
				d, e := b.Sub(a), q.Sub(p)
				if (d.Cross(p.Sub(a)) > 0) != (d.Cross(q.Sub(a)) > 0) && (e.Cross(a.Sub(p)) > 0) != (e.Cross(b.Sub(p)) > 0) {
					return false
				}
			}
		}
		return true
	}
	for i, a := range ring {
		for k, b := range hole {
			if d := b.Sub(a).Len(); d < best && clear(a, b) {
				best, from, to = d, i, k
			}
		}
	}
	var out []pattern.Point
	out = append(out, ring[:from+1]...)
	out = append(out, hole[to:]...)
	out = append(out, hole[:to+1]...)
	return append(out, ring[from:]...)
}

// STL writes the finished box as a mesh for printing and measuring, binary, in
// mm: every face a closed solid as thick as its card, normals outwards.
func STL(r *design.Result) ([]byte, error) {
	all, err := solids(r)
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	head := make([]byte, 80)
	copy(head, "finished box, mm")
	b.Write(head)
	n := 0
	for _, s := range all {
		n += len(s.triangles)
	}
	vec := func(v r3.Vec) {
		for _, x := range []float64{v.X, v.Y, v.Z} {
			b.Write(binary.LittleEndian.AppendUint32(nil, math.Float32bits(float32(x))))
		}
	}
	b.Write(binary.LittleEndian.AppendUint32(nil, uint32(n)))
	for _, s := range all {
		for _, t := range s.triangles {
			vec(r3.Unit(r3.Cross(r3.Sub(t[1], t[0]), r3.Sub(t[2], t[0]))))
			for _, v := range t {
				vec(v)
			}
			b.Write([]byte{0, 0})
		}
	}
	return b.Bytes(), nil
}

// OBJ writes the finished box as text, a group a face, in mm.
func OBJ(r *design.Result) ([]byte, error) {
	all, err := solids(r)
	if err != nil {
		return nil, err
	}
	var b strings.Builder
	b.WriteString("# the finished box, in mm, z up\n")
	next := 1
	for _, s := range all {
		fmt.Fprintf(&b, "g %s\n", s.name)
		index := map[r3.Vec]int{}
		var faces strings.Builder
		for _, t := range s.triangles {
			faces.WriteString("f")
			for _, v := range t {
				if index[v] == 0 {
					index[v] = next
					next++
					fmt.Fprintf(&b, "v %s %s %s\n", number(v.X), number(v.Y), number(v.Z))
				}
				fmt.Fprintf(&faces, " %d", index[v])
			}
			faces.WriteString("\n")
		}
		b.WriteString(faces.String())
	}
	return []byte(b.String()), nil
}
