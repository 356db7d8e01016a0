package recipe

import (
	"fmt"
	"hash/fnv"
	"reflect"
	"slices"
	"strings"
	"unicode"

	"brevium/core/hand"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/style"
)

// maker is a box as moves make it: each piece is told once, alike ones like the one before.
type maker struct {
	teller
	w       Work
	table   hand.Table
	fault   error               // of the first move that a hand cannot do
	done    int                 // moves of the piece before the hand
	told    []made              // in order
	printed bool                // it was said that templates are printed
	with    bool                // it was said what papers are stuck with
	last    map[string][]string // by piece, the keys of the steps that no other of it needs
}

// do does a move on the table, and remembers the first that cannot be done: it is told all the
// same.
func (s *maker) do(piece string, m hand.Move) {
	if _, cuts := m.(hand.Cut); cuts {
		s.done = 0
	}
	if err := s.table.Do(piece, m); err != nil && s.fault == nil {
		s.fault = &hand.Fault{Piece: piece, N: s.done, Move: m, Cause: err}
	}
	s.done++
}

// made is a piece that was told: its moves and a step for each.
type made struct {
	part  style.Part
	moves []hand.Move
	steps []Step
	card  *hand.Card // as it lies when it is made
	first int        // of those whose words hold for it, too
}

// act is a move as a step has it.
type act struct {
	kind    Kind
	name    string // of the move, as its key has it
	seconds float64
	own     bool // its name is its key, without its piece's
}

// actOf is what kind of work a move is, and how long an unhurried hand takes.
func actOf(m hand.Move) act {
	switch m := m.(type) {
	case hand.Cut:
		return act{Cut, "", 40, false}
	case hand.ScoreFour:
		return act{Score, "four", 45, false}
	case hand.ScoreFrom:
		return act{Score, string(m.Edge), 25, false}
	case hand.Names:
		return act{Score, "names", 5, false}
	case hand.Slit:
		return act{Remove, "slit", 25, false}
	case hand.CutOff:
		return act{Remove, "off-" + m.What.Noun, 20, false}
	case hand.Trim:
		return act{Remove, "trim-" + m.What.Noun, 20, false}
	case hand.Taper:
		return act{Remove, "taper-" + m.What.Noun, 30, false}
	case hand.Notch:
		return act{Remove, "notch", 20, false}
	case hand.FoldAll:
		return act{Fold, "", 60, false}
	case hand.FoldOver:
		return act{Fold, "over-" + m.What.Noun, 20, false}
	case hand.Stick:
		return act{Glue, string(m.Way), 75, false}
	case hand.Score:
		return act{Score, m.Key, 30, false}
	case hand.LayTape:
		return act{Score, m.Key, 15, false}
	case hand.Mark:
		return act{Score, m.Key, 15, false}
	case hand.Snip:
		return act{Remove, m.Key, 25, false}
	case hand.Bite:
		return act{Remove, m.Key, 25, false}
	case hand.FoldWays:
		return act{Fold, "", 60, false}
	case hand.Bend:
		return act{Fold, "bend", 20, false}
	case hand.Dry:
		return act{Glue, m.Key, 15, false}
	case hand.Own:
		return act{Kind(m.Kind), "own", 60, false}
	case hand.TurnIn:
		return act{Glue, m.Key, 60, false}
	case hand.Template:
		return act{Remove, m.Key, 60, false}
	case hand.ScoreTraced:
		return act{Score, m.Key, 60, false}
	case hand.CutTraced:
		return act{Remove, m.Key, 90, false}
	case hand.Put:
		kind := map[hand.When]Kind{hand.Lying: Decorate, hand.Empty: Assemble, hand.Closed: Close}[m.When]
		return act{kind, m.Key, pace[kind], true}
	case hand.CutPapers:
		return act{Cut, m.IDs[0], 40 * float64(m.Count), true}
	case hand.LayPapers:
		return act{Decorate, m.Papers[0].ID, 45 * float64(len(m.Papers)), true}
	case hand.CutThrough:
		return act{Decorate, "through", 45 * float64(len(m.At)), false}
	case hand.Pane:
		return act{Decorate, m.Key, 40, false}
	case hand.Join:
		return act{Assemble, m.Key, 30, false}
	case hand.Fill:
		return act{Fill, "contents", 30, false}
	case hand.Shut:
		return act{Close, m.Key, 10, false}
	case hand.Hold:
		return act{Close, m.Key, 10, false}
	}
	panic(fmt.Sprintf("no pace for %T", m))
}

// first is how many moves of a piece come before its first sticking: papers go on then.
func first(moves []hand.Move) int {
	i := slices.IndexFunc(moves, func(m hand.Move) bool {
		_, sticks := m.(hand.Stick)
		own, says := m.(hand.Own)
		return sticks || says && own.Kind == hand.OwnGluing
	})
	if i < 0 {
		return len(moves)
	}
	return i
}

// moves are those of a part, its full scores read as its score list has them.
func (w Work) moves(p style.Part) []hand.Move {
	var out []hand.Move
	scored := false
	for _, m := range p.Moves() {
		if _, from := m.(hand.ScoreFrom); !from {
			out = append(out, m)
			continue
		}
		if scored {
			continue
		}
		scored = true
		for i, pass := range Scores(p, w.Fence, w.Tick).Passes {
			if pass.Edge == EachEdge {
				out = append(out, hand.ScoreFour{At: pass.At, Shim: pass.Shim})
				continue
			}
			out = append(out, hand.ScoreFrom{Edge: hand.Edge(pass.Edge), At: pass.At, Shim: pass.Shim, Turned: i > 0})
		}
	}
	return out
}

// made are the steps of a part that moves make; what is put on it and its papers are told
// before it is stuck, but for papers that wait for that.
func (s *maker) made(p style.Part, sets []MatSet) []Step {
	x := made{part: p, moves: s.w.moves(p), first: len(s.told)}
	early, wait := s.w.papers(p, sets)
	n, last := first(x.moves), len(s.told)-1
	before := s.steps(p, x.moves[:n], nil)
	papers := s.steps(p, early, nil)
	after := s.steps(p, x.moves[n:], before)
	x.card, _ = s.table.Card(p.ID)
	late := s.steps(p, wait, nil)
	s.need(p, before, papers, after, late)
	x.steps = slices.Concat(before, after)
	if k, how := s.nearest(x); k >= 0 {
		x.first = s.told[k].first
		other := s.piece(s.told[k].part.ID)
		key := "same-like-"
		if s.told[last].first == x.first {
			key = "same-way-"
		}
		how.fields["piece"], how.fields["other"] = s.piece(p.ID), other
		how.also = append(how.also, s.also(p, how.again && s.w.Cards[p.ID].Same(s.w.Cards[s.told[k].part.ID]))...)
		s.told = append(s.told, x)
		if len(papers) > 0 && len(after) > 0 {
			one := s.whole(p, "same", how.said(s.teller, key, "-open"), before)
			two := s.whole(p, "up", s.Say("same-up", Fields{"piece": s.piece(p.ID), "other": other, "tape": s.tape(s.wet)}), after)
			return slices.Concat([]Step{one}, papers, []Step{two}, late)
		}
		return slices.Concat([]Step{s.whole(p, "same", how.said(s.teller, key, ""), x.steps)}, papers, late)
	}
	s.told = append(s.told, x)
	return slices.Concat(before, papers, after, late)
}

// again are the steps of later parts that are made by the very moves of one that was just
// told, and get no paper: one sentence for all of them.
func (s *maker) again(i int, told []bool, sets []MatSet) []Step {
	var names []string
	var inner []Step
	var first style.Part
	for k := i + 1; k < len(s.w.Parts); k++ {
		p := s.w.Parts[k]
		if !reflect.DeepEqual(p.Moves(), s.w.Parts[i].Moves()) || !s.w.Cards[p.ID].Same(s.w.Cards[s.w.Parts[i].ID]) || s.w.dressed(p.ID, sets) {
			continue
		}
		if told[k] = true; names == nil {
			first = p
		}
		x := made{part: p, moves: s.w.moves(p), first: s.told[len(s.told)-1].first}
		x.steps = s.steps(p, x.moves, nil)
		s.need(p, x.steps)
		x.card, _ = s.table.Card(p.ID)
		inner, names = append(inner, x.steps...), append(names, s.piece(p.ID))
		s.told = append(s.told, x)
	}
	if names == nil {
		return nil
	}
	return []Step{s.whole(first, "same", s.Say("same-again", Fields{"piece": s.And(names), "other": s.piece(s.w.Parts[i].ID)}), inner)}
}

// dressed reports whether anything is put on a piece while it is flat.
func (w Work) dressed(piece string, sets []MatSet) bool {
	return slices.ContainsFunc(w.Fixings, func(f hand.Put) bool { return f.On == piece }) ||
		slices.ContainsFunc(sets, func(m MatSet) bool { return m.Mat.Piece == piece })
}

// nearest is which told piece one is made like, and how: the same again, or the last; −1 for
// none.
func (s *maker) nearest(x made) (at int, how likeness) {
	at = -1
	for k := len(s.told) - 1; k >= 0; k-- {
		like, same := s.like(s.told[k], x)
		if same && like.again {
			return k, like
		}
		if same && at < 0 {
			at, how = k, like
		}
	}
	return at, how
}

// whole puts steps of a piece into one, told in one sentence.
func (s *maker) whole(p style.Part, key, text string, of []Step) Step {
	out := Step{Key: string(Glue) + "/" + p.ID + "/" + key, Move: "same", Piece: p.ID, Kind: Glue, Text: text, Group: p.Name, Inner: of}
	h := fnv.New64a()
	for _, x := range of {
		out.Seconds += x.Seconds
		h.Write([]byte(x.Mark))
	}
	out.Mark = fmt.Sprintf("m%016x", h.Sum64())
	return out
}

// name is the name of a move's type, as "score-four".
func name(m hand.Move) string {
	var out strings.Builder
	for i, r := range strings.TrimPrefix(fmt.Sprintf("%T", m), "hand.") {
		if unicode.IsUpper(r) && i > 0 {
			out.WriteByte('-')
		}
		out.WriteRune(unicode.ToLower(r))
	}
	return out.String()
}

// steps tell moves of a piece one by one; have are those before, whose keys are taken.
func (s *maker) steps(p style.Part, moves []hand.Move, have []Step) []Step {
	var out []Step
	for _, m := range moves {
		a := actOf(m)
		st := Step{Key: string(a.kind) + "/" + p.ID, Move: name(m), Piece: p.ID, Kind: a.kind, Seconds: a.seconds * float64(p.Copies()), Group: p.Name}
		switch {
		case a.own:
			st.Key, st.Seconds = string(a.kind)+"/"+a.name, a.seconds
		case a.name != "":
			st.Key += "/" + a.name
		}
		taken := func(x Step) bool { return x.Key == st.Key }
		for n, key := 2, st.Key; slices.ContainsFunc(have, taken) || slices.ContainsFunc(out, taken); n++ {
			st.Key = fmt.Sprint(key, "/", n)
		}
		st.Mark, st.Does = markOf(m), m
		switch m := m.(type) {
		case hand.Cut:
			st.Text = s.cut(p, m)
		case hand.ScoreFour:
			st.Passes = []Pass{{EachEdge, m.At, m.Shim}}
		case hand.ScoreFrom:
			st.Passes = []Pass{{string(m.Edge), m.At, m.Shim}}
		}
		cuts := 0
		if c, there := s.table.Card(p.ID); there {
			st.Text, cuts = s.says(c, m), len(c.Cuts())
		}
		if _, lays := m.(hand.LayPapers); lays && s.w.Papers != nil && !s.with {
			st.Text, s.with = st.Text+" "+s.Say("paper-with", Fields{"with": s.w.Papers.Words, "hold": s.w.Papers.Hold}), true
		}
		s.do(p.ID, m)
		if c, there := s.table.Card(p.ID); there && a.kind == Remove {
			for _, x := range c.Cuts()[cuts:] {
				st.Cuts = append(st.Cuts, Line{Hand: Slit, Path: path(x.A, x.B)})
			}
		}
		if bites, is := m.(hand.Bite); is {
			for _, loop := range bites.Loops {
				ring := loop.Flat()
				for i, q := range ring {
					st.Cuts = append(st.Cuts, Line{Hand: Slit, Path: path(q, ring[(i+1)%len(ring)])})
				}
			}
		}
		out = append(out, st)
	}
	return out
}

// markOf changes with what a move does, and with nothing else.
func markOf(m hand.Move) string {
	h := fnv.New64a()
	if t, traces := m.(hand.Template); traces { // by what is drawn, not by where that is in memory
		fmt.Fprintf(h, "%T %+v %+v %+v", m, t.Said, t.Pattern.Outline, t.Pattern.Holes)
	} else if lay, lays := m.(hand.LayTape); lays { // as it was marked when it was told and not done
		fmt.Fprintf(h, "%T {Lines:[] Said:%+v}", hand.Mark{}, lay.Said)
	} else if mark, marks := m.(hand.Mark); marks { // points and names are only shown
		fmt.Fprintf(h, "%T {Lines:%+v Said:%+v}", m, mark.Lines, mark.Said)
	} else {
		fmt.Fprintf(h, "%T %+v", m, m)
	}
	return fmt.Sprintf("m%016x", h.Sum64())
}

// cut says that a blank is cut, how often, and of what where that is not all one.
func (s *maker) cut(p style.Part, m hand.Cut) string {
	key, f := "cut", Fields{"piece": s.piece(p.ID), "size": s.size(m.Width, m.Height), "card": s.w.Cards[p.ID].Name}
	if n := s.w.Copies * p.Copies(); n > 1 {
		key, f["count"] = "cut-many", s.Number(n)
	} else if numbered(p.Name) {
		key = "cut-numbered"
	}
	if said, is := s.out(p, f); is {
		return strings.Join(append([]string{said}, s.runs(p)...), " ")
	}
	if s.saysCard(p) {
		key += "-from"
	}
	return strings.Join(append([]string{s.Say(key, f)}, s.runs(p)...), " ")
}

// saysCard reports whether a piece's card is said: where those of the box are not all of one,
// and of a piece of no style that is of another; never of card that has no name.
func (s *maker) saysCard(p style.Part) bool {
	if s.w.Cards[p.ID].Name == paper.PlainName {
		return false
	}
	first := -1
	for i, o := range s.w.Parts {
		if s.w.Loose[o.ID] {
			continue
		}
		if first < 0 {
			first = i
		}
		if !s.w.Loose[p.ID] && !s.w.Cards[o.ID].Same(s.w.Cards[s.w.Parts[first].ID]) {
			return true
		}
	}
	return s.w.Loose[p.ID] && first >= 0 && !s.w.Cards[p.ID].Same(s.w.Cards[s.w.Parts[first].ID])
}

// runs says which way the pattern of a piece's paper runs.
func (s *maker) runs(p style.Part) []string {
	edge := "top"
	if s.w.EndForEnd[p.ID] {
		edge = "bottom"
	}
	switch s.w.Cards[p.ID].Direction {
	case paper.OneWayUp:
		return []string{s.Say("pattern-one-way", Fields{"edge": edge})}
	case paper.TwoWays:
		return []string{s.Say("pattern-two-ways", nil)}
	}
	return nil
}

// also is what a sentence on a piece that is made like another does not say of its blank.
func (s *maker) also(p style.Part, sameCard bool) []string {
	var out []string
	if s.saysCard(p) && !sameCard {
		out = append(out, s.Say("also-card", Fields{"card": s.w.Cards[p.ID].Name}))
	}
	if n := s.w.Copies * p.Copies(); n > 1 {
		out = append(out, s.Say("also-count", Fields{"count": s.Number(n)}))
	}
	return append(out, s.runs(p)...)
}

// Key is what holds for every sheet of steps, said once.
func Key(unit measure.Unit) string {
	sliver := measure.Label(measure.Millimetre, measure.MM, measure.MM.Tick())
	if unit == measure.In {
		sliver = measure.Label(measure.Inch/32, measure.In, measure.In.Ruler())
	}
	return English.Say("key", Fields{"sliver": sliver})
}

// together are the steps that put the made pieces together, fill and close the box.
func (s *maker) together(moves []hand.Move) (out []Step) {
	s.done = 0
	needs := s.wholeNeeds(moves)
	for i, m := range moves {
		a := actOf(m)
		st := Step{Key: string(a.kind) + "/" + a.name, Move: name(m), Kind: a.kind, Seconds: a.seconds, Mark: "m0", Group: s.Say("together", nil)}
		if _, puts := m.(hand.Put); puts {
			st.Mark = markOf(m)
		}
		switch m := m.(type) {
		case hand.Fill:
			f := Fields{"piece": s.piece(m.Into), "things": s.w.Contents}
			key := "fill"
			if m.Key != "" {
				key = m.Key
			}
			if st.Text = s.Say(key, f); s.w.Contents != "" {
				st.Text = s.Say(key+"-with", f)
			}
		default:
			st.Text = s.says(nil, m)
		}
		st.Does = m
		for _, k := range needs[i].steps {
			st.Needs = append(st.Needs, out[k].Key)
		}
		st.Needs = append(st.Needs, needs[i].keys...)
		s.do("", m)
		if join, joins := m.(hand.Join); joins && s.wet && len(join.Bonds) > 0 {
			st.Text += " " + s.Say("hold", nil)
		}
		out = append(out, st)
	}
	return out
}
