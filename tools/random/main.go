// Command random makes designs at random, well beyond what makes sense, and
// has each made, drawn, told and printed, or refused with a sentence. It
// prints those that go wrong.
package main

import (
	"bytes"
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"log"
	"math/rand/v2"
	"runtime"
	"sync"
	"sync/atomic"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/recipe"
	"brevium/core/style"
	"brevium/draw"
	"brevium/draw/export"
	"brevium/draw/pdf"
)

func main() {
	n := flag.Int("n", 50_000, "designs")
	seed := flag.Uint64("seed", 1, "of the random numbers")
	flag.Parse()
	made, wrong := try(*seed, *n, func(in design.Inputs, err error) { fmt.Printf("%v\n%s\n\n", err, in.Write()) })
	fmt.Printf("%d designs: %d made, drawn, told and printed, %d refused, %d went wrong\n", *n, made, int64(*n)-made-wrong, wrong)
	if wrong > 0 {
		log.Fatal("some went wrong")
	}
}

// try makes n designs and tells of each that goes wrong.
func try(seed uint64, n int, tell func(design.Inputs, error)) (made, wrong int64) {
	var good, bad atomic.Int64
	var telling sync.Mutex
	var all sync.WaitGroup
	for w := range runtime.NumCPU() {
		all.Go(func() {
			for i := w; i < n; i += runtime.NumCPU() {
				in := randomDesign(rand.New(rand.NewPCG(seed, uint64(i))))
				err := fault.Guard(func() error { return whole(in) })
				var f *fault.Fault
				switch {
				case err == nil:
					good.Add(1)
				case !errors.As(err, &f) || f.Code == fault.Internal || f.Text == "":
					bad.Add(1)
					telling.Lock()
					tell(in, errors.Join(err, fault.Of(err).Cause))
					telling.Unlock()
				}
			}
		})
	}
	all.Wait()
	return good.Load(), bad.Load()
}

// whole does with a design all that the program can do with one.
func whole(in design.Inputs) error {
	again, err := design.Read(in.Write())
	if err != nil {
		return err
	}
	r, err := design.Make(context.Background(), again)
	if err != nil {
		return err
	}
	if _, err := r.Plan(); err != nil {
		return err
	}
	m := draw.ModelOf(r, false)
	for stage := range len(m.Stages) + 1 {
		if _, err := m.Picture("folded", float64(stage)); err != nil {
			return fmt.Errorf("drawn at stage %d: %w", stage, err)
		}
	}
	for _, p := range r.Parts {
		n := draw.Net{Part: p.Part, From: draw.FromOf(p), Mats: r.Mats, Findings: r.Checks, Fence: in.Tools.Fence, Units: in.Units, Tick: in.Tools.Tick}
		if len(n.Picture().Inline()) == 0 || len(export.OfPiece(p).SVG(export.Layers{Notes: true})) == 0 {
			return errors.New("a net is not drawn")
		}
	}
	for _, s := range r.Steps {
		if s.Text == "" {
			return errors.New("a step says nothing")
		}
	}
	var out bytes.Buffer
	if err := pdf.Write(&out, r, pdf.Print{Paper: pdf.A4}); err != nil {
		return fmt.Errorf("printed: %w", err)
	}
	_, err = io.Copy(io.Discard, &out)
	return err
}

func pick[T any](r *rand.Rand, of []T) T { return of[r.IntN(len(of))] }

// randomDesign is anything that can be typed into a form.
func randomDesign(r *rand.Rand) design.Inputs {
	upTo := func(most measure.Length) measure.Length { return measure.Length(r.Int64N(int64(most)) + 1) }
	odds := func(one int) bool { return r.IntN(one) == 0 }
	const mm = measure.Millimetre
	s := pick(r, style.All)
	in := design.New("random", pick(r, measure.Units), s.ID)
	for _, p := range s.Parameters {
		if odds(2) {
			in.Size[p.ID] = upTo(p.Max * 5 / 4)
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
				in.Mats = append(in.Mats, dress.Dressing{Piece: piece, Where: pick(r, []dress.Where{dress.Walls, dress.Top, dress.Both}),
					Layers: []dress.Layer{{Card: in.Card, Border: dress.Even(upTo(8 * mm))}}})
			}
		}
	}
	in.Copies = 1 + r.IntN(3)
	return in
}
