// Command load fills a workshop with boxes, serves it by bin/brevium, lets
// makers use it all at once, and prints how long they waited. It stays on this
// machine and ends by itself.
package main

import (
	"bufio"
	"context"
	"flag"
	"fmt"
	"log"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"text/tabwriter"
	"time"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/store"
	"brevium/tools/visit"
)

// mostMakers and mostBoxes keep a slip of the hand from flooding the machine.
const (
	mostMakers = 500
	mostBoxes  = 20_000
)

func main() {
	boxes := flag.Int("boxes", 1000, "boxes in the workshop")
	makers := flag.Int("makers", 50, "makers at once, each with a change every 5 s and a view every 2 s")
	lasts := flag.Duration("time", 30*time.Second, "of each round of makers")
	program := flag.String("program", filepath.Join("bin", "brevium"), "the program")
	flag.Parse()
	if err := run(context.Background(), *program, min(*boxes, mostBoxes), min(*makers, mostMakers), *lasts); err != nil {
		log.Fatal(err)
	}
}

func run(ctx context.Context, program string, boxes, makers int, lasts time.Duration) error {
	folder, err := os.MkdirTemp("", "brevium-load-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(folder)
	if err := fill(ctx, filepath.Join(folder, "brevium.db"), boxes); err != nil {
		return err
	}
	server, at, err := serve(ctx, program, folder)
	if err != nil {
		return err
	}
	defer func() {
		_ = server.Process.Signal(syscall.SIGTERM)
		_ = server.Wait()
	}()
	table := tabwriter.NewWriter(os.Stdout, 0, 4, 2, ' ', 0)
	defer table.Flush()
	fmt.Fprintf(table, "what\tmedian\tp95\tworst\ttimes\terrors\tkB\n")
	b, err := visit.New(at, "alone")
	if err != nil {
		return err
	}
	alone := []struct {
		name, path string
		n          int
	}{{"list, first page", "/", 200}, {"list, searched", "/?find=tray", 50}, {"a box's second stop, seen again", "/boxes/7/box", 50}, {"the biggest box", "/boxes/7/biggest", 10}}
	for _, x := range alone {
		t := &timing{}
		for range x.n {
			t.add(b.Get(ctx, x.path))
		}
		t.row(table, x.name)
	}
	if err := jobs(ctx, table, b); err != nil {
		return err
	}
	quiet, err := round(ctx, table, at, makers, boxes, lasts, 0)
	if err != nil {
		return err
	}
	busy, err := round(ctx, table, at, makers, boxes, lasts, 3)
	if err != nil {
		return err
	}
	fmt.Fprintf(table, "three searches raise the makers' p95 by\t%.0f %%\n", 100*(busy.Seconds()/quiet.Seconds()-1))
	fmt.Fprintf(table, "memory of the server\t%d MB, at its highest %d MB\n", memory(server.Process.Pid, "VmRSS"), memory(server.Process.Pid, "VmHWM"))
	return nil
}

// fill puts random boxes of every style into a database.
func fill(ctx context.Context, file string, n int) error {
	s, err := store.Open(ctx, file)
	if err != nil {
		return err
	}
	defer s.Close()
	random := rand.New(rand.NewPCG(1, 2))
	for i := range n {
		x := style.Boxes()[i%len(style.Boxes())]
		in := design.New(fmt.Sprintf("Box %d", i), measure.MM, x.ID)
		if i%3 == 0 {
			in.Things = []contents.Thing{{Name: "Jar", Shape: contents.Round, Count: 1 + random.IntN(4), Ease: contents.UsualEase,
				Length: measure.Length(20+random.IntN(20)) * measure.Millimetre, Height: measure.Length(25+random.IntN(40)) * measure.Millimetre}}
			in.Things[0].Width = in.Things[0].Length
		} else {
			in.Card.Thickness = measure.Length(200+random.IntN(200)) * measure.Micrometre
		}
		if _, err := s.Add(ctx, in); err != nil {
			return err
		}
	}
	return nil
}

// serve starts the program on a free port.
func serve(ctx context.Context, program, folder string) (*exec.Cmd, string, error) {
	c := exec.CommandContext(ctx, program, "serve", "--address", "127.0.0.1:0", "--data", folder)
	c.Stderr = os.Stderr
	out, err := c.StdoutPipe()
	if err != nil {
		return nil, "", err
	}
	if err := c.Start(); err != nil {
		return nil, "", err
	}
	line, err := bufio.NewReader(out).ReadString('\n')
	_, rest, found := strings.Cut(line, "http://")
	if err != nil || !found {
		return nil, "", fmt.Errorf("the program said %q: %w", line, err)
	}
	return c, "http://" + strings.Fields(rest)[0], nil
}

// jobs makes a large job and changes it.
func jobs(ctx context.Context, table *tabwriter.Writer, b *visit.Browser) error {
	form := []string{"name", "fair"}
	for box := 1; box <= 20; box++ {
		form = append(form, "copies."+strconv.Itoa(box), "50")
	}
	a, err := b.Post(ctx, "/jobs", form...)
	if err != nil || a.Next == "" {
		return fmt.Errorf("the job is not made: %d, %w", a.Status, err)
	}
	// And one that no search is soon done with.
	form = []string{"name", "hard"}
	for box := 1; box <= 28; box++ {
		form = append(form, "copies."+strconv.Itoa(box), strconv.Itoa(3+box*7%11))
	}
	if hard, err := b.Post(ctx, "/jobs", form...); err != nil || hard.Next == "" {
		return fmt.Errorf("the second job is not made: %d, %w", hard.Status, err)
	}
	seen, changed := &timing{}, &timing{}
	for n := range 20 {
		page, err := b.Get(ctx, a.Next)
		if err != nil {
			return err
		}
		seen.add(page, nil)
		changed.add(b.Post(ctx, a.Next, "version", page.Version(), "copies.1", strconv.Itoa(40+n)))
	}
	seen.row(table, "a job of 1,000 boxes, seen")
	changed.row(table, "a job of 1,000 boxes, changed")
	return nil
}

// round lets makers work for a while, beside searches, and gives their p95.
func round(ctx context.Context, table *tabwriter.Writer, at string, makers, boxes int, lasts time.Duration, searches int) (time.Duration, error) {
	ctx, stop := context.WithTimeout(ctx, lasts)
	defer stop()
	views, changes := &timing{}, &timing{}
	var all sync.WaitGroup
	for n := range searches {
		b, err := visit.New(at, fmt.Sprint("search ", n))
		if err != nil {
			return 0, err
		}
		all.Go(func() {
			for ctx.Err() == nil {
				began := time.Now()
				_, _ = b.Post(ctx, "/jobs/2/search", "seconds", "5")
				if time.Since(began) < time.Second && ctx.Err() == nil {
					log.Print("a search ended at once: its job is too easy to tell anything")
					return
				}
			}
		})
	}
	for n := range makers {
		b, err := visit.New(at, fmt.Sprint("maker ", n))
		if err != nil {
			return 0, err
		}
		all.Go(func() { work(ctx, b, n, boxes, views, changes) })
	}
	all.Wait()
	beside := "alone"
	if searches > 0 {
		beside = fmt.Sprintf("beside %d searches", searches)
	}
	views.row(table, fmt.Sprintf("%d makers %s: a view", makers, beside))
	changes.row(table, fmt.Sprintf("%d makers %s: a change", makers, beside))
	both := &timing{took: append(slices.Clone(views.took), changes.took...)}
	return both.at(0.95), nil
}

// work is one maker: a view every 2 s, a change every 5 s, on a box of their
// own.
func work(ctx context.Context, b *visit.Browser, n, boxes int, views, changes *timing) {
	random := rand.New(rand.NewPCG(uint64(n), 7))
	box := 1 + n%boxes
	stops := []string{"contents", "box", "fit", "dressing", "sheets", "making"}
	wait := func(d time.Duration) bool {
		select {
		case <-ctx.Done():
			return false
		case <-time.After(d):
			return true
		}
	}
	version, next := "", time.Now().Add(time.Duration(random.Int64N(int64(5*time.Second))))
	if !wait(time.Duration(random.Int64N(int64(2 * time.Second)))) {
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
		if time.Now().After(next) {
			next = next.Add(5 * time.Second)
			a, err := b.Post(ctx, fmt.Sprintf("/boxes/%d/sheets", box), "version", version, "copies", strconv.Itoa(1+random.IntN(9)))
			if ctx.Err() != nil {
				return
			}
			changes.add(a, err)
		}
		if !wait(2 * time.Second) {
			return
		}
	}
}

// timing gathers how long answers took.
type timing struct {
	mu     sync.Mutex
	took   []time.Duration
	errors int
	bytes  int
}

func (t *timing) add(a visit.Answer, err error) {
	t.mu.Lock()
	defer t.mu.Unlock()
	if err != nil || a.Status >= 500 {
		t.errors++
		return
	}
	t.took = append(t.took, a.Took)
	t.bytes = max(t.bytes, a.Bytes)
}

// at gives a quantile.
func (t *timing) at(part float64) time.Duration {
	if len(t.took) == 0 {
		return 0
	}
	sorted := slices.Sorted(slices.Values(t.took))
	return sorted[min(len(sorted)-1, int(part*float64(len(sorted))))]
}

func (t *timing) row(w *tabwriter.Writer, name string) {
	ms := func(d time.Duration) string { return fmt.Sprintf("%.1f ms", float64(d.Microseconds())/1000) }
	fmt.Fprintf(w, "%s\t%s\t%s\t%s\t%d\t%d\t%.1f\n", name, ms(t.at(0.5)), ms(t.at(0.95)), ms(t.at(1)), len(t.took), t.errors, float64(t.bytes)/1000)
}

// memory reads a line of a process's status, in MB.
func memory(pid int, line string) int {
	text, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", pid))
	if err != nil {
		return 0
	}
	for _, l := range strings.Split(string(text), "\n") {
		if f := strings.Fields(l); len(f) > 1 && f[0] == line+":" {
			kB, _ := strconv.Atoi(f[1])
			return kB / 1024
		}
	}
	return 0
}
