// Command screenshots takes one picture of each main view of the demo boxes
// into docs/screenshots. It wants bin/brevium built and chromium installed.
package main

import (
	"bufio"
	"context"
	"fmt"
	"log"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"time"

	"github.com/chromedp/chromedp"
)

// views are the pictures kept: a name, a page of the demo, a size, and a
// script that does what a hand would before. A number in braces stands for
// the demo box of that number; the first is loaded last.
var views = []struct {
	name, path    string
	width, height int64
	hand          string
}{
	{"boxes", "/", 1280, 800, ""},
	{"new-box", "/new", 1280, 800, ""},
	{"contents", "/boxes/{1}/contents", 1280, 800, ""},
	{"box", "/boxes/{1}/box", 1280, 800, ""},
	{"fit", "/boxes/{1}/fit", 1280, 800, ""},
	{"dressing", "/boxes/{1}/dressing", 1280, 800, ""},
	{"sheets", "/boxes/{1}/sheets", 1280, 800, ""},
	{"making", "/boxes/{1}/making", 1280, 800, ""},
	{"fold", "/boxes/{10}/fold", 1280, 800, ""},
	{"bench", "/boxes/{1}/bench", 1280, 800, ""},
	{"logbook", "/logbook", 1280, 800, ""},
	{"cost", "/jobs/1/cost", 1280, 800, ""},
	{"recipe", "/read?text=carton+7+x+9+3/4,+score+1+1/2+and+5+1/2,+turn,+3/4,+3+3/4,+%3F+and+8+1/4.+Paper+for+the+top:+3+3/4+x+2+3/4", 1280, 800, ""},
	{"drawer", "/drawer", 1280, 800, ""},
	{"cutting", "/boxes/{8}/cutting?laid=shape", 1280, 800, ""},
	{"kinds", "/kinds", 1280, 800, ""},
	{"job", "/jobs/2", 1280, 800, choosePiece},
	{"making-phone", "/boxes/{1}/making", 390, 844, ""},
	{"style-table", "/styles/table?from=gable-lid", 1280, 800, ""},
}

// choosePiece goes to a piece on a sheet and chooses it, as with the keyboard.
const choosePiece = `(() => {
	const piece = document.querySelectorAll("[data-key]")[2];
	piece.focus();
	piece.dispatchEvent(new KeyboardEvent("keydown", {key: "Enter", bubbles: true}));
})()`

func main() {
	if err := run(filepath.Join("docs", "screenshots")); err != nil {
		log.Fatal(err)
	}
}

func run(into string) error {
	data, err := os.MkdirTemp("", "brevium-screenshots")
	if err != nil {
		return err
	}
	defer os.RemoveAll(data)
	demo := exec.Command(filepath.Join("bin", "brevium"), "demo", "--address", "127.0.0.1:0", "--data", data)
	out, err := demo.StdoutPipe()
	if err != nil {
		return err
	}
	if err := demo.Start(); err != nil {
		return err
	}
	defer demo.Wait()
	defer demo.Process.Signal(os.Interrupt)
	line, err := bufio.NewReader(out).ReadString('\n')
	if err != nil {
		return err
	}
	at := strings.Fields(line[strings.Index(line, "http://"):])[0]

	shell, err := exec.LookPath("chromium-headless-shell")
	if err != nil {
		return err
	}
	flags := append(
		chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath(shell),
		chromedp.NoSandbox,
		chromedp.DisableGPU,
		chromedp.Flag("use-angle", "swiftshader"),
		chromedp.Flag("enable-unsafe-swiftshader", true),
		chromedp.Flag("disable-background-networking", true),
		chromedp.Flag("hide-scrollbars", true),
	)
	ctx, stop := chromedp.NewExecAllocator(context.Background(), flags...)
	defer stop()
	ctx, stop = chromedp.NewContext(ctx)
	defer stop()
	boxes, err := filepath.Glob(filepath.Join("cmd", "brevium", "demo", "*.json"))
	if err != nil {
		return err
	}
	numbered := regexp.MustCompile(`\{(\d+)\}`)
	for _, v := range views {
		path := numbered.ReplaceAllStringFunc(v.path, func(n string) string {
			k, _ := strconv.Atoi(strings.Trim(n, "{}"))
			return strconv.Itoa(len(boxes) + 1 - k)
		})
		if err := chromedp.Do(ctx, chromedp.EmulateViewport(v.width, v.height), chromedp.Navigate(at+path)); err != nil {
			return fmt.Errorf("%s: %w", v.name, err)
		}
		// The box in space is drawn once its poses have come.
		if _, err := chromedp.Run(
			ctx,
			chromedp.Poll[bool](`!document.getElementById("space") || document.getElementById("space").dataset.ready == "yes"`),
		); err != nil {
			return fmt.Errorf("%s: %w", v.name, err)
		}
		if v.hand != "" {
			if err := chromedp.Do(ctx, chromedp.Evaluate[chromedp.Void](v.hand), chromedp.Sleep(time.Second)); err != nil {
				return fmt.Errorf("%s: %w", v.name, err)
			}
		}
		png, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
		if err != nil {
			return fmt.Errorf("%s: %w", v.name, err)
		}
		if err := os.WriteFile(filepath.Join(into, v.name+".png"), png, 0o644); err != nil {
			return err
		}
	}
	return nil
}
