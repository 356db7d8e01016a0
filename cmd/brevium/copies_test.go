package main

import (
	"bufio"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"brevium/store"
)

// serving starts the program on a folder and gives its address, and how to
// stop it.
func serving(t *testing.T, folder string) (at string, stop func()) {
	t.Helper()
	c := command(t.Context(), "demo", "--address", "127.0.0.1:0", "--data", folder)
	c.Stderr = os.Stderr
	out, err := c.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := c.Start(); err != nil {
		t.Fatal(err)
	}
	line, err := bufio.NewReader(out).ReadString('\n')
	if err != nil {
		t.Fatal(err)
	}
	stop = func() {
		if c.ProcessState == nil {
			_ = c.Process.Signal(syscall.SIGTERM)
			_ = c.Wait()
		}
	}
	t.Cleanup(stop)
	return strings.Fields(line[strings.Index(line, "http://"):])[0], stop
}

// names are the boxes in a folder's data.
func names(t *testing.T, folder string) string {
	t.Helper()
	s, err := store.Open(t.Context(), database(folder))
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	all, err := s.Of(t.Context()).Boxes(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	var out []string
	for _, b := range all {
		out = append(out, b.Name)
	}
	return strings.Join(out, ", ")
}

// Backup and restore work beside a running server, which shows what was
// brought back.
func TestBackupAndRestoreWhileServing(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "data")
	at, stop := serving(t, folder)
	copied := filepath.Join(t.TempDir(), "copy.db")
	if out, errs, status := run(t, "", "backup", "--data", folder, copied); status != 0 || !strings.Contains(out, copied) {
		t.Fatalf("backup: %d, %s%s", status, out, errs)
	}
	r, err := http.PostForm(at+"/boxes/1/delete", url.Values{})
	if err != nil {
		t.Fatal(err)
	}
	r.Body.Close()
	if r, err := http.Get(at + "/boxes/1/contents"); err != nil || r.StatusCode != http.StatusNotFound {
		t.Errorf("deleted, the box gives %v, %v", r.StatusCode, err)
	}
	out, errs, status := run(t, "", "restore", "--data", folder, copied)
	if status != 0 || !strings.Contains(out, "backups") {
		t.Fatalf("restore: %d, %s%s", status, out, errs)
	}
	if r, err := http.Get(at + "/boxes/1/contents"); err != nil || r.StatusCode != http.StatusOK {
		t.Errorf("brought back, the box gives %v, %v", r.StatusCode, err)
	}
	// Locked, by a passphrase that is easy to keep in mind and hard to guess.
	locked := filepath.Join(t.TempDir(), "copy.age")
	for pass, want := range map[string]int{"password1234\n": 1, "seven kraft sheets\n": 0} {
		if _, errs, status := run(t, pass, "backup", "--data", folder, locked, "--passphrase-file", "-"); status != want {
			t.Errorf("backup locked with %q: %d, %s", pass, status, errs)
		}
	}
	for pass, want := range map[string]int{"": 1, "seven craft sheets\n": 1, "seven kraft sheets\r\n": 0} {
		if _, errs, status := run(t, pass, "restore", "--data", folder, locked, "--passphrase-file", "-"); status != want || strings.Count(errs, "\n") != want {
			t.Errorf("restore with %q: %d, %s", pass, status, errs)
		}
	}
	if _, errs, status := run(t, "", "restore", "--data", folder, locked); status != 1 || !strings.Contains(errs, "--passphrase-file") {
		t.Errorf("restore without a passphrase: %d, %s", status, errs)
	}
	// A second server on the same data says who has them.
	if _, errs, status := run(t, "", "serve", "--address", "127.0.0.1:0", "--data", folder); status != 1 || !strings.Contains(errs, at) {
		t.Errorf("a second server: %d, %s", status, errs)
	}
	stop()
}

// An emptied file beside copies is not a new workshop, and a damaged one is
// put aside for the copy.
func TestWhatHappenedToTheFileIsSaid(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "data")
	_, stop := serving(t, folder)
	for all, err := store.CopiesOf(database(folder)); len(all) == 0; all, err = store.CopiesOf(database(folder)) {
		if err != nil {
			t.Fatal(err)
		}
		time.Sleep(10 * time.Millisecond) // the day's copy is under way
	}
	stop()
	copied := filepath.Join(t.TempDir(), "copy.db")
	if _, errs, status := run(t, "", "backup", "--data", folder, copied); status != 0 {
		t.Fatal(errs)
	}
	all := names(t, folder)
	for what, spoil := range map[string]func() error{
		"emptied": func() error { return os.Truncate(database(folder), 0) },
		"gone":    func() error { return os.Remove(database(folder)) },
		"damaged": func() error { return os.WriteFile(database(folder), []byte(strings.Repeat("x", 9000)), 0o600) },
	} {
		for _, part := range []string{"-wal", "-shm"} {
			os.Remove(database(folder) + part)
		}
		if err := spoil(); err != nil {
			t.Fatal(err)
		}
		_, errs, status := run(t, "", "serve", "--address", "127.0.0.1:0", "--data", folder)
		if status != 1 || !strings.Contains(errs, "brevium restore --data") || strings.Count(errs, "\n") != 1 {
			t.Errorf("%s: %d, %s", what, status, errs)
		}
		if _, errs, status := run(t, "", "restore", "--data", folder, copied); status != 0 {
			t.Errorf("%s: %s", what, errs)
		}
		if got := names(t, folder); got != all {
			t.Errorf("%s: the boxes are %s", what, got)
		}
	}
	if _, errs, status := run(t, "", "backup", "--data", t.TempDir(), copied); status != 1 || !strings.Contains(errs, "no data") {
		t.Errorf("a copy of nothing: %d, %s", status, errs)
	}
}
