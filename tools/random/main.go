// Command random makes designs at random, well beyond what makes sense, and
// has each made, drawn, told and printed, or refused with a sentence. It
// prints those that go wrong. With -keep it writes down what comes of each, and
// with -same it holds that against what was written down before a change that
// is to change nothing.
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

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/draw"
	"brevium/draw/export"
	"brevium/draw/pdf"
)

func main() {
	n := flag.Int("n", 50_000, "designs")
	seed := flag.Uint64("seed", 1, "of the random numbers")
	keep := flag.String("keep", "", "a file to write what comes of each design to")
	same := flag.String("same", "", "a file of -keep: say which designs come to something else now")
	flag.Parse()
	if *keep != "" || *same != "" {
		if err := compare(*seed, *n, *keep, *same); err != nil {
			log.Fatal(err)
		}
		return
	}
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
	each(seed, n, func(_ int, in design.Inputs) {
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
	})
	return good.Load(), bad.Load()
}

// each does something with n designs, on all processors; the number of one and the seed say which
// it is.
func each(seed uint64, n int, do func(i int, in design.Inputs)) {
	var all sync.WaitGroup
	for w := range runtime.NumCPU() {
		all.Go(func() {
			for i := w; i < n; i += runtime.NumCPU() {
				do(i, randomDesign(rand.New(rand.NewPCG(seed, uint64(i)))))
			}
		})
	}
	all.Wait()
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
