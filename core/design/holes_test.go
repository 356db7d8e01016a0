package design

import (
	"math"
	"strings"
	"testing"

	"brevium/core/band"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/style"
)

func threaded(t *testing.T, styleID, way string, change func(*Inputs)) (*Result, string) {
	t.Helper()
	in := New("x", measure.MM, styleID)
	x := UsualRibbon(measure.MM)
	x.ID, x.Way = 1, way
	in.Ribbons = []Ribbon{x}
	if change != nil {
		change(&in)
	}
	r := make_(t, in)
	var told []string
	for _, s := range r.Steps {
		told = append(told, s.Text)
	}
	return r, strings.Join(told, "\n")
}

// A handle on an open tray 100 × 75 × 40 mm: holes in the middle of both ends, 12 mm
// below the rim, 8 mm across for a ribbon of 12; by hand its path is up 12 mm twice
// and half an oval 100 wide and 70 high, the ends 40 mm each.
func TestAHandle(t *testing.T) {
	t.Parallel()
	r, told := threaded(t, "tray", ByHandle, func(in *Inputs) {
		in.Size["length"], in.Size["width"], in.Size["height"] = 100*mm_, 75*mm_, 40*mm_
	})
	x := r.Ribbons[0]
	if x.Threaded == nil || x.Threaded.Piece != "tray" || x.Threaded.Across != 8*mm_ {
		t.Fatalf("threaded %+v", x.Threaded)
	}
	p, _ := r.part("tray")
	if len(p.Pattern.Holes) != 2 {
		t.Fatalf("%d holes", len(p.Pattern.Holes))
	}
	for _, h := range x.Threaded.Holes {
		// The wall is 40 high, its fold inwards of it on the flat tray.
		edge := min(h.At.X, p.Pattern.Width.MM()-h.At.X)
		if math.Abs(edge-12) > 0.01 || math.Abs(h.At.Y-p.Pattern.Height.MM()/2) > 0.01 {
			t.Errorf("a hole at %v of %v × %v", h.At, p.Pattern.Width.MM(), p.Pattern.Height.MM())
		}
	}
	oval := 0.0
	for k := range 12 {
		at := func(k int) (float64, float64) {
			s, c := math.Sincos(math.Pi * float64(k) / 12)
			return 50 * c, 70 * s
		}
		ax, ay := at(k)
		bx, by := at(k + 1)
		oval += math.Hypot(bx-ax, by-ay)
	}
	if want := 2*12 + oval + 80; math.Abs(x.Length.MM()-want) > 1.5 {
		t.Errorf("it is %v mm; want %v", x.Length.MM(), want)
	}
	for _, want := range []string{"hole", "8 mm", "Knot each end inside", "under one of the two strips of card", "of the strip over the ribbon's end, each 40 × 28 mm", "do not carry heavy"} {
		if !strings.Contains(told, want) {
			t.Errorf("the steps do not say %q", want)
		}
	}
}

// Under a lid the holes of a handle lie behind its walls, and that is said; through
// the lid's top nothing is in the way.
func TestHolesBehindAWall(t *testing.T) {
	t.Parallel()
	finding := func(r *Result) inspect.Finding {
		for _, c := range r.Checks {
			if c.ID == "ribbon" {
				return c
			}
		}
		return inspect.Finding{}
	}
	r, _ := threaded(t, "tray-lid", ByHandle, nil)
	if f := finding(r); f.Verdict != inspect.Warn || !strings.Contains(f.Text, "lies behind the") {
		t.Errorf("a handle under a lid: %+v", f)
	}
	r, told := threaded(t, "tray-lid", ThroughTop, nil)
	if f := finding(r); f.Verdict != inspect.OK || r.Ribbons[0].Threaded.Piece != "lid" || !strings.Contains(told, "both ends up through the two holes") {
		t.Errorf("through the top: %+v, %+v", f, r.Ribbons[0].Threaded)
	}
	// Under the top from hole to hole and back over it, and the bow.
	x := r.Ribbons[0]
	apart := x.Threaded.Holes[0].At.Sub(x.Threaded.Holes[1].At).Len()
	if want := 2*apart + x.Tied.Takes().MM(); math.Abs(x.Length.MM()-want) > 0.51 {
		t.Errorf("it is %v mm; want %v", x.Length.MM(), want)
	}
}

// Every style takes a handle or says why not; the piece with its holes still folds.
func TestHandlesOfEveryStyle(t *testing.T) {
	t.Parallel()
	handles := 0
	for _, s := range style.Boxes() {
		for _, way := range []string{ByHandle, ThroughTop, ByPull} {
			in := New("x", measure.MM, s.ID)
			x := UsualRibbon(measure.MM)
			x.ID, x.Way = 1, way
			in.Ribbons = []Ribbon{x}
			r, err := Make(t.Context(), in)
			if err != nil {
				if !strings.Contains(err.Error(), "ribbons[0].way") {
					t.Errorf("%s, %s: %v", s.ID, way, err)
				}
				continue
			}
			handles++
			if _, err := r.Plan(); err != nil || r.Ribbons[0].Length <= r.Ribbons[0].Path {
				t.Errorf("%s, %s: %v, %v", s.ID, way, r.Ribbons[0].Length, err)
			}
		}
	}
	if handles < 15 {
		t.Errorf("only %d ways through the card", handles)
	}
}

// A hole is told on its piece by the name that the piece has on the table.
func TestAHoleIsInAPieceWithAName(t *testing.T) {
	t.Parallel()
	_, told := threaded(t, "hinged-carton", ByHandle, func(*Inputs) {})
	if !strings.Contains(told, "end wall of the carton") || strings.Contains(told, "of the body") {
		t.Errorf("the steps say %q", told)
	}
}

// A paper bow of six loops is six strips and a middle, cut from the layout; the
// ribbon under it is lapped.
func TestAPaperBow(t *testing.T) {
	t.Parallel()
	r, told := threaded(t, "tray", "crossed", func(in *Inputs) {
		in.Ribbons[0].Tied.Bow, in.Ribbons[0].Loops = band.Paper, 6
	})
	p, known := r.part("bow-1.loop")
	if !known || p.Copies() != 6 || p.Pattern.Width != 130*mm_ || p.Pattern.Height != 12*mm_ {
		t.Errorf("its strips are %+v", p.Part.Pattern)
	}
	for _, want := range []string{"the six loops", "like the spokes of a wheel", "the paper bow over both", "Bend the strip round the middle"} {
		if !strings.Contains(told, want) {
			t.Errorf("the steps do not say %q", want)
		}
	}
	in := r.Inputs
	in.Ribbons[0].Loops = 40
	if _, err := Make(t.Context(), in); err == nil || !strings.Contains(err.Error(), "2 to 16 loops") {
		t.Errorf("forty loops: %v", err)
	}
	in.Ribbons[0].Loops = 6
	again, err := Read(in.Write())
	if err != nil || again.Ribbons[0] != in.Ribbons[0] {
		t.Errorf("read back %+v, %v", again.Ribbons, err)
	}
}
