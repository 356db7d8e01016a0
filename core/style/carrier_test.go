package style

import (
	"testing"

	"brevium/core/measure"
)

// The carrier's examples. Three boxes of 40 × 40 × 40 with lids of 41: a cross of
// 127 × 44 and 44 high, its lid 128 × 45. Four of 35 × 50 × 60, with an account of
// 4: 150 × 65 and 54 high. And by hand in inches: three of 1 1/2 × 1 1/2 × 1 in,
// lids 1/16 bigger, 1/8 round them: 3·(39.6875 + 0.3) + 3.175 = 123.14 is 4 7/8 in
// on sixteenths; 25.4 + 0.15 + 0.3 + 3.175 = 29.03 is 1 3/16; 39.99 + 2 is 1 11/16.
func TestCarrierCrossByHand(t *testing.T) {
	b := inMetric(t, foldOutCarrier, map[string]measure.Length{"length": 40 * mm, "width": 40 * mm, "height": 40 * mm, "lid.depth": 12 * mm,
		"lid.allowance": mm, "carrier.allowance": 3 * mm, "cap.depth": 15 * mm})
	wantScores(t, b.Parts[0], 215*mm, 132*mm, []measure.Length{44 * mm, 171 * mm}, []measure.Length{44 * mm, 88 * mm})
	wantScores(t, b.Parts[1], 120*mm, 120*mm, []measure.Length{40 * mm, 80 * mm}, []measure.Length{40 * mm, 80 * mm})
	wantScores(t, b.Parts[2], 65*mm, 65*mm, []measure.Length{12 * mm, 53 * mm}, []measure.Length{12 * mm, 53 * mm})
	wantScores(t, b.Parts[7], 158*mm, 75*mm, []measure.Length{15 * mm, 143 * mm}, []measure.Length{15 * mm, 60 * mm})

	spec := usual(foldOutCarrier, map[string]measure.Length{"length": 35 * mm, "width": 50 * mm, "height": 60 * mm, "lid.depth": 12 * mm,
		"lid.allowance": mm, "carrier.allowance": 4 * mm, "cap.depth": 15 * mm}, map[string]string{"count": "4"})
	spec.Tick = measure.Tick(mm)
	following(foldOutCarrier, &spec, map[string]measure.Length{"length": 0, "width": 0, "height": 0, "lid.depth": 0})
	b, err := foldOutCarrier.Make(spec)
	if err != nil {
		t.Fatal(err)
	}
	wantScores(t, b.Parts[0], (150+2*54)*mm, (65+2*54)*mm, []measure.Length{54 * mm, 204 * mm}, []measure.Length{54 * mm, 119 * mm})

	b = build(t, foldOutCarrier, lengths("length", 12, "width", 12, "height", 8, "lid.depth", 4, "cap.depth", 4), nil)
	wantScores(t, b.Parts[0], 132*inch/16, 73*inch/16, []measure.Length{27 * inch / 16, 105 * inch / 16}, []measure.Length{27 * inch / 16, 46 * inch / 16})
}

// The strip's example: trays of 60 × 60 × 55 and 60 × 28 × 55 on panels of
// 64 | 63 | 63 | 64, 115 high.
func TestCarrierStripByHand(t *testing.T) {
	spec := usual(foldOutCarrier, map[string]measure.Length{"length": 60 * mm, "height": 55 * mm, "carrier.allowance": 3 * mm, "lid.allowance": mm}, map[string]string{"form": "strip"})
	spec.Tick = measure.Tick(mm)
	b, err := foldOutCarrier.Make(spec)
	if err != nil {
		t.Fatal(err)
	}
	wantScores(t, b.Parts[0], 254*mm, 115*mm, []measure.Length{64 * mm, 127 * mm, 190 * mm}, nil)
	wantScores(t, b.Parts[1], 170*mm, 170*mm, []measure.Length{55 * mm, 115 * mm}, []measure.Length{55 * mm, 115 * mm})
	wantScores(t, b.Parts[2], 138*mm, 170*mm, []measure.Length{55 * mm, 83 * mm}, []measure.Length{55 * mm, 115 * mm})

	// By hand in inches: trays of 2 in, 1/8 round them: panels of 2 1/8, the outer
	// ones 1/16 wider, half trays (2 − 1/8) / 2 = 15/16; 2 × 1 1/2 in and 5 mm are 3 1/4.
	spec = usual(foldOutCarrier, lengths("length", 16, "height", 12, "carrier.allowance", 1), map[string]string{"form": "strip"})
	if b, err = foldOutCarrier.Make(spec); err != nil {
		t.Fatal(err)
	}
	wantScores(t, b.Parts[0], 138*inch/16, 13*inch/4, []measure.Length{35 * inch / 16, 69 * inch / 16, 103 * inch / 16}, nil)
	wantScores(t, b.Parts[2], 63*inch/16, 5*inch, []measure.Length{3 * inch / 2, 39 * inch / 16}, []measure.Length{3 * inch / 2, 7 * inch / 2})
}

// In the order that is told nothing is in the way when a carrier is closed. A
// strip whose last panel is folded before the first is in the way of the half
// tray, and it is said; a cross closes in any order, because its boxes stand in
// turn on one wall and the other.
func TestCarrierClosesInOneOrder(t *testing.T) {
	carrier := func(form string) *Box {
		spec := usual(foldOutCarrier, map[string]measure.Length{"length": 60 * mm, "width": 60 * mm, "height": 55 * mm, "carrier.allowance": 3 * mm}, map[string]string{"form": form})
		spec.Tick = measure.Tick(mm)
		b, err := foldOutCarrier.Make(spec)
		if err != nil {
			t.Fatal(err)
		}
		return b
	}
	for _, order := range [][]string{{"front", "left", "right", "base"}, {"base", "front", "right", "left"}, {"left", "base", "right", "front"}} {
		if hit, face, err := carrier("cross").Sweep(order); err != nil || hit != nil {
			t.Errorf("folding %s, %+v is in the way, %v", face, hit, err)
		}
	}
	strip := carrier("strip")
	if hit, face, err := strip.Sweep(strip.Shuts); err != nil || hit != nil {
		t.Errorf("folding %s, %+v is in the way, %v", face, hit, err)
	}
	hit, face, err := strip.Sweep([]string{"third", "fourth", "first"})
	if err != nil || hit == nil || face != "first" || hit.A.Part.ID != "tray-2" {
		t.Errorf("in the wrong order, folding %s: %+v, %v", face, hit, err)
	}
	if _, _, err := strip.Sweep([]string{"fifth"}); err == nil {
		t.Error("a panel that is not there was folded")
	}
}
