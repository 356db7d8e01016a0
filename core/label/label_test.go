package label

import (
	"math"
	"strings"
	"testing"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
)

func of(s Shape, w, h measure.Length, borders ...measure.Length) Label {
	l := Label{Name: "Label", Shape: s, Width: w, Height: h, Copies: 1, Layers: []dress.Layer{{Card: paper.Card{Thickness: 300 * measure.Micrometre}}}}
	for _, b := range borders {
		l.Layers = append(l.Layers, dress.Layer{Card: paper.Card{Thickness: 150 * measure.Micrometre}, Border: dress.Even(b)})
	}
	return l
}

func show(l measure.Length) string { return measure.Label(l, measure.MM, measure.MM.Tick()) }

// Every shape fills its rectangle, runs with the clock, does not cross itself, and
// each layer lies within the one below.
func TestShapes(t *testing.T) {
	for _, s := range Shapes {
		l := of(s, 60*mm, 40*mm, 3*mm)
		if s == Circle {
			l.Height = 60 * mm
		}
		if err := l.Check(show); err != nil {
			t.Errorf("%s: %v", s, err)
		}
		under, over := l.Outline(0).Flat(), l.Outline(1).Flat()
		lo, hi := pattern.Bounds(under)
		if lo.Len() > 0.6 || hi.Sub(pattern.Pt(l.Width.MM(), l.Height.MM())).Len() > 0.6 {
			t.Errorf("%s reaches from %v to %v of %v × %v", s, lo, hi, l.Width.MM(), l.Height.MM())
		}
		if pattern.Area(under) <= 0 {
			t.Errorf("%s runs against the clock", s)
		}
		for _, q := range over {
			if !pattern.Contains(under, q) {
				t.Errorf("%s: the upper layer sticks out at %v", s, q)
				break
			}
		}
		for i, a := range under {
			b := under[(i+1)%len(under)]
			for k := i + 2; k < len(under); k++ {
				c, d := under[k], under[(k+1)%len(under)]
				if (k+1)%len(under) != i && crosses(a, b, c, d) {
					t.Fatalf("%s crosses itself", s)
				}
			}
		}
	}
}

func crosses(a, b, c, d pattern.Point) bool {
	side := func(p, q, r pattern.Point) float64 { return q.Sub(p).Cross(r.Sub(p)) }
	return side(a, b, c)*side(a, b, d) < -1e-9 && side(c, d, a)*side(c, d, b) < -1e-9
}

// By hand: a circle of 60 mm has π · 30²; a star's points lie on its rectangle.
func TestShapesByHand(t *testing.T) {
	if got := math.Abs(pattern.Area(of(Circle, 60*mm, 60*mm).Outline(0).Flat())); math.Abs(got-math.Pi*900) > 8 {
		t.Errorf("a circle of %v mm²", got)
	}
	if got := math.Abs(pattern.Area(of(Banner, 60*mm, 20*mm).Outline(0).Flat())); math.Abs(got-(60*20-2*20*10/2)) > 1e-6 {
		t.Errorf("a banner of %v mm²", got)
	}
	if got := of(Star, 50*mm, 50*mm).Outline(0); len(got) != 10 || got[0].Sub(pattern.Pt(25, 0)).Len() > 1e-9 {
		t.Errorf("a star begins at %v and has %d corners", got[0], len(got))
	}
	l := of(Rectangle, 60*mm, 40*mm, 2*mm, 3*mm)
	if w, h := l.Size(2); w != 50*mm || h != 30*mm {
		t.Errorf("the top layer is %v × %v", w.MM(), h.MM())
	}
	if l.Raised = 2 * mm; l.Thick() != 2600*measure.Micrometre {
		t.Errorf("it stands out by %v", l.Thick().MM())
	}
}

// Card is left all round the hole of a tag, whatever its shape.
func TestHoles(t *testing.T) {
	for _, s := range Shapes {
		l := of(s, 60*mm, 60*mm, 3*mm)
		at, ok := l.HoleAt()
		if !ok || at.X != 30 {
			t.Errorf("%s: a hole at %v, %v", s, at, ok)
		}
		for _, q := range l.Outline(1).Flat() {
			if q.Sub(at).Len() < 3.9 {
				t.Errorf("%s: %.1f mm from the hole's middle to the edge", s, q.Sub(at).Len())
				break
			}
		}
	}
}

func TestLabelsThatCannotBe(t *testing.T) {
	for field, change := range map[string]func(*Label){
		"name":             func(l *Label) { l.Name = " " },
		"shape":            func(l *Label) { l.Shape = "cloud" },
		"width":            func(l *Label) { l.Width = mm },
		"height":           func(l *Label) { l.Shape = Circle },
		"layers":           func(l *Label) { l.Layers = nil },
		"layers[1].border": func(l *Label) { l.Layers[1].Border = dress.Even(18 * mm) },
		"copies":           func(l *Label) { l.Copies = 0 },
		"text":             func(l *Label) { l.Text = strings.Repeat("x\n", 20) },
		"height ":          func(l *Label) { l.Hole, l.Width, l.Height, l.Layers = true, 8*mm, 8*mm, l.Layers[:1] },
		"raised":           func(l *Label) { l.Raised = 20 * mm },
	} {
		l := of(Oval, 60*mm, 40*mm, 2*mm)
		change(&l)
		if err := l.Check(show); err == nil || fault.Of(err).Field != strings.TrimSpace(field) {
			t.Errorf("%s: %v", field, err)
		}
	}
}

func TestWhatALabelSays(t *testing.T) {
	l := Label{Text: "{name}\n\n with {inside} \n{size}\n{n}: {each}\n{price}"}
	for price, want := range map[string]string{"6.50": "Fair|with 4 jars|9 × 9 cm|7: bell|6.50", "": "Fair|with 4 jars|9 × 9 cm|7: bell"} {
		if got := strings.Join(l.Says(Fills{Name: "Fair", Inside: "4 jars", Size: "9 × 9 cm", Price: price, N: "7", Each: "bell"}), "|"); got != want {
			t.Error(got)
		}
	}
}
