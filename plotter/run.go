package plotter

import (
	"cmp"
	"math"

	"brevium/core/pattern"
	"brevium/core/strokes"
)

// How long things take, in seconds, and how fast heads go, in mm/s.
const (
	setUp     = 15
	newTool   = 20
	inTheAir  = 300
	perStroke = 0.2
	perTurn   = 0.05
)

var speeds = map[strokes.Tool]float64{strokes.Print: 200, strokes.Score: 200, strokes.Perforate: 100, strokes.Kiss: 150, strokes.Cut: 100}

// made is a stroke as it lies on the card.
type made struct {
	strokes.Stroke
	tip []pattern.Point
}

// trails tells whether a tool is a knife.
func trails(t strokes.Tool) bool {
	return t == strokes.Perforate || t == strokes.Kiss || t == strokes.Cut
}

// run follows the strokes and notes times, tools and how far the tip strayed.
func (r *Report) run(f *File, o Options, all []strokes.Stroke) ([]made, error) {
	var out []made
	// What the machine thinks of the blade, and where it really points.
	meant, blade := strokes.Blade{Behind: o.Blade}, strokes.Blade{Behind: o.Blade}
	head, clock := pattern.Pt(0, 0), float64(setUp)
	tool := strokes.Tool(-1)
	for i, s := range all {
		if s.Tool != tool {
			tool = s.Tool
			clock += newTool
			r.Tools = append(r.Tools, toolReport{Tool: tool.String(), Force: o.force(f, tool), Passes: max(1, o.Passes[tool])})
		}
		in := &r.Tools[len(r.Tools)-1]
		way := s.Flat()
		tip := way
		switch {
		case !trails(tool) || o.Blade <= 0:
			tip = s.Overrun(o.overcut(f, tool))
		case f.Head || o.Raw:
			tip = blade.Tip(way)
		default:
			tip = blade.Tip(meant.Head(s.Overrun(o.overcut(f, tool))))
		}
		if !f.Head && trails(tool) {
			r.Tip = max(r.Tip, strayed(tip, way))
		}
		air := way[0].Sub(head).Len()
		r.Travel.MM += air
		clock += air / inTheAir
		from := clock
		speed := cmp.Or(f.Speed[tool], speeds[tool])
		long := strokes.Line{Path: pattern.Straight(tip...)}.Length()
		for range in.Passes {
			clock += perStroke + long/speed + perTurn*float64(turns(tool, way))
			in.MM += long * inked(tool)
		}
		in.Strokes++
		if tool == strokes.Cut {
			r.CutMM += long
		}
		head = way[len(way)-1]
		r.Strokes = append(r.Strokes, strokeReport{N: i + 1, Tool: tool.String(), Kind: s.Kind, Points: rounded(tip), From: hundredth(from), To: hundredth(clock)})
		out = append(out, made{Stroke: s, tip: tip})
	}
	r.Travel.MM += head.Len()
	r.Seconds = hundredth(clock + head.Len()/inTheAir)
	r.deep(o)
	return out, nil
}

// inked is the share of a line that a tool cuts: of a perforation two thirds of each pitch, in its
// middle, with pitches of about 3 mm.
func inked(t strokes.Tool) float64 {
	if t == strokes.Perforate {
		return 2.0 / 3
	}
	return 1
}

func (o *Options) overcut(f *File, t strokes.Tool) float64 {
	if t != strokes.Cut || f.Head {
		return 0
	}
	return o.Overcut
}

func (o *Options) force(f *File, t strokes.Tool) float64 {
	return cmp.Or(o.Force[t], f.Force[t], float64(strokes.Force(t, o.Card)))
}

// turns counts the turns over 10° of a way; scoring tools do not slow down for them.
func turns(t strokes.Tool, way []pattern.Point) int {
	if t == strokes.Score {
		return 0
	}
	n := 0
	for i := 2; i < len(way); i++ {
		a, b := way[i-1].Sub(way[i-2]), way[i].Sub(way[i-1])
		if math.Abs(math.Atan2(a.Cross(b), a.Dot(b))) > strokes.Turn {
			n++
		}
	}
	return n
}

// strayed is how far the tip was from its way at most.
func strayed(tip, way []pattern.Point) float64 {
	near := newNear(2)
	near.add(way)
	worst := 0.0
	for _, p := range tip {
		worst = max(worst, near.to(p, 2).far)
	}
	return worst
}

// deep warns of what is pressed too deep or too little, by the card's thickness t: cuts go through at
// t + 0.02, scores press a third to two thirds of it.
func (r *Report) deep(o Options) {
	for i := range r.Tools {
		t := &r.Tools[i]
		sunk := float64(t.Passes) * t.Force / strokes.Grams
		switch t.Tool {
		case "cut":
			t.through = sunk >= o.Card+0.02-1e-9
			if !t.through {
				r.warn("shallow-cut", t.Tool, "%s mm deep in card of %s: nothing comes off; press with %s g, or in two passes", mm(sunk), mm(o.Card), mm(float64(strokes.Force(strokes.Cut, o.Card))))
			}
		case "score":
			if sunk > 0.65*o.Card+1e-9 {
				r.warn("deep-score", t.Tool, "%s mm deep in card of %s: the fold may tear; press with %s g", mm(sunk), mm(o.Card), mm(float64(strokes.Force(strokes.Score, o.Card))))
			}
			if sunk < 0.35*o.Card-1e-9 {
				r.warn("shallow-score", t.Tool, "%s mm deep in card of %s: it will not fold on the line; press with %s g", mm(sunk), mm(o.Card), mm(float64(strokes.Force(strokes.Score, o.Card))))
			}
		case "kiss":
			if sunk >= o.Card {
				r.warn("deep-kiss", t.Tool, "%s mm deep: it goes through the backing too", mm(sunk))
			}
		}
	}
}
