package workspace

import (
	"fmt"
	"html/template"
	"slices"

	"brevium/core/design"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/web/page"
)

// Folded draws the finished box.
func (p *workPage) Folded() template.HTML {
	return page.Draw(&p.room.Drawn, p.Result, "folded", func() template.HTML { return page.BoxPicture(p.Result, "") })
}

// netView is a piece drawn flat, and how many a box has when it is not one.
type netView struct {
	Picture template.HTML
	Count   string
	Key     []string // of faces too small for their names
}

// Nets draws each piece flat.
func (p *workPage) Nets() []netView {
	return page.Draw(&p.room.Drawn, p.Result, "nets", func() []netView { return nets(p.Result, false) })
}

// nets draws the pieces flat, their faces to be pressed where they pick.
func nets(r *design.Result, pick bool) []netView {
	var out []netView
	for _, part := range r.Parts {
		net := netOf(r, part)
		net.Pick = pick
		out = append(out, netView{page.SVG(net.Picture()), ofIt(part.Part), net.Key()})
	}
	return out
}

// ofIt says how many of a piece one box has, "" for one.
func ofIt(p style.Part) string {
	if p.Copies() == 1 {
		return ""
	}
	return fmt.Sprintf("%d of these", p.Copies())
}

// numberView is a length for reading from a distance, the other unit beside.
type numberView struct{ Number, Beside string }

type scoreView struct {
	ID, Name     string
	Count        string
	Size, Beside string
	Passes       []passView
}

type passView struct {
	Against string
	Shim    string
	Numbers []numberView
}

func (p *workPage) number(l measure.Length) numberView {
	return numberView{measure.Number(l, p.Units, p.Box.Inputs.Tools.Tick), measure.Beside(l, p.Units)}
}

// ScoreViews gives the numbers of each piece as they are read off the board.
func (p *workPage) ScoreViews() []scoreView {
	var out []scoreView
	for i, list := range p.Result.Scores {
		part := p.Result.Parts[i]
		v := scoreView{
			ID:     part.ID,
			Name:   list.Name,
			Count:  ofIt(part.Part),
			Size:   measure.Labels(p.Units, p.Box.Inputs.Tools.Tick, part.Pattern.Width, part.Pattern.Height),
			Beside: measure.Beside(part.Pattern.Width, p.Units) + " × " + measure.Beside(part.Pattern.Height, p.Units),
		}
		for _, pass := range list.Passes {
			x := passView{Against: pass.Against()}
			if pass.Shim > 0 {
				x.Shim = p.Result.Show(pass.Shim)
			}
			for _, l := range pass.At {
				x.Numbers = append(x.Numbers, p.number(l))
			}
			v.Passes = append(v.Passes, x)
		}
		out = append(out, v)
	}
	return out
}

// Inside and Outside are the finished sizes.
func (p *workPage) Inside() string {
	return p.Result.Inside.FreeIn(p.Box.Inputs.Units)
}
func (p *workPage) Outside() string {
	return p.Result.Outside.TakenIn(p.Box.Inputs.Units)
}

// Findings are the checks that are not clean.
func (p *workPage) Findings() []inspect.Finding {
	if p.Result == nil {
		return nil
	}
	return slices.DeleteFunc(slices.Clone(p.Result.Checks), func(f inspect.Finding) bool {
		return f.Verdict == inspect.OK || f.Mend != nil && p.Form.Told[f.Mend.Field] // at its field
	})
}

// Mends says what a finding's button does.
func (p *workPage) Mends(m *inspect.Mend) string {
	if m.Words != "" {
		return m.Words
	}
	return "Make the " + m.Name + " " + p.Result.Show(m.To)
}

// Papers are those that are printed on.
func (p *workPage) Papers() []string { return page.Papers }

// Unplaced are the faults no field of this stop can show.
func (p *workPage) Unplaced() []string { return p.Form.Unplaced() }
