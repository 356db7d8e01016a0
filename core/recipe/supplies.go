package recipe

import (
	"fmt"
	"math"

	"brevium/core/pattern"
	"brevium/core/style"
)

// Supply is something used up, added up over all copies. Amount is in Unit:
// "sheet", "mm" or "cm²".
type Supply struct {
	ID     string
	Amount float64
	Unit   string
	Text   string
	Name   string // of its own, such as a ribbon's; "" is as the id says
}

// tapeEvery is how far apart, in mm, two runs of tape may lie on a patch.
const tapeEvery = 25

// GlueLength is the length in mm, over one box, of its glue patches: how far a
// hand goes along them with tape or a bottle.
func (w Work) GlueLength() float64 {
	tape, _ := w.patches()
	return tape
}

// patches adds up the glue patches and the edges of the mats of one box: as
// runs of tape in mm, and as area in mm².
func (w Work) patches() (tape, area float64) {
	for _, p := range w.Parts {
		for _, g := range p.Pattern.Glue {
			if g.Dry {
				continue
			}
			short, long := pattern.Narrowest(g.Area)
			tape += long * math.Ceil(short/tapeEvery) * float64(p.Copies())
			area += math.Abs(pattern.Area(g.Area)) * float64(p.Copies())
		}
	}
	for _, m := range w.Mats {
		for i, q := range m.Shape {
			tape += m.Shape[(i+1)%len(m.Shape)].Sub(q).Len()
		}
		area += math.Abs(pattern.Area(m.Shape))
	}
	return tape, area
}

// AdhesiveSupply is the adhesive for all copies: tape by length, wet glue by
// area.
func (w Work) AdhesiveSupply() Supply {
	tape, glue := w.patches()
	n := float64(w.Copies)
	narrow := w.narrow()
	if w.Adhesive.Wet() {
		return Supply{ID: "glue", Amount: glue * n / 100, Unit: "cm²", Text: fmt.Sprintf("Wet glue for %.0f cm² of card", glue*n/100)}
	}
	return Supply{ID: "tape", Amount: tape * n, Unit: "mm", Text: fmt.Sprintf("Double-sided tape, about %.1f m", math.Ceil(tape*n/100)/10) + tapeWidths(narrow*n, (tape-narrow)*n)}
}

// narrowTape is the patch, in mm across, up to which tape of 6 mm is laid; on wider
// ones, and along the edges of papers, it is 12 mm.
const narrowTape = 12.0

// narrow is how much of the tape of one box lies on narrow patches, in mm.
func (w Work) narrow() float64 {
	sum := 0.0
	for _, p := range w.Parts {
		for _, g := range p.Pattern.Glue {
			if short, long := pattern.Narrowest(g.Area); !g.Dry && short <= narrowTape {
				sum += long * math.Ceil(short/tapeEvery) * float64(p.Copies())
			}
		}
	}
	return sum
}

// tapeWidths tells how much of it is which width, where there are two.
func tapeWidths(narrow, wide float64) string {
	metres := func(mm float64) float64 { return math.Ceil(mm/100) / 10 }
	switch {
	case wide < 1:
		return ", 6 mm wide"
	case narrow < 1:
		return ", 12 mm wide"
	}
	return fmt.Sprintf(": %.1f m 6 mm wide, %.1f m 12 mm wide", metres(narrow), metres(wide))
}

// ribbonPiece is one of the two ends that are tied, in mm: a tail of 25 mm
// glued behind the card, and half of what a bow takes.
const ribbonPiece = 25 + 150

// HoldingSupplies are the removable dots, brads and hook-and-loop that hold each
// box.
func HoldingSupplies(box *style.Box, copies int) []Supply {
	var out []Supply
	if n := box.Dots * copies; n > 0 {
		out = append(out, Supply{ID: "holding.dots", Amount: float64(n), Unit: "dot", Text: fmt.Sprintf("%d removable glue dot%s, to hold the corners", n, plural(n))})
	}
	if n := box.Brads * copies; n > 0 {
		out = append(out, Supply{ID: "holding.brads", Amount: float64(n), Unit: "brad", Text: fmt.Sprintf("%d brad%s, to hold the handle", n, plural(n))})
	}
	if n := box.Hooks * copies; n > 0 {
		out = append(out, Supply{ID: "holding.hooks", Amount: float64(n), Unit: "piece", Text: fmt.Sprintf("Hook-and-loop, %d piece%s, to close the refills", n, plural(n))})
	}
	return out
}

// ClosingSupply is what is added to each box to keep it shut; false when the
// box itself does it.
func ClosingSupply(shut style.Shut, copies int) (Supply, bool) {
	n := float64(copies)
	switch shut {
	case style.ByDot:
		return Supply{ID: "dots", Amount: n, Unit: "dot", Text: fmt.Sprintf("%d removable glue dot%s, to close", copies, plural(copies))}, true
	case style.ByClip:
		return Supply{ID: "clips", Amount: n, Unit: "clip", Text: fmt.Sprintf("%d clip%s or clothes peg%s, to close", copies, plural(copies), plural(copies))}, true
	case style.ByRibbon:
		return Supply{ID: "ribbon", Amount: 2 * ribbonPiece * n, Unit: "mm", Text: fmt.Sprintf("Ribbon for a bow: %d pieces, 18 cm (7 in) each", 2*copies)}, true
	case style.ByMagnet:
		return Supply{ID: "magnets", Amount: 2 * n, Unit: "magnet", Text: fmt.Sprintf("%d pair%s of thin magnets", copies, plural(copies))}, true
	case style.ByBand:
		return Supply{ID: "bands", Amount: n, Unit: "band", Text: fmt.Sprintf("%d paper band%s, or a ribbon for each", copies, plural(copies))}, true
	case style.ByBrad:
		return Supply{ID: "brads", Amount: n, Unit: "brad", Text: fmt.Sprintf("%d brad%s", copies, plural(copies))}, true
	case style.ByHook:
		return Supply{ID: "hook", Amount: n, Unit: "piece", Text: fmt.Sprintf("Hook-and-loop, %d piece%s", copies, plural(copies))}, true
	case style.ByRestick:
		return Supply{ID: "restick", Amount: n, Unit: "strip", Text: fmt.Sprintf("Repositionable tape, %d strip%s", copies, plural(copies))}, true
	}
	return Supply{}, false
}

// Cautions are the usual ones for the work at hand; contents says whether
// something goes into the box.
func Cautions(contents bool) []string {
	out := []string{
		"Knife and trimmer: a fresh blade, a steel rule, a mat under the work, and cut away from your hand.",
		"Keep naked flames away from card; only LED lights go inside.",
	}
	if contents {
		out = append(
			out,
			"Card and glue are not food-safe unless marked so: keep treats wrapped or in a food-grade liner, mind allergens, and follow local food rules when selling.",
			"Do not carry a glass or heavy thing by the lid: hold the box from below.",
		)
	}
	return out
}
