package design

import (
	"fmt"
	"slices"
	"testing"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// slips are what a move may be told as by a slip of the pen: left out, done twice, with
// another number, on another side, or before the one in front of it.
func slips(moves []hand.Move, i int) map[string][]hand.Move {
	out := map[string][]hand.Move{}
	with := func(what string, m ...hand.Move) { out[what] = slices.Concat(moves[:i], m, moves[i+1:]) }
	if tells(moves[i]) {
		with("left out")
		with("done twice", moves[i], moves[i])
	}
	const by = measure.Millimetre
	off := func(at []measure.Length) []measure.Length {
		other := slices.Clone(at)
		other[len(other)-1] += by
		return other
	}
	less := func(p hand.Parts) hand.Parts { p.At = p.At[1:]; return p }
	switch m := moves[i].(type) {
	case hand.Cut:
		with("wider", hand.Cut{Width: m.Width + by, Height: m.Height})
	case hand.ScoreFour:
		with("another number", hand.ScoreFour{At: off(m.At), Shim: m.Shim})
	case hand.ScoreFrom:
		other := m
		other.At = off(m.At)
		with("another number", other)
	case hand.Slit:
		other := hand.Slit{Runs: slices.Clone(m.Runs)}
		other.Runs[0].To++
		with("one crossing on", other)
		with("one cut too few", hand.Slit{Runs: m.Runs[1:]})
	case hand.CutOff:
		other := m
		other.What = less(m.What)
		with("one part too few", other)
	case hand.Trim:
		with("shorter", hand.Trim{What: m.What, Leave: m.Leave - by})
	case hand.Taper:
		with("wider", hand.Taper{What: m.What, Off: m.Off + by, Leave: m.Leave})
		with("one tab too few", hand.Taper{What: less(m.What), Off: m.Off, Leave: m.Leave})
	case hand.Snip:
		other := m
		other.Cuts = m.Cuts[1:]
		with("one cut too few", other)
	case hand.Score:
		other := m
		other.Lines = m.Lines[1:]
		with("one line too few", other)
	case hand.FoldWays:
		if len(m.Towards) > 0 {
			other := m
			other.Towards = m.Towards[1:]
			with("one fold the other way", other)
		}
	case hand.Notch:
		other := m
		other.Across += 2 * by
		with("wider", other)
	case hand.Stick:
		other := m
		other.Outside = !m.Outside
		with("on the other side", other)
		other = m
		other.What, other.Onto = less(m.What), less(m.Onto)
		with("one too few", other)
		other = m
		other.Onto.At = slices.Repeat([]pattern.Point{m.What.At[0]}, len(m.Onto.At))
		with("onto itself", other)
	}
	if _, sticks := moves[i].(hand.Stick); sticks {
		first := slices.IndexFunc(moves, func(m hand.Move) bool {
			switch m.(type) {
			case hand.FoldAll, hand.FoldWays:
				return true
			}
			return false
		})
		if first >= 0 && first < i {
			out["before it is folded"] = slices.Insert(slices.Delete(slices.Clone(moves), i, i+1), first, moves[i])
		}
	}
	return out
}

// tells reports whether a move leaves something on the table besides a name.
func tells(m hand.Move) bool {
	switch m := m.(type) {
	case hand.Names, hand.Dry:
		return false
	case hand.Mark:
		return false // a line that is drawn and not used does no harm; what needs it says so
	case hand.Bend:
		return false
	case hand.FoldWays:
		return len(m.Flat) > 0
	}
	return true
}

// Of all slips in the moves of every style the table notices each.
func TestTheHandNoticesSlips(t *testing.T) {
	t.Parallel()
	tried := 0
	for _, s := range style.All {
		in := New("x", measure.In, s.ID)
		in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
		r, err := Make(t.Context(), in)
		if err != nil {
			t.Fatal(err)
		}
		for _, p := range r.Parts {
			for i, m := range p.Moves() {
				for what, moves := range slips(p.Moves(), i) {
					tried++
					if notices(r, p, moves) == nil {
						t.Errorf("%s: nobody notices of the %s that %T is %s", s.ID, p.Name, m, what)
					}
				}
			}
		}
		for i := range r.Box.Together {
			join, joins := r.Box.Together[i].(hand.Join)
			if !joins || len(join.Bonds) == 0 {
				continue
			}
			for what, bonds := range map[string][]hand.Across{"one bond too few": join.Bonds[1:], "one bond twice": append(join.Bonds, join.Bonds[0])} {
				tried++
				was := r.Box.Together[i]
				other := join
				other.Bonds = bonds
				r.Box.Together[i] = other
				if len(judged(r)) == 0 {
					t.Errorf("%s: nobody notices %s", s.ID, what)
				}
				r.Box.Together[i] = was
			}
		}
	}
	if tried < 600 {
		t.Errorf("only %d slips were tried", tried)
	}
}

// notices does the moves of one piece among the others of its box.
func notices(r *Result, p Part, moves []hand.Move) error {
	var works []hand.Work
	for _, o := range r.Parts {
		if o.ID == p.ID {
			works = append(works, hand.Work{Piece: o.ID, Moves: moves})
		} else {
			works = append(works, hand.Work{Piece: o.ID, Moves: o.Moves()})
		}
	}
	table, err := hand.Do(works...)
	if err != nil {
		return err
	}
	card, made := table.Card(p.ID)
	if !made {
		return fmt.Errorf("the %s is not made", p.ID)
	}
	return card.Equal(p.Pattern)
}
