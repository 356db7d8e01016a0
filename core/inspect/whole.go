package inspect

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Whole is a box put together, as its checks need it.
type Whole struct {
	Parts    []style.Part
	Finished []*pattern.Folded // one a part, shut
	Box      *style.Box
	Fits     []fit.Account
	// Needs is the block that what goes in takes, with its ease and whatever
	// lines the box; Filled tells that something is to go in. Without it the
	// room that the box claims is held against its faces.
	Needs  style.Extent
	Filled bool
	Inside style.Extent // the room as it is told: less what is pasted in
	Inner  bool         // what is made goes into a box that is not here
	Units  measure.Unit
}

// landing is how far, in cards, a glued face may lie off the one it meets, and
// ease how far, in mm, an inner piece's tab, which is pushed to its wall.
const (
	landing = 3
	ease    = 2
)

// Together looks the whole box over in every state: parts that pass through
// each other, glue that lands on nothing, a thing that does not stand on what
// is under it, and room that is not really free.
func (w Whole) Together() ([]Finding, error) {
	var out, rooms []Finding
	tight := measure.Length(0) // what the tightest account is short of
	for _, a := range w.Fits {
		tight = max(tight, -a.Gap)
	}
	shut, open, err := w.stood()
	if err != nil {
		return nil, err
	}
	for _, state := range style.States {
		bodies := open // a packed box is an open one
		if state == style.Finished {
			bodies = shut
		}
		if tight <= 0 && state != style.Packed { // what is too tight is said by its account
			out = append(out, passThrough(bodies, state)...)
		}
		if state == style.Finished {
			out = append(out, w.landings(bodies)...)
			out = append(out, w.standing(bodies)...)
		}
		// What goes in must stand there shut, and while it is packed.
		if w.Box.Room.Height != nil && state != style.Open {
			rooms = append(rooms, w.room(bodies, state, tight))
		}
	}
	for i, f := range rooms {
		if f.Verdict != OK || i+1 == len(rooms) {
			out = append(out, f)
			break
		}
	}
	use, err := w.use(shut, open)
	return append(out, use...), err
}

// stood are the parts as they stand shut and open.
func (w Whole) stood() (shut, open []style.Body, err error) {
	if shut, err = style.Assemble(w.Parts, w.Finished, style.Finished); err == nil {
		open, err = style.Assemble(w.Parts, w.Finished, style.Open)
	}
	return shut, open, err
}

func passThrough(bodies []style.Body, state style.State) []Finding {
	var out []Finding
	told := map[string]bool{}
	for _, h := range style.Collisions(bodies) {
		text := fmt.Sprintf("%s and %s pass through each other when the box is %s: %s and %s. Change one of their sizes.",
			copyName(h.A), strings.ToLower(copyName(h.B)), state, h.FaceA.Plain(), h.FaceB.Plain())
		if both := h.A.Part.ID + " " + h.B.Part.ID; !told[both] {
			told[both] = true
			out = append(
				out,
				Finding{ID: "collision", Verdict: Fail, Piece: h.A.Part.ID, Where: [][]pattern.Point{h.FaceA.Polygon}, Text: text},
			)
		}
	}
	return out
}

func copyName(b *style.Body) string {
	if b.Part.Copies() > 1 {
		return fmt.Sprintf("%s %d", b.Part.Name, b.Copy+1)
	}
	return b.Part.Name
}

func (w Whole) landings(bodies []style.Body) []Finding {
	var out []Finding
	for _, b := range bodies {
		for _, l := range style.Landings([]style.Body{b}, bodies) {
			off := landing*b.Part.Card.MM() + 0.05
			if l.Glue.Piece == style.OntoTheBox {
				if w.Inner {
					continue
				}
				off = ease
			}
			if l.Off <= off && l.Area >= 1 {
				continue
			}
			mark, _ := b.Part.Pattern.Mark(l.Glue.Face)
			out = append(out, Finding{
				ID:      "glue",
				Verdict: Fail,
				Piece:   b.Part.ID,
				Where:   [][]pattern.Point{l.Glue.Area},
				Text: fmt.Sprintf(
					"%s: the %s meets nothing that it could be glued to; change one of the sizes.",
					b.Part.Name,
					mark.Plain(),
				),
			})
		}
	}
	return out
}

// standing checks what stands on another part.
func (w Whole) standing(bodies []style.Body) []Finding {
	find := func(id string) *style.Body {
		for i := range bodies {
			if bodies[i].Part.ID == id {
				return &bodies[i]
			}
		}
		return nil
	}
	for _, s := range w.Box.Stands {
		upper, lower := find(s.Upper), find(s.Lower)
		if !style.StandsOn(upper, lower) {
			return []Finding{
				{ID: "stand", Verdict: Fail, Piece: s.Upper, Text: fmt.Sprintf("%s does not stand on %s: it would drop into it. %s.",
					upper.Part.Name, strings.ToLower(lower.Part.Name), s.Otherwise)},
			}
		}
	}
	return []Finding{{ID: "stand", Verdict: OK, Text: "What stands on something stands."}}
}

// room holds the block that is needed against every face.
func (w Whole) room(bodies []style.Body, state style.State, tight measure.Length) Finding {
	need, what := w.Inside, "The room inside"
	if w.Filled {
		need, what = w.Needs, "What goes in, with room to spare,"
	}
	if n := w.Box.Room.Times; n > 1 {
		what = fmt.Sprintf("Each of the %d rooms", n)
		if w.Filled {
			what = fmt.Sprintf("What goes into each of the %d rooms", n)
		}
	}
	size := w.size(need)
	// What lines the box is part of the need; copies of its own pieces are not.
	own := slices.DeleteFunc(slices.Clone(bodies), func(b style.Body) bool {
		return len(b.Part.Places) > 0 && !slices.ContainsFunc(w.Box.Parts, func(p style.Part) bool { return p.ID == b.Part.ID })
	})
	h := w.Box.Room.In(state, w.Parts).Hold(own, need)
	// Where parts are tight by their account, walls bow by that.
	if lacks := measure.FromMM(h.Lacks); lacks > tight {
		way := "to the side"
		if h.Up {
			way = "in height"
		}
		return Finding{
			ID:      "room",
			Verdict: Fail,
			Text: fmt.Sprintf("%s takes %s, and that is not free: %s lacks %s %s. Make the box larger.",
				what, size, h.Against, w.show(lacks), way),
		}
	}
	if !h.Floor {
		return Finding{ID: "room", Verdict: Fail, Text: what + " stands on no floor."}
	}
	return Finding{
		ID:      "room",
		Verdict: OK,
		Text:    fmt.Sprintf("%s takes %s, and that is free in the finished box (%s).", what, size, w.shape()),
	}
}

// shape says what kind of room it is, and how wide a round thing it takes
// where that is not the same as its sides.
func (w Whole) shape() string {
	r := w.Box.Room
	across := measure.FromMM(r.Across())
	if across >= min(r.Largest.Length, r.Largest.Width)-measure.Millimetre/10 && across <= min(r.Largest.Length, r.Largest.Width)+measure.Millimetre/10 {
		return r.Shape
	}
	return fmt.Sprintf("%s; it takes a round thing %s across", r.Shape, measure.Label(measure.Down(across, w.Units.Ruler()), w.Units, w.Units.Tick()))
}
