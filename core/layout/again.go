package layout

import (
	"slices"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/strict"
)

// ReadResult reads a layout of a job back from the file that JSON wrote; the
// sheets are known by their names, the pieces by theirs and their sizes. It
// fails when the file is not one of this job, whole.
func ReadResult(job *Job, text []byte) (*Result, error) {
	other := fault.New(fault.OtherJob, "layout", "this layout is not one of these pieces and sheets")
	var f resultFile
	if err := strict.Decode(text, &f); err != nil {
		return nil, err
	}
	r := &Result{}
	for _, s := range f.Sheets {
		l := Laid{Sheet: paper.Sheet{Name: s.Sheet, Width: s.Width, Height: s.Height}}
		for _, c := range s.Cuts {
			l.Cuts = append(l.Cuts, Cut{Part: c.Part, Across: c.Across, At: c.At})
		}
		for _, p := range s.Placed {
			i := slices.IndexFunc(job.Pieces, func(x Piece) bool { return x.Name == p.Piece })
			if i < 0 || !job.Pieces[i].is(p.Width, p.Height, p.Turned) {
				return nil, other
			}
			l.Placed = append(l.Placed, Placed{Rect: Rect(p.rectFile), Piece: i, Turned: p.Turned})
		}
		r.Sheets = append(r.Sheets, l)
	}
	p := job.again(r)
	if p == nil {
		return nil, other
	}
	return job.result(p, job.bound()), nil
}

// is tells whether the piece has a size as placed.
func (p Piece) is(w, h measure.Length, turned bool) bool {
	if turned {
		w, h = h, w
	}
	return p.Width == w && p.Height == h && (!turned || p.Turn)
}

// again reads a layout back into a plan, by following its cuts. It is nil when
// there is none, or when it is not a whole one of this job.
func (j *Job) again(r *Result) *plan {
	if r == nil {
		return nil
	}
	p := &plan{}
	placed := make([]int, len(j.Pieces))
	for _, l := range r.Sheets {
		kind := slices.IndexFunc(j.Sheets, func(s paper.Sheet) bool {
			return s.Name == l.Sheet.Name && s.Width == l.Sheet.Width && s.Height == l.Sheet.Height
		})
		if kind < 0 {
			return nil
		}
		root := j.regrow(kind, l)
		if root == nil {
			return nil
		}
		u := j.use(kind, root.strip())
		if w, h := j.room(kind); u.root == nil || !j.cutFrom(kind, u.root, w, h) {
			return nil
		}
		for _, piece := range u.root.pieces(nil) {
			placed[piece]++
		}
		p.sheets = append(p.sheets, u)
	}
	for i, n := range j.counts() {
		for _, u := range p.sheets {
			if u.kind == i && n != paper.Unlimited {
				if n--; n < 0 {
					return nil
				}
			}
		}
	}
	for i, n := range placed {
		if n != j.Pieces[i].Copies {
			return nil
		}
	}
	return p
}

// regrow makes a sheet's tree from its cuts; nil when they do not take it
// apart into its pieces.
func (j *Job) regrow(kind int, l Laid) *node {
	part, trims := "1", 0
	if j.Trim > 0 {
		part, trims = "1.2.1.2.1", 4 // as read trims a sheet
	}
	if len(l.Cuts) < trims {
		return nil
	}
	type grown struct {
		*node
		x, y measure.Length
	}
	root := leaf(j.room(kind))
	parts := map[string]grown{part: {root, j.Trim, j.Trim}}
	for _, c := range l.Cuts[trims:] {
		n, known := parts[c.Part]
		if !known {
			return nil
		}
		delete(parts, c.Part)
		n.cut(c.Across, c.At+j.Kerf)
		b := n
		if c.Across {
			b.x += n.at
		} else {
			b.y += n.at
		}
		parts[c.Part+".1"], parts[c.Part+".2"] = grown{n.a, n.x, n.y}, grown{n.b, b.x, b.y}
	}
	whole := map[Rect]*node{}
	for _, n := range parts {
		whole[Rect{n.x, n.y, n.w - j.Kerf, n.h - j.Kerf}] = n.node
	}
	for _, p := range l.Placed {
		n := whole[p.Rect]
		if n == nil || n.piece >= 0 || p.Piece >= len(j.Pieces) {
			return nil
		}
		n.piece, n.turned = p.Piece, p.Turned
	}
	return root
}
