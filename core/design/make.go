package design

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"brevium/core/contents"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/inspect"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
)

// Result is everything that follows from the inputs.
type Result struct {
	Inputs Inputs
	Style  *style.Style
	// Spec holds the sizes and options used, the allowance among them.
	Spec   style.Spec
	Solved bool // the allowance was worked out, not typed
	Parts  []Part
	Box    *style.Box
	// Inside and Outside are the finished box's, measured from its layers.
	Inside, Outside style.Extent
	// Stand is how the things stand in the finished box, and Ways the ones to
	// choose from, best first; empty when the design starts from a size.
	Stand *contents.Arrangement
	Needs style.Extent // the inside the things need, before rounding
	Ways  []Way
	// Inserting says how the pieces inside the box go in.
	Inserting []string
	Fits      []fit.Account
	Mats      []dress.Mat
	Stocks    []Stock
	Checks    []inspect.Finding
	Scores    []recipe.ScoreList
	Steps     []recipe.Step
	Supplies  []recipe.Supply
	One, All  float64 // minutes

	dividersMeet inspect.Finding
}

// Part is a piece with its faces and its card.
type Part struct {
	style.Part
	Faces  []pattern.Face
	Card   paper.Card
	Folded *pattern.Folded
}

// Stock is all that is cut from one card, laid on sheets.
type Stock struct {
	Card   paper.Card
	Job    *layout.Job
	Layout *layout.Result
}

// Make works the whole design out. Every fault names the field to mend.
func Make(in Inputs) (*Result, error) {
	r, err := Sketch(in)
	if err != nil {
		return nil, err
	}
	if err := r.dress(); err != nil {
		return nil, err
	}
	if err := r.lay(); err != nil {
		return nil, err
	}
	r.check()
	r.write()
	return r, nil
}

// build finds the sizes and builds the box.
func (r *Result) build() error {
	in := &r.Inputs
	if len(in.Things) > 0 {
		if err := r.around(); err != nil {
			return err
		}
	} else if in.Basis != Scored {
		if err := r.fromExtent(r.wanted(), in.Basis); err != nil {
			return err
		}
	}
	if err := r.inRange(); err != nil {
		return err
	}
	box, err := r.solved(&r.Spec)
	if err != nil {
		return atHeight(err)
	}
	r.Box = box
	if r.Inside, r.Outside, err = box.Extents(); err != nil {
		return err
	}
	for _, p := range box.Parts {
		folded, err := p.Pattern.Finished(p.Root)
		if err != nil {
			return fmt.Errorf("%s: %w", p.ID, err)
		}
		r.Parts = append(r.Parts, Part{p, folded.Faces, in.CardOf(p.ID), folded})
	}
	for _, p := range box.Fits {
		r.Fits = append(r.Fits, p.Do(r.between(p)))
	}
	if err := r.fitOut(); err != nil {
		return err
	}
	return r.fitsTheTable()
}

// atHeight puts a fault that names no field, such as walls that leave no
// floor, at the height.
func atHeight(err error) error {
	if f := fault.Of(err); f.Field == "" {
		return fault.At("size.height", err)
	}
	return err
}

// wanted is the size asked for along each axis.
func (r *Result) wanted() style.Extent {
	axes := r.Style.Axes
	return style.Extent{Length: r.Spec.Lengths[axes[0]], Width: r.Spec.Lengths[axes[1]], Height: r.Spec.Lengths[axes[2]]}
}

// solved builds the box, first working out the allowance if it was left out:
// the tightest axis decides.
func (r *Result) solved(spec *style.Spec) (*style.Box, error) {
	r.follow(spec)
	id := r.Style.Allowance
	if _, typed := r.Inputs.Lengths[id]; id == "" || typed {
		return r.Style.Build(*spec)
	}
	spec.Lengths[id] = 0
	box, err := r.Style.Build(*spec)
	if err != nil {
		return nil, err
	}
	tightest := measure.Max
	for _, p := range box.Fits {
		tightest = min(tightest, p.Do(r.between(p)).Gap)
	}
	a, err := fit.Solve(tightest, r.Inputs.Fit, spec.Tick)
	if err != nil {
		return nil, fault.At("options."+id, err)
	}
	r.Solved = true
	spec.Lengths[id] = a
	return r.Style.Build(*spec)
}

// between is the decoration standing in a pair's gap, both sides together.
func (r *Result) between(p fit.Pair) measure.Length {
	return 2 * dress.Thickness(r.Inputs.Mats, p.Inner, pattern.Wall)
}

// follow gives the sizes and options left out the values that follow from
// the others.
func (r *Result) follow(spec *style.Spec) {
	for _, p := range r.Style.Parameters {
		if _, given := r.Inputs.Size[p.ID]; !given && p.Follows != nil && !slices.Contains(r.Style.Axes[:], p.ID) {
			spec.Lengths[p.ID] = p.Follows(*spec)
		}
	}
	for _, o := range r.Style.Options {
		if _, given := r.Inputs.Lengths[o.ID]; !given && o.Follows != nil {
			spec.Lengths[o.ID] = o.Follows(*spec)
		}
	}
}

// extra is how much a box's sizes are over its inside or outside. It depends
// on its layers, and on its size only where one part follows another.
func (r *Result) extra(basis Basis) (style.Extent, error) {
	box, err := r.solved(&r.Spec)
	if err != nil {
		return style.Extent{}, atHeight(err)
	}
	in, out, err := box.Extents()
	if basis == Outside {
		in = out
	}
	has := r.wanted()
	return style.Extent{Length: has.Length - in.Length, Width: has.Width - in.Width, Height: has.Height - in.Height}, err
}

// set gives the sizes for an extent: rounded up to the tick for an inside,
// down for an outside.
func (r *Result) set(want, extra style.Extent, basis Basis) {
	round := measure.Up
	if basis == Outside {
		round = measure.Down
	}
	tick := r.Inputs.Tools.Tick
	for i, l := range []measure.Length{want.Length + extra.Length, want.Width + extra.Width, want.Height + extra.Height} {
		r.Spec.Lengths[r.Style.Axes[i]] = round(max(0, l), tick)
	}
}

// mostRounds bounds the trials of fromExtent; two settle every tray.
const mostRounds = 4

// fromExtent sets the sizes so that the finished box has the extent wanted.
func (r *Result) fromExtent(want style.Extent, basis Basis) error {
	for range mostRounds {
		before := r.wanted()
		extra, err := r.extra(basis)
		if err != nil {
			return err
		}
		r.set(want, extra, basis)
		if r.wanted() == before {
			break
		}
	}
	return nil
}

// inRange checks the sizes that were worked out against the style's limits.
func (r *Result) inRange() error {
	for _, p := range r.Style.Parameters {
		v := r.Spec.Lengths[p.ID]
		if v < p.Min || v > p.Max {
			return r.Inputs.outOfRange("size."+p.ID, p.Label, v, p.Min, p.Max)
		}
	}
	return nil
}

// fitsTheTable refuses blanks that no sheet gives or the trimmer cannot cut.
func (r *Result) fitsTheTable() error {
	show := func(l measure.Length) string { return measure.Label(l, r.Inputs.Units, r.Inputs.Tools.Tick) }
	for _, p := range r.Parts {
		w, h := p.Pattern.Width, p.Pattern.Height
		field := "size." + r.Style.Axes[0]
		if h > w {
			field = "size." + r.Style.Axes[1]
		}
		if !r.Inputs.blankFits(p.Part) {
			return fault.New("larger-than-sheet", field, "the %s's blank would be %s × %s, larger than every sheet chosen; make the box smaller or choose a larger sheet",
				strings.ToLower(p.Name), show(w), show(h))
		}
		if max(w, h) > r.Inputs.Tools.Trimmer {
			return fault.New("larger-than-trimmer", field, "the %s's blank would be %s × %s, longer than the trimmer's cut of %s; make the box smaller",
				strings.ToLower(p.Name), show(w), show(h), show(r.Inputs.Tools.Trimmer))
		}
	}
	return nil
}

// blankFits reports whether a piece's blank goes on one of the sheets.
func (in *Inputs) blankFits(p style.Part) bool {
	w, h, turn := p.Pattern.Width, p.Pattern.Height, in.CardOf(p.ID).Direction.MayTurn()
	return slices.ContainsFunc(in.Sheets, func(s paper.Sheet) bool {
		return w <= s.Width && h <= s.Height || turn && h <= s.Width && w <= s.Height
	})
}

func (r *Result) dress() error {
	for i, d := range r.Inputs.Mats {
		field := fmt.Sprintf("mats[%d]", i)
		at := slices.IndexFunc(r.Parts, func(p Part) bool { return p.ID == d.Piece })
		if at < 0 {
			return fault.New("unknown-piece", field+".piece", "this box has no piece %q to put a mat on", d.Piece)
		}
		mats, err := d.Mats(r.Parts[at].Faces)
		if err != nil {
			return fault.At(field, err)
		}
		r.Mats = append(r.Mats, mats...)
	}
	return nil
}

// interactive is the effort a page can wait for: a fixed amount of work, so
// that the same design always lies the same on its sheets.
var interactive = layout.Effort{Rounds: 1, Steps: 60}

// lay puts everything cut from one card on its sheets.
func (r *Result) lay() error {
	var stocks []Stock
	add := func(c paper.Card, p layout.Piece) {
		i := slices.IndexFunc(stocks, func(s Stock) bool { return s.Card == c })
		if i < 0 {
			i = len(stocks)
			stocks = append(stocks, Stock{Card: c, Job: &layout.Job{Sheets: r.Inputs.Sheets, Trimmer: r.Inputs.Tools.Trimmer}})
		}
		p.Turn = c.Direction.MayTurn()
		stocks[i].Job.Pieces = append(stocks[i].Job.Pieces, p)
	}
	for _, p := range r.Parts {
		add(p.Card, layout.Piece{Name: p.ID, Width: p.Pattern.Width, Height: p.Pattern.Height, Copies: r.Inputs.Copies * p.Copies()})
	}
	for _, m := range r.Mats {
		add(m.Card, layout.Piece{Name: m.ID, Width: m.Width, Height: m.Height, Copies: r.Inputs.Copies})
	}
	for i := range stocks {
		laid, err := layout.Solve(context.Background(), stocks[i].Job, interactive)
		if err != nil {
			return fault.At("sheets", err)
		}
		stocks[i].Layout = laid
	}
	r.Stocks = stocks
	return nil
}

func (r *Result) check() {
	in := &r.Inputs
	r.Checks = append(inspect.Fits(r.Fits, in.Units), inspect.Closing(r.Box.Fits)...)
	for _, p := range r.Parts {
		list := recipe.Scores(p.Part, in.Tools.Fence)
		r.Scores = append(r.Scores, list)
		r.Checks = append(r.Checks, inspect.OnTick(list, in.Tools.Tick, in.Units), inspect.Tabs(p.Part, r.Spec.Choices["adhesive"]))
		r.Checks = append(r.Checks, inspect.Piece(p.Part, p.Folded)...)
		if f, long := inspect.Board(p.Part, in.Units, in.Tools.Tick); long {
			r.Checks = append(r.Checks, f)
		}
	}
	doubled := r.Spec.Choices["base.walls"] == "double" || in.Style == "tray-double"
	if f, known := inspect.Load(contents.Grams(in.Things), doubled, in.Card.GSM); known {
		r.Checks = append(r.Checks, f)
	}
	if r.dividersMeet.ID != "" {
		r.Checks = append(r.Checks, r.dividersMeet)
	}
	for _, s := range r.Stocks {
		if n := len(s.Layout.Unplaced); n > 0 {
			r.Checks = append(r.Checks, inspect.Finding{ID: "sheets", Verdict: inspect.Fail,
				Text: fmt.Sprintf("%d pieces of %s fit on no sheet that is left; add sheets or make fewer.", n, s.Card.Name)})
		}
	}
}

// work is the design as the recipe needs it.
func (r *Result) work() recipe.Work {
	in := &r.Inputs
	w := recipe.Work{
		Units: in.Units, Tick: in.Tools.Tick, Fence: in.Tools.Fence, Copies: in.Copies,
		Cards: map[string]paper.Card{}, Mats: r.Mats, Assembly: r.Box.Assembly, Inserting: r.Inserting,
		Contents: r.Filling(), Adhesive: r.Spec.Choices["adhesive"],
	}
	for _, p := range r.Parts {
		w.Parts = append(w.Parts, p.Part)
		w.Cards[p.ID] = p.Card
	}
	return w
}

func (r *Result) write() {
	w := r.work()
	r.Steps = w.Steps()
	r.One, r.All = recipe.Minutes(r.Steps, r.Inputs.Copies)
	for _, s := range r.Stocks {
		r.Supplies = append(r.Supplies, sheetSupplies(s)...)
	}
	r.Supplies = append(r.Supplies, w.AdhesiveSupply())
}

// Filling names the contents: "4 Jars and 1 Card deck".
func (r *Result) Filling() string {
	var parts []string
	for i, t := range r.Inputs.Things {
		parts = append(parts, fmt.Sprintf("%d × %s", t.Count, r.ThingName(i)))
	}
	return strings.Join(parts, " and ")
}

func sheetSupplies(s Stock) []recipe.Supply {
	var out []recipe.Supply
	for _, l := range s.Layout.Sheets {
		id := "sheet." + s.Card.Name + "." + l.Sheet.Name
		i := slices.IndexFunc(out, func(x recipe.Supply) bool { return x.ID == id })
		if i < 0 {
			i = len(out)
			out = append(out, recipe.Supply{ID: id, Unit: "sheet"})
		}
		out[i].Amount++
		out[i].Text = fmt.Sprintf("%s: %.0f sheet%s of %s, %.0f gsm", s.Card.Name, out[i].Amount, map[bool]string{true: "s"}[out[i].Amount > 1], l.Sheet.Name, s.Card.GSM)
	}
	return out
}

// PieceName is the name of a layout's piece for a person: a part's own, or
// the face a mat goes on.
func (r *Result) PieceName(id string) string {
	for _, p := range r.Parts {
		if p.ID == id {
			return p.Name
		}
	}
	for _, m := range r.Mats {
		if m.ID == id {
			return fmt.Sprintf("%s mat, %s", m.Piece, m.Face)
		}
	}
	return id
}
