package reading

import (
	"slices"
)

// Role is what a number of the text was taken as.
type Role string

// A number is a side of a blank, where it is scored, how many there are of something, another
// size, a side of paper or card, an allowance, part of a finished size that is claimed, or nothing
// that is known.
const (
	OfBlank Role = "blank"
	OfScore Role = "score"
	OfCount Role = "count"
	OfSize  Role = "size"
	OfPaper Role = "paper"
	OfFit   Role = "fit"
	OfClaim Role = "claim"
	Unread  Role = "unread"
)

// takenBack is a number that the text itself takes back: it counts for nothing, and that is said.
const takenBack Role = "taken back"

// Number is a number of the text with what it was taken as; Piece is the piece that it is of, −1
// for none.
type Number struct {
	Span
	As    Role
	Piece int
}

// as takes a token as read, with what it is where it is a number.
func (p *parser) as(i int, role Role) {
	if i >= 0 && i < len(p.toks) {
		p.used[i] = true
		p.roles[i] = role
	}
}

// takeBack gives up numbers that the text corrects.
func (p *parser) takeBack(tokens ...int) {
	for _, i := range tokens {
		p.as(i, takenBack)
		p.say("“%s” is taken back", p.words(i, i+1))
	}
}

// account gives each number of the text its role. One that was read over and is nothing counts as
// not understood.
func (p *parser) account() {
	at := map[int]int{} // tokens by where they begin
	for i, t := range p.toks {
		if t.kind == number {
			at[t.from] = i
		}
	}
	piece := map[int]int{}
	for _, u := range p.out.Uses {
		i, is := at[u.From]
		if _, before := piece[i]; !is || before {
			continue
		}
		piece[i] = u.Piece
		switch {
		case u.What == Score:
			p.as(i, OfScore)
		case p.out.Pieces[u.Piece].Panel:
			p.as(i, OfPaper)
		default:
			p.as(i, OfBlank)
		}
	}
	for i, t := range p.toks {
		if t.kind != number {
			continue
		}
		role, of := p.roles[i], -1
		if k, is := piece[i]; is {
			of = k
		}
		if role == "" {
			role, p.used[i] = Unread, false
		} else if role == takenBack {
			role = Unread
		}
		p.out.Numbers = append(p.out.Numbers, Number{p.span(i, i), role, of})
	}
	slices.SortFunc(p.out.Numbers, func(a, b Number) int { return a.From - b.From })
}
