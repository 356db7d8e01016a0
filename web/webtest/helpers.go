package webtest

import (
	"bytes"
	"html"
	"image"
	"image/color"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"
)

// Writer takes what is written.
type Writer func([]byte)

// Patience is how long one step of a browser test may take; it only ends
// tests that hang.
const Patience = 60 * time.Second

// ButtonValue is what a button of a name sends.
func ButtonValue(t *testing.T, page, name string) string {
	t.Helper()
	m := regexp.MustCompile(`<button[^>]* name="` + name + `" value="([^"]*)"`).FindStringSubmatch(page)
	if m == nil {
		t.Fatalf("there is no button %s", name)
	}
	return html.UnescapeString(m[1])
}

// PaperPicture is a picture of a paper, in a colour of its own.
func PaperPicture(t testing.TB, n int) []byte {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, 240, 180))
	for y := range 180 {
		for x := range 240 {
			img.SetRGBA(x, y, color.RGBA{uint8(n * 40), uint8(90 + 60*((x/20+y/20)%2)), uint8(200 - n*30), 255})
		}
	}
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// Printed asks a program of others what a PDF is called and how large its pages are.
func Printed(t *testing.T, pdf string) (title, paper string) {
	t.Helper()
	file := filepath.Join(t.TempDir(), "p.pdf")
	if err := os.WriteFile(file, []byte(pdf), 0o600); err != nil {
		t.Fatal(err)
	}
	out, err := exec.Command("pdfinfo", file).Output()
	if err != nil {
		t.Fatalf("pdfinfo: %v", err)
	}
	for line := range strings.Lines(string(out)) {
		name, value, _ := strings.Cut(line, ":")
		switch name {
		case "Title":
			title = strings.TrimSpace(value)
		case "Page size":
			paper = strings.TrimSpace(value)
		}
	}
	return title, paper
}

// Stops are those of the work, in its order.
var Stops = []string{"contents", "box", "fit", "dressing", "sheets", "making"}

// Write hands on what is written.
func (w Writer) Write(b []byte) (int, error) { w(b); return len(b), nil }
