package design

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/fault"
	"brevium/core/hand"
	"brevium/core/loose"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/style"
)

// MostLoose is how many kinds of loose piece a box has at most.
const MostLoose = 20

type (
	looseFile struct {
		ID      int          `json:"id,omitempty"`
		Name    string       `json:"name"`
		Width   measure.Text `json:"width"`
		Height  measure.Text `json:"height"`
		Copies  *int         `json:"copies,omitempty"`
		Scores  looseScores  `json:"scores,omitzero"`
		Part    []looseLine  `json:"part_scores,omitempty"`
		Slits   []looseLine  `json:"slits,omitempty"`
		Holes   []looseHole  `json:"holes,omitempty"`
		Corners string       `json:"corners,omitempty"`
		Radius  measure.Text `json:"radius,omitempty"`
		Card    *cardFile    `json:"card,omitempty"`
	}
	looseScores struct {
		Vertical   []measure.Text `json:"vertical,omitempty"`
		Horizontal []measure.Text `json:"horizontal,omitempty"`
	}
	looseLine struct {
		X1 measure.Text `json:"x1"`
		Y1 measure.Text `json:"y1"`
		X2 measure.Text `json:"x2"`
		Y2 measure.Text `json:"y2"`
	}
	looseHole struct {
		X      measure.Text `json:"x"`
		Y      measure.Text `json:"y"`
		Across measure.Text `json:"across,omitempty"`
		Width  measure.Text `json:"width,omitempty"`
		Height measure.Text `json:"height,omitempty"`
	}
)

// usualRadius is what rounded or cut corners lose when nothing is said.
const usualRadius = 5 * measure.Millimetre

func (r *reader) loose(all []looseFile) {
	if len(all) > MostLoose {
		r.fail(fault.New(fault.CountRange, "loose", "a box has at most %d kinds of loose piece", MostLoose))
		return
	}
	for i, f := range all {
		at := func(path ...any) string { return fault.Path(append([]any{"loose", i}, path...)...) }
		p := loose.Piece{
			ID: f.ID, Name: f.Name, Copies: 1, Corners: loose.Corners(f.Corners),
			Width: r.length(at("width"), f.Width, 0), Height: r.length(at("height"), f.Height, 0),
		}
		if f.Copies != nil {
			p.Copies = *f.Copies
		}
		if p.Corners == "" {
			p.Corners = loose.Square
		}
		if p.Corners != loose.Square {
			p.Radius = r.length(at("radius"), f.Radius, usualRadius)
		}
		for k, t := range f.Scores.Vertical {
			p.Vertical = append(p.Vertical, r.length(at("scores.vertical", k), t, 0))
		}
		for k, t := range f.Scores.Horizontal {
			p.Horizontal = append(p.Horizontal, r.length(at("scores.horizontal", k), t, 0))
		}
		p.Part, p.Slits = r.lines(at, "part_scores", f.Part), r.lines(at, "slits", f.Slits)
		for k, h := range f.Holes {
			x := loose.Hole{Point: loose.Point{X: r.length(at("holes", k, "x"), h.X, 0), Y: r.length(at("holes", k, "y"), h.Y, 0)}}
			if x.Width = r.length(at("holes", k, "across"), h.Across, 0); h.Across == "" {
				x.Width, x.Height = r.length(at("holes", k, "width"), h.Width, 0), r.length(at("holes", k, "height"), h.Height, 0)
			}
			p.Holes = append(p.Holes, x)
		}
		if f.Card != nil {
			c := r.card(at("card"), *f.Card)
			p.Card = &c
		}
		r.in.Loose = append(r.in.Loose, p)
	}
}

func (r *reader) lines(at func(...any) string, field string, all []looseLine) []loose.Line {
	var out []loose.Line
	for k, l := range all {
		point := func(x, y measure.Text, ex, ey string) loose.Point {
			return loose.Point{X: r.length(at(field, k, ex), x, 0), Y: r.length(at(field, k, ey), y, 0)}
		}
		out = append(out, loose.Line{A: point(l.X1, l.Y1, "x1", "y1"), B: point(l.X2, l.Y2, "x2", "y2")})
	}
	return out
}

func writeLoose(p loose.Piece) looseFile {
	f := looseFile{ID: p.ID, Name: p.Name, Width: mmText(p.Width), Height: mmText(p.Height), Copies: &p.Copies, Corners: string(p.Corners)}
	if p.Corners != loose.Square {
		f.Radius = mmText(p.Radius)
	}
	for _, at := range p.Vertical {
		f.Scores.Vertical = append(f.Scores.Vertical, mmText(at))
	}
	for _, at := range p.Horizontal {
		f.Scores.Horizontal = append(f.Scores.Horizontal, mmText(at))
	}
	lines := func(all []loose.Line) []looseLine {
		var out []looseLine
		for _, l := range all {
			out = append(out, looseLine{mmText(l.A.X), mmText(l.A.Y), mmText(l.B.X), mmText(l.B.Y)})
		}
		return out
	}
	f.Part, f.Slits = lines(p.Part), lines(p.Slits)
	for _, h := range p.Holes {
		x := looseHole{X: mmText(h.X), Y: mmText(h.Y)}
		if h.Height == 0 {
			x.Across = mmText(h.Width)
		} else {
			x.Width, x.Height = mmText(h.Width), mmText(h.Height)
		}
		f.Holes = append(f.Holes, x)
	}
	if p.Card != nil {
		c := writeCard(*p.Card)
		f.Card = &c
	}
	return f
}

// checkLoose refuses loose pieces that cannot be cut, at their fields.
func checkLoose(in *Inputs) error {
	show := func(l measure.Length) string { return measure.Label(l, in.Units, in.Tools.Tick) }
	for i, p := range in.Loose {
		if err := p.Check(show); err != nil {
			return fault.At(fault.Path("loose", i), err)
		}
		if p.Card != nil {
			if err := checkCard(fault.Path("loose", i, "card"), *p.Card); err != nil {
				return err
			}
		}
	}
	return nil
}

// LooseCard is the card a loose piece is cut from.
func (in *Inputs) LooseCard(p loose.Piece) paper.Card {
	if p.Card != nil {
		return *p.Card
	}
	return in.Card
}

// looseParts makes the loose pieces, each with a name that no other part has.
func looseParts(in *Inputs, others []Part) ([]Part, error) {
	var out []Part
	names := map[string]int{}
	for _, p := range others {
		names[strings.ToLower(p.Name)]++
	}
	for i, p := range in.Loose {
		made, err := p.Pattern()
		if err != nil {
			return nil, fault.At(fault.Path("loose", i), err)
		}
		name := strings.TrimSpace(p.Name)
		if key := strings.ToLower(name); names[key] > 0 {
			names[key]++
			name = fmt.Sprintf("%s (%d)", name, names[key])
		} else {
			names[key] = 1
		}
		folded, err := made.Finished(made.Marks[0].Name)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", name, err)
		}
		card := in.LooseCard(p)
		part := style.Part{ID: p.PieceID(), Name: name, Pattern: made, Root: made.Marks[0].Name, Count: p.Copies, Card: card.Thickness, Opens: style.Upwards}
		out = append(out, Part{Part: part, Faces: folded.Faces, Card: card, Folded: folded, Loose: true})
	}
	return out, nil
}

// looseMoves put on the pieces of no style: where, their maker knows.
func (b *Built) looseMoves() []hand.Put {
	var out []hand.Put
	for _, p := range b.Parts {
		if !slices.ContainsFunc(b.Inputs.Loose, func(x loose.Piece) bool { return x.PieceID() == p.ID }) {
			continue
		}
		said := hand.Said{Key: "loose-one", Pieces: map[string]string{"piece": p.ID}}
		if n := p.Copies(); n > 1 {
			said.Key, said.Counts = "loose-many", map[string]int{"count": n}
		}
		out = append(out, hand.Put{Thing: p.ID, When: b.atLast(), Uses: []string{p.ID}, Phrase: []hand.Said{said}})
	}
	return out
}
