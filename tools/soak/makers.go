package main

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strconv"
	"syscall"
	"time"

	_ "modernc.org/sqlite" // to lock the file from outside

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/store"
	"brevium/store/desk"
	"brevium/store/roster"
	"brevium/tools/visit"
)

// furnish lets a steward and makers in, and gives each maker a box, and the steward one that all
// share and a class of it.
func furnish(folder string, makers int) (all []*maker, shared int64, err error) {
	ctx := context.Background()
	pepper := people.NewPepper()
	if err := os.WriteFile(filepath.Join(folder, keyName), pepper, 0o600); err != nil {
		return nil, 0, err
	}
	data, err := store.Open(ctx, filepath.Join(folder, "brevium.db"))
	if err != nil {
		return nil, 0, err
	}
	defer data.Close()
	if err := data.Workshop(ctx, pepper); err != nil {
		return nil, 0, err
	}
	hash := pepper.Hash(visit.Password) // of all, since hashing takes long
	enter := func(name string, kind roster.CodeFor) (context.Context, error) {
		code, err := data.Of(ctx).NewCode(ctx, roster.Code{For: kind, Role: people.Maker, Until: time.Now().Add(time.Hour)})
		if err != nil {
			return nil, err
		}
		p, err := data.Of(ctx).Join(ctx, code.Text, name, hash)
		return people.With(ctx, p), err
	}
	block := func(n int) contents.Thing {
		return contents.Thing{Name: "thing " + strconv.Itoa(n), Shape: contents.Block, Count: 1, Ease: contents.UsualEase,
			Length: 20 * measure.Millimetre, Width: 20 * measure.Millimetre, Height: 20 * measure.Millimetre}
	}
	steward, err := enter("Steward", roster.ForSetUp)
	if err != nil {
		return nil, 0, err
	}
	for _, name := range []string{"Two hundred kinds", "Asks and goes"} {
		if _, err := enter(name, roster.ForJoining); err != nil {
			return nil, 0, err
		}
	}
	in := design.New("Shared", measure.MM, "tray")
	for n := range min(makers, contents.MostKinds) {
		in.Things = append(in.Things, block(n))
	}
	if shared, err = data.Of(steward).Add(steward, in); err != nil {
		return nil, 0, err
	}
	if err := data.Of(steward).Share(steward, desk.BoxSort, shared, true); err != nil {
		return nil, 0, err
	}
	for n := range makers {
		own, err := enter(makerName(n), roster.ForJoining)
		if err != nil {
			return nil, 0, err
		}
		in := design.New("box 0", measure.MM, "tray")
		in.Things = []contents.Thing{block(0)}
		m := &maker{n: n, shared: shared}
		if m.box, err = data.Of(own).Add(own, in); err != nil {
			return nil, 0, err
		}
		all = append(all, m)
	}
	return all, shared, nil
}

func makerName(n int) string { return fmt.Sprint("Maker ", n) }

// maker changes a box of their own, and their thing in the shared one, and
// remembers what was answered.
type maker struct {
	n           int
	server      *server
	box, shared int64 // their own, and the one of all
	browser     *visit.Browser
	answered    int
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
		b, err := m.window(ctx, at)
		if err != nil {
			continue
		}
		box, shared := fmt.Sprintf("/boxes/%d", m.box), fmt.Sprintf("/boxes/%d", m.shared)
		switch random.IntN(6) {
		case 0:
			m.change(ctx, b, &m.name, n, box+"/rename", "name", "box "+strconv.Itoa(n))
		case 1:
			m.form(ctx, b, &m.copies, n%499+1, box+"/sheets", "copies", strconv.Itoa(n%499+1))
		case 2:
			if m.n < contents.MostKinds {
				m.form(ctx, b, &m.thing, n, shared+"/contents", fmt.Sprintf("contents[%d].name", m.n), "thing "+strconv.Itoa(n))
			}
		case 3:
			m.change(ctx, b, &m.tick, n, box+"/tick", "step", "mine", "mark", strconv.Itoa(n), "done", "1")
		default:
			_, _ = b.Get(ctx, []string{"/", box + "/box", box + "/making", "/jobs", shared + "/fit"}[random.IntN(5)])
		}
	}
}

// window is the maker's window, signed in; it is at another address after a restart.
func (m *maker) window(ctx context.Context, at string) (*visit.Browser, error) {
	if m.browser == nil {
		b, err := visit.New(at, makerName(m.n))
		if err != nil {
			return nil, err
		}
		m.browser = b
	}
	m.browser.At = at
	a, err := m.browser.Get(ctx, "/me")
	if err != nil || a.Status == 200 {
		return m.browser, err
	}
	return m.browser, m.browser.SignIn(ctx, makerName(m.n))
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
func (m *maker) check() error {
	data, err := store.Open(context.Background(), filepath.Join(m.server.folder, "brevium.db"))
	if err != nil {
		return err
	}
	defer data.Close()
	// Its own machine reads all, as for one maker alone.
	ctx := context.Background()
	mine, err := data.Of(ctx).Box(ctx, m.box)
	if err != nil {
		return err
	}
	shared, err := data.Of(ctx).Box(ctx, m.shared)
	if err != nil {
		return err
	}
	ticks, err := data.Of(ctx).Ticks(ctx, mine.ID)
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
