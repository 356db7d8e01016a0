package main

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"
)

// The tests run this program itself: the test binary, told to be the command.
func TestMain(m *testing.M) {
	if os.Getenv("BREVIUM_BE_COMMAND") != "" {
		main()
		return
	}
	os.Exit(m.Run())
}

func command(ctx context.Context, args ...string) *exec.Cmd {
	c := exec.CommandContext(ctx, os.Args[0], args...)
	c.Env = append(os.Environ(), "BREVIUM_BE_COMMAND=1")
	return c
}

func run(t *testing.T, stdin string, args ...string) (stdout, stderr string, status int) {
	t.Helper()
	var out, errs bytes.Buffer
	ctx, stop := context.WithTimeout(t.Context(), time.Minute)
	defer stop()
	c := command(ctx, args...)
	c.Stdin, c.Stdout, c.Stderr = strings.NewReader(stdin), &out, &errs
	err := c.Run()
	if _, exited := err.(*exec.ExitError); err != nil && !exited {
		t.Fatal(err)
	}
	return out.String(), errs.String(), c.ProcessState.ExitCode()
}

const traySize = `{"brevium":1,"name":"t","units":"cm","style":"tray","size":{"length":"9,5","width":"6 cm","height":25}}`

func TestPlanReadsFileAndStandardInput(t *testing.T) {
	file := filepath.Join(t.TempDir(), "t.json")
	if err := os.WriteFile(file, []byte(traySize), 0o600); err != nil {
		t.Fatal(err)
	}
	fromFile, stderr, status := run(t, "", "plan", file)
	if status != 0 || stderr != "" {
		t.Fatalf("status %d, %s", status, stderr)
	}
	fromInput, _, _ := run(t, traySize, "plan", "-")
	var plan struct {
		Brevium int
		Pieces  []struct {
			ID     string
			Blank  struct{ Width, Height float64 }
			Scores struct{ Vertical, Horizontal []float64 }
		}
	}
	if err := json.Unmarshal([]byte(fromFile), &plan); err != nil || fromFile != fromInput {
		t.Fatalf("%v; file and standard input agree: %v", err, fromFile == fromInput)
	}
	p := plan.Pieces[0]
	if plan.Brevium != 1 || p.ID != "tray" || p.Blank.Width != 145 || p.Blank.Height != 110 || p.Scores.Vertical[1] != 120 ||
		p.Scores.Horizontal[1] != 85 {
		t.Errorf("the plan is %+v", plan)
	}
}

func TestLayoutAndStyles(t *testing.T) {
	out, _, status := run(
		t,
		`{"brevium":1,"sheets":[{"name":"s","width":100,"height":100}],"pieces":[{"name":"p","width":50,"height":50,"copies":4}]}`,
		"layout",
		"-",
	)
	if status != 0 || !strings.Contains(out, `"used": 1`) || !strings.Contains(out, `"unplaced": []`) {
		t.Errorf("status %d: %s", status, out)
	}
	out, _, status = run(t, "", "styles")
	if status != 0 || !strings.Contains(out, `"id": "tray-lid"`) {
		t.Errorf("status %d: %s", status, out)
	}
	if out, _, _ := run(t, "", "--version"); !strings.Contains(out, "brevium version") {
		t.Errorf("--version says %q", out)
	}
}

// Bad input: status 1, one line on standard error, nothing on standard output.
func TestBadInputIsOneLine(t *testing.T) {
	for _, c := range []struct {
		stdin string
		args  []string
		says  string
	}{
		{strings.Replace(traySize, `"9,5"`, `"3//4"`, 1), []string{"plan", "-"}, "size.length:"},
		{strings.Replace(traySize, `"name":"t"`, `"name":"a\nb","na\nme":1`, 1), []string{"plan", "-"}, "no field of this name"},
		{strings.Repeat(" ", 5<<20), []string{"plan", "-"}, "4 MiB"},
		{"", []string{"plan", "-"}, "file:"},
		{"", []string{"plan", "/nowhere/x.json"}, "file:"},
		{"", []string{"plan"}, "accepts 1 arg"},
		{"{}", []string{"layout", "-"}, "brevium:"},
		{"", []string{"fold"}, "unknown command"},
		{"", []string{"serve", "--data", "/dev/null/x"}, "data folder"},
	} {
		out, errs, status := run(t, c.stdin, c.args...)
		if status != 1 || out != "" || strings.Count(errs, "\n") != 1 || !strings.Contains(errs, c.says) {
			t.Errorf("%v: status %d, out %q, err %q; want 1, nothing, one line with %q", c.args, status, out, errs, c.says)
		}
	}
}

// demo serves the demo boxes on a free port, prints where, answers its health
// address, and stops when asked.
func TestDemoServesAndStops(t *testing.T) {
	c := command(t.Context(), "demo", "--address", "127.0.0.1:0", "--data", filepath.Join(t.TempDir(), "new", "folder"))
	out, err := c.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := c.Start(); err != nil {
		t.Fatal(err)
	}
	defer c.Process.Kill()
	line, err := bufio.NewReader(out).ReadString('\n')
	if err != nil {
		t.Fatal(err)
	}
	at := strings.Fields(line[strings.Index(line, "http://"):])[0]
	for path, says := range map[string]string{"/health": "ok", "/": "Four honey jars"} {
		r, err := http.Get(at + path)
		if err != nil {
			t.Fatal(err)
		}
		body, err := io.ReadAll(r.Body)
		r.Body.Close()
		if err != nil || r.StatusCode != http.StatusOK || !strings.Contains(string(body), says) {
			t.Errorf("%s: %d, %v", path, r.StatusCode, err)
		}
	}
	if err := c.Process.Signal(syscall.SIGTERM); err != nil {
		t.Fatal(err)
	}
	if err := c.Wait(); err != nil {
		t.Errorf("it stopped with %v", err)
	}
}
