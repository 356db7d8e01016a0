package style

import (
	"fmt"
	"math/rand"
	"slices"
	"strings"
	"testing"

	"brevium/core/hand"
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
			// A plan refuses what its moves do not make; of these sizes one may be such.
			var refused []string
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
					refused = append(refused, fmt.Sprintf("%v %v: %v", spec.Lengths, spec.Choices, err))
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
						refused = append(refused, fmt.Sprintf("%v %v: %v", spec.Lengths, spec.Choices, err))
						break
					}
				}
			}
			if len(refused) > 1 {
				t.Errorf("%d sizes are not made by their moves:\n%s", len(refused), strings.Join(refused, "\n"))
			}
			t.Logf("%d of %d pieces are made by moves, but for %v", told, pieces, refused)
		})
	}
}
