package layout

import (
	"context"
	"fmt"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
)

// Held is a sheet on which some pieces keep the places that a hand gave them.
// The rest is laid around them: the sheet is cut apart along their edges, and
// what is free becomes small sheets that cost nothing.
type Held struct {
	Sheet  int // index into the job's Sheets
	Pieces []Placed
}

// checkHeld refuses held pieces that are not in the job, stick out, lie over
// one another, or cannot be cut free.
func (j *Job) checkHeld() error {
	sheets, copies := j.counts(), make([]int, len(j.Pieces))
	for i, h := range j.Held {
		field := fmt.Sprintf("held[%d]", i)
		if h.Sheet < 0 || h.Sheet >= len(j.Sheets) || sheets[h.Sheet] == 0 {
			return fault.New(fault.UnknownSheet, field+".sheet", "there is no such sheet left to keep pieces on")
		}
		sheets[h.Sheet]--
		s := j.Sheets[h.Sheet]
		for k, p := range h.Pieces {
			at := fmt.Sprintf("%s.pieces[%d]", field, k)
			if p.Piece < 0 || p.Piece >= len(j.Pieces) {
				return fault.New(fault.UnknownPiece, at, "there is no such piece to keep in place")
			}
			piece := j.Pieces[p.Piece]
			w, h2 := piece.Width, piece.Height
			if p.Turned {
				w, h2 = h2, w
			}
			if copies[p.Piece]++; copies[p.Piece] > piece.Copies {
				return fault.New(fault.CountRange, at, "more copies of %q are kept in place than there are", piece.Name)
			}
			switch {
			case p.Turned && !piece.Turn:
				return fault.New(fault.MayNotTurn, at, "%q may not be turned: its pattern or grain runs one way", piece.Name)
			case p.Width != w || p.Height != h2:
				return fault.New(fault.WrongSize, at, "%q has another size", piece.Name)
			case p.X < j.Trim || p.Y < j.Trim || p.X+w > s.Width-j.Trim || p.Y+h2 > s.Height-j.Trim:
				return fault.New(fault.Outside, at, "there %q would stick out of the sheet; keep it inside", piece.Name)
			}
			for _, o := range h.Pieces[:k] {
				if p.X < o.X+o.Width+j.Kerf && o.X < p.X+w+j.Kerf && p.Y < o.Y+o.Height+j.Kerf && o.Y < p.Y+h2+j.Kerf {
					return fault.New(fault.Overlaps, at, "there %q would lie over %q; move one of them", piece.Name, j.Pieces[o.Piece].Name)
				}
			}
		}
		if root := j.heldTree(h); root == nil || !j.cutter(h.Sheet).may(root) {
			return fault.New(
				fault.NotCuttable,
				field,
				"no cuts from edge to edge set these pieces free as they lie; move one in line with another",
			)
		}
	}
	return nil
}

// heldTree cuts a held sheet apart along its pieces; nil when that cannot be.
func (j *Job) heldTree(h Held) *node {
	root := leaf(j.room(h.Sheet))
	c := j.cutter(h.Sheet)
	c.stages = 0 // told by may, when all is cut
	if !c.around(root, j.Trim, j.Trim, h.Pieces) {
		return nil
	}
	return root
}

// around cuts a part that lies at x, y apart along the pieces on it. Of the
// cuts that cross none it takes the one that frees the largest rectangle; any
// would do, since a cut never spoils those of its parts.
func (c cutter) around(n *node, x, y measure.Length, pieces []Placed) bool {
	if len(pieces) == 0 {
		return true
	}
	if p := pieces[0]; len(pieces) == 1 && p.X == x && p.Y == y && p.Width+c.kerf == n.w && p.Height+c.kerf == n.h {
		n.piece, n.turned = p.Piece, p.Turned
		return true
	}
	best, free := node{}, -1.0
	for _, p := range pieces {
		for _, try := range []node{
			{across: true, at: p.X - x}, {across: true, at: p.X + p.Width + c.kerf - x}, {at: p.Y - y}, {at: p.Y + p.Height + c.kerf - y},
		} {
			if f := c.frees(n, x, y, try, pieces); f > free {
				best, free = try, f
			}
		}
	}
	if free < 0 {
		return false
	}
	n.cut(best.across, best.at)
	bx, by := x, y
	if n.across {
		bx += n.at
	} else {
		by += n.at
	}
	var first, second []Placed
	for _, p := range pieces {
		if n.across && p.X < bx || !n.across && p.Y < by {
			first = append(first, p)
		} else {
			second = append(second, p)
		}
	}
	return c.around(n.a, x, y, first) && c.around(n.b, bx, by, second)
}

// frees is the area of the part without pieces that a cut leaves, 0 when both
// parts have some, and −1 when the cut crosses a piece or cannot be made.
func (c cutter) frees(n *node, x, y measure.Length, cut node, pieces []Placed) float64 {
	of, side, at := n.w, n.h, x+cut.at
	if !cut.across {
		of, side, at = n.h, n.w, y+cut.at
	}
	if cut.at <= 0 || cut.at >= of || c.tooLong(side) {
		return -1
	}
	before, after := 0, 0
	for _, p := range pieces {
		from, to := p.X, p.X+p.Width+c.kerf
		if !cut.across {
			from, to = p.Y, p.Y+p.Height+c.kerf
		}
		switch {
		case to <= at:
			before++
		case from >= at:
			after++
		default:
			return -1
		}
	}
	switch {
	case before == 0:
		return area(cut.at, side)
	case after == 0:
		return area(of-cut.at, side)
	}
	return 0
}

// free lists the parts of a held sheet's tree that hold no piece and are wide
// enough for one, each with the stages its cuts have used.
func (n *node) free(kerf measure.Length, stages int, found func(n *node, stages int)) {
	if n.a == nil {
		if n.piece < 0 && n.w > kerf && n.h > kerf {
			found(n, stages)
		}
		return
	}
	for _, k := range []*node{n.a, n.b} {
		more := stages
		if k.a != nil && k.across != n.across {
			more++
		}
		k.free(kerf, more, found)
	}
}

// rest is a job without its held pieces: free parts of held sheets stand
// before the other sheets.
type rest struct {
	whole  *Job
	job    Job
	rooms  int
	kinds  []int // of the whole job, by sheet after the rooms
	pieces []int // of the whole job, by piece
}

func (j *Job) withoutHeld() *rest {
	r := &rest{whole: j, job: Job{Trim: j.Trim, Kerf: j.Kerf, Stages: j.Stages, Trimmer: j.Trimmer}}
	counts, copies := j.counts(), make([]int, len(j.Pieces))
	for _, h := range j.Held {
		if counts[h.Sheet] > 0 {
			counts[h.Sheet]--
		}
		for _, p := range h.Pieces {
			copies[p.Piece]++
		}
		j.heldTree(h).free(j.Kerf, 1, func(n *node, stages int) {
			r.rooms++
			part := paper.Sheet{Name: fmt.Sprintf("free part %d", r.rooms), Count: 1, Offcut: true,
				Width: n.w + 2*j.Trim - j.Kerf, Height: n.h + 2*j.Trim - j.Kerf}
			if j.Stages > 0 {
				left := j.Stages - stages
				part.Count = min(1, max(0, left)) // none is left to cut it with
				r.job.left = append(r.job.left, max(1, left))
			}
			r.job.Sheets = append(r.job.Sheets, part)
		})
	}
	for kind, s := range j.Sheets {
		if s.Count = counts[kind]; s.Count == 0 {
			continue
		}
		r.job.Sheets, r.kinds = append(r.job.Sheets, s), append(r.kinds, kind)
		if j.Stages > 0 {
			r.job.left = append(r.job.left, j.Stages)
		}
	}
	for i, p := range j.Pieces {
		if p.Copies -= copies[i]; p.Copies > 0 {
			r.job.Pieces, r.pieces = append(r.job.Pieces, p), append(r.pieces, i)
		}
	}
	return r
}

// solveAround lays the rest of a job around its held pieces.
func (j *Job) solveAround(ctx context.Context, e Effort) (*Result, error) {
	r := j.withoutHeld()
	bound := j.bound()
	if len(r.job.Pieces) == 0 || len(r.job.Sheets) == 0 {
		return r.joined(&plan{}, bound), nil
	}
	e.Start = nil // it is a layout of the whole job
	p, _ := r.job.solve(ctx, e, func(p *plan, _ Bound) {
		if e.Better != nil {
			e.Better(r.joined(p, bound))
		}
	})
	return r.joined(p, bound), nil
}

// joined puts a plan of the rest back among the held pieces.
func (r *rest) joined(p *plan, bound Bound) *Result {
	j := r.whole
	var kinds []int
	var roots, rooms []*node
	for _, h := range j.Held {
		root := j.heldTree(h)
		kinds, roots = append(kinds, h.Sheet), append(roots, root)
		root.free(j.Kerf, 1, func(n *node, _ int) { rooms = append(rooms, n) })
	}
	for _, u := range p.sheets {
		root := r.job.tree(&u)
		root.rename(r.pieces)
		if u.kind < r.rooms {
			*rooms[u.kind] = *root
			continue
		}
		if u.root != nil {
			kinds, roots = append(kinds, r.kinds[u.kind-r.rooms]), append(roots, root)
		}
	}
	return j.written(kinds, roots, bound)
}

// rename gives the pieces of a tree their numbers in another job.
func (n *node) rename(to []int) {
	if n.a != nil {
		n.a.rename(to)
		n.b.rename(to)
	} else if n.piece >= 0 {
		n.piece = to[n.piece]
	}
}
