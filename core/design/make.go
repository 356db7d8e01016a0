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
	"brevium/core/hand"
	"brevium/core/inspect"
	"brevium/core/layout"
	"brevium/core/loose"
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
	Solved bool            // the allowance was worked out, not typed
	worked map[string]bool // the allowances that were
	// widens are the gaps that an allowance widens: the same at every size that is tried.
	widens map[string][]bool
	Parts  []Part
	Box    *style.Box
	// Inside and Outside are the finished box's, measured from its layers.
	Inside, Outside style.Extent
	// Stand is how the things stand in the finished box, and Ways the ones to
	// choose from, best first; empty when the design starts from a size.
	Stand *contents.Arrangement
	Needs style.Extent // the inside the things need, before rounding
	Ways  []Way
	// Inserting is how the pieces inside the box go in.
	Inserting []hand.Put
	Fits      []fit.Account
	Mats      []dress.Mat
	Bands     []Banded
	Ribbons   []Ribboned
	Closures  []Closed
	Held      bool     // by what was chosen, in the place of what its style is held by
	Wrapped   *Wrapped // nil when it is not wrapped
	Lying     []Lying  // on the closed box, in the order it is put on
	// Blanks are the rectangles everything is cut from, one copy of the box.
	Blanks   []Blank
	Stocks   []Stock
	Checks   []inspect.Finding
	Scores   []recipe.ScoreList
	Steps    []recipe.Step
	Supplies []recipe.Supply
	One, All float64 // minutes
}

// Blank is a rectangle to cut, the card it is cut from and how many of it.
type Blank struct {
	pattern.Blank
	Card   paper.Card
	Copies int
}

// Part is a piece with its faces and its card.
type Part struct {
	style.Part
	Faces  []pattern.Face
	Card   paper.Card
	Folded *pattern.Folded
	// EndForEnd says that its blank is cut with the lower edge towards the top
	// of a paper that runs one way, so that most of it stands upright.
	EndForEnd bool
	// Loose says that it is a piece of no style, which stands nowhere in the box.
	Loose bool
}

// PaperUp is where the pattern of the paper runs up to on the flat piece: −1 its
// top edge, 1 its bottom edge, 0 where it does not run one way.
func (p Part) PaperUp() int {
	switch {
	case p.Card.Direction != paper.OneWayUp:
		return 0
	case p.EndForEnd:
		return 1
	}
	return -1
}

// Stock is all that is cut from one card, laid on sheets.
type Stock struct {
	Card   paper.Card
	Job    *layout.Job
	Layout *layout.Result
}

// Make works the whole design out. Every fault names the field to mend; ctx
// ends it early.
func Make(ctx context.Context, in Inputs) (*Result, error) {
	r, err := Sketch(in)
	if err != nil {
		return nil, err
	}
	return r.finish(ctx)
}

// MakeOf works a design out for a style that need not be in the catalogue, to try it.
func MakeOf(ctx context.Context, in Inputs, s *style.Style) (*Result, error) {
	r, err := sketchOf(in, s)
	if err != nil {
		return nil, err
	}
	return r.finish(ctx)
}

// finish works out all but the pieces themselves.
func (r *Result) finish(ctx context.Context) (*Result, error) {
	for _, put := range []func() error{r.dress, r.cover, r.band, r.tie, r.wrapUp, r.shutBy, r.held, r.label} {
		if err := put(); err != nil {
			return nil, err
		}
	}
	if err := r.lay(ctx); err != nil {
		return nil, err
	}
	if err := r.check(); err != nil {
		return nil, err
	}
	r.write()
	return r, nil
}

// build finds the sizes and builds the box.
func (r *Result) build() error {
	in := &r.Inputs
	// What was typed is looked at before sizes are sought with it.
	for _, p := range r.Style.Parameters {
		if v, typed := in.Size[p.ID]; typed && !r.Style.IsAxis(p.ID) && (v < p.Min || v > p.Max) {
			return in.outOfRange(fault.Path("size", p.ID), p.Label, v, p.Min, p.Max)
		}
	}
	if len(in.Things) > 0 {
		if err := r.around(); err != nil {
			return err
		}
	} else if in.Room != (style.Extent{}) {
		r.Needs = in.Room
		if err := r.sizeFor(in.Room, Inside); err != nil {
			return err
		}
	} else if in.Basis != Scored {
		want := r.Style.Along(r.Spec.Lengths)
		if in.Basis == Inside {
			want = less(want, less(style.Extent{}, in.pasted()))
		}
		if err := r.sizeFor(want, in.Basis); err != nil {
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
	r.Box, r.Inside = box, less(box.Room.Largest, in.pasted())
	for _, p := range box.Parts {
		if err := r.add(p); err != nil {
			return err
		}
	}
	bodies, err := r.Bodies(style.Finished)
	if err != nil {
		return err
	}
	r.Outside = style.Outside(bodies)
	if r.Style.Inner {
		r.Outside = r.Inside
	}
	for _, p := range box.Fits {
		a := r.account(p, box)
		a.Closest = r.Solved && p.Kind.Widened() && r.Spec.Lengths[r.Style.Allowance.ID] > 0
		r.Fits = append(r.Fits, a)
	}
	if err := r.fitOut(); err != nil {
		return err
	}
	if err := r.addLoose(); err != nil {
		return err
	}
	return r.fitsTheTable()
}

// add folds a part and puts it to the design's.
func (r *Result) add(p style.Part) error {
	var folded *pattern.Folded
	if i := slices.IndexFunc(r.Parts, func(x Part) bool { return x.Root == p.Root && x.Pattern.Alike(p.Pattern) }); i >= 0 {
		folded = r.Parts[i].Folded // a piece like it is folded already
	} else {
		var err error
		if folded, err = p.Pattern.Finished(p.Root); err != nil {
			return fmt.Errorf("%s: %w", p.ID, err)
		}
	}
	card := r.Inputs.CardOf(p.ID)
	p.Card = card.Thickness
	end := card.Direction == paper.OneWayUp && pattern.EndForEnd(folded.Faces)
	r.Parts = append(r.Parts, Part{Part: p, Faces: folded.Faces, Card: card, Folded: folded, EndForEnd: end})
	return nil
}

// Bodies stands the parts where they are in a state of the box.
func (r *Result) Bodies(state style.State) ([]style.Body, error) {
	parts, folded := r.Pieces()
	return style.Assemble(parts, folded, state)
}

// atHeight puts a fault that names no field, such as walls that leave no
// floor, at the height.
func atHeight(err error) error {
	if f := fault.Of(err); f.Field == "" && f.Code != fault.Internal {
		return fault.At("size.height", err)
	}
	return err
}

// fitsTheTable refuses blanks that no sheet gives or the trimmer cannot cut.
func (r *Result) fitsTheTable() error {
	for _, p := range r.Parts {
		field, what := fault.Path("size", r.Style.Axes[0].ID), "make the box smaller"
		if p.Pattern.Height > p.Pattern.Width {
			field = fault.Path("size", r.Style.Axes[1].ID)
		}
		if i := slices.IndexFunc(r.Inputs.Loose, func(x loose.Piece) bool { return x.PieceID() == p.ID }); i >= 0 {
			field, what = fault.Path("loose", i, "width"), "make it smaller"
		}
		if err := r.goesOn(p, field, what); err != nil {
			return err
		}
	}
	return nil
}

// goesOn refuses one blank that no sheet gives or the trimmer cannot cut, at a
// field, with what would help.
func (r *Result) goesOn(p Part, field, what string) error {
	show := func(l measure.Length) string { return measure.Label(l, r.Inputs.Units, r.Inputs.Tools.Tick) }
	w, h := p.Pattern.Width, p.Pattern.Height
	if !r.Inputs.blankFits(p.Part) {
		return fault.New(fault.LargerThanSheet, field, "the %s's blank would be %s × %s, larger than every sheet chosen; %s or choose a larger sheet",
			strings.ToLower(p.Name), show(w), show(h), what)
	}
	if max(w, h) > r.Inputs.Tools.Trimmer {
		return fault.New(fault.LargerThanTrimmer, field, "the %s's blank would be %s × %s, longer than the trimmer's cut of %s; %s",
			strings.ToLower(p.Name), show(w), show(h), show(r.Inputs.Tools.Trimmer), what)
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

// less is a room without what is taken of it.
func less(room, taken style.Extent) style.Extent {
	return style.Extent{Length: room.Length - taken.Length, Width: room.Width - taken.Width, Height: room.Height - taken.Height}
}

func (r *Result) dress() error {
	for i, d := range r.Inputs.Mats {
		field := fault.Path("mats", i)
		at := slices.IndexFunc(r.Parts, func(p Part) bool { return p.ID == d.Piece })
		if at < 0 {
			return fault.New(fault.UnknownPiece, fault.Path(field, "piece"), "this box has no piece %q to put a paper on", d.Piece)
		}
		mats, err := d.Mats(r.Parts[at].Pattern, r.Parts[at].Faces, r.Inputs.Tools.Tick.Ruler())
		if err != nil {
			return fault.At(field, err)
		}
		if d.Runs != dress.Ends {
			order, err := r.round(d.Piece)
			if err != nil {
				return err
			}
			last := d.Layers[len(d.Layers)-1].Card
			if mats, err = d.RunOn(mats, r.Parts[at].Faces, order, r.Inputs.longestStrip(last)); err != nil {
				return fault.At(field, err)
			}
		}
		for _, m := range mats {
			if slices.ContainsFunc(r.Mats, func(have dress.Mat) bool {
				return have.Piece == m.Piece && have.Side == m.Side && have.Layer == m.Layer && meet(have, m)
			}) {
				return fault.New(fault.NamedTwice, fault.Path(field, "faces"), "the %s has a paper already; put another layer on that one, or leave it out here", m.Words)
			}
		}
		r.Mats = append(r.Mats, mats...)
	}
	return nil
}

// meet reports whether two mats lie on one face.
func meet(a, b dress.Mat) bool {
	return slices.ContainsFunc(a.On, func(p dress.Patch) bool {
		return slices.ContainsFunc(b.On, func(q dress.Patch) bool { return p.Face == q.Face })
	})
}

func (r *Result) check() error {
	in := &r.Inputs
	r.Checks = append(append(inspect.Fits(r.Fits), inspect.Closing(r.Box.Fits)...), r.Checks...)
	for _, p := range r.Parts {
		list := recipe.Scores(p.Part, in.Tools.Fence, in.Tools.Tick)
		r.Scores = append(r.Scores, list)
		r.Checks = append(r.Checks, inspect.OnTick(list, in.Tools.Tick, in.Units), inspect.Tabs(p.Part, r.Spec.Choices["adhesive"]))
		if !p.Loose {
			r.Checks = append(r.Checks, inspect.Piece(p.Part, p.Folded)...)
		}
		if f, runs := inspect.Direction(p.Part, p.Faces, p.Card, p.EndForEnd); runs {
			r.Checks = append(r.Checks, f)
		}
		if f, long := inspect.Board(p.Part, in.Units, in.Tools.Tick); long {
			r.Checks = append(r.Checks, f)
		}
	}
	doubled := r.Spec.Choices["base.walls"] == "double" || in.Style == "tray-double"
	if f, known := inspect.Load(contents.Grams(in.Things), doubled, in.Card.GSM); known {
		r.Checks = append(r.Checks, f)
	}
	parts, folded := r.Pieces()
	whole := inspect.Whole{
		Parts: parts, Finished: folded, Box: r.Box, Fits: r.Fits,
		Needs: r.Needs, Filled: r.Needs != (style.Extent{}), Inside: r.Inside, Inner: r.Style.Inner, Units: in.Units,
	}
	together, err := whole.Together()
	if err != nil {
		return err
	}
	r.Checks = append(r.Checks, together...)
	for _, s := range r.Stocks {
		if n := len(s.Layout.Unplaced); n > 0 {
			r.Checks = append(r.Checks, inspect.Finding{ID: "sheets", Verdict: inspect.Fail,
				Text: fmt.Sprintf("%d pieces of %s fit on no sheet that is left; add sheets or make fewer.", n, s.Card.Name)})
		}
	}
	return nil
}

// work is the design as the recipe needs it.
func (r *Result) work() recipe.Work {
	r.byGeneralMoves()
	in := &r.Inputs
	w := recipe.Work{
		Units: in.Units, Tick: in.Tools.Tick, Fence: in.Tools.Fence, Copies: in.Copies,
		Cards: map[string]paper.Card{}, EndForEnd: map[string]bool{}, Loose: map[string]bool{}, Mats: r.Mats, Fixings: r.fixings(), Together: r.together(),
		Contents: r.Filling(), Adhesive: r.Spec.Choices["adhesive"],
	}
	w.Inserting, w.Closing = r.puts()
	for _, p := range r.Parts {
		w.Parts = append(w.Parts, p.Part)
		w.Cards[p.ID] = p.Card
		w.EndForEnd[p.ID], w.Loose[p.ID] = p.EndForEnd, p.Loose
	}
	return w
}

// puts are what goes into the box before it is filled, and what goes round the closed one and
// onto it.
func (r *Result) puts() (inside, closing []hand.Put) {
	threaded, around := r.ribbonMoves()
	inside = slices.Concat(r.Inserting, threaded)
	for i := range inside {
		inside[i].Key = fmt.Sprintf("inside/%d", i+1)
	}
	closing = slices.Concat(r.shutting(), r.bandMoves(), r.wrapMoves(), around, r.labelMoves(), r.looseMoves())
	for i := range closing {
		closing[i].Key = fmt.Sprint(i + 1)
	}
	return inside, closing
}

// together is how the made parts become the box; what its style is held by is left out where
// something else was chosen.
func (r *Result) together() []hand.Move {
	out := slices.Clone(r.Box.Together)
	if r.Held {
		out = slices.DeleteFunc(out, func(m hand.Move) bool { _, holds := m.(hand.Hold); return holds })
	}
	return out
}

func (r *Result) write() {
	w := r.work()
	steps, table, err := w.Tell()
	r.Steps, r.Checks = steps, append(r.Checks, r.byHand(w, table, err)...)
	r.One, r.All = recipe.Minutes(r.Steps, r.Inputs.Copies)
	for _, s := range r.Stocks {
		r.Supplies = append(r.Supplies, sheetSupplies(s)...)
	}
	r.Supplies = append(r.Supplies, w.AdhesiveSupply())
	r.Supplies = append(r.Supplies, recipe.HoldingSupplies(r.Box, r.Inputs.Copies)...)
	r.Supplies = append(r.Supplies, r.ribbonSupplies()...)
	r.Supplies = append(r.Supplies, r.closureSupplies()...)
	r.Supplies = append(r.Supplies, r.labelSupplies()...)
	if s, wrapped := r.wrapSupply(); wrapped {
		r.Supplies = append(r.Supplies, s)
	}
	if s, needed := recipe.ClosingSupply(r.Box.Shut, r.Inputs.Copies); needed && !r.Held {
		r.Supplies = append(r.Supplies, s)
	}
}

// Filling names the contents: "4 Jars and 1 Card deck".
func (r *Result) Filling() string {
	var parts []string
	for i, t := range r.Inputs.Things {
		parts = append(parts, fmt.Sprintf("%d × %s", t.Count, r.ThingName(i)))
	}
	all := strings.Join(parts, " and ")
	if n, _ := r.Style.BesideOf(r.Spec); n > 0 && len(parts) == 1 && r.Inputs.Things[0].Count > n {
		all += fmt.Sprintf(": %d in the middle and one in each of the %d small boxes", r.Inputs.Things[0].Count-n, n)
	}
	if n := r.Box.Room.Times; n > 1 && len(parts) > 0 {
		all += fmt.Sprintf(", shared out among the %d rooms", n)
	}
	return all
}
