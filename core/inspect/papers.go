package inspect

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/dress"
	"brevium/core/fit"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/stuff"
)

// Papers looks at the papers on the box: those that are glued on wet all over, or whose grain
// crosses the card's, make a face curl, and thin wet ones cockle. Of each kind the worst of a
// piece is said.
func (m *Matter) Papers(mats []dress.Mat) []Finding {
	var out []Finding
	for _, p := range m.Pieces {
		var curl, cockle *Finding
		for _, x := range mats {
			if x.Piece != p.ID {
				continue
			}
			if f, bow := m.curl(p, x); f != nil && (curl == nil || bow > 0 && worse(*f, *curl)) {
				curl = f
			}
			if f := m.cockle(p, x); m.PapersWet && (cockle == nil || worse(f, *cockle)) {
				cockle = &f
			}
		}
		for _, f := range []*Finding{curl, cockle} {
			if f != nil {
				out = append(out, *f)
			}
		}
	}
	return out
}

// worse reports whether one finding is graver than another.
func worse(a, b Finding) bool { return Worst([]Finding{a, b}) != b.Verdict }

// tapePapers mends what wet glue does.
var tapePapers = Mend{Field: "glue.papers", Choice: string(stuff.Tape), Words: "Tape the papers on"}

// curl judges the bow of a face that a paper is glued to; nil where nothing makes it bow.
func (m *Matter) curl(p Made, x dress.Mat) (*Finding, float64) {
	t := &m.Table
	strain, because := 0.0, ""
	switch {
	case m.PapersWet:
		strain, because = t.CurlWet, "wet glue all over swells the paper"
	case m.crossed(p, x):
		strain, because = t.CurlCrossed, "its grain runs across the card's"
	default:
		return nil, 0
	}
	span := min(x.Width, x.Height).MM()
	bow, radius := t.Curl(stuff.CardOf(p.Of), stuff.CardOf(x.Card), strain, span)
	f := &Finding{ID: "curl", Verdict: OK, Piece: p.ID, Text: fmt.Sprintf("%s: the paper on the %s hardly bows it.", p.Name, x.FaceWords())}
	f.Account = []Sum{
		sum(because, "ε %.4f", strain),
		sum(fmt.Sprintf("%.2f mm paper on %.2f mm card bends to a radius of", x.Card.Thickness.MM(), p.Of.Thickness.MM()), "%.0f mm", radius),
		sum("over "+m.about(span)+" that is", "%.1f mm", bow),
		sum("seen over", "%.0f mm", t.CurlMost),
	}
	if bow > t.CurlMost {
		f.Verdict = Warn
		f.Text = fmt.Sprintf("%s: the %s would bow about %s, since %s. Lay both grains one way, put a like paper on its other side, or use tape.", p.Name, x.FaceWords(), m.about(bow), because)
		if m.PapersWet {
			f.Mend = &tapePapers
		}
	}
	return f, bow
}

// crossed reports whether a paper's grain is known to run across that of the card under it.
func (m *Matter) crossed(p Made, x dress.Mat) bool {
	run := m.RunOf(x.ID)
	if p.Run == paper.RunUnknown || run == paper.RunUnknown {
		return false
	}
	along := x.Lies.Along
	if run == paper.RunWidth {
		along = x.Lies.Up
	}
	return !runsAlong(pattern.Segment{B: along}, p.Run)
}

// cockle judges whether a paper cockles that is glued on wet.
func (m *Matter) cockle(p Made, x dress.Mat) Finding {
	t := &m.Table
	area := x.Width.MM() * x.Height.MM()
	f := Finding{ID: "cockle", Verdict: OK, Piece: p.ID, Text: fmt.Sprintf("%s: the paper on the %s lies flat under wet glue.", p.Name, x.FaceWords()), Account: []Sum{
		sum("this paper", "%s over %.0f cm²", weight(x.Card.GSM), area/100),
		sum("cockles up to", "%s", weight(t.CockleThin)),
		sum(fmt.Sprintf("and over %.0f cm² up to", t.CockleArea/100), "%s", weight(t.CockleThick)),
	}}
	if t.Cockles(x.Card.GSM, area) {
		f.Verdict, f.Mend = Warn, &tapePapers
		f.Text = fmt.Sprintf("%s: paper of %s cockles on the %s when it is glued wet all over. Use tape or dry film, or brush the glue on thin and dry it under weight.", p.Name, weight(x.Card.GSM), x.FaceWords())
	}
	return f
}

// Grain looks at parts that go over one another with their grains crossed: with the air's damp
// they grow apart.
func (m *Matter) Grain(fits []fit.Account) []Finding {
	t := &m.Table
	points := m.Points
	if points == 0 {
		points = t.GrainDamp
	}
	runs := map[string]paper.Run{}
	for _, p := range m.Pieces {
		runs[p.ID] = p.Run
	}
	told := map[[2]string]int{}
	var out []Finding
	for _, a := range fits {
		one, other := runs[a.Pair.Outer], runs[a.Pair.Inner]
		if !a.Pair.Kind.Moves() || a.Pair.Outer == a.Pair.Inner || one == paper.RunUnknown || other == paper.RunUnknown {
			continue
		}
		long := a.Pair.InnerSpan.MM()
		moves := t.Moves(long, points)
		f := Finding{ID: "grain", Verdict: OK, Piece: a.Pair.Outer, Account: []Sum{
			sum("along", "%s", m.about(long)), sum("the air's damp changes by", "%.0f points", points),
			sum("crossed, they move by", "%.2f mm", moves), sum("at most", "%.1f mm", t.GrainMost),
		}}
		switch {
		case one == other:
			f.Text = fmt.Sprintf("%s and %s: their grain runs one way.", a.Pair.OuterName, strings.ToLower(a.Pair.InnerName))
			f.Account = nil
		case moves <= t.GrainMost:
			f.Text = fmt.Sprintf("%s and %s: their grains cross, and they are too small for that to matter.", a.Pair.OuterName, strings.ToLower(a.Pair.InnerName))
		default:
			f.Verdict = Warn
			f.Text = fmt.Sprintf("%s and %s: their grains cross, and the fit changes by about %.1f mm with the weather. Lay both one way.", a.Pair.OuterName, strings.ToLower(a.Pair.InnerName), math.Round(moves*10)/10)
			f.Mend = &Mend{Field: "grain." + a.Pair.Outer, Choice: string(other), Words: "Lay both grains one way"}
		}
		both := [2]string{a.Pair.Outer, a.Pair.Inner}
		if at, is := told[both]; is {
			if worse(f, out[at]) {
				out[at] = f
			}
			continue
		}
		told[both] = len(out)
		out = append(out, f)
	}
	return out
}
