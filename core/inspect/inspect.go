// Package inspect looks for what would go wrong at the table, before anything
// is cut.
package inspect

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/paper"
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
	// Mend is the one change that mends it; nil where there is none.
	Mend *Mend
	// Account is how it was worked out, line by line; nil where there is nothing to add up.
	Account []Sum
}

// Mend gives a size or an option another value. Field is as a design names it, and Name what it
// is called; where it is no length, Choice or Card is what is chosen, and Words what the button says.
type Mend struct {
	Field, Name   string
	To            measure.Length
	Choice, Words string
	Card          *paper.Card
}

// Remarks are what a style says of a box that can be made and is not as it should be.
func Remarks(b *style.Box) []Finding {
	var out []Finding
	for _, r := range b.Remarks {
		id := "size"
		if r.ForFit {
			id = "fit"
		}
		out = append(out, Finding{ID: id + "." + strings.TrimPrefix(strings.TrimPrefix(r.Field, "size."), "options."), Verdict: Warn, Text: r.Text, Mend: &Mend{Field: r.Field, Name: r.Name, To: r.To}})
	}
	return out
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

// Fits judges the gap accounts; what each says is its relation's own.
func Fits(accounts []fit.Account) []Finding {
	var out []Finding
	for _, a := range accounts {
		f := Finding{ID: "fit." + a.Pair.Axis, Verdict: OK, Piece: a.Pair.Outer, Text: a.Sentence()}
		switch {
		case a.Fails():
			f.Verdict = Fail
		case a.Verdict == fit.Loose && a.Warns() && heldAcross(accounts, a):
			f.Text = a.Held()
		case a.Verdict == fit.Loose && a.Closest:
			f.Text = a.AsCloseAsMarks()
		case a.Warns():
			f.Verdict = Warn
		}
		out = append(out, f)
	}
	return out
}

// heldAcross reports whether two parts that are loose along one axis are held along
// another: they do not come apart then.
func heldAcross(accounts []fit.Account, a fit.Account) bool {
	return slices.ContainsFunc(accounts, func(b fit.Account) bool {
		return b.Pair.Outer == a.Pair.Outer && b.Pair.Inner == a.Pair.Inner && b.Pair.Axis != a.Pair.Axis && b.Verdict != fit.Loose
	})
}

// OnTick warns of scores that the board has no groove for, those that stop
// short among them.
func OnTick(p recipe.ScoreList, tick measure.Tick, unit measure.Unit) Finding {
	for _, s := range p.OnBoard() {
		if off := (s - measure.Nearest(s, tick)).Abs(); off >= recipe.Off {
			return Finding{
				ID:      "tick",
				Verdict: Warn,
				Piece:   p.Piece,
				Text: fmt.Sprintf(
					"%s: the score at %s lies between two grooves of the board; mark it with a ruler, or change the size by that little.",
					p.Name,
					measure.Label(s, unit, tick),
				),
			}
		}
	}
	ruled := 0
	for _, l := range p.Lines {
		if l.Hand == recipe.Ruler {
			ruled++
		}
	}
	f := Finding{ID: "tick", Verdict: OK, Piece: p.Piece, Text: p.Name + ": every score lies on a groove of the board."}
	switch {
	case ruled > 0 && len(p.OnBoard()) > 0:
		f.Text = fmt.Sprintf(
			"%s: every straight score lies on a groove of the board; %d more are scored by a ruler, between marks.",
			p.Name,
			ruled,
		)
	case ruled > 0:
		f.Text = fmt.Sprintf("%s: its %d scores are scored by a ruler, between marks.", p.Name, ruled)
	case len(p.OnBoard()) == 0:
		f.Text = p.Name + ": nothing is scored."
	}
	return f
}

// rowOfTeeth is how many tabs of one name, glued on one other piece, are a row.
const rowOfTeeth = 6

// Tabs warns of tabs narrower than the adhesive needs, by their least width.
func Tabs(p style.Part, adhesive style.Adhesive) Finding {
	least := adhesive.TabWidth().MM()
	called := func(g pattern.Glue) string {
		if m, there := p.Pattern.Mark(g.Face); there {
			return m.Plain()
		}
		return g.Face
	}
	// How wide a tab is that is bent, of flats side by side, and a row of teeth that hold together.
	together, teeth := map[string]float64{}, map[string]int{}
	for _, g := range p.Pattern.Glue {
		if !g.Dry && g.Piece != "" {
			teeth[called(g)]++
		}
	}
	for _, g := range p.Pattern.Glue {
		if width, _ := pattern.Narrowest(g.Area); !g.Dry && (bent(p.Pattern, g.Area) || teeth[called(g)] >= rowOfTeeth) {
			together[called(g)] += width
		}
	}
	for _, g := range p.Pattern.Glue {
		if g.Dry {
			continue
		}
		name := called(g)
		width, _ := pattern.Narrowest(g.Area)
		if width = max(width, together[name]); width < least-1e-6 {
			return Finding{
				ID:      "tab",
				Verdict: Warn,
				Piece:   p.ID,
				Where:   [][]pattern.Point{g.Area},
				Text: fmt.Sprintf("%s: the %s is %.1f mm wide where it is glued and %s wants %.0f mm; use wet glue, or a higher wall.",
					p.Name, name, width, adhesive.Words(), least),
			}
		}
	}
	return Finding{ID: "tab", Verdict: OK, Piece: p.ID, Text: p.Name + ": every tab is wide enough for its adhesive."}
}

// bent reports whether a bend that is not scored runs along an area.
func bent(p *pattern.Pattern, area []pattern.Point) bool {
	for i, a := range area {
		if p.RolledAlong(pattern.Segment{A: a, B: area[(i+1)%len(area)]}) {
			return true
		}
	}
	return false
}
