package design

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/contents"
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/hand"
	"brevium/core/loose"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Built is a sized design with its pieces, each folded: those of the style, those that go
// inside, and the loose ones.
type Built struct {
	Sized
	Parts []Part
	// Inside and Outside are the finished box's, measured from its layers.
	Inside, Outside style.Extent
	Fits            []fit.Account
	// Stand is how the things stand in the finished box.
	Stand *contents.Arrangement
	// Inserting is how the pieces inside the box go in.
	Inserting []hand.Put
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

// build makes the pieces of a sized design. A fault names the field to mend: of a lining, of a
// compartment, or of a size whose blank no sheet gives.
func build(s Sized) (*Built, error) {
	b := &Built{Sized: s, Inside: less(s.Box.Room.Largest, pastedIn(&s.Inputs)), Stand: s.chosen}
	for _, p := range s.Box.Parts {
		if err := b.add(p); err != nil {
			return nil, err
		}
	}
	bodies, err := b.Bodies(style.Finished)
	if err != nil {
		return nil, err
	}
	b.Outside = style.Outside(bodies)
	if s.Style.Inner {
		b.Outside = b.Inside
	}
	for _, p := range s.Box.Fits {
		a := b.Inputs.account(p, s.Box)
		a.Closest = s.Solved && p.Kind.Widened() && s.Spec.Lengths[s.Style.Allowance.ID] > 0
		b.Fits = append(b.Fits, a)
	}
	if err := fitOut(b); err != nil {
		return nil, err
	}
	more, err := looseParts(&b.Inputs, b.Parts)
	if err != nil {
		return nil, err
	}
	b.Parts = append(b.Parts, more...)
	return b, b.fitsTheTable()
}

// add folds a part and puts it to the design's.
func (b *Built) add(p style.Part) error {
	var folded *pattern.Folded
	if i := slices.IndexFunc(b.Parts, func(x Part) bool { return x.Root == p.Root && x.Pattern.Alike(p.Pattern) }); i >= 0 {
		folded = b.Parts[i].Folded // a piece like it is folded already
	} else {
		var err error
		if folded, err = p.Pattern.Finished(p.Root); err != nil {
			return fmt.Errorf("%s: %w", p.ID, err)
		}
	}
	card := b.Inputs.CardOf(p.ID)
	p.Card = card.Thickness
	end := card.Direction == paper.OneWayUp && pattern.EndForEnd(folded.Faces)
	b.Parts = append(b.Parts, Part{Part: p, Faces: folded.Faces, Card: card, Folded: folded, EndForEnd: end})
	return nil
}

// Pieces gives the parts that stand in the box as the style made them, each with
// its finished form.
func (b *Built) Pieces() ([]style.Part, []*pattern.Folded) {
	var parts []style.Part
	var folded []*pattern.Folded
	for _, p := range b.Parts {
		if p.Loose {
			continue
		}
		parts = append(parts, p.Part)
		folded = append(folded, p.Folded)
	}
	return parts, folded
}

// Bodies stands the parts where they are in a state of the box.
func (b *Built) Bodies(state style.State) ([]style.Body, error) {
	parts, folded := b.Pieces()
	return style.Assemble(parts, folded, state)
}

// part gives one of the parts by its id.
func (b *Built) part(id string) (Part, bool) {
	i := slices.IndexFunc(b.Parts, func(p Part) bool { return p.ID == id })
	if i < 0 {
		return Part{}, false
	}
	return b.Parts[i], true
}

// CardArea is the area of the blanks of one box, in mm².
func (b *Built) CardArea() float64 {
	area := 0.0
	for _, p := range b.Parts {
		area += p.Pattern.Width.MM() * p.Pattern.Height.MM() * float64(p.Copies())
	}
	return area
}

// fitsTheTable refuses blanks that no sheet gives.
func (b *Built) fitsTheTable() error {
	for _, p := range b.Parts {
		field, what := fault.Path("size", b.Style.Axes[0].ID), "make the box smaller"
		if p.Pattern.Height > p.Pattern.Width {
			field = fault.Path("size", b.Style.Axes[1].ID)
		}
		if i := slices.IndexFunc(b.Inputs.Loose, func(x loose.Piece) bool { return x.PieceID() == p.ID }); i >= 0 {
			field, what = fault.Path("loose", i, "width"), "make it smaller"
		}
		if err := b.Inputs.goesOn(p, field, what); err != nil {
			return err
		}
	}
	return nil
}

// goesOn refuses one blank that no sheet gives, at a field, with what would help.
func (in *Inputs) goesOn(p Part, field, what string) error {
	w, h := p.Pattern.Width, p.Pattern.Height
	if !blankFits(in, p.Part) {
		return fault.New(fault.LargerThanSheet, field, "the %s's blank would be %s × %s, larger than every sheet chosen; %s or choose a larger sheet",
			strings.ToLower(p.Name), in.show(w), in.show(h), what)
	}
	return nil
}

// blankFits reports whether a piece's blank goes on one of the sheets.
func blankFits(in *Inputs, p style.Part) bool {
	w, h, turn := p.Pattern.Width, p.Pattern.Height, in.CardOf(p.ID).Direction.MayTurn()
	return slices.ContainsFunc(in.Sheets, func(s paper.Sheet) bool {
		return w <= s.Width && h <= s.Height || turn && h <= s.Width && w <= s.Height
	})
}

// show writes a length in the inputs' unit, at their tick.
func (in *Inputs) show(l measure.Length) string { return measure.Label(l, in.Units, in.Tools.Tick) }
