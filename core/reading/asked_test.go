package reading

import (
	"cmp"
	"fmt"
	"math"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"brevium/core/measure"
)

// asked is a text of testdata/asked.txt with what it makes: "> in base 8x6 | 1.5 6.5 | 1.5 4.5 | 2"
// is two pieces with lines across and down, "? word" a word or number that is to be marked.
type asked struct {
	class, about, text string
	pieces             []askedPiece
	marked             []string
}

type askedPiece struct {
	name          string
	width, height float64 // mm
	across, down  []float64
	copies        int
}

func readAsked(t *testing.T, name string) []asked {
	t.Helper()
	text, err := os.ReadFile("testdata/" + name)
	if err != nil {
		t.Fatal(err)
	}
	var out []asked
	for _, line := range strings.Split(string(text), "\n") {
		rest, is := strings.CutPrefix(line, "-- ")
		switch n := len(out) - 1; {
		case is:
			class, about, _ := strings.Cut(rest, " ")
			out = append(out, asked{class: class, about: about})
		case strings.HasPrefix(line, "> "):
			out[n].pieces = append(out[n].pieces, pieceAsked(t, line[2:]))
		case strings.HasPrefix(line, "? "):
			out[n].marked = append(out[n].marked, line[2:])
		case line != "" && n >= 0:
			out[n].text += line + "\n"
		}
	}
	return out
}

// pieceAsked reads "in base 8x6 | 1.5 6.5 | 1.5 4.5 | 2".
func pieceAsked(t *testing.T, line string) askedPiece {
	t.Helper()
	parts := strings.Split(line, "|")
	head := strings.Fields(parts[0])
	if len(head) != 3 {
		t.Fatalf("%q is no piece", line)
	}
	in := map[string]float64{"in": 25.4, "cm": 10, "mm": 1}[head[0]]
	number := func(text string) float64 {
		x, err := strconv.ParseFloat(text, 64)
		if err != nil {
			t.Fatalf("%q: %v", line, err)
		}
		return x * in
	}
	w, h, _ := strings.Cut(head[2], "x")
	p := askedPiece{name: head[1], width: number(w), height: number(h), copies: 1}
	for i, into := range []*[]float64{&p.across, &p.down} {
		if len(parts) > i+1 {
			for _, x := range strings.Fields(parts[i+1]) {
				*into = append(*into, number(x))
			}
		}
	}
	if len(parts) > 3 {
		p.copies, _ = strconv.Atoi(strings.TrimSpace(parts[3]))
	}
	return p
}

// wrong says what was read otherwise, "" for nothing.
func (a asked) wrong(r *Reading) string {
	if len(a.pieces) == 0 {
		return "" // it is to be marked, and that is all
	}
	if len(r.Pieces) != len(a.pieces) {
		return fmt.Sprintf("%d pieces", len(r.Pieces))
	}
	for i, want := range a.pieces {
		got := r.Pieces[i]
		switch {
		case math.Abs(got.Width.MM()-want.width) > 0.002 || math.Abs(got.Height.MM()-want.height) > 0.002:
			return fmt.Sprintf("%s is %v x %v", want.name, got.Width.MM(), got.Height.MM())
		case !same(got.Vertical, want.across) || !same(got.Horizontal, want.down):
			return fmt.Sprintf("%s is scored at %v, %v", want.name, mms(got.Vertical), mms(got.Horizontal))
		case got.Copies != want.copies:
			return fmt.Sprintf("%d of %s", got.Copies, want.name)
		case want.name != "-" && cmp.Or(got.Name, "-") != want.name && !slices.Contains(got.aliases, strings.ToUpper(want.name)):
			return fmt.Sprintf("%s is called %q", want.name, got.Name)
		}
	}
	return ""
}

func mms(all []measure.Length) (out []float64) {
	for _, x := range all {
		out = append(out, x.MM())
	}
	return out
}

// Texts that were written before the grammar they ask for: each is read right, or what was not
// read in it is marked; none is read wrong with nothing said.
func TestWhatIsAsked(t *testing.T) {
	all := append(readAsked(t, "asked.txt"), append(readAsked(t, "odd.txt"), append(readAsked(t, "odder.txt"), readAsked(t, "counted.txt")...)...)...)
	right := 0
	for _, a := range all {
		r, err := Read(a.text, measure.In)
		if err != nil {
			t.Errorf("%q: %v", a.text, err)
			continue
		}
		wrong := a.wrong(r)
		for _, m := range a.marked {
			if !marked(r, m) {
				wrong = cmp.Or(wrong, fmt.Sprintf("%q is not marked", m))
			}
		}
		if wrong == "" && len(a.marked) == 0 && len(r.NotUnderstood) > 0 {
			wrong = fmt.Sprintf("%v is not understood", r.NotUnderstood)
		}
		switch {
		case wrong == "":
			right++
		case len(r.NotUnderstood) == 0 && len(r.Said) == 0:
			t.Errorf("SILENT %s %s: %q: %s", a.class, a.about, a.text, wrong)
		default:
			t.Logf("marked %s %s: %q: %s; not understood %v, said %q", a.class, a.about, a.text, wrong, r.NotUnderstood, r.Said)
		}
	}
	t.Logf("%d of %d are right", right, len(all))
	if right*100 < 97*len(all) {
		t.Errorf("%d of %d are right", right, len(all))
	}
}

// Every number of a text has a role, or is marked, or is taken back and that is said; and every
// number of the pieces is one of the text, or follows from those by what is said of edges.
func TestEveryNumberIsAccountedFor(t *testing.T) {
	var texts []string
	for _, name := range []string{"recipes.json", "kept-out.json"} {
		for _, a := range corpus(t, name) {
			texts = append(texts, a.Text)
		}
	}
	for _, a := range append(readAsked(t, "asked.txt"), append(readAsked(t, "odd.txt"), append(readAsked(t, "odder.txt"), readAsked(t, "counted.txt")...)...)...) {
		texts = append(texts, a.text)
	}
	for _, text := range texts {
		r, err := Read(text, measure.In)
		if err != nil {
			t.Errorf("%q: %v", text, err)
			continue
		}
		for _, d := range digit.FindAllStringIndex(text, -1) {
			k := slices.IndexFunc(r.Numbers, func(n Number) bool { return n.From <= d[0] && d[1] <= n.To })
			inName := slices.ContainsFunc(r.NotUnderstood, func(s Span) bool { return s.From <= d[0] && d[1] <= s.To })
			if k < 0 && !inName && !sheetName(text, d[0]) {
				t.Errorf("%q: %q at %d is no number of it", text, text[d[0]:d[1]], d[0])
			}
		}
		for _, n := range r.Numbers {
			if n.As != Unread {
				continue
			}
			is := slices.ContainsFunc(r.NotUnderstood, func(s Span) bool { return s.From <= n.From && n.To <= s.To })
			back := slices.ContainsFunc(r.Said, func(s string) bool { return s == r.Voice.Say("“%s” is taken back", n.Text) })
			if !is && !back {
				t.Errorf("%q: %q is unread and not marked", text, n.Text)
			}
		}
		for i, p := range r.Pieces {
			uses := 0
			for _, u := range r.Uses {
				if u.Piece == i {
					uses++
				}
			}
			if lines := len(p.Vertical) + len(p.Horizontal); lines > 0 && uses == 0 && p.like < 0 {
				t.Errorf("%q: piece %d comes from no number", text, i)
			}
		}
	}
}

var digit = regexp.MustCompile(`[0-9]+`)

// sheetName reports whether a digit is part of the name of a sheet: A4.
func sheetName(text string, at int) bool {
	return at > 0 && strings.ContainsAny(text[at-1:at], "ABab")
}
