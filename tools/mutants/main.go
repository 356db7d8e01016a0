// Command mutants changes a condition of the code at a time, as a slip of the pen would,
// and runs the tests of its room against it: what they do not notice lives. It changes
// no file; the compiler is given the changed one in place of the kept one.
package main

import (
	"flag"
	"fmt"
	"log"
	"math/rand/v2"
	"os"
	"slices"
	"strings"
	"sync"
)

func main() {
	n := flag.Int("n", 200, "how many changes are tried")
	seed := flag.Uint64("seed", 1, "which of them")
	only := flag.String("only", "", "only in rooms that begin with this, such as core/pattern")
	named := flag.Bool("named", false, "try those that once lived, of named.txt")
	hands := flag.Int("hands", 2, "how many at a time")
	wide := flag.Bool("wide", false, "where the tests of its room let one live, run those of all around too")
	flag.Parse()
	var all []mutant
	var err error
	if *named {
		all, err = readNamed("tools/mutants/named.txt")
	} else {
		all, err = find("./core/...", "./store/...", "./web/...")
	}
	if err != nil {
		log.Fatal(err)
	}
	all = slices.DeleteFunc(all, func(m mutant) bool { return !strings.HasPrefix(m.room(), *only) })
	if !*named {
		random := rand.New(rand.NewPCG(*seed, 0))
		random.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
		all = all[:min(*n, len(all))]
	}
	if report(os.Stdout, try(all, *hands, *wide || *named)) > 0 && *named {
		os.Exit(1)
	}
}

// outcome is what became of a mutant.
type outcome struct {
	mutant
	fate fate
}

// try runs the tests against each, some at a time, and prints those that live as it goes.
func try(all []mutant, hands int, wide bool) []outcome {
	var out []outcome
	var mu sync.Mutex
	var work sync.WaitGroup
	next := make(chan mutant)
	for range hands {
		work.Go(func() {
			for m := range next {
				f, err := m.live(wide)
				if err != nil {
					log.Fatalf("%v: %v", m, err)
				}
				mu.Lock()
				out = append(out, outcome{m, f})
				fmt.Printf("%3d of %d  %-8s %v\n", len(out), len(all), f, m)
				mu.Unlock()
			}
		})
	}
	for _, m := range all {
		next <- m
	}
	close(next)
	work.Wait()
	return out
}

// report prints how many died, by room, and gives how many live.
func report(w *os.File, all []outcome) (lived int) {
	type tally struct{ died, all int }
	rooms := map[string]*tally{}
	total := tally{}
	for _, o := range all {
		if o.fate == senseless {
			continue
		}
		of := rooms[o.room()]
		if of == nil {
			of = &tally{}
			rooms[o.room()] = of
		}
		for _, t := range []*tally{of, &total} {
			if t.all++; o.fate == died {
				t.died++
			}
		}
	}
	names := make([]string, 0, len(rooms))
	for name := range rooms {
		names = append(names, name)
	}
	slices.Sort(names)
	fmt.Fprintln(w)
	for _, name := range names {
		fmt.Fprintf(w, "%-22s %3d of %3d died\n", name, rooms[name].died, rooms[name].all)
	}
	fmt.Fprintf(w, "%-22s %3d of %3d died: %.1f %%\n", "all", total.died, total.all, 100*float64(total.died)/float64(max(1, total.all)))
	return total.all - total.died
}
