package recipe

import (
	"slices"
	"strconv"
	"strings"

	"brevium/core/hand"
	"brevium/core/measure"
)

// teller says moves: in a voice, with lengths as a telling has them, of pieces by their
// names.
type teller struct {
	*Voice
	Telling
	piece func(id string) string
	wet   bool // wet glue, not tape
	// cutter is who cuts the pieces out.
	cutter Cutter
}

// clearly is by how much one side of a card is longer than the other where a hand sees it.
const clearly = 6 * measure.Millimetre

// says is a move in words, done to a card as it lies; other is what is said with it.
func (s teller) says(c *hand.Card, m hand.Move) string {
	switch m := m.(type) {
	case hand.ScoreFour:
		key, f := "score-four", Fields{"at": s.numbers(m.At)}
		if m.Shim > 0 {
			key, f["shim"] = "score-four-shim", s.length(m.Shim)
		}
		return s.Say(key, f)
	case hand.ScoreFrom:
		key := "score-from"
		if m.Turned {
			key = "score-turned"
		}
		f := Fields{"edge": string(m.Edge), "at": s.numbers(m.At)}
		if m.Shim > 0 {
			key, f["shim"] = key+"-shim", s.length(m.Shim)
		}
		return s.Say(key, f)
	case hand.Names:
		return s.names(m)
	case hand.Slit:
		return s.slit(c, m)
	case hand.CutOff:
		f := Fields{"names": s.And(s.each(m.What.Of))}
		if len(m.What.Of) == 2 {
			f["lid"], f["empty"] = s.Name(m.What.Of[0]), s.Name(m.What.Of[1])
		}
		key := "off-" + m.What.Noun
		switch {
		case m.Width > 0 && m.Width == m.Height:
			key, f["square"] = key+"-square", s.length(m.Width)
		case m.Width > 0:
			f["size"] = s.size(m.Width, m.Height)
		}
		return s.Say(key, f)
	case hand.Trim:
		return s.Say("trim", Fields{"parts": s.parts(m.What), "leave": s.length(m.Leave)})
	case hand.Taper:
		if key := "taper-" + m.What.Noun; s.Has(key) {
			return s.Say(key, nil)
		}
		f := Fields{"parts": s.parts(m.What), "off": s.length(m.Off)}
		if m.Leave > 0 {
			f["leave"] = s.length(m.Leave)
			return s.Say("trim-taper", f)
		}
		return s.Say("taper", f)
	case hand.Notch:
		return s.notch(c, m)
	case hand.FoldAll:
		return s.Say("fold-all", nil)
	case hand.FoldOver:
		return s.Say("fold-over-"+m.What.Noun, Fields{"count": s.Number(len(m.What.At))})
	case hand.Stick:
		return s.stick(c.ID, m)
	case hand.Score:
		return s.said(m.Said)
	case hand.LayTape:
		return s.said(m.Said)
	case hand.Mark:
		return s.said(m.Said)
	case hand.Snip:
		return s.said(m.Said)
	case hand.Bite:
		return s.said(m.Said)
	case hand.FoldWays:
		return s.said(m.Said)
	case hand.Bend:
		return s.said(m.Said)
	case hand.Dry:
		return s.said(m.Said)
	case hand.TurnIn:
		return s.said(m.Said)
	case hand.Template:
		return s.said(m.Said)
	case hand.ScoreTraced:
		return s.said(m.Said)
	case hand.CutTraced:
		return s.said(m.Said)
	case hand.Own:
		return m.Text
	case hand.Put:
		var all []string
		for _, x := range m.Phrase {
			all = append(all, s.said(x))
		}
		return strings.Join(all, " ")
	case hand.CutPapers:
		return s.cutPapers(m)
	case hand.LayPapers:
		return s.layPapers(c.ID, m)
	case hand.CutThrough:
		f := Fields{"piece": s.piece(c.ID), "opening": s.Name(m.Kind), "place": m.Place, "count": s.Number(len(m.At))}
		if len(m.At) > 1 {
			return s.Say("paper-through-all", f)
		}
		return s.Say("paper-through", f)
	case hand.Pane:
		return s.said(m.Said)
	case hand.Join:
		return s.said(m.Said)
	case hand.Shut:
		return s.said(m.Said)
	case hand.Hold:
		return s.said(m.Said)
	}
	return ""
}

// said is what is told by a pattern of its own.
func (s teller) said(x hand.Said) string {
	f := Fields{"tape": s.tape(s.wet), "taped": s.taped(s.wet)}
	for name, lengths := range x.Lengths {
		if f[name] = s.numbers(lengths); name == "size" && len(lengths) == 2 {
			f[name] = s.size(lengths[0], lengths[1])
		}
	}
	for name, names := range x.Names {
		f[name] = s.And(s.each(names))
	}
	for name, n := range x.Counts {
		f[name] = s.Number(n)
	}
	for name, words := range x.Words {
		f[name] = words
	}
	for name, phrase := range x.Phrases {
		f[name] = s.said(phrase)
	}
	for name, ids := range x.Pieces {
		var pieces []string
		for _, id := range strings.Fields(ids) {
			pieces = append(pieces, s.piece(id))
		}
		f[name] = s.And(pieces)
	}
	return s.Say(x.Key, f)
}

// Says is what is told by a pattern of its own, of this work, in the language of makers.
func (w Work) Says(x hand.Said) string {
	return teller{English, Telling{w.Units, w.Tick}, w.called, w.Adhesive.Wet(), w.Cutter}.said(x)
}

// parts names parts of a card: "the four corner tabs", "the spine's two tabs".
func (s teller) parts(p hand.Parts) string {
	if p.Words != "" {
		return s.Say("the", Fields{"name": p.Words})
	}
	if key := "parts." + p.Noun; s.Has(key) {
		return s.Say(key, nil)
	}
	n := len(p.At)
	f := Fields{"nouns": s.Noun(p.Noun, n), "count": s.Number(n)}
	var owners []string
	for _, name := range p.Of {
		owners = append(owners, s.Say("owner", Fields{"name": s.Name(name)}))
	}
	f["owner"], f["owners"] = s.And(owners), s.And(owners)
	switch {
	case len(owners) == 0 && n == 1:
		return s.Say("parts", f)
	case len(owners) == 0:
		return s.Say("parts-many", f)
	case len(owners) == 1:
		return s.Say("parts-of-many", f)
	}
	return s.Say("parts-of", f)
}

func (s teller) each(names []string) []string {
	if len(names) > 1 && names[0] <= "9" { // panels, by their numbers
		return []string{s.Say("panels", Fields{"n": s.And(names)})}
	}
	var out []string
	for _, n := range names {
		out = append(out, s.Name(n))
	}
	return out
}

func (s teller) names(m hand.Names) string {
	way := "down"
	if m.Across {
		way = "across"
	}
	if last := len(m.Words) - 1; m.Panels && m.Words[last] == "tab" {
		return s.Say("panels-"+way, Fields{"last": strconv.Itoa(last)})
	} else if m.Panels {
		return s.Say("panels-only-"+way, Fields{"last": strconv.Itoa(last + 1)})
	}
	words := s.each(m.Words)
	last := len(words) - 1
	list := words[last]
	for i := last - 1; i >= 0; i-- {
		list = s.Say("list", Fields{"first": words[i], "rest": list})
	}
	return s.Say("names-"+way, Fields{"names": list})
}

// edges names the edges of a card that a hand works from.
func (s teller) edges(c *hand.Card, edges []hand.Edge) string {
	if len(edges) == 1 {
		return s.Say("edges-one", Fields{"edge": string(edges[0])})
	}
	along, across := c.Height, c.Width // of these edges, and of the others
	key := "edges-sides"
	if !edges[0].Side() {
		along, across = across, along
		key = "edges-ends"
	}
	switch {
	case c.Alike():
		key = "edges-opposite"
	case along > across+clearly:
		key = "edges-long"
	case along < across-clearly:
		key = "edges-short"
	}
	return s.Say(key, nil)
}

// slit says which scores are slit from where.
func (s teller) slit(c *hand.Card, m hand.Slit) string {
	var edges []hand.Edge
	lines, to := map[hand.Edge][]int{}, map[hand.Edge]int{}
	for _, r := range m.Runs {
		if !slices.Contains(edges, r.From) {
			edges = append(edges, r.From)
		}
		lines[r.From], to[r.From] = append(lines[r.From], r.Line), r.To
	}
	one := edges[0]
	f := Fields{"nth": s.Nth(to[one])}
	if len(edges) == 4 {
		if to[one] > 1 {
			return s.Say("slit-turning-inner", f)
		}
		return s.Say("slit-turning", f)
	}
	f["scores"] = s.scores(c, one, lines[one])
	if len(edges) == 2 && to[edges[1]] != to[one] {
		f["one"], f["last"], f["then"] = string(one), string(edges[1]), s.Nth(to[edges[1]])
		if n := c.Lines(one); !c.Names().Panels && len(lines[one]) == n && n == 2 {
			way := "upright"
			if c.Height > c.Width+clearly {
				way = "long"
			}
			f["scores"] = s.Say("scores-both", Fields{"way": s.Name(way)})
		}
		return s.Say("slit-both", f)
	}
	f["edges"] = s.edges(c, edges)
	return s.Say("slit", f)
}

// scores names scores that meet an edge.
func (s teller) scores(c *hand.Card, e hand.Edge, lines []int) string {
	n, count := c.Lines(e), Fields{"count": s.Number(len(lines))}
	switch {
	case len(lines) == n && c.Names().Panels:
		return s.Say("scores-panels", count)
	case len(lines) == n:
		return s.Say("scores-met", count)
	case lines[0] == 0:
		return s.Say("scores-first", count)
	case lines[len(lines)-1] == n-1:
		return s.Say("scores-last", count)
	case n == 4:
		return s.Say("scores-inner", count)
	}
	return s.Say("scores-middle", count)
}

func (s teller) notch(c *hand.Card, m hand.Notch) string {
	f := Fields{"across": s.length(m.Across)}
	if m.In == "" {
		f["edges"] = s.edges(c, m.Edges)
		return s.Say("notch-edge", f)
	}
	f["panel"] = s.Name(m.In)
	if len(m.Edges) > 1 {
		return s.Say("notch-panel-both", f)
	}
	return s.Say("notch-panel", f)
}

func (s teller) stick(piece string, m hand.Stick) string {
	f := Fields{"tape": s.tape(m.Wet), "taped": s.taped(m.Wet), "parts": s.parts(m.What), "onto": s.onto(m.Onto), "piece": s.piece(piece), "round": s.piece(m.Round)}
	if m.At > 0 {
		f["at"] = s.length(m.At)
	}
	switch m.Way {
	case hand.Foot:
		f["panels"] = s.And(s.each(m.What.Of))
	case hand.StandInside:
		f["row"] = s.Name(m.Onto.Of[0])
	case hand.StandOver, hand.StandUnder:
		f["row"] = s.Name(m.What.Of[0])
	}
	said := s.Say("stick-"+string(m.Way), f)
	if m.Wet {
		said += " " + s.Say("hold", nil)
	}
	return said
}

func (s teller) taped(wet bool) string {
	if wet {
		return s.Say("glued", nil)
	}
	return s.Say("taped", nil)
}

// onto names where parts are stuck: all of what is whose.
func (s teller) onto(p hand.Parts) string {
	if len(p.Of) == 0 {
		return s.parts(p)
	}
	var owners []string
	for _, name := range p.Of {
		owners = append(owners, s.Say("owner", Fields{"name": s.Name(name)}))
	}
	return s.Say("parts-of", Fields{"owners": s.And(owners), "nouns": s.Noun(p.Noun, len(p.At))})
}

func (s teller) tape(wet bool) string {
	if wet {
		return s.Say("glue", nil)
	}
	return s.Say("tape", nil)
}

// size is a blank's: width first.
func (s teller) size(w, h measure.Length) string {
	return measure.Labels(s.Units, s.Tick, s.settable(w), s.settable(h))
}
