package main

import (
	"bufio"
	"net/http"
	"net/url"
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

// The first start prints a code, and by it the workshop is set up: once.
func TestAWorkshopIsServed(t *testing.T) {
	c := command(t.Context(), "serve", "--workshop", "--address", "127.0.0.1:0", "--data", t.TempDir())
	out, err := c.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := c.Start(); err != nil {
		t.Fatal(err)
	}
	defer c.Process.Kill()
	var text strings.Builder
	lines := bufio.NewScanner(out)
	for lines.Scan() {
		text.WriteString(lines.Text() + "\n")
		if strings.Contains(lines.Text(), "http://") {
			break
		}
	}
	code := regexp.MustCompile(`([a-z2-7]{4}-){7}[a-z2-7]{4}`).FindString(text.String())
	at := regexp.MustCompile(`http://[0-9.:]+`).FindString(text.String())
	if code == "" || at == "" {
		t.Fatalf("it prints %q", text.String())
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
}
