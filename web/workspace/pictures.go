package workspace

import (
	"fmt"
	"html/template"
	"net/url"
	"slices"
	"strings"

	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/fit"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/style"
	"brevium/draw"
	"brevium/draw/export"
	"brevium/draw/pdf"
	"brevium/web/page"
)

// ThingPicture draws how the things stand.
func (p *workPage) ThingPicture() template.HTML {
	return page.SVG(draw.Contents(*p.Result.Stand, p.Box.Inputs.Things, p.Units, p.Box.Inputs.Tools.Tick))
}

// Folded draws the finished box; where it is dressed its faces can be pressed.
func (p *workPage) Folded() template.HTML {
	if p.Stop != "dressing" {
		return page.Draw(&p.room.Drawn, p.Result, "folded", func() template.HTML { return page.BoxPicture(p.Result, "") })
	}
	return page.Draw(&p.room.Drawn, p.Result, "folded, to be dressed", p.dressed)
}

func (p *workPage) dressed() template.HTML {
	picture, err := draw.ModelOf(p.Result, false).Picks().Look(p.Result.Style.Name + ", folded: press a face to dress it")
	if err != nil {
		return ""
	}
	return page.SVG(picture)
}

// netView is a piece drawn flat, and how many a box has when it is not one.
type netView struct {
	Picture template.HTML
	Count   string
	Key     []string // of faces too small for their names
}

// Nets draws each piece flat.
func (p *workPage) Nets() []netView {
	return page.Draw(&p.room.Drawn, p.Result, fmt.Sprint("nets, to be dressed ", p.Stop == "dressing"), p.nets)
}

func (p *workPage) nets() []netView {
	var out []netView
	for _, part := range p.Result.Parts {
		net := netOf(p.Result, part)
		net.Pick = p.Stop == "dressing"
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

// fitView is one account with its picture.
type fitView struct {
	fit.Account
	Picture template.HTML
	Gap     string
	Lines   []fitLine
}

type fitLine struct{ Text, Amount string }

// Accounts gives the gap accounts line by line, in millimetres.
func (p *workPage) Accounts() []fitView {
	var out []fitView
	show := measure.Hundredths
	for _, a := range p.Result.Fits {
		v := fitView{Account: a, Picture: page.SVG(draw.StackUp(a)), Gap: show(a.Gap)}
		for _, l := range a.Lines {
			v.Lines = append(v.Lines, fitLine{l.Text, show(l.Amount)})
		}
		out = append(out, v)
	}
	return out
}

// bare compares the fit over mats with that over bare walls; "" when there are
// no mats or no fit.
func bare(r *design.Result) string {
	bare, dressed, known := r.BareFit()
	if !known {
		return ""
	}
	return fmt.Sprintf("Made the usual %s bigger it %s over bare walls; over these papers it %s.",
		measure.Label(measure.Inch/16, r.Inputs.Units, measure.Tenth), does[bare], does[dressed])
}

// does puts a verdict into a sentence.
var does = map[fit.Verdict]string{
	fit.WontGoOn: "won't go on",
	fit.Tight:    "is tight",
	fit.Grips:    "goes on and grips",
	fit.Snug:     "is snug",
	fit.Easy:     "is easy",
	fit.Loose:    "is loose",
}

type sheetView struct {
	Title   string
	Picture template.HTML
	Names   []string // of pieces too small for theirs
	Cuts    []string
}

// SheetViews draws every sheet; neighbours cut alike are drawn once.
func (p *workPage) SheetViews() []sheetView {
	var out []sheetView
	r := p.Result
	for _, s := range r.Stocks {
		sheets := s.Layout.Sheets
		for i := 0; i < len(sheets); {
			n := 1
			for i+n < len(sheets) && sheets[i].Alike(sheets[i+n]) {
				n++
			}
			l := sheets[i]
			sheet := draw.Sheet{
				Laid:  l,
				Label: func(n int) draw.PieceLabel { return pieceLabel(r, s.Job.Pieces[n].Name) },
				Key:   func(n int) string { return "- " + page.WhereOf(0, s.Job.Pieces[l.Placed[n].Piece].Name) },
				Card:  s.Card,
				Units: p.Units,
				Tick:  p.Box.Inputs.Tools.Tick,
			}
			v := sheetView{
				Title:   fmt.Sprintf("%s, %s of %d (%s)", s.Card.Name, page.Span(i+1, i+n), len(sheets), l.Sheet.Name),
				Picture: page.SVG(sheet.Picture()),
				Names:   sheet.Names(),
			}
			v.Cuts = l.Words(func(n int) string { return strings.ToLower(r.PieceName(s.Job.Pieces[n].Name)) }, r.Show)
			out = append(out, v)
			i += n
		}
	}
	return out
}

// pieceLabel is what is written on a piece of a design's own sheets.
func pieceLabel(r *design.Result, id string) draw.PieceLabel {
	return draw.PieceLabel{Name: r.PieceName(id), Gives: r.OutlinesOf(id), Mat: slices.ContainsFunc(r.Mats, func(m dress.Mat) bool { return m.ID == id })}
}

// Wheres draws the box once for every kind of piece, with that marked.
func (p *workPage) Wheres() []page.WhereView {
	var out []page.WhereView
	m := draw.ModelOf(p.Result, false)
	for _, s := range p.Result.Stocks {
		for _, piece := range s.Job.Pieces {
			name := p.Result.PieceName(piece.Name)
			if picture, err := m.Where("Where the "+strings.ToLower(name)+" goes", page.Given(p.Result, piece.Name)...); err == nil {
				out = append(out, page.WhereView{ID: page.WhereOf(0, piece.Name), Name: name, Picture: page.SVG(picture)})
			}
		}
	}
	return out
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
	return "Make the " + m.Name + " " + p.Result.Show(m.To)
}

// Cautions are those for this work.
func (p *workPage) Cautions() []string { return recipe.Cautions(len(p.Box.Inputs.Things) > 0) }

// MatSets are the mats to cut, alike ones together.
func (p *workPage) MatSets() []recipe.MatSet { return recipe.MatSets(p.Result.Mats) }

// Papers are those that are printed on.
func (p *workPage) Papers() []string { return []string{pdf.A4.Name, pdf.Letter.Name} }

// MachineFormats are the files that hold flat pieces.
func (p *workPage) MachineFormats() []export.Format { return []export.Format{export.SVG, export.DXF} }

// Unplaced are the faults no field of this stop can show.
func (p *workPage) Unplaced() []string { return p.Form.Unplaced() }

// printView is something to print: its name, what for, and where it is on each paper.
type printView struct {
	Name, For string
	On        []printLink
}

type printLink struct{ Paper, At string }

// Prints are what can be printed of the box, each by its name.
func (p *workPage) Prints() []printView {
	var out []printView
	for _, x := range []struct {
		pdf.Print
		use string
	}{
		{pdf.Print{}, "how one box is made, a picture for each move"},
		{pdf.Print{Large: true}, "for a class"},
		{pdf.Print{What: pdf.ScoreCard}, "each piece with its numbers, read from a metre"},
		{pdf.Print{What: pdf.Shopping}, "what to have for " + page.Counted(p.Box.Inputs.Copies, "box")},
		{pdf.Print{What: pdf.Plan}, "the sheets and their cuts"},
		{pdf.Print{What: pdf.Labels}, "to go onto the boxes"},
		{pdf.Print{What: pdf.Slips}, "the numbers alone, to lie beside the work"},
		{pdf.Print{What: pdf.Cards}, "for whoever gets one, to go into them"},
		{pdf.Print{What: pdf.Batch}, "every step, with squares to tick"},
		{pdf.Print{What: pdf.Templates}, "true size"},
		{pdf.Print{What: pdf.Templates, Mirror: true}, "for the back of the card"},
	} {
		v := printView{Name: x.Title(), For: x.use}
		for _, paper := range p.Papers() {
			v.On = append(v.On, printLink{paper, p.printAt(x.Print, paper)})
		}
		out = append(out, v)
	}
	return out
}

// printAt is the address of a print.
func (p *workPage) printAt(print pdf.Print, paper string) string {
	q := url.Values{"paper": {paper}}
	if print.What != pdf.Instructions {
		q.Set("what", string(print.What))
	}
	for name, on := range map[string]bool{"large": print.Large, "mirror": print.Mirror, "plain": p.InLines} {
		if on {
			q.Set(name, "1")
		}
	}
	return page.StopURL(p.Box.ID, "sheet.pdf") + "?" + q.Encode()
}
