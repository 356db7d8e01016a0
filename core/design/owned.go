package design

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/inspect"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/strict"
	"brevium/core/tool"
)

// The tools on the table, as they stand in a file.
type (
	toolsFile struct {
		Fence    string         `json:"fence,omitempty"`
		Trimmer  measure.Text   `json:"trimmer,omitempty"`
		Punches  []punchFile    `json:"punches,omitempty"`
		Rounders []measure.Text `json:"rounders,omitempty"`
		Circles  *circlesFile   `json:"circles,omitempty"`
		Dies     []dieFile      `json:"dies,omitempty"`
		Machine  *machineFile   `json:"machine,omitempty"`
		With     string         `json:"with,omitempty"`
	}
	machineFile struct {
		Mat     string       `json:"mat"`
		More    []string     `json:"more,omitempty"`
		Margin  measure.Text `json:"margin,omitempty"`
		Blade   measure.Text `json:"blade,omitempty"`
		Overcut measure.Text `json:"overcut,omitempty"`
		Force   int          `json:"force,omitempty"`
		Score   int          `json:"score,omitempty"`
		Scores  tool.Scores  `json:"scores,omitempty"`
	}
	punchFile struct {
		Across measure.Text `json:"across"`
		Reach  measure.Text `json:"reach,omitempty"`
	}
	circlesFile struct {
		From measure.Text `json:"from"`
		To   measure.Text `json:"to"`
	}
	dieFile struct {
		Width  measure.Text `json:"width"`
		Height measure.Text `json:"height"`
	}
)

func (r *reader) tools(f toolsFile) {
	if f.Fence != "" {
		r.in.Tools.Fence = recipe.Fence(f.Fence)
	}
	r.in.Tools.Trimmer = r.length("tools.trimmer", f.Trimmer, UsualTrimmer)
	own := &r.in.Tools.Owned
	for i, p := range f.Punches {
		at := fault.Path("tools.punches", i)
		own.Punches = append(own.Punches, tool.Punch{Across: r.length(fault.Path(at, "across"), p.Across, 0), Reach: r.length(fault.Path(at, "reach"), p.Reach, 0)})
	}
	for i, t := range f.Rounders {
		own.Rounders = append(own.Rounders, r.length(fault.Path("tools.rounders", i), t, 0))
	}
	if c := f.Circles; c != nil {
		own.Circles = tool.Circles{From: r.length("tools.circles.from", c.From, 0), To: r.length("tools.circles.to", c.To, 0)}
	}
	if m := f.Machine; m != nil {
		usual := tool.UsualMachine()
		own.Machine = tool.Machine{
			Force: m.Force, ScoreForce: m.Score, Scores: m.Scores, Margin: r.length("tools.machine.margin", m.Margin, 0),
			Blade: r.length("tools.machine.blade", m.Blade, usual.Blade), Overcut: r.length("tools.machine.overcut", m.Overcut, usual.Overcut),
		}
		for _, name := range append([]string{m.Mat}, m.More...) {
			mat, err := tool.ParseMat(name)
			if err != nil {
				r.fail(fault.At("tools.machine", err))
			}
			own.Machine.Mats = append(own.Machine.Mats, mat)
		}
	}
	with, err := tool.ParseWith(f.With)
	if err != nil {
		r.fail(fault.At("tools.with", err))
	}
	r.in.Tools.With = with
	for i, d := range f.Dies {
		at := fault.Path("tools.dies", i)
		own.Dies = append(own.Dies, tool.Die{Width: r.length(fault.Path(at, "width"), d.Width, 0), Height: r.length(fault.Path(at, "height"), d.Height, 0)})
	}
}

func writeTools(t Tools) toolsFile {
	f := toolsFile{Fence: string(t.Fence), Trimmer: mmText(t.Trimmer), With: string(t.With)}
	for _, p := range t.Owned.Punches {
		x := punchFile{Across: mmText(p.Across)}
		if p.Reach > 0 {
			x.Reach = mmText(p.Reach)
		}
		f.Punches = append(f.Punches, x)
	}
	for _, l := range t.Owned.Rounders {
		f.Rounders = append(f.Rounders, mmText(l))
	}
	if c := t.Owned.Circles; c != (tool.Circles{}) {
		f.Circles = &circlesFile{mmText(c.From), mmText(c.To)}
	}
	if m := t.Owned.Machine; !m.None() {
		f.Machine = &machineFile{Mat: m.Mats[0].Name, Blade: mmText(m.Blade), Overcut: mmText(m.Overcut), Force: m.Force, Score: m.ScoreForce, Scores: m.Scores}
		for _, more := range m.Mats[1:] {
			f.Machine.More = append(f.Machine.More, more.Name)
		}
		if m.Margin > 0 {
			f.Machine.Margin = mmText(m.Margin)
		}
	}
	for _, d := range t.Owned.Dies {
		f.Dies = append(f.Dies, dieFile{mmText(d.Width), mmText(d.Height)})
	}
	return f
}

// Same reports whether two makers have the same tools.
func (t Tools) Same(o Tools) bool {
	return t.Tick == o.Tick && bytes.Equal(WriteTools(t), WriteTools(o))
}

// WriteTools and ReadTools keep a maker's tools by themselves, as a design file has them.
func WriteTools(t Tools) json.RawMessage {
	text, err := json.Marshal(writeTools(t))
	if err != nil {
		panic(err) // every field is plain text
	}
	return text
}

// ReadTools reads what WriteTools wrote; what is left out stays as it is in usual.
func ReadTools(text []byte, usual Tools) (Tools, error) {
	var f toolsFile
	if err := strict.Decode(text, &f); err != nil {
		return usual, err
	}
	in := Plain("tools", measure.MM)
	in.Tools = usual
	in.Tools.Owned = tool.Owned{}
	r := &reader{in: in, unit: measure.MM}
	r.tools(f)
	if r.err != nil {
		return usual, r.err
	}
	return r.in.Tools, r.in.Check()
}

// usualPunches are the holes that punches make, by the unit of the hand.
var usualPunches = map[bool][]measure.Length{
	true:  {measure.Inch / 8, measure.Inch * 3 / 16, measure.Inch / 4, measure.Inch * 5 / 16},
	false: {3 * measure.Millimetre, 4 * measure.Millimetre, 5 * measure.Millimetre, 6 * measure.Millimetre, 8 * measure.Millimetre},
}

// punches are the sizes of the maker's own, the smallest first, or the usual ones.
func (in *Inputs) punches() []measure.Length {
	if own := in.Tools.Owned.Holes(); len(own) > 0 {
		return own
	}
	return usualPunches[in.Units == measure.In]
}

// byTools says what the maker's tools do not make: holes, rounded corners and labels of other
// sizes, holes further in than a punch gets. Of what is not owned at all nothing is said.
func (r *Result) byTools() []inspect.Finding {
	own := r.Inputs.Tools.Owned
	var out []inspect.Finding
	warn := func(id, piece, format string, args ...any) {
		f := inspect.Finding{ID: id, Verdict: inspect.Warn, Piece: piece, Text: fmt.Sprintf(format, args...)}
		if !slices.ContainsFunc(out, func(x inspect.Finding) bool { return x.Text == f.Text }) {
			out = append(out, f)
		}
	}
	if len(own.Punches) > 0 {
		for _, p := range r.Parts {
			if r.isLabel(p.ID) {
				continue // a string goes through any hole
			}
			for _, o := range p.Pattern.Openings {
				across, deep, round := bite(o, p.Pattern.Outline)
				if !round {
					continue
				}
				near, reach, ok := own.Cuts(across, deep)
				switch {
				case ok:
				case reach > 0:
					warn("punch.reach", p.ID, "Your %s punch gets as far as %s from the edge, and the %s in the %s lies %s from it: use one that is struck, or cut round a mark with a knife, on a mat.",
						r.Show(across), r.Show(reach), o.Kind, strings.ToLower(p.Name), r.Show(deep))
				default:
					warn("punch.size", p.ID, "No punch of yours makes the %s of %s in the %s: you have %s. Cut it round a mark with a knife, on a mat, or give it a size that is there.",
						o.Kind, r.Show(across), strings.ToLower(p.Name), r.sizes(near))
				}
			}
		}
	}
	if len(own.Rounders) > 0 {
		for _, d := range r.Inputs.Mats {
			if near, ok := own.Rounds(d.Radius); d.Shape == dress.Rounded && !ok {
				warn("rounder", d.Piece, "No corner rounder of yours is for %s: you have %s.", r.Show(d.Radius), r.sizes(near))
			}
		}
	}
	if len(own.Dies) > 0 {
		for _, l := range r.Inputs.Labels {
			if l.What.Bought() || l.Shape == label.Rectangle {
				continue // a trimmer cuts it
			}
			if l.Shape == label.Circle && own.Circles.Cut(l.Width) {
				continue
			}
			if near, ok := own.Die(l.Width, l.Height); !ok {
				warn("die", "", "No die of yours cuts a %s of %s; %s is nearest. It is cut round its printed outline with scissors.", strings.ToLower(l.Name),
					measure.Sides(r.Inputs.Units, r.Inputs.Tools.Tick, l.Width, l.Height), measure.Sides(r.Inputs.Units, r.Inputs.Tools.Tick, near.Width, near.Height))
			}
		}
	}
	return out
}

func (r *Result) isLabel(piece string) bool {
	return slices.ContainsFunc(r.Inputs.Labels, func(l label.Label) bool {
		for n := range l.Layers {
			if piece == labelID(l, n+1) {
				return true
			}
		}
		return false
	})
}

// sizes writes lengths: "1/8 and 1/4 in".
func (r *Result) sizes(all []measure.Length) string {
	return recipe.Numbers(all, r.Inputs.Units, r.Inputs.Tools.Tick)
}

// bite is how far across an opening is, if a punch makes it, and how far its middle lies in from
// the outline: a round hole, or a half-round notch, which lies on it.
func bite(o pattern.Opening, outline pattern.Loop) (across, deep measure.Length, round bool) {
	if len(o.Loop) != 2 || math.Abs(math.Abs(o.Loop[0].Bulge)-1) > 1e-9 {
		return 0, 0, false
	}
	a, b := o.Loop[0].Point, o.Loop[1].Point
	across = measure.FromMM(b.Sub(a).Len())
	if math.Abs(math.Abs(o.Loop[1].Bulge)-1) > 1e-9 {
		return across, 0, true
	}
	middle, flat, nearest := a.Add(b).Scale(0.5), outline.Flat(), math.Inf(1)
	for i, p := range flat {
		nearest = min(nearest, pattern.Segment{A: p, B: flat[(i+1)%len(flat)]}.Distance(middle))
	}
	return across, measure.FromMM(nearest), true
}
