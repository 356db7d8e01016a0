// Package marked lays what is printed and then cut by a machine, labels and papers that carry a print,
// on pages with marks that the machine finds the printed page by.
//
// Millimetres; origin a page's top left, y down.
package marked

import (
	"context"
	"fmt"
	"strings"

	"brevium/core/design"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/nest"
	"brevium/core/paper"
	"brevium/core/pattern"
)

// A mark is a filled disc of 5 mm, its middle 12.5 mm in from both edges of a corner; nothing else lies
// within 10 mm of it. The printer leaves an edge of 8 mm white, and the print runs out over what is cut
// by 1 mm.
const (
	Across = 5.0
	In     = 12.5
	clear  = 10.0
	white  = 8.0
	Bleed  = 1.0
)

// Item is one thing that is printed and cut: a label's copy, or a paper for the box.
type Item struct {
	Name  string
	Label int // which of the inputs' labels; below 0 for a paper
	Copy  int // of the label, from 0
	Blank int // which of the design's blanks, for a paper
	// Outlines are what is cut, the first round the whole of a label; their own top left at 0, 0.
	Outlines []pattern.Loop
	At       pattern.Point // of the top left of its bounds on the page, turned
	Turn     int           // with the clock, in degrees
}

// Placed are its outlines where they lie.
func (i Item) Placed() []pattern.Loop {
	_, _, move := i.Lies()
	var out []pattern.Loop
	for _, l := range i.Outlines {
		moved := make(pattern.Loop, len(l))
		for k, v := range l {
			moved[k] = pattern.Vertex{Point: move(v.Point), Bulge: v.Bulge}
		}
		out = append(out, moved)
	}
	return out
}

// Lies says how wide and high an item's bounds are, and takes a point of it to the page.
func (i Item) Lies() (wide, high float64, move func(pattern.Point) pattern.Point) {
	turn := func(p pattern.Point) pattern.Point {
		for range i.Turn / 90 {
			p = pattern.Pt(-p.Y, p.X)
		}
		return p
	}
	var all []pattern.Point
	for _, l := range i.Outlines {
		for _, p := range l.Flat() {
			all = append(all, turn(p))
		}
	}
	lo, hi := pattern.Bounds(all)
	return hi.X - lo.X, hi.Y - lo.Y, func(p pattern.Point) pattern.Point { return turn(p).Sub(lo).Add(i.At) }
}

// Page is a printed page.
type Page struct {
	Width, Height float64
	Marks         []pattern.Point
	Items         []Item
}

// Marks are the middles of a page's marks: top left, top right, bottom left, and of four bottom right.
func Marks(width, height float64, n int) []pattern.Point {
	return []pattern.Point{pattern.Pt(In, In), pattern.Pt(width-In, In), pattern.Pt(In, height-In), pattern.Pt(width-In, height-In)}[:n]
}

// items are all that a design has to print: labels as many as all boxes take, and papers with a print
// or a photograph.
func items(r *design.Result) []Item {
	var out []Item
	for n, l := range r.Inputs.Labels {
		if l.What.Bought() {
			continue
		}
		top := len(l.Layers) - 1
		outline := l.Outline(top)
		lo, _ := pattern.Bounds(outline.Flat())
		loops := []pattern.Loop{shifted(outline, lo)}
		if l.Hole {
			if at, ok := l.HoleAt(); ok {
				loops = append(loops, shifted(pattern.Circle(at, label.HoleAcross.MM()/2), lo))
			}
		}
		for c := range l.Copies * r.Inputs.Copies {
			out = append(out, Item{Name: l.Name, Label: n, Copy: c % l.Copies, Outlines: loops})
		}
	}
	for n, b := range r.Blanks {
		look := b.Card.Seen()
		part := false
		for _, p := range r.Parts {
			part = part || p.ID == b.ID
		}
		if part || look.Print == paper.Plain && look.Photo.ID == "" {
			continue
		}
		var loops []pattern.Loop
		for _, g := range b.Gives {
			loops = append(loops, pattern.Straight(g.Outline...))
		}
		for range b.Copies * r.Inputs.Copies {
			out = append(out, Item{Name: b.Name, Label: -1, Blank: n, Outlines: loops})
		}
	}
	return out
}

func shifted(l pattern.Loop, by pattern.Point) pattern.Loop {
	out := make(pattern.Loop, len(l))
	for i, v := range l {
		out[i] = pattern.Vertex{Point: v.Sub(by), Bulge: v.Bulge}
	}
	return out
}

// Any tells whether a design has anything to print and cut.
func Any(r *design.Result) bool { return len(items(r)) > 0 }

// Pages lays all of it on pages with three or four marks. What is larger than a page is named in
// tooLarge. The print and the file that is cut are asked for apart, so no clock ends the search: the
// same design gives the same pages.
func Pages(r *design.Result, width, height float64, marks int) (pages []Page, tooLarge []string, err error) {
	w, h := width-2*white, height-2*white
	corner := In + clear - white
	page := []pattern.Point{
		pattern.Pt(corner, 0), pattern.Pt(w-corner, 0), pattern.Pt(w-corner, corner), pattern.Pt(w, corner), pattern.Pt(w, h-corner), pattern.Pt(w-corner, h-corner),
		pattern.Pt(w-corner, h), pattern.Pt(corner, h), pattern.Pt(corner, h-corner), pattern.Pt(0, h-corner), pattern.Pt(0, corner), pattern.Pt(corner, corner),
	}
	all := items(r)
	job := &nest.Job{Gap: 2 * Bleed, Sheets: []nest.Sheet{{Sheet: paper.Sheet{Name: "page", Width: measure.FromMM(w), Height: measure.FromMM(h), Count: paper.Unlimited}, Outline: page}}}
	var of []int
	for n, i := range all {
		wide, high, move := i.Lies()
		var outline []pattern.Point
		if len(i.Outlines) == 1 || i.Label >= 0 {
			for _, p := range nest.Round(i.Outlines[0]) {
				outline = append(outline, move(p))
			}
		} else { // several that are cut from one rectangle stay together
			outline = []pattern.Point{pattern.Pt(0, 0), pattern.Pt(wide, 0), pattern.Pt(wide, high), pattern.Pt(0, high)}
		}
		if min(wide, high) > min(w, h) || max(wide, high) > max(w, h) || len(of) == mostItems {
			tooLarge = append(tooLarge, i.Name)
			continue
		}
		job.Pieces = append(job.Pieces, nest.Piece{Name: fmt.Sprint(n), Outline: outline, Copies: 1, Turns: []int{0, 90}})
		of = append(of, n)
	}
	if len(of) == 0 {
		return nil, tooLarge, nil
	}
	laid, err := nest.Solve(context.Background(), job, nest.Effort{Seconds: 600, Rounds: 1, Workers: 1})
	if err != nil {
		return nil, nil, err
	}
	for _, u := range laid.Unplaced {
		tooLarge = append(tooLarge, all[of[u.Piece]].Name)
	}
	for _, l := range laid.Sheets {
		p := Page{Width: width, Height: height, Marks: Marks(width, height, marks)}
		for _, at := range l.Placed {
			i := all[of[at.Piece]]
			i.At, i.Turn = pattern.Pt(at.X.MM()+white, at.Y.MM()+white), at.Turn
			p.Items = append(p.Items, i)
		}
		pages = append(pages, p)
	}
	return pages, tooLarge, nil
}

// mostItems is how many are laid at once.
const mostItems = 200

// TooLarge says what was left out, in a sentence; "" for nothing.
func TooLarge(names []string) string {
	if len(names) == 0 {
		return ""
	}
	return "Too large for a page, or too many at once: " + strings.Join(names, ", ") + "."
}
