// Package inspect looks for what would go wrong at the table, before anything
// is cut.
package inspect

import (
	"fmt"
	"strings"

	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
)

// Verdict of one check.
type Verdict string

// Fail means: do not cut this.
const (
	OK   Verdict = "ok"
	Warn Verdict = "warn"
	Fail Verdict = "fail"
)

// Finding is one check and what it found, in a sentence that says what to do.
type Finding struct {
	ID      string
	Verdict Verdict
	Piece   string
	Text    string
	// Where outlines the place on the flat piece, to be shown in its drawing.
	Where [][]pattern.Point
}

// Worst is the gravest verdict among findings.
func Worst(all []Finding) Verdict {
	worst := OK
	for _, f := range all {
		if f.Verdict == Fail || f.Verdict == Warn && worst == OK {
			worst = f.Verdict
		}
	}
	return worst
}

// Fits judges the gap accounts against the fit that was asked for.
func Fits(accounts []fit.Account, unit measure.Unit) []Finding {
	var out []Finding
	for _, a := range accounts {
		f := Finding{ID: "fit." + a.Pair.Axis, Verdict: OK, Piece: a.Pair.Outer}
		gap := measure.Label(a.Gap, measure.MM, measure.Millimetre/100)
		what := fmt.Sprintf("%s over %s, %s", a.Pair.OuterName, strings.ToLower(a.Pair.InnerName), a.Pair.Axis)
		if a.Pair.Within {
			what = fmt.Sprintf("%s in the box, %s", a.Pair.InnerName, a.Pair.Axis)
		}
		switch a.Verdict {
		case fit.WontGoOn:
			f.Verdict = Fail
			f.Text = fmt.Sprintf("%s: it won't go on, %s too tight. Let the lid be worked out, or give it more allowance.", what, strings.TrimPrefix(gap, "−"))
		case fit.Grips:
			f.Verdict = Warn
			if a.Gap < 0 {
				f.Text = fmt.Sprintf("%s: the same scores are %s tight; the walls bend past each other. Taper the tabs well, or step the lid's scores.", what, strings.TrimPrefix(gap, "−"))
				break
			}
			f.Text = fmt.Sprintf("%s: a gap of %s grips; it may crease the rim. Allow one tick more unless you want that.", what, gap)
		case fit.Loose:
			if a.Pair.Within {
				f.Text = fmt.Sprintf("%s: it stands with %s to spare.", what, gap)
				break
			}
			f.Verdict = Warn
			f.Text = fmt.Sprintf("%s: a gap of %s is loose; it may drop off. Allow less, or hold it with a band.", what, gap)
		default:
			f.Text = fmt.Sprintf("%s: a gap of %s, %s.", what, gap, a.Verdict)
		}
		out = append(out, f)
	}
	return out
}

// OnTick warns of scores that the board has no groove for.
func OnTick(p recipe.ScoreList, tick measure.Tick, unit measure.Unit) Finding {
	for _, pass := range p.Passes {
		for _, s := range pass.At {
			if off := (s - measure.Nearest(s, tick)).Abs(); off >= measure.Millimetre/20 {
				return Finding{ID: "tick", Verdict: Warn, Piece: p.Piece, Text: fmt.Sprintf("%s: the score at %s lies between two grooves of the board; mark it with a ruler, or change the size by that little.",
					p.Name, measure.Label(s, unit, tick))}
			}
		}
	}
	return Finding{ID: "tick", Verdict: OK, Piece: p.Piece, Text: p.Name + ": every score lies on a groove of the board."}
}

// Tabs warns of tabs narrower than the adhesive needs. tab is the narrowest
// one's reach, and least what is wanted.
func Tabs(p style.Part, adhesive string) Finding {
	least := style.TabWidth(adhesive).MM()
	for _, g := range p.Pattern.Glue {
		if g.Dry {
			continue
		}
		lo, hi := g.Area[0], g.Area[0]
		for _, q := range g.Area {
			lo.X, lo.Y, hi.X, hi.Y = min(lo.X, q.X), min(lo.Y, q.Y), max(hi.X, q.X), max(hi.Y, q.Y)
		}
		if width := min(hi.X-lo.X, hi.Y-lo.Y); width < least-1e-6 {
			return Finding{ID: "tab", Verdict: Warn, Piece: p.ID, Where: [][]pattern.Point{g.Area}, Text: fmt.Sprintf("%s: the tab at %s is %.1f mm wide and %s wants %.0f mm; use wet glue, or a higher wall.",
				p.Name, strings.ReplaceAll(g.Face, ".", " "), width, AdhesiveName(adhesive), least)}
		}
	}
	return Finding{ID: "tab", Verdict: OK, Piece: p.ID, Text: p.Name + ": every tab is wide enough for its adhesive."}
}

// AdhesiveName is the word for an adhesive in a sentence.
func AdhesiveName(adhesive string) string {
	if adhesive == "wet-glue" {
		return "wet glue"
	}
	return "double-sided tape"
}

// The masses, in grams, above which a plain base and then a doubled one ask for more.
const (
	lightLoad = 150
	heavyLoad = 500
)

// Load judges the weight of the contents against the base; grams of 0 means
// that it is not known.
func Load(grams float64, doubled bool, gsm float64) (Finding, bool) {
	f := Finding{ID: "load", Verdict: OK}
	switch {
	case grams <= 0:
		return f, false
	case grams > heavyLoad:
		f.Verdict = Warn
		f.Text = fmt.Sprintf("%.0f g in the box: double the base, use wide tabs and a stiffener, and carry it from below.", grams)
	case grams > lightLoad && !doubled && gsm < 200:
		f.Verdict = Warn
		f.Text = fmt.Sprintf("%.0f g in the box: card of %.0f gsm is light for that; use 240 gsm or more, or a doubled base.", grams, gsm)
	default:
		f.Text = fmt.Sprintf("%.0f g in the box: the base carries it.", grams)
	}
	return f, true
}
