package style

import (
	"maps"
	"math/rand"
	"slices"
	"testing"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/sample"
)

// What a hand has made at the end of its moves is the piece as it is drawn, for every
// style that tells its moves, at random sizes and choices; and what goes together does.
func TestWhatAHandMakesIsTheDesign(t *testing.T) {
	for _, s := range All {
		t.Run(s.ID, func(t *testing.T) {
			t.Parallel()
			rng := rand.New(rand.NewSource(sample.Seed(31)))
			pieces, told := 0, 0
			for made, tried := 0, 0; made < sample.Of(t, 200) && tried < 4000; tried++ {
				spec := randomSpec(rng, s)
				b, err := s.Make(spec)
				if err != nil {
					continue
				}
				made++
				var works []hand.Work
				for _, p := range b.Parts {
					works = append(works, hand.Work{Piece: p.ID, Moves: p.Moves()})
				}
				if !slices.ContainsFunc(b.Parts, func(p Part) bool { return p.Making == nil }) {
					works = append(works, hand.Work{Moves: b.Together})
				}
				table, err := hand.Do(works...)
				if err != nil {
					t.Errorf("%v %v: %v", spec.Lengths, spec.Choices, err)
					continue
				}
				for _, p := range b.Parts {
					pieces++
					c, there := table.Card(p.ID)
					if !there {
						continue
					}
					told++
					if err := c.Equal(p.Pattern); err != nil {
						t.Errorf("%v %v: %v", spec.Lengths, spec.Choices, err)
						break
					}
				}
			}
			t.Logf("%d of %d pieces are made by moves", told, pieces)
		})
	}
}

// Two sizes that differ from a line beside them by less than a hand sees were not made by
// their moves: a lid half wider by 0.055 mm, and a flap 0.021 mm shorter than its cell.
func TestHairsBreadthsAreMade(t *testing.T) {
	mm := func(v float64) measure.Length { return measure.FromMM(v) }
	clam := usual(clamBox, nil, map[string]string{"adhesive": "tape", "lid.scores": "stepped"})
	maps.Copy(clam.Lengths, map[string]measure.Length{
		"length": mm(49.178774), "width": mm(22.134503), "height": mm(29.385496), "lid.allowance": mm(0.055478),
	})
	tube := usual(dispenser, nil, map[string]string{"pull": "none", "window": "oval"})
	maps.Copy(tube.Lengths, map[string]measure.Length{
		"length": mm(70.535371), "width": mm(34.946217), "height": mm(32.84082), "ledge": mm(7.9375), "tuck": mm(15.076808),
		"tab": mm(8.207034), "window.length": mm(28.598463), "window.width": mm(14.2875),
	})
	for _, c := range []struct {
		s    *Style
		spec Spec
	}{{clamBox, clam}, {dispenser, tube}} {
		b, err := c.s.Make(c.spec)
		if err != nil {
			t.Fatal(err)
		}
		for _, p := range b.Parts {
			table, err := hand.Do(hand.Work{Piece: p.ID, Moves: p.Moves()})
			if err != nil {
				t.Errorf("%s %s: %v", c.s.ID, p.ID, err)
				continue
			}
			if made, there := table.Card(p.ID); !there || made.Equal(p.Pattern) != nil {
				t.Errorf("%s %s: there: %v, and %v", c.s.ID, p.ID, there, made.Equal(p.Pattern))
			}
		}
	}
}
