package plotter_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/sample"
	"brevium/core/strokes"
	"brevium/core/style"
	"brevium/core/tool"
	"brevium/draw/export"
	"brevium/plotter"
)

// sized are a style's usual box, and the same a third smaller and larger, as far as it may be.
func sized(t *testing.T, s *style.Style, k int) *design.Result {
	t.Helper()
	in := design.New(s.Name, measure.MM, s.ID)
	for id, v := range in.Lengths {
		in.Lengths[id] = measure.Nearest(v*measure.Length(3+k)/3, measure.Tick(measure.Millimetre/2))
	}
	r, err := design.Make(t.Context(), in)
	if err != nil {
		return nil // not every style may be so large or so small
	}
	return r
}

// large is a mat that takes every sheet of a test.
var large = tool.Mat{Name: "large", Width: 1200, Height: 1200}

// cutAll cuts drawings one after the other and says what did not come off as planned.
func cutAll(t *testing.T, files []*plotter.File, want []strokes.Piece) string {
	t.Helper()
	off := map[string]int{}
	for n, f := range files {
		var left []strokes.Piece
		for _, p := range want {
			if p.Copies -= off[p.Name]; p.Copies > 0 {
				left = append(left, p)
			}
		}
		r, err := plotter.Cut(f, plotter.Usual(large, f.Card), left)
		if err != nil {
			return fmt.Sprintf("sheet %d: %v", n+1, err)
		}
		if !r.AsPlanned() {
			return fmt.Sprintf("sheet %d: %s %+v %+v", n+1, r.Says(), r.Free, r.Held)
		}
		if r.Tip > 0.01 {
			return fmt.Sprintf("sheet %d: the tip strays by %g", n+1, r.Tip)
		}
		for _, p := range r.Free {
			off[p.Piece]++
		}
	}
	for _, p := range want {
		if off[p.Name] != p.Copies {
			return fmt.Sprintf("%d of %d %s", off[p.Name], p.Copies, p.Name)
		}
	}
	return ""
}

// Every style, in three sizes, comes off whole and true: from what is exported as SVG and as HPGL, by
// the way of the tip and by that of the head.
func TestAllComesOff(t *testing.T) {
	for i, s := range style.All {
		for k := -1; k <= 1; k++ {
			if !sample.Takes(t, 3*i+k+1) {
				continue
			}
			r := sized(t, s, k)
			if r == nil {
				continue
			}
			var drawn, tip, head []*plotter.File
			for _, d := range export.Packed(r) {
				read := func(f *plotter.File, err error) *plotter.File {
					if err != nil {
						t.Fatalf("%s: %v", s.ID, err)
					}
					f.Card = d.Card.Thickness.MM()
					return f
				}
				drawn = append(drawn, read(plotter.ReadSVG(d.SVG(export.Layers{}))))
				tip = append(tip, read(plotter.ReadHPGL(d.HPGL(export.Layers{}, export.Knife{}, d.Card), d.Width, d.Height, 0.25)))
				head = append(head, read(plotter.ReadHPGL(d.HPGL(export.Layers{}, export.Knife{Behind: 0.25, Overcut: 0.5}, d.Card), d.Width, d.Height, 0.25)))
			}
			want := export.Wanted(r)
			for what, files := range map[string][]*plotter.File{"SVG": drawn, "the tip's HPGL": tip, "the head's HPGL": head} {
				if wrong := cutAll(t, files, want); wrong != "" {
					t.Errorf("%s %+d, %s: %s", s.ID, k, what, wrong)
				}
			}
		}
	}
}

// A piece by itself comes off too, of every style in inches, whose lines lie between a plotter's units.
func TestPiecesByThemselvesComeOff(t *testing.T) {
	for i, s := range style.All {
		if !sample.Takes(t, i+2) {
			continue
		}
		r, err := design.Make(t.Context(), design.New(s.Name, measure.In, s.ID))
		if err != nil {
			t.Fatal(err)
		}
		for _, d := range export.Pieces(r) {
			for _, knife := range []export.Knife{{}, export.Usual} {
				f, err := plotter.ReadHPGL(d.HPGL(export.Layers{}, knife, d.Card), d.Width, d.Height, 0.25)
				if err != nil {
					t.Fatal(err)
				}
				if rep, err := plotter.Cut(f, plotter.Usual(large, d.Card.Thickness.MM()), export.Wanted(r)); err != nil || !rep.AsPlanned() {
					t.Errorf("%s, %s by %+v: %v", s.ID, d.File, knife, err)
				}
			}
		}
	}
}

// spoil changes a drawing in one way, or tells that it has nothing to spoil so.
type spoil func(d export.Drawing) (export.Drawing, bool)

func moved(d export.Drawing, move func(pattern.Point) pattern.Point) export.Drawing {
	all := func(loops []pattern.Loop) (out []pattern.Loop) {
		for _, l := range loops {
			l = slices.Clone(l)
			for i := range l {
				l[i].Point = move(l[i].Point)
			}
			out = append(out, l)
		}
		return out
	}
	d.Cuts, d.Slits = all(d.Cuts), all(d.Slits)
	var scores []pattern.Segment
	for _, s := range d.Scores {
		scores = append(scores, pattern.Segment{A: move(s.A), B: move(s.B)})
	}
	d.Scores = scores
	return d
}

// ownMirror tells whether a piece turned over is the same as itself in some turn.
func ownMirror(d export.Drawing) bool {
	var twice []string
	for _, one := range []export.Drawing{d, d.Mirrored()} {
		for range 4 {
			one = moved(one, func(p pattern.Point) pattern.Point { return pattern.Pt(-p.Y, p.X) })
			var points []pattern.Point
			for _, l := range one.Cuts {
				points = append(points, l.Flat()...)
			}
			lo, _ := pattern.Bounds(points)
			var words []string
			for _, p := range points {
				words = append(words, fmt.Sprintf("%.0f %.0f", (p.X-lo.X)*4+1e-6, (p.Y-lo.Y)*4+1e-6))
			}
			slices.Sort(words)
			twice = append(twice, strings.Join(words, ";"))
		}
	}
	return slices.Contains(twice[4:], twice[0])
}

var spoilt = map[string]spoil{
	"a corner is moved by 0.5": func(d export.Drawing) (export.Drawing, bool) {
		d = moved(d, func(p pattern.Point) pattern.Point { return p })
		at := &d.Cuts[0][0].Point
		*at = at.Add(pattern.Pt(d.Width/2, d.Height/2).Sub(*at).Scale(0.5 / pattern.Pt(d.Width/2, d.Height/2).Sub(*at).Len()))
		return d, true
	},
	"a score is left out": func(d export.Drawing) (export.Drawing, bool) {
		if len(d.Scores) == 0 {
			return d, false
		}
		d.Scores = d.Scores[1:]
		return d, true
	},
	"a slit is left out": func(d export.Drawing) (export.Drawing, bool) {
		if len(d.Slits) == 0 {
			return d, false
		}
		d.Slits = d.Slits[1:]
		return d, true
	},
	"a hole is left out": func(d export.Drawing) (export.Drawing, bool) {
		if len(d.Cuts) == 1 {
			return d, false
		}
		d.Cuts = d.Cuts[:len(d.Cuts)-1]
		return d, true
	},
	"scores are cut and slits scored": func(d export.Drawing) (export.Drawing, bool) {
		if len(d.Scores) == 0 {
			return d, false
		}
		scores := d.Scores
		d.Scores = nil
		for _, s := range d.Slits {
			d.Scores = append(d.Scores, pattern.Segment{A: s[0].Point, B: s[len(s)-1].Point})
		}
		d.Slits = nil
		for _, s := range scores {
			d.Slits = append(d.Slits, pattern.Straight(s.A, s.B))
		}
		return d, true
	},
	"all is larger by 0.4 %": func(d export.Drawing) (export.Drawing, bool) {
		return moved(d, func(p pattern.Point) pattern.Point { return p.Scale(1.004) }), max(d.Width, d.Height) > 20+60
	},
	"the outline has a gap of 1": func(d export.Drawing) (export.Drawing, bool) {
		l := d.Cuts[0]
		way := l[1].Sub(l[0].Point)
		if l[0].Bulge != 0 || way.Len() < 2 {
			return d, false
		}
		open := append(pattern.Loop{{Point: l[0].Add(way.Scale(1 / way.Len()))}}, l[1:]...)
		d.Slits = append(slices.Clone(d.Slits), append(open, pattern.Vertex{Point: l[0].Point}))
		d.Cuts = d.Cuts[1:]
		return d, true
	},
	"a lopsided piece is mirrored": func(d export.Drawing) (export.Drawing, bool) { return d.Mirrored(), !ownMirror(d) },
}

// Whatever is spoilt in a file is seen, every time, as SVG and as HPGL.
func TestSpoiltFilesAreSeen(t *testing.T) {
	seen := map[string]int{}
	for i, s := range style.All {
		if !sample.Takes(t, i) {
			continue
		}
		r := sized(t, s, 0)
		for _, part := range r.Parts {
			d := export.OfPiece(part)
			want := strokes.Piece{Name: part.ID, Copies: 1, Outline: d.Cuts[0].Flat(), Creases: d.Scores}
			for _, h := range d.Cuts[1:] {
				want.Holes = append(want.Holes, h.Flat())
			}
			for _, s := range d.Slits {
				want.Slits = append(want.Slits, s.Open())
			}
			// On a sheet with room around it, so that the sheet's edge cuts nothing.
			d = moved(d, func(p pattern.Point) pattern.Point { return p.Add(pattern.Pt(10, 10)) })
			d.Width, d.Height = d.Width+20, d.Height+20
			whole := func(d export.Drawing) bool {
				drawn, err := plotter.ReadSVG(d.SVG(export.Layers{}))
				if err != nil {
					t.Fatal(err)
				}
				plotted, err := plotter.ReadHPGL(d.HPGL(export.Layers{}, export.Knife{}, d.Card), d.Width, d.Height, 0.25)
				if err != nil {
					t.Fatal(err)
				}
				a, b := cutAll(t, []*plotter.File{drawn}, []strokes.Piece{want}), cutAll(t, []*plotter.File{plotted}, []strokes.Piece{want})
				if (a == "") != (b == "") {
					t.Errorf("%s %s: SVG and HPGL differ: %q %q", s.ID, part.ID, a, b)
				}
				return a == ""
			}
			d.Card.Thickness = 300 * measure.Micrometre
			if !whole(d) {
				t.Fatalf("%s %s is not whole as it is", s.ID, part.ID)
			}
			for name, do := range spoilt {
				bad, can := do(d)
				if !can {
					continue
				}
				seen[name]++
				if whole(bad) {
					t.Errorf("%s %s: %s, and nobody sees it", s.ID, part.ID, name)
				}
			}
		}
	}
	t.Log(seen)
	if sample.Whole() && len(seen) != len(spoilt) {
		t.Errorf("only these were tried: %v", seen)
	}
}
