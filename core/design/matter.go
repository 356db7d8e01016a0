package design

import (
	"slices"

	"brevium/core/contents"
	"brevium/core/inspect"
	"brevium/core/layout"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/stuff"
	"brevium/core/style"
)

// Table is what is reckoned of card and glue, with the maker's own constants in it.
func (in *Inputs) Table() stuff.Table {
	t := stuff.Usual()
	for id, v := range in.Constants {
		_ = t.Set(id, v) // it was checked when it was read
	}
	return t
}

// GlueAt is what is stuck with at a joint: as it is chosen, or as the box's adhesive says.
func (r *Result) GlueAt(j stuff.Joint) stuff.Adhesive {
	if g, chosen := r.Inputs.Glue[j]; chosen {
		return stuff.AdhesiveOf(g)
	}
	if style.AdhesiveOf(r.Spec).Wet() && j != stuff.Ribbons {
		return stuff.AdhesiveOf(stuff.WetGlue)
	}
	return stuff.AdhesiveOf(stuff.Tape)
}

// Has reports whether the box has a joint that is stuck otherwise than its tabs.
func (r *Result) Has(j stuff.Joint) bool {
	switch j {
	case stuff.Papers:
		return len(r.Mats) > 0
	case stuff.Ribbons:
		return len(r.Ribbons) > 0
	case stuff.Handles:
		return slices.ContainsFunc(r.Parts, func(p Part) bool { return p.Handle })
	case stuff.Floors:
		return r.Parts[0].Opens == style.Upright && r.Box.Room.Part == ""
	}
	return false
}

// matter is the box as its card and glue see it.
func (r *Result) matter() inspect.Matter {
	in := &r.Inputs
	m := inspect.Matter{
		Table: in.Table(), Units: in.Units, Points: float64(in.Load.Humidity), RunOf: r.Run, PapersWet: r.GlueAt(stuff.Papers).Wet,
		Dry: in.Load.Humidity > 0 && in.Load.Humidity < dryAir,
	}
	coverings := map[string]bool{}
	for _, c := range in.Covers {
		coverings[c.PieceID()] = true
	}
	m.Notch = func(piece string) string {
		if o, has := r.Style.Option(piece + ".notch"); has {
			return o.ID
		}
		return ""
	}
	for _, p := range r.Parts {
		if coverings[p.ID] { // paper that lies on card all over
			continue
		}
		m.Pieces = append(m.Pieces, inspect.Made{Part: p.Part, Folded: p.Folded, Of: p.Card, Run: r.Run(p.ID), Loose: p.Loose})
	}
	return m
}

// matters looks at what card and glue do: whether the card folds, is firm, carries what goes in,
// and what to take care of.
func (r *Result) matters() []inspect.Finding {
	m := r.matter()
	load := r.Inputs.Carried()
	bears := inspect.Bearing{
		Matter: &m, Box: r.Box, Fits: r.Fits, Tabs: r.GlueAt(stuff.Tabs), Doubles: r.doubles(),
		Load: inspect.Load{
			Grams: load.Grams, One: load.One, Foot: [2]float64{load.Foot[0].MM(), load.Foot[1].MM()},
			Walls: load.Carry == CarryWalls, Handle: load.Carry == CarryHandle, Stacked: load.Stacked,
			Glass: slices.ContainsFunc(r.Inputs.Things, func(t contents.Thing) bool { return t.Kind == contents.Glass }),
		},
	}
	if hasLining(&r.Inputs, Stiffener) {
		bears.Board = "stiffener"
	}
	hands := r.hands(&m)
	return slices.Concat(m.Card(), m.Grain(r.Fits), m.Papers(r.Mats), bears.Bears(), m.Air(r.Fits), hands.Scatter(),
		inspect.Glues(r.joints()), r.cared(bears.Lifted()).Cautions())
}

// hands is the box as the hand makes it that is said to.
func (r *Result) hands(m *inspect.Matter) inspect.Hands {
	h := inspect.Hands{Matter: m, Steady: r.Inputs.Hand, Hand: r.Inputs.hand(), Scores: r.Scores, Fits: r.Fits, Copies: r.Inputs.Copies}
	if o := r.Style.Allowance; o != nil {
		h.Allowance, h.AllowanceName, h.Value, h.Tick = o.ID, o.Label, r.Spec.Lengths[o.ID], o.AllowanceTick(r.Spec)
	}
	return h
}

// doubles is the option by which the walls become double that carry, "" where there is none or
// they are.
func (r *Result) doubles() string {
	if r.Box.Doubled {
		return ""
	}
	id := r.Box.Room.Part
	if id == "" {
		id = r.Parts[0].ID
	}
	o, has := r.Style.Option(id + ".walls")
	if !has || !slices.Contains(o.Choices, "double") {
		return ""
	}
	return o.ID
}

// joints are the places where a maker chose what to stick with.
func (r *Result) joints() []inspect.Joint {
	var out []inspect.Joint
	for _, k := range stuff.Joints {
		if g, chosen := r.Inputs.Glue[k.Joint]; chosen {
			out = append(out, inspect.Joint{On: k.Joint, With: g})
		}
	}
	return out
}

// cared is what cautions are about.
func (r *Result) cared(lifted bool) inspect.Cared {
	c := inspect.Cared{Things: r.Inputs.Things, Lifted: lifted}
	switch r.Inputs.For {
	case ChildUnder3:
		c.Young = 1
	case ChildFrom3:
		c.Young = 2
	}
	for _, x := range r.Inputs.Closures {
		switch x.Kind {
		case Magnets:
			c.Magnets = true
		case Brad:
			c.Small = append(c.Small, "a brad")
		}
	}
	c.Magnets = c.Magnets || r.Box.Shut == style.ByMagnet
	if r.Box.Brads > 0 {
		c.Small = append(c.Small, "brads")
	}
	c.HotGlue = r.HotGlue()
	return c
}

// HotGlue reports whether something is stuck with glue that burns fingers, and lets go where it is hot.
func (r *Result) HotGlue() bool {
	for _, g := range r.Inputs.Glue {
		if stuff.AdhesiveOf(g).Melts {
			return true
		}
	}
	return false
}

// Run is how the grain runs in what is cut under an id: as it is fixed, or as it lies on sheets
// whose grain is known; unknown where its copies lie both ways.
func (l *Laid) Run(id string) paper.Run {
	if run := l.Inputs.RunOf(id); run != paper.RunUnknown {
		return run
	}
	found, any := paper.RunUnknown, false
	for _, s := range l.Stocks {
		for _, sheet := range s.Layout.Sheets {
			for _, p := range sheet.Placed {
				if s.Job.Pieces[p.Piece].Name != id {
					continue
				}
				run := s.Card.RunOn(sheet.Sheet, p.Turned)
				if any && run != found {
					return paper.RunUnknown
				}
				found, any = run, true
			}
		}
	}
	return found
}

// wantedRun is how the grain is to run in a blank: as it is fixed; or, where a fold across it would
// crack, along the longer folds; else it may lie as it likes.
func (d *Dressed) wantedRun(b Blank) paper.Run {
	if run := d.Inputs.RunOf(b.ID); run != paper.RunUnknown {
		return run
	}
	p, is := d.part(b.ID)
	if !is || b.Card.Grain == paper.UnknownGrain {
		return paper.RunUnknown
	}
	t := d.Inputs.Table()
	cracks := false
	along := map[paper.Run]float64{}
	for _, c := range p.Pattern.Creases {
		if c.Rolled {
			continue
		}
		f := stuff.Fold{Degrees: max(c.Angle, -c.Angle)}
		cracks = cracks || t.Crack(stuff.CardOf(b.Card), f) > t.CrackFolds
		times := 1.0
		if f.Flat() {
			times = 2
		}
		v := c.B.Sub(c.A)
		along[paper.RunLength] += times * max(v.X, -v.X)
		along[paper.RunWidth] += times * max(v.Y, -v.Y)
	}
	switch {
	case !cracks:
		return paper.RunUnknown
	case along[paper.RunLength] >= along[paper.RunWidth]:
		return paper.RunLength
	}
	return paper.RunWidth
}

// lying is how a blank must lie on all the sheets so that its grain runs as it is wanted: upright,
// turned, or either way.
func lying(c paper.Card, sheets []paper.Sheet, run paper.Run, b pattern.Blank) (fixed, turned bool) {
	if run == paper.RunUnknown || c.Grain == paper.UnknownGrain {
		return false, false
	}
	for i, s := range sheets {
		upright := c.RunOn(s, false)
		if upright == paper.RunUnknown || i > 0 && (upright != run) != turned {
			return false, false
		}
		turned = upright != run
	}
	w, h := b.Width, b.Height
	if turned {
		w, h = h, w
	}
	goes := slices.ContainsFunc(sheets, func(s paper.Sheet) bool { return w <= s.Width && h <= s.Height })
	return goes, turned
}

// turnBack turns pieces back in a job and its layout that were laid out as they must lie, a quarter
// turned.
func turnBack(job *layout.Job, laid *layout.Result, turned map[int]bool) {
	for i := range turned {
		p := &job.Pieces[i]
		p.Width, p.Height, p.Turn = p.Height, p.Width, true
	}
	for s := range laid.Sheets {
		for k := range laid.Sheets[s].Placed {
			if p := &laid.Sheets[s].Placed[k]; turned[p.Piece] {
				p.Turned = true
			}
		}
	}
}
