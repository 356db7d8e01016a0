package found

import (
	"encoding/json"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
)

// By hand: what recipes make, and what they only claim.
func TestTell(t *testing.T) {
	t.Parallel()
	for text, want := range map[string]struct{ style, says string }{
		"Base: 7 x 6, score at 1 1/2 on all four sides. Lid 6 1/16 x 5 1/16, score 1 on all four sides.": {"tray-lid", "Lid over base, length: snug, with a gap of 0.39 mm"},
		"Tray 7 x 6, score 1 1/2 all round. Makes a box 4 x 3 x 1 1/4.":                                  {"tray", "It claims 4 x 3 x 1 1/4; between folds the box comes to 4 in"},
		"Tray 7 x 6, score 1 1/2 all round. Makes a box 4 x 3 x 1 1/2. Panel 8 x 8.":                     {"tray", "A panel of 8 in (20.32 cm) × 8 in (20.32 cm) is larger than every face"},
		"carton 7 x 9 3/4, score 1 1/2 and 5 1/2, turn, 3/4, 3 3/4, 5 and 8 1/4":                         {"", "the third score down of the carton should be 5 1/4 in (13.34 cm), not 5 in"},
		"sleeve 7 3/4 x 4, score at 2, 4, 5 1/4, 7 1/4":                                                  {"", "Round 2 in (5.08 cm) × 1 1/4 in (3.18 cm) score it at 2 in (5.08 cm), 3 1/4 in (8.26 cm), 5 1/4 in (13.34 cm), 6 1/2 in"},
		"Base 7 x 7 score 2 all round. Lid 5 15/16 x 5 15/16 score 1 1/2 all round.":                     {"", "The lid over the base, length: won't go on"},
		"Fold it and glue it.": {"", "There is no blank in it"},
		"Base 15 cm square, score 3.5 cm from all sides; lid 13.2 cm square, score 2.5 cm from all sides": {"tray-lid", "It is a base with a lift-off lid."},
	} {
		got, err := Tell(text, measure.In)
		if err != nil {
			t.Errorf("%q: %v", text, err)
			continue
		}
		style := ""
		if got.Match != nil {
			style = got.Match.Style.ID
		}
		if style != want.style || !strings.Contains(strings.Join(got.Says, " "), want.says) {
			t.Errorf("%q: a %q; %q", text, style, got.Says)
		}
		out, err := got.JSON(nil, nil)
		var f struct {
			Style  *string
			Pieces []struct{ Blank struct{ Width float64 } }
		}
		if err != nil || json.Unmarshal(out, &f) != nil || len(f.Pieces) != len(got.Pieces) || (f.Style == nil) != (style == "") {
			t.Errorf("%q: %v, %s", text, err, out)
		}
		for i, p := range f.Pieces {
			if p.Blank.Width != got.Pieces[i].Width.MM() {
				t.Errorf("%q: piece %d is %v wide, not %v", text, i, p.Blank.Width, got.Pieces[i].Width.MM())
			}
		}
	}
}

// By hand: a base 4 × 3 × 1 1/2 has walls 4 × 1 1/2 and 3 × 1 1/2, its lid a top of 4 1/16 ×
// 3 1/16; panels an eighth smaller each way all round go on them, and a smaller one of the
// top on the one under it.
func TestPanelsBecomePapers(t *testing.T) {
	t.Parallel()
	got, err := Tell("Base: 7 x 6, score at 1 1/2 on all four sides. Lid 6 1/16 x 5 1/16, score 1 on all four sides.\nMats 3 3/4 x 1 1/4 (2). Mats 2 3/4 x 1 1/4 (2). Mat 3 13/16 x 2 13/16. Mat 3 9/16 x 2 9/16. Mat 1/2 x 1/2. Mat 9 x 9.", measure.In)
	if err != nil || got.Made == nil {
		t.Fatal(got, err)
	}
	if len(got.Papers) != 3 {
		t.Fatalf("%+v\n%q", got.Papers, got.Says)
	}
	for i, want := range []struct {
		piece         string
		faces, layers int
	}{{"base", 2, 1}, {"base", 2, 1}, {"lid", 1, 2}} {
		d := got.Papers[i]
		if d.Piece != want.piece || len(d.Faces) != want.faces || len(d.Layers) != want.layers {
			t.Errorf("paper %d: %+v", i, d)
		}
		for _, l := range d.Layers {
			if l.Border.Across != measure.Inch/8 || l.Border.Up != measure.Inch/8 {
				t.Errorf("paper %d has a border of %v × %v", i, l.Border.Across, l.Border.Up)
			}
		}
	}
	says := strings.Join(got.Says, " ")
	for _, want := range []string{"has no face that it was cut for", "larger than every face", "go on the back wall and front wall of the base", "goes on the one under it"} {
		if !strings.Contains(says, want) {
			t.Errorf("%q is not said: %q", want, got.Says)
		}
	}
	// The box that is made has them, of that very size.
	in := got.Match.Inputs
	in.Mats = got.Papers
	made, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	sizes := map[string]int{}
	for _, m := range made.Mats {
		sizes[measure.Number(m.Width, measure.In, measure.In.Tick())+" × "+measure.Number(m.Height, measure.In, measure.In.Tick())]++
	}
	if len(made.Mats) != 6 || sizes["3 3/4 × 1 1/4"] != 2 || sizes["3 13/16 × 2 13/16"] != 1 || sizes["3 9/16 × 2 9/16"] != 1 {
		t.Errorf("its papers are %v", sizes)
	}
}
