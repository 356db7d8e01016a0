package design

import (
	"slices"
	"strings"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/style"
)

// UsualCover covers a piece in light paper.
func UsualCover(piece string, unit measure.Unit) dress.Cover {
	turn := 15 * measure.Millimetre
	if unit == measure.In {
		turn = 5 * measure.Inch / 8
	}
	return dress.Cover{Piece: piece, TurnIn: turn, Corners: dress.LappedCorners,
		Card: paper.Card{Name: "Covering paper, sprigs", GSM: 100, Thickness: 120 * measure.Micrometre, Direction: paper.NoDirection}}
}

type coverFile struct {
	ID      int          `json:"id,omitempty"`
	Piece   string       `json:"piece"`
	Card    *cardFile    `json:"card,omitempty"`
	TurnIn  measure.Text `json:"turn_in,omitempty"`
	Corners string       `json:"corners,omitempty"`
}

func (r *reader) covers(all []coverFile) {
	for i, f := range all {
		field := fault.Path("covers", i)
		c := UsualCover(f.Piece, r.unit)
		c.ID = f.ID
		if f.Card != nil {
			c.Card = r.card(fault.Path(field, "card"), *f.Card)
		}
		c.TurnIn = r.length(fault.Path(field, "turn_in"), f.TurnIn, c.TurnIn)
		if f.Corners != "" {
			c.Corners = dress.CoverCorner(f.Corners)
		}
		r.in.Covers = append(r.in.Covers, c)
	}
}

func writeCover(c dress.Cover) coverFile {
	card := writeCard(c.Card)
	return coverFile{ID: c.ID, Piece: c.Piece, Card: &card, TurnIn: mmText(c.TurnIn), Corners: string(c.Corners)}
}

// checkCovers refuses coverings that none could make, whatever the box.
func checkCovers(in *Inputs) error {
	for i, c := range in.Covers {
		field := fault.Path("covers", i)
		if !slices.Contains(dress.CoverCorners, c.Corners) {
			return fault.New(fault.UnknownChoice, fault.Path(field, "corners"), "the corners of a covering are lapped or meeting")
		}
		if slices.ContainsFunc(in.Covers[:i], func(o dress.Cover) bool { return o.Piece == c.Piece }) {
			return fault.New(fault.NamedTwice, fault.Path(field, "piece"), "this piece is covered already")
		}
		if err := checkCard(fault.Path(field, "card"), c.Card); err != nil {
			return err
		}
		if c.Card.Thickness > 250*measure.Micrometre {
			return fault.New(fault.ThicknessRange, fault.Path(field, "card.thickness"), "what covers a box bends round its edges: paper of up to 0.25 mm")
		}
	}
	return nil
}

// Coverable reports whether a part is a tray that paper can cover.
func Coverable(p Part) bool {
	_, is := dress.TrayOf(p.Faces, p.Card.Thickness)
	return is && !p.Loose
}

// cover makes the coverings and puts them to the parts.
func (p *Papered) cover() error {
	for i, c := range p.Inputs.Covers {
		field := fault.Path("covers", i)
		at := slices.IndexFunc(p.Parts, func(part Part) bool { return part.ID == c.Piece })
		if at < 0 {
			return fault.New(fault.UnknownPiece, fault.Path(field, "piece"), "this box has no piece %q to cover", c.Piece)
		}
		covered := p.Parts[at]
		tray, is := dress.TrayOf(covered.Faces, covered.Card.Thickness)
		if !is {
			return fault.New(fault.UnknownPiece, fault.Path(field, "piece"), "paper covers a tray or a lid with four walls of one height; the %s is none, so put papers on its faces",
				strings.ToLower(covered.Name))
		}
		made, err := c.Pattern(tray, p.Inputs.Tools.Tick)
		if err != nil {
			return fault.At(field, err)
		}
		folded, err := made.Finished("panel")
		if err != nil {
			return err
		}
		name := strings.ToLower(covered.Name)
		part := style.Part{ID: c.PieceID(), Name: covered.Name + " covering", Pattern: made, Root: "panel", Card: c.Card.Thickness, Opens: style.Upwards}
		for _, key := range []string{"covering-panel", "covering-walls-" + string(c.Corners), "covering-rim"} {
			text := recipe.English.Say(key, recipe.Fields{"piece": "the " + name})
			part.Own = append(part.Own, hand.Own{Kind: hand.OwnGluing, Text: text})
		}
		whole := Part{Part: part, Faces: folded.Faces, Card: c.Card, Folded: folded, Loose: true}
		if err := p.Inputs.goesOn(whole, fault.Path(field, "piece"), "cover a smaller piece"); err != nil {
			return err
		}
		p.Parts = append(p.Parts, whole)
	}
	return nil
}

// coveringOf is what coverings add between two parts, both sides together: all
// layers on the inner one's outside, and the edge turned into the outer one.
func coveringOf(in *Inputs, inner, outer string) measure.Length {
	sum := measure.Length(0)
	for _, c := range in.Covers {
		switch c.Piece {
		case inner:
			sum += 2 * c.Outside()
		case outer:
			sum += 2 * c.Inside()
		}
	}
	return sum
}

// CoverOf is the paper that covers a piece, if any.
func (s *Sized) CoverOf(piece string) (paper.Card, bool) {
	for _, c := range s.Inputs.Covers {
		if c.Piece == piece {
			return c.Card, true
		}
	}
	return paper.Card{}, false
}
