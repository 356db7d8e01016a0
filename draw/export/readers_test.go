package export

import (
	"bytes"
	"encoding/json"
	"image/png"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/sample"
	"brevium/core/strokes"
	"brevium/core/style"
)

func diceSet(t testing.TB) *design.Result {
	t.Helper()
	in, err := design.Read([]byte(`{"brevium":1,"name":"Dice","units":"in","style":"tray-lid",
	 "size":{"length":"4 in","width":"3 in","height":"1 1/2 in"},"card":{"thickness":0.3},
	 "options":{"lid.depth":"1 in","lid.allowance":"1/16 in"},
	 "mats":[{"piece":"lid","where":"top","layers":[{"card":{"name":"A & B <x>"},"border":"1/8 in"}]}]}`))
	if err != nil {
		t.Fatal(err)
	}
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

// other runs a program that is not ours on a file; without it there is
// nothing to prove, and the test says how to get it.
func other(t *testing.T, program string, args ...string) string {
	t.Helper()
	out, err := exec.Command(program, args...).CombinedOutput()
	if err != nil {
		t.Fatalf("%s (make test installs it): %v\n%s", program, err, out)
	}
	return string(out)
}

func saved(t *testing.T, name string, text []byte) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), name)
	if err := os.WriteFile(path, text, 0o600); err != nil {
		t.Fatal(err)
	}
	return path
}

// readDXF has another reader measure the lines of a file: by layer the length
// of everything, and of its arcs, in mm.
const readDXF = `
import ezdxf, json, math, sys
def bulge(a, b, k):
    chord = math.dist(a, b)
    angle = 4 * math.atan(abs(k))
    return chord / 2 / math.sin(angle / 2) * angle
out = []
for path in sys.argv[1:]:
    doc = ezdxf.readfile(path)
    sums = {}
    for e in doc.modelspace():
        layer, s = e.dxf.layer, sums.setdefault(e.dxf.layer, {"length": 0, "arcs": 0, "closed": 0})
        if e.dxftype() == "LINE":
            s["length"] += (e.dxf.end - e.dxf.start).magnitude
        elif e.dxftype() == "CIRCLE":
            s["arcs"] += 2 * math.pi * e.dxf.radius
            s["closed"] += 1
        elif e.dxftype() == "POLYLINE":
            s["closed"] += 1 if e.is_closed else 0
            v = [(w.dxf.location.x, w.dxf.location.y, w.dxf.bulge if w.dxf.hasattr("bulge") else 0) for w in e.vertices]
            for a, b in zip(v, v[1:] + (v[:1] if e.is_closed else [])):
                if a[2]:
                    s["arcs"] += bulge(a[:2], b[:2], a[2])
                else:
                    s["length"] += math.dist(a[:2], b[:2])
    out.append({"version": doc.dxfversion, "layers": [l.dxf.name for l in doc.layers], "sums": sums, "audit": len(doc.audit().errors)})
print(json.dumps(out))
`

// Another reader finds every line of a DXF file, on its layer, as long as it
// is, and arcs as arcs, to a thousandth of a millimetre.
func TestDXFReadByAnother(t *testing.T) {
	script := saved(t, "read.py", []byte(readDXF))
	var paths []string
	var drawings []Drawing
	for _, c := range []struct{ style, options string }{
		{"tray", ""}, {"wallet-box", `"flap.shape":"rounded","notch":"1/2 in"`}, {"arched-box", ""}, {"insert", ""}, {"gable-lid", ""},
	} {
		in, err := design.Read([]byte(`{"brevium":1,"units":"in","style":"` + c.style + `","options":{` + c.options + `}}`))
		if err != nil {
			t.Fatal(err)
		}
		r, err := design.Make(t.Context(), in)
		if err != nil {
			t.Fatal(err)
		}
		for _, d := range append(Pieces(r), Packed(r)...) {
			for _, d := range []Drawing{d, d.Mirrored()} {
				drawings = append(drawings, d)
				paths = append(paths, saved(t, d.File+strconv.Itoa(len(paths))+".dxf", d.DXF(Layers{})))
			}
		}
	}
	type sums struct{ Length, Arcs, Closed float64 }
	var got []struct {
		Version string
		Layers  []string
		Sums    map[string]sums
		Audit   int
	}
	if err := json.Unmarshal([]byte(other(t, "/usr/bin/python3", append([]string{script}, paths...)...)), &got); err != nil {
		t.Fatal(err)
	}
	for i, d := range drawings {
		want := map[string]sums{}
		var cut, score sums
		for _, l := range d.Strokes(Layers{}) {
			to := &score
			if l.Tool == strokes.Cut {
				to = &cut
			}
			if l.Closed {
				to.Closed++
			}
			for k, v := range l.Path {
				if k+1 == len(l.Path) && !l.Closed {
					break
				}
				next := l.Path[(k+1)%len(l.Path)].Point
				if v.Bulge != 0 {
					to.Arcs += radius(v.Point, next, v.Bulge) * 4 * math.Atan(math.Abs(v.Bulge))
				} else {
					to.Length += next.Sub(v.Point).Len()
				}
			}
		}
		want["CUT"], want["SCORE"] = cut, score
		for name, w := range want {
			g := got[i].Sums[name]
			if math.Abs(g.Length-w.Length) > 1e-3 || math.Abs(g.Arcs-w.Arcs) > 1e-3 || g.Closed != w.Closed {
				t.Errorf("%s, %s: read as %+v; want %+v", d.Name, name, g, w)
			}
		}
		if got[i].Version != "AC1009" || got[i].Audit > 0 || !strings.Contains(strings.Join(got[i].Layers, " "), "CUT") {
			t.Errorf("%s: %s, layers %v, %d errors", d.Name, got[i].Version, got[i].Layers, got[i].Audit)
		}
	}
}

// plotted is a corner of a line as another program drew it from HPGL.
var plotted = regexp.MustCompile(`([ML]) (-?[0-9.]+), (-?[0-9.]+)`)

// Another program draws HPGL as it is: every corner of every stroke is there, arcs are as long as they
// are, nothing is mirrored.
func TestHPGLDrawnByAnother(t *testing.T) {
	const points = 25.4 / 72 // that program draws in points
	for _, id := range []string{"tray-lid", "wallet-box", "arched-box"} {
		r, err := design.Make(t.Context(), design.New("x", measure.MM, id))
		if err != nil {
			t.Fatal(err)
		}
		for _, d := range Packed(r) {
			path := saved(t, d.File+".plt", d.HPGL(Layers{}, Knife{}, d.Card))
			other(t, "hp2xx", "-q", "-t", "-m", "svg", "-f", path+".svg", path)
			text, err := os.ReadFile(path + ".svg")
			if err != nil {
				t.Fatal(err)
			}
			lowest := 0.0 // that program's picture ends with the lowest line
			for _, s := range d.Strokes(Layers{}) {
				for _, p := range s.Flat() {
					lowest = max(lowest, p.Y)
				}
			}
			var drawn []pattern.Point
			long := 0.0
			for _, m := range plotted.FindAllStringSubmatch(string(text), -1) {
				x, _ := strconv.ParseFloat(m[2], 64)
				y, _ := strconv.ParseFloat(m[3], 64)
				p := pattern.Pt(x*points, y*points+d.Height-lowest)
				if m[1] == "L" {
					long += p.Sub(drawn[len(drawn)-1]).Len()
				}
				drawn = append(drawn, p)
			}
			want := 0.0
			for _, s := range d.Strokes(Layers{}) {
				want += s.Length()
				for _, v := range s.Path {
					if !slices.ContainsFunc(drawn, func(p pattern.Point) bool { return p.Sub(v.Point).Len() < 0.05 }) {
						t.Errorf("%s, %s: no corner at %v", id, d.Name, v.Point)
					}
				}
			}
			if math.Abs(long-want) > 0.002*want {
				t.Errorf("%s, %s: %g mm are drawn, of %g", id, d.Name, long, want)
			}
		}
	}
}

// Another checker finds the mesh of every style watertight, its normals
// outwards, and as large as the box.
func TestSTLIsWatertight(t *testing.T) {
	number := func(text, expression string) float64 {
		m := regexp.MustCompile(expression).FindStringSubmatch(text)
		if m == nil {
			t.Fatalf("no %q in\n%s", expression, text)
		}
		v, err := strconv.ParseFloat(m[1], 64)
		if err != nil {
			t.Fatal(err)
		}
		return v
	}
	for _, s := range style.All {
		r, err := design.Make(t.Context(), design.New("x", measure.MM, s.ID))
		if err != nil {
			t.Fatal(err)
		}
		text, err := STL(r)
		if err != nil {
			t.Fatalf("%s: %v", s.ID, err)
		}
		said := other(t, "admesh", saved(t, "box.stl", text))
		for what, most := range map[string]float64{
			`Facets with 1 disconnected edge *: *(\d+)`: 0, `Facets with 2 disconnected edges *: *(\d+)`: 0, `Facets with 3 disconnected edges *: *(\d+)`: 0,
			`Degenerate facets *: *(\d+)`: 0, `Facets reversed *: *(\d+)`: 0, `Backwards edges *: *(\d+)`: 0,
		} {
			if n := number(said, what); n > most {
				t.Errorf("%s: %s is %v", s.ID, what, n)
			}
		}
		volume, card := 0.0, 0.0
		all, err := solids(r)
		if err != nil {
			t.Fatal(err)
		}
		for _, x := range all {
			v := x.volume()
			if v <= 0 {
				t.Errorf("%s: the normals of %s look inwards: %v mm³", s.ID, x.name, v)
			}
			volume += v
		}
		for _, p := range r.Parts {
			card += p.Pattern.Area() * p.Card.Thickness.MM() * float64(p.Copies())
		}
		if math.Abs(volume-card) > 1e-3*card {
			t.Errorf("%s: %v mm³ of card in the mesh; want %v", s.ID, volume, card)
		}
	}
}

// volume of a closed solid, by the divergence theorem.
func (s solid) volume() float64 {
	v := 0.0
	for _, t := range s.triangles {
		v += (t[0].X*(t[1].Y*t[2].Z-t[1].Z*t[2].Y) + t[0].Y*(t[1].Z*t[2].X-t[1].X*t[2].Z) + t[0].Z*(t[1].X*t[2].Y-t[1].Y*t[2].X)) / 6
	}
	return v
}

// Another program draws every score and every slit of an SVG file where it is,
// in every style.
func TestSVGDrawnByAnother(t *testing.T) {
	for n, st := range style.All {
		if !sample.Takes(t, n) {
			continue
		}
		r, err := design.Make(t.Context(), design.New("x", measure.MM, st.ID))
		if err != nil {
			t.Fatal(err)
		}
		for _, p := range r.Parts {
			d := OfPiece(p)
			out := filepath.Join(t.TempDir(), "piece.png")
			other(t, "rsvg-convert", "--zoom=3", "--background-color=white", "-o", out, saved(t, "piece.svg", d.SVG(Layers{})))
			text, err := os.ReadFile(out)
			if err != nil {
				t.Fatal(err)
			}
			picture, err := png.Decode(bytes.NewReader(text))
			if err != nil {
				t.Fatal(err)
			}
			scale := float64(picture.Bounds().Dx()) / d.Width
			dark := func(at pattern.Point) bool {
				for dx := -2; dx <= 2; dx++ {
					for dy := -2; dy <= 2; dy++ {
						if r, g, b, _ := picture.At(int(at.X*scale)+dx, int(at.Y*scale)+dy).RGBA(); r+g+b < 3*0xe800 {
							return true
						}
					}
				}
				return false
			}
			lines := slices.Clone(d.Scores)
			for _, s := range d.Slits {
				lines = append(lines, pattern.Segment{A: s[0].Point, B: s[1].Point})
			}
			for _, s := range lines {
				for _, k := range []float64{0.2, 0.5, 0.8} {
					if at := s.A.Add(s.B.Sub(s.A).Scale(k)); !dark(at) {
						t.Errorf("%s, %s: nothing is drawn at %v", st.ID, p.ID, at)
					}
				}
			}
			if empty := p.Faces[0].Polygon; len(d.Scores) > 0 {
				lo, hi := pattern.Bounds(empty)
				var mid pattern.Point // of the corners: that of the bounds may lie on a triangle's long side
				for _, q := range empty {
					mid = mid.Add(q.Scale(1 / float64(len(empty))))
				}
				if hi.X-lo.X > 10 && hi.Y-lo.Y > 10 && len(p.Pattern.Holes) == 0 && dark(mid) {
					t.Errorf("%s, %s: the middle of the %s is not empty", st.ID, p.ID, p.Faces[0].Plain())
				}
			}
		}
	}
}

func TestFiles(t *testing.T) {
	r := diceSet(t)
	for _, to := range Formats {
		for _, packed := range []bool{false, true} {
			files, err := Files(r, to, Options{Packed: packed, Mirror: true})
			if err != nil || len(files) == 0 {
				t.Fatalf("%s: %d files, %v", to, len(files), err)
			}
			seen := map[string]bool{}
			for _, f := range files {
				if len(f.Bytes) < 70 || seen[f.Name] || !regexp.MustCompile(`^[a-z0-9-]+\.`+to.Ending()+`$`).MatchString(f.Name) {
					t.Errorf("%s: %d bytes in %q", to, len(f.Bytes), f.Name)
				}
				seen[f.Name] = true
			}
		}
	}
	text, err := CSV(r)
	if err != nil || !strings.Contains(string(text), "1 1/2 in") || !strings.Contains(string(text), "first crossing") {
		t.Errorf("the list is\n%s", text)
	}
	if _, err := ParseFormat("dwg"); err == nil {
		t.Error("an unknown format is taken")
	}
}
