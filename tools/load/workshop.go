package main

import (
	"context"
	"fmt"
	"log"
	"math/rand/v2"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"text/tabwriter"
	"time"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/core/style"
	"brevium/store"
	"brevium/tools/visit"
)

// workshop is the workshop that is loaded: a steward with a thousand boxes, and makers with some
// each.
type workshop struct {
	at, file string
	pid      int
	table    *tabwriter.Writer
	steward  *visit.Browser
	makers   []*visit.Browser
	boxes    [][]int64 // the steward's, then each maker's
	hard     string    // a job that no search is soon done with
}

// each is how many boxes a maker has.
const each = 20

// open lets all in, and puts boxes of every style into the data.
func (w *workshop) open(ctx context.Context, code string, boxes, makers int) error {
	var err error
	if w.steward, err = visit.New(w.at, "steward"); err != nil {
		return err
	}
	if err := w.steward.Enter(ctx, "/set-up", code, "Steward"); err != nil {
		return err
	}
	names := []string{"Steward"}
	for n := range makers {
		b, err := w.join(ctx, fmt.Sprint("Maker ", n))
		if err != nil {
			return err
		}
		w.makers, names = append(w.makers, b), append(names, fmt.Sprint("Maker ", n))
	}
	s, err := store.Open(ctx, w.file)
	if err != nil {
		return err
	}
	defer s.Close()
	if err := s.Workshop(ctx, people.NewPepper()); err != nil {
		return err
	}
	random := rand.New(rand.NewPCG(1, 2))
	for n, name := range names {
		p, err := s.Of(ctx).PersonCalled(ctx, name)
		if err != nil {
			return err
		}
		have, ids := each, []int64{}
		if n == 0 {
			have = boxes
		}
		for i := range have {
			id, err := s.Of(people.With(ctx, p)).Add(people.With(ctx, p), randomBox(random, i+n))
			if err != nil {
				return err
			}
			ids = append(ids, id)
		}
		w.boxes = append(w.boxes, ids)
	}
	return nil
}

// join lets one more maker in, in a window of their own.
func (w *workshop) join(ctx context.Context, name string) (*visit.Browser, error) {
	path, err := w.steward.Invite(ctx)
	if err != nil {
		return nil, err
	}
	b, err := visit.New(w.at, name)
	if err != nil {
		return nil, err
	}
	return b, b.Enter(ctx, path, "", name)
}

func randomBox(random *rand.Rand, i int) design.Inputs {
	x := style.Boxes()[i%len(style.Boxes())]
	in := design.New(fmt.Sprintf("Box %d", i), measure.MM, x.ID)
	if i%3 == 0 {
		in.Things = []contents.Thing{{Name: "Jar", Shape: contents.Round, Count: 1 + random.IntN(4), Ease: contents.UsualEase,
			Length: measure.Length(20+random.IntN(20)) * measure.Millimetre, Height: measure.Length(25+random.IntN(40)) * measure.Millimetre}}
		in.Things[0].Width = in.Things[0].Length
	} else {
		in.Card.Thickness = measure.Length(200+random.IntN(200)) * measure.Micrometre
	}
	return in
}

// manyKinds asks for pages of a box on two hundred kinds of sheet, once each, and tells what
// memory they take.
func (w *workshop) manyKinds(ctx context.Context) error {
	pages := map[string]*timing{"/box": {}, "/compare": {}}
	_ = os.WriteFile(fmt.Sprintf("/proc/%d/clear_refs", w.pid), []byte("5"), 0) // the highest so far is forgotten
	rest := memory(w.pid, "VmRSS")
	for n := range 10 {
		box, err := w.steward.File(ctx, "/bring", "designs", visit.ManyKinds(n))
		if err != nil || box.Next == "" {
			return fmt.Errorf("the box of two hundred kinds is not taken: %d, %w", box.Status, err)
		}
		for stop, t := range pages {
			t.add(w.steward.Get(ctx, strings.TrimSuffix(box.Next, "/box")+stop))
		}
	}
	for _, stop := range []string{"/box", "/compare"} {
		pages[stop].row(w.table, "200 kinds of sheet: "+stop)
	}
	fmt.Fprintf(w.table, "memory for that\t%d MB above %d MB at rest\n", memory(w.pid, "VmHWM")-rest, rest)
	return nil
}

// jobs makes a large job and changes it.
func (w *workshop) jobs(ctx context.Context) error {
	form := []string{"name", "fair"}
	for box := range 20 {
		form = append(form, fmt.Sprintf("copies.%d", w.boxes[0][box]), "50")
	}
	a, err := w.steward.Post(ctx, "/jobs", form...)
	if err != nil || a.Next == "" {
		return fmt.Errorf("the job is not made: %d, %w", a.Status, err)
	}
	// And one that no search is soon done with, which all work on.
	form = []string{"name", "hard"}
	for box := range 28 {
		form = append(form, fmt.Sprintf("copies.%d", w.boxes[0][box]), strconv.Itoa(3+(box+1)*7%11))
	}
	hard, err := w.steward.Post(ctx, "/jobs", form...)
	if err != nil || hard.Next == "" {
		return fmt.Errorf("the second job is not made: %d, %w", hard.Status, err)
	}
	w.hard = hard.Next
	if _, err := w.steward.Post(ctx, w.hard+"/share", "shared", "1"); err != nil {
		return err
	}
	seen, changed := &timing{}, &timing{}
	for n := range 20 {
		page, err := w.steward.Get(ctx, a.Next)
		if err != nil {
			return err
		}
		seen.add(page, nil)
		changed.add(w.steward.Post(ctx, a.Next, "version", page.Version(), fmt.Sprintf("copies.%d", w.boxes[0][0]), strconv.Itoa(40+n)))
	}
	seen.row(w.table, "a job of 1,000 boxes, seen")
	changed.row(w.table, "a job of 1,000 boxes, changed")
	return nil
}

// round lets makers work for a while, beside searches and attackers, and gives their p95.
func (w *workshop) round(ctx context.Context, lasts time.Duration, beside string, searches int, attacked bool) (time.Duration, error) {
	ctx, stop := context.WithTimeout(ctx, lasts)
	defer stop()
	views, changes := &timing{}, &timing{}
	var all sync.WaitGroup
	for n := range searches {
		b := w.makers[n] // beside their own work
		all.Go(func() {
			for ctx.Err() == nil {
				began := time.Now()
				_, _ = b.Post(ctx, w.hard+"/search", "seconds", "5")
				if time.Since(began) < 500*time.Millisecond && ctx.Err() == nil {
					time.Sleep(time.Second)
				}
			}
		})
	}
	if attacked {
		attacks, err := w.attacks(ctx)
		if err != nil {
			return 0, err
		}
		for _, x := range attacks {
			all.Go(func() {
				if err := x.Do(ctx); err != nil {
					log.Printf("%s: %v", x.Name, err)
				}
			})
		}
	}
	for n, b := range w.makers {
		all.Go(func() { work(ctx, b, w.boxes[n+1], n, views, changes) })
	}
	all.Wait()
	views.row(w.table, fmt.Sprintf("%d makers %s: a view", len(w.makers), beside))
	changes.row(w.table, fmt.Sprintf("%d makers %s: a change", len(w.makers), beside))
	both := &timing{took: append(slices.Clone(views.took), changes.took...)}
	return both.at(0.95), nil
}

var classCode = regexp.MustCompile(`/class/\w+`)

// attacks are one attacker of each kind.
func (w *workshop) attacks(ctx context.Context) ([]visit.Attack, error) {
	board := fmt.Sprintf("/boxes/%d/class", w.boxes[0][0])
	if _, err := w.steward.Post(ctx, board, "do", "open"); err != nil {
		return nil, err
	}
	page, err := w.steward.Get(ctx, board)
	if err != nil {
		return nil, err
	}
	return visit.Attacks(w.at, classCode.FindString(page.Body), func(name string) (*visit.Browser, error) { return w.join(ctx, name) }, w.steward)
}

// work is one maker, who thinks about five seconds between one thing and the next: a view, and
// then a change or another view, of boxes of their own.
func work(ctx context.Context, b *visit.Browser, boxes []int64, n int, views, changes *timing) {
	random := rand.New(rand.NewPCG(uint64(n), 7))
	stops := []string{"contents", "box", "fit", "dressing", "sheets", "making"}
	wait := func(d time.Duration) bool {
		select {
		case <-ctx.Done():
			return false
		case <-time.After(d):
			return true
		}
	}
	think := func() time.Duration { return 3*time.Second + time.Duration(random.Int64N(int64(4*time.Second))) }
	box, version := boxes[0], ""
	if !wait(time.Duration(random.Int64N(int64(5 * time.Second)))) {
		return
	}
	for {
		a, err := b.Get(ctx, fmt.Sprintf("/boxes/%d/%s", box, stops[random.IntN(len(stops))]))
		if ctx.Err() != nil {
			return
		}
		views.add(a, err)
		if v := a.Version(); v != "" {
			version = v
		}
		if !wait(think()) {
			return
		}
		if random.IntN(2) == 0 {
			a, err := b.Post(ctx, fmt.Sprintf("/boxes/%d/sheets", box), "version", version, "copies", strconv.Itoa(1+random.IntN(9)))
			if ctx.Err() != nil {
				return
			}
			changes.add(a, err)
			if version = ""; random.IntN(4) == 0 { // on to another box
				box = boxes[random.IntN(len(boxes))]
			}
		}
		if !wait(think()) {
			return
		}
	}
}
