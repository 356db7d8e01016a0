package design

import (
	"fmt"
	"slices"

	"brevium/core/hand"
	"brevium/core/inspect"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/stuff"
	"brevium/core/style"
)

// Dressed is a tied design with its closures and labels: all that is cut, and all that is put
// on it.
type Dressed struct {
	Tied
	Closures []Closed
	Held     bool // by what was chosen, in the place of what its style is held by
	judged   []inspect.Finding
}

// shutAndLabel puts on what holds the box shut, and the labels. Every fault names what cannot be there.
func shutAndLabel(t Tied) (*Dressed, error) {
	d := &Dressed{Tied: t}
	if err := d.shutBy(); err != nil {
		return nil, err
	}
	d.held()
	if err := d.label(); err != nil {
		return nil, err
	}
	d.judged = append(d.judged, d.judgeWindows()...)
	adhesive := style.AdhesiveOf(d.Spec)
	for i, p := range d.Parts {
		if p.Moves() == nil { // no construction tells how it is made
			d.Parts[i].Part = generally(p.Part, adhesive)
		}
	}
	return d, nil
}

// generally is a piece that is made by its pattern: cut, scored, folded and glued as its lines
// say.
func generally(p style.Part, adhesive style.Adhesive) style.Part {
	moves := style.General(p, adhesive)
	p.Making = func() []hand.Move { return moves }
	return p
}

// work is the design as the recipe needs it.
func (d *Dressed) work() recipe.Work {
	in := &d.Inputs
	w := recipe.Work{
		Cutter: d.Inputs.cutter(),
		Units:  in.Units, Tick: in.Tools.Tick, Fence: in.Tools.Fence, Copies: in.Copies,
		Cards: map[string]paper.Card{}, EndForEnd: map[string]bool{}, Loose: map[string]bool{}, Mats: d.Mats, Fixings: d.fixings(), Panes: d.panes(), Together: d.together(),
		Contents: d.filled(), Adhesive: style.AdhesiveOf(d.Spec),
	}
	if g, chosen := in.Glue[stuff.Papers]; chosen {
		a := stuff.AdhesiveOf(g)
		w.Papers = &recipe.Sticking{With: string(g), Words: a.Words, Hold: a.Hold, Burns: a.Melts}
	}
	w.Inserting, w.Closing = d.puts()
	for _, p := range d.Parts {
		w.Parts = append(w.Parts, p.Part)
		w.Cards[p.ID] = p.Card
		w.EndForEnd[p.ID], w.Loose[p.ID] = p.EndForEnd, p.Loose
	}
	return w
}

// filled is what is filled in, or that each room is filled by its list.
func (d *Dressed) filled() string {
	if d.ByList() != "" {
		return "each by the list"
	}
	return d.Filling()
}

// puts are what goes into the box before it is filled, and what goes round the closed one and
// onto it.
func (d *Dressed) puts() (inside, closing []hand.Put) {
	threaded, around := d.ribbonMoves()
	pierced, labels := whenPut(d.labelMoves())
	inside = slices.Concat(d.Inserting, threaded, pierced)
	for i := range inside {
		inside[i].Key = fmt.Sprintf("inside/%d", i+1)
	}
	closing = slices.Concat(d.shutting(), d.bandMoves(), d.wrapMoves(), around, labels, d.looseMoves())
	for i := range closing {
		closing[i].Key = fmt.Sprint(i + 1)
	}
	return inside, closing
}

// together is how the made parts become the box; what its style is held by is left out where
// something else was chosen.
func (d *Dressed) together() []hand.Move {
	out := slices.Clone(d.Box.Together)
	if d.Held {
		out = slices.DeleteFunc(out, func(m hand.Move) bool { _, holds := m.(hand.Hold); return holds })
	}
	return out
}

// supplies are what all copies of the box take, but for its sheets.
func (d *Dressed) supplies(w recipe.Work) []recipe.Supply {
	out := w.AdhesiveSupplies()
	out = append(out, recipe.HoldingSupplies(d.Box, d.Inputs.Copies)...)
	out = append(out, d.ribbonSupplies()...)
	out = append(out, d.closureSupplies()...)
	out = append(out, d.labelSupplies()...)
	out = append(out, d.filmSupplies()...)
	out = append(out, d.ownSupplies()...)
	if s, wrapped := d.wrapSupply(); wrapped {
		out = append(out, s)
	}
	if s, needed := recipe.ClosingSupply(d.Box.Shut, d.Inputs.Copies); needed && !d.Held {
		out = append(out, s)
	}
	return out
}

// whenPut divides moves into those before the box is filled, and those on the closed one.
func whenPut(all []hand.Put) (inside, closed []hand.Put) {
	for _, m := range all {
		if m.When == hand.Empty {
			inside = append(inside, m)
		} else {
			closed = append(closed, m)
		}
	}
	return inside, closed
}

// atLast is when what goes on the outside is put there: on the closed box, or on what is no box
// and is never filled.
func (b *Built) atLast() hand.When {
	fills := slices.ContainsFunc(b.Box.Together, func(m hand.Move) bool { _, is := m.(hand.Fill); return is })
	if b.Style.Inner && !fills {
		return hand.Empty
	}
	return hand.Closed
}
