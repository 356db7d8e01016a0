package inspect

import (
	"fmt"
	"strings"

	"brevium/core/contents"
	"brevium/core/stuff"
)

// Cared is what cautions are about: what goes in, who gets it, and what is on the box.
type Cared struct {
	Things []contents.Thing
	// Young is 0 for anyone, 1 for a child under 3, 2 for one of 3 to 7.
	Young int
	// Magnets, and Small, the other things on it that a child could swallow, by name.
	Magnets bool
	Small   []string
	HotGlue bool
	Lifted  bool // it is carried by its walls or a handle
}

// localRules end every caution.
const localRules = " Local rules decide."

// heavyGlass is how much glass and liquid, in grams, is carried from below.
const heavyGlass = 250

// Cautions are what to take care of. What is not there is not spoken of.
func (c Cared) Cautions() []Finding {
	var out []Finding
	say := func(id string, v Verdict, text string, args ...any) {
		out = append(out, Finding{ID: id, Verdict: v, Text: fmt.Sprintf(text, args...) + localRules})
	}
	kinds := map[contents.Kind][]string{}
	glass := 0.0
	for _, t := range c.Things {
		kinds[t.Kind] = append(kinds[t.Kind], strings.ToLower(t.Name))
		if t.Kind == contents.Glass || t.Kind == contents.Liquid {
			glass += t.Grams * float64(t.Count)
		}
	}
	if food := append(kinds[contents.Food], kinds[contents.GreasyFood]...); len(food) > 0 {
		how := "keep it wrapped, or lay in a liner that is made for food"
		if len(kinds[contents.GreasyFood]) > 0 {
			how = "wrap it in greaseproof paper or film: grease and damp go through card"
		}
		say("food", Warn, "Card and glue are not made to touch food: %s, and name the allergens.", how)
	}
	if small := c.Small; c.Young > 0 && (c.Magnets || len(small) > 0) {
		if c.Magnets {
			small = append([]string{"magnets"}, small...)
		}
		v, who := Fail, "a child under 3"
		if c.Young > 1 {
			v, who = Warn, "a child of 3 to 7"
		}
		say("child", v, "It is for %s, and has %s on it that can be swallowed: leave that off.", who, strings.Join(small, ", "))
	}
	if c.Magnets {
		say("magnet", Warn, "Keep magnets from bank cards, and from whoever has a pacemaker; glue them in so that they cannot come out.")
	}
	if len(kinds[contents.Candle]) > 0 {
		say("candle", Fail, "Never burn a candle in a box of card, and let it cool before it is packed; a light of diodes is well.")
	}
	if len(kinds[contents.Hot]) > 0 {
		if c.HotGlue {
			say("heat", Fail, "Hot glue lets go over 50 °C: what goes in hot, or stands in a hot car, opens the box. Use wet glue.")
		} else {
			say("heat", OK, "What goes in hot makes card soft and damp: let it cool first.")
		}
	}
	if glass > heavyGlass && c.Lifted {
		out = append(out, Finding{ID: "load.glass", Verdict: Warn, Mend: &carryBelow,
			Text: fmt.Sprintf("%s of glass or liquid: carry the box from below.", weighs(glass))})
	}
	return out
}

// Joint is a place where something is stuck, and with what, as a maker chose it.
type Joint struct {
	On    stuff.Joint
	With  stuff.Glue
	Piece string
}

// Glues looks at adhesives that a maker chose for a joint and that are not for it.
func Glues(joints []Joint) []Finding {
	var out []Finding
	for _, j := range joints {
		a, k := stuff.AdhesiveOf(j.With), stuff.JointOf(j.On)
		f := Finding{ID: "glue.kind", Verdict: OK, Piece: j.Piece, Text: fmt.Sprintf("%s: %s holds there.", k.Words, a.Words)}
		if !k.Takes(j.With) {
			f.Verdict = Warn
			f.Text = fmt.Sprintf("%s: %s is not for that (keep it off %s). Use %s.", k.Words, a.Words, a.KeepOff, k.Says())
			f.Mend = &Mend{Field: "glue." + string(j.On), Choice: string(k.Good[0]), Words: "Use " + stuff.AdhesiveOf(k.Good[0]).Words}
		}
		out = append(out, f)
	}
	return out
}
