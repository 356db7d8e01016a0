package main

import (
	"bufio"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

// A workshop is served as it is documented: what would let passwords be read, or is half
// said, is refused in a line that says how it is meant.
func TestAWorkshopIsRefused(t *testing.T) {
	for says, args := range map[string][]string{
		"give --workshop":          {"--address", "0.0.0.0:0"},
		"--cert and --key":         {"--workshop", "--address", "0.0.0.0:0"},
		"together":                 {"--workshop", "--address", "127.0.0.1:0", "--cert", "c.pem"},
		"give --workshop too":      {"--address", "127.0.0.1:0", "--proxy", "127.0.0.1"},
		"is no address of a proxy": {"--workshop", "--address", "127.0.0.1:0", "--proxy", "everywhere"},
	} {
		_, stderr, status := run(t, "", append([]string{"serve", "--data", t.TempDir()}, args...)...)
		if status == 0 || !strings.Contains(stderr, says) {
			t.Errorf("%v: %d, %s", args, status, stderr)
		}
	}
}

// The first start prints a code, and by it the workshop is set up: once. The key that goes
// into its passwords is the maker's own to read; lost, a way in for the steward is printed.
func TestAWorkshopIsServed(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "data")
	begin := func() (printed, at string, stop func()) {
		t.Helper()
		c := command(t.Context(), "serve", "--workshop", "--address", "127.0.0.1:0", "--data", folder)
		out, err := c.StdoutPipe()
		if err != nil {
			t.Fatal(err)
		}
		if err := c.Start(); err != nil {
			t.Fatal(err)
		}
		var text strings.Builder
		lines := bufio.NewScanner(out)
		for lines.Scan() {
			text.WriteString(lines.Text() + "\n")
			if strings.Contains(lines.Text(), "http://") {
				break
			}
		}
		return text.String(), regexp.MustCompile(`http://[0-9.:]+`).FindString(text.String()), func() {
			c.Process.Signal(os.Interrupt)
			c.Wait()
		}
	}
	text, at, stop := begin()
	code := regexp.MustCompile(`([a-z2-7]{4}-){7}[a-z2-7]{4}`).FindString(text)
	if code == "" || at == "" {
		t.Fatalf("it prints %q", text)
	}
	client := &http.Client{CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}
	for _, want := range []int{http.StatusSeeOther, http.StatusUnprocessableEntity} {
		answer, err := client.PostForm(at+"/set-up", url.Values{"code": {code}, "name": {"Wren"}, "password": {"seven kraft sheets"}})
		if err != nil {
			t.Fatal(err)
		}
		answer.Body.Close()
		if answer.StatusCode != want {
			t.Errorf("set up with the code: %d, not %d", answer.StatusCode, want)
		}
	}
	stop()
	if info, err := os.Stat(folder); err != nil || info.Mode().Perm() != 0o700 {
		t.Errorf("the folder of the data: %v, %v", info, err)
	}
	key := filepath.Join(folder, "door.key")
	if info, err := os.Stat(key); err != nil || info.Mode().Perm() != 0o600 {
		t.Errorf("the key: %v, %v", info, err)
	}
	text, at, stop = begin()
	answer, err := client.PostForm(at+"/sign-in", url.Values{"name": {"Wren"}, "password": {"seven kraft sheets"}})
	if err != nil || answer.StatusCode != http.StatusSeeOther || strings.Contains(text, "/join/") {
		t.Errorf("started again: %v, %v, %s", answer, err, text)
	}
	stop()
	if err := os.Remove(key); err != nil {
		t.Fatal(err)
	}
	text, at, stop = begin()
	answer, err = client.Get(at + regexp.MustCompile(`/join/\w+`).FindString(text))
	if err != nil || answer.StatusCode != http.StatusOK || !strings.Contains(text, "Wren chooses a new one") {
		t.Errorf("without its key it prints %q", text)
	}
	stop()
	if err := os.WriteFile(key, []byte("short"), 0o600); err != nil {
		t.Fatal(err)
	}
	if _, stderr, status := run(t, "", "serve", "--workshop", "--address", "127.0.0.1:0", "--data", folder); status == 0 || !strings.Contains(stderr, "door.key is not the file") {
		t.Errorf("a key that is none: %d, %s", status, stderr)
	}
}
