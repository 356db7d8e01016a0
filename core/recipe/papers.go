package recipe

import (
	"cmp"
	"fmt"
	"strings"

	"brevium/core/hand"
	"brevium/core/measure"
)

// cutPapers says how papers are cut: from blanks, in halves, round a template or as a strip.
func (s teller) cutPapers(m hand.CutPapers) string {
	n := m.Count * m.Copies
	f := Fields{"count": s.Number(n), "size": s.size(m.Width, m.Height), "card": m.Card, "strips": s.Noun("strip", n), "papers": s.Noun("paper", n)}
	switch {
	case len(m.Strip) > 0:
		return s.strip(m, f)
	case m.Halved:
		return s.Say("paper-halved", f)
	case m.Traced:
		return s.Say("paper-traced", f)
	case m.Rounded > 0:
		f["at"] = s.length(m.Rounded)
		if n == 1 {
			return s.Say("paper-rounded-one", f)
		}
		return s.Say("paper-rounded", f)
	case n == 1:
		return s.Say("paper-cut-one", f)
	}
	return s.Say("paper-cut", f)
}

// strip says how a strip is cut up: at every line that parts two papers, or a paper from what
// lies between.
func (s teller) strip(m hand.CutPapers, f Fields) string {
	said := []string{s.Say("paper-strip", f)}
	if m.Begun {
		said = append(said, s.Say("paper-strip-on", nil))
	}
	var at []measure.Length
	var places []string
	scraps := false
	for i, p := range m.Strip {
		if i > 0 && p.From > at[len(at)-1] {
			at, scraps = append(at, p.From), true
		}
		at, places = append(at, p.To), append(places, p.Place)
	}
	if at[len(at)-1] == m.Width {
		at = at[:len(at)-1]
	}
	if len(at) > 0 {
		said = append(said, s.Say("paper-strip-at", Fields{"at": s.numbers(at)}))
	}
	said = append(said, s.Say("paper-strip-places", Fields{"places": s.And(places)}))
	if scraps {
		said = append(said, s.Say("paper-strip-scraps", nil))
	}
	return strings.Join(said, " ")
}

// layPapers says where papers go and what shows around them.
func (s teller) layPapers(piece string, m hand.LayPapers) string {
	f := Fields{
		"papers": s.Noun("paper", len(m.Places)), "places": s.And(m.Places), "piece": s.piece(piece),
		"under": s.Say("paper-card", nil), "layer": fmt.Sprint(m.Layer - 1),
	}
	if m.Layer > 1 {
		f["under"] = s.Say("paper-layer", f)
	}
	f["rim"] = s.rim(m, f)
	key := "paper-outside"
	switch {
	case m.Strip:
		key = "paper-run"
	case m.Late:
		key = "paper-over-tabs"
	case m.Inside:
		key = "paper-inside"
	}
	said := s.Say(key, f)
	if m.Strip {
		said += " " + s.Say("paper-run-rim", f)
	} else if len(strings.Fields(said)) > longest {
		said = s.atPlaces(key, m.Places, f)
	}
	if m.Upright {
		said += " " + s.Say("paper-upright", nil)
	}
	if m.Turned {
		said += " " + s.Say("paper-across", nil)
	}
	return said
}

// rim says what shows round a paper, or how far it stands over the edge; where that is nothing
// a ruler shows, that it lies in the middle.
func (s teller) rim(m hand.LayPapers, f Fields) string {
	across, up := m.Across, m.Up
	sign := func(l measure.Length) int { return cmp.Compare(l, 0) }
	shown := func(l measure.Length) bool { return measure.Nearest(l, s.Units.Ruler()) == l }
	length := func(l measure.Length) string {
		if l < 0 && !shown(l) {
			return s.Say("paper-hair", nil)
		}
		return s.length(l.Abs())
	}
	f["across"], f["off"] = length(across), length(up)
	switch {
	case m.Sized && !(shown(across) && shown(up)):
		return s.Say("paper-rim-middle", nil)
	case m.Narrow && up > 0:
		return s.Say("paper-rim-narrow", f)
	case across == up:
		return s.Say(map[int]string{-1: "paper-rim-over", 0: "paper-rim-even", 1: "paper-rim"}[sign(up)], f)
	case across > 0 && up > 0:
		return s.Say("paper-rims", f)
	}
	side := func(l measure.Length) string {
		return s.Say(map[int]string{-1: "paper-side-over", 0: "paper-side-even", 1: "paper-side-shows"}[sign(l)],
			Fields{"at": length(l), "under": f["under"]})
	}
	return s.Say("paper-rims-mixed", Fields{"across": side(across), "off": side(up)})
}

// longest is how many words a sentence may have.
const longest = 25

// atPlaces says first what is glued and what shows, then where, some places a sentence.
func (s teller) atPlaces(key string, places []string, f Fields) string {
	f["count"] = s.Number(len(places))
	said := []string{s.Say(key+"-at", f)}
	for len(places) > 0 {
		n := len(places)
		for n > 1 && len(strings.Fields(s.Say("paper-places", Fields{"places": s.And(places[:n])}))) > longest {
			n--
		}
		said = append(said, s.Say("paper-places", Fields{"places": s.And(places[:n])}))
		places = places[n:]
	}
	return strings.Join(said, " ")
}
