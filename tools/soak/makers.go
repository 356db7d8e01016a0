package main

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"math/rand/v2"
	"path/filepath"
	"strconv"
	"syscall"
	"time"

	_ "modernc.org/sqlite" // to lock the file from outside

	"brevium/core/contents"
	"brevium/store"
	"brevium/tools/visit"
)

// own is the number of a maker's box; the shared one comes first.
func own(n int) int { return n + 2 }

// furnish brings the shared box and one for each maker in.
func furnish(at string, makers int) error {
	b, err := visit.New(at, "furnisher")
	if err != nil {
		return err
	}
	ctx := context.Background()
	for i := range makers + 1 {
		a, err := b.Post(ctx, "/new", "start", "things", "contents[0].name", "thing 0", "contents[0].shape", "block",
			"contents[0].length", "20 mm", "contents[0].width", "20 mm", "contents[0].height", "20 mm", "contents[0].count", "1")
		if err != nil || a.Status >= 400 {
			return fmt.Errorf("box %d is not made: %d, %w", i, a.Status, err)
		}
	}
	for i := 1; i < min(makers, contents.MostKinds); i++ {
		if a, err := b.Post(ctx, "/boxes/1/contents", "add", "1"); err != nil || a.Status >= 400 {
			return fmt.Errorf("the shared box does not take %d things: %d, %w", i, a.Status, err)
		}
		form := []string{}
		for part, value := range map[string]string{"name": fmt.Sprint("thing ", i), "length": "20 mm", "width": "20 mm", "height": "20 mm"} {
			form = append(form, fmt.Sprintf("contents[%d].%s", i, part), value)
		}
		if a, err := b.Post(ctx, "/boxes/1/contents", form...); err != nil || a.Status >= 400 {
			return fmt.Errorf("the shared box does not take thing %d: %d, %w", i, a.Status, err)
		}
	}
	return nil
}

// maker changes a box of their own, and their thing in the shared one, and
// remembers what was answered.
type maker struct {
	n        int
	server   *server
	answered int
	// What was last answered, and last sent, of each thing that is changed.
	name, copies, thing, tick pair
}

type pair struct{ kept, sent int }

func (m *maker) work(ctx context.Context) {
	random := rand.New(rand.NewPCG(uint64(m.n), 3))
	for n := 1; ctx.Err() == nil; n++ {
		time.Sleep(time.Duration(random.IntN(300)) * time.Millisecond)
		at := m.server.at()
		if at == "" {
			continue
		}
		b, err := visit.New(at, fmt.Sprint("maker ", m.n))
		if err != nil {
			continue
		}
		box := fmt.Sprintf("/boxes/%d", own(m.n))
		switch random.IntN(6) {
		case 0:
			m.change(ctx, b, &m.name, n, box+"/rename", "name", "box "+strconv.Itoa(n))
		case 1:
			m.form(ctx, b, &m.copies, n%499+1, box+"/sheets", "copies", strconv.Itoa(n%499+1))
		case 2:
			if m.n < contents.MostKinds {
				m.form(ctx, b, &m.thing, n, "/boxes/1/contents", fmt.Sprintf("contents[%d].name", m.n), "thing "+strconv.Itoa(n))
			}
		case 3:
			m.change(ctx, b, &m.tick, n, box+"/tick", "step", "mine", "mark", strconv.Itoa(n), "done", "1")
		default:
			_, _ = b.Get(ctx, []string{"/", box + "/box", box + "/making", "/jobs", "/boxes/1/fit"}[random.IntN(5)])
		}
	}
}

// form changes a field of a stop, from the version its page shows.
func (m *maker) form(ctx context.Context, b *visit.Browser, p *pair, value int, path string, pairs ...string) {
	page, err := b.Get(ctx, path)
	if err == nil && page.Status == 200 {
		m.change(ctx, b, p, value, path, append(pairs, "version", page.Version())...)
	}
}

func (m *maker) change(ctx context.Context, b *visit.Browser, p *pair, value int, path string, pairs ...string) {
	p.sent = value
	a, err := b.Post(ctx, path, pairs...)
	if err == nil && (a.Status == 200 || a.Status == 303) {
		p.kept = value
		m.answered++
	} else if err == nil && a.Status < 500 {
		fmt.Printf("maker %d: %s is refused with %d\n", m.n, path, a.Status)
	}
}

// check looks whether what was answered is there. What was sent last but not
// answered may be there as well.
func (m *maker) check(at string) error {
	data, err := store.Open(context.Background(), filepath.Join(m.server.folder, "brevium.db"))
	if err != nil {
		return err
	}
	defer data.Close()
	ctx := context.Background()
	mine, err := data.Box(ctx, int64(own(m.n)))
	if err != nil {
		return err
	}
	shared, err := data.Box(ctx, 1)
	if err != nil {
		return err
	}
	ticks, err := data.Ticks(ctx, mine.ID)
	if err != nil {
		return err
	}
	lost := func(what string, p pair, got string, of func(int) string) error {
		if p.kept == 0 || got == of(p.kept) || got == of(p.sent) {
			return nil
		}
		return fmt.Errorf("maker %d: the %s is %q; answered was %q, sent %q", m.n, what, got, of(p.kept), of(p.sent))
	}
	err = errors.Join(
		lost("name", m.name, mine.Name, func(n int) string { return "box " + strconv.Itoa(n) }),
		lost("copies", m.copies, strconv.Itoa(mine.Inputs.Copies), strconv.Itoa),
		lost("tick", m.tick, ticks["mine"], strconv.Itoa),
	)
	if m.n < len(shared.Inputs.Things) {
		err = errors.Join(err, lost("thing", m.thing, shared.Inputs.Things[m.n].Name, func(n int) string { return "thing " + strconv.Itoa(n) }))
	}
	return err
}

// storms counts what went wrong.
type storms struct{ kills, full, locked, clock int }

// weather lets things go wrong, one after the other, until the time is up.
func weather(ctx context.Context, s *server) *storms {
	out := &storms{}
	random := rand.New(rand.NewPCG(1, 1))
	wait := func(d time.Duration) {
		select {
		case <-ctx.Done():
		case <-time.After(d):
		}
	}
	calm := 75 * time.Second // long enough to see how memory goes
	for n := 0; ctx.Err() == nil; n++ {
		wait(calm)
		s.measure()
		calm = time.Duration(5+random.IntN(15)) * time.Second
		switch n % 8 {
		case 4:
			s.end(syscall.SIGKILL)
			out.kills++
			if err := s.start(); err != nil {
				fmt.Println(err)
			}
		case 1, 5, 7:
			if s.small != nil {
				empty := s.small.fill()
				wait(6 * time.Second)
				empty()
				out.full++
			}
		case 2, 6:
			if err := lockFile(filepath.Join(s.folder, "brevium.db"), 8*time.Second); err == nil {
				out.locked++
			}
		default:
			if _, err := fmt.Fprintln(s.clock, -3600*random.IntN(48)); err == nil {
				out.clock++
			}
		}
	}
	return out
}

// lockFile holds the database from outside for a while.
func lockFile(file string, lasts time.Duration) error {
	db, err := sql.Open("sqlite", "file:"+file)
	if err != nil {
		return err
	}
	defer db.Close()
	db.SetMaxOpenConns(1)
	if _, err := db.Exec(`BEGIN IMMEDIATE`); err != nil {
		return err
	}
	time.Sleep(lasts)
	_, err = db.Exec(`ROLLBACK`)
	return err
}
