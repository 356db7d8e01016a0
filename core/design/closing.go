package design

import (
	"fmt"
	"strings"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/recipe"
)

// Tells says where a spot is on its flat piece.
func (r *Result) Tells(s Spot) string {
	w := r.work()
	return w.Says(r.where(s)) + ". " + w.Says(r.middle(s))
}

// where is the face of a spot, and its side.
func (r *Result) where(s Spot) hand.Said {
	side := "spot-inside"
	if s.Outside {
		side = "spot-outside"
	}
	return hand.Said{Key: side, Words: map[string]string{"place": s.Words, "piece": strings.ToLower(r.PieceName(s.Piece))}}
}

// middle says where the middle of what goes on a spot lies.
func (r *Result) middle(s Spot) hand.Said {
	return hand.Said{Key: "middle-at", Lengths: map[string][]measure.Length{
		"at": {r.ruled(measure.FromMM(s.At.X))}, "off": {r.ruled(measure.FromMM(s.At.Y))},
	}}
}

// ruled is a length at the mark of a ruler that is next to it.
func (r *Result) ruled(l measure.Length) measure.Length {
	return measure.Nearest(l, r.Inputs.Tools.Tick.Ruler())
}

// onRuler is a length at the mark of a ruler that is next to it.
func (r *Result) onRuler(l measure.Length) string {
	return r.Show(r.ruled(l))
}

// fixings are what is put on while the pieces are flat, before the papers that
// hide it.
func (r *Result) fixings() []hand.Put {
	var out []hand.Put
	add := func(s Spot, key string, more ...hand.Said) {
		n := fmt.Sprintf("closure/%d", len(out)+1)
		first := hand.Said{Key: key, Phrases: map[string]hand.Said{"where": r.where(s)}}
		out = append(out, hand.Put{Key: n, Thing: n, On: s.Piece, When: hand.Lying, Phrase: append([]hand.Said{first, r.middle(s)}, more...)})
	}
	for _, c := range r.Closures {
		for _, s := range c.Seats {
			switch c.Kind {
			case Magnets:
				cover := "magnets-bare"
				if r.papered(s.On) {
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
func (r *Result) shutting() []hand.Put {
	var out []hand.Put
	for _, c := range r.Closures {
		on, closing := c.Seats[0].On, c.Seats[0].Closing
		with := func(key string, at Spot) hand.Said {
			x := hand.Said{Key: key, Words: map[string]string{"flap": closing.Words, "both": "", "through": ""}, Phrases: map[string]hand.Said{"where": r.where(at)}}
			if len(c.Seats) > 1 {
				x.Phrases["both"] = hand.Say("both-times")
			}
			if r.papered(on) {
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
			said = []hand.Said{with("dot-shut", on), r.middle(on), with("dot-press", on)}
		case Brad:
			said = []hand.Said{with("brad-shut", on)}
		case Clip:
			said = []hand.Said{with("clip-shut", on)}
		case Tape:
			said = []hand.Said{with("tape-shut", closing), r.middle(closing)}
		}
		out = append(out, hand.Put{Thing: "closing by " + string(c.Kind), When: hand.Closed, Phrase: said})
	}
	return out
}

// closureSupplies are what the closures of all copies take.
func (r *Result) closureSupplies() []recipe.Supply {
	var out []recipe.Supply
	for _, c := range r.Closures {
		n := len(c.Seats) * r.Inputs.Copies
		of := map[ClosureKind]struct {
			each       int
			unit, what string
		}{
			Magnets: {2, "magnet", "thin magnets, 10 mm across"}, Hooks: {1, "pair", "hook-and-loop patches, 12 mm, in pairs"},
			Dot: {1, "dot", "removable glue dots"}, Brad: {1, "brad", "brads"}, Clip: {1, "clip", "clips or small pegs"}, Tape: {1, "strip", "strips of repositionable tape, 40 mm"},
		}[c.Kind]
		out = append(out, recipe.Supply{ID: "closure." + string(c.Kind), Amount: float64(n * of.each), Unit: of.unit, Text: fmt.Sprintf("%d %s", n*of.each, of.what)})
	}
	return out
}
