package design

import (
	"slices"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/style"
)

// MostLeans is how many leans a design reckons with at most, and LargestLean how
// large one is.
const (
	MostLeans   = 50
	LargestLean = 2 * measure.Millimetre
)

type leanFile struct {
	Card  string       `json:"card"`
	Fit   string       `json:"fit"`
	By    measure.Text `json:"by"`
	Way   string       `json:"way"` // tighter or looser
	Notes int          `json:"notes"`
	// From and To are its range, below 0 the tighter way; Spread is how much a box scatters.
	From   float64 `json:"from,omitempty"`
	To     float64 `json:"to,omitempty"`
	Spread float64 `json:"spread,omitempty"`
}

func (r *reader) leans(all []leanFile) {
	for i, f := range all {
		l := fit.Lean{Card: f.Card, Kind: f.Fit, Notes: f.Notes, From: measure.FromMM(f.From), To: measure.FromMM(f.To), Spread: measure.FromMM(f.Spread)}
		l.By = r.length(fault.Path("leans", i, "by"), f.By, 0)
		switch f.Way {
		case tighter:
			l.By = -l.By
		case looser:
		default:
			r.fail(fault.New(fault.UnknownChoice, fault.Path("leans", i, "way"), "notes say tighter or looser, not %q", f.Way))
		}
		r.in.Leans = append(r.in.Leans, l)
	}
}

// The ways in which a fit leans, in a file.
const (
	tighter = "tighter"
	looser  = "looser"
)

func writeLean(l fit.Lean) leanFile {
	way := looser
	if l.By < 0 {
		way = tighter
	}
	return leanFile{l.Card, l.Kind, mmText(l.By.Abs()), way, l.Notes, l.From.MM(), l.To.MM(), l.Spread.MM()}
}

func checkLeans(in *Inputs) error {
	if len(in.Leans) > MostLeans {
		return fault.New(fault.CountRange, "leans", "a box reckons with up to %d lessons of the logbook", MostLeans)
	}
	for i, l := range in.Leans {
		switch {
		case l.By.Abs() > LargestLean:
			return fault.New(fault.OutOfRange, fault.Path("leans", i, "by"), "what notes say moves a gap by up to 2 mm")
		case l.Spread < 0 || l.Spread > LargestLean || l.From.Abs() > LargestLean || l.To.Abs() > LargestLean:
			return fault.New(fault.OutOfRange, fault.Path("leans", i, "spread"), "what notes say of a spread is up to 2 mm")
		case l.Notes < 1:
			return fault.New(fault.CountRange, fault.Path("leans", i, "notes"), "a lesson rests on one note at least")
		}
	}
	return nil
}

// LeanFor is what a design reckons with of the notes on the card and kind of a fit;
// the zero one is none.
func (in *Inputs) LeanFor(p fit.Pair) fit.Lean {
	if p.Kind == nil {
		return fit.Lean{}
	}
	card := in.CardOf(p.Outer).Label()
	if i := slices.IndexFunc(in.Leans, func(l fit.Lean) bool { return l.Card == card && l.Kind == p.Kind.ID }); i >= 0 {
		return in.Leans[i]
	}
	return fit.Lean{}
}

// Reckon takes a lean in, in place of an earlier one of its card and kind; one by
// nothing sets that aside.
func (in *Inputs) Reckon(l fit.Lean) {
	in.Leans = slices.DeleteFunc(slices.Clone(in.Leans), func(x fit.Lean) bool { return x.Card == l.Card && x.Kind == l.Kind })
	if l.By != 0 {
		in.Leans = append(in.Leans, l)
	}
}

// account does the account of a pair with what stands between and what notes say.
func (in *Inputs) account(p fit.Pair, box *style.Box) fit.Account {
	return p.Do(between(in, p, box)).Leaning(in.LeanFor(p))
}

// Felt are the accounts that a hand feels: of parts that move in one another.
func (b *Built) Felt() []fit.Account {
	return slices.DeleteFunc(slices.Clone(b.Fits), func(a fit.Account) bool { return !a.Pair.Kind.Moves() })
}

// Lessons are those of what was learned that concern this box and are not reckoned
// with as they stand.
func (b *Built) Lessons(learned []fit.Lean) []fit.Lean {
	var out []fit.Lean
	for _, a := range b.Felt() {
		card := b.Inputs.CardOf(a.Pair.Outer).Label()
		for _, l := range learned {
			if l.Card == card && l.Kind == a.Pair.Kind.ID && b.Inputs.LeanFor(a.Pair) != l && !slices.Contains(out, l) {
				out = append(out, l)
			}
		}
	}
	return out
}

// Reckoned are the leans that this box's accounts have in them.
func (b *Built) Reckoned() []fit.Lean {
	var out []fit.Lean
	for _, a := range b.Fits {
		if l := b.Inputs.LeanFor(a.Pair); l.By != 0 && !slices.Contains(out, l) {
			out = append(out, l)
		}
	}
	return out
}
