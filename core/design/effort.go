package design

// Effort is how much there is to do for one box, counted from its pieces: cuts
// of the trimmer on its sheets and cuts told by line and edge, scores on the
// board, lines by a ruler, and patches of glue.
type Effort struct{ Cuts, Scores, Ruler, Glue int }

// Effort counts it; a piece of which a box has several counts as often.
func (r *Result) Effort() Effort {
	var e Effort
	for _, s := range r.Stocks {
		for _, l := range s.Layout.Sheets {
			e.Cuts += len(l.Cuts)
		}
	}
	for i, p := range r.Parts {
		n, pat := p.Copies(), p.Pattern
		for _, l := range r.Scores[i].Lines {
			if l.Hand.Cuts() {
				e.Cuts += n
			}
		}
		e.Scores += n * (len(pat.Scores.Vertical) + len(pat.Scores.Horizontal))
		e.Ruler += n * len(pat.Scores.Part)
		for _, g := range pat.Glue {
			if !g.Dry {
				e.Glue += n
			}
		}
	}
	return e
}

// Hard ranks efforts: what a hand does slowest counts most.
func (e Effort) Hard() int { return e.Cuts + e.Scores + 3*e.Ruler + 2*e.Glue }
