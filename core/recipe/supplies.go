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
	tabs, papers := w.patches()
	return tabs.long + papers.long
}

// stuck is how much is stuck: as runs of tape in mm, and as area in mm².
type stuck struct{ long, area float64 }

// patches adds up the glue patches of one box, and the edges and areas of its papers.
func (w Work) patches() (tabs, papers stuck) {
	for _, p := range w.Parts {
		for _, g := range p.Pattern.Glue {
			if g.Dry {
				continue
			}
			short, long := pattern.Narrowest(g.Area)
			tabs.long += long * math.Ceil(short/tapeEvery) * float64(p.Copies())
			tabs.area += math.Abs(pattern.Area(g.Area)) * float64(p.Copies())
		}
	}
	for _, m := range w.Mats {
		for i, q := range m.Shape {
			papers.long += m.Shape[(i+1)%len(m.Shape)].Sub(q).Len()
		}
		papers.area += math.Abs(pattern.Area(m.Shape))
	}
	return tabs, papers
}

// Sticking is what something is stuck with where it was chosen by itself: the adhesive, what a
// person calls it, and how long it is held.
type Sticking struct {
	With        string // tape, wet-glue, or another
	Words, Hold string
	Burns       bool // it is hot
}

// onPaper is how many dots or pads hold a paper, one at each corner and more along its edges.
const onPaper = 90.0 // mm between two

// AdhesiveSupplies are the adhesives for all copies: tape by length, wet glue by area; what the
// papers are stuck with by itself, where that is another.
func (w Work) AdhesiveSupplies() []Supply {
	tabs, papers := w.patches()
	n := float64(w.Copies)
	wet := w.Adhesive.Wet()
	own := w.Papers != nil && papers.long > 0 && w.Papers.With != string(w.Adhesive)
	tape, glue := stuck{}, stuck{}
	add := func(x stuck, wet bool) {
		if wet {
			glue.area += x.area
		} else {
			tape.long += x.long
		}
	}
	add(tabs, wet)
	if !own {
		add(papers, wet)
	} else if w.Papers.With == string(style.TapeAdhesive) || w.Papers.With == string(style.WetGlue) {
		add(papers, w.Papers.With == string(style.WetGlue))
	}
	var out []Supply
	if glue.area > 0 || wet {
		out = append(out, Supply{ID: "glue", Amount: glue.area * n / 100, Unit: "cm²", Text: fmt.Sprintf("Wet glue for %.0f cm² of card", glue.area*n/100)})
	}
	if tape.long > 0 || !wet {
		narrow := w.narrow()
		if wet {
			narrow = 0
		}
		out = append(out, Supply{ID: "tape", Amount: tape.long * n, Unit: "mm",
			Text: fmt.Sprintf("Double-sided tape, about %.1f m", math.Ceil(tape.long*n/100)/10) + tapeWidths(narrow*n, (tape.long-narrow)*n)})
	}
	if !own {
		return out
	}
	each := math.Ceil(papers.long/onPaper) * n
	switch w.Papers.With {
	case "dot":
		out = append(out, Supply{ID: "paper.dots", Amount: each, Unit: "dot", Text: fmt.Sprintf("%.0f glue dots, for the papers", each)})
	case "foam-pad":
		out = append(out, Supply{ID: "paper.pads", Amount: each, Unit: "pad", Text: fmt.Sprintf("%.0f foam pads, for the papers", each)})
	case "glue-stick":
		out = append(out, Supply{ID: "paper.stick", Amount: 1, Unit: "stick", Text: "A glue stick, for the papers"})
	case "hot-glue":
		out = append(out, Supply{ID: "paper.hot", Amount: 1, Unit: "gun", Text: "Hot glue, for the papers"})
	}
	return out
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
// something goes into the box, hot whether something is stuck hot.
func Cautions(contents, hot bool) []string {
	out := []string{
		"Knife and trimmer: a fresh blade, a steel rule, a mat under the work, and cut away from your hand.",
		"Keep naked flames away from card; only LED lights go inside.",
	}
	if hot {
		out = append(out, "Hot glue burns: work on a mat, keep fingers off the bead, and children away from the gun.")
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
