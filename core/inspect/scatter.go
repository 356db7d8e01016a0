package inspect

import (
	"fmt"
	"strings"

	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/stuff"
)

// Hands is a box as a hand makes it that is so steady: what its fits come to in many boxes.
type Hands struct {
	*Matter
	Steady stuff.Steadiness
	Hand   stuff.Hand
	Scores []recipe.ScoreList
	Fits   []fit.Account
	Copies int
	// Allowance is the option that widens the fits, what it is called, its value and its tick;
	// "" where there is none.
	Allowance, AllowanceName string
	Value                    measure.Length
	Tick                     measure.Tick
}

// Joined is a fit of two parts as it scatters: its axes, in the order of their accounts.
type Joined struct {
	Accounts []fit.Account
	Axes     []stuff.Axis
}

// Joined are the fits that a hand feels, each with all its axes.
func (h *Hands) Joined() []Joined {
	var out []Joined
	at := map[[2]string]int{}
	for _, a := range h.Fits {
		if !a.Pair.Kind.Widened() || !a.Pair.Kind.Moves() {
			continue
		}
		key := [2]string{a.Pair.Outer, a.Pair.Inner}
		i, there := at[key]
		if !there {
			i = len(out)
			at[key] = i
			out = append(out, Joined{})
		}
		mean, sigma := h.Table.Normal(h.Hand, h.gap(a))
		if h.Steady == stuff.Learned && a.Spread > 0 {
			sigma = a.Spread.MM()
		}
		out[i].Accounts, out[i].Axes = append(out[i].Accounts, a), append(out[i].Axes, stuff.Axis{Mean: mean, Sigma: sigma})
	}
	return out
}

// gap is a fit along an axis as it scatters.
func (h *Hands) gap(a fit.Account) stuff.Gap {
	p := a.Pair
	card := p.OuterCard
	if card == 0 {
		card = p.InnerCard
	}
	g := stuff.Gap{
		Mean: a.Gap.MM(), Thick: card.MM(), Cards: p.OuterLayers + p.InnerLayers + 2, Tabs: p.OuterLayers,
		Outer: h.scored(p.Outer), Inner: h.scored(p.Inner), ByWeight: h.byWeight(p.Outer),
	}
	if p.Axis == "height" { // two walls under two others
		g.Inner, g.Sides = stuff.WallUp, true
	}
	if p.Outer == p.Inner { // one pair of lines makes both, but for the heights
		g.Outer, g.Inner = stuff.Given, stuff.Given
		if p.OuterSpan != p.InnerSpan {
			g.Outer, g.Inner = stuff.OneEdge, stuff.OneEdge
		}
	}
	return g
}

// scored is how a piece is scored: from all its edges, or from one.
func (h *Hands) scored(piece string) stuff.Scored {
	for _, l := range h.Scores {
		if l.Piece != piece {
			continue
		}
		if len(l.Passes) > 0 && l.Passes[0].Edge == recipe.EachEdge || len(l.Passes) > 2 {
			return stuff.FourEdges
		}
	}
	return stuff.OneEdge
}

// byWeight reports whether a piece's thickness is only taken from its weight.
func (h *Hands) byWeight(piece string) bool {
	p, is := h.piece(piece)
	return !is || p.Of.Measured == 0 && p.Of.Thickness == paper.ThicknessOf(p.Of.GSM, p.Of.Finish.Bulk())
}

// Scatter judges how many of many boxes have a usable fit, by each pair of parts. A pair that is
// tight for every hand is left to its account.
func (h *Hands) Scatter() []Finding {
	if h.Steady == "" {
		return nil
	}
	var out []Finding
	for _, j := range h.Joined() {
		said := false
		for _, a := range j.Accounts {
			said = said || a.Fails() || a.Verdict == fit.Tight
		}
		if !said {
			out = append(out, h.Judged(j))
		}
	}
	return out
}

// Judged is what a fit comes to in many boxes: how many are usable, and what would help.
func (h *Hands) Judged(j Joined) Finding {
	p := j.Accounts[0].Pair
	what := fmt.Sprintf("%s and %s", p.OuterName, strings.ToLower(p.InnerName))
	usable := stuff.UsableOf(j.Axes)
	f := Finding{ID: "fit.scatter", Verdict: OK, Piece: p.Outer, Text: fmt.Sprintf("%s: about %s of a hundred boxes made by %s hand fit well.", what, hundred(usable), article(h.Steady))}
	for i, a := range j.Accounts {
		f.Account = append(f.Account, sum("gap in "+a.Pair.Axis, "%.2f mm, ± %.2f", j.Axes[i].Mean, j.Axes[i].Sigma))
	}
	f.Account = append(f.Account, sum("goes on", "%s in 100", hundred(1-stuff.Chance(fit.WontGoOn, j.Axes))))
	for _, v := range []fit.Verdict{fit.Tight, fit.Grips, fit.Snug, fit.Easy} {
		f.Account = append(f.Account, sum(string(v), "%s in 100", hundred(stuff.Chance(v, j.Axes))))
	}
	if h.Copies > 1 {
		b := stuff.BatchOf(h.Copies, j.Axes, h.Table.Together)
		f.Account = append(f.Account, sum(fmt.Sprintf("of %d, right in the mean", h.Copies), "%d, %d to %d", b.Mean, b.Least, b.Most),
			Sum{"so make one whole and try it before you cut the rest", ""})
	}
	f.Account = append(f.Account, h.watch(j)...)
	if usable >= h.Table.Usable {
		return f
	}
	f.Verdict = Warn
	f.Text = fmt.Sprintf("%s: only about %s of a hundred boxes made by %s hand fit well.", what, hundred(usable), article(h.Steady))
	better, chance := h.better(j)
	if better != 0 && chance > usable+leastGain {
		to := h.Value + better
		f.Text += fmt.Sprintf(" With %s they are %s.", measure.Label(to, h.Units, h.Tick), hundred(chance))
		f.Mend = &Mend{Field: "options." + h.Allowance, Name: strings.ToLower(h.AllowanceName), To: to}
	} else {
		f.Text += " Make one whole and try it, then cut the rest; score from one edge, and all pieces at one setting of the fence."
	}
	return f
}

// watch says which cut and score to measure twice: by how much a millimetre on each moves the gap.
// What is read from all four edges grows with its blank and shrinks with each score; of lines
// from one edge the ones between two gaps move both.
func (h *Hands) watch(j Joined) []Sum {
	p := j.Accounts[0].Pair
	if p.Outer == p.Inner {
		return nil
	}
	var out []Sum
	each := func(name, piece, wider, tighter string) {
		name = strings.ToLower(name)
		if h.scored(piece) == stuff.FourEdges {
			out = append(out, Sum{"a millimetre more on the " + name + "’s blank", wider + "1 mm"}, Sum{"and on each of its scores", tighter + "1 mm"})
			return
		}
		out = append(out, Sum{"a millimetre on the " + name + "’s first and last score", "1 mm"})
		if len(j.Accounts) > 1 {
			out = append(out, Sum{"on those between, which move two gaps: measure them twice", "1 mm each"})
		}
	}
	each(p.OuterName, p.Outer, "+", "−")
	each(p.InnerName, p.Inner, "−", "+")
	cards := 0
	for _, a := range j.Accounts {
		cards = max(cards, h.gap(a).Cards)
	}
	return append(out, sum("card thicker by 0.01 mm", "−%.2f mm", 0.01*float64(cards)))
}

// leastGain is by how much another allowance must raise the chance to be worth a word.
const leastGain = .03

// better is by how much another allowance makes most boxes usable, and how many then.
func (h *Hands) better(j Joined) (by measure.Length, chance float64) {
	if h.Allowance == "" || h.Tick == 0 {
		return 0, 0
	}
	for n := -6; n <= 6; n++ {
		d := measure.Length(n) * h.Tick.Length()
		if h.Value+d < 0 {
			continue
		}
		axes := make([]stuff.Axis, len(j.Axes))
		for i, a := range j.Axes {
			axes[i] = stuff.Axis{Mean: a.Mean + d.MM(), Sigma: a.Sigma}
		}
		if p := stuff.UsableOf(axes); p > chance {
			by, chance = d, p
		}
	}
	return by, chance
}

func hundred(p float64) string { return fmt.Sprintf("%.0f", 100*p) }

// article puts "a" before a hand's name.
func article(s stuff.Steadiness) string { return "a " + string(s) }
