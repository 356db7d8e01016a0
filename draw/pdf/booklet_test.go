package pdf

import (
	"fmt"
	"io"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/label"
	"brevium/core/measure"
)

// booklet are some boxes, each for one.
func booklet(t *testing.T, change func(*design.Inputs), styles ...string) []*design.Result {
	t.Helper()
	var out []*design.Result
	for i, id := range styles {
		in := design.New(fmt.Sprintf("Fair box %d", i+1), measure.MM, id)
		if change != nil {
			change(&in)
		}
		r, err := design.Make(t.Context(), in)
		if err != nil {
			t.Fatal(err)
		}
		out = append(out, r)
	}
	return out
}

// A booklet has a cover with every box, what is in it with the page it is on, and a page for each:
// its sizes and all its steps, in order.
func TestBookletHasAPageForEachBox(t *testing.T) {
	t.Parallel()
	boxes := booklet(t, nil, "tray", "tray-lid", "hinged-carton", "wallet-box", "pyramid")
	for _, paper := range []Paper{A4, Letter} {
		pages := strings.Split(strings.TrimSuffix(read(t, func(out io.Writer) error { return WriteBooklet(out, boxes, Print{Paper: paper}) }), "\f"), "\f")
		if len(pages) != 2+len(boxes) {
			t.Fatalf("%d pages for %d boxes", len(pages), len(boxes))
		}
		for i, r := range boxes {
			if !strings.Contains(pages[0], r.Inputs.Name) {
				t.Errorf("%s is not on the cover", r.Inputs.Name)
			}
			line := ""
			for _, l := range strings.Split(pages[1], "\n") {
				if strings.Contains(l, r.Inputs.Name) {
					line = strings.TrimSpace(l)
				}
			}
			if !strings.HasSuffix(line, fmt.Sprintf(" %d", i+3)) {
				t.Errorf("%s stands on page %d; what is in it says %q", r.Inputs.Name, i+3, line)
			}
			words := strings.Join(strings.Fields(pages[i+2]), " ")
			for _, s := range r.Steps { // two columns stand beside each other: words are looked for, not lines
				first := strings.Join(strings.Fields(s.Text)[:2], " ")
				if !strings.Contains(words, first) {
					t.Errorf("%s: its page lacks the step %q", r.Style.ID, s.Text)
				}
			}
		}
	}
}

// A box of very many steps goes on over the page, and those after it are still found.
func TestBookletGoesOn(t *testing.T) {
	t.Parallel()
	boxes := booklet(t, nil, "tower", "tray")
	boxes[0].Steps = append(boxes[0].Steps, append(boxes[0].Steps, append(boxes[0].Steps, boxes[0].Steps...)...)...)
	text := read(t, func(out io.Writer) error { return WriteBooklet(out, boxes, Print{Paper: A4}) })
	pages := strings.Split(text, "\f")
	at := 0
	for i, p := range pages {
		if strings.Contains(p, "Inside") && strings.Contains(p, "Fair box 2") && i > 1 {
			at = i + 1
		}
	}
	if at < 5 || !strings.Contains(strings.Join(strings.Fields(pages[1]), " "), fmt.Sprintf("inside %d", at)) {
		t.Errorf("the second box stands on page %d; what is in it says %s", at, pages[1])
	}
}

// The labels of several boxes share a page; a box that has none of its own gets strips.
func TestLabelsOfMany(t *testing.T) {
	t.Parallel()
	boxes := booklet(t, func(in *design.Inputs) {
		l := design.UsualLabel("", "", measure.MM)
		l.ID, l.Text, in.Copies = 1, "For "+in.Name, 2
		in.Labels = []label.Label{l}
	}, "tray", "hinged-carton")
	write := func(boxes []*design.Result) []string {
		text := read(t, func(out io.Writer) error { return WriteLabels(out, boxes, Print{Paper: A4}) })
		return strings.Split(strings.TrimSuffix(text, "\f"), "\f")
	}
	if pages := write(boxes); len(pages) != 1 || strings.Count(pages[0], "For Fair box 1") != 2 || strings.Count(pages[0], "For Fair box 2") != 2 {
		t.Errorf("two labels of each of two boxes: %d pages, %s", len(pages), pages)
	}
	if pages := write(append(booklet(t, nil, "pouch"), boxes...)); len(pages) != 2 || !strings.Contains(pages[0], "Fair box 1") {
		t.Errorf("with a box that has none: %d pages", len(pages))
	}
}
