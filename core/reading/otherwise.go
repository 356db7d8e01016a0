package reading

import (
	"cmp"
	"slices"
	"strings"

	"brevium/core/measure"
)

// Way is another way in which a text can be meant where it does not say: what is to be done, and the
// text with that said.
type Way struct{ Say, Text string }

// Ways are the other ways: along the other side of a blank, on one side alone where it was taken as
// on all, in another unit. Which of them make sense is for the reader of them to find out.
func (r *Reading) Ways(text string) (out []Way) {
	var all []Use // behind the sizes of pieces whose scores do not say along which side they lie
	for _, u := range r.Uses {
		p := r.Pieces[u.Piece]
		if u.What == Height && !p.Panel && p.Width != p.Height && slices.ContainsFunc(p.passes, func(x pass) bool { return x.from == along }) {
			all = append(all, u)
		}
	}
	other := func(uses []Use) Way {
		said := r.Again(text, func(u Use) (string, bool) {
			top := r.Pieces[u.Piece].Height
			return u.Text + " with the " + measure.Number(top, r.Unit, r.Unit.Tick()) + " side at the top", slices.Contains(spansOf(uses), u.Span)
		})
		names := make([]string, len(uses))
		for i, u := range uses {
			p := r.Pieces[u.Piece]
			names[i] = r.Voice.Say("the %s side of the %s", measure.Label(p.Height, r.Unit, r.Unit.Tick()), cmp.Or(p.Name, "blank"))
		}
		return Way{r.Voice.Say("Read it with %s at the top", Said(strings.Join(names, " "+r.Voice.Phrase("and")+" "))), said}
	}
	for i := range all {
		out = append(out, other(all[i:i+1]))
	}
	if len(all) > 1 {
		out = append(out, other(all))
	}
	for _, u := range r.Uses {
		if u.What == Score && r.Pieces[u.Piece].guessed {
			out = append(out, Way{
				r.Voice.Say("Read it with %s once, from the left of the %s", u.Text, cmp.Or(r.Pieces[u.Piece].Name, "blank")),
				text[:u.To] + " from the left" + text[u.To:],
			})
		}
	}
	if r.guessed {
		for _, unit := range []measure.Unit{measure.In, measure.CM, measure.MM} {
			if unit != r.Unit {
				out = append(out, Way{r.Voice.Say("Read it in %s", unitWords[unit]), strings.TrimRight(text, "\n ") + "\nAll in " + unitWords[unit] + "."})
			}
		}
	}
	return out
}

var unitWords = map[measure.Unit]string{measure.In: "inches", measure.CM: "cm", measure.MM: "mm"}

func spansOf(uses []Use) (out []Span) {
	for _, u := range uses {
		out = append(out, u.Span)
	}
	return out
}
