// Command mutants changes a condition of the code at a time, as a slip of the pen would,
// and runs the tests that come by it: what they do not notice lives. It changes no file: all
// changes are woven into a copy that the compiler is given, and wait there for their number,
// so that the tests are compiled once.
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
	"time"
)

func main() {
	n := flag.Int("n", 200, "how many changes are tried")
	seed := flag.Uint64("seed", 1, "which of them")
	only := flag.String("only", "", "only in rooms that begin with this, such as core/pattern")
	named := flag.Bool("named", false, "try those that once lived, of named.txt")
	hands := flag.Int("hands", 2, "how many at a time")
	budget := flag.Duration("budget", 2*time.Minute, "how much of the tests' time is given to each")
	flag.Parse()
	lived, err := run(*n, *seed, *only, *named, *hands, *budget)
	if err != nil {
		log.Fatal(err)
	}
	if lived > 0 && *named {
		os.Exit(1)
	}
}

func run(n int, seed uint64, only string, named bool, hands int, budget time.Duration) (lived int, err error) {
	folder, err := os.MkdirTemp("", "brevium-mutants-")
	if err != nil {
		return 0, err
	}
	defer os.RemoveAll(folder)
	b := bench{folder: folder, budget: budget}
	if named {
		if b.all, err = readNamed("tools/mutants/named.txt"); err != nil {
			return 0, err
		}
		return b.tryAll(hands, b.tryWritten)
	}
	if b.all, err = find("./core/...", "./store/...", "./web/..."); err != nil {
		return 0, err
	}
	b.all = slices.DeleteFunc(b.all, func(m mutant) bool { return !strings.HasPrefix(m.room(), only) })
	random := rand.New(rand.NewPCG(seed, 0))
	random.Shuffle(len(b.all), func(i, j int) { b.all[i], b.all[j] = b.all[j], b.all[i] })
	b.all = b.all[:min(n, len(b.all))]
	list, err := overlay(b.all, folder)
	if err != nil {
		return 0, err
	}
	if b.suites, err = suites(list, folder, hands); err != nil {
		return 0, err
	}
	fmt.Printf("%d changes woven in, the tests of %d rooms compiled\n", len(b.all), len(b.suites))
	if err := watch(b.suites, folder, hands); err != nil {
		return 0, err
	}
	fmt.Println("which tests come by them is known")
	return b.tryAll(hands, b.try)
}

// outcome is what became of a mutant.
type outcome struct {
	mutant
	fate fate
}

// tryAll tries each change, some at a time, prints what becomes of it and how many live.
func (b bench) tryAll(hands int, try func(int) (fate, error)) (lived int, err error) {
	var out []outcome
	var mu sync.Mutex
	faults := make([]error, len(b.all))
	side(hands, len(b.all), func(i int) {
		f, err := try(i)
		faults[i] = err
		mu.Lock()
		defer mu.Unlock()
		out = append(out, outcome{b.all[i], f})
		fmt.Printf("%3d of %d  %-8s %v\n", len(out), len(b.all), f, b.all[i])
	})
	for _, err := range faults {
		if err != nil {
			return 0, err
		}
	}
	return report(os.Stdout, out), nil
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
