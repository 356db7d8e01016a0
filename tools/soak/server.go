package main

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/exec"
	"os/signal"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"syscall"
	"time"

	"brevium/core/people"
	"brevium/store"
	"brevium/web"
)

// serve is the server that is soaked: as "brevium serve" puts it together,
// with a clock that is set by lines of seconds on standard input.
func serve(folder string) error {
	ctx, stop := signal.NotifyContext(context.Background(), syscall.SIGTERM)
	defer stop()
	var off atomic.Int64
	go func() {
		for lines := bufio.NewScanner(os.Stdin); lines.Scan(); {
			if n, err := strconv.ParseInt(lines.Text(), 10, 64); err == nil {
				off.Store(n)
			}
		}
	}()
	lock, err := store.TakeLock(folder, "soak")
	if err != nil {
		return err
	}
	defer lock.Free()
	data, err := store.Open(ctx, filepath.Join(folder, "brevium.db"))
	if err != nil {
		return err
	}
	defer data.Close()
	data.UseClock(func() time.Time { return time.Now().Add(time.Duration(off.Load()) * time.Second) })
	disk, err := store.OpenCache(ctx, filepath.Join(folder, "pictures.db"), "soak")
	if err == nil {
		defer disk.Close()
	}
	key, err := os.ReadFile(filepath.Join(folder, keyName))
	if err != nil {
		return err
	}
	handler, _, err := web.NewWorkshop(data, disk, slog.New(slog.NewTextHandler(io.Discard, nil)), people.Pepper(key))
	if err != nil {
		return err
	}
	go web.GiveBack(ctx)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return err
	}
	fmt.Println("http://" + l.Addr().String())
	server := &http.Server{Handler: handler, ReadHeaderTimeout: 5 * time.Second}
	go func() {
		<-ctx.Done()
		_ = server.Shutdown(context.Background())
	}()
	if err := server.Serve(l); !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return nil
}

// keyName is the file of the pepper, which stays the same over restarts.
const keyName = "door.key"

// server is the process that is soaked.
type server struct {
	folder      string
	small       *disk
	mu          sync.Mutex
	process     *exec.Cmd
	clock       io.WriteCloser
	address     string
	began       time.Time
	early, late int // MB
	longest     time.Duration
}

// at is where it is now; "" while it is down.
func (s *server) at() string {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.address
}

func (s *server) start() error {
	self, err := os.Executable()
	if err != nil {
		return err
	}
	c := exec.Command(self, "-serve", s.folder)
	c.Stderr = os.Stderr
	clock, err := c.StdinPipe()
	if err != nil {
		return err
	}
	out, err := c.StdoutPipe()
	if err != nil {
		return err
	}
	if err := c.Start(); err != nil {
		return err
	}
	line, err := bufio.NewReader(out).ReadString('\n')
	if err != nil {
		return errors.Join(fmt.Errorf("the server does not start: %w", err), c.Wait())
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	s.process, s.clock, s.address, s.began = c, clock, strings.TrimSpace(line), time.Now()
	return nil
}

// end ends the process with a signal.
func (s *server) end(how os.Signal) {
	s.mu.Lock()
	c := s.process
	s.address = ""
	s.mu.Unlock()
	s.measure()
	_ = c.Process.Signal(how)
	_ = c.Wait() // killed or stopped, it is gone
}

func (s *server) stop() { s.end(syscall.SIGTERM) }

func (s *server) restart() error {
	s.stop()
	return s.start()
}

// measure notes how much memory the process has, early and late in its life.
func (s *server) measure() {
	s.mu.Lock()
	defer s.mu.Unlock()
	text, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", s.process.Process.Pid))
	if err != nil {
		return
	}
	_, rest, _ := strings.Cut(string(text), "VmRSS:")
	fields := strings.Fields(rest)
	if len(fields) == 0 {
		return
	}
	kB, _ := strconv.Atoi(fields[0])
	life := time.Since(s.began)
	if life > time.Minute && s.early == 0 {
		s.early = kB / 1024
	}
	if life > s.longest {
		s.longest, s.late = life, kB/1024
	}
}

// sound reads the database through once the server has stopped.
func (s *server) sound() error {
	s.stop()
	defer func() { _ = s.start() }() // for the stop at the very end
	data, err := store.Open(context.Background(), filepath.Join(s.folder, "brevium.db"))
	if err != nil {
		return err
	}
	said, err := data.Check(context.Background(), true)
	if said != "" {
		err = errors.Join(err, errors.New("the database is damaged: "+said))
	}
	return errors.Join(err, data.Close())
}

// disk is a small file system that can be filled up.
type disk struct{ folder string }

// smallDisk puts one in place of a folder, where the machine lets one do so.
func smallDisk(folder string) (*disk, error) {
	if out, err := exec.Command("mount", "-t", "tmpfs", "-o", "size=96m", "tmpfs", folder).CombinedOutput(); err != nil {
		return nil, fmt.Errorf("%w: %s", err, strings.TrimSpace(string(out)))
	}
	return &disk{folder}, nil
}

// fill takes all the room there is, until the function it gives is called.
func (d *disk) fill() (empty func()) {
	name := filepath.Join(d.folder, "filler")
	if f, err := os.Create(name); err == nil {
		block := make([]byte, 1<<16)
		for {
			if _, err := f.Write(block); err != nil {
				break
			}
		}
		_ = f.Close()
	}
	return func() { _ = os.Remove(name) }
}

func (d *disk) leave() { _ = exec.Command("umount", d.folder).Run() }
