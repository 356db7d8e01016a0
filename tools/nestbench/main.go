// Command nestbench lays jigsaws by shape and prints a table: sheets that were cut to pieces, so that
// the least number is known, what was found, and what the trimmer's rectangles take.
package main

import (
	"context"
	"flag"
	"fmt"
	"log"
	"math/rand"
	"os"
	"text/tabwriter"
	"time"

	"brevium/core/nest"
	"brevium/core/nest/jigsaw"
)

func main() {
	seed := flag.Int64("seed", 1, "of the jigsaws")
	per := flag.Int("per", 2, "jigsaws of each size")
	seconds := flag.Float64("seconds", 5, "for each")
	flag.Parse()
	if err := run(*seed, *per, *seconds); err != nil {
		log.Fatal(err)
	}
}

// sizes are sheets and pieces.
var sizes = [][2]int{{1, 4}, {1, 6}, {2, 10}, {3, 15}, {4, 24}, {6, 42}}

func run(seed int64, per int, seconds float64) error {
	out := tabwriter.NewWriter(os.Stdout, 0, 0, 2, ' ', tabwriter.AlignRight)
	fmt.Fprintln(out, "sheets\tpieces\tjigsaws\tsolved\tfound\ttrimmer\tseconds\t")
	for _, size := range sizes {
		solved, found, trimmer := 0, 0, 0
		start := time.Now()
		for i := range per {
			rng := rand.New(rand.NewSource(seed*1_000_003 + int64(size[1]*1000+i)))
			r, err := nest.Solve(context.Background(), jigsaw.Job(rng, size[0], size[1]), nest.Effort{Seconds: seconds, Seed: 1})
			if err != nil {
				return err
			}
			if len(r.Sheets) == size[0] {
				solved++
			}
			found += len(r.Sheets)
			trimmer += r.Trimmer
		}
		fmt.Fprintf(out, "%d\t%d\t%d\t%d\t%d\t%d\t%.1f\t\n", size[0], size[1], per, solved, found, trimmer, time.Since(start).Seconds())
	}
	return out.Flush()
}
