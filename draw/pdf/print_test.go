package pdf

import (
	"bytes"
	"image"
	"image/png"
	"io"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"brevium/core/design"
	"brevium/core/measure"
)

// printed renders a print by a program that is not ours.
func printed(t *testing.T, r *design.Result, p Print, dpi string) []image.Image {
	t.Helper()
	var b bytes.Buffer
	if err := Write(&b, r, p); err != nil {
		t.Fatal(err)
	}
	dir := t.TempDir()
	file := filepath.Join(dir, "p.pdf")
	if err := os.WriteFile(file, b.Bytes(), 0o600); err != nil {
		t.Fatal(err)
	}
	if out, err := exec.Command("pdftoppm", "-r", dpi, "-png", file, filepath.Join(dir, "p")).CombinedOutput(); err != nil {
		t.Fatalf("pdftoppm (make test installs it): %v %s", err, out)
	}
	names, _ := filepath.Glob(filepath.Join(dir, "p-*.png"))
	var out []image.Image
	for _, name := range names {
		text, err := os.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		picture, err := png.Decode(bytes.NewReader(text))
		if err != nil {
			t.Fatal(err)
		}
		out = append(out, picture)
	}
	return out
}

// told is the text of a print as another program reads it.
func told(t *testing.T, r *design.Result, p Print) string {
	t.Helper()
	return read(t, func(out io.Writer) error { return Write(out, r, p) })
}

// read is the text of what is written, its pages parted by form feeds.
func read(t *testing.T, write func(io.Writer) error) string {
	t.Helper()
	var b bytes.Buffer
	if err := write(&b); err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(t.TempDir(), "p.pdf")
	if err := os.WriteFile(file, b.Bytes(), 0o600); err != nil {
		t.Fatal(err)
	}
	out, err := exec.Command("pdftotext", "-layout", file, "-").Output()
	if err != nil {
		t.Fatal(err)
	}
	return string(out)
}

// Pages of a template, laid on each other by their marks, carry every score
// where the piece has it, to a tenth of a millimetre, lying or upright.
func TestTemplatesJoinTrue(t *testing.T) {
	const perMM = 300 / 25.4
	pixel := func(mm float64) int { return int(mm * perMM) }
	tw, th := A4.tile()
	for _, c := range []struct {
		length measure.Length
		turned bool
	}{{260, false}, {440, true}} {
		in := design.New("Long", measure.MM, "tray")
		mm := measure.Millimetre
		in.Size["length"], in.Size["width"], in.Size["height"] = min(c.length*mm, 290*mm), 60*mm, 20*mm
		if c.turned { // a blank of 450 mm, from a box of 290 with walls of 80
			in.Size["height"], in.Size["width"] = 80*mm, 12*mm
		}
		in.Tools.Trimmer = 500 * mm
		in.Sheets[0].Width, in.Sheets[0].Height = 500*mm, 500*mm
		r, err := design.Make(t.Context(), in)
		if err != nil {
			t.Fatal(err)
		}
		sheets := printed(t, r, Print{Paper: A4, What: Templates}, "300")
		if len(sheets) != 2 {
			t.Fatalf("%d pages; want 2", len(sheets))
		}
		p := r.Parts[0].Pattern
		for _, x := range p.Scores.Vertical {
			found := false
			for page, picture := range sheets {
				step, room := tw-overlap, tw
				if c.turned { // its length runs down the page
					step, room = th-overlap, th
				}
				at := border + past + x.MM() - float64(page)*step
				if at < border || at > border+room {
					continue
				}
				sum, n := 0.0, 0.0
				for along := pixel(border + 82); along < pixel(border+170); along++ {
					for across := pixel(at - 1); across < pixel(at+1); across++ {
						px, py := across, along-pixel(60)
						if c.turned {
							px, py = along, across
						}
						if red, green, _, _ := picture.At(px, py).RGBA(); red > green+0x2000 && green < 0x9000 {
							sum, n = sum+float64(across)+0.5, n+1
						}
					}
				}
				if n < 50 {
					continue
				}
				found = true
				if off := math.Abs(sum/n/perMM - at); off > 0.1 {
					t.Errorf("%v: the score at %v mm is %.2f mm off on page %d", c.length, x.MM(), off, page+1)
				}
			}
			if !found {
				t.Errorf("%v: the score at %v mm is on no page", c.length, x.MM())
			}
		}
	}
}

// Small templates share pages, and a mirrored one says so.
func TestTemplatesShareAPage(t *testing.T) {
	in := design.New("Little", measure.MM, "tray-lid")
	mm := measure.Millimetre
	in.Size["length"], in.Size["width"], in.Size["height"] = 40*mm, 30*mm, 15*mm
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	if n := len(printed(t, r, Print{Paper: A4, What: Templates}, "20")); n != 1 {
		t.Errorf("two little blanks take %d pages; want 1", n)
	}
	if text := told(t, r, Print{Paper: A4, What: Templates, Mirror: true}); !strings.Contains(text, "mirrored for the back") {
		t.Errorf("a mirrored template says %q", text)
	}
}

// The instruction sheet says all that is to be pinned up, in one unit: sizes, what to cut, each
// step, the page of how many, the date and the address; the score card both units. Cards tell how
// to fill and close, slips the numbers.
func TestSheetsSayItAll(t *testing.T) {
	r := result(t, "60")
	text := told(t, r, Print{Paper: A4, Date: time.Date(2026, 12, 4, 9, 0, 0, 0, time.UTC), Address: "http://table/boxes/1/making"})
	for _, want := range []string{
		"page 1 of ", "4 December 2026", "http://table/boxes/1/making", "Inside", "Outside", "from all four", "Sizes are width × height", "first",
		"ouble-sided tape", "Have ready", "measure this: 20 mm", "Put together", "paper, ", "Lower the lid on.", "a fresh blade",
	} {
		if !strings.Contains(text, want) {
			t.Errorf("the instruction sheet does not say %q", want)
		}
	}
	if strings.Contains(text, " in)") || strings.Contains(text, "about 2") {
		t.Errorf("the instruction sheet tells the other unit\n%s", text)
	}
	if strings.Contains(text, allPages) {
		t.Error("the number of pages was not put in")
	}
	if card := told(t, r, Print{Paper: A4, What: ScoreCard}); !strings.Contains(card, "on the fence") || !strings.Contains(card, "in)") {
		t.Errorf("the score card says\n%s", card)
	}
	many := r.Inputs.Copies
	r.Inputs.Copies = 7
	if batch := told(t, r, Print{Paper: A4, What: Batch}); !strings.Contains(batch, "7 × Fig sweets") || !strings.Contains(batch, "The work, in order") {
		t.Errorf("a page for the batch says\n%s", batch)
	}
	r.Inputs.Copies = many
	card := told(t, r, Print{Paper: Letter, What: Cards})
	if strings.Count(card, "Lower the lid") != 4 || strings.Count(card, "Fig sweets") < 4 {
		t.Errorf("four cards say\n%s", card)
	}
	for _, x := range []struct {
		r     *design.Result
		wants []string
	}{{r, []string{"each edge", "each edge, shim ", "Lower the lid", "from the left → 1"}}, {wallet(t), []string{"3/4 · 5 1/4", "3 · 3 3/4 · 7 · 7 3/4", "from the bottom → 2", "6 × 8 3/4 in"}}} {
		for _, paper := range []Paper{A4, Letter} {
			slip := told(t, x.r, Print{Paper: paper, What: Slips})
			for _, want := range x.wants {
				if !strings.Contains(slip, want) {
					t.Errorf("the slips do not say %q:\n%s", want, slip)
				}
			}
		}
	}
	if a, b := len(printed(t, r, Print{Paper: A4}, "10")), len(printed(t, r, Print{Paper: A4, Large: true}, "10")); b < a {
		t.Errorf("in large print %d pages, else %d", b, a)
	}
}

// wallet is a wallet of the usual size.
func wallet(t *testing.T) *design.Result {
	t.Helper()
	r, err := design.Make(t.Context(), design.New("Cards", measure.In, "wallet-box"))
	if err != nil {
		t.Fatal(err)
	}
	return r
}

// A name in any script prints as it is written, and reads back; what no font
// has letters for keeps its place.
func TestNamesInAnyScript(t *testing.T) {
	r := result(t, "60")
	for _, name := range []string{"Büchlein für Łucja", "Коробка для мёда", "Κουτί για μέλι", "蜂蜜の箱", "盒子", "קופסה"} {
		r.Inputs.Name = name
		if text := told(t, r, Print{Paper: A4, What: Slips}); !strings.Contains(text, name) {
			head, _, _ := strings.Cut(text, "\n")
			t.Errorf("%s prints as %q", name, strings.TrimSpace(head))
		}
	}
	r.Inputs.Name = "Jars \U0001F36F and \U00010348"
	if text := told(t, r, Print{Paper: A4, What: Slips}); !strings.Contains(text, "Jars •") {
		t.Errorf("what has no letter is lost: %q", text[:60])
	}
}

// Each print has what its name says and nothing of the others: an instruction sheet is of
// one box, the shopping list of all of them.
func TestEveryPrintIsItsOwn(t *testing.T) {
	in, err := design.Read([]byte(`{"brevium":1,"name":"Fig sweets","units":"in","style":"tray-lid","size":{"length":"4 in","width":"4 in","height":"1 in"},"copies":12}`))
	if err != nil {
		t.Fatal(err)
	}
	all, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	in.Copies = 1
	one, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		what      What
		r         *design.Result
		says, not []string
	}{
		{Instructions, one, []string{"Fig sweets", "Fill the base.", "base", "Have ready"}, []string{"Supplies", "12 × base", "Cut plan"}},
		{ScoreCard, one, []string{"Score card: Fig sweets", "1 × base blank", "on the fence"}, []string{"Fill the base.", "Supplies"}},
		{Shopping, all, []string{"For 12 × Fig sweets", "Supplies", "sheets of"}, []string{"Fill the base.", "on the fence"}},
		{Plan, all, []string{"Cut plan: Fig sweets", "Makes 12", "Sheet"}, []string{"Fill the base.", "Supplies"}},
		{Labels, all, []string{"Fig sweets", "for"}, []string{"Fill the base.", "Supplies"}},
	} {
		text := told(t, c.r, Print{Paper: A4, What: c.what})
		for _, words := range c.says {
			if !strings.Contains(text, words) {
				t.Errorf("%s does not say %q", c.what, words)
			}
		}
		for _, words := range c.not {
			if strings.Contains(text, words) {
				t.Errorf("%s says %q", c.what, words)
			}
		}
	}
	if n := strings.Count(told(t, all, Print{Paper: Letter, What: Labels}), "Fig sweets"); n < labelsAcross*labelsDown {
		t.Errorf("%d labels on a page", n)
	}
}
