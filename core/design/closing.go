package design

import (
	"fmt"
	"strings"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/recipe"
)

// Tells says where a spot is on its flat piece.
func (d *Dressed) Tells(s Spot) string {
	w := d.work()
	return w.Says(d.where(s)) + ". " + w.Says(d.middle(s))
}

// where is the face of a spot, and its side.
func (b *Built) where(spot Spot) hand.Said {
	side := "spot-inside"
	if spot.Outside {
		side = "spot-outside"
	}
	return hand.Said{Key: side, Words: map[string]string{"place": spot.Words, "piece": b.called(spot.Piece)}}
}

// called is the name of a piece in a sentence.
func (b *Built) called(piece string) string {
	p, _ := b.part(piece)
	return strings.ToLower(p.Name)
}

// middle says where the middle of what goes on a spot lies.
func (s *Sized) middle(spot Spot) hand.Said {
	return hand.Said{Key: "middle-at", Lengths: map[string][]measure.Length{
		"at": {s.ruled(measure.FromMM(spot.At.X))}, "off": {s.ruled(measure.FromMM(spot.At.Y))},
	}}
}

// fixings are what is put on while the pieces are flat, before the papers that
// hide it.
func (d *Dressed) fixings() []hand.Put {
	var out []hand.Put
	add := func(s Spot, key string, more ...hand.Said) {
		n := fmt.Sprintf("closure/%d", len(out)+1)
		first := hand.Said{Key: key, Phrases: map[string]hand.Said{"where": d.where(s)}}
		out = append(out, hand.Put{Key: n, Thing: n, On: s.Piece, When: hand.Lying, Phrase: append([]hand.Said{first, d.middle(s)}, more...)})
	}
	for _, c := range d.Closures {
		for _, s := range c.Seats {
			switch c.Kind {
			case Magnets:
				cover := "magnets-bare"
				if d.papered(s.On) {
					cover = "magnets-hidden"
				}
				add(s.On, "magnets-lay", hand.Say(cover))
			case Hooks:
				add(s.On, "hooks-lay")
			case Brad:
				add(s.On, "brad-first")
				add(s.Closing, "brad-second")
			}
		}
	}
	return out
}

// shutting says how the closures are finished and used.
func (d *Dressed) shutting() []hand.Put {
	var out []hand.Put
	for _, c := range d.Closures {
		on, closing := c.Seats[0].On, c.Seats[0].Closing
		with := func(key string, at Spot) hand.Said {
			x := hand.Said{Key: key, Words: map[string]string{"flap": closing.Words, "both": "", "through": ""}, Phrases: map[string]hand.Said{"where": d.where(at)}}
			if len(c.Seats) > 1 {
				x.Phrases["both"] = hand.Say("both-times")
			}
			if d.papered(on) {
				x.Phrases["through"] = hand.Say("through-paper")
			}
			return x
		}
		var said []hand.Said
		switch c.Kind {
		case Magnets:
			said = []hand.Said{with("magnets-shut", on)}
		case Hooks:
			said = []hand.Said{with("hooks-shut", on)}
		case Dot:
			said = []hand.Said{with("dot-shut", on), d.middle(on), with("dot-press", on)}
		case Brad:
			said = []hand.Said{with("brad-shut", on)}
		case Clip:
			said = []hand.Said{with("clip-shut", on)}
		case Tape:
			said = []hand.Said{with("tape-shut", closing), d.middle(closing)}
		}
		out = append(out, hand.Put{Thing: "closing by " + string(c.Kind), When: hand.Closed, Phrase: said})
	}
	return out
}

// bought is a size as it stands on what is bought: in millimetres, unless it is round in the
// maker's inches.
func (d *Dressed) bought(l measure.Length) string {
	if in := d.Inputs.Units; in == measure.In && measure.Nearest(l, in.Ruler()) == l {
		return d.Show(l)
	}
	return measure.Label(l, measure.MM, measure.Tenth)
}

// closureSupplies are what the closures of all copies take.
func (d *Dressed) closureSupplies() []recipe.Supply {
	var out []recipe.Supply
	for _, c := range d.Closures {
		n := len(c.Seats) * d.Inputs.Copies
		of := map[ClosureKind]struct {
			each       int
			unit, what string
		}{
			Magnets: {2, "magnet", "thin magnets, " + d.bought(c.Wide) + " across and " + d.bought(c.Thick) + " thick"}, Hooks: {1, "pair", "hook-and-loop patches, " + d.bought(c.Wide) + ", in pairs"},
			Dot: {1, "dot", "removable glue dots"}, Brad: {1, "brad", "brads"}, Clip: {1, "clip", "clips or small pegs"}, Tape: {1, "strip", "strips of repositionable tape, 40 mm"},
		}[c.Kind]
		out = append(out, recipe.Supply{ID: "closure." + string(c.Kind), Amount: float64(n * of.each), Unit: of.unit, Text: fmt.Sprintf("%d %s", n*of.each, of.what)})
	}
	return out
}
