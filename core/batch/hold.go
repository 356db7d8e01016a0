package batch

import (
	"slices"

	"brevium/core/drawer"
	"brevium/core/layout"
	"brevium/core/paper"
)

// Place is a placed piece: the nth on a sheet of a stock, each counted from 0.
type Place struct{ Stock, Sheet, N int }

// At finds a placed piece; the second value tells whether there is one there.
func At(stocks []Stock, at Place) (layout.Placed, bool) {
	if at.Stock < 0 || at.Stock >= len(stocks) || at.Sheet < 0 || at.Sheet >= len(stocks[at.Stock].Layout.Sheets) {
		return layout.Placed{}, false
	}
	placed := stocks[at.Stock].Layout.Sheets[at.Sheet].Placed
	if at.N < 0 || at.N >= len(placed) {
		return layout.Placed{}, false
	}
	return placed[at.N], true
}

// Keeps tells whether a placed piece is one that a hand keeps: held sheets
// come first in a layout.
func (s *Stock) Keeps(sheet int, p layout.Placed) bool {
	return sheet < len(s.Job.Held) && slices.ContainsFunc(s.Job.Held[sheet].Pieces, func(h layout.Placed) bool {
		return h.Piece == p.Piece && h.Rect == p.Rect && h.Turned == p.Turned && h.Turn == p.Turn
	})
}

// Keep gives the held pieces of a job after the one at a place was put where
// to says and kept there.
func Keep(stocks []Stock, at Place, to layout.Placed) []Held {
	return hold(stocks, at, func(n int, p layout.Placed) (layout.Placed, bool) {
		if n == at.N {
			return to, true
		}
		return p, stocks[at.Stock].Keeps(at.Sheet, p)
	})
}

// Near is where a piece comes to lie that is put down on a sheet which is cut by shape: touching what is
// kept there or the sheet's edges, where that is near.
func (s *Stock) Near(at Place, p layout.Placed) layout.Placed {
	if s.Shapes == nil {
		return p
	}
	sheet, was := at.Sheet, s.Layout.Sheets[at.Sheet].Placed[at.N]
	kind := slices.IndexFunc(s.Job.Sheets, func(x paper.Sheet) bool { return x.Name == s.Layout.Sheets[sheet].Sheet.Name })
	if kind < 0 {
		return p
	}
	var kept []layout.Placed
	if sheet < len(s.Job.Held) {
		for _, h := range s.Job.Held[sheet].Pieces {
			if h.Rect != was.Rect {
				kept = append(kept, h)
			}
		}
	}
	return s.Shapes.Near(kind, kept, p)
}

// Free gives the held pieces of a job after the one at a place was let go.
func Free(stocks []Stock, at Place) []Held {
	return hold(stocks, at, func(n int, p layout.Placed) (layout.Placed, bool) {
		return p, n != at.N && stocks[at.Stock].Keeps(at.Sheet, p)
	})
}

// KeepSheet gives the held pieces of a job after all those on the sheet of a
// place were kept where they lie, the one at the place where to says.
func KeepSheet(stocks []Stock, at Place, to layout.Placed) []Held {
	return hold(stocks, at, func(n int, p layout.Placed) (layout.Placed, bool) {
		if n == at.N {
			return to, true
		}
		return p, true
	})
}

// hold lists the held pieces of all stocks, those on the sheet of a place as
// which gives them. A kept sheet stands where it stood among those of its
// card, a new one behind them.
func hold(stocks []Stock, at Place, which func(n int, p layout.Placed) (layout.Placed, bool)) []Held {
	var out []Held
	for i := range stocks {
		s := &stocks[i]
		for sheet, h := range s.Job.Held {
			if i != at.Stock || sheet != at.Sheet {
				out = append(out, s.held(s.Job.Sheets[h.Sheet].Name, h.Pieces))
			}
		}
		if i != at.Stock {
			continue
		}
		laid := s.Layout.Sheets[at.Sheet]
		var pieces []layout.Placed
		for n, p := range laid.Placed {
			if q, keep := which(n, p); keep {
				pieces = append(pieces, q)
			}
		}
		if len(pieces) > 0 {
			before := len(out) - max(0, len(s.Job.Held)-1-at.Sheet)
			out = slices.Insert(out, before, s.held(laid.Sheet.Name, pieces))
		}
	}
	return out
}

// held is a sheet with its kept pieces, by their names.
func (s *Stock) held(sheet string, pieces []layout.Placed) Held {
	h := Held{Card: s.Card.Key(), Sheet: sheet}
	for _, p := range pieces {
		h.Pieces = append(h.Pieces, HeldPiece{Piece: s.Job.Pieces[p.Piece].Name, X: p.X, Y: p.Y, Turned: p.Turned, Turn: p.Turn})
	}
	return h
}

// ToBuy are the sheets that a job must buy, as lots for the drawer.
func ToBuy(stocks []Stock) []drawer.Lot {
	var out []drawer.Lot
	for _, t := range Takes(stocks) {
		if t.Lot == 0 {
			l := drawer.Lot{Card: t.Card, Sheet: t.Sheet.Name, Width: t.Sheet.Width, Height: t.Sheet.Height, Count: t.Count, Price: t.Price}
			l.Complete()
			out = append(out, l)
		}
	}
	return out
}

// Kept are the useful offcuts that a job leaves.
func Kept(stocks []Stock, work string) []drawer.Lot {
	var out []drawer.Lot
	for _, s := range stocks {
		out = append(out, drawer.Kept(s.Card, s.Layout, work)...)
	}
	return out
}
