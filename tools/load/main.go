// Command load fills a workshop with boxes, serves it by bin/brevium, lets
// makers use it all at once, and prints how long they waited. It stays on this
// machine and ends by itself.
package main

import (
	"bufio"
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"log"
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

	"brevium/tools/visit"
)

// mostMakers and mostBoxes keep a slip of the hand from flooding the machine.
const (
	mostMakers = 500
	mostBoxes  = 20_000
)

func main() {
	boxes := flag.Int("boxes", 1000, "boxes in the workshop")
	makers := flag.Int("makers", 50, "makers at once, who think five seconds between one thing and the next")
	lasts := flag.Duration("time", time.Minute, "of each round of makers")
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
	server, at, code, err := serve(ctx, program, folder)
	if err != nil {
		return err
	}
	defer func() {
		_ = server.Process.Signal(syscall.SIGTERM)
		_ = server.Wait()
	}()
	w := &workshop{at: at, file: filepath.Join(folder, "brevium.db"), pid: server.Process.Pid, table: tabwriter.NewWriter(os.Stdout, 0, 4, 2, ' ', 0)}
	defer w.table.Flush()
	if err := w.open(ctx, code, boxes, makers); err != nil {
		return err
	}
	fmt.Fprintf(w.table, "what\tmedian\tp95\tworst\ttimes\tno answer\tkB\n")
	mine := fmt.Sprintf("/boxes/%d", w.boxes[0][6])
	alone := []struct {
		name, path string
		n          int
	}{{"list, first page", "/", 200}, {"list, searched", "/?find=tray", 50}, {"a box's second stop, seen again", mine + "/box", 50}, {"the biggest box", mine + "/biggest", 10}}
	for _, x := range alone {
		t := &timing{}
		for range x.n {
			t.add(w.steward.Get(ctx, x.path))
		}
		t.row(w.table, x.name)
	}
	if err := w.manyKinds(ctx); err != nil {
		return err
	}
	if err := w.jobs(ctx); err != nil {
		return err
	}
	quiet, err := w.round(ctx, lasts, "alone", 0, false)
	if err != nil {
		return err
	}
	busy, err := w.round(ctx, lasts, "beside 3 searches", 3, false)
	if err != nil {
		return err
	}
	if _, err := w.round(ctx, lasts, "beside 3 searches and 5 attackers", 3, true); err != nil {
		return err
	}
	fmt.Fprintf(w.table, "three searches raise the makers' p95 by\t%.0f %%\n", 100*(busy.Seconds()/quiet.Seconds()-1))
	fmt.Fprintf(w.table, "memory of the server\t%d MB, at its highest %d MB\n", memory(w.pid, "VmRSS"), memory(w.pid, "VmHWM"))
	time.Sleep(time.Minute)
	fmt.Fprintf(w.table, "a minute later\t%d MB\n", memory(w.pid, "VmRSS"))
	return nil
}

// serve starts the program as a workshop on a free port, and gives the code to set it up.
func serve(ctx context.Context, program, folder string) (c *exec.Cmd, at, code string, err error) {
	c = exec.CommandContext(ctx, program, "serve", "--workshop", "--address", "127.0.0.1:0", "--data", folder)
	c.Stderr = io.Discard // its log
	out, err := c.StdoutPipe()
	if err != nil {
		return nil, "", "", err
	}
	if err := c.Start(); err != nil {
		return nil, "", "", err
	}
	for lines := bufio.NewScanner(out); lines.Scan(); {
		if f := strings.Fields(lines.Text()); len(f) == 1 && strings.Count(f[0], "-") > 4 {
			code = f[0]
		}
		if _, rest, found := strings.Cut(lines.Text(), "http://"); found {
			return c, "http://" + strings.Fields(rest)[0], code, nil
		}
	}
	return nil, "", "", errors.New("the program does not say where it is")
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
	if err != nil || a.Status >= 400 && a.Status != 422 {
		if t.errors++; t.errors == 1 {
			log.Printf("the first that was not answered: %d, %v: %.300s", a.Status, err, a.Plain())
		}
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
