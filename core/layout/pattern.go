package layout

import "brevium/core/paper"

// tries is how many fillings of one sheet are compared before the best is
// kept and repeated.
const tries = 48

// patternShare is the part of the time that patterns may take.
const patternShare = 0.1

// patterns fills sheet after sheet: the best of many random fillings of one
// sheet, by area used for its price, is cut as often as the copies allow
// (Gilmore and Gomory's patterns, 1965, found by trial). It suits batches of
// many equal pieces. It gives nil when the sheets run out, or when told to
// stop.
func (s *searcher) patterns(stop func() bool) *plan {
	j := s.job
	left := make([]int, len(j.Pieces))
	total := 0
	for i, p := range j.Pieces {
		left[i] = p.Copies
		total += p.Copies
	}
	sheets := make([]int, len(j.Sheets))
	for i, k := range j.Sheets {
		sheets[i] = k.Count
	}
	out := &plan{}
	for total > 0 {
		best, uses := s.bestSheet(left, sheets, stop)
		if best.root == nil || stop() {
			return nil
		}
		repeat := total
		for i, n := range uses {
			if n > 0 {
				repeat = min(repeat, left[i]/n)
			}
		}
		if sheets[best.kind] != paper.Unlimited {
			repeat = min(repeat, sheets[best.kind])
			sheets[best.kind] -= repeat
		}
		for range repeat {
			out.sheets = append(out.sheets, best) // strips never change, so sheets may share them
		}
		for i, n := range uses {
			left[i] -= n * repeat
			total -= n * repeat
		}
	}
	return out
}

// dear is a sheet's price to divide by: what costs nothing costs next to
// nothing.
func (s *searcher) dear(kind int) float64 { return max(s.price[kind], 1e-6) }

// bestSheet gives the best filling of one sheet from what is left, and how
// often it uses each piece.
func (s *searcher) bestSheet(left, sheets []int, stop func() bool) (best sheetUse, uses []int) {
	value := 0.0
	for kind := range s.rooms {
		if sheets[kind] == 0 {
			continue
		}
		var pool []int
		for i, n := range left {
			// No more copies than could lie on one sheet.
			for range min(n, int(s.room[kind]/s.area[i])) {
				pool = append(pool, i)
			}
		}
		for range tries {
			if stop() {
				break
			}
			p := &plan{sheets: []sheetUse{{kind: kind}}, pool: append([]int(nil), pool...)}
			s.recreate(p)
			if v := p.sheets[0].used / s.dear(kind); v > value {
				value, best = v, p.sheets[0]
			}
		}
	}
	uses = make([]int, len(left))
	for _, piece := range best.root.pieces(nil) {
		uses[piece]++
	}
	return best, uses
}
