package main

import (
	"math/rand/v2"

	"brevium/core/band"
	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/fit"
	"brevium/core/label"
	"brevium/core/loose"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/stuff"
	"brevium/core/style"
	"brevium/core/tool"
)

func pick[T any](r *rand.Rand, of []T) T { return of[r.IntN(len(of))] }

// randomDesign is anything that can be typed into a form.
func randomDesign(r *rand.Rand) design.Inputs {
	upTo := func(most measure.Length) measure.Length { return measure.Length(r.Int64N(int64(most)) + 1) }
	odds := func(one int) bool { return r.IntN(one) == 0 }
	const mm = measure.Millimetre
	s := pick(r, style.All)
	in := design.New("random", pick(r, measure.Units), s.ID)
	for _, p := range s.Parameters {
		switch {
		case odds(4):
			in.Size[p.ID] = upTo(p.Max * 5 / 4)
		case odds(2): // what people do ask for
			in.Size[p.ID] = p.Min + upTo(2*p.Usual(in.Tools.Tick)+1)
		}
	}
	for _, o := range s.Options {
		switch {
		case o.Kind == style.ChoiceKind && odds(2):
			in.Choices[o.ID] = pick(r, o.Choices)
		case o.Kind == style.LengthKind && odds(3):
			in.Lengths[o.ID] = upTo(o.Max + 1)
		}
	}
	in.Basis, in.Fit, in.Tools.Fence = pick(r, design.Bases), pick(r, fit.Wanted), pick(r, []recipe.Fence{recipe.Left, recipe.Right})
	in.Card = paper.Card{Name: "card", GSM: 240, Thickness: 100*measure.Micrometre + upTo(pick(r, []measure.Length{mm / 2, mm / 2, 2 * mm})), Direction: pick(r, paper.Directions)}
	if odds(3) {
		in.Tools.Tick = measure.Tick(upTo(10 * mm))
	}
	if odds(2) { // room for large ones
		in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm, 2000*mm, 2000*mm
	}
	if odds(2) {
		in.Basis, in.Size = design.Scored, map[string]measure.Length{}
		for range 1 + r.IntN(3) {
			t := contents.Thing{Name: "thing", Shape: pick(r, contents.Shapes), Length: upTo(150 * mm), Width: upTo(150 * mm), Height: upTo(150 * mm),
				Count: 1 + r.IntN(6), Ease: upTo(10 * mm), Fragile: odds(3), PullOut: odds(3)}
			if t.Shape == contents.Round {
				t.Width = t.Length
			}
			if t.Shape == contents.Soft {
				t.Squeeze = r.IntN(contents.MostSqueeze)
			}
			in.Things = append(in.Things, t)
		}
		if odds(2) {
			in.Compartments = design.Compartments{Per: pick(r, []contents.Per{contents.PerKind, contents.PerThing}), As: pick(r, design.Cellings), Along: odds(2)}
		}
		for _, l := range design.Linings {
			if odds(3) {
				in.Linings = append(in.Linings, l)
			}
		}
	}
	if odds(6) {
		for _, piece := range []string{"base", "lid", "tray", "body"} {
			if odds(2) {
				d := dress.Dressing{Piece: piece, Where: pick(r, []dress.Where{dress.Walls, dress.Top, dress.Both}), Shape: pick(r, dress.Shapes), Across: odds(4),
					Layers: []dress.Layer{{Card: in.Card, Border: dress.Even(upTo(8*mm) - 2*mm)}}}
				if d.Shape == dress.Rounded {
					d.Radius = tool.LeastRadius + upTo(10*mm)
				}
				if odds(6) {
					d.Layers[0].Width = upTo(80 * mm)
				}
				in.Mats = append(in.Mats, d)
			}
		}
	}
	if odds(3) {
		decorate(r, &in)
	}
	if odds(3) {
		burden(r, &in)
	}
	in.Copies = 1 + r.IntN(3)
	return in
}

// burden says at random what a box carries, how, who makes it and of what.
func burden(r *rand.Rand, in *design.Inputs) {
	odds := func(one int) bool { return r.IntN(one) == 0 }
	const mm = measure.Millimetre
	in.Load = design.Load{Grams: float64(r.IntN(4000)), One: odds(2), Foot: [2]measure.Length{measure.Length(r.IntN(100)) * mm, measure.Length(r.IntN(100)) * mm},
		Carry: pick(r, design.Carries), Stacked: r.IntN(12), Humidity: r.IntN(101)}
	in.Hand, in.For = pick(r, stuff.Hands), pick(r, []design.Audience{"", design.ChildUnder3, design.ChildFrom3})
	in.Card.Grain, in.Card.Finish = pick(r, paper.Grains), pick(r, paper.Finishes)
	for _, piece := range []string{"base", "lid", "tray", "body", "sleeve"} {
		if odds(3) {
			in.Grains[piece] = pick(r, paper.Runs[1:])
		}
	}
	for _, k := range stuff.Joints {
		if odds(4) {
			in.Glue[k.Joint] = pick(r, stuff.Adhesives).Glue
		}
	}
	if table := stuff.Usual(); odds(4) {
		c := pick(r, table.Constants())
		in.Constants[c.ID] = c.Usual * (0.1 + 10*r.Float64())
	}
	for i := range in.Things {
		in.Things[i].Kind, in.Things[i].Grams = pick(r, contents.Kinds), float64(r.IntN(500))
	}
	if odds(2) { // a sheet whose grain has a way
		in.Sheets[0].Height = in.Sheets[0].Height * 3 / 2
	}
}

// decorate puts at random on a box what goes round it and onto it.
func decorate(r *rand.Rand, in *design.Inputs) {
	odds := func(one int) bool { return r.IntN(one) == 0 }
	if odds(2) {
		b := design.UsualBand(in.Units)
		b.Axis, b.Join, b.Notch = pick(r, design.BandAxes), pick(r, design.BandJoins), odds(2)
		b.ID, in.Bands = 1, append(in.Bands, b)
	}
	if odds(2) {
		x := design.UsualRibbon(in.Units)
		x.Way, x.Tied.Bow = pick(r, design.RibbonWays), pick(r, band.Bows)
		if odds(3) {
			x.Cut = measure.Length(100+r.IntN(900)) * measure.Millimetre
		}
		x.ID, in.Ribbons = 2, append(in.Ribbons, x)
	}
	if odds(3) {
		in.Closures = append(in.Closures, design.Closure{ID: 3, Kind: pick(r, design.ClosureKinds), Pairs: 1})
	}
	if odds(4) {
		in.Wrap = design.UsualWrapping(in.Units)
	}
	if odds(4) {
		c := design.UsualCover(pick(r, []string{"base", "lid", "tray"}), in.Units)
		c.ID, in.Covers = 4, append(in.Covers, c)
	}
	if odds(2) {
		place := pick(r, [][2]string{{"", ""}, {"base", "front"}, {"lid", "top"}, {"tray", "front"}, {"body", "front"}})
		l := design.UsualLabel(place[0], place[1], in.Units)
		l.ID, in.Labels = 5, append(in.Labels, l)
		if odds(2) { // another on top of it
			l.ID, l.Width, l.Height, l.Piece, l.Face, l.Upon = 8, l.Width/2, l.Height/2, "", "", label.Upon{Thing: "5"}
			l.Place.Across = label.Off{From: label.Left, At: measure.Length(r.Int64N(int64(5 * measure.Millimetre)))}
			in.Labels = append(in.Labels, l)
		}
		if what := pick(r, label.Whats); what.Bought() && place[0] != "" {
			bought := design.UsualBought(what, in.Units)
			bought.ID, bought.Piece, bought.Face = 7, place[0], place[1]
			bought.Place.Up.From, bought.Place.Turn = label.Top, r.IntN(90)
			in.Labels = append(in.Labels, bought)
		}
	}
	if b, err := design.Sketch(*in); err == nil && odds(2) {
		w := b.UsualWindow()
		w.ID, w.Shape, w.Film, w.Place.Turn = 9, pick(r, label.WindowShapes), odds(2), r.IntN(3)*15
		if w.Shape == label.Circle {
			w.Width = min(w.Width, w.Height)
			w.Height = w.Width
		}
		in.Windows = append(in.Windows, w)
	}
	if odds(5) {
		in.Loose = append(in.Loose, loose.Piece{ID: 6, Name: "Card for inside", Width: 60 * measure.Millimetre, Height: 40 * measure.Millimetre, Copies: 1 + r.IntN(2), Corners: loose.Square})
	}
}
