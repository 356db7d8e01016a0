package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"path/filepath"
	"sync"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"brevium/store"
	"brevium/store/roster"
	"brevium/web"
	"brevium/web/behind"
)

// served is where and what to serve.
type served struct {
	address string
	folder  string
	hosts   []string
	verbose bool
	// A workshop is signed in to; it is reached over TLS, by a certificate of its own or
	// by a proxy that is believed.
	workshop  bool
	cert, key string
	proxies   []string
}

func (s *served) flags(c *cobra.Command) {
	f := c.Flags()
	f.StringVar(
		&s.address,
		"address",
		env("BREVIUM_ADDRESS", "127.0.0.1:8787"),
		"address to listen on; port 0 takes a free one (env BREVIUM_ADDRESS)",
	)
	f.StringVar(&s.folder, "data", env("BREVIUM_DATA", "data"), "folder for the database (env BREVIUM_DATA)")
	f.StringSliceVar(&s.hosts, "host", nil, "another name that pages may be asked for by, besides the address and localhost")
	f.BoolVar(&s.workshop, "workshop", false, "serve a workshop: people sign in; needed for an address that other machines reach")
	f.StringVar(&s.cert, "cert", "", "the workshop's certificate, a PEM file; with --key it is served over TLS")
	f.StringVar(&s.key, "key", "", "the certificate's key, a PEM file")
	f.StringSliceVar(&s.proxies, "proxy", nil, "address or network of a proxy before the workshop, whose word for who asks is taken")
	f.BoolVar(&s.verbose, "verbose", false, "log every request")
}

func env(name, usual string) string {
	if v, ok := os.LookupEnv(name); ok && v != "" {
		return v
	}
	return usual
}

func serveCommand() *cobra.Command {
	var s served
	c := &cobra.Command{
		Use: "serve", Short: "Serve the web application on a loopback address", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error { return s.run(c.Context(), nil) },
	}
	s.flags(c)
	return c
}

func demoCommand() *cobra.Command {
	var s served
	c := &cobra.Command{
		Use: "demo", Short: "Serve with the boxes of a village library's winter fair, if there are none yet", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error { return s.run(c.Context(), loadDemo) },
	}
	s.flags(c)
	return c
}

// run serves until it is told to stop, then lets what is under way finish.
func (s *served) run(ctx context.Context, prepare func(context.Context, *store.Store) error) error {
	ctx, stop := signal.NotifyContext(ctx, os.Interrupt, syscall.SIGTERM)
	defer stop()
	level := slog.LevelWarn
	if s.verbose || s.workshop {
		level = slog.LevelInfo
	}
	log := slog.New(slog.NewJSONHandler(os.Stderr, &slog.HandlerOptions{Level: level}))
	listener, err := s.listen()
	if err != nil {
		return err
	}
	// Only the maker's own account reads the data.
	if err := os.MkdirAll(s.folder, 0o700); err != nil {
		return fmt.Errorf("the data folder cannot be made: %w", err)
	}
	lock, err := store.TakeLock(s.folder, fmt.Sprintf("process %d, at http://%s", os.Getpid(), listener.Addr()))
	if err != nil {
		return errors.Join(err, listener.Close())
	}
	defer lock.Free()
	boxes, err := s.data(ctx, log)
	if err != nil {
		return errors.Join(err, listener.Close())
	}
	defer boxes.Close()
	if prepare != nil {
		if err := prepare(ctx, boxes); err != nil {
			return err
		}
	}
	disk, err := store.OpenCache(ctx, filepath.Join(s.folder, "pictures.db"), buildMark())
	if err != nil {
		log.Warn("pictures are not kept over a restart", "error", err)
	}
	defer disk.Close()
	behind.MakePlaces()
	handler, err := s.handler(ctx, boxes, disk, log)
	if err != nil {
		return err
	}
	handler = web.OnlyHosts(handler, append(s.hosts, listener.Addr().String()), log)
	if s.cert != "" {
		handler = web.OverTLS(handler)
	}
	// What is under way, such as a search, ends when the program is told to.
	work, end := context.WithCancel(context.Background())
	defer end()
	server := &http.Server{
		Handler: handler, BaseContext: func(net.Listener) context.Context { return work }, ErrorLog: slog.NewLogLogger(log.Handler(), slog.LevelError),
		ReadHeaderTimeout: 5 * time.Second, ReadTimeout: 30 * time.Second, IdleTimeout: 2 * time.Minute,
	}
	var copying sync.WaitGroup
	days, over := context.WithCancel(ctx)
	copying.Go(func() { copyDaily(days, boxes, log) })
	copying.Go(func() { web.GiveBack(days) })
	defer func() {
		over()
		copying.Wait()
	}()
	failed := make(chan error, 1)
	scheme := "http"
	if s.cert != "" {
		scheme = "https"
	}
	go func() {
		if s.cert != "" {
			failed <- server.ServeTLS(listener, s.cert, s.key)
		} else {
			failed <- server.Serve(listener)
		}
	}()
	fmt.Printf("Brevium is at %s://%s  (stop it with Ctrl-C)\n", scheme, listener.Addr())
	select {
	case err := <-failed:
		return err
	case <-ctx.Done():
	}
	end()
	grace, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	if err := server.Shutdown(grace); err != nil && !errors.Is(err, http.ErrServerClosed) {
		return fmt.Errorf("stopping: %w", err)
	}
	return nil
}

// data opens the data and looks whether they are sound. Damaged ones are served
// all the same, with a warning on every page, so that they can be seen.
func (s *served) data(ctx context.Context, log *slog.Logger) (*store.Store, error) {
	if err := notEmptied(s.folder); err != nil {
		return nil, err
	}
	boxes, err := store.Open(ctx, database(s.folder))
	if err != nil {
		return nil, whatNow(err, s.folder)
	}
	said, err := boxes.Check(ctx, false)
	if err != nil {
		return nil, errors.Join(err, boxes.Close())
	}
	if said != "" {
		log.Error("the data are damaged", "file", database(s.folder), "what", said)
	}
	return boxes, nil
}

// whatNow adds to an error of opening the data how to go on.
func whatNow(err error, folder string) error {
	copies, _ := store.CopiesOf(database(folder))
	if errors.Is(err, store.ErrNewer) || store.Reason(err) == "" || len(copies) == 0 {
		return err
	}
	return fmt.Errorf("%w; bring a copy back with: brevium restore --data %s %s", err, folder, filepath.Join(folder, "backups", copies[0].Name))
}

// buildMark tells this build of the program from any other, whose pictures may
// differ.
func buildMark() string {
	mark := version
	if self, err := os.Executable(); err == nil {
		if info, err := os.Stat(self); err == nil {
			mark += fmt.Sprintf(" %d %d", info.Size(), info.ModTime().UnixNano())
		}
	}
	return mark
}

// copyDaily makes the day's copy now and looks every hour whether the next is
// due, until the program ends.
func copyDaily(ctx context.Context, boxes *store.Store, log *slog.Logger) {
	for {
		if boxes.Damage() == "" { // never over the last good one
			if _, err := boxes.DailyCopy(ctx); err != nil && ctx.Err() == nil {
				log.Error("the daily copy could not be made", "error", err)
			}
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(time.Hour):
		}
	}
}

// handler serves one maker, or a workshop: where that has no steward yet, the code to set
// it up with is printed.
func (s *served) handler(ctx context.Context, boxes *store.Store, disk *store.Cache, log *slog.Logger) (http.Handler, error) {
	if !s.workshop {
		return web.New(boxes, disk, log)
	}
	proxies, err := web.ParseProxies(s.proxies)
	if err != nil {
		return nil, err
	}
	is, err := boxes.Of(ctx).HasSteward(ctx)
	if err != nil {
		return nil, err
	}
	if !is {
		code, err := boxes.Of(ctx).NewCode(ctx, roster.Code{For: roster.ForSetUp, Until: boxes.Now().Add(setUpFor)})
		if err != nil {
			return nil, err
		}
		fmt.Printf("Nobody is here yet. Open /set-up in the browser within a day, and give this code:\n  %s\n", code.Written())
	}
	key, err := pepper(ctx, s.folder, boxes)
	if err != nil {
		return nil, err
	}
	handler, _, err := web.NewWorkshop(boxes, disk, log, key)
	if err != nil {
		return nil, err
	}
	return web.Behind(proxies, handler), nil
}

// setUpFor is how long the code to set a workshop up holds; a new one is printed at every
// start.
const setUpFor = 24 * time.Hour

// listen binds the address. One that other machines reach must be asked for.
func (s *served) listen() (net.Listener, error) {
	listener, err := net.Listen("tcp", s.address)
	if err != nil {
		return nil, fmt.Errorf("cannot listen on %s: %w; choose another with --address", s.address, err)
	}
	at, ok := listener.Addr().(*net.TCPAddr)
	reached := ok && !at.IP.IsLoopback()
	switch {
	case reached && !s.workshop:
		err = fmt.Errorf("%s can be reached by other machines, and there is no sign-in: whoever reaches it owns every box; use 127.0.0.1, or give --workshop for people to sign in", s.address)
	case reached && s.workshop && s.cert == "" && len(s.proxies) == 0:
		err = fmt.Errorf("%s can be reached by other machines, and passwords would go there to be read by anybody between: give --cert and --key, or --proxy with the address of one that does TLS", s.address)
	case (s.cert == "") != (s.key == ""):
		err = errors.New("a certificate is given by --cert and --key together")
	case !s.workshop && (s.cert != "" || len(s.proxies) > 0):
		err = errors.New("--cert, --key and --proxy are for a workshop; give --workshop too")
	}
	if err != nil {
		return nil, errors.Join(err, listener.Close())
	}
	return listener, nil
}
