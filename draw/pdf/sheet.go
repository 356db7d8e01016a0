package pdf

import (
	"fmt"
	"io"
	"strings"

	"brevium/core/design"
	"brevium/core/inspect"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/draw"
)

const margin = 14.0

// writer lays text and pictures down the pages.
type writer struct {
	*canvas
	r     *design.Result
	model *draw.Model
	y     float64
}

// Write writes the project sheet and the templates of a design.
func Write(out io.Writer, r *design.Result, paper Paper) error {
	parts, folded := r.Pieces()
	w := &writer{canvas: newCanvas(paper, r.Inputs.Name), r: r, model: draw.NewModel(parts, folded, r.Mats, r.Shown())}
	w.page()
	if err := w.front(); err != nil {
		return err
	}
	if err := w.steps(); err != nil {
		return err
	}
	for _, p := range r.Parts {
		w.template(p)
	}
	return w.Output(out)
}

// mind is what a finding is led by.
var mind = map[inspect.Verdict]string{inspect.Fail: "Do not cut yet: ", inspect.Warn: "Mind: "}

func (w *writer) page() {
	w.AddPage()
	w.y = margin
	w.ink()
	w.SetFont(family, "", 8)
	w.SetXY(margin, w.paper.Height-10)
	w.CellFormat(w.wide(), 4, fmt.Sprintf("%s · page %d", w.r.Inputs.Name, w.PageNo()), "", 0, "R", false, 0, "")
}

func (w *writer) wide() float64 { return w.paper.Width - 2*margin }

func (w *writer) ink() {
	w.SetTextColor(43, 37, 48)
	w.SetDrawColor(43, 37, 48)
	w.SetLineWidth(0.2)
}

// room starts a new page when less than need mm are left.
func (w *writer) room(need float64) {
	if w.y+need > w.paper.Height-margin-2 {
		w.page()
	}
}

func (w *writer) heading(text string) {
	w.room(16)
	w.y += 3
	w.ink()
	w.SetFont(family, "B", 13)
	w.SetXY(margin, w.y)
	w.CellFormat(w.wide(), 6, text, "B", 0, "L", false, 0, "")
	w.y += 8
}

// para writes a paragraph in a column and moves down.
func (w *writer) para(x, width, size float64, bold bool, text string) {
	weight := ""
	if bold {
		weight = "B"
	}
	w.ink()
	w.SetFont(family, weight, size)
	line := size * 0.46
	n := len(w.SplitText(text, width))
	w.room(float64(n) * line)
	w.SetXY(x, w.y)
	w.MultiCell(width, line, text, "", "L", false)
	w.y += float64(n)*line + 0.8
}

func (w *writer) both(l measure.Length) string {
	in := w.r.Inputs
	return measure.Label(l, in.Units, in.Tools.Tick) + " (" + measure.Beside(l, in.Units) + ")"
}

func (w *writer) bothList(all []measure.Length) string {
	var out []string
	for _, l := range all {
		out = append(out, w.both(l))
	}
	return strings.Join(out, ",  ")
}

// front is what to cut, the scores and the supplies.
func (w *writer) front() error {
	r := w.r
	w.para(margin, w.wide(), 22, true, r.Inputs.Name)
	about := r.Style.Name + ". " + r.Style.About + "."
	if f := r.Filling(); f != "" {
		about += " For " + f + "."
	}
	w.para(margin, w.wide()-75, 11, false, about)
	w.para(
		margin,
		w.wide()-75,
		11,
		false,
		fmt.Sprintf("Makes %d. About %.0f minutes for one, %.0f for all.", r.Inputs.Copies, r.One, r.All),
	)
	e := r.Inside
	w.para(margin, w.wide()-75, 11, false, fmt.Sprintf("Inside %s × %s × %s.", w.plain(e.Length), w.plain(e.Width), w.plain(e.Height)))
	picture, err := w.model.Picture(r.Style.Name, float64(len(w.model.Stages)))
	if err != nil {
		return err
	}
	w.fit(picture, w.paper.Width-margin-70, margin+10, 70, 52)
	w.y = max(w.y, margin+64)
	for _, c := range r.Checks {
		if c.Verdict != inspect.OK {
			w.para(margin, w.wide(), 11, true, mind[c.Verdict]+c.Text)
		}
	}
	w.heading("What to cut")
	for _, p := range r.Parts {
		w.para(
			margin,
			w.wide(),
			11,
			false,
			fmt.Sprintf(
				"%d × %s blank: %s × %s, %s",
				r.Inputs.Copies*p.Copies(),
				strings.ToLower(p.Name),
				w.both(p.Pattern.Width),
				w.both(p.Pattern.Height),
				p.Card.Name,
			),
		)
	}
	for _, m := range r.Mats {
		w.para(
			margin,
			w.wide(),
			10,
			false,
			fmt.Sprintf(
				"%d × mat for the %s's %s: %s × %s, %s",
				r.Inputs.Copies,
				m.Piece,
				m.Words,
				w.both(m.Width),
				w.both(m.Height),
				m.Card.Name,
			),
		)
	}
	w.heading("Scores, read off the board")
	for i, list := range r.Scores {
		w.para(margin, w.wide(), 11, true, list.Name)
		for n, pass := range list.Passes {
			against := pass.Against()
			lead := strings.ToUpper(against[:1]) + against[1:] + " against the fence: "
			if n > 0 {
				lead = "Turn a quarter, " + against + " against the fence: "
			}
			if pass.Shim > 0 {
				lead = strings.Replace(lead, "fence", "fence with a shim of "+w.both(pass.Shim), 1)
			}
			w.para(margin+4, w.wide()-4, 11, false, lead+w.bothList(pass.At))
		}
		for _, line := range list.ShortLines(r.Telling()) {
			w.para(margin+4, w.wide()-4, 10, false, "Stops short: "+line)
		}
		if m := r.Parts[i].Measuring; m != "" {
			w.para(margin+4, w.wide()-4, 10, false, m)
		}
	}
	w.heading("Supplies")
	for _, s := range r.Supplies {
		w.para(margin, w.wide(), 11, false, s.Text)
	}
	w.heading("Take care")
	for _, c := range recipe.Cautions(len(r.Inputs.Things) > 0) {
		w.para(margin, w.wide(), 10, false, c)
	}
	return nil
}

func (w *writer) plain(l measure.Length) string {
	in := w.r.Inputs
	return measure.Label(measure.Down(l, in.Tools.Tick), in.Units, in.Tools.Tick)
}

// stepPicture is the small picture beside a step, or nil.
func (w *writer) stepPicture(s recipe.Step) (*draw.Picture, error) {
	for _, m := range w.r.Mats {
		if s.Kind == recipe.Cut && s.Key == string(recipe.Cut)+"/"+m.ID {
			return draw.BlankOf("mat", m.Width.MM(), m.Height.MM()), nil
		}
	}
	for _, p := range w.r.Parts {
		if p.ID != s.Piece {
			continue
		}
		net := draw.Net{Part: p.Part, Fence: w.r.Inputs.Tools.Fence, Units: w.r.Inputs.Units, Tick: w.r.Inputs.Tools.Tick, Plain: true}
		switch s.Kind {
		case recipe.Cut:
			return draw.BlankOf(p.Name, p.Pattern.Width.MM(), p.Pattern.Height.MM()), nil
		case recipe.Score, recipe.Remove:
			return net.Picture(), nil
		case recipe.Decorate:
			net.Mats = w.r.Mats
			return net.Picture(), nil
		case recipe.Fold:
			one := w.model.Piece(p.ID)
			return one.Picture(p.Name, float64(len(one.Stages))*0.55)
		case recipe.Glue:
			one := w.model.Piece(p.ID)
			return one.Picture(p.Name, float64(len(one.Stages)))
		}
	}
	return w.model.Picture(w.r.Style.Name, float64(len(w.model.Stages)))
}

func (w *writer) steps() error {
	w.page()
	w.heading("Steps")
	const high, wide = 27.0, 36.0
	for _, s := range w.r.Steps {
		w.room(high + 2)
		top := w.y
		p, err := w.stepPicture(s)
		if err != nil {
			return err
		}
		w.fit(p, margin, top, wide, high)
		w.ink()
		w.SetDrawColor(43, 37, 48)
		w.SetDashPattern(nil, 0)
		w.Rect(margin+wide+4, top+1, 4, 4, "D")
		w.para(
			margin+wide+11,
			w.wide()-wide-11,
			11,
			true,
			fmt.Sprintf("%d  %s", s.N, strings.ToUpper(string(s.Kind)[:1])+string(s.Kind)[1:]),
		)
		w.para(margin+wide+11, w.wide()-wide-11, 10.5, false, s.Text)
		w.y = max(w.y, top+high+2)
	}
	return nil
}
